//! Screws are turned by a motor, or several lengths lie side by side.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::ScrewLength,
    level: Level::Notice,
    sign: Sign::General,
    place: WarnPlace::Step,
    consequence: "A screw that is too long or too tight breaks what lies below.",
    avoidance: "Drive by hand, each screw into the hole it came from.",
    defers: None,
    told_as: &[About::ScrewMixup, About::StrippedScrew],
    told_with: &[],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .tool(&["power driver", "electric screwdriver", "cordless screwdriver", "power screwdriver", "drill"])
        .map(|tool| format!("turns screws with a {tool}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::power("Remove the four screws of the cover with the electric screwdriver. Take off the cover.", &["Remove the cover"])]
    #[case::hand("Remove the four screws of the cover. Take off the cover.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
