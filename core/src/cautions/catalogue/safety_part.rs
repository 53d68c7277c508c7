//! A part is replaced that safety hangs on.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::SafetyPart,
    level: Level::Warning,
    sign: Sign::Flammable,
    place: WarnPlace::Step,
    consequence: "A wrong one lets the device burn, or give a shock.",
    avoidance: "Put in one of the same type and rating only, with its approvals.",
    defers: Some("the maker's list of parts"),
    told_as: &[About::WrongPart, About::Mains],
    told_with: &["fuse", "rating", "same type", "cutout"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .named(&[
            "thermal fuse",
            "fuse",
            "thermal cutout",
            "thermal cut out",
            "thermostat",
            "residual current device",
            "suppression capacitor",
        ])
        .map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::fuse("Unplug it from the wall. Take off the cover. Take out the thermal fuse.", &["Remove the thermal fuse"])]
    #[case::refuse("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
