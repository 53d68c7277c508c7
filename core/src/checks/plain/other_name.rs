//! One part goes by two names: the one that its author gave it, and the one of the recording, typed again.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, Part, PartEdit};
use crate::things::same_thing;

pub(super) const RULE: Rule = Rule {
    id: RuleId::OtherName,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Two names are two parts to whoever does not know the device.",
    source: "ASD-STE100: one name for one thing (from memory)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let parts = || case.manual.parts.values();
    let called_otherwise = parts().filter_map(|p| Some((p, other(p)?)));
    let again = called_otherwise.filter_map(|(part, heard)| {
        let twin = parts().find(|q| q.id != part.id && same_thing(&q.name, heard))?;
        Some(finding(part, twin))
    });
    again.collect()
}

/// The name that the recording gave it, where an author calls it otherwise.
fn other(part: &Part) -> Option<&str> {
    part.heard_as.as_deref().filter(|heard| !same_thing(heard, &part.name))
}

fn finding(part: &Part, twin: &Part) -> Finding {
    let (name, heard) = (&part.name, &twin.name);
    let says =
        format!("“{heard}” is what the recording calls the {name}, and a sentence names it so. One name for one part.");
    let merge = Edit::Part(PartEdit::Merge { id: twin.id, into: part.id });
    let fix = Fix::new(format!("Call it “{name}” everywhere"), merge);
    RULE.finding_about(vec![Subject::Part(twin.id), Subject::Part(part.id)], says).with([fix])
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::manual;
    use crate::checks::findings;
    use crate::manual::{Edit, Manual, PartEdit, Phase, SentenceEdit, SentenceField, StepEdit};

    #[test]
    fn the_name_of_the_recording_typed_again() {
        let told = manual("Take off the cover. Take out the blower.");
        let id = told.parts.values().find(|p| p.name == "blower").expect("it is a part").id;
        let named = told.apply(&Edit::Part(PartEdit::Rename { id, name: "fan".to_owned() }), "Ann").unwrap().0;
        let found = |m: &Manual| findings(m).into_iter().find(|f| f.rule == RULE.id);
        assert!(found(&named).is_none(), "drafted sentences call it as the manual does");
        let step = named.steps_in(Phase::Teardown)[0];
        let text = Some("Take out the blower.".to_owned());
        let sentence = SentenceEdit::Set { id: step.actions[0].id, field: SentenceField::Text(text) };
        let typed = named.apply(&Edit::Step(StepEdit::Sentence { id: step.id, sentence }), "Ann").unwrap().0;
        let finding = found(&typed).unwrap_or_else(|| panic!("{:?}", typed.parts));
        assert!(finding.says.starts_with("“blower” is what the recording calls the fan"), "{}", finding.says);
        let mended = typed.apply(&finding.fixes[0].edit, "Ann").unwrap().0;
        assert!(found(&mended).is_none());
        let texts: Vec<String> = mended.steps.values().flat_map(|s| &s.actions).map(|a| mended.sentence(a)).collect();
        assert!(texts.iter().all(|t| !t.contains("blower")), "{texts:?}");
    }
}
