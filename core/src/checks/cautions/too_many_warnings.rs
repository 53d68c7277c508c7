//! More warnings before one step than anybody reads.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::Phase;

pub(super) const RULE: Rule = Rule {
    id: RuleId::TooManyWarnings,
    stop: Stop::Cautions,
    blocks: false,
    may_set_aside: true,
    why: "Who has to read five warnings before one screw reads none of them.",
    source: "ANSI Z535.6 on over-warning (from memory); the figure is common practice",
};

/// What is still read before a step.
const MOST: usize = 4;

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let steps = [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| case.manual.steps_in(p));
    let counted = steps.map(|s| (s, case.manual.cautions_of(s.id).count()));
    counted
        .filter(|(_, count)| *count > MOST)
        .map(|(step, count)| {
            let says = format!(
                "{count} warnings stand before “{}”. Join those that say one thing, or split the step; at most {MOST} are read.",
                step.title
            );
            RULE.finding(Subject::Step(step.id), says)
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::manual;
    use crate::checks::findings;
    use crate::ids::CautionId;
    use crate::manual::{CautionEdit, Edit, Phase};
    use crate::reading::CautionSubject;
    use rstest::rstest;
    use uuid::Uuid;

    #[rstest]
    #[case(4, false)]
    #[case(5, true)]
    fn what_is_still_read(#[case] count: u128, #[case] too_many: bool) {
        let mut told = manual("Take off the cover. Take out the tray.");
        let step = told.steps_in(Phase::Teardown)[0].id;
        for n in 0..count {
            let (id, about, text) = (CautionId(Uuid::from_u128(n + 1)), CautionSubject::Force, format!("Mind {n}."));
            told =
                told.apply(&Edit::Caution(CautionEdit::Add { id, step, about, hazard: None, text }), "Ann").unwrap().0;
        }
        let said = findings(&told).into_iter().any(|f| f.rule == RULE.id);
        assert_eq!(said, too_many);
    }
}
