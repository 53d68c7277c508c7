//! A solvent is used where something is hot.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::CautionSubject as About;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::SolventHeated,
    level: Level::Warning,
    sign: Sign::Flammable,
    place: WarnPlace::Step,
    consequence: "Its vapour catches fire at a hot plate, an iron or a heat gun.",
    avoidance: "Let everything cool before you open the bottle; never dry it with hot air.",
    defers: Some("its safety data sheet"),
    told_as: &[About::Chemical],
    told_with: &["fire", "flame", "hot", "heat", "dry", "burns"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let wet = scene.says(&["isopropyl alcohol", "acetone", "solvent", "adhesive remover", "petrol", "alcohol"])?;
    scene.heats().then(|| format!("uses {wet} and heat in one step"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::both("Heat the front glass to 80 degrees, put alcohol along the edge and pry off the front glass.", &["Remove the front glass"])]
    #[case::alone("Take off the cover. Clean the frame with isopropyl alcohol.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
