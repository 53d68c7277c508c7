//! Properties of edits: whatever an author does can be undone, and undoing never sweeps away what others did.

use paso_core::ids::*;
use paso_core::manual::*;
use paso_core::reading::{Act, CautionSubject, Drive};
use proptest::prelude::*;
use rstest::{fixture, rstest};
use uuid::Uuid;

fn id(n: u128) -> Uuid {
    Uuid::from_u128(n)
}

const STEPS: u128 = 4;

/// Four steps, three parts, and one of each thing a step can hold.
#[fixture]
fn manual() -> Manual {
    let mut edits = Vec::new();
    for n in 0..3 {
        edits.push(Edit::Part(PartEdit::Add { id: PartId(id(100 + n)), name: format!("part {n}") }));
    }
    for n in 0..STEPS {
        let after = n.checked_sub(1).map(|p| StepId(id(p)));
        edits.push(Edit::Step(StepEdit::Add {
            id: StepId(id(n)),
            phase: Phase::Teardown,
            after,
            title: format!("Remove part {n}"),
            actions: vec![],
        }));
        let action = |k: u128| {
            let parts = vec![PartId(id(100 + n % 3))];
            Action::typed(ActionId(id(1000 + n * 10 + k)), Act::Remove, parts, &format!("Lift part {}.", n % 3))
        };
        edits.push(Edit::Step(StepEdit::Set {
            id: StepId(id(n)),
            field: StepField::Actions(vec![action(0), action(1)]),
        }));
        edits.push(Edit::Fastener(FastenerEdit::Add { id: GroupId(id(200 + n)), step: StepId(id(n)) }));
        edits.push(Edit::Connector(ConnectorEdit::Add { id: ConnectorId(id(300 + n)), step: StepId(id(n)) }));
        edits.push(Edit::Caution(CautionEdit::Add {
            id: CautionId(id(400 + n)),
            step: StepId(id(n)),
            about: CautionSubject::Cable,
            hazard: None,
            text: "Mind part 1.".into(),
        }));
        edits.push(Edit::Seam(SeamEdit::Add { id: SeamId(id(500 + n)), step: StepId(id(n)), kind: SeamKind::Glue }));
        edits.push(Edit::Heat(HeatEdit::Add { id: HeatId(id(600 + n)), step: StepId(id(n)) }));
    }
    edits.iter().fold(Manual::new(ManualId(id(9)), "Lamp", "Lamp 1"), |m, e| m.apply(e, "ann").unwrap().0)
}

