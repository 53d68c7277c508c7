//! What a hand does: the acts of taking apart and putting together.

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
    /// Every act, in the order of the list above.
    pub const ALL: [Act; 26] = [
        Act::Remove,
        Act::Unscrew,
        Act::Loosen,
        Act::Disconnect,
        Act::Desolder,
        Act::Pry,
        Act::Peel,
        Act::Open,
        Act::Heat,
        Act::PowerOff,
        Act::Install,
        Act::Connect,
        Act::Drive,
        Act::Tighten,
        Act::Close,
        Act::Apply,
        Act::Clean,
        Act::Route,
        Act::Transfer,
        Act::Solder,
        Act::PowerOn,
        Act::Test,
        Act::Mark,
        Act::Hold,
        Act::Wait,
        Act::Place,
    ];

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

    /// The imperative, for people.
    pub fn word(self) -> &'static str {
        match self {
            Act::Remove => "Remove",
            Act::Unscrew => "Undo",
            Act::Loosen => "Loosen",
            Act::Disconnect => "Disconnect",
            Act::Desolder => "Desolder",
            Act::Pry => "Pry",
            Act::Peel => "Peel",
            Act::Open => "Open",
            Act::Heat => "Heat",
            Act::PowerOff => "Switch off",
            Act::Install => "Fit",
            Act::Connect => "Connect",
            Act::Drive => "Drive",
            Act::Tighten => "Tighten",
            Act::Close => "Close",
            Act::Apply => "Apply",
            Act::Clean => "Clean",
            Act::Route => "Route",
            Act::Transfer => "Move over",
            Act::Solder => "Solder",
            Act::PowerOn => "Switch on",
            Act::Test => "Test",
            Act::Mark => "Mark",
            Act::Hold => "Hold",
            Act::Wait => "Wait",
            Act::Place => "Place",
        }
    }
}
