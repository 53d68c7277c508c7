//! The Screws stop: ledger, kinds and their risks, bits, orders, settings and maps, from one manual.

use crate::fasteners::bits::{BitAdvice, Bits, advice, bits};
use crate::fasteners::joints::{Joint, joints};
use crate::fasteners::kinds::{Shape, sort};
use crate::fasteners::ledger::{Ledger, ledger};
use crate::fasteners::map::{LayerMap, layer_map};
use crate::fasteners::mixup::{Risks, risks};
use crate::fasteners::setting::{Setting, setting};
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{CountClaim, Manual};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Screws that are alike.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct KindRow {
    pub shape: Shape,
    pub words: String,
    pub groups: Vec<GroupId>,
    /// Letters of those groups.
    pub letters: Vec<String>,
}

/// What the stop says of one group.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GroupRow {
    pub group: GroupId,
    pub setting: Setting,
    pub bit: BitAdvice,
    /// What kind of screw it is: "PH1, M3, 8 mm".
    pub kind: String,
    /// Its name, or what it holds.
    pub holds: String,
    /// "captive", "new ones".
    pub remarks: Vec<String>,
    /// Who counted how many: "4 said, 3 drawn"; empty where nobody did.
    pub claims: String,
}

/// All that the stop shows.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScrewsView {
    pub ledger: Ledger,
    pub kinds: Vec<KindRow>,
    pub risks: Risks,
    pub bits: Bits,
    pub joints: Vec<Joint>,
    pub groups: Vec<GroupRow>,
    pub layers: Vec<LayerMap>,
}

/// Works out the stop.
pub fn view(manual: &Manual) -> ScrewsView {
    let sorted = sort(manual);
    let letters = |groups: &[GroupId]| groups.iter().map(|g| sorted.tags[g].letter.clone()).collect();
    let kind = |(kind, groups): &(crate::fasteners::kinds::Kind, Vec<GroupId>)| KindRow {
        shape: sorted.tags[&groups[0]].shape,
        words: kind.words(),
        letters: letters(groups),
        groups: groups.clone(),
    };
    let ledger = ledger(manual, &sorted);
    let joints = joints(manual);
    let group = |row: &crate::fasteners::ledger::LedgerRow| {
        let group = &manual.fasteners[&row.group];
        let words = manual.words_of(group);
        let claim = |c: &CountClaim| format!("{} {}", c.count, c.how.label());
        GroupRow {
            group: group.id,
            setting: setting(group),
            bit: advice(group),
            kind: group.kind_words(),
            holds: group.name.clone().unwrap_or_else(|| words.holds()),
            remarks: words.remarks(),
            claims: group.claims.iter().map(claim).collect::<Vec<_>>().join(", "),
        }
    };
    ScrewsView {
        kinds: sorted.kinds.iter().map(kind).collect(),
        risks: risks(manual, &sorted),
        bits: bits(manual),
        layers: manual.layers.values().map(|l| layer_map(manual, l, &sorted, &joints)).collect(),
        joints,
        groups: ledger.rows.iter().map(group).collect(),
        ledger,
    }
}
