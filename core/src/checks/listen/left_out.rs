//! Something came out and is not told to go back.

use super::Clash;
use crate::finding::{Fix, Rule, RuleId, Stop};

pub(super) const RULE: Rule = Rule {
    id: RuleId::LeftOut,
    stop: Stop::Listen,
    blocks: false,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "What is forgotten at the rebuild lies on the bench.",
    source: "common practice, no source",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    vec![clash.settle("It goes back"), clash.settle("It stays out")]
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::check;

    #[test]
    fn the_fan_never_goes_back() {
        check(
            &RULE,
            "
            Remove the cover. Take out the fan. Take out the pump. Take out the tray. Take out the sieve.
            Now the assembly. Put the sieve in. Put the tray in. Put the pump in. Put the cover on.
            ~~~ The fan comes out and is never told to go back. [It goes back | It stays out]
            ",
        );
    }
}
