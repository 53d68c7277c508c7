//! What an author corrected in a reading.
//!
//! A correction is anchored to a recording and the characters it is about, not to a statement's number, so that a
//! better reader finds it again. One that fits no statement any more is listed, never dropped.
//!
//! Words and ends of statements are put right *before* the reading (see [`Hints`]), so all facts follow them; kinds and
//! facts are put right after it.

use crate::ids::*;
use crate::manual::corrections::follow::Words;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{Refusal, note};
use crate::manual::edits::sound::Sound;
use crate::manual::{Manual, RecordingRef};
use crate::reading::{DiscrepancyKind, Facts, Hints, Meant, Statement, StatementKind};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most characters that may be written for words misheard.
pub const MAX_WORDS: usize = 400;

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
    /// Where the statement begins that it contradicts; `None`: whatever it contradicts.
    #[serde(default)]
    pub against: Option<usize>,
    /// What was decided.
    pub how: String,
}

impl Settled {
    /// Whether this is about a contradiction of that kind between the two statements.
    pub fn fits(
        &self,
        recording: RecordingId,
        kind: DiscrepancyKind,
        statement: &Statement,
        against: Option<&Statement>,
    ) -> bool {
        let other = |start: usize| against.is_some_and(|s| s.start <= start && start < s.end);
        self.recording == recording
            && self.kind == kind
            && overlaps(self.start, self.end, statement)
            && self.against.is_none_or(other)
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
        #[serde(default)]
        against: Option<usize>,
        how: Option<String>,
    },
    /// As one edit, undone at once.
    Several {
        #[schema(no_recursion)]
        edits: Vec<ReadingEdit>,
    },
}

/// Most edits taken at once.
const MAX_AT_ONCE: usize = 20_000;

impl Apply for ReadingEdit {
    // Who corrects a reading is in the log; the reading itself does not ask.
    #[allow(clippy::only_used_in_recursion)]
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::ChangeKind { id, recording, start, end, kind } => {
                manual.correct(*id, *recording, *start, *end, touched, |c| c.kind = *kind)?;
                if kind.is_some_and(|k| !k.is_work()) {
                    manual.leave_out(Words { recording: *recording, start: *start, end: *end }, touched)?;
                }
                Ok(())
            }
            Self::Drop { id, recording, start, end, dropped } => {
                manual.correct(*id, *recording, *start, *end, touched, |c| c.dropped = *dropped)?;
                if *dropped {
                    manual.leave_out(Words { recording: *recording, start: *start, end: *end }, touched)?;
                }
                Ok(())
            }
            Self::SetFacts { id, recording, start, end, facts } => {
                manual.correct(*id, *recording, *start, *end, touched, |c| c.facts.clone_from(facts))?;
                if let Some(facts) = facts {
                    let words = Words { recording: *recording, start: *start, end: *end };
                    manual.follow_facts(words, facts, id.0, touched);
                }
                Ok(())
            }
            Self::Word { id, recording, start, end, heard, meant } => {
                manual.span(*recording, *start, *end)?;
                let fix = meant.as_ref().map(|meant| {
                    let meant = note("meant", meant, MAX_WORDS)?;
                    let heard = note("heard", heard, MAX_WORDS)?;
                    Ok(WordFix { id: *id, recording: *recording, start: *start, end: *end, heard, meant })
                });
                manual.put_word(*recording, *start, *end, fix.transpose()?, touched);
                let words = Words { recording: *recording, start: *start, end: *end };
                manual.follow_word(words, meant.as_deref(), touched);
                Ok(())
            }
            Self::Cut { id, recording, at, joins } => manual.put_cut(*id, *recording, *at, *joins, touched),
            Self::Settle { id, recording, kind, start, end, against, how } => {
                manual.span(*recording, *start, *end)?;
                let how = how.as_ref().map(|how| note("how", how, MAX_WORDS)).transpose()?.unwrap_or_default();
                let (recording, against) = (*recording, *against);
                let settled = Settled { id: *id, recording, kind: *kind, start: *start, end: *end, against, how };
                manual.settle(settled, touched);
                Ok(())
            }
            Self::Several { edits } => {
                if edits.len() > MAX_AT_ONCE {
                    let problem = format!("{} corrections at once; at most {MAX_AT_ONCE} are taken.", edits.len());
                    return Err(Refusal::invalid("edits", problem));
                }
                edits.iter().try_for_each(|edit| match edit {
                    Self::Several { .. } => Err(Refusal::invalid("edits", "Several edits may not hold several edits.")),
                    edit => edit.apply(manual, author, touched),
                })
            }
        }
    }
}

impl Manual {
    fn span(&self, recording: RecordingId, start: usize, end: usize) -> Result<(), Refusal> {
        self.must_be_there::<RecordingRef>(recording)?;
        if start >= end {
            return Err(Refusal::invalid("end", format!("Characters {start} to {end} are no stretch of text.")));
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
        let new = Correction { id, recording, start, end, kind: None, dropped: false, facts: None };
        let mut correction = self.corrections.get(&id).cloned().unwrap_or(new);
        change(&mut correction);
        let empty = correction.kind.is_none() && !correction.dropped && correction.facts.is_none();
        self.put_entity(correction, touched);
        if empty {
            self.corrections.remove(&id);
        }
        Ok(())
    }

    /// What is decided of one contradiction; nothing written opens it again.
    fn settle(&mut self, settled: Settled, touched: &mut Touched) {
        let about = |s: &Settled| (s.recording, s.kind, s.start, s.end, s.against);
        let known = self.settled.values().find(|s| about(s) == about(&settled)).map(|s| s.id);
        let settled = Settled { id: known.unwrap_or(settled.id), ..settled };
        let (id, open) = (settled.id, settled.how.is_empty());
        self.put_entity(settled, touched);
        if open {
            self.settled.remove(&id);
        }
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
        let meets = |w: &WordFix| w.recording == recording && w.start < end && start < w.end;
        self.keep_entities::<WordFix>(|w| !meets(w), touched);
        if let Some(fix) = fix {
            self.put_entity(fix, touched);
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
        match self.cuts.values().find(|c| c.recording == recording && c.at == at).cloned() {
            Some(old) if old.joins != joins => {
                self.take_entity::<Cut>(old.id, touched)?;
            }
            Some(_) => {}
            None => self.put_entity(Cut { id, recording, at, joins }, touched),
        }
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

/// A span of a recording that runs forwards.
fn forwards(start: usize, end: usize) -> Result<(), Refusal> {
    if start <= end {
        return Ok(());
    }
    Err(Refusal::invalid("end", format!("the place ends at {end}, before it starts at {start}")))
}

impl Sound for Correction {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        forwards(self.start, self.end)?;
        manual.refers::<RecordingRef>("recording", [self.recording])
    }
}

impl Sound for WordFix {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        forwards(self.start, self.end)?;
        manual.refers::<RecordingRef>("recording", [self.recording])
    }
}

impl Sound for Cut {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        manual.refers::<RecordingRef>("recording", [self.recording])
    }
}

impl Sound for Settled {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        forwards(self.start, self.end)?;
        manual.refers::<RecordingRef>("recording", [self.recording])
    }
}
