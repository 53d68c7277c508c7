//! Manuals drafted from a few spoken sentences, for the tests of rules that judge what a narrator does.

use super::findings;
use crate::finding::Rule;
use crate::ids::{ManualId, RecordingId};
use crate::manual::{Manual, RecordingRef, Source, draft};
use crate::reading::read;
use crate::recording::Recording;
use uuid::Uuid;

/// What the draft of some sentences is, one step a sentence or more.
pub fn manual(text: &str) -> Manual {
    let recording = Recording::parse(text.as_bytes()).expect("words");
    let reading = read(&recording);
    let reference = RecordingRef { id: RecordingId(Uuid::nil()), title: "test".into(), duration_ms: 0 };
    draft(ManualId(Uuid::nil()), "Test", "", &[Source { recording: reference, reading: &reading }])
}

/// Drafts a manual and holds what the rule says of it against `wanted`.
pub fn check(rule: &Rule, text: &str, wanted: &[&str]) {
    let manual = manual(text);
    let found = findings(&manual);
    let said: Vec<&str> = found.iter().filter(|f| f.rule == rule.id).map(|f| f.says.as_str()).collect();
    let titles: Vec<&str> = manual.steps_in(crate::manual::Phase::Teardown).iter().map(|s| s.title.as_str()).collect();
    assert_eq!(said, wanted, "of the steps {titles:?}");
}
