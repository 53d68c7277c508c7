//! Steps: what one does, in its order.

use super::change::{Aspect, Refusal, Touched, note, text};
use super::kit::{self, ToolChoice};
use super::{Evidence, Manual};
use crate::ids::*;
use crate::reading::{Act, Consumable};
use fractional_index::FractionalIndex;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Which half of the work a step belongs to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Phase {
    Teardown,
    /// Told by the narrator; the rebuild that readers see is worked out from the teardown and compared with this.
    Rebuild,
}

/// One act inside a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Action {
    pub id: ActionId,
    pub act: Act,
    pub parts: Vec<PartId>,
    /// The sentence that readers see.
    pub text: String,
    pub evidence: Vec<Evidence>,
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

/// How the device lies while the step is done.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Posture {
    FaceUp,
    FaceDown,
    OnSide,
    Propped,
    Tethered,
}

impl Posture {
    /// For readers: "the device lies …".
    pub fn words(&self) -> &'static str {
        match self {
            Self::FaceUp => "face up",
            Self::FaceDown => "face down",
            Self::OnSide => "on its side",
            Self::Propped => "propped up",
            Self::Tethered => "open, held by its cables",
        }
    }
}

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
    /// Actions from `at` on, and what hangs on their evidence, become the step `new_id` right behind.
    Split {
        id: StepId,
        at: usize,
        new_id: StepId,
        title: String,
    },
    Remove {
        id: StepId,
    },
    AddEvidence {
        id: StepId,
        evidence: Evidence,
    },
}

/// Longest title, in characters: what still fits two lines at arm's length.
pub(super) const LONGEST_TITLE: usize = 200;
/// Longest time of one step, in seconds: glue may cure over night.
const LONGEST_STEP_S: f64 = 86_400.0;
/// Longest running text, in characters.
pub(super) const LONGEST_TEXT: usize = 4_000;

impl Manual {
    pub(super) fn step_mut(&mut self, id: StepId) -> Result<&mut Step, Refusal> {
        self.steps.get_mut(&id).ok_or(Refusal::Gone { what: "step", id: id.0 })
    }

    pub(super) fn edit_step(&mut self, edit: &StepEdit, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match edit {
            StepEdit::Add { id, phase, after, title, actions } => {
                if self.steps.contains_key(id) {
                    return Err(Refusal::Exists { what: "step", id: id.0 });
                }
                let title = text("title", title, LONGEST_TITLE)?;
                let rank = self.rank_behind(*phase, *after, None)?;
                touched.add(Aspect::Steps, id.0);
                self.check_step_field(&StepField::Actions(actions.clone()))?;
                let mut step = Step::new(*id, *phase, rank, title);
                step.evidence = actions.iter().flat_map(|a| a.evidence.clone()).collect();
                step.actions = actions.clone();
                if step.evidence.is_empty() {
                    step.evidence.push(Evidence::Author { name: author.to_owned() });
                }
                self.steps.insert(*id, step);
            }
            StepEdit::Set { id, field } => {
                touched.add(Aspect::Steps, id.0);
                self.check_step_field(field)?;
                set_field(self.step_mut(*id)?, field)?;
            }
            StepEdit::Move { id, after } => {
                touched.add(Aspect::Steps, id.0);
                if *after == Some(*id) {
                    return Err(Refusal::Invalid {
                        field: "after",
                        problem: "A step cannot stand behind itself.".to_owned(),
                    });
                }
                let phase = self.step_mut(*id)?.phase;
                let rank = self.rank_behind(phase, *after, Some(*id))?;
                self.step_mut(*id)?.rank = rank;
            }
            StepEdit::Merge { id, into } => self.merge(*id, *into, touched)?,
            StepEdit::Split { id, at, new_id, title } => self.split(*id, *at, *new_id, title, touched)?,
            StepEdit::Remove { id } => self.remove_step(*id, touched)?,
            StepEdit::AddEvidence { id, evidence } => {
                touched.add(Aspect::Steps, id.0);
                self.step_mut(*id)?.evidence.push(evidence.clone());
            }
        }
        Ok(())
    }

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

    fn check_step_field(&self, field: &StepField) -> Result<(), Refusal> {
        let missing = |id: PartId| Err(Refusal::Gone { what: "part", id: id.0 });
        match field {
            StepField::Actions(actions) => {
                for action in actions {
                    text("actions", &action.text, LONGEST_TEXT)?;
                    if let Some(part) = action.parts.iter().find(|p| !self.parts.contains_key(p)) {
                        return missing(*part);
                    }
                }
            }
            StepField::Branches(branches) => {
                for branch in branches {
                    text("branches", &branch.condition, LONGEST_TEXT)?;
                    note("branches", &branch.advice, LONGEST_TEXT)?;
                }
            }
            StepField::TimeS(Some(s)) if !(s.is_finite() && *s > 0.0 && *s <= LONGEST_STEP_S) => {
                let problem = format!("{s} s is out of range; write more than 0 s and at most a day.");
                return Err(Refusal::Invalid { field: "time_s", problem });
            }
            StepField::Variants(variants) => self.check_variants(variants)?,
            _ => {}
        }
        Ok(())
    }

