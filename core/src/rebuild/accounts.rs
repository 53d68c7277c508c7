//! Nothing is left over: what comes out of the device goes back, is renewed, moves over to the new part or stays out on
//! purpose. One account a kind of thing, and what lies on the bench after every step of both halves.
//!
//! The accounts are kept over the lines of the rebuild as they stand, told or worked out, and not over how they were made: a
//! line that somebody lost shows here. Source: bookkeeping of the trade (common practice, no source).

use super::back::{goes_back, is_renewed};
use super::{RebuildLine, RebuildStep};
use crate::fasteners::balance::{Balance, comes_out};
use crate::ids::*;
use crate::labels;
use crate::manual::{FastenerFate, Manual, Step};
use crate::reading::Act;
use crate::things::{Peeled, is_seal, peeled};
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// What is counted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Counted {
    Screws,
    Plugs,
    Parts,
    Seals,
}

labels!(Counted { Screws: "screws", Plugs: "plugs", Parts: "parts", Seals: "seals" });

/// The account of one kind.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Account {
    pub kind: Counted,
    /// Out of the device; for plugs: undone.
    pub out: u32,
    /// Back as they were.
    pub back: u32,
    /// New ones in their place.
    pub renewed: u32,
    /// Moved over to the new part.
    pub moved_over: u32,
    /// Left out on purpose: scrap, films, screws that stay out.
    pub kept_out: u32,
    /// What nobody accounts for: its name, and the step of the teardown that it came out in.
    pub open: Vec<LeftOver>,
    /// Something was not counted, so nothing is proven.
    pub uncounted: bool,
    /// Nothing is open, nothing uncounted.
    pub proven: bool,
    /// "13 back + 2 new", "6 back + 1 left over".
    pub says: String,
}

/// Something that came out and goes nowhere.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct LeftOver {
    pub what: String,
    pub step: StepId,
    /// How many, where it is a number: screws left over, or driven too many (negative).
    pub count: i64,
    pub part: Option<PartId>,
}

/// What lies on the bench, or hangs undone, after a step.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Bench {
    /// `None` once a group was not counted: nobody knows from there on.
    pub screws: Option<u32>,
    pub plugs: u32,
    pub parts: u32,
    pub seals: u32,
}

/// Where a part comes out: the first step that takes it off.
fn parts_out<'m>(steps: &[&'m Step]) -> Vec<(PartId, &'m Step)> {
    let mut seen = BTreeSet::new();
    let takes = |act: Act| matches!(act, Act::Remove | Act::Peel | Act::Desolder);
    let all = steps.iter().flat_map(|s| s.actions.iter().filter(move |a| takes(a.act)).map(move |a| (*s, a)));
    let parts = all.flat_map(|(s, a)| a.parts.iter().map(move |p| (*p, s)));
    parts.filter(|(p, _)| seen.insert(*p)).collect()
}

fn kind_of(manual: &Manual, part: PartId) -> Counted {
    let name = manual.part_name(part);
    let sticks = matches!(peeled(name), Peeled::Tape | Peeled::Film | Peeled::Pad);
    if sticks || is_seal(name) { Counted::Seals } else { Counted::Parts }
}

fn is_film(manual: &Manual, part: PartId) -> bool {
    peeled(manual.part_name(part)) == Peeled::Film
}

/// The parts that the rebuild brings back, each at the first step that does.
fn parts_back(rebuild: &[RebuildStep]) -> BTreeMap<PartId, usize> {
    let mut out = BTreeMap::new();
    for (i, step) in rebuild.iter().enumerate() {
        for part in step.lines.iter().flat_map(|l| &l.parts) {
            out.entry(*part).or_insert(i);
        }
    }
    out
}

