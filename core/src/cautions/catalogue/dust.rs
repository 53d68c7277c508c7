//! Something is opened whose dust or filling is poisonous.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Dust,
    level: Level::Caution,
    sign: Sign::Toxic,
    place: WarnPlace::Step,
    consequence: "Its dust or vapour harms whoever breathes it.",
    avoidance: "Wear a mask, use no vacuum cleaner, and bag what comes out.",
    defers: Some("local rules say where it is handed in"),
    told_as: &[About::Contamination, About::Chemical],
    told_with: &["toner", "mercury", "dust"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .named(&["toner", "toner cartridge", "fluorescent tube", "fluorescent lamp", "mercury lamp", "cold cathode"])
        .map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::toner("Take off the cover. Take out the toner cartridge.", &["Remove the toner cartridge"])]
    #[case::ink("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
