//! Figures that sentences around an act tell: sizes of its screws in groups, how hot and how long.
//!
//! "Undo the nine T10 screws. Eight of them are 16 millimetres, the ninth 30." One act, and two sizes that stand in other
//! sentences. The statements have gathered them; here each act takes its own.

use super::super::Act;
use super::super::facts::{FastenerFact, FastenerOp, HeatFact};
use super::super::wording::ScrewGroup;
use super::super::{Statement, StatementKind};
use super::{Deed, Half};
use crate::units::{self, Measure, Quantity};

/// Gives screws and heat the figures that the statements of their segment hold; counted screws that no act of it turns are
/// an act of their own ("Three at the top, 12 millimetres.").
pub fn figured(deeds: &mut Vec<Deed>, statements: &[Statement]) {
    let told = statements.iter().enumerate().filter(|(_, s)| s.kind != StatementKind::Noise);
    for (n, s) in told {
        for f in &s.facts.fasteners {
            match nearest(deeds, s, |d| turns(d, f.op)) {
                Some(deed) => {
                    // What is loosened without a word of staying is out.
                    if deed.act == Act::Loosen && f.op == FastenerOp::Remove {
                        deed.act = Act::Unscrew;
                    }
                    deed.groups.push(group(f));
                }
                None => {
                    if let Some(deed) = unsaid(deeds, n, s, f) {
                        let behind = deeds.iter().rposition(|d| d.start <= s.start).map_or(0, |at| at + 1);
                        deeds.insert(behind, deed);
                    }
                }
            }
        }
        for h in &s.facts.heat {
            if let Some(deed) = nearest(deeds, s, |d| d.act == Act::Heat) {
                heated(deed, h);
            }
        }
    }
    deeds.iter_mut().for_each(settle);
}

/// The act of screws that are told by their number and size alone, where the work around it goes the same way.
fn unsaid(deeds: &[Deed], sentence: usize, s: &Statement, f: &FastenerFact) -> Option<Deed> {
    let (act, half) = match f.op {
        FastenerOp::Remove => (Act::Unscrew, Half::Apart),
        FastenerOp::Install => (Act::Drive, Half::Together),
        // What is loosened or tightened is told with its act, or hardly meant.
        FastenerOp::Loosen | FastenerOp::Tighten => return None,
    };
    f.count.filter(|_| s.kind == StatementKind::Action || s.kind == StatementKind::Observation)?;
    // Counted beside their act, they are told already.
    let told = |d: &Deed| {
        turns(d, f.op) && d.cue.abs_diff(s.cue as usize) <= 1 && d.screws().iter().any(|g| g.count == f.count)
    };
    if deeds.iter().any(told) {
        return None;
    }
    let before = deeds.iter().rev().find(|d| d.start < s.start && d.half != Half::Check)?;
    (before.half == half && before.cue + 1 >= s.cue as usize).then(|| Deed {
        act,
        half,
        what: f.what.iter().cloned().collect(),
        by: None,
        count: f.count,
        drive: f.drive,
        bit: f.bit.clone(),
        length_mm: f.length.map(units::in_millimetres),
        groups: vec![group(f)],
        places: Vec::new(),
        manner: Vec::new(),
        until: None,
        measures: Vec::new(),
        new: false,
        cue: s.cue as usize,
        start: s.start,
        end: s.end,
        confidence: 0.6,
        future: false,
        because: "screws told by number and size alone",
        sentence,
    })
}

fn turns(d: &Deed, op: FastenerOp) -> bool {
    match op {
        FastenerOp::Remove | FastenerOp::Loosen => matches!(d.act, Act::Unscrew | Act::Loosen),
        FastenerOp::Install => d.act == Act::Drive,
        FastenerOp::Tighten => d.act == Act::Tighten,
    }
}

/// The act of the segment that a statement stands in or follows, else the first of the segment.
fn nearest<'a>(deeds: &'a mut [Deed], s: &Statement, fits: impl Fn(&Deed) -> bool) -> Option<&'a mut Deed> {
    /// Characters around a statement in which its act is looked for.
    const AROUND: usize = 3000;
    let from = deeds.partition_point(|d| d.start + AROUND < s.start);
    let to = deeds.partition_point(|d| d.start < s.end + AROUND);
    let deeds = &mut deeds[from..to];
    // Captions cut a sentence, so that the two may begin in different ones.
    let overlaps = |d: &Deed| d.start < s.end && s.start < d.end;
    let here = |d: &Deed| ((s.cue..=s.last_cue).contains(&(d.cue as u32)) || overlaps(d)) && fits(d);
    let before = deeds.iter().rposition(|d| here(d) && d.start < s.end);
    let at = before.or_else(|| deeds.iter().position(here))?;
    Some(&mut deeds[at])
}

