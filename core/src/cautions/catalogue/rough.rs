//! A part is forced.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Rough,
    level: Level::Notice,
    sign: Sign::General,
    place: WarnPlace::Step,
    consequence: "What is forced breaks.",
    avoidance: "Find what still holds it, and undo that.",
    defers: None,
    told_as: &[About::Force],
    told_with: &[],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene.says(&["by force", "with force", "yank", "rip", "wrench off", "tear off"]).map(|w| format!("says “{w}”"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::force("Take off the cover. Pull out the tray with force.", &["Remove the tray"])]
    #[case::gently("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
