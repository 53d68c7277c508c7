//! What holds data is taken out or reset.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::DataLoss,
    level: Level::Notice,
    sign: Sign::General,
    place: WarnPlace::Preparation,
    consequence: "Data on it may be lost.",
    avoidance: "Back it up before you begin.",
    defers: None,
    told_as: &[About::Other, About::OwnRisk],
    told_with: &["data", "back up", "backup", "settings"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .named(&[
            "memory",
            "memory card",
            "memory module",
            "solid state drive",
            "hard drive",
            "hard disk",
            "storage card",
            "flash card",
        ])
        .map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::card("Take off the cover. Take out the memory card.", &["Remove the memory card"])]
    #[case::tray("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
