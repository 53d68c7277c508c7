//! A source of power is connected behind every other connector.

use super::{Exception, OrderRule, Place, behind_the_plugs};

pub(super) const EXCEPTION: Exception = Exception {
    rule: OrderRule::PowerLast,
    source: "common practice: no hot plugging",
    about: |manual, step| !step.connectors.is_empty() && step.connectors.iter().all(|c| manual.connectors[c].power),
    place: |manual, others| {
        let (to, number) = behind_the_plugs(manual, others)?;
        let because =
            format!("The power source is connected last of all connectors, so it waits until step {number} is undone");
        Some(Place { to, because })
    },
};
