//! One act while it is being settled.

use super::super::super::Act;
use super::super::Half;
use super::super::phrases::Phrase;
use super::super::told::{Sentenced, Told};
use crate::units::Quantity;

/// An act as told, with what was found out about it so far.
#[derive(Debug)]
pub(super) struct Case<'a> {
    pub s: &'a Sentenced,
    pub a: &'a Told,
    pub act: Act,
    pub because: &'static str,
    /// The half in which it is told; `half` differs for trials.
    pub told_half: Half,
    pub half: Half,
    /// What it is done to, by name.
    pub what: Vec<String>,
}

impl Case<'_> {
    /// Nothing is named, and nothing was in work.
    pub fn bare(&self) -> bool {
        self.what.is_empty()
    }

    pub fn apart(&self) -> bool {
        self.half == Half::Apart
    }

    pub fn together(&self) -> bool {
        self.half == Half::Together
    }

    pub fn screws(&self) -> bool {
        self.act.turns_screws()
    }

    pub fn measured(&self, quantity: Quantity) -> bool {
        self.a.measures.iter().any(|m| m.quantity == quantity)
    }

    pub fn with_particle(&self, particles: &[&str]) -> bool {
        self.a.particles.iter().any(|p| particles.contains(&p.as_str()))
    }

    /// Whether the sentence says so.
    pub fn says(&self, words: &str) -> bool {
        self.s.said.contains(words)
    }

    /// "The washers come off, they stop the knob from rubbing. Turn it on its face.": nobody lays a knob on its face.
    pub fn lies_on_its_face(&self) -> bool {
        self.because == "turned on its face" && self.a.objects.iter().all(|o| o.stands && is_turned(o))
    }

    /// Only "it", "that" or a thing that stands for it; also where nothing is named.
    pub fn points(&self) -> bool {
        self.a.objects.iter().all(points)
    }
}

/// What turns where it is.
pub(super) fn is_turned(o: &Phrase) -> bool {
    matches!(o.head(), "shaft" | "knob" | "dial" | "wheel" | "spindle" | "axle")
}

pub(super) fn points(o: &Phrase) -> bool {
    o.is_pronoun() || o.stands
}
