//! Something must soften, cool or dry before one goes on.

use super::{Proposal, Told, why};
use crate::manual::Reason;
use crate::reading::Act;

/// "Wait five minutes": for what comes next.
pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for at in 0..told.steps.len().saturating_sub(1) {
        if let Some(action) = told.steps[at].actions.last().filter(|a| a.act == Act::Wait) {
            let because = "one waits here before going on".to_owned();
            told.push(found, at, at + 1, why(Reason::Cure, 0.7, because, &action.evidence));
        }
    }
}
