//! Nothing is plugged in for good or switched on before the last cover is back, whenever the power was cut.

use super::{Exception, OrderRule, Place};
use crate::rebuild::inverse::About;

pub(super) const EXCEPTION: Exception = Exception {
    rule: OrderRule::SwitchedOnLast,
    source: "common practice",
    about: |_, step| {
        !step.undos.is_empty() && step.undos.iter().all(|u| matches!(u.about, About::Plug | About::SwitchOn))
    },
    place: |_, others| {
        let because = "Nothing is switched on before the last cover is back, whenever the power was cut".to_owned();
        Some(Place { to: others.len(), because })
    },
};
