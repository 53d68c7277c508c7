//! A seal, a membrane or a glued rim is opened.

use super::{Entry, WarnPlace};
use crate::cautions::scene::{Scene, told};
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::SealOpened,
    level: Level::Notice,
    sign: Sign::General,
    place: WarnPlace::Step,
    consequence: "Water and dust get in; tightness is not assured without a test.",
    avoidance: "Renew the seal, and claim no tightness that nobody has tested.",
    defers: None,
    told_as: &[About::Seal, About::Membrane],
    told_with: &[],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    scene
        .does_to(&[Act::Remove, Act::Peel, Act::Cut, Act::Pry], |n| {
            told(n, &["seal", "gasket", "sealing ring", "membrane", "o ring", "sealing tape"])
        })
        .map(|part| format!("takes off the {part}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::gasket("Take off the cover. Peel off the gasket.", &["Remove the gasket"])]
    #[case::tray("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
