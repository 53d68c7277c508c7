//! The API under `/api`: a file for the shelf, the edits, the findings, and one for each stop.
//!
//! A file names its handlers once, by [`endpoints!`]; from that come its routes and its part of the API's description. A
//! new file is a `mod` line and a line in [`all`].

pub mod bundle;
pub mod chain;
pub mod findings;
pub mod health;
pub mod lifetime;
pub mod listen;
pub mod manuals;
pub mod publish;
pub mod recordings;
pub mod screws;
pub mod steps;

use crate::problem::Problem;
use rocket::data::{ByteUnit, Data, FromData, Limits, Outcome};
use rocket::http::Status;
use rocket::{Request, Route};
use serde::de::DeserializeOwned;
use utoipa::openapi::OpenApi;
use uuid::Uuid;

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

/// A JSON body that the handler itself judges, so that a wrong one is refused with the place and the reason.
pub type Body<T> = Result<Strict<T>, Problem>;

/// A value of which no field was dropped: what nobody knows is refused by name.
pub struct Strict<T>(pub T);

#[rocket::async_trait]
impl<'r, T: DeserializeOwned> FromData<'r> for Strict<T> {
    type Error = Problem;

    async fn from_data(request: &'r Request<'_>, data: Data<'r>) -> Outcome<'r, Self> {
        let limit = request.limits().get("json").unwrap_or(Limits::JSON);
        match strict(data, limit).await {
            Ok(value) => Outcome::Success(Self(value)),
            Err(problem) => Outcome::Error((Status::from_code(problem.status).unwrap_or_default(), problem)),
        }
    }
}

async fn strict<T: DeserializeOwned>(data: Data<'_>, limit: ByteUnit) -> Result<T, Problem> {
    let invalid = |detail: String| Problem::invalid("body", detail);
    let read = data.open(limit).into_string().await;
    let text = read.map_err(|e| invalid(format!("The request could not be read: {e}.")))?;
    if !text.is_complete() {
        let detail = format!("The request is larger than {limit}. Nothing was changed; send it in parts.");
        return Err(Problem::new(Status::PayloadTooLarge, "too-large", "Too large", detail));
    }
    let mut json = serde_json::Deserializer::from_str(&text);
    let mut unknown = None;
    let value = serde_ignored::deserialize(&mut json, |path| {
        unknown.get_or_insert_with(|| path.to_string());
    });
    let value = value.and_then(|value| json.end().map(|()| value));
    let value = value.map_err(|e| invalid(format!("The request is not of the expected shape: {e}.")))?;
    match unknown {
        Some(field) => Err(invalid(format!("Nothing here goes by the name “{field}”. Correct it, or take it out."))),
        None => Ok(value),
    }
}

/// The id that a client gave its request, so that the request sent twice is done once; a new one where it gave none.
pub fn request_id(id: Option<&str>) -> Result<Uuid, Problem> {
    let parse = |id: &str| id.parse().map_err(|_| Problem::invalid("id", format!("“{id}” is no UUID.")));
    id.map_or_else(|| Ok(Uuid::now_v7()), parse)
}

/// Text that a database can hold: no zero characters.
pub fn storable(field: &'static str, text: &str) -> Result<(), Problem> {
    if text.contains('\0') {
        return Err(Problem::invalid(field, "The text holds a zero character. Take it out."));
    }
    Ok(())
}
