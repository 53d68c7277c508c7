//! A pack without a plug makes the device live as it slides in: it goes in behind every connector.

use super::{Exception, OrderRule, Place, behind_the_plugs};
use crate::ids::PartId;
use crate::manual::Manual;
use crate::power;
use crate::rebuild::inverse::{About, Reversed};

pub(super) const EXCEPTION: Exception = Exception {
    rule: OrderRule::PackLast,
    source: "common practice: no hot plugging",
    about: is_pack_alone,
    place: |manual, others| {
        let (to, number) = behind_the_plugs(manual, others)?;
        let because =
            format!("The power source goes in behind all connectors, so it waits until step {number} is undone");
        Some(Place { to, because })
    },
};

/// It does nothing but slide a cell or pack in. One with a plug of its own is dead until the plug is in.
fn is_pack_alone(manual: &Manual, step: &Reversed) -> bool {
    let plugged = |p: PartId| manual.connectors.values().any(|c| c.power && c.serves == Some(p));
    let source = |p: &PartId| manual.parts.get(p).is_some_and(|p| p.power_source);
    let alone = |about: &About| matches!(about, About::Parts(_, parts) if parts.iter().all(source));
    step.connectors.is_empty()
        && step.groups.is_empty()
        && step.undos.iter().any(|u| matches!(u.about, About::Parts(..)))
        && step.undos.iter().all(|u| alone(&u.about))
        && power::sources_out(manual, &manual.steps[&step.of]).any(|p| !plugged(p))
}
