//! The Screws stop: everything worked out, the ledger as a table, the mat and the hole maps to print.

use super::body::Unread;
use super::listen::{MAX_TABLE, TableRead, bad_rows};
use super::publish::{Download, whole_or_cut};
use crate::problem::Problem;
use crate::store::Store;
use paso_core::fasteners::joints::joints;
use paso_core::fasteners::kinds::sort;
use paso_core::fasteners::ledger::ledger;
use paso_core::fasteners::map::{layer_map, layer_svg};
use paso_core::fasteners::mat::{Paper, pages};
use paso_core::fasteners::table::{from_csv, to_csv};
use paso_core::ids::{LayerId, ManualId};
use paso_core::manual::{Edit, FastenerEdit, Manual};
use paso_core::stops::screws::{ScrewsView, view};
use rocket::data::ToByteUnit;
use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{State, get, post};
use uuid::Uuid;

super::endpoints!(screws, table, read_table, mat, mat_page, map);

/// All that the stop shows; with a job only what that job touches.
#[utoipa::path(context_path = "/api", tag = "screws", params(("job" = Option<String>, Query)), responses((status = 200, body = ScrewsView), (status = 404, body = Problem)))]
#[get("/manuals/<id>/screws?<job>")]
pub async fn screws(id: Uuid, job: Option<&str>, store: &State<Store>) -> Result<Json<ScrewsView>, Problem> {
    Ok(Json(view(&*whole_or_cut(store, id, job).await?)))
}

/// The ledger as CSV.
#[utoipa::path(operation_id = "screw_table", context_path = "/api", tag = "screws", params(("job" = Option<String>, Query)), responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/screws.csv?<job>")]
pub async fn table(id: Uuid, job: Option<&str>, store: &State<Store>) -> Result<Download, Problem> {
    let manual = whole_or_cut(store, id, job).await?;
    let csv = to_csv(&manual, &ledger(&manual, &sort(&manual)).rows);
    Ok(Download::new(&format!("{} screws", manual.head.title), "csv", ContentType::CSV, csv))
}

/// The body is a list of fasteners. Nothing is changed here; the edits that come back are sent like any others.
#[utoipa::path(operation_id = "read_screw_table", context_path = "/api", tag = "screws", request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = TableRead), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/manuals/<id>/screws", data = "<file>")]
pub async fn read_table(id: Uuid, file: Unread<'_>, store: &State<Store>) -> Result<Json<TableRead>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let edits = from_csv(&manual, &file.whole("table", MAX_TABLE.bytes()).await?).map_err(bad_rows)?;
    TableRead::of(edits, |edits| Edit::Fastener(FastenerEdit::Several { edits })).map(Json)
}

fn sheets(manual: &Manual, paper: Option<&str>) -> Result<Vec<String>, Problem> {
    let name = paper.unwrap_or("a4");
    let paper = Paper::from_name(name)
        .ok_or_else(|| Problem::invalid("paper", format!("“{name}” is no paper. Write a4 or letter.")))?;
    let sorted = sort(manual);
    Ok(pages(manual, &sorted, &ledger(manual, &sorted).rows, paper))
}

/// All pages of the mat with the gauge, ready to print at their true size.
#[utoipa::path(context_path = "/api", tag = "screws", params(("paper" = Option<String>, Query), ("job" = Option<String>, Query)), responses((status = 200, body = String, content_type = "text/html"), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/manuals/<id>/mat?<paper>&<job>")]
pub async fn mat(
    id: Uuid,
    paper: Option<&str>,
    job: Option<&str>,
    store: &State<Store>,
) -> Result<(ContentType, String), Problem> {
    let manual = whole_or_cut(store, id, job).await?;
    let pages = sheets(&manual, paper)?;
    let size = if paper.is_some_and(|p| p.eq_ignore_ascii_case("letter")) { "letter" } else { "A4" };
    let style = format!(
        "@page {{ size: {size}; margin: 0 }} body {{ margin: 0 }} svg {{ display: block; break-after: page; background: #fff }}"
    );
    let html = format!(
        "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>Screw mat</title><style>{style}</style></head><body>{}</body></html>",
        pages.concat()
    );
    Ok((ContentType::HTML, html))
}

/// One page of the mat, from 1.
#[utoipa::path(context_path = "/api", tag = "screws", params(("paper" = Option<String>, Query), ("job" = Option<String>, Query)), responses((status = 200, body = String, content_type = "image/svg+xml"), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/manuals/<id>/mat/<page>?<paper>&<job>")]
pub async fn mat_page(
    id: Uuid,
    page: usize,
    paper: Option<&str>,
    job: Option<&str>,
    store: &State<Store>,
) -> Result<(ContentType, String), Problem> {
    let manual = whole_or_cut(store, id, job).await?;
    let mut pages = sheets(&manual, paper)?;
    let at = page.checked_sub(1).filter(|at| *at < pages.len()).ok_or_else(|| Problem::not_found("page of the mat"))?;
    Ok((ContentType::SVG, pages.swap_remove(at)))
}

/// The holes of a layer at true scale, numbered in the order of tightening.
#[utoipa::path(context_path = "/api", tag = "screws", params(("job" = Option<String>, Query)), responses((status = 200, body = String, content_type = "image/svg+xml"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/layers/<layer>/map?<job>")]
pub async fn map(
    id: Uuid,
    layer: Uuid,
    job: Option<&str>,
    store: &State<Store>,
) -> Result<(ContentType, String), Problem> {
    let manual = whole_or_cut(store, id, job).await?;
    let layer = manual.layers.get(&LayerId(layer)).ok_or_else(|| Problem::not_found("layer in this manual"))?;
    let map = layer_map(&manual, layer, &sort(&manual), &joints(&manual));
    Ok((ContentType::SVG, layer_svg(&map)))
}
