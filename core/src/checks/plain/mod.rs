//! Rules of plain words: what a sentence that tells somebody to do something may look like.
//!
//! After the public rules of simplified technical English for procedures (ASD-STE100, from memory): one instruction a
//! sentence, at most twenty words, the condition first, no "should" for what must be, strings of at most three nouns. Drafted
//! sentences are judged like typed ones; a rewording is offered only where it cannot change what is told.

mod condition_late;
mod long_sentence;
mod no_order;
mod noun_string;
mod other_name;
mod should_for_must;
mod two_instructions;
mod vague_care;

use super::Check;
use crate::finding::Fix;
use crate::manual::{Action, Edit, Manual, Phase, SentenceEdit, SentenceField, Step, StepEdit};

pub(super) const RULES: &[Check] = &[
    (two_instructions::RULE, two_instructions::find),
    (long_sentence::RULE, long_sentence::find),
    (condition_late::RULE, condition_late::find),
    (should_for_must::RULE, should_for_must::find),
    (vague_care::RULE, vague_care::find),
    (noun_string::RULE, noun_string::find),
    (other_name::RULE, other_name::find),
    (no_order::RULE, no_order::find),
];

/// A sentence of a step, as its reader sees it.
pub(super) struct Sentence<'m> {
    step: &'m Step,
    action: &'m Action,
    text: String,
}

/// Every sentence of both halves, in the order of the work.
pub(super) fn sentences(manual: &Manual) -> impl Iterator<Item = Sentence<'_>> {
    let steps = [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| manual.steps_in(p));
    steps.flat_map(move |step| {
        step.actions.iter().map(move |action| Sentence { step, action, text: manual.sentence(action) })
    })
}

impl Sentence<'_> {
    /// The press that writes it anew.
    fn reworded(&self, text: String) -> Fix {
        let label = format!("Write “{text}”");
        let set = SentenceEdit::Set { id: self.action.id, field: SentenceField::Text(Some(text)) };
        Fix::new(label, Edit::Step(StepEdit::Sentence { id: self.step.id, sentence: set }))
    }
}

/// How long the sentences of a guide are.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Readability {
    pub sentences: usize,
    /// On average, to a tenth.
    pub words_a_sentence: f64,
    /// Words of the longest.
    pub longest: usize,
    /// Sentences of more than twenty words.
    pub too_long: usize,
}

/// Counts the sentences that tell somebody to do something. O(sentences).
pub fn readability(manual: &Manual) -> Readability {
    let lengths: Vec<usize> = sentences(manual).map(|s| long_sentence::words(&s.text)).collect();
    let all: usize = lengths.iter().sum();
    let average = if lengths.is_empty() { 0.0 } else { all as f64 / lengths.len() as f64 };
    Readability {
        sentences: lengths.len(),
        words_a_sentence: (average * 10.0).round() / 10.0,
        longest: lengths.iter().copied().max().unwrap_or(0),
        too_long: lengths.iter().filter(|n| **n > long_sentence::MOST).count(),
    }
}

/// Tries a rule on one sentence as an author types it, and what its press makes of it.
#[cfg(test)]
fn check(rule: &crate::finding::Rule, typed: &str, says: Option<&str>, becomes: Option<&str>) {
    let manual = crate::manual::drafted::manual("[0:00] Take off the cover. Take out the tray.");
    let step = manual.steps_in(Phase::Teardown)[0];
    let (id, action) = (step.id, step.actions[0].id);
    let set = SentenceEdit::Set { id: action, field: SentenceField::Text(Some(typed.to_owned())) };
    let manual = manual.apply(&Edit::Step(StepEdit::Sentence { id, sentence: set }), "Ann").expect("it is typed").0;
    let found = |m: &Manual| super::findings(m).into_iter().find(|f| f.rule == rule.id);
    let finding = found(&manual);
    assert_eq!(finding.as_ref().map(|f| f.says.as_str()), says, "{typed}");
    let Some(becomes) = becomes else { return };
    let fix = finding.expect("it is found").fixes.into_iter().next().expect("it can be mended");
    let mended = manual.apply(&fix.edit, "Ann").expect("it can be taken").0;
    let told: Vec<String> = mended.steps[&id].actions.iter().map(|a| mended.sentence(a)).collect();
    assert!(told.join(" ").starts_with(becomes), "{told:?}");
    assert!(found(&mended).is_none(), "{told:?}");
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted;

    #[test]
    fn sentences_are_counted() {
        let told = readability(&drafted::manual("[0:00] Take off the cover. Take out the tray."));
        assert_eq!((told.sentences, told.longest, told.too_long), (2, 4, 0));
        assert!((told.words_a_sentence - 4.0).abs() < 0.5, "{told:?}");
        let none = readability(&Manual::new(crate::ids::ManualId(uuid::Uuid::nil()), "Empty", ""));
        assert_eq!((none.sentences, none.words_a_sentence), (0, 0.0));
    }
}
