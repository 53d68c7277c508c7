//! What a recogniser hears after the farewell.
//!
//! Once nobody speaks any more, a recogniser goes on with pieces of what it heard before: "Thank you for watching. Undo the
//! six screws of the tray. 谢谢". Nothing that stands behind the farewell in the last segment was said.

use super::sentences::Sentence;

/// Ways to take leave, at the beginning of a sentence.
const FAREWELLS: [&str; 8] = [
    "thank you for watching",
    "thanks for watching",
    "thank you so much for watching",
    "thanks again for watching",
    "see you next time",
    "see you in the next",
    "until next time",
    "goodbye",
];

/// The number of the first sentence behind the farewell.
pub(super) fn after_the_farewell(sentences: &[Sentence]) -> Option<usize> {
    let last = sentences.last()?.tokens.first()?.cue;
    let in_last = |s: &Sentence| s.tokens.first().is_some_and(|t| t.cue == last);
    let from = sentences.iter().position(in_last)?;
    let farewell = sentences[from..].iter().position(takes_leave)?;
    Some(from + farewell + 1)
}

fn takes_leave(sentence: &Sentence) -> bool {
    FAREWELLS.iter().any(|farewell| {
        let mut words = farewell.split(' ');
        words.all({
            let mut said = sentence.tokens.iter();
            move |w| said.next().is_some_and(|t| t.said == w)
        })
    })
}

#[cfg(test)]
mod tests {
    use crate::reading::{StatementKind, read};
    use crate::recording::Recording;
    use rstest::rstest;

    #[rstest]
    #[case::heard_again("Thanks for watching. Undo the six screws of the tray. Thank you.", 0)]
    #[case::work_before_it("Undo the six screws of the tray. Thanks for watching. Lift the tray out.", 1)]
    #[case::none("Thank you. Undo the six screws of the tray. Lift the tray out.", 2)]
    fn what_stands_behind_it_was_not_said(#[case] last: &str, #[case] acts: usize) {
        let text = format!("[0:00] Take off the lid.\n\n[0:30] {last}\n");
        let reading = read(&Recording::parse(text.as_bytes()).unwrap());
        assert_eq!(reading.deeds.iter().filter(|d| d.cue == 1).count(), acts);
        let noise = reading.statements.last().is_some_and(|s| s.kind == StatementKind::Noise);
        assert_eq!(noise, acts < 2);
        assert_eq!(reading.sheet.idle_segments, if acts == 0 { vec![30] } else { vec![] });
    }
}
