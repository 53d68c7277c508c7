//! The balance of screws: out = in + renewed + left over, and left over is nothing unless the text says what.
//!
//! Source: bookkeeping of the trade (common practice, no source): per group, out + new = driven + replaced
//! + left over.

use crate::ids::*;
use crate::manual::{FastenerFate, FastenerGroup, Manual, Phase};
use crate::reading::FastenerOp;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
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
}

/// Balances the screws of a manual's teardown against its rebuild.
pub fn balance(manual: &Manual) -> Balance {
    let rows: Vec<BalanceRow> =
        in_order(manual).into_iter().filter(|(_, g)| comes_out(g)).map(|(_, g)| row(manual, g)).collect();
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
        rows,
    }
}

/// The groups of the teardown with the numbers of their steps, in the order in which they come out.
pub fn in_order(manual: &Manual) -> Vec<(usize, &FastenerGroup)> {
    let numbers: BTreeMap<StepId, usize> =
        manual.steps_in(Phase::Teardown).iter().enumerate().map(|(i, s)| (s.id, i + 1)).collect();
    let mut groups: Vec<(usize, &FastenerGroup)> =
        manual.fasteners.values().filter_map(|g| Some((*numbers.get(&g.step)?, g))).collect();
    groups.sort_by_key(|(number, g)| (*number, g.id));
    groups
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
    BalanceRow {
        group: group.id,
        label: label(manual, group),
        out: group.count,
        back,
        renewed,
        left_over,
        on_purpose: group.fate == FastenerFate::LeaveOut,
    }
}

/// A group in a few words: its name, or `PH0, 6 mm, rear housing`.
pub fn label(manual: &Manual, group: &FastenerGroup) -> String {
    if let Some(name) = &group.name {
        return name.clone();
    }
    let drive = group.bit.clone().or_else(|| group.drive.map(|d| d.code().to_owned()));
    let length = group.length.map(|l| format!("{} mm", crate::units::number(crate::units::in_millimetres(l))));
    let holds: Vec<&str> = group.holds.iter().map(|p| manual.part_name(*p)).collect();
    let holds = (!holds.is_empty()).then(|| holds.join(" + "));
    let words: Vec<String> = [drive, length, holds].into_iter().flatten().collect();
    if words.is_empty() { "screws of unknown kind".to_owned() } else { words.join(", ") }
}
