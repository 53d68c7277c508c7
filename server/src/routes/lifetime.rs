//! What was deleted and can be brought back, and the recordings that are kept.

use crate::problem::Problem;
use crate::store::{DeletedRow, KeptRecording, Store};
use paso_core::ids::RecordingId;
use rocket::http::Status;
use rocket::serde::json::Json;
use rocket::{State, delete, get};
use uuid::Uuid;

super::endpoints!(deleted, recordings, delete_recording);

/// Manuals that were deleted and not yet purged; each says until when it can be brought back.
#[utoipa::path(context_path = "/api", tag = "manuals", responses((status = 200, body = Vec<DeletedRow>)))]
#[get("/deleted")]
pub async fn deleted(store: &State<Store>) -> Result<Json<Vec<DeletedRow>>, Problem> {
    Ok(Json(store.deleted().await?))
}

#[utoipa::path(context_path = "/api", tag = "recordings", responses((status = 200, body = Vec<KeptRecording>)))]
#[get("/recordings")]
pub async fn recordings(store: &State<Store>) -> Result<Json<Vec<KeptRecording>>, Problem> {
    Ok(Json(store.recordings().await?))
}

/// Deletes a recording that no manual was made from.
#[utoipa::path(context_path = "/api", tag = "recordings", responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/recordings/<id>")]
pub async fn delete_recording(id: Uuid, store: &State<Store>) -> Result<Status, Problem> {
    store.delete_recording(RecordingId(id)).await?;
    Ok(Status::NoContent)
}
