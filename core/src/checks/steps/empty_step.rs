//! A step has a title and says nothing to do.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, Phase, StepEdit};

pub(super) const RULE: Rule = Rule {
    id: RuleId::EmptyStep,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Readers do not know whether a sentence was lost or nothing is to be done.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let steps = case.manual.steps_in(Phase::Teardown);
    let empty = steps.iter().enumerate().filter(|(_, s)| s.actions.is_empty());
    let finding = |(i, step): (usize, &&crate::manual::Step)| {
        let says = format!("Step {} says nothing to do: “{}”. Write a sentence or remove it.", i + 1, step.title);
        let remove = Edit::Step(StepEdit::Remove { id: step.id });
        // Its number and title may change; that it is empty stays the same finding.
        RULE.finding(Subject::Step(step.id), says).resting_on(()).with([Fix::new("Remove the step", remove)])
    };
    empty.map(finding).collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn a_title_alone_says_nothing_to_do() {
        check(
            &RULE,
            "
            step Remove the lid
            empty step Mind the gap
            ~~~ empty-step: Step 2 says nothing to do: “Mind the gap”. Write a sentence or remove it.
            ",
        );
    }
}
