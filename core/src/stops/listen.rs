//! The Listen stop: what each recording says under the author's corrections, and where the same words stand.

use crate::ids::*;
use crate::manual::{CorrectedReading, Manual, RecordingRow};
use crate::recording::Recording;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One recording with all that is shown of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ListenView {
    pub id: RecordingId,
    pub title: String,
    pub duration_ms: u64,
    pub timed: bool,
    pub heard: RecordingRow,
}

/// Puts a recording and its reading together.
pub fn view(manual: &Manual, title: String, recording: &Recording, read: &CorrectedReading) -> ListenView {
    ListenView {
        id: read.recording,
        title,
        duration_ms: recording.duration_ms(),
        timed: recording.timed(),
        heard: manual.hear(recording, read),
    }
}
