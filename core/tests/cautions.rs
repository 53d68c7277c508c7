//! Warnings under random hands: proposals, stops and rewordings keep what they promise, whatever was told.

use paso_core::cautions::coverage::{Covered, stretches};
use paso_core::checks::{findings, withheld};
use paso_core::finding::{Finding, RuleId};
use paso_core::ids::*;
use paso_core::manual::*;
use paso_core::publish::guide;
use paso_core::reading::read;
use paso_core::recording::Recording;
use proptest::prelude::*;
use std::collections::BTreeSet;
use uuid::Uuid;

/// Sentences that bring hazards about, that warn of them, and that do neither.
const TOLD: [&str; 26] = [
    "Take off the cover.",
    "Take out the tray.",
    "Take out the return spring.",
    "Pry off the front glass with the opening pick.",
    "Heat the rear cover with a heat gun to 80 degrees for two minutes.",
    "Pry off the rear cover.",
    "Disconnect the battery cable.",
    "Take out the battery.",
    "Disconnect the fan cable.",
    "Take out the fan.",
    "Remove two PH0 screws from the power supply board.",
    "Take out the power supply board.",
    "Take out the main board.",
    "Clean the frame with isopropyl alcohol.",
    "Clean the duct with compressed air.",
    "Cut the tape with a knife.",
    "Desolder the speaker wires.",
    "Take out the smoothing capacitor.",
    "Take out the magnets.",
    "Peel off the gasket.",
    "Take out the water tank.",
    "Caution, the glass splinters.",
    "Caution, do not pierce the battery.",
    "Caution, the ribbon is short, do not tear it.",
    "Caution, it gets hot and burns your fingers.",
    "Unplug it from the wall.",
];

fn manual(told: &[usize]) -> Manual {
    let words: Vec<&str> = told.iter().map(|n| TOLD[*n]).collect();
    let recording = Recording::parse(format!("[0:00] {}", words.join(" ")).as_bytes()).expect("a recording");
    let about = RecordingRef { id: RecordingId(Uuid::nil()), title: "test".into(), duration_ms: 0 };
    draft(ManualId(Uuid::nil()), "Test", "Box 1", &[Source { recording: about, reading: &read(&recording) }])
}

fn narration() -> impl Strategy<Value = Vec<usize>> {
    proptest::sample::subsequence((0..TOLD.len()).collect::<Vec<_>>(), 3..TOLD.len()).prop_shuffle()
}

fn of(manual: &Manual, rule: RuleId) -> Vec<Finding> {
    findings(manual).into_iter().filter(|f| f.rule == rule).collect()
}

fn after(manual: &Manual, edit: &Edit) -> Manual {
    manual.apply(edit, "Ann").unwrap_or_else(|e| panic!("{edit:?}: {e}")).0
}

