//! The source of power goes before any other connector, and before tools at boards and cells.

use super::{Proposal, Told, before, why};
use crate::manual::Reason;
use crate::power::{cut, live_work};

/// The source of power is disconnected before anything is done to live parts. A plug that must go first to reach it stays first.
pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
    let plugs = told.manual.connectors.values().filter(|c| c.power && !c.temporary).filter_map(|c| told.at(c.step));
    // A pack that is lifted out needs no plug.
    let packs = told.out.iter().filter(|(part, _)| told.manual.parts.get(part).is_some_and(|p| p.power_source));
    let Some(source) = plugs.chain(packs.flat_map(|(_, steps)| steps.iter().copied())).min() else { return };
    let on_the_way = before(told, found, source);
    for at in (0..told.steps.len()).filter(|at| *at != source && !on_the_way.contains(at)) {
        let step = told.steps[at];
        let Some(what) = live_work(told.manual, step).filter(|_| cut(told.manual, step).is_none()) else { continue };
        let because = format!("the source of power is disconnected before one works at {what}: nothing is done live");
        told.push(found, source, at, why(Reason::Power, 0.9, because, &told.steps[source].evidence));
    }
}