/// The accounts of all kinds of which something comes out, screws first. O(lines).
pub(super) fn accounts(manual: &Manual, steps: &[&Step], rebuild: &[RebuildStep], balance: &Balance) -> Vec<Account> {
    let mut all = vec![screws(manual, balance), plugs(manual, steps, rebuild)];
    all.extend([Counted::Parts, Counted::Seals].map(|kind| parts(manual, steps, rebuild, kind)));
    all.retain(|a| a.out > 0 || a.uncounted);
    all
}

impl Account {
    fn new(kind: Counted) -> Self {
        let none = Vec::new();
        Self {
            kind,
            out: 0,
            back: 0,
            renewed: 0,
            moved_over: 0,
            kept_out: 0,
            open: none,
            uncounted: false,
            proven: false,
            says: String::new(),
        }
    }

    fn closed(self) -> Self {
        Self { proven: self.open.is_empty() && !self.uncounted, says: self.words(), ..self }
    }

    fn words(&self) -> String {
        let sum = |of: fn(i64) -> i64| self.open.iter().map(|o| of(o.count)).sum::<i64>();
        let ways = [
            (i64::from(self.back), "back"),
            (i64::from(self.renewed), "new"),
            (i64::from(self.moved_over), "moved over"),
            (i64::from(self.kept_out), "left out"),
            (sum(|n| n.max(0)), "left over"),
        ];
        let told: Vec<String> = ways.iter().filter(|(n, _)| *n > 0).map(|(n, word)| format!("{n} {word}")).collect();
        let mut says = if told.is_empty() { "0 back".to_owned() } else { told.join(" + ") };
        let many = sum(|n| (-n).max(0));
        if many > 0 {
            says.push_str(&format!(", {many} too many"));
        }
        if self.uncounted {
            says.push_str(", not all counted");
        }
        says
    }
}

fn screws(manual: &Manual, balance: &Balance) -> Account {
    let on_purpose = balance.rows.iter().filter(|r| r.on_purpose).filter_map(|r| r.out).sum();
    let open = balance.rows.iter().filter(|r| !r.on_purpose && r.left_over.is_some_and(|n| n != 0));
    let open = open.map(|r| LeftOver {
        what: r.label.clone(),
        step: manual.fasteners[&r.group].step,
        count: r.left_over.unwrap_or(0),
        part: None,
    });
    Account {
        out: balance.out,
        back: balance.back,
        renewed: balance.renewed,
        kept_out: on_purpose,
        open: open.collect(),
        uncounted: balance.uncounted > 0,
        ..Account::new(Counted::Screws)
    }
    .closed()
}

fn plugs(manual: &Manual, steps: &[&Step], rebuild: &[RebuildStep]) -> Account {
    let made: BTreeSet<ConnectorId> = rebuild.iter().flat_map(|s| s.connectors.iter().copied()).collect();
    let mut account = Account::new(Counted::Plugs);
    for connector in steps.iter().flat_map(|s| manual.connectors_of(s.id)).filter(|c| !c.temporary) {
        account.out += 1;
        if made.contains(&connector.id) {
            account.back += 1;
        } else if connector.serves.is_some_and(|p| !goes_back(manual, p)) {
            account.kept_out += 1;
        } else {
            let what = connector.words(manual);
            account.open.push(LeftOver { what, step: connector.step, count: 1, part: connector.serves });
        }
    }
    account.closed()
}

fn parts(manual: &Manual, steps: &[&Step], rebuild: &[RebuildStep], kind: Counted) -> Account {
    let back = parts_back(rebuild);
    let over: BTreeSet<PartId> = moved_over(steps).collect();
    let mut account = Account::new(kind);
    for (part, step) in parts_out(steps).into_iter().filter(|(p, _)| kind_of(manual, *p) == kind) {
        account.out += 1;
        let entry = match part {
            _ if !goes_back(manual, part) || is_film(manual, part) => &mut account.kept_out,
            _ if back.contains_key(&part) && is_new(manual, part) => &mut account.renewed,
            _ if back.contains_key(&part) => &mut account.back,
            _ if over.contains(&part) => &mut account.moved_over,
            _ => {
                let what = manual.part_name(part).to_owned();
                account.open.push(LeftOver { what, step: step.id, count: 1, part: Some(part) });
                continue;
            }
        };
        *entry += 1;
    }
    account.closed()
}

