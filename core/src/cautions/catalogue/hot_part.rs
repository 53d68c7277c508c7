//! Something is heated that hands touch next.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::units::number;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::HotPart,
    level: Level::Caution,
    sign: Sign::Hot,
    place: WarnPlace::Step,
    consequence: "What was heated burns skin.",
    avoidance: "Wear gloves, and let it cool before you hold it.",
    defers: None,
    told_as: &[About::Burn],
    told_with: &[],
    trigger,
    source: "ISO 13732-1, burn thresholds, from memory",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    // Bare metal burns within a minute from about 51 °C, other surfaces from about 60 °C (ISO 13732-1, from memory).
    const HOT_C: f64 = 48.0;
    let gun = scene.tool(&["heat gun", "oven", "hot plate", "heating element"]);
    match (scene.hottest_c().filter(|c| *c >= HOT_C), gun.filter(|_| scene.heats())) {
        (Some(c), _) => Some(format!("heats to {} °C", number(c))),
        (None, Some(tool)) => Some(format!("heats with a {tool}")),
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::a_setting("Heat the front glass to 80 degrees. Pry off the front glass.", &["Remove the front glass"])]
    #[case::lukewarm("Heat the rear cover to 40 degrees. Pry off the rear cover.", &[])]
    #[case::cold("Pry off the front glass.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
