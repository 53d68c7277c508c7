//! The API under `/api`, one file a resource.

pub mod chain;
pub mod device;
pub mod health;
pub mod listen;
pub mod manuals;
pub mod publish;
pub mod recordings;
pub mod screws;

use crate::problem::Problem;
use rocket::serde::json::{self, Json};

/// A JSON body that the handler itself judges, so that a wrong one is refused with the line and the reason.
pub type Body<'r, T> = Result<Json<T>, json::Error<'r>>;

/// The body, or the sentence that says what is wrong with it.
pub fn body<T>(body: Body<'_, T>) -> Result<T, Problem> {
    match body {
        Ok(Json(value)) => Ok(value),
        Err(json::Error::Io(e)) => Err(Problem::invalid("body", format!("The request could not be read: {e}."))),
        Err(json::Error::Parse(_, e)) => {
            Err(Problem::invalid("body", format!("The request is not of the expected shape: {e}.")))
        }
    }
}

/// Text that a database can hold: no zero characters.
pub fn storable(field: &'static str, text: &str) -> Result<(), Problem> {
    if text.contains('\0') {
        return Err(Problem::invalid(field, "The text holds a zero character. Take it out."));
    }
    Ok(())
}
