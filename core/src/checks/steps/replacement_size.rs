//! The new one has another size than the fitted one.

use super::replaced;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};

pub(super) const RULE: Rule = Rule {
    id: RuleId::ReplacementSize,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "It may not fit its place; a cell that is pressed in swells or shorts.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let plain = |size: &str| size.to_lowercase().replace(['×', '*'], "x").replace(' ', "");
    let clash = |(part, old, new): (&crate::manual::Part, &crate::manual::RatingLabel, &crate::manual::Replacement)| {
        let (a, b) = (old.size.as_deref()?, new.label.size.as_deref()?);
        let says = format!("The new {} measures {b}, the fitted one {a}. Measure its place, or order {a}.", part.name);
        (plain(a) != plain(b)).then(|| RULE.finding(Subject::Part(part.id), says))
    };
    replaced(manual).filter_map(clash).collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn another_size() {
        check(&RULE,
            "
            part battery: size 60 × 40 × 5 mm
            new battery: size 60 × 44 × 5 mm
            ~~~ replacement-size: The new battery measures 60 × 44 × 5 mm, the fitted one 60 × 40 × 5 mm. Measure its place, or order 60 × 40 × 5 mm.
            ",
        );
    }

    #[test]
    fn the_same_size_written_otherwise() {
        check(
            &RULE,
            "
            part battery: size 60 × 40 mm
            new battery: size 60x40 mm
            ",
        );
    }
}
