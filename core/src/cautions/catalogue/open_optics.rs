//! Lenses, image sensors, prisms or platters are laid open: one grain of dust is one too many.

use super::{Entry, WarnPlace};
use crate::cautions::scene::{Scene, told};
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::OpenOptics,
    level: Level::Notice,
    sign: Sign::General,
    place: WarnPlace::Preparation,
    consequence: "One grain of dust shows in every picture, and ruins a platter for good.",
    avoidance: "Work in a clean room or a clean box, cover what is open at once, and do not breathe on it.",
    defers: Some("platters belong to people with a clean room"),
    told_as: &[About::Lens, About::Contamination],
    told_with: &["dust", "clean", "cover", "film", "dirt"],
    trigger,
    source: "common practice, no source; classes of clean rooms: ISO 14644-1, from memory",
};

/// What must not see dust; the glass in front of it may.
fn is_open_optics(name: &str) -> bool {
    const BARE: [&str; 8] =
        ["lens", "lens group", "lens barrel", "image sensor", "prism", "platter", "objective", "optical block"];
    const OUTSIDE: [&str; 6] = ["cap", "hood", "cover", "cable", "flex", "ring"];
    told(name, &BARE) && !told(name, &OUTSIDE)
}

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let opens = [Act::Remove, Act::Open, Act::Disconnect, Act::Unscrew, Act::Install, Act::Clean];
    scene.does_to(&opens, is_open_optics).map(|part| format!("lays the {part} open"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::lens("Take off the cover. Take out the front lens.", &["Remove the front lens"])]
    #[case::sensor("Take off the cover. Take out the image sensor.", &["Remove the image sensor"])]
    #[case::put_back("Take off the cover. Take out the prism. Now put it back together. Put the prism in. Put the cover on.",
        &["Remove the prism", "Fit the prism"])]
    #[case::in_front_of_it("Take off the lens cover. Take out the tray.", &[])]
    #[case::tray("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
