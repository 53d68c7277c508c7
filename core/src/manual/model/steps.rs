//! Steps: what one does, in its order.

use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, above_zero, maybe_text, note, text};
use crate::manual::edits::sound::Sound;
use crate::manual::model::kit::ToolChoice;
use crate::manual::{
    Action, Aspect, Caution, Connector, Entity, Evidence, FastenerGroup, Heat, Manual, Part, Roles, Seam, SentenceEdit,
    Variant,
};
use crate::reading::{Act, Consumable};
use fractional_index::FractionalIndex;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// Which half of the work a step belongs to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Phase {
    Teardown,
    /// Told by the narrator; the rebuild that readers see is worked out from the teardown and compared with this.
    Rebuild,
}

/// What to do if something goes another way.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Branch {
    /// "the strip tears"
    pub condition: String,
    pub advice: String,
    /// Tools that only this branch needs.
    pub tools: Vec<String>,
    /// Where it goes on; `None` means stop.
    pub resume: Option<StepId>,
}

impl Branch {
    /// For people: what sets it off, what to do, with what, and where it goes on.
    pub fn words(&self, manual: &Manual) -> String {
        let tools =
            if self.tools.is_empty() { String::new() } else { format!(" You need: {}.", self.tools.join(", ")) };
        let steps = manual.steps_in(Phase::Teardown);
        let next = self.resume.map(|id| match steps.iter().position(|s| s.id == id) {
            Some(at) => format!("Go on at step {}.", at + 1),
            None => match manual.steps.get(&id) {
                Some(step) if step.phase == Phase::Rebuild => format!("Go on at “{}” of the rebuild.", step.title),
                _ => "Then go on with the rebuild: no step of this guide is left.".to_owned(),
            },
        });
        let advice = self.advice.trim_end_matches('.');
        format!("{}: {advice}.{tools} {}", self.condition, next.as_deref().unwrap_or("Stop here."))
    }
}

/// How the device lies while the step is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Posture {
    FaceUp,
    FaceDown,
    OnSide,
    Propped,
    Tethered,
}

labels!(Posture {
    FaceUp: "face up",
    FaceDown: "face down",
    OnSide: "on its side",
    Propped: "propped up",
    Tethered: "open, held by its cables",
});

/// Something done for a while that must be undone.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TemporaryAct {
    pub what: String,
    pub undone_in: Option<StepId>,
}

/// One step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Step {
    pub id: StepId,
    pub phase: Phase,
    /// Sorts the steps of a phase; between two ranks there is always room for a third.
    pub rank: String,
    pub title: String,
    /// The title of the stage that begins with this step.
    #[serde(default)]
    pub stage: Option<String>,
    pub note: Option<String>,
    pub actions: Vec<Action>,
    /// Names from the tool list; authors may add their own.
    pub tools: Vec<String>,
    /// Where one of several tools does.
    #[serde(default)]
    pub choices: Vec<ToolChoice>,
    pub consumables: Vec<Consumable>,
    pub posture: Option<Posture>,
    pub branches: Vec<Branch>,
    pub temporary: Vec<TemporaryAct>,
    /// It only tries something out, in the half where it stands.
    #[serde(default)]
    pub trial: bool,
    /// Empty: holds for all variants.
    pub variants: Vec<VariantId>,
    /// Seconds, where an author knows better than the estimate.
    #[serde(default)]
    pub time_s: Option<f64>,
    pub reviewed: bool,
    pub evidence: Vec<Evidence>,
}

impl Step {
    /// An empty step at a rank.
    pub fn new(id: StepId, phase: Phase, rank: String, title: String) -> Self {
        Self {
            id,
            phase,
            rank,
            title,
            stage: None,
            note: None,
            actions: Vec::new(),
            tools: Vec::new(),
            choices: Vec::new(),
            consumables: Vec::new(),
            posture: None,
            branches: Vec::new(),
            temporary: Vec::new(),
            trial: false,
            variants: Vec::new(),
            time_s: None,
            reviewed: false,
            evidence: Vec::new(),
        }
    }
}

