//! Steps wait for each other, so none of them can begin.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::StepId;
use crate::order::{Condition, dropping};

pub(super) const RULE: Rule = Rule {
    id: RuleId::Ring,
    stop: Stop::Chain,
    blocks: true,
    may_set_aside: false,
    why: "Nobody can carry such an order out: one of the reasons must be wrong.",
    source: "an order exists only without rings (Kahn 1962)",
};

/// The shortest ring in words, with its weakest link as the one to drop.
pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let chain = case.chain();
    if chain.stuck().is_empty() {
        return Vec::new();
    }
    let graph = if chain.sure_graph().order().is_none() { chain.sure_graph() } else { chain.graph() };
    let Some(ring) = graph.shortest_cycle() else { return Vec::new() };
    let ring: Vec<StepId> = ring.into_iter().map(|i| chain.steps[i]).collect();
    let links: Vec<(StepId, &Condition)> = (0..ring.len())
        .filter_map(|i| {
            let (before, step) = (ring[i], ring[(i + 1) % ring.len()]);
            chain.of_step(step).find(|c| c.ways.iter().flatten().any(|s| *s == before)).map(|c| (before, c))
        })
        .collect();
    let told: Vec<String> = links
        .iter()
        .map(|(before, c)| format!("“{}” waits for “{}” ({})", case.title(c.step), case.title(*before), c.because()))
        .collect();
    let weakest = links.iter().min_by(|a, b| a.1.confidence().total_cmp(&b.1.confidence()));
    let says = format!("These steps wait for each other, so none can begin: {}.", told.join("; "));
    let fix = weakest.map(|(before, c)| drop_fix(case, *before, c));
    vec![RULE.finding_about(ring.into_iter().map(Subject::Step).collect(), says).with(fix)]
}

/// "It does not wait for that."
pub(super) fn drop_fix(case: &Case<'_>, before: StepId, c: &Condition) -> Fix {
    Fix::new(format!("“{}” does not wait for “{}”", case.title(c.step), case.title(before)), dropping(before, c))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn told_with_the_link_that_is_easiest_to_drop() {
        check(
            &RULE,
            "
            step Remove the lid
            step Remove the fan
            waits: Remove the lid for Remove the fan
            ~~~ ring: These steps wait for each other, so none can begin: “Remove the fan” waits for “Remove the lid” (the lid covers it); “Remove the lid” waits for “Remove the fan” (an author says so).
            ",
        );
    }
}
