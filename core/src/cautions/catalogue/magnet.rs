//! A strong magnet is taken out or put in.

use super::{Entry, WarnPlace};
use crate::cautions::scene::{Scene, told};
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Magnet,
    level: Level::Warning,
    sign: Sign::Magnet,
    place: WarnPlace::Step,
    consequence: "It pinches fingers, wipes cards, and disturbs implants.",
    avoidance: "Keep magnets apart from each other, from cards and from whoever has an implant.",
    defers: Some("the maker of the implant"),
    told_as: &[About::Pinch, About::OwnRisk],
    told_with: &["magnet", "magnets"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .does_to(&[Act::Remove, Act::Install, Act::Pry], |n| told(n, &["magnet", "magnets"]))
        .map(|part| format!("moves the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::magnets("Take off the cover. Take out the magnets.", &["Remove the magnets"])]
    #[case::bit("Take off the cover. Put the screws on the magnetic mat.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
