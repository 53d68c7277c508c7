//! The Cautions stop: what can hurt or break along the steps, and how it is warned of.

use super::publish::whole_or_cut;
use crate::problem::Problem;
use crate::store::Store;
use paso_core::stops::cautions::{CautionsView, view};
use rocket::serde::json::Json;
use rocket::{State, get};
use uuid::Uuid;

super::endpoints!(cautions);

/// All that the stop shows; with a job only what that job touches.
#[utoipa::path(context_path = "/api", tag = "cautions", params(("job" = Option<String>, Query)), responses((status = 200, body = CautionsView), (status = 404, body = Problem)))]
#[get("/manuals/<id>/cautions?<job>")]
pub async fn cautions(id: Uuid, job: Option<&str>, store: &State<Store>) -> Result<Json<CautionsView>, Problem> {
    Ok(Json(view(&*whole_or_cut(store, id, job).await?)))
}
