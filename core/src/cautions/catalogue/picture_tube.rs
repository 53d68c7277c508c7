//! Work behind a line that only licensed people cross: picture tubes.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::Gate;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::PictureTube,
    level: Level::Danger,
    sign: Sign::Electricity,
    place: WarnPlace::Step,
    consequence: "It holds some ten thousand volts, and it can implode.",
    avoidance: "Do not open it.",
    defers: Some("specialists only; local codes say to whom"),
    told_as: &[About::Mains, About::Chemical, About::OwnRisk],
    told_with: &["tube"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.behind(Gate::PictureTube).map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::tube("Unplug it from the wall. Take out the picture tube.", &["Remove the picture tube"])]
    #[case::inner_tube("Take out the inner tube.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
