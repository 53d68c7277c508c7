//! Sentences of a step, edited one by one.
//!
//! An edit names its sentence and nothing of the others, so that what was typed without a connection, or by two authors at
//! once, never carries a stale copy of the sentences beside it.

use crate::ids::*;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, Refusal, text};
use crate::manual::{Action, Manual, Part, Step};
use crate::reading::Act;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Changes of one sentence.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SentenceEdit {
    /// Behind `after`, or first.
    Add {
        sentence: Action,
        after: Option<ActionId>,
    },
    Set {
        id: ActionId,
        field: SentenceField,
    },
    /// Behind `after`, or first.
    Move {
        id: ActionId,
        after: Option<ActionId>,
    },
    Remove {
        id: ActionId,
    },
    /// The characters from `at` on become the sentence `new_id` right behind; both keep act, parts and evidence.
    Split {
        id: ActionId,
        at: usize,
        new_id: ActionId,
    },
    /// The sentence behind it goes to its end.
    Join {
        id: ActionId,
    },
}

/// One field of a sentence.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SentenceField {
    Text(String),
    Act(Act),
    Parts(Vec<PartId>),
}

impl Manual {
    pub(super) fn edit_sentence(
        &mut self,
        step: StepId,
        edit: &SentenceEdit,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        match edit {
            SentenceEdit::Add { sentence, .. } => self.must_all_be_there::<Part>(&sentence.parts)?,
            SentenceEdit::Set { field: SentenceField::Parts(parts), .. } => self.must_all_be_there::<Part>(parts)?,
            _ => {}
        }
        edit.apply_to(&mut self.change_entity::<Step>(step, touched)?.actions)
    }
}

impl SentenceEdit {
    fn apply_to(&self, row: &mut Vec<Action>) -> Result<(), Refusal> {
        match self {
            Self::Add { sentence, after } => {
                if row.iter().any(|a| a.id == sentence.id) {
                    return Err(Refusal::invalid("sentence", "This sentence is in the step already."));
                }
                let at = behind(row, *after)?;
                let words = text("text", &sentence.text, MAX_TEXT)?;
                row.insert(at, Action { text: words, ..sentence.clone() });
            }
            Self::Set { id, field } => {
                let at = place(row, *id)?;
                let sentence = &mut row[at];
                match field {
                    SentenceField::Text(words) => sentence.text = text("text", words, MAX_TEXT)?,
                    SentenceField::Act(act) => sentence.act = *act,
                    SentenceField::Parts(parts) => sentence.parts.clone_from(parts),
                }
            }
            Self::Move { id, after } => {
                if *after == Some(*id) {
                    return Err(Refusal::invalid("after", "A sentence cannot stand behind itself."));
                }
                let at = place(row, *id)?;
                behind(row, *after)?;
                let sentence = row.remove(at);
                let to = behind(row, *after)?;
                row.insert(to, sentence);
            }
            Self::Remove { id } => {
                let at = place(row, *id)?;
                row.remove(at);
            }
            Self::Split { id, at, new_id } => split(row, *id, *at, *new_id)?,
            Self::Join { id } => join(row, *id)?,
        }
        Ok(())
    }
}

fn place(row: &[Action], id: ActionId) -> Result<usize, Refusal> {
    row.iter().position(|a| a.id == id).ok_or(Refusal::Gone { what: "sentence", id: id.0 })
}

fn behind(row: &[Action], after: Option<ActionId>) -> Result<usize, Refusal> {
    after.map_or(Ok(0), |id| Ok(place(row, id)? + 1))
}

fn split(row: &mut Vec<Action>, id: ActionId, at: usize, new_id: ActionId) -> Result<(), Refusal> {
    if row.iter().any(|a| a.id == new_id) {
        return Err(Refusal::invalid("new_id", "This sentence is in the step already."));
    }
    let from = place(row, id)?;
    let whole: Vec<char> = row[from].text.chars().collect();
    let (first, second) = whole.split_at(at.min(whole.len()));
    let [first, second] = [first, second].map(|part| part.iter().collect::<String>().trim().to_owned());
    if first.is_empty() || second.is_empty() {
        let problem = format!("The sentence has {} characters; split it between two words.", whole.len());
        return Err(Refusal::invalid("at", problem));
    }
    let new = Action { id: new_id, text: second, ..row[from].clone() };
    row[from].text = first;
    row.insert(from + 1, new);
    Ok(())
}

