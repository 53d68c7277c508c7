//! Guides cut to one job: only the steps that its targets need, in their best order, under the job's own titles.
//!
//! A cut is a manual like any other, so that folding, balance, findings and formats need to know nothing of jobs. Nothing
//! is copied for good: a step changed in the manual is changed in every job the next time it is cut.

use super::reach::{Price, prices, stays, totals};
use super::{Chain, RouteRow, removed_in};
use crate::ids::*;
use crate::manual::{Called, Job, JobCut, Manual, NoteKind, PartFate, Phase, Step, ranks};
use crate::reading::{Act, Direction};
use crate::things::same_thing;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// One job as lists show it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct JobRow {
    pub id: JobId,
    pub title: String,
    /// What it comes to; `None` where no way leads to its targets any more.
    pub route: Option<RouteRow>,
    /// How many of its steps are worded for it alone.
    pub reworded: usize,
    /// How many steps it shares with at least one other job.
    pub shared: usize,
    /// What becomes of every part it takes out.
    pub fates: Vec<Fated>,
    /// What its new parts cost, one sum a currency.
    pub prices: Vec<Price>,
    /// New parts of which no price is known.
    pub unpriced: usize,
}

/// A part with what becomes of it in a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Fated {
    pub part: PartId,
    pub fate: PartFate,
}

impl Chain {
    /// The way of a job: the steps of the guides it calls, then the least work that does without what its author ruled out.
    pub fn way_of(&self, manual: &Manual, job: &Job) -> Option<RouteRow> {
        let mut way = self.routes_without(manual, &job.targets, &job.without, 1).into_iter().next()?;
        let mut steps: Vec<StepId> = Vec::new();
        for called in job.calls.iter().filter_map(|c| manual.jobs.get(c)) {
            // Calls never lead back, so this ends.
            let first = self.way_of(manual, called)?.steps;
            steps.extend(first.iter().filter(|s| !steps.contains(s)).copied().collect::<Vec<_>>());
        }
        if !steps.is_empty() {
            // A called way needs nothing but itself, so it may stand in front whole.
            let rest: Vec<StepId> = way.steps.iter().filter(|s| !steps.contains(s)).copied().collect();
            steps.extend(rest);
            way.totals = totals(manual, &steps);
            way.stays = stays(manual, &steps);
            way.steps = steps;
        }
        Some(way)
    }

    /// The guides that a job calls, with the numbers that their steps have in it.
    fn called_by(&self, manual: &Manual, job: &Job) -> Vec<Called> {
        let mut seen: BTreeSet<StepId> = BTreeSet::new();
        let mut out = Vec::new();
        for called in job.calls.iter().filter_map(|c| manual.jobs.get(c)) {
            let Some(way) = self.way_of(manual, called) else { continue };
            let from = seen.len() + 1;
            let new: Vec<StepId> = way.steps.into_iter().filter(|s| seen.insert(*s)).collect();
            if new.is_empty() {
                continue;
            }
            let before = manual.notes_of(NoteKind::Before).filter(|n| n.job == Some(called.id));
            let out_of: Vec<PartId> = new.iter().flat_map(|s| removed_in(&manual.steps[s])).collect();
            out.push(Called {
                job: called.id,
                title: called.title.clone(),
                from,
                to: seen.len(),
                expects: before.map(|n| n.text.clone()).collect(),
                leaves: out_of.into_iter().map(|p| manual.part_name(p).to_owned()).collect(),
            });
        }
        out
    }
}

/// The manual of one job; `None` where no way leads to its targets.
pub fn cut(manual: &Manual, job: &Job) -> Option<Manual> {
    let chain = Chain::of(manual);
    let way = chain.way_of(manual, job)?;
    let mut cut = manual.clone();
    cut.head.title.clone_from(&job.title);
    let kept: BTreeSet<StepId> = way.steps.iter().copied().collect();
    let told = told_for(manual, &kept);
    keep_only(&mut cut, |id| kept.contains(id) || told.contains(id));
    for (id, rank) in way.steps.iter().zip(ranks(way.steps.len())) {
        let step = cut.steps.get_mut(id).expect("the way is made of steps");
        step.rank = rank;
        if let Some(title) = job.wording.get(id) {
            step.title.clone_from(title);
        }
    }
    carry_stages(manual, &mut cut);
    return_to_kept_steps(manual, &kept, &mut cut);
    cut.jobs.retain(|id, _| *id == job.id);
    // What the recording lays out is for the whole of it.
    cut.kit.clear();
    // What stands around this job stands around the whole cut.
    cut.notes.retain(|_, n| n.job.is_none_or(|j| j == job.id));
    cut.notes.values_mut().for_each(|n| n.job = None);
    let fates = cut.parts.keys().map(|p| (*p, job.fate(*p))).collect();
    cut.cut = Some(JobCut { fates, called: chain.called_by(manual, job) });
    Some(cut)
}

/// Takes out all steps but some, with everything that hangs on the others.
pub fn keep_only(manual: &mut Manual, stays: impl Fn(&StepId) -> bool) {
    manual.steps.retain(|id, _| stays(id));
    manual.fasteners.retain(|_, g| stays(&g.step));
    manual.connectors.retain(|_, c| stays(&c.step));
    manual.connectors.values_mut().for_each(|c| c.until = c.until.filter(|until| stays(until)));
    manual.seams.retain(|_, s| stays(&s.step));
    manual.heats.retain(|_, h| stays(&h.step));
    manual.cautions.retain(|_, c| stays(&c.step));
    manual.requirements.retain(|_, r| stays(&r.step) && r.ways.iter().flatten().all(&stays));
}

