//! Sentences that an author types, read into what they tell.
//!
//! A hand-made step folds, counts and is checked like a drafted one, because its sentences are understood as they are
//! typed: what is done, which parts move, which screws turn. What was understood is shown beside the sentence, and an
//! author may put it right; only a sentence that now tells something else is understood anew.

use crate::ids::*;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, text};
use crate::manual::{Action, Evidence, FastenerGroup, Manual, Part, Step};
use crate::reading::{self, Act, Deed, FastenerOp, ScrewGroup};
use crate::recording::Recording;
use crate::units::millimetres;
use uuid::Uuid;

/// What typed words tell.
#[derive(Debug, PartialEq)]
struct Understood {
    act: Act,
    /// Parts that leave or go in.
    moved: Vec<String>,
    /// What else it is done to; of screws what they hold.
    things: Vec<String>,
    screws: Vec<ScrewGroup>,
}

/// The deed that a sentence is about: what moves a part, else what it tells first.
fn understand(words: &str) -> Option<Understood> {
    let deeds = reading::deeds(&Recording::parse(words.as_bytes()).ok()?);
    let main = deeds.iter().find(|d| d.moved().next().is_some()).or(deeds.first())?;
    let moved: Vec<String> = main.moved().cloned().collect();
    let things = main.what.iter().filter(|w| !moved.contains(w) && *w != "screws").cloned().collect();
    // "Undo four screws and lift off the lid.": one motion, and its screws count.
    let turned = deeds.iter().find(|d| turns_screws(d)).map(Deed::screws);
    Some(Understood { act: main.act, moved, things, screws: turned.unwrap_or_default() })
}

fn turns_screws(deed: &Deed) -> bool {
    operation(deed.act).is_some()
}

fn operation(act: Act) -> Option<FastenerOp> {
    match act {
        Act::Unscrew => Some(FastenerOp::Remove),
        Act::Loosen => Some(FastenerOp::Loosen),
        Act::Drive => Some(FastenerOp::Install),
        Act::Tighten => Some(FastenerOp::Tighten),
        _ => None,
    }
}

impl Manual {
    /// Words of an author in place of a sentence's own.
    pub(super) fn type_over(
        &mut self,
        step: StepId,
        id: ActionId,
        words: &str,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        let words = text("text", words, MAX_TEXT)?;
        let before = understand(&self.sentence(self.action(step, id)?));
        let action = self.action_mut(step, id, touched)?;
        (action.text, action.said, action.doubt) = (Some(words.clone()), false, None);
        match understand(&words) {
            after if after == before => Ok(()),
            Some(after) => self.take_up(step, id, after, touched),
            None => Ok(()),
        }
    }

    /// Understands the words that a new sentence has.
    pub(super) fn take_up_words(&mut self, step: StepId, id: ActionId, touched: &mut Touched) -> Result<(), Refusal> {
        let words = self.action(step, id)?.text.clone().unwrap_or_default();
        understand(&words).map_or(Ok(()), |told| self.take_up(step, id, told, touched))
    }

    fn take_up(&mut self, step: StepId, id: ActionId, told: Understood, touched: &mut Touched) -> Result<(), Refusal> {
        let before = self.action(step, id)?.parts.clone();
        let mut parts = Vec::with_capacity(told.moved.len());
        for name in &told.moved {
            parts.push(self.part_called(id, name, &before, touched)?);
        }
        if !told.screws.is_empty() {
            self.screws_told(step, id, &told, touched)?;
        }
        let action = self.action_mut(step, id, touched)?;
        action.act = told.act;
        action.parts.clone_from(&parts);
        action.roles.things = told.things;
        action.roles.screws = told.screws;
        self.forget_unused(id, &before, touched)
    }

    /// The part that a name means: one of the sentence's own, the only one that ends so, else a new one.
    fn part_called(
        &mut self,
        by: ActionId,
        name: &str,
        own: &[PartId],
        touched: &mut Touched,
    ) -> Result<PartId, Refusal> {
        let low = name.to_lowercase();
        let ends = |p: &&Part| p.name.to_lowercase().ends_with(&format!(" {low}"));
        let mut alike = self.parts.values().filter(ends);
        let same = self.parts.values().find(|p| p.name.to_lowercase() == low);
        let meant = own.iter().filter_map(|p| self.parts.get(p)).find(ends);
        let only = alike.next().filter(|_| alike.next().is_none());
        if let Some(part) = same.or(meant).or(only) {
            return Ok(part.id);
        }
        let name = text("text", name, MAX_TITLE)?;
        let made = (0..).map(|n| made_by(by, &name, n)).find(|id| !self.parts.contains_key(id)).expect("ids never end");
        self.put_entity(Part::new(made, name, vec![Evidence::Rule { rule: RULE.to_owned() }]), touched);
        Ok(made)
    }