fn join(row: &mut Vec<Action>, id: ActionId) -> Result<(), Refusal> {
    let at = place(row, id)?;
    let Some(next) = row.get(at + 1).cloned() else {
        return Err(Refusal::invalid("id", "No sentence stands behind this one."));
    };
    let joined = format!("{} {}", row[at].text, next.text);
    row[at].text = text("text", &joined, MAX_TEXT)?;
    for part in next.parts {
        if !row[at].parts.contains(&part) {
            row[at].parts.push(part);
        }
    }
    for evidence in next.evidence {
        if !row[at].evidence.contains(&evidence) {
            row[at].evidence.push(evidence);
        }
    }
    row.remove(at + 1);
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{Change, Edit, Phase, StepEdit};
    use rstest::rstest;
    use uuid::Uuid;

    const STEP: StepId = StepId(Uuid::from_u128(1));

    fn id(n: u128) -> ActionId {
        ActionId(Uuid::from_u128(n))
    }

    fn sentence(n: u128, text: &str) -> Action {
        Action { id: id(n), act: Act::Place, parts: Vec::new(), text: text.to_owned(), evidence: Vec::new() }
    }

    /// A step of three sentences.
    fn manual() -> Manual {
        let actions = vec![sentence(11, "Lift the lid."), sentence(12, "Turn the base."), sentence(13, "Wait.")];
        let add = StepEdit::Add { id: STEP, phase: Phase::Teardown, after: None, title: "Lid".into(), actions };
        Manual::new(ManualId(Uuid::nil()), "Lamp", "").apply(&Edit::Step(add), "Ann").unwrap().0
    }

    fn edited(manual: &Manual, sentence: SentenceEdit) -> Result<(Manual, Change), Refusal> {
        manual.apply(&Edit::Step(StepEdit::Sentence { id: STEP, sentence }), "Ann")
    }

    fn set(n: u128, words: &str) -> SentenceEdit {
        SentenceEdit::Set { id: id(n), field: SentenceField::Text(words.to_owned()) }
    }

    fn words(manual: &Manual) -> Vec<&str> {
        manual.steps[&STEP].actions.iter().map(|a| a.text.as_str()).collect()
    }

    #[rstest]
    #[case::set(set(12, "Turn it."), &["Lift the lid.", "Turn it.", "Wait."])]
    #[case::added(SentenceEdit::Add { sentence: sentence(14, "Look."), after: Some(id(11)) }, &["Lift the lid.", "Look.", "Turn the base.", "Wait."])]
    #[case::added_first(SentenceEdit::Add { sentence: sentence(14, "Look."), after: None }, &["Look.", "Lift the lid.", "Turn the base.", "Wait."])]
    #[case::moved(SentenceEdit::Move { id: id(11), after: Some(id(13)) }, &["Turn the base.", "Wait.", "Lift the lid."])]
    #[case::moved_first(SentenceEdit::Move { id: id(13), after: None }, &["Wait.", "Lift the lid.", "Turn the base."])]
    #[case::removed(SentenceEdit::Remove { id: id(12) }, &["Lift the lid.", "Wait."])]
    #[case::split(SentenceEdit::Split { id: id(11), at: 5, new_id: id(14) }, &["Lift", "the lid.", "Turn the base.", "Wait."])]
    #[case::joined(SentenceEdit::Join { id: id(11) }, &["Lift the lid. Turn the base.", "Wait."])]
    fn one_sentence_changes_and_the_others_stay(#[case] edit: SentenceEdit, #[case] wanted: &[&str]) {
        let before = manual();
        let (after, change) = edited(&before, edit).unwrap();
        assert_eq!(words(&after), wanted);
        let (back, _) = after.revert(&change).unwrap();
        assert_eq!(words(&back), words(&before));
    }

    #[rstest]
    #[case::empty(set(12, "  "))]
    #[case::not_there(set(99, "Turn it."))]
    #[case::twice(SentenceEdit::Add { sentence: sentence(12, "Look."), after: None })]
    #[case::behind_itself(SentenceEdit::Move { id: id(12), after: Some(id(12)) })]
    #[case::behind_nothing(SentenceEdit::Move { id: id(12), after: Some(id(99)) })]
    #[case::split_at_the_end(SentenceEdit::Split { id: id(13), at: 99, new_id: id(14) })]
    #[case::the_last_joins_nothing(SentenceEdit::Join { id: id(13) })]
    fn what_makes_no_sense_is_refused_and_changes_nothing(#[case] edit: SentenceEdit) {
        assert!(edited(&manual(), edit).is_err());
    }

    #[test]
    fn two_authors_may_change_two_sentences_of_a_step() {
        let (first, mine) = edited(&manual(), set(11, "Lift it.")).unwrap();
        let (both, theirs) = edited(&first, set(13, "Wait a minute.")).unwrap();
        assert!(!mine.meets(&theirs));
        // Undoing the first leaves the second.
        let (back, _) = both.revert(&mine).unwrap();
        assert_eq!(words(&back), ["Lift the lid.", "Turn the base.", "Wait a minute."]);
        // The log replays sentence by sentence.
        let replayed = manual().replay(&mine).unwrap().replay(&theirs).unwrap();
        assert_eq!(words(&replayed), words(&both));
    }

    #[test]
    fn the_same_sentence_changed_twice_is_a_clash() {
        let (_, mine) = edited(&manual(), set(11, "Lift it.")).unwrap();
        let (_, theirs) = edited(&manual(), set(11, "Raise it.")).unwrap();
        let (_, removed) = edited(&manual(), SentenceEdit::Remove { id: id(11) }).unwrap();
        assert!(mine.meets(&theirs) && mine.meets(&removed));
    }
}
