//! Two kinds of screws that lie on the bench together look alike, and one does harm in the place of the other.

use super::{Finding, Rule, Stop, Subject};
use crate::fasteners::balance::comes_out;
use crate::fasteners::kinds::{Sorted, sort};
use crate::fasteners::mixup::{Harm, MixUp, risks};
use crate::ids::*;
use crate::manual::{CautionEdit, Edit, FastenerGroup, Manual};
use crate::order::Fix;
use crate::reading::CautionSubject;
use std::collections::BTreeSet;
use uuid::Uuid;

const RULE: Rule = Rule {
    id: "screw-mix-up",
    stop: Stop::Screws,
    blocks: false,
    why: "A long screw in a short hole cracks a board or marks a display.",
    source: "common practice, no source",
};

pub(super) fn find(manual: &Manual) -> Vec<Finding> {
    let sorted = sort(manual);
    let risks = risks(manual, &sorted).mix_ups;
    let worst = |harm: Harm| matches!(harm, Harm::TooLong | Harm::WrongThread);
    let found = risks.iter().filter(|r| worst(r.harm)).filter_map(|r| of(manual, &sorted, r));
    // One caution a step is read; a list of them is not.
    let mut told = BTreeSet::new();
    found.filter(|(step, _)| told.insert(*step)).map(|(_, finding)| finding).collect()
}

/// The step that the caution belongs to, with the finding.
fn of(manual: &Manual, sorted: &Sorted, risk: &MixUp) -> Option<(StepId, Finding)> {
    let out = |at: usize| -> Vec<&FastenerGroup> {
        let groups = sorted.kinds[at].1.iter().filter_map(|g| manual.fasteners.get(g));
        groups.filter(|g| comes_out(g)).collect()
    };
    let (screws, holes) = (out(risk.screw), out(risk.hole));
    // What never lies on the bench is not mixed up.
    let (first, hole) = (screws.first()?, holes.first()?);
    let order = manual.order();
    let place = |g: &FastenerGroup| order.iter().position(|s| *s == g.step);
    let step = if place(first) > place(hole) { first.step } else { hole.step };
    if manual.cautions_of(step).any(|c| c.about == CautionSubject::ScrewMixup) {
        return None;
    }
    let letters = |list: &[&FastenerGroup]| {
        list.iter().filter_map(|g| sorted.tags.get(&g.id)).map(|t| t.letter.clone()).collect::<Vec<_>>().join(", ")
    };
    let (a, b) = (&sorted.kinds[risk.screw].0, &sorted.kinds[risk.hole].0);
    let says = format!(
        "A screw of {} ({}) in a hole of {} ({}): {}. Tell the reader to keep them apart.",
        letters(&screws),
        a.words(),
        letters(&holes),
        b.words(),
        risk.says
    );
    let text = format!("Keep these screws apart: {} in the place of {} is {}.", a.words(), b.words(), risk.says);
    let id = CautionId(Uuid::new_v5(&step.0, text.as_bytes()));
    let add = Edit::Caution(CautionEdit::Add { id, step, about: CautionSubject::ScrewMixup, text });
    let fixes = vec![Fix { label: "Put the caution at its step".to_owned(), edit: add }];
    Some((step, Finding { fixes, ..RULE.finding(Subject::Group(hole.id), says) }))
}

#[cfg(test)]
mod tests {
    use crate::checks::written::check;

    #[test]
    fn long_ones_in_short_holes() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 PH0 6 mm
            ~~~ screw-mix-up: A screw of B (PH0, 8 mm) in a hole of A (PH0, 6 mm): 2 mm too long: it bottoms, marks what lies beneath or cracks the boss. Tell the reader to keep them apart.
            step Remove the fan
            screws of the fan: 2 PH0 8 mm
            ",
        );
    }

    #[test]
    fn what_stays_in_its_part_is_not_mixed_up() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 PH0 6 mm, captive
            step Remove the fan
            screws of the fan: 2 PH0 8 mm
            ",
        );
    }
}
