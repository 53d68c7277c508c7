//! How much work a step is: seconds, tool changes, step counts.
//!
//! Times are built from index sums of a predetermined time system (MOST: one index is 0.36 s; K. B. Zandin, MOST Work
//! Measurement Systems; from memory, the seconds are computed) and, where that has nothing, from soft times of the trade
//! (common practice, no source). They compare routes; a first-timer takes two to four times as long (common practice).
//! An author's own figure always wins; behind it counts what a recording shows ([`heard`]).

mod heard;

pub use heard::{Heard, Shown, heard};

use crate::manual::{Action, Connector, ConnectorKind, FastenerGroup, Manual, SeamKind, Step};
use crate::reading::Act;
use crate::units::{Quantity, in_seconds};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Seconds of one MOST index, ten TMU of 0.036 s.
const INDEX_S: f64 = 0.36;
/// Fetch a tool and put it back: A1 B0 G1 + A1 B0 P1.
pub const TOOL_CHANGE_S: f64 = 4.0 * INDEX_S;
/// Place the bit on a screw, with adjustment and the way there.
const PLACE_BIT_S: f64 = 4.0 * INDEX_S;
/// Undo a screw by hand driver: short L10 (to 4 mm), medium L16 (to 8 mm), long L24.
const UNDO_S: [(f64, f64); 3] = [(4.0, 10.0 * INDEX_S), (8.0, 16.0 * INDEX_S), (f64::INFINITY, 24.0 * INDEX_S)];
/// Take a freed part away: A1 B0 G1 A1 B0 P1.
const TAKE_AWAY_S: f64 = 4.0 * INDEX_S;
/// Turn the device over and settle it: common practice, no source.
pub const TURN_S: f64 = 6.0;
/// Middle of the soft times for a flat or pressed connector (4 to 8 s): common practice, no source.
const CONNECTOR_S: f64 = 6.0;
const SOLDER_JOINT_S: f64 = 20.0;
/// Cutting glue, for an edge of a hand's breadth (10 to 30 s for 100 mm), and a clipped edge (5 to 10 s for 100 mm) of the
/// same: common practice, no source.
const GLUE_S: f64 = 60.0;
const CLIPS_S: f64 = 25.0;
const TAPE_S: f64 = 15.0;
/// Warming where no dwell was told: common practice, no source.
const WARM_S: f64 = 120.0;
const OTHER_ACT_S: f64 = 10.0;

/// The seconds a step takes: the author's figure, else what its screws, connectors, seams, heat and acts add up to.
pub fn seconds(manual: &Manual, step: &Step) -> f64 {
    step.time_s.unwrap_or_else(|| estimate(manual, step))
}

/// What the contents of a step add up to, whatever the author says.
pub fn estimate(manual: &Manual, step: &Step) -> f64 {
    let seams = manual.seams.values().filter(|s| s.step == step.id).map(|s| match s.kind {
        SeamKind::Glue => GLUE_S,
        SeamKind::Tape => TAPE_S,
        SeamKind::Clips | SeamKind::SnapEdge => CLIPS_S,
    });
    let acts = step.actions.iter().map(|a| match a.act {
        Act::Remove => TAKE_AWAY_S * a.parts.len().max(1) as f64,
        // Counted by their screws, plugs, seams and heat.
        Act::Unscrew | Act::Loosen | Act::Disconnect | Act::Pry | Act::Release | Act::Peel | Act::Heat => 0.0,
        _ => told(a).unwrap_or(OTHER_ACT_S),
    });
    let plugs = plugs_s(manual.connectors_of(step.id));
    screws_s(manual.groups_of(step.id)) + plugs + heat_s(manual, step) + seams.chain(acts).sum::<f64>()
}

/// What hands do of it: the estimate without its waiting.
pub fn motions_s(manual: &Manual, step: &Step) -> f64 {
    (estimate(manual, step) - waiting_s(manual, step)).max(0.0)
}

/// The time that nobody's hands are busy.
pub fn waiting_s(manual: &Manual, step: &Step) -> f64 {
    heat_s(manual, step) + waits_s(step)
}

/// Turning screws, either way.
pub fn screws_s<'m>(groups: impl Iterator<Item = &'m FastenerGroup>) -> f64 {
    let one = |g: &FastenerGroup| {
        // A screw of unknown length is taken as medium.
        let mm = g.length.map_or(6.0, crate::units::in_millimetres);
        let turn = UNDO_S.iter().find(|(to, _)| mm <= *to).map_or(0.0, |(_, s)| *s);
        PLACE_BIT_S + turn + if g.captive { 0.0 } else { TAKE_AWAY_S }
    };
    groups.map(|g| f64::from(g.count.unwrap_or(1)) * one(g)).sum()
}

/// Opening or making connectors.
pub fn plugs_s<'m>(connectors: impl Iterator<Item = &'m Connector>) -> f64 {
    let one = |c: &Connector| if c.kind == Some(ConnectorKind::Soldered) { SOLDER_JOINT_S } else { CONNECTOR_S };
    connectors.map(one).sum()
}

