//! The protective earth or a piece of insulation comes off.

use super::{Entry, WarnPlace};
use crate::cautions::scene::{Scene, told};
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Earth,
    level: Level::Warning,
    sign: Sign::Electricity,
    place: WarnPlace::Step,
    consequence: "Left off, metal that hands touch is live when a wire comes loose.",
    avoidance: "Note where it sits, put it back first, and have earth and insulation tested afterwards.",
    defers: Some("an electrician; the national test after repair (such as EN 50678)"),
    told_as: &[About::Mains, About::Power],
    told_with: &["earth", "ground", "insulation", "sleeve"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .does_to(&[Act::Disconnect, Act::Unscrew, Act::Remove, Act::Loosen], |n| {
            told(
                n,
                &[
                    "earth wire",
                    "earth lead",
                    "earth strap",
                    "earth screw",
                    "earth terminal",
                    "protective earth",
                    "ground wire",
                    "ground strap",
                    "ground lead",
                    "earth cable",
                    "insulating sleeve",
                ],
            )
        })
        .filter(|_| scene.on_mains)
        .map(|part| format!("takes off the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::strap("Unplug it from the wall. Take off the cover. Disconnect the earth wire.", &["Disconnect the earth wire"])]
    #[case::on_a_cell("Take off the cover. Disconnect the ground wire. Take out the battery.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
