//! Two lengths of the same screws do not agree.

use super::Clash;
use crate::finding::{Fix, Rule, RuleId, Stop};
use crate::units::{in_millimetres, number};

pub(super) const RULE: Rule = Rule {
    id: RuleId::SizeContradicted,
    stop: Stop::Listen,
    // A wrong figure in a published sentence does harm.
    blocks: true,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "A long screw in a short hole cracks what lies beneath.",
    source: "common practice, no source",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    let mut out = clash.either_group(|facts, right| {
        let length = right.fasteners[0].length;
        facts.fasteners[0].length = length;
        length.map(|l| format!("{} mm is right", number(in_millimetres(l))))
    });
    out.push(clash.settle("Both stand as said"));
    out
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::check;

    #[test]
    fn eight_millimetres_out_and_six_back() {
        check(
            &RULE,
            "
            Remove four PH1 screws, 8 millimetres, from the base plate. Take off the base plate.
            Now the assembly. Put the base plate on.
            Install four PH1 screws, 6 millimetres, in the base plate.
            ~~~ The screws of the base plate go back 6 mm long; they came out 8 mm long. [6 mm is right | 8 mm is right | Both stand as said]
            ",
        );
    }
}
