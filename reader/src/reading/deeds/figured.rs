//! Figures that sentences around an act tell: sizes of its screws in groups, how hot and how long.
//!
//! "Undo the nine T10 screws. Eight of them are 16 millimetres, the ninth 30." One act, and two sizes that stand in other
//! sentences. The statements have gathered them; here each act takes its own. What the sheet tells of screws is read off the
//! acts then: a list of words hears screws in many a sentence that turns none.

use super::super::Act;
use super::super::facts::{Drive, FastenerFact, FastenerOp, HeatFact};
use super::super::wording::ScrewGroup;
use super::super::{Statement, StatementKind};
use super::counts::IN_A_ROW;
use super::supplement::screws;
use super::{Deed, Half};
use crate::units::{self, Measure, Quantity};
use rustc_hash::FxHashMap;

/// A fact of screws in a statement, and the act that turns them.
struct Link {
    statement: usize,
    fact: FastenerFact,
    /// None where no act was heard: counted, they were turned.
    deed: Option<usize>,
}

/// Gives screws and heat the figures that the statements of their segment hold; counted screws that no act of it turns are
/// an act of their own ("Three at the top, 12 millimetres.").
pub fn figured(deeds: &mut Vec<Deed>, statements: &mut [Statement]) {
    let mut links: Vec<Link> = Vec::new();
    let told = statements.iter().enumerate().filter(|(_, s)| s.kind != StatementKind::Noise);
    for (n, s) in told {
        for f in &s.facts.fasteners {
            if let Some(deed) = linked(deeds, &mut links, n, s, f) {
                links.push(Link { statement: n, fact: f.clone(), deed });
            }
        }
        for h in &s.facts.heat {
            if let Some(at) = nearest(deeds, s, |d| d.act == Act::Heat) {
                heated(&mut deeds[at], h);
            }
        }
    }
    deeds.iter_mut().for_each(settle);
    as_they_came_out(deeds);
    read_off(deeds, statements, links);
}

/// What goes back is turned by the driver that took it out: "the four screws of the lid" were T5.
fn as_they_came_out(deeds: &mut [Deed]) {
    // What two acts took screws out of tells no drive.
    let mut out: FxHashMap<Vec<String>, Option<(Drive, Option<String>)>> = FxHashMap::default();
    let undone = |d: &&Deed| matches!(d.act, Act::Unscrew | Act::Loosen) && d.groups.is_empty() && !d.what.is_empty();
    for d in deeds.iter().filter(undone) {
        let told = d.drive.map(|drive| (drive, d.bit.clone()));
        out.entry(d.what.clone()).and_modify(|known| *known = None).or_insert(told);
    }
    let open = |d: &&mut Deed| d.drive.is_none() && d.groups.iter().all(|g| g.drive.is_none());
    for d in deeds.iter_mut().filter(|d| matches!(d.act, Act::Drive | Act::Tighten)).filter(open) {
        if let Some(Some((drive, bit))) = out.get(&d.what) {
            d.drive = Some(*drive);
            d.bit.clone_from(bit);
            d.groups.iter_mut().for_each(|g| (g.drive, g.bit) = (Some(*drive), bit.clone()));
        }
    }
}

/// The act that turns the screws of a fact, which takes its figures; `None` where the fact is none.
fn linked(
    deeds: &mut Vec<Deed>,
    links: &mut [Link],
    sentence: usize,
    s: &Statement,
    f: &FastenerFact,
) -> Option<Option<usize>> {
    if let Some(at) = turning(deeds, s, f) {
        let deed = &mut deeds[at];
        // What is loosened without a word of staying is out.
        if deed.act == Act::Loosen && f.op == FastenerOp::Remove {
            deed.act = Act::Unscrew;
        }
        // "Loosen the screw of the lid. It stays in the lid."
        if deed.act == Act::Unscrew && f.captive {
            deed.act = Act::Loosen;
        }
        deed.groups.push(group(f));
        return Some(Some(at));
    }
    if let Some(deed) = unsaid(deeds, sentence, s, f) {
        let behind = deeds.iter().rposition(|d| d.start <= s.start).map_or(0, |at| at + 1);
        deeds.insert(behind, deed);
        for link in links.iter_mut().filter_map(|l| l.deed.as_mut()).filter(|at| **at >= behind) {
            *link += 1;
        }
        return Some(Some(behind));
    }
    f.count.map(|_| None)
}

