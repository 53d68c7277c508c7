//! What was said, counted aloud and drawn of one count does not agree.

use crate::checks::Case;
use crate::fasteners::ledger::disagreement;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, FastenerEdit, FastenerField, FastenerGroup, Manual};

pub(super) const RULE: Rule = Rule {
    id: RuleId::CountDisagreement,
    stop: Stop::Screws,
    blocks: true,
    may_set_aside: false,
    why: "One screw too few in the guide is one left in its hole when somebody pries.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    manual.fasteners.values().filter_map(|g| of(manual, g)).collect()
}

fn of(manual: &Manual, group: &FastenerGroup) -> Option<Finding> {
    let says = format!("{}: {} Look, and confirm one.", manual.words_of(group).name(), disagreement(group)?);
    let mut counts: Vec<u32> = group.claims.iter().map(|c| c.count).collect();
    counts.sort_unstable();
    counts.dedup();
    // What is drawn can only be mended on the map.
    let drawn = (!group.holes.is_empty()).then_some(group.holes.len() as u32);
    counts.retain(|n| drawn.is_none_or(|d| d == *n));
    let confirm = |count: u32| {
        let field = FastenerField::Count(Some(count));
        Fix { label: format!("It is {count}"), edit: Edit::Fastener(FastenerEdit::Set { id: group.id, field }) }
    };
    Some(Finding { fixes: counts.into_iter().map(confirm).collect(), ..RULE.finding(Subject::Group(group.id), says) })
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::findings;
    use crate::checks::written::check;
    use crate::finding::Subject;
    use crate::manual::Manual;
    use crate::manual::written::{group, manual};

    #[test]
    fn said_and_drawn() {
        let m = manual("1 lid: 4 PH1 8 mm at 5,5 50,5 50,50");
        let of = |m: &Manual| findings(m).into_iter().filter(|f| f.rule == RULE.id).collect::<Vec<_>>();
        let found = of(&m);
        assert_eq!(found.len(), 1, "{found:?}");
        assert_eq!(found[0].about, [Subject::Group(group(10))]);
        assert_eq!(found[0].fixes[0].label, "It is 3");
        assert_eq!(found[0].says, "PH1, 8 mm, lid: 4 said, but 3 drawn. Look, and confirm one.");
        let mended = m.apply(&found[0].fixes[0].edit, "Ann").unwrap().0;
        assert!(of(&mended).is_empty());
    }

    #[test]
    fn one_claim_alone() {
        check(
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm
            ",
        );
    }
}
