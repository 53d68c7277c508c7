//! A battery cell is levered or cut out, or a blade works beside it.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};
use crate::things::is_lithium;

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::CellPried,
    level: Level::Warning,
    sign: Sign::Explosive,
    place: WarnPlace::Step,
    consequence: "A pierced or bent cell burns and gives off toxic gas.",
    avoidance: "Use plastic, flat and at a shallow angle; never pierce, bend or lever the cell itself. Work with a low charge.",
    defers: None,
    told_as: &[About::Battery],
    told_with: &[],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let by_act = scene.does_to(&[Act::Pry, Act::Cut, Act::Peel], is_lithium);
    if let Some(cell) = by_act {
        return Some(format!("levers, cuts or peels at the {cell}"));
    }
    let cell = scene.at(is_lithium)?;
    let tool = scene.tool(&["pry tool", "knife", "blade", "steel strip", "spatula", "opening pick", "spudger"])?;
    Some(format!("takes a {tool} to the {cell}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::pried("Take off the cover. Pry out the battery with the spudger.", &["Remove the battery"])]
    #[case::lifted_out("Take off the cover. Take out the battery.", &[])]
    #[case::its_cover("Pry off the battery cover.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
