use super::*;
use crate::manual::{RecordingRef, Replacement, Source, draft, from_json};
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
    let all = crate::checks::findings(&manual(KETTLE));
    let blocking: Vec<&str> = crate::checks::blocking(&all).map(|f| f.says.as_str()).collect();
    assert_eq!(blocking, ["1 left over: 4 out, 3 back (PH1, 8 mm, base plate). Say where the rest goes."]);
    assert!(all.iter().any(|f| f.says == "2 of 2 steps have not been reviewed by anybody."));
}

#[test]
fn a_guide_leaves_parts_out_on_purpose() {
    use crate::manual::{Edit, JobEdit};
    let whole = manual(KETTLE);
    let plate = whole.parts.values().find(|p| p.name == "base plate").unwrap().id;
    let id = JobId(Uuid::from_u128(1));
    let add = JobEdit::Add { id, title: "New plate".into(), targets: vec![plate], without: vec![] };
    let whole = whole.apply(&Edit::Job(add), "Ann").unwrap().0;
    let cut = crate::order::cut(&whole, &whole.jobs[&id]).expect("a way");
    assert!(cut.steps.len() < whole.steps_in(Phase::Teardown).len(), "it leaves something out");
    let numbered = |m: &Manual| {
        let mut m = m.clone();
        for part in m.parts.values_mut() {
            part.replacement = Some(Replacement { number: Some(part.name.clone()), ..Default::default() });
        }
        m
    };
    assert_eq!(around::orders(&numbered(&cut)), ["base plate: No. base plate"]);
    let all = around::orders(&numbered(&whole));
    assert!(all.len() > 1, "the whole manual orders whatever its steps move: {all:?}");
    let rules: Vec<_> = crate::checks::findings(&cut).into_iter().map(|f| f.rule).collect();
    assert!(!rules.contains(&crate::finding::RuleId::UnreachedPart), "{rules:?}");
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

#[test]
fn refuses_what_leads_back_to_itself() {
    let (manual, job) = kettle_with_guide();
    let broken = |change: &dyn Fn(&mut Manual)| {
        let mut m = manual.clone();
        change(&mut m);
        from_json(&serde_json::to_string(&m).unwrap()).unwrap_err().to_string()
    };
    let called = broken(&|m| m.jobs.get_mut(&job).unwrap().calls = vec![job]);
    assert!(called.contains("“New battery” calls one that is not listed, or itself"), "{called}");
    let ring = broken(&|m| {
        let ids: Vec<PartId> = m.parts.keys().copied().collect();
        for (i, id) in ids.iter().enumerate() {
            m.parts.get_mut(id).unwrap().inside = Some(ids[(i + 1) % ids.len()]);
        }
    });
    assert!(ring.contains("sits inside itself"), "{ring}");
    let orphan = broken(&|m| m.jobs.clear());
    assert!(orphan.contains("belongs to a guide that is not listed"), "{orphan}");
}

/// The kettle with a stage, a label, notes and a guide about its battery.
fn kettle_with_guide() -> (Manual, JobId) {
    use crate::manual::*;
    let mut m = manual(KETTLE);
    let first = m.order()[0];
    let battery = m.parts.values().find(|p| p.name == "battery").unwrap().id;
    let job = JobId(Uuid::from_u128(1));
    let note = |n: u128, kind, text: &str, job| {
        Edit::Note(NoteEdit::Add { id: NoteId(Uuid::from_u128(n)), kind, text: text.to_owned(), job })
    };
    let new = Replacement {
        number: Some("K-7".into()),
        price: Some(12.5),
        currency: Some("EUR".into()),
        ..Replacement::default()
    };
    let edits = [
        Edit::Step(StepEdit::Set { id: first, field: StepField::Stage(Some("Opening".into())) }),
        Edit::Part(PartEdit::Set { id: battery, field: PartField::Replacement(Some(new)) }),
        Edit::Job(JobEdit::Add { id: job, title: "New battery".into(), targets: vec![battery], without: vec![] }),
        note(1, NoteKind::Before, "The kettle is cold.", None),
        note(2, NoteKind::MustPass, "It boils twice.", Some(job)),
        note(3, NoteKind::Damage, "A dent in the lid.", None),
    ];
    for edit in edits {
        m = m.apply(&edit, "Ann").unwrap().0;
    }
    (m, job)
}

#[test]
fn what_stands_around_the_work_frames_the_steps() {
    let (manual, job) = kettle_with_guide();
    let cut = crate::order::cut(&manual, &manual.jobs[&job]).unwrap();
    let text = markdown(&cut);
    let place = |needle: &str| text.find(needle).unwrap_or_else(|| panic!("{needle} is missing in\n{text}"));
    assert!(
        place("The kettle is cold") < place("**Opening**") && place("**Opening**") < place("Remove the base plate")
    );
    assert!(place("## Putting together") < place("It boils twice"));
    assert!(text.contains("battery: No. K-7, 12.5 EUR"), "{text}");
    assert!(!text.contains("dent"), "how it arrived is not the reader's business\n{text}");
    assert!(!markdown(&manual).contains("It boils twice"), "it belongs to the guide alone");
}

#[rstest]
#[case(crate::manual::PartFate::Renew, "Fit the new battery.", true)]
#[case(crate::manual::PartFate::Keep, "Fit the battery.", true)]
#[case(crate::manual::PartFate::Scrap, "the battery.", false)]
fn what_becomes_of_a_part_shows_in_the_rebuild(
    #[case] fate: crate::manual::PartFate,
    #[case] line: &str,
    #[case] stands: bool,
) {
    use crate::manual::{Edit, JobEdit};
    let (manual, job) = kettle_with_guide();
    let part = manual.jobs[&job].targets[0];
    let manual = manual.apply(&Edit::Job(JobEdit::SetFate { id: job, part, fate }), "Ann").unwrap().0;
    let guide = guide(&crate::order::cut(&manual, &manual.jobs[&job]).unwrap());
    let installs =
        guide.fold.rebuild.iter().flat_map(|s| &s.lines).filter(|l| l.act == Some(crate::reading::Act::Install));
    let lines: Vec<&str> = installs.map(|l| l.text.as_str()).collect();
    assert_eq!(lines.iter().any(|l| l.ends_with(line)), stands, "{lines:?}");
}

#[test]
fn a_stage_goes_on_when_its_first_step_is_gone() {
    use crate::manual::{Edit, StepEdit};
    let (manual, _) = kettle_with_guide();
    let order = manual.order();
    let gone = manual.apply(&Edit::Step(StepEdit::Remove { id: order[0] }), "Ann").unwrap().0;
    assert_eq!(gone.steps[&order[1]].stage.as_deref(), Some("Opening"));
    let merged = manual.apply(&Edit::Step(StepEdit::Merge { id: order[0], into: order[1] }), "Ann").unwrap().0;
    assert_eq!(merged.steps[&order[1]].stage.as_deref(), Some("Opening"));
}

#[test]
fn a_guide_sends_its_readers_to_another_one() {
    use crate::manual::{Edit, JobEdit, NoteEdit, NoteKind};
    let (m, battery) = kettle_with_guide();
    let plate = m.parts.values().find(|p| p.name == "base plate").unwrap().id;
    let open = JobId(Uuid::from_u128(2));
    let text = "The water is out.".to_owned();
    let note = NoteEdit::Add { id: NoteId(Uuid::from_u128(9)), kind: NoteKind::Before, text, job: Some(open) };
    let edits = [
        Edit::Job(JobEdit::Add { id: open, title: "Open the kettle".into(), targets: vec![plate], without: vec![] }),
        Edit::Job(JobEdit::Call { id: battery, calls: vec![open] }),
        Edit::Note(note),
    ];
    let m = edits.iter().fold(m, |m, e| m.apply(e, "Ann").unwrap().0);
    let text = markdown(&crate::order::cut(&m, &m.jobs[&battery]).unwrap());
    let told = "### 1. Follow the guide “Open the kettle”\n\n- It expects: The water is out.\n- It leaves out of the device: base plate";
    assert!(text.contains(told), "{text}");
    assert!(!text.contains("Lift off the base plate.") && text.contains("### 2. Remove the battery"), "{text}");
    let view = crate::order::jobs(&m).into_iter().find(|j| j.id == battery).unwrap();
    assert_eq!(view.route.unwrap().totals.steps, 2, "both count");
    assert_eq!((view.prices[0].amount, view.unpriced), (12.5, 0));
    // It cannot lead back, and what is called stays.
    let back = m.apply(&Edit::Job(JobEdit::Call { id: open, calls: vec![battery] }), "Ann").unwrap_err();
    assert!(back.to_string().contains("sends them back"), "{back}");
    let gone = m.apply(&Edit::Job(JobEdit::Remove { id: open }), "Ann").unwrap_err();
    assert!(gone.to_string().contains("“New battery” sends its readers"), "{gone}");
}
