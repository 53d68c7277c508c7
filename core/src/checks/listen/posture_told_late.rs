//! How the device lies is told after the work that needs it.

use super::Clash;
use crate::finding::{Fix, Rule, RuleId, Stop};

pub(super) const RULE: Rule = Rule {
    id: RuleId::PostureToldLate,
    stop: Stop::Listen,
    blocks: false,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "Readers hold it the wrong way up while they work.",
    source: "common practice, no source",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    vec![clash.settle("It belongs at the start of the step"), clash.settle("It stands as told")]
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::check;

    #[test]
    fn turned_over_too_late() {
        check(
            &RULE,
            "
            Remove the four screws from the base plate. Take off the base plate.
            I should have said, it has to lie face down for this.
            ~~~ How the device should lie is told here, when the work is already under way. [It belongs at the start of the step | It stands as told]
            ",
        );
    }
}
