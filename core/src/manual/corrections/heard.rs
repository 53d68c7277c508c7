//! A recording under the author's corrections: what reads otherwise because of them, and which step uses what.

use crate::ids::*;
use crate::manual::corrections::readings::{Correction, WordFix};
use crate::manual::{Action, Edit, Evidence, Manual, Phase, StepEdit};
use crate::reading::{
    Act, FactSheet, Facts, Gap, Hints, Reading, Statement, StatementKind, conclude, joined_text, read_with,
};
use crate::recording::Recording;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// All that an author put right of one recording. Two equal ones read alike, so a reading can be kept by them.
#[derive(Debug, Clone, PartialEq)]
pub struct Corrections {
    /// Words and ends, put right before the reading.
    hints: Hints,
    /// Kinds and facts, put right after it.
    statements: Vec<Correction>,
    recording: RecordingId,
}

/// A reading with the author's corrections in it.
#[derive(Debug, Clone, PartialEq)]
pub struct CorrectedReading {
    pub recording: RecordingId,
    /// Statements as the reader has them, words and ends put right.
    pub raw: Vec<Statement>,
    /// With kinds and facts put right, and what follows from those.
    pub reading: Reading,
}

/// A statement as a list shows it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StatementRow {
    /// With the facts in force.
    pub statement: Statement,
    /// The kind in force: the author's, else the reader's.
    pub kind: StatementKind,
    pub corrected: bool,
    /// Facts were put right by hand.
    pub facts_corrected: bool,
    pub dropped: bool,
    /// The reader wants an author's eye: a safety word is in doubt, or the reading itself is none too sure.
    pub doubtful: bool,
    /// Talk, noise, or left out: nothing of the work.
    pub talk: bool,
    /// An act that no step rests on.
    pub unused: bool,
    /// How sure the reader is, in per cent.
    pub percent: u8,
    /// The step that rests on it.
    pub step: Option<StepId>,
}

/// Below this a reading is put before the author. Of what is said with 0.9 or more nearly all is right; what lies below
/// 0.7 is wrong often enough to be worth a look (see the calibration in `docs/figures.md`).
const SURE: f64 = 0.7;

/// A correction whose words no statement covers any more.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LostCorrection {
    pub id: CorrectionId,
    pub start: usize,
    pub end: usize,
    /// What was corrected, in a sentence.
    pub what: String,
}

/// What a recording comes to.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct RecordingSums {
    pub statements: usize,
    pub talk: usize,
    pub doubtful: usize,
    /// Acts that no step rests on.
    pub unused: usize,
    /// Statements that a step rests on.
    pub used: usize,
    pub silence_ms: u64,
}

/// A recording under the author's corrections.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RecordingRow {
    pub statements: Vec<StatementRow>,
    pub gaps: Vec<Gap>,
    pub lost: Vec<LostCorrection>,
    pub sums: RecordingSums,
}

impl Corrections {
    /// Nothing was put right of a recording.
    pub fn none(recording: RecordingId) -> Self {
        Self { hints: Hints::default(), statements: Vec::new(), recording }
    }

    /// The recording that they are about.
    pub fn recording(&self) -> RecordingId {
        self.recording
    }

    /// Reads a recording anew; what was dropped tells no facts. As slow as the reading itself.
    pub fn read(&self, recording: &Recording) -> CorrectedReading {
        let reading = read_with(recording, &self.hints);
        let raw = reading.statements.clone();
        if self.statements.is_empty() {
            return CorrectedReading { recording: self.recording, reading, raw };
        }
        let mut statements = raw.clone();
        for s in &mut statements {
            let Some(correction) = self.of(s) else { continue };
            s.kind = correction.kind.unwrap_or(s.kind);
            if let Some(facts) = &correction.facts {
                s.facts.clone_from(facts);
            }
            if correction.dropped {
                s.facts = Facts::default();
            }
        }
        CorrectedReading { recording: self.recording, reading: conclude(recording, statements), raw }
    }

    fn of(&self, statement: &Statement) -> Option<&Correction> {
        self.statements.iter().find(|c| c.fits(self.recording, statement))
    }
}

impl CorrectedReading {
    /// The fact sheet under the corrections.
    pub fn sheet(&self) -> &FactSheet {
        &self.reading.sheet
    }
}

impl Manual {
    /// What was put right of a recording.
    pub fn corrections_of(&self, recording: RecordingId) -> Corrections {
        let statements = self.corrections.values().filter(|c| c.recording == recording).cloned().collect();
        Corrections { hints: self.hints(recording), statements, recording }
    }

