//! Rules of the fold: what was told of the rebuild, held against the teardown turned round.

mod fitted_twice;
mod never_out;
mod told_too_early;
mod tool_left_inside;
mod untold_back;

use super::Check;

pub(super) const RULES: &[Check] = &[
    (told_too_early::RULE, told_too_early::find),
    (untold_back::RULE, untold_back::find),
    (never_out::RULE, never_out::find),
    (fitted_twice::RULE, fitted_twice::find),
    (tool_left_inside::RULE, tool_left_inside::find),
];
