//! What the front end takes from the core besides types: words for people, the list of stops, the shapes of screws.
//!
//! Written as a TypeScript module by `scripts/client`, beside the client that is generated from the OpenAPI document; a
//! test fails when it is stale. The browser makes none of this up.

use paso_core::cautions::signs::{Sign, drawn};
use paso_core::fasteners::glyphs::{Mark, Paint, recess};
use paso_core::fasteners::kinds::Shape;
use paso_core::finding::Stop;
use paso_core::labels::{Label, Table};
use paso_core::reading::Drive;
use paso_core::words;
use serde_json::{Map, Value, json};
use std::fmt::Write as _;

/// The module, ready to be written to `web/src/api/tables.ts`.
pub fn tables() -> String {
    let mut out = String::from(
        "// Written by scripts/client from the tables of the core; edit those.\n\
         import type { components } from \"./schema\";\n\n\
         type Schemas = components[\"schemas\"];\n\n",
    );
    let all = words::tables();
    section(&mut out, "Words for people, by the value's name.", "labels", &all, |row| Some(row.label.to_owned()));
    section(&mut out, "Keys and letters that stand for a value.", "keys", &with_keys(&all), |row| {
        row.key.map(str::to_owned)
    });
    let stops: Vec<Value> =
        Stop::ALL.iter().map(|s| json!({ "stop": s.wire(), "name": s.label(), "later": s.to_come() })).collect();
    constant(
        &mut out,
        "The stops in the order of the work; `later` says what one will be for that is not built yet.",
        "stops",
        "readonly { stop: Schemas[\"Stop\"]; name: string; later: string | null }[]",
        &Value::Array(stops),
    );
    let built: Vec<String> = Stop::built().map(|s| json!(s.wire()).to_string()).collect();
    let _ = writeln!(out, "/** Stops that can be gone to. */\nexport type BuiltStop = {};\n", built.join(" | "));
    let outlines: Map<String, Value> = Shape::ALL.iter().map(|s| (name(s), json!(s.outline()))).collect();
    constant(
        &mut out,
        "Outlines of tags as path data, about as large as a circle of radius 1.",
        "outlines",
        "Record<Schemas[\"Shape\"], string>",
        &Value::Object(outlines),
    );
    out.push_str(
        "/** How a mark is painted: filled with ink or with paper, or a line so wide. */\n\
         export type Mark = { path: string; paint: \"ink\" | \"paper\" | number };\n",
    );
    let mut recesses: Map<String, Value> = Drive::ALL.iter().map(|d| (d.wire(), marks(&recess(Some(*d))))).collect();
    recesses.insert("unknown".to_owned(), marks(&recess(None)));
    constant(
        &mut out,
        "Recesses of drives, inside a head of radius 1.",
        "recesses",
        "Record<Schemas[\"Drive\"] | \"unknown\", Mark[]>",
        &Value::Object(recesses),
    );
    let signs: Map<String, Value> = Sign::ALL.iter().map(|s| (s.wire(), json!(drawn(*s)))).collect();
    constant(
        &mut out,
        "Safety signs, drawn in a box of 24 × 24.",
        "signs",
        "Record<Schemas[\"Sign\"], { name: string; number: string; duty: boolean; frame: string; lines: string; fills: string }>",
        &Value::Object(signs),
    );
    out.truncate(out.trim_end().len());
    out.push('\n');
    out
}

fn name(value: &impl serde::Serialize) -> String {
    match serde_json::to_value(value) {
        Ok(Value::String(name)) => name,
        other => panic!("no plain enum: {other:?}"),
    }
}

fn with_keys(all: &[Table]) -> Vec<Table> {
    all.iter().filter(|t| t.rows.iter().all(|r| r.key.is_some())).cloned().collect()
}

fn section(
    out: &mut String,
    doc: &str,
    constant: &str,
    tables: &[Table],
    cell: impl Fn(&paso_core::labels::Row) -> Option<String>,
) {
    // Writing into a string cannot fail.
    let _ = writeln!(out, "/** {doc} */\nexport const {constant} = {{");
    for table in tables {
        let _ = writeln!(out, "  {}: {{", table.of);
        for row in &table.rows {
            if let Some(cell) = cell(row) {
                let _ = writeln!(out, "    {}: {},", json!(row.name), json!(cell));
            }
        }
        let _ = writeln!(out, "  }} satisfies Record<Schemas[\"{}\"], string>,", table.of);
    }
    out.push_str("};\n\n");
}

fn constant(out: &mut String, doc: &str, name: &str, of: &str, value: &Value) {
    let value = serde_json::to_string_pretty(value).expect("plain data");
    let _ = writeln!(out, "/** {doc} */\nexport const {name}: {of} = {value};\n");
}

fn marks(marks: &[Mark]) -> Value {
    let paint = |paint| match paint {
        Paint::Ink => json!("ink"),
        Paint::Paper => json!("paper"),
        Paint::Line(width) => json!(width),
    };
    marks.iter().map(|m| json!({ "path": m.path, "paint": paint(m.paint) })).collect()
}
