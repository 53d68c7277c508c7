//! A recording as the Listen stop shows it: the reading under the author's corrections, with what contradicts itself and
//! what can be done about it.

use super::readings::{Correction, WordFix, used_span};
use super::{Edit, Manual, ReadingEdit};
use crate::ids::*;
use crate::reading::{
    DiscrepancyKind, FactSheet, Facts, Finding, Gap, Reading, Statement, StatementKind, conclude, joined_text,
    read_with,
};
use crate::recording::Recording;
use crate::units::{self, Quantity};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A statement as the Listen stop shows it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Heard {
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
    /// The step that rests on it.
    pub step: Option<StepId>,
}

/// Below this a reading is put before the author. Of what is said with 0.9 or more nearly all is right; what lies below
/// 0.7 is wrong often enough to be worth a look (see the calibration in `docs/figures.md`).
const SURE: f64 = 0.7;

/// One way to settle a contradiction.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Choice {
    pub label: String,
    pub edit: Edit,
}

/// A contradiction with both its places and the ways out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeardFinding {
    #[serde(flatten)]
    pub finding: Finding,
    /// What the author decided.
    pub settled: Option<String>,
    pub choices: Vec<Choice>,
}

/// A correction whose words no statement covers any more.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Lost {
    pub id: CorrectionId,
    pub start: usize,
    pub end: usize,
    /// What was corrected, in a sentence.
    pub what: String,
}

/// A reading under the author's corrections.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeardRecording {
    pub statements: Vec<Heard>,
    pub findings: Vec<HeardFinding>,
    pub gaps: Vec<Gap>,
    pub lost: Vec<Lost>,
}

impl Manual {
    /// Reads a recording under the author's corrections and says which step uses what.
    pub fn hear(&self, id: RecordingId, recording: &Recording) -> HeardRecording {
        let (raw, reading) = self.read_corrected(id, recording);
        let uses: Vec<(usize, usize, StepId)> = self
            .order()
            .into_iter()
            .flat_map(|step| {
                self.steps[&step].evidence.iter().filter_map(move |e| used_span(e, id).map(|(s, e)| (s, e, step)))
            })
            .collect();
        let statements: Vec<Heard> = raw
            .iter()
            .zip(&reading.statements)
            .map(|(was, is)| {
                let correction = self.correction_of(id, was);
                let corrected = correction.is_some_and(|c| c.kind.is_some());
                let facts_corrected = correction.is_some_and(|c| c.facts.is_some());
                let dropped = correction.is_some_and(|c| c.dropped);
                let unsure = !corrected && !facts_corrected && is.kind.is_work() && is.confidence < SURE;
                Heard {
                    kind: is.kind,
                    corrected,
                    facts_corrected,
                    dropped,
                    doubtful: !dropped && (unsure || !is.doubts.is_empty()),
                    step: uses.iter().find(|(start, end, _)| *start < was.end && was.start < *end).map(|u| u.2),
                    statement: Statement { kind: was.kind, ..is.clone() },
                }
            })
            .collect();
        let findings = reading.findings.iter().map(|f| self.offer(id, &reading.statements, f)).collect();
        let lost = self.lost(id, recording, &raw);
        HeardRecording { statements, findings, gaps: reading.gaps, lost }
    }

    /// The fact sheet of a recording under the author's corrections.
    pub fn sheet(&self, id: RecordingId, recording: &Recording) -> FactSheet {
        self.read_corrected(id, recording).1.sheet
    }

    /// Statements as read, and the reading with kinds and facts put right; what was dropped tells no facts.
    fn read_corrected(&self, id: RecordingId, recording: &Recording) -> (Vec<Statement>, Reading) {
        let raw = read_with(recording, &self.hints(id)).statements;
        let mut statements = raw.clone();
        for s in &mut statements {
            let Some(correction) = self.correction_of(id, s) else { continue };
            let Correction { kind, dropped, facts, .. } = correction.clone();
            s.kind = kind.unwrap_or(s.kind);
            s.facts = facts.unwrap_or_else(|| std::mem::take(&mut s.facts));
            if dropped {
                s.facts = Facts::default();
            }
        }
        let reading = conclude(recording, statements);
        (raw, reading)
    }

    fn lost(&self, id: RecordingId, recording: &Recording, statements: &[Statement]) -> Vec<Lost> {
        let length = joined_text(recording).chars().count();
        let gone = |c: &&Correction| c.recording == id && !statements.iter().any(|s| c.fits(id, s));
        let corrections = self.corrections.values().filter(gone).map(|c| Lost {
            id: c.id,
            start: c.start,
            end: c.end,
            what: describe(c),
        });
        let outside = |w: &&WordFix| w.recording == id && w.end > length;
        let words = self.word_fixes.values().filter(outside).map(|w| Lost {
            id: w.id,
            start: w.start,
            end: w.end,
            what: format!("“{}” for “{}”", w.meant, w.heard),
        });
        corrections.chain(words).collect()
    }

    fn offer(&self, id: RecordingId, statements: &[Statement], finding: &Finding) -> HeardFinding {
        let at = &statements[finding.at];
        let settled = self.settled.values().find(|s| s.fits(id, finding.kind, at)).map(|s| s.how.clone());
        let choices = Offers { recording: id, statements, finding }.all();
        HeardFinding { finding: finding.clone(), settled, choices }
    }
}

fn describe(c: &Correction) -> String {
    let mut said = Vec::new();
    said.extend(c.kind.map(|k| format!("kind set to {}", k.name())));
    said.extend(c.dropped.then(|| "not part of this job".to_owned()));
    said.extend(c.facts.as_ref().map(|_| "facts put right".to_owned()));
    said.join(", ")
}

