//! The Steps stop: margins, parts and tools, and find over all words of a manual.

use crate::problem::Problem;
use crate::store::Store;
use paso_core::ids::ManualId;
use paso_core::manual::{TextHit, Wanted};
use paso_core::stops::steps::{StepsView, view};
use rocket::serde::json::Json;
use rocket::{State, get};
use uuid::Uuid;

super::endpoints!(steps, find);

#[utoipa::path(context_path = "/api", tag = "steps", responses((status = 200, body = StepsView), (status = 404, body = Problem)))]
#[get("/manuals/<id>/steps")]
pub async fn steps(id: Uuid, store: &State<Store>) -> Result<Json<StepsView>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    Ok(Json(view(&manual)))
}

/// Every text of the manual that holds some words, in the order of the page.
#[utoipa::path(context_path = "/api", tag = "steps", params(("find" = String, Query), ("match_case" = Option<bool>, Query), ("whole_words" = Option<bool>, Query)), responses((status = 200, body = Vec<TextHit>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/manuals/<id>/find?<find>&<match_case>&<whole_words>")]
pub async fn find(
    id: Uuid,
    find: &str,
    match_case: Option<bool>,
    whole_words: Option<bool>,
    store: &State<Store>,
) -> Result<Json<Vec<TextHit>>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let wanted = Wanted {
        find: find.to_owned(),
        match_case: match_case.unwrap_or_default(),
        whole_words: whole_words.unwrap_or_default(),
    };
    Ok(Json(manual.find(&wanted)?))
}
