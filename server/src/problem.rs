//! Problem documents (RFC 9457): what was wrong, where, and what would be right.

use crate::store::{Clash, StoreError, not_found};
use paso_core::manual::{Refusal, RowError};
use rocket::http::{ContentType, Status};
use rocket::response::{Responder, Response};
use rocket::{Request, catch};
use serde::{Deserialize, Serialize};
use std::io::Cursor;
use utoipa::ToSchema;

/// A problem as the API answers it, `application/problem+json`.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct Problem {
    /// `urn:paso:problem:…`, stable for programs.
    pub r#type: String,
    pub title: String,
    pub status: u16,
    /// The sentence for people.
    pub detail: String,
    /// The field that the sentence is about, where there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub field: Option<String>,
    /// Both versions, where somebody else changed the same.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub clash: Option<Box<Clash>>,
    /// Cells of a table that cannot be taken.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Vec<RowError>, required = false)]
    pub rows: Option<Box<Rows>>,
}

/// Kept apart, so that every answer that is no such table stays small.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Rows(pub Vec<RowError>);

impl Problem {
    pub fn new(status: Status, kind: &str, title: &str, detail: impl Into<String>) -> Self {
        Self {
            r#type: format!("urn:paso:problem:{kind}"),
            title: title.to_owned(),
            status: status.code,
            detail: detail.into(),
            field: None,
            clash: None,
            rows: None,
        }
    }

    pub fn invalid(field: &str, detail: impl Into<String>) -> Self {
        Self {
            field: Some(field.to_owned()),
            ..Self::new(Status::UnprocessableEntity, "invalid", "Not accepted", detail)
        }
    }

    pub fn not_found(what: &str) -> Self {
        Self::new(Status::NotFound, "not-found", "Not found", not_found(what))
    }
}

impl From<Refusal> for Problem {
    fn from(refusal: Refusal) -> Self {
        match refusal {
            Refusal::Invalid { field, problem } => Self::invalid(field, problem),
            gone @ Refusal::Gone { .. } => Self::new(Status::Conflict, "gone", "No longer there", gone.to_string()),
            other => Self::new(Status::Conflict, "refused", "Not applied", other.to_string()),
        }
    }
}

impl From<StoreError> for Problem {
    fn from(error: StoreError) -> Self {
        let detail = error.to_string();
        match error {
            StoreError::NotFound(_) => Self::new(Status::NotFound, "not-found", "Not found", detail),
            StoreError::Refused(refusal) => refusal.into(),
            StoreError::Clash(clash) => {
                Self { clash: Some(clash), ..Self::new(Status::Conflict, "clash", "Changed by somebody else", detail) }
            }
            StoreError::Ahead { .. } => Self::invalid("base_seq", detail),
            StoreError::Nothing(_) => Self::new(Status::Conflict, "nothing", "Nothing to do", detail),
            StoreError::Recording(_) => Self::invalid("recording", detail),
            StoreError::Import(_) => Self::invalid("manual", detail),
            StoreError::Unready(_) => Self::new(Status::Conflict, "not-ready", "Not ready to publish", detail),
            StoreError::Busy => Self::new(Status::ServiceUnavailable, "busy", "Busy", detail),
            StoreError::TooLong(_) => Self::invalid("recording", detail),
            StoreError::Reused(_) => {
                Self::new(Status::Conflict, "id-reused", "Sent before with something else", detail)
            }
            StoreError::Purged { .. } => Self::new(Status::Gone, "purged", "No longer kept", detail),
            StoreError::InUse => Self::new(Status::Conflict, "in-use", "Still in use", detail),
            StoreError::Quota(_) => Self::new(Status::InsufficientStorage, "quota", "No room left", detail),
            StoreError::Full => Self::new(Status::InsufficientStorage, "disk-full", "The disk is full", detail),
            StoreError::Unstorable(_) => Self::new(Status::UnprocessableEntity, "unstorable", "Not accepted", detail),
            StoreError::Stumbled(e) => {
                tracing::error!(error = %e, "a reading panicked");
                Self::new(Status::InternalServerError, "reading", "Could not be read", detail)
            }
            StoreError::Database(e) => {
                tracing::error!(error = %e, "database");
                Self::new(Status::ServiceUnavailable, "database", "The database does not answer", detail)
            }
            StoreError::Stored(e) => {
                tracing::error!(error = %e, "stored data");
                Self::new(Status::InternalServerError, "stored", "Stored data cannot be read", detail)
            }
        }
    }
}

impl<'r> Responder<'r, 'static> for Problem {
    fn respond_to(self, _: &'r Request<'_>) -> rocket::response::Result<'static> {
        let body = serde_json::to_string(&self).map_err(|_| Status::InternalServerError)?;
        Response::build()
            .status(Status::from_code(self.status).unwrap_or(Status::InternalServerError))
            .header(ContentType::new("application", "problem+json"))
            .sized_body(body.len(), Cursor::new(body))
            .ok()
    }
}

/// What Rocket itself refuses, in the same shape.
#[catch(default)]
pub fn catch_all(status: Status, request: &Request<'_>) -> Problem {
    let detail = match status.code {
        404 => format!("Nothing answers {} {}.", request.method(), request.uri().path()),
        413 => "The request is larger than what is taken here.".to_owned(),
        422 | 400 => "The request is no JSON of the expected shape; see /api/openapi.json.".to_owned(),
        _ => "The server could not answer. Nothing was changed.".to_owned(),
    };
    Problem::new(status, "http", status.reason_lossy(), detail)
}
