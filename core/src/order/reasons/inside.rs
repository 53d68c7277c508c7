//! A part sits in another that comes out first.

use super::{Proposal, Told, why};
use crate::manual::Reason;

pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for part in told.manual.parts.values() {
        let Some(outer) = part.inside else { continue };
        let Some(at) = told.out.get(&outer).and_then(|o| o.first().copied()) else { continue };
        if let Some(leaves) = told.leaves_behind(part.id, at) {
            let because = format!("the {} sits in the {}, which comes out first", part.name, told.name(outer));
            told.push(found, at, leaves, why(Reason::Inside, 0.9, because, &part.evidence));
        }
    }
}
