//! Something is soldered or desoldered.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::SolderFume,
    level: Level::Caution,
    sign: Sign::Hot,
    place: WarnPlace::Step,
    consequence: "The iron burns at 300 °C and more, and the fume irritates.",
    avoidance: "Put the iron in its stand, draw the fume off, and wear eye protection.",
    defers: None,
    told_as: &[About::Burn, About::Chemical],
    told_with: &["solder", "soldering", "iron", "fume", "fumes"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.does(&[Act::Solder, Act::Desolder]).then(|| "solders".to_owned())
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::desoldered("Take off the cover. Desolder the two wires of the speaker.", &["Desolder the speaker wires"])]
    #[case::plugged("Take off the cover. Disconnect the speaker.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
