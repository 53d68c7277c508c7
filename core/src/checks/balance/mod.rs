//! Rules of the balance: what came out goes back, is renewed, or is accounted for.

mod left_over;
mod too_many_back;
mod uncounted;

use super::{Case, Check, Subject};
use crate::fasteners::balance::BalanceRow;

pub(super) const RULES: &[Check] = &[
    (uncounted::RULE, uncounted::find),
    (left_over::RULE, left_over::find),
    (too_many_back::RULE, too_many_back::find),
];

/// A row of the balance is about its group and the step that the screws come out in.
fn about(case: &Case<'_>, row: &BalanceRow) -> Vec<Subject> {
    let step = case.manual.fasteners.get(&row.group).map(|g| Subject::Step(g.step));
    std::iter::once(Subject::Group(row.group)).chain(step).collect()
}
