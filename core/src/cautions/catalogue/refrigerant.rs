//! Work behind a line that only licensed people cross: refrigerant circuits.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::Gate;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Refrigerant,
    level: Level::Warning,
    sign: Sign::Pressure,
    place: WarnPlace::Step,
    consequence: "It is under pressure and may burn; what escapes freezes skin.",
    avoidance: "Do not cut, loosen or bend its pipes.",
    defers: Some("a certified technician; local codes forbid letting it out"),
    told_as: &[About::Mains, About::Chemical, About::OwnRisk],
    told_with: &["refrigerant"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.behind(Gate::Refrigerant).map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::evaporator("Unplug it from the wall. Take off the cover. Take out the evaporator.", &["Remove the evaporator"])]
    #[case::fan("Take out the fan.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
