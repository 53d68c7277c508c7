//! The narrator puts something back before what must go in under it.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::StepId;
use crate::manual::{Edit, StepEdit};
use crate::rebuild::Difference;

pub(super) const RULE: Rule = Rule {
    id: RuleId::ToldTooEarly,
    stop: Stop::Fold,
    blocks: false,
    may_set_aside: true,
    why: "What came out first goes in last: a reader who closes too early opens again.",
    source: "the chain of the teardown, turned round (common practice, no source)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    case.differences().iter().filter_map(|d| finding(case, d)).collect()
}

fn finding(case: &Case<'_>, difference: &Difference) -> Option<Finding> {
    let Difference::TooEarly { told, sentence, other, waits_for, of, because } = difference else { return None };
    let says = format!(
        "“{}” is told before “{}”, and came off before “{}”: {because}.",
        sentence.trim_end_matches('.'),
        waits_for.trim_end_matches('.'),
        case.title(of[1])
    );
    let about = [*told, *other, of[0], of[1]].map(Subject::Step).to_vec();
    let behind = |id: StepId, after: StepId| {
        let edit = Edit::Step(StepEdit::Move { id, after: Some(after) });
        Fix::new(format!("Move “{}” behind “{}”", case.title(id), case.title(after)), edit)
    };
    let fix = (told != other).then(|| behind(*told, *other));
    Some(RULE.finding_about(about, says).resting_on((sentence, waits_for)).with(fix))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::check;

    const APART: &str = "[0:00] Remove four PH1 screws from the cover. Take off the cover.\n\n[0:20] Take out the fan, it sits under the cover.\n\n\
                         [0:30] Take out the tray.\n\n[0:40] Now the assembly.\n\n";

    #[test]
    fn the_cover_before_the_fan() {
        check(
            &RULE,
            &format!("{APART}[0:50] Put the tray in.\n\n[1:00] Put the cover on.\n\n[1:20] Put the fan in."),
            &[
                "“Put the cover on” is told before “Put the fan in”, and came off before “Remove the fan”: the fan lies under the cover.",
            ],
        );
    }

    /// The lid stands open on its wire, and is closed and screwed down behind the plug.
    #[test]
    fn a_plug_is_made_while_the_lid_stands_open() {
        let apart = "[0:00] Remove four PH1 screws from the cover. Open the cover. Disconnect the lamp cable.\n\n\
                     [0:20] Take out the clamp.\n\n[0:30] Take off the cover.\n\n[0:40] Now the assembly.\n\n";
        let told =
            "[0:50] Connect the lamp cable.\n\n[1:00] Put the cover on, four screws.\n\n[1:20] Put the clamp in.";
        check(&RULE, &format!("{apart}{told}"), &[]);
    }

    #[test]
    fn in_reverse_order() {
        check(
            &RULE,
            &format!("{APART}[0:50] Put the tray in.\n\n[1:00] Put the fan in.\n\n[1:20] Put the cover on."),
            &[],
        );
    }
}
