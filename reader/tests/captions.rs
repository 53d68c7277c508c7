//! Captions in and out: files written by general-purpose subtitle libraries, and the round trip of our own writers.

use paso_reader::recording::{Cue, Recording, SourceFormat, to_subrip, to_webvtt};
use proptest::prelude::*;
use rstest::rstest;

// Files written by Python libraries, frozen with their versions; see fixtures/README.md.
#[rstest]
#[case::srt_library(include_str!("fixtures/srt-3.5.3.srt"), SourceFormat::SubRip)]
#[case::webvtt_py(include_str!("fixtures/webvtt-py-0.6.0.vtt"), SourceFormat::WebVtt)]
#[case::pysubs2_vtt(include_str!("fixtures/pysubs2-1.8.1.vtt"), SourceFormat::WebVtt)]
#[case::pysubs2_srt(include_str!("fixtures/pysubs2-1.8.1.srt"), SourceFormat::SubRip)]
fn reads_what_other_libraries_write(#[case] source: &str, #[case] format: SourceFormat) {
    let recording = Recording::parse(source.as_bytes()).unwrap();
    assert_eq!(recording.format, format);
    let cues: Vec<(u64, u64, &str)> =
        recording.cues.iter().map(|c| (c.start.unwrap(), c.end.unwrap(), c.text.as_str())).collect();
    assert_eq!(
        cues,
        [
            (0, 2_500, "Lift the lid & hold it."),
            (2_500, 61_040, "Undo four screws, 3 < 4 mm long."),
            (3_661_001, 3_662_000, "Fin – ça y est."),
        ]
    );
}

fn cues() -> impl Strategy<Value = Vec<Cue>> {
    // Words of any script without line breaks; cues in order and apart, as our own reader leaves them.
    let text = "[a-zé漢<>&0-9]{1,8}( [a-z<>&{}]{1,8}){0,5}";
    proptest::collection::vec((0..5_000u64, 1..9_000u64, text), 1..20).prop_map(|rows| {
        let mut at = 0;
        rows.into_iter()
            .enumerate()
            .map(|(n, (gap, len, text))| {
                // A number keeps neighbours apart: equal lines would be taken for rolling captions.
                let text = format!("{n} {text}");
                let start = at + gap;
                at = start + len;
                Cue { start: Some(start), end: Some(at), text }
            })
            .collect()
    })
}

proptest! {
    #[test]
    fn parse_after_write_is_the_identity_on_cues(cues in cues()) {
        let recording = Recording { title: None, format: SourceFormat::WebVtt, cues, mended: Vec::new() };
        for written in [to_webvtt(&recording), to_subrip(&recording)] {
            let again = Recording::parse(written.as_bytes()).unwrap();
            prop_assert_eq!(&again.cues, &recording.cues, "{}", written);
        }
    }

    #[test]
    fn no_bytes_make_the_reader_panic(bytes in proptest::collection::vec(any::<u8>(), 0..400)) {
        if let Ok(recording) = Recording::parse(&bytes) {
            paso_reader::reading::read(&recording);
        }
    }

    #[test]
    fn no_words_make_the_reader_panic(text in "(\\[[0-9]{1,2}:[0-5][0-9]\\] )?([a-z]{1,9}|[0-9.,]{1,5}|and|the|screws?|°C|[.,!?]| ){0,60}") {
        if let Ok(recording) = Recording::parse(text.as_bytes()) {
            let reading = paso_reader::reading::read(&recording);
            let length = paso_reader::reading::joined_text(&recording).chars().count();
            prop_assert!(reading.statements.iter().all(|s| s.start < s.end && s.end <= length));
        }
    }
}