/// Edits as authors make them, sensible and not.
fn edit() -> impl Strategy<Value = Edit> {
    let step = || (0..STEPS + 2).prop_map(|n| StepId(id(n)));
    let after = || proptest::option::of(0..STEPS + 2).prop_map(|n| n.map(|n| StepId(id(n))));
    let part = || (0..4u128).prop_map(|n| PartId(id(100 + n)));
    let group = || (0..STEPS + 1).prop_map(|n| GroupId(id(200 + n)));
    let words = || "[a-z ]{0,12}";
    prop_oneof![
        (step(), after(), words()).prop_map(|(id, after, title)| Edit::Step(StepEdit::Add {
            id,
            phase: Phase::Teardown,
            after,
            title,
            actions: vec![]
        })),
        (step(), words()).prop_map(|(id, t)| Edit::Step(StepEdit::Set { id, field: StepField::Title(t) })),
        (step(), any::<bool>()).prop_map(|(id, r)| Edit::Step(StepEdit::Set { id, field: StepField::Reviewed(r) })),
        (step(), after()).prop_map(|(id, after)| Edit::Step(StepEdit::Move { id, after })),
        (step(), step()).prop_map(|(id, into)| Edit::Step(StepEdit::Merge { id, into })),
        (step(), 0..3usize, step(), words()).prop_map(|(id, at, new_id, title)| Edit::Step(StepEdit::Split {
            id,
            at,
            new_id,
            title: Some(title)
        })),
        step().prop_map(|id| Edit::Step(StepEdit::Remove { id })),
        (part(), words()).prop_map(|(id, name)| Edit::Part(PartEdit::Rename { id, name })),
        (part(), proptest::option::of(part()))
            .prop_map(|(id, p)| Edit::Part(PartEdit::Set { id, field: PartField::Inside(p) })),
        part().prop_map(|id| Edit::Part(PartEdit::Remove { id })),
        (group(), proptest::option::of(0..600u32))
            .prop_map(|(id, n)| Edit::Fastener(FastenerEdit::Set { id, field: FastenerField::Count(n) })),
        (group(), proptest::option::of(-5.0..600.0f64))
            .prop_map(|(id, l)| Edit::Fastener(FastenerEdit::Set { id, field: FastenerField::LengthMm(l) })),
        (group(), part())
            .prop_map(|(id, p)| Edit::Fastener(FastenerEdit::Set { id, field: FastenerField::Holds(vec![p]) })),
        group().prop_map(|id| Edit::Fastener(FastenerEdit::Remove { id })),
        (step(), 0..STEPS).prop_map(|(step, n)| Edit::Connector(ConnectorEdit::Set {
            id: ConnectorId(id(300 + n)),
            field: ConnectorField::Step(step)
        })),
        (0..STEPS, words()).prop_map(|(n, t)| Edit::Caution(CautionEdit::Set {
            id: CautionId(id(400 + n)),
            field: CautionField::Text(t)
        })),
        (0..STEPS, 0.0..600.0f64, 0.0..600.0f64).prop_map(|(n, a, b)| Edit::Heat(HeatEdit::Set {
            id: HeatId(id(600 + n)),
            field: HeatField::TempC(Some([a, b]))
        })),
        (0..STEPS, -1.0..200.0f64).prop_map(|(n, d)| Edit::Seam(SeamEdit::Set {
            id: SeamId(id(500 + n)),
            field: SeamField::DepthMm(Some(d))
        })),
        words().prop_map(|t| Edit::Head(HeadEdit::Title(t))),
        device_edit(),
    ]
}

fn weights(turn: f64) -> WeightsInSeconds {
    WeightsInSeconds { tool_change: 1.44, turn, reheating: 120.0, displaced: 0.01 }
}

