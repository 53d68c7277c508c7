//! Why an edit is not applied, and the checks of typed text and figures that many edits share.

use super::place::Place;
use thiserror::Error;
use uuid::Uuid;

/// Why an edit was not applied. Every variant says what was wrong and what would be right.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum Refusal {
    #[error(
        "The {what} is no longer there; somebody removed it, or it belongs to another manual. Reload and try again."
    )]
    Gone { what: &'static str, id: Uuid },
    #[error("The {what} is there already. Choose another id.")]
    Exists { what: &'static str, id: Uuid },
    #[error("{field}: {problem}")]
    Invalid { field: &'static str, problem: String },
    #[error("Somebody has changed the same since: {count} place(s) differ. Look at both versions and choose.")]
    Clash { count: usize, places: Vec<Place> },
    #[error("This cannot be undone any more, because something made since needs it: {problem}. Change that first.")]
    InUse { problem: String },
}

impl Refusal {
    /// What was typed cannot be taken.
    pub(in crate::manual) fn invalid(field: &'static str, problem: impl Into<String>) -> Self {
        Self::Invalid { field, problem: problem.into() }
    }
}

/// Longest title, in characters: what still fits two lines at arm's length.
pub(in crate::manual) const MAX_TITLE: usize = 200;
/// Longest running text, in characters.
pub(in crate::manual) const MAX_TEXT: usize = 4_000;

/// Checks a text that people typed: not empty, not endless, nothing that a database or a page cannot hold.
pub(in crate::manual) fn text(field: &'static str, value: &str, longest: usize) -> Result<String, Refusal> {
    let value = value.trim();
    if value.is_empty() {
        return Err(Refusal::invalid(field, "Nothing is written here. Write at least one word."));
    }
    note(field, value, longest)
}

/// As [`text`], but may be empty.
pub(in crate::manual) fn note(field: &'static str, value: &str, longest: usize) -> Result<String, Refusal> {
    let length = value.chars().count();
    if length > longest {
        let problem = format!("The text has {length} characters; at most {longest} fit. Shorten it.");
        return Err(Refusal::invalid(field, problem));
    }
    if let Some(c) = value.chars().find(|c| c.is_control() && !matches!(c, '\n' | '\t')) {
        let problem = format!("The text holds the control character U+{:04X}. Take it out.", c as u32);
        return Err(Refusal::invalid(field, problem));
    }
    // They show another text than the one that is there (Unicode Technical Report 36).
    if let Some(c) = value.chars().find(|c| matches!(c, '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}')) {
        let problem =
            format!("The text holds U+{:04X}, which turns writing round and is not seen. Take it out.", c as u32);
        return Err(Refusal::invalid(field, problem));
    }
    Ok(value.trim().to_owned())
}

/// As [`text`], where writing nothing means that there is nothing.
pub(in crate::manual) fn maybe_text(
    field: &'static str,
    value: &Option<String>,
    longest: usize,
) -> Result<Option<String>, Refusal> {
    value.as_deref().filter(|v| !v.trim().is_empty()).map(|v| text(field, v, longest)).transpose()
}

/// A figure above 0 and not above `most`.
pub(in crate::manual) fn above_zero(field: &'static str, value: f64, most: f64, unit: &str) -> Result<f64, Refusal> {
    if value.is_finite() && value > 0.0 && value <= most {
        return Ok(value);
    }
    let value = crate::units::number(value);
    Err(Refusal::invalid(
        field,
        format!("{value} {unit} is out of range; write more than 0 and at most {most} {unit}."),
    ))
}

/// A figure between two others, both included.
pub(in crate::manual) fn within(
    field: &'static str,
    value: f64,
    [low, high]: [f64; 2],
    unit: &str,
) -> Result<f64, Refusal> {
    if value.is_finite() && (low..=high).contains(&value) {
        return Ok(value);
    }
    Err(Refusal::invalid(field, format!("{value} {unit} is out of range; write {low} to {high} {unit}.")))
}

/// A range whose ends lie between two figures, the lower one first.
pub(in crate::manual) fn range(
    field: &'static str,
    [a, b]: [f64; 2],
    ends: [f64; 2],
    unit: &str,
) -> Result<[f64; 2], Refusal> {
    let range = [within(field, a, ends, unit)?, within(field, b, ends, unit)?];
    if a > b {
        let problem = format!("The range runs from {a} down to {b} {unit}; write the lower figure first.");
        return Err(Refusal::invalid(field, problem));
    }
    Ok(range)
}
