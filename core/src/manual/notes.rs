//! Notes around the work: how the device arrived, and what a reader must know before and after.
//!
//! None of this is a step, and all of it is lost if it stands nowhere: the crack that was there before, the hole without
//! a screw, the promise made to the reader, the part that is bound to its unit, the test that must pass.

use super::change::{Aspect, Refusal, Touched, text};
use super::steps::LONGEST_TEXT;
use super::{Evidence, Manual};
use crate::ids::*;
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

impl Manual {
    pub(super) fn edit_note(&mut self, edit: &NoteEdit, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        let gone = |id: NoteId| Refusal::Gone { what: "note", id: id.0 };
        match edit {
            NoteEdit::Add { id, kind, text: said, job } => {
                if self.notes.contains_key(id) {
                    return Err(Refusal::Exists { what: "note", id: id.0 });
                }
                let said = text("text", said, LONGEST_TEXT)?;
                self.check_job(*job)?;
                touched.add(Aspect::Notes, id.0);
                let evidence = vec![Evidence::Author { name: author.to_owned() }];
                self.notes.insert(*id, Note { id: *id, kind: *kind, text: said, job: *job, done: false, evidence });
            }
            NoteEdit::Set { id, field } => {
                touched.add(Aspect::Notes, id.0);
                if let NoteField::Job(job) = field {
                    self.check_job(*job)?;
                }
                let note = self.notes.get_mut(id).ok_or(gone(*id))?;
                match field {
                    NoteField::Kind(kind) => note.kind = *kind,
                    NoteField::Text(said) => note.text = text("text", said, LONGEST_TEXT)?,
                    NoteField::Job(job) => note.job = *job,
                    NoteField::Done(done) => note.done = *done,
                }
            }
            NoteEdit::Remove { id } => {
                touched.add(Aspect::Notes, id.0);
                self.notes.remove(id).ok_or(gone(*id))?;
            }
        }
        Ok(())
    }

    fn check_job(&self, job: Option<JobId>) -> Result<(), Refusal> {
        match job {
            Some(id) if !self.jobs.contains_key(&id) => Err(Refusal::Gone { what: "guide", id: id.0 }),
            _ => Ok(()),
        }
    }

    /// Notes of one kind, in the order they were made.
    pub fn notes_of(&self, kind: NoteKind) -> impl Iterator<Item = &Note> {
        self.notes.values().filter(move |n| n.kind == kind)
    }
}

/// What kind of note a sentence of the recording is worth, if any.
///
/// The words are how benches speak (common practice, no source); what is wrong goes with one key.
pub(super) fn heard(sentence: &str) -> Option<NoteKind> {
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
    } else if any(&DAMAGE) {
        Some(NoteKind::Damage)
    } else {
        None
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
    #[case("There is an empty hole next to it.", Some(NoteKind::EmptyHole))]
    #[case("Remove the four screws.", None)]
    fn hears_what_is_worth_a_note(#[case] said: &str, #[case] kind: Option<NoteKind>) {
        assert_eq!(heard(said), kind);
    }
}
