//! A thing is told to come before another, and is done behind it.

use super::Clash;
use crate::finding::{Fix, Rule, RuleId, Stop};

pub(super) const RULE: Rule = Rule {
    id: RuleId::OrderContradicted,
    stop: Stop::Listen,
    blocks: false,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "Readers follow the order of the steps.",
    source: "common practice, no source",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    vec![clash.settle("It belongs earlier"), clash.settle("The order stands as told")]
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::check;

    #[test]
    fn the_plug_should_have_been_pulled_before() {
        check(
            &RULE,
            "
            Remove the cover. Take out the tray. Remove the fan.
            You want to do it in that order, unplug the battery cable before the tray.
            ~~~ The narrator says that this belonged earlier. [It belongs earlier | The order stands as told]
            ",
        );
    }
}
