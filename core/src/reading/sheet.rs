//! Last pass: the fact sheet of a whole recording, and where the recording contradicts itself.

use super::Statement;
use super::facts::{
    CautionSubject, ConnectorFact, Consumable, FastenerFact, FastenerOp, HeatFact, NeedFact, PartFact, PartOp,
};
use super::statements::{StatementKind, has_work};
use crate::recording::Recording;
use crate::units::{self, Measure, Quantity};
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// A fact with the second of the segment it stands in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct At<T> {
    pub at_s: u64,
    #[serde(flatten)]
    pub fact: T,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CautionRow {
    pub at_s: u64,
    pub about: CautionSubject,
}

/// How a recording contradicts itself.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum DiscrepancyKind {
    Count,
    Unit,
    Size,
    Repeat,
    Omitted,
    LateTool,
    Side,
    Order,
}

#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Discrepancy {
    pub at_s: u64,
    pub kind: DiscrepancyKind,
}

/// All facts of one recording, in the shape that `paso read --facts` prints.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FactSheet {
    pub rebuild_from_s: Option<u64>,
    pub tools: Vec<String>,
    pub consumables: Vec<Consumable>,
    pub fasteners: Vec<At<FastenerFact>>,
    pub connectors: Vec<At<ConnectorFact>>,
    pub parts: Vec<At<PartFact>>,
    pub heat: Vec<At<HeatFact>>,
    pub cautions: Vec<CautionRow>,
    pub measures: Vec<At<Measure>>,
    pub needs: Vec<At<NeedFact>>,
    pub idle_segments: Vec<u64>,
    pub discrepancies: Vec<Discrepancy>,
}

pub(super) fn build(recording: &Recording, statements: &[Statement], turn: Option<usize>) -> FactSheet {
    let second = |cue: u32| recording.cues[cue as usize].start.unwrap_or(0) / 1000;
    fn rows<'a, T: Clone + 'a>(
        statements: &'a [Statement],
        second: &'a dyn Fn(u32) -> u64,
        of: fn(&Statement) -> &Vec<T>,
    ) -> Vec<At<T>> {
        statements.iter().flat_map(|s| of(s).iter().map(|f| At { at_s: second(s.last_cue), fact: f.clone() })).collect()
    }
    let mut cautions: Vec<CautionRow> = Vec::new();
    for s in statements {
        for about in &s.facts.cautions {
            let row = CautionRow { at_s: second(s.last_cue), about: *about };
            if !cautions.contains(&row) {
                cautions.push(row);
            }
        }
    }
    let mut sheet = FactSheet {
        rebuild_from_s: turn.map(|cue| second(cue as u32)),
        tools: tools(statements),
        consumables: statements
            .iter()
            .flat_map(|s| s.facts.consumables.iter().copied())
            .collect::<BTreeSet<_>>()
            .into_iter()
            .collect(),
        fasteners: rows(statements, &second, |s| &s.facts.fasteners),
        connectors: rows(statements, &second, |s| &s.facts.connectors),
        parts: rows(statements, &second, |s| &s.facts.parts),
        heat: rows(statements, &second, |s| &s.facts.heat),
        cautions,
        measures: rows(statements, &second, |s| &s.facts.measures),
        needs: rows(statements, &second, |s| &s.facts.needs),
        idle_segments: idle(recording, statements, &second),
        discrepancies: Vec::new(),
    };
    sheet.discrepancies = discrepancies(statements, &sheet, &second);
    sheet
}

/// Every tool once; a screw of a known drive makes its driver certain.
fn tools(statements: &[Statement]) -> Vec<String> {
    let mut out: BTreeSet<String> = statements.iter().flat_map(|s| s.facts.tools.iter().cloned()).collect();
    out.extend(
        statements
            .iter()
            .flat_map(|s| &s.facts.fasteners)
            .filter_map(|f| f.drive)
            .map(|d| format!("{} screwdriver", d.name())),
    );
    if out.iter().any(|t| t.ends_with(" screwdriver")) {
        out.remove("screwdriver");
    }
    out.into_iter().collect()
}

/// Segments in which no statement carries work.
fn idle(recording: &Recording, statements: &[Statement], second: &dyn Fn(u32) -> u64) -> Vec<u64> {
    let mut working = BTreeSet::new();
    for s in statements.iter().filter(|s| has_work(s.kind, &s.facts)) {
        working.extend(s.cue..=s.last_cue);
    }
    (0..recording.cues.len() as u32).filter(|c| !working.contains(c)).map(second).collect()
}