    /// Screws that the words tell of: the sentence's own group follows them; a step without one gets it.
    fn screws_told(
        &mut self,
        step: StepId,
        id: ActionId,
        told: &Understood,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        let action = self.action(step, id)?;
        let linked = action.roles.groups.clone();
        let own = action.parts.clone();
        if let ([group], [screws]) = (&linked[..], &told.screws[..])
            && self.fasteners.contains_key(group)
        {
            follow(self.change_entity::<FastenerGroup>(*group, touched)?, screws);
            return Ok(());
        }
        if !linked.is_empty() || self.groups_of(step).next().is_some() {
            return Ok(());
        }
        let holds = match told.things.first().or(told.moved.first()) {
            Some(name) => vec![self.part_called(id, name, &own, touched)?],
            None => Vec::new(),
        };
        let mut groups = Vec::new();
        for (n, screws) in told.screws.iter().enumerate() {
            let group = GroupId(Uuid::new_v5(&id.0, format!("screws/{n}").as_bytes()));
            let mut made = FastenerGroup {
                op: operation(told.act).unwrap_or(FastenerOp::Remove),
                holds: holds.clone(),
                ..FastenerGroup::new(group, step)
            };
            follow(&mut made, screws);
            made.evidence.push(Evidence::Rule { rule: RULE.to_owned() });
            self.put_entity(made, touched);
            groups.push(group);
        }
        self.action_mut(step, id, touched)?.roles.groups = groups;
        Ok(())
    }

    /// Parts that this sentence made while it was typed and that nothing speaks of any more: a slip of the fingers.
    fn forget_unused(&mut self, id: ActionId, parts: &[PartId], touched: &mut Touched) -> Result<(), Refusal> {
        for part in parts {
            let mine = |p: &Part| (0..3).any(|n| made_by(id, &p.name, n) == p.id);
            if self.parts.get(part).is_some_and(mine) && self.user_of(*part).is_none() {
                self.take_entity::<Part>(*part, touched)?;
            }
        }
        Ok(())
    }

    pub(super) fn action(&self, step: StepId, id: ActionId) -> Result<&Action, Refusal> {
        let gone = Refusal::Gone { what: "sentence", id: id.0 };
        self.must_be_there::<Step>(step)?.actions.iter().find(|a| a.id == id).ok_or(gone)
    }

    pub(super) fn action_mut(
        &mut self,
        step: StepId,
        id: ActionId,
        touched: &mut Touched,
    ) -> Result<&mut Action, Refusal> {
        let gone = Refusal::Gone { what: "sentence", id: id.0 };
        self.change_entity::<Step>(step, touched)?.actions.iter_mut().find(|a| a.id == id).ok_or(gone)
    }
}

/// The rule that stands as evidence for what was read out of typed words.
const RULE: &str = "typed-sentence";

fn made_by(sentence: ActionId, name: &str, n: usize) -> PartId {
    PartId(Uuid::new_v5(&sentence.0, format!("part/{}/{n}", name.to_lowercase()).as_bytes()))
}

