//! Glass came in cracked and is handled.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::is_glass;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::BrokenGlass,
    level: Level::Caution,
    sign: Sign::Eyes,
    place: WarnPlace::Step,
    consequence: "Its edges cut, and splinters fly when it is bent.",
    avoidance: "Tape it over from edge to edge before you begin, and wear eye protection and gloves.",
    defers: None,
    told_as: &[About::Glass],
    told_with: &["crack", "cracked", "broken", "splinter", "splinters", "shard", "shards", "tape"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let broken = scene.arrived(&["cracked", "broken", "shattered", "smashed"]);
    scene.at(is_glass).filter(|_| broken).map(|part| format!("works at the {part}, which came in broken"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::cracked("The display was already cracked when it came in. Take off the cover. Take out the display.", &["Remove the display"])]
    #[case::whole("Take off the cover. Take out the display.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
