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
    /// Latches, clips and hooks let go.
    Release,
    Peel,
    Cut,
    Open,
    Heat,
    PowerOff,
    /// From the mains or a charger: switching off is not unplugging.
    Unplug,
    /// Stored charge is let out: neither switched off nor unplugged.
    Discharge,
    Drain,
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
    Measure,
    Mark,
    Hold,
    Wait,
    Place,
    Press,
    Adjust,
    Protect,
    /// The device is turned over or stood up.
    Turn,
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
    /// Whether screws are what it turns.
    pub fn turns_screws(self) -> bool {
        matches!(self, Self::Unscrew | Self::Loosen | Self::Drive | Self::Tighten)
    }

    /// Whether the act takes apart, puts together, or neither.
    pub fn direction(self) -> Direction {
        match self {
            Act::Remove
            | Act::Unscrew
            | Act::Loosen
            | Act::Disconnect
            | Act::Desolder
            | Act::Pry
            | Act::Release
            | Act::Peel
            | Act::Open
            | Act::PowerOff
            | Act::Unplug => Direction::Out,
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
    Release: "Release",
    Peel: "Peel",
    Cut: "Cut",
    Open: "Open",
    Heat: "Heat",
    PowerOff: "Switch off",
    Unplug: "Unplug",
    Discharge: "Discharge",
    Drain: "Drain",
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
    Measure: "Measure",
    Mark: "Mark",
    Hold: "Hold",
    Wait: "Wait",
    Place: "Place",
    Press: "Press",
    Adjust: "Align",
    Protect: "Protect",
    Turn: "Turn over",
});
