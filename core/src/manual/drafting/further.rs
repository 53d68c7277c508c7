//! What a further recording of the same device adds to a manual.
//!
//! A step that frees or fits the same parts is told again, and no second step: it gets the evidence, acts that were not told
//! so far, and another count of its screws. New steps stand where the recording tells them, between the steps it shares.

use crate::ids::*;
use crate::manual::edits::refusal::Refusal;
use crate::manual::model::steps::rank_between;
use crate::manual::*;
use crate::reading::FastenerOp;
use std::collections::{BTreeMap, BTreeSet};

/// Drafts what a recording adds to a manual; parts of the same name are the same parts.
///
/// # Errors
/// [`Refusal::Invalid`] where the draft cannot be put together, which would be a fault of this program.
pub fn draft_more(manual: &Manual, source: &Source<'_>) -> Result<Drafted, Refusal> {
    let more =
        draft(ManualId(source.recording.id.0), &manual.head.title, &manual.head.device, std::slice::from_ref(source));
    let twins = twins(manual, &more);
    let mut drafted = Drafted {
        parts: more.parts.values().cloned().collect(),
        steps: Vec::new(),
        fasteners: Vec::new(),
        connectors: Vec::new(),
        seams: Vec::new(),
        heats: Vec::new(),
        cautions: cautions(manual, &more, &twins),
        again: twins.iter().map(|(new, old)| told_again(manual, &more, *new, *old)).collect(),
    };
    beside_steps(manual, &more, &twins, &mut drafted);
    for phase in [Phase::Teardown, Phase::Rebuild] {
        drafted.steps.extend(placed(manual, &more, phase, &twins));
    }
    let known: Vec<(PartId, PartId)> = drafted
        .parts
        .iter()
        .filter_map(|p| {
            let twin = manual.parts.values().find(|k| k.name.eq_ignore_ascii_case(&p.name))?;
            Some((p.id, twin.id))
        })
        .collect();
    drafted.parts.retain(|p| known.iter().all(|(new, _)| *new != p.id));
    renamed(&drafted, &known)
}

/// Screws, plugs, seams and heat that the manual does not have yet; those of a step told again hang on the manual's step.
fn beside_steps(manual: &Manual, more: &Manual, twins: &BTreeMap<StepId, StepId>, drafted: &mut Drafted) {
    let home = |step: StepId| twins.get(&step).copied().unwrap_or(step);
    let named = |m: &Manual, part: Option<PartId>| part.map(|p| m.part_name(p).to_lowercase());
    for g in more.fasteners.values().filter(|g| !manual.groups_of(home(g.step)).any(|k| alike(manual, k, more, g))) {
        drafted.fasteners.push(FastenerGroup { step: home(g.step), ..g.clone() });
    }
    for c in more.connectors.values() {
        let known = |k: &Connector| named(manual, k.serves) == named(more, c.serves);
        if !manual.connectors_of(home(c.step)).any(known) {
            drafted.connectors.push(Connector { step: home(c.step), ..c.clone() });
        }
    }
    for s in more.seams.values() {
        let at = home(s.step);
        if !manual.seams.values().any(|k| k.step == at && k.kind == s.kind) {
            drafted.seams.push(Seam { step: at, ..s.clone() });
        }
    }
    for h in more.heats.values() {
        let known = |k: &Heat| named(manual, k.target) == named(more, h.target);
        if !manual.heats_of(home(h.step)).any(known) {
            drafted.heats.push(Heat { step: home(h.step), ..h.clone() });
        }
    }
}

/// The new steps that tell a step of the manual again, each with that step.
fn twins(manual: &Manual, more: &Manual) -> BTreeMap<StepId, StepId> {
    let mut taken: BTreeSet<StepId> = BTreeSet::new();
    let mut out = BTreeMap::new();
    for phase in [Phase::Teardown, Phase::Rebuild] {
        let old = manual.steps_in(phase);
        for step in more.steps_in(phase) {
            let twin = old.iter().find(|o| !taken.contains(&o.id) && same(manual, o, more, step));
            if let Some(twin) = twin {
                taken.insert(twin.id);
                out.insert(step.id, twin.id);
            }
        }
    }
    out
}

