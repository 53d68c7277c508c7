//! Work at what is live: a source is still on.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::StillConnected,
    level: Level::Warning,
    sign: Sign::Electricity,
    place: WarnPlace::Step,
    consequence: "A slip shorts it: parts burn out, and a cell can catch fire.",
    avoidance: "Cut every source before: pull the plug, and undo the battery first of all connectors.",
    defers: None,
    told_as: &[About::Power, About::Mains, About::ShortCircuit],
    told_with: &[],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.live().map(str::to_owned)
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::battery_on("Take off the cover. Disconnect the fan cable. Take out the fan. Disconnect the battery cable. Take out the battery.", &["Remove the fan"])]
    #[case::battery_off("Take off the cover. Disconnect the battery cable. Take out the battery. Disconnect the fan cable. Take out the fan.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
