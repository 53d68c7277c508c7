//! Something heavy is lifted or tipped.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::units::number;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Heavy,
    level: Level::Caution,
    sign: Sign::General,
    place: WarnPlace::Step,
    consequence: "It hurts back and feet when it drops or tips.",
    avoidance: "Lift it with two people, and stand it where it cannot tip.",
    defers: Some("local rules for lifting"),
    told_as: &[About::Force],
    told_with: &["heavy", "weight", "two people", "two persons", "lift"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    // Above 15 kg two people lift (common practice; local rules set the figure).
    const TWO_PEOPLE_KG: f64 = 15.0;
    let told = scene.mass_kg().filter(|kg| *kg > TWO_PEOPLE_KG).map(|kg| format!("moves {} kg", number(kg)));
    told.or_else(|| {
        scene.says(&["two people", "two persons", "second person", "helper"]).map(|w| format!("takes a {w}"))
    })
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::with_help("Take off the cover. Lift out the motor with a helper.", &["Remove the motor"])]
    #[case::light("Take off the cover. Take out the motor.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
