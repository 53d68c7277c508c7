//! Third pass: words to word classes.
//!
//! Half of the words of this trade are nouns and verbs at once ("plug", "clip", "screw", "press"). Which of the two a
//! word is, its left neighbour tells in nearly all cases, so one walk from left to right is enough; a statistical tagger
//! would not know the trade and could not say why.

use super::lexicon::{LEXICON, Lexicon};
use super::numbers;
use super::quantities;
use super::sentences::Token;

/// The class of a word at its place.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Tag {
    Determiner,
    Number,
    /// A quantity with its unit, each of its words.
    Measure,
    Adjective,
    Noun,
    Pronoun,
    Preposition,
    Particle,
    Adverb,
    Conjunction,
    Subordinator,
    /// "to" before a verb.
    To,
    Modal,
    /// "be", "have" or "do" that helps another verb or stands alone.
    Auxiliary,
    Negation,
    Verb,
}

/// The form in which a verb stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Form {
    Base,
    /// "comes".
    Third,
    /// "came", "removed".
    Past,
    /// "coming".
    Ing,
}

/// A sentence as the grammar sees it.
#[derive(Debug, Clone)]
pub(super) struct Tagged<'a> {
    /// What the lexicons are asked.
    pub words: Vec<&'a str>,
    /// As said, in lower case.
    pub said: Vec<&'a str>,
    pub tags: Vec<Tag>,
    /// A comma or colon stands behind the word.
    pub pause: Vec<bool>,
    /// The speech is punctuated: what has no comma before it belongs to what it stands in.
    pub punctuated: bool,
}

impl Tagged<'_> {
    pub fn len(&self) -> usize {
        self.words.len()
    }

    pub fn tag(&self, at: usize) -> Option<Tag> {
        self.tags.get(at).copied()
    }
}

pub(super) fn tag(tokens: &[Token], punctuated: bool) -> Tagged<'_> {
    let words: Vec<&str> = tokens.iter().map(|t| t.lemma.as_str()).collect();
    let said: Vec<&str> = tokens.iter().map(|t| t.said.as_str()).collect();
    let pause: Vec<bool> = tokens.iter().map(|t| t.pause).collect();
    let mut tagger = Tagger { lexicon: &LEXICON, words, said, pause, tags: Vec::with_capacity(tokens.len()) };
    let measured = measured(&tagger.words);
    let mut numbers_end = 0;
    for (at, measured) in measured.iter().enumerate() {
        let tag = if *measured {
            Tag::Measure
        } else if tagger.sizes_a_drive(at) {
            Tag::Noun
        } else if at < numbers_end {
            Tag::Number
        } else if let Some(figure) = numbers::figure_at(&tagger.words, at).filter(|_| !tagger.one_is_a_thing(at)) {
            numbers_end = at + figure.len;
            Tag::Number
        } else {
            tagger.class(at)
        };
        tagger.tags.push(tag);
    }
    Tagged { words: tagger.words, said: tagger.said, tags: tagger.tags, pause: tagger.pause, punctuated }
}

/// Which words belong to a quantity with its unit.
fn measured(words: &[&str]) -> Vec<bool> {
    let mut out = vec![false; words.len()];
    for q in quantities::quantities_and_repeats(words) {
        // "a 3 millimetre screw" still counts one screw; "three 2 millimetre screws" too: only the quantity is covered.
        out[q.at..(q.at + q.len).min(words.len())].fill(true);
    }
    out
}

/// The form of a verb as said; `None` where the word is no verb at all.
pub(super) fn verb_form(lexicon: &'static Lexicon, said: &str, lemma: &str) -> Option<(&'static str, Form)> {
    let base = lexicon.verb_forms.get(said).or_else(|| lexicon.verb_forms.get(lemma))?;
    let form = if said == base {
        Form::Base
    } else if said.ends_with("ing") {
        Form::Ing
    } else if said.ends_with('s') && !said.ends_with("ss") {
        Form::Third
    } else {
        Form::Past
    };
    Some((base, form))
}

struct Tagger<'a> {
    lexicon: &'static Lexicon,
    words: Vec<&'a str>,
    said: Vec<&'a str>,
    pause: Vec<bool>,
    tags: Vec<Tag>,
}

