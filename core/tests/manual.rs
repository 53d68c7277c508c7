//! The manual aspect by aspect: what each edit changes, what it leaves, and who is written down for it.

use paso_core::ids::*;
use paso_core::manual::*;
use paso_core::publish;
use paso_core::reading::{self, Act, CautionSubject, Consumable, Drive, FastenerOp, HeatSource, StatementKind};
use paso_core::recording::Recording;
use paso_core::units;
use rstest::{fixture, rstest};
use serde_json::json;
use uuid::Uuid;

const MIXER: &str = "# Recording: Hand mixer\n\n\
    [0:00] Tools required. Torx T10 screwdriver, spudger.\n\n\
    [0:10] Remove five torx T10 screws, length 14 millimetres, from the left shell. Lift off the left shell.\n\n\
    [0:30] Caution. The switch wires are short and tear. Disconnect the motor cable. Pull out the motor.\n\n\
    [0:50] Heat the grip pad with the hair dryer for one minute. Peel off the grip pad.\n\n\
    [1:10] Put the motor back in. Connect the motor cable.\n\n\
    [1:30] Put the left shell on and install five torx T10 screws, length 14 millimetres, in the left shell.";

struct Drafted {
    manual: Manual,
    reading: reading::Reading,
    recording: RecordingId,
    source: Recording,
}

fn drafted(text: &str) -> Drafted {
    let recording = Recording::parse(text.as_bytes()).unwrap();
    let reading = reading::read(&recording);
    let id = RecordingId(Uuid::from_u128(77));
    let source = RecordingRef { id, title: "take one".into(), duration_ms: recording.duration_ms() };
    let manual =
        draft(ManualId(Uuid::from_u128(1)), "Mixer", "Mixer 2", &[Source { recording: source, reading: &reading }]);
    Drafted { manual, reading, recording: id, source: recording }
}

#[fixture]
fn mixer() -> Drafted {
    drafted(MIXER)
}

fn apply(manual: &Manual, edit: Edit) -> Manual {
    manual.apply(&edit, "Ann").unwrap_or_else(|e| panic!("{edit:?}: {e}")).0
}

fn refused(manual: &Manual, edit: Edit) -> String {
    manual.apply(&edit, "Ann").expect_err("refused").to_string()
}

fn step(manual: &Manual, title: &str) -> StepId {
    manual.steps.values().find(|s| s.title == title).unwrap_or_else(|| panic!("no step “{title}”")).id
}

fn part(manual: &Manual, name: &str) -> PartId {
    manual.parts.values().find(|p| p.name == name).unwrap_or_else(|| panic!("no part “{name}”")).id
}

#[rstest]
fn a_draft_holds_steps_screws_connectors_heat_and_cautions(mixer: Drafted) {
    let m = &mixer.manual;
    let titles = |phase| m.steps_in(phase).iter().map(|s| s.title.clone()).collect::<Vec<_>>();
    assert_eq!(titles(Phase::Teardown), ["Remove the left shell", "Remove the motor", "Remove the grip pad"]);
    assert_eq!(titles(Phase::Rebuild), ["Fit the motor", "Fit the left shell"]);
    let screws = m.fasteners.values().next().unwrap();
    assert_eq!(
        (screws.op, screws.count, screws.refitted, screws.drive),
        (FastenerOp::Remove, Some(5), Some(5), Some(Drive::Torx))
    );
    assert_eq!(screws.length.map(units::in_millimetres), Some(14.0));
    let heat = m.heats.values().next().unwrap();
    assert_eq!((heat.source, m.part_name(heat.target.unwrap())), (Some(HeatSource::HairDryer), "grip pad"));
    let motor = step(m, "Remove the motor");
    assert_eq!(
        m.cautions_of(motor).map(|c| c.text.as_str()).collect::<Vec<_>>(),
        ["The switch wires are short and tear."]
    );
    assert_eq!(m.connectors_of(motor).count(), 1);
    assert_eq!(m.seams.values().next().map(|s| s.kind), Some(SeamKind::Glue));
}

