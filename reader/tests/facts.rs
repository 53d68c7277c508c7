//! Facts of a sentence or two, as somebody with a pencil would note them.
//!
//! A file under `facts/` holds small narrations, one a paragraph and one segment a line. Under each stands what its fact
//! sheet must hold in one field: `= field: fact; fact`. Where the reader does not yet hear that, `?` stands for `=`: the
//! paragraph is counted as missed, and the test fails as soon as it is heard, so that the mark is taken off.

mod marked;

use paso_reader::reading::{FactSheet, read};
use paso_reader::recording::Recording;
use rstest::rstest;
use serde_json::Value;
use std::fmt::Write;

struct Told<'a> {
    said: Vec<&'a str>,
    field: &'a str,
    facts: Vec<&'a str>,
    missed: bool,
}

fn paragraphs(file: &str) -> Vec<Told<'_>> {
    let blocks = file.split("\n\n").map(str::trim).filter(|b| !b.is_empty() && !b.starts_with("# "));
    blocks
        .map(|block| {
            let (said, answer) = block.rsplit_once('\n').expect("speech and its answer");
            let missed = answer.starts_with('?');
            let (field, facts) = answer.trim_start_matches(['=', '?']).split_once(':').expect("a field");
            let mut facts: Vec<&str> = facts.split(';').map(str::trim).filter(|f| !f.is_empty()).collect();
            facts.sort_unstable();
            Told { said: said.lines().collect(), field: field.trim(), facts, missed }
        })
        .collect()
}

fn sheet(said: &[&str]) -> FactSheet {
    let mut text = String::new();
    for (n, line) in said.iter().enumerate() {
        let _ = write!(text, "[00:{:02}] {line}\n\n", n * 10);
    }
    read(&Recording::parse(text.as_bytes()).expect("a transcript")).sheet
}

/// `10 s`, `70–80 °C`.
fn span(low: &Value, high: &Value, unit: &str) -> Option<String> {
    let figure = |v: &Value| v.as_f64().map(|f| format!("{}", (f * 100.0).round() / 100.0));
    let low = figure(low)?;
    let high = figure(high).filter(|h| *h != low).map_or(String::new(), |h| format!("–{h}"));
    Some(format!("{low}{high} {unit}"))
}

fn range(v: &Value, unit: &str) -> Option<String> {
    span(v.get(0)?, v.get(1)?, unit)
}

/// One entry of the sheet as it is written in the files.
fn fact(field: &str, v: &Value) -> String {
    let text = |key: &str| v[key].as_str().map(str::to_owned);
    let named = |words: Vec<Option<String>>| words.into_iter().flatten().collect::<Vec<_>>().join(" ");
    match field {
        "fasteners" => {
            let head = named(vec![
                text("op"),
                v["count"].as_u64().map(|c| c.to_string()),
                text("drive"),
                text("bit"),
                span(&v["length_mm"], &Value::Null, "mm"),
                v["captive"].as_bool().filter(|c| *c).map(|_| "captive".to_owned()),
            ]);
            text("what").map_or(head.clone(), |what| format!("{head}: {what}"))
        }
        "connectors" | "parts" => named(vec![text("op"), text("what").or(Some("–".to_owned()))]),
        "heat" => {
            let how = vec![text("target"), range(&v["temp_c"], "°C"), range(&v["dwell_s"], "s")];
            let source = text("source").unwrap_or_else(|| "–".to_owned());
            format!("{source}: {}", named(how))
        }
        "measures" => {
            let quantity = text("quantity").unwrap_or_default();
            let unit = match v["unit"].as_str().unwrap_or_default() {
                "degC" => "°C",
                unit => unit,
            };
            format!("{quantity} {}", span(&v["value"], &v["to"], unit).unwrap_or_default())
        }
        // `lamp < front panel + bulb`: the lamp, when these are off.
        "needs" => {
            let after: Vec<&str> = v["after"].as_array().into_iter().flatten().filter_map(Value::as_str).collect();
            format!("{} < {}", text("target").unwrap_or_default(), after.join(" + ")).trim_end().to_owned()
        }
        "cautions" => text("about").unwrap_or_default(),
        "discrepancies" => text("kind").unwrap_or_default(),
        _ => v.as_str().map_or_else(|| v.to_string(), str::to_owned),
    }
}

fn heard(told: &Told) -> Vec<String> {
    let sheet = serde_json::to_value(sheet(&told.said)).expect("plain data");
    let mut out: Vec<String> =
        sheet[told.field].as_array().expect("a field of the sheet").iter().map(|v| fact(told.field, v)).collect();
    out.sort_unstable();
    out
}

#[rstest]
#[case::screws(include_str!("facts/screws.txt"), 11)]
#[case::needs(include_str!("facts/needs.txt"), 3)]
#[case::plugs_again(include_str!("facts/plugs-again.txt"), 9)]
#[case::screws_again(include_str!("facts/screws-again.txt"), 11)]
#[case::figures(include_str!("facts/figures.txt"), 1)]
#[case::warmth(include_str!("facts/warmth.txt"), 3)]
#[case::cables(include_str!("facts/cables.txt"), 22)]
#[case::bolts(include_str!("facts/bolts.txt"), 12)]
#[case::pieces(include_str!("facts/pieces.txt"), 10)]
#[case::mind(include_str!("facts/mind.txt"), 7)]
#[case::sockets(include_str!("facts/sockets.txt"), 7)]
#[case::plugs(include_str!("facts/plugs.txt"), 1)]
#[case::cautions(include_str!("facts/cautions.txt"), 0)]
#[case::warned_again(include_str!("facts/warned-again.txt"), 7)]
#[case::warned_third(include_str!("facts/warned-third.txt"), 18)]
#[case::parts(include_str!("facts/parts.txt"), 3)]
#[case::talk(include_str!("facts/talk.txt"), 1)]
#[case::clash(include_str!("facts/clash.txt"), 4)]
#[case::kit(include_str!("facts/kit.txt"), 1)]
fn every_fact_is_noted(#[case] file: &str, #[case] missed: usize) {
    let paragraphs = paragraphs(file);
    let mut wrong = String::new();
    for told in &paragraphs {
        let (said, right, heard) = (told.said.join(" / "), told.facts.join("; "), heard(told).join("; "));
        wrong += &marked::wrong(&said, told.missed, &right, &heard);
    }
    assert!(wrong.is_empty(), "{wrong}");
    assert_eq!(paragraphs.iter().filter(|p| p.missed).count(), missed, "paragraphs that are not heard yet");
}
