//! The condition stands behind what is done under it.

use super::Sentence;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::capitalised;

pub(super) const RULE: Rule = Rule {
    id: RuleId::ConditionLate,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Readers do what they read; the “if” behind it comes when it is done.",
    source: "ASD-STE100: the condition goes first (from memory)",
};

const CONDITIONS: [&str; 3] = [" if ", " unless ", " in case "];

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    case.sentences().iter().filter_map(finding).collect()
}

fn finding(sentence: &Sentence<'_>) -> Option<Finding> {
    let text = &sentence.text;
    let at = CONDITIONS.iter().filter_map(|c| text.find(c)).min()?;
    // "As if", "even if" and a question within are no conditions.
    let before = text[..at].trim_end_matches(',');
    let last = before.rsplit(' ').next().unwrap_or_default().to_lowercase();
    let joined = matches!(last.as_str(), "as" | "even" | "see" | "check" | "only" | "what");
    // What follows the condition may belong to either side; then nothing is offered.
    let condition = text[at..].trim().trim_end_matches('.');
    if joined || condition.is_empty() {
        return None;
    }
    let says = format!("The condition comes last: “{text}” Put it first.");
    let found = RULE.finding(Subject::Step(sentence.step.id), says);
    let mut first = before.chars();
    let act: String = first.next().into_iter().flat_map(char::to_lowercase).chain(first).collect();
    let sure = !condition.contains([',', ';', '.']) && !before.contains(". ");
    Some(if sure { found.with([sentence.reworded(format!("{}, {act}.", capitalised(condition)))]) } else { found })
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::plain::check;
    use rstest::rstest;

    #[rstest]
    #[case::at_the_end(
        "Warm the edge again if the cover does not move.",
        Some("If the cover does not move, warm the edge again.")
    )]
    #[case::unless("Stop, unless the cover moves.", Some("Unless the cover moves, stop."))]
    #[case::what_belongs_where("Warm the edge if it is cold, and pull.", None)]
    fn it_is_put_first(#[case] typed: &str, #[case] becomes: Option<&str>) {
        check(&RULE, typed, Some(&format!("The condition comes last: “{typed}” Put it first.")), becomes);
    }

    #[rstest]
    #[case::first("If the cover does not move, warm the edge again.")]
    #[case::asked("Check if the cover is flat.")]
    #[case::none("Warm the edge again.")]
    fn a_condition_that_stands_first(#[case] typed: &str) {
        check(&RULE, typed, None, None);
    }
}
