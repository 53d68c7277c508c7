//! A way alone: "There's a plug for the lamp. Off.", "It has a white plug, so nail under, and pop."
//!
//! Whoever works while he talks shows a thing, and says one word when it is done. What the word tells follows from what was
//! shown: a plug that is "off" is undone, screws that are "out" are unscrewed, a part that is "up and away" has left.

use super::super::Act;
use super::super::wording::is_kept_in;
use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::names::is_part_head;
use super::phrases::Phrase;
use super::told::{Reader, TOOLS, Told, has};
use super::words::Tag;

/// Where the words of a sentence lead.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Way {
    Away,
    Home,
}

/// What a sentence says of the way, and from which of its words on.
struct Tail {
    from: usize,
    way: Way,
    /// "Off, off and off."
    times: usize,
}

fn way(word: &str) -> Option<Way> {
    Some(match word {
        "off" | "out" | "up" | "away" | "pop" | "free" | "gone" | "loose" => Way::Away,
        "in" | "on" | "home" | "click" | "clicks" | "snap" => Way::Home,
        _ => return None,
    })
}

/// Words that say nothing of their own beside a way.
fn beside(word: &str) -> bool {
    matches!(word, "and" | "so" | "then" | "there" | "straight" | "both" | "all" | "just" | "back" | "again")
}

