//! A part is named somewhere, and no step takes it out or works on it.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::{PartId, StepId};
use crate::manual::{Edit, PartEdit};
use crate::rebuild::Difference;
use std::collections::BTreeSet;

pub(super) const RULE: Rule = Rule {
    id: RuleId::UnreachedPart,
    stop: Stop::Chain,
    blocks: false,
    may_set_aside: true,
    why: "Either a step for it is missing, or the name was misheard.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let here: BTreeSet<StepId> = case.chain().steps.iter().copied().collect();
    let moved = manual.steps.values().filter(|s| here.contains(&s.id)).flat_map(|s| &s.actions).flat_map(|a| &a.parts);
    let held = manual.fasteners.values().filter(|g| here.contains(&g.step)).flat_map(|g| &g.holds);
    let plugged = manual.connectors.values().filter(|c| here.contains(&c.step)).filter_map(|c| c.serves.as_ref());
    let heated = manual.heats.values().filter(|h| here.contains(&h.step)).filter_map(|h| h.target.as_ref());
    // What is told to go in and never came out is asked at the fold.
    let strange = case.differences().iter().filter_map(|d| match d {
        Difference::NeverOut { part, .. } => Some(part),
        _ => None,
    });
    let handled: BTreeSet<PartId> = moved.chain(held).chain(plugged).chain(heated).chain(strange).copied().collect();
    let finding = |part: PartId| {
        let says = format!("No step of the teardown takes out or works on the {}.", manual.part_name(part));
        let remove = Edit::Part(PartEdit::Remove { id: part });
        // A part that something else still names cannot go by one press.
        let fix = manual.user_of(part).is_none().then(|| Fix::new("Remove the part", remove));
        RULE.finding(Subject::Part(part), says).resting_on(()).with(fix)
    };
    manual.parts.keys().copied().filter(|p| !handled.contains(p)).map(finding).collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn a_part_that_is_only_named() {
        check(
            &RULE,
            "
            step Remove the lid
            part pump: 12 V
            ~~~ unreached-part: No step of the teardown takes out or works on the pump.
            ",
        );
    }
}
