//! Most of the rebuild is told, and of something that came out nobody tells how it goes back.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::{ActionId, StepId};
use crate::manual::{Action, Edit, Phase, SentenceEdit, StepEdit};
use crate::reading::Act;
use crate::rebuild::{Difference, RebuildLine, RebuildStep};
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
            missing.entry(*of).or_default().push(line);
        }
    }
    if missing.is_empty() {
        return Vec::new();
    }
    let offered = Offered::of(&case.fold().rebuild);
    missing.into_iter().map(|(of, lines)| finding(case, &offered, of, &lines)).collect()
}

fn finding(case: &Case<'_>, offered: &Offered<'_>, of: StepId, lines: &[&str]) -> Finding {
    let short: Vec<&str> =
        lines.iter().map(|l| l.split(':').next().unwrap_or_default().trim_end_matches('.')).collect();
    let says = format!(
        "“{}”: nobody tells it, though most of the rebuild is told. It is the reverse of “{}”.",
        short.join("”, “"),
        case.title(of)
    );
    let whole = offered.steps.get(&of).into_iter();
    let filled = lines.iter().filter_map(|l| offered.lines.get(l));
    RULE.finding(Subject::Step(of), says).resting_on(&short).with(whole.chain(filled).cloned())
}

/// The presses that make what was worked out a told step, or sentences of the told step that it was filled into.
struct Offered<'f> {
    /// By the teardown step that it undoes.
    steps: BTreeMap<StepId, Fix>,
    /// By the words of the line.
    lines: BTreeMap<&'f str, Fix>,
}

impl<'f> Offered<'f> {
    fn of(rebuild: &'f [RebuildStep]) -> Self {
        let mut out = Self { steps: BTreeMap::new(), lines: BTreeMap::new() };
        let mut last = None;
        for step in rebuild {
            match (step.told, step.of) {
                (Some(told), _) => {
                    out.lines.extend(as_sentences(step, told));
                    last = Some(told);
                }
                (None, Some(of)) => drop(out.steps.insert(of, as_step(step, of, last))),
                (None, None) => {}
            }
        }
        out
    }
}

fn as_step(step: &RebuildStep, of: StepId, after: Option<StepId>) -> Fix {
    // The same press makes the same step, however often it is offered.
    let id = StepId(Uuid::new_v5(&of.0, b"told back"));
    // Screws and what closes the joint follow the part from their own records.
    let lines = step.lines.iter().enumerate().filter(|(_, l)| !l.parts.is_empty());
    let actions = lines.map(|(i, line)| sentence(id, line, i)).collect();
    let edit = StepEdit::Add { id, phase: Phase::Rebuild, after, title: step.title.clone(), actions };
    Fix::new(format!("It goes so: “{}”", step.title), Edit::Step(edit))
}

fn as_sentences(step: &RebuildStep, told: StepId) -> Vec<(&str, Fix)> {
    let mut after = None;
    let mut out = Vec::new();
    for (i, line) in step.lines.iter().enumerate() {
        if line.told.is_none() && !line.parts.is_empty() {
            let sentence = Box::new(sentence(told, line, i));
            let edit = StepEdit::Sentence { id: told, sentence: SentenceEdit::Add { sentence, after } };
            let words = line.text.split(':').next().unwrap_or_default().trim_end_matches('.');
            out.push((line.text.as_str(), Fix::new(format!("It goes so: “{words}”"), Edit::Step(edit))));
        }
        after = line.told.or(after);
    }
    out
}

/// What the line tells, and not its words: a part that is renamed is right in it. Only "renew the adhesive" is no act.
fn sentence(step: StepId, line: &RebuildLine, at: usize) -> Action {
    let id = ActionId(Uuid::new_v5(&step.0, format!("told back {at}").as_bytes()));
    let act = line.act.unwrap_or(Act::Install);
    let told = Action::typed(id, act, line.parts.clone(), &line.text);
    Action { text: told.text.filter(|_| act == Act::Apply), ..told }
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::{check, manual};
    use crate::checks::findings;
    use crate::manual::{Edit, PartEdit};

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

    /// What was filled into a told step becomes a sentence of it.
    #[test]
    fn a_plug_becomes_a_sentence_of_its_step() {
        let told = format!(
            "{}[0:50] Put the tray in.\n\n[1:00] Put the fan in.\n\n[1:20] Put the cover on.",
            APART.replace("Take out the fan", "Disconnect the fan cable. Take out the fan")
        );
        let manual = manual(&told);
        let finding = findings(&manual).into_iter().find(|f| f.rule == RULE.id).expect("the plug");
        assert_eq!(finding.fixes[0].label, "It goes so: “Connect the fan”");
        let told = manual.apply(&finding.fixes[0].edit, "Ann").expect("a sentence").0;
        assert!(findings(&told).iter().all(|f| f.rule != RULE.id));
    }

    #[test]
    fn one_press_makes_it_told() {
        let manual = manual(&format!("{APART}[1:00] Put the tray in.\n\n[1:20] Put the cover on."));
        let finding = findings(&manual).into_iter().find(|f| f.rule == RULE.id).expect("the fan");
        let told = manual.apply(&finding.fixes[0].edit, "Ann").expect("a step").0;
        assert!(findings(&told).iter().all(|f| f.rule != RULE.id));
        let titles: Vec<String> = crate::rebuild::fold(&told).rebuild.into_iter().map(|s| s.title).collect();
        assert_eq!(titles, ["Fit the tray", "Fit the fan", "Fit the cover"]);
        // The sentence follows a new name.
        let fan = told.parts.values().find(|p| p.name == "fan").expect("a fan").id;
        let edit = Edit::Part(PartEdit::Rename { id: fan, name: "blower".to_owned() });
        let renamed = told.apply(&edit, "Ann").expect("a name").0;
        let lines = crate::rebuild::fold(&renamed).rebuild.into_iter().flat_map(|s| s.lines);
        assert!(lines.map(|l| l.text).any(|t| t == "Fit the blower."));
    }
}
