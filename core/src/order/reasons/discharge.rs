//! What was done to be safe goes before whatever was told after it.

use super::{Proposal, Told, before, why};
use crate::manual::Reason;
use crate::power::{discharges, only_waits, switches_off};

/// Discharging, and the minutes after the power was cut, protect all that follows; so does every further switching off.
///
/// Whether the device can be reached without it does not matter: a charge does not know which part is wanted.
pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
    let cuts = |at: usize| crate::power::cut(told.manual, told.steps[at]).is_some();
    let mut safe = false;
    for (at, step) in told.steps.iter().enumerate() {
        let waits = safe && only_waits(step);
        let because = if discharges(step) {
            "stored charge is let out before one goes on"
        } else if waits {
            "one waits until what was cut off is safe"
        } else if switches_off(step) {
            "the device is off before one goes on"
        } else {
            safe = cuts(at);
            continue;
        };
        safe = true;
        let on_the_way = before(told, found, at);
        for behind in (at + 1..told.steps.len()).filter(|b| !on_the_way.contains(b)) {
            told.push(found, at, behind, why(Reason::Power, 0.9, because.to_owned(), &step.evidence));
        }
    }
}
