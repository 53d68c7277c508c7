//! What must be ready before the first step, derived from what the steps contain, with why.
//!
//! Common practice of the trade, no source, where none is named.

use super::coverage::Stretch;
use crate::manual::{Hazard, Phase};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One thing to prepare.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Preparation {
    /// "Have eye protection at hand."
    pub what: String,
    /// "glass, steps 4 and 7".
    pub because: String,
}

/// What to prepare, and which hazards ask for it.
const ASKED: [(&str, &[Hazard]); 15] = [
    (
        "Switch it off, pull the plug, and undo every source before you touch anything else.",
        &[Hazard::StillConnected, Hazard::Mains, Hazard::StoredCharge],
    ),
    ("Run the battery down to a quarter or below.", &[Hazard::CellPried, Hazard::CellHeated, Hazard::CellSoldered]),
    ("Have a resistor to let the charge out, and a meter to prove it.", &[Hazard::StoredCharge]),
    ("Wear an earthed wrist strap, and work on a mat that is earthed.", &[Hazard::Static]),
    (
        "Wear eye protection.",
        &[Hazard::Splinters, Hazard::BrokenGlass, Hazard::Spring, Hazard::CompressedAir, Hazard::SolderFume],
    ),
    ("Have gloves at hand.", &[Hazard::BrokenGlass, Hazard::SheetEdge, Hazard::HotPart, Hazard::Germs]),
    ("Air the room, and keep flames away.", &[Hazard::Solvent, Hazard::SolventHeated, Hazard::SolderFume]),
    ("Wear a mask.", &[Hazard::Dust]),
    ("Get somebody to lift with you.", &[Hazard::Heavy]),
    ("Back up the data.", &[Hazard::DataLoss]),
    ("Know how to solder, or leave it to somebody who does.", &[Hazard::SolderFume, Hazard::CellSoldered]),
    (
        "Work in a clean room or a clean box, and know how: open optics and platters show every grain of dust.",
        &[Hazard::OpenOptics],
    ),
    ("Work where a fire does no harm: on stone or metal, nothing that burns beside it.", &[Hazard::CellSwollen]),
    (
        "Know where an old cell is taken back; local rules keep it out of the bin.",
        &[Hazard::CellPried, Hazard::CellSwollen, Hazard::CellSoldered],
    ),
    ("Have new seals ready; tightness is not assured without a test.", &[Hazard::SealOpened, Hazard::Water]),
];

/// What the stretches of a guide ask for, in the order of the table.
pub fn preparation<'s>(stretches: impl IntoIterator<Item = &'s Stretch>) -> Vec<Preparation> {
    let stretches: Vec<&Stretch> = stretches.into_iter().collect();
    let asks = |hazards: &[Hazard]| {
        let asking = stretches.iter().filter(|s| hazards.contains(&s.hazard()));
        let because: Vec<String> = asking.map(|s| because(s)).collect();
        (!because.is_empty()).then(|| once(because).join("; "))
    };
    let all = ASKED.iter().filter_map(|(what, hazards)| Some((*what, asks(hazards)?)));
    all.map(|(what, because)| Preparation { what: what.to_owned(), because }).collect()
}

fn because(stretch: &Stretch) -> String {
    use crate::labels::Label;
    let numbers: Vec<String> = stretch.steps.iter().map(|(_, n)| n.to_string()).collect();
    let steps = if numbers.len() == 1 { "step" } else { "steps" };
    let half = if stretch.phase == Phase::Rebuild { " of the rebuild" } else { "" };
    format!("{}, {steps} {}{half}", stretch.hazard().label(), numbers.join(", "))
}

fn once(mut all: Vec<String>) -> Vec<String> {
    let mut seen = std::collections::BTreeSet::new();
    all.retain(|text| seen.insert(text.clone()));
    all
}

#[cfg(test)]
mod tests {
    use super::super::coverage::stretches;
    use super::*;
    use crate::manual::drafted;
    use rstest::rstest;

    fn asked(told: &str) -> Vec<String> {
        let manual = drafted::manual(&format!("[0:00] {told}"));
        preparation(&stretches(&manual)).into_iter().map(|p| format!("{} ({})", p.what, p.because)).collect()
    }

    #[rstest]
    #[case::nothing("Take off the cover. Take out the tray.", &[])]
    #[case::glass(
        "Pry off the front glass with the opening pick. Take out the tray.",
        &["Wear eye protection. (glass, step 1)"]
    )]
    #[case::cell(
        "Take off the cover. Pry out the battery with a spudger.",
        &[
            "Run the battery down to a quarter or below. (battery cell, step 2)",
            "Know where an old cell is taken back; local rules keep it out of the bin. (battery cell, step 2)",
        ]
    )]
    #[case::board(
        "Take off the cover. Take out the main board.",
        &["Wear an earthed wrist strap, and work on a mat that is earthed. (static charge, step 2)"]
    )]
    #[case::optics(
        "Take off the cover. Take out the prism.",
        &["Work in a clean room or a clean box, and know how: open optics and platters show every grain of dust. (open optics, step 2)"]
    )]
    fn what_the_steps_contain_is_prepared(#[case] told: &str, #[case] wanted: &[&str]) {
        assert_eq!(asked(told), wanted);
    }
}