/// The screws that a fact tells of.
pub(in super::super) fn group(f: &FastenerFact) -> ScrewGroup {
    ScrewGroup { count: f.count, drive: f.drive, bit: f.bit.clone(), length_mm: f.length.map(units::in_millimetres) }
}

/// One group gives the act its figures; several stand side by side where they add up to it.
fn settle(d: &mut Deed) {
    d.groups.dedup();
    let total: u32 = d.groups.iter().filter_map(|g| g.count).sum();
    // "Seven screws. Five are 3 millimetres, two are 2.5.": the total is no group.
    // "Three at the top, 12 millimetres, two of the 25s, and the 8": three are no total, though two and one are three.
    let whole = |g: &ScrewGroup| g.length_mm.is_none() && g.count.is_some_and(|n| 2 * n == total);
    if d.groups.len() > 2 && d.groups.iter().filter(|g| whole(g)).count() == 1 {
        d.groups.retain(|g| !whole(g));
    }
    if d.groups.len() > 1 && d.groups.iter().all(|g| g.count.is_some()) {
        d.count = None;
        return;
    }
    let own = d.groups.iter().find(|g| g.count == d.count).or(d.groups.first()).cloned();
    d.groups.clear();
    if let Some(g) = own {
        // The statement has seen what was counted aloud and put right.
        d.count = g.count.or(d.count);
        d.drive = d.drive.or(g.drive);
        d.bit = d.bit.take().or(g.bit);
        d.length_mm = d.length_mm.or(g.length_mm);
    }
}

/// The statement knows ranges and puts two scales together.
fn heated(d: &mut Deed, h: &HeatFact) {
    let span = |quantity: Quantity, unit: &str, low: f64, high: f64| Measure {
        quantity,
        value: low,
        to: (high > low).then_some(high),
        unit: unit.to_owned(),
    };
    if let Some(t) = h.temperature {
        d.measures.retain(|m| m.quantity != Quantity::Temperature);
        d.measures.push(span(Quantity::Temperature, "degC", units::in_celsius(t.low), units::in_celsius(t.high)));
    }
    if let Some(t) = h.dwell {
        d.measures.retain(|m| m.quantity != Quantity::Duration);
        d.measures.push(span(Quantity::Duration, "s", units::in_seconds(t.low), units::in_seconds(t.high)));
    }
}

#[cfg(test)]
mod tests {
    use super::super::super::draft_guide;
    use crate::recording::Recording;
    use rstest::rstest;

    fn texts(text: &str) -> Vec<String> {
        let guide = draft_guide(&Recording::parse(text.as_bytes()).unwrap());
        guide.steps.into_iter().flat_map(|s| s.acts).map(|a| a.text).collect()
    }

    #[rstest]
    #[case::sizes_in_groups(
        "Turn out the nine screws T10 of the half shell. Eight of them are 16 millimetres long. The ninth, at the foot of the handle, is 30 millimetres long.",
        "Undo the eight T10 screws (16 mm) of the half shell, then the one (30 mm)."
    )]
    #[case::counted_aloud("The screws of the lid come out one two three four.", "Undo the four screws of the lid.")]
    #[case::a_size_behind(
        "Remove four screws from the lid. They are Phillips double zero, six millimetres.",
        "Undo the four PH00 screws (6 mm) of the lid."
    )]
    #[case::two_scales(
        "Warm the rim with a heat gun to 80 degrees Celsius or 176 degrees Fahrenheit.",
        "Heat the rim with a heat gun to 80 °C."
    )]
    #[case::a_range("Heat the rim. It takes from 4 to 6 minutes.", "Heat the rim for 4 to 6 minutes.")]
    fn acts_take_the_figures_around_them(#[case] text: &str, #[case] wanted: &str) {
        let told = texts(&format!("[0:00] {text} Take off the lid."));
        assert!(told.iter().any(|t| t == wanted), "{told:?}");
    }

    /// Nobody says "drive in" of every screw.
    #[test]
    fn screws_told_by_number_and_size_alone_are_an_act() {
        let told = texts(
            "[0:00] Remove three screws, 12 millimetres, from the cover. Take off the cover. Take out the fan.\n\n\
             [0:20] Now the assembly. Put the fan in. Put the cover on. Three screws in the cover, 12 millimetres.",
        );
        assert_eq!(
            told.last().map(String::as_str),
            Some("Drive in the three screws (12 mm) of the cover."),
            "{told:?}"
        );
    }

    #[test]
    fn no_act_takes_the_figures_of_another_segment() {
        let told = texts(
            "[0:00] Remove two T5 screws from the lid.\n\n[0:20] Remove three PH0 screws, 4 millimetres, from the cage.",
        );
        assert_eq!(told, ["Undo the two T5 screws of the lid.", "Undo the three PH0 screws (4 mm) of the cage."]);
    }
}
