//! A word that decides over safety was heard the other way round.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Action, Edit, Phase, SentenceEdit, SentenceField, Step, StepEdit, WordDoubt};

pub(super) const RULE: Rule = Rule {
    id: RuleId::DoubtfulWord,
    stop: Stop::Steps,
    blocks: true,
    may_set_aside: false,
    why: "Connected where it must be apart, on where it must be off: readers do what is written.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let phases = [Phase::Teardown, Phase::Rebuild];
    let steps = phases.into_iter().flat_map(|p| case.manual.steps_in(p));
    let sentences = steps.flat_map(|s| s.actions.iter().map(move |a| (s, a)));
    sentences.filter_map(|(s, a)| Some(finding(case, s, a, a.doubt.as_ref()?))).collect()
}

fn finding(case: &Case<'_>, step: &Step, action: &Action, doubt: &WordDoubt) -> Finding {
    let WordDoubt { heard, evident, because } = doubt;
    let text = case.manual.sentence(action);
    let says =
        format!("“{text}”: hardly “{heard}”, because {because}. Was it “{evident}”? Choose before this is published.");
    let set = |label: String, field: SentenceField| {
        let sentence = SentenceEdit::Set { id: action.id, field };
        Fix::new(label, Edit::Step(StepEdit::Sentence { id: step.id, sentence }))
    };
    let meant = crate::manual::replaced_in(&text, heard, evident);
    RULE.finding(Subject::Step(step.id), says).with([
        set(format!("It was “{evident}”"), SentenceField::Text(Some(meant))),
        set(format!("“{heard}” is right"), SentenceField::Stands),
    ])
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::{check, manual};
    use crate::checks::findings;

    const TOLD: &str = "Unplug it from the wall. Take off the cover. Connect the battery cable. Take out the battery.";

    #[test]
    fn connected_where_it_must_come_apart() {
        check(
            &RULE,
            TOLD,
            &[
                "“Connect the battery cable.”: hardly “connect”, because the battery was still connected, and things are being taken apart. Was it “disconnect”? Choose before this is published.",
            ],
        );
    }

    #[test]
    fn each_choice_ends_it_and_writes_what_was_chosen() {
        let told = manual(TOLD);
        let found = findings(&told).into_iter().find(|f| f.rule == RULE.id).unwrap();
        let texts: Vec<String> = found
            .fixes
            .iter()
            .map(|fix| {
                let next = told.apply(&fix.edit, "Ann").unwrap().0;
                assert!(findings(&next).iter().all(|f| f.rule != RULE.id), "{}", fix.label);
                let all = next.steps.values().flat_map(|s| &s.actions).map(|a| next.sentence(a));
                all.filter(|t| t.contains("onnect the battery")).collect()
            })
            .collect();
        assert_eq!(texts, ["Disconnect the battery cable.", "Connect the battery cable."]);
    }

    #[test]
    fn nothing_to_doubt() {
        check(&RULE, "Take off the cover. Disconnect the battery cable. Take out the battery.", &[]);
    }
}
