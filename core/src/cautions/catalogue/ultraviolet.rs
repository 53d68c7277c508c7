//! Ultraviolet light cures or cleans.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Ultraviolet,
    level: Level::Caution,
    sign: Sign::Beam,
    place: WarnPlace::Step,
    consequence: "It burns eyes and skin without being felt.",
    avoidance: "Cover it, or wear goggles made for it.",
    defers: Some("IEC 62471 says which risk group it is"),
    told_as: &[About::Burn],
    told_with: &["uv", "ultraviolet"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .says(&["uv lamp", "ultraviolet lamp", "uv light", "uv glue", "ultraviolet light"])
        .map(|w| format!("uses a {w}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::lamp("Take off the cover. Cure the adhesive with the UV lamp.", &["Remove the cover"])]
    #[case::daylight("Take off the cover. Take out the lamp.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
