//! Whether the server and its database answer.

use crate::store::Store;
use rocket::http::Status;
use rocket::serde::json::Json;
use rocket::{State, get};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

super::endpoints!(health, live);

/// State of the server.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct Health {
    pub ok: bool,
    pub database: bool,
    pub version: String,
}

/// Whether the process answers at all; a database that is away is no reason to start it anew.
#[utoipa::path(context_path = "/api", tag = "server", responses((status = 204)))]
#[get("/live")]
pub fn live() -> Status {
    Status::NoContent
}

/// Whether it is ready for work: the database answers.
#[utoipa::path(context_path = "/api", tag = "server", responses((status = 200, body = Health), (status = 503, body = Health)))]
#[get("/health")]
pub async fn health(store: &State<Store>) -> (Status, Json<Health>) {
    let database = store.ping().await;
    let status = if database { Status::Ok } else { Status::ServiceUnavailable };
    (status, Json(Health { ok: database, database, version: env!("CARGO_PKG_VERSION").to_owned() }))
}