impl Tagger<'_> {
    fn word(&self, at: usize) -> &str {
        self.words.get(at).copied().unwrap_or("")
    }

    /// "the left one", "this one": a thing, not a number.
    fn one_is_a_thing(&self, at: usize) -> bool {
        self.words[at] == "one"
            && at > 0
            && !self.pause[at - 1]
            && (matches!(self.tags[at - 1], Tag::Adjective)
                || matches!(self.words[at - 1], "this" | "that" | "which" | "the" | "each" | "first" | "last"))
            && !self.noun_at(at + 1)
    }

    fn class(&self, at: usize) -> Tag {
        let c = &self.lexicon.classes;
        let word = self.words[at];
        let said = self.said[at];
        if c.modal.contains(said) {
            return if c.negation.contains(said) { Tag::Negation } else { Tag::Modal };
        }
        if said == "no" && !self.noun_at(at + 1) {
            return Tag::Adverb;
        }
        if c.negation.contains(said) && said != "no" {
            return Tag::Negation;
        }
        if let Some(tag) = self.helper(at) {
            return tag;
        }
        if word == "to" {
            return if self.verb_may_follow(at + 1) { Tag::To } else { Tag::Preposition };
        }
        // "at first", "at last"; "before anything else".
        if word == "at" && matches!(self.word(at + 1), "first" | "last" | "once" | "least") {
            return Tag::Adverb;
        }
        if matches!(word, "before" | "after") && matches!(self.word(at + 1), "anything" | "everything" | "all") {
            return Tag::Preposition;
        }
        if word == "else" && at > 0 && matches!(self.word(at - 1), "anything" | "everything" | "something" | "nothing")
        {
            return Tag::Adverb;
        }
        if word == "back" {
            return self.back(at);
        }
        if word == "like" || word == "right" || word == "left" || word == "second" {
            return self.sided(at);
        }
        if c.particle.contains(word) && !matches!(word, "open" | "free" | "loose" | "shut" | "tight" | "half") {
            return self.particle(at);
        }
        if matches!(
            word,
            "that"
                | "this"
                | "these"
                | "those"
                | "all"
                | "both"
                | "each"
                | "some"
                | "any"
                | "which"
                | "her"
                | "another"
        ) {
            return if self.thing_follows(at) { Tag::Determiner } else { Tag::Pronoun };
        }
        if c.determiner.contains(word) {
            return Tag::Determiner;
        }
        if c.conjunction.contains(word) {
            return Tag::Conjunction;
        }
        if c.subordinator.contains(word)
            && !(matches!(word, "since" | "before" | "after" | "until" | "till") && self.measure_follows(at))
        {
            return Tag::Subordinator;
        }
        if self.is_verb(at) {
            return Tag::Verb;
        }
        if matches!(word, "open" | "free" | "loose" | "shut" | "tight" | "half") {
            return if self.thing_follows(at) && self.after_opener(at) { Tag::Adjective } else { Tag::Particle };
        }
        if c.preposition.contains(word) {
            // "Inside sits one screw."
            let alone = matches!(
                word,
                "inside" | "underneath" | "below" | "above" | "near" | "behind" | "under" | "beneath" | "next"
            );
            if alone && !self.phrase_follows(at) && !matches!(self.word(at + 1), "of" | "to") {
                return Tag::Adverb;
            }
            return Tag::Preposition;
        }
        // "here is", "there's", but "it's right here just lift it".
        if matches!(word, "here" | "there") && !self.presents(at) {
            return Tag::Adverb;
        }
        if c.pronoun.contains(word) {
            return Tag::Pronoun;
        }
        // "first switch it off", but "the first switch".
        if matches!(word, "first" | "next" | "last")
            && self.before(at) != Some(Tag::Determiner)
            && self.order_follows(at)
        {
            return Tag::Adverb;
        }
        if c.adverb.contains(word) && !(c.adjective.contains(word) && self.noun_at(at + 1)) {
            return Tag::Adverb;
        }
        if c.adjective.contains(word) {
            return Tag::Adjective;
        }
        if word.len() > 4 && word.ends_with("ly") && !matches!(word, "assembly" | "supply" | "subassembly" | "family") {
            return Tag::Adverb;
        }
        if verb_form(self.lexicon, said, word).is_some_and(|(_, f)| f == Form::Past) && self.noun_at(at + 1) {
            return Tag::Adjective;
        }
        Tag::Noun
    }

    /// "here is the battery", "there go the screws", "here we have".
    fn presents(&self, at: usize) -> bool {
        let next = self.said.get(at + 1).copied().unwrap_or("");
        self.lexicon.classes.be.contains(next)
            || matches!(
                next,
                "go" | "goes"
                    | "come"
                    | "comes"
                    | "sit"
                    | "sits"
                    | "lie"
                    | "lies"
                    | "we"
                    | "you"
                    | "must"
                    | "should"
                    | "may"
                    | "might"
                    | "can"
                    | "will"
                    | "has"
                    | "have"
                    | "seems"
                    | "exist"
                    | "exists"
            )
    }

    /// "is", "have", "don't" and the like.
    fn helper(&self, at: usize) -> Option<Tag> {
        let c = &self.lexicon.classes;
        let said = self.said[at];
        if said == "'s" && self.possessive(at) {
            return Some(Tag::Preposition);
        }
        if matches!(said, "get" | "gets" | "got") {
            let participle = self
                .said
                .get(at + 1)
                .is_some_and(|w| verb_form(self.lexicon, w, self.word(at + 1)).is_some_and(|(_, f)| f == Form::Past));
            return participle.then_some(Tag::Auxiliary);
        }
        (c.be.contains(said) || c.have.contains(said) || c.does.contains(said)).then_some(Tag::Auxiliary)
    }

    /// "the speaker's cable": a thing follows and nothing that "is" could lead to.
    fn possessive(&self, at: usize) -> bool {
        at > 0
            && matches!(self.tags[at - 1], Tag::Noun)
            && self.noun_at(at + 1)
            && self.lexicon.part_heads.at(&self.words, at + 1).is_some_and(|(len, ())| self.noun_at(at + 1) && len > 0)
    }

    fn noun_at(&self, at: usize) -> bool {
        let Some(word) = self.words.get(at) else { return false };
        let c = &self.lexicon.classes;
        if c.particle.contains(*word)
            || c.determiner.contains(*word)
            || c.pronoun.contains(*word)
            || c.be.contains(*word)
        {
            return false;
        }
        self.lexicon.part_heads.at(&self.words, at).is_some()
            || self.lexicon.connections.at(&self.words, at).is_some()
            || self.lexicon.never_parts.contains(*word)
            || self.lexicon.tools.at(&self.words, at).is_some()
            || matches!(*word, "screw" | "bolt" | "screwdriver" | "driver")
            || (c.adjective.contains(*word) && !c.adverb.contains(*word))
            || !(c.preposition.contains(*word)
                || c.adverb.contains(*word)
                || c.conjunction.contains(*word)
                || c.subordinator.contains(*word)
                || c.modal.contains(*word)
                || c.negation.contains(*word)
                || c.have.contains(*word)
                || c.does.contains(*word)
                || verb_form(self.lexicon, self.said[at], word).is_some()
                || word.ends_with("ly"))
    }

    fn measure_follows(&self, at: usize) -> bool {
        numbers::figure_at(&self.words, at + 1).is_some()
    }

    /// Whether a noun phrase begins behind the word.
    fn thing_follows(&self, at: usize) -> bool {
        !self.pause[at] && (self.noun_at(at + 1) || numbers::figure_at(&self.words, at + 1).is_some())
    }

    fn phrase_follows(&self, at: usize) -> bool {
        let c = &self.lexicon.classes;
        self.thing_follows(at)
            || (!self.pause[at]
                && self.words.get(at + 1).is_some_and(|w| {
                    c.determiner.contains(*w)
                        || matches!(*w, "it" | "them" | "us" | "me" | "everything" | "something" | "anything" | "half")
                }))
    }

    fn before(&self, at: usize) -> Option<Tag> {
        if at == 0 || self.pause[at - 1] { None } else { Some(self.tags[at - 1]) }
    }

    /// The tag before, adverbs skipped.
    fn governor(&self, at: usize) -> Option<Tag> {
        let mut i = at;
        while i > 0 && !self.pause[i - 1] {
            i -= 1;
            if self.tags[i] != Tag::Adverb {
                return Some(self.tags[i]);
            }
        }
        None
    }

    fn after_opener(&self, at: usize) -> bool {
        !matches!(self.before(at), Some(Tag::Verb | Tag::Pronoun | Tag::Noun))
    }

    fn verb_may_follow(&self, at: usize) -> bool {
        let mut i = at;
        while i < self.words.len()
            && (self.words[i].ends_with("ly")
                || matches!(self.words[i], "just" | "not" | "first" | "also" | "then" | "actually"))
        {
            i += 1;
        }
        i < self.words.len()
            && (verb_form(self.lexicon, self.said[i], self.words[i]).is_some_and(|(_, f)| f == Form::Base)
                || matches!(self.said[i], "be" | "have" | "do" | "get"))
            // "to place four", "screwed to lock plate": a code or a number makes it a thing.
            && !(self.words[i] == "place" && numbers::figure_at(&self.words, i + 1).is_some())
    }

    /// "the back cover", "on the back", but "put it back".
    fn back(&self, at: usize) -> Tag {
        match self.before(at) {
            Some(Tag::Determiner | Tag::Adjective | Tag::Preposition | Tag::Number) => {
                if self.noun_at(at + 1) && !self.pause[at] { Tag::Adjective } else { Tag::Noun }
            }
            None | Some(Tag::Conjunction | Tag::Subordinator) if self.noun_at(at + 1) => Tag::Adjective,
            None | Some(Tag::Conjunction | Tag::Subordinator | Tag::Adverb)
                if matches!(self.word(at + 1), "go" | "come" | "is" | "off" | "pop" | "lift" | "just") =>
            {
                Tag::Noun
            }
            Some(Tag::Verb) if self.words.get(at.wrapping_sub(1)).is_some_and(|w| *w == "back") => Tag::Verb,
            None | Some(Tag::To | Tag::Modal) if matches!(self.word(at + 1), "out" | "off") => Tag::Verb,
            _ => Tag::Particle,
        }
    }

    fn sided(&self, at: usize) -> Tag {
        let word = self.words[at];
        match word {
            "like" => Tag::Preposition,
            "second" => Tag::Adjective,
            _ => match self.before(at) {
                Some(Tag::Determiner | Tag::Preposition | Tag::Adjective) => Tag::Adjective,
                _ if self.noun_at(at + 1) && !self.pause[at] && word == "left" => Tag::Adjective,
                _ if self.noun_at(at + 1) && self.lexicon.part_heads.at(&self.words, at + 1).is_some() => {
                    Tag::Adjective
                }
                _ if word == "left" => Tag::Adjective,
                _ => Tag::Adverb,
            },
        }
    }

    /// "in", "on", "off" … lead a phrase or follow a verb.
    fn particle(&self, at: usize) -> Tag {
        let word = self.words[at];
        if !self.phrase_follows(at) || matches!(self.word(at + 1), "same" | "first" | "last" | "next") {
            return Tag::Particle;
        }
        // "pull out the flex", "put on the shield": right behind a verb that knows the particle.
        let verb = at.checked_sub(1).filter(|i| {
            self.tags[*i] == Tag::Verb || (self.tags[*i] == Tag::Adverb && *i > 0 && self.tags[*i - 1] == Tag::Verb)
        });
        if let Some(v) = verb {
            let v = if self.tags[v] == Tag::Verb { v } else { v - 1 };
            let base = verb_form(self.lexicon, self.said[v], self.words[v]).map_or("", |(b, _)| b);
            let knows = self
                .lexicon
                .verbs
                .get(base)
                .is_some_and(|list| list.iter().any(|p| p.particles.first().is_some_and(|x| x == word)));
            // "comes out the bottom" has no object; "goes in the slot" tells a place.
            let moves_itself = matches!(base, "come" | "go" | "sit" | "lie" | "be" | "look");
            if knows && !(moves_itself && matches!(word, "in" | "on" | "over" | "down" | "up")) {
                return Tag::Particle;
            }
        }
        match word {
            "off" | "out" | "away" | "apart" | "together" | "aside" | "upward" | "upwards" | "downwards"
            | "outwards" | "outward" | "inward" | "sideways" | "forward" | "up" | "upside" => Tag::Particle,
            "down" if !matches!(self.before(at), Some(Tag::Noun | Tag::Pronoun | Tag::Verb)) => Tag::Particle,
            _ => Tag::Preposition,
        }
    }

    /// A word that is also a thing.
    fn also_a_thing(&self, at: usize) -> bool {
        let word = self.words[at];
        self.lexicon.part_heads.at(&[word], 0).is_some()
            || self.lexicon.connections.at(&[word], 0).is_some()
            || self.lexicon.never_parts.contains(word)
            || self.lexicon.tools.at(&[word], 0).is_some()
            || matches!(
                word,
                "screw"
                    | "bolt"
                    | "glue"
                    | "heat"
                    | "snap"
                    | "clip"
                    | "set"
                    | "test"
                    | "lock"
                    | "weight"
                    | "look"
                    | "work"
                    | "use"
                    | "run"
                    | "round"
                    | "need"
                    | "end"
                    | "mark"
                    | "repair"
                    | "force"
                    | "help"
                    | "cause"
                    | "upgrade"
                    | "record"
                    | "score"
                    | "cost"
                    | "print"
                    | "drop"
                    | "sticker"
                    | "step"
                    | "read"
                    | "start"
                    | "close"
                    | "clean"
                    | "dry"
                    | "cool"
                    | "warm"
                    | "lead"
                    | "guide"
                    | "support"
                    | "rest"
                    | "change"
                    | "charge"
                    | "store"
                    | "count"
                    | "sort"
                    | "label"
                    | "dust"
                    | "brush"
                    | "access"
                    | "exit"
                    | "swap"
                    | "face"
                    | "mount"
                    | "position"
                    | "measure"
                    | "spread"
                    | "join"
                    | "level"
                    | "seal"
                    | "earth"
                    | "ground"
                    | "supply"
                    | "mind"
                    | "light"
                    | "bore"
                    | "pinch"
                    | "cut"
                    | "blow"
                    | "turn"
                    | "twist"
                    | "pull"
                    | "push"
                    | "press"
                    | "lift"
                    | "slide"
                    | "note"
            )
    }

    fn is_verb(&self, at: usize) -> bool {
        let Some((base, form)) = verb_form(self.lexicon, self.said[at], self.words[at]) else { return false };
        if base == "touch"
            && matches!(
                self.word(at + 1),
                "panel" | "pad" | "screen" | "bar" | "sensor" | "button" | "area" | "function" | "id" | "board"
            )
        {
            return false;
        }
        // "the power button" powers nothing.
        if base == "power"
            && form == Form::Base
            && !matches!(self.word(at + 1), "on" | "off" | "down" | "up" | "it" | "the")
        {
            return false;
        }
        if matches!(base, "switch" | "power" | "turn")
            && form == Form::Base
            && matches!(self.word(at + 1), "on" | "off" | "down")
            && matches!(self.governor(at), None | Some(Tag::Conjunction | Tag::Subordinator))
        {
            return true;
        }
        if self.behind_a_drive(at) || self.screws_taken(at) {
            return false;
        }
        // "the wireless charging coil connector": what stands in a row of nouns does nothing.
        let in_a_row = matches!(self.governor(at), Some(Tag::Noun | Tag::Adjective | Tag::Determiner));
        if form == Form::Ing
            && in_a_row
            && matches!(
                base,
                "charge"
                    | "dock"
                    | "cool"
                    | "mount"
                    | "lock"
                    | "heat"
                    | "bond"
                    | "seal"
                    | "open"
                    | "print"
                    | "record"
                    | "retain"
                    | "hold"
                    | "position"
            )
            && self.noun_at(at + 1)
        {
            return false;
        }
        let thing = self.also_a_thing(at);
        // "battery", "the gear turned": what follows a determiner, a number or an adjective is a thing.
        match self.governor(at) {
            None | Some(Tag::Conjunction | Tag::Subordinator) => match form {
                Form::Base => !thing || self.takes_an_object(at) || self.ordered_along(at),
                Form::Third => !thing && !self.noun_at(at + 1),
                Form::Past => !self.noun_at(at + 1) || matches!(self.governor(at), Some(Tag::Conjunction)),
                Form::Ing => !matches!(base, "open" | "mount") || self.takes_an_object(at),
            },
            Some(Tag::Determiner) => {
                let pronoun = matches!(self.word(at - 1), "that" | "this" | "both" | "all" | "which");
                pronoun && !thing && matches!(form, Form::Third | Form::Base)
            }
            Some(Tag::Adjective) => match form {
                Form::Third => {
                    !thing
                        && matches!(
                            self.word(at + 1),
                            "off" | "out" | "up" | "in" | "on" | "down" | "away" | "back" | "to"
                        )
                }
                // "careful lift it out", "ready pull it".
                Form::Base => !thing && self.takes_an_object(at) && !self.noun_before(at),
                _ => false,
            },
            Some(Tag::Number) => !thing && form != Form::Past && form != Form::Ing,
            Some(Tag::To | Tag::Modal | Tag::Negation) => {
                form == Form::Base || (form != Form::Third && self.before(at) == Some(Tag::Negation))
            }
            Some(Tag::Pronoun) => !thing || form != Form::Base || self.takes_an_object(at) || self.subject_pronoun(at),
            Some(Tag::Auxiliary) => {
                let by = base == "hold" && matches!(self.word(at + 1), "by" | "with");
                form == Form::Past || form == Form::Ing || by || (form == Form::Base && !thing && self.helps(at))
            }
            Some(Tag::Noun | Tag::Measure) => self.verb_behind_noun(at, form, thing),
            Some(Tag::Particle) => match form {
                Form::Base => self.takes_an_object(at) && (!thing || !self.noun_before(at)),
                Form::Third => !thing,
                Form::Past => false,
                Form::Ing => true,
            },
            Some(Tag::Preposition) => form == Form::Ing && !self.noun_at(at + 1) && !thing,
            Some(Tag::Verb) => match form {
                // "if it breaks put some alcohol on it".
                Form::Base
                    if matches!(
                        self.word(at - 1),
                        "break" | "slip" | "resist" | "stop" | "tear" | "fail" | "stick" | "click" | "move" | "hang"
                    ) =>
                {
                    self.takes_an_object(at)
                }
                Form::Base => {
                    matches!(self.word(at - 1), "go" | "come" | "let" | "make" | "help" | "try" | "get" | "gonna")
                        && (!thing || self.takes_an_object(at))
                }
                Form::Ing => !thing,
                _ => false,
            },
            Some(Tag::Adverb) => form == Form::Base && !thing,
        }
    }

    /// "eight T8 screws in the lid": a drive never screws anything.
    fn behind_a_drive(&self, at: usize) -> bool {
        self.words[at] == "screw"
            && at > 0
            && !self.pause[at - 1]
            && (numbers::bit_code(self.words[at - 1]).is_some() || self.behind_drive_name(at))
    }

    /// "Phillips double zero": a size belongs to its drive and counts nothing.
    fn sizes_a_drive(&self, at: usize) -> bool {
        matches!(self.words[at], "zero" | "oh")
            && at > 0
            && (matches!(self.word(at - 1), "double" | "triple" | "zero" | "oh") || self.behind_drive_name(at))
    }

    fn behind_drive_name(&self, at: usize) -> bool {
        (at.saturating_sub(2)..at)
            .any(|i| self.lexicon.drives.at(&self.words[..at], i).is_some_and(|(len, _)| i + len == at))
    }

    /// "put the three hinge screws back in": a verb already has them.
    fn screws_taken(&self, at: usize) -> bool {
        if self.said[at] != "screws" {
            return false;
        }
        let mut i = at;
        while i > 0
            && !self.pause[i - 1]
            && matches!(self.tags[i - 1], Tag::Noun | Tag::Adjective | Tag::Number | Tag::Determiner)
        {
            i -= 1;
        }
        let counted = (i..at).any(|n| self.tags[n] == Tag::Number);
        at - i > 1 && (counted || (i > 0 && self.tags[i - 1] == Tag::Verb))
    }

    /// "does it work", "don't pull": a base form behind "do".
    fn helps(&self, at: usize) -> bool {
        (0..at).rev().take(3).any(|i| self.lexicon.classes.does.contains(self.said[i]))
    }

    fn subject_pronoun(&self, at: usize) -> bool {
        matches!(self.word(at.wrapping_sub(1)), "you" | "we" | "i" | "they" | "who")
    }

    fn noun_before(&self, at: usize) -> bool {
        at > 0 && matches!(self.tags[at - 1], Tag::Noun)
    }

    /// "the cover lifts off", "the screws come out", and in run-on speech "… the screen pull the tab".
    fn verb_behind_noun(&self, at: usize, form: Form, thing: bool) -> bool {
        let next = self.word(at + 1);
        let way =
            self.lexicon.classes.particle.contains(next) || matches!(next, "right" | "straight" | "easily" | "just");
        match form {
            Form::Third => !thing || (way && self.said[at] != self.words[at]) || self.takes_an_object(at),
            Form::Base => {
                let before = (0..at).rev().find(|i| self.tags[*i] == Tag::Noun).map_or("", |i| self.said[i]);
                let plural = before.ends_with('s') && !before.ends_with("ss") || matches!(before, "feet" | "halves");
                // "light cover", "speaker plug": two things in a row are one.
                let compound = self.lexicon.part_heads.at(&[self.words[at]], 0).is_some()
                    || self.lexicon.connections.at(&[self.words[at]], 0).is_some();
                if thing { (plural && way) || (!compound && self.takes_an_object(at)) } else { true }
            }
            Form::Past => true,
            Form::Ing => !thing,
        }
    }

    /// "Press along the edges", "pull first the plug": an order, though no object stands right behind.
    fn ordered_along(&self, at: usize) -> bool {
        let orders =
            matches!(self.words[at], "press" | "push" | "pull" | "cut" | "turn" | "lift" | "slide" | "twist" | "heat");
        let way =
            matches!(self.word(at + 1), "along" | "first" | "on" | "at" | "against" | "around" | "firmly" | "evenly");
        orders
            && way
            && !self.pause[at]
            && self.words.get(at + 2).is_some_and(|w| self.lexicon.classes.determiner.contains(*w))
    }

    /// A base form with what it is done to, or its way, stands right behind.
    fn order_follows(&self, at: usize) -> bool {
        let Some(said) = self.said.get(at + 1).filter(|_| !self.pause[at]) else { return false };
        verb_form(self.lexicon, said, self.word(at + 1)).is_some_and(|(_, f)| f == Form::Base)
            && matches!(
                self.word(at + 2),
                "it" | "them" | "the" | "off" | "on" | "out" | "down" | "this" | "that" | "all" | "your"
            )
    }

    /// What follows can be the object of a verb.
    fn takes_an_object(&self, at: usize) -> bool {
        let c = &self.lexicon.classes;
        let Some(next) = self.words.get(at + 1).filter(|_| !self.pause[at]) else { return false };
        let particle = c.particle.contains(*next)
            && self
                .words
                .get(at + 2)
                .is_some_and(|w| c.determiner.contains(*w) || matches!(*w, "it" | "them" | "with" | "until" | "and"));
        (c.determiner.contains(*next) && *next != "no")
            || matches!(
                *next,
                "it" | "them" | "everything" | "only" | "slowly" | "gently" | "carefully" | "here" | "around" | "all"
            )
            || particle
            || (numbers::figure_at(&self.words, at + 1).is_some())
            || (self.words[at + 1..].first().is_some_and(|w| w.ends_with("ly")))
            || (!self.also_a_thing(at) && self.noun_at(at + 1))
            || (self.said[at] == self.words[at]
                && self.opens(at)
                && self.noun_at(at + 1)
                && !self.lexicon.part_heads.at(&self.words, at).is_some_and(|_| true))
    }

    /// Nothing stands before the word in its part of the sentence.
    fn opens(&self, at: usize) -> bool {
        matches!(self.governor(at), None | Some(Tag::Conjunction | Tag::Subordinator | Tag::Adverb))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::reading::sentences;
    use crate::recording::Recording;
    use rstest::rstest;

    /// The words of a sentence that are verbs.
    fn verbs(text: &str) -> Vec<String> {
        let recording = Recording::parse(text.as_bytes()).unwrap();
        let sentence = sentences::split(&recording).remove(0);
        let tagged = tag(&sentence.tokens, false);
        (0..tagged.len()).filter(|i| tagged.tags[*i] == Tag::Verb).map(|i| tagged.said[i].to_owned()).collect()
    }

    #[rstest]
    #[case("Plug the fan cable in.", &["plug"])]
    #[case("Pull the plug, not the wires.", &["pull"])]
    #[case("The cover clips on at the top.", &["clips"])]
    #[case("Two clips hold the plate.", &["hold"])]
    #[case("Screw the foot on.", &["screw"])]
    #[case("The screws hold the foot.", &["hold"])]
    #[case("Press the cover down and lift the latch.", &["press", "lift"])]
    #[case("You want to pry it up and pull out the flex.", &["want", "pry", "pull"])]
    #[case("The back comes off.", &["comes"])]
    #[case("Put the back cover on.", &["put"])]
    #[case("Heat the edge with a heat gun.", &["heat"])]
    #[case("With those removed, the board slides out.", &["removed", "slides"])]
    #[case("It's held by four screws.", &["held"])]
    #[case("pull the tab lift the board out", &["pull", "lift"])]
    fn tells_verbs_from_things(#[case] text: &str, #[case] wanted: &[&str]) {
        assert_eq!(verbs(text), wanted);
    }
}
