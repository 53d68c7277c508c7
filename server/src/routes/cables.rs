//! The Cables stop: connectors, the power along the steps, and both as a table.

use super::body::Unread;
use super::listen::{MAX_TABLE, TableRead, bad_rows};
use super::publish::{Download, whole_or_cut};
use crate::problem::Problem;
use crate::store::Store;
use paso_core::cables::routes::{layers, routes_svg};
use paso_core::cables::table::{from_csv, to_csv};
use paso_core::ids::{LayerId, ManualId};
use paso_core::manual::{ConnectorEdit, Edit};
use paso_core::stops::cables::{CablesView, view};
use rocket::data::ToByteUnit;
use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{State, get, post};
use uuid::Uuid;

super::endpoints!(cables, table, read_table, routes);

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

/// The ways of the cables on a layer, drawn at true scale; its words are the picture's title.
#[utoipa::path(operation_id = "cable_routes", context_path = "/api", tag = "cables", params(("job" = Option<String>, Query)), responses((status = 200, body = String, content_type = "image/svg+xml"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/layers/<layer>/cables?<job>")]
pub async fn routes(
    id: Uuid,
    layer: Uuid,
    job: Option<&str>,
    store: &State<Store>,
) -> Result<(ContentType, String), Problem> {
    let manual = whole_or_cut(store, id, job).await?;
    let drawn = layers(&manual).into_iter().find(|l| l.layer == LayerId(layer));
    let drawn = drawn.ok_or_else(|| Problem::not_found("layer in this manual"))?;
    Ok((ContentType::SVG, routes_svg(&drawn)))
}
