//! The balance of screws: out = in + renewed + left over, and left over is nothing unless the text says what.
//!
//! Source: bookkeeping of the trade (common practice, no source): per group, out + new = driven + replaced
//! + left over.

use crate::ids::*;
use crate::manual::{FastenerFate, FastenerGroup, Manual};
use crate::reading::FastenerOp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Whether a group's screws leave their holes and lie on the bench.
pub fn comes_out(group: &FastenerGroup) -> bool {
    group.op == FastenerOp::Remove && !group.captive
}

/// One group on the balance.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct BalanceRow {
    pub group: GroupId,
    /// "6 × PH0, 6 mm, rear housing"
    pub label: String,
    /// Out of their holes; `None` where nobody counted.
    pub out: Option<u32>,
    /// Old screws driven back.
    pub back: Option<u32>,
    /// New screws in their place.
    pub renewed: u32,
    /// Out less back less renewed; negative: more went in than came out.
    pub left_over: Option<i64>,
    /// Left out on purpose.
    pub on_purpose: bool,
    /// Something is left over, too many, or not counted, and nobody says why.
    pub open: bool,
}

/// All groups that come out, with their sum.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Balance {
    pub rows: Vec<BalanceRow>,
    pub out: u32,
    pub back: u32,
    pub renewed: u32,
    /// Screws on the bench at the end that nobody accounted for, over all groups; groups don't cancel each other.
    pub left_over: u32,
    /// Screws that went in and never came out, over all groups.
    pub too_many: u32,
    /// Groups without a count; the balance cannot be proven while there are any.
    pub uncounted: usize,
    /// Nothing left over, nothing too many, everything counted.
    pub proven: bool,
    /// The same in a few words: "0 left over", "1 left over, 2 groups not counted".
    pub says: String,
}

/// Balances the screws of a manual's teardown against its rebuild: whole screws, one row a group. O(groups · log groups).
pub fn balance(manual: &Manual) -> Balance {
    let rows: Vec<BalanceRow> =
        manual.groups_in_order().into_iter().filter(|(_, g)| comes_out(g)).map(|(_, g)| row(manual, g)).collect();
    let sum = |of: fn(&BalanceRow) -> u32| rows.iter().map(of).sum();
    let open = |r: &&BalanceRow| !r.on_purpose;
    let left_over = rows.iter().filter(open).filter_map(|r| r.left_over).filter(|n| *n > 0).sum::<i64>() as u32;
    let too_many = rows.iter().filter_map(|r| r.left_over).filter(|n| *n < 0).map(|n| -n).sum::<i64>() as u32;
    let uncounted = rows.iter().filter(|r| r.out.is_none()).count();
    Balance {
        out: sum(|r| r.out.unwrap_or(0)),
        back: sum(|r| r.back.unwrap_or(0)),
        renewed: sum(|r| r.renewed),
        left_over,
        too_many,
        uncounted,
        proven: left_over == 0 && too_many == 0 && uncounted == 0,
        says: says(left_over, too_many, uncounted),
        rows,
    }
}

fn says(left_over: u32, too_many: u32, uncounted: usize) -> String {
    let groups = if uncounted == 1 { "group" } else { "groups" };
    let open = [
        (left_over > 0).then(|| format!("{left_over} left over")),
        (too_many > 0).then(|| format!("{too_many} too many")),
        (uncounted > 0).then(|| format!("{uncounted} {groups} not counted")),
    ];
    let open: Vec<String> = open.into_iter().flatten().collect();
    if open.is_empty() { "0 left over".to_owned() } else { open.join(", ") }
}

fn row(manual: &Manual, group: &FastenerGroup) -> BalanceRow {
    let told = group.refitted.or(group.count);
    let (back, renewed) = match group.fate {
        FastenerFate::Reuse => (told, 0),
        FastenerFate::Renew => (Some(0), told.unwrap_or(0)),
        FastenerFate::LeaveOut => (Some(0), 0),
    };
    let left_over = match (group.count, back) {
        (Some(out), Some(back)) => Some(i64::from(out) - i64::from(back) - i64::from(renewed)),
        _ => None,
    };
    let on_purpose = group.fate == FastenerFate::LeaveOut;
    BalanceRow {
        group: group.id,
        label: manual.words_of(group).name(),
        out: group.count,
        back,
        renewed,
        left_over,
        on_purpose,
        open: left_over != Some(0) && !on_purpose,
    }
}