/// Edits of what stands beside the steps.
fn device_edit() -> impl Strategy<Value = Edit> {
    let few = || 0..3u128;
    let step = || (0..STEPS + 1).prop_map(|n| StepId(id(n)));
    let part = || (0..4u128).prop_map(|n| PartId(id(100 + n)));
    let job = || few().prop_map(|n| JobId(id(700 + n)));
    let variant = || few().prop_map(|n| VariantId(id(800 + n)));
    let note = || few().prop_map(|n| NoteId(id(900 + n)));
    let tool = || few().prop_map(|n| ToolId(id(950 + n)));
    let words = || "[a-z ]{0,12}";
    let maybe = || proptest::option::of("[a-z ]{0,12}");
    prop_oneof![
        (step(), maybe()).prop_map(|(id, t)| Edit::Step(StepEdit::Set { id, field: StepField::Stage(t) })),
        (step(), words(), words()).prop_map(|(id, a, b)| {
            let choice = ToolChoice { any_of: vec![a, b.clone()], preferred: Some(b), why: None };
            Edit::Step(StepEdit::Set { id, field: StepField::Choices(vec![choice]) })
        }),
        (step(), variant()).prop_map(|(id, v)| Edit::Step(StepEdit::Set { id, field: StepField::Variants(vec![v]) })),
        (part(), variant()).prop_map(|(id, v)| Edit::Part(PartEdit::Set { id, field: PartField::Variants(vec![v]) })),
        (part(), maybe()).prop_map(|(id, t)| Edit::Part(PartEdit::Set { id, field: PartField::Place(t) })),
        (part(), -10.0..2_000.0f64).prop_map(|(id, v)| {
            let label = RatingLabel { voltage: Some(paso_core::units::volts(v)), ..RatingLabel::default() };
            Edit::Part(PartEdit::Set { id, field: PartField::Fitted(label) })
        }),
        (tool(), words()).prop_map(|(id, name)| Edit::Kit(KitEdit::LayOut { id, name })),
        tool().prop_map(|id| Edit::Kit(KitEdit::PutAway { id })),
        (note(), words(), proptest::option::of(job())).prop_map(|(id, text, job)| Edit::Note(NoteEdit::Add {
            id,
            kind: NoteKind::Before,
            text,
            job
        })),
        note().prop_map(|id| Edit::Note(NoteEdit::Remove { id })),
        (variant(), words())
            .prop_map(|(id, name)| { Edit::Variant(VariantEdit::Add { id, how_to_tell: name.clone(), name }) }),
        variant().prop_map(|id| Edit::Variant(VariantEdit::Remove { id })),
        (job(), words(), part()).prop_map(|(id, title, part)| {
            Edit::Job(JobEdit::Add { id, title, targets: vec![part], without: vec![] })
        }),
        (job(), job()).prop_map(|(id, other)| Edit::Job(JobEdit::Call { id, calls: vec![other] })),
        job().prop_map(|id| Edit::Job(JobEdit::Remove { id })),
        ("[a-z ]{0,4}", words()).prop_map(|(find, with)| {
            let wanted = Wanted { find, match_case: false, whole_words: false };
            Edit::Text(TextEdit::Replace { wanted, with })
        }),
        (-10.0..5_000.0f64).prop_map(|turn| Edit::Head(HeadEdit::Weights(weights(turn)))),
    ]
}

proptest! {
    #[test]
    fn every_edit_undone_restores_the_manual(edits in proptest::collection::vec(edit(), 1..25)) {
        let start = manual();
        let mut at = start.clone();
        let mut changes = Vec::new();
        for edit in &edits {
            if let Ok((next, change)) = at.apply(edit, "bob") {
                let (back, undone) = next.revert(&change).expect("nobody else has edited");
                prop_assert_eq!(&back, &at, "undo of {:?}", edit);
                let (again, _) = back.revert(&undone).expect("redo");
                prop_assert_eq!(&again, &next, "redo of {:?}", edit);
                at = next;
                changes.push(change);
            }
        }
        for change in changes.iter().rev() {
            at = at.revert(change).expect("undone in reverse").0;
        }
        prop_assert_eq!(at, start);
    }

    #[test]
    fn a_refused_or_applied_edit_keeps_every_reference_sound(edits in proptest::collection::vec(edit(), 1..25)) {
        let end = edits.iter().fold(manual(), |m, e| m.apply(e, "bob").map_or(m.clone(), |(next, _)| next));
        let json = serde_json::to_string(&end).unwrap();
        prop_assert_eq!(from_json(&json).expect("a sound manual"), end);
    }
}

#[rstest]
fn moving_a_step_changes_only_its_own_rank(manual: Manual) {
    let (next, change) = manual.apply(&Edit::Step(StepEdit::Move { id: StepId(id(3)), after: None }), "ann").unwrap();
    assert_eq!(next.order(), [3, 0, 1, 2].map(|n| StepId(id(n))));
    let fields: Vec<_> = change.places().map(|p| (p.id, p.field.clone())).collect();
    assert_eq!(fields, [(id(3), Some("rank".to_owned()))]);
}

#[rstest]
fn a_merged_step_hands_over_everything_it_held(manual: Manual) {
    let (next, _) =
        manual.apply(&Edit::Step(StepEdit::Merge { id: StepId(id(1)), into: StepId(id(0)) }), "ann").unwrap();
    let into = StepId(id(0));
    assert_eq!(next.steps[&into].actions.len(), 4);
    assert_eq!(
        (next.groups_of(into).count(), next.connectors_of(into).count(), next.cautions_of(into).count()),
        (2, 2, 2)
    );
    assert!(!next.steps.contains_key(&StepId(id(1))));
}