/// Whether something new goes in with a step.
pub(super) fn renews(manual: &Manual, step: &RebuildStep) -> bool {
    let screws = step.groups.iter().any(|g| manual.fasteners[g].fate == FastenerFate::Renew);
    let new = |l: &RebuildLine| l.takes_new.is_some() || l.parts.iter().any(|p| is_new(manual, *p));
    screws || step.lines.iter().any(new)
}

/// A tape is never the old one.
fn is_new(manual: &Manual, part: PartId) -> bool {
    is_renewed(manual, part) || peeled(manual.part_name(part)) == Peeled::Tape
}

fn moved_over(steps: &[&Step]) -> impl Iterator<Item = PartId> {
    let over = steps.iter().flat_map(|s| &s.actions).filter(|a| a.act == Act::Transfer);
    over.flat_map(|a| a.parts.clone())
}

/// What lies on the bench along both halves.
pub(super) struct Benches {
    /// After each step of the teardown.
    pub apart: Vec<Bench>,
    pub turn: Bench,
    /// After each step of the rebuild.
    pub together: Vec<Bench>,
}

/// O(lines).
pub(super) fn benches(manual: &Manual, steps: &[&Step], rebuild: &[RebuildStep]) -> Benches {
    let back = parts_back(rebuild);
    let mut out_in: BTreeMap<StepId, Vec<PartId>> = BTreeMap::new();
    let mut back_in: BTreeMap<usize, Vec<PartId>> = BTreeMap::new();
    for (part, step) in parts_out(steps) {
        out_in.entry(step.id).or_default().push(part);
        // What is new was never on the bench.
        let old = back.get(&part).filter(|_| !is_new(manual, part));
        back_in.entry(*old.unwrap_or(&usize::MAX)).or_default().push(part);
    }
    let mut lying = Bench { screws: Some(0), ..Bench::default() };
    let apart = steps.iter().map(|step| {
        for group in manual.groups_of(step.id).filter(|g| comes_out(g)) {
            lying.screws = lying.screws.zip(group.count).map(|(lie, more)| lie + more);
        }
        lying.plugs += manual.connectors_of(step.id).filter(|c| !c.temporary).count() as u32;
        for part in out_in.get(&step.id).into_iter().flatten() {
            *lying.of(kind_of(manual, *part)) += 1;
        }
        lying.clone()
    });
    let apart: Vec<Bench> = apart.collect();
    let turn = at_the_turn(manual, steps, apart.last());
    let mut lying = turn.clone();
    let together = rebuild.iter().enumerate().map(|(i, step)| {
        for group in step.groups.iter().map(|g| &manual.fasteners[g]).filter(|g| comes_out(g)) {
            // Old ones that stay out for new ones left the bench at the turn.
            let again = group.fate == FastenerFate::Reuse;
            let driven = if again { group.refitted.or(group.count) } else { Some(0) };
            lying.screws = lying.screws.zip(driven).map(|(lie, less)| lie.saturating_sub(less));
        }
        lying.plugs = lying.plugs.saturating_sub(step.connectors.len() as u32);
        for part in back_in.get(&i).into_iter().flatten() {
            let lies = lying.of(kind_of(manual, *part));
            *lies = lies.saturating_sub(1);
        }
        lying.clone()
    });
    let together = together.collect();
    Benches { apart, turn, together }
}

