//! Something is opened in which dirt of people, animals or water gathers.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Germs,
    level: Level::Caution,
    sign: Sign::Germs,
    place: WarnPlace::Step,
    consequence: "Dirt and standing water carry germs and mould.",
    avoidance: "Wear gloves, empty and rinse it first, and wash your hands.",
    defers: None,
    told_as: &[About::Contamination, About::Liquid],
    told_with: &["dirt", "germs", "mould", "mold", "clean", "filthy"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .named(&[
            "dust bag",
            "dust container",
            "dust bin",
            "water tank",
            "drip tray",
            "drain pan",
            "condensate pan",
            "waste tank",
            "shaving head",
            "brush roll",
        ])
        .map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::tank("Take out the water tank. Take off the cover.", &["Remove the water tank"])]
    #[case::fan("Take off the cover. Take out the fan.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
