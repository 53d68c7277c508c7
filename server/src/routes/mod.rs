//! The API under `/api`: a file for the shelf, the edits, the findings, and one for each stop.
//!
//! A file names its handlers once, by [`endpoints!`]; from that come its routes and its part of the API's description. A
//! new file is a `mod` line and a line in [`all`].

pub mod body;
pub mod bundle;
mod cables;
mod cautions;
pub mod chain;
pub mod findings;
pub mod health;
pub mod lifetime;
pub mod listen;
pub mod manuals;
pub mod publish;
pub mod recordings;
pub mod screws;
mod seams;
pub mod steps;

use rocket::Route;
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
        lifetime::endpoints(),
        bundle::endpoints(),
        manuals::endpoints(),
        findings::endpoints(),
        listen::endpoints(),
        steps::endpoints(),
        chain::endpoints(),
        screws::endpoints(),
        seams::endpoints(),
        cables::endpoints(),
        cautions::endpoints(),
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
