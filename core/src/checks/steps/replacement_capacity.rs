//! The new one holds clearly less than the fitted one did when it was new.

use super::replaced;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::RatingLabel;
use crate::units::{in_milliampere_hours, in_watt_hours, number};

pub(super) const RULE: Rule = Rule {
    id: RuleId::ReplacementCapacity,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Below about 80 % of its first capacity a battery is due for replacement; a new one that begins there is no repair.",
    source: "common practice, no source",
};

const WORTH_IT: f64 = 0.8;

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let clash = |(part, old, new): (&crate::manual::Part, &RatingLabel, &crate::manual::Replacement)| {
        let (a, b, unit) = held(old, &new.label)?;
        let says = format!(
            "The new {} holds {} {unit}, which is {:.0} % of the {} {unit} of the fitted one. Look for one that holds more.",
            part.name,
            number(b),
            b / a * 100.0,
            number(a)
        );
        (b / a < WORTH_IT).then(|| RULE.finding(Subject::Part(part.id), says))
    };
    replaced(manual).filter_map(clash).collect()
}

/// Both in watt hours, printed or computed, else both in milliampere hours.
fn held(old: &RatingLabel, new: &RatingLabel) -> Option<(f64, f64, &'static str)> {
    let wh = |l: &RatingLabel| l.energy.map(in_watt_hours).or_else(|| l.computed_wh());
    let mah = |l: &RatingLabel| l.capacity.map(in_milliampere_hours);
    match (wh(old), wh(new)) {
        (Some(a), Some(b)) => Some((a, b, "Wh")),
        _ => Some((mah(old)?, mah(new)?, "mAh")),
    }
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn holds_clearly_less() {
        check(&RULE,
            "
            part battery: 3.7 V, 3000 mAh
            new battery: 3.7 V, 2200 mAh
            ~~~ replacement-capacity: The new battery holds 8.14 Wh, which is 73 % of the 11.1 Wh of the fitted one. Look for one that holds more.
            ",
        );
    }

    #[test]
    fn printed_watt_hours_stand_before_computed_ones() {
        check(
            &RULE,
            "
            part battery: 3.7 V, 3000 mAh, 11.1 Wh
            new battery: 11 Wh
            ",
        );
    }
}
