//! Screws that go back told by number and size alone: "Three at the top, 12 millimetres. Two of the 25s. And the 8 by the cord."
//!
//! Who has just put a cover back names neither it nor its screws again. That it is screws the sizes tell: they are those
//! that came out of the same part.

use super::Statement;
use super::act::Direction;
use super::extract::drive_near;
use super::facts::{FastenerFact, FastenerOp, PartOp};
use super::lexicon::{LEXICON, lemma};
use super::numbers;
use super::quantities;
use super::sentences;
use super::statements::StatementKind;
use crate::units;
use compact_str::CompactString;

/// So many sentences ago the part was put back, at most.
const NEAR: usize = 6;

/// Longer sentences tell something else.
const LONGEST: usize = 13;

pub(super) fn by_size(statements: &mut [Statement]) {
    for i in 1..statements.len() {
        let (before, after) = statements.split_at_mut(i);
        let here = &mut after[0];
        let acts = here.facts.parts.len() + here.facts.connectors.len();
        if !here.rebuild || !here.facts.fasteners.is_empty() || acts > 0 {
            continue;
        }
        if put_back(before, here.cue).next().is_none() {
            continue;
        }
        let words: Vec<CompactString> = sentences::words(&here.text).map(|w| lemma(&w)).collect();
        // "the 25s" is "25" and "s" to the passes before.
        let words: Vec<&str> = words.iter().map(CompactString::as_str).filter(|w| *w != "s").collect();
        if words.len() > LONGEST {
            continue;
        }
        let mut parts = put_back(before, here.cue);
        let found = parts.find_map(|part| Some((told(&words, &came_out_of(before, part))?, part.to_owned())));
        drop(parts);
        let Some(((count, length), part)) = found else { continue };
        let drive = drive_near(&words, 0, words.len());
        here.facts.fasteners.push(FastenerFact {
            op: FastenerOp::Install,
            count: Some(count),
            drive: drive.as_ref().map(|(d, _)| *d),
            bit: drive.and_then(|(_, bit)| bit),
            length: Some(units::millimetres(length)),
            captive: false,
            what: Some(part),
            guessed: false,
        });
        if here.kind == StatementKind::Chatter {
            here.kind = StatementKind::Observation;
        }
        here.because.push("a number and the size of screws that came out of the same part".to_owned());
    }
}

/// The parts that went back a moment ago, the last first.
fn put_back(before: &[Statement], cue: u32) -> impl Iterator<Item = &str> {
    let near = before.iter().rev().take(NEAR).take_while(move |s| cue <= s.cue + 1);
    let fitted = near.flat_map(|s| s.facts.parts.iter().rev()).filter(|p| p.op == PartOp::Install);
    fitted.map(|p| p.what.as_str())
}

/// Screws with a size that came out of a part: how many, how long in millimetres.
fn came_out_of(before: &[Statement], part: &str) -> Vec<(u32, f64)> {
    let same = |what: &Option<String>| {
        what.as_ref().is_some_and(|w| w == part || w.rsplit(' ').next() == part.rsplit(' ').next())
    };
    let groups = before.iter().flat_map(|s| &s.facts.fasteners);
    let out = groups.filter(|f| f.op.direction() == Direction::Out && same(&f.what));
    out.filter_map(|f| Some((f.count?, units::in_millimetres(f.length?)))).collect()
}

/// How many of which size a sentence tells, where it tells one of the sizes that came out.
fn told(words: &[&str], out: &[(u32, f64)]) -> Option<(u32, f64)> {
    let opens = |w: &&&str| matches!(**w, "and" | "then" | "also" | "so" | "now" | "plus");
    let from = words.iter().take_while(opens).count();
    let words = &words[from..];
    let of_size = |l: f64| out.iter().find(|(_, known)| (known - l).abs() < 0.05).copied();
    let sized = |at: usize| {
        let word = words.get(at)?;
        of_size(word.parse().ok().or_else(|| numbers::figure_at(words, at).map(|f| f.value))?)
    };
    if words.first() == Some(&"the") {
        let ends = words.get(2).is_none_or(|w| is_place(w) || matches!(*w, "one" | "with" | "go"));
        return sized(1).filter(|_| ends || LEXICON.units.at(words, 2).is_some());
    }
    let count = numbers::figure_at(words, 0).filter(|f| f.value.fract() == 0.0 && (1.0..=60.0).contains(&f.value))?;
    let rest = count.len;
    match words.get(rest)? {
        &"of" if words.get(rest + 1) == Some(&"the") => sized(rest + 2).map(|(_, l)| (count.value as u32, l)),
        place if is_place(place) => {
            let length = quantities::quantities_and_repeats(words)
                .iter()
                .find(|q| q.measure.quantity == units::Quantity::Length)
                .and_then(|q| of_size(q.measure.value))?;
            Some((count.value as u32, length.1))
        }
        _ => None,
    }
}

fn is_place(word: &str) -> bool {
    matches!(word, "at" | "in" | "on" | "along" | "by" | "here" | "there" | "up" | "down" | "under")
}

#[cfg(test)]
mod tests {
    use crate::reading::{FastenerOp, read};
    use crate::recording::Recording;
    use crate::units::in_millimetres;
    use rstest::rstest;

    const OUT: &str = "[0:00] Remove three PZ1 screws, 12 millimetres, and two PZ1 screws, 25 millimetres, from the back cover. \
                       Remove the back cover.\n\n[1:00] So, back together. Front board in, two screws. Back cover on. ";

    fn driven(told: &str) -> Vec<(Option<u32>, Option<f64>, Option<String>)> {
        let reading = read(&Recording::parse(format!("{OUT}{told}").as_bytes()).unwrap());
        let all = reading.statements.iter().flat_map(|s| &s.facts.fasteners);
        let back = all.filter(|f| f.op == FastenerOp::Install && f.length.is_some());
        back.map(|f| (f.count, f.length.map(in_millimetres), f.what.clone())).collect()
    }

    #[rstest]
    #[case::placed("Three at the top, 12 millimetres.", &[(3, 12.0)])]
    #[case::of_a_size("Two of the 25s in the bottom corners.", &[(2, 25.0)])]
    #[case::the_sized("Three at the top, 12 millimetres. And the 25s by the cord.", &[(3, 12.0), (2, 25.0)])]
    #[case::no_such_size("Two of the 40s in the bottom corners.", &[])]
    #[case::turns("Three of the rounds will do.", &[])]
    #[case::talk("The 25 people who wrote to me know who they are, thank you.", &[])]
    fn a_number_and_a_size_are_screws_where_such_came_out(#[case] said: &str, #[case] wanted: &[(u32, f64)]) {
        let cover = || Some("back cover".to_owned());
        let wanted: Vec<_> = wanted.iter().map(|(n, l)| (Some(*n), Some(*l), cover())).collect();
        assert_eq!(driven(said), wanted);
    }
}
