//! The screws of a guide as its reader needs them at the bench: what, how many, how tight, in which order.

use crate::fasteners::bits::bits;
use crate::fasteners::joints::{joints, order_words};
use crate::fasteners::kinds::{Kind, Tag, sort};
use crate::fasteners::ledger::ledger;
use crate::fasteners::setting::setting;
use crate::ids::*;
use crate::manual::{FastenerFate, Locking, Manual};
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

/// The order of one joint.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SheetJoint {
    /// The step that opens it.
    pub title: String,
    pub says: String,
    /// "A1, A3, A2, A4": letters of groups with the numbers of their holes.
    pub order: Option<String>,
}

/// All screws of a guide.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScrewSheet {
    pub rows: Vec<SheetRow>,
    pub joints: Vec<SheetJoint>,
    /// Bits in the order in which they are taken up.
    pub bits: Vec<String>,
    /// Layers with holes on them.
    pub layers: Vec<SheetLayer>,
}

/// A layer with holes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SheetLayer {
    pub id: LayerId,
    pub name: String,
    pub holes: usize,
}

/// Works out the sheet.
pub(super) fn sheet(manual: &Manual) -> ScrewSheet {
    let sorted = sort(manual);
    let ledger = ledger(manual, &sorted);
    let letters: BTreeMap<GroupId, String> = sorted.tags.iter().map(|(id, t)| (*id, t.letter.clone())).collect();
    let rows = ledger.rows.iter().map(|row| {
        let group = &manual.fasteners[&row.group];
        let set = setting(group);
        let holds: Vec<&str> = group.holds.iter().map(|p| manual.part_name(*p)).collect();
        let mut notes: Vec<String> = Vec::new();
        notes.extend(group.captive.then(|| "captive".to_owned()));
        notes.extend((group.fate == FastenerFate::Renew).then(|| "new ones".to_owned()));
        notes.extend((group.fate == FastenerFate::LeaveOut).then(|| "left out".to_owned()));
        notes.extend((group.locking == Some(Locking::Liquid)).then(|| "with thread locker".to_owned()));
        notes.extend(group.two_passes.then(|| "in two passes: half, then full".to_owned()));
        let waits = waits_until(manual, group).and(group.waits_for);
        notes.extend(waits.map(|p| format!("only when the {} is back", manual.part_name(p))));
        notes.extend((group.empty_on_arrival > 0).then(|| format!("{} missing on arrival", group.empty_on_arrival)));
        SheetRow {
            group: group.id,
            tag: row.tag.clone(),
            count: group.count,
            kind: Kind::of(group).words(),
            holds: group.name.clone().unwrap_or_else(|| holds.join(" + ")),
            step_number: row.step_number,
            torque: set.in_force_nm.map(|nm| format!("{} N·m", number(nm))),
            by_hand: set.by_hand,
            notes,
        }
    });
    let joints = joints(manual).into_iter().map(|j| SheetJoint {
        title: manual.steps.get(&j.step).map(|s| s.title.clone()).unwrap_or_default(),
        order: order_words(&j, &letters),
        says: j.says,
    });
    let holes = |id: LayerId| manual.fasteners.values().filter(|g| g.layer == Some(id)).map(|g| g.holes.len()).sum();
    let layers = manual.layers.values().map(|l| SheetLayer { id: l.id, name: l.name.clone(), holes: holes(l.id) });
    ScrewSheet {
        rows: rows.collect(),
        joints: joints.collect(),
        bits: bits(manual).bits.into_iter().map(|b| b.name).collect(),
        layers: layers.filter(|l| l.holes > 0).collect(),
    }
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
