//! Rules of joints without screws.

mod depth_untold;
mod entry_untold;
mod heat_harms;

use super::Check;

pub(super) const RULES: &[Check] = &[
    (heat_harms::RULE, heat_harms::find),
    (entry_untold::RULE, entry_untold::find),
    (depth_untold::RULE, depth_untold::find),
];
