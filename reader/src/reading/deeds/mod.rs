//! Deeds: what hands do, one act at a time.
//!
//! A statement is a piece of speech, and one piece may tell three acts or none. A deed is one act with its roles: what is
//! done, to what, with what, how many, how far, in which half of the work, and how sure that is. Everything that a guide
//! tells is read off the deeds, so that a mistake is mended in one place.
//!
//! A chain of small passes, each with a file of its own:
//!
//! `sentences → words → phrases → clauses → acts → (halves ↔ objects) → deeds`
//!
//! The words and constructions are data (`grammar.toml`); the passes only apply them.

mod acts;
mod clauses;
mod grammar;
mod halves;
mod objects;
mod phrases;
mod steps;
mod supplement;
mod wording;
mod words;

pub use steps::{DraftAct, DraftSheet, DraftStep, draft};
pub(super) use supplement::{supplement, turn};
pub use wording::instruction;

use super::Hints;
use super::facts::Drive;
use super::sentences::{self, Sentence};
use crate::recording::Recording;
use crate::units::Measure;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One kind of act, as fine as a guide tells it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Do {
    /// Leaves the device.
    Remove,
    Unscrew,
    /// Turned, and stays.
    Loosen,
    Disconnect,
    Desolder,
    /// A glued or clipped joint is parted.
    Pry,
    /// Latches, clips and hooks let go.
    Release,
    Peel,
    Cut,
    /// Swings or slides aside and stays on.
    Open,
    Heat,
    PowerOff,
    /// From the mains or a charger.
    Unplug,
    Discharge,
    Drain,
    Install,
    /// Screws go in.
    Drive,
    Tighten,
    Connect,
    Solder,
    Close,
    Apply,
    Press,
    /// From the old part to the new one.
    Transfer,
    Route,
    PowerOn,
    Protect,
    /// The device is turned over or stood up.
    Turn,
    Clean,
    Mark,
    Measure,
    Adjust,
    Wait,
    Test,
}

/// The half of the work that a deed belongs to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Half {
    Apart,
    Together,
    /// Tests and trials, wherever they stand.
    Check,
}

/// One act with its roles.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct Deed {
    pub act: Do,
    pub half: Half,
    /// What it is done to, by full names; empty where nothing is named.
    pub what: Vec<String>,
    /// Tool or material, by the names of the fact sheet.
    pub by: Option<String>,
    pub count: Option<u32>,
    pub drive: Option<Drive>,
    pub bit: Option<String>,
    pub length_mm: Option<f64>,
    /// Where, by preposition and thing.
    pub places: Vec<(String, String)>,
    pub manner: Vec<String>,
    pub until: Option<String>,
    pub measures: Vec<Measure>,
    /// Something new goes in.
    pub new: bool,
    /// Segment in which it is told, from 0.
    pub cue: usize,
    /// Characters of the joined text.
    pub start: usize,
    pub end: usize,
    pub confidence: f64,
    /// "We are going to": may only announce what is done later.
    pub future: bool,
    /// The rule that read it.
    pub because: &'static str,
    /// The sentence that tells it.
    pub sentence: usize,
}

/// A job that is told and not done: what has to come off before something is reached.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Need {
    pub target: String,
    pub after: Vec<String>,
    /// Characters of the joined text.
    pub start: usize,
    pub end: usize,
}

/// Reads the deeds of a recording, in the order in which they are told.
pub fn deeds(recording: &Recording) -> Vec<Deed> {
    super::read(recording).deeds
}

/// The deeds that sentences tell, and the jobs that they only speak of.
pub(super) fn tell(recording: &Recording, sentences: &[Sentence]) -> (Vec<Deed>, Vec<Need>) {
    let sentences = joined(recording, sentences);
    let mut told = Vec::new();
    let mut topic = acts::Topic::default();
    for (n, sentence) in sentences.iter().enumerate() {
        told.push(acts::read(n, &sentence.tokens, &mut topic));
    }
    let halves = halves::halves(&told);
    objects::settle(told, &halves)
}

/// Sentences over segment borders: a cut in the middle of a phrase is no end.
fn joined(recording: &Recording, sentences: &[Sentence]) -> Vec<Sentence> {
    const LONGEST: usize = 70;
    let text: Vec<char> = sentences::joined_text(recording).chars().collect();
    let punctuated = sentences::is_punctuated(recording);
    let mut out: Vec<Sentence> = Vec::new();
    for mut sentence in sentences.iter().cloned() {
        let Some(first) = sentence.tokens.first() else { continue };
        let small = text.get(first.start).is_some_and(|c| !c.is_uppercase());
        let goes_on = out.last().is_some_and(|last: &Sentence| {
            let end = last.tokens.last().expect("no sentence is empty");
            end.cue < first.cue && !end.stop && small && last.tokens.len() < LONGEST && (punctuated || cut_short(last))
        });
        match out.last_mut().filter(|_| goes_on) {
            Some(last) => last.tokens.append(&mut sentence.tokens),
            None => out.push(sentence),
        }
    }
    out
}

/// Ends in the middle of a phrase: with an article, a preposition, a bare verb.
fn cut_short(sentence: &Sentence) -> bool {
    let Some(last) = sentence.tokens.last() else { return false };
    let c = &super::lexicon::LEXICON.classes;
    c.determiner.contains(last.said.as_str())
        || c.preposition.contains(last.lemma.as_str())
        || c.conjunction.contains(last.lemma.as_str())
        || c.particle.contains(last.lemma.as_str())
        || c.adjective.contains(last.lemma.as_str())
        || grammar::GRAMMAR.base(&last.said).is_some()
}

/// How the sentences of a recording are taken apart, for people who work on the grammar.
pub fn explain(recording: &Recording) -> String {
    use std::fmt::Write;
    let mut out = String::new();
    for sentence in joined(recording, &super::repaired(recording, &Hints::default()).0) {
        let words = words::tag(&sentence.tokens);
        let line: Vec<String> =
            words.iter().map(|w| format!("{}/{:?}{}", w.said, w.tag, if w.pause { "," } else { "" })).collect();
        let _ = writeln!(out, "{}", line.join(" "));
        for c in clauses::split(&words) {
            let name = |p: &phrases::Phrase| {
                format!("{}:{:?}{}", p.text(), p.kind, p.count.map_or(String::new(), |n| format!("×{n}")))
            };
            let list = |ps: &[phrases::Phrase]| ps.iter().map(name).collect::<Vec<_>>().join("; ");
            let places: Vec<String> = c.places.iter().map(|(p, np)| format!("{p} {}", name(np))).collect();
            let _ = writeln!(
                out,
                "    {:?}{}{}{}{} {} [{}] S({}) O({}) P({})",
                c.mood,
                if c.negated { " NOT" } else { "" },
                if c.passive { " passive" } else { "" },
                if c.supposed { " supposed" } else { "" },
                if c.order { " order" } else { "" },
                c.base,
                c.particles.join(" "),
                list(&c.subjects),
                list(&c.objects),
                places.join("; ")
            );
        }
    }
    out
}