    fn merge(&mut self, id: StepId, into: StepId, touched: &mut Touched) -> Result<(), Refusal> {
        if id == into {
            return Err(Refusal::Invalid { field: "into", problem: "A step cannot be merged with itself.".to_owned() });
        }
        let kept = self.step_mut(into)?.phase;
        let from = self.steps.get(&id).ok_or(Refusal::Gone { what: "step", id: id.0 })?.clone();
        if from.phase != kept {
            let problem = "A teardown step and a rebuild step cannot be merged.".to_owned();
            return Err(Refusal::Invalid { field: "into", problem });
        }
        touched.add(Aspect::Steps, into.0);
        touched.add(Aspect::Steps, id.0);
        let target = self.step_mut(into)?;
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
        self.steps.remove(&id);
        self.hand_on_stage(kept, &from.rank, from.stage, touched);
        self.move_children(id, into, |_| true, touched);
        self.move_requirements(id, into, touched);
        Ok(())
    }

    fn split(
        &mut self,
        id: StepId,
        at: usize,
        new_id: StepId,
        title: &str,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        if self.steps.contains_key(&new_id) {
            return Err(Refusal::Exists { what: "step", id: new_id.0 });
        }
        let title = text("title", title, LONGEST_TITLE)?;
        let phase = self.step_mut(id)?.phase;
        let rank = self.rank_behind(phase, Some(id), None)?;
        let step = self.step_mut(id)?;
        if at == 0 || at >= step.actions.len() {
            let problem = format!(
                "The step has {} sentences; split it behind one of the first {}.",
                step.actions.len(),
                step.actions.len().saturating_sub(1)
            );
            return Err(Refusal::Invalid { field: "at", problem });
        }
        touched.add(Aspect::Steps, id.0);
        touched.add(Aspect::Steps, new_id.0);
        let mut new = Step::new(new_id, phase, rank, title);
        new.actions = step.actions.split_off(at);
        new.tools = step.tools.clone();
        new.evidence = new.actions.iter().flat_map(|a| a.evidence.clone()).collect();
        step.reviewed = false;
        let moved = new.evidence.clone();
        step.evidence.retain(|e| !moved.contains(e));
        self.steps.insert(new_id, new);
        self.move_children(
            id,
            new_id,
            |evidence| evidence.iter().any(|e| moved.iter().any(|m| same_words(e, m))),
            touched,
        );
        Ok(())
    }

    /// Screws, connectors, seams, heat and cautions go from one step to another where their evidence says so.
    fn move_children(&mut self, from: StepId, to: StepId, goes: impl Fn(&[Evidence]) -> bool, touched: &mut Touched) {
        macro_rules! move_all {
            ($map:ident, $aspect:ident) => {
                for item in self.$map.values_mut().filter(|i| i.step == from && goes(&i.evidence)) {
                    item.step = to;
                    touched.add(Aspect::$aspect, item.id.0);
                }
            };
        }
        move_all!(fasteners, Fasteners);
        move_all!(connectors, Connectors);
        move_all!(seams, Seams);
        move_all!(heats, Heats);
        move_all!(cautions, Cautions);
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

    fn remove_step(&mut self, id: StepId, touched: &mut Touched) -> Result<(), Refusal> {
        self.step_mut(id)?;
        touched.add(Aspect::Steps, id.0);
        if let Some(gone) = self.steps.remove(&id) {
            self.hand_on_stage(gone.phase, &gone.rank, gone.stage, touched);
        }
        macro_rules! drop_all {
            ($map:ident, $aspect:ident) => {
                for item in self.$map.values().filter(|i| i.step == id) {
                    touched.add(Aspect::$aspect, item.id.0);
                }
                self.$map.retain(|_, i| i.step != id);
            };
        }
        drop_all!(fasteners, Fasteners);
        drop_all!(connectors, Connectors);
        drop_all!(seams, Seams);
        drop_all!(heats, Heats);
        drop_all!(cautions, Cautions);
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
        StepField::Title(title) => step.title = text("title", title, LONGEST_TITLE)?,
        StepField::Stage(title) => {
            step.stage = title.as_deref().map(|t| text("stage", t, LONGEST_TITLE)).transpose()?
        }
        StepField::Note(value) => {
            let value = value.as_deref().map(|n| note("note", n, LONGEST_TEXT)).transpose()?;
            step.note = value.filter(|n| !n.is_empty());
        }
        StepField::Actions(actions) => step.actions = actions.clone(),
        StepField::Tools(tools) => {
            step.tools = tools.iter().map(|t| text("tools", t, LONGEST_TITLE)).collect::<Result<_, _>>()?;
        }
        StepField::Choices(choices) => step.choices = choices.iter().map(kit::checked).collect::<Result<_, _>>()?,
        StepField::Consumables(consumables) => step.consumables = consumables.clone(),
        StepField::Posture(posture) => step.posture = posture.clone(),
        StepField::Branches(branches) => step.branches = branches.clone(),
        StepField::Temporary(temporary) => step.temporary = temporary.clone(),
        StepField::Variants(variants) => step.variants = variants.clone(),
        StepField::TimeS(seconds) => step.time_s = *seconds,
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
pub(super) fn rank_between(before: Option<&str>, behind: Option<&str>) -> String {
    let parse = |rank: &str| FractionalIndex::from_string(rank).ok();
    let index = match (before.and_then(parse), behind.and_then(parse)) {
        (None, None) => FractionalIndex::default(),
        (Some(a), None) => FractionalIndex::new_after(&a),
        (None, Some(b)) => FractionalIndex::new_before(&b),
        (Some(a), Some(b)) => FractionalIndex::new_between(&a, &b).unwrap_or_else(|| FractionalIndex::new_after(&a)),
    };
    index.to_string()
}
