//! Whether a clause tells something that is done, and what it is done to.
//!
//! "The lid comes off", "it has to be taken out", "once you lift it", "use a card to part it": many ways to say that hands do
//! something, and as many that only look so. Asked in this order: the mood of the clause (`moods`), what turns it away
//! (here), what it is done to (`things`), and what is put right about that (`objects`). `signs` holds what the rules ask of
//! a clause.

mod elsewhere;
mod moods;
mod objects;
mod signs;
mod things;

use super::super::tags::Form;
use super::clauses::{Clause, Mood};
use super::phrases::Phrase;
use super::told::{Reader, Told, has};
use super::words::{Tag, Word};
use elsewhere::ELSEWHERE;
use moods::Mooded;
use signs::due_now;

type Sign = fn(&Reader<'_>, usize, &Clause) -> bool;

/// Clauses that only look as if something were done.
const NOT_DONE: &[Sign] = &[
    stays,
    is_for,
    reported,
    carried,
    minded,
    offered,
    asked,
    is_unplugged,
    may_happen,
    goes_back_then,
    always,
    none_is,
    only_by_some,
    crumbs,
];

impl Reader<'_> {
    pub(super) fn done(&self, n: usize, c: &Clause) -> Option<(Vec<Phrase>, Told)> {
        let due = self.is_due(c);
        let Mooded { result, mut confidence } = self.mooded(n, c, due)?;
        if NOT_DONE.iter().chain(ELSEWHERE).any(|sign| sign(self, n, c)) {
            return None;
        }
        let mut told = self.blank(c);
        let things = self.named(n, c, &self.done_to(n, c, due)?);
        let objects = self.mended(n, c, things, &mut told);
        // "You can …", "I've …": told less surely.
        confidence -= if c.possible { 0.1 } else { 0.0 };
        let had = c.perfect && !c.passive;
        confidence -= if had { 0.2 } else { 0.0 };
        told.confidence = confidence;
        told.result = result || had || c.base == "be" || c.mood == Mood::Until;
        // "The speaker plugs in right here.": how it is, while things come apart.
        let plugs = c.base == "plug" && !c.agent() && !c.order && !c.passive && !c.subjects.is_empty();
        let back = c.particles.iter().any(|p| p == "back");
        told.state = c.passive && self.describes(c, due) || plugs && !back;
        Some((objects, told))
    }
}

/// "The plate should come off now, but it doesn't want to."
fn stays(r: &Reader<'_>, n: usize, c: &Clause) -> bool {
    let should = || {
        let before = &r.words[c.from..c.verb.unwrap_or(c.from)];
        before.iter().any(|w| matches!(w.said.as_str(), "should" | "ought"))
    };
    // "It should come away, but mind the wires."
    let minds = |k: &Clause| matches!(k.base.as_str(), "mind" | "watch") && k.order;
    r.clauses.get(n + 1).is_some_and(|k| k.negated && !k.order || minds(k)) && should()
}

/// "All they've got to do is hold the lid down.": what things are for.
fn is_for(r: &Reader<'_>, n: usize, c: &Clause) -> bool {
    let things = |k: &Clause| k.base == "do" && k.subjects.last().is_some_and(|s| matches!(s.head(), "they" | "it"));
    c.order && n > 0 && things(&r.clauses[n - 1])
}

/// "The customer says that …", "I've already taken it down."
fn reported(r: &Reader<'_>, n: usize, c: &Clause) -> bool {
    let says = |k: &Clause| {
        matches!(
            k.base.as_str(),
            "say" | "tell" | "complain" | "claim" | "report" | "think" | "believe" | "hope" | "suppose" | "assume"
        )
    };
    let said = n > 0 && says(&r.clauses[n - 1]) && !c.order && c.mood != Mood::Purpose;
    let before = has(r.text, "already") || has(r.text, "earlier") || r.text.contains("off camera");
    // "The brick was pulled out an hour ago."
    let ago = has(r.text, "ago") || has(r.text, "last night") || has(r.text, "yesterday");
    if ago && (c.passive || c.form == Form::Past) {
        return true;
    }
    said || (c.perfect || c.form == Form::Past && c.agent()) && before
}

/// "Take it to a drop off.": carried somewhere, and not taken off.
fn carried(_: &Reader<'_>, _: usize, c: &Clause) -> bool {
    matches!(c.base.as_str(), "take" | "bring") && c.places.iter().any(|(p, np)| p == "to" && !np.definite)
}

