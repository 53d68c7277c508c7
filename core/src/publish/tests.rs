use super::*;
use crate::manual::drafted::manual;
use crate::manual::{Replacement, StepEdit, StepField, from_json};
use rstest::rstest;
use uuid::Uuid;

const KETTLE: &str = "[0:00] Tools required, a Phillips screwdriver and a spudger.\n\n\
    [0:10] Remove four Phillips PH1 screws, length 8 millimetres, from the base plate. Lift off the base plate.\n\n\
    [0:30] Caution. The wires tear easily. Disconnect the battery cable. Pull out the battery.\n\n\
    [0:50] Put the battery back in. Put the base plate on and install three Phillips PH1 screws, length 8 millimetres, in the base plate.";

#[test]
fn a_trial_on_the_way_says_what_is_live() {
    let told = |trial| {
        let manual = manual(
            "[0:00] Take off the cover. Take out the tray. Disconnect the battery cable. Take out the battery. Take out the main board.",
        );
        let id = manual.steps_in(Phase::Teardown)[1].id;
        let set = crate::manual::Edit::Step(StepEdit::Set { id, field: StepField::Trial(trial) });
        markdown(&manual.apply(&set, "Ann").unwrap().0)
    };
    let says =
        "Live now: battery. Keep off the main board. Touch nothing inside while it is live, and cut the power again.";
    assert!(told(true).contains(says), "{}", told(true));
    assert!(!told(false).contains("Live now"));
}

#[test]
fn the_reader_sees_cautions_before_the_step_and_the_rebuild_behind() {
    let text = markdown(&manual(KETTLE));
    let place = |needle: &str| text.find(needle).unwrap_or_else(|| panic!("{needle} is missing in\n{text}"));
    assert!(place("> **") < place("Disconnect the battery cable."));
    assert!(place("## Taking apart") < place("## Putting together"));
    assert!(text.contains("4 × PH1, 8 mm, base plate"));
    assert!(text.contains("4 out, 3 back, 0 new, 1 left over"));
}

#[test]
fn what_is_left_over_blocks_publishing() {
    let all = crate::checks::findings(&manual(KETTLE));
    let blocking: Vec<&str> = crate::checks::blocking(&all).map(|f| f.says.as_str()).collect();
    assert_eq!(blocking, ["1 left over: 4 out, 3 back (PH1, 8 mm, base plate). Say where the rest goes."]);
    assert!(all.iter().any(|f| f.says == "4 of 4 steps have not been reviewed by anybody."));
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
    assert!(cut.steps_in(Phase::Teardown).len() < whole.steps_in(Phase::Teardown).len(), "it leaves something out");
    let numbered = |m: &Manual| {
        let mut m = m.clone();
        for part in m.parts.values_mut() {
            part.replacement = Some(Replacement { number: Some(part.name.clone()), ..Default::default() });
        }
        m
    };
    assert_eq!(orders(&numbered(&cut)), ["base plate: No. base plate"]);
    let all = orders(&numbered(&whole));
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
#[case(r#"{"format": 2}"#, "does not fit its format")]
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
    assert!(called.contains(&format!("guide {}: calls: A guide cannot send its readers to itself", job.0)), "{called}");
    let ring = broken(&|m| {
        let ids: Vec<PartId> = m.parts.keys().copied().collect();
        for (i, id) in ids.iter().enumerate() {
            m.parts.get_mut(id).unwrap().inside = Some(ids[(i + 1) % ids.len()]);
        }
    });
    assert!(ring.contains("cannot sit inside itself"), "{ring}");
    let orphan = broken(&|m| m.jobs.clear());
    assert!(orphan.contains("it refers to a guide") && orphan.contains("that is not listed"), "{orphan}");
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
    assert!(place("battery: No. K-7") < place("## The new part") && place("## The new part") < place("## Tools"));
    assert!(text.contains("Keep the old battery until"), "{text}");
    assert!(!markdown(&manual).contains("## The new part"), "nothing new goes in without a job");
    assert!(!text.contains("dent"), "how it arrived is not the reader's business\n{text}");
    assert!(!markdown(&manual).contains("It boils twice"), "it belongs to the guide alone");
}

