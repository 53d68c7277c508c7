//! How long the recording shows a step: the seconds from its words to those of the next one.
//!
//! Idle talk among them is taken out. Silence is not: hands work while nobody speaks (common practice, no source). Where
//! speech is lost, or where the seconds cannot be those of what was done, the recording was cut or words are missing: then
//! the acts tell how long a step takes, and an author is asked to look at these seconds.

use super::{motions_s, waiting_s};
use crate::ids::{RecordingId, StepId};
use crate::manual::{CorrectedReading, Manual, Step};
use crate::reading::{GapKind, StatementKind};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What a recording shows of one step. Seconds; milliseconds of the recording.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Shown {
    pub recording: RecordingId,
    /// First character of the statement that tells it first.
    pub start: usize,
    /// The first words of the step, and where the next step begins.
    pub from_ms: u64,
    pub to_ms: u64,
    /// Without idle talk; silence among it.
    pub work_s: f64,
    pub talk_s: f64,
    pub silent_s: f64,
    /// Why these seconds are not those of the work.
    pub doubt: Option<String>,
}

/// What the recordings of a manual show, step by step.
pub type Heard = BTreeMap<StepId, Shown>;

/// Below this share of the motions of a trained hand nobody has done it in front of the camera.
const CUT: f64 = 0.5;
/// Above this multiple, and this many seconds more, something else was done or told.
const OTHER: (f64, f64) = (8.0, 180.0);

/// Reads the times off the recordings. A step that several of them show takes the one that is not in doubt, else the first.
/// O(recordings · runs of one step · statements).
pub fn heard(manual: &Manual, readings: &[&CorrectedReading]) -> Heard {
    let mut out = Heard::new();
    for reading in readings {
        for (step, mut shown) in of_one(manual, reading) {
            shown.doubt = shown.doubt.take().or_else(|| doubt(manual, &manual.steps[&step], &shown));
            let better = out.get(&step).is_none_or(|known| known.doubt.is_some() && shown.doubt.is_none());
            if better {
                out.insert(step, shown);
            }
        }
    }
    out
}

/// The stretches of one recording by the steps that they tell of.
fn of_one(manual: &Manual, reading: &CorrectedReading) -> Heard {
    let mut out = Heard::new();
    let marks = marks(manual, reading);
    for (i, Mark { from, to: ends, start, step }) in marks.iter().enumerate() {
        let to = marks.get(i + 1).map_or(*ends, |next| next.from).max(*from);
        let within = |from_ms: Option<u64>, to_ms: Option<u64>| {
            let (a, b) = (from_ms.unwrap_or(0).max(*from), to_ms.unwrap_or(0).min(to));
            b.saturating_sub(a) as f64 / 1000.0
        };
        let idle = |k: StatementKind| matches!(k, StatementKind::Chatter | StatementKind::Noise);
        let talk: f64 =
            reading.reading.statements.iter().filter(|s| idle(s.kind)).map(|s| within(s.from_ms, s.to_ms)).sum();
        let gaps = reading.reading.gaps.iter();
        let silent: f64 =
            gaps.clone().filter(|g| g.kind == GapKind::Silence).map(|g| within(Some(g.from_ms), Some(g.to_ms))).sum();
        let lost = gaps.clone().any(|g| g.kind == GapKind::LostSpeech && within(Some(g.from_ms), Some(g.to_ms)) > 0.0);
        let work = ((to - from) as f64 / 1000.0 - talk).max(0.0);
        let shown = out.entry(*step).or_insert(Shown {
            recording: reading.recording,
            start: *start,
            from_ms: *from,
            to_ms: to,
            work_s: 0.0,
            talk_s: 0.0,
            silent_s: 0.0,
            doubt: None,
        });
        shown.to_ms = shown.to_ms.max(to);
        shown.work_s += work;
        shown.talk_s += talk;
        shown.silent_s += silent;
        if lost {
            shown.doubt = Some("Speech is lost here: nobody hears what was done.".to_owned());
        }
    }
    out
}

/// A run of statements that tell of one step: milliseconds, and the first character.
struct Mark {
    from: u64,
    to: u64,
    start: usize,
    step: StepId,
}

/// When each step is spoken of, in the order of the recording.
fn marks(manual: &Manual, reading: &CorrectedReading) -> Vec<Mark> {
    let statements = &reading.reading.statements;
    let mut out: Vec<Mark> = Vec::new();
    for (step, told) in &manual.steps {
        for (start, _) in told.evidence.iter().filter_map(|e| e.span_in(reading.recording)) {
            let said = statements.get(statements.partition_point(|s| s.end <= start));
            let times = said.and_then(|s| s.from_ms.zip(s.to_ms).map(|(from, to)| (from, to, s.start)));
            out.extend(times.map(|(from, to, start)| Mark { from, to, start, step: *step }));
        }
    }
    out.sort_by_key(|m| (m.from, m.to));
    out.dedup_by(|next, last| {
        let same = next.step == last.step;
        last.to = if same { last.to.max(next.to) } else { last.to };
        same
    });
    out
}

