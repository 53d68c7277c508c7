//! The same is told a second time.

use super::Clash;
use crate::finding::{Fix, Rule, RuleId, Stop};
use crate::manual::{Edit, ReadingEdit};

pub(super) const RULE: Rule = Rule {
    id: RuleId::ToldTwice,
    stop: Stop::Listen,
    blocks: false,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "Readers do it twice, or look for a second one.",
    source: "common practice, no source",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    let drop = || {
        let label = "Leave the second one out";
        let edit = ReadingEdit::Drop {
            id: clash.id(label),
            recording: clash.recording,
            start: clash.at().start,
            end: clash.at().end,
            dropped: true,
        };
        Fix::new(label, Edit::Reading(edit))
    };
    clash.against().map(|_| drop()).into_iter().chain([clash.settle("Both stand as said")]).collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::check;

    #[test]
    fn the_same_four_screws_again() {
        check(
            &RULE,
            "
            Remove the four PH1 screws from the base plate.
            Remove the four PH1 screws from the base plate.
            ~~~ The same sentence is said twice. [Leave the second one out | Both stand as said]
            ",
        );
    }
}
