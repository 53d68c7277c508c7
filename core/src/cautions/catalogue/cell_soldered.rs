//! Solder or an iron comes to a battery cell.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};
use crate::things::is_lithium;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::CellSoldered,
    level: Level::Warning,
    sign: Sign::Explosive,
    place: WarnPlace::Step,
    consequence: "A cell that is overheated at its tab bursts or burns.",
    avoidance: "Use a cell with tabs and solder to those alone, briefly; welding to cells belongs to those equipped for it.",
    defers: Some("those equipped for welding cells"),
    told_as: &[About::Battery, About::Overheating, About::Burn],
    told_with: &["solder", "soldering", "iron"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.does_to(&[Act::Solder, Act::Desolder], is_lithium).map(|cell| format!("solders at the {cell}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::tabs("Take off the cover. Desolder the battery. Take out the battery.", &["Remove the battery"])]
    #[case::elsewhere("Take off the cover. Desolder the speaker.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
