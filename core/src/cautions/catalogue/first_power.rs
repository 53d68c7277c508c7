//! The device is fed for the first time after the work.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::FirstPower,
    level: Level::Caution,
    sign: Sign::General,
    place: WarnPlace::Rebuild,
    consequence: "What was mounted wrongly smokes or starts.",
    avoidance: "Stand clear, look and smell, and cut the power at once if anything is odd.",
    defers: None,
    told_as: &[About::Power, About::Mains],
    told_with: &["first", "smoke", "smell", "stand clear"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.is_rebuild().then_some(())?;
    scene.does(&[Act::PowerOn]).then(|| "feeds the device for the first time".to_owned())
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::switched_on("Take off the cover. Take out the fan. Now we put it back together. Put the fan in. Put the cover back on. Switch it on.", &["Switch on the device"])]
    #[case::apart("Take off the cover. Take out the fan.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
