//! The narrator warned of something, and no step of the guide says it.

use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{CautionEdit, CorrectedReading, Edit, Evidence, Manual, Step};
use crate::reading::{CautionSubject, Statement, StatementKind};
use crate::units::clock;
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::CautionLost,
    stop: Stop::Cautions,
    blocks: false,
    may_set_aside: true,
    why: "Who did the work warned of it; that is worth more than any catalogue.",
    source: "common practice, no source",
};

/// One finding a warning that stands nowhere.
pub(super) fn find(manual: &Manual, read: &CorrectedReading) -> Vec<Finding> {
    let warns = |(i, s): &(usize, &Statement)| {
        let dropped = manual.correction_of(read.recording, &read.raw[*i]).is_some_and(|c| c.dropped);
        s.kind == StatementKind::Caution && !s.facts.cautions.is_empty() && !dropped
    };
    let all = read.reading.statements.iter().enumerate().filter(warns);
    let lost = all.filter(|(_, s)| !is_kept(manual, read.recording, s));
    lost.filter_map(|(_, s)| Some(finding(manual, read.recording, s)?.decided(manual))).collect()
}

/// Whether a caution, or a sentence of a step, rests on these words.
fn is_kept(manual: &Manual, recording: RecordingId, statement: &Statement) -> bool {
    let rests = |e: &Evidence| e.span_in(recording).is_some_and(|(s, e)| s < statement.end && statement.start < e);
    let sentences = manual.steps.values().flat_map(|s| s.actions.iter().flat_map(|a| &a.evidence));
    let notes = manual.notes.values().flat_map(|n| &n.evidence);
    manual.cautions.values().flat_map(|c| &c.evidence).chain(sentences).chain(notes).any(rests)
}

fn finding(manual: &Manual, recording: RecordingId, statement: &Statement) -> Option<Finding> {
    let step = next_step(manual, recording, statement)?;
    let about = statement.facts.cautions.first().copied().unwrap_or(CautionSubject::Other);
    let at = statement.from_ms.map_or(String::new(), |ms| format!(" at {}", clock(ms)));
    let says = format!("Said{at} and in no step: “{}” ({}).", statement.text.trim(), about.label());
    let id = CautionId(Uuid::new_v5(&recording.0, format!("lost/{}", statement.start).as_bytes()));
    let text = statement.text.trim().to_owned();
    let add = CautionEdit::Add { id, step: step.id, about, hazard: None, text };
    let words = Subject::Words { recording, start: statement.start, end: statement.end };
    let fix = Fix::new(format!("Put it before “{}”", step.title), Edit::Caution(add));
    Some(RULE.finding_about(vec![words, Subject::Step(step.id)], says).resting_on(statement.start).with([fix]))
}

/// The step that is told next, else the last one before.
fn next_step<'m>(manual: &'m Manual, recording: RecordingId, statement: &Statement) -> Option<&'m Step> {
    let begins = |s: &&Step| s.evidence.iter().filter_map(|e| e.span_in(recording)).map(|(start, _)| start).min();
    let all: Vec<(usize, &Step)> = manual.steps.values().filter_map(|s| Some((begins(&s)?, s))).collect();
    let after = all.iter().filter(|(start, _)| *start >= statement.start).min_by_key(|(start, _)| *start);
    let before = || all.iter().max_by_key(|(start, _)| *start);
    after.or_else(before).map(|(_, step)| *step)
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::manual_and_reading;
    use crate::manual::{CautionEdit, Edit};

    const TOLD: &str = "Take off the cover. Caution, the ribbon is short, do not tear it. Take out the tray.";

    #[test]
    fn a_warning_that_was_taken_out_is_offered_again() {
        let (manual, read) = manual_and_reading(TOLD);
        assert!(super::find(&manual, &read).is_empty(), "{:?}", manual.cautions);
        let id = manual.cautions.values().next().expect("it was drafted").id;
        let without = manual.apply(&Edit::Caution(CautionEdit::Remove { id }), "Ann").unwrap().0;
        let [lost] = &super::find(&without, &read)[..] else { panic!("{:?}", super::find(&without, &read)) };
        assert!(lost.rule == RULE.id && lost.says.contains("the ribbon is short"), "{}", lost.says);
        assert_eq!(lost.fixes[0].label, "Put it before “Remove the tray”");
    }
}