/// The told steps of the rebuild that belong to these steps of the teardown: they put back something that comes out there.
/// What puts back nothing, such as paste or a trial, belongs to the told step before it; what is moved over to a new part
/// belongs to the step behind it, which fits that part.
fn told_for(manual: &Manual, kept: &BTreeSet<StepId>) -> BTreeSet<StepId> {
    let out: BTreeSet<&str> = kept.iter().flat_map(|s| manual.worked_at(&manual.steps[s])).collect();
    let elsewhere = |step: &Step| {
        let mut moved = step.actions.iter().filter(|a| a.moves()).flat_map(|a| &a.parts).peekable();
        moved.peek().is_some() && moved.all(|p| !out.contains(manual.part_name(*p)))
    };
    let mut told = BTreeSet::new();
    let mut belongs = false;
    let mut over: Vec<StepId> = Vec::new();
    for step in manual.steps_in(Phase::Rebuild) {
        if step.actions.iter().any(|a| a.act == Act::Transfer) {
            over.push(step.id);
            continue;
        }
        let in_again = step.actions.iter().filter(|a| a.act.direction() == Direction::In);
        let names: Vec<&str> = in_again
            .flat_map(|a| a.parts.iter().map(|p| manual.part_name(*p)).chain(a.roles.things.iter().map(String::as_str)))
            .collect();
        belongs = if names.is_empty() { belongs } else { names.iter().any(|n| out.iter().any(|o| same_thing(n, o))) };
        if belongs && !elsewhere(step) {
            told.extend(over.drain(..));
            told.insert(step.id);
        }
        over.retain(|_| names.is_empty());
    }
    told
}

/// A stage whose first step is not in the cut begins with the first one that is.
fn carry_stages(manual: &Manual, cut: &mut Manual) {
    let stages: BTreeMap<StepId, Option<String>> =
        manual.stages().into_iter().map(|(id, stage)| (id, stage.map(str::to_owned))).collect();
    let mut last = None;
    for id in cut.order() {
        let stage = stages.get(&id).cloned().flatten();
        let step = cut.steps.get_mut(&id).expect("it is in the order");
        step.stage = stage.clone().filter(|_| stage != last);
        last = stage;
    }
}

/// A branch that returned to a step which is not in the cut returns to the next one that is; where none is, it keeps a
/// step that is gone, which readers are told as the end of the work.
fn return_to_kept_steps(manual: &Manual, kept: &BTreeSet<StepId>, cut: &mut Manual) {
    let order = manual.order();
    let next = |id: StepId| {
        let at = order.iter().position(|s| *s == id)?;
        order[at..].iter().find(|s| kept.contains(s)).copied()
    };
    for branch in cut.steps.values_mut().flat_map(|s| &mut s.branches) {
        branch.resume = branch.resume.map(|id| next(id).unwrap_or(id));
    }
}

fn fates(manual: &Manual, job: &Job, steps: &[StepId]) -> Vec<Fated> {
    let mut out: Vec<Fated> = Vec::new();
    for part in steps.iter().flat_map(|s| removed_in(&manual.steps[s])) {
        if !out.iter().any(|f| f.part == part) {
            out.push(Fated { part, fate: job.fate(part) });
        }
    }
    out
}

/// The parts that have to be bought: renewed ones, and single-use ones that the way destroys.
fn bought(way: Option<&RouteRow>, fates: &[Fated]) -> Vec<PartId> {
    let mut out: Vec<PartId> = fates.iter().filter(|f| f.fate == PartFate::Renew).map(|f| f.part).collect();
    let destroyed = way.into_iter().flat_map(|w| &w.totals.destroyed);
    let scrap = |part: &PartId| fates.iter().any(|f| f.part == *part && f.fate == PartFate::Scrap);
    let more: Vec<PartId> = destroyed.filter(|p| !out.contains(p) && !scrap(p)).copied().collect();
    out.extend(more);
    out
}

/// All jobs of a manual with what they come to, by title.
pub fn jobs(manual: &Manual) -> Vec<JobRow> {
    let chain = Chain::of(manual);
    let ways: Vec<(&Job, Option<RouteRow>)> = manual.jobs.values().map(|j| (j, chain.way_of(manual, j))).collect();
    let elsewhere = |job: JobId, step: &StepId| {
        ways.iter().any(|(j, w)| j.id != job && w.as_ref().is_some_and(|w| w.steps.contains(step)))
    };
    let mut out: Vec<JobRow> = ways
        .iter()
        .map(|(job, way)| {
            let steps: &[StepId] = way.as_ref().map_or(&[], |w| &w.steps);
            let fates = fates(manual, job, steps);
            let (prices, unpriced) = prices(manual, &bought(way.as_ref(), &fates));
            JobRow {
                id: job.id,
                title: job.title.clone(),
                reworded: steps.iter().filter(|s| job.wording.contains_key(s)).count(),
                shared: steps.iter().filter(|s| elsewhere(job.id, s)).count(),
                fates,
                prices,
                unpriced,
                route: way.clone(),
            }
        })
        .collect();
    out.sort_by(|a, b| a.title.cmp(&b.title));
    out
}
