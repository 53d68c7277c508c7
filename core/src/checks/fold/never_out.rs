//! The narrator fits something that never came out.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::{ActionId, PartId, StepId};
use crate::manual::{Action, Edit, PartEdit, PartField, Phase, Replacement, SentenceEdit, Step, StepEdit};
use crate::reading::Act;
use crate::rebuild::Difference;
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::NeverOut,
    stop: Stop::Fold,
    blocks: false,
    may_set_aside: true,
    why: "Either it goes by two names, or a step of the teardown is missing, or it is new and must be ordered.",
    source: "bookkeeping: what goes in came out or is new (common practice, no source)",
};

/// How many other names are offered for one part.
const MOST: usize = 2;

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    case.differences().iter().filter_map(|d| finding(case, d)).collect()
}

fn finding(case: &Case<'_>, difference: &Difference) -> Option<Finding> {
    let Difference::NeverOut { told, part } = difference else { return None };
    let name = case.manual.part_name(*part);
    let says = format!(
        "“{}”: nothing tells that the {name} came out. Say under which name, or that it is new.",
        case.title(*told)
    );
    let out = freed_in(case, *part).map(|step| {
        let label = format!("It comes out in “{}”", case.title(step.id));
        Fix::new(label, take_out(case, step, *part))
    });
    let another = untold_parts(case).into_iter().filter(|p| alike(case.manual.part_name(*p), name));
    let fixes = another.take(MOST).map(|into| {
        let edit = Edit::Part(PartEdit::Merge { id: *part, into });
        Fix::new(format!("It is the {}", case.manual.part_name(into)), edit)
    });
    let order = PartField::Replacement(Some(Replacement::default()));
    let new =
        Fix::new(format!("The {name}: new, to be ordered"), Edit::Part(PartEdit::Set { id: *part, field: order }));
    let about = vec![Subject::Step(*told), Subject::Part(*part)];
    Some(RULE.finding_about(about, says).resting_on(name).with(out.into_iter().chain(fixes).chain([new])))
}

/// The step of the teardown that undoes what holds the part: its screws or its plug.
fn freed_in<'c>(case: &'c Case<'_>, part: PartId) -> Option<&'c Step> {
    let manual = case.manual;
    let frees = |s: &&Step| {
        manual.groups_of(s.id).any(|g| g.holds.contains(&part))
            || manual.connectors_of(s.id).any(|c| c.serves == Some(part))
    };
    manual.steps_in(Phase::Teardown).into_iter().rev().find(frees)
}

/// "Remove the front board.", behind the sentence that frees it, else at the end of the step.
fn take_out(case: &Case<'_>, step: &Step, part: PartId) -> Edit {
    // The same choice has the same id, however often it is offered.
    let id = ActionId(Uuid::new_v5(&step.id.0, part.0.as_bytes()));
    let sentence = Box::new(Action { text: None, ..Action::typed(id, Act::Remove, vec![part], "") });
    let frees = |a: &&Action| a.roles.groups.iter().any(|g| case.manual.fasteners[g].holds.contains(&part));
    let after = step.actions.iter().rfind(frees).or(step.actions.last()).map(|a| a.id);
    Edit::Step(StepEdit::Sentence { id: step.id, sentence: SentenceEdit::Add { sentence, after } })
}

/// The parts that come out in steps of which something is not told back.
fn untold_parts(case: &Case<'_>) -> Vec<PartId> {
    let missing =
        |id: &StepId| case.differences().iter().any(|d| matches!(d, Difference::Untold { of, .. } if of == id));
    let steps = case.manual.steps_in(Phase::Teardown).into_iter().filter(|s| missing(&s.id));
    steps.flat_map(|s| s.actions.iter().flat_map(|a| a.parts.iter().copied())).collect()
}