fn discrepancies(statements: &[Statement], sheet: &FactSheet, second: &dyn Fn(u32) -> u64) -> Vec<Discrepancy> {
    let mut out: Vec<Discrepancy> = Vec::new();
    let mut say = |at_s: u64, kind| {
        let row = Discrepancy { at_s, kind };
        if !out.contains(&row) {
            out.push(row);
        }
    };
    for pair in statements.windows(2) {
        const LONG_ENOUGH: usize = 9;
        let same = pair[0].text.trim_end_matches('.').eq_ignore_ascii_case(pair[1].text.trim_end_matches('.'));
        if same && pair[1].text.len() >= LONG_ENOUGH && pair[1].kind.is_work() {
            say(second(pair[1].last_cue), DiscrepancyKind::Repeat);
        }
    }
    for s in statements {
        if s.text.to_lowercase().contains("forgot") && !(s.facts.tools.is_empty() && s.facts.consumables.is_empty()) {
            say(second(s.last_cue), DiscrepancyKind::LateTool);
        }
        let temperatures: Vec<f64> =
            s.facts.measures.iter().filter(|m| m.quantity == Quantity::Temperature).map(|m| m.value).collect();
        if temperatures.len() == 2
            && s.text.to_lowercase().contains("fahrenheit")
            && s.text.to_lowercase().contains("celsius")
            && (temperatures[0] - temperatures[1]).abs() > 1.0
        {
            say(second(s.last_cue), DiscrepancyKind::Unit);
        }
    }
    for (at_s, kind) in refits(sheet) {
        say(at_s, kind);
    }
    if sheet.rebuild_from_s.is_some() {
        for (at_s, _) in never_refitted(sheet) {
            say(at_s, DiscrepancyKind::Omitted);
        }
    }
    out.sort_by_key(|d| (d.at_s, d.kind));
    out
}

/// Screws of one thing that go back in another number or length than they came out.
fn refits(sheet: &FactSheet) -> Vec<(u64, DiscrepancyKind)> {
    let mut held: BTreeMap<&str, Vec<&At<FastenerFact>>> = BTreeMap::new();
    for f in &sheet.fasteners {
        if let Some(what) = &f.fact.what {
            held.entry(what).or_default().push(f);
        }
    }
    let mut out = Vec::new();
    for groups in held.values() {
        let of = |op: FastenerOp| groups.iter().filter(|g| g.fact.op == op).collect::<Vec<_>>();
        let (removed, installed) = (of(FastenerOp::Remove), of(FastenerOp::Install));
        let ([gone], [back]) = (&removed[..], &installed[..]) else { continue };
        if let (Some(a), Some(b)) = (gone.fact.count, back.fact.count)
            && a != b
        {
            out.push((back.at_s, DiscrepancyKind::Count));
        }
        if let (Some(a), Some(b)) = (gone.fact.length, back.fact.length)
            && units::in_millimetres(a) != units::in_millimetres(b)
        {
            out.push((back.at_s, DiscrepancyKind::Size));
        }
    }
    out
}

/// Small parts that came out and were never told again. Parts told by another name would be false alarms, so only parts
/// whose every word stays unsaid after the turn count.
fn never_refitted(sheet: &FactSheet) -> Vec<(u64, String)> {
    let turn = sheet.rebuild_from_s.unwrap_or(0);
    let back: Vec<&str> = sheet.parts.iter().filter(|p| p.at_s >= turn).flat_map(|p| p.fact.what.split(' ')).collect();
    let small =
        ["spring", "washer", "ring", "bracket", "spacer", "clip", "plug", "cap", "pin", "gasket", "disc", "shim"];
    sheet
        .parts
        .iter()
        .filter(|p| p.at_s < turn && p.fact.op == PartOp::Remove)
        .filter(|p| {
            p.fact.what.split(' ').any(|w| small.contains(&w)) && !p.fact.what.split(' ').any(|w| back.contains(&w))
        })
        .map(|p| (p.at_s, p.fact.what.clone()))
        .collect()
}

/// How often each kind of statement occurs, for summaries.
pub fn tally(statements: &[Statement]) -> BTreeMap<StatementKind, usize> {
    statements.iter().fold(BTreeMap::new(), |mut map, s| {
        *map.entry(s.kind).or_default() += 1;
        map
    })
}
