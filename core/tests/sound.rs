//! The one validator: what comes from outside is refused with a sentence, or it is a manual that everything can work on.

use paso_core::checks;
use paso_core::ids::{ManualId, RecordingId};
use paso_core::manual::*;
use paso_core::publish;
use paso_core::reading::read;
use paso_core::recording::Recording;
use proptest::prelude::*;
use rstest::rstest;
use serde_json::{Value, json};
use std::path::PathBuf;
use uuid::Uuid;

/// A manual with something of everything, as this format's first release wrote it.
const FULL: &str = include_str!("fixtures/manual-format-8.json");

fn full() -> Value {
    serde_json::from_str(FULL).expect("JSON")
}

fn given(manual: &Value) -> Result<Manual, String> {
    from_json(&manual.to_string()).map_err(|e| e.to_string())
}

#[rstest]
#[case(include_str!("fixtures/manual-format-1.json"), (4, 4))]
#[case(include_str!("fixtures/manual-format-2.json"), (22, 5))]
#[case(include_str!("fixtures/manual-format-3.json"), (22, 5))]
#[case(include_str!("fixtures/manual-format-4.json"), (22, 5))]
#[case(include_str!("fixtures/manual-format-5.json"), (22, 5))]
#[case(include_str!("fixtures/manual-format-6.json"), (22, 5))]
#[case(include_str!("fixtures/manual-format-7.json"), (22, 5))]
#[case(FULL, (22, 5))]
fn reads_every_format_that_was_ever_written(#[case] text: &str, #[case] (steps, groups): (usize, usize)) {
    let manual = from_json(text).expect("a fixture");
    assert_eq!((manual.steps.len(), manual.fasteners.len(), manual.format), (steps, groups, FORMAT));
}

#[test]
fn where_to_enter_was_a_text_and_is_a_mark() {
    let mut old: Value = serde_json::from_str(include_str!("fixtures/manual-format-3.json")).expect("JSON");
    first(&mut old, "seams")["entry"] = json!("beside the card slot");
    let manual = given(&old).expect("a manual");
    let seam = manual.seams.values().next().expect("a joint");
    assert_eq!(seam.marks[0].landmark.as_deref(), Some("beside the card slot"));
    assert_eq!((seam.marks.len(), &seam.marks[0].evidence), (1, &seam.evidence));
}

#[test]
fn what_a_cable_passed_was_a_text_and_is_a_place() {
    let mut old: Value = serde_json::from_str(include_str!("fixtures/manual-format-4.json")).expect("JSON");
    first(&mut old, "connectors")["route"] = json!(["behind the post", "under the clip"]);
    let manual = given(&old).expect("a manual");
    let told: Vec<&str> = manual.connectors.values().next().expect("a connector").passes().collect();
    assert_eq!(told, ["behind the post", "under the clip"]);
    assert!(manual.connectors.values().flat_map(|c| &c.route).all(|w| w.at.is_none()));
}

/// Descriptions are words; the rest is the shape.
fn shape(mut schema: Value) -> Value {
    let mut open = vec![&mut schema];
    while let Some(value) = open.pop() {
        match value {
            Value::Object(fields) => {
                if fields.get("description").is_some_and(Value::is_string) {
                    fields.remove("description");
                }
                open.extend(fields.values_mut());
            }
            Value::Array(items) => open.extend(items),
            _ => {}
        }
    }
    schema
}

#[test]
fn the_shape_is_the_one_of_its_format() {
    let path =
        PathBuf::from(env!("CARGO_MANIFEST_DIR")).join(format!("tests/fixtures/manual-format-{FORMAT}.schema.json"));
    let today = shape(publish::manual_schema());
    if std::env::var_os("PASO_NEW_FORMAT").is_some() {
        std::fs::write(&path, format!("{today:#}\n")).expect("written");
    }
    let kept: Value = serde_json::from_str(&std::fs::read_to_string(&path).expect("a schema")).expect("JSON");
    assert!(
        kept == today,
        "The shape of a manual changed. If format {FORMAT} has landed, raise FORMAT, add an upcaster and a fixture; then run \
         this test once with PASO_NEW_FORMAT=1."
    );
}

#[rstest]
fn every_draft_is_sound(
    #[files("../demo/*")]
    #[files("../reader/tests/narrations/*/*.vtt")]
    #[files("../reader/tests/narrations/*/*.md")]
    path: PathBuf,
) {
    let Ok(recording) = Recording::parse(&std::fs::read(&path).expect("a narration")) else { return };
    let reading = read(&recording);
    let reference =
        RecordingRef { id: RecordingId(Uuid::nil()), title: "t".into(), duration_ms: recording.duration_ms() };
    let manual = draft(ManualId(Uuid::nil()), "Draft", "", &[Source { recording: reference, reading: &reading }]);
    assert_eq!(from_json(&serde_json::to_string(&manual).expect("plain data")).expect("sound"), manual);
}