#[rstest]
#[case::care("Lift off the lid carefully. Take out the fan.", &["Remove the lid.", "Take out the fan."])]
#[case::says_of_what(
    "Lift off the lid carefully, because it hangs on a cable. Take out the fan.",
    &["Lift off the lid carefully, because it hangs on a cable.", "Take out the fan."]
)]
#[case::a_story(
    "Take out the fan. I looked at it for a long while to see if that lamp comes on by itself, and it did.",
    &["Take out the fan."]
)]
#[case::by_hand("Undo the four screws of the lid by hand. Lift off the lid.", &["Undo the four screws of the lid by hand.", "Lift off the lid."])]
fn a_drafted_sentence_says_what_to_do(#[case] told: &str, #[case] wanted: &[&str]) {
    let manual = drafted(&format!("# Recording: Hand mixer\n\n[0:00] {told}")).manual;
    let steps = manual.steps_in(Phase::Teardown);
    let texts: Vec<String> = steps.iter().flat_map(|s| &s.actions).map(|a| manual.sentence(a)).collect();
    assert_eq!(texts, wanted);
}

#[rstest]
fn evidence_leads_back_to_the_words(mixer: Drafted) {
    let text: Vec<char> = MIXER
        .split("\n\n")
        .skip(1)
        .map(|p| p.split_once("] ").unwrap().1)
        .collect::<Vec<_>>()
        .join("\n")
        .chars()
        .collect();
    let motor = &mixer.manual.steps[&step(&mixer.manual, "Remove the motor")];
    let words: Vec<String> = motor
        .evidence
        .iter()
        .map(|e| match e {
            Evidence::Recording { start, end, .. } => text[*start..*end].iter().collect(),
            other => panic!("{other:?}"),
        })
        .collect();
    assert_eq!(words, ["Disconnect the motor cable.", "Pull out the motor."]);
}

#[rstest]
fn two_recordings_make_one_manual(mixer: Drafted) {
    let second = Recording::parse(b"[0:00] Remove the beater.\n\n[0:10] Pull out the gear shaft.").unwrap();
    let reading = reading::read(&second);
    let sources = [
        Source { recording: mixer.manual.recordings[&mixer.recording].clone(), reading: &mixer.reading },
        Source {
            recording: RecordingRef {
                id: RecordingId(Uuid::from_u128(78)),
                title: "take two".into(),
                duration_ms: 20_000,
            },
            reading: &reading,
        },
    ];
    let both = draft(ManualId(Uuid::from_u128(2)), "Mixer", "", &sources);
    assert_eq!((both.recordings.len(), both.steps_in(Phase::Teardown).len()), (2, 5));
    let order: Vec<StepId> = both.order();
    let last_teardown = both.steps_in(Phase::Teardown).last().unwrap().id;
    assert_eq!(order.iter().position(|s| *s == last_teardown), Some(4), "the teardown comes first, whoever told it");
}

#[rstest]
fn corrections_lie_over_the_reading_and_never_in_it(mixer: Drafted) {
    let s = mixer.reading.statements.iter().find(|s| s.text == "Pull out the motor.").unwrap().clone();
    let base = (CorrectionId(Uuid::from_u128(5)), mixer.recording, s.start, s.end);
    let change = |kind| {
        Edit::Reading(ReadingEdit::ChangeKind { id: base.0, recording: base.1, start: base.2, end: base.3, kind })
    };
    let m = apply(&mixer.manual, change(Some(StatementKind::Observation)));
    let heard = m.hear_anew(mixer.recording, &mixer.source);
    let row = heard.statements.iter().find(|h| h.statement == s).unwrap();
    assert_eq!(
        (row.kind, row.corrected, row.statement.kind),
        (StatementKind::Observation, true, StatementKind::Action)
    );

    // The same words again: one correction, changed; taken back, it is gone.
    let dropped = Edit::Reading(ReadingEdit::Drop {
        id: CorrectionId(Uuid::from_u128(6)),
        recording: base.1,
        start: base.2,
        end: base.3,
        dropped: true,
    });
    let m = apply(&m, dropped);
    assert_eq!(m.corrections.len(), 1);
    let bring_back =
        Edit::Reading(ReadingEdit::Drop { id: base.0, recording: base.1, start: base.2, end: base.3, dropped: false });
    let m = apply(&apply(&m, bring_back), change(None));
    assert!(m.corrections.is_empty());
}