/// "Check that the leads do not get pinched.": a caution, and no test.
fn minded(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let harm = ["pinched", "trapped", "squeezed", "crushed", "caught"].iter().any(|w| has(r.text, w));
    harm && matches!(c.base.as_str(), "check" | "verify" | "confirm" | "make" | "ensure" | "see")
}

/// "You can replace the cell.", "It can be changed without opening the case."
fn offered(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let without = r.text.contains("without ") && c.passive && !due_now(r.text);
    let example = ["such a", "any "].iter().any(|p| r.text.contains(p));
    let renews = matches!(c.base.as_str(), "replace" | "change" | "swap" | "try");
    c.possible && (without || c.agent() && (example || renews))
}

/// "Is it plugged in?", "Are you not worried about getting a shock?"
fn asked(r: &Reader<'_>, n: usize, c: &Clause) -> bool {
    let mut words = r.words.iter().skip_while(|w| matches!(w.tag, Tag::Conj) || w.is("so") || w.is("okay"));
    let is =
        words.next().is_some_and(|w| matches!(w.said.as_str(), "is" | "are" | "was" | "were" | "did" | "does" | "do"));
    let whom =
        words.next().is_some_and(|w| matches!(w.said.as_str(), "it" | "you" | "they" | "that" | "this" | "i" | "we"));
    is && whom && !c.order && n <= 2
}

/// "It's unplugged, and there's no capacitor in here.": how it is.
fn is_unplugged(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let state = c.passive && matches!(c.base.as_str(), "unplug" | "disconnect" | "plug");
    let it = c.subjects.iter().all(|s| matches!(s.head(), "it" | "that" | "this") && s.is_pronoun());
    let is = c.verb.is_some_and(|v| v > 0 && matches!(r.words[v - 1].said.as_str(), "'s" | "is"));
    state && it && is && c.mood == Mood::Plain && !due_now(r.text)
}

/// "Its two springs may fall out."
fn may_happen(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let may = |w: &Word| matches!(w.said.as_str(), "may" | "might" | "could");
    let itself = !c.subjects.is_empty() && !c.agent() && !c.passive;
    itself && r.words[c.from..c.verb.unwrap_or(c.from)].iter().any(may)
}

/// "It's four, with washers, and the washers must go back.": later.
fn goes_back_then(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let must = |w: &Word| matches!(w.said.as_str(), "must" | "has" | "have" | "need" | "needs");
    let back = c.base == "go" && c.particles.iter().any(|p| p == "back") && c.particles.len() == 1;
    back && !due_now(r.text) && r.words[c.from..c.verb.unwrap_or(c.from)].iter().any(must)
}

/// "…, making sure that no cable is squeezed."
fn none_is(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let none = |s: &Phrase| {
        s.from > 0 && matches!(r.words[s.from - 1].said.as_str(), "no" | "none")
            || matches!(r.words[s.from].said.as_str(), "no" | "none" | "nothing")
    };
    // "Neither of the cables has to come off."
    let neither = |s: &Phrase| matches!(r.words[s.from].said.as_str(), "none" | "neither" | "nothing");
    c.passive && c.subjects.last().is_some_and(none) || !c.agent() && c.subjects.last().is_some_and(neither)
}

/// "The housing may only be opened by licensed personnel."
fn only_by_some(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let only = r.words[c.from..c.verb.unwrap_or(c.from)].iter().any(|w| w.is("only"));
    c.passive && c.possible && only && c.places.iter().any(|(p, _)| p == "by")
}

/// "Both gears are replaced, always as a pair."
fn always(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    c.passive && c.base == "replace" && has(r.text, "always")
}

/// "Bits of glass are gonna come off.", "The coating comes off."
fn crumbs(r: &Reader<'_>, _: usize, c: &Clause) -> bool {
    let bits = |w: &Word| matches!(w.said.as_str(), "bits" | "pieces" | "chunks" | "shards" | "splinters" | "crumbs");
    let coat =
        |s: &Phrase| matches!(s.head(), "coating" | "paint" | "lacquer" | "varnish" | "finish" | "plating" | "print");
    !c.agent() && c.subjects.first().is_some_and(|s| coat(s) || r.words[s.from..s.to].iter().any(bits))
}
