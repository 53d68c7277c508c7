//! What was told of a rebuild, changed on purpose: an act dropped, doubled or moved, a count made wrong. The fold must show it.
//!
//! Every told sentence and step of the narrations at hand is changed once in each way, so nothing is left to chance. A folder
//! of other narrations is named by `PASO_NARRATIONS`.

use paso_core::checks::findings;
use paso_core::fasteners::balance::balance;
use paso_core::finding::{RuleId, Stop};
use paso_core::ids::{ActionId, ManualId, RecordingId, StepId};
use paso_core::manual::{
    Action, Edit, FastenerEdit, FastenerField, Manual, Phase, RecordingRef, SentenceEdit, Source, StepEdit, StepField,
    draft,
};
use paso_core::reading::{Act, read};
use paso_core::rebuild::{Counted, OrderRule, fold};
use paso_core::recording::Recording;
use proptest::prelude::*;
use std::collections::BTreeMap;
use std::path::{Path, PathBuf};
use std::sync::OnceLock;
use uuid::Uuid;

fn narrations() -> Vec<PathBuf> {
    let other = std::env::var_os("PASO_NARRATIONS").map(PathBuf::from);
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("..");
    let folders =
        ["demo", "reader/tests/narrations/lifelike", "reader/tests/narrations/tuned", "reader/tests/narrations/unseen"];
    let folders = other.map_or_else(|| folders.map(|f| root.join(f)).to_vec(), |f| vec![f]);
    let files = folders.iter().flat_map(|f| std::fs::read_dir(f).expect("a folder"));
    let mut all: Vec<PathBuf> = files.map(|f| f.expect("a file").path()).collect();
    all.retain(|p| p.extension().is_some_and(|e| e == "md"));
    all.sort();
    all
}

fn drafted(path: &Path) -> Manual {
    let recording = Recording::parse(&std::fs::read(path).expect("a narration")).expect("timed text");
    let reading = read(&recording);
    let recording =
        RecordingRef { id: RecordingId(Uuid::nil()), title: "t".into(), duration_ms: recording.duration_ms() };
    draft(ManualId(Uuid::nil()), "Draft", "", &[Source { recording, reading: &reading }])
}

/// What an author sees of a rebuild that does not fit: findings of the fold by rule, and marks beside the steps.
fn shown(manual: &Manual) -> (BTreeMap<RuleId, usize>, usize, Vec<String>) {
    let mut rules = BTreeMap::new();
    for finding in findings(manual).into_iter().filter(|f| f.stop == Stop::Fold) {
        *rules.entry(finding.rule).or_default() += 1;
    }
    let fold = fold(manual);
    let elsewhere =
        |s: &&paso_core::rebuild::RebuildStep| s.moved.as_ref().is_some_and(|m| m.rule == OrderRule::ToldElsewhere);
    let marked = fold.rebuild.iter().filter(elsewhere).count();
    let untold =
        fold.rebuild.iter().flat_map(|s| &s.lines).filter(|l| l.told.is_none()).map(|l| l.text.clone()).collect();
    (rules, marked, untold)
}

/// Told sentences that bring a part back which came out; nobody can miss the others.
fn told(manual: &Manual) -> Vec<(StepId, &Action)> {
    let out: Vec<_> =
        manual.steps_in(Phase::Teardown).iter().flat_map(|s| &s.actions).flat_map(|a| a.parts.clone()).collect();
    let back = |a: &&Action| matches!(a.act, Act::Install | Act::Close) && a.parts.iter().any(|p| out.contains(p));
    let steps = manual.steps_in(Phase::Rebuild).into_iter().filter(|s| !s.trial);
    steps.flat_map(|s| s.actions.iter().filter(back).map(move |a| (s.id, a))).collect()
}

fn sentence(id: StepId, sentence: SentenceEdit) -> Edit {
    Edit::Step(StepEdit::Sentence { id, sentence })
}

/// Every change of one kind.
fn changes(manual: &Manual) -> Vec<(&'static str, Edit)> {
    let mut out = Vec::new();
    let told = told(manual);
    for (step, action) in &told {
        out.push(("dropped", sentence(*step, SentenceEdit::Remove { id: action.id })));
        let last = told.last().expect("one at least");
        let again = Action { id: ActionId(Uuid::new_v5(&action.id.0, b"again")), ..(*action).clone() };
        let add = SentenceEdit::Add { sentence: Box::new(again), after: Some(last.1.id) };
        out.push(("doubled", sentence(last.0, add)));
    }
    let mut steps: Vec<StepId> = told.iter().map(|(s, _)| *s).collect();
    steps.dedup();
    let row: Vec<StepId> = manual.steps_in(Phase::Rebuild).iter().map(|s| s.id).collect();
    for id in steps.iter().filter(|_| steps.len() > 1) {
        let at = row.iter().position(|s| s == id).expect("it is told");
        // Far enough that something that goes back lies between.
        if steps.first() != Some(id) {
            out.push(("moved to the front", Edit::Step(StepEdit::Move { id: *id, after: None })));
        }
        if steps.last() != Some(id) && at + 1 < row.len() {
            out.push(("moved to the end", Edit::Step(StepEdit::Move { id: *id, after: row.last().copied() })));
        }
    }
    for row in balance(manual).rows.iter().filter(|r| r.left_over == Some(0)) {
        let wrong = FastenerField::Refitted(row.back.map(|back| back + 1));
        out.push(("one screw more", Edit::Fastener(FastenerEdit::Set { id: row.group, field: wrong })));
    }
    out
}

