//! Two counts of the same screws do not agree.

use super::Clash;
use crate::finding::{Fix, Rule, RuleId, Stop};

pub(super) const RULE: Rule = Rule {
    id: RuleId::CountContradicted,
    stop: Stop::Listen,
    // The balance blocks, where it reaches the guide: nobody is asked twice.
    blocks: false,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "One of the two is what readers will count by.",
    source: "common practice, no source",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    let mut out = clash.either_group(|facts, right| {
        let count = right.fasteners[0].count;
        facts.fasteners[0].count = count;
        count.map(|n| format!("{n} is right"))
    });
    out.push(clash.settle("Both stand as said"));
    out
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::check;

    #[test]
    fn four_out_and_five_back() {
        check(
            &RULE,
            "
            Remove four PH1 screws, 8 millimetres, from the base plate. Take off the base plate.
            Now the assembly. Put the base plate on.
            Install five PH1 screws, 8 millimetres, in the base plate.
            ~~~ 5 screws go back into the base plate; 4 came out. [5 is right | 4 is right | Both stand as said]
            ",
        );
    }
}
