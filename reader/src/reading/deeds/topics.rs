//! What "it", "them" and a bare "cable" mean, as far as speech alone tells it.
//!
//! The thing named before in the sentence comes first, then what was spoken of last. What is on the bench decides later
//! (`objects`); here it is only known what was said.

use super::super::lexicon::lemma;
use super::super::numbers;
use super::super::phrases::describes_cable;
use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::phrases::Phrase;
use super::told::{Reader, TOOLS};

impl Reader<'_> {
    /// What "it" and "them" mean: the thing named before in the sentence, else the one spoken of last.
    pub(super) fn meant(&self, n: usize, pronoun: &Phrase, tools: bool) -> Option<Phrase> {
        if matches!(pronoun.head(), "everything" | "all" | "anything" | "something" | "nothing") {
            return None;
        }
        let each = pronoun.head() == "one" && self.words[pronoun.from].is("each") || pronoun.head() == "each";
        let many = pronoun.plural || each || matches!(pronoun.head(), "they" | "them" | "these" | "those" | "both");
        let one = matches!(pronoun.head(), "it" | "this" | "that" | "she" | "he") && pronoun.said.len() == 1;
        // "These clips go back on, so I'm going to put this one on.": one of them.
        let which =
            pronoun.words.len() == 1 && matches!(pronoun.head(), "this" | "that") && pronoun.to > pronoun.from + 1;
        let of_these = self.clauses[..n].iter().rev().flat_map(|c| c.subjects.iter().chain(&c.objects));
        let of_these = of_these
            .filter(|_| which || self.numbered(pronoun))
            .find(|p| p.plural && !p.is_pronoun() && matches!(p.kind, Kind::Latch | Kind::Lever | Kind::Plug));
        if let Some(several) = of_these {
            return Some(several.clone());
        }
        if self.numbered(pronoun) {
            let several = self.topic.many.as_ref().filter(|(at, p, _)| self.number - at <= 3 && p.kind != Kind::Screw);
            return several.map(|(_, p, _)| p.clone());
        }
        if !many && !one {
            return None;
        }
        // "Take out the screw and pull it to the front.": the part, and not its screw.
        let moves = matches!(self.clauses[n].base.as_str(), "pull" | "slide" | "lift" | "fold" | "swing" | "push");
        let moved = one && moves && self.clauses[n].from > 0;
        let spent = |p: &Phrase| {
            matches!(p.kind, Kind::Material | Kind::Liquid | Kind::Dirt)
                && matches!(
                    self.clauses[n].base.as_str(),
                    "lay" | "put" | "place" | "set" | "take" | "lift" | "pull" | "work" | "push" | "slide" | "insert"
                )
        };
        // "Blow the dust out. Plug it in.": nobody plugs dust.
        let cleans = matches!(self.clauses[n].base.as_str(), "clean" | "wipe" | "brush" | "blow" | "scrape" | "remove");
        let dusty = |p: &Phrase| one && p.kind == Kind::Dirt && !cleans;
        let spent = |p: &Phrase| spent(p) || dusty(p);
        // "Flip up the bar and it slides out.": what it held.
        let out = self.clauses[n].particles.iter().any(|p| p == "out");
        let slips = moves || matches!(self.clauses[n].base.as_str(), "come" | "slip" | "draw" | "pop" | "ease");
        let latch = |p: &Phrase| matches!(p.kind, Kind::Lever | Kind::Latch);
        // "Push this clip off, swing it up.": what the clip held.
        let swings = matches!(self.clauses[n].base.as_str(), "swing" | "tilt" | "hinge");
        let let_go = |c: &Clause| c.order && c.particles.iter().any(|p| p == "off") && c.objects.iter().any(latch);
        let swung = swings && self.clauses[..n].iter().any(let_go);
        let unlocked = |p: &Phrase| one && (slips && out || swung) && latch(p);
        // "Unplug this connector and slide it out.": what the plug belongs to.
        let unplugs = |c: &Clause| matches!(c.base.as_str(), "unplug" | "disconnect");
        let slid = one && out && matches!(self.clauses[n].base.as_str(), "slide" | "lift" | "take");
        let pulled = |p: &Phrase| {
            let here = |c: &Clause| unplugs(c) && c.objects.iter().any(|o| o.from == p.from);
            slid && p.kind == Kind::Plug && self.clauses[..n].iter().any(here)
        };
        let fits = |p: &&Phrase| {
            !(pulled(p) || spent(p) || unlocked(p) || p.is_pronoun() || moved && p.kind == Kind::Screw)
                && p.is_thing()
                && p.kind != Kind::Time
                && (tools || !TOOLS.contains(&p.kind))
                && (if many { p.plural || p.of.len() > 1 } else { !p.plural || p.count == Some(1) })
        };
        let at = pronoun.from;
        // "Go in where the battery was, then work it up.": not what only tells where.
        let before = |c: &&Clause| c.from < at && !(one && c.beside_it()) && !(one && c.mood == Mood::Question);
        // "There's one screw behind each foot. Undo all four of them.": the screws.
        let undone = matches!(self.clauses[n].base.as_str(), "undo" | "unscrew" | "loosen" | "tighten")
            || self.these_screws(&self.clauses[n]);
        if undone
            && pronoun.count.is_some_and(|n| n > 1)
            && let Some((_, screws)) = self.topic.screws.as_ref().filter(|(was, _)| self.number - was <= 3)
        {
            return Some(screws.clone());
        }
        // "It is held in with one screw, so take that out.": the screw.
        let one_screw = |c: &Clause| {
            let held = c.passive && matches!(c.base.as_str(), "hold" | "secure" | "fix" | "fasten");
            c.places
                .iter()
                .find(|(p, np)| held && p == "with" && np.kind == Kind::Screw && np.count == Some(1))
                .cloned()
        };
        // "There's a screw behind this plug, so I'll hook that out.": what hides it.
        let hides = |c: &Clause| {
            let screw = c.base == "be" && c.objects.iter().any(|o| o.kind == Kind::Screw);
            let by = |p: &str| matches!(p, "behind" | "under" | "beneath" | "below");
            c.places.iter().find(|(p, np)| screw && by(p) && np.kind == Kind::Part && np.definite).cloned()
        };
        let hooked = matches!(self.clauses[n].base.as_str(), "hook" | "pry" | "pick" | "peel" | "prise" | "pop");
        if pronoun.head() == "that"
            && hooked
            && let Some((_, cover)) = self.clauses[..n].last().and_then(hides)
        {
            return Some(cover);
        }
        if pronoun.head() == "that"
            && let Some((_, screw)) = self.clauses[..n].iter().rev().take(2).find_map(one_screw)
        {
            return Some(screw);
        }
        // What is put between or along something is the tool.
        if tools && one {
            let here = self.clauses[..=n]
                .iter()
                .rev()
                .filter(before)
                .flat_map(|c| c.objects.iter())
                .find(|p| p.to <= at && TOOLS.contains(&p.kind));
            let tool = here
                .cloned()
                .or_else(|| self.topic.tool.as_ref().filter(|(was, _, _)| self.number - was <= 2).map(|t| t.1.clone()));
            if tool.is_some() {
                return tool;
            }
        }
        let here = self.clauses[..=n]
            .iter()
            .rev()
            .filter(before)
            .flat_map(|c| {
                // "It's stuck down with tape, so peel it up", "Grab it by the plug": not what holds it, nor where it is held.
                let means = |p: &str| one && matches!(p, "with" | "by") && (c.passive || c.order);
                // "It goes down the arm. Peel it out.": what goes there is still meant.
                let goes = one && c.subjects.iter().any(|s| s.is_pronoun() && s.head() == "it");
                let places = c.places.iter().filter(move |(p, _)| !goes && !means(p)).map(|(_, p)| p);
                // "The new screen doesn't come with the button, so transfer it.": what is lacking.
                let lacking =
                    c.places.iter().filter(|(p, _)| c.negated && c.base == "come" && p == "with").map(|(_, p)| p);
                // "Grab the corner of the film and peel it away.": the film.
                let whole = |p| if c.base == "grab" { of_nothing(p) } else { p };
                lacking.chain(c.objects.iter().rev().map(whole)).chain(c.subjects.iter().rev()).chain(places)
            })
            .filter(|p| p.to <= at)
            .find(fits);
        // "The pack is connected with a plug, so press the tab and pull it out.": the plug.
        let unlocks = |c: &&Clause| c.objects.iter().any(|o| matches!(o.kind, Kind::Lever | Kind::Latch));
        let on_plug = self.clauses[..n].last().filter(unlocks).and_then(|_| self.plug_of(n));
        let parts = matches!(self.clauses[n].base.as_str(), "part" | "separate");
        if (out || parts) && one && on_plug.is_some() {
            return on_plug;
        }
        let mut guess = false;
        let (was, age) = match here {
            Some(p) => (Some(p.clone()), 0),
            None => {
                let named = if many { &self.topic.many } else { &self.topic.one };
                guess = named.as_ref().is_some_and(|(_, _, acted)| !acted);
                let of = |t: &Option<(usize, Phrase, bool)>| t.as_ref().map(|(at, p, _)| (p.clone(), self.number - at));
                let named = if many { of(&self.topic.many) } else { of(&self.topic.one) };
                let tool = of(&self.topic.tool).filter(|_| tools);
                match (named, tool) {
                    (Some(a), Some(b)) => {
                        if b.1 <= a.1 {
                            (Some(b.0), b.1)
                        } else {
                            (Some(a.0), a.1)
                        }
                    }
                    (Some(a), None) | (None, Some(a)) => (Some(a.0), a.1),
                    (None, None) => (None, 0),
                }
            }
        };
        if was.as_ref().is_some_and(|p: &Phrase| p.kind == Kind::Screw) && one && age > 0 && moves {
            return None;
        }
        // "Unplug this connector. And slide it out.": what is in work.
        let acted = self
            .topic
            .one
            .as_ref()
            .is_some_and(|(at, p, acted)| *acted && p.kind == Kind::Plug && self.number == at + 1);
        if acted && age == 1 && slid && self.clauses[n].base == "slide" && self.lemmas.first() == Some(&"and") {
            return None;
        }
        // "Latch of the lamp flex up. It slides out.": what the latch held.
        let held = was.as_ref().filter(|p| age > 0 && unlocked(p)).and_then(|latch| latch.of.first());
        if let Some(plug) = held.filter(|o| o.kind == Kind::Plug) {
            return Some(Phrase { guess: false, ..plug.clone() });
        }
        was.filter(|p| age <= 3 && !dusty(p)).map(|p| Phrase { guess, ..p })
    }

    /// "The pack is connected with a white plug": the plug, and whose it is.
    fn plug_of(&self, n: usize) -> Option<Phrase> {
        // "There's a white connector, squeeze the tab and part it."
        let shown = self.clauses[..n].iter().find(|c| c.base == "be" && c.subjects.is_empty() && !c.negated);
        if let Some(plug) = shown.and_then(|c| c.objects.iter().find(|o| o.kind == Kind::Plug)) {
            return Some(plug.clone());
        }
        let c = self.clauses[..n].iter().find(|c| c.passive && c.base == "connect")?;
        let (_, plug) = c.places.iter().find(|(p, np)| matches!(p.as_str(), "with" | "by") && np.kind == Kind::Plug)?;
        let owner = c.subjects.first().filter(|s| s.kind == Kind::Part)?;
        Some(Phrase { of: vec![owner.clone()], ..plug.clone() })
    }

    /// "the first one", "the other one": of several that were spoken of.
    fn numbered(&self, p: &Phrase) -> bool {
        let which = |w: &str| matches!(w, "first" | "second" | "third" | "last" | "other");
        p.head() == "one" && self.words[p.from..p.to].iter().any(|w| which(&w.lemma))
    }

    /// "pull out the flex": whose, the plug or part named before tells.
    pub(super) fn served(&self, n: usize, p: &Phrase) -> Phrase {
        let mains = p.said.iter().any(|w| w == "mains");
        // "the remaining connectors": of whatever.
        let others = self.words[p.from..p.to]
            .iter()
            .any(|w| matches!(w.lemma.as_str(), "other" | "remaining" | "rest" | "all" | "second" | "third"));
        let aerial = p.words.iter().any(|w| matches!(w.as_str(), "antenna" | "aerial"));
        let bare = !others
            && !aerial
            && p.kind == Kind::Plug
            && p.of.is_empty()
            && !mains
            && p.words.iter().all(|w| describes_cable(w));
        if !bare {
            return p.clone();
        }
        let owner = |q: &Phrase| -> Option<Phrase> {
            if q.kind == Kind::Part
                && !matches!(q.head(), "board" | "mainboard" | "motherboard" | "side" | "bar" | "half" | "halve")
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
                !(retains || kind || describes_cable(w) || numbers::figure_at(&[w], 0).is_some())
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
                    let whose = if meant.kind == Kind::Plug && here { self.served(n, &meant) } else { meant };
                    Phrase { from: p.from, to: p.to, new: false, stands: true, count: p.count, ..whose }
                }
                None => {
                    self.stretched(n, self.pinned(&self.taped(&self.served(n, &self.latched(n, &self.owned(n, p))))))
                }
            })
            .collect()
    }
}

/// The film, of "the corner of the film".
fn of_nothing(p: &Phrase) -> &Phrase {
    if p.kind == Kind::Nothing { p.of.first().unwrap_or(p) } else { p }
}
