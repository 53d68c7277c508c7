//! What a label prints does not agree with itself.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::{Part, RatingLabel};
use crate::units::{in_watt_hours, number};

pub(super) const RULE: Rule = Rule {
    id: RuleId::LabelArithmetic,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "One of the three figures was misread or misheard, and readers order by it.",
    source: "energy is voltage times charge; rated and typical capacity differ by 2 to 4 % (IEC 61960-3, from memory)",
};

/// Room for a label that multiplies its typical capacity and prints its rated one.
const ROOM: f64 = 0.05;

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    manual.parts.values().flat_map(of_part).collect()
}

fn of_part(part: &Part) -> Vec<Finding> {
    let labels = [("fitted", Some(&part.fitted)), ("new", part.replacement.as_ref().map(|r| &r.label))];
    let clash = |(which, label): (&str, Option<&RatingLabel>)| {
        let label = label?;
        let (printed, computed) = (in_watt_hours(label.energy?), label.computed_wh()?);
        let says = format!(
            "The label of the {which} {} prints {} Wh, but its voltage and capacity come to {} Wh. Look at it again.",
            part.name,
            number(printed),
            number((computed * 100.0).round() / 100.0)
        );
        ((printed - computed).abs() / computed > ROOM).then(|| RULE.finding(Subject::Part(part.id), says))
    };
    labels.into_iter().filter_map(clash).collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn three_figures_of_which_one_is_wrong() {
        check(&RULE,
            "
            part battery: 3.85 V, 3110 mAh, 21.97 Wh
            ~~~ label-arithmetic: The label of the fitted battery prints 21.97 Wh, but its voltage and capacity come to 11.97 Wh. Look at it again.
            ",
        );
    }

    /// 3.85 V × 3110 mAh = 11.97 Wh, a label as printed.
    #[test]
    fn three_figures_that_agree() {
        check(&RULE, "part battery: 3.85 V, 3110 mAh, 11.97 Wh");
    }
}
