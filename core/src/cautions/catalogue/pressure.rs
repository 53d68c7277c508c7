//! Something under pressure is opened.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Pressure,
    level: Level::Warning,
    sign: Sign::Pressure,
    place: WarnPlace::Step,
    consequence: "It bursts, or scalds with steam.",
    avoidance: "Let the pressure out and let it cool before you loosen anything.",
    defers: Some("a specialist, for pressure vessels"),
    told_as: &[About::Force, About::Burn],
    told_with: &["pressure", "steam", "boiler", "scald"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let part = scene.named(&[
        "boiler",
        "gas spring",
        "gas strut",
        "pressure vessel",
        "steam generator",
        "air tank",
        "pressure tank",
    ])?;
    (!scene.is_rebuild()).then(|| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::boiler("Unplug it from the wall. Take off the cover. Take out the boiler.", &["Remove the boiler"])]
    #[case::tank("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
