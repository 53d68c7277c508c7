//! Numbers that go by a name: "half a dozen screws" are six, "a couple of bolts" two.
//!
//! Later passes know figures. Only screws are counted so: "a couple of minutes" stays as vague as it was said, and a pair of
//! pliers is one tool.

use super::numbers::figure_of;
use super::phrases::is_screw;
use super::sentences::{Sentence, Token};

/// As said, and the figure that is meant.
const ALWAYS: [(&[&str], &str); 3] =
    [(&["half", "a", "dozen"], "six"), (&["two", "dozen"], "24"), (&["a", "dozen"], "twelve")];

/// As said before screws.
const BEFORE_SCREWS: [(&[&str], &str); 6] = [
    (&["a", "couple", "of"], "two"),
    (&["a", "pair", "of"], "two"),
    (&["a", "couple", "more"], "two"),
    (&["a", "couple"], "two"),
    (&["a", "trio", "of"], "three"),
    (&["both", "of"], "both"),
];

/// Puts figures in the place of such names, each with the characters of what was said.
pub(super) fn in_figures(sentence: &mut Sentence) {
    let mut at = 0;
    while at < sentence.tokens.len() {
        if let Some(size) = star_bits(&sentence.tokens[at..]) {
            sentence.tokens[at].end = sentence.tokens[at + 1].end;
            sentence.tokens[at].said = format!("t{size}s").into();
            sentence.tokens[at].lemma = format!("t{size}").into();
            sentence.tokens.remove(at + 1);
        } else if let Some((len, figure)) = named(&sentence.tokens[at..]) {
            let last = sentence.tokens[at + len - 1].clone();
            let first = &sentence.tokens[at];
            let token = Token { said: figure.into(), lemma: figure.into(), start: first.start, cue: first.cue, ..last };
            sentence.tokens.splice(at..at + len, [token]);
        }
        at += 1;
    }
}

/// "Two more T eights": screws by their bit, as it is spoken.
fn star_bits(tokens: &[Token]) -> Option<u32> {
    let [t, size, ..] = tokens else { return None };
    let plural = size.said.ends_with('s') && size.said != size.lemma;
    figure_of(&size.lemma).filter(|_| t.said == "t" && plural && !t.pause).map(|n| n as u32)
}

fn named(tokens: &[Token]) -> Option<(usize, &'static str)> {
    let said = |words: &[&str]| tokens.len() >= words.len() && words.iter().zip(tokens).all(|(w, t)| t.said == **w);
    let find = |table: &[(&[&str], &'static str)]| {
        table.iter().find(|(words, _)| said(words)).map(|(words, figure)| (words.len(), *figure))
    };
    find(&ALWAYS).or_else(|| find(&BEFORE_SCREWS).filter(|(len, _)| counts_screws(&tokens[len - 1..])))
}

/// "… of the small brass screws": nothing else is named on the way.
fn counts_screws(behind: &[Token]) -> bool {
    const ON_THE_WAY: usize = 5;
    let (before, rest) = behind.split_at(1);
    !before[0].pause
        && rest.iter().take(ON_THE_WAY).take_while(|t| !t.stop || is_screw(&t.lemma)).any(|t| is_screw(&t.lemma))
}

#[cfg(test)]
mod tests {
    use super::super::draft_guide;
    use crate::recording::Recording;
    use rstest::rstest;

    #[rstest]
    #[case("Take half a dozen screws out of the lid.", "Undo the six screws of the lid.")]
    #[case("Take a dozen screws out of the lid.", "Undo the 12 screws of the lid.")]
    #[case("Take two dozen screws out of the lid.", "Undo the 24 screws of the lid.")]
    #[case("Take a couple of small screws out of the lid.", "Undo the two screws of the lid.")]
    #[case("Two T eights hold the lid.", "Undo the two T8 screws of the lid.")]
    #[case("Both of these screws come out.", "Undo the two screws of the lid.")]
    fn screws_are_counted_by_name(#[case] said: &str, #[case] wanted: &str) {
        let recording = Recording::parse(format!("[0:00] {said}\n\n[0:10] Lift off the lid.").as_bytes()).unwrap();
        let told: Vec<String> =
            draft_guide(&recording).steps.into_iter().flat_map(|s| s.acts).map(|a| a.text).collect();
        assert_eq!(told[0], wanted, "{told:?}");
    }
}