#[test]
fn nine_of_ten_changes_are_shown_and_few_alarms_are_false() {
    let (mut all, mut missed, mut alarms, mut rebuilds) = (0, BTreeMap::<&str, Vec<String>>::new(), 0, 0);
    for path in narrations() {
        let manual = drafted(&path);
        if told(&manual).is_empty() {
            continue;
        }
        let before = shown(&manual);
        rebuilds += 1;
        // What most leaves out, or fits though it never came out, is so in these narrations or misheard: both are worth a look.
        let of_fold = [RuleId::ToldTooEarly, RuleId::FittedTwice];
        alarms += before.0.iter().filter(|(rule, _)| of_fold.contains(rule)).map(|(_, n)| n).sum::<usize>();
        for (what, edit) in changes(&manual) {
            let Ok((changed, _)) = manual.apply(&edit, "Ann") else { continue };
            all += 1;
            if shown(&changed) == before {
                let name = path.file_name().expect("a name").to_string_lossy().into_owned();
                missed.entry(what).or_default().push(format!("{name}: {edit:?}"));
            }
        }
    }
    let unseen: usize = missed.values().map(Vec::len).sum();
    println!("{all} changes, {unseen} unseen, {alarms} alarms in {rebuilds} rebuilds: {missed:#?}");
    assert!(all >= 200, "{all} changes");
    assert!(unseen * 10 <= all, "{unseen} of {all} unseen: {missed:#?}");
    assert!(alarms <= rebuilds, "{alarms} alarms in {rebuilds} rebuilds");
}

/// What a hand may do to the told half.
#[derive(Debug, Clone)]
enum Hand {
    Move { step: usize, behind: usize },
    Remove { step: usize },
    Drop { step: usize, sentence: usize },
    Trial { step: usize },
}

fn hand() -> impl Strategy<Value = Hand> {
    let at = || 0..40usize;
    prop_oneof![
        3 => (at(), at()).prop_map(|(step, behind)| Hand::Move { step, behind }),
        1 => at().prop_map(|step| Hand::Remove { step }),
        3 => (at(), at()).prop_map(|(step, sentence)| Hand::Drop { step, sentence }),
        1 => at().prop_map(|step| Hand::Trial { step }),
    ]
}

fn done(manual: &Manual, hand: &Hand) -> Manual {
    let row: Vec<StepId> = manual.steps_in(Phase::Rebuild).iter().map(|s| s.id).collect();
    if row.is_empty() {
        return manual.clone();
    }
    let of = |n: &usize| row[n % row.len()];
    let edit = match hand {
        Hand::Move { step, behind } => StepEdit::Move { id: of(step), after: Some(of(behind)) },
        Hand::Remove { step } => StepEdit::Remove { id: of(step) },
        Hand::Trial { step } => StepEdit::Set { id: of(step), field: StepField::Trial(true) },
        Hand::Drop { step, sentence } => {
            let id = of(step);
            let told = &manual.steps[&id].actions;
            let Some(action) = told.get(sentence % told.len().max(1)) else { return manual.clone() };
            StepEdit::Sentence { id, sentence: SentenceEdit::Remove { id: action.id } }
        }
    };
    manual.apply(&Edit::Step(edit), "Ann").map_or_else(|_| manual.clone(), |(next, _)| next)
}

fn told_ones() -> &'static [Manual] {
    static ALL: OnceLock<Vec<Manual>> = OnceLock::new();
    ALL.get_or_init(|| narrations().iter().map(|p| drafted(p)).filter(|m| !told(m).is_empty()).collect())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    /// Whatever is moved, dropped or only tried: what came out goes back once, told or worked out, and nothing is left lying.
    #[test]
    fn nothing_is_lost_between_told_and_derived(at in 0..100usize, hands in proptest::collection::vec(hand(), 0..8)) {
        let all = told_ones();
        let manual = hands.iter().fold(all[at % all.len()].clone(), |m, h| done(&m, h));
        let fold = fold(&manual);
        for account in fold.accounts.iter().filter(|a| a.kind != Counted::Screws) {
            prop_assert!(account.proven, "{:?}", account);
        }
        if let Some(last) = fold.rebuild.last() {
            prop_assert_eq!((last.bench.plugs, last.bench.parts, last.bench.seals), (0, 0, 0));
        }
        let mut groups: Vec<_> = fold.rebuild.iter().flat_map(|s| s.groups.clone()).collect();
        groups.sort();
        let driven = groups.len();
        groups.dedup();
        prop_assert_eq!(driven, groups.len(), "a group is driven twice");
    }
}
