//! One sentence tells two things to do, one after the other.

use super::Sentence;
use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::ActionId;
use crate::manual::{Edit, SentenceEdit, StepEdit};
use crate::reading::is_order;
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::TwoInstructions,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "The second of two orders in one sentence is the one that is forgotten.",
    source: "ASD-STE100: one instruction a sentence, unless two are done at the same time (from memory)",
};

/// What stands between two orders; what is done at the same time is joined by "while" or a plain "and".
const BETWEEN: [&str; 5] = [", and then ", " and then ", ", then ", "; then ", "; "];

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    case.sentences().iter().filter_map(finding).collect()
}

fn finding(sentence: &Sentence<'_>) -> Option<Finding> {
    let text = &sentence.text;
    let (at, between) = BETWEEN.iter().filter_map(|b| Some((text.find(b)?, *b))).min_by_key(|(at, _)| *at)?;
    let second = &text[at + between.len()..];
    (is_order(&capital(second)) && is_order(text)).then_some(())?;
    let says = format!("Two orders in one sentence: “{text}” Give each its own.");
    // A sentence that is worded from what it tells has no place to be parted at.
    let fix = sentence.action.text.as_ref().map(|_| {
        let at = text[..at + between.len()].chars().count();
        let new_id = ActionId(Uuid::new_v5(&sentence.action.id.0, b"two instructions"));
        let split = SentenceEdit::Split { id: sentence.action.id, at, new_id };
        Fix::new("Part it", Edit::Step(StepEdit::Sentence { id: sentence.step.id, sentence: split }))
    });
    Some(RULE.finding(Subject::Step(sentence.step.id), says).with(fix))
}

fn capital(text: &str) -> String {
    crate::manual::capitalised(text)
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::plain::check;
    use rstest::rstest;

    #[rstest]
    #[case::then("Lift off the cover, then turn it over.", Some("Lift off the cover"))]
    #[case::and_then("Lift off the cover and then take out the tray.", Some("Lift off the cover"))]
    #[case::semicolon("Lift off the cover; take out the tray.", Some("Lift off the cover"))]
    fn two_orders_are_parted(#[case] typed: &str, #[case] becomes: Option<&str>) {
        check(&RULE, typed, Some(&format!("Two orders in one sentence: “{typed}” Give each its own.")), becomes);
    }

    #[rstest]
    #[case::one("Lift off the cover.")]
    #[case::one_motion("Press the tab and pull the plug.")]
    #[case::counted("Undo the two T5 screws (3 mm) of the lid, then the four (8 mm).")]
    fn one_order_stays(#[case] typed: &str) {
        check(&RULE, typed, None, None);
    }
}
