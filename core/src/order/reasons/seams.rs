//! Glue, tape or clips hold a part.

use super::{Proposal, Told, why};
use crate::labels::Label;
use crate::manual::Reason;

pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for s in told.manual.seams.values() {
        let (Some(at), Some(part)) = (told.at(s.step), s.part) else { continue };
        if let Some(leaves) = told.leaves_behind(part, at) {
            let because = format!("{} {} the {}", s.kind.phrase(), s.kind.verb(), told.name(part));
            told.push(found, at, leaves, why(Reason::Holds, 0.9, because, &s.evidence));
        }
    }
}
