//! A laser or a bright source of light is laid open.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Beam,
    level: Level::Warning,
    sign: Sign::Laser,
    place: WarnPlace::Step,
    consequence: "Its beam blinds before the eye can close.",
    avoidance: "Never power it while it is open, and never look into it.",
    defers: Some("IEC 60825-1 says which class it is"),
    told_as: &[About::Lens, About::OwnRisk],
    told_with: &["laser", "beam"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .named(&["laser", "laser diode", "laser unit", "laser module", "light engine", "projector lamp"])
        .map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::laser("Take off the cover. Take out the laser unit.", &["Remove the laser unit"])]
    #[case::led("Take off the cover. Take out the lamp board.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