/// Why the seconds of a step are not those of its work.
fn doubt(manual: &Manual, step: &Step, shown: &Shown) -> Option<String> {
    let motions = motions_s(manual, step);
    let (many, more) = OTHER;
    if shown.work_s < 1.0 && motions > 0.0 {
        return Some("Told in one breath with the step behind it: nothing shows how long it takes.".to_owned());
    }
    if shown.work_s < CUT * motions {
        return Some(format!(
            "The recording holds {:.0} s, and what is done takes about {motions:.0} s: it was cut, or sped up.",
            shown.work_s
        ));
    }
    let long = shown.work_s > many * motions && shown.work_s - motions > more + waiting_s(manual, step);
    long.then(|| {
        format!(
            "The recording holds {:.0} s for what takes about {motions:.0} s: something else was done, or talk looks like work.",
            shown.work_s
        )
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted;
    use rstest::rstest;

    fn shown(text: &str) -> Vec<(String, Shown)> {
        let (manual, reading) = drafted::with_reading(text);
        let heard = heard(&manual, &[&reading]);
        manual
            .order()
            .into_iter()
            .filter_map(|s| Some((manual.steps[&s].title.clone(), heard.get(&s)?.clone())))
            .collect()
    }

    /// Seconds of work and of talk of the first step.
    #[rstest]
    #[case::to_the_next_step(
        "[0:10] Remove the four screws of the lid. Take off the lid.\n\n[0:50] Unplug the fan. Take out the fan.",
        (40.0, 0.0)
    )]
    #[case::talk_is_taken_out(
        "[0:10] Remove the four screws of the lid. Take off the lid.\n\n[0:40] My neighbour has a dog and it is very loud today.\n\n[0:50] Unplug the fan. Take out the fan.",
        (30.0, 10.0)
    )]
    fn a_step_lasts_until_the_next_one_without_its_talk(#[case] text: &str, #[case] wanted: (f64, f64)) {
        let rows = shown(text);
        let first = &rows[0].1;
        assert_eq!((first.work_s.round(), first.talk_s.round()), wanted, "{rows:?}");
        assert_eq!(first.doubt, None);
    }

    #[test]
    fn hands_work_while_nobody_speaks() {
        let text = "1\n00:00:10,000 --> 00:00:13,000\nPry the lid off with a spudger.\n\n2\n00:00:55,000 --> 00:00:58,000\nUnplug the fan and take out the fan.\n";
        let rows = shown(text);
        let first = &rows[0].1;
        assert_eq!(first.work_s.round(), 45.0, "{rows:?}");
        assert!(first.silent_s > 35.0, "{rows:?}");
    }

    #[rstest]
    #[case::cut(
        "[0:10] Remove the eighteen screws of the lid. Take off the lid.\n\n[0:14] Unplug the fan. Take out the fan.",
        Some("it was cut, or sped up")
    )]
    #[case::something_else(
        "[0:10] Unplug the pump. Take out the pump.\n\n[9:40] Unplug the fan. Take out the fan.",
        Some("something else was done")
    )]
    #[case::as_long_as_it_takes(
        "[0:10] Remove the eighteen screws of the lid. Take off the lid.\n\n[3:10] Unplug the fan. Take out the fan.",
        None
    )]
    fn seconds_that_cannot_be_are_doubted(#[case] text: &str, #[case] wanted: Option<&str>) {
        let rows = shown(text);
        let doubt = rows[0].1.doubt.as_deref();
        assert!(doubt.is_some() == wanted.is_some() && wanted.is_none_or(|w| doubt.unwrap().contains(w)), "{rows:?}");
    }

    #[test]
    fn one_breath_shows_no_time() {
        let text =
            "[0:10] Remove the four screws of the lid. Take off the lid.\n\n[0:50] Unplug the fan. Take out the fan.";
        let (manual, reading) = drafted::with_reading(text);
        let (step, shown) = heard(&manual, &[&reading]).pop_first().unwrap();
        let none = Shown { work_s: 0.2, ..shown };
        assert!(doubt(&manual, &manual.steps[&step], &none).is_some_and(|d| d.starts_with("Told in one breath")));
    }

    #[test]
    fn what_two_recordings_show_is_taken_from_the_one_that_holds_it() {
        let cut = "[0:10] Remove the eighteen screws of the lid. Take off the lid.\n\n[0:14] Unplug the fan. Take out the fan.";
        let (manual, reading) = drafted::with_reading(cut);
        // The same words, told at the pace of the work.
        let mut whole = reading.clone();
        for s in &mut whole.reading.statements {
            (s.from_ms, s.to_ms) = (s.from_ms.map(|ms| ms * 20), s.to_ms.map(|ms| ms * 20));
        }
        let both = heard(&manual, &[&reading, &whole]);
        let first = manual.order()[0];
        assert!(heard(&manual, &[&reading])[&first].doubt.is_some());
        assert_eq!(both[&first].doubt, None, "{both:?}");
    }

    #[test]
    fn lost_speech_is_doubted() {
        let text = "1\n00:00:10,000 --> 00:00:20,000\nUnplug the pump and take out the pump and then you take the\n\n2\n00:00:50,000 --> 00:00:58,000\nUnplug the fan and take out the fan.\n";
        let rows = shown(text);
        assert!(rows[0].1.doubt.as_deref().is_some_and(|d| d.starts_with("Speech is lost")), "{rows:?}");
    }

    #[test]
    fn a_recording_without_times_shows_nothing() {
        assert!(shown("Remove the lid. Unplug the fan. Take out the fan.").is_empty());
    }
}
