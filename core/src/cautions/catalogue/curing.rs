//! A bond is fresh.

use super::{Entry, WarnPlace};
use crate::cautions::scene::Scene;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level};
use crate::reading::{Act, CautionSubject as About};

pub(super) const ENTRY: Entry = Entry {
    hazard: Hazard::Curing,
    level: Level::Notice,
    sign: Sign::General,
    place: WarnPlace::Rebuild,
    consequence: "What is used before it has set comes off again, and is not tight.",
    avoidance: "Leave it alone until it has set, for as long as its maker says.",
    defers: None,
    told_as: &[About::Seal, About::Force],
    told_with: &["cure", "cures", "dry", "set", "adhesive", "glue"],
    trigger,
    source: "common practice, no source",
};

fn trigger(scene: &Scene<'_>) -> Option<String> {
    let glued = scene.says(&["adhesive", "glue", "sealant"])?;
    (scene.is_rebuild() && scene.does(&[Act::Apply, Act::Press, Act::Install])).then(|| format!("bonds with {glued}"))
}

#[cfg(test)]
mod tests {
    use super::ENTRY;
    use crate::cautions::catalogue::met;
    use rstest::rstest;

    #[rstest]
    #[case::glued("Take off the cover. Take out the fan. Now we put it back together. Apply new adhesive to the frame. Put the fan in. Put the cover back on.", &["Fit the fan"])]
    #[case::screwed("Take off the cover. Take out the fan. Now we put it back together. Put the fan in. Put the cover back on.", &[])]
    fn where_it_is_met(#[case] told: &str, #[case] steps: &[&str]) {
        assert_eq!(met(&ENTRY, told), steps);
    }
}
