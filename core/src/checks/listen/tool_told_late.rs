//! A tool is used that was not on the list.

use super::Clash;
use crate::finding::{Fix, Rule, RuleId, Stop};

pub(super) const RULE: Rule = Rule {
    id: RuleId::ToolToldLate,
    stop: Stop::Listen,
    blocks: false,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "Readers stand before an open device and have to go and look for it.",
    source: "common practice, no source",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    vec![clash.settle("Put it on the list")]
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::check;

    #[test]
    fn the_tweezers_come_as_a_surprise() {
        check(
            &RULE,
            "
            You need a spudger and a PH1 screwdriver.
            Remove four PH1 screws from the base plate. Lever the base plate off with the spudger.
            Pull the flex out with tweezers.
            ~~~ Used here, and not in the list of tools and materials: tweezers. [Put it on the list]
            ",
        );
    }
}
