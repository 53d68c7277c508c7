//! Signs that something is done, due, gone or only described: what the rules of this folder ask of a clause.

use super::super::super::Act;
use super::super::super::tags::Form;
use super::super::Half;
use super::super::clauses::{Clause, Mood};
use super::super::grammar::{GRAMMAR, Kind};
use super::super::phrases::Phrase;
use super::super::told::{Reader, TOOLS, has};
use super::super::words::Word;
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
    /// "If I push this hook in, the duct slides over.": somebody does it, and the thing follows.
    pub(in super::super) fn shows_how(&self, n: usize, c: &Clause) -> bool {
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
    pub(in super::super) fn held_before(&self, n: usize) -> Vec<Phrase> {
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

    /// "Foot ring stuck down", "mounts pulled through": put so, without a word of who does it.
    pub(in super::super) fn only_participle(&self, c: &Clause) -> bool {
        let put = matches!(
            c.base.as_str(),
            "tuck" | "stick" | "glue" | "tape" | "route" | "pull" | "push" | "press" | "lay" | "clip" | "snap" | "hook"
        );
        let alone = c.form == Form::Past && !c.passive && !c.perfect && c.objects.is_empty() && !c.negated;
        let things = !c.subjects.is_empty() && c.subjects.iter().all(|s| s.is_thing() && !s.is_pronoun());
        let way = !c.particles.is_empty() || !c.places.is_empty();
        put && alone && things && way && c.mood == Mood::Plain
    }

    /// "has to be taken out", "must be disconnected", "can be lifted".
    pub(in super::super) fn is_due(&self, c: &Clause) -> bool {
        let Some(verb) = c.verb else { return false };
        let must = |w: &Word| {
            matches!(w.lemma.as_str(), "have" | "must" | "need" | "can" | "should" | "to" | "gotta")
                || matches!(w.said.as_str(), "has" | "needs")
        };
        // "That's got to go."
        // "All of this old glue on the frame has to go."
        let nowhere = c.places.iter().all(|(_, np)| np.from < verb);
        let has_to_go = c.base == "go" && nowhere && self.words[c.from..verb].iter().any(|w| w.is("to"));
        let leaves = matches!(c.base.as_str(), "come" | "go") && !c.particles.is_empty() || has_to_go;
        // "There are two ribbons underneath that you have to detach."
        let told_off = matches!(c.base.as_str(), "detach" | "disconnect" | "unplug" | "undo" | "unclip" | "unscrew");
        let to_undo = told_off && c.mood == Mood::Relative && c.agent() && c.objects.is_empty() && !c.possible;
        (c.passive || leaves || to_undo) && self.words[c.from..verb].iter().any(must)
    }

    /// "I'll … now", "we're going to …".
    pub(in super::super) fn is_next(&self, c: &Clause) -> bool {
        let verb = c.verb.unwrap_or(c.from);
        self.words[c.from..verb].iter().any(|w| matches!(w.said.as_str(), "will" | "'ll" | "gonna" | "going"))
            && c.objects.is_empty()
            && !c.particles.is_empty()
    }

    /// "The lid is off.", "Once that's out", "That's the old one out."
    pub(in super::super) fn is_gone(&self, c: &Clause) -> bool {
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
        // "A little twist and it's free."
        let knack = |k: &Clause| {
            let way = |o: &Phrase| {
                matches!(
                    o.head(),
                    "twist" | "turn" | "wiggle" | "wriggle" | "tug" | "pull" | "push" | "nudge" | "jiggle"
                )
            };
            k.verb.is_none() && k.objects.len() == 1 && k.objects.iter().all(way)
        };
        let comes = c.particles.len() == 1 && matches!(c.particles[0].as_str(), "free" | "off" | "out" | "loose");
        if c.base == "be" && comes && c.subjects.iter().all(it) && c.objects.is_empty() && before().is_some_and(knack) {
            return true;
        }
        // "Once the bracket's gone": it was taken.
        let gone = c.base == "go" && c.verb.is_some_and(|v| self.words[v].said == "gone") && c.particles.is_empty();
        if gone && c.mood == Mood::After && c.places.is_empty() && c.subjects.iter().all(|s| s.kind == Kind::Part) {
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
            && c.subjects.iter().all(|p| {
                // "Gate's up, ribbon's out."
                let plug = p.kind == Kind::Plug && c.particles[0] == "out" && c.mood == Mood::Plain;
                p.kind == Kind::Part || plug || c.mood == Mood::After && it(p)
            })
    }

    pub(in super::super) fn thing_to_do(&self, n: usize, c: &Clause) -> Option<Vec<Phrase>> {
        let thing = |p: &Phrase| {
            matches!(p.head(), "thing" | "part" | "piece")
                && self.words[p.from..p.to]
                    .iter()
                    .any(|w| matches!(w.said.as_str(), "first" | "next" | "last" | "only"))
        };
        let before = self.clauses[..n].last().unwrap_or(c);
        let is = self.clauses.get(n + 1).filter(|k| k.base == "be" && !k.passive)?;
        let led = c.mood == Mood::Purpose
            && c.objects.is_empty()
            && before.verb.is_none()
            && before
                .objects
                .last()
                .is_some_and(|p| thing(p) || self.says_at(0, "next thing") || self.says_at(0, "last thing"));
        let things: Vec<Phrase> = is.objects.iter().filter(|p| p.is_thing() && !p.is_pronoun()).cloned().collect();
        // "First one to unplug is always the battery."
        let verb = c.verb.unwrap_or(c.from);
        let first = c.mood == Mood::Purpose && c.objects.is_empty() && (2..=5).contains(&verb) && {
            let which = |w: &Word| matches!(w.said.as_str(), "first" | "next" | "last");
            self.words[verb - 2].is("one") && self.words[..verb - 2].iter().any(which)
        };
        ((led || first) && !things.is_empty()).then_some(things)
    }

    /// "Go ahead and remove these four.": what is pointed at by fours is screws, where no other four were named.
    pub(in super::super) fn these_screws(&self, c: &Clause) -> bool {
        let screws_at = self.topic.screws.as_ref().map_or(0, |(at, _)| *at);
        let others = self
            .topic
            .many
            .as_ref()
            .is_some_and(|(at, p, _)| self.number - at <= 2 && p.kind != Kind::Screw && *at >= screws_at);
        let out = c.base == "remove" || c.base == "take" && c.particles.iter().any(|p| p == "out");
        out && !others && c.objects.iter().any(|o| o.is_pronoun() && o.count.is_some())
    }

    pub(in super::super) fn falls_off(&self, c: &Clause) -> bool {
        matches!(c.base.as_str(), "come" | "pop" | "lift" | "slide")
            && c.form == Form::Third
            && c.particles.iter().any(|p| p == "off" || p == "out" || p == "away")
            && c.places.is_empty()
            && self.shown_before(c).is_some()
    }

    /// "There's a rubber ring …": the clause before that shows a part.
    pub(in super::super) fn shown_before(&self, c: &Clause) -> Option<&Clause> {
        let before = self.clauses.iter().take_while(|k| k.from < c.from).last()?;
        let part = before.objects.iter().any(|o| o.kind == Kind::Part);
        (before.base == "be" && before.subjects.is_empty() && part).then_some(before)
    }

    /// "use a driver to remove the screws", "the next step is to pull": the aim is what is done.
    pub(in super::super) fn aim_is_done(&self, n: usize, c: &Clause) -> bool {
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
        // "Pull up on the tab to release the cable.": unplugged by it.
        let latch = |o: &Phrase| matches!(o.kind, Kind::Latch | Kind::Lever);
        let tab = p.objects.iter().any(latch) || p.places.iter().any(|(by, np)| by == "on" && latch(np));
        let frees = matches!(c.base.as_str(), "release" | "free" | "disconnect" | "unplug" | "detach");
        if p.order && tab && frees && c.objects.iter().any(|o| o.kind == Kind::Plug) {
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
    pub(in super::super) fn looks_whether(&self, n: usize, c: &Clause) -> bool {
        self.looks(c) && self.switched_on(n).is_some()
    }

    pub(in super::super) fn looks(&self, c: &Clause) -> bool {
        matches!(c.base.as_str(), "check" | "test" | "verify" | "confirm" | "try")
            || matches!(c.base.as_str(), "see" | "find")
                && (["if", "whether"].iter().any(|w| has(self.text, w)) || self.text.contains("to see that"))
    }

    /// The clause right before that switches something on or plugs it in.
    pub(in super::super) fn switched_on(&self, n: usize) -> Option<&Clause> {
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
    pub(in super::super) fn laid(&self, c: &Clause) -> bool {
        let by = ["behind", "under", "through", "along", "around", "between", "underneath", "past", "over"];
        let lead = |p: &Phrase| p.kind == Kind::Plug || matches!(p.head(), "antenna" | "aerial");
        let inanimate = !c.subjects.is_empty() && c.subjects.iter().all(lead);
        inanimate
            && matches!(c.base.as_str(), "go" | "run" | "come")
            && c.places.iter().any(|(p, np)| by.contains(&p.as_str()) && !np.is_pronoun())
    }

    /// "The battery plug comes last."
    pub(in super::super) fn comes_in_turn(&self, c: &Clause) -> bool {
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

    /// "it is glued on", "it's held in with glue", "the cable is taped": how it is, not what is done.
    pub(in super::super) fn describes(&self, c: &Clause, due: bool) -> bool {
        let made_sure = self.text.starts_with("make sure") || self.text.starts_with("ensure");
        let state = !due
            && !made_sure
            && c.mood == Mood::Plain
            && !self.words[self.verb_group(c)]
                .iter()
                .any(|w| matches!(w.said.as_str(), "now" | "then" | "being" | "be"));
        let describes = GRAMMAR.classes.states.contains(&c.base);
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
    pub(in super::super) fn verb_group(&self, c: &Clause) -> std::ops::Range<usize> {
        let verb = c.verb.unwrap_or(c.from);
        let from = c.subjects.last().map_or(c.from, |s| s.to);
        from.min(verb)..verb
    }

    /// "The board is screwed down, the speaker is snapped in.": with a way in, so that it may be done.
    pub(in super::super) fn done_in_rebuild(&self, c: &Clause) -> bool {
        let past = self.topic.past;
        let be = |w: &Word| {
            matches!(w.said.as_str(), "is" | "are" | "'s" | "'re" | "gets" | "get")
                || past && matches!(w.said.as_str(), "was" | "were")
        };
        let now = c.verb.is_some_and(|v| self.words[c.from..v].iter().any(be));
        // "is connected and inserted"
        let joined = c.verb == Some(c.from) && c.from > 0 && self.words[c.from - 1].is("and");
        let joined = joined || c.verb == Some(c.from + 1) && self.words[c.from].is("and");
        let now = now || joined;
        let fitted = GRAMMAR.classes.fitted.contains(&c.base);
        let way = |p: &CompactString| matches!(p.as_str(), "in" | "on" | "down" | "back" | "into" | "onto" | "over");
        // "The ribbon is inserted up to the mark.", "The pack is connected."
        let put = c.base == "insert" || c.base == "connect" && c.places.is_empty();
        // "A new ballast was laid on the rail."
        let laid = past && c.base == "lay" && c.places.iter().any(|(p, _)| matches!(p.as_str(), "on" | "in"));
        now && fitted && c.mood == Mood::Plain && (put || laid || c.particles.iter().any(way))
    }

    /// "it", where nobody says so.
    pub(in super::super) fn it(&self, c: &Clause) -> Phrase {
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
}
