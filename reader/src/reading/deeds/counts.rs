//! How many screws, where no phrase of the act tells it: counted aloud, place by place, in a sentence of their own.

use super::super::Act;
use super::super::extract::aloud;
use super::super::numbers::figure_of;
use super::afterwards::{NAMED, SHOWN};
use super::clauses::Clause;
use super::grammar::Kind;
use super::phrases::Phrase;
use super::told::Told;

/// "There are two.", "There's eleven of them.", "I counted twenty two.": how many, of what was spoken of.
pub(super) fn how_many(c: &Clause) -> Option<u32> {
    let there = c.base == "be" && c.subjects.is_empty() && !c.order;
    let counts = c.base == "count" && c.agent();
    let [many] = &c.objects[..] else { return None };
    let told = (there || counts) && !c.negated && !c.supposed && c.places.is_empty() && c.particles.is_empty();
    many.count.filter(|n| told && many.is_pronoun() && *n > 1)
}

/// "One, two, and three.", "One here, one there and one down here.": counted aloud, and nothing else said.
pub(super) fn only_counts(lemmas: &[&str]) -> Option<u32> {
    const BESIDE: [&str; 14] =
        ["and", "here", "there", "down", "up", "okay", "so", "then", "another", "this", "that", "over", "the", "last"];
    let counts = |w: &&str| figure_of(w).is_some() || BESIDE.contains(w);
    // "Four.", "Four of them."
    let alone = || match lemmas {
        [n] | [n, "of", "them" | "these" | "those"] => figure_of(n).map(|n| n as u32),
        _ => None,
    };
    aloud(lemmas).filter(|_| lemmas.iter().all(counts)).or_else(alone).filter(|n| *n > 1)
}

/// "Now the screws."
pub(super) fn screws_named(a: &Told) -> bool {
    a.count.is_none() && matches!(a.apart, Some((Act::Unscrew, NAMED | SHOWN)))
}

/// "Base plate, screws next.", "The screws are as follows."
pub(super) fn announces_screws(clauses: &[Clause]) -> bool {
    let screws: Vec<&Phrase> = clauses.iter().flat_map(Clause::things).filter(|p| p.kind == Kind::Screw).collect();
    !screws.is_empty() && screws.iter().all(|p| p.count.is_none() && p.plural) && clauses.iter().all(|c| !c.negated)
}

/// "Rear housing, the screws are as follows.": of the housing.
pub(super) fn whose_screws(clauses: &[Clause]) -> Option<Phrase> {
    let named = |p: &&Phrase| p.kind == Kind::Part && !p.is_pronoun();
    clauses.iter().flat_map(|c| c.subjects.iter().chain(&c.objects)).find(named).cloned()
}

/// The rule that adds up what is shown place by place.
pub(super) const IN_A_ROW: &str = "screws are shown place by place";

/// "There's a screw here and there's a screw here.": two.
pub(super) fn one_and_one(out: &mut Vec<Told>) {
    let bare = |t: &Told| t.length_mm.is_none() && t.count.is_some();
    let placed = |t: &Told| matches!(t.apart, Some((Act::Unscrew, NAMED | IN_A_ROW))) && !t.places.is_empty();
    out.dedup_by(|more, first| {
        let shown = |t: &Told| matches!(t.apart, Some((Act::Unscrew, SHOWN | IN_A_ROW)));
        let one_more = shown(first) && more.apart == Some((Act::Unscrew, SHOWN)) && more.count == Some(1);
        // "Two at the left, two at the right."
        let elsewhere = placed(first) && placed(more) && first.places[0].1.text() != more.places[0].1.text();
        let both = (one_more || elsewhere) && bare(first) && bare(more);
        if both {
            first.count = first.count.zip(more.count).map(|(a, b)| a + b);
            first.end = more.end;
            first.apart = Some((Act::Unscrew, IN_A_ROW));
            first.together = first.together.map(|(act, _)| (act, IN_A_ROW));
        }
        both
    });
}
