//! Old files in, today's manual out.
//!
//! Every format version that was ever written has a fixture in the tests and, once it is old, a function here that
//! turns its JSON into the next version's. A file from a newer program is refused by name instead of read wrongly.

use crate::manual::{FORMAT, Manual};
use serde_json::Value;
use thiserror::Error;

/// Why a JSON document is no manual.
#[derive(Debug, Error)]
pub enum UpcastError {
    #[error("The file is not JSON: {0}. Bring a manual that was saved as JSON.")]
    NotJson(String),
    #[error("The file has no “format” number, so it is no manual. Bring a manual that was saved as JSON.")]
    NoFormat,
    #[error("The manual has format {found}; this program reads formats 1 to {FORMAT}. Open it with a newer version.")]
    TooNew { found: u64 },
    #[error("The manual does not fit its format: {0}.")]
    Shape(String),
    #[error("The manual contradicts itself: {0}.")]
    Broken(String),
}

/// One step up: from the version of its place (from 1) to the next.
const UPCASTERS: [fn(Value) -> Value; FORMAT as usize - 1] = [];

/// Reads a manual of any known format.
///
/// # Errors
/// A sentence that says what does not fit.
pub fn from_json(text: &str) -> Result<Manual, UpcastError> {
    let mut value: Value = serde_json::from_str(text).map_err(|e| UpcastError::NotJson(e.to_string()))?;
    let found = value.get("format").and_then(Value::as_u64).ok_or(UpcastError::NoFormat)?;
    if found == 0 || found > u64::from(FORMAT) {
        return Err(UpcastError::TooNew { found });
    }
    for up in UPCASTERS.iter().skip(found as usize - 1) {
        value = up(value);
    }
    let manual: Manual = serde_json::from_value(value).map_err(|e| UpcastError::Shape(e.to_string()))?;
    check(&manual)?;
    Ok(manual)
}

/// What the types cannot say: every reference leads somewhere.
fn check(manual: &Manual) -> Result<(), UpcastError> {
    let broken = |what: String| Err(UpcastError::Broken(what));
    let has_part = |id| manual.parts.contains_key(&id);
    for step in manual.steps.values() {
        if fractional_index::FractionalIndex::from_string(&step.rank).is_err() {
            return broken(format!("the step “{}” has the rank “{}”, which sorts nowhere", step.title, step.rank));
        }
        if let Some(part) = step.actions.iter().flat_map(|a| &a.parts).find(|p| !has_part(**p)) {
            return broken(format!("the step “{}” speaks of a part {part} that is not listed", step.title));
        }
    }
    let steps = manual
        .fasteners
        .values()
        .map(|g| (g.step, "group of screws"))
        .chain(manual.connectors.values().map(|c| (c.step, "connector")))
        .chain(manual.seams.values().map(|s| (s.step, "seam")))
        .chain(manual.heats.values().map(|h| (h.step, "heat setting")))
        .chain(manual.cautions.values().map(|c| (c.step, "caution")));
    for (step, what) in steps {
        if !manual.steps.contains_key(&step) {
            return broken(format!("a {what} belongs to the step {step}, which is not listed"));
        }
    }
    let parts = manual
        .fasteners
        .values()
        .flat_map(|g| g.holds.iter().copied())
        .chain(manual.connectors.values().filter_map(|c| c.serves));
    let parts = parts.chain(manual.fasteners.values().filter_map(|g| g.waits_for));
    if let Some(group) = manual.fasteners.values().find(|g| g.layer.is_some_and(|l| !manual.layers.contains_key(&l))) {
        return broken(format!("the group of screws {} has holes on a layer that is not listed", group.id));
    }
    match parts.into_iter().find(|p| !has_part(*p)) {
        Some(part) => broken(format!("screws or a connector refer to a part {part} that is not listed")),
        None => check_beside(manual),
    }
}

/// What stands beside the steps leads somewhere as well, and nothing leads back to itself.
fn check_beside(manual: &Manual) -> Result<(), UpcastError> {
    let broken = |what: String| Err(UpcastError::Broken(what));
    if let Some(note) = manual.notes.values().find(|n| n.job.is_some_and(|j| !manual.jobs.contains_key(&j))) {
        return broken(format!("the note “{}” belongs to a guide that is not listed", note.text));
    }
    if let Some(job) = manual.jobs.values().find(|j| manual.check_calls(j.id, &j.calls).is_err()) {
        return broken(format!("the guide “{}” calls one that is not listed, or itself", job.title));
    }
    let variants = manual.steps.values().flat_map(|s| &s.variants);
    let variants = variants.chain(manual.parts.values().flat_map(|p| &p.variants));
    let mut variants = variants.chain(manual.fasteners.values().flat_map(|g| &g.variants));
    if let Some(gone) = variants.find(|v| !manual.variants.contains_key(v)) {
        return broken(format!("something holds for a variant {gone} that is not listed"));
    }
    for part in manual.parts.values() {
        // More steps outwards than there are parts: they sit inside each other in a ring.
        let outwards = std::iter::successors(part.inside, |p| manual.parts.get(p).and_then(|p| p.inside));
        if outwards.take(manual.parts.len() + 1).count() > manual.parts.len() {
            return broken(format!("the part “{}” sits inside itself", part.name));
        }
    }
    Ok(())
}
