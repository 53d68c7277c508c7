//! Deeds to steps: what belongs under one title.
//!
//! A step frees or fits one part: what holds it, what hangs on it, the lift. It ends when the part is off or seated. A row
//! of plugs is one step, so is a trial, and turning the device begins one. Segments and breaths are no borders.

use super::super::Act;
use super::super::Statement;
use super::super::reasons::{caution_at, is_reason, warns};
use super::super::{Reading, Spelling};
use super::{Deed, Half, wording};
use crate::recording::Recording;
use serde::Serialize;

/// The guide drafted from one recording, before any author touched it.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct DraftSheet {
    pub steps: Vec<DraftStep>,
}

/// One drafted step.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct DraftStep {
    #[serde(rename = "phase")]
    pub half: Half,
    pub title: String,
    pub acts: Vec<DraftAct>,
    /// Worked out, and not told.
    pub derived: bool,
    pub cautions: Vec<String>,
}

/// One act as the reader of the guide sees it.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct DraftAct {
    #[serde(rename = "do")]
    pub act: Act,
    pub what: Vec<String>,
    pub by: Option<String>,
    /// Start of the segment in which it is told, in whole seconds.
    pub at_s: u64,
    /// From 0 to 1.
    pub confidence: f64,
    pub text: String,
    #[serde(skip)]
    cue: u32,
    #[serde(skip)]
    end: usize,
}

/// Most deeds of one step; the lift that they all lead to still belongs to them.
const MAX_DEEDS: usize = 8;

/// Deeds grouped to steps, with a title and plain sentences; cautions stand at the step that they come before.
pub fn draft(recording: &Recording, reading: &Reading) -> DraftSheet {
    let Reading { deeds, statements, spelling, .. } = reading;
    let mut out: Vec<DraftStep> = steps(deeds).iter().map(|g| step(recording, spelling, g)).collect();
    for (n, warning) in statements.iter().enumerate() {
        let warns = warns(warning) && !is_reason(statements, n);
        if let Some(at) = belongs(&out, warning).filter(|_| warns) {
            let text = caution_at(statements, n);
            if !out[at].cautions.contains(&text) {
                out[at].cautions.push(text);
            }
        }
    }
    DraftSheet { steps: out }
}

/// Deeds in their order, grouped to what stands under one title.
pub fn steps(deeds: &[Deed]) -> Vec<Vec<Deed>> {
    let mut groups: Vec<Vec<Deed>> = Vec::new();
    for deed in deeds {
        // What a reader has just been told is told again only in a step of its own.
        let again = |g: &Vec<Deed>| g.iter().any(|d| wording::sentence(d) == wording::sentence(deed));
        match groups.last_mut().filter(|g| goes_on(g, deed) && !again(g)) {
            Some(group) => group.push(deed.clone()),
            None => groups.push(vec![deed.clone()]),
        }
    }
    groups
}

/// The step that a warning is told for: what its segment does behind it, else what it did before it, else what comes next.
fn belongs(steps: &[DraftStep], warning: &Statement) -> Option<usize> {
    let step = |fits: &dyn Fn(&DraftAct) -> bool| steps.iter().position(|s| s.acts.iter().any(fits));
    let here = |a: &DraftAct| (warning.cue..=warning.last_cue).contains(&a.cue);
    step(&|a| here(a) && a.end >= warning.start)
        .or_else(|| steps.iter().rposition(|s| s.acts.iter().any(here)))
        .or_else(|| step(&|a| a.end >= warning.start))
        .or(steps.len().checked_sub(1))
}

fn step(recording: &Recording, spelling: &Spelling, deeds: &[Deed]) -> DraftStep {
    let act = |d: &Deed| DraftAct {
        act: d.act,
        what: d.what.clone(),
        by: d.by.clone(),
        at_s: recording.cues[d.cue].start.unwrap_or(0) / 1000,
        confidence: d.confidence,
        text: spelling.put(&wording::sentence(d)),
        cue: d.cue as u32,
        end: d.end,
    };
    DraftStep {
        half: deeds[0].half,
        title: spelling.put(&wording::title(deeds)),
        acts: deeds.iter().map(act).collect(),
        derived: false,
        cautions: Vec::new(),
    }
}

/// What opens a device; a clamp or a strip does not.
pub(super) const LIDS: [&str; 9] = ["cover", "lid", "shell", "case", "housing", "door", "panel", "hood", "top"];

/// A lid is open, and the next joint is begun: a bezel is warmed, a board unscrewed.
fn opened(group: &[Deed], deed: &Deed) -> bool {
    let begins = matches!(deed.act, Act::Heat | Act::Pry | Act::Unscrew | Act::Remove | Act::Peel);
    let is_lid = |w: &&String| w.rsplit(' ').next().is_some_and(|head| LIDS.contains(&head));
    let lids = group.iter().filter(|d| d.act == Act::Open).flat_map(|d| &d.what).filter(is_lid);
    let mut lids = lids.peekable();
    begins && !deed.what.is_empty() && lids.peek().is_some() && lids.all(|lid| !deed.what.contains(lid))
}

fn goes_on(group: &[Deed], deed: &Deed) -> bool {
    let last = group.last().expect("no group is empty");
    let led_to = deed.act == Act::Remove && group.iter().any(|d| d.what == deed.what);
    if last.half != deed.half || group.len() >= MAX_DEEDS + usize::from(led_to) {
        return false;
    }
    if !deed.what.is_empty() && deed.what == last.what {
        return true;
    }
    if deed.half == Half::Check {
        return true;
    }
    let cuts = |d: &Deed| matches!(d.act, Act::PowerOff | Act::Unplug);
    // Off, off the wall, and the minutes until it is safe.
    let safe = matches!(deed.act, Act::Wait | Act::Measure | Act::Discharge) || cuts(last) && cuts(deed);
    let begins = matches!(deed.act, Act::Turn | Act::PowerOff | Act::Unplug) || cuts(last);
    if begins && !safe {
        return false;
    }
    let moves = |d: &Deed| matches!(d.act, Act::Remove | Act::Install | Act::Transfer);
    if matches!(deed.act, Act::Mark | Act::Wait) {
        return true;
    }
    match deed.half {
        Half::Apart => {
            let freed = group.iter().any(|d| d.act == Act::Remove) || opened(group, deed);
            let same_segment = last.cue == deed.cue
                && last.act == Act::Remove
                && deed.act == Act::Remove
                && last.sentence == deed.sentence;
            !freed || same_segment
        }
        Half::Together => {
            let seated = group.iter().any(moves);
            let fastens =
                matches!(deed.act, Act::Drive | Act::Tighten | Act::Press | Act::Connect | Act::Close | Act::Adjust);
            let closed = group.iter().any(|d| matches!(d.act, Act::Drive | Act::Close));
            // The cable of what was just fitted goes with it, screwed down or not.
            let own = |w: &String| group.iter().flat_map(|d| &d.what).any(|seated| w.starts_with(seated.as_str()));
            !seated || fastens && !(closed && deed.act == Act::Connect && !deed.what.iter().any(own))
        }
        Half::Check => true,
    }
}
