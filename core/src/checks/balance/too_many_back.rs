//! More screws go back than came out.

use super::about;
use crate::checks::Case;
use crate::fasteners::balance::BalanceRow;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop};
use crate::manual::{Edit, FastenerEdit, FastenerField};

pub(super) const RULE: Rule = Rule {
    id: RuleId::TooManyBack,
    stop: Stop::Fold,
    blocks: true,
    may_set_aside: false,
    why: "Either one was missed when they came out, or one was counted twice: a reader will look for it in vain.",
    source: "bookkeeping: out = back + new + left out on purpose (common practice, no source)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let wrong = case.balance().rows.iter().filter(|row| row.left_over.is_some_and(|n| n < 0));
    wrong.map(|row| finding(case, row)).collect()
}

fn finding(case: &Case<'_>, row: &BalanceRow) -> Finding {
    let (out, back) = (row.out.unwrap_or(0), row.back.unwrap_or(0) + row.renewed);
    let says = format!("{} more go back than came out ({}). Check both counts.", back.abs_diff(out), row.label);
    let set = |field| Edit::Fastener(FastenerEdit::Set { id: row.group, field });
    RULE.finding_about(about(case, row), says).resting_on((out, back)).with([
        Fix::new(format!("{out} go back"), set(FastenerField::Refitted(Some(out)))),
        Fix::new(format!("{back} came out"), set(FastenerField::Count(Some(back)))),
    ])
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn five_go_back_of_four() {
        check(
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, 5 back
            ~~~ too-many-back: 1 more go back than came out (PH1, 8 mm, lid). Check both counts.
            ",
        );
    }
}
