//! A bracket or shield lies over what is disconnected or lifted next.

use super::{Proposal, Told, is_named, removed_in, why};
use crate::manual::Reason;

/// A bracket or shield that leaves right before something is disconnected or lifted lay over it, as a rule.
pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
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
