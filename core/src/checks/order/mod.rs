//! Rules of the order: rings, steps told too early, steps that nothing needs, parts that no step reaches.

mod idle_step;
mod ring;
mod rough_on_kept_part;
mod too_early;
mod unreached_part;

use super::Check;

pub(super) const RULES: &[Check] = &[
    (ring::RULE, ring::find),
    (too_early::RULE, too_early::find),
    (rough_on_kept_part::RULE, rough_on_kept_part::find),
    (idle_step::RULE, idle_step::find),
    (unreached_part::RULE, unreached_part::find),
];
