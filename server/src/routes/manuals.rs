//! The shelf, manuals, and their edits.

use super::body::{Body, Unread, request_id, storable};
use crate::author::Author;
use crate::problem::Problem;
use crate::store::{Applied, EditRequest, HistoryEntry, ManualView, ShelfRow, Store, Way};
use paso_core::ids::{ManualId, RecordingId};
use paso_core::manual::check_names;
use rocket::data::ToByteUnit;
use rocket::http::Status;
use rocket::serde::json::Json;
use rocket::{State, delete, get, patch, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

super::endpoints!(shelf, create, import, view, put_away, remove, restore, edit, undo, redo, history);

/// Longest search, in characters.
const MAX_SEARCH: usize = 200;

#[utoipa::path(context_path = "/api", tag = "manuals", responses((status = 200, body = Vec<ShelfRow>), (status = 422, body = Problem)))]
#[get("/manuals?<find>&<archived>")]
pub async fn shelf(
    find: Option<&str>,
    archived: Result<bool, rocket::form::Errors<'_>>,
    store: &State<Store>,
) -> Result<Json<Vec<ShelfRow>>, Problem> {
    let find = find.unwrap_or_default();
    storable("find", find)?;
    if find.chars().count() > MAX_SEARCH {
        return Err(Problem::invalid("find", format!("Search for at most {MAX_SEARCH} characters.")));
    }
    // A missing value means "not archived"; a wrong one is refused.
    let archived = match archived {
        Ok(value) => value,
        Err(errors) if errors.iter().all(|e| matches!(e.kind, rocket::form::error::ErrorKind::Missing)) => false,
        Err(_) => return Err(Problem::invalid("archived", "archived is true or false.")),
    };
    Ok(Json(store.shelf(find, archived).await?))
}

/// A new manual, drafted from recordings that were brought before, or empty.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct NewManual {
    /// UUIDv7 made by the client, which the manual goes by; the same request sent twice makes one manual.
    #[serde(default)]
    pub id: Option<Uuid>,
    pub title: String,
    #[serde(default)]
    pub device: String,
    #[serde(default)]
    pub recordings: Vec<RecordingId>,
}

/// What was made.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct Made {
    pub id: ManualId,
}

#[utoipa::path(context_path = "/api", tag = "manuals", request_body = NewManual, responses((status = 201, body = Made), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/manuals", format = "json", data = "<new>")]
pub async fn create(new: Body<NewManual>, store: &State<Store>) -> Result<(Status, Json<Made>), Problem> {
    let new = new?.0;
    let title = new.title.trim();
    check_names(title, &new.device)?;
    if new.recordings.len() > 20 {
        return Err(Problem::invalid("recordings", "A manual is drafted from at most 20 recordings."));
    }
    let recordings: Vec<Uuid> = new.recordings.iter().map(|r| r.0).collect();
    let id = ManualId(new.id.unwrap_or_else(Uuid::now_v7));
    store.create(id, title, new.device.trim(), &recordings).await?;
    Ok((Status::Created, Json(Made { id })))
}

/// The body is a manual's own JSON. Under the id of the request (UUIDv7, made by the client) it stands on the shelf; the
/// same request sent twice makes one manual.
#[utoipa::path(context_path = "/api", tag = "manuals", params(("request" = Option<Uuid>, Query)), request_body(content = String, content_type = "application/json"), responses((status = 201, body = Made), (status = 422, body = Problem)))]
#[post("/manuals/import?<request>", data = "<json>")]
pub async fn import(
    request: Option<&str>,
    json: Unread<'_>,
    store: &State<Store>,
) -> Result<(Status, Json<Made>), Problem> {
    let json = json.text("manual", 16.mebibytes()).await?;
    if json.contains("\\u0000") {
        return Err(Problem::invalid("manual", "The manual holds a zero character (\\u0000). Take it out."));
    }
    let wanted = request.map(|id| request_id(Some(id))).transpose()?;
    let id = store.import(&json, wanted.map(ManualId)).await?;
    Ok((Status::Created, Json(Made { id })))
}

#[utoipa::path(context_path = "/api", tag = "manuals", responses((status = 200, body = ManualView), (status = 404, body = Problem)))]
#[get("/manuals/<id>")]
pub async fn view(id: Uuid, author: Author, store: &State<Store>) -> Result<Json<ManualView>, Problem> {
    Ok(Json(store.view(ManualId(id), &author.0).await?))
}

/// What can be changed of a manual's place on the shelf; its contents change by edits.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct ShelfChange {
    pub archived: bool,
}

#[utoipa::path(context_path = "/api", tag = "manuals", request_body = ShelfChange, responses((status = 204), (status = 404, body = Problem)))]
#[patch("/manuals/<id>", format = "json", data = "<change>")]
pub async fn put_away(id: Uuid, change: Body<ShelfChange>, store: &State<Store>) -> Result<Status, Problem> {
    store.archive(ManualId(id), change?.0.archived).await?;
    Ok(Status::NoContent)
}

#[utoipa::path(context_path = "/api", tag = "manuals", responses((status = 204), (status = 404, body = Problem)))]
#[delete("/manuals/<id>")]
pub async fn remove(id: Uuid, store: &State<Store>) -> Result<Status, Problem> {
    store.delete(ManualId(id)).await?;
    Ok(Status::NoContent)
}

#[utoipa::path(context_path = "/api", tag = "manuals", responses((status = 204), (status = 404, body = Problem)))]
#[post("/manuals/<id>/restore")]
pub async fn restore(id: Uuid, store: &State<Store>) -> Result<Status, Problem> {
    store.restore(ManualId(id)).await?;
    Ok(Status::NoContent)
}

#[utoipa::path(context_path = "/api", tag = "edits", request_body = EditRequest, responses((status = 200, body = Applied), (status = 404, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/manuals/<id>/edits", format = "json", data = "<request>")]
pub async fn edit(
    id: Uuid,
    author: Author,
    request: Body<EditRequest>,
    store: &State<Store>,
) -> Result<Json<Applied>, Problem> {
    let request = request?.0;
    Ok(Json(store.edit(ManualId(id), &author.0, &request).await?))
}

/// With an id (UUIDv7, made by the client) the same request sent twice is done once.
#[utoipa::path(context_path = "/api", tag = "edits", params(("request" = Option<Uuid>, Query)), responses((status = 200, body = Applied), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/manuals/<id>/undo?<request>")]
pub async fn undo(
    id: Uuid,
    request: Option<&str>,
    author: Author,
    store: &State<Store>,
) -> Result<Json<Applied>, Problem> {
    Ok(Json(store.step(ManualId(id), &author.0, Way::Undo, request_id(request)?).await?))
}

/// With an id (UUIDv7, made by the client) the same request sent twice is done once.
#[utoipa::path(context_path = "/api", tag = "edits", params(("request" = Option<Uuid>, Query)), responses((status = 200, body = Applied), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/manuals/<id>/redo?<request>")]
pub async fn redo(
    id: Uuid,
    request: Option<&str>,
    author: Author,
    store: &State<Store>,
) -> Result<Json<Applied>, Problem> {
    Ok(Json(store.step(ManualId(id), &author.0, Way::Redo, request_id(request)?).await?))
}

#[utoipa::path(context_path = "/api", tag = "edits", responses((status = 200, body = Vec<HistoryEntry>), (status = 404, body = Problem)))]
#[get("/manuals/<id>/history")]
pub async fn history(id: Uuid, store: &State<Store>) -> Result<Json<Vec<HistoryEntry>>, Problem> {
    const LATEST: u64 = 200;
    Ok(Json(store.history(ManualId(id), LATEST).await?))
}
