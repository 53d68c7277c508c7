//! Why one step must come before another, as far as the manual itself tells.
//!
//! One rule a function. Mere succession in the recording is never a reason: a rule needs a joint, a cable, a cover, heat
//! or a sentence. All rules are common practice, no source; each says in words what it saw, and how sure that makes it.

use super::Why;
use crate::ids::*;
use crate::manual::{Evidence, FastenerGroup, Manual, Phase, Reason, SeamKind, Step};
use crate::reading::{Act, FastenerOp};
use std::collections::BTreeMap;

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
    for rule in [screws, seams, cables, opened, heat, inside, covers, shields, waits, power, mains] {
        rule(&told, &mut found);
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

/// "4 PH1 screws", "the screws".
pub(super) fn group_words(g: &FastenerGroup) -> String {
    let count = g.count.map_or("the".to_owned(), |n| n.to_string());
    let bit = g.bit.clone().or(g.drive.map(|d| d.name().to_owned())).map_or(String::new(), |b| format!(" {b}"));
    let screws = if g.count == Some(1) { "screw" } else { "screws" };
    format!("{count}{bit} {screws}")
}

fn screws(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for g in told.manual.fasteners.values().filter(|g| matches!(g.op, FastenerOp::Remove | FastenerOp::Loosen)) {
        let Some(at) = told.at(g.step) else { continue };
        for part in &g.holds {
            if let Some(leaves) = told.leaves_behind(*part, at) {
                let verb = if g.count == Some(1) { "holds" } else { "hold" };
                let because = format!("{} {verb} the {}", group_words(g), told.name(*part));
                told.push(found, at, leaves, why(Reason::Holds, 0.95, because, &g.evidence));
            }
        }
    }
}

fn seams(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for s in told.manual.seams.values() {
        let (Some(at), Some(part)) = (told.at(s.step), s.part) else { continue };
        if let Some(leaves) = told.leaves_behind(part, at) {
            let (what, verb) = match s.kind {
                SeamKind::Glue => ("glue", "holds"),
                SeamKind::Tape => ("tape", "holds"),
                SeamKind::Clips => ("clips", "hold"),
                SeamKind::SnapEdge => ("a snapped edge", "holds"),
            };
            let because = format!("{what} {verb} the {}", told.name(part));
            told.push(found, at, leaves, why(Reason::Holds, 0.9, because, &s.evidence));
        }
    }
}

fn cables(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for c in told.manual.connectors.values().filter(|c| !c.temporary) {
        let (Some(at), Some(part)) = (told.at(c.step), c.serves) else { continue };
        if let Some(leaves) = told.leaves_behind(part, at) {
            let because = format!("its cable ties the {}", told.name(part));
            told.push(found, at, leaves, why(Reason::ConnectedTo, 0.95, because, &c.evidence));
        }
    }
}

/// "Open the latch of the tray" before "take the tray out".
fn opened(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for (at, step) in told.steps.iter().enumerate() {
        for action in &step.actions {
            let frees = matches!(action.act, Act::Open | Act::Pry | Act::Loosen | Act::Unscrew | Act::Desolder);
            for part in action.parts.iter().filter(|_| frees) {
                if let Some(leaves) = told.leaves_behind(*part, at) {
                    let because = format!("the {} is freed here", told.name(*part));
                    told.push(found, at, leaves, why(Reason::Holds, 0.7, because, &action.evidence));
                }
            }
        }
    }
}

fn heat(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for h in told.manual.heats.values() {
        let (Some(at), Some(part)) = (told.at(h.step), h.target) else { continue };
        let pried = told.manual.seams.values().filter(|s| s.part == Some(part)).filter_map(|s| told.at(s.step));
        let next = pried.filter(|s| *s > at).min().or_else(|| told.leaves_behind(part, at));
        if let Some(next) = next {
            let because = format!("heat softens what holds the {}", told.name(part));
            told.push(found, at, next, why(Reason::Cure, 0.9, because, &h.evidence));
        }
    }
}

fn inside(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for part in told.manual.parts.values() {
        let Some(outer) = part.inside else { continue };
        let Some(at) = told.out.get(&outer).and_then(|o| o.first().copied()) else { continue };
        if let Some(leaves) = told.leaves_behind(part.id, at) {
            let because = format!("the {} sits in the {}, which comes out first", part.name, told.name(outer));
            told.push(found, at, leaves, why(Reason::Inside, 0.9, because, &part.evidence));
        }
    }
}

fn is_named(name: &str, words: &[&str]) -> bool {
    name.to_lowercase().split(' ').any(|n| words.contains(&n))
}

const ENCLOSURES: [&str; 13] = [
    "cover",
    "lid",
    "housing",
    "case",
    "casing",
    "shell",
    "door",
    "hood",
    "backplate",
    "panel",
    "base",
    "bottom",
    "enclosure",
];

/// The first enclosure that comes off opens the device; a later one covers what is told next.
fn covers(told: &Told<'_>, found: &mut Vec<Proposal>) {
    let enclosure = |at: usize| removed_in(told.steps[at]).into_iter().find(|p| is_named(told.name(*p), &ENCLOSURES));
    let mut first = true;
    for at in 0..told.steps.len() {
        let Some(part) = enclosure(at) else { continue };
        let reaches = if first { told.steps.len() } else { next_enclosure(told, at, enclosure) };
        let confidence = if first { 0.75 } else { 0.55 };
        for behind in at + 1..reaches {
            let because = format!("the {} covers it", told.name(part));
            told.push(found, at, behind, why(Reason::Covers, confidence, because, &told.steps[at].evidence));
        }
        first = false;
    }
}

fn next_enclosure(told: &Told<'_>, at: usize, enclosure: impl Fn(usize) -> Option<PartId>) -> usize {
    (at + 1..told.steps.len()).find(|n| enclosure(*n).is_some()).unwrap_or(told.steps.len())
}

/// A bracket or shield that leaves right before something is disconnected or lifted lay over it, as a rule.
fn shields(told: &Told<'_>, found: &mut Vec<Proposal>) {
    const OVER: [&str; 7] = ["bracket", "shield", "shielding", "retainer", "clamp", "foil", "tape"];
    for at in 0..told.steps.len().saturating_sub(1) {
        let part = removed_in(told.steps[at]).into_iter().find(|p| is_named(told.name(*p), &OVER));
        let next = told.steps[at + 1];
        let works = told.manual.connectors_of(next.id).next().is_some() || !removed_in(next).is_empty();
        if let Some(part) = part.filter(|_| works) {
            let because = format!("the {} lies over it", told.name(part));
            told.push(found, at, at + 1, why(Reason::Covers, 0.55, because, &told.steps[at].evidence));
        }
    }
}

/// "Wait five minutes": for what comes next.
fn waits(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for at in 0..told.steps.len().saturating_sub(1) {
        if let Some(action) = told.steps[at].actions.last().filter(|a| a.act == Act::Wait) {
            let because = "one waits here before going on".to_owned();
            told.push(found, at, at + 1, why(Reason::Cure, 0.7, because, &action.evidence));
        }
    }
}

/// The source of power is disconnected before any other connector. A plug that must go first to reach it stays first.
fn power(told: &Told<'_>, found: &mut Vec<Proposal>) {
    let plugs = told.manual.connectors.values().filter(|c| c.power && !c.temporary).filter_map(|c| told.at(c.step));
    // A pack that is lifted out needs no plug.
    let packs = told.out.iter().filter(|(part, _)| told.manual.parts.get(part).is_some_and(|p| p.power_source));
    let Some(source) = plugs.chain(packs.flat_map(|(_, steps)| steps.iter().copied())).min() else { return };
    let on_the_way = before(told, found, source);
    for c in told.manual.connectors.values().filter(|c| !c.power && !c.temporary) {
        let Some(at) = told.at(c.step).filter(|at| *at != source && !on_the_way.contains(at)) else { continue };
        let because =
            "the source of power is disconnected before any other connector: nothing is unplugged live".to_owned();
        told.push(found, source, at, why(Reason::Power, 0.9, because, &told.steps[source].evidence));
    }
}

/// The mains plug before anything.
fn mains(told: &Told<'_>, found: &mut Vec<Proposal>) {
    const PLUG: [&str; 9] = [
        "wall socket",
        "mains plug",
        "mains lead",
        "mains cable",
        "from the mains",
        "power cord",
        "switch off",
        "power off",
        "turn off",
    ];
    let unplugs = |s: &&&Step| {
        s.actions.iter().any(|a| a.act == Act::PowerOff || PLUG.iter().any(|p| a.text.to_lowercase().contains(p)))
    };
    let Some(at) = told.steps.iter().find(unplugs).and_then(|s| told.at(s.id)) else { return };
    let on_the_way = before(told, found, at);
    for behind in (0..told.steps.len()).filter(|b| !on_the_way.contains(b)) {
        let because = "the device is off and unplugged before anything is opened".to_owned();
        told.push(found, at, behind, why(Reason::Power, 0.95, because, &told.steps[at].evidence));
    }
}

/// What the proposals so far, and the author, put before a step.
fn before(told: &Told<'_>, found: &[Proposal], step: usize) -> Vec<usize> {
    let said = told.manual.requirements.values().filter(|r| r.standing != crate::manual::Standing::Dropped);
    let pairs = found.iter().map(|p| (p.step, &p.ways)).chain(said.map(|r| (r.step, &r.ways)));
    let edges = pairs.flat_map(|(step, ways)| ways.iter().flatten().map(move |w| (*w, step)));
    let edges = edges.filter_map(|(a, b)| Some((told.at(a)?, told.at(b)?)));
    super::Graph::new(told.steps.len(), edges).needed_for(&[step]).ones().collect()
}