#[rstest]
fn splitting_makes_the_second_half_a_step_right_behind(manual: Manual) {
    let edit = Edit::Step(StepEdit::Split {
        id: StepId(id(1)),
        at: 1,
        new_id: StepId(id(7)),
        title: Some("Second half".into()),
    });
    let (next, _) = manual.apply(&edit, "ann").unwrap();
    assert_eq!(next.order(), [0, 1, 7, 2, 3].map(|n| StepId(id(n))));
    assert_eq!((next.steps[&StepId(id(1))].actions.len(), next.steps[&StepId(id(7))].actions.len()), (1, 1));
}

#[rstest]
fn renaming_a_part_reaches_every_sentence(manual: Manual) {
    let (next, _) =
        manual.apply(&Edit::Part(PartEdit::Rename { id: PartId(id(101)), name: "hinge".into() }), "ann").unwrap();
    assert_eq!(next.steps[&StepId(id(1))].actions[0].text.as_deref(), Some("Lift hinge."));
    assert_eq!(next.cautions[&CautionId(id(400))].text, "Mind hinge.");
}

#[rstest]
fn undo_shows_a_clash_where_somebody_else_has_edited(manual: Manual) {
    let title = |t: &str| Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Title(t.into()) });
    let (mine, change) = manual.apply(&title("mine"), "ann").unwrap();
    let (theirs, _) = mine.apply(&title("theirs"), "bob").unwrap();
    assert!(matches!(theirs.revert(&change), Err(Refusal::Clash { count: 1, .. })));
    // Another field of the same step is nobody's clash.
    let (other, _) =
        mine.apply(&Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Reviewed(true) }), "bob").unwrap();
    let (undone, _) = other.revert(&change).unwrap();
    assert!(undone.steps[&StepId(id(0))].reviewed);
    assert_eq!(undone.steps[&StepId(id(0))].title, "Remove part 0");
}

#[rstest]
#[case::empty_title(Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Title("  ".into()) }), "title: Nothing is written here")]
#[case::control(Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Title("a\u{0}b".into()) }), "control character U+0000")]
#[case::turned_round(Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Title("lid \u{202e}revoc".into()) }), "U+202E, which turns writing round")]
#[case::long(Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Title("x".repeat(201)) }), "has 201 characters")]
#[case::no_screws(Edit::Fastener(FastenerEdit::Set { id: GroupId(id(200)), field: FastenerField::Count(Some(0)) }), "at least 1")]
#[case::many_screws(Edit::Fastener(FastenerEdit::Set { id: GroupId(id(200)), field: FastenerField::Count(Some(501)) }), "at most 500")]
#[case::negative_length(Edit::Fastener(FastenerEdit::Set { id: GroupId(id(200)), field: FastenerField::LengthMm(Some(-2.0)) }), "more than 0")]
#[case::nan(Edit::Fastener(FastenerEdit::Set { id: GroupId(id(200)), field: FastenerField::LengthMm(Some(f64::NAN)) }), "out of range")]
#[case::backwards(Edit::Heat(HeatEdit::Set { id: HeatId(id(600)), field: HeatField::TempC(Some([90.0, 70.0])) }), "lower figure first")]
#[case::self_merge(Edit::Step(StepEdit::Merge { id: StepId(id(0)), into: StepId(id(0)) }), "merged with itself")]
#[case::gone(Edit::Step(StepEdit::Remove { id: StepId(id(77)) }), "no longer there")]
#[case::used_part(Edit::Part(PartEdit::Remove { id: PartId(id(100)) }), "still used by the step")]
#[case::inside_itself(Edit::Part(PartEdit::Set { id: PartId(id(100)), field: PartField::Inside(Some(PartId(id(100)))) }), "inside itself")]
#[case::same_name(Edit::Part(PartEdit::Rename { id: PartId(id(100)), name: "Part 1".into() }), "called “Part 1” already")]
#[case::same_tool_twice(Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Choices(vec![ToolChoice { any_of: vec!["a".into()], preferred: None, why: None }]) }), "at least two tools")]
#[case::an_hour_a_turn(Edit::Head(HeadEdit::Weights(weights(4000.0))), "4000 s for one change")]
#[case::a_negative_turn(Edit::Head(HeadEdit::Weights(weights(-5.0))), "-5 s for one change cannot be meant; write 0 to 3600 s.")]
#[case::note_for_nobody(Edit::Note(NoteEdit::Add { id: NoteId(id(1)), kind: NoteKind::Lost, text: "x".into(), job: Some(JobId(id(1))) }), "guide is no longer there")]
#[case::variant_of_nothing(Edit::Part(PartEdit::Set { id: PartId(id(100)), field: PartField::Variants(vec![VariantId(id(1))]) }), "variant is no longer there")]
#[case::split_nothing(Edit::Step(StepEdit::Split { id: StepId(id(0)), at: 2, new_id: StepId(id(8)), title: None }), "2 sentences")]
fn refuses_in_a_sentence_and_changes_nothing(manual: Manual, #[case] edit: Edit, #[case] says: &str) {
    let error = manual.apply(&edit, "ann").unwrap_err().to_string();
    assert!(error.contains(says), "{error}");
}

