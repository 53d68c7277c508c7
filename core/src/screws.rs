//! The Screws stop: ledger, kinds and their risks, bits, orders, settings and what does not fit, from one manual.

use crate::checks::{self, Finding, Stop};
use crate::fasteners::bits::{BitAdvice, Bits, advice, bits};
use crate::fasteners::joints::{Joint, joints};
use crate::fasteners::kinds::{Shape, sort};
use crate::fasteners::ledger::{Ledger, ledger};
use crate::fasteners::mixup::{Risks, risks};
use crate::fasteners::setting::{Setting, setting};
use crate::ids::*;
use crate::manual::Manual;
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
pub struct GroupView {
    pub group: GroupId,
    pub setting: Setting,
    pub bit: BitAdvice,
}

/// All that the stop shows.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScrewsView {
    pub ledger: Ledger,
    pub kinds: Vec<KindRow>,
    pub risks: Risks,
    pub bits: Bits,
    pub joints: Vec<Joint>,
    pub groups: Vec<GroupView>,
    pub findings: Vec<Finding>,
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
    let group = |row: &crate::fasteners::ledger::LedgerRow| {
        let group = &manual.fasteners[&row.group];
        GroupView { group: group.id, setting: setting(group), bit: advice(group) }
    };
    ScrewsView {
        kinds: sorted.kinds.iter().map(kind).collect(),
        risks: risks(manual, &sorted),
        bits: bits(manual),
        joints: joints(manual),
        groups: ledger.rows.iter().map(group).collect(),
        findings: checks::findings_at(manual, Stop::Screws),
        ledger,
    }
}
