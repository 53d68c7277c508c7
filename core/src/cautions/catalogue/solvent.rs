//! A solvent is used.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Solvent,
    level: Level::Warning,
    sign: Sign::Flammable,
    place: WarnPlace::Step,
    consequence: "Its vapour burns and makes dizzy.",
    avoidance: "Air the room, keep flames and hot plates away, and use little.",
    defers: Some("its safety data sheet"),
    told_as: &[About::Chemical],
    told_with: &[],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .says(&["isopropyl alcohol", "acetone", "solvent", "adhesive remover", "petrol", "alcohol", "degreaser"])
        .map(|m| format!("uses {m}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::alcohol("Take off the cover. Clean the frame with isopropyl alcohol.", &["Clean the frame"])]
    #[case::dry("Take off the cover. Clean the frame with a cloth.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
