//! Screws come out and nobody has counted them.

use super::about;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop};

pub(super) const RULE: Rule = Rule {
    id: RuleId::Uncounted,
    stop: Stop::Screws,
    blocks: true,
    may_set_aside: false,
    why: "Without a count nobody can tell whether a screw was left over.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let uncounted = case.balance().rows.iter().filter(|row| row.left_over.is_none());
    let finding = |row: &crate::fasteners::balance::BalanceRow| {
        let says = format!("Nobody has counted the screws: {}. Count them and write the number.", row.label);
        RULE.finding_about(about(case, row), says)
    };
    uncounted.map(finding).collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn no_number_was_told() {
        check(
            &RULE,
            "
            step Remove the lid
            screws of the lid: ? PH1 8 mm
            ~~~ uncounted: Nobody has counted the screws: PH1, 8 mm, lid. Count them and write the number.
            ",
        );
    }

    #[test]
    fn captive_screws_need_no_count() {
        check(
            &RULE,
            "
            step Remove the lid
            screws of the lid: ? PH1 8 mm, captive
            ",
        );
    }
}
