//! Glass is warmed, levered or pulled off.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};
use crate::things::is_glass;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Splinters,
    level: Level::Caution,
    sign: Sign::Eyes,
    place: WarnPlace::Step,
    consequence: "Glass splinters: it cuts, and gets into eyes.",
    avoidance: "Wear eye protection, tape over the glass, and lift slowly from one edge.",
    defers: None,
    told_as: &[About::Glass],
    told_with: &[],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let glass = scene.does_to(&[Act::Pry, Act::Heat, Act::Cut, Act::Open], is_glass);
    let pulled = || scene.at(is_glass).filter(|_| scene.tool(&["suction cup", "opening pick", "pry tool"]).is_some());
    glass.or_else(pulled).map(|part| format!("warms, levers or pulls the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::pried("Pry off the front glass with the opening pick.", &["Remove the front glass"])]
    #[case::unscrewed("Remove the four screws of the display. Take out the display.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
