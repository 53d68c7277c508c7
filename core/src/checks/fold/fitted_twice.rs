//! The same thing is fitted by two sentences, and nothing took it out between them.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, SentenceEdit, StepEdit};
use crate::rebuild::Difference;

pub(super) const RULE: Rule = Rule {
    id: RuleId::FittedTwice,
    stop: Stop::Fold,
    blocks: false,
    may_set_aside: true,
    why: "A reader looks for a second one, or takes the first out again.",
    source: "bookkeeping: what went in is in (common practice, no source)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    case.differences().iter().filter_map(|d| finding(case, d)).collect()
}

fn finding(case: &Case<'_>, difference: &Difference) -> Option<Finding> {
    let Difference::Twice { told, action, sentence, first } = difference else { return None };
    let says = if told == first {
        format!("“{}” tells in “{}” what was told there before.", sentence.trim_end_matches('.'), case.title(*told))
    } else {
        format!("“{}” is told already in “{}”.", sentence.trim_end_matches('.'), case.title(*first))
    };
    let remove = SentenceEdit::Remove { id: *action };
    let fix = Fix::new("Leave the second one out", Edit::Step(StepEdit::Sentence { id: *told, sentence: remove }));
    Some(RULE.finding_about(vec![Subject::Step(*told), Subject::Step(*first)], says).with([fix]))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::findings;
    use crate::ids::ActionId;
    use crate::manual::{Action, Edit, Phase, SentenceEdit, StepEdit, drafted};
    use crate::reading::Act;
    use rstest::rstest;
    use uuid::Uuid;

    /// The told rebuild of fan and cover, with another sentence about the fan behind it.
    #[rstest]
    #[case::again(Act::Install, Some("“Fit the fan” is told already in “Fit the fan”."))]
    #[case::out_between(Act::Remove, None)]
    fn the_fan_goes_in_again(#[case] act: Act, #[case] wanted: Option<&str>) {
        let manual = drafted::manual(
            "[0:00] Take off the cover.\n\n[0:20] Take out the fan.\n\n[0:30] Take out the tray.\n\n\
             [0:40] Now the assembly.\n\n[0:50] Put the tray in.\n\n[1:00] Put the fan in.\n\n[1:20] Put the cover on.",
        );
        let steps = manual.steps_in(Phase::Rebuild);
        let fan = steps[1].actions[0].parts.clone();
        let id = steps[2].id;
        let add = |manual: crate::manual::Manual, n: u128, act: Act| {
            let sentence =
                Box::new(Action { text: None, ..Action::typed(ActionId(Uuid::from_u128(n)), act, fan.clone(), "x") });
            let after = manual.steps[&id].actions.last().map(|a| a.id);
            let edit = StepEdit::Sentence { id, sentence: SentenceEdit::Add { sentence, after } };
            manual.apply(&Edit::Step(edit), "Ann").expect("a sentence").0
        };
        let manual = add(manual.clone(), 1, act);
        let manual = if act == Act::Remove { add(manual, 2, Act::Install) } else { manual };
        let found = findings(&manual);
        let own: Vec<&str> = found.iter().filter(|f| f.rule == RULE.id).map(|f| f.says.as_str()).collect();
        assert_eq!(own, wanted.into_iter().collect::<Vec<_>>());
        for fix in found.iter().filter(|f| f.rule == RULE.id).flat_map(|f| &f.fixes) {
            let mended = manual.apply(&fix.edit, "Ann").expect("it can go").0;
            assert!(findings(&mended).iter().all(|f| f.rule != RULE.id));
        }
    }
}
