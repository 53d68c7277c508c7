//! Heat is applied while a battery cell is in the device.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::CellHeated,
    level: Level::Warning,
    sign: Sign::Hot,
    place: WarnPlace::Step,
    consequence: "A cell above about 60 °C vents and can catch fire.",
    avoidance: "Keep the heat off the cell, hold to time and temperature, and let it cool between passes.",
    defers: None,
    told_as: &[About::Overheating, About::Battery],
    told_with: &["battery", "cell", "cells", "heat", "hot"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let cell = scene.cell_inside().filter(|_| scene.heats())?;
    Some(format!("applies heat while the {cell} is in the device"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::inside("Heat the rear cover with a heat gun to 80 degrees for two minutes. Pry off the rear cover. Disconnect the battery. Take out the battery.", &["Remove the rear cover"])]
    #[case::already_out("Take off the lid. Disconnect the battery. Take out the battery. Heat the front glass with a heat gun to 80 degrees for two minutes. Pry off the front glass.", &[])]
    #[case::out_by_another_name(
        "Take out the battery pack. Take off the lid. Disconnect the battery cable. Heat the front glass with a heat gun to 80 degrees for two minutes. Pry off the front glass.",
        &[]
    )]
    #[case::no_cell("Heat the front glass with a heat gun to 80 degrees for two minutes. Pry off the front glass.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
