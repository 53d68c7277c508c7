//! Points that a house gives for the classes of repairability.
//!
//! A score is a judgement: how much a glued seam weighs against a rare bit belongs to the rules of a product group or of a
//! house, never to this program. So there is none until somebody fills this table in.

use crate::manual::edits::refusal::Refusal;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One row for each thing that is classed; what is left empty does not count.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScoreTable {
    pub steps: ScoreRow,
    /// Up to so many steps are class A, and class B; more are C.
    pub steps_up_to: StepLimits,
    pub fasteners: ScoreRow,
    pub tools: ScoreRow,
    pub place: ScoreRow,
    pub skill: ScoreRow,
}

/// How much a row weighs, and the points of each class.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScoreRow {
    pub weight: Option<f64>,
    pub a: Option<f64>,
    pub b: Option<f64>,
    pub c: Option<f64>,
}

/// Numbers of steps.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct StepLimits {
    pub a: Option<u32>,
    pub b: Option<u32>,
}

/// Points and weights of known tables go to 10 or to 100.
const MOST: f64 = 1_000.0;

/// More steps than any manual has.
const MOST_STEPS: u32 = 10_000;

impl ScoreTable {
    /// # Errors
    /// A figure that cannot be meant, with what can.
    pub(in crate::manual) fn checked(&self) -> Result<(), Refusal> {
        let rows = [&self.steps, &self.fasteners, &self.tools, &self.place, &self.skill];
        let figures = rows.into_iter().flat_map(|r| [r.weight, r.a, r.b, r.c]).flatten();
        for figure in figures {
            if !(0.0..=MOST).contains(&figure) {
                return refused(format!("Points and weights are 0 to {MOST}, not {figure}."));
            }
        }
        let StepLimits { a, b } = self.steps_up_to;
        if let Some(far) = [a, b].into_iter().flatten().find(|n| *n > MOST_STEPS) {
            return refused(format!("No guide has {far} steps; write up to {MOST_STEPS}."));
        }
        match (a, b) {
            (Some(a), Some(b)) if a >= b => {
                refused(format!("Class A goes up to {a} steps, so class B must go further than that, not up to {b}."))
            }
            _ => Ok(()),
        }
    }
}

fn refused(problem: String) -> Result<(), Refusal> {
    Err(Refusal::Invalid { field: "scores", problem })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn points(a: f64) -> ScoreTable {
        ScoreTable { tools: ScoreRow { a: Some(a), ..ScoreRow::default() }, ..ScoreTable::default() }
    }

    fn limits(a: u32, b: u32) -> ScoreTable {
        ScoreTable { steps_up_to: StepLimits { a: Some(a), b: Some(b) }, ..ScoreTable::default() }
    }

    #[rstest]
    #[case::empty(ScoreTable::default(), true)]
    #[case::ten(points(10.0), true)]
    #[case::none(points(0.0), true)]
    #[case::below(points(-1.0), false)]
    #[case::no_number(points(f64::NAN), false)]
    #[case::too_many(points(1_001.0), false)]
    #[case::rising(limits(5, 12), true)]
    #[case::falling(limits(12, 5), false)]
    #[case::the_same(limits(5, 5), false)]
    #[case::endless(limits(5, 10_001), false)]
    fn only_figures_that_can_be_meant(#[case] table: ScoreTable, #[case] fits: bool) {
        assert_eq!(table.checked().is_ok(), fits);
    }
}