/// What is told of screws stands; what is not told stays as it was.
fn follow(group: &mut FastenerGroup, told: &ScrewGroup) {
    group.count = told.count.or(group.count);
    group.drive = told.drive.or(group.drive);
    group.bit = told.bit.clone().or(group.bit.take());
    group.length = told.length_mm.map(millimetres).or(group.length);
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{Edit, PartEdit, Phase, SentenceEdit, SentenceField, StepEdit};
    use rstest::{fixture, rstest};

    const STEP: StepId = StepId(Uuid::from_u128(1));
    const SENTENCE: ActionId = ActionId(Uuid::from_u128(2));

    fn send(manual: &Manual, sentence: SentenceEdit) -> Manual {
        manual.apply(&Edit::Step(StepEdit::Sentence { id: STEP, sentence }), "Ann").unwrap().0
    }

    fn typed(manual: &Manual, text: &str) -> Manual {
        send(manual, SentenceEdit::Set { id: SENTENCE, field: SentenceField::Text(Some(text.into())) })
    }

    /// A grain scale with a rear cover and a step that says nothing yet.
    #[fixture]
    fn scale() -> Manual {
        let part = Edit::Part(PartEdit::Add { id: PartId(Uuid::from_u128(3)), name: "rear cover".into() });
        let (title, actions) = ("Cover".into(), Vec::new());
        let step = Edit::Step(StepEdit::Add { id: STEP, phase: Phase::Teardown, after: None, title, actions });
        let empty = Manual::new(ManualId(Uuid::nil()), "Scale", "");
        let manual = [part, step].iter().fold(empty, |m, e| m.apply(e, "Ann").unwrap().0);
        let sentence = Box::new(Action::typed(SENTENCE, Act::Place, Vec::new(), "New sentence."));
        send(&manual, SentenceEdit::Add { sentence, after: None })
    }

    /// "remove rear cover | 4×T10 of rear cover".
    fn told(manual: &Manual) -> String {
        let action = &manual.steps[&STEP].actions[0];
        let act = serde_json::to_value(action.act).unwrap();
        let names = |ids: &[PartId]| ids.iter().map(|p| manual.part_name(*p)).collect::<Vec<_>>().join(" + ");
        let screws = manual.groups_of(STEP).map(|g| {
            let (count, bit) = (g.count.unwrap_or(0), g.bit.clone().unwrap_or_default());
            format!(" | {count}×{bit} of {}", names(&g.holds))
        });
        format!("{} {}{}", act.as_str().unwrap(), names(&action.parts), screws.collect::<String>()).trim().to_owned()
    }

    #[rstest]
    #[case::known("Remove the rear cover.", "remove rear cover")]
    #[case::shorter_name("Lift off the cover.", "remove rear cover")]
    #[case::new_part("Take out the load cell.", "remove load cell")]
    #[case::screws("Undo the four T10 screws of the rear cover.", "unscrew  | 4×T10 of rear cover")]
    #[case::one_motion("Undo four T10 screws and lift off the cover.", "remove rear cover | 4×T10 of rear cover")]
    #[case::no_part("Switch off the scale.", "power_off")]
    #[case::no_deed("This is the fiddly bit.", "place")]
    fn a_typed_sentence_is_understood(scale: Manual, #[case] text: &str, #[case] wanted: &str) {
        let manual = typed(&scale, text);
        assert_eq!(told(&manual), wanted);
        assert_eq!(manual.sentence(&manual.steps[&STEP].actions[0]), text);
    }

    #[rstest]
    fn a_slip_leaves_no_part_behind(scale: Manual) {
        let slipped = typed(&scale, "Take out the laod cell.");
        let mended = typed(&slipped, "Take out the load cell.");
        let names: Vec<&str> = mended.parts.values().map(|p| p.name.as_str()).collect();
        assert_eq!(names.len(), 2, "{names:?}");
        assert!(names.contains(&"load cell"));
    }

    #[rstest]
    fn what_an_author_put_right_outlives_other_words_for_the_same(scale: Manual) {
        let cover = PartId(Uuid::from_u128(3));
        let manual = typed(&scale, "Take out the load cell.");
        let manual = send(&manual, SentenceEdit::Set { id: SENTENCE, field: SentenceField::Parts(vec![cover]) });
        assert_eq!(told(&typed(&manual, "Take out the load cell gently.")), "remove rear cover");
    }

    #[rstest]
    fn another_count_is_the_count_of_its_screws(scale: Manual) {
        let manual = typed(&scale, "Undo the four T10 screws of the rear cover.");
        let manual = typed(&manual, "Undo the five T10 screws of the rear cover.");
        assert_eq!(told(&manual), "unscrew  | 5×T10 of rear cover");
    }

    #[rstest]
    fn the_halves_of_a_split_sentence_tell_their_own(scale: Manual) {
        let manual = typed(&scale, "Undo the four T10 screws of the rear cover. Remove the rear cover.");
        let new_id = ActionId(Uuid::from_u128(9));
        let manual = send(&manual, SentenceEdit::Split { id: SENTENCE, at: 43, new_id });
        let acts: Vec<Act> = manual.steps[&STEP].actions.iter().map(|a| a.act).collect();
        assert_eq!(acts, [Act::Unscrew, Act::Remove]);
    }

    #[rstest]
    fn typing_is_undone_with_what_was_understood(scale: Manual) {
        let edit = SentenceEdit::Set {
            id: SENTENCE,
            field: SentenceField::Text(Some("Undo two T5 screws and take out the load cell.".into())),
        };
        let edit = Edit::Step(StepEdit::Sentence { id: STEP, sentence: edit });
        let (after, change) = scale.apply(&edit, "Ann").unwrap();
        assert_ne!(after.parts, scale.parts);
        let (back, _) = after.revert(&change).unwrap();
        assert_eq!((&back.steps, &back.parts, &back.fasteners), (&scale.steps, &scale.parts, &scale.fasteners));
    }
}
