//! What must come before what, and the least work that reaches a part.
//!
//! A [`Chain`] holds the steps of a teardown with the conditions that each waits for, every one with its reasons: worked
//! out from the manual by rules, told by the narrator, or said by the author, whose word stands over both. From it come
//! the routes to a part ([`Chain::routes`]) and the judgement of a move ([`Chain::judge`]); what is wrong is told by
//! the rules under `checks::chain`.
//! That one step was told after another is never a reason; the told order only decides where reasons leave it open.

mod graph;
mod jobs;
mod least;
mod reach;
mod reasons;
mod sequence;
mod verdict;

pub use crate::manual::Weights;
pub use graph::Graph;
pub use jobs::{Fated, JobRow, cut, jobs, keep_only};
pub use least::{Need, Route, Work, least, routes};
pub use reach::{DepthRow, Price, Risk, RouteRow, Totals};
pub use reasons::removed_in;
pub use sequence::{Sequence, Setup, sequence};
pub use verdict::{Judged, MoveVerdict, Spot};

use crate::ids::*;
use crate::manual::{Edit, Evidence, Manual, Phase, Reason, RequirementEdit, Standing};
use fixedbitset::FixedBitSet;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;
use uuid::Uuid;

/// One reason for a condition.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Why {
    pub reason: Reason,
    /// In words: "4 PH1 screws hold the lid".
    pub because: String,
    /// From 0 to 1.
    pub confidence: f64,
    pub evidence: Vec<Evidence>,
}

/// All steps of one of the ways come before `step`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Condition {
    pub step: StepId,
    /// One way of one step is a plain "comes first".
    pub ways: Vec<Vec<StepId>>,
    /// The surest first.
    pub whys: Vec<Why>,
    /// An author has looked and said yes.
    pub confirmed: bool,
    /// What an author or the recording said of it, where somebody did.
    pub requirement: Option<RequirementId>,
}

impl Condition {
    /// How sure it is: certain where an author confirmed it.
    pub fn confidence(&self) -> f64 {
        if self.confirmed { 1.0 } else { self.whys.first().map_or(0.0, |w| w.confidence) }
    }

    /// The step that comes before, where there is only one way.
    pub fn plain(&self) -> Option<&[StepId]> {
        if let [way] = self.ways.as_slice() { Some(way) } else { None }
    }

    /// Whether all steps of one way stand before the step; steps that are not in the order ask for nothing. O(ways × order).
    pub fn met_by(&self, order: &[StepId]) -> bool {
        let place = |id: StepId| order.iter().position(|s| *s == id);
        let Some(own) = place(self.step) else { return true };
        self.ways.iter().any(|way| way.iter().all(|s| place(*s).is_none_or(|p| p < own)))
    }

    /// Its surest reason in words.
    pub fn because(&self) -> &str {
        self.whys.first().map_or("", |w| w.because.as_str())
    }
}

/// From here on a reason forbids and blocks; below it warns.
pub const SURE: f64 = 0.8;

/// The word of an author on one pair; the same pair has the same id, however often it is judged.
pub fn judged(step: StepId, before: StepId, reason: Reason, standing: Standing) -> RequirementEdit {
    let id = RequirementId(Uuid::new_v5(&step.0, before.0.as_bytes()));
    RequirementEdit::Judge { id, step, before, reason, standing }
}

/// The edit that says a link does not hold; alternatives are taken away whole.
pub fn dropping(before: StepId, c: &Condition) -> Edit {
    Edit::Requirement(match (c.requirement, c.plain()) {
        (Some(id), way) if way.is_none_or(|w| w.len() != 1) => RequirementEdit::Remove { id },
        _ => judged(c.step, before, c.whys.first().map_or(Reason::Author, |w| w.reason), Standing::Dropped),
    })
}

/// The steps of a teardown and what each waits for.
#[derive(Debug, Clone, PartialEq)]
pub struct Chain {
    /// In the order of the manual.
    pub steps: Vec<StepId>,
    pub conditions: Vec<Condition>,
    /// What an author said does not hold.
    pub dropped: Vec<Condition>,
    place: BTreeMap<StepId, usize>,
}

