//! What screws hold that go back told by their size alone: "Board in. Volume wheel on. The four T5s." are the board's.
//!
//! Whoever puts things together names the screws by what tells them apart, and trusts that everybody remembers where such
//! screws came out. So does this pass: where only one part had screws like them, they go back into that part.

use super::Statement;
use super::deeds::{Deed, Half, group};
use super::facts::{Drive, FastenerOp};
use super::lexicon::lemma;
use super::wording::ScrewGroup;

/// Screws of one part.
struct Home {
    part: String,
    screws: ScrewGroup,
}

/// Gives screws that went back their part, in the facts and in the deeds.
pub(super) fn find(statements: &mut [Statement], deeds: &mut [Deed], text: &[char]) {
    let homes = homes(statements);
    let mut filled: Vec<String> = Vec::new();
    let goes_in = |s: &&mut Statement| s.facts.fasteners.iter().any(|f| f.op == FastenerOp::Install);
    for s in statements.iter_mut().filter(goes_in) {
        let words = words(&s.text);
        for f in s.facts.fasteners.iter_mut().filter(|f| f.op == FastenerOp::Install) {
            let told = group(f);
            let named = f.what.as_ref().is_some_and(|w| is_named(w, &words));
            let home = (!named).then(|| home(&told, f.what.as_deref(), &homes, &filled)).flatten();
            f.what = home.or(f.what.take());
            filled.extend(f.what.clone());
        }
    }
    let homes = homes_of_deeds(deeds);
    filled.clear();
    for d in deeds.iter_mut().filter(|d| d.half == Half::Together && d.act == super::Act::Drive) {
        let here: String = text[d.start.min(text.len())..d.end.min(text.len())].iter().collect();
        let words = words(&here);
        let [part] = &d.what[..] else { continue };
        let [told] = &d.screws()[..] else { continue };
        let home = (!is_named(part, &words)).then(|| home(told, Some(part), &homes, &filled)).flatten();
        if let Some(home) = home {
            d.what = vec![home];
        }
        filled.extend(d.what.iter().cloned());
    }
}

/// What screws came out of, with their sizes, where a size is told.
fn homes(statements: &[Statement]) -> Vec<Home> {
    let out = |op: FastenerOp| matches!(op, FastenerOp::Remove | FastenerOp::Loosen);
    let groups = statements.iter().flat_map(|s| &s.facts.fasteners).filter(|f| out(f.op));
    groups.filter_map(|f| Some(Home { part: f.what.clone()?, screws: group(f) })).collect()
}

fn homes_of_deeds(deeds: &[Deed]) -> Vec<Home> {
    let out = |d: &&Deed| d.half == Half::Apart && matches!(d.act, super::Act::Unscrew | super::Act::Loosen);
    let groups = |d: &Deed| {
        let part = d.what.first().cloned().unwrap_or_default();
        d.screws().into_iter().map(move |screws| Home { part: part.clone(), screws }).collect::<Vec<_>>()
    };
    deeds.iter().filter(out).filter(|d| d.what.len() == 1).flat_map(groups).collect()
}

/// The one part whose screws are such, where the part that was guessed has none like them.
fn home(told: &ScrewGroup, guess: Option<&str>, homes: &[Home], filled: &[String]) -> Option<String> {
    let telling = told.bit.is_some() || told.length_mm.is_some();
    let alike = |h: &&Home| is_like(told, &h.screws);
    let guessed = guess.is_some_and(|g| homes.iter().filter(alike).any(|h| same_part(&h.part, g)));
    if !telling || guessed {
        return None;
    }
    let mut left = homes.iter().filter(alike).filter(|h| !filled.contains(&h.part)).map(|h| &h.part);
    let first = left.next()?;
    left.all(|part| part == first).then(|| first.clone())
}

/// Nothing that is told of both speaks against it.
fn is_like(told: &ScrewGroup, out: &ScrewGroup) -> bool {
    let sized =
        told.bit.is_some() && told.bit == out.bit || told.length_mm.is_some() && told.length_mm == out.length_mm;
    let other = |a: Option<Drive>, b: Option<Drive>| a.is_some() && b.is_some() && a != b;
    let bits = told.bit.is_some() && out.bit.is_some() && told.bit != out.bit;
    let lengths = told.length_mm.is_some() && out.length_mm.is_some() && told.length_mm != out.length_mm;
    sized && !other(told.drive, out.drive) && !bits && !lengths
}

fn same_part(a: &str, b: &str) -> bool {
    a == b || a.rsplit(' ').next() == b.rsplit(' ').next()
}

fn words(text: &str) -> Vec<String> {
    super::sentences::words(text).map(|w| lemma(&w).to_string()).collect()
}

fn is_named(part: &str, words: &[String]) -> bool {
    let last = lemma(part.rsplit(' ').next().unwrap_or(part));
    words.iter().any(|w| *w == *last)
}

#[cfg(test)]
mod tests {
    use super::super::{draft_guide, read};
    use crate::recording::Recording;
    use rstest::rstest;

    const APART: &str = "[0:00] Undo four T6 screws, 8 millimetres, of the lid. Take off the lid. \
        Undo five T5 screws of the main board. Take out the main board. Pull off the volume wheel.\n\n\
        [0:30] Now everything goes back together. Put the main board in. Volume wheel back on. ";

    #[rstest]
    #[case::by_their_bit("The five T5 screws go in.", "main board")]
    #[case::by_their_length("Put the 8 millimetre screws in.", "lid")]
    #[case::named_with_their_part("Drive three T5 screws into the lid.", "lid")]
    #[case::nothing_tells("The screws go in.", "volume wheel")]
    fn screws_go_back_where_such_screws_came_out(#[case] text: &str, #[case] part: &str) {
        let recording = Recording::parse(format!("{APART}{text}").as_bytes()).unwrap();
        let fact = read(&recording).sheet.fasteners.pop().expect("screws go in");
        assert_eq!(fact.fact.what.as_deref(), Some(part));
        let guide = draft_guide(&recording);
        let last = guide.steps.iter().flat_map(|s| &s.acts).next_back().expect("an act");
        assert!(last.text.contains(part), "{}", last.text);
    }

    #[rstest]
    #[case::one_of_its_drive("A Phillips double zero, tweezers and a spudger.", Some("PH00"))]
    #[case::two_of_its_drive("A Phillips double zero, a Phillips number one, tweezers and a spudger.", None)]
    fn the_only_bit_of_a_drive_serves_its_screws(#[case] kit: &str, #[case] bit: Option<&str>) {
        let text =
            format!("[0:00] You need: {kit}\n\n[0:20] Remove three Phillips screws from the lid. Take off the lid.");
        let sheet = read(&Recording::parse(text.as_bytes()).unwrap()).sheet;
        assert_eq!(sheet.fasteners[0].fact.bit.as_deref(), bit);
    }
}
