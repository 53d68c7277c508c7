//! An enclosure lies over what comes behind it.

use super::{Proposal, Told, is_named, removed_in, why};
use crate::ids::PartId;
use crate::manual::Reason;

const ENCLOSURES: [&str; 13] = [
    "cover",
    "lid",
    "housing",
    "case",
    "casing",
    "shell",
    "door",
    "hood",
    "backplate",
    "panel",
    "base",
    "bottom",
    "enclosure",
];

/// The first enclosure that comes off opens the device; a later one covers what is told next.
pub(super) fn propose(told: &Told<'_>, found: &mut Vec<Proposal>) {
    let enclosure = |at: usize| removed_in(told.steps[at]).into_iter().find(|p| is_named(told.name(*p), &ENCLOSURES));
    let mut first = true;
    for at in 0..told.steps.len() {
        let Some(part) = enclosure(at) else { continue };
        let reaches = if first { told.steps.len() } else { next_enclosure(told, at, enclosure) };
        let confidence = if first { 0.75 } else { 0.55 };
        for behind in at + 1..reaches {
            let because = format!("the {} covers it", told.name(part));
            told.push(found, at, behind, why(Reason::Covers, confidence, because, &told.steps[at].evidence));
        }
        first = false;
    }
}

fn next_enclosure(told: &Told<'_>, at: usize, enclosure: impl Fn(usize) -> Option<PartId>) -> usize {
    (at + 1..told.steps.len()).find(|n| enclosure(*n).is_some()).unwrap_or(told.steps.len())
}
