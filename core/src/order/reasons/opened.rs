//! A part is freed in one step and leaves in another.

use super::{Proposal, Told, why};
use crate::manual::Reason;
use crate::reading::Act;

/// "Open the latch of the tray" before "take the tray out".
pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for (at, step) in told.steps.iter().enumerate() {
        for action in &step.actions {
            let frees =
                matches!(action.act, Act::Open | Act::Pry | Act::Release | Act::Loosen | Act::Unscrew | Act::Desolder);
            for part in action.parts.iter().filter(|_| frees) {
                if let Some(leaves) = told.leaves_behind(*part, at) {
                    let because = format!("the {} is freed here", told.name(*part));
                    told.push(found, at, leaves, why(Reason::Holds, 0.7, because, &action.evidence));
                }
            }
        }
    }
}
