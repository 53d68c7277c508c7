//! The screws of a guide as its reader needs them at the bench: what, how many, how tight, in which order.

use super::Block;
use crate::fasteners::balance::Balance;
use crate::fasteners::joints::joints;
use crate::fasteners::kinds::{Tag, sort};
use crate::fasteners::ledger::ledger;
use crate::fasteners::setting::setting;
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{Manual, capitalised};
use crate::rebuild::waits_until;
use crate::units::number;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// One group.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SheetRow {
    pub group: GroupId,
    pub tag: Tag,
    pub count: Option<u32>,
    /// "PH0, M2, 6 mm, pan head"
    pub kind: String,
    pub holds: String,
    pub step_number: usize,
    /// "0.4 N·m"; `None` where nobody knows.
    pub torque: Option<String>,
    pub by_hand: String,
    /// "captive; renew; thread locker"
    pub notes: Vec<String>,
}

/// A layer with holes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SheetLayer {
    pub id: LayerId,
    pub name: String,
    pub holes: usize,
}

/// All screws with how tight, the orders, the maps that the numbers stand on, and the balance.
pub(super) fn blocks(manual: &Manual, balance: &Balance) -> Vec<Block> {
    let sorted = sort(manual);
    let ledger = ledger(manual, &sorted);
    let letters: BTreeMap<GroupId, String> = sorted.tags.iter().map(|(id, t)| (*id, t.letter.clone())).collect();
    let rows = ledger.rows.iter().map(|row| {
        let group = &manual.fasteners[&row.group];
        let set = setting(group);
        let words = manual.words_of(group);
        let mut notes = words.remarks();
        notes.extend(set.from);
        notes.extend(group.locking.map(|l| format!("with {}", l.label())));
        notes.extend(group.two_passes.then(|| "in two passes: half, then full".to_owned()));
        let waits = waits_until(manual, group).and(group.waits_for);
        notes.extend(waits.map(|p| format!("only when the {} is back", manual.part_name(p))));
        notes.extend((group.empty_on_arrival > 0).then(|| format!("{} missing on arrival", group.empty_on_arrival)));
        SheetRow {
            group: group.id,
            tag: row.tag.clone(),
            count: group.count,
            kind: group.kind_words(),
            holds: group.name.clone().unwrap_or_else(|| words.holds()),
            step_number: row.step_number,
            torque: set.in_force_nm.map(|nm| {
                let again = manual.head.torque_again(nm).map_or(String::new(), |t| format!(" ({t})"));
                format!("{} N·m{again}", number(nm))
            }),
            by_hand: set.by_hand,
            notes,
        }
    });
    let rows: Vec<SheetRow> = rows.collect();
    if rows.is_empty() {
        return Vec::new();
    }
    let joints = joints(manual).into_iter().map(|j| {
        let step = manual.steps.get(&j.step).map(|s| s.title.as_str()).unwrap_or_default();
        let title = j.part.map_or_else(|| step.to_owned(), |p| capitalised(manual.part_name(p)));
        let order = j.tighten.words(&letters).map_or(String::new(), |o| format!(" Order: {o}."));
        Block::Text(format!("{title}: {}{order}", j.says))
    });
    let holes = |id: LayerId| manual.fasteners.values().filter(|g| g.layer == Some(id)).map(|g| g.holes.len()).sum();
    let layers = manual.layers.values().map(|l| SheetLayer { id: l.id, name: l.name.clone(), holes: holes(l.id) });
    let maps = layers.filter(|l| l.holes > 0).map(Block::Map);
    let sum = format!(
        "Screws: {} out, {} back, {} new, {} left over.",
        balance.out, balance.back, balance.renewed, balance.left_over
    );
    let table = Block::Screws(rows);
    std::iter::once(table).chain(joints).chain(maps).chain([Block::Text(sum)]).collect()
}

impl SheetRow {
    /// For readers: "A: 4 × PH0, M2, 6 mm, cover, step 2, 0.4 N·m, captive".
    pub fn words(&self) -> String {
        let count = self.count.map_or("? ×".to_owned(), |n| format!("{n} ×"));
        let mut words = vec![format!("{}: {count} {}", self.tag.letter, self.kind)];
        words.extend((!self.holds.is_empty()).then(|| self.holds.clone()));
        words.push(format!("step {}", self.step_number));
        words.extend(self.torque.clone());
        words.extend(self.notes.iter().cloned());
        words.join(", ")
    }
}