/// Warming, during which nobody's hands are busy.
pub fn heat_s(manual: &Manual, step: &Step) -> f64 {
    manual.heats_of(step.id).map(|h| h.dwell.map_or(WARM_S, |d| in_seconds(d.high))).sum()
}

/// What is told to be waited for.
pub fn waits_s(step: &Step) -> f64 {
    step.actions.iter().filter(|a| a.act == Act::Wait).filter_map(told).sum()
}

/// An act of the rebuild beside its screws and plugs: fetching a part and setting it, or something slower.
pub fn back_s(act: Act) -> f64 {
    match act {
        Act::Install | Act::Place => TAKE_AWAY_S,
        // Counted by their screws and plugs; waiting is no work.
        Act::Drive | Act::Tighten | Act::Connect | Act::Wait => 0.0,
        Act::Solder => SOLDER_JOINT_S,
        Act::Close | Act::Press => CLIPS_S,
        Act::Apply | Act::Clean => TAPE_S,
        _ => OTHER_ACT_S,
    }
}

/// Who waits longer than this does something else meanwhile.
const LONG_WAIT_S: f64 = 3600.0;

/// The ends of a time that nobody has measured, in seconds.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Lasts {
    pub low_s: f64,
    pub high_s: f64,
    /// Of both, the time that nobody's hands are busy.
    pub waiting_s: f64,
}

impl Lasts {
    /// Three points: a trained hand takes the time of the motions, who does it for the first time two to four times as long
    /// (common practice, no source); their mean and deviation by PERT, (o + 4 m + p) / 6 and (p - o) / 6 (Malcolm et al.,
    /// 1959, from memory). Who is slow at one step is slow at the next: deviations add up and do not cancel.
    pub fn of_motions(seconds: f64, waiting_s: f64) -> Self {
        Self::between(seconds, 2.0 * seconds, 4.0 * seconds, waiting_s)
    }

    /// An author has said how long: nobody is much faster, and a first hand takes up to twice as long.
    pub fn said(seconds: f64, waiting_s: f64) -> Self {
        Self::between(seconds, seconds, 2.0 * seconds, waiting_s)
    }

    /// A recording shows a practised hand; who does it for the first time takes `slower` times as long.
    pub fn shown(seconds: f64, slower: f64, waiting_s: f64) -> Self {
        Self::between(seconds, seconds * (1.0 + slower) / 2.0, seconds * slower, waiting_s)
    }

    fn between(low: f64, likely: f64, high: f64, waiting_s: f64) -> Self {
        let (mean, deviation) = ((low + 4.0 * likely + high) / 6.0, (high - low) / 6.0);
        Self { low_s: mean - deviation + waiting_s, high_s: mean + deviation + waiting_s, waiting_s }
    }

    /// "45 to 60 min, 10 of them waiting"; longer waiting is told beside the work: "20 to 30 min, and 24 h of waiting".
    pub fn words(&self) -> String {
        let apart = self.waiting_s >= LONG_WAIT_S;
        let idle = if apart { self.waiting_s } else { 0.0 };
        let (low, high) = (minutes(self.low_s - idle), minutes(self.high_s - idle));
        let time = if low == high { format!("{high} min") } else { format!("{low} to {high} min") };
        match (self.waiting_s / 60.0).round() {
            _ if apart => format!("{time}, and {} h of waiting", (self.waiting_s / 3600.0).round()),
            waiting if waiting < 1.0 => time,
            waiting => format!("{time}, {waiting} of them waiting"),
        }
    }
}

impl std::ops::Add for Lasts {
    type Output = Self;

    fn add(self, more: Self) -> Self {
        Self {
            low_s: self.low_s + more.low_s,
            high_s: self.high_s + more.high_s,
            waiting_s: self.waiting_s + more.waiting_s,
        }
    }
}

/// Whole minutes, and coarser the longer it takes: nobody knows an hour to the minute.
fn minutes(seconds: f64) -> u32 {
    let minutes = seconds / 60.0;
    let grain = if minutes < 10.0 { 1.0 } else { 5.0 };
    ((minutes / grain).round() * grain).max(1.0) as u32
}

/// How many times as long a first hand takes for the acts of a step: twice for screws, plugs and lifting, four times for
/// what is felt for, as glue, clips, solder and heat (2 to 4 times: common practice, no source; the sharing by act is ours).
pub fn first_hand(step: &Step) -> f64 {
    const SURE: f64 = 2.0;
    const FELT: f64 = 4.0;
    let felt = |a: &&Action| {
        matches!(a.act, Act::Pry | Act::Peel | Act::Heat | Act::Release | Act::Cut | Act::Desolder | Act::Solder)
    };
    let share = step.actions.iter().filter(felt).count() as f64 / step.actions.len().max(1) as f64;
    SURE + (FELT - SURE) * share
}

