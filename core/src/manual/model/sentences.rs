//! Sentences of a step, edited one by one.
//!
//! An edit names its sentence and nothing of the others, so that what was typed without a connection, or by two authors at
//! once, never carries a stale copy of the sentences beside it.

use crate::ids::*;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, Refusal, text};
use crate::manual::{Action, FastenerGroup, Manual, Part, RoleField, Roles, Step};
use crate::reading::Act;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Changes of one sentence.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SentenceEdit {
    /// Behind `after`, or first.
    Add {
        sentence: Box<Action>,
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
    /// Words of its own; `None`: it is worded from what it tells.
    Text(Option<String>),
    Act(Act),
    Parts(Vec<PartId>),
    Role(RoleField),
    /// A doubted word stands as it was heard.
    Stands,
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
            SentenceEdit::Set { id, field } => return self.set_sentence(step, *id, field, touched),
            // Cut and joined are the words that readers see.
            SentenceEdit::Split { id, .. } => self.spell_out(step, *id, touched)?,
            SentenceEdit::Join { id } => {
                self.spell_out(step, *id, touched)?;
                let row = &self.must_be_there::<Step>(step)?.actions;
                if let Some(next) = row.get(place(row, *id)? + 1).map(|a| a.id) {
                    self.spell_out(step, next, touched)?;
                }
            }
            SentenceEdit::Move { .. } | SentenceEdit::Remove { .. } => {}
        }
        edit.apply_to(&mut self.change_entity::<Step>(step, touched)?.actions)?;
        match edit {
            SentenceEdit::Add { sentence, .. } if tells_nothing_yet(sentence) => {
                self.take_up_words(step, sentence.id, touched)
            }
            SentenceEdit::Split { id, new_id, .. } => {
                self.take_up_words(step, *id, touched)?;
                self.take_up_words(step, *new_id, touched)
            }
            _ => Ok(()),
        }
    }

    fn set_sentence(
        &mut self,
        step: StepId,
        id: ActionId,
        field: &SentenceField,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        match field {
            SentenceField::Text(Some(words)) => return self.type_over(step, id, words, touched),
            SentenceField::Text(None) => {
                let action = self.action_mut(step, id, touched)?;
                (action.text, action.said) = (None, false);
                return Ok(());
            }
            SentenceField::Stands => {
                self.action_mut(step, id, touched)?.doubt = None;
                return Ok(());
            }
            SentenceField::Parts(parts) => self.must_all_be_there::<Part>(parts)?,
            SentenceField::Role(RoleField::Groups(groups)) => self.must_all_be_there::<FastenerGroup>(groups)?,
            _ => {}
        }
        let names: Vec<String> = match field {
            SentenceField::Parts(parts) => parts.iter().map(|p| self.part_name(*p).to_lowercase()).collect(),
            _ => Vec::new(),
        };
        let action = self.action_mut(step, id, touched)?;
        action.corrected();
        match field {
            SentenceField::Act(act) => action.act = *act,
            SentenceField::Parts(parts) => {
                // Its first part is what the words called something else; a part named twice is named once.
                let first = action.parts.is_empty() && !parts.is_empty();
                action.roles.things.retain(|t| !first && !names.contains(&t.to_lowercase()));
                action.parts.clone_from(parts);
            }
            SentenceField::Role(role) => action.roles.set(role)?,
            SentenceField::Text(_) | SentenceField::Stands => {}
        }
        Ok(())
    }

    /// The words that readers see become the sentence's own.
    fn spell_out(&mut self, step: StepId, id: ActionId, touched: &mut Touched) -> Result<(), Refusal> {
        let words = self.sentence(self.action(step, id)?);
        let action = self.action_mut(step, id, touched)?;
        (action.text, action.said) = (Some(words), false);
        Ok(())
    }
}

/// Words that somebody typed, and nothing chosen beside them.
fn tells_nothing_yet(sentence: &Action) -> bool {
    sentence.act == Act::Place && sentence.parts.is_empty() && sentence.roles == Roles::default()
}

impl SentenceEdit {
    fn apply_to(&self, row: &mut Vec<Action>) -> Result<(), Refusal> {
        match self {
            Self::Add { sentence, after } => {
                if row.iter().any(|a| a.id == sentence.id) {
                    return Err(Refusal::invalid("sentence", "This sentence is in the step already."));
                }
                let at = behind(row, *after)?;
                row.insert(at, sentence.checked("text")?);
            }
            // Names and figures of the whole manual decide, so it is done there.
            Self::Set { .. } => {}
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
    let whole: Vec<char> = row[from].text.iter().flat_map(|t| t.chars()).collect();
    let (first, second) = whole.split_at(at.min(whole.len()));
    let [first, second] = [first, second].map(|part| part.iter().collect::<String>().trim().to_owned());
    if first.is_empty() || second.is_empty() {
        let problem = format!("The sentence has {} characters; split it between two words.", whole.len());
        return Err(Refusal::invalid("at", problem));
    }
    let new = Action { id: new_id, text: Some(second), ..row[from].clone() };
    row[from].text = Some(first);
    row.insert(from + 1, new);
    Ok(())
}

fn join(row: &mut Vec<Action>, id: ActionId) -> Result<(), Refusal> {
    let at = place(row, id)?;
    let Some(next) = row.get(at + 1).cloned() else {
        return Err(Refusal::invalid("id", "No sentence stands behind this one."));
    };
    let joined: Vec<String> = [row[at].text.clone(), next.text].into_iter().flatten().collect();
    row[at].text = Some(text("text", &joined.join(" "), MAX_TEXT)?);
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
        Action::typed(id(n), Act::Place, Vec::new(), text)
    }

    fn new(n: u128, text: &str) -> Box<Action> {
        Box::new(sentence(n, text))
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
        SentenceEdit::Set { id: id(n), field: SentenceField::Text(Some(words.to_owned())) }
    }

    fn words(manual: &Manual) -> Vec<String> {
        manual.steps[&STEP].actions.iter().map(|a| manual.sentence(a)).collect()
    }

    #[rstest]
    #[case::set(set(12, "Turn it."), &["Lift the lid.", "Turn it.", "Wait."])]
    #[case::added(SentenceEdit::Add { sentence: new(14, "Look."), after: Some(id(11)) }, &["Lift the lid.", "Look.", "Turn the base.", "Wait."])]
    #[case::added_first(SentenceEdit::Add { sentence: new(14, "Look."), after: None }, &["Look.", "Lift the lid.", "Turn the base.", "Wait."])]
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
    #[case::twice(SentenceEdit::Add { sentence: new(12, "Look."), after: None })]
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
