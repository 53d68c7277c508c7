//! A tool is laid out and no step uses it.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, KitEdit, Step};

pub(super) const RULE: Rule = Rule {
    id: RuleId::LaidOutUnused,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Readers buy it for nothing, or a step that needs it does not say so.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    // While nobody has said what turns some screws, a driver of the list may be meant for them.
    let unturned = manual.fasteners.values().any(|g| g.drive.is_none());
    let turns = |name: &str| unturned && name.to_lowercase().ends_with("screwdriver");
    let unused = manual
        .kit
        .values()
        .filter(|tool| !turns(&tool.name))
        .filter(|tool| !manual.steps.values().flat_map(used).any(|name| same_tool(name, &tool.name)));
    let finding = |tool: &crate::manual::LaidOut| {
        let says =
            format!("On the tool list and used in no step: {}. Name it in a step, or take it off the list.", tool.name);
        let label = format!("Take the {} off the list", tool.name);
        let fix = Fix { label, edit: Edit::Kit(KitEdit::PutAway { id: tool.id }) };
        Finding { fixes: vec![fix], ..RULE.finding(Subject::Tool(tool.id), says) }
    };
    unused.map(finding).collect()
}

/// All that a step may be done with.
fn used(step: &Step) -> impl Iterator<Item = &str> {
    let tools = step.tools.iter().chain(step.choices.iter().flat_map(|c| &c.any_of));
    let names = tools.chain(step.branches.iter().flat_map(|b| &b.tools)).map(String::as_str);
    names.chain(step.consumables.iter().map(|c| c.name()))
}

/// "Phillips screwdriver" is used where a "screwdriver" is, and the other way round.
pub(in crate::checks) fn same_tool(a: &str, b: &str) -> bool {
    let (a, b) = (a.to_lowercase(), b.to_lowercase());
    a == b || a.ends_with(&format!(" {b}")) || b.ends_with(&format!(" {a}"))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn nobody_uses_it() {
        check(
            &RULE,
            "
            laid out: spudger
            laid out: tweezers
            ~~~ laid-out-unused: On the tool list and used in no step: tweezers. Name it in a step, or take it off the list.
            step Remove the lid with spudger
            ",
        );
    }

    #[test]
    fn a_driver_may_be_meant_for_screws_that_nobody_has_named() {
        check(
            &RULE,
            "
            laid out: T six-lobe screwdriver
            step Remove the lid
            screws of the lid: 4
            ",
        );
    }

    #[test]
    fn a_driver_that_fits_none_of_the_screws_is_unused() {
        check(
            &RULE,
            "
            laid out: T six-lobe screwdriver
            ~~~ laid-out-unused: On the tool list and used in no step: T six-lobe screwdriver. Name it in a step, or take it off the list.
            step Remove the lid
            screws of the lid: 4 PH1
            ",
        );
    }

    #[test]
    fn the_kind_of_screwdriver_is_told_in_the_step() {
        check(
            &RULE,
            "
            laid out: screwdriver
            step Remove the lid with Phillips screwdriver
            ",
        );
    }
}
