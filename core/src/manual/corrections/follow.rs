//! What rests on a statement follows its facts when an author puts them right.
//!
//! A statement and the things drafted from it are matched by their kind and their place in the row. Where the numbers
//! differ (somebody has added or removed a thing since) nothing is guessed: that kind stays as it is.

use crate::ids::*;
use crate::manual::edits::place::{Place, Touched};
use crate::manual::edits::refusal::Refusal;
use crate::manual::model::parts::rename_in;
use crate::manual::{Action, Aspect, Caution, Connector, Evidence, FastenerGroup, Heat, Manual, Part, Seam, Step};
use crate::reading::Facts;
use uuid::Uuid;

/// The words of a recording whose facts were put right.
#[derive(Debug, Clone, Copy)]
pub(in crate::manual) struct Words {
    pub recording: RecordingId,
    pub start: usize,
    pub end: usize,
}

impl Words {
    fn bear(self, evidence: &[Evidence]) -> bool {
        evidence
            .iter()
            .any(|e| e.span_in(self.recording).is_some_and(|(start, end)| start < self.end && self.start < end))
    }

    /// Whether something rests on these words and on nothing else.
    fn alone_bear(self, evidence: &[Evidence]) -> bool {
        let within = |e: &Evidence| e.span_in(self.recording).is_some_and(|(a, b)| self.start <= a && b <= self.end);
        !evidence.is_empty() && evidence.iter().all(within)
    }
}

/// The things of a kind that rest on the words, in the order they were made; `None` where the facts are not as many.
macro_rules! resting {
    ($manual:ident, $map:ident, $words:expr, $count:expr) => {{
        let mut found: Vec<_> = $manual.$map.values().filter(|i| $words.bear(&i.evidence)).map(|i| i.id).collect();
        found.sort();
        (found.len() == $count).then_some(found).into_iter().flatten()
    }};
}

impl Manual {
    /// Screws, connectors, heat and parts that rest on these words take what was put right. `seed` makes the ids of
    /// parts that had no name before.
    pub(in crate::manual) fn follow_facts(&mut self, words: Words, facts: &Facts, seed: Uuid, touched: &mut Touched) {
        let mut ids = IdMaker::new(seed);
        for (id, fact) in resting!(self, fasteners, words, facts.fasteners.len()).zip(&facts.fasteners) {
            let holds = fact.what.as_deref().map(|w| self.named_part(w, words, &mut ids, touched));
            touched.add(Aspect::Fasteners, id.0);
            let Some(group) = self.fasteners.get_mut(&id) else { continue };
            (group.count, group.drive, group.length) = (fact.count, fact.drive, fact.length);
            group.captive = fact.captive;
            group.bit.clone_from(&fact.bit);
            group.holds = holds.into_iter().collect();
        }
        for (id, fact) in resting!(self, connectors, words, facts.connectors.len()).zip(&facts.connectors) {
            let serves = fact.what.as_deref().map(|w| self.named_part(w, words, &mut ids, touched));
            touched.add(Aspect::Connectors, id.0);
            let Some(connector) = self.connectors.get_mut(&id) else { continue };
            connector.serves = serves;
        }
        for (id, fact) in resting!(self, heats, words, facts.heat.len()).zip(&facts.heat) {
            let target = fact.target.as_deref().map(|w| self.named_part(w, words, &mut ids, touched));
            touched.add(Aspect::Heats, id.0);
            let Some(heat) = self.heats.get_mut(&id) else { continue };
            (heat.source, heat.target) = (fact.source, target);
            (heat.temperature, heat.dwell) = (fact.temperature, fact.dwell);
        }
        self.follow_parts(words, facts, &mut ids, touched);
    }

    /// Sentences that waited for this word take what was chosen.
    pub(in crate::manual) fn follow_word(&mut self, words: Words, meant: Option<&str>, touched: &mut Touched) {
        for step in self.steps.values_mut() {
            let waits = |a: &&mut Action| a.doubt.is_some() && words.bear(&a.evidence);
            for action in step.actions.iter_mut().filter(waits) {
                touched.add(Aspect::Steps, step.id.0);
                let heard = action.doubt.take().map(|d| d.heard).unwrap_or_default();
                let chosen = meant.filter(|m| !m.eq_ignore_ascii_case(&heard));
                if let (Some(text), Some(meant)) = (&mut action.text, chosen) {
                    *text = rename_in(text, &heard, meant);
                }
            }
        }
    }

