//! The Cables stop: connectors, the power along the steps, and both as a table.

use super::body::Unread;
use super::listen::{MAX_TABLE, TableRead, bad_rows};
use super::publish::{Download, whole_or_cut};
use crate::problem::Problem;
use crate::store::Store;
use paso_core::cables::table::{from_csv, to_csv};
use paso_core::ids::ManualId;
use paso_core::manual::{ConnectorEdit, Edit};
use paso_core::stops::cables::{CablesView, view};
use rocket::data::ToByteUnit;
use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{State, get, post};
use uuid::Uuid;

super::endpoints!(cables, table, read_table);

/// All that the stop shows; with a job only what that job touches.
#[utoipa::path(context_path = "/api", tag = "cables", params(("job" = Option<String>, Query)), responses((status = 200, body = CablesView), (status = 404, body = Problem)))]
#[get("/manuals/<id>/cables?<job>")]
pub async fn cables(id: Uuid, job: Option<&str>, store: &State<Store>) -> Result<Json<CablesView>, Problem> {
    Ok(Json(view(&*whole_or_cut(store, id, job).await?)))
}

/// The connectors as CSV.
#[utoipa::path(operation_id = "cable_table", context_path = "/api", tag = "cables", params(("job" = Option<String>, Query)), responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/cables.csv?<job>")]
pub async fn table(id: Uuid, job: Option<&str>, store: &State<Store>) -> Result<Download, Problem> {
    let manual = whole_or_cut(store, id, job).await?;
    Ok(Download::new(&format!("{} cables", manual.head.title), "csv", ContentType::CSV, to_csv(&manual)))
}

/// The body is a list of connectors. Nothing is changed here; the edits that come back are sent like any others.
#[utoipa::path(operation_id = "read_cable_table", context_path = "/api", tag = "cables", request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = TableRead), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/manuals/<id>/cables", data = "<file>")]
pub async fn read_table(id: Uuid, file: Unread<'_>, store: &State<Store>) -> Result<Json<TableRead>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let edits = from_csv(&manual, &file.whole("table", MAX_TABLE.bytes()).await?).map_err(bad_rows)?;
    TableRead::of(edits, |edits| Edit::Connector(ConnectorEdit::Several { edits })).map(Json)
}
