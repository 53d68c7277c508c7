//! Screws that nobody calls so: "Base plate, screws next. Three along the front edge. Two beside the hinge."
//!
//! Whoever turns screws says the word once, or names their drive and never says it. Where the talk is of screws, a count
//! with a place, a drive or a length is a group of them. The phrases are made screws here, before anything is read off
//! them, so that every later rule hears "three screws along the front edge".

use super::super::extract::drive_near;
use super::super::sentences::Token;
use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::phrases::Phrase;
use super::told::Topic;
use super::words::{Tag, Word};

/// Sentences for which the talk is of screws once they were named.
const SPOKEN_OF: usize = 2;
/// More of them have no place that is told in passing.
const MOST: u32 = 30;

/// What tells that the counted things of a sentence are screws.
struct Talk {
    /// They are being listed: "Base plate, screws next."
    listed: bool,
    /// Their drive, said here or in the next sentence.
    drive: bool,
}

/// Whether a group of screws was made out.
pub(super) fn name_screws(
    words: &[Word],
    clauses: &mut [Clause],
    number: usize,
    topic: &Topic,
    next: &[Token],
) -> bool {
    let lemmas: Vec<&str> = words.iter().map(|w| w.lemma.as_str()).collect();
    let next: Vec<&str> = next.iter().map(|t| t.lemma.as_str()).collect();
    // "Seven screws. Two at the left …": what was counted is only told in parts.
    let counted_before = topic.screws.as_ref().is_some_and(|(at, p)| number - at <= SPOKEN_OF && p.count.is_some());
    let listed = topic.listing.is_some_and(|at| number - at <= SPOKEN_OF);
    let said = clauses.iter().flat_map(Clause::things).any(|p| p.kind == Kind::Screw);
    of_the_same(words, clauses, topic);
    and_more(clauses);
    let drive = !counted_before && !said && (tells_drive(&lemmas) || says_which(&next));
    let talk = Talk { listed, drive };
    if !(talk.listed || talk.drive) || clauses.iter().any(|c| c.mood == Mood::Question) {
        return false;
    }
    clauses.iter_mut().map(|c| counted(words, c, &talk)).filter(|named| *named).count() > 0
}

/// "Three of the same, five millimetres."
fn of_the_same(words: &[Word], clauses: &mut [Clause], topic: &Topic) {
    let same = |p: &&mut Phrase| {
        let behind: Vec<&str> = words[p.from..].iter().skip(1).map(|w| w.said.as_str()).take(3).collect();
        p.is_pronoun() && p.count.is_some_and(|n| n > 1) && behind == ["of", "the", "same"]
    };
    if topic.screws.is_some() {
        clauses.iter_mut().flat_map(|c| c.objects.iter_mut().chain(&mut c.subjects)).filter(same).for_each(as_screws);
    }
}

/// "Two screws at the socket, one at the far edge.": more of them, at another place.
fn and_more(clauses: &mut [Clause]) {
    let bare = |c: &Clause| c.verb.is_none() && c.particles.is_empty() && !c.places.is_empty();
    for n in 1..clauses.len() {
        let (before, rest) = clauses.split_at_mut(n);
        let (first, more) = (&before[n - 1], &mut rest[0]);
        let counted = |p: &Phrase| p.kind == Kind::Screw && p.count.is_some();
        let listed = !first.places.is_empty() && first.things().any(counted) && bare(more);
        if let ([one], true) = (&mut more.objects[..], listed)
            && one.is_pronoun()
            && one.count.is_some()
        {
            as_screws(one);
        }
    }
}

fn tells_drive(lemmas: &[&str]) -> bool {
    drive_near(lemmas, 0, lemmas.len()).is_some()
}

/// "They're torx, T6.", "Those are double zero."
fn says_which(next: &[&str]) -> bool {
    let points = next.iter().take(2).any(|w| matches!(*w, "they" | "these" | "those" | "all" | "that"));
    let size = next.windows(2).any(|w| matches!(w, ["double" | "triple", "zero"] | ["number", "one" | "two"]));
    points && next.len() < 12 && (tells_drive(next) || size)
}

fn counted(words: &[Word], c: &mut Clause, talk: &Talk) -> bool {
    let shows = c.verb.is_none() || matches!(c.base.as_str(), "be" | "have" | "get");
    if !shows || c.negated || c.passive || c.order || c.supposed {
        return false;
    }
    let there = |p: &str| {
        matches!(p, "in" | "at" | "along" | "by" | "beside" | "under" | "on" | "around" | "near" | "beneath" | "behind")
    };
    let placed = c.places.iter().any(|(p, np)| there(p) && !np.is_pronoun());
    if !placed && !talk.drive {
        return false;
    }
    let bare = |p: &&mut Phrase| {
        let of = words.get(p.to).is_some_and(|w| w.is("of") || w.tag == Tag::Noun);
        let least = if talk.listed && placed { 1 } else { 2 };
        p.is_pronoun() && p.count.is_some_and(|n| (least..=MOST).contains(&n)) && !of && p.of.is_empty()
    };
    c.objects.iter_mut().chain(&mut c.subjects).filter(bare).map(as_screws).count() > 0
}

/// The phrase as if "screws" had been said.
pub(super) fn as_screws(p: &mut Phrase) {
    *p = Phrase { definite: false, ..p.as_screws() };
}

/// "The four long ones go in the corners.": where screws were spoken of, it is they that are long and short.
pub(super) fn long_ones(words: &[Word], c: &mut Clause) {
    // "Make sure the long ones go back where you got them."
    let sure = c.from > 0 && words[..c.from].iter().any(|w| matches!(w.said.as_str(), "sure" | "if"));
    if sure || !(c.verb.is_none() || c.base == "go") {
        return;
    }
    let size = |w: &Word| matches!(w.said.as_str(), "long" | "longer" | "longest" | "short" | "shorter" | "shortest");
    // "Four screws, the long ones at the bottom.": of those.
    let told = c.base == "go";
    let ones = |p: &&mut Phrase| {
        p.is_pronoun() && p.head() == "one" && (told || p.count.is_some()) && words[p.from..p.to].iter().any(size)
    };
    for p in c.subjects.iter_mut().chain(&mut c.objects).chain(c.places.iter_mut().map(|(_, p)| p)).filter(ones) {
        as_screws(p);
    }
}
