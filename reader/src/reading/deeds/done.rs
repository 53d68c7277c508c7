//! Whether a clause tells something that is done, and what it is done to.
//!
//! "The lid comes off", "it has to be taken out", "once you lift it", "use a card to part it": many ways to say that hands do
//! something, and as many that only look so.

use super::super::Act;
use super::super::tags::Form;
use super::Half;
use super::clauses::{Clause, Mood};
use super::grammar::{GRAMMAR, Kind};
use super::phrases::Phrase;
use super::told::{Reader, TOOLS, Told, has};
use super::words::Word;
use compact_str::CompactString;

/// "until the lamp goes out", "till the screen is off": nothing leaves.
pub(super) fn goes_dark(c: &Clause) -> bool {
    let glows =
        |s: &Phrase| matches!(s.head(), "light" | "lamp" | "led" | "indicator" | "screen" | "display" | "logo" | "fan");
    matches!(c.base.as_str(), "be" | "go") && c.subjects.iter().any(glows)
}

pub(super) fn due_now(text: &str) -> bool {
    has(text, "now") || has(text, "then") || has(text, "next")
}

impl Reader<'_> {
    pub(super) fn done(&self, n: usize, c: &Clause) -> Option<(Vec<Phrase>, Told)> {
        let mut told = self.blank(c);
        let mut confidence: f64 = 0.85;
        let due = self.is_due(c);
        match c.mood {
            Mood::Plain => {}
            Mood::After => {
                // A result: "once the felt is peeled back", "after disconnecting both of those".
                told.result = true;
                confidence = 0.6;
                // "even when it is unplugged"
                if self.words[c.from.saturating_sub(1)..=c.from].iter().any(|w| w.is("even")) {
                    return None;
                }
                let gone = self.is_gone(c);
                if !c.passive && c.form != Form::Ing && !c.agent() && !gone {
                    return None;
                }
                // "after you get the shield off"
                let got = c.base == "get" && c.particles.iter().any(|p| p == "off" || p == "out");
                // "Once you lift the spreader": it is off then.
                let lifts = matches!(
                    c.base.as_str(),
                    "lift" | "remove" | "disconnect" | "unplug" | "undo" | "unscrew" | "detach"
                );
                let lifts = lifts && c.agent() && c.objects.iter().any(|o| o.definite && !o.is_pronoun());
                let got = got || lifts;
                if c.form == Form::Base && !gone && !got || c.supposed || c.agent() && !c.perfect && !got {
                    return None;
                }
            }
            // "until it pops off"
            Mood::Until
                if c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out"))
                    && !c.agent()
                    && !c.passive
                    && !goes_dark(c) =>
            {
                confidence = 0.6;
            }
            // "Grease the ring before you push the new heater in."
            Mood::Before if c.agent() && c.objects.iter().any(|o| o.new && o.kind == Kind::Part) => {
                told.result = true;
                confidence = 0.6;
            }
            // "If I push this hook in, the duct slides over.": shown as it is done.
            Mood::If if self.shows_how(n, c) => confidence = 0.6,
            Mood::Relative if due && c.antecedent.is_some() => {}
            // "the clamp, which I'll pop off now"
            Mood::Relative if c.agent() && c.antecedent.is_some() && !c.supposed && self.is_next(c) => {}
            // "There's a rubber ring on the post that comes off too."
            Mood::Relative if self.falls_off(c) => {}
            Mood::Question
                if c.agent()
                    && c.objects.is_empty()
                    && !c.particles.is_empty()
                    && self.lemmas[..c.from.max(1)].contains(&"be") | self.text.contains("are what we") => {}
            // "The first thing to disconnect is the battery."
            Mood::Purpose if self.thing_to_do(n, c).is_some() => {}
            Mood::Purpose => {
                if !self.aim_is_done(n, c) && !self.looks_whether(n, c) {
                    return None;
                }
                confidence = 0.75;
            }
            // "Mind the leads while lifting out the pump."
            Mood::Means
                if c.form == Form::Ing && c.subjects.is_empty() && self.lemmas[c.from..].first() == Some(&"while") =>
            {
                confidence = 0.7
            }
            Mood::Means => {
                let follows =
                    c.from > 0 && self.words[c.from - 1].pause || self.lemmas[c.from..].first() == Some(&"by");
                if !follows || c.form != Form::Ing {
                    return None;
                }
                told.result = true;
                confidence = 0.5;
            }
            _ => return None,
        }
        // "The plate should come off now, but it doesn't want to.": it stays.
        let should = || {
            self.words[c.from..c.verb.unwrap_or(c.from)].iter().any(|w| matches!(w.said.as_str(), "should" | "ought"))
        };
        if self.clauses.get(n + 1).is_some_and(|k| k.negated && !k.order) && should() {
            return None;
        }
        // "All they've got to do is hold the lid down.": what things are for.
        let things =
            |k: &Clause| k.base == "do" && k.subjects.last().is_some_and(|s| matches!(s.head(), "they" | "it"));
        if c.order && n > 0 && things(&self.clauses[n - 1]) {
            return None;
        }
        // "the customer says that …", "I've already taken it down"
        let reported = n > 0
            && matches!(
                self.clauses[n - 1].base.as_str(),
                "say" | "tell" | "complain" | "claim" | "report" | "think" | "believe" | "hope"
            );
        if reported && !c.order && c.mood != Mood::Purpose
            || (c.perfect || c.form == Form::Past && c.agent())
                && (has(self.text, "already") || has(self.text, "earlier") || self.text.contains("off camera"))
        {
            return None;
        }
        // "Take it to a drop off": carried somewhere, and not taken off.
        if matches!(c.base.as_str(), "take" | "bring") && c.places.iter().any(|(p, np)| p == "to" && !np.definite) {
            return None;
        }
        let mut objects = self.named(n, c, &self.done_to(n, c, due)?);
        // "Pull on the tag."
        if objects.is_empty()
            && matches!(c.base.as_str(), "pull" | "tug" | "push" | "press")
            && let Some((_, held)) =
                c.places.iter().find(|(p, np)| p == "on" && matches!(np.kind, Kind::Plug | Kind::Latch | Kind::Lever))
        {
            objects = self.named(n, c, std::slice::from_ref(held));
        }
        // "Put on it a weight."
        if objects.iter().any(|o| o.kind == Kind::Weight) && objects.iter().any(Phrase::is_pronoun) {
            let (weights, below) = objects.into_iter().partition(|o| o.kind == Kind::Weight);
            objects = weights;
            let below: Vec<Phrase> = below;
            told.places.extend(below.into_iter().map(|p| ("on".to_owned(), p)));
        }
        // "Take hold of the tab and pull slowly."
        let along = c.places.iter().all(|(p, _)| matches!(p.as_str(), "from" | "along" | "to" | "towards" | "toward"));
        if objects.is_empty() && c.order && along && matches!(c.base.as_str(), "pull" | "lift" | "tug") {
            objects = self.held_before(n);
        }
        // "check that the leads do not get pinched": a caution, and no test.
        let harm = ["pinched", "trapped", "squeezed", "crushed", "caught"].iter().any(|w| has(self.text, w));
        if harm && matches!(c.base.as_str(), "check" | "verify" | "make" | "ensure" | "see") {
            return None;
        }
        // "Mark which wire goes where."
        if objects.is_empty()
            && matches!(c.base.as_str(), "mark" | "note" | "label" | "remember" | "photograph")
            && let Some(asked) = self.clauses.get(n + 1).filter(|k| matches!(k.mood, Mood::Relative | Mood::Question))
        {
            objects = asked.subjects.iter().filter(|s| s.is_thing() && !s.is_pronoun()).cloned().collect();
        }
        // "Test the touch and the sound."
        if matches!(c.base.as_str(), "test" | "try") {
            for o in objects.iter_mut().filter(|o| matches!(o.head(), "sound" | "light" | "picture")) {
                o.kind = Kind::Part;
            }
        }
        // "check if the compass shows the way": what is looked at stands in the question.
        if objects.iter().all(|o| !o.is_thing() || o.is_pronoun())
            && matches!(c.base.as_str(), "check" | "verify" | "test" | "see" | "make" | "look")
            && let Some(asked) = self.clauses.get(n + 1).filter(|k| {
                matches!(k.mood, Mood::If | Mood::Question | Mood::Relative)
                    || k.agent() && k.base == "get"
                    || k.subjects.iter().any(|s| matches!(s.kind, Kind::Part | Kind::Picture | Kind::Plug))
            })
        {
            let seen = |s: &&Phrase| (s.is_thing() || s.kind == Kind::Picture) && !s.is_pronoun();
            objects = asked.subjects.iter().filter(seen).cloned().collect();
            // "Turn the camera on to see if it works."
            if objects.is_empty()
                && self.looks(c)
                && let Some(on) = self.switched_on(n)
            {
                objects = on.objects.iter().filter(|o| o.kind == Kind::Part && !o.is_pronoun()).cloned().collect();
            }
            // "Check you've got sound on both sides."
            if objects.is_empty() && asked.agent() && asked.base == "get" {
                let got = asked.objects.iter().filter(|o| !o.is_pronoun()).cloned();
                objects = got.map(|o| Phrase { kind: Kind::Part, ..o }).collect();
            }
        }
        // "Two tiny screws. … The same two go back in.": the screws.
        let same = has(self.text, "same");
        let screws = self.topic.screws.as_ref().filter(|(at, _)| same || self.number - at <= 2);
        if let ([o], Some((_, screws)), "go" | "come" | "get") = (&mut objects[..], screws, c.base.as_str())
            && o.is_pronoun()
            && o.count.is_some_and(|n| n > 1)
            && c.particles.iter().any(|p| p == "in")
        {
            *o = Phrase { from: o.from, to: o.to, count: o.count, ..screws.clone() };
        }
        // "right and left coil cables", "the following five": what lists share.
        for i in 0..objects.len() {
            let count = objects[i].count.unwrap_or(0);
            if objects[i].is_pronoun()
                && count > 1
                && (matches!(c.base.as_str(), "undo" | "unscrew" | "loosen") || self.these_screws(c))
                && objects[i].head() != "both"
            {
                objects[i].kind = Kind::Screw;
                objects[i].words = vec!["screw".into()];
                objects[i].said = vec!["screws".into()];
            } else if let Some(next) = objects.get(i + 1).cloned().filter(|q| !q.is_pronoun() && q.words.len() > 1)
                && objects[i].said.len() == 1
                && matches!(
                    objects[i].said[0].as_str(),
                    "left"
                        | "right"
                        | "upper"
                        | "lower"
                        | "top"
                        | "bottom"
                        | "front"
                        | "rear"
                        | "inner"
                        | "outer"
                        | "first"
                        | "second"
                        | "red"
                        | "black"
                        | "white"
                        | "blue"
                        | "yellow"
                        | "green"
                        | "brown"
                        | "wide"
                        | "narrow"
                )
            {
                let side = objects[i].said[0].clone();
                objects[i] = Phrase { words: next.words.clone(), said: next.said.clone(), ..next };
                objects[i].words[0] = side.clone();
                if let Some(first) = objects[i].said.first_mut() {
                    *first = side;
                }
            }
        }
        if c.base == "handle" && told.places.is_empty() {
            told.confidence = 0.4;
        }
        if c.possible {
            // "You can replace the cell": an offer.
            if self.text.contains("without ") && c.passive && !due_now(self.text) {
                return None;
            }
            let example = ["such a", "any "].iter().any(|p| self.text.contains(p));
            if c.agent() && (example || matches!(c.base.as_str(), "replace" | "change" | "swap" | "try")) {
                return None;
            }
            confidence -= 0.1;
        }
        if c.base == "be" || c.mood == Mood::Until {
            told.result = true;
        }
        if c.perfect && !c.passive {
            told.result = true;
            confidence -= 0.2;
        }
        told.confidence = confidence;
        told.state = c.passive && self.describes(c, due);
        Some((objects, told))
    }

    /// "If I push this hook in, the duct slides over.": somebody does it, and the thing follows.
    fn shows_how(&self, n: usize, c: &Clause) -> bool {
        let i = c.subjects.last().is_some_and(|s| matches!(s.head(), "i" | "we"));
        let follows = self.clauses.get(n + 1).is_some_and(|k| {
            k.mood == Mood::Plain
                && !k.agent()
                && !k.subjects.is_empty()
                && !k.particles.is_empty()
                && k.form == Form::Third
        });
        i && follows && !c.supposed && !c.negated && c.form == Form::Base && c.verb.is_some()
    }

    /// What the clause before takes hold of.
    pub(super) fn held_before(&self, n: usize) -> Vec<Phrase> {
        let Some(c) = self.clauses[..n].last().filter(|c| c.order && !c.negated) else { return Vec::new() };
        let thing = |p: &&Phrase| p.is_thing() && !TOOLS.contains(&p.kind);
        match c.base.as_str() {
            "take" | "get" => {
                let hold = c.objects.iter().filter(|o| o.head() == "hold");
                self.named(n - 1, c, &hold.flat_map(|o| &o.of).filter(thing).cloned().collect::<Vec<_>>())
            }
            "grab" | "grip" | "hold" | "catch" | "pinch" | "grasp" => {
                self.named(n - 1, c, &c.objects.iter().filter(thing).cloned().collect::<Vec<_>>())
            }
            _ => Vec::new(),
        }
    }

    /// "has to be taken out", "must be disconnected", "can be lifted".
    pub(super) fn is_due(&self, c: &Clause) -> bool {
        let Some(verb) = c.verb else { return false };
        let must = |w: &Word| {
            matches!(w.lemma.as_str(), "have" | "must" | "need" | "can" | "should" | "to" | "gotta")
                || matches!(w.said.as_str(), "has" | "needs")
        };
        // "That's got to go."
        let has_to_go = c.base == "go" && c.places.is_empty() && self.words[c.from..verb].iter().any(|w| w.is("to"));
        let leaves = matches!(c.base.as_str(), "come" | "go") && !c.particles.is_empty() || has_to_go;
        (c.passive || leaves) && self.words[c.from..verb].iter().any(must)
    }

    /// "I'll … now", "we're going to …".
    pub(super) fn is_next(&self, c: &Clause) -> bool {
        let verb = c.verb.unwrap_or(c.from);
        self.words[c.from..verb].iter().any(|w| matches!(w.said.as_str(), "will" | "'ll" | "gonna" | "going"))
            && c.objects.is_empty()
            && !c.particles.is_empty()
    }

    /// "The lid is off.", "Once that's out", "That's the old one out."
    pub(super) fn is_gone(&self, c: &Clause) -> bool {
        let it = |p: &Phrase| matches!(p.head(), "it" | "that" | "this") && p.said.len() == 1;
        // "Wiggle the head forwards and it's free."
        let before = || self.clauses.iter().take_while(|k| k.from < c.from).last();
        let freed = c.particles.len() == 1 && c.particles[0] == "free" && c.places.is_empty() && c.objects.is_empty();
        let eased = |k: &Clause| {
            matches!(k.base.as_str(), "wiggle" | "lift" | "pull" | "ease" | "work" | "rock" | "slide" | "push")
        };
        let worked = |k: &Clause| k.order && !k.negated && eased(k) && k.objects.iter().any(|o| o.kind == Kind::Part);
        if c.base == "be" && freed && c.mood == Mood::Plain && c.subjects.iter().all(it) && before().is_some_and(worked)
        {
            return true;
        }
        c.base == "be"
            && c.particles.len() == 1
            && (matches!(c.particles[0].as_str(), "off" | "out" | "away") && c.places.is_empty()
                // "With that the back is free."
                // "The screen is free from the body."
                || c.particles[0] == "free"
                    && c.places.iter().all(|(p, np)| p == "from" || p == "with" && np.head() == "that"))
            && c.objects.is_empty()
            && !c.subjects.is_empty()
            && c.subjects.iter().all(|p| p.kind == Kind::Part || c.mood == Mood::After && it(p))
    }

    pub(super) fn thing_to_do(&self, n: usize, c: &Clause) -> Option<Vec<Phrase>> {
        let thing = |p: &Phrase| {
            matches!(p.head(), "thing" | "part" | "piece")
                && self.words[p.from..p.to]
                    .iter()
                    .any(|w| matches!(w.said.as_str(), "first" | "next" | "last" | "only"))
        };
        let before = self.clauses[..n].last()?;
        let is = self.clauses.get(n + 1).filter(|k| k.base == "be" && !k.passive)?;
        let led = c.mood == Mood::Purpose
            && c.objects.is_empty()
            && before.verb.is_none()
            && before.objects.last().is_some_and(thing);
        let things: Vec<Phrase> = is.objects.iter().filter(|p| p.is_thing() && !p.is_pronoun()).cloned().collect();
        (led && !things.is_empty()).then_some(things)
    }

    /// "Go ahead and remove these four.": what is pointed at by fours is screws, where no other four were named.
    pub(super) fn these_screws(&self, c: &Clause) -> bool {
        let screws_at = self.topic.screws.as_ref().map_or(0, |(at, _)| *at);
        let others = self
            .topic
            .many
            .as_ref()
            .is_some_and(|(at, p, _)| self.number - at <= 2 && p.kind != Kind::Screw && *at >= screws_at);
        let out = c.base == "remove" || c.base == "take" && c.particles.iter().any(|p| p == "out");
        out && !others && c.objects.iter().any(|o| o.is_pronoun() && o.count.is_some())
    }

    pub(super) fn falls_off(&self, c: &Clause) -> bool {
        matches!(c.base.as_str(), "come" | "pop" | "lift" | "slide")
            && c.form == Form::Third
            && c.particles.iter().any(|p| p == "off" || p == "out")
            && c.places.is_empty()
            && self.shown_before(c).is_some()
    }

    /// "There's a rubber ring …": the clause before that shows a part.
    pub(super) fn shown_before(&self, c: &Clause) -> Option<&Clause> {
        let before = self.clauses.iter().take_while(|k| k.from < c.from).last()?;
        let part = before.objects.iter().any(|o| o.kind == Kind::Part);
        (before.base == "be" && before.subjects.is_empty() && part).then_some(before)
    }

    /// "use a driver to remove the screws", "the next step is to pull": the aim is what is done.
    pub(super) fn aim_is_done(&self, n: usize, c: &Clause) -> bool {
        let Some(p) = self.clauses[..n].iter().rev().find(|p| p.verb.is_some()) else { return false };
        if p.negated || p.supposed || !matches!(p.mood, Mood::Plain) && p.mood != c.mood {
            return false;
        }
        // "I tell it to shut down."
        let down = || self.frame(c, Half::Apart, &[]).is_some_and(|f| f.act == Act::PowerOff);
        if p.base == "tell" && p.agent() && p.objects.iter().any(|o| o.is_pronoun() || o.kind == Kind::Device) && down()
        {
            return true;
        }
        // "Turn counterclockwise to unlock the grille."
        let turned = matches!(p.base.as_str(), "turn" | "twist" | "rotate") && p.order && p.objects.is_empty();
        if turned && matches!(c.base.as_str(), "unlock" | "release" | "free" | "loosen") {
            return true;
        }
        let tool = self.tool_of(p).is_some() || p.objects.iter().any(|o| TOOLS.contains(&o.kind) || o.head() == "tool");
        let away = c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out" | "away"));
        let tool = tool || p.subjects.iter().any(|o| p.passive && TOOLS.contains(&o.kind));
        // "my fingernail", "both thumbs"
        let hand = |o: &Phrase| {
            matches!(o.head(), "finger" | "fingernail" | "thumb" | "thumbnail" | "hand" | "plier" | "pliers")
        };
        let tool = tool || p.objects.iter().any(hand);
        let uses = (matches!(p.base.as_str(), "use" | "take" | "grab" | "insert" | "get" | "need")
            || away
                && matches!(
                    p.base.as_str(),
                    "push" | "slide" | "work" | "put" | "place" | "stick" | "press" | "run" | "move"
                ))
            && tool;
        let step = p.base == "be"
            && !p.passive
            && p.subjects.iter().any(|s| matches!(s.head(), "step" | "thing" | "job" | "task" | "way" | "do"));
        let nods = p.base == "be" && self.lemmas[..c.from].iter().any(|w| matches!(*w, "do" | "step" | "thing"));
        let again = p.mood == Mood::Purpose
            && c.mood == Mood::Purpose
            && n > 0
            && self.aim_is_done(n - 1, &self.clauses[n - 1]);
        // "We are able to", and not "it is there to".
        let raised = GRAMMAR.raising.contains(&p.base)
            && !tool
            && p.objects.is_empty()
            && (p.base != "be" || p.agent() || p.subjects.is_empty());
        (uses || step || nods || again || raised) && self.frame(c, Half::Apart, &c.objects).is_some()
    }

    /// "Switch it on to see if it works.": what it is switched on for is done.
    pub(super) fn looks_whether(&self, n: usize, c: &Clause) -> bool {
        self.looks(c) && self.switched_on(n).is_some()
    }

    pub(super) fn looks(&self, c: &Clause) -> bool {
        matches!(c.base.as_str(), "check" | "test" | "verify" | "try")
            || matches!(c.base.as_str(), "see" | "find")
                && (["if", "whether"].iter().any(|w| has(self.text, w)) || self.text.contains("to see that"))
    }

    /// The clause right before that switches something on or plugs it in.
    pub(super) fn switched_on(&self, n: usize) -> Option<&Clause> {
        let on = |p: &&Clause| {
            !p.negated
                && !p.supposed
                && matches!(
                    p.base.as_str(),
                    "switch" | "turn" | "power" | "plug" | "connect" | "press" | "hold" | "start" | "boot" | "run"
                )
        };
        self.clauses[..n].iter().rev().take(2).find(on)
    }

    /// Leads run behind, under or along something.
    pub(super) fn laid(&self, c: &Clause) -> bool {
        let by = ["behind", "under", "through", "along", "around", "between", "underneath", "past", "over"];
        let lead = |p: &Phrase| p.kind == Kind::Plug || matches!(p.head(), "antenna" | "aerial");
        let inanimate = !c.subjects.is_empty() && c.subjects.iter().all(lead);
        inanimate
            && matches!(c.base.as_str(), "go" | "run" | "come")
            && c.places.iter().any(|(p, np)| by.contains(&p.as_str()) && !np.is_pronoun())
    }

    /// "The battery plug comes last."
    pub(super) fn comes_in_turn(&self, c: &Clause) -> bool {
        let turn = |w: &Word| matches!(w.lemma.as_str(), "last" | "first" | "next");
        // "The supply plug is the last."
        let named = |s: &Phrase| matches!(s.kind, Kind::Plug | Kind::Part) && s.definite && !s.is_pronoun();
        let the_last = c.base == "be" && !c.subjects.is_empty() && c.subjects.iter().all(named) && {
            let behind: Vec<&str> = c.verb.map(|v| &self.lemmas[v + 1..c.to]).unwrap_or_default().to_vec();
            matches!(behind[..], ["the", "last"] | ["last"] | ["the", "last", "one"])
        };
        if the_last && c.mood == Mood::Plain && !c.negated && !c.supposed {
            return true;
        }
        matches!(c.base.as_str(), "come" | "follow" | "go")
            && c.form != Form::Ing
            && c.mood == Mood::Plain
            && !c.supposed
            && c.particles.is_empty()
            && c.objects.is_empty()
            && c.verb.is_some_and(|v| {
                self.words[v + 1..].first().is_some_and(turn) || self.words[c.from..v].last().is_some_and(turn)
            })
    }

    /// What a clause is done to; `None` where nobody does anything.
    pub(super) fn done_to(&self, n: usize, c: &Clause, due: bool) -> Option<Vec<Phrase>> {
        if c.mood == Mood::Relative && !due && self.falls_off(c) {
            return self.shown_before(c).map(|shown| shown.objects.clone());
        }
        if c.mood == Mood::Relative {
            let antecedent = c.antecedent.clone()?;
            // "The first thing that has to be removed is the kickstand."
            if antecedent.is_pronoun() || antecedent.kind == Kind::Nothing {
                let is = self.clauses.get(n + 1).filter(|k| k.base == "be" && !k.passive)?;
                return Some(is.objects.iter().filter(|p| p.is_thing()).cloned().collect());
            }
            return Some(vec![antecedent]);
        }
        // "get the old foam cleaned off"; else "the cover removed" tells of a thing.
        if c.form == Form::Past && !c.passive && !c.perfect && c.subjects.is_empty() {
            // "There, popped.", "Unplugged.": what was spoken of is done.
            let alone = self.words.len() <= 3 && c.objects.is_empty() && c.places.is_empty();
            let only =
                || self.words.iter().enumerate().all(|(i, w)| Some(i) == c.verb || w.tag == super::words::Tag::Adv);
            if alone && only() {
                // "Two screws under it. Unscrewed.": the screws, which are told.
                let turned = matches!(c.base.as_str(), "unscrew" | "undo" | "loosen" | "tighten" | "remove");
                let told = self.topic.screws.as_ref().is_some_and(|(at, _)| turned && self.number - at <= 1);
                return (!told).then(|| vec![self.it(c)]);
            }
            let led = self.clauses[..n]
                .last()
                .filter(|p| matches!(p.base.as_str(), "get" | "have") && !p.negated && !p.supposed)?;
            let things: Vec<Phrase> =
                c.objects.iter().chain(&led.objects).filter(|p| p.is_thing() && !p.is_pronoun()).cloned().collect();
            return (!things.is_empty()).then_some(things);
        }
        // "You get the battery unhooked before anything else."
        // "Get one bolt started by hand."
        let gets = |k: &&Clause| k.base == "get" && k.objects.is_empty() && (k.agent() || k.order) && !k.negated;
        let got = self.clauses[..n].last().filter(gets);
        if c.form == Form::Past && !c.passive && !c.perfect && !c.agent() && got.is_some_and(|k| k.mood == Mood::Plain)
        {
            return Some(c.subjects.clone());
        }
        if c.subjects.iter().any(|s| matches!(s.head(), "reason" | "why")) {
            return None;
        }
        if let Some(things) = self.thing_to_do(n, c) {
            return Some(things);
        }
        // "those are what we are going to take out"
        if c.agent()
            && c.objects.is_empty()
            && !c.particles.is_empty()
            && let Some(is) = self.clauses[..n]
                .last()
                .filter(|p| p.base == "be" && p.verb.is_some_and(|v| self.lemmas[v..].get(1) == Some(&"what")))
        {
            return Some(is.subjects.clone());
        }
        if c.passive {
            // "the battery plug can be pulled, and after that the other plugs"
            let more = c
                .objects
                .iter()
                .filter(|p| p.definite && !p.is_pronoun() && c.subjects.last().is_some_and(|s| s.kind == p.kind));
            // "It's given a minute."
            if c.base == "give" && c.objects.iter().any(|o| o.kind == Kind::Time) {
                return Some(Vec::new());
            }
            let subjects: Vec<Phrase> =
                c.subjects.iter().chain(more).filter(|p| p.is_thing() || p.kind == Kind::Heat).cloned().collect();
            if self.describes(c, due) && !self.done_in_rebuild(c) {
                return None;
            }
            return (!subjects.is_empty()).then_some(subjects);
        }
        // "The next step will be to remove the screws."
        let steps = |p: &Phrase| matches!(p.head(), "step" | "thing" | "job" | "task" | "goal") && p.kind != Kind::Part;
        if !c.objects.is_empty()
            && c.subjects.iter().any(steps)
            && c.subjects.iter().all(|s| steps(s) || s.is_pronoun())
        {
            return Some(c.objects.clone());
        }
        // "You will hear the latches open."
        let heard = n > 0 && matches!(self.clauses[n - 1].base.as_str(), "hear" | "see" | "feel" | "notice");
        if heard && !c.agent() && c.objects.is_empty() && self.words[c.from].tag != super::words::Tag::Conj {
            return None;
        }
        // "Pull the ribbon and they come out.": things, and no people.
        let they = c.subjects.last().is_some_and(|s| s.head() == "they")
            && c.objects.is_empty()
            && !c.particles.is_empty()
            && n > 0
            && self.clauses[n - 1].verb.is_some()
            && !self.clauses[n - 1].negated
            && matches!(
                c.base.as_str(),
                "come" | "pop" | "slide" | "fall" | "drop" | "go" | "peel" | "lift" | "unscrew"
            );
        let inanimate = !c.subjects.is_empty() && (they || !c.agent());
        if inanimate {
            let mine: Vec<Phrase> = c.subjects.iter().filter(|p| p.is_thing()).cloned().collect();
            let moves = matches!(
                c.base.as_str(),
                "come"
                    | "go"
                    | "slide"
                    | "lift"
                    | "pop"
                    | "pull"
                    | "drop"
                    | "fall"
                    | "swing"
                    | "fold"
                    | "peel"
                    | "snap"
                    | "tilt"
                    | "open"
                    | "slip"
                    | "ease"
                    | "unscrew"
                    | "unplug"
                    | "unclip"
                    | "separate"
                    | "tip"
                    | "plug"
                    | "turn"
                    | "flip"
                    | "screw"
                    | "clip"
                    | "draw"
                    | "unhook"
                    | "press"
                    | "push"
                    | "hinge"
                    | "wiggle"
                    | "detach"
                    | "jump"
                    | "break"
            );
            // "the cover comes off", "the board goes in first"; but "the cable goes to the fan".
            let placed = c.base == "go"
                && (c.form == Form::Third || c.form == Form::Base && mine.len() > 1)
                && c.places.iter().any(|(p, np)| {
                    (matches!(
                        p.as_str(),
                        "around" | "over" | "onto" | "into" | "under" | "behind" | "through" | "between"
                    ) || p == "on" && np.new
                        || p == "in" && np.head() == "wall")
                        && np.is_thing()
                        || p == "in" && np.kind == Kind::Part && np.definite
                        || p == "on" && np.head() == "top"
                });
            // "The side panel hinges down."
            let folds = matches!(c.base.as_str(), "hinge" | "fold" | "swing" | "tilt");
            // "It lifts itself."
            let way = c.objects.iter().any(|o| o.head() == "itself")
                // "It unscrews to the left."
                || c.base == "unscrew" && c.form == Form::Third
                // "That just unclips.", "It unhooks at the top."
                || matches!(c.base.as_str(), "unclip" | "unhook") && c.form == Form::Third
                || placed
                || folds && c.particles.iter().any(|p| p == "down")
                // "Down she comes."
                || c.base == "come" && self.words[c.from].is("down") && self.words.len() <= 4
                || c.particles.iter().any(|p| {
                    !matches!(p.as_str(), "along" | "around" | "through" | "over" | "down" | "across" | "together")
                });
            // "The wires go behind this post.": how they run, or how they are to be laid.
            let leads = mine.iter().all(|p| p.kind == Kind::Plug)
                && !placed
                && !c.places.is_empty()
                && !c.particles.iter().any(|p| matches!(p.as_str(), "in" | "on" | "back" | "off" | "out"))
                && matches!(c.base.as_str(), "come" | "go" | "plug" | "run");
            if leads {
                return (c.base != "plug" && self.laid(c)).then_some(mine);
            }
            // "Then a thin card goes underneath."
            let led_in =
                c.places.iter().any(|(p, _)| matches!(p.as_str(), "under" | "between" | "behind" | "into" | "in"))
                    || self.lemmas[c.from..c.to].iter().any(|w| matches!(*w, "underneath" | "in"));
            if c.base == "go" && led_in && mine.iter().all(|p| p.kind == Kind::Opener) && !mine.is_empty() {
                return Some(mine);
            }
            if self.comes_in_turn(c) && !mine.is_empty() {
                return Some(mine);
            }
            // "Plug it in and it should come on.": it starts, and nothing is fitted.
            let starts = c.base == "come" && c.particles.iter().all(|p| p == "on") && c.places.is_empty();
            if starts && !c.particles.is_empty() && c.subjects.iter().all(|s| s.is_pronoun() && s.head() == "it") {
                return None;
            }
            // "Over she goes."
            if c.base == "go" && self.words[c.from].is("over") && c.subjects.iter().all(Phrase::is_pronoun) {
                return Some(Vec::new());
            }
            // "Now the shell is off."
            if c.base == "be" {
                if self.text.starts_with("make sure") || self.text.starts_with("ensure") {
                    return None;
                }
                return self.is_gone(c).then_some(mine);
            }
            // "The board goes in and two screws."
            let screws = c.objects.iter().filter(|o| o.kind == Kind::Screw && o.count.is_some());
            let mine: Vec<Phrase> = mine.into_iter().chain(screws.cloned()).collect();
            // "The screws come out one two three."
            let counted = |o: &Phrase| o.count.is_some() && (o.kind == Kind::Screw || o.is_pronoun());
            let object_less =
                c.objects.iter().all(|o| !o.is_thing() || counted(o) || matches!(o.head(), "itself" | "themselves"));
            // "The pack comes sliding out."
            let comes = self.words[self.verb_group(c)].iter().any(|w| w.verb() == "come");
            let told = c.form != Form::Ing || comes;
            let goes = moves && way && object_less && !mine.is_empty() && !c.supposed && told;
            let goes = goes
                && !(c.base == "go"
                    && c.particles.iter().all(|p| p == "in" || p == "on")
                    && !self.text.contains("now")
                    && c.places.iter().any(|(_, p)| p.kind == Kind::Part && !p.definite));
            return goes.then_some(mine);
        }
        // "Let the battery become empty."
        if c.base == "become"
            && let Some(let_) = self.clauses[..n].last().filter(|k| k.base == "let")
        {
            return Some(let_.objects.clone());
        }
        // Somebody does it, or it is an order.
        let objects: Vec<Phrase> = c.objects.to_vec();
        if c.agent() && c.form == Form::Third {
            return None;
        }
        if let Some(fronted) = self.fronted(n, c) {
            return Some(vec![fronted]);
        }
        Some(objects)
    }

    /// "it is glued on", "it's held in with glue", "the cable is taped": how it is, not what is done.
    pub(super) fn describes(&self, c: &Clause, due: bool) -> bool {
        let made_sure = self.text.starts_with("make sure") || self.text.starts_with("ensure");
        let state = !due
            && !made_sure
            && c.mood == Mood::Plain
            && !self.words[self.verb_group(c)]
                .iter()
                .any(|w| matches!(w.said.as_str(), "now" | "then" | "being" | "be"));
        let describes = matches!(
            c.base.as_str(),
            "glue"
                | "screw"
                | "solder"
                | "clip"
                | "hold"
                | "tape"
                | "stick"
                | "attach"
                | "mount"
                | "connect"
                | "fix"
                | "fasten"
                | "seat"
                | "fit"
                | "plug"
                | "lock"
                | "route"
                | "hide"
                | "cover"
                | "snap"
                | "secure"
                | "press"
                | "open"
                | "deliver"
                | "mold"
                | "leave"
                | "lay"
                | "position"
                | "protect"
                | "hook"
                | "fold"
                | "bend"
                | "set"
                | "insert"
        );
        // "The wires are soldered back."
        let state = state && !c.particles.iter().any(|p| p == "back");
        // "it's gonna be stuck a little"
        let stuck = c.base == "stick" && !c.particles.iter().any(|p| matches!(p.as_str(), "on" | "down" | "in"));
        // "The pack is fitted last."
        let turn = c
            .verb
            .and_then(|v| self.words.get(v + 1))
            .is_some_and(|w| matches!(w.lemma.as_str(), "last" | "next" | "first"));
        let state = state && !turn;
        let weighed = c.places.iter().any(|(_, np)| np.kind == Kind::Weight);
        (state || stuck) && describes && !weighed
    }

    /// From behind the subject to the verb: "now" of "is now glued", and not of "Now the lid is glued".
    pub(super) fn verb_group(&self, c: &Clause) -> std::ops::Range<usize> {
        let verb = c.verb.unwrap_or(c.from);
        let from = c.subjects.last().map_or(c.from, |s| s.to);
        from.min(verb)..verb
    }

    /// "The board is screwed down, the speaker is snapped in.": with a way in, so that it may be done.
    pub(super) fn done_in_rebuild(&self, c: &Clause) -> bool {
        let be = |w: &Word| matches!(w.said.as_str(), "is" | "are" | "'s" | "'re" | "gets" | "get");
        let now = c.verb.is_some_and(|v| self.words[c.from..v].iter().any(be));
        let fitted = matches!(
            c.base.as_str(),
            "screw"
                | "clip"
                | "snap"
                | "plug"
                | "hook"
                | "lay"
                | "set"
                | "insert"
                | "fit"
                | "connect"
                | "press"
                | "fold"
        );
        let way = |p: &CompactString| matches!(p.as_str(), "in" | "on" | "down" | "back" | "into" | "onto" | "over");
        now && fitted && c.mood == Mood::Plain && c.particles.iter().any(way)
    }

    /// "it", where nobody says so.
    pub(super) fn it(&self, c: &Clause) -> Phrase {
        let at = c.verb.unwrap_or(c.from);
        Phrase {
            from: at,
            to: at,
            words: vec!["it".into()],
            said: vec!["it".into()],
            count: None,
            kind: Kind::Pronoun,
            definite: true,
            plural: false,
            new: false,
            guess: false,
            stands: false,
            of: Vec::new(),
        }
    }

    /// "The block we push in from the front.": what it is done to stands before who does it.
    pub(super) fn fronted(&self, n: usize, c: &Clause) -> Option<Phrase> {
        let [thing, who] = &c.subjects[..] else { return None };
        let goes_on = |k: &Clause| k.verb.is_some() && k.mood == Mood::Plain && !k.order && k.subjects.is_empty();
        let next = self.clauses.get(n + 1).is_none_or(|k| !goes_on(k));
        let bare = c.objects.is_empty() && c.form == Form::Base && c.agent() && thing.to == who.from;
        (n == 0 && next && bare && thing.definite && thing.is_thing() && !thing.is_pronoun()).then(|| thing.clone())
    }
}