/// What the sheet tells of screws: each group that an act turns, in the statement that told it; a doubted statement keeps
/// its evident reading.
fn read_off(deeds: &[Deed], statements: &mut [Statement], links: Vec<Link>) {
    let sure: Vec<bool> = statements.iter().map(|s| s.doubts.is_empty()).collect();
    for s in statements.iter_mut().filter(|s| s.doubts.is_empty()) {
        s.facts.fasteners.clear();
    }
    let turns = |d: &Deed| d.half != Half::Check && d.act.turns_screws();
    let mut groups: Vec<Vec<ScrewGroup>> =
        deeds.iter().map(|d| if turns(d) { told_groups(d) } else { Vec::new() }).collect();
    for link in links.into_iter().filter(|l| sure[l.statement]) {
        let Some(at) = link.deed else {
            statements[link.statement].facts.fasteners.push(link.fact);
            continue;
        };
        // Sizes told in the next segment are those of the act.
        let its_own = statements[link.statement].cue as usize == deeds[at].cue;
        let home = if its_own { Some(link.statement) } else { ends_in(&deeds[at], statements) };
        let facts = &mut statements[home.filter(|n| sure[*n]).unwrap_or(link.statement)].facts.fasteners;
        let same = |g: &ScrewGroup| link.fact.count.is_none() || g.count == link.fact.count;
        if let Some(n) = groups[at].iter().position(same) {
            let told = screws(&deeds[at], &groups[at].remove(n));
            let stays = matches!(told.op, FastenerOp::Loosen | FastenerOp::Tighten);
            let captive = told.captive || link.fact.captive && stays;
            let what = told.what.clone().or(link.fact.what);
            facts.push(FastenerFact { captive, what, guessed: link.fact.guessed, ..told });
        }
    }
    for (d, groups) in deeds.iter().zip(groups) {
        if let Some(at) = ends_in(d, statements).filter(|at| sure[*at]) {
            statements[at].facts.fasteners.extend(groups.iter().map(|g| screws(d, g)));
        }
    }
}

/// "Undo the screws of the lid.": one group, of which nothing is told.
fn told_groups(d: &Deed) -> Vec<ScrewGroup> {
    let groups = d.screws();
    // What is only tightened was told when it went in.
    let moves = matches!(d.act, Act::Unscrew | Act::Loosen | Act::Drive) && !d.what.is_empty();
    if groups.is_empty() && moves { vec![ScrewGroup::default()] } else { groups }
}

/// The statement in which an act is complete: "undo" may end one segment, and "the four screws" begin the next.
fn ends_in(d: &Deed, statements: &[Statement]) -> Option<usize> {
    let at = statements.partition_point(|s| s.end < d.end);
    statements.get(at).filter(|s| s.start < d.end).map(|_| at)
}

/// The act that a fact's screws are turned by: one that tells as many, else the nearest.
fn turning(deeds: &[Deed], s: &Statement, f: &FastenerFact) -> Option<usize> {
    let as_many = |d: &Deed| turns(d, f.op) && d.groups.is_empty() && f.count.is_some() && d.count == f.count;
    // "Do up the three bolts": driven, where a word tells that they end up tight.
    let driven =
        |d: &Deed| f.op == FastenerOp::Tighten && d.act == Act::Drive && f.count.is_some() && d.count == f.count;
    nearest(deeds, s, as_many)
        .or_else(|| nearest(deeds, s, |d| turns(d, f.op)))
        .or_else(|| nearest(deeds, s, driven))
        .or_else(|| counted_now(deeds, s, f))
}

