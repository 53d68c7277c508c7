//! The narrator fits something that never came out.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::{PartId, StepId};
use crate::manual::{Edit, PartEdit, Phase};
use crate::rebuild::Difference;

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
        "The {name} goes in and never came out (“{}”). Say under which name it came out, or that it is new.",
        case.title(*told)
    );
    let another = untold_parts(case).into_iter().filter(|p| alike(case.manual.part_name(*p), name));
    let fixes = another.take(MOST).map(|into| {
        let edit = Edit::Part(PartEdit::Merge { id: *part, into });
        Fix::new(format!("It is the {}", case.manual.part_name(into)), edit)
    });
    Some(RULE.finding_about(vec![Subject::Step(*told), Subject::Part(*part)], says).resting_on(name).with(fixes))
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

    const TOLD: &str = "[0:00] Take off the rear cover.\n\n[0:20] Take out the fan.\n\n[0:30] Take out the tray.\n\n\
                        [0:40] Now the assembly.\n\n[1:00] Put the tray in.\n\n[1:10] Put the fan in.\n\n";

    #[test]
    fn it_goes_by_another_name() {
        let told = format!("{TOLD}[1:20] Install the base cover.");
        let says = "The base cover goes in and never came out (“Fit the base cover”). Say under which name it came out, or that it is new.";
        check(&RULE, &told, &[says]);
        let manual = manual(&told);
        let finding = findings(&manual).into_iter().find(|f| f.rule == RULE.id).expect("the cover");
        assert_eq!(finding.fixes[0].label, "It is the rear cover");
        let merged = manual.apply(&finding.fixes[0].edit, "Ann").expect("two names").0;
        assert!(findings(&merged).iter().all(|f| f.rule != RULE.id));
    }

    #[test]
    fn what_is_new_need_not_have_come_out() {
        check(&RULE, &format!("{TOLD}[1:20] Put in the new gasket.\n\n[1:30] Put the rear cover on."), &[]);
    }
}
