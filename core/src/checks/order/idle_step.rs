//! A step that nothing waits for and that takes nothing out: left over from talk, or a reason is missing.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, Reason, RequirementEdit, Standing, Step};
use crate::order::judged;
use crate::reading::Act;

pub(super) const RULE: Rule = Rule {
    id: RuleId::IdleStep,
    stop: Stop::Chain,
    blocks: false,
    may_set_aside: true,
    why: "A guide for one part leaves such a step out, although it may be needed.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let (manual, chain) = (case.manual, case.chain());
    let graph = chain.graph();
    let alone = |(i, id): &(usize, &_)| graph.after(*i).is_empty() && !works(&manual.steps[*id]);
    let finding = |(i, id): (usize, &crate::ids::StepId)| {
        let next = chain.steps.get(i + 1).map(|next| {
            let edit: RequirementEdit = judged(*next, *id, Reason::Author, Standing::Confirmed);
            Fix::new(format!("“{}” waits for it", case.title(*next)), Edit::Requirement(edit))
        });
        let says = format!("Nothing waits for “{}”, and it takes nothing out.", case.title(*id));
        RULE.finding(Subject::Step(*id), says).resting_on(()).with(next)
    };
    chain.steps.iter().enumerate().filter(alone).map(finding).collect()
}

/// Whether it is done for its own sake.
fn works(step: &Step) -> bool {
    step.actions.iter().any(|a| {
        matches!(
            a.act,
            Act::Remove
                | Act::Peel
                | Act::Test
                | Act::Measure
                | Act::Clean
                | Act::Apply
                | Act::Transfer
                | Act::Mark
                | Act::Discharge
                | Act::Drain
                | Act::Protect
        )
    })
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn nothing_comes_of_it() {
        check(
            &RULE,
            "
            step Remove the lid
            step Look around
            ~~~ idle-step: Nothing waits for “Look around”, and it takes nothing out.
            ",
        );
    }
}
