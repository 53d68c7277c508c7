//! What left is told by how it ends: "and it's out", "the next thing to go is the guard", "the old gasket goes in the bin".

use super::super::Act;
use super::super::tags::Form;
use super::afterwards::OUT_BY_NOW;
use super::clauses::{Clause, Mood};
use super::grammar::Kind;
use super::phrases::Phrase;
use super::told::{Reader, Told, has};
use super::words::Word;

/// "That lets you lift the tank away.": who may do it does it.
pub(super) fn let_do(words: &[Word], c: &mut Clause) {
    let Some(verb) = c.verb.filter(|v| *v >= 2 && matches!(c.mood, Mood::Plain) && !c.negated) else { return };
    let whom = matches!(words[verb - 1].said.as_str(), "you" | "us" | "me");
    if whom && matches!(words[verb - 2].said.as_str(), "lets" | "let" | "allows") {
        c.subjects.clear();
        c.order = true;
    }
}

impl Reader<'_> {
    /// Acts that only the end of a sentence tells, where nothing else in it takes a thing out.
    pub(super) fn told_by_the_end(&self, out: &mut Vec<Told>) {
        let leaves = |t: &Told| matches!(t.apart, Some((Act::Remove | Act::Disconnect | Act::Unscrew | Act::Peel, _)));
        if out.iter().any(leaves) {
            return;
        }
        let found = self
            .is_out()
            .or_else(|| self.next_to_go())
            .or_else(|| self.binned())
            .or_else(|| self.that_is_off())
            .or_else(|| self.in_the_hand())
            .or_else(|| self.there_it_is_out())
            .or_else(|| self.that_is_undone())
            .or_else(|| self.just_like_that())
            .or_else(|| self.unplugs());
        out.extend(found);
    }

    /// "Slide the tray out a bit, tip it, and it's out.", "A screwdriver under the lip, a twist, and the front is off."
    fn is_out(&self) -> Option<Told> {
        let last =
            self.clauses.last().filter(|c| c.base == "be" && !c.negated && !c.supposed && c.objects.is_empty())?;
        let off = last.particles.iter().any(|p| matches!(p.as_str(), "off" | "out"));
        if !off || last.mood != Mood::Plain || !last.places.iter().all(|(p, _)| p == "under" || p == "in") {
            return None;
        }
        let tool = |p: &Phrase| matches!(p.kind, Kind::Opener | Kind::Cup);
        let ordered = self.clauses.iter().any(|c| c.order && !c.negated);
        // "It has a bayonet, so a quarter turn and it was out."
        let moved =
            |w: &Word| matches!(w.said.as_str(), "turn" | "twist" | "push" | "pull" | "tug" | "nudge" | "wiggle");
        let told_only = |c: &Clause| c.verb.is_none() && self.words[c.from..c.to].iter().any(moved);
        let near = self.clauses.len().checked_sub(2).map(|n| &self.clauses[n]);
        let gives_way =
            near.is_some_and(told_only) || self.words[last.from.saturating_sub(4)..last.from].iter().any(moved);
        let worked = ordered || gives_way || last.subjects.iter().any(tool);
        let thing = match last.subjects.last()? {
            it if it.is_pronoun() && matches!(it.head(), "it" | "that") => {
                let mut handled = self.clauses.iter().filter(|c| c.order && !c.negated).flat_map(|c| &c.objects);
                let spoken =
                    || self.clauses.iter().flat_map(|c| &c.subjects).find(|s| s.kind == Kind::Part && s.definite);
                let spoken = spoken().filter(|_| gives_way);
                // "Grab it with the pliers and it's out."
                let grabs = |c: &&Clause| matches!(c.base.as_str(), "grab" | "grip" | "take" | "hook" | "pinch");
                let it_here = || {
                    let c = self.clauses.iter().find(|c| grabs(c) && c.order && !c.negated)?;
                    c.objects.iter().find(|o| o.is_pronoun() && o.head() == "it")
                };
                handled.rfind(|o| o.kind == Kind::Part && o.definite).or(spoken).or_else(it_here)?.clone()
            }
            part if part.kind == Kind::Part && part.definite => part.clone(),
            _ => return None,
        };
        worked.then(|| self.removed(last, thing, "is out in the end"))
    }

    /// "There's a foam liner inside that you pull out."
    pub(super) fn pulls_out(&self, c: &Clause) -> bool {
        let shown = self.clauses.first().is_some_and(|k| k.base == "be" && k.subjects.is_empty() && !k.negated);
        let away = c.particles.iter().any(|p| matches!(p.as_str(), "out" | "off")) && c.objects.is_empty();
        let pulls = matches!(c.base.as_str(), "pull" | "take" | "lift" | "slide" | "peel" | "pop");
        shown && away && pulls && c.agent() && !c.possible && !c.supposed
    }

    /// "Next thing to go is the splash guard."
    fn next_to_go(&self) -> Option<Told> {
        const GOES: [&str; 11] = [
            "first off is",
            "first out is",
            "next off is",
            "next out is",
            "to come away is",
            "to go is",
            "to come off is",
            "to come out is",
            "to come is",
            "that comes off is",
            "that comes out is",
        ];
        let tells = |c: &&Clause| c.base == "be" && !c.negated && c.mood == Mood::Plain;
        let named = |c: &'_ Clause| c.objects.first().filter(|o| o.kind == Kind::Part && o.definite).cloned();
        let (c, thing) = self.clauses.iter().rev().filter(tells).find_map(|c| Some((c, named(c)?)))?;
        GOES.iter().any(|p| has(self.text, p)).then(|| self.removed(c, thing, "the next to go"))
    }

    /// "It clicks along, it's loose here and here, and that's that off.": what was in work.
    fn that_is_off(&self) -> Option<Told> {
        let c = self.clauses.last().filter(|c| c.base == "be" && !c.negated && c.mood == Mood::Plain)?;
        let off = ["that 's that off", "that 's that out", "and that 's off", "that one 's off", "that 's it off"];
        let clipped = self.topic.clipped.as_ref().filter(|(at, _)| self.number - at <= 3);
        let here = |p: &Phrase| Phrase { from: c.from, to: c.from, ..p.clone() };
        let thing = super::rows::clipped(self.clauses).or(clipped.map(|(_, p)| p)).map_or_else(|| self.it(c), here);
        off.iter().any(|p| has(self.text, p)).then(|| self.removed(c, thing, "and that is off"))
    }

    /// "And there you go, the old display's in your hand."
    fn in_the_hand(&self) -> Option<Told> {
        let c = self.clauses.iter().rev().find(|c| c.base == "be" && !c.negated && c.mood == Mood::Plain)?;
        let hand = c.places.iter().any(|(p, np)| p == "in" && np.head() == "hand" && np.of.is_empty());
        let thing = c.subjects.last().filter(|s| hand && s.kind == Kind::Part && s.definite)?;
        Some(self.removed(c, thing.clone(), "it is in the hand"))
    }

    /// "There's the battery out.", "That's the fan plug off.", "And we have the board out."
    fn there_it_is_out(&self) -> Option<Told> {
        let c = self.clauses.last().filter(|c| !c.negated && !c.supposed && c.mood == Mood::Plain)?;
        let points = match c.base.as_str() {
            "be" => c.subjects.iter().all(|s| matches!(s.head(), "that" | "this") && s.said.len() == 1),
            // "If you yank it you'll have its teeth out."
            "have" | "get" => c.agent() && !c.order && !self.words[c.from..c.to].iter().any(|w| w.said == "'ll"),
            _ => false,
        };
        // "That's the fan out of the way."
        let way = |(p, np): &(_, Phrase)| p == "of" && np.head() == "way";
        let away = matches!(&c.particles[..], [way] if way == "out" || way == "off") && c.places.iter().all(way);
        let [thing] = &c.objects[..] else { return None };
        if !(points && away && thing.definite && thing.to < c.to) {
            return None;
        }
        let act = match thing.kind {
            Kind::Part => Act::Remove,
            Kind::Plug => Act::Disconnect,
            _ => return None,
        };
        Some(Told { apart: Some((act, "and that is out")), ..self.removed(c, thing.clone(), "and that is out") })
    }

    /// "The thermometer just unplugs."
    fn unplugs(&self) -> Option<Told> {
        let c = self.clauses.iter().find(|c| matches!(c.base.as_str(), "unplug" | "disconnect") && !c.passive)?;
        let own = c.form == Form::Third && c.objects.is_empty() && !c.negated && !c.supposed && c.mood == Mood::Plain;
        let part = c.subjects.last().filter(|s| own && s.kind == Kind::Part && s.definite)?;
        let apart = Some((Act::Disconnect, "unplugs by itself"));
        Some(Told { apart, ..self.removed(c, part.clone(), "unplugs by itself") })
    }

    /// "And just like that the screen is off."
    fn just_like_that(&self) -> Option<Told> {
        let c = self.clauses.last().filter(|c| c.base == "be" && !c.negated && c.mood == Mood::Plain)?;
        let away = c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out" | "free"));
        let part = c.subjects.last().filter(|s| s.kind == Kind::Part && s.definite)?;
        (away && has(self.text, "just like that"))
            .then(|| self.removed(c, part.clone(), "and just like that it is off"))
    }

    /// "Pop it off. That's the battery disconnected.": whose plug it was.
    fn that_is_undone(&self) -> Option<Told> {
        let [that, undone] = self.clauses else { return None };
        let points = that.base == "be" && !that.negated && that.objects.is_empty();
        let points = points && that.subjects.iter().all(|s| s.head() == "that" && s.said.len() == 1);
        let ends = undone.form == Form::Past && !undone.negated && undone.objects.is_empty();
        let unplugged = ends && matches!(undone.base.as_str(), "disconnect" | "unplug");
        let thing = undone.subjects.first().filter(|s| matches!(s.kind, Kind::Part | Kind::Plug) && s.definite)?;
        (points && unplugged && !that.subjects.is_empty()).then(|| Told {
            apart: Some((Act::Disconnect, "and that is unplugged")),
            ..self.removed(undone, thing.clone(), "and that is unplugged")
        })
    }

    /// "So that's the head back in its cradle."
    pub(super) fn that_is_back(&self) -> Option<Told> {
        let c = self.clauses.iter().find(|c| c.base == "be" && !c.negated && c.mood == Mood::Plain)?;
        let that = c.subjects.iter().all(|s| s.head() == "that" && s.said.len() == 1) && !c.subjects.is_empty();
        let back = c.particles.first().is_some_and(|p| p == "back");
        let part = c.objects.first().filter(|o| that && back && o.kind == Kind::Part && o.definite)?;
        Some(Told {
            apart: None,
            together: Some((Act::Install, "and that is back")),
            objects: vec![part.clone()],
            confidence: 0.6,
            ..self.blank(c)
        })
    }

    /// "The old gasket goes in the bin."
    fn binned(&self) -> Option<Told> {
        let old = |p: &Phrase| self.words[p.from..p.to].iter().any(|w| w.is("old"));
        self.clauses.iter().filter(|c| !c.negated && !c.supposed && c.mood == Mood::Plain).find_map(|c| {
            let goes = matches!(c.base.as_str(), "go" | "throw" | "chuck" | "put");
            let bin = |p: &Phrase| {
                p.words.len() == 1 && matches!(p.head(), "bin" | "trash" | "rubbish" | "garbage" | "scrap" | "waste")
            };
            // "Okay, old glass is gone."
            let gone = c.verb.is_some_and(|v| self.words[v].said == "gone") && c.places.is_empty();
            let binned = c.places.iter().any(|(p, np)| goes && matches!(p.as_str(), "in" | "into" | "to") && bin(np));
            if !(binned || gone) {
                return None;
            }
            let thing = c.subjects.iter().chain(&c.objects).find(|p| p.kind == Kind::Part && old(p))?;
            let because = if binned { "the old one goes in the bin" } else { "the old one is gone" };
            Some(self.removed(c, thing.clone(), because))
        })
    }

    /// "The impeller nut is a left hand thread.": turned, and which way.
    pub(super) fn left_hand_thread(&self, c: &Clause) -> Option<Told> {
        let thread = |o: &Phrase| o.text().ends_with("hand thread");
        let nut = c.subjects.iter().find(|s| s.kind == Kind::Screw && s.definite && s.words.len() > 1);
        let told = c.base == "be" && !c.negated && c.objects.iter().any(thread);
        let nut = nut.filter(|_| told && c.mood == Mood::Plain)?;
        let apart = Some((Act::Unscrew, "its thread is told"));
        Some(Told { apart, objects: vec![nut.clone()], places: Vec::new(), confidence: 0.6, ..self.blank(c) })
    }

    fn removed(&self, c: &Clause, thing: Phrase, because: &'static str) -> Told {
        Told {
            apart: Some((Act::Remove, because)),
            together: None,
            objects: vec![thing],
            places: Vec::new(),
            particles: Vec::new(),
            confidence: 0.6,
            ..self.blank(c)
        }
    }
}

