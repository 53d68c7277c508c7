//! What the author counts as work when ways and orders are compared.

use super::change::Refusal;
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

/// An hour: whoever wants more rules the change out.
const MOST: u64 = 360_000;

impl Weights {
    pub(super) fn checked(self) -> Result<Self, Refusal> {
        match [self.tool_change, self.turn, self.reheating, self.displaced].into_iter().find(|w| *w > MOST) {
            None => Ok(self),
            Some(w) => {
                let problem = format!("{} s for one change is more than an hour; write at most 3600 s.", w / 100);
                Err(Refusal::Invalid { field: "weights", problem })
            }
        }
    }
}
