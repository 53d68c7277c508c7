//! What a sentence is before it is an act: a list, a heading, an announcement, a job that is only supposed.

use super::super::extract::{is_whole_list, tools_named};
use super::super::lexicon::LEXICON;
use super::Half;
use super::clauses::{Clause, Mood};
use super::grammar::{GRAMMAR, Kind};
use super::phrases::{Phrase, phrase_at};
use super::told::{Reader, has};

impl Reader<'_> {
    pub(super) fn turns(&self) -> bool {
        let heading = self.words.len() <= 8 && LEXICON.rebuild.any(self.lemmas).is_some();
        let announced = heading || GRAMMAR.together.iter().any(|p| has(self.text, p));
        let later = ["when reassembling", "on reassembly", "during reassembly", "when you reassemble"];
        announced
            && !self.text.contains("if you")
            && !self.text.contains("reverse")
            && !later.iter().any(|p| has(self.text, p))
    }

    /// "Things that I keep on my bench are a hobby knife …", "a hairdryer will also do".
    pub(super) fn tools_at_hand(&self) -> Vec<String> {
        let has_it = |c: &Clause| {
            !c.negated
                && !c.supposed
                && (c.order
                    || matches!(
                        c.base.as_str(),
                        "use" | "have" | "need" | "keep" | "take" | "grab" | "get" | "do" | "wear" | "want" | "work"
                    ))
        };
        if self.words.iter().any(|w| w.tag == super::words::Tag::Neg) || !self.clauses.iter().any(has_it) {
            return Vec::new();
        }
        tools_named(self.lemmas)
    }

    /// "You need these tools", "tools required": named and not used.
    pub(super) fn is_list(&self) -> bool {
        if self.words.len() > 45 {
            return false;
        }
        // "The only thing you need is a small Phillips screwdriver."
        let tools = tools_named(self.lemmas).len();
        let whole = tools == 1 && is_whole_list(self.text);
        if tools < 2 && !whole && LEXICON.tool_list.at(self.lemmas, 0).is_none() {
            return false;
        }
        // "You'll be wanting some heat, a hair dryer is fine."
        let wants = |c: &Clause| matches!(c.base.as_str(), "want" | "need") && c.agent() && !c.objects.is_empty();
        let part = |p: &Phrase| p.kind == Kind::Part && p.definite && !p.is_pronoun();
        let wanted = self.words.len() <= 30
            && self.clauses.iter().any(wants)
            && !self.clauses.iter().flat_map(|c| &c.objects).any(part);
        let names = ["prepare", "get", "grab", "use", "have", "need", "want", "be", "require", "recommend", "make"];
        let done = |c: &Clause| {
            let told = c.order || c.passive || c.agent();
            let objects = if c.passive { &c.subjects } else { &c.objects };
            let off = c.particles.iter().any(|p| p == "off" || p == "out");
            told && (off || !names.contains(&c.base.as_str())) && self.frame(c, Half::Apart, objects).is_some()
        };
        (wanted || super::super::extract::list_opener(self.lemmas).is_some()) && !self.clauses.iter().any(done)
    }

    pub(super) fn is_heading(&self) -> bool {
        self.clauses.iter().all(|c| c.verb.is_none() && c.particles.is_empty())
            && self.words.len() > 1
            && self.text.contains("disassembly")
    }

    /// What the recording is about, or was.
    pub(super) fn announces(&self) -> bool {
        if self.words.len() > 45 {
            return false;
        }
        let said = |p: &&String| has(self.text, p);
        // "put the bowl on and that's it thanks for watching": thanks behind the work, in one breath.
        let thanks = |p: &String| p.starts_with("thank") || p.starts_with("see you") || p == "subscribe";
        let works =
            || self.clauses.iter().any(|c| c.order && !c.negated && self.frame(c, Half::Apart, &c.objects).is_some());
        GRAMMAR.announced.iter().filter(said).any(|p| !(thanks(p) && works()))
    }

    /// What a supposed job is after.
    pub(super) fn target(&self) -> Option<Phrase> {
        let named = |p: &&Phrase| p.kind == Kind::Part && !p.is_pronoun();
        let aims = self.clauses.iter().filter(|c| matches!(c.mood, Mood::If | Mood::Purpose | Mood::After));
        let jobs = aims.filter(|c| {
            matches!(
                c.base.as_str(),
                "replace"
                    | "change"
                    | "swap"
                    | "exchange"
                    | "reach"
                    | "get"
                    | "access"
                    | "remove"
                    | "repair"
                    | "fix"
                    | "do"
                    | "need"
                    | "upgrade"
            )
        });
        let object = |c: &Clause| {
            c.objects
                .iter()
                .find(named)
                .or_else(|| c.places.iter().filter(|(p, _)| p == "to").map(|(_, p)| p).find(named))
                .cloned()
        };
        let job = jobs.filter_map(object).next();
        // "for a new joystick, you'd first need to …"
        let new = || {
            let fors = (0..self.words.len()).filter(|i| self.words[*i].is("for"));
            let phrases = fors.filter_map(|i| phrase_at(self.words, i + 1, self.words.len()));
            phrases.map(|(p, _)| p).find(|p| p.new && named(&p))
        };
        job.or_else(new)
    }

    /// Told as something that may be done, by somebody, some time.
    pub(super) fn supposed(&self) -> bool {
        // "I would rather not unsolder them, so I'll fold it back."
        let verb_would = self.clauses.iter().any(|c| c.supposed && !c.negated && c.agent() && !self.advises(c));
        // Longer is no sentence but breathless speech.
        let wants = ["who wants", "whoever wants", "anyone who", "who wishes"];
        // "If it does not start, take the module out again."
        let fails =
            ["if it doesn't", "if it does not", "if it won't", "if that doesn't", "if that does not", "if nothing"];
        if fails.iter().any(|p| self.text.starts_with(p)) {
            return true;
        }
        let somebody = self.words.len() <= 45 && wants.iter().any(|p| has(self.text, p));
        somebody
            || verb_would
            || [
                "can only be",
                "only comes out after",
                "only come out after",
                "is accessible",
                "are accessible",
                "by the way",
                "if you ever",
                "if you want",
                "if you wanted",
                "if you need",
                "if you needed",
                "if somebody",
                "if one of",
                "in case",
                "when you want",
                "if you had to",
                "if your",
                "in another",
                "some people",
                "someone who",
            ]
            .iter()
            .any(|p| has(self.text, p))
    }

    /// "Before we go on I would plug it in and test it.": what somebody advises is done.
    pub(super) fn advises(&self, c: &Clause) -> bool {
        let own = c.subjects.last().is_some_and(|s| s.head() == "i");
        let works = matches!(
            c.base.as_str(),
            "plug" | "test" | "try" | "connect" | "start" | "put" | "use" | "clean" | "check"
        );
        own && works && !c.negated && !self.clauses.iter().any(|k| k.mood == Mood::If)
    }
}
