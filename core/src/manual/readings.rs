//! What an author corrected in a reading.
//!
//! A correction is anchored to a recording and the characters it is about, not to a statement's number, so that a
//! better reader finds it again. One that fits no statement any more is listed, never dropped.
//!
//! Words and ends of statements are put right *before* the reading (see [`Hints`]), so all facts follow them; kinds and
//! facts are put right after it.

use super::Manual;
use super::change::{Aspect, Refusal, Touched, note};
use super::follow::Words;
use crate::ids::*;
use crate::reading::{DiscrepancyKind, Facts, Hints, Meant, Statement, StatementKind};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most characters that may be written for words misheard.
pub const LONGEST_WORDS: usize = 400;

/// One corrected statement.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Correction {
    pub id: CorrectionId,
    pub recording: RecordingId,
    /// Characters of the recording's joined text.
    pub start: usize,
    pub end: usize,
    pub kind: Option<StatementKind>,
    /// Not part of this job.
    pub dropped: bool,
    /// The facts in force.
    #[serde(default)]
    pub facts: Option<Facts>,
}

impl Correction {
    /// Whether this correction is about the statement: their characters overlap by more than half of either.
    pub fn fits(&self, recording: RecordingId, statement: &Statement) -> bool {
        self.recording == recording && overlaps(self.start, self.end, statement)
    }
}

fn overlaps(start: usize, end: usize, statement: &Statement) -> bool {
    let overlap = end.min(statement.end).saturating_sub(start.max(statement.start));
    let shorter = (end - start).min(statement.end - statement.start);
    overlap * 2 > shorter
}

/// Words that were said where others were heard.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct WordFix {
    pub id: CorrectionId,
    pub recording: RecordingId,
    pub start: usize,
    pub end: usize,
    /// As the recogniser wrote it.
    pub heard: String,
    /// Empty: nothing was said.
    pub meant: String,
}

/// Where a statement begins, or where it does not.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Cut {
    pub id: CorrectionId,
    pub recording: RecordingId,
    /// The character at which a word begins.
    pub at: usize,
    /// The statement before goes on here.
    pub joins: bool,
}

/// A contradiction that an author has looked at.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Settled {
    pub id: CorrectionId,
    pub recording: RecordingId,
    pub kind: DiscrepancyKind,
    pub start: usize,
    pub end: usize,
    /// What was decided.
    pub how: String,
}

impl Settled {
    /// Whether this is about a contradiction of that kind in the statement.
    pub fn fits(&self, recording: RecordingId, kind: DiscrepancyKind, statement: &Statement) -> bool {
        self.recording == recording && self.kind == kind && overlaps(self.start, self.end, statement)
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
    /// `None` goes back to what the reader read. Screws, connectors, heat and parts that rest on these words follow.
    SetFacts {
        id: CorrectionId,
        recording: RecordingId,
        start: usize,
        end: usize,
        facts: Option<Facts>,
    },
    /// `None` goes back to what was heard.
    Word {
        id: CorrectionId,
        recording: RecordingId,
        start: usize,
        end: usize,
        heard: String,
        meant: Option<String>,
    },
    /// A cut where the statements were joined by hand takes the join away, and the other way round.
    Cut {
        id: CorrectionId,
        recording: RecordingId,
        at: usize,
        joins: bool,
    },
    /// `None` opens the contradiction again.
    Settle {
        id: CorrectionId,
        recording: RecordingId,
        kind: DiscrepancyKind,
        start: usize,
        end: usize,
        how: Option<String>,
    },
    /// As one edit, undone at once.
    Several {
        #[schema(no_recursion)]
        edits: Vec<ReadingEdit>,
    },
}

/// Most edits taken at once.
const MOST_AT_ONCE: usize = 20_000;

impl Manual {
    pub(super) fn edit_reading(&mut self, edit: &ReadingEdit, touched: &mut Touched) -> Result<(), Refusal> {
        use ReadingEdit as E;
        match edit {
            E::ChangeKind { id, recording, start, end, kind } => {
                self.correct(*id, *recording, *start, *end, touched, |c| c.kind = *kind)
            }
            E::Drop { id, recording, start, end, dropped } => {
                self.correct(*id, *recording, *start, *end, touched, |c| c.dropped = *dropped)
            }
            E::SetFacts { id, recording, start, end, facts } => {
                self.correct(*id, *recording, *start, *end, touched, |c| c.facts.clone_from(facts))?;
                if let Some(facts) = facts {
                    let words = Words { recording: *recording, start: *start, end: *end };
                    self.follow_facts(words, facts, id.0, touched);
                }
                Ok(())
            }
            E::Word { id, recording, start, end, heard, meant } => {
                self.span(*recording, *start, *end)?;
                let fix = meant.as_ref().map(|meant| {
                    let meant = note("meant", meant, LONGEST_WORDS)?;
                    let heard = note("heard", heard, LONGEST_WORDS)?;
                    Ok(WordFix { id: *id, recording: *recording, start: *start, end: *end, heard, meant })
                });
                self.put_word(*recording, *start, *end, fix.transpose()?, touched);
                Ok(())
            }
            E::Cut { id, recording, at, joins } => self.put_cut(*id, *recording, *at, *joins, touched),
            E::Settle { id, recording, kind, start, end, how } => {
                self.span(*recording, *start, *end)?;
                let how = how.as_ref().map(|how| note("how", how, LONGEST_WORDS)).transpose()?;
                let same = |s: &Settled| (s.recording, s.kind, s.start, s.end) == (*recording, *kind, *start, *end);
                let id = self.settled.values().find(|s| same(s)).map_or(*id, |s| s.id);
                touched.add(Aspect::Settled, id.0);
                match how {
                    Some(how) => {
                        let settled = Settled { id, recording: *recording, kind: *kind, start: *start, end: *end, how };
                        self.settled.insert(id, settled);
                    }
                    None => {
                        self.settled.remove(&id);
                    }
                }
                Ok(())
            }
            E::Several { edits } => {
                if edits.len() > MOST_AT_ONCE {
                    let problem = format!("{} corrections at once; at most {MOST_AT_ONCE} are taken.", edits.len());
                    return Err(Refusal::Invalid { field: "edits", problem });
                }
                edits.iter().try_for_each(|edit| match edit {
                    E::Several { .. } => Err(Refusal::Invalid {
                        field: "edits",
                        problem: "Several edits may not hold several edits.".to_owned(),
                    }),
                    edit => self.edit_reading(edit, touched),
                })
            }
        }
    }

