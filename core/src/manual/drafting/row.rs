//! The row of drafted steps: which deeds make which step, and at which step a statement is at home.

use crate::ids::StepId;
use crate::manual::Phase;
use crate::reading::{Act, Deed, Half, Mark, Reading, Statement, steps};
use crate::things::feeds;

/// The deeds of a reading, grouped to steps.
///
/// What was tried in vain is no step. Where a word that decides over safety is doubted, the statement speaks for itself:
/// a deed read from it might be the opposite of what was meant.
pub(super) fn groups(reading: &Reading) -> Vec<Vec<Deed>> {
    let firm = |d: &&Deed| told_in(reading, d).is_none_or(|s| s.doubts.is_empty() && !s.marks.contains(&Mark::DeadEnd));
    let deeds: Vec<Deed> = reading.deeds.iter().filter(firm).cloned().collect();
    steps(&deeds).into_iter().flat_map(parted_at_power).collect()
}

/// The statement that tells a deed.
pub(super) fn told_in<'a>(reading: &'a Reading, deed: &Deed) -> Option<&'a Statement> {
    let at = reading.statements.partition_point(|s| s.end <= deed.start);
    reading.statements.get(at).filter(|s| s.start < deed.end)
}

/// Much waits for the power to be cut and for charge to be let out, so a step ends there; only taking out the source itself goes on.
fn parted_at_power(group: Vec<Deed>) -> Vec<Vec<Deed>> {
    let mut out: Vec<Vec<Deed>> = vec![Vec::new()];
    let mut source: Option<String> = None;
    for deed in group {
        let takes_out = |s: &String| deed.act == Act::Remove && deed.what.iter().any(|w| s.starts_with(w.as_str()));
        // The minutes until it is safe belong to the cutting.
        let safe =
            matches!(deed.act, Act::Wait | Act::Measure | Act::Discharge | Act::Mark | Act::PowerOff | Act::Unplug);
        if source.as_ref().is_some_and(|s| !takes_out(s)) && !safe {
            out.push(Vec::new());
        }
        source = cuts(&deed).or(source.filter(|_| safe));
        out.last_mut().expect("never empty").push(deed);
    }
    out
}

/// The source that a deed cuts off; empty where it is all of them.
fn cuts(deed: &Deed) -> Option<String> {
    match deed.act {
        Act::PowerOff | Act::Unplug | Act::Discharge if deed.half == Half::Apart => Some(String::new()),
        Act::Disconnect if deed.half == Half::Apart => deed.what.iter().find(|w| feeds(w)).cloned(),
        _ => None,
    }
}

/// Where a statement's facts hang.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Home {
    pub step: StepId,
    pub phase: Phase,
    /// The step tells of the statement itself, and not only of what stands beside it.
    pub here: bool,
}

/// Words that a step tells of.
#[derive(Debug)]
struct Told {
    start: usize,
    end: usize,
    cue: u32,
    step: StepId,
    phase: Phase,
}

/// What the steps of a recording tell of, in the order of its words.
#[derive(Debug, Default)]
pub(super) struct Row(Vec<Told>);

impl Row {
    pub fn push(&mut self, deed: &Deed, step: StepId, phase: Phase) {
        self.insert(Told { start: deed.start, end: deed.end, cue: deed.cue as u32, step, phase });
    }

    /// A statement that made a step of its own.
    pub fn put(&mut self, s: &Statement, step: StepId, phase: Phase) {
        self.insert(Told { start: s.start, end: s.end, cue: s.cue, step, phase });
    }

    fn insert(&mut self, told: Told) {
        let at = self.0.partition_point(|t| t.start <= told.start);
        self.0.insert(at, told);
    }

    pub fn last_phase(&self) -> Phase {
        self.0.last().map_or(Phase::Teardown, |t| t.phase)
    }

    /// The step that tells of a statement; else the one before it in its segment, the next in its segment, the one before.
    pub fn home(&self, s: &Statement) -> Option<Home> {
        let next = self.0.partition_point(|t| t.start < s.start);
        let here = self.0[next..].iter().take_while(|t| t.start < s.end);
        // Where one statement tells of both halves, the one that it is counted to is meant.
        let phase = if s.rebuild { Phase::Rebuild } else { Phase::Teardown };
        let own = here.clone().find(|t| t.phase == phase).or(here.clone().next());
        let running = || self.0[..next].last().filter(|t| t.end > s.start);
        let before = || self.0[..next].last();
        let same = |t: &&Told| (s.cue..=s.last_cue).contains(&t.cue);
        let beside = || {
            let behind = self.0.get(next).filter(same);
            before().filter(same).or(behind).or_else(before).or_else(|| self.0.first())
        };
        let home = |t: &Told, here: bool| Home { step: t.step, phase: t.phase, here };
        own.or_else(running).map(|t| home(t, true)).or_else(|| beside().map(|t| home(t, false)))
    }

    /// The step that a warning is told for: what its segment does behind it, else what it did before it, else what comes
    /// next, else the last.
    pub fn warned(&self, s: &Statement) -> Option<StepId> {
        let same = |t: &&Told| (s.cue..=s.last_cue).contains(&t.cue);
        let behind = |t: &&Told| t.end >= s.start;
        let step = self
            .0
            .iter()
            .find(|t| same(t) && behind(t))
            .or_else(|| self.0.iter().rfind(same))
            .or_else(|| self.0.iter().find(behind))
            .or(self.0.last());
        step.map(|t| t.step)
    }
}