/// One field of a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StepField {
    Title(String),
    /// A stage begins here; `None`: the stage before goes on.
    Stage(Option<String>),
    Note(Option<String>),
    Actions(Vec<Action>),
    Tools(Vec<String>),
    Choices(Vec<ToolChoice>),
    Consumables(Vec<Consumable>),
    Posture(Option<Posture>),
    Branches(Vec<Branch>),
    Temporary(Vec<TemporaryAct>),
    Trial(bool),
    Variants(Vec<VariantId>),
    TimeS(Option<f64>),
    Reviewed(bool),
}

/// Changes of steps.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StepEdit {
    /// A new step behind `after`, or first; with sentences where it is made from a statement.
    Add {
        id: StepId,
        phase: Phase,
        after: Option<StepId>,
        title: String,
        #[serde(default)]
        actions: Vec<Action>,
    },
    Set {
        id: StepId,
        field: StepField,
    },
    /// Behind `after`, or first.
    Move {
        id: StepId,
        after: Option<StepId>,
    },
    /// Everything of `id` goes to the end of `into`; `id` is gone.
    Merge {
        id: StepId,
        into: StepId,
    },
    /// Actions from `at` on, and what hangs on their evidence, become the step `new_id` right behind; without a title it
    /// goes by what it does.
    Split {
        id: StepId,
        at: usize,
        new_id: StepId,
        #[serde(default)]
        title: Option<String>,
    },
    Remove {
        id: StepId,
    },
    AddEvidence {
        id: StepId,
        evidence: Evidence,
    },
    /// One sentence of a step.
    Sentence {
        id: StepId,
        sentence: SentenceEdit,
    },
}

/// Longest time of one step, in seconds: glue may cure over night.
const MAX_STEP_S: f64 = 86_400.0;

impl Apply for StepEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, phase, after, title, actions } => {
                manual.must_be_new::<Step>(*id)?;
                let title = text("title", title, MAX_TITLE)?;
                let rank = manual.rank_behind(*phase, *after, None)?;
                manual.check_actions(actions)?;
                let mut step = Step::new(*id, *phase, rank, title);
                step.evidence = actions.iter().flat_map(|a| a.evidence.clone()).collect();
                step.actions.clone_from(actions);
                if step.evidence.is_empty() {
                    step.evidence.push(Evidence::author(author));
                }
                manual.put_entity(step, touched);
            }
            Self::Set { id, field } => {
                match field {
                    StepField::Actions(actions) => manual.check_actions(actions)?,
                    StepField::Variants(variants) => manual.must_all_be_there::<Variant>(variants)?,
                    _ => {}
                }
                set_field(manual.change_entity::<Step>(*id, touched)?, field)?;
            }
            Self::Move { id, after } => {
                if *after == Some(*id) {
                    return Err(Refusal::invalid("after", "A step cannot stand behind itself."));
                }
                let phase = manual.must_be_there::<Step>(*id)?.phase;
                let rank = manual.rank_behind(phase, *after, Some(*id))?;
                manual.change_entity::<Step>(*id, touched)?.rank = rank;
            }
            Self::Merge { id, into } => manual.merge(*id, *into, touched)?,
            Self::Split { id, at, new_id, title } => manual.split(*id, *at, *new_id, title.as_deref(), touched)?,
            Self::Remove { id } => manual.remove_step(*id, touched)?,
            Self::AddEvidence { id, evidence } => {
                manual.change_entity::<Step>(*id, touched)?.evidence.push(evidence.clone());
            }
            Self::Sentence { id, sentence } => manual.edit_sentence(*id, sentence, touched)?,
        }
        Ok(())
    }
}

/// What hangs on a step: it goes where the step goes.
trait StepChild: Entity {
    fn step(&self) -> StepId;
    fn put_to(&mut self, step: StepId);
    fn evidence(&self) -> &[Evidence];
}

macro_rules! step_children {
    ($($child:ident),+) => {
        $(impl StepChild for $child {
            fn step(&self) -> StepId {
                self.step
            }

            fn put_to(&mut self, step: StepId) {
                self.step = step;
            }

            fn evidence(&self) -> &[Evidence] {
                &self.evidence
            }
        })+

        impl Manual {
            /// What hangs on one step goes to another where its evidence says so.
            fn move_children(
                &mut self,
                from: StepId,
                to: StepId,
                goes: impl Fn(&[Evidence]) -> bool,
                touched: &mut Touched,
            ) {
                $(self.change_entities::<$child>(
                    |c| c.step() == from && goes(c.evidence()),
                    |c| c.put_to(to),
                    touched,
                );)+
            }

            fn drop_children(&mut self, of: StepId, touched: &mut Touched) {
                $(self.keep_entities::<$child>(|c| c.step() != of, touched);)+
            }
        }
    };
}