/// Two steps that move the same parts; where neither moves one, of the same title.
fn same(manual: &Manual, old: &Step, more: &Manual, new: &Step) -> bool {
    let (a, b) = (moved(manual, old), moved(more, new));
    if a.is_empty() && b.is_empty() { old.title.eq_ignore_ascii_case(&new.title) } else { a == b }
}

fn moved(manual: &Manual, step: &Step) -> BTreeSet<String> {
    step.actions
        .iter()
        .filter(|a| a.moves())
        .flat_map(|a| &a.parts)
        .map(|p| manual.part_name(*p).to_lowercase())
        .collect()
}

/// What a step told again adds to the step of the manual.
fn told_again(manual: &Manual, more: &Manual, new: StepId, old: StepId) -> ToldAgain {
    let (step, known) = (&more.steps[&new], &manual.steps[&old]);
    let same = |k: &Action, a: &Action| manual.sentence(k).eq_ignore_ascii_case(&more.sentence(a));
    let fresh = |a: &&Action| known.actions.iter().all(|k| k.act != a.act && !same(k, a));
    let claims = more.groups_of(new).filter_map(|g| {
        let group = manual.groups_of(old).find(|k| alike(manual, k, more, g))?;
        Some(ClaimAgain { group: group.id, claim: g.claims.first()?.clone() })
    });
    ToldAgain {
        step: old,
        evidence: step.evidence.clone(),
        sentences: step.actions.iter().filter(fresh).cloned().collect(),
        claims: claims.collect(),
    }
}

/// Screws of the same part, turned the same way.
fn alike(manual: &Manual, old: &FastenerGroup, more: &Manual, new: &FastenerGroup) -> bool {
    let held = |manual: &Manual, g: &FastenerGroup| g.holds.first().map(|p| manual.part_name(*p).to_lowercase());
    let out = |g: &FastenerGroup| matches!(g.op, FastenerOp::Remove | FastenerOp::Loosen);
    held(manual, old) == held(more, new) && out(old) == out(new) && (old.length == new.length || new.length.is_none())
}

/// Warnings that the manual does not have yet, at the steps of the manual.
fn cautions(manual: &Manual, more: &Manual, twins: &BTreeMap<StepId, StepId>) -> Vec<Caution> {
    let said = |c: &&Caution| {
        let at = twins.get(&c.step);
        at.is_none_or(|at| manual.cautions_of(*at).all(|k| k.about != c.about && !k.text.eq_ignore_ascii_case(&c.text)))
    };
    let here = |c: &Caution| Caution { step: twins.get(&c.step).copied().unwrap_or(c.step), ..c.clone() };
    more.cautions.values().filter(said).map(here).collect()
}

/// The new steps of a phase with ranks that put them between the steps they were told between.
fn placed(manual: &Manual, more: &Manual, phase: Phase, twins: &BTreeMap<StepId, StepId>) -> Vec<Step> {
    let old: Vec<&str> = manual.steps_in(phase).iter().map(|s| s.rank.as_str()).collect();
    let new = more.steps_in(phase);
    let shared = |s: &&Step| twins.get(&s.id).map(|old| manual.steps[old].rank.clone());
    // What is told before the first step they share stands before that; with nothing shared, all stands behind.
    let first = new.iter().find_map(shared);
    let before = |rank: &str| old.iter().rev().find(|r| **r < rank).map(|r| (*r).to_owned());
    let mut last = match &first {
        Some(rank) => before(rank),
        None => old.last().map(|r| (*r).to_owned()),
    };
    let mut out = Vec::new();
    for step in new {
        if let Some(rank) = shared(&step) {
            last = Some(rank);
            continue;
        }
        let behind = old.iter().find(|r| last.as_deref().is_none_or(|l| **r > l)).copied();
        let rank = rank_between(last.as_deref(), behind);
        last = Some(rank.clone());
        out.push(Step { rank, ..step.clone() });
    }
    out
}

