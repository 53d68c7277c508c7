//! Rules of the guide as a whole: what may not leave the house as it is.

mod licensed_work;

pub use licensed_work::{Gated, gated};

use super::Check;

pub(super) const RULES: &[Check] = &[(licensed_work::RULE, licensed_work::find)];