/// The time that was told for an act: "let it rest for four minutes".
fn told(action: &Action) -> Option<f64> {
    let times = action.roles.measures.iter().filter(|m| m.quantity == Quantity::Duration);
    times.map(|m| m.to.unwrap_or(m.value)).reduce(f64::max)
}

/// One act as the standard's counting rule sees it.
#[derive(Debug, Clone, PartialEq)]
pub struct Counted<'a> {
    /// `None`: bare hands.
    pub tool: Option<&'a str>,
    pub removes: bool,
}

/// What counts as a step.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct CountingRule {
    /// Whether bare hands are a tool of their own. The standard's wording leaves it open.
    pub hands_are_a_tool: bool,
}

/// The number of steps by the rule "a step ends with the removal of a part or with a change of tool"; a change straight
/// behind a removal is not counted again. Source: EN 45554:2020, from memory.
pub fn count_steps(acts: &[Counted<'_>], rule: CountingRule) -> usize {
    let mut count = 0;
    let mut hand: Option<&str> = None;
    // Nothing is done yet, so the first tool is no change.
    let mut done_since = false;
    for act in acts {
        let tool = act.tool.or(rule.hands_are_a_tool.then_some("hands"));
        if tool.is_some() && hand.is_some() && tool != hand && done_since {
            count += 1;
        }
        hand = tool.or(hand);
        done_since = !act.removes;
        count += usize::from(act.removes);
    }
    count + usize::from(done_since && !acts.is_empty())
}

/// The acts of one step of a manual in the standard's terms. Screws that come out are no parts of their own.
pub fn counted(step: &Step) -> Vec<Counted<'_>> {
    let tool = step.tools.first().map(String::as_str);
    let removes = |a: &Action| matches!(a.act, Act::Remove | Act::Peel) && !a.parts.is_empty();
    step.actions.iter().map(|a| Counted { tool, removes: removes(a) }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn acts(text: &'static str) -> Vec<Counted<'static>> {
        text.lines()
            .map(str::trim)
            .filter(|l| !l.is_empty())
            .map(|line| {
                let (tool, what) = line.split_once(": ").unwrap();
                Counted { tool: (tool != "hands").then_some(tool), removes: what.ends_with("= removed") }
            })
            .collect()
    }

    const CAMERA_AND_SPEAKER: &str = "
        pick: cut adhesive
        pick: lift cover = removed
        spudger: disconnect battery plug
        PH00: undo 4 screws
        PH00: lift bracket = removed
        PH00: undo 2 screws
        tweezers: lift camera = removed
        tweezers: peel tape
        spudger: pry speaker = removed";

    /// A time that the narrator told is the step's.
    #[rstest]
    #[case("Let the paste dry for four minutes.", 240.0)]
    #[case("Leave the switch alone for 90 seconds, then remove the switch.", 90.0)]
    fn a_told_time_counts(#[case] told: &str, #[case] at_least: f64) {
        let manual = crate::manual::drafted::manual(told);
        let all: f64 = manual.steps.values().map(|s| seconds(&manual, s)).sum();
        assert!((at_least..at_least + 30.0).contains(&all), "{all} s");
    }

    /// Worked by hand: 60 s of motions are 60, 120 and 240; mean 130, deviation 30.
    #[test]
    fn a_first_hand_takes_longer() {
        let lasts = Lasts::of_motions(60.0, 30.0);
        assert_eq!((lasts.low_s, lasts.high_s, lasts.waiting_s), (130.0, 190.0, 30.0));
    }

    #[rstest]
    #[case(130.0, 190.0, 0.0, "2 to 3 min")]
    #[case(2_600.0, 3_500.0, 600.0, "45 to 60 min, 10 of them waiting")]
    #[case(10.0, 20.0, 0.0, "1 min")]
    #[case(87_600.0, 88_200.0, 86_400.0, "20 to 30 min, and 24 h of waiting")]
    fn a_range_is_told_no_finer_than_it_is_known(
        #[case] low_s: f64,
        #[case] high_s: f64,
        #[case] waiting_s: f64,
        #[case] words: &str,
    ) {
        assert_eq!(Lasts { low_s, high_s, waiting_s }.words(), words);
    }

    /// Worked example of the counting rule, EN 45554:2020 from memory.
    #[test]
    fn a_step_ends_with_a_removal_or_a_change_of_tool() {
        assert_eq!(count_steps(&acts(CAMERA_AND_SPEAKER), CountingRule::default()), 7);
    }

    #[rstest]
    #[case("pick: lift cover = removed\nhands: lift fan = removed", false, 2)]
    #[case("PH0: undo screws\nhands: lift fan = removed", false, 1)]
    #[case("PH0: undo screws\nhands: lift fan = removed", true, 2)]
    #[case("PH0: undo screws", false, 1)]
    #[case("", false, 0)]
    fn hands_count_only_where_the_rule_says_so(
        #[case] text: &'static str,
        #[case] hands_are_a_tool: bool,
        #[case] steps: usize,
    ) {
        assert_eq!(count_steps(&acts(text), CountingRule { hands_are_a_tool }), steps);
    }
}
