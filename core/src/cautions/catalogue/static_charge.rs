//! Boards, flat cables and bare connectors are handled.

use super::{Entry, WarnPlace};
use crate::cautions::scene::{Scene, told};
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::is_board;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Static,
    level: Level::Notice,
    sign: Sign::Static,
    place: WarnPlace::Preparation,
    consequence: "It kills chips, often weeks later.",
    avoidance: "Wear an earthed wrist strap, or touch bare metal that is earthed before each part.",
    defers: None,
    told_as: &[About::Esd],
    told_with: &[],
    trigger,
    source: "IEC 61340-5-1, from memory",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.at(|n| is_board(n) || told(n, &["flex", "chip", "memory", "drive"])).map(|part| format!("handles the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::board("Take off the cover. Take out the main board.", &["Remove the main board"])]
    #[case::tray("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
