//! Work behind a line that only licensed people cross: microwave ovens.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::Gate;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Microwave,
    level: Level::Danger,
    sign: Sign::Electricity,
    place: WarnPlace::Step,
    consequence: "Some thousand volts stay inside after unplugging, and the magnetron can be poisonous.",
    avoidance: "Do not open it.",
    defers: Some("specialists only; local codes say to whom"),
    told_as: &[About::Mains, About::Chemical, About::OwnRisk],
    told_with: &["magnetron", "microwave"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.behind(Gate::Microwave).map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::magnetron("Unplug it from the wall. Take out the magnetron.", &["Remove the magnetron"])]
    #[case::sensor("Take out the microwave sensor.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
