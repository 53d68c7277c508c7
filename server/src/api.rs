//! The API's own description: the OpenAPI document, derived from the handlers.

use crate::routes;
use rocket::serde::json::{Json, Value, json};
use rocket::{Route, get};
use serde_json::Map;
use utoipa::OpenApi;

/// What is said of the API as a whole.
#[derive(OpenApi)]
#[openapi(info(title = "Paso", description = "From the recording of a disassembly to a repair guide."))]
struct Api;

/// The OpenAPI document of all routes.
fn description() -> Value {
    let whole = routes::all().into_iter().fold(Api::openapi(), |whole, part| whole.merge_from(part.document));
    let mut document = serde_json::to_value(whole).expect("the document is plain data");
    let paths = document["paths"].as_object_mut().into_iter().flat_map(|paths| paths.values_mut());
    for operation in paths.filter_map(Value::as_object_mut).flat_map(|methods| methods.values_mut()) {
        if let Some(responses) = operation["responses"].as_object_mut() {
            tell_problems(responses);
        }
    }
    document
}

/// What every operation may answer is said here once: a problem document of any other status.
fn tell_problems(responses: &mut Map<String, Value>) {
    const PROBLEM: &str = "#/components/schemas/Problem";
    for content in responses.values_mut().filter_map(|r| r.get_mut("content")?.as_object_mut()) {
        if content.get("application/json").is_some_and(|c| c["schema"]["$ref"] == PROBLEM) {
            let schema = content.remove("application/json").expect("just seen");
            content.insert("application/problem+json".to_owned(), schema);
        }
    }
    let problem = json!({ "application/problem+json": { "schema": { "$ref": PROBLEM } } });
    let says = "Anything else that goes wrong, in a sentence";
    responses.insert("default".to_owned(), json!({ "description": says, "content": problem }));
}

/// The OpenAPI document as the client generator reads it.
pub fn document() -> String {
    format!("{:#}\n", description())
}

#[get("/openapi.json")]
fn openapi() -> Json<Value> {
    Json(description())
}

/// All routes under `/api`.
pub fn routes() -> Vec<Route> {
    let handlers = routes::all().into_iter().flat_map(|part| part.routes);
    rocket::routes![openapi].into_iter().chain(handlers).collect()
}
