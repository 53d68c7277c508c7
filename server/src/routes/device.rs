//! The device as tables, what does not fit together, and find over all words of a manual.

use crate::problem::Problem;
use crate::store::Store;
use paso_core::device::{DeviceView, view};
use paso_core::ids::ManualId;
use paso_core::manual::{TextHit, Wanted};
use rocket::serde::json::Json;
use rocket::{State, get};
use uuid::Uuid;

#[utoipa::path(context_path = "/api", tag = "device", responses((status = 200, body = DeviceView), (status = 404, body = Problem)))]
#[get("/manuals/<id>/device")]
pub async fn device(id: Uuid, store: &State<Store>) -> Result<Json<DeviceView>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    Ok(Json(view(&manual)))
}

/// Every text of the manual that holds some words, in the order of the page.
#[utoipa::path(context_path = "/api", tag = "device", params(("find" = String, Query), ("match_case" = Option<bool>, Query), ("whole_words" = Option<bool>, Query)), responses((status = 200, body = Vec<TextHit>), (status = 404, body = Problem), (status = 422, body = Problem)))]
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
