//! What the author counts as work when ways and orders are compared.

use crate::manual::edits::refusal::Refusal;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a change costs, in hundredths of a second of work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Weights {
    pub tool_change: u64,
    pub turn: u64,
    pub reheating: u64,
    /// Each act that is done before one which the recording tells earlier.
    pub displaced: u64,
}

impl Default for Weights {
    /// A change of tool takes 1.44 s (MOST: four indices to fetch it and put it back; from memory), a turn of the device 6 s
    /// and warming again 2 min (common practice, no source).
    fn default() -> Self {
        Self { tool_change: 144, turn: 600, reheating: 12_000, displaced: 1 }
    }
}

/// The same in seconds, as an author writes it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WeightsInSeconds {
    pub tool_change: f64,
    pub turn: f64,
    pub reheating: f64,
    pub displaced: f64,
}

/// An hour: whoever wants more rules the change out.
const MAX_S: f64 = 3_600.0;

impl Weights {
    /// The same bound for weights that come from a file.
    pub(in crate::manual) fn sound(&self) -> Result<(), Refusal> {
        let seconds = |hundredths: u64| hundredths as f64 / 100.0;
        let Self { tool_change, turn, reheating, displaced } = *self;
        let [tool_change, turn, reheating, displaced] = [tool_change, turn, reheating, displaced].map(seconds);
        WeightsInSeconds { tool_change, turn, reheating, displaced }.checked().map(drop)
    }
}

impl WeightsInSeconds {
    pub(in crate::manual) fn checked(self) -> Result<Weights, Refusal> {
        let hundredths = |s: f64| match s {
            s if (0.0..=MAX_S).contains(&s) => Ok((s * 100.0).round() as u64),
            s => {
                let problem = format!("{s} s for one change cannot be meant; write 0 to {MAX_S} s.");
                Err(Refusal::Invalid { field: "weights", problem })
            }
        };
        Ok(Weights {
            tool_change: hundredths(self.tool_change)?,
            turn: hundredths(self.turn)?,
            reheating: hundredths(self.reheating)?,
            displaced: hundredths(self.displaced)?,
        })
    }
}