#[rstest]
fn a_correction_finds_its_words_again_after_a_better_reading_or_is_listed(mixer: Drafted) {
    let s = mixer.reading.statements.iter().find(|s| s.text == "Pull out the motor.").unwrap().clone();
    let edit = |start, end| {
        Edit::Reading(ReadingEdit::ChangeKind {
            id: CorrectionId(Uuid::from_u128(5)),
            recording: mixer.recording,
            start,
            end,
            kind: Some(StatementKind::Test),
        })
    };
    let shifted = apply(&mixer.manual, edit(s.start + 3, s.end + 2));
    let heard = shifted.hear_anew(mixer.recording, &mixer.source);
    assert!(
        heard.statements.iter().any(|h| h.statement == s && h.kind == StatementKind::Test) && heard.lost.is_empty()
    );
    let lost = apply(&mixer.manual, edit(9_000, 9_010));
    assert_eq!(lost.hear_anew(mixer.recording, &mixer.source).lost.len(), 1);
}

#[rstest]
fn listen_tells_which_step_uses_what(mixer: Drafted) {
    let heard = mixer.manual.hear_anew(mixer.recording, &mixer.source);
    let uses = |text: &str| heard.statements.iter().find(|h| h.statement.text == text).unwrap().step;
    assert_eq!(uses("Pull out the motor."), Some(step(&mixer.manual, "Remove the motor")));
    assert_eq!(uses("Tools required. Torx T10 screwdriver, spudger."), None);
}

#[rstest]
fn a_step_from_a_statement_keeps_its_evidence(mixer: Drafted) {
    let evidence =
        Evidence::Recording { recording: mixer.recording, start: 3, end: 9, from_ms: Some(1), to_ms: Some(2) };
    let action = Action {
        evidence: vec![evidence.clone()],
        ..Action::typed(ActionId(Uuid::from_u128(40)), Act::Place, vec![], "Turn it over.")
    };
    let id = StepId(Uuid::from_u128(41));
    let add = |actions| {
        Edit::Step(StepEdit::Add { id, phase: Phase::Teardown, after: None, title: "Turn it over".into(), actions })
    };
    assert_eq!(apply(&mixer.manual, add(vec![action])).steps[&id].evidence, [evidence]);
    // Written from scratch, its evidence is its author.
    assert_eq!(apply(&mixer.manual, add(vec![])).steps[&id].evidence, [Evidence::Author { name: "Ann".into() }]);
}

#[rstest]
fn connectors_are_added_set_and_removed(mixer: Drafted) {
    let at = step(&mixer.manual, "Remove the motor");
    let id = ConnectorId(Uuid::from_u128(50));
    let set = |field| Edit::Connector(ConnectorEdit::Set { id, field });
    let mut m = apply(&mixer.manual, Edit::Connector(ConnectorEdit::Add { id, step: at }));
    for field in [
        ConnectorField::Serves(Some(part(&m, "motor"))),
        ConnectorField::Kind(Some(ConnectorKind::Latch)),
        ConnectorField::Power(true),
        ConnectorField::Temporary(true),
        ConnectorField::Route(vec!["behind the post".into(), "under the hook".into()]),
        ConnectorField::Note(Some("  stiff  ".into())),
    ] {
        m = apply(&m, set(field));
    }
    let c = &m.connectors[&id];
    assert_eq!(
        (c.kind, c.power, c.temporary, c.route.len(), c.note.as_deref()),
        (Some(ConnectorKind::Latch), true, true, 2, Some("stiff"))
    );
    assert!(
        refused(&m, set(ConnectorField::Serves(Some(PartId(Uuid::from_u128(9)))))).contains("part is no longer there")
    );
    assert!(!apply(&m, Edit::Connector(ConnectorEdit::Remove { id })).connectors.contains_key(&id));
}

