//! "Should" where something must be done.

use super::Sentence;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::capitalised;
use crate::reading::is_order;

pub(super) const RULE: Rule = Rule {
    id: RuleId::ShouldForMust,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "“Should” leaves it to the reader whether it is done at all.",
    source: "ASD-STE100: “must” for what is necessary, the imperative in procedures (from memory)",
};

/// What stands before an order and makes a wish of it.
const WISHES: [&str; 6] =
    ["You should ", "You might want to ", "You may want to ", "You want to ", "You have to ", "You need to "];

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    case.sentences().iter().filter_map(finding).collect()
}

fn finding(sentence: &Sentence<'_>) -> Option<Finding> {
    let text = &sentence.text;
    let wish = WISHES.iter().find_map(|w| text.strip_prefix(w));
    let should = text.split(|c: char| !c.is_alphabetic()).any(|w| w.eq_ignore_ascii_case("should"));
    // "The light should go on" tells what is to be seen, and asks for nothing.
    let asks = should && text.to_lowercase().contains("should be") || wish.is_some();
    asks.then_some(())?;
    let says = format!("A wish, and no order: “{text}” Say what is to be done.");
    let found = RULE.finding(Subject::Step(sentence.step.id), says);
    let order = wish.map(capitalised).filter(|order| is_order(order));
    Some(match order {
        Some(order) => found.with([sentence.reworded(order)]),
        None => found,
    })
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::plain::check;
    use rstest::rstest;

    #[rstest]
    #[case::you_should("You should lift off the cover.", Some("Lift off the cover."))]
    #[case::you_want("You want to lift off the cover.", Some("Lift off the cover."))]
    #[case::passive("The cover should be lifted off.", None)]
    fn a_wish_becomes_an_order(#[case] typed: &str, #[case] becomes: Option<&str>) {
        check(&RULE, typed, Some(&format!("A wish, and no order: “{typed}” Say what is to be done.")), becomes);
    }

    #[rstest]
    #[case::order("Lift off the cover.")]
    #[case::what_is_seen("The green light should go on.")]
    fn what_is_no_wish(#[case] typed: &str) {
        check(&RULE, typed, None, None);
    }
}
