//! A part is named somewhere, and no step takes it out or works on it.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::PartId;
use crate::manual::{Edit, PartEdit};

pub(super) const RULE: Rule = Rule {
    id: RuleId::UnreachedPart,
    stop: Stop::Chain,
    blocks: false,
    may_set_aside: true,
    why: "Either a step for it is missing, or the name was misheard.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let (manual, chain) = (case.manual, case.chain());
    let handled = |part: PartId| {
        chain.steps.iter().any(|s| {
            manual.steps[s].actions.iter().any(|a| a.parts.contains(&part))
                || manual.groups_of(*s).any(|g| g.holds.contains(&part))
                || manual.connectors_of(*s).any(|c| c.serves == Some(part))
                || manual.heats_of(*s).any(|h| h.target == Some(part))
        })
    };
    let finding = |part: PartId| {
        let says = format!("No step of the teardown takes out or works on the {}.", manual.part_name(part));
        let remove = Edit::Part(PartEdit::Remove { id: part });
        // A part that something else still names cannot go by one press.
        let fix = manual.apply(&remove, "").is_ok().then(|| Fix::new("Remove the part", remove));
        RULE.finding(Subject::Part(part), says).resting_on(()).with(fix)
    };
    manual.parts.keys().copied().filter(|p| !handled(*p)).map(finding).collect()
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
