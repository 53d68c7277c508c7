//! How long it takes both ways, and how hard it is, with what makes it so.
//!
//! Times are those of [`crate::effort`], step by step. The grade is that of the hardest thing in it; many middling things make
//! one hard one. Grades: common practice, no source.

use super::classes::{self, ClassRow};
use super::score::{self, Score};
use super::{RebuildStep, TeardownRow};
use crate::cables::kinds::is_delicate;
use crate::effort::{Heard, Lasts, Shown, TOOL_CHANGE_S, back_s, first_hand, motions_s, plugs_s, screws_s, waiting_s};
use crate::ids::StepId;
use crate::labels;
use crate::labels::Label;
use crate::manual::{Manual, SeamKind, Step};
use crate::reading::Act;
use crate::things::{Source, is_glass, is_mains, source};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How hard a job is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Grade {
    Easy,
    Moderate,
    Hard,
    Expert,
}

labels!(Grade { Easy: "easy", Moderate: "moderate", Hard: "hard", Expert: "for experts" });

/// What a time rests on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Clock {
    Said,
    Shown,
    Motions,
}

labels!(Clock { Said: "an author's word", Shown: "the recording", Motions: "what is done" });

/// How long one step takes, and what tells it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StepTime {
    pub step: StepId,
    /// Its number in its half, from 1.
    pub number: usize,
    pub title: String,
    /// In words.
    pub says: String,
    pub clock: Clock,
    /// What a recording shows of it, believed or not.
    pub shown: Option<Shown>,
}

/// The work of both halves.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WorkSheet {
    pub apart: Lasts,
    pub together: Lasts,
    /// Both, in words.
    pub says: String,
    pub grade: Grade,
    /// Step by step, while taking apart.
    pub times: Vec<StepTime>,
    /// The same while putting together; a step that nobody told goes by the one that it undoes.
    pub times_back: Vec<StepTime>,
    /// What makes it so, the hardest first.
    pub reasons: Vec<GradeReason>,
    /// How often another tool is taken in hand while taking apart.
    pub tool_changes: usize,
    /// Steps by the counting rule of EN 45554 (from memory): a part removed, or another tool.
    pub counted_steps: usize,
    /// Classes of repairability.
    pub classes: Vec<ClassRow>,
    /// Only by a table that somebody filled in.
    pub score: Option<Score>,
}

/// One thing that makes a job hard.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct GradeReason {
    pub grade: Grade,
    /// "glued glass, steps 4 and 5"
    pub because: String,
}

/// Many middling things are as hard as one hard one.
const MANY: usize = 4;

