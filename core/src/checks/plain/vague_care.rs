//! "Carefully", and nobody says what to take care of.

use super::Sentence;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::things::vague_care;

pub(super) const RULE: Rule = Rule {
    id: RuleId::VagueCare,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Everybody is careful already; what helps is to know of what.",
    source: "IEC/IEEE 82079-1 and ANSI Z535.6: say the hazard and how it is avoided (from memory)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    case.sentences().iter().filter_map(|s| finding(case, s)).collect()
}

fn finding(case: &Case<'_>, sentence: &Sentence<'_>) -> Option<Finding> {
    let vague = vague_care(&sentence.text)?;
    if case.manual.cautions_of(sentence.step.id).next().is_some() {
        return None;
    }
    let says = format!("“{vague}” of what? “{}” Say what to take care of, or leave the word out.", sentence.text);
    Some(RULE.finding(Subject::Step(sentence.step.id), says).with(without(sentence, vague)))
}

/// The sentence without the word, where nothing else hangs on it.
fn without(sentence: &Sentence<'_>, vague: &str) -> Option<crate::finding::Fix> {
    let at = sentence.text.to_lowercase().find(vague)?;
    // Small letters may be longer than large ones in some scripts.
    let (before, after) = (sentence.text.get(..at)?, sentence.text.get(at + vague.len()..)?);
    let joined = format!("{}{}", before.trim_end(), after);
    let text = if before.trim().is_empty() { crate::manual::capitalised(after.trim_start()) } else { joined };
    text.chars().any(char::is_alphabetic).then(|| sentence.reworded(text))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::plain::check;
    use rstest::rstest;

    #[rstest]
    #[case::behind("Lift off the cover carefully.", "carefully", "Lift off the cover.")]
    #[case::before("Carefully lift off the cover.", "carefully", "Lift off the cover.")]
    #[case::within("Lift very carefully the cover off.", "very carefully", "Lift the cover off.")]
    fn the_word_is_left_out(#[case] typed: &str, #[case] word: &str, #[case] becomes: &str) {
        let says = format!("“{word}” of what? “{typed}” Say what to take care of, or leave the word out.");
        check(&RULE, typed, Some(&says), Some(becomes));
    }

    #[rstest]
    #[case::says_what("Lift off the cover carefully, so that the ribbon does not tear.")]
    #[case::no_such_word("Lift off the cover.")]
    fn care_that_says_of_what(#[case] typed: &str) {
        check(&RULE, typed, None, None);
    }
}
