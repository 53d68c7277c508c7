//! Heat softens what holds a part, before it is pried or leaves.

use super::{Proposal, Told, why};
use crate::manual::Reason;

pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
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
