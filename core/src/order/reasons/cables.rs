//! A cable ties a part.

use super::{Proposal, Told, why};
use crate::manual::Reason;

pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
    for c in told.manual.connectors.values().filter(|c| !c.temporary) {
        let (Some(at), Some(part)) = (told.at(c.step), c.serves) else { continue };
        if let Some(leaves) = told.leaves_behind(part, at) {
            let because = format!("its cable ties the {}", told.name(part));
            told.push(found, at, leaves, why(Reason::ConnectedTo, 0.95, because, &c.evidence));
        }
    }
}
