//! Whom a cable serves that is shown before somebody handles it.
//!
//! Hardly anybody says "unplug the pump's plug". The cable is shown ("there's a wire to the pump", "two plugs are on the back
//! of the buzzer"), and a sentence later "the plug" comes off. Each construction that tells whose it is stands here by itself.

use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::phrases::Phrase;
use super::told::Topic;

/// One sentence, clause by clause, and what was spoken of before it.
struct Shown<'a> {
    number: usize,
    clauses: &'a [Clause],
    topic: &'a Topic,
}

/// The owner of the cable that a sentence speaks of, by the construction that tells it last.
pub(super) fn whom_it_serves(number: usize, clauses: &[Clause], topic: &Topic) -> Option<Phrase> {
    let shown = Shown { number, clauses, topic };
    (0..clauses.len()).rev().find_map(|n| {
        shown
            .led_to(n)
            .or_else(|| shown.led_from(n))
            .or_else(|| shown.hangs_on_it(n))
            .or_else(|| shown.has_it(n))
            .or_else(|| shown.carries_it(n))
    })
}

impl Shown<'_> {
    /// "There's a cable going to the keypad.", "This one is the ribbon for the dial."
    fn led_to(&self, n: usize) -> Option<Phrase> {
        let places = self.near(n).filter(|k| leads(k)).flat_map(|k| &k.places);
        let to = |p: &str| matches!(p, "to" | "for");
        let part = |np: &Phrase| matches!(np.kind, Kind::Part | Kind::Key) && !is_board(np);
        let to = places.clone().find(|(p, np)| to(p) && part(np));
        to.filter(|_| self.plug(n)).map(|(_, np)| np.clone())
    }

    /// "a ribbon going from the keyboard across to the main board", "The lamp board is clipped in, and a flex goes down from it."
    fn led_from(&self, n: usize) -> Option<Phrase> {
        let mut places = self.near(n).flat_map(|k| &k.places);
        let from = places.clone().find(|(p, _)| p == "from").map(|(_, np)| np).filter(|_| self.plug(n))?;
        if from.is_pronoun() && from.head() == "it" {
            return self.spoken_of(1);
        }
        let board = places.any(|(p, np)| p == "to" && is_board(np));
        (board && matches!(from.kind, Kind::Part | Kind::Device) && from.definite).then(|| from.clone())
    }

    /// "The battery is on a big plug.", "The battery sits in here, and it's wired with a big plug."
    fn hangs_on_it(&self, n: usize) -> Option<Phrase> {
        let c = &self.clauses[n];
        let on = |p: &str| matches!(p, "on" | "by" | "with");
        let plug = c.places.iter().any(|(p, np)| on(p) && np.kind == Kind::Plug && !np.definite);
        self.subject(n).filter(|_| c.base == "be" && plug)
    }

    /// "The fan sits on the lid, and it has a wire of its own.", "That has two screws and one plug with five wires."
    fn has_it(&self, n: usize) -> Option<Phrase> {
        let c = &self.clauses[n];
        let has = matches!(c.base.as_str(), "have" | "get") && !c.negated && !c.order && !c.passive;
        let plug = c.objects.iter().any(|o| o.kind == Kind::Plug && !o.definite && o.of.is_empty());
        self.subject(n).filter(|s| has && plug && !is_board(s))
    }

    /// "Two flat plugs are on the back of the buzzer."
    fn carries_it(&self, n: usize) -> Option<Phrase> {
        let c = &self.clauses[n];
        let shows = matches!(c.base.as_str(), "be" | "sit" | "hang" | "go") && !c.negated;
        let mut plugs = c.subjects.iter().chain(&c.objects);
        let plug = plugs.any(|o| o.kind == Kind::Plug && !o.definite && o.of.is_empty());
        let at = |p: &str| matches!(p, "on" | "onto" | "into" | "at");
        let place = c.places.iter().find(|(p, np)| shows && plug && at(p) && np.kind == Kind::Part)?;
        let side =
            matches!(place.1.head(), "back" | "side" | "front" | "end" | "bottom" | "top" | "rear" | "underside");
        // "Lift it slowly because two plugs are on the back.": of what is lifted.
        let lifted = if side && place.1.of.is_empty() { self.spoken_of(1) } else { None };
        if lifted.is_some() {
            return lifted;
        }
        let owner = if side { place.1.of.first()? } else { &place.1 };
        (owner.kind == Kind::Part && owner.definite && !is_board(owner)).then(|| owner.clone())
    }

    /// Who has or hangs on it: named, or "it" for what was named in the sentence or right before.
    fn subject(&self, n: usize) -> Option<Phrase> {
        let subject = self.clauses[n].subjects.first()?;
        if subject.kind == Kind::Part && subject.definite {
            return Some(subject.clone());
        }
        let it = subject.is_pronoun() && matches!(subject.head(), "it" | "that" | "this") && subject.said.len() == 1;
        let part = |s: &&Phrase| s.kind == Kind::Part && s.definite;
        let here = || self.clauses[..n].iter().rev().flat_map(|k| &k.subjects).find(part).cloned();
        here().filter(|_| it).or_else(|| self.spoken_of(1).filter(|_| it))
    }

    /// The part spoken of last, no more than so many sentences ago; before all what the last sentence told of.
    fn spoken_of(&self, ago: usize) -> Option<Phrase> {
        if let Some((_, subject)) = self.topic.subject.as_ref().filter(|(at, _)| self.number - at <= ago) {
            return Some(subject.clone());
        }
        let part = self.topic.one.as_ref().filter(|(at, p, _)| self.number - at <= ago && p.kind == Kind::Part);
        part.map(|(_, p, _)| p.clone())
    }

    /// A clause with what is said of its thing.
    fn near(&self, n: usize) -> impl Iterator<Item = &Clause> + Clone {
        let next = self.clauses.get(n + 1).filter(|k| matches!(k.mood, Mood::Means | Mood::Relative));
        [Some(&self.clauses[n]), next].into_iter().flatten()
    }

    /// It speaks of a cable that nobody has told the owner of.
    fn plug(&self, n: usize) -> bool {
        let c = &self.clauses[n];
        c.objects.iter().chain(&c.subjects).any(|p| p.kind == Kind::Plug && p.of.is_empty())
    }
}

fn leads(c: &Clause) -> bool {
    matches!(c.base.as_str(), "go" | "lead" | "run" | "come" | "connect" | "belong" | "be" | "have" | "get")
}

/// Where cables end, and whom none of them serves.
pub(super) fn is_board(p: &Phrase) -> bool {
    matches!(p.text().as_str(), "board" | "main board" | "mainboard" | "motherboard" | "logic board" | "circuit board")
}
