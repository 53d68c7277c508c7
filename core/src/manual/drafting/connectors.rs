//! What kind a connector is, by the words it is undone with.

use crate::manual::ConnectorKind;

/// Words that tell a kind, the surest first. Common practice, no source.
const TOLD: [(ConnectorKind, &[&str]); 16] = [
    (ConnectorKind::Soldered, &["desolder", "unsolder", "solder"]),
    (ConnectorKind::ScrewTerminal, &["terminal screw", "screw terminal", "screwed terminal"]),
    (ConnectorKind::Spade, &["spade", "push-on tag", "push on tag", "blade terminal"]),
    (ConnectorKind::Coaxial, &["coax", "antenna plug", "aerial plug", "snap-on antenna"]),
    (
        ConnectorKind::LatchFlips,
        &[
            "flip up the latch",
            "flip the latch",
            "flip up the lock",
            "latch flips",
            "lift the latch",
            "open the latch",
            "flip open",
            "latch up",
            "locking flap",
        ],
    ),
    (
        ConnectorKind::LatchSlides,
        &[
            "slide the latch",
            "pull out the latch",
            "latch slides",
            "slide out the lock",
            "slide the lock",
            "pull the lock",
            "push the latch out",
        ],
    ),
    (ConnectorKind::Latch, &["zif", "latch", "locking bar"]),
    (ConnectorKind::PullTab, &["pull tab", "pull-tab", "by its tab", "by the tab", "by the loop"]),
    (ConnectorKind::Spring, &["pogo", "spring contact", "spring pin", "contact springs"]),
    (
        ConnectorKind::PressFit,
        &[
            "press fit",
            "press-fit",
            "pop it straight up",
            "lever up",
            "pry up",
            "lift straight up",
            "straight up",
            "board to board",
            "board-to-board",
        ],
    ),
    (ConnectorKind::Blade, &["battery blades", "blade contacts"]),
    (ConnectorKind::Friction, &["no latch", "friction", "just pulls out", "pull the flex straight out"]),
    (
        ConnectorKind::Plug,
        &[
            "not on the wires",
            "not the wires",
            "not the wire",
            "by the plug",
            "pull the plug",
            "rock the plug",
            "wiggle the plug",
        ],
    ),
    (ConnectorKind::Plug, &["unplug the wires", "wires"]),
    (ConnectorKind::Coaxial, &["antenna", "aerial"]),
    (ConnectorKind::Latch, &["flex", "ribbon", "flat cable"]),
];

/// The kind that a sentence tells; the last two rows are guesses by what hangs on it.
pub(super) fn kind_told(said: &str) -> Option<ConnectorKind> {
    let said = said.to_lowercase();
    TOLD.iter().find(|(_, words)| words.iter().any(|w| said.contains(w))).map(|(kind, _)| *kind)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("Flip up the latch and pull out the display flex.", Some(ConnectorKind::LatchFlips))]
    #[case("Slide the latch to the side, then pull the ribbon.", Some(ConnectorKind::LatchSlides))]
    #[case("Disconnect the display flex.", Some(ConnectorKind::Latch))]
    #[case("Pop the coax off, straight up.", Some(ConnectorKind::Coaxial))]
    #[case("Pull the plug and not the wires.", Some(ConnectorKind::Plug))]
    #[case("Lever up the battery connector.", Some(ConnectorKind::PressFit))]
    #[case("Pull the spade off the switch.", Some(ConnectorKind::Spade))]
    #[case("Desolder the two speaker wires.", Some(ConnectorKind::Soldered))]
    #[case("Disconnect the fan cable.", None)]
    fn a_kind_is_told_by_how_it_is_undone(#[case] said: &str, #[case] kind: Option<ConnectorKind>) {
        assert_eq!(kind_told(said), kind);
    }
}
