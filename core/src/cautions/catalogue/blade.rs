//! A blade is used.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Blade,
    level: Level::Caution,
    sign: Sign::Sharp,
    place: WarnPlace::Step,
    consequence: "A slip cuts hands, and what lies below.",
    avoidance: "Cut away from you with a shallow blade, and put its cap on again.",
    defers: None,
    told_as: &[About::SharpTool],
    told_with: &[],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.tool(&["knife", "scalpel", "blade", "razor", "cutter"]).map(|tool| format!("uses a {tool}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::knife("Cut the tape with a knife. Take off the cover.", &["Remove the cover"])]
    #[case::no_blade("Take off the cover. Peel off the tape.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