/// "There's one screw here, one here, one here." and, a breath later, "so four screws, and they hold the cover.": the act
/// right before, which nobody has counted yet.
fn counted_now(deeds: &[Deed], s: &Statement, f: &FastenerFact) -> Option<usize> {
    let at = deeds.partition_point(|d| d.start < s.start).checked_sub(1)?;
    let d = &deeds[at];
    let uncounted = turns(d, f.op) && d.count.is_none() && d.groups.is_empty() && f.count.is_some();
    let same = f.what.as_ref().is_none_or(|what| d.what.is_empty() || d.what.contains(what));
    (uncounted && same && d.cue + 1 >= s.cue as usize).then_some(at)
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
    // "It comes off, and that exposes the screw.", "I stripped one of the screws."
    const NOT_OUT: [&str; 8] = ["expose", "reveal", "uncover", "stripped", "chewed", "missed", "missing", "dropped"];
    let begins = |word: &str| NOT_OUT.iter().any(|w| word.starts_with(w));
    // "Leave the last two screws in for now."
    let stays = s.text.to_lowercase().split_whitespace().any(|w| w == "leave" || w == "leaving");
    let happened = s.text.split_whitespace().any(begins) || s.text.contains("comes with") || stays;
    if happened {
        return None;
    }
    // "Note where the longer screw goes."
    let noted = |d: &Deed| d.act == Act::Mark && d.start < s.end && s.start < d.end;
    if deeds.iter().any(|d| told(d) || noted(d)) {
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
        condition: None,
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
fn nearest(deeds: &[Deed], s: &Statement, fits: impl Fn(&Deed) -> bool) -> Option<usize> {
    /// Characters around a statement in which its act is looked for.
    const AROUND: usize = 3000;
    let from = deeds.partition_point(|d| d.start + AROUND < s.start);
    let to = deeds.partition_point(|d| d.start < s.end + AROUND);
    let deeds = &deeds[from..to];
    // Captions cut a sentence, so that the two may begin in different ones.
    let overlaps = |d: &Deed| d.start < s.end && s.start < d.end;
    let here = |d: &Deed| ((s.cue..=s.last_cue).contains(&(d.cue as u32)) || overlaps(d)) && fits(d);
    let before = deeds.iter().rposition(|d| here(d) && d.start < s.end);
    Some(from + before.or_else(|| deeds.iter().position(here))?)
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
        // The statement has seen what was counted aloud and put right; a single one may be one of several.
        let told = g.count.filter(|n| *n > 1 && d.because != IN_A_ROW);
        d.count = told.or(d.count).or(g.count);
        // The act may have its drive from the list of tools alone.
        if g.drive.is_some() && g.drive != d.drive {
            d.bit = g.bit.clone();
        }
        d.drive = g.drive.or(d.drive);
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
    use super::super::super::facts::FastenerFact;
    use super::super::super::{draft_guide, read};
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

    /// Captions cut the counting from the count.
    #[test]
    fn what_was_pointed_at_is_counted_a_breath_later() {
        let told = texts(
            "[0:00] now there's one screw here one here one here and one here\n\n\
             [0:05] so four screws Phillips one they're twelve millimetres long and they hold the bottom cover\n\n\
             [0:12] so now take the bottom cover off",
        );
        assert_eq!(told[0], "Undo the four PH screws (12 mm) of the bottom cover.", "{told:?}");
        assert_eq!(told.len(), 2, "{told:?}");
    }

    #[test]
    fn no_act_takes_the_figures_of_another_segment() {
        let told = texts(
            "[0:00] Remove two T5 screws from the lid.\n\n[0:20] Remove three PH0 screws, 4 millimetres, from the cage.",
        );
        assert_eq!(told, ["Undo the two T5 screws of the lid.", "Undo the three PH0 screws (4 mm) of the cage."]);
    }

    fn drives(text: &str) -> Vec<Option<String>> {
        let sheet = read(&Recording::parse(text.as_bytes()).unwrap()).sheet;
        let named = |f: &FastenerFact| f.drive.map(|d| f.bit.clone().unwrap_or_else(|| d.name().to_owned()));
        sheet.fasteners.iter().map(|f| named(&f.fact)).collect()
    }

    #[rstest]
    #[case::in_the_hand(
        "Take the T5 driver. Undo two screws of the lid. Take off the lid. Lift the tray out. Undo three screws of the cage.",
        &[Some("T5"), Some("T5")]
    )]
    #[case::until_another_is_taken(
        "Take the T5 driver. Undo two screws of the lid. Take off the lid. Grab the number one Phillips. \
         Undo three screws of the cage.",
        &[Some("T5"), Some("PH1")]
    )]
    #[case::of_the_whole_device(
        "The screws in this thing are all T6. Undo two screws of the lid. Undo three screws of the cage.",
        &[Some("T6"), Some("T6")]
    )]
    #[case::of_one_part_only(
        "All six screws of the lid are T6. Take off the lid. Undo three screws of the cage.",
        &[Some("T6"), None]
    )]
    fn a_driver_stays_in_the_hand(#[case] text: &str, #[case] wanted: &[Option<&str>]) {
        let heard = drives(&format!("[0:00] {text}"));
        assert_eq!(heard.iter().map(Option::as_deref).collect::<Vec<_>>(), wanted);
    }

    #[test]
    fn screws_go_back_with_the_driver_that_took_them_out() {
        let heard = drives(
            "[0:00] Undo four T5 screws of the lid. Take off the lid. Undo three PH0 screws of the cage. Lift out the cage.\n\n\
             [0:30] Now everything goes back together. Put the cage in. Drive three screws into the cage. Put the lid on. \
             Drive four screws into the lid.",
        );
        assert_eq!(heard.iter().flatten().collect::<Vec<_>>(), ["T5", "PH0", "PH0", "T5"]);
    }
}
