//! The heat that a step tells harms what lies behind the bond.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::seams::{HeatVerdict, told};

pub(super) const RULE: Rule = Rule {
    id: RuleId::HeatHarms,
    stop: Stop::Seams,
    blocks: true,
    may_set_aside: true,
    why: "A cell that is warmed too far swells, vents or burns; a panel or a plastic part is spoilt.",
    source: "surface of a lithium-ion cell at most 60 °C, as is commonly quoted in service; heat deflection of plastics; all \
             from memory",
};

/// Only under a stack that an author put together: what a cover usually has proves nothing.
pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let known = manual.seams.values().filter(|s| s.heating.is_some() && manual.steps.contains_key(&s.step));
    known
        .flat_map(|seam| {
            let harms = told(manual, seam).into_iter().filter(|t| t.judged.verdict == HeatVerdict::Harms);
            harms.map(|t| {
                let says = format!("“{}” is told to heat too far. {}", case.title(seam.step), t.judged.says);
                RULE.finding(Subject::Step(seam.step), says).resting_on((seam.id, t.heat, &seam.heating))
            })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::find;
    use crate::checks::Case;
    use crate::heat::media::Medium;
    use crate::manual::{Edit, Manual, SeamEdit, SeamField, drafted};
    use crate::seams::heating;
    use rstest::rstest;

    fn told(how: &str) -> Manual {
        drafted::manual(&format!(
            "[0:00] Heat the rear glass with a heating pad at {how}. Cut the glue of the rear glass with a pick. Lift off \
             the rear glass."
        ))
    }

    /// The same with a stack that an author put together: the cell right behind the glass, or a frame between.
    fn with_stack(manual: &Manual, frame: bool) -> Manual {
        let seam = manual.seams.values().next().expect("the glue");
        let mut stack = heating(manual, seam);
        if !frame {
            stack.layers.retain(|l| !matches!(l.medium, Medium::Aluminium | Medium::Air));
        }
        let set = SeamEdit::Set { id: seam.id, field: SeamField::Heating(Some(stack)) };
        manual.apply(&Edit::Seam(set), "Ann").unwrap().0
    }

    #[rstest]
    #[case::cell_behind_the_glass("75 degrees for two minutes", false, true)]
    #[case::frame_between("75 degrees for two minutes", true, false)]
    #[case::mild("60 degrees for ten seconds", false, false)]
    fn heat_is_held_against_what_lies_behind(#[case] how: &str, #[case] frame: bool, #[case] harms: bool) {
        let manual = with_stack(&told(how), frame);
        let found = find(&Case::new(&manual));
        assert_eq!(!found.is_empty(), harms, "{found:?}");
        assert!(found.iter().all(|f| f.blocks && f.says.contains("the battery cell may pass 60 °C")), "{found:?}");
    }

    #[test]
    fn a_stack_that_nobody_put_together_proves_nothing() {
        assert!(find(&Case::new(&told("110 degrees for ten minutes"))).is_empty());
    }
}
