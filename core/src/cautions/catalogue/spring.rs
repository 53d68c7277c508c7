//! A spring or a belt under tension is let go.

use super::{Entry, WarnPlace};
use crate::cautions::scene::{Scene, told};
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Spring,
    level: Level::Caution,
    sign: Sign::Eyes,
    place: WarnPlace::Step,
    consequence: "It flies off: into eyes, or out of sight.",
    avoidance: "Wear eye protection, hold it, and let it go slowly.",
    defers: None,
    told_as: &[About::Force, About::LostScrew],
    told_with: &["spring", "springs", "tension", "fly", "jump", "shoot"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let part = scene.does_to(&[Act::Remove, Act::Release, Act::Loosen, Act::Unscrew, Act::Disconnect], |n| {
        told(n, &["spring", "springs", "torsion spring", "drive belt", "tensioner"])
            && !told(n, &["gas spring", "spring contact", "spring pin"])
    })?;
    Some(format!("lets the {part} go"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::spring("Take off the cover. Take out the return spring.", &["Remove the return spring"])]
    #[case::no_spring("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
