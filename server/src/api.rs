//! The API's own description: the OpenAPI document, derived from the handlers.

use crate::routes;
use rocket::serde::json::Json;
use rocket::{Route, get};
use utoipa::OpenApi;

/// What is said of the API as a whole.
#[derive(OpenApi)]
#[openapi(info(title = "Paso", description = "From the recording of a disassembly to a repair guide."))]
struct Api;

/// The OpenAPI document of all routes.
fn description() -> utoipa::openapi::OpenApi {
    routes::all().into_iter().fold(Api::openapi(), |whole, part| whole.merge_from(part.document))
}

/// The OpenAPI document as the client generator reads it.
pub fn document() -> String {
    let mut text = description().to_pretty_json().expect("the document is plain data");
    text.push('\n');
    text
}

#[get("/openapi.json")]
fn openapi() -> Json<utoipa::openapi::OpenApi> {
    Json(description())
}

/// All routes under `/api`.
pub fn routes() -> Vec<Route> {
    let handlers = routes::all().into_iter().flat_map(|part| part.routes);
    rocket::routes![openapi].into_iter().chain(handlers).collect()
}