/// The first entity of a map.
fn first<'v>(manual: &'v mut Value, map: &str) -> &'v mut Value {
    manual[map].as_object_mut().expect("a map").values_mut().next().expect("at least one")
}

#[rstest]
#[case::ghost_step("fasteners", "step", json!(Uuid::from_u128(5)), "it refers to a step 00000000-0000-0000-0000-000000000005 that is not listed")]
#[case::ghost_part("connectors", "serves", json!(Uuid::from_u128(5)), "serves: it refers to a part")]
#[case::ghost_heat("heats", "target", json!(Uuid::from_u128(5)), "target: it refers to a part")]
#[case::ghost_fate("jobs", "fates", json!({ (Uuid::from_u128(5).to_string()): "keep" }), "fates: it refers to a part")]
#[case::ghost_wording("jobs", "wording", json!({ (Uuid::from_u128(5).to_string()): "x" }), "wording: it refers to a step")]
#[case::ghost_recording("head", "follows", json!(Uuid::from_u128(5)), "follows: it refers to a recording")]
#[case::count("fasteners", "count", json!(4_294_967_295_u32), "4294967295 screws in one group cannot be meant")]
#[case::no_screws("fasteners", "count", json!(0), "A group of no screws")]
#[case::refitted("fasteners", "refitted", json!(600), "600 screws in one group")]
#[case::length("fasteners", "length_mm", json!(-4.0), "length_mm: -4 mm is out of range")]
#[case::torque("fasteners", "torque_nm", json!(1e9), "torque_nm: 1000000000 N·m is out of range")]
#[case::temperature("heats", "temp_c", json!([90.0, 40.0]), "90 is above 40")]
#[case::dwell("heats", "dwell_s", json!([0.0, 1e9]), "dwell_s: 1000000000 s is out of range")]
#[case::depth("seams", "depth_mm", json!(-1.0), "depth_mm: -1 mm is out of range")]
#[case::ghost_face("seams", "face", json!(Uuid::from_u128(5)), "face: it refers to a layer")]
#[case::hinge("seams", "swing", json!({ "hinge": null, "at_most_deg": 900.0, "because": null }), "900 ° is out of range")]
#[case::rank("steps", "rank", json!("?"), "rank: “?” sorts nowhere")]
#[case::empty_title("steps", "title", json!("  "), "title: Nothing is written here")]
#[case::long_title("steps", "title", json!("x".repeat(201)), "has 201 characters; at most 200 fit")]
#[case::turned("parts", "name", json!("lid \u{202e}x"), "U+202E, which turns writing round")]
#[case::control("cautions", "text", json!("a\u{7}b"), "the control character U+0007")]
#[case::long_note("steps", "note", json!("x".repeat(4_001)), "has 4001 characters")]
#[case::confidence("requirements", "confidence", json!(7.0), "confidence: 7")]
#[case::no_ways("requirements", "ways", json!([]), "names at least one step")]
#[case::outline("layers", "outline", json!({ "corners": [] }), "lies outside the outline of “Rear”, which is 0 × 0 mm")]
#[case::weights("head", "weights", json!({ "tool_change": 9_000_000, "turn": 0, "reheating": 0, "displaced": 0 }), "90000 s for one change")]
#[case::unknown("parts", "colour", json!("red"), "which this format does not have")]
fn refuses_what_cannot_hold(#[case] map: &str, #[case] field: &str, #[case] value: Value, #[case] says: &str) {
    let mut manual = full();
    let entity = if map == "head" { &mut manual["head"] } else { first(&mut manual, map) };
    entity[field] = value;
    let refused = given(&manual).unwrap_err();
    assert!(refused.contains(says), "{refused}");
}

#[test]
fn refuses_an_entity_under_another_key() {
    let mut manual = full();
    let parts = manual["parts"].as_object_mut().unwrap();
    let key = parts.keys().next().unwrap().clone();
    let part = parts.remove(&key).unwrap();
    parts.insert(Uuid::from_u128(5).to_string(), part);
    let refused = given(&manual).unwrap_err();
    assert!(refused.contains(&key) && refused.contains("listed under another id"), "{refused}");
}

#[test]
fn what_was_stored_under_laxer_rules_still_opens() {
    let mut manual = full();
    first(&mut manual, "parts")["name"] = json!("x".repeat(300));
    assert!(given(&manual).is_err());
    assert!(from_stored(&manual.to_string()).is_ok());
}

