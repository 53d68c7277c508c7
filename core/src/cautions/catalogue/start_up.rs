//! Something that turns is worked at while it can start.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::StartUp,
    level: Level::Warning,
    sign: Sign::Fingers,
    place: WarnPlace::Step,
    consequence: "It starts without notice, and cuts or crushes fingers.",
    avoidance: "Cut every source and block it before you reach in.",
    defers: None,
    told_as: &[About::Power, About::Force],
    told_with: &["start", "starts", "spin", "spins", "turn", "turns", "fingers"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let part = scene.named(&["motor", "fan", "impeller", "blade", "blades", "cutter", "rotor", "drum", "belt"])?;
    scene.live().map(|_| format!("works at the {part} while it can start"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::live("Take off the cover. Disconnect the fan cable. Take out the fan. Disconnect the battery cable. Take out the battery.", &["Remove the fan"])]
    #[case::dead("Take off the cover. Disconnect the battery cable. Take out the battery. Disconnect the fan cable. Take out the fan.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