#[rstest]
#[case(SeamField::Kind(SeamKind::Tape), "kind", json!("tape"))]
#[case(SeamField::Posture(Some("upright against the case".into())), "posture", json!("upright against the case"))]
#[case(SeamField::Swing(Some(Swing { hinge: Some(FaceEdge::Left), at_most_deg: Some(90.0), because: Some("the ribbon".into()) })), "swing", json!({ "hinge": "left", "at_most_deg": 90.0, "because": "the ribbon" }))]
#[case(SeamField::DepthMm(Some(2.5)), "depth_mm", json!(2.5))]
#[case(SeamField::Note(None), "note", json!(null))]
fn seams_take_each_field(
    mixer: Drafted,
    #[case] field: SeamField,
    #[case] name: &str,
    #[case] value: serde_json::Value,
) {
    let id = *mixer.manual.seams.keys().next().unwrap();
    let m = apply(&mixer.manual, Edit::Seam(SeamEdit::Set { id, field }));
    assert_eq!(serde_json::to_value(&m.seams[&id]).unwrap()[name], value);
}

#[rstest]
#[case(HeatField::Source(Some(HeatSource::HeatingPad)), "source", json!("heating pad"))]
#[case(HeatField::TempC(Some([70.0, 80.0])), "temp_c", json!([70.0, 80.0]))]
#[case(HeatField::DwellS(Some([120.0, 180.0])), "dwell_s", json!([120.0, 180.0]))]
#[case(HeatField::Target(None), "target", json!(null))]
fn heat_takes_each_field(
    mixer: Drafted,
    #[case] field: HeatField,
    #[case] name: &str,
    #[case] value: serde_json::Value,
) {
    let id = *mixer.manual.heats.keys().next().unwrap();
    let m = apply(&mixer.manual, Edit::Heat(HeatEdit::Set { id, field }));
    assert_eq!(serde_json::to_value(&m.heats[&id]).unwrap()[name], value);
}

#[rstest]
#[case(FastenerField::Op(FastenerOp::Loosen), "op", json!("loosen"))]
#[case(FastenerField::Drive(Some(Drive::Hex)), "drive", json!("hex"))]
#[case(FastenerField::Bit(Some("1.5 mm".into())), "bit", json!("1.5 mm"))]
#[case(FastenerField::LengthMm(Some(3.25)), "length_mm", json!(3.25))]
#[case(FastenerField::TorqueNm(Some(0.18)), "torque_nm", json!(0.18))]
#[case(FastenerField::Captive(true), "captive", json!(true))]
#[case(FastenerField::Refitted(Some(4)), "refitted", json!(4))]
#[case(FastenerField::Fate(FastenerFate::Renew), "fate", json!("renew"))]
#[case(FastenerField::Note(Some("thread lock".into())), "note", json!("thread lock"))]
fn screws_take_each_field(
    mixer: Drafted,
    #[case] field: FastenerField,
    #[case] name: &str,
    #[case] value: serde_json::Value,
) {
    let id = *mixer.manual.fasteners.keys().next().unwrap();
    let (m, change) = mixer.manual.apply(&Edit::Fastener(FastenerEdit::Set { id, field }), "Ann").unwrap();
    assert_eq!(serde_json::to_value(&m.fasteners[&id]).unwrap()[name], value);
    assert_eq!(
        change.places().map(|p| p.field.as_deref()).collect::<Vec<_>>(),
        [Some(name)],
        "nothing else has changed"
    );
}

