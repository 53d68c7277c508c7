//! Drafted acts against act lists made by hand, over narrations in the way people really speak.
//!
//! An act is found where half, act, segment (or the next) and the head of what it is done to agree; some acts that are told
//! much alike count half. Acts marked optional are right to tell and no fault to leave out.

use paso_reader::reading::{Act, Half, draft_guide};
use paso_reader::recording::Recording;
use serde::Deserialize;
use std::collections::BTreeSet;
use std::path::Path;

#[derive(Deserialize)]
struct Answer {
    acts: Vec<Judged>,
}

#[derive(Debug, Clone, Deserialize)]
struct Judged {
    at_s: u64,
    phase: Half,
    #[serde(rename = "do")]
    act: Act,
    what: Option<String>,
    #[serde(default)]
    optional: bool,
}

/// Acts found, asked for, and said.
#[derive(Debug, Default, Clone, Copy)]
pub struct ActTally {
    found: f64,
    asked: f64,
    right: f64,
    said: f64,
    ordered: f64,
    pairs: f64,
}

impl ActTally {
    pub fn f1(&self) -> f64 {
        let (recall, precision) = (self.found / self.asked, self.right / self.said);
        2.0 * recall * precision / (recall + precision)
    }

    /// Share of neighbouring found acts that stand in the order of the answer.
    pub fn order(&self) -> f64 {
        self.ordered / self.pairs
    }
}

/// Compares the draft of one recording with its answer.
pub fn compare(file: &Path, recording: &Recording, tally: &mut ActTally) {
    let text = std::fs::read_to_string(file.with_extension("acts.json")).expect("the acts of a narration");
    let gold: Answer = serde_json::from_str(&text).unwrap_or_else(|e| panic!("{}: {e}", file.display()));
    let gold = gold.acts;
    let said = said(recording);
    let segment = |at: u64| recording.cues.iter().filter(|c| c.start.is_some_and(|s| s / 1000 <= at)).count();
    let mut pairs: Vec<(u32, bool, usize, usize, usize, usize)> = Vec::new();
    for (i, g) in gold.iter().enumerate() {
        for (j, s) in said.iter().enumerate() {
            let tests = g.act == Act::Test && s.act == Act::Test;
            let away = segment(g.at_s).abs_diff(segment(s.at_s));
            let quality = alike(g.act, s.act);
            if (g.phase == s.phase || tests) && quality > 0 && away <= 1 && same_thing(g, s, away) {
                pairs.push((2 - quality, g.optional, away, i.abs_diff(j), i, j));
            }
        }
    }
    pairs.sort_unstable();
    let (mut taken, mut used) = (BTreeSet::new(), BTreeSet::new());
    let mut matched: Vec<(usize, usize, f64)> = Vec::new();
    for (lack, _, _, _, i, j) in pairs {
        if !taken.contains(&i) && !used.contains(&j) {
            taken.insert(i);
            used.insert(j);
            matched.push((i, j, f64::from(2 - lack) / 2.0));
        }
    }
    matched.sort_by_key(|m| m.0);
    let must = matched.iter().filter(|m| !gold[m.0].optional);
    let found: f64 = must.map(|m| m.2).sum();
    let optional = matched.iter().filter(|m| gold[m.0].optional).count();
    tally.found += found;
    tally.right += found;
    tally.asked += gold.iter().filter(|g| !g.optional).count() as f64;
    tally.said += (said.len() - optional) as f64;
    tally.pairs += matched.len().saturating_sub(1) as f64;
    tally.ordered += matched.windows(2).filter(|w| w[0].1 <= w[1].1).count() as f64;
}

/// What the draft says, object by object.
fn said(recording: &Recording) -> Vec<Judged> {
    let mut out = Vec::new();
    for step in draft_guide(recording).steps {
        for act in step.acts {
            let things: Vec<Option<String>> =
                if act.what.is_empty() { vec![None] } else { act.what.into_iter().map(Some).collect() };
            out.extend(things.into_iter().map(|what| Judged {
                at_s: act.at_s,
                phase: step.half,
                act: act.act,
                what,
                optional: false,
            }));
        }
    }
    out
}

/// Two for the same act, one for acts that are told much alike.
fn alike(a: Act, b: Act) -> u32 {
    const NEAR: [&[Act]; 10] = [
        &[Act::Unscrew, Act::Loosen],
        &[Act::Remove, Act::Open],
        &[Act::Pry, Act::Release],
        &[Act::Install, Act::Close, Act::Press],
        &[Act::Drive, Act::Tighten],
        &[Act::PowerOff, Act::Unplug, Act::Discharge],
        &[Act::Peel, Act::Remove],
        &[Act::Install, Act::Connect],
        &[Act::Turn, Act::Open],
        &[Act::Mark, Act::Protect],
    ];
    if a == b { 2 } else { u32::from(NEAR.iter().any(|n| n.contains(&a) && n.contains(&b))) }
}

/// Words that any part may have.
const BARE: [&str; 26] = [
    "the",
    "a",
    "an",
    "of",
    "and",
    "cable",
    "connector",
    "flex",
    "assembly",
    "screw",
    "unit",
    "module",
    "new",
    "old",
    "left",
    "right",
    "upper",
    "lower",
    "its",
    "main",
    "whole",
    "both",
    "two",
    "ribbon",
    "plug",
    "screws",
];

fn heads(what: &str) -> BTreeSet<String> {
    let singular = |w: &str| if w.len() > 3 { w.trim_end_matches('s').to_owned() } else { w.to_owned() };
    let words: Vec<String> =
        what.to_lowercase().split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).map(singular).collect();
    let kept: BTreeSet<String> = words.iter().filter(|w| !BARE.contains(&w.as_str())).cloned().collect();
    if kept.is_empty() { words.into_iter().collect() } else { kept }
}

fn same_thing(gold: &Judged, said: &Judged, away: usize) -> bool {
    let Some(asked) = &gold.what else { return true };
    let asked = heads(asked);
    let bare = asked.iter().all(|w| BARE.contains(&w.as_str()));
    bare && away == 0 || said.what.as_ref().is_some_and(|w| !heads(w).is_disjoint(&asked))
}