    fn span(&self, recording: RecordingId, start: usize, end: usize) -> Result<(), Refusal> {
        if !self.recordings.contains_key(&recording) {
            return Err(Refusal::Gone { what: "recording", id: recording.0 });
        }
        if start >= end {
            return Err(Refusal::Invalid {
                field: "end",
                problem: format!("Characters {start} to {end} are no stretch of text."),
            });
        }
        Ok(())
    }

    fn correct(
        &mut self,
        id: CorrectionId,
        recording: RecordingId,
        start: usize,
        end: usize,
        touched: &mut Touched,
        change: impl FnOnce(&mut Correction),
    ) -> Result<(), Refusal> {
        self.span(recording, start, end)?;
        // A second correction of the same words changes the first, whoever made it.
        let same = self.corrections.values().find(|c| c.recording == recording && c.start == start && c.end == end);
        let id = same.map_or(id, |c| c.id);
        touched.add(Aspect::Corrections, id.0);
        let new = Correction { id, recording, start, end, kind: None, dropped: false, facts: None };
        let correction = self.corrections.entry(id).or_insert(new);
        change(correction);
        if correction.kind.is_none() && !correction.dropped && correction.facts.is_none() {
            self.corrections.remove(&id);
        }
        Ok(())
    }

    /// The newest word stands; what it overlaps gives way.
    fn put_word(
        &mut self,
        recording: RecordingId,
        start: usize,
        end: usize,
        fix: Option<WordFix>,
        touched: &mut Touched,
    ) {
        let meets = |w: &&WordFix| w.recording == recording && w.start < end && start < w.end;
        let old: Vec<CorrectionId> = self.word_fixes.values().filter(meets).map(|w| w.id).collect();
        for id in old {
            touched.add(Aspect::WordFixes, id.0);
            self.word_fixes.remove(&id);
        }
        if let Some(fix) = fix {
            touched.add(Aspect::WordFixes, fix.id.0);
            self.word_fixes.insert(fix.id, fix);
        }
    }

    fn put_cut(
        &mut self,
        id: CorrectionId,
        recording: RecordingId,
        at: usize,
        joins: bool,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        self.span(recording, at, at + 1)?;
        let old = self.cuts.values().find(|c| c.recording == recording && c.at == at).cloned();
        if let Some(old) = old {
            if old.joins != joins {
                touched.add(Aspect::Cuts, old.id.0);
                self.cuts.remove(&old.id);
            }
            return Ok(());
        }
        touched.add(Aspect::Cuts, id.0);
        self.cuts.insert(id, Cut { id, recording, at, joins });
        Ok(())
    }

    /// What an author put right before the reading of a recording begins.
    pub fn hints(&self, recording: RecordingId) -> Hints {
        let mut words: Vec<Meant> = self
            .word_fixes
            .values()
            .filter(|w| w.recording == recording)
            .map(|w| Meant { start: w.start, end: w.end, text: w.meant.clone() })
            .collect();
        words.sort_by_key(|m| m.start);
        let ends = |joins: bool| {
            self.cuts.values().filter(|c| c.recording == recording && c.joins == joins).map(|c| c.at).collect()
        };
        Hints { words, cuts: ends(false), joins: ends(true) }
    }

    /// The correction of a statement, if an author made one.
    pub fn correction_of(&self, recording: RecordingId, statement: &Statement) -> Option<&Correction> {
        self.corrections.values().find(|c| c.fits(recording, statement))
    }
}

pub(super) fn used_span(evidence: &super::Evidence, of: RecordingId) -> Option<(usize, usize)> {
    match evidence {
        super::Evidence::Recording { recording, start, end, .. } if *recording == of => Some((*start, *end)),
        _ => None,
    }
}
