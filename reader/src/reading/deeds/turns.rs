//! What the rebuild tells by naming it: "next up is the battery", "then comes the bracket with its two screws", "with the
//! board in, we can plug in the keypad".
//!
//! Whoever puts a thing together reels off what is still on the bench. Each of these is an act only where that thing is out,
//! which `objects` knows.

use super::super::Act;
use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::phrases::Phrase;
use super::told::{Reader, Told, has};

/// Why a thing that is named goes back.
pub(super) const NEXT: &str = "named as what is next";
/// Why a thing went in that is spoken of as being in.
pub(super) const IN_BY_NOW: &str = "and it is in";

impl Told {
    /// Nothing but named, as far as the words go.
    pub(super) fn is_named_next(&self) -> bool {
        self.apart.is_none() && matches!(self.together, Some((_, NEXT)))
    }
}

impl Reader<'_> {
    /// "The last thing is the rear shell.", "What's left is the lid and four screws."
    pub(super) fn its_turn(&self) -> Vec<Told> {
        let Some(c) = self.clauses.iter().find(|c| self.names_the_next(c)) else { return Vec::new() };
        let with = c.places.iter().filter(|(p, np)| p == "with" && np.kind == Kind::Screw).map(|(_, np)| np);
        let named = c.objects.iter().filter(|o| o.is_thing() && !o.is_pronoun());
        named.chain(with).filter_map(|thing| self.goes_back(c, thing)).collect()
    }

    fn names_the_next(&self, c: &Clause) -> bool {
        const IS: [&str; 10] = [
            "next up is",
            "up next is",
            "last up is",
            "next is",
            "last thing is",
            "next thing is",
            "last piece is",
            "next piece is",
            "next part is",
            "last part is",
        ];
        const LEFT: [&str; 6] =
            ["what 's left is", "what is left is", "left is", "left are", "that leaves", "that just leaves"];
        let told = c.mood == Mood::Plain && !c.negated && !c.supposed && !c.objects.is_empty();
        let is = c.base == "be" && IS.iter().chain(&LEFT).any(|p| has(self.text, p));
        let leaves = c.base == "leave" && LEFT.iter().any(|p| has(self.text, p));
        // "Then comes the bracket with its two screws."
        let before = c.verb.and_then(|v| self.words[c.from..v].last());
        let follows =
            before.is_some_and(|w| matches!(w.said.as_str(), "then" | "next" | "now" | "last" | "lastly" | "finally"));
        let comes = matches!(c.base.as_str(), "come" | "follow") && c.subjects.is_empty() && c.particles.is_empty();
        told && (is || leaves || comes && follows)
    }

    fn goes_back(&self, c: &Clause, thing: &Phrase) -> Option<Told> {
        let act = match thing.kind {
            Kind::Plug => Act::Connect,
            Kind::Screw if thing.count.is_some() || thing.definite => Act::Drive,
            Kind::Part | Kind::Key | Kind::Film if thing.definite => Act::Install,
            _ => return None,
        };
        Some(self.now_in(c, thing, act, NEXT))
    }

    /// Lays what went in by now before what is done next, unless that tells of it too.
    pub(super) fn put_in_by_now(&self, out: &mut Vec<Told>) {
        for told in self.is_in() {
            let same = |t: &Told| t.objects.iter().any(|o| o.from == told.objects[0].from);
            if !out.iter().any(same) {
                let at = out.iter().position(|t| t.start >= told.start).unwrap_or(out.len());
                out.insert(at, told);
            }
        }
    }

    /// "I've got the cage in, tray's in.", "Once the battery's in, …": they went in, where things go together.
    fn is_in(&self) -> Vec<Told> {
        let way = |c: &Clause| {
            let back = matches!(&c.particles[..], [back, way] if back == "back" && matches!(way.as_str(), "in" | "on"));
            let only = matches!(&c.particles[..], [way] if matches!(way.as_str(), "in" | "back"));
            // "Push it down until it clicks, and the back's on."
            let shuts = |s: &Phrase| {
                matches!(s.head(), "back" | "cover" | "lid" | "panel" | "shell" | "door" | "cap" | "bezel" | "case")
            };
            let shut = c.from > 0 && c.particles == ["on"] && c.subjects.iter().all(shuts);
            (back || only || shut) && c.places.is_empty()
        };
        let part = |p: &&Phrase| p.kind == Kind::Part && !p.is_pronoun() && !p.plural;
        let told = |c: &Clause| {
            let now = c.mood == Mood::Plain || c.mood == Mood::After && c.base == "be";
            let plain = now && !c.negated && !c.supposed && !c.passive && way(c);
            let got = c.base == "get" && c.agent() && self.words[c.verb.unwrap_or(c.from)].said == "got";
            let thing = if got { c.objects.first() } else { c.subjects.first().filter(|_| c.base == "be") };
            let thing = thing.filter(part).filter(|_| plain)?;
            Some(self.now_in(c, thing, Act::Install, IN_BY_NOW))
        };
        let with = self.with_it_in().map(|(c, thing)| self.now_in(c, thing, Act::Install, IN_BY_NOW));
        with.into_iter().chain(self.clauses.iter().filter_map(told)).collect()
    }

    /// "With the board in, we can plug in the keypad."
    fn with_it_in(&self) -> Option<(&Clause, &Phrase)> {
        let first = self.words.iter().find(|w| !matches!(w.said.as_str(), "so" | "and" | "okay" | "now"))?;
        let c = self.clauses.first().filter(|_| first.is("with"))?;
        let (_, thing) = c.places.iter().find(|(p, np)| p == "with" && np.kind == Kind::Part && np.definite)?;
        let behind = |n: usize| self.words.get(thing.to + n).filter(|_| !self.words[thing.to + n - 1].pause);
        let way = |n: usize| behind(n).is_some_and(|w| matches!(w.said.as_str(), "in" | "on") && w.pause);
        let back = behind(0).is_some_and(|w| w.is("back"));
        (way(0) || back && way(1)).then_some((c, thing))
    }

    fn now_in(&self, c: &Clause, thing: &Phrase, act: Act, because: &'static str) -> Told {
        Told {
            apart: None,
            together: Some((act, because)),
            objects: vec![thing.clone()],
            count: thing.count.filter(|_| thing.kind == Kind::Screw),
            places: Vec::new(),
            particles: Vec::new(),
            confidence: 0.6,
            state: because == IN_BY_NOW,
            ..self.blank(c)
        }
    }
}
