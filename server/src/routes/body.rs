//! What is sent: whole, within its limit and its time, and without anything that nobody knows.

use crate::problem::Problem;
use rocket::Request;
use rocket::data::{ByteUnit, Data, FromData, Limits, Outcome};
use rocket::http::Status;
use serde::de::DeserializeOwned;
use std::time::Duration;
use tokio::time::timeout;
use uuid::Uuid;

/// How long a body may take to arrive: 16 MB over a line of 2 Mbit/s. Who sends slower than that holds a place that others
/// wait for. Slow headers are the business of the proxy in front (see docs/operating.md).
#[derive(Debug, Clone, Copy)]
pub struct Patience(pub Duration);

impl Default for Patience {
    fn default() -> Self {
        Self(Duration::from_secs(64))
    }
}

/// A body that is not read yet, with the time it may take.
pub struct Unread<'r> {
    data: Data<'r>,
    patience: Patience,
}

#[rocket::async_trait]
impl<'r> FromData<'r> for Unread<'r> {
    type Error = std::convert::Infallible;

    async fn from_data(request: &'r Request<'_>, data: Data<'r>) -> Outcome<'r, Self> {
        let patience = request.rocket().state::<Patience>().copied().unwrap_or_default();
        Outcome::Success(Self { data, patience })
    }
}

impl Unread<'_> {
    /// All of it, or the sentence that says why not. `field` is what the sentence is about.
    pub async fn whole(self, field: &str, limit: ByteUnit) -> Result<Vec<u8>, Problem> {
        let of_field = |problem: Problem| Problem { field: Some(field.to_owned()), ..problem };
        let read = timeout(self.patience.0, self.data.open(limit).into_bytes()).await;
        let Ok(read) = read else {
            let detail = format!("The request did not arrive within {} s. Send it again.", self.patience.0.as_secs());
            return Err(of_field(Problem::new(Status::RequestTimeout, "too-slow", "Too slow", detail)));
        };
        let read = read.map_err(|e| {
            Problem::invalid(field, format!("The request broke off while it was sent: {e}. Send it again."))
        })?;
        if !read.is_complete() {
            let most = limit.as_u64() as f64 / 1e6;
            let detail = format!("This is larger than {most:.0} MB, the most that is taken here. Nothing was changed.");
            return Err(of_field(Problem::new(Status::PayloadTooLarge, "too-large", "Too large", detail)));
        }
        Ok(read.into_inner())
    }

    /// The same as text.
    pub async fn text(self, field: &str, limit: ByteUnit) -> Result<String, Problem> {
        let bytes = self.whole(field, limit).await?;
        String::from_utf8(bytes).map_err(|e| Problem::invalid(field, format!("The request is not UTF-8: {e}.")))
    }
}

/// A JSON body that the handler itself judges, so that a wrong one is refused with the place and the reason.
pub type Body<T> = Result<Strict<T>, Problem>;

/// A value of which no field was dropped: what nobody knows is refused by name.
pub struct Strict<T>(pub T);

#[rocket::async_trait]
impl<'r, T: DeserializeOwned> FromData<'r> for Strict<T> {
    type Error = Problem;

    async fn from_data(request: &'r Request<'_>, data: Data<'r>) -> Outcome<'r, Self> {
        let limit = request.limits().get("json").unwrap_or(Limits::JSON);
        let Outcome::Success(body) = Unread::from_data(request, data).await else { unreachable!("it never fails") };
        match body.text("body", limit).await.and_then(|text| strict(&text)) {
            Ok(value) => Outcome::Success(Self(value)),
            Err(problem) => Outcome::Error((Status::from_code(problem.status).unwrap_or_default(), problem)),
        }
    }
}

fn strict<T: DeserializeOwned>(text: &str) -> Result<T, Problem> {
    let invalid = |detail: String| Problem::invalid("body", detail);
    let mut json = serde_json::Deserializer::from_str(text);
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
