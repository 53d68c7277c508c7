//! A capacitor keeps its charge after the plug is pulled.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::holds_charge;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::StoredCharge,
    level: Level::Warning,
    sign: Sign::Electricity,
    place: WarnPlace::Step,
    consequence: "A charged capacitor gives a strong shock, long after the plug is pulled.",
    avoidance: "Wait some minutes, let the charge out through a resistor, and measure before you touch anything.",
    defers: Some("a qualified person, for power supplies"),
    told_as: &[About::Mains, About::Power, About::ShortCircuit],
    told_with: &["charge", "charged", "capacitor", "capacitors", "discharge"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let part = scene.at(holds_charge).filter(|_| !scene.is_discharged())?;
    Some(format!("works at the {part} before its charge was let out"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::nobody_waits("Unplug it from the wall. Take off the cover. Take out the smoothing capacitor.", &["Remove the smoothing capacitor"])]
    #[case::let_out_before("Unplug it from the wall. Take off the cover. Wait five minutes. Take out the tray. Take out the smoothing capacitor.", &[])]
    #[case::waited_for_heat(
        "Unplug it from the wall. Heat the rear cover with a heat gun to 80 degrees and wait two minutes. Pry off the rear cover. Take out the smoothing capacitor.",
        &["Remove the smoothing capacitor"]
    )]
    #[case::still_plugged_in(
        "Take off the cover. Wait five minutes. Take out the tray. Take out the smoothing capacitor.",
        &["Remove the smoothing capacitor"]
    )]
    #[case::no_capacitor("Take off the cover. Take out the fan.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
