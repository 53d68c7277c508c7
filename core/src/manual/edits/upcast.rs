//! Old files in, today's manual out.
//!
//! Every format version that was ever written has a fixture in the tests and, once it is old, a function here that
//! turns its JSON into the next version's. A file from a newer program is refused by name instead of read wrongly.

use crate::manual::{FORMAT, Manual};
use serde_json::Value;
use thiserror::Error;

/// Why a JSON document is no manual.
#[derive(Debug, Error)]
pub enum UpcastError {
    #[error("The file is not JSON: {0}. Bring a manual that was saved as JSON.")]
    NotJson(String),
    #[error("The file has no “format” number, so it is no manual. Bring a manual that was saved as JSON.")]
    NoFormat,
    #[error("The manual has format {found}; this program reads formats 1 to {FORMAT}. Open it with a newer version.")]
    TooNew { found: u64 },
    #[error("The manual does not fit its format: {0}.")]
    Shape(String),
    #[error(
        "The manual holds “{0}”, which this format does not have. Nothing is dropped silently: take it out, or correct its name."
    )]
    Unknown(String),
    #[error("The manual contradicts itself: {0}.")]
    Broken(String),
}

/// One step up: from the version of its place (from 1) to the next.
const UPCASTERS: [fn(Value) -> Value; FORMAT as usize - 1] =
    [additions, additions, marks, waypoints, additions, additions, additions];

/// Formats 2, 3, 7 and 8 grew by fields that stand for nothing where they are missing, format 6 by a hazard: all that older files
/// lack are those.
fn additions(manual: Value) -> Value {
    manual
}

/// Until format 3 a joint told where to enter in one text; now that is its first mark, which goes by the joint's own id.
fn marks(mut manual: Value) -> Value {
    let seams = manual.get_mut("seams").and_then(Value::as_object_mut);
    for seam in seams.into_iter().flat_map(|s| s.values_mut()).filter_map(Value::as_object_mut) {
        let told = seam.remove("entry").filter(Value::is_string);
        let mark = told.map(|told| {
            let nothing = Value::Null;
            serde_json::json!({
                "id": seam.get("id"), "kind": "entry", "landmark": told, "evidence": seam.get("evidence"),
                "at": nothing, "over": nothing, "depth_mm": nothing, "tool": nothing, "part": nothing, "count": nothing,
            })
        });
        seam.insert("marks".to_owned(), mark.into_iter().collect());
    }
    manual
}

/// Until format 4 a cable passed places that were only told; now each can stand on a layer.
fn waypoints(mut manual: Value) -> Value {
    let connectors = manual.get_mut("connectors").and_then(Value::as_object_mut);
    for connector in connectors.into_iter().flat_map(|c| c.values_mut()) {
        for place in connector.get_mut("route").and_then(Value::as_array_mut).into_iter().flatten() {
            *place = serde_json::json!({ "what": place.take() });
        }
    }
    manual
}

/// Reads a manual that comes from outside, of any known format.
///
/// # Errors
/// A sentence that says what does not fit.
pub fn from_json(text: &str) -> Result<Manual, UpcastError> {
    let mut unknown = None;
    let manual: Manual = serde_ignored::deserialize(upcast(text)?, |path| {
        unknown.get_or_insert_with(|| path.to_string());
    })
    .map_err(|e| UpcastError::Shape(e.to_string()))?;
    if let Some(field) = unknown {
        return Err(UpcastError::Unknown(field));
    }
    manual.check_all().map_err(UpcastError::Broken)?;
    Ok(manual)
}

/// Reads a manual that this program wrote itself. It was judged when it came, by the rules of that day; if stricter ones
/// hold today, it must still open.
///
/// # Errors
/// A sentence that says what does not fit.
pub fn from_stored(text: &str) -> Result<Manual, UpcastError> {
    serde_json::from_value(upcast(text)?).map_err(|e| UpcastError::Shape(e.to_string()))
}

/// Today's JSON of a manual of any known format.
fn upcast(text: &str) -> Result<Value, UpcastError> {
    let mut value: Value = serde_json::from_str(text).map_err(|e| UpcastError::NotJson(e.to_string()))?;
    let found = value.get("format").and_then(Value::as_u64).ok_or(UpcastError::NoFormat)?;
    if found == 0 || found > u64::from(FORMAT) {
        return Err(UpcastError::TooNew { found });
    }
    for up in UPCASTERS.iter().skip(found as usize - 1) {
        value = up(value);
    }
    value["format"] = FORMAT.into();
    Ok(value)
}
