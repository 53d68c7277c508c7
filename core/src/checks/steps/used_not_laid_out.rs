//! A step uses a tool that was not laid out.

use super::laid_out_unused::same_tool;
use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::ToolId;
use crate::manual::{Edit, KitEdit};
use std::collections::BTreeSet;
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::UsedNotLaidOut,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Readers stand before an open device and have to go and look for it.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    // Where nothing was laid out at all, the list that follows from the steps is all there is.
    if manual.kit.is_empty() {
        return Vec::new();
    }
    let mut told = BTreeSet::new();
    let mut out = Vec::new();
    for id in manual.order() {
        let step = &manual.steps[&id];
        for tool in &step.tools {
            if manual.kit.values().any(|t| same_tool(tool, &t.name)) || !told.insert(tool.to_lowercase()) {
                continue;
            }
            let says = format!("Used in “{}” and not on the tool list: {tool}. Put it on the list.", step.title);
            let edit = KitEdit::LayOut { id: ToolId(Uuid::new_v5(&manual.id.0, tool.as_bytes())), name: tool.clone() };
            let fix = Fix { label: format!("Put the {tool} on the list"), edit: Edit::Kit(edit) };
            out.push(RULE.finding_about(vec![Subject::Step(id), Subject::ToolNamed(tool.clone())], says).with([fix]));
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn it_comes_as_a_surprise() {
        check(
            &RULE,
            "
            laid out: spudger
            step Remove the lid with spudger
            step Remove the fan with tweezers
            ~~~ used-not-laid-out: Used in “Remove the fan” and not on the tool list: tweezers. Put it on the list.
            step Remove the board with tweezers
            ",
        );
    }

    #[test]
    fn nothing_was_laid_out_at_all() {
        check(&RULE, "step Remove the lid with spudger");
    }
}
