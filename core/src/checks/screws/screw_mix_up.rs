//! Two kinds of screws that lie on the bench together look alike, and one does harm in the place of the other.

use crate::checks::Case;
use crate::fasteners::balance::comes_out;
use crate::fasteners::kinds::{Sorted, sort};
use crate::fasteners::mixup::{Harm, MixUp, risks};
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::*;
use crate::manual::{CautionEdit, Edit, FastenerGroup, Manual};
use crate::reading::CautionSubject;
use std::collections::{BTreeMap, BTreeSet};
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::ScrewMixUp,
    stop: Stop::Screws,
    blocks: false,
    may_set_aside: true,
    why: "A long screw in a short hole cracks a board or marks a display.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let sorted = sort(manual);
    let place: BTreeMap<StepId, usize> = manual.order().into_iter().enumerate().map(|(i, s)| (s, i)).collect();
    let mut told: BTreeSet<StepId> =
        manual.cautions.values().filter(|c| c.about == CautionSubject::ScrewMixup).map(|c| c.step).collect();
    let mut out = Vec::new();
    for risk in risks(manual, &sorted).mix_ups {
        if !matches!(risk.harm, Harm::TooLong | Harm::WrongThread) {
            continue;
        }
        // What never lies on the bench is not mixed up.
        let [screws, holes] = [risk.screw, risk.hole].map(|kind| on_the_bench(manual, &sorted, kind));
        let (Some(first), Some(hole)) = (screws.first(), holes.first()) else { continue };
        let step = if place.get(&first.step) > place.get(&hole.step) { first.step } else { hole.step };
        // One caution a step is read; a list of them is not.
        if told.insert(step) {
            out.push(finding(&sorted, &risk, step, &screws, &holes));
        }
    }
    out
}

fn on_the_bench<'m>(manual: &'m Manual, sorted: &Sorted, kind: usize) -> Vec<&'m FastenerGroup> {
    sorted.kinds[kind].1.iter().filter_map(|g| manual.fasteners.get(g)).filter(|g| comes_out(g)).collect()
}

fn finding(
    sorted: &Sorted,
    risk: &MixUp,
    step: StepId,
    screws: &[&FastenerGroup],
    holes: &[&FastenerGroup],
) -> Finding {
    let letters = |list: &[&FastenerGroup]| {
        list.iter().filter_map(|g| sorted.tags.get(&g.id)).map(|t| t.letter.clone()).collect::<Vec<_>>().join(", ")
    };
    let (a, b) = (&sorted.kinds[risk.screw].0, &sorted.kinds[risk.hole].0);
    let says = format!(
        "A screw of {} ({}) in a hole of {} ({}): {}. Tell the reader to keep them apart.",
        letters(screws),
        a.words(),
        letters(holes),
        b.words(),
        risk.says
    );
    let text = format!("Keep these screws apart: {} in the place of {} is {}.", a.words(), b.words(), risk.says);
    let id = CautionId(Uuid::new_v5(&step.0, text.as_bytes()));
    let add = Edit::Caution(CautionEdit::Add { id, step, about: CautionSubject::ScrewMixup, hazard: None, text });
    let fixes = vec![Fix { label: "Put the caution at its step".to_owned(), edit: add }];
    Finding { fixes, ..RULE.finding(Subject::Group(holes[0].id), says) }
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn long_ones_in_short_holes() {
        check(&RULE,
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
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH0 6 mm, captive
            step Remove the fan
            screws of the fan: 2 PH0 8 mm
            ",
        );
    }
}
