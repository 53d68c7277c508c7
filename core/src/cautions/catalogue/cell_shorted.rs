//! Metal comes near the contacts of a cell that is still connected.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::is_lithium;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::CellShorted,
    level: Level::Warning,
    sign: Sign::Electricity,
    place: WarnPlace::Step,
    consequence: "A short circuit of a cell burns fingers and can set it on fire.",
    avoidance: "Undo its connector first, cover bare contacts, and keep loose metal away.",
    defers: None,
    told_as: &[About::ShortCircuit, About::Battery],
    told_with: &["short", "shorts", "circuit", "metal", "bridge"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let cell = scene.at(is_lithium).filter(|_| scene.cell_inside().is_some())?;
    let tool = scene.tool(&["tweezers", "pliers", "metal spudger", "metal ruler"])?;
    Some(format!("takes metal ({tool}) to the {cell}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::tweezers("Take off the cover. Disconnect the battery with the tweezers.", &["Disconnect the battery"])]
    #[case::by_hand("Take off the cover. Disconnect the battery.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
