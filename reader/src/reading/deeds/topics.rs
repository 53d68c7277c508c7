//! Whose a bare "cable" is, which latch, which tab: what a phrase belongs to, as far as speech alone tells it.
//!
//! What is on the bench decides later (`objects`); here it is only known what was said. `pronouns` says what "it" means.

use super::super::lexicon::lemma;
use super::clauses::Clause;
use super::grammar::Kind;
use super::names::{is_part_head, tells_no_owner};
use super::owners::is_board;
use super::phrases::Phrase;
use super::told::Reader;

impl Reader<'_> {
    /// "pull out the flex": whose, the plug or part named before tells.
    pub(super) fn served(&self, n: usize, p: &Phrase) -> Phrase {
        let mains = p.said.iter().any(|w| w == "mains");
        // "the remaining connectors": of whatever.
        let others = self.words[p.from..p.to]
            .iter()
            .any(|w| matches!(w.lemma.as_str(), "other" | "remaining" | "rest" | "all" | "second" | "third"));
        let aerial = p.words.iter().any(|w| matches!(w.as_str(), "antenna" | "aerial"));
        // "the plug of the band": a band is no owner.
        let of_a_cable = |of: &Phrase| of.kind == Kind::Plug && of.of.is_empty() && self.distinct(of).is_none();
        let bare = !others
            && !aerial
            && p.kind == Kind::Plug
            && p.of.iter().all(of_a_cable)
            && !mains
            && p.words.iter().all(|w| tells_no_owner(w));
        if !bare {
            return p.clone();
        }
        // "Two cables, the one of the pump and the one of the lamp. … Pull out both cables."
        let row = self.topic.plugs.as_ref().filter(|(at, q)| self.number - at <= 3 && q.of.len() > 1);
        if let Some((_, row)) = row.filter(|(_, q)| p.plural && p.count.is_some() && p.count == Some(q.of.len() as u32))
        {
            return Phrase { of: row.of.clone(), said: row.said.clone(), ..p.clone() };
        }
        // "Disconnect the wire from the horn."
        let parts =
            matches!(self.clauses[n].base.as_str(), "disconnect" | "unplug" | "pull" | "remove" | "take" | "detach");
        let from = self.clauses[n].places.iter().find(|(w, np)| {
            let socket = matches!(
                np.head(),
                "board" | "mainboard" | "motherboard" | "socket" | "port" | "back" | "front" | "side"
            );
            // "Pull the harness out of the door switch."
            let out_of = w == "of" && self.clauses[n].particles.iter().any(|p| p == "out");
            (w == "from" || out_of) && parts && np.from >= p.to && np.kind == Kind::Part && np.definite && !socket
        });
        if let Some((_, owner)) = from {
            return Phrase { of: vec![owner.clone()], ..p.clone() };
        }
        // "It is connected with the earth wire. This wire is fastened with a nut.": the one named just now, by its whole name.
        let pointed = self.words[p.from].is("this") && !p.plural;
        let same = |(at, q): &&(usize, Phrase)| self.number - at <= 2 && q.head() == p.head() && q.words.len() > 1;
        if let Some((_, named)) = self.topic.plug.as_ref().filter(|_| pointed).filter(same) {
            return Phrase { from: p.from, to: p.to, ..named.clone() };
        }
        // Nothing plugs into a seal.
        let without = |q: &Phrase| {
            matches!(q.head(), "seal" | "gasket" | "washer" | "spring" | "foot" | "label" | "belt" | "hose")
        };
        let owner = |q: &Phrase| -> Option<Phrase> {
            if without(q) {
                return None;
            }
            // "I'm not being fussy": no name of a part. "the plug of the band": a band owns no plug.
            if q.kind == Kind::Part
                && !tells_no_owner(q.head())
                && (q.definite || is_part_head(q.head()))
                && !is_board(q)
                && !matches!(q.head(), "side" | "bar" | "half" | "halve")
            {
                return Some(Phrase { of: Vec::new(), ..q.clone() });
            }
            if !matches!(q.kind, Kind::Plug | Kind::Lever | Kind::Latch) {
                return None;
            }
            if q.kind != Kind::Plug && q.words.len() == 1 && q.of.is_empty() {
                return None;
            }
            if let Some(of) = q.of.first() {
                return Some(of.clone())
                    .filter(|o| o.kind == Kind::Part)
                    .or_else(|| of.of.first().cloned())
                    .or_else(|| self.distinct(of));
            }
            self.distinct(q)
        };
        let here = self.clauses[..=n]
            .iter()
            .rev()
            .flat_map(|c| {
                c.objects
                    .iter()
                    .rev()
                    .chain(c.subjects.iter().rev())
                    .chain(c.places.iter().filter(|(p, _)| p == "of" || p == "for").map(|(_, q)| q))
            })
            .filter(|q| q.to <= p.from && !q.is_pronoun());
        let mut before = [&self.topic.one, &self.topic.many]
            .into_iter()
            .flatten()
            .filter(|(at, _, _)| self.number - at <= 2)
            .max_by_key(|(at, _, _)| *at)
            .map(|(_, q, _)| q)
            .into_iter();
        let served =
            || self.topic.served.as_ref().filter(|(at, _)| self.number - at <= 3).map(|(_, owner)| owner.clone());
        // "Slide the lock on the ribbon and pull the ribbon out.": no one's that is known.
        let named = |q: &Phrase| q.kind == Kind::Plug && q.of.is_empty() && q.words == p.words && q.to <= p.from;
        if self.clauses[..=n].iter().flat_map(|c| &c.places).any(|(_, q)| named(q)) {
            return p.clone();
        }
        // "There's a cable going to the lamp. Lift the lid and unplug that cable."
        let that = self.words[p.from].is("that").then(served).flatten();
        match that.or_else(|| here.filter_map(owner).next()).or_else(served).or_else(|| before.find_map(owner)) {
            Some(owner) => Phrase { of: vec![owner], guess: false, ..p.clone() },
            None => p.clone(),
        }
    }

    /// "Two flat plugs are on the back of the buzzer. Pull those off.": the buzzer's.
    fn whose_was_shown(&self, plug: &Phrase) -> Phrase {
        let bare = plug.of.is_empty() && plug.words.iter().all(|w| tells_no_owner(w));
        let served = self.topic.served.as_ref().filter(|(at, _)| bare && self.number - at <= 3);
        match served {
            Some((_, owner)) => Phrase { of: vec![owner.clone()], guess: false, ..plug.clone() },
            None => plug.clone(),
        }
    }

    /// "keypad" of "keypad connector".
    pub(super) fn distinct(&self, q: &Phrase) -> Option<Phrase> {
        let kept: Vec<usize> = (0..q.words.len())
            .filter(|i| {
                let w = q.words[*i].as_str();
                // "retaining clips" retain nobody.
                // and the tabs themselves are served by no cable.
                let latch = matches!(q.kind, Kind::Latch | Kind::Lever);
                let retains = latch && (w.ends_with("ing") || *i + 1 == q.words.len());
                let kind = matches!(w, "latch" | "lash" | "flip" | "slide" | "lock" | "clip");
                !(retains || kind || tells_no_owner(w))
            })
            .collect();
        (!kept.is_empty()).then(|| Phrase {
            words: kept.iter().map(|i| q.words[*i].clone()).collect(),
            // What stands in for another phrase ("it") was never said so.
            said: kept.iter().map(|i| q.said.get(*i).unwrap_or(&q.words[*i]).clone()).collect(),
            kind: Kind::Part,
            of: Vec::new(),
            ..q.clone()
        })
    }

    /// "its cable": the cable of what "it" means.
    pub(super) fn owned(&self, n: usize, p: &Phrase) -> Phrase {
        let owner = self.words.get(p.from).filter(|w| {
            matches!(w.said.as_str(), "its" | "their")
                && matches!(p.kind, Kind::Plug | Kind::Latch | Kind::Lever | Kind::Screw)
        });
        let pronoun = owner.map(|w| Phrase {
            to: p.from + 1,
            words: vec!["it".into()],
            said: vec![w.said.clone()],
            kind: Kind::Pronoun,
            count: None,
            plural: false,
            of: Vec::new(),
            ..p.clone()
        });
        match pronoun.and_then(|q| self.meant(n, &q, false)) {
            Some(owner) if owner.kind == Kind::Part => Phrase { of: vec![owner], ..p.clone() },
            // "The ribbon has a latch. Move its ears away.": the ears of the ribbon's socket.
            Some(owner) if owner.kind == Kind::Plug && matches!(p.kind, Kind::Latch | Kind::Lever) => {
                Phrase { of: vec![owner], ..p.clone() }
            }
            _ => p.clone(),
        }
    }

    /// "The keypad has a flip latch, so latch up": whose latch it is.
    fn latched(&self, n: usize, p: &Phrase) -> Phrase {
        let bare = matches!(p.kind, Kind::Lever | Kind::Latch) && p.of.is_empty() && p.words.len() == 1;
        let same = |q: &Phrase| q.to <= p.from && q.head() == p.head();
        let owner = self.clauses[..=n].iter().filter(|_| bare).find_map(|c| {
            let has = c.base == "have" && c.objects.iter().any(same);
            let with = c.places.iter().any(|(w, q)| w == "with" && same(q));
            // "Motor plug next, squeeze the lock."
            let named = c.verb.is_none() && c.particles.is_empty() && c.objects.len() == 1 && c.to <= p.from;
            let plug = |o: &&Phrase| o.kind == Kind::Plug && !o.plural;
            if let Some(plug) = c.objects.first().filter(plug).filter(|_| named) {
                return Some(plug);
            }
            let owners = if has { &c.subjects } else { &c.objects };
            owners.iter().filter(|_| has || with).find(|o| matches!(o.kind, Kind::Part | Kind::Plug))
        });
        match owner {
            Some(owner) => Phrase { of: vec![owner.clone()], ..p.clone() },
            None => p.clone(),
        }
    }

    /// "It's held with two plastic rivets. Pull the pins up.": the pins of the rivets.
    fn pinned(&self, p: &Phrase) -> Phrase {
        let rivets = self.topic.many.as_ref().filter(|(at, q, _)| q.head() == "rivet" && self.number - at <= 2);
        match rivets.filter(|_| p.head() == "pin" && p.words.len() == 1 && p.of.is_empty()) {
            Some((_, q, _)) => Phrase { kind: Kind::Latch, of: vec![q.clone()], ..p.clone() },
            None => p.clone(),
        }
    }

    /// "Pull the battery tabs slowly.": strips of tape, and no latches.
    fn stretched(&self, n: usize, p: Phrase) -> Phrase {
        let slow = self.words.iter().any(|w| matches!(w.lemma.as_str(), "slow" | "slowly" | "steadily"));
        let pulled = matches!(self.clauses[n].base.as_str(), "pull" | "stretch" | "tug") && slow;
        let tabs = p.kind == Kind::Latch && p.head() == "tab" && p.words.len() > 1;
        if pulled && tabs { Phrase { kind: Kind::Tape, ..p } } else { p }
    }

    /// "It sits on two pull tabs. Take hold of the first tab.": a strip, and no latch.
    fn taped(&self, p: &Phrase) -> Phrase {
        let strips = self.topic.many.as_ref().filter(|(at, q, _)| q.kind == Kind::Tape && self.number - at <= 9);
        match strips.filter(|(_, q, _)| p.kind == Kind::Latch && p.words.len() == 1 && p.head() == q.head()) {
            Some((_, q, _)) => {
                let said = q.said.iter().map(|w| lemma(w)).collect();
                Phrase { kind: Kind::Tape, words: q.words.clone(), said, ..p.clone() }
            }
            None => p.clone(),
        }
    }

    /// Phrases with what their pronouns mean put in.
    pub(super) fn named(&self, n: usize, c: &Clause, phrases: &[Phrase]) -> Vec<Phrase> {
        // "after disconnecting both": the two things of the clause before.
        if let [p] = phrases
            && p.is_pronoun()
            && (p.plural || matches!(p.head(), "both" | "them" | "those" | "these" | "they"))
            && let Some(last) = self.clauses[..n].iter().rev().find(|k| k.verb.is_some() || !k.objects.is_empty())
            && last.objects.len() > 1
            && last.objects.iter().all(|o| o.is_thing() && !o.is_pronoun())
        {
            return last.objects.clone();
        }
        // "Coil cable. Lamp cable. Both let go upwards."
        if let ([p], Some((at, pair))) = (phrases, &self.topic.pair)
            && matches!(p.head(), "both" | "they")
            && p.is_pronoun()
            && self.number == at + 1
            && n == 0
        {
            return pair.iter().map(|q| Phrase { from: p.from, to: p.to, stands: true, ..q.clone() }).collect();
        }
        // "There's a lamp plug and a motor plug. Unplug both."
        if let [p] = phrases
            && let Some(couple) = self.couple(p)
        {
            return couple.iter().map(|q| Phrase { from: p.from, to: p.to, stands: true, ..q.clone() }).collect();
        }
        let warm = self.topic.tool.as_ref().is_some_and(|(_, p, _)| p.kind == Kind::Heater)
            && matches!(c.base.as_str(), "lay" | "put" | "place")
            && c.places.iter().any(|(p, _)| matches!(p.as_str(), "across" | "on" | "over" | "onto"));
        let here = self.clauses[..n].iter().flat_map(|k| &k.objects);
        let meter = here.chain(self.topic.tool.as_ref().map(|(_, p, _)| p)).any(|p| p.kind == Kind::Meter)
            && c.places.iter().any(|(p, _)| matches!(p.as_str(), "across" | "on" | "between" | "to"));
        let leads_in = warm
            || meter
            || c.places.iter().any(|(p, _)| {
                matches!(
                    p.as_str(),
                    "under" | "between" | "into" | "along" | "underneath" | "around" | "beneath" | "through" | "in"
                )
            });
        // "I take my card and I push it in at the corner."
        let in_hand = c.particles.iter().any(|p| p == "in" || p == "under")
            && c.places.iter().any(|(p, np)| p == "at" && np.kind == Kind::Nothing);
        // "Take the pry tool, insert it at the corner."
        let inserted = c.base == "insert" && c.places.iter().all(|(p, _)| p == "at");
        // "Grab your suction cup, place it near the edge."
        let mut here = self.clauses[..n].iter().flat_map(|k| &k.objects);
        let cup = here.any(|p| p.kind == Kind::Cup)
            && c.places.iter().any(|(p, _)| matches!(p.as_str(), "near" | "at" | "on" | "by"));
        let leads_in = leads_in || in_hand || inserted || cup;
        let round = c.particles.iter().any(|p| matches!(p.as_str(), "around" | "along" | "round"));
        let tools = (leads_in || round)
            && matches!(
                c.base.as_str(),
                "put"
                    | "push"
                    | "insert"
                    | "slide"
                    | "move"
                    | "bring"
                    | "stick"
                    | "work"
                    | "run"
                    | "slip"
                    | "press"
                    | "drag"
                    | "lay"
                    | "place"
            );
        phrases
            .iter()
            .map(|p| match p.is_pronoun().then(|| self.meant(n, p, tools)).flatten() {
                Some(meant) => {
                    // "Squeeze the plug and wiggle it apart.": whose plug, where it is named here.
                    let same = |q: &Phrase| q.from == meant.from && q.words == meant.words;
                    let here = self.clauses[..=n].iter().flat_map(|k| &k.objects).any(same);
                    // "Two plugs are on the back. Pull those off.": both.
                    let count = p.count.or(meant.count.filter(|_| meant.kind == Kind::Plug));
                    let whose = match meant.kind {
                        Kind::Plug if here => self.served(n, &meant),
                        Kind::Plug => self.whose_was_shown(&meant),
                        _ => meant,
                    };
                    Phrase { from: p.from, to: p.to, new: false, stands: true, count, ..whose }
                }
                None => {
                    self.stretched(n, self.pinned(&self.taped(&self.served(n, &self.latched(n, &self.owned(n, p))))))
                }
            })
            .collect()
    }

    /// What was shown together right before, where "them" or "both" is said and nothing that is several was named since.
    fn couple(&self, p: &Phrase) -> Option<&[Phrase]> {
        let them = p.is_pronoun() && matches!(p.head(), "both" | "them" | "those" | "these" | "they");
        let (at, couple) = self.topic.couple.as_ref().filter(|(at, _)| them && self.number == at + 1)?;
        let newer = self.topic.many.as_ref().is_some_and(|(many, _, _)| many >= at);
        let fits = p.count.is_none_or(|n| n as usize == couple.len());
        (fits && !newer).then_some(couple.as_slice())
    }
}