#[rstest]
#[case(crate::manual::PartFate::Renew, "Put the new battery back in.", true)]
#[case(crate::manual::PartFate::Keep, "Put the battery back in.", true)]
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

const SORTER: &str =
    "[0:00] Take off the cover.\n\n[0:10] Take out the fan.\n\n[0:20] Take out the tray.\n\n[0:30] Now the assembly.";

#[test]
fn what_nobody_told_of_the_rebuild_says_so_once() {
    let some = markdown(&manual(&format!("{SORTER} Put the fan in.")));
    let whole_step = "### 1. Fit the tray\n\n- Fit the tray.\n  *Not told: the reverse of step 3.*";
    assert!(some.contains(whole_step), "{some}");
    let nothing = markdown(&manual(SORTER));
    assert_eq!((nothing.matches("Nobody told").count(), nothing.matches("Not told").count()), (1, 0), "{nothing}");
}

/// A guide for one job keeps what the narrator told of putting its parts back, and nothing of the others.
#[test]
fn a_cut_guide_keeps_the_told_steps_that_belong_to_it() {
    use crate::manual::{Edit, JobEdit};
    let m = manual(&format!(
        "{SORTER} Push the tray in until it clicks.\n\n[0:50] Put the fan in, gently.\n\n[1:00] Snap the cover on."
    ));
    let fan = m.parts.values().find(|p| p.name == "fan").unwrap().id;
    let id = JobId(Uuid::from_u128(1));
    let add = JobEdit::Add { id, title: "New fan".into(), targets: vec![fan], without: vec![] };
    let m = m.apply(&Edit::Job(add), "Ann").unwrap().0;
    let cut = crate::order::cut(&m, &m.jobs[&id]).expect("a way");
    let told: Vec<&str> = cut.steps_in(Phase::Rebuild).iter().map(|s| s.title.as_str()).collect();
    assert_eq!(told, ["Fit the fan", "Fit the cover"]);
}

/// Orders stand before the act, where they are followed: loosening out, tightening in.
#[test]
fn orders_of_screws_stand_before_the_act() {
    use crate::manual::written;
    let m = written::manual("1 lid: 4 PH0 8 mm at 10,10 90,10 90,90 10,90");
    let text = markdown(&m);
    let place = |needle: &str| text.find(needle).unwrap_or_else(|| panic!("{needle} is missing in\n{text}"));
    assert!(place("In this order: Loosen A1, A3, A2, A4, half a turn each.") < place("- Take it out."));
    assert!(place("In this order: Tighten A1, A3, A2, A4: seat all by hand") < place("Drive in the four PH0 screws"));
}

#[test]
fn what_is_mixed_up_is_warned_of_where_the_screws_go_in() {
    use crate::manual::{CautionEdit, Edit, written};
    use crate::reading::CautionSubject;
    let m = written::manual("1 lid: 4 PH0 8 mm\n2 fan: 2 PH0 6 mm");
    let steps = m.order();
    let add = |n: u128, step, about, text: &str| {
        Edit::Caution(CautionEdit::Add {
            id: CautionId(Uuid::from_u128(n)),
            step,
            about,
            hazard: None,
            text: text.into(),
        })
    };
    let edits = [
        add(1, steps[1], CautionSubject::ScrewMixup, "Short ones only."),
        add(2, steps[0], CautionSubject::Pinch, "The cable lies in the groove."),
        add(3, steps[0], CautionSubject::Cable, "Do not pull it off: a cable holds it."),
        add(4, steps[0], CautionSubject::Cable, "The flex tears easily. Bend it, and you tear it."),
        add(5, steps[0], CautionSubject::Lens, "Near the lens go slowly with the card."),
        add(6, steps[0], CautionSubject::Glass, "The glass is thin and splinters."),
    ];
    let text = markdown(&edits.iter().fold(m, |m, e| m.apply(e, "Ann").unwrap().0));
    let back = &text[text.find("## Putting together").unwrap()..];
    let place = |needle: &str| back.find(needle).unwrap_or_else(|| panic!("{needle} is missing in\n{back}"));
    assert!(place("Short ones only.") < place("Drive in the two PH0 screws"));
    assert!(place("Drive in the two PH0 screws") < place("The cable lies in the groove."));
    assert!(back.contains("The flex tears easily. Bend it, and you tear it."), "{back}");
    assert!(!back.contains("Do not pull it off"), "nobody pulls it off there\n{back}");
    assert!(!back.contains("go slowly with the card"), "no card passes the lens there\n{back}");
    assert!(back.contains("The glass is thin and splinters."), "what hurts people is said again\n{back}");
}

