//! Why one step must come before another, as far as the manual itself tells: one file a reason.
//!
//! Mere succession in the recording is never a reason: a rule needs a joint, a cable, a cover, heat or a sentence. All
//! rules are common practice, no source; each says in words what it saw, and how sure that makes it.

mod cables;
mod covers;
mod discharge;
mod heat;
mod inside;
mod mains;
mod opened;
mod power;
mod screws;
mod seams;
mod shields;
mod waits;

use super::Why;
use crate::ids::*;
use crate::manual::{Evidence, Manual, Phase, Reason, Step};
use crate::reading::Act;
use std::collections::BTreeMap;

/// What a reason proposes of a teardown.
type Propose = fn(&Told<'_>, &mut Vec<Proposal>);

/// In the order in which they look: those about power ask what the others found.
const REASONS: [Propose; 12] = [
    screws::propose,
    seams::propose,
    cables::propose,
    opened::propose,
    heat::propose,
    inside::propose,
    covers::propose,
    shields::propose,
    waits::propose,
    power::propose,
    mains::propose,
    discharge::propose,
];

/// One proposal: all steps of one of the ways come before the step.
pub(super) struct Proposal {
    pub step: StepId,
    pub ways: Vec<Vec<StepId>>,
    pub why: Why,
}

/// The teardown with what the rules keep asking for.
struct Told<'m> {
    manual: &'m Manual,
    steps: Vec<&'m Step>,
    place: BTreeMap<StepId, usize>,
    /// The steps that take a part out.
    out: BTreeMap<PartId, Vec<usize>>,
}

pub(super) fn propose(manual: &Manual) -> Vec<Proposal> {
    let steps = manual.steps_in(Phase::Teardown);
    let place = steps.iter().enumerate().map(|(i, s)| (s.id, i)).collect();
    let mut out: BTreeMap<PartId, Vec<usize>> = BTreeMap::new();
    for (i, step) in steps.iter().enumerate() {
        for part in removed_in(step) {
            out.entry(part).or_default().push(i);
        }
    }
    let told = Told { manual, steps, place, out };
    let mut found = Vec::new();
    for propose in REASONS {
        propose(&told, &mut found);
    }
    found
}

/// The parts that a step takes out.
pub fn removed_in(step: &Step) -> Vec<PartId> {
    let leaves = |act: Act| matches!(act, Act::Remove | Act::Peel);
    let mut out: Vec<PartId> =
        step.actions.iter().filter(|a| leaves(a.act)).flat_map(|a| a.parts.iter().copied()).collect();
    out.sort();
    out.dedup();
    out
}

impl Told<'_> {
    fn at(&self, step: StepId) -> Option<usize> {
        self.place.get(&step).copied()
    }

    /// The first step behind `at` in which the part leaves: what is told before it may be a reason for it.
    fn leaves_behind(&self, part: PartId, at: usize) -> Option<usize> {
        self.out.get(&part)?.iter().copied().find(|o| *o > at)
    }

    fn name(&self, part: PartId) -> &str {
        self.manual.part_name(part)
    }

    fn push(&self, found: &mut Vec<Proposal>, before: usize, step: usize, why: Why) {
        if before != step {
            found.push(Proposal { step: self.steps[step].id, ways: vec![vec![self.steps[before].id]], why });
        }
    }
}

fn why(reason: Reason, confidence: f64, because: String, evidence: &[Evidence]) -> Why {
    Why { reason, because, confidence, evidence: evidence.to_vec() }
}

fn is_named(name: &str, words: &[&str]) -> bool {
    name.to_lowercase().split(' ').any(|n| words.contains(&n))
}

/// What the proposals so far, and the author, put before a step.
fn before(told: &Told<'_>, found: &[Proposal], step: usize) -> Vec<usize> {
    let said = told.manual.requirements.values().filter(|r| r.standing != crate::manual::Standing::Dropped);
    let pairs = found.iter().map(|p| (p.step, &p.ways)).chain(said.map(|r| (r.step, &r.ways)));
    let edges = pairs.flat_map(|(step, ways)| ways.iter().flatten().map(move |w| (*w, step)));
    let edges = edges.filter_map(|(a, b)| Some((told.at(a)?, told.at(b)?)));
    super::Graph::new(told.steps.len(), edges).needed_for(&[step]).ones().collect()
}
