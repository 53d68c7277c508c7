//! What a clause's place in its sentence says: a result, an aim, a condition; and how sure that leaves us.

use super::super::super::tags::Form;
use super::super::clauses::{Clause, Mood};
use super::super::grammar::Kind;
use super::super::told::Reader;
use super::super::words::Word;
use super::signs::goes_dark;

/// Told in this mood.
pub(super) struct Mooded {
    /// What was told before, or what comes of it.
    pub result: bool,
    pub confidence: f64,
}

impl Mooded {
    const TOLD: Self = Self { result: false, confidence: 0.85 };

    fn less(confidence: f64) -> Self {
        Self { confidence, ..Self::TOLD }
    }

    fn result(confidence: f64) -> Self {
        Self { result: true, confidence }
    }
}

impl Reader<'_> {
    /// `None` where nothing is done in that mood.
    pub(super) fn mooded(&self, n: usize, c: &Clause, due: bool) -> Option<Mooded> {
        match c.mood {
            Mood::Plain => Some(Mooded::TOLD),
            Mood::After => self.came_of_it(c).then(|| Mooded::result(0.6)),
            // "until it pops off"
            Mood::Until => {
                let off = c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out"));
                (off && !c.agent() && !c.passive && !goes_dark(c)).then(|| Mooded::less(0.6))
            }
            // "Take the hood off, but not before you have unplugged the lamp."
            Mood::Before if c.agent() && c.from >= 2 && self.lemmas[c.from - 2..=c.from].contains(&"not") => {
                Some(Mooded::less(0.7))
            }
            // "Grease the ring before you push the new heater in."
            Mood::Before => {
                let new = c.objects.iter().any(|o| o.new && o.kind == Kind::Part);
                (c.agent() && new).then(|| Mooded::result(0.6))
            }
            // "If I push this hook in, the duct slides over.": shown as it is done.
            Mood::If => self.shows_how(n, c).then(|| Mooded::less(0.6)),
            Mood::Relative => self.done_to_it(c, due).then_some(Mooded::TOLD),
            Mood::Question => self.what_we_do(c).then_some(Mooded::TOLD),
            // "The first thing to disconnect is the battery."
            Mood::Purpose if self.thing_to_do(n, c).is_some() => Some(Mooded::TOLD),
            Mood::Purpose => (self.aim_is_done(n, c) || self.looks_whether(n, c)).then(|| Mooded::less(0.75)),
            Mood::Means => self.while_held(n, c).or_else(|| self.by_doing(c)),
            Mood::Reason => None,
        }
    }

    /// "Once the felt is peeled back", "after disconnecting both of those", "after you get the shield off".
    fn came_of_it(&self, c: &Clause) -> bool {
        // "even when it is unplugged"
        if self.words[c.from.saturating_sub(1)..=c.from].iter().any(|w| w.is("even")) {
            return false;
        }
        // "Be careful when you lift the front.": how, and not yet.
        let warned = self.words[c.from.saturating_sub(3)..=c.from].iter().any(|w| w.is("careful") || w.is("attention"));
        if warned {
            return false;
        }
        // "Cracked glass may splinter when it is lifted.": what may happen then.
        let may = |w: &Word| matches!(w.said.as_str(), "may" | "might" | "could");
        if c.passive && self.words[..c.from].iter().rev().take(4).any(may) {
            return false;
        }
        let gone = self.is_gone(c);
        if !c.passive && c.form != Form::Ing && !c.agent() && !gone {
            return false;
        }
        let off = c.base == "get" && c.particles.iter().any(|p| p == "off" || p == "out");
        // "Once you lift the spreader": it is off then.
        let leaves =
            matches!(c.base.as_str(), "lift" | "remove" | "disconnect" | "unplug" | "undo" | "unscrew" | "detach");
        let lifts = leaves && c.agent() && c.objects.iter().any(|o| o.definite && !o.is_pronoun());
        let got = off || lifts;
        let only_when = c.form == Form::Base && !gone && !got || c.agent() && !c.perfect && !got;
        !(only_when || c.supposed)
    }

    /// "the clamp, which I'll pop off now", "There's a rubber ring on the post that comes off too."
    fn done_to_it(&self, c: &Clause, due: bool) -> bool {
        let known = c.antecedent.is_some();
        known && (due || self.pulls_out(c)) || c.agent() && known && !c.supposed && self.is_next(c) || self.falls_off(c)
    }

    /// "Those are what we are going to take out."
    fn what_we_do(&self, c: &Clause) -> bool {
        let is = self.lemmas[..c.from.max(1)].contains(&"be") || self.text.contains("are what we");
        c.agent() && c.objects.is_empty() && !c.particles.is_empty() && is
    }

    /// "Hold the drum while you undo the nut.": one hand holds, and the other does it.
    fn while_held(&self, n: usize, c: &Clause) -> Option<Mooded> {
        let holds = |k: &Clause| {
            let held = matches!(k.base.as_str(), "hold" | "support" | "lock" | "grip" | "steady" | "catch" | "jam");
            held && !k.negated && (k.order || k.agent())
        };
        let held = n > 0 && holds(&self.clauses[n - 1]);
        let at_once = self.lemmas[c.from..].first() == Some(&"while") && c.agent() && c.form == Form::Base;
        (held && at_once && c.objects.iter().any(|o| !o.is_pronoun())).then(|| Mooded::less(0.7))
    }

    /// "Mind the leads while lifting out the pump.", "Free it by lifting it up, cutting the layer."
    fn by_doing(&self, c: &Clause) -> Option<Mooded> {
        let first = self.lemmas[c.from..].first().copied();
        if c.form == Form::Ing && c.subjects.is_empty() && first == Some("while") {
            return Some(Mooded::less(0.7));
        }
        let follows = c.from > 0 && self.words[c.from - 1].pause || first == Some("by");
        (follows && c.form == Form::Ing).then(|| Mooded::result(0.5))
    }
}
