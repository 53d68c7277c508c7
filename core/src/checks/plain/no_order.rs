//! A typed sentence tells something, and does not say what to do.

use super::Sentence;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::reading::is_order;

pub(super) const RULE: Rule = Rule {
    id: RuleId::NoOrder,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "A reader looks for what to do; a story about it is read twice.",
    source: "ASD-STE100: the imperative in procedures (from memory)",
};

/// What stands first, before the order, and is none itself.
const FIRST: [&str; 10] =
    ["if ", "when ", "unless ", "in case ", "before ", "after ", "while ", "to ", "do not ", "never "];

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    case.sentences().iter().filter_map(finding).collect()
}

fn finding(sentence: &Sentence<'_>) -> Option<Finding> {
    sentence.action.text.as_ref()?;
    let lower = sentence.text.to_lowercase();
    let orders = is_order(&sentence.text) || FIRST.iter().any(|w| lower.starts_with(w));
    // Wishes have a rule of their own, with a way out.
    let wish = lower.starts_with("you ") || lower.contains("should be");
    let vague = lower.starts_with("carefully ") || lower.starts_with("gently ");
    (!orders && !wish && !vague).then(|| {
        let says = format!("“{}” does not say what to do. Begin with the verb.", sentence.text);
        RULE.finding(Subject::Step(sentence.step.id), says)
    })
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::plain::check;
    use rstest::rstest;

    #[rstest]
    #[case::story("The cover is lifted off.", true)]
    #[case::speaker("We lift off the cover.", true)]
    #[case::order("Lift off the cover.", false)]
    #[case::under_a_condition("If it sticks, warm the edge.", false)]
    #[case::forbidden("Do not pull the cable.", false)]
    #[case::wish("You should lift off the cover.", false)]
    fn a_sentence_of_a_procedure_orders(#[case] typed: &str, #[case] found: bool) {
        let says = format!("“{typed}” does not say what to do. Begin with the verb.");
        check(&RULE, typed, found.then_some(says.as_str()), None);
    }
}
