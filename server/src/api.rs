//! The API's own description: the OpenAPI document, derived from the handlers.

use crate::routes::{chain, device, health, listen, manuals, publish, recordings, screws};
use rocket::serde::json::Json;
use rocket::{Route, get, routes};
use utoipa::OpenApi;

/// The OpenAPI document.
#[derive(OpenApi)]
#[openapi(
    info(title = "Paso", description = "From the recording of a disassembly to a repair guide."),
    paths(
        health::health,
        recordings::bring,
        recordings::captions,
        manuals::shelf,
        manuals::create,
        manuals::import,
        manuals::view,
        manuals::put_away,
        manuals::remove,
        manuals::restore,
        manuals::edit,
        manuals::undo,
        manuals::redo,
        manuals::history,
        listen::listen,
        listen::sheet,
        listen::table,
        listen::read_table,
        listen::differences,
        listen::add_recording,
        chain::chain,
        chain::routes,
        chain::spots,
        chain::all_jobs,
        device::device,
        device::find,
        screws::screws,
        screws::table,
        screws::read_table,
        screws::mat,
        screws::mat_page,
        screws::map,
        publish::guide,
        publish::markdown,
        publish::json,
        publish::publish_revision,
        publish::revisions,
        publish::revision,
        publish::schema,
    )
)]
pub struct Api;

/// The OpenAPI document as the client generator reads it.
pub fn document() -> String {
    let mut text = Api::openapi().to_pretty_json().expect("the document is plain data");
    text.push('\n');
    text
}

#[get("/openapi.json")]
fn openapi() -> Json<utoipa::openapi::OpenApi> {
    Json(Api::openapi())
}

/// All routes under `/api`.
pub fn routes() -> Vec<Route> {
    routes![
        openapi,
        health::health,
        recordings::bring,
        recordings::captions,
        manuals::shelf,
        manuals::create,
        manuals::import,
        manuals::view,
        manuals::put_away,
        manuals::remove,
        manuals::restore,
        manuals::edit,
        manuals::undo,
        manuals::redo,
        manuals::history,
        listen::listen,
        listen::sheet,
        listen::table,
        listen::read_table,
        listen::differences,
        listen::add_recording,
        chain::chain,
        chain::routes,
        chain::spots,
        chain::all_jobs,
        device::device,
        screws::screws,
        screws::table,
        screws::read_table,
        screws::mat,
        screws::mat_page,
        screws::map,
        device::find,
        publish::guide,
        publish::markdown,
        publish::json,
        publish::publish_revision,
        publish::revisions,
        publish::revision,
        publish::schema,
    ]
}
