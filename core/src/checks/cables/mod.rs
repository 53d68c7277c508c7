//! Rules of connectors, their cables, and the power along the steps.

mod bend_tight;
mod cable_short;
mod ends_alike;
mod held_untold;
#[cfg(test)]
mod placed;
mod route_untold;
mod source_still_on;

use super::Check;

pub(super) const RULES: &[Check] = &[
    (source_still_on::RULE, source_still_on::find),
    (held_untold::RULE, held_untold::find),
    (ends_alike::RULE, ends_alike::find),
    (route_untold::RULE, route_untold::find),
    (bend_tight::RULE, bend_tight::find),
    (cable_short::RULE, cable_short::find),
];