step_children!(FastenerGroup, Connector, Seam, Heat, Caution);

impl Manual {
    /// A rank right behind `after`, with `moving` left out of the row.
    fn rank_behind(&self, phase: Phase, after: Option<StepId>, moving: Option<StepId>) -> Result<String, Refusal> {
        let row: Vec<&Step> = self.steps_in(phase).into_iter().filter(|s| Some(s.id) != moving).collect();
        let next = match after {
            None => 0,
            Some(after) => {
                row.iter()
                    .position(|s| s.id == after)
                    .ok_or(Refusal::Gone { what: "step to stand behind", id: after.0 })?
                    + 1
            }
        };
        let before = next.checked_sub(1).map(|i| row[i].rank.as_str());
        // Equal ranks (made at one time by two clients) leave no room between; go behind all of them.
        let behind = row[next..].iter().map(|s| s.rank.as_str()).find(|r| before.is_none_or(|b| *r > b));
        Ok(rank_between(before, behind))
    }

    fn check_actions(&self, actions: &[Action]) -> Result<(), Refusal> {
        for action in actions {
            action.checked("actions")?;
            self.must_all_be_there::<Part>(&action.parts)?;
        }
        Ok(())
    }

    fn merge(&mut self, id: StepId, into: StepId, touched: &mut Touched) -> Result<(), Refusal> {
        if id == into {
            return Err(Refusal::invalid("into", "A step cannot be merged with itself."));
        }
        let kept = self.must_be_there::<Step>(into)?.phase;
        if self.must_be_there::<Step>(id)?.phase != kept {
            return Err(Refusal::invalid("into", "A teardown step and a rebuild step cannot be merged."));
        }
        let from = self.take_entity::<Step>(id, touched)?;
        let target = self.change_entity::<Step>(into, touched)?;
        target.actions.extend(from.actions);
        target.branches.extend(from.branches);
        target.temporary.extend(from.temporary);
        extend_new(&mut target.tools, from.tools);
        extend_new(&mut target.choices, from.choices);
        extend_new(&mut target.consumables, from.consumables);
        extend_new(&mut target.evidence, from.evidence);
        target.note = match (target.note.take(), from.note) {
            (Some(a), Some(b)) => Some(format!("{a}\n{b}")),
            (a, b) => a.or(b),
        };
        target.reviewed &= from.reviewed;
        self.hand_on_stage(kept, &from.rank, from.stage, touched);
        self.move_children(id, into, |_| true, touched);
        self.change_entities::<Connector>(|c| c.until == Some(id), |c| c.until = Some(into), touched);
        self.move_requirements(id, into, touched);
        Ok(())
    }

    fn split(
        &mut self,
        id: StepId,
        at: usize,
        new_id: StepId,
        title: Option<&str>,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        self.must_be_new::<Step>(new_id)?;
        let title = match title {
            Some(title) => text("title", title, MAX_TITLE)?,
            None => self.title_of(self.must_be_there::<Step>(id)?.actions.get(at..).unwrap_or_default()),
        };
        let phase = self.must_be_there::<Step>(id)?.phase;
        let rank = self.rank_behind(phase, Some(id), None)?;
        let step = self.change_entity::<Step>(id, touched)?;
        if at == 0 || at >= step.actions.len() {
            let problem = format!(
                "The step has {} sentences; split it behind one of the first {}.",
                step.actions.len(),
                step.actions.len().saturating_sub(1)
            );
            return Err(Refusal::invalid("at", problem));
        }
        let mut new = Step::new(new_id, phase, rank, title);
        new.actions = step.actions.split_off(at);
        new.tools = step.tools.clone();
        new.evidence = new.actions.iter().flat_map(|a| a.evidence.clone()).collect();
        step.reviewed = false;
        let moved = new.evidence.clone();
        step.evidence.retain(|e| !moved.contains(e));
        self.put_entity(new, touched);
        self.move_children(
            id,
            new_id,
            |evidence| evidence.iter().any(|e| moved.iter().any(|m| same_words(e, m))),
            touched,
        );
        Ok(())
    }

