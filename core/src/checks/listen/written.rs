//! Recordings as people speak, with the contradiction marked under the words it is found in, for the tests of the rules.
//!
//! ```text
//! Remove four PH1 screws from the lid.
//! Install five PH1 screws in the lid.
//! ~~~ What does not agree. [one choice | another choice]
//! ```

use super::findings;
use crate::finding::{Finding, Rule, Subject};
use crate::ids::*;
use crate::manual::{CorrectedReading, House, Manual, RecordingRef, Source, draft};
use crate::reading::read;
use crate::recording::Recording;
use uuid::Uuid;

/// Checks that the rule finds what is marked, under the words it is about, and that every choice ends it.
#[track_caller]
pub(super) fn check(rule: &Rule, text: &str) {
    let lines = text.lines().map(str::trim).filter(|l| !l.is_empty());
    let (marks, said): (Vec<&str>, Vec<&str>) = lines.clone().partition(|l| l.starts_with("~~~"));
    let told: String =
        said.iter().enumerate().map(|(i, l)| format!("[0:{:02}] {l}\n\n", i * 10)).collect::<Vec<_>>().concat();
    let (recording, id, manual) = drafted(&told);
    let found = of(rule, &manual, id, &recording);
    let shown: Vec<String> = found
        .iter()
        .map(|f| {
            let choices: Vec<&str> = f.fixes.iter().map(|c| c.label.as_str()).collect();
            format!("~~~ {} [{}]", f.says, choices.join(" | "))
        })
        .collect();
    assert_eq!(shown, marks, "\n{told}");
    for finding in &found {
        assert!(matches!(finding.about[0], Subject::Words { .. }), "{finding:?}");
        for fix in &finding.fixes {
            let next = manual.apply(&fix.edit, "Ann").expect("a choice can be taken").0;
            let left = of(rule, &next, id, &recording);
            assert!(left.iter().all(|f| f.set_aside.is_some()), "“{}” ends nothing: {left:?}", fix.label);
        }
    }
}

/// Whether the one contradiction that the rule finds stands against publishing, before and after its first choice.
#[track_caller]
pub(super) fn blocks(rule: &Rule, told: &str) -> [bool; 2] {
    let (recording, id, manual) = drafted(&format!("[0:00] {told}"));
    let found = of(rule, &manual, id, &recording);
    let settle = &found[0].fixes.last().expect("a choice").edit;
    let settled = manual.apply(settle, "Ann").expect("a choice can be taken").0;
    [found, of(rule, &settled, id, &recording)].map(|all| all.iter().any(|f| f.blocks))
}

/// A narration drafted, with its reading.
pub(super) fn manual_and_reading(told: &str) -> (Manual, CorrectedReading) {
    let (recording, id, manual) = drafted(&format!("[0:00] {told}"));
    let read = manual.corrections_of(id).read(&recording);
    (manual, read)
}

fn drafted(told: &str) -> (Recording, RecordingId, Manual) {
    let recording = Recording::parse(told.as_bytes()).expect("a recording");
    let id = RecordingId(Uuid::from_u128(7));
    let about = RecordingRef { id, title: "test".into(), duration_ms: 0 };
    let manual = draft(ManualId(Uuid::nil()), "Test", "", &[Source { recording: about, reading: &read(&recording) }]);
    (recording, id, manual)
}

fn of(rule: &Rule, manual: &Manual, id: RecordingId, recording: &Recording) -> Vec<Finding> {
    let read = manual.corrections_of(id).read(recording);
    findings(manual, &read, &House::default()).into_iter().filter(|f| f.rule == rule.id).collect()
}
