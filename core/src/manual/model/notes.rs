//! Notes around the work: how the device arrived, and what a reader must know before and after.
//!
//! None of this is a step, and all of it is lost if it stands nowhere: the crack that was there before, the hole without
//! a screw, the promise made to the reader, the part that is bound to its unit, the test that must pass.

use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, Refusal, text};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, Job, Manual};
use crate::things::is_swollen_cell;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a note is about. The first four are the arrival, the others stand around a guide.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NoteKind {
    /// Damage that was there before the work began.
    Damage,
    MissingScrew,
    EmptyHole,
    /// Promised to the reader; `done` once it is told.
    Promise,
    /// What must hold before the work begins.
    Before,
    /// A part that works only in its own unit.
    Bound,
    /// What is lost for good by the work.
    Lost,
    /// Looks bad and is not.
    Harmless,
    /// What must pass before the device leaves the bench.
    MustPass,
}

labels!(NoteKind {
    Damage: "damage",
    MissingScrew: "a screw is missing",
    EmptyHole: "an empty hole",
    Promise: "promised to readers",
    Before: "must hold before" / "Make sure first",
    Bound: "paired with its device" / "Paired with its device",
    Lost: "lost by the work" / "Lost by the work",
    Harmless: "looks bad, is not" / "Looks bad, is not",
    MustPass: "test at the end" / "Tests at the end",
});

impl NoteKind {
    /// Whether it tells how the device arrived.
    pub fn is_arrival(self) -> bool {
        matches!(self, Self::Damage | Self::MissingScrew | Self::EmptyHole | Self::Promise)
    }
}

/// One note.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Note {
    pub id: NoteId,
    pub kind: NoteKind,
    pub text: String,
    /// The guide it stands in; `None`: the whole manual and every guide cut from it.
    pub job: Option<JobId>,
    /// A promise that is kept, a test that passed.
    pub done: bool,
    pub evidence: Vec<Evidence>,
}

/// One field of a note.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NoteField {
    Kind(NoteKind),
    Text(String),
    Job(Option<JobId>),
    Done(bool),
}

/// Changes of notes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NoteEdit {
    Add { id: NoteId, kind: NoteKind, text: String, job: Option<JobId> },
    Set { id: NoteId, field: NoteField },
    Remove { id: NoteId },
}

impl Apply for NoteEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, kind, text: said, job } => {
                manual.must_be_new::<Note>(*id)?;
                manual.may_be::<Job>(*job)?;
                let text = text("text", said, MAX_TEXT)?;
                let evidence = vec![Evidence::author(author)];
                manual.put_entity(Note { id: *id, kind: *kind, text, job: *job, done: false, evidence }, touched);
            }
            Self::Set { id, field } => {
                if let NoteField::Job(job) = field {
                    manual.may_be::<Job>(*job)?;
                }
                let note = manual.change_entity::<Note>(*id, touched)?;
                match field {
                    NoteField::Kind(kind) => note.kind = *kind,
                    NoteField::Text(said) => note.text = text("text", said, MAX_TEXT)?,
                    NoteField::Job(job) => note.job = *job,
                    NoteField::Done(done) => note.done = *done,
                }
            }
            Self::Remove { id } => drop(manual.take_entity::<Note>(*id, touched)?),
        }
        Ok(())
    }
}

impl Manual {
    /// Notes of one kind, in the order they were made.
    pub fn notes_of(&self, kind: NoteKind) -> impl Iterator<Item = &Note> {
        self.notes.values().filter(move |n| n.kind == kind)
    }
}

/// What kind of note a sentence of the recording is worth, if any.
///
/// The words are how benches speak (common practice, no source); what is wrong goes with one key.
pub(in crate::manual) fn heard(sentence: &str) -> Option<NoteKind> {
    const PROMISE: [&str; 9] = [
        "come back to that later",
        "come back to it later",
        "get to that later",
        "more on that later",
        "show you later",
        "explain later",
        "talk about that later",
        "see later why",
        "tell you why later",
    ];
    const MISSING: [&str; 7] = [
        "screw is missing",
        "screws are missing",
        "screw was missing",
        "screws were missing",
        "missing a screw",
        "missing screw",
        "somebody lost a screw",
    ];
    const EMPTY: [&str; 4] = ["hole is empty", "holes are empty", "empty hole", "no screw in this hole"];
    const DAMAGE: [&str; 9] = [
        "was already broken",
        "is already broken",
        "was already cracked",
        "is already cracked",
        "was already damaged",
        "came in with",
        "arrived with",
        "somebody was in here before",
        "someone has been in here before",
    ];
    let said = sentence.to_lowercase();
    let any = |words: &[&str]| words.iter().any(|w| said.contains(w));
    if any(&PROMISE) {
        Some(NoteKind::Promise)
    } else if any(&MISSING) {
        Some(NoteKind::MissingScrew)
    } else if any(&EMPTY) {
        Some(NoteKind::EmptyHole)
    } else if any(&DAMAGE) || is_swollen_cell(&said) && any(&[" is ", "'s ", " was ", " has ", " looks "]) {
        Some(NoteKind::Damage)
    } else {
        None
    }
}

impl Sound for Note {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        text("text", &self.text, MAX_TEXT)?;
        manual.refers::<Job>("job", self.job)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("And why, I'll show you later.", Some(NoteKind::Promise))]
    #[case("One screw is missing here already.", Some(NoteKind::MissingScrew))]
    #[case("The lens was already cracked when we got it.", Some(NoteKind::Damage))]
    #[case("The battery was quite swollen when it came in.", Some(NoteKind::Damage))]
    #[case("If the battery is swollen, stop here.", None)]
    #[case("There is an empty hole next to it.", Some(NoteKind::EmptyHole))]
    #[case("Remove the four screws.", None)]
    fn hears_what_is_worth_a_note(#[case] said: &str, #[case] kind: Option<NoteKind>) {
        assert_eq!(heard(said), kind);
    }
}