    /// What was drafted of words that are no work leaves: their sentences, and what hangs on the steps by them alone, with
    /// steps and parts that nothing else speaks of. What an author wrote or changed stays.
    pub(in crate::manual) fn leave_out(&mut self, words: Words, touched: &mut Touched) -> Result<(), Refusal> {
        let authored = |manual: &Self, aspect: Aspect, id: Uuid, field: &str| {
            let place = Place { aspect, id, field: Some(field.to_owned()) }.key();
            manual.authored.range(place.clone()..).next().is_some_and(|(key, _)| key.starts_with(&place))
        };
        let steps: Vec<StepId> = self.steps.values().filter(|s| words.bear(&s.evidence)).map(|s| s.id).collect();
        if steps.is_empty() {
            return Ok(());
        }
        for id in steps {
            let Some(step) = self.steps.get(&id) else { continue };
            let goes = |a: &Action| {
                let field = format!("actions/{}", a.id);
                words.alone_bear(&a.evidence)
                    && (a.text.is_none() || a.said)
                    && !authored(self, Aspect::Steps, id.0, &field)
            };
            let gone: Vec<ActionId> = step.actions.iter().filter(|a| goes(a)).map(|a| a.id).collect();
            if gone.is_empty() {
                continue;
            }
            touched.add(Aspect::Steps, id.0);
            if let Some(step) = self.steps.get_mut(&id) {
                step.actions.retain(|a| !gone.contains(&a.id));
                // What is left of the step rests on other words.
                if !words.alone_bear(&step.evidence) {
                    step.evidence.retain(|e| !words.alone_bear(std::slice::from_ref(e)));
                }
            }
        }
        let spoken: Vec<GroupId> =
            self.steps.values().flat_map(|s| &s.actions).flat_map(|a| a.roles.groups.iter().copied()).collect();
        let by_hand: Vec<Uuid> = self.authored.keys().filter_map(|key| key.split('/').nth(1)?.parse().ok()).collect();
        let stays = |id: Uuid, evidence: &[Evidence]| !words.alone_bear(evidence) || by_hand.contains(&id);
        let kept = |g: &FastenerGroup| stays(g.id.0, &g.evidence) || spoken.contains(&g.id);
        if !self.fasteners.values().all(kept) {
            self.keep_letters(touched);
        }
        self.keep_entities::<FastenerGroup>(kept, touched);
        self.keep_entities::<Connector>(|c| stays(c.id.0, &c.evidence), touched);
        self.keep_entities::<Heat>(|h| stays(h.id.0, &h.evidence), touched);
        self.keep_entities::<Seam>(|s| stays(s.id.0, &s.evidence), touched);
        self.keep_entities::<Caution>(|c| stays(c.id.0, &c.evidence), touched);
        let bare = |s: &Step| {
            words.alone_bear(&s.evidence)
                && s.actions.is_empty()
                && s.branches.is_empty()
                && s.note.is_none()
                && !by_hand.contains(&s.id.0)
                && self.groups_of(s.id).next().is_none()
                && self.connectors_of(s.id).next().is_none()
                && self.heats_of(s.id).next().is_none()
                && self.cautions_of(s.id).next().is_none()
        };
        let bare: Vec<StepId> = self.steps.values().filter(|s| bare(s)).map(|s| s.id).collect();
        for id in bare {
            self.remove_step(id, touched)?;
        }
        let idle = |p: &Part| !stays(p.id.0, &p.evidence) && self.user_of(p.id).is_none();
        let idle: Vec<PartId> = self.parts.values().filter(|p| idle(p)).map(|p| p.id).collect();
        self.keep_entities::<Part>(|p| !idle.contains(&p.id), touched);
        Ok(())
    }

