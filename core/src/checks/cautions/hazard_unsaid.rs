//! A step brings a hazard about, and nobody warned of it: the catalogue proposes a warning.

use super::withheld::withheld;
use crate::cautions::coverage::{Covered, Stretch};
use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::{CautionId, StepId};
use crate::labels::Label;
use crate::manual::{CautionEdit, Edit, Manual};
use crate::reading::CautionSubject;
use std::collections::BTreeSet;
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::HazardUnsaid,
    stop: Stop::Cautions,
    blocks: false,
    // A proposal is declined with its reason; it comes back when the step changes.
    may_set_aside: true,
    why: "A narrator knows the hazard in his fingers and does not say it; a reader meets it for the first time.",
    source: "hazard catalogue of this application, after ANSI Z535.6 and ISO 3864-2 (from memory)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    // What is left to others is told to nobody, and needs no warning.
    let left: BTreeSet<StepId> = withheld(case.manual).into_iter().flat_map(|w| w.steps).collect();
    let unsaid = case.stretches().iter().filter(|s| s.covered == Covered::Unsaid && !left.contains(&s.first()));
    unsaid.map(|s| proposal(case.manual, s)).collect()
}

/// The finding with the press that puts the warning there.
pub fn proposal(manual: &Manual, stretch: &Stretch) -> Finding {
    let (step, number) = stretch.steps[0];
    let title = manual.steps.get(&step).map_or("", |s| s.title.as_str());
    let hazard = stretch.hazard();
    let says = format!("{}: “{title}” {}, and nobody warns of it.", capital(hazard.label()), stretch.why);
    let (about, text) = (stretch.entry.told_as.first().copied().unwrap_or(CautionSubject::Other), stretch.proposed());
    // The same proposal has the same id, however often it is made.
    let id = CautionId(Uuid::new_v5(&step.0, format!("caution/{}", hazard.wire()).as_bytes()));
    let add = CautionEdit::Add { id, step, about, hazard: Some(hazard), text };
    let fix = Fix::new(format!("Warn before step {number}"), Edit::Caution(add));
    RULE.finding(Subject::Step(step), says).resting_on((hazard, &stretch.why)).with([fix])
}

fn capital(text: &str) -> String {
    crate::manual::capitalised(text)
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::{check, manual};
    use crate::checks::findings;
    use crate::manual::{Edit, FindingEdit, PartEdit};

    const TOLD: &str = "Take off the cover. Take out the return spring.";

    #[test]
    fn nobody_warned() {
        let says =
            "Spring under tension: “Remove the return spring” lets the return spring go, and nobody warns of it.";
        check(&RULE, TOLD, &[says]);
    }

    #[test]
    fn one_press_warns() {
        let manual = manual(TOLD);
        let finding = findings(&manual).into_iter().find(|f| f.rule == RULE.id).expect("it is proposed");
        assert_eq!(finding.fixes[0].label, "Warn before step 2");
        let warned = manual.apply(&finding.fixes[0].edit, "Ann").unwrap().0;
        assert!(findings(&warned).iter().all(|f| f.rule != RULE.id));
        assert_eq!(warned.cautions.len(), 1);
    }

    #[test]
    fn declined_it_stays_so_until_what_it_rests_on_changes() {
        let manual = manual(TOLD);
        let finding = findings(&manual).into_iter().find(|f| f.rule == RULE.id).expect("it is proposed");
        let because = "it hangs loose here".to_owned();
        let aside = Edit::Finding(FindingEdit::SetAside { id: finding.key, rule: RULE.id.name(), because });
        let declined = manual.apply(&aside, "Ann").unwrap().0;
        let again =
            |m: &crate::manual::Manual| findings(m).into_iter().find(|f| f.rule == RULE.id).and_then(|f| f.set_aside);
        assert_eq!(again(&declined).as_deref(), Some("it hangs loose here"));
        let spring = declined.parts.values().find(|p| p.name == "return spring").expect("it is a part").id;
        let renamed = Edit::Part(PartEdit::Rename { id: spring, name: "torsion spring".to_owned() });
        assert_eq!(again(&declined.apply(&renamed, "Ann").unwrap().0), None, "another spring, another judgement");
    }
}
