//! Most of the rebuild is told, and of something that came out nobody tells how it goes back.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::{ActionId, StepId};
use crate::manual::{Action, Edit, Phase, StepEdit};
use crate::rebuild::Difference;
use std::collections::BTreeMap;
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::UntoldBack,
    stop: Stop::Fold,
    blocks: false,
    may_set_aside: true,
    why: "The reverse of its step stands in the guide; nobody has seen that it goes so.",
    source: "alignment of the told rebuild with the teardown turned round (bookkeeping)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let mut missing: BTreeMap<StepId, Vec<&str>> = BTreeMap::new();
    for difference in case.differences() {
        if let Difference::Untold { of, line } = difference {
            missing.entry(*of).or_default().push(line.split(':').next().unwrap_or_default().trim_end_matches('.'));
        }
    }
    let fixes = if missing.is_empty() { BTreeMap::new() } else { told_now(case) };
    let finding = |(of, lines): (StepId, Vec<&str>)| {
        let says = format!(
            "“{}”: nobody tells it, though most of the rebuild is told. It is the reverse of “{}”.",
            lines.join("”, “"),
            case.title(of)
        );
        let fix = fixes.get(&of).cloned();
        RULE.finding(Subject::Step(of), says).resting_on(lines).with(fix)
    };
    missing.into_iter().map(finding).collect()
}

/// The presses that make what was worked out a step of the told half, by the teardown step that it undoes.
fn told_now(case: &Case<'_>) -> BTreeMap<StepId, Fix> {
    let mut last = None;
    let mut out = BTreeMap::new();
    for step in &case.fold().rebuild {
        let (None, Some(of)) = (step.told, step.of) else {
            last = step.told.or(last);
            continue;
        };
        // The same press makes the same step, however often it is offered.
        let id = StepId(Uuid::new_v5(&of.0, b"told back"));
        let lines = step.lines.iter().enumerate().filter_map(|(i, l)| Some((i, l.act?, l)));
        let sentence = |(i, act, line): (usize, _, &crate::rebuild::RebuildLine)| {
            Action::typed(ActionId(Uuid::new_v5(&id.0, &[i as u8])), act, line.parts.clone(), &line.text)
        };
        let edit = StepEdit::Add {
            id,
            phase: Phase::Rebuild,
            after: last,
            title: step.title.clone(),
            actions: lines.map(sentence).collect(),
        };
        out.insert(of, Fix::new(format!("It goes so: “{}”", step.title), Edit::Step(edit)));
    }
    out
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::{check, manual};
    use crate::checks::findings;

    const APART: &str = "[0:00] Take off the cover.\n\n[0:20] Take out the fan.\n\n[0:30] Take out the tray.\n\n\
                         [0:40] Now the assembly.\n\n";

    #[test]
    fn two_of_three_are_told() {
        check(
            &RULE,
            &format!("{APART}[1:00] Put the tray in.\n\n[1:20] Put the cover on."),
            &[
                "“Fit the fan”: nobody tells it, though most of the rebuild is told. It is the reverse of “Remove the fan”.",
            ],
        );
    }

    #[test]
    fn who_tells_little_leaves_it_to_reversing() {
        check(&RULE, &format!("{APART}[1:00] Put the cover on."), &[]);
    }

    #[test]
    fn one_press_makes_it_told() {
        let manual = manual(&format!("{APART}[1:00] Put the tray in.\n\n[1:20] Put the cover on."));
        let finding = findings(&manual).into_iter().find(|f| f.rule == RULE.id).expect("the fan");
        let told = manual.apply(&finding.fixes[0].edit, "Ann").expect("a step").0;
        assert!(findings(&told).iter().all(|f| f.rule != RULE.id));
        let titles: Vec<String> = crate::rebuild::fold(&told).rebuild.into_iter().map(|s| s.title).collect();
        assert_eq!(titles, ["Fit the tray", "Fit the fan", "Fit the cover"]);
    }
}
