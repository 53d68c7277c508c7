//! Rules of one group of screws, or of two that meet on the bench.

mod bit_unusual;
mod count_disagreement;
mod locker_on_polycarbonate;
mod screw_mix_up;
mod torque_outside;

use super::Check;

pub(super) const RULES: &[Check] = &[
    (torque_outside::RULE, torque_outside::find),
    (count_disagreement::RULE, count_disagreement::find),
    (screw_mix_up::RULE, screw_mix_up::find),
    (bit_unusual::RULE, bit_unusual::find),
    (locker_on_polycarbonate::RULE, locker_on_polycarbonate::find),
];