    /// What sentences come to: the part that leaves or goes in, else what is done first.
    fn title_of(&self, actions: &[Action]) -> String {
        let Some(main) = actions.iter().find(|a| a.moves() && !a.parts.is_empty()).or(actions.first()) else {
            return String::new();
        };
        let tells = main.act != Act::Place || !main.parts.is_empty();
        let held = || main.roles.groups.iter().filter_map(|g| self.fasteners.get(g)).flat_map(|g| &g.holds);
        let things = if main.turns_screws() && !main.roles.groups.is_empty() {
            held().map(|p| self.part_name(*p).to_owned()).collect()
        } else {
            main.roles.things.clone()
        };
        let bare = Roles { things, ..Roles::default() };
        let words = match main.text.as_deref().filter(|_| !tells) {
            Some(words) => words.to_owned(),
            None => self.sentence(&Action { text: None, roles: bare, ..main.clone() }),
        };
        words.trim_end_matches('.').chars().take(MAX_TITLE).collect()
    }

    /// A stage whose first step is gone begins with the next one, unless that begins another.
    fn hand_on_stage(&mut self, phase: Phase, rank: &str, stage: Option<String>, touched: &mut Touched) {
        let next = self.steps_in(phase).into_iter().find(|s| s.rank.as_str() > rank).map(|s| s.id);
        if stage.is_none() {
            return;
        }
        let Some(next) = next.and_then(|id| self.steps.get_mut(&id)) else { return };
        touched.add(Aspect::Steps, next.id.0);
        next.stage = next.stage.take().or(stage);
    }

    pub(in crate::manual) fn remove_step(&mut self, id: StepId, touched: &mut Touched) -> Result<(), Refusal> {
        if self.groups_of(id).next().is_some() {
            self.keep_letters(touched);
        }
        let gone = self.take_entity::<Step>(id, touched)?;
        self.hand_on_stage(gone.phase, &gone.rank, gone.stage, touched);
        self.drop_children(id, touched);
        self.change_entities::<Connector>(|c| c.until == Some(id), |c| c.until = None, touched);
        self.forget_step_in_requirements(id, touched);
        Ok(())
    }
}

/// Two pieces of evidence whose characters overlap.
fn same_words(a: &Evidence, b: &Evidence) -> bool {
    match (a, b) {
        (
            Evidence::Recording { recording: r1, start: s1, end: e1, .. },
            Evidence::Recording { recording: r2, start: s2, end: e2, .. },
        ) => r1 == r2 && s1 < e2 && s2 < e1,
        _ => false,
    }
}

fn extend_new<T: PartialEq>(list: &mut Vec<T>, more: Vec<T>) {
    for item in more {
        if !list.contains(&item) {
            list.push(item);
        }
    }
}

fn set_field(step: &mut Step, field: &StepField) -> Result<(), Refusal> {
    match field {
        StepField::Title(title) => step.title = text("title", title, MAX_TITLE)?,
        StepField::Stage(title) => {
            step.stage = title.as_deref().map(|t| text("stage", t, MAX_TITLE)).transpose()?;
        }
        StepField::Note(value) => step.note = maybe_text("note", value, MAX_TEXT)?,
        StepField::Actions(actions) => step.actions = actions.clone(),
        StepField::Tools(tools) => {
            step.tools = tools.iter().map(|t| text("tools", t, MAX_TITLE)).collect::<Result<_, _>>()?;
        }
        StepField::Choices(choices) => {
            step.choices = choices.iter().map(ToolChoice::checked).collect::<Result<_, _>>()?
        }
        StepField::Consumables(consumables) => step.consumables = consumables.clone(),
        StepField::Posture(posture) => step.posture = *posture,
        StepField::Branches(branches) => {
            for branch in branches {
                text("branches", &branch.condition, MAX_TEXT)?;
                note("branches", &branch.advice, MAX_TEXT)?;
            }
            step.branches.clone_from(branches);
        }
        StepField::Temporary(temporary) => step.temporary = temporary.clone(),
        StepField::Trial(trial) => step.trial = *trial,
        StepField::Variants(variants) => step.variants = variants.clone(),
        StepField::TimeS(seconds) => {
            step.time_s = seconds.map(|s| above_zero("time_s", s, MAX_STEP_S, "s")).transpose()?;
        }
        StepField::Reviewed(reviewed) => step.reviewed = *reviewed,
    }
    Ok(())
}

