//! What does not fit, of every rule and every stop, as one list.

use super::publish::whole_or_cut;
use crate::problem::Problem;
use crate::store::Store;
use paso_core::checks::FindingsView;
use paso_core::ids::ManualId;
use rocket::serde::json::Json;
use rocket::{State, get};
use uuid::Uuid;

super::endpoints!(findings);

/// The findings of the whole manual with those of its recordings, or of what one of its jobs cuts from it.
#[utoipa::path(context_path = "/api", tag = "findings", params(("job" = Option<String>, Query)), responses((status = 200, body = FindingsView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/manuals/<id>/findings?<job>")]
pub async fn findings(id: Uuid, job: Option<&str>, store: &State<Store>) -> Result<Json<FindingsView>, Problem> {
    let manual = whole_or_cut(store, id, job).await?;
    let mut heard = store.heard(ManualId(id), &manual).await?;
    // A guide for one job answers for its steps; the rest of the recordings is the manual's.
    heard.retain(|f| manual.cut.is_none() || f.blocks);
    Ok(Json(FindingsView::new(&manual, heard)))
}
