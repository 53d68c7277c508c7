//! A device that hangs on the mains is worked at behind its covers.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;
use crate::things::Gate;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Mains,
    level: Level::Warning,
    sign: Sign::Electricity,
    place: WarnPlace::Step,
    consequence: "Parts of the mains side can give a shock that kills.",
    avoidance: "Pull the plug, wait, and prove that it is dead. Leave the mains side to qualified people.",
    defers: Some("a licensed electrician; local codes say to whom"),
    told_as: &[About::Mains, About::Power],
    told_with: &[],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.behind(Gate::MainsSide).map(|part| format!("works at the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::supply_board("Unplug it from the wall. Take off the cover. Take out the power supply board.", &["Remove the power supply board"])]
    #[case::pulled_only("Unplug the mains lead from the wall socket. Take off the cover.", &[])]
    #[case::on_a_cell("Take off the cover. Take out the battery.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
