//! Whatever bytes come in: no panic, no runaway, and statements that lie inside their recording.
//!
//! `PROPTEST_CASES=200000 cargo test -p paso-core --test fuzz --release` runs them for minutes.

use paso_core::ids::{ManualId, RecordingId};
use paso_core::manual::{Manual, RecordingRef, to_csv};
use paso_core::reading::{Hints, Meant, joined_text, read, read_with};
use paso_core::recording::Recording;
use proptest::prelude::*;
use uuid::Uuid;

/// Words that the passes treat in ways of their own, in any order that nobody would say.
const WORDS: [&str; 72] = [
    "the",
    "a",
    "it",
    "them",
    "one",
    "two",
    "zero",
    "point",
    "five",
    "screw",
    "screws",
    "T6",
    "PH",
    "00",
    "phillips",
    "torx",
    "remove",
    "take",
    "off",
    "out",
    "in",
    "back",
    "on",
    "from",
    "of",
    "with",
    "by",
    "not",
    "don't",
    "never",
    "cannot",
    "if",
    "because",
    "until",
    "before",
    "which",
    "that",
    "there",
    "is",
    "are",
    "was",
    "'s",
    "have",
    "to",
    "and",
    "then",
    "so",
    "cover",
    "battery",
    "cable",
    "connector",
    "flex",
    "board",
    "heat",
    "gun",
    "80",
    "degrees",
    "celsius",
    "fahrenheit",
    "mm",
    "m2.5",
    "x",
    "each",
    "both",
    "others",
    "rest",
    "step",
    "caution",
    "thank",
    "you",
    "ones",
    "same",
];

fn speech() -> impl Strategy<Value = String> {
    let word = prop_oneof![
        8 => prop::sample::select(WORDS.to_vec()).prop_map(str::to_owned),
        1 => "\\PC{0,6}",
        1 => prop::sample::select(vec![". ", ", ", "? ", "\n\n[0:30] ", "\n", "…", "-", "“"]).prop_map(str::to_owned),
    ];
    prop::collection::vec(word, 0..160).prop_map(|words| words.join(" "))
}

/// Every statement lies in its recording, behind the one before.
fn well_formed(recording: &Recording) {
    let length = joined_text(recording).chars().count();
    let reading = read(recording);
    let mut last = 0;
    for s in &reading.statements {
        assert!(s.start >= last && s.start < s.end && s.end <= length, "{s:?}");
        assert!((0.0..=1.0).contains(&s.confidence) && !s.because.is_empty(), "{s:?}");
        last = s.start;
    }
    for f in &reading.contradictions {
        assert!(f.at < reading.statements.len() && f.against.is_none_or(|a| a < reading.statements.len()));
    }
}

proptest! {
    #[test]
    fn any_bytes_are_a_recording_or_a_sentence(bytes in prop::collection::vec(any::<u8>(), 0..600)) {
        match Recording::parse(&bytes) {
            Ok(recording) => well_formed(&recording),
            Err(e) => prop_assert!(!e.to_string().is_empty()),
        }
    }

    #[test]
    fn captions_with_broken_times_are_read_or_refused(
        head in prop::sample::select(vec!["WEBVTT\n\n", "1\n", "\u{feff}1\r\n", "WEBVTT\n\nNOTE\n"]),
        body in "(([0-9:.,]{0,14} --> [0-9:.,]{0,14}\n)?\\PC{0,30}\n){0,12}",
    ) {
        if let Ok(recording) = Recording::parse(format!("{head}{body}").as_bytes()) {
            well_formed(&recording);
        }
    }

    #[test]
    fn any_speech_is_read(text in speech()) {
        if let Ok(recording) = Recording::parse(text.as_bytes()) {
            well_formed(&recording);
        }
    }

    #[test]
    fn any_corrections_are_read(
        text in speech(),
        words in prop::collection::vec((0usize..400, 1usize..30, "[a-z ]{0,12}"), 0..6),
        ends in prop::collection::vec((0usize..400, any::<bool>()), 0..8),
    ) {
        let Ok(recording) = Recording::parse(text.as_bytes()) else { return Ok(()) };
        let words = words.into_iter().map(|(start, len, text)| Meant { start, end: start + len, text }).collect();
        let at = |joins: bool| ends.iter().filter(|(_, j)| *j == joins).map(|(at, _)| *at).collect();
        let hints = Hints { words, cuts: at(false), joins: at(true) };
        let length = joined_text(&recording).chars().count();
        for s in read_with(&recording, &hints).statements {
            prop_assert!(s.start < s.end && s.end <= length);
        }
    }

    #[test]
    fn any_table_is_taken_or_refused_by_its_rows(text in speech(), table in prop::collection::vec(any::<u8>(), 0..400)) {
        let Ok(recording) = Recording::parse(text.as_bytes()) else { return Ok(()) };
        let id = RecordingId(Uuid::from_u128(1));
        let mut manual = Manual::new(ManualId(Uuid::from_u128(2)), "Any", "");
        manual.recordings.insert(id, RecordingRef { id, title: String::new(), duration_ms: 0 });
        let heard = manual.hear_anew(id, &recording);
        prop_assert_eq!(manual.from_csv(id, &heard, to_csv(&heard).as_bytes()), Ok(vec![]));
        let mut head = b"start,end,kind,in_job,text,facts\n".to_vec();
        head.extend(table);
        if let Err(rows) = manual.from_csv(id, &heard, &head) {
            prop_assert!(rows.iter().all(|r| r.row >= 1 && !r.problem.is_empty()));
        }
    }
}
