//! How the device should have been lying, told when the work is under way.

use super::super::lexicon::LEXICON;
use super::super::sheet::DiscrepancyKind;
use super::{Contradiction, Story, finding};

/// As it is said of a device; words are lemmas.
const LIES: [&[&str]; 9] = [
    &["face", "down"],
    &["face", "up"],
    &["upside", "down"],
    &["on", "it", "side"],
    &["on", "it", "back"],
    &["on", "it", "front"],
    &["on", "it", "face"],
    &["prop", "up"],
    &["on", "edge"],
];

/// "I should have said, it has to lie face down for this": admitted, a posture, and not a word of it before.
pub(super) fn find(story: &Story<'_>) -> Vec<Contradiction> {
    let mut out = Vec::new();
    for i in 0..story.statements.len() {
        let words = story.refs(i);
        let admits = LEXICON.forgotten.any(&words).is_some() || LEXICON.wrong_order.any(&words).is_some();
        let Some(posture) = LIES.iter().find(|p| admits && says(&words, p)) else { continue };
        let told_before = (0..i).any(|before| says(&story.refs(before), posture));
        let worked = story.statements[..i].iter().any(|s| s.kind.is_work());
        if worked && !told_before {
            let says = "How the device should lie is told here, when the work is already under way.".to_owned();
            out.push(finding(DiscrepancyKind::LatePosture, i, None, says));
        }
    }
    out
}

fn says(words: &[&str], phrase: &[&str]) -> bool {
    words.windows(phrase.len()).any(|w| w.iter().zip(phrase).all(|(a, b)| a == b || (*b == "it" && *a == "its")))
}
