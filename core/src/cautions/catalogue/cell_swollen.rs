//! A cell that has swollen is handled.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::{is_lithium, is_swollen_cell};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::CellSwollen,
    level: Level::Warning,
    sign: Sign::Explosive,
    place: WarnPlace::Step,
    consequence: "It can burst into flames when it is pressed, bent or pierced.",
    avoidance: "Stop charging it, do not press or heat it, and carry it to a place that cannot burn.",
    defers: Some("people trained for it; local rules say where it is handed in"),
    told_as: &[About::Battery],
    told_with: &["swollen", "puffed", "bulging", "bloated", "swell"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let swollen = scene.at(is_swollen_cell);
    let arrived = || {
        scene.at(is_lithium).filter(|_| scene.arrived(&["swollen", "bulging", "bulged", "bloated", "puffed", "puffy"]))
    };
    swollen.or_else(arrived).map(|cell| format!("works at the {cell}, which has swollen"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::it_came_so("The battery was already swollen when it came in. Take off the cover. Take out the battery.", &["Remove the battery"])]
    #[case::it_is_well("Take off the cover. Take out the battery.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
