//! The new one has another voltage than the fitted one.

use super::replaced;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::units::{in_volts, number};

pub(super) const RULE: Rule = Rule {
    id: RuleId::ReplacementVoltage,
    stop: Stop::Steps,
    blocks: true,
    may_set_aside: false,
    why: "Another number of cells, or another kind: it charges wrongly and can burn.",
    source: "cells in series add their voltages; one lithium cell is named 3.6 to 3.87 V (common practice, no source)",
};

/// Makers name the same cell by 3.6 to 3.87 V, which is 7.5 %; one cell more or less is at least 25 % up to four cells.
const SAME_CELL: f64 = 0.08;

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let clash = |(part, old, new): (&crate::manual::Part, &crate::manual::RatingLabel, &crate::manual::Replacement)| {
        let (a, b) = (in_volts(old.voltage?), in_volts(new.label.voltage?));
        let says = format!(
            "The new {} has {} V, the fitted one {} V. Order one of {} V.",
            part.name,
            number(b),
            number(a),
            number(a)
        );
        ((a - b).abs() / a > SAME_CELL).then(|| RULE.finding(Subject::Part(part.id), says))
    };
    replaced(manual).filter_map(clash).collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn another_number_of_cells() {
        check(
            &RULE,
            "
            part battery: 3.7 V, 2600 mAh
            new battery: 7.4 V, 2600 mAh
            ~~~ replacement-voltage: The new battery has 7.4 V, the fitted one 3.7 V. Order one of 3.7 V.
            ",
        );
    }

    #[test]
    fn the_same_cell_by_another_name() {
        check(
            &RULE,
            "
            part battery: 3.6 V, 2600 mAh
            new battery: 3.85 V, 2600 mAh
            ",
        );
    }

    #[test]
    fn nothing_to_compare() {
        check(&RULE, "new battery: 7.4 V");
    }
}