/// The draft with the ids of parts that the manual already has. Ids stand in many fields; as text they are all alike.
fn renamed(drafted: &Drafted, known: &[(PartId, PartId)]) -> Result<Drafted, Refusal> {
    let fault = |e: serde_json::Error| Refusal::Invalid { field: "drafted", problem: e.to_string() };
    let text = serde_json::to_string(drafted).map_err(fault)?;
    let text = known.iter().fold(text, |text, (new, old)| text.replace(&new.to_string(), &old.to_string()));
    serde_json::from_str(&text).map_err(fault)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::reading::{self, Act};
    use crate::recording::Recording;
    use rstest::rstest;
    use uuid::Uuid;

    const FIRST: &str = "[0:00] Undo four screws of the lid. Take off the lid.\n\n\
        [0:10] Disconnect the fan cable. Take out the fan.\n\n[0:20] Take out the pump.";

    /// The manual of the first recording with what a second one adds.
    fn both(second: &str) -> Manual {
        let told = |n: u128, text: &str| {
            let recording = Recording::parse(text.as_bytes()).unwrap();
            let about = RecordingRef { id: RecordingId(Uuid::from_u128(n)), title: "take".into(), duration_ms: 0 };
            (about, reading::read(&recording))
        };
        let (about, read) = told(1, FIRST);
        let manual = draft(ManualId(Uuid::nil()), "Mixer", "", &[Source { recording: about, reading: &read }]);
        let (recording, read) = told(2, second);
        let more = draft_more(&manual, &Source { recording: recording.clone(), reading: &read }).unwrap();
        let attach = RecordingEdit::Attach { recording, drafted: Some(Box::new(more)) };
        manual.apply(&Edit::Recording(attach), "Ann").unwrap().0
    }

    #[rstest]
    #[case::the_same_again(FIRST, &["Remove the lid", "Remove the fan", "Remove the pump"])]
    #[case::behind("[0:00] Take off the lid. Take out the fan. Take out the pump.\n\n[0:20] Take out the motor.",
        &["Remove the lid", "Remove the fan", "Remove the pump", "Remove the motor"])]
    #[case::between("[0:00] Take off the lid.\n\n[0:10] Take out the filter.\n\n[0:20] Take out the fan.",
        &["Remove the lid", "Remove the filter", "Remove the fan", "Remove the pump"])]
    #[case::before("[0:00] Take off the bowl.\n\n[0:10] Take off the lid.",
        &["Remove the bowl", "Remove the lid", "Remove the fan", "Remove the pump"])]
    #[case::another_part_of_it("[0:00] Take out the filter.\n\n[0:10] Take out the motor.",
        &["Remove the lid", "Remove the fan", "Remove the pump", "Remove the filter", "Remove the motor"])]
    fn only_what_is_new_becomes_a_step_and_stands_where_it_is_told(#[case] second: &str, #[case] wanted: &[&str]) {
        let manual = both(second);
        let titles: Vec<&str> = manual.steps_in(Phase::Teardown).iter().map(|s| s.title.as_str()).collect();
        assert_eq!(titles, wanted);
    }

    #[test]
    fn nothing_new_of_a_step_told_again_is_lost() {
        let manual = both(
            "[0:00] Heat the lid with a heat gun at 70 degrees Celsius for two minutes. Disconnect the lamp cable. \
            Undo two screws of the lid, 12 millimetres long. Take off the lid.",
        );
        let lid = manual.steps_in(Phase::Teardown)[0].id;
        let serves: Vec<_> = manual.connectors_of(lid).filter_map(|c| c.serves).map(|p| manual.part_name(p)).collect();
        assert_eq!((manual.steps.len(), manual.heats_of(lid).count(), serves), (3, 1, vec!["lamp"]));
        let lengths = manual.groups_of(lid).filter(|g| g.length.is_some()).count();
        assert_eq!((manual.groups_of(lid).count(), lengths), (2, 1));
    }

    #[test]
    fn what_is_told_again_is_evidence_and_another_count() {
        let manual = both("[0:00] Undo five screws of the lid. Heat the lid. Take off the lid.");
        let lid = manual.steps_in(Phase::Teardown)[0];
        let sources: BTreeSet<RecordingId> = lid
            .evidence
            .iter()
            .filter_map(|e| match e {
                Evidence::Recording { recording, .. } => Some(*recording),
                _ => None,
            })
            .collect();
        assert_eq!(sources.len(), 2);
        assert!(lid.actions.iter().any(|a| a.act == Act::Heat), "{:?}", lid.actions);
        assert_eq!(lid.actions.iter().filter(|a| a.act == Act::Remove).count(), 1);
        let claims: Vec<u32> = manual.fasteners.values().flat_map(|g| &g.claims).map(|c| c.count).collect();
        assert_eq!((claims, manual.fasteners.len()), (vec![4, 5], 1));
    }
}