    /// The sentences that tell of the words move the parts of the facts.
    fn follow_parts(&mut self, words: Words, facts: &Facts, ids: &mut IdMaker, touched: &mut Touched) {
        let tells = |s: &Step| s.actions.iter().any(|a| words.bear(&a.evidence));
        let steps: Vec<StepId> = self.steps.values().filter(|s| tells(s)).map(|s| s.id).collect();
        if steps.is_empty() {
            return;
        }
        let mut parts: Vec<PartId> = Vec::new();
        for fact in &facts.parts {
            let id = self.named_part(&fact.what, words, ids, touched);
            if !parts.contains(&id) {
                parts.push(id);
            }
        }
        for step in steps {
            touched.add(Aspect::Steps, step.0);
            let Some(step) = self.steps.get_mut(&step) else { continue };
            // Of several sentences made of the same words, those that move a part tell of the facts' parts.
            let mut told: Vec<&mut Action> = step.actions.iter_mut().filter(|a| words.bear(&a.evidence)).collect();
            let alone = told.len() == 1;
            for action in told.iter_mut().filter(|a| alone || a.moves()) {
                if action.parts != parts {
                    action.corrected();
                    action.parts.clone_from(&parts);
                }
            }
        }
    }

    /// The part of this name; a new one, told by these words, where there is none.
    fn named_part(&mut self, name: &str, words: Words, ids: &mut IdMaker, touched: &mut Touched) -> PartId {
        let name = name.trim();
        if let Some(part) = self.parts.values().find(|p| p.name.eq_ignore_ascii_case(name)) {
            return part.id;
        }
        let mut id = ids.make(PartId);
        while self.parts.contains_key(&id) {
            id = ids.make(PartId);
        }
        touched.add(Aspect::Parts, id.0);
        let Words { recording, start, end } = words;
        let evidence = vec![Evidence::Recording { recording, start, end, from_ms: None, to_ms: None }];
        self.parts.insert(id, Part::new(id, name.to_owned(), evidence));
        id
    }
}

#[cfg(test)]
mod tests {
    use crate::ids::*;
    use crate::manual::{
        Edit, Manual, ReadingEdit, RecordingRef, SentenceEdit, SentenceField, Source, StepEdit, draft,
    };
    use crate::reading::{Facts, Reading, StatementKind, read};
    use crate::recording::Recording;
    use rstest::rstest;
    use serde_json::{Value, json};
    use uuid::Uuid;

    const TOLD: &str =
        "Heat the lid with a heat gun at 80 degrees Celsius for two minutes. Disconnect the fan cable. Remove the fan.";

    fn drafted() -> (Manual, Reading) {
        drafted_of(TOLD)
    }

    fn drafted_of(told: &str) -> (Manual, Reading) {
        let recording = Recording::parse(told.as_bytes()).unwrap();
        let reading = read(&recording);
        let about = RecordingRef { id: RecordingId(Uuid::nil()), title: "test".into(), duration_ms: 0 };
        let source = Source { recording: about, reading: &reading };
        (draft(ManualId(Uuid::nil()), "Heater", "Heater 1", &[source]), reading)
    }

    /// The manual after the facts of one statement were put right at one place of their JSON.
    fn corrected(at: usize, pointer: &str, value: Value) -> Manual {
        let (manual, reading) = drafted();
        let s = &reading.statements[at];
        let mut facts = serde_json::to_value(&s.facts).unwrap();
        *facts.pointer_mut(pointer).expect("a field of the facts") = value;
        let facts: Facts = serde_json::from_value(facts).unwrap();
        let edit = Edit::Reading(ReadingEdit::SetFacts {
            id: CorrectionId(Uuid::from_u128(1)),
            recording: RecordingId(Uuid::nil()),
            start: s.start,
            end: s.end,
            facts: Some(facts),
        });
        manual.apply(&edit, "Ann").unwrap().0
    }

    #[test]
    fn a_corrected_heat_heats_so() {
        let manual = corrected(0, "/heat/0/temp_c", json!([70.0, 75.0]));
        let heat = serde_json::to_value(manual.heats.values().next().unwrap()).unwrap();
        assert_eq!(heat["temp_c"], json!([70.0, 75.0]));
    }

