//! `paso read` and `paso draft`: what a recording says, without a database.

use paso_core::ids::{ManualId, RecordingId};
use paso_core::labels::Label;
use paso_core::manual::{self, Evidence, Manual, RecordingRef, Source};
use paso_core::publish;
use paso_core::reading::{self, Reading};
use paso_core::rebuild::{self, RebuildStep};
use paso_core::recording::Recording;
use paso_core::units;
use serde_json::{Value, json};
use std::path::Path;
use uuid::Uuid;

/// Reads a file and gives its fact sheet as JSON.
///
/// # Errors
/// A sentence that names the file and what is wrong with it.
pub fn facts(path: &Path) -> Result<String, String> {
    let (_, reading) = load(path)?;
    serde_json::to_string_pretty(&reading.sheet).map_err(|e| e.to_string())
}

/// Drafts the guide that a file tells, as JSON; behind the told steps those of the rebuild that were worked out.
///
/// # Errors
/// A sentence that names the file and what is wrong with it.
pub fn draft_json(path: &Path) -> Result<String, String> {
    let recording = recording(path)?;
    let mut sheet = serde_json::to_value(reading::draft_guide(&recording)).map_err(|e| e.to_string())?;
    let manual = drafted(&recording, &reading::read(&recording));
    if let Some(steps) = sheet["steps"].as_array_mut() {
        steps.extend(rebuild::fold(&manual).rebuild.iter().filter_map(|step| worked_out(&manual, step)));
    }
    serde_json::to_string_pretty(&sheet).map_err(|e| e.to_string())
}

/// What nobody told of a step of the rebuild; `None` where all of it was told.
fn worked_out(manual: &Manual, step: &RebuildStep) -> Option<Value> {
    let told_at = step.of.and_then(|of| {
        manual.steps[&of].evidence.iter().find_map(|e| match e {
            Evidence::Recording { from_ms, .. } => *from_ms,
            _ => None,
        })
    });
    let acts: Vec<Value> = step
        .lines
        .iter()
        .filter(|line| line.told.is_none())
        .filter_map(|line| {
            let at_s = told_at.unwrap_or(0) / 1000;
            Some(json!({ "do": line.act?, "what": [], "by": null, "at_s": at_s, "confidence": 1.0, "text": line.text }))
        })
        .collect();
    let step = json!({ "phase": "together", "title": step.title, "acts": acts, "derived": true, "cautions": [] });
    (!acts.is_empty()).then_some(step)
}

/// Drafts the manual that a file tells and gives its guide as Markdown: the same that an author sees in the browser.
///
/// # Errors
/// A sentence that names the file and what is wrong with it.
pub fn draft(path: &Path) -> Result<String, String> {
    let (recording, reading) = load(path)?;
    Ok(publish::markdown(&drafted(&recording, &reading)))
}

fn drafted(recording: &Recording, reading: &Reading) -> Manual {
    let title = recording.title.clone().unwrap_or_else(|| "Draft".to_owned());
    let about =
        RecordingRef { id: RecordingId(Uuid::nil()), title: title.clone(), duration_ms: recording.duration_ms() };
    manual::draft(ManualId(Uuid::nil()), &title, "", &[Source { recording: about, reading }])
}

/// Reads a file and gives a summary for people.
///
/// # Errors
/// A sentence that names the file and what is wrong with it.
pub fn summary(path: &Path) -> Result<String, String> {
    let (recording, reading) = load(path)?;
    let mut out = String::new();
    let mut line = |text: String| {
        out.push_str(&text);
        out.push('\n');
    };
    line(recording.title.clone().unwrap_or_else(|| path.display().to_string()));
    line(format!(
        "{} segments, {}, {} statements",
        recording.cues.len(),
        if recording.timed() {
            units::duration_text(recording.duration_ms() as f64 / 1000.0)
        } else {
            "no times".to_owned()
        },
        reading.statements.len()
    ));
    for mended in &recording.mended {
        line(format!("  mended, line {}: {}", mended.line, mended.what));
    }
    let tally = reading::tally(&reading.statements);
    let kinds: Vec<String> = tally.iter().map(|(kind, n)| format!("{n} {}", kind.label().to_lowercase())).collect();
    line(kinds.join(", "));
    let sheet = &reading.sheet;
    line(match sheet.rebuild_from_s {
        Some(s) => format!("rebuild told from {}", units::clock(s * 1000)),
        None => "no rebuild told".to_owned(),
    });
    line(format!("tools: {}", sheet.tools.join(", ")));
    let consumables: Vec<&str> = sheet.consumables.iter().map(|c| c.name()).collect();
    line(format!("consumables: {}", consumables.join(", ")));
    line(String::new());
    for s in reading.statements.iter().filter(|s| s.kind.is_work()) {
        let at = s.from_ms.map_or("–".to_owned(), units::clock);
        line(format!("{at:>8}  {:<11} {}", s.kind.label().to_lowercase(), s.text));
    }
    Ok(out)
}

fn recording(path: &Path) -> Result<Recording, String> {
    let source = std::fs::read(path).map_err(|e| format!("{}: {e}", path.display()))?;
    Recording::parse(&source).map_err(|e| format!("{}: {e}", path.display()))
}

fn load(path: &Path) -> Result<(Recording, Reading), String> {
    let recording = recording(path)?;
    let reading = reading::read(&recording);
    Ok((recording, reading))
}
