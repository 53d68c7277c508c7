//! Rules of warnings: what belongs to licensed people, whether each hazard is warned of in time, and in a number that is still
//! read.

mod hazard_unsaid;
mod licensed_work;
mod said_late;
mod too_many_warnings;
mod withheld;

pub use hazard_unsaid::proposal;
pub use licensed_work::{Gated, READERS, gated};
pub use withheld::{Withheld, withheld};

use super::Check;

pub(super) const RULES: &[Check] = &[
    (licensed_work::RULE, licensed_work::find),
    (hazard_unsaid::RULE, hazard_unsaid::find),
    (said_late::RULE, said_late::find),
    (too_many_warnings::RULE, too_many_warnings::find),
];
