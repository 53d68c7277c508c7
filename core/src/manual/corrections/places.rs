//! Where the same words stand in a recording, to put them right everywhere at once.

use super::heard::CorrectedReading;
use crate::ids::*;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Where some words were heard.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct HeardPlace {
    pub recording: RecordingId,
    /// Characters of the recording's joined text.
    pub start: usize,
    pub end: usize,
    /// As it was heard there.
    pub heard: String,
}

impl CorrectedReading {
    /// Every place where the same words stand as whole words, in any case.
    pub fn places(&self, words: &str) -> Vec<HeardPlace> {
        places(self, words)
    }
}

fn places(read: &CorrectedReading, words: &str) -> Vec<HeardPlace> {
    let wanted: Vec<char> = words.trim().chars().collect();
    if wanted.is_empty() {
        return Vec::new();
    }
    let same = |a: char, b: char| a == b || a.to_lowercase().eq(b.to_lowercase());
    let mut out = Vec::new();
    for s in &read.reading.statements {
        let chars: Vec<char> = s.text.chars().collect();
        let in_word = |i: Option<usize>| i.and_then(|i| chars.get(i)).is_some_and(|c| c.is_alphanumeric());
        let mut at = 0;
        while at + wanted.len() <= chars.len() {
            let end = at + wanted.len();
            let fits = chars[at..end].iter().zip(&wanted).all(|(a, b)| same(*a, *b));
            if fits && !in_word(at.checked_sub(1)) && !in_word(Some(end)) {
                let heard = chars[at..end].iter().collect();
                out.push(HeardPlace { recording: read.recording, start: s.start + at, end: s.start + end, heard });
                at = end;
            } else {
                at += 1;
            }
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::Manual;
    use crate::recording::Recording;
    use rstest::rstest;
    use uuid::Uuid;

    #[rstest]
    #[case("lid", &["Lid", "lid"])]
    #[case("LID", &["Lid", "lid"])]
    #[case("the lid", &["the lid"])]
    #[case("li", &[])]
    #[case(" ", &[])]
    fn whole_words_in_any_case(#[case] words: &str, #[case] heard: &[&str]) {
        let recording = Recording::parse("Lid off. Slide the lid back, not the lids. Ölid.".as_bytes()).unwrap();
        let manual = Manual::new(ManualId(Uuid::nil()), "Test", "");
        let read = manual.corrections_of(RecordingId(Uuid::nil())).read(&recording);
        let found: Vec<String> = places(&read, words).into_iter().map(|p| p.heard).collect();
        assert_eq!(found, heard);
    }

    #[test]
    fn places_are_counted_in_characters_of_the_whole_text() {
        let recording = Recording::parse("[0:00] Größe prüfen.\n\n[0:10] Take off the lid.".as_bytes()).unwrap();
        let manual = Manual::new(ManualId(Uuid::nil()), "Test", "");
        let read = manual.corrections_of(RecordingId(Uuid::nil())).read(&recording);
        let place = places(&read, "lid").remove(0);
        let text: Vec<char> = crate::reading::joined_text(&recording).chars().collect();
        assert_eq!(text[place.start..place.end].iter().collect::<String>(), "lid");
    }
}