    /// A reading as a list shows it, with the step that uses each statement.
    pub fn hear(&self, recording: &Recording, read: &CorrectedReading) -> RecordingRow {
        let corrections = self.corrections_of(read.recording);
        let uses = self.uses_of(read.recording);
        let rows = read.raw.iter().zip(&read.reading.statements);
        let statements: Vec<StatementRow> =
            rows.map(|(was, is)| statement_row(was, is, corrections.of(was), &uses)).collect();
        let lost = self.lost(read.recording, recording, &read.raw);
        let sums = sums(&statements, &read.reading.gaps);
        RecordingRow { statements, gaps: read.reading.gaps.clone(), lost, sums }
    }

    /// Reads a recording and shows it at once, for who keeps no readings.
    pub fn hear_anew(&self, id: RecordingId, recording: &Recording) -> RecordingRow {
        self.hear(recording, &self.corrections_of(id).read(recording))
    }

    /// The characters that each step rests on, steps in their order.
    fn uses_of(&self, recording: RecordingId) -> Vec<(usize, usize, StepId)> {
        let of_step = |step: StepId| {
            self.steps[&step].evidence.iter().filter_map(move |e| e.span_in(recording).map(|(s, e)| (s, e, step)))
        };
        self.order().into_iter().flat_map(of_step).collect()
    }

    fn lost(&self, id: RecordingId, recording: &Recording, statements: &[Statement]) -> Vec<LostCorrection> {
        let length = joined_text(recording).chars().count();
        let gone = |c: &&Correction| c.recording == id && !statements.iter().any(|s| c.fits(id, s));
        let corrections = self.corrections.values().filter(gone).map(|c| LostCorrection {
            id: c.id,
            start: c.start,
            end: c.end,
            what: describe(c),
        });
        let outside = |w: &&WordFix| w.recording == id && w.end > length;
        let words = self.word_fixes.values().filter(outside).map(|w| LostCorrection {
            id: w.id,
            start: w.start,
            end: w.end,
            what: format!("“{}” for “{}”", w.meant, w.heard),
        });
        corrections.chain(words).collect()
    }

    /// The edit that makes a step of one statement, behind the last step of its half of the work. The same statement has
    /// the same ids, so that asking twice makes one step.
    pub fn step_from(&self, recording: RecordingId, statement: &Statement) -> (StepId, Edit) {
        /// What fits one line of a title.
        const MAX_CHARS: usize = 80;
        let phase = if statement.rebuild { Phase::Rebuild } else { Phase::Teardown };
        let seed = |what: &str| Uuid::new_v5(&recording.0, format!("{what}/{}", statement.start).as_bytes());
        let evidence = vec![Evidence::Recording {
            recording,
            start: statement.start,
            end: statement.end,
            from_ms: statement.from_ms,
            to_ms: statement.to_ms,
        }];
        let act = statement.facts.acts.first().map_or(Act::Place, |a| a.act);
        let action = Action { evidence, ..Action::typed(ActionId(seed("action")), act, Vec::new(), &statement.text) };
        let id = StepId(seed("step"));
        let after = self.steps_in(phase).last().map(|s| s.id);
        let title = statement.text.chars().take(MAX_CHARS).collect();
        (id, Edit::Step(StepEdit::Add { id, phase, after, title, actions: vec![action] }))
    }
}

fn statement_row(
    was: &Statement,
    is: &Statement,
    correction: Option<&Correction>,
    uses: &[(usize, usize, StepId)],
) -> StatementRow {
    let corrected = correction.is_some_and(|c| c.kind.is_some());
    let facts_corrected = correction.is_some_and(|c| c.facts.is_some());
    let dropped = correction.is_some_and(|c| c.dropped);
    let unsure = !corrected && !facts_corrected && is.kind.is_work() && is.confidence < SURE;
    let step = uses.iter().find(|(start, end, _)| *start < was.end && was.start < *end).map(|u| u.2);
    StatementRow {
        kind: is.kind,
        corrected,
        facts_corrected,
        dropped,
        doubtful: !dropped && (unsure || !is.doubts.is_empty()),
        talk: dropped || !is.kind.is_work(),
        unused: is.kind == StatementKind::Action && step.is_none() && !dropped,
        percent: (is.confidence * 100.0).round() as u8,
        step,
        statement: Statement { kind: was.kind, ..is.clone() },
    }
}

fn sums(statements: &[StatementRow], gaps: &[Gap]) -> RecordingSums {
    let count = |of: fn(&StatementRow) -> bool| statements.iter().filter(|s| of(s)).count();
    RecordingSums {
        statements: statements.len(),
        talk: count(|s| s.talk),
        doubtful: count(|s| s.doubtful),
        unused: count(|s| s.unused),
        used: count(|s| s.step.is_some()),
        silence_ms: gaps.iter().map(|g| g.to_ms - g.from_ms).sum(),
    }
}

fn describe(c: &Correction) -> String {
    let mut said = Vec::new();
    said.extend(c.kind.map(|k| format!("kind set to {}", k.name())));
    said.extend(c.dropped.then(|| "not part of this job".to_owned()));
    said.extend(c.facts.as_ref().map(|_| "facts put right".to_owned()));
    said.join(", ")
}
