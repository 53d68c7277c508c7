//! Facts against answers, one to one, and stricter than counting them: bits, units, what a group of screws holds and what
//! is heated must agree as well.

use paso_reader::reading::FactSheet;
use serde_json::Value;
use std::collections::{BTreeMap, BTreeSet};
use std::path::Path;

pub const FIELDS: [&str; 12] = [
    "fasteners",
    "connectors",
    "parts",
    "heat",
    "cautions",
    "measures",
    "needs",
    "discrepancies",
    "tools",
    "consumables",
    "idle_segments",
    "rebuild_from_s",
];

/// How many facts were found, missed, and said without being there.
#[derive(Debug, Default, Clone)]
pub struct Tally {
    pub hit: u32,
    pub missed: u32,
    pub wrong: u32,
}

impl Tally {
    pub fn f1(&self) -> f64 {
        let all = 2 * self.hit + self.missed + self.wrong;
        if all == 0 { 1.0 } else { f64::from(2 * self.hit) / f64::from(all) }
    }
}

/// The answers to one narration.
pub struct Gold(Value);

impl Gold {
    pub fn load(file: &Path) -> Self {
        let text = std::fs::read_to_string(file).expect("the answers to a narration");
        Self(serde_json::from_str(&text).unwrap_or_else(|e| panic!("{}: {e}", file.display())))
    }

    pub fn compare(&self, sheet: &FactSheet, tallies: &mut BTreeMap<&'static str, Tally>) {
        let mine = serde_json::to_value(sheet).expect("plain data");
        for field in FIELDS {
            let tally = tallies.get_mut(field).expect("every field has a tally");
            let (gold, said) = (&self.0[field], &mine[field]);
            match field {
                "rebuild_from_s" => turn(tally, gold, said),
                "tools" | "consumables" | "idle_segments" => names(tally, gold, said),
                _ => facts(tally, field, gold, said),
            }
        }
    }
}

/// Seconds by which a fact may stand off: one segment, or several where it spans them.
fn reach(field: &str) -> f64 {
    if matches!(field, "needs" | "discrepancies") { 75.0 } else { 25.0 }
}

fn turn(tally: &mut Tally, gold: &Value, said: &Value) {
    let near = match (gold.as_f64(), said.as_f64()) {
        (Some(a), Some(b)) => (a - b).abs() <= 50.0,
        (a, b) => a == b,
    };
    tally.hit += u32::from(near);
    tally.missed += u32::from(!near);
    tally.wrong += u32::from(!near);
}

fn names(tally: &mut Tally, gold: &Value, said: &Value) {
    let name = |v: &Value| match v {
        Value::Object(o) => o.get("name").or(o.get("at_s")).map_or(String::new(), Value::to_string),
        v => v.to_string(),
    };
    let optional = |v: &&Value| v["optional"] == true;
    let rows = |v: &Value| v.as_array().cloned().unwrap_or_default();
    let all = rows(gold);
    let must: BTreeSet<String> = all.iter().filter(|v| !optional(v)).map(name).collect();
    let may: BTreeSet<String> = all.iter().filter(optional).map(name).collect();
    let got: BTreeSet<String> = rows(said).iter().map(name).collect();
    tally.hit += must.intersection(&got).count() as u32;
    tally.missed += must.difference(&got).count() as u32;
    tally.wrong += got.iter().filter(|g| !must.contains(*g) && !may.contains(*g)).count() as u32;
}

fn facts(tally: &mut Tally, field: &str, gold: &Value, said: &Value) {
    let rows = |v: &Value| v.as_array().cloned().unwrap_or_default();
    let (gold, said) = (rows(gold), rows(said));
    let mut pairs: Vec<(f64, usize, usize)> = Vec::new();
    for (i, g) in gold.iter().enumerate() {
        for (j, s) in said.iter().enumerate() {
            let off = (g["at_s"].as_f64().unwrap_or(0.0) - s["at_s"].as_f64().unwrap_or(0.0)).abs();
            if off <= reach(field) && agrees(field, g, s) {
                pairs.push((off, i, j));
            }
        }
    }
    pairs.sort_by(|a, b| a.partial_cmp(b).expect("times are numbers"));
    let (mut matched, mut used) = (BTreeSet::new(), BTreeSet::new());
    for (_, i, j) in pairs {
        if !matched.contains(&i) && !used.contains(&j) {
            matched.insert(i);
            used.insert(j);
        }
    }
    for (i, _) in gold.iter().enumerate().filter(|(_, g)| g["optional"] != true) {
        if matched.contains(&i) { tally.hit += 1 } else { tally.missed += 1 }
    }
    tally.wrong += (said.len() - used.len()) as u32;
}

