//! The source of power goes before any other connector.

use super::{Proposal, Told, before, why};
use crate::manual::Reason;

/// The source of power is disconnected before any other connector. A plug that must go first to reach it stays first.
pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
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
