//! A tool is laid out and no step uses it.

use super::{Finding, Rule, Stop, Subject};
use crate::manual::{Edit, KitEdit, Manual, Step};
use crate::order::Fix;

const RULE: Rule = Rule {
    id: "laid-out-unused",
    stop: Stop::Steps,
    blocks: false,
    why: "Readers buy it for nothing, or a step that needs it does not say so.",
    source: "common practice, no source",
};

pub(super) fn find(manual: &Manual) -> Vec<Finding> {
    let unused = manual.kit.values().filter(|tool| !manual.steps.values().any(|s| uses(s, &tool.name)));
    let finding = |tool: &crate::manual::LaidOut| {
        let says = format!("Laid out and used in no step: {}. Name it in a step, or put it away.", tool.name);
        let label = format!("Put the {} away", tool.name);
        let fix = Fix { label, edit: Edit::Kit(KitEdit::PutAway { id: tool.id }) };
        Finding { fixes: vec![fix], ..RULE.finding(Subject::Tool(tool.id), says) }
    };
    unused.map(finding).collect()
}

/// "Phillips screwdriver" is used where a "screwdriver" is, and the other way round.
pub(super) fn uses(step: &Step, tool: &str) -> bool {
    let same = |name: &str| {
        let (a, b) = (name.to_lowercase(), tool.to_lowercase());
        a == b || a.ends_with(&format!(" {b}")) || b.ends_with(&format!(" {a}"))
    };
    step.tools.iter().any(|t| same(t))
        || step.choices.iter().flat_map(|c| &c.any_of).any(|t| same(t))
        || step.branches.iter().flat_map(|b| &b.tools).any(|t| same(t))
        || step.consumables.iter().any(|c| same(c.name()))
}

#[cfg(test)]
mod tests {
    use crate::checks::written::check;

    #[test]
    fn nobody_uses_it() {
        check(
            "
            laid out: spudger
            laid out: tweezers
            ~~~ laid-out-unused: Laid out and used in no step: tweezers. Name it in a step, or put it away.
            step Remove the lid with spudger
            ",
        );
    }

    #[test]
    fn the_kind_of_screwdriver_is_told_in_the_step() {
        check(
            "
            laid out: screwdriver
            step Remove the lid with Phillips screwdriver
            ",
        );
    }
}
