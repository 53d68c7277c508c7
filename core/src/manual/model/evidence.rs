//! Where a word comes from. Nothing is published without one of these.

use crate::ids::RecordingId;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One source of a step, a count or a setting.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "source", rename_all = "snake_case")]
pub enum Evidence {
    /// Characters `start..end` of a recording's joined text, and about when they were said.
    Recording { recording: RecordingId, start: usize, end: usize, from_ms: Option<u64>, to_ms: Option<u64> },
    /// A rule of this program, by its id.
    Rule { rule: String },
    /// A published standard or handbook.
    Standard { name: String },
    /// A person.
    Author { name: String },
}

impl Evidence {
    /// The word of a person.
    pub fn author(name: &str) -> Self {
        Self::Author { name: name.to_owned() }
    }

    /// The recording that it rests on.
    pub fn recording(&self) -> Option<RecordingId> {
        match self {
            Self::Recording { recording, .. } => Some(*recording),
            _ => None,
        }
    }

    /// The characters of a recording that it rests on.
    pub fn span_in(&self, of: RecordingId) -> Option<(usize, usize)> {
        match self {
            Self::Recording { recording, start, end, .. } if *recording == of => Some((*start, *end)),
            _ => None,
        }
    }
}
