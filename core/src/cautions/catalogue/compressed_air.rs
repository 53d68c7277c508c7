//! Something is blown out.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::CompressedAir,
    level: Level::Caution,
    sign: Sign::Eyes,
    place: WarnPlace::Step,
    consequence: "Dirt flies into eyes, and the jet of a can freezes skin.",
    avoidance: "Wear eye protection, hold the can upright, and block fans before you blow.",
    defers: None,
    told_as: &[About::Contamination, About::Lens, About::Membrane],
    told_with: &["air", "blow"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .says(&["compressed air", "air duster", "duster can", "blow out", "blow off"])
        .map(|w| format!("works with {w}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::can("Take off the cover. Clean the fan with compressed air.", &["Clean the fan"])]
    #[case::brush("Take off the cover. Clean the fan with a brush.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
