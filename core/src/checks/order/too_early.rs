//! A step stands before what it needs.

use super::ring::drop_fix;
use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, StepEdit};
use crate::order::{Condition, SURE};

pub(super) const RULE: Rule = Rule {
    id: RuleId::TooEarly,
    stop: Stop::Chain,
    blocks: true,
    may_set_aside: false,
    why: "A reader who follows the steps in their order stands before something that is still held, covered or live.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let chain = case.chain();
    let stuck = chain.stuck();
    let broken = chain.conditions.iter().filter(|c| !stuck.contains(&c.step) && !c.met_by(&chain.steps));
    broken.filter_map(|c| finding(case, c)).collect()
}

fn finding(case: &Case<'_>, c: &Condition) -> Option<Finding> {
    let chain = case.chain();
    // The way that ends soonest asks for the shortest move.
    let ends = |way: &Vec<_>| way.iter().filter_map(|s| chain.at(*s)).max();
    let last = chain.steps[c.ways.iter().filter_map(ends).min()?];
    let before_it = chain.at(c.step)?.checked_sub(1).map(|i| chain.steps[i]);
    let to_move = |id, after| Edit::Step(StepEdit::Move { id, after });
    let says = format!("“{}” stands before “{}”, but {}.", case.title(c.step), case.title(last), c.because());
    let found = RULE.finding_about(vec![Subject::Step(c.step), Subject::Step(last)], says);
    Some(found.blocking(c.confidence() >= SURE).with([
        Fix::new(format!("Move it behind “{}”", case.title(last)), to_move(c.step, Some(last))),
        Fix::new(format!("Move “{}” before it", case.title(last)), to_move(last, before_it)),
        drop_fix(case, last, c),
    ]))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn the_lid_is_told_behind_the_fan() {
        check(
            &RULE,
            "
            step Remove the fan
            free step Remove the lid
            waits: Remove the fan for Remove the lid
            ~~~ too-early: “Remove the fan” stands before “Remove the lid”, but an author says so.
            ",
        );
    }
}
