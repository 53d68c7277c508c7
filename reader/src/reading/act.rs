//! What a hand does: the acts of taking apart and putting together.

use crate::labels;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One kind of act. Its inverse for the rebuild is in the `rebuild` module.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Act {
    Remove,
    Unscrew,
    Loosen,
    Disconnect,
    Desolder,
    Pry,
    Peel,
    Open,
    Heat,
    PowerOff,
    Install,
    Connect,
    Drive,
    Tighten,
    Close,
    Apply,
    Clean,
    Route,
    Transfer,
    Solder,
    PowerOn,
    Test,
    Mark,
    Hold,
    Wait,
    Place,
}

/// Which way an act goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Direction {
    /// Something comes loose or leaves.
    Out,
    /// Something goes back.
    In,
    /// Neither.
    Neutral,
}

impl Act {
    /// Whether the act takes apart, puts together, or neither.
    pub fn direction(self) -> Direction {
        match self {
            Act::Remove
            | Act::Unscrew
            | Act::Loosen
            | Act::Disconnect
            | Act::Desolder
            | Act::Pry
            | Act::Peel
            | Act::Open
            | Act::PowerOff => Direction::Out,
            Act::Install | Act::Connect | Act::Drive | Act::Tighten | Act::Close | Act::Solder | Act::PowerOn => {
                Direction::In
            }
            _ => Direction::Neutral,
        }
    }
}

// The imperative, for people.
labels!(Act {
    Remove: "Remove",
    Unscrew: "Undo",
    Loosen: "Loosen",
    Disconnect: "Disconnect",
    Desolder: "Desolder",
    Pry: "Pry",
    Peel: "Peel",
    Open: "Open",
    Heat: "Heat",
    PowerOff: "Switch off",
    Install: "Fit",
    Connect: "Connect",
    Drive: "Drive",
    Tighten: "Tighten",
    Close: "Close",
    Apply: "Apply",
    Clean: "Clean",
    Route: "Route",
    Transfer: "Move over",
    Solder: "Solder",
    PowerOn: "Switch on",
    Test: "Test",
    Mark: "Mark",
    Hold: "Hold",
    Wait: "Wait",
    Place: "Place",
});
