//! Two recordings of one device, side by side: where they agree and where they differ.
//!
//! Things are matched by what they are of, never by when they were said: two people take the same device apart at their
//! own pace. What only one of them tells is a row too.

use super::facts::{ConnectorOp, FastenerFact, FastenerOp, PartOp};
use super::sheet::{At, FactSheet};
use crate::labels;
use crate::units::{self, Quantity};
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// What a row is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Topic {
    Screws,
    Heat,
    Setting,
    Connector,
    Order,
}

labels!(Topic { Screws: "Screws", Heat: "Heat", Setting: "Figure", Connector: "Connector", Order: "Order" });

/// One thing as two recordings tell it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Comparison {
    pub topic: Topic,
    /// Of what: "rear cover".
    pub what: String,
    /// `None`: this recording does not tell it.
    pub first: Option<String>,
    pub second: Option<String>,
    pub first_s: Option<u64>,
    pub second_s: Option<u64>,
    pub same: bool,
}

/// Every fact that at least one of two sheets tells, those that differ first.
pub fn compare(first: &FactSheet, second: &FactSheet) -> Vec<Comparison> {
    let mut out = Vec::new();
    rows(&mut out, Topic::Screws, &screws(first), &screws(second));
    rows(&mut out, Topic::Heat, &heats(first), &heats(second));
    rows(&mut out, Topic::Setting, &settings(first), &settings(second));
    rows(&mut out, Topic::Connector, &connectors(first), &connectors(second));
    rows(&mut out, Topic::Order, &order(first, second), &order(second, first));
    out.sort_by(|a, b| (a.same, a.topic, &a.what).cmp(&(b.same, b.topic, &b.what)));
    out
}

/// What a sheet says of a thing, and when.
type Told = Vec<(String, String, u64)>;

fn rows(out: &mut Vec<Comparison>, topic: Topic, first: &Told, second: &Told) {
    let mut taken: BTreeSet<usize> = BTreeSet::new();
    for (what, says, at) in first {
        let twin = second.iter().enumerate().find(|(n, (w, ..))| !taken.contains(n) && same_name(w, what));
        let (other, at_other) = match twin {
            Some((n, (_, says, at))) => {
                taken.insert(n);
                (Some(says.clone()), Some(*at))
            }
            None => (None, None),
        };
        out.push(Comparison {
            topic,
            what: what.clone(),
            same: other.as_ref() == Some(says),
            first: Some(says.clone()),
            second: other,
            first_s: Some(*at),
            second_s: at_other,
        });
    }
    let rest = second.iter().enumerate().filter(|(n, _)| !taken.contains(n));
    out.extend(rest.map(|(_, (what, says, at))| Comparison {
        topic,
        what: what.clone(),
        first: None,
        second: Some(says.clone()),
        first_s: None,
        second_s: Some(*at),
        same: false,
    }));
}

/// One name holds the other: "cover" and "rear cover".
fn same_name(a: &str, b: &str) -> bool {
    let (x, y): (BTreeSet<&str>, BTreeSet<&str>) = (a.split(' ').collect(), b.split(' ').collect());
    x.is_subset(&y) || y.is_subset(&x)
}

/// Screws that come out, by what they hold.
fn screws(sheet: &FactSheet) -> Told {
    let out = |f: &&At<FastenerFact>| matches!(f.fact.op, FastenerOp::Remove | FastenerOp::Loosen);
    let mut told: Vec<(String, Vec<String>, u64)> = Vec::new();
    for f in sheet.fasteners.iter().filter(out) {
        let what = f.fact.what.clone().unwrap_or_else(|| "an unnamed part".to_owned());
        match told.iter_mut().find(|(w, ..)| *w == what) {
            Some((_, groups, _)) => groups.push(group(&f.fact)),
            None => told.push((what, vec![group(&f.fact)], f.at_s)),
        }
    }
    told.into_iter()
        .map(|(what, mut groups, at)| {
            groups.sort();
            (what, groups.join(" + "), at)
        })
        .collect()
}

fn group(f: &FastenerFact) -> String {
    let count = f.count.map_or("?".to_owned(), |n| n.to_string());
    let drive = f.bit.clone().or_else(|| f.drive.map(|d| d.name().to_owned()));
    let length = f.length.map(|l| format!("{} mm", units::number(units::in_millimetres(l))));
    [Some(count), drive, length].into_iter().flatten().collect::<Vec<_>>().join(" ")
}

