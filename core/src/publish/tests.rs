use super::*;
use crate::manual::{RecordingRef, Source, draft, from_json};
use crate::recording::Recording;
use rstest::rstest;
use uuid::Uuid;

const KETTLE: &str = "[0:00] Tools required, a Phillips screwdriver and a spudger.\n\n\
    [0:10] Remove four Phillips PH1 screws, length 8 millimetres, from the base plate. Lift off the base plate.\n\n\
    [0:30] Caution. The wires tear easily. Disconnect the battery cable. Pull out the battery.\n\n\
    [0:50] Put the battery back in. Put the base plate on and install three Phillips PH1 screws, length 8 millimetres, in the base plate.";

fn manual(text: &str) -> Manual {
    let recording = Recording::parse(text.as_bytes()).unwrap();
    let reading = crate::reading::read(&recording);
    let recording =
        RecordingRef { id: RecordingId(Uuid::nil()), title: "test".into(), duration_ms: recording.duration_ms() };
    draft(ManualId(Uuid::nil()), "Kettle", "Kettle 3", &[Source { recording, reading: &reading }])
}

#[test]
fn the_reader_sees_cautions_before_the_step_and_the_rebuild_behind() {
    let text = markdown(&manual(KETTLE));
    let place = |needle: &str| text.find(needle).unwrap_or_else(|| panic!("{needle} is missing in\n{text}"));
    assert!(place("**Caution:**") < place("Disconnect the battery cable."));
    assert!(place("## Taking apart") < place("## Putting together"));
    assert!(text.contains("4 × PH1, 8 mm, base plate"));
    assert!(text.contains("4 out, 3 back, 0 new, 1 left over"));
}

#[test]
fn what_is_left_over_blocks_publishing() {
    let guide = guide(&manual(KETTLE));
    let blocking: Vec<&str> = guide.remaining.iter().filter(|r| r.blocks).map(|r| r.what.as_str()).collect();
    assert_eq!(blocking, ["1 left over: 4 out, 3 back (PH1, 8 mm, base plate). Say where the rest goes."]);
    assert!(guide.remaining.iter().any(|r| r.what == "2 of 2 steps have not been reviewed by anybody."));
}

#[test]
fn json_goes_both_ways_and_fits_its_schema() {
    let manual = manual(KETTLE);
    let json = serde_json::to_value(&manual).unwrap();
    let schema = jsonschema::validator_for(&manual_schema()).expect("the schema itself is sound");
    let errors: Vec<String> = schema.iter_errors(&json).map(|e| format!("{} at {}", e, e.instance_path())).collect();
    assert!(errors.is_empty(), "{errors:#?}");
    assert_eq!(from_json(&json.to_string()).unwrap(), manual);
}

#[rstest]
#[case("{", "is not JSON")]
#[case("{}", "no “format” number")]
#[case(r#"{"format": 99}"#, "has format 99")]
#[case(r#"{"format": 1}"#, "does not fit its format")]
fn refuses_what_is_no_manual(#[case] text: &str, #[case] says: &str) {
    let error = from_json(text).unwrap_err().to_string();
    assert!(error.contains(says), "{error}");
}

#[test]
fn refuses_references_that_lead_nowhere() {
    let mut manual = manual(KETTLE);
    manual.parts.clear();
    let error = from_json(&serde_json::to_string(&manual).unwrap()).unwrap_err().to_string();
    assert!(error.contains("is not listed"), "{error}");
}
