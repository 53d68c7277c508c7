//! The new one holds clearly less than the fitted one did when it was new.

use super::{Finding, Rule, Stop, Subject, replaced};
use crate::manual::{Label, Manual};
use crate::units::{in_milliampere_hours, in_watt_hours, number};

const RULE: Rule = Rule {
    id: "replacement-capacity",
    stop: Stop::Steps,
    blocks: false,
    why: "Below about 80 % of its first capacity a battery is due for replacement; a new one that begins there is no repair.",
    source: "common practice, no source",
};

const WORTH_IT: f64 = 0.8;

pub(super) fn find(manual: &Manual) -> Vec<Finding> {
    let clash = |(part, old, new): (&crate::manual::Part, &Label, &crate::manual::Replacement)| {
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
fn held(old: &Label, new: &Label) -> Option<(f64, f64, &'static str)> {
    let wh = |l: &Label| l.energy.map(in_watt_hours).or_else(|| l.computed_wh());
    let mah = |l: &Label| l.capacity.map(in_milliampere_hours);
    match (wh(old), wh(new)) {
        (Some(a), Some(b)) => Some((a, b, "Wh")),
        _ => Some((mah(old)?, mah(new)?, "mAh")),
    }
}

#[cfg(test)]
mod tests {
    use crate::checks::written::check;

    #[test]
    fn holds_clearly_less() {
        check(
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
            "
            part battery: 3.7 V, 3000 mAh, 11.1 Wh
            new battery: 11 Wh
            ",
        );
    }
}
