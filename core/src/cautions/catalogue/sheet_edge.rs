//! Sheet metal is taken off or bent.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::SheetEdge,
    level: Level::Caution,
    sign: Sign::Sharp,
    place: WarnPlace::Step,
    consequence: "Its edges cut.",
    avoidance: "Wear gloves, and bend it up with pliers rather than fingers.",
    defers: None,
    told_as: &[About::SharpTool],
    told_with: &["edge", "edges", "sharp"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let metal = scene.named(&["shield", "shields", "shielding", "sheet metal", "baffle"])?;
    scene.does(&[Act::Remove, Act::Pry, Act::Release, Act::Open]).then(|| format!("takes the {metal} off"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::shield("Take off the cover. Take out the heat shield.", &["Remove the heat shield"])]
    #[case::plastic("Take off the cover. Take out the tray.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