impl Reader<'_> {
    /// The acts that a sentence without any other tells by its way.
    pub(super) fn bare(&self) -> Vec<Told> {
        if let Some(told) = self.put_in_the_tray() {
            return vec![told];
        }
        let Some(tail) = self.tail() else { return Vec::new() };
        if let Some(row) = self.row_undone(&tail) {
            return row;
        }
        // "Lamp cover. Two clips, squeeze, and off.": the clips only held it.
        let latch = |p: &Phrase| matches!(p.kind, Kind::Latch | Kind::Lever);
        let held = || self.clauses.iter().flat_map(|c| &c.objects).any(latch);
        let shown = match tail.from {
            // "Click." alone: of a plug, or of nothing that was named.
            0 => self.named_before().filter(|p| tail.way == Way::Away || p.kind == Kind::Plug),
            from => self.shown_here(from).or_else(|| self.named_before().filter(|_| held())),
        };
        let told = shown.and_then(|thing| self.gone(tail.way, thing));
        told.into_iter().collect()
    }

    fn tail(&self) -> Option<Tail> {
        let words = self.words;
        let bare = |i: usize| way(&words[i].said).is_some() || beside(&words[i].said) || words[i].tag == Tag::Num;
        let from = (0..words.len()).rev().take_while(|i| bare(*i)).last()?;
        // What stands in one breath with other words is their way.
        let parted = from == 0 || words[from - 1].pause || matches!(words[from].said.as_str(), "and" | "so");
        let mut ways = words[from..].iter().filter_map(|w| way(&w.said));
        let first = ways.next().filter(|_| parted)?;
        let rest: Vec<Way> = ways.collect();
        rest.iter().all(|w| *w == first).then_some(Tail { from, way: first, times: rest.len() + 1 })
    }

    /// "The limit switch has a white plug, so nail under, and pop."
    fn shown_here(&self, before: usize) -> Option<Phrase> {
        // "That's a press-on": what was shown before is of that kind.
        let is_one = |c: &Clause| {
            let it = c.subjects.first().is_none_or(Phrase::is_pronoun);
            c.base == "be" && it && (c.mood == Mood::Relative || !c.subjects.is_empty())
        };
        let shows = |c: &Clause| {
            let names = c.verb.is_none() && c.particles.is_empty();
            !c.negated && (names || matches!(c.base.as_str(), "be" | "have" | "see" | "find" | "get"))
        };
        let clauses = self.clauses.iter().enumerate().rev();
        let mut shown = clauses.filter(|(_, c)| c.from < before && shows(c) && !is_one(c)).flat_map(|(n, c)| {
            let mut things = c.subjects.iter().chain(&c.objects).filter(|p| p.to <= before && is_worked_on(p));
            things.next_back().map(|p| self.named(n, c, std::slice::from_ref(p))).unwrap_or_default()
        });
        shown.next()
    }

    /// What the sentence before has shown.
    fn named_before(&self) -> Option<Phrase> {
        // "It sits": no thing, whatever it looks like.
        let named_so = |p: &Phrase, near: bool| is_part_head(p.head()) || near && (p.definite || p.count.is_some());
        let named = [&self.topic.one, &self.topic.many].into_iter().flatten();
        let (at, thing, acted) = named.filter(|(at, _, _)| self.number - at <= 2).max_by_key(|(at, _, _)| *at)?;
        // "Undo the four screws of the lid. And off.": the lid.
        let held = thing.of.first().filter(|_| *acted && thing.kind == Kind::Screw);
        let known = |p: &Phrase| p.kind != Kind::Part || named_so(p, self.number - at <= 1);
        Some(held.unwrap_or(thing).clone()).filter(|p| is_worked_on(p) && known(p))
    }

    /// "The motor, the sensor and the wall button. Off, off and off."
    fn row_undone(&self, tail: &Tail) -> Option<Vec<Told>> {
        let (_, row) = self.topic.row.as_ref().filter(|(at, _)| self.number - at <= 1)?;
        let each = tail.times > 1 || ["all", "both"].iter().any(|w| has(self.text, w));
        // As many words as things: each goes by itself, as plugs do.
        let plugged = tail.times == row.len() || self.topic.plugs.as_ref().is_some_and(|(at, _)| self.number - at <= 2);
        (each && row.len() > 1 && tail.from == 0).then(|| {
            let plug = |p: &Phrase| if plugged { Phrase { kind: Kind::Plug, ..p.clone() } } else { p.clone() };
            row.iter().filter_map(|p| self.gone(tail.way, plug(p))).collect()
        })
    }

    /// "That's a spring, don't lose that. Tweezers, and into the tray."
    fn put_in_the_tray(&self) -> Option<Told> {
        let [c] = self.clauses else { return None };
        let away = c.places.iter().any(|(p, np)| p == "into" && is_kept_in(p, np.head()));
        let by_tool = c.verb.is_none() && c.objects.iter().all(|o| TOOLS.contains(&o.kind));
        let thing = self.named_before().filter(|_| away && by_tool)?;
        self.gone(Way::Away, thing)
    }

    fn gone(&self, way: Way, thing: Phrase) -> Option<Told> {
        let c = self.clauses.last()?;
        let end = self.words.len();
        let (apart, together) = match (way, thing.kind) {
            (Way::Away, Kind::Plug) => (Some((Act::Disconnect, "a plug, and off")), None),
            (Way::Away, Kind::Screw) => (Some((Act::Unscrew, "screws, and out")), None),
            (Way::Away, Kind::Film | Kind::Liner | Kind::Tape) => (Some((Act::Peel, "a film, and off")), None),
            (Way::Away, _) => (Some((Act::Remove, "a part, and off")), None),
            (Way::Home, Kind::Plug) => (None, Some((Act::Connect, "a plug, and in"))),
            (Way::Home, Kind::Screw) => (None, Some((Act::Drive, "screws, and in"))),
            (Way::Home, Kind::Film | Kind::Liner | Kind::Tape) => return None,
            (Way::Home, _) => (None, Some((Act::Install, "a part, and in"))),
        };
        Some(Told {
            apart,
            together,
            count: thing.count,
            objects: vec![Phrase { from: end, to: end, stands: true, ..thing }],
            places: Vec::new(),
            particles: Vec::new(),
            confidence: 0.6,
            end: self.words[end - 1].end,
            ..self.blank(c)
        })
    }
}

fn is_worked_on(p: &Phrase) -> bool {
    let kind =
        matches!(p.kind, Kind::Plug | Kind::Screw | Kind::Part | Kind::Key | Kind::Film | Kind::Liner | Kind::Tape);
    kind && !p.is_pronoun()
}