/// Whether a fact is the one of the answer, in everything that the answer states.
fn agrees(field: &str, gold: &Value, said: &Value) -> bool {
    let stated = |name: &str| gold.get(name).is_none_or(|g| g.is_null() || equal(g, &said[name]));
    let named = |name: &str| gold.get(name).is_none_or(|g| g.is_null() || same_thing(g, &said[name]));
    match field {
        "fasteners" => {
            direction(gold) == direction(said)
                && stated("count")
                && stated("drive")
                && stated("bit")
                && stated("length_mm")
                && stated("captive")
                && named("what")
        }
        "connectors" | "parts" => direction(gold) == direction(said) && named("what"),
        "heat" => stated("source") && stated("temp_c") && stated("dwell_s") && named("target"),
        "cautions" => gold["about"] == said["about"],
        "measures" => gold["quantity"] == said["quantity"] && stated("value") && stated("to") && stated("unit"),
        "needs" => named("target") && same_list(&gold["after"], &said["after"]),
        _ => gold["kind"] == said["kind"],
    }
}

fn direction(v: &Value) -> &'static str {
    match v["op"].as_str() {
        Some("remove" | "loosen" | "disconnect") => "out",
        Some("install" | "tighten" | "connect") => "in",
        _ => "",
    }
}

/// Figures agree within two per cent; pairs figure by figure.
fn equal(a: &Value, b: &Value) -> bool {
    match (a, b) {
        (Value::Array(a), Value::Array(b)) => a.len() == b.len() && a.iter().zip(b).all(|(a, b)| equal(a, b)),
        _ => match (a.as_f64(), b.as_f64()) {
            (Some(a), Some(b)) => (a - b).abs() <= 0.02 * a.abs().max(1.0),
            _ => a == b,
        },
    }
}

/// Most of the words of the shorter name are in the longer; what one thing is called differs from school to school.
fn same_thing(a: &Value, b: &Value) -> bool {
    let (a, b) = (words(a), words(b));
    if a.is_empty() || b.is_empty() {
        return a.is_empty() && b.is_empty();
    }
    2 * a.intersection(&b).count() >= a.len().min(b.len())
}

fn same_list(gold: &Value, said: &Value) -> bool {
    let rows = |v: &Value| v.as_array().cloned().unwrap_or_default();
    let (gold, said) = (rows(gold), rows(said));
    let holds = |list: &[Value], one: &Value| list.iter().any(|x| same_thing(x, one));
    let found = gold.iter().filter(|g| holds(&said, g)).count();
    let kept = said.iter().filter(|s| holds(&gold, s)).count();
    gold.is_empty() && said.is_empty() || (found * 10 >= gold.len() * 6 && kept * 10 >= said.len() * 6 && found > 0)
}

fn words(v: &Value) -> BTreeSet<String> {
    const ONE: [&[&str]; 7] = [
        &["screen", "display", "panel", "lcd"],
        &["board", "mainboard", "motherboard"],
        &["rear", "back"],
        &["cover", "plate", "lid", "shell", "door"],
        &["housing", "case", "body"],
        &["cable", "flex", "ribbon", "wire", "lead"],
        &["antenna", "aerial"],
    ];
    const PASSED: [&str; 12] =
        ["the", "a", "of", "main", "left", "right", "upper", "lower", "top", "bottom", "small", "new"];
    let text = v.as_str().unwrap_or_default().to_lowercase();
    text.split(|c: char| !c.is_alphanumeric())
        .filter(|w| !w.is_empty() && !PASSED.contains(w))
        .map(|w| w.strip_suffix('s').filter(|s| s.len() > 2 && !s.ends_with('s')).unwrap_or(w))
        .map(|w| ONE.iter().find(|g| g.contains(&w)).map_or(w, |g| g[0]).to_owned())
        .collect()
}