/// All lines that only licensed people cross are decided in one way.
fn decided(manual: &Manual, who: &str) -> Manual {
    of(manual, RuleId::LicensedWork).into_iter().fold(manual.clone(), |m, f| {
        let because = who.to_owned();
        after(&m, &Edit::Finding(FindingEdit::SetAside { id: f.key, rule: f.rule.name(), because }))
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(120))]

    /// Each proposal ends itself and brings no other; none makes a warning that stands come too late.
    #[test]
    fn taking_every_proposal_leaves_none(told in narration()) {
        let mut manual = manual(&told);
        let late = of(&manual, RuleId::SaidLate).len();
        let cautions = manual.cautions.len();
        let proposals = of(&manual, RuleId::HazardUnsaid);
        for finding in &proposals {
            manual = after(&manual, &finding.fixes[0].edit);
        }
        prop_assert_eq!(manual.cautions.len(), cautions + proposals.len());
        prop_assert!(of(&manual, RuleId::HazardUnsaid).is_empty());
        prop_assert_eq!(of(&manual, RuleId::SaidLate).len(), late);
        for fix in of(&manual, RuleId::SaidLate).iter().flat_map(|f| &f.fixes) {
            manual = after(&manual, &fix.edit);
        }
        prop_assert!(of(&manual, RuleId::SaidLate).is_empty());
    }

    /// Of two that say the same, each could be missing: without any caution nothing is said.
    #[test]
    fn what_is_said_is_said_by_a_caution(told in narration()) {
        let full = manual(&told);
        for stretch in stretches(&full) {
            let said = matches!(stretch.covered, Covered::Said | Covered::Late);
            prop_assert_eq!(said && stretch.cautions.is_empty(), false, "{:?}", stretch);
        }
        let silent = full.cautions.keys().fold(full.clone(), |m, id| {
            after(&m, &Edit::Caution(CautionEdit::Remove { id: *id }))
        });
        let said = stretches(&silent).into_iter().any(|s| matches!(s.covered, Covered::Said | Covered::Late));
        prop_assert!(!said);
    }

    /// A guide tells no step behind a line, and puts back nothing that it does not take out.
    #[test]
    fn what_is_left_to_others_is_told_to_nobody(told in narration()) {
        let manual = decided(&manual(&told), "a licensed electrician");
        let left: BTreeSet<StepId> = withheld(&manual).into_iter().flat_map(|w| w.steps).collect();
        let fold = guide(&manual).fold;
        prop_assert!(fold.teardown.iter().all(|row| !left.contains(&row.step)));
        let told: BTreeSet<StepId> = fold.teardown.iter().map(|row| row.step).collect();
        let undone = fold.rebuild.iter().filter_map(|s| s.of);
        prop_assert!(undone.collect::<BTreeSet<_>>().is_subset(&told));
        let whole = manual.steps_in(Phase::Teardown).len();
        let here = left.iter().filter(|id| manual.steps[*id].phase == Phase::Teardown).count();
        prop_assert_eq!(told.len() + here, whole);
    }

    /// For readers who may do the work, nothing is left out.
    #[test]
    fn nothing_is_left_out_for_the_licensed(told in narration()) {
        let manual = decided(&manual(&told), "Its readers: licensed electricians");
        prop_assert!(withheld(&manual).is_empty());
    }
}

/// What stands before, in the middle of and behind an order that an author types.
fn typed() -> impl Strategy<Value = String> {
    let before = prop_oneof![Just(""), Just("You should "), Just("Carefully "), Just("You need to ")];
    let order = prop_oneof![Just("lift off the cover"), Just("take out the tray"), Just("disconnect the fan")];
    let behind = prop_oneof![
        Just(""),
        Just(" if it is loose"),
        Just(" carefully"),
        Just(", then take out the tray"),
        Just(" with care, unless it is hot"),
        Just(" and then turn it over if it is cold"),
    ];
    (before, order, behind).prop_map(|(before, order, behind)| {
        let text = format!("{before}{order}{behind}.");
        let mut letters = text.chars();
        letters.next().map(|c| c.to_uppercase().collect::<String>() + letters.as_str()).unwrap_or_default()
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(160))]

    /// Rewordings come to an end, and none changes what is done to what.
    #[test]
    fn a_rewording_tells_the_same(typed in typed()) {
        let plain = [RuleId::TwoInstructions, RuleId::ConditionLate, RuleId::ShouldForMust, RuleId::VagueCare];
        let drafted = manual(&[0, 1, 9]);
        let step = drafted.steps_in(Phase::Teardown)[0];
        let (id, sentence) = (step.id, step.actions[0].id);
        let set = SentenceEdit::Set { id: sentence, field: SentenceField::Text(Some(typed.clone())) };
        let mut now = after(&drafted, &Edit::Step(StepEdit::Sentence { id, sentence: set }));
        // Of a sentence with two orders only the main one was understood: parted, it tells that and more.
        let tells = |m: &Manual| m.steps[&id].actions.iter().map(|a| (a.act, a.parts.clone())).collect::<Vec<_>>();
        let before = tells(&now);
        for _ in 0..6 {
            let fix = findings(&now).into_iter().filter(|f| plain.contains(&f.rule)).find_map(|f| f.fixes.into_iter().next());
            let Some(fix) = fix else { break };
            now = after(&now, &fix.edit);
            let told = tells(&now);
            prop_assert!(before.iter().all(|t| told.contains(t)), "“{}” became {:?} by {:?}", typed, told, fix.label);
        }
        let left = findings(&now).into_iter().filter(|f| plain.contains(&f.rule) && !f.fixes.is_empty()).count();
        prop_assert_eq!(left, 0, "“{}”", typed);
    }
}
