//! Two counts of the same screws do not agree.

use super::{Clash, shortened};
use crate::finding::{Fix, Rule, RuleId, Stop};
use crate::reading::{FastenerOp, Statement};

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
    let mut out = if clash.found.rest.is_empty() { either_count(clash) } else { told_again(clash) };
    out.push(clash.settle("Both stand as said"));
    out
}

fn either_count(clash: &Clash<'_>) -> Vec<Fix> {
    clash.either_group(|facts, right| {
        let count = right.fasteners[0].count;
        facts.fasteners[0].count = count;
        count.map(|n| format!("{n} is right"))
    })
}

/// Several groups make a sum, and no figure of one alone is right: one of them may tell of screws that another has told.
fn told_again(clash: &Clash<'_>) -> Vec<Fix> {
    let places = [Some(clash.found.at), clash.found.against].into_iter().flatten();
    let told: Vec<&Statement> = places.chain(clash.found.rest.iter().copied()).map(|i| &clash.statements[i]).collect();
    let goes_back = |s: &Statement| s.facts.fasteners.iter().any(|f| f.op == FastenerOp::Install);
    let count = |s: &Statement| match &s.facts.fasteners[..] {
        [one] => one.count,
        _ => None,
    };
    let sum = |back: bool| told.iter().filter(|s| goes_back(s) == back).map(|s| count(s)).sum::<Option<u32>>();
    let (Some(out), Some(back)) = (sum(false), sum(true)) else { return Vec::new() };
    let too_many = |s: &&&Statement| goes_back(s) == (back > out) && count(s) == Some(out.abs_diff(back));
    let again = |s: &&Statement| {
        let mut facts = s.facts.clone();
        facts.fasteners.clear();
        clash.set_facts(format!("“{}” tells of the same screws", shortened(&s.text)), s, facts)
    };
    told.iter().filter(too_many).map(again).collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::check;

    #[test]
    fn one_of_six_is_told_twice() {
        check(
            &RULE,
            "
            Remove six PH1 screws from the base plate.
            Undo the one screw of the base plate by the socket. Take off the base plate.
            Now the assembly. Put the base plate on.
            Install six PH1 screws in the base plate.
            ~~~ 6 screws go back into the base plate; 7 came out. [“Undo the one screw of the base plate by …” tells of the same screws | Both stand as said]
            ",
        );
    }

    #[test]
    fn groups_that_do_not_make_the_sum_are_only_looked_at() {
        check(
            &RULE,
            "
            Remove four PH1 screws from the base plate.
            Undo the two long screws of the base plate by the socket. Take off the base plate.
            Now the assembly. Put the base plate on.
            Install five PH1 screws in the base plate.
            ~~~ 5 screws go back into the base plate; 6 came out. [Both stand as said]
            ",
        );
    }

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
