//! Manuals drafted from a few spoken sentences, for tests of whatever works on what a narrator told.

use crate::ids::{ManualId, RecordingId};
use crate::manual::{CorrectedReading, Manual, RecordingRef, Source, draft};
use crate::reading::read;
use crate::recording::Recording;
use uuid::Uuid;

/// What the draft of some sentences is, of a device called "Lamp 1".
pub fn manual(text: &str) -> Manual {
    manual_of(0, text)
}

/// The recording that these manuals are drafted from.
pub const RECORDING: RecordingId = RecordingId(Uuid::nil());

/// The sentences as a recording.
pub fn recording(text: &str) -> Recording {
    Recording::parse(text.as_bytes()).expect("words")
}

/// The same with the reading that it was drafted from.
pub fn with_reading(text: &str) -> (Manual, CorrectedReading) {
    let manual = manual(text);
    let reading = manual.corrections_of(RECORDING).read(&recording(text));
    (manual, reading)
}

/// The same with an id of its own; those of parts and steps follow from it.
pub fn manual_of(id: u128, text: &str) -> Manual {
    let recording = recording(text);
    let reading = read(&recording);
    let reference = RecordingRef { id: RECORDING, title: "test".into(), duration_ms: recording.duration_ms() };
    draft(ManualId(Uuid::from_u128(id)), "Lamp", "Lamp 1", &[Source { recording: reference, reading: &reading }])
}