#[rstest]
fn counts_keep_their_claims_and_their_author(manual: Manual) {
    let group = GroupId(id(200));
    let set = |m: &Manual, field| m.apply(&Edit::Fastener(FastenerEdit::Set { id: group, field }), "ann").unwrap().0;
    let manual = set(&set(&manual, FastenerField::Count(Some(4))), FastenerField::Count(Some(5)));
    let manual = set(&manual, FastenerField::Drive(Some(Drive::Torx)));
    let g = &manual.fasteners[&group];
    assert_eq!((g.count, g.claims.len()), (Some(5), 2));
    assert_eq!(manual.authored.get(&format!("fasteners/{}/count", group.0)).map(String::as_str), Some("ann"));
}

#[rstest]
#[case::words(Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Title("Open it".into()) }), false)]
#[case::a_sentence(Edit::Step(StepEdit::Sentence { id: StepId(id(0)), sentence: SentenceEdit::Remove { id: ActionId(id(1001)) } }), false)]
#[case::its_screws(Edit::Fastener(FastenerEdit::Set { id: GroupId(id(200)), field: FastenerField::Count(Some(4)) }), false)]
#[case::its_caution(Edit::Caution(CautionEdit::Remove { id: CautionId(id(400)) }), false)]
#[case::screws_that_left(Edit::Fastener(FastenerEdit::Set { id: GroupId(id(200)), field: FastenerField::Step(StepId(id(1))) }), false)]
#[case::its_place(Edit::Step(StepEdit::Move { id: StepId(id(0)), after: Some(StepId(id(2))) }), true)]
#[case::another_step(Edit::Step(StepEdit::Set { id: StepId(id(1)), field: StepField::Title("Open it".into()) }), true)]
#[case::the_same_again(Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Title("Remove part 0".into()) }), true)]
#[case::a_new_name(Edit::Part(PartEdit::Rename { id: PartId(id(100)), name: "hinge".into() }), true)]
fn what_changes_a_step_takes_its_review_back(manual: Manual, #[case] edit: Edit, #[case] stays: bool) {
    let review = Edit::Step(StepEdit::Set { id: StepId(id(0)), field: StepField::Reviewed(true) });
    let reviewed = manual.apply(&review, "ann").unwrap().0;
    let (next, change) = reviewed.apply(&edit, "ann").unwrap();
    assert_eq!(next.steps[&StepId(id(0))].reviewed, stays);
    assert!(next.revert(&change).unwrap().0.steps[&StepId(id(0))].reviewed, "undone, it is reviewed again");
}