    #[rstest]
    #[case("fan", 2)]
    #[case("pump", 3)]
    fn a_corrected_part_is_the_one_that_moves(#[case] name: &str, #[case] parts: usize) {
        let manual = corrected(2, "/parts/0/what", json!(name));
        let step =
            manual.steps.values().find(|s| s.actions.iter().any(|a| manual.sentence(a).starts_with("Remove"))).unwrap();
        let moved: Vec<&str> = step.actions.last().unwrap().parts.iter().map(|p| manual.part_name(*p)).collect();
        assert_eq!((moved, manual.parts.len()), (vec![name], parts));
    }

    #[test]
    fn a_corrected_connector_serves_another_part() {
        let manual = corrected(1, "/connectors/0/what", json!("lid"));
        let serves = manual.connectors.values().next().unwrap().serves.unwrap();
        assert_eq!(manual.part_name(serves), "lid");
    }

    const LAMP: &str = "Remove the shade. My cousin once removed the motor of a fan. Undo the two screws of the base. \
                        Remove the base.";

    /// The lamp after a statement was marked.
    fn marked(manual: &Manual, reading: &Reading, words: &str, how: impl Fn(usize, usize) -> ReadingEdit) -> Manual {
        let s = reading.statements.iter().find(|s| s.text.contains(words)).unwrap();
        manual.apply(&Edit::Reading(how(s.start, s.end)), "Ann").unwrap().0
    }

    fn talk(start: usize, end: usize) -> ReadingEdit {
        let (id, recording) = (CorrectionId(Uuid::from_u128(1)), RecordingId(Uuid::nil()));
        ReadingEdit::ChangeKind { id, recording, start, end, kind: Some(StatementKind::Chatter) }
    }

    fn left_out(start: usize, end: usize) -> ReadingEdit {
        let (id, recording) = (CorrectionId(Uuid::from_u128(1)), RecordingId(Uuid::nil()));
        ReadingEdit::Drop { id, recording, start, end, dropped: true }
    }

    fn all_words(manual: &Manual) -> String {
        let steps = manual.order().into_iter().map(|s| &manual.steps[&s]);
        steps.flat_map(|s| &s.actions).map(|a| manual.sentence(a)).collect::<Vec<_>>().join(" ")
    }

    #[rstest]
    #[case::talk(talk)]
    #[case::no_part_of_the_job(left_out)]
    fn what_is_no_work_leaves_the_steps(#[case] how: fn(usize, usize) -> ReadingEdit) {
        let (lamp, reading) = drafted_of(LAMP);
        let without = marked(&lamp, &reading, "shade", how);
        assert_eq!(without.steps.len() + 1, lamp.steps.len(), "{}", all_words(&lamp));
        assert!(!all_words(&without).contains("shade") && without.parts.values().all(|p| p.name != "shade"));
        assert_eq!(without.fasteners.len(), 1, "what others said stays");
        let screws = marked(&lamp, &reading, "two screws", how);
        assert_eq!(screws.fasteners.len(), 0);
        assert!(all_words(&screws).contains("Remove the base."), "{}", all_words(&screws));
        let s = reading.statements.iter().find(|s| s.text.contains("two screws")).unwrap();
        let rests = |m: &Manual| {
            m.steps
                .values()
                .flat_map(|s| &s.evidence)
                .any(|e| e.span_in(RecordingId(Uuid::nil())) == Some((s.start, s.end)))
        };
        assert!(rests(&lamp) && !rests(&screws), "no step says that it rests on these words");
    }

    #[test]
    fn what_an_author_wrote_stays() {
        let (lamp, reading) = drafted_of(LAMP);
        let step = lamp.order()[0];
        let id = lamp.steps[&step].actions[0].id;
        let field = SentenceField::Text(Some("Lift the shade off its ring.".into()));
        let sentence = SentenceEdit::Set { id, field };
        let typed = lamp.apply(&Edit::Step(StepEdit::Sentence { id: step, sentence }), "Ann").unwrap().0;
        let without = marked(&typed, &reading, "shade", talk);
        assert!(all_words(&without).starts_with("Lift the shade off its ring."));
    }

    #[test]
    fn a_fact_too_many_changes_nothing_of_its_kind() {
        let (before, _) = drafted();
        let two = json!([{"op": "disconnect", "what": "lid"}, {"op": "disconnect", "what": "fan"}]);
        assert_eq!(corrected(1, "/connectors", two).connectors, before.connectors);
    }
}