impl Reader<'_> {
    /// "With the four cells out we see two screws.", "Once the four screws are out, the hood lifts off.": they left, and
    /// nobody said so before.
    pub(super) fn out_by_now(&self) -> Option<Told> {
        let first = self.words.iter().find(|w| !matches!(w.said.as_str(), "so" | "and" | "okay" | "now"))?;
        let c = self.clauses.first()?;
        let counted = |np: &Phrase| np.kind == Kind::Screw && np.count.is_some_and(|n| n > 1) && np.definite;
        let gone = |np: &Phrase| {
            let way = self.words.get(np.to).map(|w| w.said.as_str());
            !self.words[np.to - 1].pause && matches!(way, Some("out" | "off" | "away" | "removed" | "gone"))
        };
        let with = || {
            let thing = |np: &Phrase| np.kind == Kind::Part && np.definite || counted(np);
            c.places.iter().find(|(p, np)| p == "with" && thing(np) && gone(np)).map(|(_, np)| np)
        };
        let once = || {
            let out = c.base == "be" && c.mood == Mood::After && c.particles.iter().any(|p| p == "out");
            c.subjects.last().filter(|np| out && c.places.is_empty() && counted(np))
        };
        let thing = if first.is("with") { with()? } else { once()? };
        let act = if thing.kind == Kind::Screw { Act::Unscrew } else { Act::Remove };
        Some(Told {
            apart: Some((act, OUT_BY_NOW)),
            objects: vec![thing.clone()],
            places: Vec::new(),
            particles: Vec::new(),
            count: thing.count.filter(|_| act == Act::Unscrew),
            confidence: 0.6,
            result: true,
            ..self.blank(c)
        })
    }
}