fn heats(sheet: &FactSheet) -> Told {
    let span = |low: f64, high: f64, unit: &str| {
        let (low, high) = (units::number(low.round()), units::number(high.round()));
        if low == high { format!("{low} {unit}") } else { format!("{low} to {high} {unit}") }
    };
    let told = sheet.heat.iter().map(|h| {
        let f = &h.fact;
        let temperature = f.temperature.map(|t| span(units::in_celsius(t.low), units::in_celsius(t.high), "°C"));
        let dwell = f.dwell.map(|t| span(units::in_seconds(t.low), units::in_seconds(t.high), "s"));
        let source = f.source.map(|s| s.name().to_owned());
        let says = [source, temperature, dwell].into_iter().flatten().collect::<Vec<_>>().join(", ");
        (f.target.clone().unwrap_or_else(|| "an unnamed part".to_owned()), says, h.at_s)
    });
    told.collect()
}

/// Figures that stand for the device whoever tells them: torque, voltage, capacity, energy.
fn settings(sheet: &FactSheet) -> Told {
    let kept = [Quantity::Torque, Quantity::Voltage, Quantity::Capacity, Quantity::Energy];
    let told = sheet.measures.iter().filter(|m| kept.contains(&m.fact.quantity));
    let name =
        |q: Quantity| serde_json::to_value(q).ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default();
    told.map(|m| (name(m.fact.quantity), format!("{} {}", units::number(m.fact.value), m.fact.unit), m.at_s)).collect()
}

fn connectors(sheet: &FactSheet) -> Told {
    let apart = sheet.connectors.iter().filter(|c| c.fact.op == ConnectorOp::Disconnect);
    apart.filter_map(|c| Some((c.fact.what.clone()?, "disconnected".to_owned(), c.at_s))).collect()
}

/// The part that leaves right before, among those that both tell.
fn order(sheet: &FactSheet, other: &FactSheet) -> Told {
    let leaves = |sheet: &FactSheet| -> Vec<(String, u64)> {
        let out = sheet.parts.iter().filter(|p| p.fact.op == PartOp::Remove);
        out.map(|p| (p.fact.what.clone(), p.at_s)).collect()
    };
    let theirs = leaves(other);
    let shared: Vec<(String, u64)> =
        leaves(sheet).into_iter().filter(|(p, _)| theirs.iter().any(|(q, _)| same_name(p, q))).collect();
    shared
        .iter()
        .enumerate()
        .map(|(i, (part, at))| {
            let says = match i.checked_sub(1) {
                None => "first".to_owned(),
                Some(before) => format!("after the {}", head(&shared[before].0)),
            };
            (part.clone(), says, *at)
        })
        .collect()
}

fn head(part: &str) -> &str {
    part.rsplit(' ').next().unwrap_or(part)
}

#[cfg(test)]
mod tests {
    use super::super::read;
    use super::*;
    use crate::recording::Recording;

    fn sheet(text: &str) -> FactSheet {
        read(&Recording::parse(text.as_bytes()).unwrap()).sheet
    }

    fn differing(a: &str, b: &str) -> Vec<(Topic, String, Option<String>, Option<String>)> {
        let rows = compare(&sheet(a), &sheet(b)).into_iter().filter(|r| !r.same);
        rows.map(|r| (r.topic, r.what, r.first, r.second)).collect()
    }

    #[test]
    fn counts_and_lengths_are_compared_by_what_they_hold() {
        let found = differing(
            "[0:00] Remove four PH0 screws, 6 mm, from the rear cover. Take off the rear cover.",
            "[0:00] Remove five PH0 screws, 6 mm, from the cover. Take off the cover.",
        );
        assert_eq!(
            found,
            [(Topic::Screws, "rear cover".to_owned(), Some("4 PH0 6 mm".to_owned()), Some("5 PH0 6 mm".to_owned()))]
        );
    }

    #[test]
    fn another_order_is_a_difference_and_another_pace_is_none() {
        let a = "[0:00] Remove the lid. Remove the fan. Remove the pump.";
        assert_eq!(differing(a, "[9:00] Remove the lid.\n\n[12:00] Remove the fan.\n\n[30:00] Remove the pump."), []);
        let turned = differing(a, "[0:00] Remove the lid. Remove the pump. Remove the fan.");
        assert!(turned.iter().all(|(t, ..)| *t == Topic::Order) && turned.len() == 2, "{turned:?}");
    }

    #[test]
    fn what_only_one_tells_is_a_row() {
        let found = differing("[0:00] Unplug the fan cable. Remove the lid.", "[0:00] Remove the lid.");
        assert_eq!(found, [(Topic::Connector, "fan".to_owned(), Some("disconnected".to_owned()), None)]);
    }
}
