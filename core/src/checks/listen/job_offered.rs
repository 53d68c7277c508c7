//! The narrator says how a part is reached and does not go there: a guide can be cut for it.

use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::*;
use crate::manual::{CorrectedReading, Edit, Evidence, JobEdit, Manual, ToldPart};
use crate::reading::{NeedFact, Statement};
use crate::things::{gate, same_thing};
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::JobOffered,
    stop: Stop::Chain,
    blocks: false,
    may_set_aside: true,
    why: "What is told once need not be found out again by every reader.",
    source: "common practice, no source",
};

/// One finding a part that is told of and that no guide is about.
pub(super) fn find(manual: &Manual, read: &CorrectedReading) -> Vec<Finding> {
    let mut met: Vec<&str> = Vec::new();
    let mut out = Vec::new();
    for statement in &read.reading.statements {
        // What belongs to qualified people is offered to nobody.
        let free = |n: &&NeedFact| n.after.iter().chain([&n.target]).all(|name| gate(name).is_none());
        for need in statement.facts.needs.iter().filter(|n| !n.after.is_empty()).filter(free) {
            let known = met.iter().any(|m| same_thing(m, &need.target)) || has_guide(manual, &need.target);
            if !known {
                met.push(&need.target);
                out.push(offer(manual, read.recording, statement, need).decided(manual));
            }
        }
    }
    out
}

fn has_guide(manual: &Manual, target: &str) -> bool {
    let about = |p: &PartId| manual.parts.get(p).is_some_and(|p| same_thing(&p.name, target));
    manual.jobs.values().any(|j| j.targets.iter().any(about))
}

fn offer(manual: &Manual, recording: RecordingId, statement: &Statement, need: &NeedFact) -> Finding {
    let words = Subject::Words { recording, start: statement.start, end: statement.end };
    let first = need.after.join(", the ");
    let says =
        format!("The narrator says how the {} is reached: first the {first}. No guide is about it yet.", need.target);
    let evidence = Evidence::Recording {
        recording,
        start: statement.start,
        end: statement.end,
        from_ms: statement.from_ms,
        to_ms: statement.to_ms,
    };
    // The same offer has the same ids, however often it is made.
    let id = |what: &str, name: &str| Uuid::new_v5(&recording.0, format!("{what}/{}/{name}", need.target).as_bytes());
    let part = |name: &String| ToldPart {
        part: PartId(id("part", name)),
        name: name.clone(),
        step: StepId(id("step", name)),
        action: ActionId(id("action", name)),
        requirement: RequirementId(id("requirement", name)),
    };
    let way = need.after.iter().chain([&need.target]).map(part).collect();
    let edit = JobEdit::Told { id: JobId(id("job", "")), title: title(manual, &need.target), way, evidence };
    let fix = Fix::new("Make it a guide", Edit::Job(edit));
    RULE.finding(words, says).resting_on((&need.target, &need.after)).with([fix])
}

fn title(manual: &Manual, target: &str) -> String {
    let known = manual.parts.values().find(|p| same_thing(&p.name, target)).map_or(target, |p| p.name.as_str());
    format!("New {known}")
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::findings;
    use crate::finding::Finding;
    use crate::ids::*;
    use crate::manual::{House, Manual, RecordingRef, Source, draft};
    use crate::reading::read;
    use crate::recording::Recording;
    use uuid::Uuid;

    const RECORDING: RecordingId = RecordingId(Uuid::from_u128(7));
    const TOLD: &str = "[0:00] Take off the base. Take off the lid.\n\n[0:20] If you needed to replace the pump you would \
        have to take off the base and the lid.";

    fn drafted(text: &str) -> (Manual, Recording) {
        let recording = Recording::parse(text.as_bytes()).unwrap();
        let about = RecordingRef { id: RECORDING, title: "test".into(), duration_ms: 0 };
        let source = Source { recording: about, reading: &read(&recording) };
        (draft(ManualId(Uuid::nil()), "Test", "", &[source]), recording)
    }

    fn found(manual: &Manual, recording: &Recording) -> Vec<Finding> {
        let read = manual.corrections_of(RECORDING).read(recording);
        findings(manual, &read, &House::default()).into_iter().filter(|f| f.rule == RULE.id).collect()
    }

    #[test]
    fn what_belongs_to_qualified_people_is_offered_to_nobody() {
        let (manual, recording) = drafted(&TOLD.replace("pump", "transformer"));
        assert!(found(&manual, &recording).is_empty());
    }

    #[test]
    fn one_press_makes_a_guide_with_the_told_way() {
        let (manual, recording) = drafted(TOLD);
        let offers = found(&manual, &recording);
        let says: Vec<&str> = offers.iter().map(|f| f.says.as_str()).collect();
        assert_eq!(
            says,
            ["The narrator says how the pump is reached: first the base, the lid. No guide is about it yet."]
        );
        let made = manual.apply(&offers[0].fixes[0].edit, "Ann").unwrap().0;
        assert!(found(&made, &recording).is_empty(), "it is offered once");
        let job = made.jobs.values().next().unwrap();
        let cut = crate::order::cut(&made, job).expect("a way leads there");
        let titles: Vec<&str> = cut.order().iter().map(|s| cut.steps[s].title.as_str()).collect();
        assert_eq!(
            (job.title.as_str(), titles),
            ("New pump", vec!["Remove the base", "Remove the lid", "Remove the pump"])
        );
        let pump = cut.steps.values().find(|s| s.title == "Remove the pump").unwrap();
        assert!(!pump.evidence.is_empty() && pump.note.as_deref().is_some_and(|n| n.contains("not shown")), "{pump:?}");
    }

    #[test]
    fn what_is_taken_out_anyway_needs_no_new_step() {
        let (manual, recording) = drafted(&format!("{TOLD}\n\n[0:40] Take out the pump."));
        let edit = found(&manual, &recording)[0].fixes[0].edit.clone();
        let made = manual.apply(&edit, "Ann").unwrap().0;
        assert_eq!((made.steps.len(), made.parts.len()), (manual.steps.len(), manual.parts.len()));
        assert_eq!(made.jobs.len(), 1);
    }

    #[test]
    fn nothing_told_offers_nothing() {
        let (manual, recording) = drafted("[0:00] Take off the base. Take out the pump.");
        assert!(found(&manual, &recording).is_empty());
    }
}