#[test]
fn readers_are_told_how_connectors_are_made_again() {
    let manual = crate::manual::drafted::manual(
        "[0:00] Take off the cover. Disconnect the battery cable. Take out the battery. Flip up the latch and disconnect the \
         display flex. Take out the display.",
    );
    let told = markdown(&manual);
    let line = "Step 3, display, latch that flips up: to make it, slide the flat cable in square up to its line, then flip the \
                latch down; it sits when the line stands level with the edge";
    assert!(told.contains("## Cables") && told.contains(line), "{told}");
    assert!(told.contains("- Unplug: display. Flip the latch up by 90°"), "{told}");
    assert!(told.contains("Connect the display: slide the flat cable in square"), "{told}");
}

#[test]
fn a_kind_brings_its_notice_once_and_only_where_nobody_warned() {
    let told = |warned: &str| {
        markdown(&crate::manual::drafted::manual(&format!(
            "[0:00] Take off the cover. {warned} Flip up the latch and disconnect the display flex. Take out the display.\n\n\
             [0:30] Flip up the latch and disconnect the touch flex. Take out the touch board."
        )))
    };
    let notice = "> **Notice, connector:** Pried under its hinge, the latch breaks off.";
    assert_eq!(told("").matches(notice).count(), 1, "{}", told(""));
    let warned = "Caution. The flex of the display tears easily.";
    assert_eq!(told(warned).matches(notice).count(), 0, "{}", told(warned));
}

fn orders(manual: &Manual) -> Vec<String> {
    around::orders(manual, &crate::rebuild::fold(manual))
}

/// New screws, what sticks once, what opening destroys, and what closes the joint again: all is ordered, and nothing else.
#[test]
fn what_becomes_new_is_on_the_list() {
    use crate::manual::*;
    use crate::units::millimetres;
    let told = "[0:00] Pry up the rear cover with a spudger. Lift off the rear cover. Remove two T6 screws, length 4 millimetres, \
                from the fan. Take out the fan. Peel off the copper tape. Take out the gasket.";
    let mut manual = drafted::manual(told);
    assert_eq!(orders(&manual), ["copper tape: new, it holds once"]);
    let group = *manual.fasteners.keys().next().expect("screws");
    let gasket = manual.parts.values().find(|p| p.name == "gasket").expect("a gasket").id;
    let seam = *manual.seams.keys().next().expect("a joint");
    let rebond = Rebond { with: Some("adhesive frame".to_owned()), width: Some(millimetres(2.0)), ..Rebond::default() };
    for edit in [
        Edit::Fastener(FastenerEdit::Set { id: group, field: FastenerField::Fate(FastenerFate::Renew) }),
        Edit::Part(PartEdit::Set { id: gasket, field: PartField::SingleUse(true) }),
        Edit::Seam(SeamEdit::Set { id: seam, field: SeamField::Rebond(Some(rebond)) }),
    ] {
        manual = manual.apply(&edit, "Ann").expect("a field").0;
    }
    let mut list = orders(&manual);
    list.sort();
    let wanted = [
        "adhesive frame, 2 mm wide (rear cover)",
        "copper tape: new, it holds once",
        "gasket: a new one",
        "screws: 2 × T6, 4 mm, fan",
    ];
    assert_eq!(list, wanted);
}
