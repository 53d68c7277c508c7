//! Rules of joints without screws.

mod heat_harms;

use super::Check;

pub(super) const RULES: &[Check] = &[(heat_harms::RULE, heat_harms::find)];
