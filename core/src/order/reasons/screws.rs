//! Screws hold a part: they come out before it leaves.

use super::{Proposal, Told, why};
use crate::manual::Reason;
use crate::reading::FastenerOp;

pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for g in told.manual.fasteners.values().filter(|g| matches!(g.op, FastenerOp::Remove | FastenerOp::Loosen)) {
        let Some(at) = told.at(g.step) else { continue };
        for part in &g.holds {
            if let Some(leaves) = told.leaves_behind(*part, at) {
                let verb = if g.count == Some(1) { "holds" } else { "hold" };
                let because = format!("{} {verb} the {}", g.in_a_sentence(), told.name(*part));
                told.push(found, at, leaves, why(Reason::Holds, 0.95, because, &g.evidence));
            }
        }
    }
}