#[rstest]
#[case(StepField::Note(Some("mind the cat".into())), "note", json!("mind the cat"))]
#[case(StepField::Tools(vec!["spudger".into()]), "tools", json!(["spudger"]))]
#[case(StepField::Consumables(vec![Consumable::Tape]), "consumables", json!(["tape"]))]
#[case(StepField::Posture(Some(Posture::Propped)), "posture", json!("propped"))]
#[case(StepField::Branches(vec![Branch { condition: "it tears".into(), advice: "Stop.".into(), tools: vec![], resume: None }]), "branches", json!([{"condition": "it tears", "advice": "Stop.", "tools": [], "resume": null}]))]
#[case(StepField::Temporary(vec![TemporaryAct { what: "film over the lens".into(), undone_in: None }]), "temporary", json!([{"what": "film over the lens", "undone_in": null}]))]
#[case(StepField::Reviewed(true), "reviewed", json!(true))]
fn steps_take_each_field(
    mixer: Drafted,
    #[case] field: StepField,
    #[case] name: &str,
    #[case] value: serde_json::Value,
) {
    let id = step(&mixer.manual, "Remove the motor");
    let m = apply(&mixer.manual, Edit::Step(StepEdit::Set { id, field }));
    assert_eq!(serde_json::to_value(&m.steps[&id]).unwrap()[name], value);
}

#[rstest]
fn jobs_and_variants_have_their_places(mixer: Drafted) {
    let (job, variant) = (JobId(Uuid::from_u128(60)), VariantId(Uuid::from_u128(61)));
    let motor = part(&mixer.manual, "motor");
    let mut m = apply(
        &mixer.manual,
        Edit::Job(JobEdit::Add { id: job, title: "Swap the motor".into(), targets: vec![motor], without: vec![] }),
    );
    m = apply(&m, Edit::Job(JobEdit::SetFate { id: job, part: motor, fate: PartFate::Renew }));
    m = apply(&m, Edit::Job(JobEdit::Rename { id: job, title: "New motor".into() }));
    m = apply(
        &m,
        Edit::Variant(VariantEdit::Add {
            id: variant,
            name: "230 V".into(),
            how_to_tell: "label under the grip".into(),
        }),
    );
    m = apply(
        &m,
        Edit::Step(StepEdit::Set { id: step(&m, "Remove the motor"), field: StepField::Variants(vec![variant]) }),
    );
    assert_eq!((m.jobs[&job].title.as_str(), m.jobs[&job].fates[&motor]), ("New motor", PartFate::Renew));
    assert!(
        refused(&m, Edit::Variant(VariantEdit::Remove { id: variant }))
            .contains("“Remove the motor” holds for this variant")
    );
    let m = apply(&m, Edit::Job(JobEdit::Remove { id: job }));
    assert!(m.jobs.is_empty());
}

#[rstest]
fn cautions_move_with_their_step_and_change_their_words(mixer: Drafted) {
    let id = *mixer.manual.cautions.keys().next().unwrap();
    let set = |field| Edit::Caution(CautionEdit::Set { id, field });
    let shell = step(&mixer.manual, "Remove the left shell");
    let m =
        apply(&apply(&mixer.manual, set(CautionField::Step(shell))), set(CautionField::About(CautionSubject::Cable)));
    assert_eq!((m.cautions[&id].step, m.cautions[&id].about), (shell, CautionSubject::Cable));
    assert!(refused(&m, set(CautionField::Text("\n".into()))).contains("Nothing is written here"));
    assert!(
        apply(&m, Edit::Step(StepEdit::Remove { id: shell })).cautions.is_empty(),
        "a removed step takes its cautions along"
    );
}

#[rstest]
fn replaying_the_log_gives_what_was_live(mixer: Drafted) {
    let m = &mixer.manual;
    let motor = step(m, "Remove the motor");
    let edits = [
        Edit::Part(PartEdit::Rename { id: part(m, "motor"), name: "engine".into() }),
        Edit::Step(StepEdit::Move { id: motor, after: None }),
        Edit::Step(StepEdit::Merge { id: motor, into: step(m, "Remove the left shell") }),
        Edit::Head(HeadEdit::Device("Mixer 3".into())),
    ];
    let (mut live, mut replayed) = (m.clone(), m.clone());
    for edit in edits {
        let (next, change) = live.apply(&edit, "Ann").unwrap();
        let kept = serde_json::from_value(serde_json::to_value(&change).unwrap()).unwrap();
        replayed = replayed.replay(&kept).unwrap();
        live = next;
    }
    assert_eq!(live, replayed);
    assert_eq!(live.authored.get(&format!("head/{}/device", m.id)).map(String::as_str), Some("Ann"));
}

