//! A warning stands at a later step than the hazard.

use crate::cautions::coverage::Covered;
use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::labels::Label;
use crate::manual::{CautionEdit, CautionField, Edit};

pub(super) const RULE: Rule = Rule {
    id: RuleId::SaidLate,
    stop: Stop::Cautions,
    blocks: true,
    may_set_aside: true,
    why: "A warning behind the act is read by whoever is hurt already.",
    source: "ANSI Z535.6 and IEC/IEEE 82079-1: directly before what it concerns (from memory)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let late = case.stretches().iter().filter(|s| s.covered == Covered::Late);
    late.filter_map(|stretch| {
        let caution = case.manual.cautions.get(stretch.cautions.first()?)?;
        let (step, number) = stretch.steps[0];
        let says = format!(
            "“{}” {}; the warning of it ({}) stands only at “{}”.",
            case.title(step),
            stretch.why,
            stretch.hazard().label(),
            case.title(caution.step)
        );
        let edit = CautionEdit::Set { id: caution.id, field: CautionField::Step(step) };
        let fix = Fix::new(format!("Move the warning before step {number}"), Edit::Caution(edit));
        Some(RULE.finding(Subject::Step(step), says).resting_on((stretch.hazard(), caution.id)).with([fix]))
    })
    .collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::manual;
    use crate::checks::findings;
    use crate::manual::{CautionEdit, CautionField, Edit, Phase};

    #[test]
    fn a_warning_behind_the_first_is_moved_before_it() {
        let told = manual(
            "Caution, the glass splinters. Pry off the front glass. Take out the tray. Pry off the rear glass. Take out the fan.",
        );
        let found = |m: &crate::manual::Manual| findings(m).into_iter().find(|f| f.rule == RULE.id);
        assert!(found(&told).is_none());
        let steps: Vec<_> = told.steps_in(Phase::Teardown).iter().map(|s| s.id).collect();
        let id = told.cautions.values().next().expect("one").id;
        let edit = Edit::Caution(CautionEdit::Set { id, field: CautionField::Step(steps[2]) });
        let moved = told.apply(&edit, "Ann").unwrap().0;
        let finding = found(&moved).expect("it comes too late");
        assert!(
            finding.says.ends_with("the warning of it (glass) stands only at “Remove the rear glass”."),
            "{}",
            finding.says
        );
        assert!(found(&moved.apply(&finding.fixes[0].edit, "Ann").unwrap().0).is_none());
    }
}
