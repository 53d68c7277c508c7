//! A manual with its recordings and revisions, out and in as one file.

use super::body::Unread;
use super::manuals::Made;
use super::publish::Download;
use crate::bundle::Bundle;
use crate::problem::Problem;
use crate::store::{Store, StoreError};
use paso_core::ids::ManualId;
use rocket::data::ToByteUnit;
use rocket::http::{ContentType, Status};
use rocket::serde::json::Json;
use rocket::{State, get, post};
use uuid::Uuid;

super::endpoints!(export_bundle, import_bundle);

/// Largest bundle that is taken, packed.
const MAX_BYTES: usize = 64_000_000;

#[utoipa::path(context_path = "/api", tag = "manuals", responses((status = 200, body = String, content_type = "application/zip"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/bundle.zip")]
pub async fn export_bundle(id: Uuid, store: &State<Store>) -> Result<Download<Vec<u8>>, Problem> {
    let bundle = store.bundle(ManualId(id)).await?;
    let (_, manual) = store.manual(ManualId(id)).await?;
    let packed = bundle.pack().map_err(|e| StoreError::Stored(e.to_string()))?;
    Ok(Download::new(&manual.head.title, "zip", ContentType::ZIP, packed))
}

/// The body is a bundle that was exported here or elsewhere.
#[utoipa::path(context_path = "/api", tag = "manuals", request_body(content = String, content_type = "application/zip"), responses((status = 201, body = Made), (status = 413, body = Problem), (status = 422, body = Problem)))]
#[post("/bundles", data = "<file>")]
pub async fn import_bundle(file: Unread<'_>, store: &State<Store>) -> Result<(Status, Json<Made>), Problem> {
    let bytes = file.whole("bundle", MAX_BYTES.bytes()).await?;
    let bundle = Bundle::open(&bytes).map_err(|e| Problem::invalid("bundle", e.to_string()))?;
    let id = store.unbundle(bundle).await?;
    Ok((Status::Created, Json(Made { id })))
}
