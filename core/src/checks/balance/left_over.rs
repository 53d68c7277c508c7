//! More screws come out than go back, and nobody says why.

use super::about;
use crate::checks::Case;
use crate::fasteners::balance::BalanceRow;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop};
use crate::manual::{Edit, FastenerEdit, FastenerFate, FastenerField};

pub(super) const RULE: Rule = Rule {
    id: RuleId::LeftOver,
    stop: Stop::Fold,
    blocks: true,
    may_set_aside: false,
    why: "A screw on the bench at the end is one that is missing inside.",
    source: "bookkeeping: out = back + new + left out on purpose (common practice, no source)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let open = case.balance().rows.iter().filter(|row| row.left_over.is_some_and(|n| n > 0) && !row.on_purpose);
    open.map(|row| finding(case, row)).collect()
}

fn finding(case: &Case<'_>, row: &BalanceRow) -> Finding {
    let (out, back) = (row.out.unwrap_or(0), row.back.unwrap_or(0) + row.renewed);
    let says =
        format!("{} left over: {out} out, {back} back ({}). Say where the rest goes.", out.abs_diff(back), row.label);
    let set = |field| Edit::Fastener(FastenerEdit::Set { id: row.group, field });
    let all = Fix::new(format!("All {out} go back"), set(FastenerField::Refitted(Some(out))));
    // Of a group that is put back in part, the rest is a group of its own.
    let none = Fix::new("They stay out on purpose", set(FastenerField::Fate(FastenerFate::LeaveOut)));
    let fixes = std::iter::once(all).chain((back == 0).then_some(none));
    RULE.finding_about(about(case, row), says).resting_on((out, back)).with(fixes)
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn one_lies_on_the_bench_at_the_end() {
        check(
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, 3 back
            ~~~ left-over: 1 left over: 4 out, 3 back (PH1, 8 mm, lid). Say where the rest goes.
            ",
        );
    }

    #[test]
    fn all_go_back() {
        check(
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, 4 back
            ",
        );
    }
}
