//! Work behind a line that only licensed people cross: gas.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::Gate;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Gas,
    level: Level::Danger,
    sign: Sign::Explosive,
    place: WarnPlace::Step,
    consequence: "Leaking gas burns and explodes.",
    avoidance: "Do not open or move any part that carries gas.",
    defers: Some("a licensed gas fitter; local codes say what is tested afterwards"),
    told_as: &[About::Mains, About::Chemical, About::OwnRisk],
    told_with: &["gas"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.behind(Gate::Gas).map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::valve("Take off the cover. Take out the gas valve.", &["Remove the gas valve"])]
    #[case::spring("Take out the gas spring.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