#[rstest]
fn the_guide_reads_as_a_whole(mixer: Drafted) {
    let expected = "\
# Mixer

Device: Mixer 2

## Before you begin

- **Notice:** 5 of 5 steps below were drafted from a recording and reviewed by nobody yet.
- **Caution:** Switch the device off and unplug it before you begin. What local codes reserve for licensed people stays with \
them.
- **Caution, hot parts:** Hot surfaces burn. Keep heat away from cells, and wear gloves where you work on warm parts.

## Tools

- hair dryer
- T six-lobe screwdriver: T10

## Taking apart

### 1. Remove the left shell

- Remove five torx T10 screws, length 14 millimetres, from the left shell.
- Lift off the left shell.
- Screws: 5 × T10, 14 mm, left shell

### 2. Remove the motor

> **Notice, cable:** The switch wires are short and tear. Keep cables clear, and do not pull them.

- Disconnect the motor cable.
- Pull out the motor.
- Unplug: motor. Pull the plug itself, rocking it a little, never by its wires

### 3. Remove the grip pad

- Heat: hair dryer on the grip pad, 1 min
- Heat the grip pad with the hair dryer for one minute.
- Peel off the grip pad.

## Putting together

### 1. Fit the grip pad

- Renew the adhesive and press on the grip pad.
  *Peeled adhesive does not hold twice: renew it (common practice).*
  *Not told: the reverse of step 3.*

### 2. Fit the motor

> **Notice, cable:** The switch wires are short and tear. Keep cables clear, and do not pull them.

- Put the motor back in.
- Connect the motor cable.
- Check: Plug of the motor: it clicks or stops, and a light tug does not move it.

### 3. Fit the left shell

- Fit the left shell.
- Drive in the five T10 screws (14 mm) of the left shell.
- Check: Left shell: it lies flush all round, with no gap and no cable caught.
- Check: Motor: Let it run both ways, slowly first. Good when it runs evenly, nothing grinds or slips. If not, look again \
at what step 2 took apart.

## Screws

- A: 5 × T10, 14 mm, left shell, step 1

Screws: 5 out, 5 back, 0 new, 0 left over.

## Cables

- Step 2, motor, plug with wires: to make it, push it in straight, its nose where the slot is; it sits when it clicks or \
stops, and a light tug does not move it. Pulled by its wires, they tear out of the plug, or the socket off its board.
";
    assert_eq!(publish::markdown(&mixer.manual), expected);
}

#[rstest]
#[case(FastenerFate::Reuse, Some(5), "5 out, 5 back, 0 new, 0 left over", 0)]
#[case(FastenerFate::Reuse, Some(4), "5 out, 4 back, 0 new, 1 left over", 1)]
#[case(FastenerFate::Renew, Some(5), "5 out, 0 back, 5 new, 0 left over", 0)]
#[case(FastenerFate::LeaveOut, None, "5 out, 0 back, 0 new, 0 left over", 0)]
fn the_fate_of_screws_decides_the_balance(
    mixer: Drafted,
    #[case] fate: FastenerFate,
    #[case] back: Option<u32>,
    #[case] sum: &str,
    #[case] blocks: u32,
) {
    let id = *mixer.manual.fasteners.keys().next().unwrap();
    let set = |field| Edit::Fastener(FastenerEdit::Set { id, field });
    let m = apply(&apply(&mixer.manual, set(FastenerField::Fate(fate))), set(FastenerField::Refitted(back)));
    assert!(publish::markdown(&m).contains(sum), "{}", publish::markdown(&m));
    let found = paso_core::checks::blocking_by_stop(&paso_core::checks::findings(&m));
    assert_eq!(found.get(&paso_core::finding::Stop::Fold).copied().unwrap_or(0), blocks);
}
