//! The API under `/api`: a file for the shelf, the edits, the findings, and one for each stop.
//!
//! A file names its handlers once, by [`endpoints!`]; from that come its routes and its part of the API's description. A
//! new file is a `mod` line and a line in [`all`].

pub mod chain;
pub mod findings;
pub mod health;
pub mod listen;
pub mod manuals;
pub mod publish;
pub mod recordings;
pub mod screws;
pub mod steps;

use crate::problem::Problem;
use rocket::Route;
use rocket::serde::json::{self, Json};
use utoipa::openapi::OpenApi;

/// What one file answers: its routes, and how it describes them.
pub struct Endpoints {
    pub routes: Vec<Route>,
    pub document: OpenApi,
}

/// Everything under `/api`.
pub fn all() -> Vec<Endpoints> {
    vec![
        health::endpoints(),
        recordings::endpoints(),
        manuals::endpoints(),
        findings::endpoints(),
        listen::endpoints(),
        steps::endpoints(),
        chain::endpoints(),
        screws::endpoints(),
        publish::endpoints(),
    ]
}

/// Names the handlers of a file.
macro_rules! endpoints {
    ($($handler:ident),+ $(,)?) => {
        #[derive(utoipa::OpenApi)]
        #[openapi(paths($($handler),+))]
        struct Document;

        /// What this file answers.
        pub fn endpoints() -> $crate::routes::Endpoints {
            $crate::routes::Endpoints {
                routes: rocket::routes![$($handler),+],
                document: <Document as utoipa::OpenApi>::openapi(),
            }
        }
    };
}
use endpoints;

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