/// A recording is attached with what somebody else drafted of it: the draft is judged like a file.
#[rstest]
#[case("count", json!(4_294_967_295_u32), "cannot be meant")]
#[case("holds", json!([Uuid::from_u128(5)]), "that is not listed")]
#[case("name", json!("a\u{202e}b"), "turns writing round")]
fn a_draft_inside_an_edit_is_judged_as_well(#[case] field: &str, #[case] value: Value, #[case] says: &str) {
    let manual = given(&full()).unwrap();
    let group = FastenerGroup::new(Uuid::from_u128(6).into(), manual.order()[0]);
    let mut group = serde_json::to_value(group).unwrap();
    group[field] = value;
    let drafted = Drafted { fasteners: vec![serde_json::from_value(group).unwrap()], ..Drafted::default() };
    let recording = RecordingRef { id: RecordingId(Uuid::from_u128(7)), title: "second".into(), duration_ms: 0 };
    let edit = Edit::Recording(RecordingEdit::Attach { recording, drafted: Some(Box::new(drafted)) });
    let refused = manual.apply(&edit, "ann").unwrap_err().to_string();
    assert!(refused.contains(says), "{refused}");
}

/// Two people: one adds a part, the other works with it, the first takes the part back.
#[test]
fn nothing_is_undone_from_under_somebody_else() {
    let manual = given(&full()).unwrap();
    let (part, group) = (Uuid::from_u128(5).into(), *manual.fasteners.keys().next().unwrap());
    let add = Edit::Part(PartEdit::Add { id: part, name: "shim".into() });
    let (with, added) = manual.apply(&add, "ann").unwrap();
    let hold = Edit::Fastener(FastenerEdit::Set { id: group, field: FastenerField::Holds(vec![part]) });
    let (used, held) = with.apply(&hold, "bob").unwrap();
    let refused = used.revert(&added).unwrap_err().to_string();
    assert!(refused.contains("something made since needs it") && refused.contains("holds"), "{refused}");
    let (free, _) = used.revert(&held).unwrap();
    assert!(free.revert(&added).is_ok());
}

/// Figures and texts from the ends of what JSON can say.
fn absurd() -> impl Strategy<Value = Value> {
    prop_oneof![
        Just(json!(-1)),
        Just(json!(0)),
        Just(json!(4_294_967_295_u32)),
        Just(json!(1e300)),
        Just(json!(u64::MAX)),
        Just(json!("")),
        Just(json!("\u{0}")),
        Just(json!("\u{202e}\r\n")),
        Just(json!("# * | ` <b>")),
        Just(json!(Uuid::from_u128(5))),
        Just(json!("x".repeat(5_000))),
        Just(json!([])),
        Just(json!([[]])),
        Just(json!({})),
        Just(json!(null)),
        Just(json!(true)),
    ]
}

/// The n-th value of a document that is no object or list, or one of its lists.
fn spot(value: &mut Value, n: usize) -> &mut Value {
    fn count(value: &Value) -> usize {
        match value {
            Value::Object(fields) => fields.values().map(count).sum(),
            Value::Array(items) => 1 + items.iter().map(count).sum::<usize>(),
            _ => 1,
        }
    }
    let mut left = n % count(value);
    let mut at = value;
    loop {
        if at.is_array() {
            if left == 0 {
                return at;
            }
            left -= 1;
        }
        let inner: Vec<&mut Value> = match at {
            Value::Object(fields) => fields.values_mut().collect(),
            Value::Array(items) => items.iter_mut().collect(),
            leaf => return leaf,
        };
        let mut next = None;
        for value in inner {
            let size = count(value);
            if left < size {
                next = Some(value);
                break;
            }
            left -= size;
        }
        at = next.expect("counted");
    }
}

/// Whatever is worked out of a manual, worked out.
fn work_on(manual: &Manual) {
    let found = checks::findings(manual);
    assert!(found.iter().all(|f| !f.says.is_empty()));
    publish::guide(manual);
    publish::markdown(manual);
    manual.order();
}