/// The ways out of one contradiction.
struct Offers<'a> {
    recording: RecordingId,
    statements: &'a [Statement],
    finding: &'a Finding,
}

impl Offers<'_> {
    fn all(&self) -> Vec<Choice> {
        let kind = self.finding.kind;
        let mut out = match kind {
            DiscrepancyKind::Count | DiscrepancyKind::Size => self.either_group(),
            DiscrepancyKind::Unit => self.either_scale(),
            DiscrepancyKind::Side => self.either_side(),
            DiscrepancyKind::Repeat if self.finding.against.is_some() => vec![self.drop_it()],
            _ => Vec::new(),
        };
        let settles: &[&str] = match kind {
            DiscrepancyKind::LateTool => &["Put it on the list"],
            DiscrepancyKind::LatePosture => &["It belongs at the start of the step", "It stands as told"],
            DiscrepancyKind::Omitted => &["It goes back", "It stays out"],
            DiscrepancyKind::Order => &["It belongs earlier", "The order stands as told"],
            _ => &["Both stand as said"],
        };
        out.extend(settles.iter().map(|how| self.settle(how)));
        out
    }

    /// The same choice has the same id, however often it is offered.
    fn id(&self, label: &str) -> CorrectionId {
        let at = &self.statements[self.finding.at];
        let name = format!("{:?}/{}/{}/{label}", self.finding.kind, at.start, at.end);
        CorrectionId(Uuid::new_v5(&self.recording.0, name.as_bytes()))
    }

    fn settle(&self, how: &str) -> Choice {
        let at = &self.statements[self.finding.at];
        let edit = ReadingEdit::Settle {
            id: self.id(how),
            recording: self.recording,
            kind: self.finding.kind,
            start: at.start,
            end: at.end,
            how: Some(how.to_owned()),
        };
        Choice { label: how.to_owned(), edit: Edit::Reading(edit) }
    }

    fn set_facts(&self, label: String, statement: &Statement, facts: Facts) -> Choice {
        let edit = ReadingEdit::SetFacts {
            id: self.id(&label),
            recording: self.recording,
            start: statement.start,
            end: statement.end,
            facts: Some(facts),
        };
        Choice { label, edit: Edit::Reading(edit) }
    }

    /// One group on each side: either figure may be the right one.
    fn either_group(&self) -> Vec<Choice> {
        let Some(against) = self.finding.against.map(|i| &self.statements[i]) else { return Vec::new() };
        let at = &self.statements[self.finding.at];
        let ([one], [other]) = (&at.facts.fasteners[..], &against.facts.fasteners[..]) else { return Vec::new() };
        let size = self.finding.kind == DiscrepancyKind::Size;
        let pairs = [(one, against), (other, at)];
        pairs
            .into_iter()
            .filter_map(|(right, wrong)| {
                let mut facts = wrong.facts.clone();
                let group = facts.fasteners.first_mut()?;
                let label = if size {
                    group.length = right.length;
                    format!("{} mm is right", units::number(units::in_millimetres(right.length?)))
                } else {
                    group.count = right.count;
                    format!("{} is right", right.count?)
                };
                Some(self.set_facts(label, wrong, facts))
            })
            .collect()
    }

    /// Two temperatures or a label that does not add up: one of the figures goes.
    fn either_scale(&self) -> Vec<Choice> {
        let at = &self.statements[self.finding.at];
        let temperatures: Vec<f64> =
            at.facts.measures.iter().filter(|m| m.quantity == Quantity::Temperature).map(|m| m.value).collect();
        temperatures
            .iter()
            .map(|right| {
                let mut facts = at.facts.clone();
                facts.measures.retain(|m| m.quantity != Quantity::Temperature || m.value == *right);
                for heat in &mut facts.heat {
                    heat.temperature = Some(units::Span { low: units::celsius(*right), high: units::celsius(*right) });
                }
                self.set_facts(format!("{} °C is right", units::number(right.round())), at, facts)
            })
            .collect()
    }

    /// "left" for "right" in one of the two places.
    fn either_side(&self) -> Vec<Choice> {
        let places = [Some(self.finding.at), self.finding.against];
        places.into_iter().flatten().filter_map(|i| self.turn_side(&self.statements[i])).collect()
    }

    fn turn_side(&self, s: &Statement) -> Option<Choice> {
        let lower = s.text.to_lowercase();
        let (heard, meant) = [("left", "right"), ("right", "left")].into_iter().find(|(w, _)| lower.contains(w))?;
        let start = s.start + lower[..lower.find(heard)?].chars().count();
        let label = format!("“{meant}” was meant in “{}”", shortened(&s.text));
        let edit = ReadingEdit::Word {
            id: self.id(&label),
            recording: self.recording,
            start,
            end: start + heard.len(),
            heard: heard.to_owned(),
            meant: Some(meant.to_owned()),
        };
        Some(Choice { label, edit: Edit::Reading(edit) })
    }

    fn drop_it(&self) -> Choice {
        let at = &self.statements[self.finding.at];
        let label = "Leave the second one out".to_owned();
        let edit = ReadingEdit::Drop {
            id: self.id(&label),
            recording: self.recording,
            start: at.start,
            end: at.end,
            dropped: true,
        };
        Choice { label, edit: Edit::Reading(edit) }
    }
}

fn shortened(text: &str) -> String {
    const LONGEST: usize = 40;
    let end = text.char_indices().nth(LONGEST);
    end.map_or(text.to_owned(), |(i, _)| format!("{} …", text[..i].trim_end()))
}
