//! What rests on a statement follows its facts when an author puts them right.
//!
//! A statement and the things drafted from it are matched by their kind and their place in the row. Where the numbers
//! differ (somebody has added or removed a thing since) nothing is guessed: that kind stays as it is.

use crate::ids::*;
use crate::manual::edits::place::Touched;
use crate::manual::model::parts::rename_in;
use crate::manual::{Action, Aspect, Evidence, Manual, Part, Step};
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
    use crate::manual::{Edit, Manual, ReadingEdit, RecordingRef, Source, draft};
    use crate::reading::{Facts, Reading, read};
    use crate::recording::Recording;
    use rstest::rstest;
    use serde_json::{Value, json};
    use uuid::Uuid;

    const TOLD: &str =
        "Heat the lid with a heat gun at 80 degrees Celsius for two minutes. Disconnect the fan cable. Remove the fan.";

    fn drafted() -> (Manual, Reading) {
        let recording = Recording::parse(TOLD.as_bytes()).unwrap();
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

    #[test]
    fn a_fact_too_many_changes_nothing_of_its_kind() {
        let (before, _) = drafted();
        let two = json!([{"op": "disconnect", "what": "lid"}, {"op": "disconnect", "what": "fan"}]);
        assert_eq!(corrected(1, "/connectors", two).connectors, before.connectors);
    }
}
