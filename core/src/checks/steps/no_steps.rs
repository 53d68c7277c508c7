//! There is nothing to do in the guide.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop};
use crate::manual::Phase;

pub(super) const RULE: Rule = Rule {
    id: RuleId::NoSteps,
    stop: Stop::Steps,
    blocks: true,
    may_set_aside: false,
    why: "A guide without steps helps nobody.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let says = "The guide has no steps. Bring a recording or write the first step.";
    let empty = case.manual.steps_in(Phase::Teardown).is_empty();
    empty.then(|| RULE.finding_about(Vec::new(), says.to_owned())).into_iter().collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::{check, found};

    #[test]
    fn a_part_alone_is_no_guide() {
        assert_eq!(found(&RULE, "part pump"), ["The guide has no steps. Bring a recording or write the first step."]);
    }

    #[test]
    fn one_step_is_a_guide() {
        check(&RULE, "step Remove the lid");
    }
}