/// One word in common, or words that sound as if one was heard for the other.
fn alike(a: &str, b: &str) -> bool {
    let words = |name: &str| name.to_lowercase().split_whitespace().map(str::to_owned).collect::<Vec<_>>();
    let close = |x: &str, y: &str| x == y || x.len() > 3 && strsim::damerau_levenshtein(x, y) <= 2;
    a != b && words(a).iter().any(|x| words(b).iter().any(|y| close(x, y)))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::{check, manual};
    use crate::checks::findings;
    use crate::ids::ActionId;
    use crate::manual::{Edit, SentenceEdit, StepEdit};

    const TOLD: &str = "[0:00] Take off the rear cover.\n\n[0:20] Take out the fan.\n\n[0:30] Take out the tray.\n\n\
                        [0:40] Now the assembly.\n\n[1:00] Put the tray in.\n\n[1:10] Put the fan in.\n\n";

    #[test]
    fn it_goes_by_another_name() {
        let told = format!("{TOLD}[1:20] Install the base cover.");
        let says = "“Fit the base cover”: nothing tells that the base cover came out. Say under which name, or that it is new.";
        check(&RULE, &told, &[says]);
        let manual = manual(&told);
        let finding = findings(&manual).into_iter().find(|f| f.rule == RULE.id).expect("the cover");
        assert_eq!(finding.fixes[0].label, "It is the rear cover");
        let merged = manual.apply(&finding.fixes[0].edit, "Ann").expect("two names").0;
        assert!(findings(&merged).iter().all(|f| f.rule != RULE.id));
    }

    #[test]
    fn it_comes_out_where_its_screws_did() {
        let told = "[0:00] Take off the rear cover.\n\n[0:20] Undo the two PH1 screws of the front board.\n\n\
                    [0:30] Take out the tray.\n\n[0:40] Now the assembly.\n\n[1:00] Put the tray in.\n\n\
                    [1:10] Put the front board in, two screws.\n\n[1:20] Put the rear cover on.";
        let manual = manual(told);
        let finding = findings(&manual).into_iter().find(|f| f.rule == RULE.id).expect("the front board");
        let label = &finding.fixes[0].label;
        assert!(label.starts_with("It comes out in “"), "{label}");
        let taken = manual.apply(&finding.fixes[0].edit, "Ann").expect("it came out").0;
        assert!(findings(&taken).iter().all(|f| f.rule != RULE.id));
        let removed =
            taken.steps.values().flat_map(|s| &s.actions).find(|a| Some(a.id) == added(&finding.fixes[0].edit));
        assert_eq!(removed.map(|a| taken.sentence(a)).as_deref(), Some("Remove the front board."));
        let sentences: Vec<String> =
            taken.order().iter().flat_map(|s| &taken.steps[s].actions).map(|a| taken.sentence(a)).collect();
        let at = |text: &str| sentences.iter().position(|s| s == text);
        assert!(at("Remove the front board.") < at("Take out the tray."), "{sentences:?}");
    }

    fn added(edit: &Edit) -> Option<ActionId> {
        match edit {
            Edit::Step(StepEdit::Sentence { sentence: SentenceEdit::Add { sentence, .. }, .. }) => Some(sentence.id),
            _ => None,
        }
    }

    #[test]
    fn one_press_says_that_it_is_new() {
        let manual = manual(&format!("{TOLD}[1:20] Install the gasket.\n\n[1:30] Put the rear cover on."));
        let finding = findings(&manual).into_iter().find(|f| f.rule == RULE.id).expect("the gasket");
        assert_eq!(finding.fixes.last().map(|f| f.label.as_str()), Some("The gasket: new, to be ordered"));
        let ordered = manual.apply(&finding.fixes.last().unwrap().edit, "Ann").expect("it is new").0;
        assert!(findings(&ordered).iter().all(|f| f.rule != RULE.id));
    }

    #[test]
    fn what_is_new_need_not_have_come_out() {
        check(&RULE, &format!("{TOLD}[1:20] Put in the new gasket.\n\n[1:30] Put the rear cover on."), &[]);
    }
}
