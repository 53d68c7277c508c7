//! What an author corrected in a reading.
//!
//! A correction is anchored to a recording and the characters it is about, not to a statement's number, so that a
//! better reader finds it again. One that fits no statement any more is listed, never dropped.

use super::Manual;
use super::change::{Aspect, Refusal, Touched};
use crate::ids::*;
use crate::reading::{Statement, StatementKind};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One corrected statement.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Correction {
    pub id: CorrectionId,
    pub recording: RecordingId,
    /// Characters of the recording's joined text.
    pub start: usize,
    pub end: usize,
    pub kind: Option<StatementKind>,
    /// Of no use for the guide.
    pub dropped: bool,
}

impl Correction {
    /// Whether this correction is about the statement: their characters overlap by more than half of either.
    pub fn fits(&self, recording: RecordingId, statement: &Statement) -> bool {
        let overlap = self.end.min(statement.end).saturating_sub(self.start.max(statement.start));
        let shorter = (self.end - self.start).min(statement.end - statement.start);
        self.recording == recording && overlap * 2 > shorter
    }
}

/// Changes of a reading.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ReadingEdit {
    /// `None` for the kind goes back to what the reader said.
    ChangeKind {
        id: CorrectionId,
        recording: RecordingId,
        start: usize,
        end: usize,
        kind: Option<StatementKind>,
    },
    Drop {
        id: CorrectionId,
        recording: RecordingId,
        start: usize,
        end: usize,
        dropped: bool,
    },
}

impl Manual {
    pub(super) fn edit_reading(&mut self, edit: &ReadingEdit, touched: &mut Touched) -> Result<(), Refusal> {
        let (id, recording, start, end) = match edit {
            ReadingEdit::ChangeKind { id, recording, start, end, .. }
            | ReadingEdit::Drop { id, recording, start, end, .. } => (*id, *recording, *start, *end),
        };
        if !self.recordings.contains_key(&recording) {
            return Err(Refusal::Gone { what: "recording", id: recording.0 });
        }
        if start >= end {
            return Err(Refusal::Invalid {
                field: "end",
                problem: format!("Characters {start} to {end} are no stretch of text."),
            });
        }
        // A second correction of the same words changes the first, whoever made it.
        let same = self
            .corrections
            .values()
            .find(|c| c.recording == recording && c.start == start && c.end == end)
            .map(|c| c.id);
        let id = same.unwrap_or(id);
        touched.add(Aspect::Corrections, id.0);
        let correction =
            self.corrections.entry(id).or_insert(Correction { id, recording, start, end, kind: None, dropped: false });
        match edit {
            ReadingEdit::ChangeKind { kind, .. } => correction.kind = *kind,
            ReadingEdit::Drop { dropped, .. } => correction.dropped = *dropped,
        }
        if correction.kind.is_none() && !correction.dropped {
            self.corrections.remove(&id);
        }
        Ok(())
    }

    /// The correction of a statement, if an author made one.
    pub fn correction_of(&self, recording: RecordingId, statement: &Statement) -> Option<&Correction> {
        self.corrections.values().find(|c| c.fits(recording, statement))
    }
}

/// A statement as the Listen stop shows it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Heard {
    pub statement: Statement,
    /// The kind in force: the author's, else the reader's.
    pub kind: StatementKind,
    pub corrected: bool,
    pub dropped: bool,
    /// The step that rests on it.
    pub step: Option<StepId>,
}

/// A reading under the author's corrections.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeardRecording {
    pub statements: Vec<Heard>,
    /// Corrections whose words no statement covers any more.
    pub lost: Vec<Correction>,
}

impl Manual {
    /// Lays the author's corrections over a reading and says which step uses what.
    pub fn hear(&self, recording: RecordingId, statements: &[Statement]) -> HeardRecording {
        let uses: Vec<(usize, usize, StepId)> = self
            .order()
            .into_iter()
            .flat_map(|id| {
                self.steps[&id].evidence.iter().filter_map(move |e| used_span(e, recording).map(|(s, e)| (s, e, id)))
            })
            .collect();
        let heard = |s: &Statement| {
            let correction = self.correction_of(recording, s);
            Heard {
                kind: correction.and_then(|c| c.kind).unwrap_or(s.kind),
                corrected: correction.is_some_and(|c| c.kind.is_some()),
                dropped: correction.is_some_and(|c| c.dropped),
                step: uses.iter().find(|(start, end, _)| *start < s.end && s.start < *end).map(|(_, _, id)| *id),
                statement: s.clone(),
            }
        };
        let lost = |c: &&Correction| c.recording == recording && !statements.iter().any(|s| c.fits(recording, s));
        HeardRecording {
            statements: statements.iter().map(heard).collect(),
            lost: self.corrections.values().filter(lost).cloned().collect(),
        }
    }
}

fn used_span(evidence: &super::Evidence, of: RecordingId) -> Option<(usize, usize)> {
    match evidence {
        super::Evidence::Recording { recording, start, end, .. } if *recording == of => Some((*start, *end)),
        _ => None,
    }
}