/// What makes a step hard: the words, the grade, and whether it is in a step.
type Row = (&'static str, Grade, fn(&Manual, &Step) -> bool);

const ROWS: [Row; 7] = [
    ("parts at mains voltage", Grade::Expert, |m, s| touches(m, s, is_mains)),
    ("soldering", Grade::Expert, |_, s| s.actions.iter().any(|a| matches!(a.act, Act::Desolder | Act::Solder))),
    ("glued glass", Grade::Hard, |m, s| glued(m, s) && touches(m, s, is_glass)),
    ("a cell that is glued in", Grade::Hard, |m, s| {
        let forced = |a: Act| matches!(a, Act::Pry | Act::Peel | Act::Heat);
        let cell = |n: &str| source(n) == Some(Source::Cell);
        s.actions.iter().any(|a| forced(a.act) && m.named(a).any(cell))
    }),
    ("glue to be softened", Grade::Moderate, |m, s| glued(m, s) || m.heats_of(s.id).next().is_some()),
    ("delicate plugs", Grade::Moderate, |m, s| m.connectors_of(s.id).any(|c| c.kind.is_some_and(is_delicate))),
    ("clips", Grade::Moderate, |m, s| {
        m.seams.values().any(|j| j.step == s.id && matches!(j.kind, SeamKind::Clips | SeamKind::SnapEdge))
    }),
];

/// From here on there are many screws, and many steps: common practice, no source.
const MANY_SCREWS: u32 = 25;
const MANY_STEPS: usize = 25;

fn glued(manual: &Manual, step: &Step) -> bool {
    manual.seams.values().any(|s| s.step == step.id && s.kind == SeamKind::Glue)
}

fn touches(manual: &Manual, step: &Step, is: fn(&str) -> bool) -> bool {
    step.actions.iter().filter(|a| !matches!(a.act, Act::Unplug | Act::PowerOff)).flat_map(|a| manual.named(a)).any(is)
}

/// Works it out. O(steps · what hangs on them).
pub(super) fn work(manual: &Manual, teardown: &[TeardownRow], rebuild: &[RebuildStep], heard: &Heard) -> WorkSheet {
    let steps: Vec<&Step> = teardown.iter().map(|r| &manual.steps[&r.step]).collect();
    let rows: Vec<(StepTime, Lasts)> = steps.iter().enumerate().map(|(i, _)| time(manual, &steps, i, heard)).collect();
    let apart = rows.iter().map(|(_, lasts)| *lasts).fold(Lasts::default(), |a, b| a + b);
    let times = rows.into_iter().map(|(row, _)| row).collect();
    let back: Vec<(Lasts, Clock)> = rebuild.iter().map(|s| back_lasts(manual, s, heard)).collect();
    let together = back.iter().map(|(lasts, _)| *lasts).fold(Lasts::default(), |a, b| a + b);
    let times_back = rebuild.iter().zip(&back).enumerate().filter_map(|(i, (s, b))| time_back(s, i + 1, *b, heard));
    let times_back = times_back.collect();
    let reasons = reasons(manual, &steps);
    let hardest = reasons.iter().map(|r| r.grade).max().unwrap_or(Grade::Easy);
    let many = reasons.len() >= MANY && hardest == Grade::Moderate;
    let grade = if many { Grade::Hard } else { hardest };
    let both = apart + together;
    let says = format!("{}, {}", both.words(), grade.label());
    let counted_steps = classes::steps(&steps);
    let classes = classes::sheet(manual, &steps, grade);
    let score = manual.head.scores.as_ref().map(|table| score::score(table, &classes, counted_steps));
    WorkSheet {
        apart,
        together,
        says,
        grade,
        times,
        times_back,
        reasons,
        tool_changes: tool_changes(&steps),
        counted_steps,
        classes,
        score,
    }
}

/// What an author said; else what a recording shows, where it can be believed; else what the acts add up to.
fn time(manual: &Manual, steps: &[&Step], at: usize, heard: &Heard) -> (StepTime, Lasts) {
    let step = steps[at];
    let waiting = waiting_s(manual, step);
    let shown = heard.get(&step.id);
    let (lasts, clock) = match (step.time_s, believed(shown)) {
        (Some(said), _) => (Lasts::said((said - waiting).max(0.0), waiting.min(said)), Clock::Said),
        (None, Some(shown)) => (as_shown(manual, step, shown, fetched(steps, at)), Clock::Shown),
        (None, None) => (Lasts::of_motions(motions_s(manual, step), waiting), Clock::Motions),
    };
    let row = StepTime {
        step: step.id,
        number: at + 1,
        title: step.title.clone(),
        says: lasts.words(),
        clock,
        shown: shown.cloned(),
    };
    (row, lasts)
}

fn believed(shown: Option<&Shown>) -> Option<&Shown> {
    shown.filter(|s| s.doubt.is_none())
}

/// Who records has the tools laid out beside the work; others fetch each one that is new (MOST).
fn fetched(steps: &[&Step], at: usize) -> usize {
    let before = at.checked_sub(1).map_or(&[][..], |i| &steps[i].tools);
    steps[at].tools.iter().filter(|t| !before.contains(t)).count()
}

/// The wait stands in the recording only where it is long enough to hold it; else it was cut away.
fn as_shown(manual: &Manual, step: &Step, shown: &Shown, fetched: usize) -> Lasts {
    let waiting = waiting_s(manual, step);
    let hands = if shown.work_s > waiting + motions_s(manual, step) { shown.work_s - waiting } else { shown.work_s };
    Lasts::shown(hands + TOOL_CHANGE_S * fetched as f64, first_hand(step), waiting)
}

fn time_back(step: &RebuildStep, number: usize, (lasts, clock): (Lasts, Clock), heard: &Heard) -> Option<StepTime> {
    let shown = step.told.and_then(|id| heard.get(&id)).cloned();
    Some(StepTime {
        step: step.told.or(step.of)?,
        number,
        title: step.title.clone(),
        says: lasts.words(),
        clock,
        shown,
    })
}

fn back_lasts(manual: &Manual, step: &RebuildStep, heard: &Heard) -> (Lasts, Clock) {
    let told = step.told.and_then(|id| manual.steps.get(&id));
    let waiting = told.map_or(0.0, |s| waiting_s(manual, s)) + cures_s(manual, step);
    if let Some(said) = told.and_then(|s| s.time_s) {
        return (Lasts::said((said - waiting).max(0.0), waiting), Clock::Said);
    }
    // Where lines were worked out beside what was told, the recording shows only a part of it.
    let all_told = step.lines.iter().all(|l| l.told.is_some() || l.act.is_none());
    let shown = told.filter(|_| all_told).and_then(|s| Some((s, believed(heard.get(&s.id))?)));
    if let Some((told, shown)) = shown {
        return (as_shown(manual, told, shown, 0), Clock::Shown);
    }
    let screws = screws_s(step.groups.iter().map(|g| &manual.fasteners[g]));
    let plugs = plugs_s(step.connectors.iter().map(|c| &manual.connectors[c]));
    let acts: f64 = step.lines.iter().filter_map(|l| l.act).map(back_s).sum();
    (Lasts::of_motions(screws + plugs + acts, waiting), Clock::Motions)
}

/// What an author said of pressing and curing.
fn cures_s(manual: &Manual, step: &RebuildStep) -> f64 {
    let seams = manual.seams.values().filter(|s| Some(s.step) == step.of);
    let times = seams.filter_map(|s| s.rebond.as_ref()).flat_map(|r| [r.press_for, r.cure]);
    times.flatten().map(crate::units::in_seconds).sum()
}

fn reasons(manual: &Manual, steps: &[&Step]) -> Vec<GradeReason> {
    let mut out: Vec<GradeReason> = Vec::new();
    for (words, grade, is) in ROWS {
        let numbers: Vec<String> =
            steps.iter().enumerate().filter(|(_, s)| is(manual, s)).map(|(i, _)| (i + 1).to_string()).collect();
        let word = if numbers.len() == 1 { "step" } else { "steps" };
        let because = format!("{words}, {word} {}", numbers.join(", "));
        out.extend((!numbers.is_empty()).then_some(GradeReason { grade, because }));
    }
    let screws: u32 = steps.iter().flat_map(|s| manual.groups_of(s.id)).filter_map(|g| g.count).sum();
    let many = |n: u32, most: u32, what: &str| {
        (n > most).then(|| GradeReason { grade: Grade::Moderate, because: format!("{n} {what}") })
    };
    out.extend(many(screws, MANY_SCREWS, "screws"));
    out.extend(many(steps.len() as u32, MANY_STEPS as u32, "steps"));
    out.sort_by_key(|r| std::cmp::Reverse(r.grade));
    out
}

fn tool_changes(steps: &[&Step]) -> usize {
    let mut hand: Vec<&String> = steps.iter().flat_map(|s| &s.tools).collect();
    hand.dedup();
    hand.len().saturating_sub(1)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted;
    use crate::rebuild::fold;
    use rstest::rstest;

    #[rstest]
    #[case::nothing("Take off the cover. Take out the tray.", Grade::Easy, &[])]
    #[case::solder("Take off the cover. Desolder the buzzer.", Grade::Expert, &["soldering, step 2"])]
    #[case::glass(
        "Heat the front glass to 70 degrees. Pry off the front glass, it is glued.",
        Grade::Hard,
        &["glued glass, step 1", "glue to be softened, step 1"]
    )]
    fn the_hardest_thing_is_the_grade(#[case] told: &str, #[case] grade: Grade, #[case] because: &[&str]) {
        let work = fold(&drafted::manual(&format!("[0:00] {told}"))).work;
        assert_eq!(work.grade, grade);
        assert_eq!(work.reasons.iter().map(|r| r.because.as_str()).collect::<Vec<_>>(), because);
    }

    #[test]
    fn more_screws_take_longer_both_ways_and_waiting_is_no_work() {
        let of = |n: &str| {
            fold(&drafted::manual(&format!("[0:00] Remove {n} PH1 screws from the lid. Take off the lid."))).work
        };
        let (few, many) = (of("two"), of("twelve"));
        assert!(many.apart.low_s > 2.0 * few.apart.low_s && many.together.low_s > 2.0 * few.together.low_s);
        let waited = fold(&drafted::manual("[0:00] Take off the lid. Wait for ten minutes.")).work;
        assert_eq!(waited.apart.waiting_s, 600.0);
        assert!(waited.says.contains("10 of them waiting"), "{}", waited.says);
    }

    fn heard_work(text: &str) -> WorkSheet {
        let (manual, reading) = drafted::with_reading(text);
        let heard = crate::effort::heard(&manual, &[&reading]);
        crate::rebuild::fold_heard(&manual, &heard).work
    }

    const SLOW: &str = "[0:10] Remove the four screws of the lid. Take off the lid.\n\n[1:50] Unplug the fan. Take out the fan.\n\n[2:00] Thanks for watching.";

    #[test]
    fn what_the_recording_shows_counts_before_the_motions() {
        let (shown, motions) = (heard_work(SLOW), fold(&drafted::manual(SLOW)).work);
        let clocks = |w: &WorkSheet| w.times.iter().map(|t| t.clock).collect::<Vec<_>>();
        assert_eq!(clocks(&motions), [Clock::Motions, Clock::Motions]);
        assert_eq!(clocks(&shown)[0], Clock::Shown);
        assert!(shown.apart.low_s > 100.0 && motions.apart.low_s < 100.0, "{:?} {:?}", shown.apart, motions.apart);
    }

    #[test]
    fn the_way_back_has_its_times_too() {
        let told = "[0:10] Remove the four screws of the lid. Take off the lid.\n\n[0:50] Unplug the fan. Take out the fan.\n\n[1:20] Take out the pump. Take out the tray.\n\n[1:50] Now it goes back together. Put the tray in. Put the pump in.\n\n[2:20] Put the fan in. Plug the fan in.\n\n[2:50] Put the lid on. Drive in the four screws.\n\n[3:30] Thanks for watching.";
        let work = heard_work(told);
        let shown = |times: &[StepTime]| times.iter().filter(|t| t.clock == Clock::Shown).count();
        assert!(shown(&work.times) > 0 && shown(&work.times_back) > 0, "{:?}", work.times_back);
        let numbers: Vec<usize> = work.times_back.iter().map(|t| t.number).collect();
        assert_eq!(numbers, (1..=numbers.len()).collect::<Vec<_>>());
        // Nothing of the way back is told here: what is done tells how long it takes.
        let derived =
            heard_work("[0:10] Remove the four screws of the lid. Take off the lid.\n\n[0:50] Take out the fan.");
        assert!(derived.times_back.iter().all(|t| t.clock == Clock::Motions && t.shown.is_none()), "{derived:?}");
    }

    #[test]
    fn an_authors_word_counts_before_the_recording() {
        let (mut manual, reading) = drafted::with_reading(SLOW);
        let first = manual.order()[0];
        manual.steps.get_mut(&first).unwrap().time_s = Some(30.0);
        let heard = crate::effort::heard(&manual, &[&reading]);
        let work = crate::rebuild::fold_heard(&manual, &heard).work;
        assert_eq!((work.times[0].clock, work.times[0].says.as_str()), (Clock::Said, "1 min"));
    }

    #[test]
    fn seconds_that_cannot_be_are_not_believed() {
        let cut = "[0:10] Remove the eighteen screws of the lid. Take off the lid.\n\n[0:13] Unplug the fan. Take out the fan.";
        let work = heard_work(cut);
        assert_eq!(work.times[0].clock, Clock::Motions);
        assert!(work.times[0].shown.as_ref().is_some_and(|s| s.doubt.is_some()));
    }

    #[rstest]
    #[case::screws("Remove the four screws of the lid. Take off the lid.", 2.0)]
    // Two of three acts are felt for: 2 + 2 · 2/3.
    #[case::glue("Heat the lid. Pry off the lid.", 10.0 / 3.0)]
    fn a_first_hand_is_slowest_where_it_has_to_feel(#[case] told: &str, #[case] wanted: f64) {
        let manual = drafted::manual(&format!("[0:00] {told}"));
        let factor = first_hand(&manual.steps[&manual.order()[0]]);
        assert!((factor - wanted).abs() < 1e-9, "{factor}");
    }
}
