//! The JSON Schema of a manual, derived from the types so that it cannot drift from them.

use crate::manual::{FORMAT, Manual};
use serde_json::{Value, json};
use utoipa::openapi::{ComponentsBuilder, RefOr};
use utoipa::{PartialSchema, ToSchema};

/// JSON Schema 2020-12 of the manual's own JSON.
///
/// OpenAPI 3.1 schemas *are* JSON Schema 2020-12, so one derive serves the API and this.
pub fn manual_schema() -> Value {
    let mut schemas = Vec::new();
    <Manual as ToSchema>::schemas(&mut schemas);
    let components = schemas
        .into_iter()
        .fold(ComponentsBuilder::new(), |c, (name, schema): (String, RefOr<_>)| c.schema(name, schema));
    let mut out = serde_json::to_value(<Manual as PartialSchema>::schema()).expect("a schema is plain data");
    out["$schema"] = json!("https://json-schema.org/draft/2020-12/schema");
    out["$id"] = json!(format!("urn:paso:manual:{FORMAT}"));
    out["title"] = json!("A Paso manual");
    out["components"] = serde_json::to_value(components.build()).expect("schemas are plain data");
    out
}