/// Ranks for a whole row of steps, in rising order.
pub(crate) fn ranks(count: usize) -> Vec<String> {
    let mut out: Vec<String> = Vec::with_capacity(count);
    for _ in 0..count {
        out.push(rank_between(out.last().map(String::as_str), None));
    }
    out
}

/// A rank between two others; either may be open.
pub(in crate::manual) fn rank_between(before: Option<&str>, behind: Option<&str>) -> String {
    let parse = |rank: &str| FractionalIndex::from_string(rank).ok();
    let index = match (before.and_then(parse), behind.and_then(parse)) {
        (None, None) => FractionalIndex::default(),
        (Some(a), None) => FractionalIndex::new_after(&a),
        (None, Some(b)) => FractionalIndex::new_before(&b),
        (Some(a), Some(b)) => FractionalIndex::new_between(&a, &b).unwrap_or_else(|| FractionalIndex::new_after(&a)),
    };
    index.to_string()
}

impl Manual {
    /// What somebody reviewed was the step as it stood: whatever changed of it, or of what hangs on it, takes that back. Its
    /// place in the row is none of its contents.
    pub(in crate::manual) fn take_back_reviews(&mut self, before: &Manual, touched: &mut Touched) {
        if !before.steps.values().any(|s| s.reviewed) {
            return;
        }
        let changed: Vec<StepId> = touched
            .iter()
            .filter(|(aspect, id)| before.contents(*aspect, *id) != self.contents(*aspect, *id))
            .flat_map(|(aspect, id)| [before.step_of(*aspect, *id), self.step_of(*aspect, *id)])
            .flatten()
            .collect();
        // A review that this very edit brings is of the step as it stands now.
        let was_reviewed = |s: &Step| before.steps.get(&s.id).is_some_and(|b| b.reviewed);
        let stale = |s: &Step| s.reviewed && was_reviewed(s) && changed.contains(&s.id);
        self.change_entities::<Step>(stale, |s| s.reviewed = false, touched);
    }

    /// An entity without what a review does not look at.
    fn contents(&self, aspect: Aspect, id: Uuid) -> Option<serde_json::Value> {
        let mut entity = self.entity(aspect, id)?;
        if aspect == Aspect::Steps {
            entity["rank"].take();
            entity["reviewed"].take();
        }
        Some(entity)
    }

    /// The step that an entity is, or hangs on.
    fn step_of(&self, aspect: Aspect, id: Uuid) -> Option<StepId> {
        match aspect {
            Aspect::Steps => Some(id.into()),
            Aspect::Fasteners => self.fasteners.get(&id.into()).map(|g| g.step),
            Aspect::Connectors => self.connectors.get(&id.into()).map(|c| c.step),
            Aspect::Seams => self.seams.get(&id.into()).map(|s| s.step),
            Aspect::Heats => self.heats.get(&id.into()).map(|h| h.step),
            Aspect::Cautions => self.cautions.get(&id.into()).map(|c| c.step),
            _ => None,
        }
    }
}

impl Sound for Step {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        text("title", &self.title, MAX_TITLE)?;
        if FractionalIndex::from_string(&self.rank).is_err() {
            return Err(Refusal::invalid("rank", format!("“{}” sorts nowhere", self.rank)));
        }
        self.actions.iter().try_for_each(|action| action.sound(manual))?;
        self.choices.iter().try_for_each(|choice| choice.checked().map(drop))?;
        self.time_s.map(|s| above_zero("time_s", s, MAX_STEP_S, "s")).transpose()?;
        // Where a branch goes on may have been removed since; readers are told "go on" then.
        manual.refers::<Variant>("variants", self.variants.iter().copied())
    }
}
