//! Rules of what is written: steps, parts and what is ordered for them, tools, promises.

mod doubtful_word;
mod empty_step;
mod label_arithmetic;
mod laid_out_unused;
mod no_steps;
mod not_reviewed;
mod promise_open;
mod replacement_capacity;
mod replacement_charge;
mod replacement_connector;
mod replacement_size;
mod replacement_voltage;
mod used_not_laid_out;

use super::Check;
use crate::manual::{Manual, Part, RatingLabel, Replacement};
pub(super) use laid_out_unused::same_tool;

/// Of the text itself; without steps nothing else matters, so it is said first.
pub(super) const TEXT: &[Check] = &[(no_steps::RULE, no_steps::find)];

pub(super) const RULES: &[Check] = &[
    (doubtful_word::RULE, doubtful_word::find),
    (replacement_voltage::RULE, replacement_voltage::find),
    (replacement_charge::RULE, replacement_charge::find),
    (replacement_connector::RULE, replacement_connector::find),
    (replacement_size::RULE, replacement_size::find),
    (replacement_capacity::RULE, replacement_capacity::find),
    (label_arithmetic::RULE, label_arithmetic::find),
    (laid_out_unused::RULE, laid_out_unused::find),
    (used_not_laid_out::RULE, used_not_laid_out::find),
    (promise_open::RULE, promise_open::find),
    (empty_step::RULE, empty_step::find),
    (not_reviewed::RULE, not_reviewed::find),
];

/// Parts with what is to be ordered for them.
fn replaced(manual: &Manual) -> impl Iterator<Item = (&Part, &RatingLabel, &Replacement)> {
    manual.parts.values().filter_map(|p| Some((p, &p.fitted, p.replacement.as_ref()?)))
}
