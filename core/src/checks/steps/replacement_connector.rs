//! The new one has another plug than the fitted one.

use super::replaced;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};

pub(super) const RULE: Rule = Rule {
    id: RuleId::ReplacementConnector,
    stop: Stop::Steps,
    blocks: true,
    may_set_aside: true,
    why: "Bought by its look, it does not plug in, or it plugs in with its poles swapped.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let clash = |(part, old, new): (&crate::manual::Part, &crate::manual::RatingLabel, &crate::manual::Replacement)| {
        let (a, b) = (old.connector.as_deref()?, new.label.connector.as_deref()?);
        let says =
            format!("The new {} has the connector “{b}”, the fitted one “{a}”. Order one with “{a}”.", part.name);
        (!a.eq_ignore_ascii_case(b)).then(|| RULE.finding(Subject::Part(part.id), says))
    };
    replaced(manual).filter_map(clash).collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn another_plug() {
        check(&RULE,
            "
            part pump: plug 2-pin
            new pump: plug 3-pin
            ~~~ replacement-connector: The new pump has the connector “3-pin”, the fitted one “2-pin”. Order one with “2-pin”.
            ",
        );
    }

    #[test]
    fn the_same_plug_in_capitals() {
        check(
            &RULE,
            "
            part pump: plug JX-2
            new pump: plug jx-2
            ",
        );
    }
}