/// At the turn, what stays out on purpose or is thrown away for a new one leaves the bench.
fn at_the_turn(manual: &Manual, steps: &[&Step], lying: Option<&Bench>) -> Bench {
    let mut lying = lying.cloned().unwrap_or(Bench { screws: Some(0), ..Bench::default() });
    for group in steps.iter().flat_map(|s| manual.groups_of(s.id)).filter(|g| comes_out(g)) {
        if group.fate != FastenerFate::Reuse {
            lying.screws = lying.screws.zip(group.count).map(|(lie, less)| lie.saturating_sub(less));
        }
    }
    let over: BTreeSet<PartId> = moved_over(steps).collect();
    for (part, _) in parts_out(steps) {
        if !goes_back(manual, part) || is_film(manual, part) || is_new(manual, part) || over.contains(&part) {
            let lies = lying.of(kind_of(manual, part));
            *lies = lies.saturating_sub(1);
        }
    }
    for connector in steps.iter().flat_map(|s| manual.connectors_of(s.id)).filter(|c| !c.temporary) {
        if connector.serves.is_some_and(|p| !goes_back(manual, p)) {
            lying.plugs = lying.plugs.saturating_sub(1);
        }
    }
    lying
}

impl Bench {
    fn of(&mut self, kind: Counted) -> &mut u32 {
        if kind == Counted::Seals { &mut self.seals } else { &mut self.parts }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::labels::Label;
    use crate::manual::drafted;
    use crate::rebuild::{Fold, fold};
    use rstest::rstest;

    /// "parts 3 = 2 back + 1 new".
    fn said(fold: &Fold) -> Vec<String> {
        fold.accounts.iter().map(|a| format!("{} {} = {}", a.kind.label(), a.out, a.says)).collect()
    }

    #[rstest]
    #[case::all_back(
        "Remove four PH1 screws from the lid. Take off the lid. Disconnect the fan cable. Take out the fan.",
        &["screws 4 = 4 back", "plugs 1 = 1 back", "parts 2 = 2 back"]
    )]
    #[case::film_and_tape(
        "Take off the lid. Peel off the protective film. Peel off the copper tape. Take out the gasket.",
        &["parts 1 = 1 back", "seals 2 = 1 back + 1 left out"]
    )]
    fn what_came_out_is_accounted_for(#[case] told: &str, #[case] wanted: &[&str]) {
        assert_eq!(said(&fold(&drafted::manual(&format!("[0:00] {told}")))), wanted);
    }

    #[test]
    fn the_bench_fills_and_comes_to_nothing() {
        let told = "[0:00] Remove four PH1 screws from the lid. Take off the lid.\n\n[0:20] Disconnect the fan cable. \
                    Take out the fan.\n\n[0:40] Take out the tray.";
        let fold = fold(&drafted::manual(told));
        let sum = |b: &Bench| (b.screws, b.plugs, b.parts);
        let apart: Vec<_> = fold.teardown.iter().map(|r| sum(&r.bench)).collect();
        assert_eq!(apart, [(Some(4), 0, 1), (Some(4), 1, 2), (Some(4), 1, 3)]);
        let together: Vec<_> = fold.rebuild.iter().map(|s| sum(&s.bench)).collect();
        assert_eq!(together, [(Some(4), 1, 2), (Some(4), 0, 1), (Some(0), 0, 0)]);
    }

    /// Who cleans what lies on the bench has not put it back.
    #[test]
    fn what_is_only_cleaned_still_lies_there() {
        let told = "[0:00] Take off the lid.\n\n[0:10] Take out the fan.\n\n[0:20] Take out the tray.\n\n\
                    [0:30] Now the assembly. Clean the fan.\n\n[0:40] Put the tray in.\n\n[0:50] Put the fan in.\n\n\
                    [1:00] Put the lid on.";
        let fold = fold(&drafted::manual(told));
        let together: Vec<(&str, u32)> = fold.rebuild.iter().map(|s| (s.title.as_str(), s.bench.parts)).collect();
        assert_eq!(together, [("Fit the tray", 2), ("Fit the fan", 1), ("Fit the lid", 0)]);
    }
}
