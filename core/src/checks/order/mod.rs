//! Rules of the order: rings, steps told too early, live work, steps that nothing needs, parts that no step reaches.

mod idle_step;
mod power_not_cut;
mod ring;
mod rough_on_kept_part;
mod too_early;
mod unreached_part;

use super::Check;

pub(super) const RULES: &[Check] = &[
    (ring::RULE, ring::find),
    (too_early::RULE, too_early::find),
    (power_not_cut::RULE, power_not_cut::find),
    (rough_on_kept_part::RULE, rough_on_kept_part::find),
];

/// What nothing needs or reaches in a whole manual may well be left out of a guide cut from it.
pub(super) const RULES_OF_WHOLE: &[Check] =
    &[(idle_step::RULE, idle_step::find), (unreached_part::RULE, unreached_part::find)];
