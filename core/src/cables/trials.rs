//! Trials: the device is switched on, or fed for a while, with its inside open. What is live then, and what to keep clear of.
//!
//! Source: no work on live parts, and a trial is watched and not touched (common practice, no source).

use super::power::line;
use crate::ids::*;
use crate::manual::{Action, Manual, Phase, Step};
use crate::reading::Act;
use crate::things::{Source, holds_charge, is_board, is_lithium, is_mains, is_outlet, source};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A step in which the open device is live on purpose.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Trial {
    pub step: StepId,
    pub phase: Phase,
    pub title: String,
    /// The sources that feed it then: "battery", "mains lead".
    pub live: Vec<String>,
    /// Parts that carry its power and lie open: "main board".
    pub keep_off: Vec<String>,
}

/// Every trial of a manual, in the order of the work. O(trials × steps).
pub fn trials(manual: &Manual) -> Vec<Trial> {
    let apart = manual.steps_in(Phase::Teardown);
    let back = manual.steps_in(Phase::Rebuild);
    let fed = line(manual);
    let names = |on: &[usize]| on.iter().map(|n| fed.sources[*n].name.clone()).collect::<Vec<_>>();
    // What is tried while every source is off, and not switched on, is only looked at or moved by hand.
    let dead = |at: usize, step: &Step| {
        let switched = step.actions.iter().any(|a| matches!(a.act, Act::PowerOn | Act::Connect));
        !fed.sources.is_empty() && fed.rows[at].on.is_empty() && !switched
    };
    let tried = apart.iter().enumerate().filter(|(at, s)| is_trial(s) && !dead(*at, s));
    let in_teardown = tried.map(|(at, step)| {
        let out = |part: &PartId| apart[..at].iter().any(|s| moves(s, Act::Remove, *part));
        trial(manual, step, names(&fed.rows[at].on), out)
    });
    let all: Vec<String> = fed.sources.iter().filter(|s| s.name != "stored charge").map(|s| s.name.clone()).collect();
    let in_rebuild =
        back.iter().enumerate().filter(|(at, s)| is_trial(s) && open_after(&back, *at)).map(|(at, step)| {
            let made: Vec<String> = back[..=at].iter().flat_map(|s| connected(manual, s)).collect();
            let later = |part: &PartId| back[at + 1..].iter().any(|s| moves(s, Act::Install, *part));
            // It cannot be on without a source, whether somebody told of it or not.
            trial(manual, step, if made.is_empty() { all.clone() } else { made }, later)
        });
    in_teardown.chain(in_rebuild).collect()
}

fn is_trial(step: &Step) -> bool {
    step.trial || step.actions.iter().any(|a| a.act == Act::PowerOn)
}

fn open_after(steps: &[&Step], at: usize) -> bool {
    let fits = |a: &Action| matches!(a.act, Act::Install | Act::Close | Act::Drive);
    steps[at + 1..].iter().any(|s| s.actions.iter().any(fits))
}

fn moves(step: &Step, act: Act, part: PartId) -> bool {
    step.actions.iter().any(|a| a.act == act && a.parts.contains(&part))
}

/// The sources that a step of the rebuild connects.
fn connected(manual: &Manual, step: &Step) -> Vec<String> {
    let joins = |a: &&Action| matches!(a.act, Act::Connect | Act::Install);
    let names = step.actions.iter().filter(joins).flat_map(|a| manual.named(a));
    let sources = names.filter(|n| matches!(source(n), Some(Source::Cell | Source::Mains | Source::Charger)));
    let wall = step.actions.iter().any(|a| a.act == Act::Connect && a.roles.places.iter().any(|p| is_outlet(&p.thing)));
    sources.map(str::to_owned).chain(wall.then(|| "mains lead".to_owned())).collect()
}

fn trial(manual: &Manual, step: &Step, mut live: Vec<String>, away: impl Fn(&PartId) -> bool) -> Trial {
    live.sort();
    live.dedup();
    let carries = |name: &str| is_board(name) || is_lithium(name) || is_mains(name) || holds_charge(name);
    let there = manual.parts.values().filter(|p| carries(&p.name) && !away(&p.id) && !live.contains(&p.name));
    let mut keep_off: Vec<String> = there.map(|p| p.name.clone()).collect();
    keep_off.sort();
    Trial { step: step.id, phase: step.phase, title: step.title.clone(), live, keep_off }
}

impl Trial {
    /// "Live now: battery, mains lead. Keep off the main board."; empty where nobody knows.
    pub fn words(&self) -> String {
        let live = (!self.live.is_empty()).then(|| format!("Live now: {}.", self.live.join(", ")));
        let off: Vec<String> = self.keep_off.iter().map(|n| format!("the {n}")).collect();
        let off = (!off.is_empty()).then(|| format!("Keep off {}.", off.join(" and ")));
        live.into_iter().chain(off).collect::<Vec<_>>().join(" ")
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted::manual;
    use rstest::rstest;

    const APART: &str = "Unplug the power cord from the wall socket. Take off the cover. Disconnect the battery cable. Take out \
                         the battery. Take out the fan. Take out the main board. Now we put it back together. ";

    #[rstest]
    #[case::looked_at(
        "Unplug the power cord from the wall socket. Take off the cover. Check the cord. Take out the main board.",
        0
    )]
    #[case::switched_on(
        "Unplug the power cord from the wall socket. Take off the cover. Switch it on to see that it starts. Take out the main board.",
        1
    )]
    fn on_the_way_apart(#[case] told: &str, #[case] live: usize) {
        assert_eq!(trials(&manual(&format!("[0:00] {told}"))).len(), live);
    }

    #[rstest]
    #[case::a_source_was_connected(
        "Put the main board in. Put the battery in. Connect the battery cable. Switch it on to see that it starts. Put the fan in. Put the cover back on.",
        &["Live now: battery. Keep off the main board."]
    )]
    #[case::nobody_told_the_source(
        "Put the main board in. Switch it on to see that it starts. Put the fan in. Put the cover back on.",
        &["Live now: battery, mains lead. Keep off the main board."]
    )]
    #[case::closed_it_is_no_trial("Put the main board in. Put the cover back on. Switch it on.", &[])]
    #[case::never_on("Put the main board in. Put the cover back on.", &[])]
    fn on_the_way_back(#[case] told: &str, #[case] wanted: &[&str]) {
        let said: Vec<String> = trials(&manual(&format!("[0:00] {APART}{told}"))).iter().map(Trial::words).collect();
        assert_eq!(said, wanted);
    }
}