proptest! {
    #[test]
    fn whatever_is_heard_the_draft_is_sound(words in proptest::collection::vec(prop_oneof![
        4 => prop::sample::select(vec!["remove", "the", "cover", "four", "screws", "PH1", "now", "with", "a", "spudger", "warm",
            "it", "to", "90", "degrees", "for", "minutes", "careful", "unplug", "cable", "and", ".", ",", "000000", "-7"]).prop_map(str::to_owned),
        1 => prop::sample::select(vec!["\u{202e}cover", "bat\u{7}tery", "\u{93}", "\u{2066}", "\u{200b}", "\r", "\u{b}lid"]).prop_map(str::to_owned),
        1 => "[a-z]{150,400}",
        1 => Just("x".repeat(5_000)),
    ], 1..40)) {
        let Ok(recording) = Recording::parse(words.join(" ").as_bytes()) else { return Ok(()) };
        let reading = read(&recording);
        let reference = RecordingRef { id: RecordingId(Uuid::nil()), title: "t".into(), duration_ms: 0 };
        let manual = draft(ManualId(Uuid::nil()), "Draft", "", &[Source { recording: reference, reading: &reading }]);
        prop_assert_eq!(given(&serde_json::to_value(&manual).unwrap()), Ok(manual));
    }

    #[test]
    fn a_spoilt_manual_is_refused_or_can_be_worked_on(spots in proptest::collection::vec((any::<usize>(), absurd()), 1..4)) {
        let mut manual = full();
        for (n, value) in spots {
            *spot(&mut manual, n) = value;
        }
        if let Ok(manual) = given(&manual) {
            work_on(&manual);
            prop_assert_eq!(given(&serde_json::to_value(&manual).unwrap()), Ok(manual));
        }
    }

    #[test]
    fn a_spoilt_edit_is_refused_or_leaves_a_manual_that_opens(
        which in any::<prop::sample::Index>(),
        spots in proptest::collection::vec((any::<usize>(), absurd()), 1..3),
    ) {
        let manual = given(&full()).unwrap();
        let edits = edits_on(&manual);
        let mut edit = serde_json::to_value(which.get(&edits)).unwrap();
        for (n, value) in spots {
            *spot(&mut edit, n) = value;
        }
        let Ok(edit) = serde_json::from_value::<Edit>(edit) else { return Ok(()) };
        if let Ok((next, _)) = manual.apply(&edit, "ann") {
            work_on(&next);
            prop_assert_eq!(given(&serde_json::to_value(&next).unwrap()), Ok(next));
        }
    }
}

/// An edit of each kind that carries figures, texts or references from outside.
fn edits_on(manual: &Manual) -> Vec<Edit> {
    let step = manual.order()[0];
    let part = *manual.parts.keys().next().unwrap();
    let group = manual.fasteners.values().find(|g| !g.holes.is_empty()).unwrap();
    let layer = *manual.layers.keys().next().unwrap();
    let new = |n: u128| Uuid::from_u128(900 + n);
    let set = |field| Edit::Fastener(FastenerEdit::Set { id: group.id, field });
    let drafted = Drafted {
        steps: manual.steps.values().take(1).map(|s| Step { id: new(1).into(), ..s.clone() }).collect(),
        fasteners: vec![FastenerGroup { id: new(2).into(), ..group.clone() }],
        heats: manual.heats.values().map(|h| Heat { id: new(3).into(), ..h.clone() }).collect(),
        ..Drafted::default()
    };
    let recording = RecordingRef { id: RecordingId(new(4)), title: "second".into(), duration_ms: 1_000 };
    vec![
        Edit::Recording(RecordingEdit::Attach { recording, drafted: Some(Box::new(drafted)) }),
        set(FastenerField::Count(Some(3))),
        set(FastenerField::LengthMm(Some(3.0))),
        set(FastenerField::TorqueNm(Some(0.2))),
        set(FastenerField::EmptyOnArrival(1)),
        set(FastenerField::TightenTold(vec![1, 2, 3, 4])),
        set(FastenerField::Joint(group.joint)),
        Edit::Fastener(FastenerEdit::Shift { from: group.id, to: group.id, count: 1, holes: vec![1] }),
        Edit::Hole(HoleEdit::Place { id: group.id, layer, holes: group.holes.clone() }),
        Edit::Hole(HoleEdit::Ring { id: group.id, layer, centre: group.holes[0], radius_mm: 2.0, count: 4 }),
        Edit::Layer(LayerEdit::Redraw { id: layer, outline: manual.layers[&layer].outline.clone() }),
        Edit::Step(StepEdit::Set { id: step, field: StepField::Actions(manual.steps[&step].actions.clone()) }),
        Edit::Step(StepEdit::Set { id: step, field: StepField::TimeS(Some(60.0)) }),
        Edit::Step(StepEdit::Set { id: step, field: StepField::Tools(vec!["knife".into()]) }),
        Edit::Part(PartEdit::Set { id: part, field: PartField::Fitted(manual.parts[&part].fitted.clone()) }),
        Edit::Part(PartEdit::Set { id: part, field: PartField::Replacement(Some(Replacement::default())) }),
        Edit::Job(JobEdit::Add { id: new(5).into(), title: "job".into(), targets: vec![part], without: vec![step] }),
        Edit::Note(NoteEdit::Add { id: new(6).into(), kind: NoteKind::Damage, text: "dent".into(), job: None }),
        Edit::Requirement(RequirementEdit::Add {
            id: new(7).into(),
            step: manual.order()[3],
            ways: vec![vec![step]],
            because: "why".into(),
        }),
    ]
}
