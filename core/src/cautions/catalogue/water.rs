//! A device on the mains that carries water is put together again.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Water,
    level: Level::Warning,
    sign: Sign::Electricity,
    place: WarnPlace::Step,
    consequence: "A leak onto live parts gives a shock.",
    avoidance: "Renew the seals, and test for leaks before it is plugged in.",
    defers: None,
    told_as: &[About::Liquid, About::Seal],
    told_with: &["leak", "leaks", "water", "seal", "seals"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let wet = scene.named(&["water pump", "pump", "hose", "boiler", "water tank", "water valve", "inlet valve"])?;
    let back = scene.is_rebuild() && scene.does(&[Act::Install, Act::Connect, Act::Close]);
    (back && scene.on_mains).then(|| format!("puts the {wet} back into a device on the mains"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::hose("Unplug it from the wall. Take off the cover. Take out the pump. Now we put it back together. Put the pump in. Put the cover back on.", &["Fit the pump"])]
    #[case::apart("Unplug it from the wall. Take off the cover. Take out the pump.", &[])]
    #[case::dry("Unplug it from the wall. Take off the cover. Take out the fan. Now we put it back together. Put the fan in. Put the cover back on.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