impl Chain {
    /// Works the conditions out: what the rules propose and the recording tells, with the author's word over both.
    /// O(steps · what hangs on them) for most rules, O(steps²) for those that hold every pair against each other.
    pub fn of(manual: &Manual) -> Self {
        let steps: Vec<StepId> = manual.steps_in(Phase::Teardown).iter().map(|s| s.id).collect();
        let place = steps.iter().enumerate().map(|(i, s)| (*s, i)).collect();
        let mut all: BTreeMap<(StepId, Vec<Vec<StepId>>), Condition> = BTreeMap::new();
        for p in reasons::propose(manual) {
            add(&mut all, p.step, p.ways, Some(p.why));
        }
        for r in manual.requirements.values() {
            let said = (!r.because.is_empty()).then(|| Why {
                reason: r.reason,
                because: r.because.clone(),
                confidence: r.confidence,
                evidence: r.evidence.clone(),
            });
            let known = all.contains_key(&(r.step, r.ways.clone()));
            let own = || Why {
                reason: r.reason,
                because: "an author says so".to_owned(),
                confidence: 1.0,
                evidence: r.evidence.clone(),
            };
            let condition = add(&mut all, r.step, r.ways.clone(), said.or_else(|| (!known).then(own)));
            condition.confirmed = r.standing == Standing::Confirmed;
            condition.requirement = Some(r.id);
        }
        let no = |c: &Condition| c.requirement.is_some_and(|id| manual.requirements[&id].standing == Standing::Dropped);
        let (dropped, kept): (Vec<Condition>, Vec<Condition>) = all.into_values().partition(no);
        let conditions = without_covered(kept);
        Self { steps, conditions, dropped, place }
    }

    /// The place of a step in the manual's order, from 0.
    pub fn at(&self, step: StepId) -> Option<usize> {
        self.place.get(&step).copied()
    }

    /// The conditions of a step.
    pub fn of_step(&self, step: StepId) -> impl Iterator<Item = &Condition> {
        self.conditions.iter().filter(move |c| c.step == step)
    }

    /// Every step of every way before every step that waits: for pictures and for "what waits for this".
    pub fn graph(&self) -> Graph {
        let all = self.conditions.iter().flat_map(|c| self.pairs(c));
        Graph::new(self.steps.len(), all)
    }

    /// Only what must be, whichever way is taken.
    pub fn sure_graph(&self) -> Graph {
        let all = self.conditions.iter().filter(|c| c.plain().is_some()).flat_map(|c| self.pairs(c));
        Graph::new(self.steps.len(), all)
    }

    fn pairs(&self, c: &Condition) -> Vec<(usize, usize)> {
        let Some(step) = self.at(c.step) else { return Vec::new() };
        c.ways.iter().flatten().filter_map(|w| self.at(*w)).map(|w| (w, step)).collect()
    }

    /// The conditions of each step in the terms of the search.
    pub(crate) fn needs(&self) -> Vec<Vec<Need>> {
        let mut out = vec![Vec::new(); self.steps.len()];
        for c in &self.conditions {
            let Some(step) = self.at(c.step) else { continue };
            let ways = c.ways.iter().map(|w| w.iter().filter_map(|s| self.at(*s)).collect()).collect();
            out[step].push(Need { ways });
        }
        out
    }

    /// Steps that can never be done, because they wait for each other. O(rounds · conditions).
    pub fn stuck(&self) -> Vec<StepId> {
        let work: Vec<Work> = self.needs().into_iter().map(|needs| Work { cost: 0, needs }).collect();
        let mut all = FixedBitSet::with_capacity(work.len());
        all.insert_range(..);
        let done = least::doable(&work, &all);
        self.steps.iter().enumerate().filter(|(i, _)| !done.contains(*i)).map(|(_, s)| *s).collect()
    }
}

fn add(
    all: &mut BTreeMap<(StepId, Vec<Vec<StepId>>), Condition>,
    step: StepId,
    ways: Vec<Vec<StepId>>,
    why: Option<Why>,
) -> &mut Condition {
    let condition = all.entry((step, ways.clone())).or_insert_with(|| Condition {
        step,
        ways,
        whys: Vec::new(),
        confirmed: false,
        requirement: None,
    });
    condition.whys.extend(why);
    condition.whys.sort_by(|a, b| b.confidence.total_cmp(&a.confidence));
    condition
}

/// "Through the front or the rear" takes the place of "the front comes first" and "the rear comes first".
fn without_covered(conditions: Vec<Condition>) -> Vec<Condition> {
    let choices: Vec<(StepId, Vec<StepId>)> = conditions
        .iter()
        .filter(|c| c.ways.len() > 1)
        .map(|c| (c.step, c.ways.iter().flatten().copied().collect()))
        .collect();
    let covered = |c: &Condition| {
        let [way] = c.ways.as_slice() else { return false };
        let [before] = way.as_slice() else { return false };
        !c.confirmed && choices.iter().any(|(step, ways)| *step == c.step && ways.contains(before))
    };
    conditions.into_iter().filter(|c| !covered(c)).collect()
}

#[cfg(test)]
mod tests;
