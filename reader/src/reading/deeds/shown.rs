//! Acts that no verb of the clause tells: screws that are shown, ways without a verb, what work begins with.

use super::super::Act;
use super::super::extract::drive_near;
use super::super::lexicon::LEXICON;
use super::super::tags::Form;
use super::super::wording::IN_TURN;
use super::afterwards::{GONE_ROUND, MORE_SHOWN, NAMED, SHOWN, SHOWN_HELD};
use super::clauses::{Clause, Mood};
use super::frames::covers;
use super::grammar::Kind;
use super::phrases::Phrase;
use super::told::{Reader, TOOLS, Told, has};
use crate::units::Quantity;

/// "A power-on test.", "Fan speed checking.": what is tried stands before it.
fn is_trial(word: &str) -> bool {
    matches!(word, "test" | "check" | "checking" | "trial" | "testing")
}

impl Reader<'_> {
    /// "There are 12 torx screws", "it is held by two screws", "two screws hold the plate".
    pub(super) fn presented(&self, n: usize, c: &Clause) -> Option<Told> {
        let mut told = self.shown_screws(n, c)?;
        // What stays in its part is only loosened.
        if self.lemmas[c.from..].contains(&"captive") {
            told.apart = Some((Act::Loosen, "captive screws are shown"));
        }
        Some(told)
    }

    /// "Take the six longer screws and put them round the edge.": they were out.
    pub(super) fn picked_up(&self, n: usize, c: &Clause) -> bool {
        let takes = matches!(c.base.as_str(), "take" | "grab" | "get") && c.particles.is_empty() && c.places.is_empty();
        let screws = !c.objects.is_empty() && c.objects.iter().all(|o| o.kind == Kind::Screw);
        let puts = |k: &&Clause| matches!(k.base.as_str(), "put" | "fit" | "drive" | "screw" | "start" | "drop");
        let them = |k: &&Clause| k.objects.iter().any(|o| matches!(o.head(), "them" | "it" | "those"));
        let there = |p: &str| matches!(p, "round" | "around" | "in" | "into" | "along" | "at" | "on");
        let kept = |np: &Phrase| matches!(np.head(), "cup" | "tray" | "bag" | "box" | "mat" | "side" | "dish" | "bowl");
        let next = self.clauses.get(n + 1).filter(puts).filter(them);
        takes && screws && next.is_some_and(|k| k.places.iter().any(|(p, np)| there(p) && !kept(np)))
    }

    fn shown_screws(&self, n: usize, c: &Clause) -> Option<Told> {
        let screws = |ps: &[Phrase]| ps.iter().find(|p| p.kind == Kind::Screw).cloned();
        let holds =
            matches!(c.base.as_str(), "hold" | "secure" | "fasten" | "keep" | "fix" | "attach" | "screw" | "mount");
        let mut told = self.blank(c);
        told.presented = true;
        told.apart = Some((Act::Unscrew, SHOWN));
        told.confidence = 0.6;
        if c.mood == Mood::Question || c.mood == Mood::If {
            return None;
        }
        if holds && c.passive {
            let by = c
                .places
                .iter()
                .filter(|(p, _)| matches!(p.as_str(), "by" | "with" | "in"))
                .map(|(_, p)| p.clone())
                .find(|p| p.kind == Kind::Screw)?;
            told.count = by.count.filter(|_| by.plural || by.count == Some(1));
            let held: Vec<Phrase> =
                if c.subjects.is_empty() { c.antecedent.clone().into_iter().collect() } else { c.subjects.clone() };
            told.objects = self.named(n, c, &held);
            told.objects.retain(|p| p.kind != Kind::Screw);
            told.apart = Some((Act::Unscrew, SHOWN_HELD));
            return Some(told);
        }
        if holds && !c.passive {
            let by = screws(&c.subjects)
                .or_else(|| c.antecedent.clone().filter(|a| a.kind == Kind::Screw))
                .or_else(|| screws(&self.named(n, c, &c.subjects)))?;
            told.count = by.count;
            told.objects = self.named(n, c, &c.objects);
            told.apart = Some((Act::Unscrew, SHOWN_HELD));
            return Some(told);
        }
        // "The arm is on two screws."
        let on = c.places.iter().filter(|(p, _)| p == "on").map(|(_, p)| p).find(|p| p.kind == Kind::Screw);
        if let Some(by) = on.filter(|_| c.base == "be" && !c.subjects.is_empty() && c.objects.len() < 2) {
            told.count = by.count;
            told.objects = self.named(n, c, &c.subjects);
            told.apart = Some((Act::Unscrew, SHOWN_HELD));
            return Some(told);
        }
        // "At the lower edge are two screws."
        // "… four feet, and underneath each of them is a small screw."
        let opens = c.from + usize::from(self.words[c.from].is("and") && c.base == "be");
        let inverted = matches!(c.base.as_str(), "be" | "sit" | "lie" | "hide" | "come" | "follow")
            && c.subjects.is_empty()
            && (!c.places.is_empty() && self.words[opens].tag == super::words::Tag::Prep
                || matches!(self.lemmas[c.from], "inside" | "underneath" | "behind" | "below" | "here" | "there"));
        // "So that's the lamp holder, one screw each side."
        let holder = c.base == "be"
            && c.subjects.iter().all(|s| matches!(s.head(), "that" | "this"))
            && c.objects.first().is_some_and(|o| o.kind == Kind::Part && o.definite)
            && c.objects.iter().any(|o| o.kind == Kind::Screw && o.count.is_some() && !o.definite);
        // "Three screws on the board, and one of them's silver."
        let counted = c.subjects.first().filter(|s| {
            let several = s.kind == Kind::Screw && !s.definite && s.count.is_some_and(|n| n > 1);
            let there = c
                .places
                .iter()
                .any(|(p, np)| matches!(p.as_str(), "on" | "in" | "around" | "at") && np.from < c.verb.unwrap_or(0));
            several && c.base == "be" && !c.passive && c.from == 0 && there
        });
        if let Some(screws) = counted {
            told.apart = Some((Act::Unscrew, SHOWN));
            told.count = screws.count;
            told.objects = vec![screws.clone()];
            return Some(told);
        }
        // "These two screws let go of the bracket."
        let lets_go = self.text.contains("let go of") && c.base == "go";
        let letting = c.subjects.first().filter(|s| lets_go && s.kind == Kind::Screw);
        let held = c.places.iter().find(|(p, np)| p == "of" && np.kind == Kind::Part);
        if let (Some(group), Some((_, held))) = (letting, held) {
            told.apart = Some((Act::Unscrew, "screws let go of it"));
            told.count = group.count;
            told.objects = vec![Phrase { of: vec![held.clone()], ..group.clone() }];
            return Some(told);
        }
        // "We got four screws to put back in.", "Get these four screws back in."
        let goes_in = |k: &Clause| k.particles.iter().any(|p| matches!(p.as_str(), "back" | "in" | "into"));
        let to_put = self.clauses.get(n + 1).is_some_and(|k| {
            let puts = matches!(k.base.as_str(), "put" | "drive" | "fit" | "install" | "screw" | "go" | "drop");
            k.mood == Mood::Purpose && puts && k.objects.is_empty() && goes_in(k)
        });
        // "That's the two screws back in."
        let is_back = c.base == "be" && c.particles.iter().any(|p| p == "back");
        let gets = matches!(c.base.as_str(), "get" | "have") && (to_put || goes_in(c)) || is_back;
        if let Some(group) =
            screws(&c.objects).filter(|_| gets && !c.passive && !c.particles.iter().any(|p| p == "out"))
        {
            told.apart = None;
            told.together = Some((Act::Drive, "screws are to go back"));
            told.presented = false;
            told.count = group.count;
            told.objects = vec![group];
            return Some(told);
        }
        let there = inverted
            || holder
            || matches!(c.base.as_str(), "be")
                && c.verb.is_some_and(|v| self.lemmas[c.from..v].iter().any(|w| matches!(*w, "there" | "here")));
        // "The props, it's two screws in each."
        // "So the first thing is the six screws round the edge."
        let thing = |s: &Phrase| s.head() == "thing" || s.words.iter().any(|w| matches!(w.as_str(), "first" | "next"));
        let it = c.base == "be" && c.subjects.last().is_some_and(|s| matches!(s.head(), "it" | "that") || thing(s));
        let it = it && c.objects.first().is_some_and(|o| o.kind == Kind::Screw && o.count.is_some());
        let got = it || matches!(c.base.as_str(), "have" | "get" | "see" | "find") && !c.passive;
        if there || got && c.mood == Mood::Plain {
            // "There's another two under the feet."
            let more = || {
                let counted = c.objects.first().filter(|o| o.is_pronoun() && o.count.is_some() && there)?;
                let other =
                    self.words[counted.from..counted.to].iter().any(|w| matches!(w.said.as_str(), "another" | "more"));
                // "We have two more screws in here and then there's just one at the hinge.": the sentence spoke of screws.
                let here =
                    || self.clauses[..n].iter().flat_map(Clause::things).filter(|p| p.kind == Kind::Screw).last();
                let before = || self.topic.screws.as_ref().filter(|(at, _)| other && self.number - at <= 2);
                let only = self.words[c.from..counted.from].iter().any(|w| matches!(w.said.as_str(), "just" | "only"));
                let last = here().filter(|_| only).or(before().map(|(_, p)| p))?;
                Some(Phrase {
                    from: counted.from,
                    to: counted.to,
                    count: counted.count,
                    of: Vec::new(),
                    ..last.clone()
                })
            };
            // "There's four in the corners, that's the T6."
            let by_driver = || {
                let counted =
                    c.objects.first().filter(|o| o.is_pronoun() && o.count.is_some_and(|n| n > 1) && there)?;
                drive_near(self.lemmas, c.from, (c.to + 6).min(self.lemmas.len()))?;
                Some(counted.as_screws())
            };
            // "There's three that go in here."
            let that_go_in = || {
                let counted =
                    c.objects.first().filter(|o| o.is_pronoun() && o.count.is_some_and(|n| n > 1) && there)?;
                let rest = self.clauses.get(n + 1)?;
                let goes = rest.mood == Mood::Relative && rest.base == "go" && goes_in(rest);
                goes.then(|| Phrase { definite: false, ..counted.as_screws() })
            };
            // "You see the keypad frame with eight small screws."
            let with = || {
                let held = c.objects.first().is_some_and(|o| o.kind == Kind::Part && !o.is_pronoun());
                let screws = |(p, np): &&(_, Phrase)| p == "with" && np.kind == Kind::Screw && np.count.is_some();
                c.places.iter().filter(|_| held).find(screws).map(|(_, np)| np.clone())
            };
            let shown = screws(&c.objects).or_else(by_driver).or_else(that_go_in).or_else(with);
            if shown.is_none() {
                told.apart = Some((Act::Unscrew, MORE_SHOWN));
                told.confidence = 0.75;
            }
            let group = shown.or_else(more).filter(|p| self.words[p.from].said != "no")?;
            // "There's one screw here, one here and one here": how many is told by who counts.
            let counts_on = group.count == Some(1) && c.objects.iter().any(|o| o.is_pronoun() && o.count == Some(1));
            told.count = group.count.filter(|_| !counts_on);
            // "That's three nuts.": summed up.
            let sums_up = it && c.subjects.last().is_some_and(|s| s.head() == "that");
            if sums_up {
                told.apart = Some((Act::Unscrew, "screws are summed up"));
            }
            if got && !c.agent() && !sums_up {
                told.places.extend(
                    self.named(n, c, &c.subjects)
                        .into_iter()
                        .filter(|p| p.is_thing() && !p.is_pronoun())
                        .map(|p| ("of".to_owned(), p)),
                );
            }
            // "The cage goes in and gets its two T8s."
            let gets = self.words[c.verb.unwrap_or(c.from)].said == "gets" && !c.agent();
            told.together = gets.then_some((Act::Drive, "gets its screws"));
            // "There's a bracket over the plug, two screws.": the bracket's.
            let holder = there || with().is_some();
            let beside = c.objects.first().filter(|o| holder && o.kind == Kind::Part && !o.is_pronoun());
            told.places.extend(beside.map(|o| ("of".to_owned(), o.clone())));
            told.objects = vec![group];
            return Some(told);
        }
        None
    }

    /// "Same thing again for the lamp flex.", "Repeat at the lower bracket.": the acts before, done to another.
    pub(super) fn repeated(&self, c: &Clause) -> Option<Told> {
        let again = [
            "same thing",
            "do the same",
            "the same for",
            "the same with",
            "the same at",
            "same again",
            "repeat",
            "likewise",
            "same deal",
            "same story",
        ];
        let text = self.words[c.from..c.to.max(c.from)].iter().map(|w| w.said.as_str()).collect::<Vec<_>>().join(" ");
        if let Some(theirs) = self.theirs(c).filter(|_| again.iter().any(|a| has(&text, a))) {
            return Some(Told { elliptic: true, confidence: 0.6, objects: vec![theirs], ..self.blank(c) });
        }
        // "Second tab, same thing, slow and low."
        let another =
            c.objects.first().filter(|o| c.verb.is_none() && o.is_thing() && !o.is_pronoun() && o.kind != Kind::Screw);
        let behind = self.words[c.to.min(self.words.len())..].iter().take(3).map(|w| w.said.as_str());
        let behind = behind.collect::<Vec<_>>().join(" ");
        if let Some(another) = another
            .filter(|_| ["same thing", "same again", "likewise"].iter().any(|a| has(&text, a) || behind.starts_with(a)))
        {
            let objects = self.named(self.clauses.len() - 1, c, std::slice::from_ref(another));
            return Some(Told { elliptic: true, confidence: 0.6, objects, ..self.blank(c) });
        }
        let (_, to) = c
            .places
            .iter()
            .find(|(p, np)| matches!(p.as_str(), "for" | "with" | "on" | "at") && np.is_thing() && !np.is_pronoun())?;
        if c.negated || !again.iter().any(|a| has(&text, a)) || matches!(c.base.as_str(), "be" | "look" | "have") {
            return None;
        }
        let mut told = self.blank(c);
        told.elliptic = true;
        told.confidence = 0.6;
        told.count = to.count.filter(|_| to.kind == Kind::Screw);
        told.objects = vec![to.clone()];
        Some(told)
    }

    /// "It's a press-on, so straight up with the spudger.": the plug just shown.
    fn straight_up(&self, c: &Clause) -> Option<Told> {
        let straight = self.words[c.from..c.to].iter().any(|w| w.is("straight"));
        let shown =
            self.clauses.iter().rev().filter(|k| k.from < c.from).flat_map(|k| k.subjects.iter().chain(&k.objects));
        let here = shown.rev().find(|p| p.kind == Kind::Plug).cloned();
        let before = || self.topic.one.as_ref().filter(|(at, p, _)| p.kind == Kind::Plug && self.number - at <= 2);
        // "It's a tiny plug, so tweezers, and off."
        let by_tool = !c.objects.is_empty() && c.from > 0;
        let near = here.filter(|_| straight || by_tool);
        // What was named in another sentence has no place in this one.
        let of_before = |p: &Phrase| Phrase { from: c.from, to: c.from, ..p.clone() };
        let plug = near.or_else(|| before().filter(|_| straight).map(|(_, p, _)| of_before(p)))?;
        Some(Told {
            apart: Some((Act::Disconnect, "a plug straight up, without a verb")),
            objects: vec![plug],
            confidence: 0.6,
            ..self.blank(c)
        })
    }

    /// "The camera's, likewise.": its plug, where plugs are spoken of.
    fn theirs(&self, c: &Clause) -> Option<Phrase> {
        let [whose] = &c.objects[..] else { return None };
        let own = c.verb.is_none() && self.words.get(whose.to).is_some_and(|w| w.tag == super::words::Tag::Owner);
        let (_, plug, _) =
            self.topic.one.as_ref().filter(|(at, p, _)| p.kind == Kind::Plug && self.number - at <= 2)?;
        own.then(|| Phrase { from: whose.from, to: whose.to, of: vec![whose.clone()], ..plug.clone() })
    }

    pub(super) fn verbless(&self, c: &Clause) -> Option<Told> {
        // "With the board back in place, …": tells when.
        let opens = self.lemmas[c.from..c.to].iter().find(|w| !matches!(**w, "and" | "so" | "now" | "then" | "even"));
        // "New seal out of its bag."
        let unpacked = |p: &str| matches!(p, "bag" | "box" | "pouch" | "wrapper" | "packet");
        if c.places.iter().any(|(_, np)| unpacked(np.head())) && c.particles.iter().any(|p| p == "out") {
            return None;
        }
        if opens == Some(&"with") && c.objects.iter().any(|o| o.from > c.from) {
            return None;
        }
        let mut told = self.blank(c);
        // "Then air, three hundred and sixty degrees, medium flow."
        let air = c.objects.first().is_some_and(|o| matches!(o.text().as_str(), "air" | "hot air" | "heat"));
        if air && told.measures.iter().any(|m| m.quantity == Quantity::Temperature) && c.particles.is_empty() {
            told.apart = Some((Act::Heat, "warm air, and how warm"));
            told.together = told.apart;
            told.objects = vec![self.it(c)];
            return Some(told);
        }
        let things: Vec<Phrase> = c.objects.iter().filter(|p| p.is_thing()).cloned().collect();
        let way = |words: &[&str]| c.particles.iter().any(|p| words.contains(&p.as_str()));
        // "It's glued, so fifteen seconds with the dryer."
        let warm = c.places.iter().any(|(p, np)| p == "with" && np.kind == Kind::Heater);
        let seconds = told.measures.iter().any(|m| m.quantity == Quantity::Duration);
        if warm && seconds && things.iter().all(|o| !o.definite) {
            told.apart = Some((Act::Heat, "a time with something warm"));
            told.together = told.apart;
            told.objects = vec![self.it(c)];
            told.by = super::super::extract::tools_named(&self.lemmas[c.from..c.to]).into_iter().next();
            return Some(told);
        }
        let up = c.particles.iter().any(|p| matches!(p.as_str(), "up" | "out" | "off"));
        if up && c.objects.iter().all(|o| TOOLS.contains(&o.kind)) {
            // "Blade off.": nobody takes a tool off.
            let off = way(&["off"]) && self.words.len() <= 3 && !c.objects.is_empty();
            let off = || off.then(|| Told { apart: Some((Act::Remove, "a part off, without a verb")), ..told.clone() });
            return self.straight_up(c).or_else(off);
        }
        let first = things.first().or(c.objects.first())?.clone();
        told.objects = things;
        told.count = first.count;
        told.confidence = 0.6;
        // "So spudger in at the socket.", "Spudger under it, nice and flat."
        let led_in = way(&["in", "under"]) || c.places.iter().any(|(p, _)| matches!(p.as_str(), "under" | "between"));
        if first.kind == Kind::Opener && first.head() != "tweezer" && led_in && !way(&["off", "out", "back"]) {
            told.apart = Some((Act::Pry, "a tool in, without a verb"));
            return Some(told);
        }
        // "Suction cup on the end away from the lens."
        let near = |p: &str| matches!(p, "on" | "at" | "near" | "onto");
        if first.kind == Kind::Cup && (way(&["on"]) || c.places.iter().any(|(p, _)| near(p))) {
            told.apart = Some((Act::Pry, "a cup on, without a verb"));
            return Some(told);
        }
        // "Heat tape over the card slot."
        let below: Vec<Phrase> =
            c.places.iter().filter(|(p, np)| p == "over" && !np.is_pronoun()).map(|(_, np)| np.clone()).collect();
        if covers(&first) && !below.is_empty() {
            told.apart = Some((Act::Protect, "taped over"));
            told.together = told.apart;
            told.objects = below;
            return Some(told);
        }
        // "Gloves on."
        if first.kind == Kind::Strap && way(&["on"]) {
            told.apart = Some((Act::Protect, "put on, without a verb"));
            told.together = told.apart;
            return Some(told);
        }
        // "Lid straight up with both hands."
        let straight = self.words[c.from..c.to].iter().any(|w| w.is("straight")) && way(&["up"]);
        if straight && first.kind == Kind::Part && !way(&["in", "on", "back"]) {
            told.apart = Some((Act::Remove, "a part straight up, without a verb"));
            return Some(told);
        }
        let down_with = way(&["down"]) && opens == Some(&"down");
        // "Bucket halves together."
        let joined = way(&["together"]) && first.kind == Kind::Part && first.plural;
        // "The washer on it."
        let on_it = first.kind == Kind::Part && c.places.iter().any(|(p, np)| p == "on" && np.head() == "it");
        if (way(&["in", "back", "on", "into", "onto"]) || down_with || joined || on_it) && !way(&["off", "out"]) {
            // "All ten back in.": nothing else is counted by the ten.
            let many = first.is_pronoun() && first.count.is_some_and(|n| n > 2);
            // "Screws back in, all nine."
            let behind = self.clauses.iter().find(|k| k.from >= c.to && k.verb.is_none());
            let all = behind.and_then(|k| k.objects.first()).filter(|o| o.is_pronoun() && first.kind == Kind::Screw);
            told.count = told.count.or(first.count.filter(|_| many)).or(all.and_then(|o| o.count));
            told.together = Some(match first.kind {
                Kind::Screw => (Act::Drive, "screws in, without a verb"),
                Kind::Pronoun if many => (Act::Drive, "so many, and in"),
                Kind::Plug => (Act::Connect, "a plug in, without a verb"),
                Kind::Lever | Kind::Latch => (Act::Close, "a latch back, without a verb"),
                _ => (Act::Install, "a part in, without a verb"),
            });
            return Some(told);
        }
        // "A few drops of isopropyl in the gap.": cleaned with it.
        let dose = |w: &str| matches!(w, "drop" | "splash" | "squirt" | "dab" | "bit" | "spray");
        let dosed = first.kind == Kind::Liquid && self.lemmas[c.from..first.to].iter().any(|w| dose(w));
        // "A bit of cleaner on a cloth": that is what wipes.
        let wipes = |np: &Phrase| matches!(np.head(), "cloth" | "rag" | "swab" | "bud" | "tissue" | "towel" | "brush");
        if let [(p, gap)] = &c.places[..]
            && dosed
            && !wipes(gap)
            && matches!(p.as_str(), "in" | "into" | "on" | "onto" | "along" | "round" | "around")
        {
            told.apart = Some((Act::Clean, "a liquid, and where"));
            told.together = told.apart;
            told.by = LEXICON
                .consumables
                .all(&self.lemmas[first.from..first.to])
                .first()
                .map(|(_, _, c)| c.name().to_owned());
            told.objects = vec![gap.clone()];
            told.places = Vec::new();
            return Some(told);
        }
        // "A dab of glue on each and press them down.", "Fresh adhesive around the edge."
        let stuff = matches!(first.kind, Kind::Material | Kind::Glue) || first.kind == Kind::Tape && first.new;
        let on =
            |p: &str| matches!(p, "on" | "around" | "round" | "along" | "over" | "between" | "in" | "into" | "inside");
        let laid = c.places.iter().any(|(p, _)| on(p)) && c.objects.len() == 1;
        // "Crank on its pin, smear of grease.", "New grease, only a little."
        let before =
            |i: usize| matches!(self.words[i].said.as_str(), "smear" | "dab" | "drop" | "dot" | "blob" | "bead");
        let smear = (c.from..first.to).any(before) || first.new && self.words[first.to - 1].pause;
        let laid = laid || smear && c.places.is_empty() && c.particles.is_empty();
        if stuff && laid && !first.definite && !way(&["off", "out", "away", "up"]) {
            told.together = Some((Act::Apply, "something to put on is named"));
            return Some(told);
        }
        // "Crank on its pin.", "The clamp on top of that."
        let own = |np: &Phrase| {
            let it = np.is_pronoun() && np.head() == "it";
            self.words[np.from].is("its") || np.head() == "top" || it && self.words.len() <= 6
        };
        let there = c.places.iter().any(|(p, np)| matches!(p.as_str(), "on" | "over" | "in" | "into") && own(np));
        if first.kind == Kind::Part && there && told.objects.len() == 1 && c.particles.is_empty() {
            told.together = Some((Act::Install, "a part on its place, without a verb"));
            return Some(told);
        }
        // "New washers first, one on each shaft."
        if first.kind == Kind::Part
            && first.new
            && c.particles.is_empty()
            && self.lemmas[c.from..c.to].contains(&"first")
        {
            told.together = Some((Act::Install, "something new, without a verb"));
            return Some(told);
        }
        // "And two hex screws in those."
        if first.kind == Kind::Screw
            && first.count.is_some()
            && c.places.iter().any(|(p, _)| matches!(p.as_str(), "in" | "into"))
        {
            told.presented = true;
            told.apart = Some((Act::Unscrew, NAMED));
            told.together = Some((Act::Drive, NAMED));
            return Some(told);
        }
        // "Three at the top, 12 millimetres.", "Six along the edge, twelve millimetres, and out they come."
        const MOST: u32 = 60;
        let behind = self.quantities.iter().find(|q| {
            (c.to..c.to + 2).contains(&q.at) && q.measure.quantity == Quantity::Length && !q.sizes_a_tool(self.lemmas)
        });
        let paused = self.words.get(c.to.saturating_sub(1)).is_some_and(|w| w.pause);
        told.length_mm = told.length_mm.or(behind.filter(|_| first.is_pronoun() && paused).map(|q| q.measure.value));
        // "280 by 170 by 110 millimetres": a size of the whole.
        let counted = first.count.is_some_and(|n| n <= MOST) && c.places.iter().all(|(p, _)| p != "by");
        if first.is_pronoun() && counted && told.length_mm.is_some() && !c.places.is_empty() {
            told.objects = vec![first.as_screws()];
            told.presented = true;
            told.apart = Some((Act::Unscrew, "screws are counted"));
            told.together = Some((Act::Drive, "screws are counted"));
            return Some(told);
        }
        // "A power-on test.", "Fan speed checking."
        if self.words.len() <= 8 && is_trial(first.head())
            || first.of.is_empty() && self.words.len() <= 6 && self.lemmas.last() == Some(&"test")
        {
            told.apart = Some((Act::Test, "a test is named"));
            told.together = told.apart;
            let mut tested = first.clone();
            // "A charging test check."
            while !tested.words.is_empty() && is_trial(tested.head()) {
                tested.words.pop();
                tested.said.pop();
            }
            tested.kind = Kind::Part;
            told.objects = if tested.words.is_empty() { Vec::new() } else { vec![tested] };
            return Some(told);
        }
        if way(&["down"]) && matches!(first.kind, Kind::Lever | Kind::Latch) {
            told.together = Some((Act::Close, "a latch down, without a verb"));
            return Some(told);
        }
        // "Board down."
        if way(&["down"]) && first.kind == Kind::Part && c.places.is_empty() && self.words[c.from..c.to].len() <= 4 {
            told.together = Some((Act::Install, "a part down, without a verb"));
            return Some(told);
        }
        let opens_up =
            || first.kind == Kind::Latch && matches!(first.head(), "lock" | "latch" | "catch" | "flap" | "bar");
        if way(&["up", "open"]) && (first.kind == Kind::Lever || opens_up()) {
            told.apart = Some((Act::Release, "a latch up, without a verb"));
            return Some(told);
        }
        // "All of them out.": the screws that were told.
        let several = first.is_pronoun()
            && (first.count.is_some_and(|n| n > 1) || matches!(first.head(), "them" | "those" | "they" | "all"));
        let screws = self.topic.screws.as_ref().filter(|(at, _)| several && self.number - at <= 2);
        if let Some((_, screws)) = screws.filter(|_| way(&["out"])) {
            told.apart = Some((Act::Unscrew, "screws out, without a verb"));
            told.count = None;
            told.objects = vec![Phrase { from: first.from, to: first.to, ..screws.clone() }];
            return Some(told);
        }
        if way(&["off", "out", "away"]) {
            told.apart = Some(match first.kind {
                Kind::Screw => (Act::Unscrew, "screws out, without a verb"),
                Kind::Plug => (Act::Disconnect, "a plug off, without a verb"),
                Kind::Film | Kind::Liner | Kind::Tape => (Act::Peel, "a film off, without a verb"),
                Kind::Lever | Kind::Latch => (Act::Release, "a latch out, without a verb"),
                _ => (Act::Remove, "a part out, without a verb"),
            });
            return Some(told);
        }
        // "Front board in, two screws": behind a way, screws named alone go the same way.
        let opens = self.lemmas.get(c.from).or(self.lemmas.first()).copied().unwrap_or("");
        let behind = c.from > 0 && self.words[c.from - 1].pause || opens == "and" || opens == "then";
        if first.kind == Kind::Screw && first.count.is_some() && behind {
            told.presented = true;
            told.apart = Some((Act::Unscrew, NAMED));
            told.together = Some((Act::Drive, NAMED));
            return Some(told);
        }
        // "And the photo key cap.", "Then the lid.", "Next the valve plug."
        let short = self.words.len() <= 12;
        let tail =
            self.lemmas[0] != "and" || first.definite && self.words.len() <= 8 && !self.lemmas.contains(&"finally");
        // "And of course that one snapped."
        let broke = self.words[first.from..first.to].iter().any(|w| w.form == Form::Past && w.said.ends_with("ed"));
        let tail = tail && !(first.is_pronoun() && broke);
        if c.particles.is_empty()
            && short
            && tail
            && self.clauses.iter().all(|k| k.verb.is_none())
            && matches!(self.lemmas[0], "and" | "then" | "next" | "also" | "plus" | "likewise")
            || opens == "then" && c.particles.is_empty()
        {
            told.elliptic = true;
            return Some(told);
        }
        // "Three more screws, Phillips again": screws named alone are screws to be undone.
        let opens_so = c.from <= 1 && self.words.len() <= 40;
        let alone = short && self.clauses.iter().all(|k| k.verb.is_none()) || opens_so;
        let bare = c.particles.is_empty() && short && self.clauses.iter().all(|k| k.verb.is_none());
        // "Felt washers, then the knobs, push them on straight."
        let listed = c.particles.is_empty()
            && c.from == 0
            && c.to <= 12
            && c.to < self.words.len()
            && self.words[c.to - 1].pause;
        let more =
            || listed && self.clauses.iter().any(|k| k.from == c.to && k.verb.is_none() && !k.objects.is_empty());
        if (bare || listed)
            // "Three cables: pump, lamp, switch."
            && (told.objects.len() > 1 || !c.places.is_empty() || first.of.len() > 1 || more())
            && told.objects.iter().all(|o| matches!(o.kind, Kind::Part | Kind::Plug | Kind::Screw))
        {
            // "One screw here by the tripod, another one up here."
            if first.kind == Kind::Screw && first.count.is_some() && !c.places.is_empty() {
                told.presented = true;
                told.apart = Some((Act::Unscrew, NAMED));
            }
            told.fragment = true;
            told.elliptic = true;
            return Some(told);
        }
        if first.kind == Kind::Screw && alone && (first.count.is_some() || first.definite && self.words.len() <= 8) {
            // "That's the motor. Two bolts.": the motor's.
            let pointed_out = self.topic.pointed_out.as_ref().filter(|(at, _)| self.number - at == 1);
            let its = pointed_out.filter(|_| first.of.is_empty() && c.places.is_empty());
            told.objects[0].of.extend(its.map(|(_, part)| part.clone()));
            // "The screws, four.", "Screws in the corners, four pieces."
            let many = self.clauses.iter().flat_map(|k| &k.objects).find(|o| o.is_pronoun() && o.count.is_some());
            told.count = told.count.or(many.filter(|_| first.count.is_none()).and_then(|o| o.count));
            told.presented = true;
            told.apart = Some((Act::Unscrew, NAMED));
            told.together = Some((Act::Drive, NAMED));
            return Some(told);
        }
        None
    }

    /// "Go round a little at a time, opposite corners.": the screws that were driven.
    pub(super) fn gone_round(&self, c: &Clause) -> Option<Told> {
        let round = self.words[c.from..c.to].iter().any(|w| matches!(w.said.as_str(), "round" | "around"));
        let goes = c.base == "go" && c.order && round && c.objects.is_empty();
        let (_, screws) = self.topic.screws.as_ref().filter(|(at, _)| goes && self.number - at <= 2)?;
        let manner: Vec<String> =
            IN_TURN.iter().filter(|(said, _)| has(self.text, said)).map(|(_, way)| (*way).to_owned()).collect();
        (!manner.is_empty()).then(|| Told {
            together: Some((Act::Tighten, GONE_ROUND)),
            objects: vec![Phrase { from: c.from, to: c.from, count: None, ..screws.clone() }],
            confidence: 0.6,
            manner,
            ..self.blank(c)
        })
    }

    /// "Begin with the pump plug.": the thing tells the act.
    pub(super) fn begun(&self, c: &Clause) -> Option<Told> {
        let begins = matches!(c.base.as_str(), "begin" | "start" | "continue" | "finish")
            && c.objects.is_empty()
            && c.mood == Mood::Plain;
        let (_, with) = c.places.iter().find(|(p, _)| begins && p == "with")?;
        let mut told = self.blank(c);
        // "Start with the film tray, that's simply drawn out of its slot."
        let drawn = self.clauses.iter().find(|k| k.from >= c.to && k.mood == Mood::Relative).is_some_and(|k| {
            let away = k.particles.iter().any(|p| matches!(p.as_str(), "out" | "off" | "away"));
            away && !k.negated && !k.supposed && k.objects.is_empty() && k.subjects.is_empty()
        });
        (told.apart, told.together) = match with.kind {
            Kind::Screw => (Some((Act::Unscrew, "begun with screws")), Some((Act::Drive, "begun with screws"))),
            Kind::Plug => (Some((Act::Disconnect, "begun with a plug")), Some((Act::Connect, "begun with a plug"))),
            Kind::Film => (Some((Act::Peel, "begun with a film")), None),
            Kind::Part if drawn => (Some((Act::Remove, "begun with a part")), None),
            _ => return None,
        };
        told.count = with.count;
        told.objects = vec![with.clone()];
        told.confidence = 0.5;
        Some(told)
    }
}
