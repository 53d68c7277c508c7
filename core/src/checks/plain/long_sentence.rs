//! A sentence is longer than hands that are busy can keep in mind.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};

pub(super) const RULE: Rule = Rule {
    id: RuleId::LongSentence,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Who has a tool in each hand reads a sentence once.",
    source: "ASD-STE100: at most 20 words in a sentence of a procedure (from memory)",
};

/// Most words of a sentence.
pub(super) const MOST: usize = 20;

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let long = case.sentences().iter().map(|s| (words(&s.text), s)).filter(|(count, _)| *count > MOST);
    long.map(|(count, s)| {
        let says = format!("{count} words: “{}” Part it; {MOST} are read at one go.", s.text);
        RULE.finding(Subject::Step(s.step.id), says)
    })
    .collect()
}

/// Figures with their unit and words in brackets count as they are written.
pub(super) fn words(text: &str) -> usize {
    text.split_whitespace().filter(|w| w.chars().any(char::is_alphanumeric)).count()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::checks::plain::check;
    use rstest::rstest;

    #[test]
    fn what_is_read_at_one_go() {
        let short = "Undo the four screws at the corners of the rear cover with the driver and keep them in the tray.";
        assert_eq!(words(short), 20);
        check(&RULE, short, None, None);
        let long =
            "Undo the four long screws at the corners of the rear cover with the driver and keep them in the tray.";
        check(&RULE, long, Some(&format!("21 words: “{long}” Part it; 20 are read at one go.")), None);
    }

    #[rstest]
    #[case("Heat to 80 °C for 2 min.", 7)]
    #[case("Undo the four screws – the long ones.", 7)]
    fn marks_are_no_words(#[case] text: &str, #[case] count: usize) {
        assert_eq!(words(text), count);
    }
}
