//! The device is off and unplugged before anything is opened.

use super::{Proposal, Told, before, why};
use crate::manual::{Reason, Step};
use crate::reading::Act;

/// The mains plug before anything.
pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
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
        s.actions.iter().any(|a| {
            matches!(a.act, Act::PowerOff | Act::Unplug) || {
                let says = told.manual.sentence(a).to_lowercase();
                PLUG.iter().any(|p| says.contains(p))
            }
        })
    };
    let Some(at) = told.steps.iter().find(unplugs).and_then(|s| told.at(s.id)) else { return };
    let on_the_way = before(told, found, at);
    for behind in (0..told.steps.len()).filter(|b| !on_the_way.contains(b)) {
        let because = "the device is off and unplugged before anything is opened".to_owned();
        told.push(found, at, behind, why(Reason::Power, 0.95, because, &told.steps[at].evidence));
    }
}
