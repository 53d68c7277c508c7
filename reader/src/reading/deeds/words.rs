//! Words and their classes.
//!
//! Half of the words of this trade are nouns and verbs at once ("plug", "clip", "lift"); which of the two a word is, its
//! neighbours tell. One walk from left to right with one word of foresight is enough, and can say why.

use super::super::lexicon::{LEXICON, lemma};
use super::super::numbers;
use super::super::sentences::Token;
use super::super::tags::Form;
use super::grammar::{GRAMMAR, Kind};
use compact_str::CompactString;

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Tag {
    Det,
    Num,
    Adj,
    Noun,
    Pron,
    Prep,
    /// "off", "out", "back" beside a verb.
    Part,
    Adv,
    Conj,
    Sub,
    To,
    Modal,
    Be,
    Have,
    /// "do", "does", "don't".
    Does,
    Neg,
    Verb,
    /// "'s" of an owner.
    Owner,
}

/// A word with its class.
#[derive(Debug, Clone)]
pub(super) struct Word {
    pub said: CompactString,
    pub lemma: CompactString,
    pub tag: Tag,
    /// The verb it is a form of, where it may be one.
    pub base: Option<&'static str>,
    pub form: Form,
    /// A comma or colon follows.
    pub pause: bool,
    pub start: usize,
    pub end: usize,
    pub cue: usize,
}

impl Word {
    pub fn is(&self, word: &str) -> bool {
        self.lemma == word
    }

    pub fn verb(&self) -> &'static str {
        self.base.unwrap_or("")
    }
}

pub(super) const PARTICLES: [&str; 36] = [
    "home",
    "off",
    "out",
    "up",
    "down",
    "away",
    "back",
    "apart",
    "in",
    "on",
    "over",
    "aside",
    "around",
    "round",
    "through",
    "along",
    "loose",
    "free",
    "open",
    "together",
    "forward",
    "sideways",
    "backward",
    "backwards",
    "forwards",
    "upward",
    "upwards",
    "outward",
    "outwards",
    "inwards",
    "inward",
    "shut",
    "across",
    "closed",
    "tight",
    "upright",
];
/// Words that are a particle only where nothing that they could lead to follows.
const LEADING: [&str; 9] = ["in", "on", "over", "around", "round", "through", "along", "across", "down"];
pub(super) const FILLERS: [&str; 27] = [
    "okay",
    "ok",
    "so",
    "well",
    "alright",
    "now",
    "yeah",
    "uh",
    "um",
    "hey",
    "hi",
    "hello",
    "please",
    "oh",
    "then",
    "next",
    "first",
    "also",
    "again",
    "finally",
    "just",
    "here",
    "there",
    "carefully",
    "gently",
    "slowly",
    "likewise",
];

pub(super) fn tag(tokens: &[Token]) -> Vec<Word> {
    let tokens: Vec<&Token> =
        tokens.iter().enumerate().filter(|(at, _)| !is_times(tokens, *at)).map(|(_, t)| t).collect();
    let lemmas: Vec<&str> = tokens.iter().map(|t| t.lemma.as_str()).collect();
    let mut words: Vec<Word> = tokens.iter().map(|t| raw(t)).collect();
    let mut at = 0;
    while at < words.len() {
        // "as well as", "along with", "followed by" go on with a list.
        if let Some(len) = joining(&lemmas[at..]) {
            for word in &mut words[at..at + len] {
                word.tag = Tag::Conj;
            }
            at += len;
            continue;
        }
        let somebody =
            words[at].is("one") && words.get(at + 1).is_some_and(|w| LEXICON.classes.modal.contains(w.said.as_str()));
        if let Some(figure) = numbers::figure_at(&lemmas, at).filter(|_| !one_as_a_thing(&words, at) && !somebody) {
            for word in &mut words[at..at + figure.len] {
                word.tag = Tag::Num;
            }
            at += figure.len;
            // "0.9 newton meter": a unit, and nothing is metered.
            let unit = LEXICON.units.at(&lemmas, at).map_or(0, |(len, _)| len);
            at += if unit > 1 { unit } else { 0 };
            continue;
        }
        let tagger = Tagger { words: &words };
        let tag = tagger.class(at);
        // "can be set aside": a participle that looks like the verb itself.
        let suffered = tag == Tag::Verb
            && words[at].form == Form::Base
            && matches!(tagger.before(at), Some(Tag::Be | Tag::Have))
            // "what I like to do is put …"
            && !(at > 1 && words[at - 2].is("do"))
            && matches!(words[at].verb(), "set" | "put" | "cut" | "shut" | "let" | "split" | "come" | "run");
        words[at].tag = tag;
        if tag == Tag::Verb && words[at].said == "left" {
            (words[at].base, words[at].form) = (Some("leave"), Form::Past);
        }
        if suffered {
            words[at].form = Form::Past;
        }
        // An order with an unknown verb is an order all the same.
        if tag == Tag::Noun
            && at == 0
            && words[0].base.is_none()
            && words.len() > 2
            && words.len() < 12
            && tagger_orders(&words, at)
        {
            words[0].tag = Tag::Verb;
            words[0].base = Some("handle");
        }
        at += 1;
    }
    words
}

/// "2 x long", "1 x PH2": how many, and no word; but "3 x 5" is a size.
fn is_times(tokens: &[Token], at: usize) -> bool {
    let figure = |t: &Token| numbers::figure_at(&[t.lemma.as_str()], 0).is_some();
    let (before, next) = (at.checked_sub(1).map(|i| &tokens[i]), tokens.get(at + 1));
    tokens[at].said == "x" && before.is_some_and(figure) && next.is_some_and(|t| !figure(t))
}

/// "Buckle the hood."
fn tagger_orders(words: &[Word], at: usize) -> bool {
    let next = words.get(at + 1).map_or("", |w| w.said.as_str());
    matches!(next, "the" | "your" | "it" | "them" | "its" | "both" | "all")
        && !words[at].pause
        && words[at].said == words[at].lemma
}

fn raw(token: &Token) -> Word {
    // A repaired word is the word that was meant.
    let repaired = lemma(&token.said) != token.lemma;
    let said = if repaired { token.lemma.clone() } else { token.said.clone() };
    // "pop em up"
    let em = matches!(said.as_str(), "em" | "'em");
    let (said, looked_up) = if em { ("them".into(), "them".into()) } else { (said, token.lemma.clone()) };
    let base = GRAMMAR.base(&said).or_else(|| (token.lemma != said).then(|| GRAMMAR.base(&token.lemma)).flatten());
    let form = match base {
        Some(base) if said == base => Form::Base,
        _ if said.ends_with("ing") => Form::Ing,
        Some(base) if said.ends_with('s') && !base.ends_with('s') && base != "be" && base != "have" => Form::Third,
        Some(_) => Form::Past,
        None => Form::Base,
    };
    Word {
        said,
        lemma: looked_up,
        tag: Tag::Noun,
        base,
        form,
        pause: token.pause,
        start: token.start,
        end: token.end,
        cue: token.cue,
    }
}

fn joining(rest: &[&str]) -> Option<usize> {
    match rest {
        ["as", "well", "as", ..] => Some(3),
        ["followed", "by", ..] => Some(2),
        _ => None,
    }
}

/// "the left one", "this one", "one of them".
pub(super) fn one_as_a_thing(words: &[Word], at: usize) -> bool {
    // "the red one"
    let described = at > 1
        && words[at - 2].is("the")
        && (LEXICON.classes.adjective.contains(words[at - 1].lemma.as_str()) || words[at - 1].is("clear"));
    words[at].is("one")
        && at > 0
        && (described
            || matches!(
                words[at - 1].lemma.as_str(),
                "this"
                    | "that"
                    | "the"
                    | "each"
                    | "which"
                    | "every"
                    | "first"
                    | "last"
                    | "other"
                    | "new"
                    | "old"
                    | "left"
                    | "right"
                    | "same"
                    | "wide"
                    | "short"
                    | "long"
                    | "narrow"
                    | "second"
                    | "third"
                    | "next"
                    | "big"
            ))
}

/// Looks like the participle of a verb that no list knows.
fn suffered(w: &Word) -> bool {
    w.said.len() > 4
        && w.said.ends_with("ed")
        && !w.said.ends_with("eed")
        && LEXICON.part_heads.at(&[w.lemma.as_str()], 0).is_none()
}

/// The words so far with their classes, the rest without.
pub(super) struct Tagger<'a> {
    pub words: &'a [Word],
}

/// A word with what stands around it, as the tables of `classes` and `verbs` ask of it.
pub(super) struct Here<'a> {
    pub t: &'a Tagger<'a>,
    pub at: usize,
    pub w: &'a Word,
    /// As looked up, as said, and the verb it may be a form of, else empty.
    pub word: &'a str,
    pub said: &'a str,
    pub base: &'static str,
    /// The class of the word before, over adverbs; `None` where a clause begins.
    pub before: Option<Tag>,
}

impl<'a> Here<'a> {
    pub fn new(t: &'a Tagger<'a>, at: usize) -> Self {
        let w = &t.words[at];
        Self { t, at, w, word: &w.lemma, said: &w.said, base: w.verb(), before: t.before(at) }
    }

    /// The word so many places before; `None` where the sentence begins.
    pub fn back(&self, by: usize) -> Option<&Word> {
        self.at.checked_sub(by).map(|i| &self.t.words[i])
    }

    pub fn next(&self) -> &str {
        self.t.lemma(self.at + 1)
    }

    pub fn noun_next(&self) -> bool {
        self.t.noun_at(self.at + 1)
    }
}

impl Tagger<'_> {
    pub fn lemma(&self, at: usize) -> &str {
        self.words.get(at).map_or("", |w| w.lemma.as_str())
    }

    pub fn said(&self, at: usize) -> &str {
        self.words.get(at).map_or("", |w| w.said.as_str())
    }

    /// The class of the word before, over adverbs; `None` where a clause begins.
    pub fn before(&self, at: usize) -> Option<Tag> {
        let mut i = at;
        while i > 0 {
            i -= 1;
            if self.words[i].pause {
                return None;
            }
            match self.words[i].tag {
                Tag::Adv if self.words[i].is("so") => return None,
                Tag::Adv => {}
                Tag::Conj | Tag::Sub => return None,
                tag => return Some(tag),
            }
        }
        None
    }

    /// A phrase that a verb could be done to begins here.
    pub fn object_at(&self, at: usize) -> bool {
        let c = &LEXICON.classes;
        let word = self.lemma(at);
        // "the screw that holds the board": no object.
        if word == "that"
            && self.words.get(at + 1).is_some_and(|w| {
                w.base.is_some() && w.form == Form::Third
                    || c.be.contains(w.said.as_str())
                    || c.have.contains(w.said.as_str())
                    || c.modal.contains(w.said.as_str())
            })
        {
            return false;
        }
        c.determiner.contains(self.said(at))
            || matches!(
                word,
                "it" | "them" | "this" | "that" | "these" | "those" | "one" | "everything" | "all" | "both" | "'em"
            )
            || self.words.get(at).is_some_and(|w| numbers::figure_at(&[w.lemma.as_str()], 0).is_some())
    }

    pub fn particle_at(&self, at: usize) -> bool {
        PARTICLES.contains(&self.lemma(at)) || PARTICLES.contains(&self.said(at))
    }

    pub fn pushed(&self, at: usize) -> bool {
        let push = |w: &Word| {
            let pushes =
                matches!(w.verb(), "push" | "press" | "slide" | "snap" | "click" | "drive" | "screw" | "plug" | "seat");
            pushes || matches!(w.verb(), "tap" | "knock" | "hammer" | "twist")
        };
        self.words[at.saturating_sub(5)..at].iter().any(push)
    }

    /// "… up here go", "… over there is": a place, and then what the thing does.
    pub fn pointed_at(&self, at: usize) -> bool {
        let verb = |w: &Word| w.base.is_some() && w.form != Form::Ing || LEXICON.classes.be.contains(w.said.as_str());
        matches!(self.lemma(at + 1), "here" | "there") && self.words.get(at + 2).is_some_and(verb)
    }

    /// "the fan's cable" owns, "the fan's loose" is.
    pub fn s(&self, at: usize) -> Tag {
        let owner = self.words[at - 1].tag;
        if self.lemma(at - 1) == "let" {
            return Tag::Pron;
        }
        if matches!(self.said(at + 1), "got" | "gotta") {
            return Tag::Have;
        }
        if !matches!(owner, Tag::Noun) {
            return Tag::Be;
        }
        // "The ribbon is the screen's, and this one the camera's."
        if self.words[at].pause || at + 1 >= self.words.len() {
            return Tag::Owner;
        }
        let next = at + 1;
        let describes = self.words.get(next).is_none_or(|w| {
            (w.base.is_some() && matches!(w.form, Form::Past | Form::Ing) && !self.noun_at(next + 1))
                || self.object_at(next)
                // "the motor's wired to the board"
                || w.base.is_none() && suffered(w) && !self.noun_at(next + 1)
                // "till the tab's flush"
                || matches!(w.lemma.as_str(), "flush" | "level" | "ready" | "visible" | "done" | "home")
                // "the lamp's dead", "the bearing's rough as anything"
                || LEXICON.classes.adjective.contains(w.lemma.as_str()) && (w.pause || !self.noun_at(next + 1))
                || w.said == "rough"
                || self.particle_at(next)
                || LEXICON.classes.preposition.contains(w.lemma.as_str())
                || LEXICON.classes.adverb.contains(w.lemma.as_str())
                || LEXICON.classes.negation.contains(w.said.as_str())
        });
        if describes { Tag::Be } else { Tag::Owner }
    }

    pub fn to(&self, at: usize) -> Tag {
        let mut next = at + 1;
        while self.words.get(next).is_some_and(|w| {
            (w.lemma.len() > 4 && w.lemma.ends_with("ly") && w.base.is_none())
                || matches!(w.lemma.as_str(), "just" | "then" | "also" | "first" | "not" | "really" | "actually")
        }) {
            next += 1;
        }
        let Some(word) = self.words.get(next) else { return Tag::Prep };
        let verb = matches!(word.said.as_str(), "be" | "have" | "do" | "get")
            || (word.base.is_some() && word.form == Form::Base);
        if !verb {
            return Tag::Prep;
        }
        // "to side", "to back": a noun without an article only where the verb would have nothing to do.
        let nounish = GRAMMAR.nounlike.contains(word.lemma.as_str())
            && !self.object_at(next + 1)
            && !self.particle_at(next + 1)
            && matches!(self.before(at), Some(Tag::Part) | Some(Tag::Noun))
            && matches!(word.lemma.as_str(), "side" | "back" | "front" | "place" | "top" | "end");
        if nounish { Tag::Prep } else { Tag::To }
    }

    /// "this", "that", "all", "both" and articles.
    pub fn pointer(&self, at: usize) -> Option<Tag> {
        let c = &LEXICON.classes;
        let word = self.words[at].lemma.as_str();
        let said = self.words[at].said.as_str();
        if said == "that" && at > 0 && self.words[at - 1].is("now") {
            return Some(Tag::Sub);
        }
        if matches!(said, "that" | "which" | "who") {
            let after_thing =
                at > 0 && (matches!(self.words[at - 1].tag, Tag::Noun | Tag::Num) || self.words[at - 1].is("one"));
            // "There's a ring inside that you pull out.", "these three here that hold the fan"
            let inside = at > 1
                && matches!(
                    self.words[at - 1].lemma.as_str(),
                    "inside" | "underneath" | "behind" | "below" | "here" | "there"
                )
                && matches!(self.words[at - 2].tag, Tag::Noun | Tag::Num);
            let after_thing = after_thing || inside;
            let next = self.words.get(at + 1);
            let clause = next.is_some_and(|w| {
                c.modal.contains(w.said.as_str())
                    || c.be.contains(w.said.as_str())
                    || c.have.contains(w.said.as_str())
                    || c.does.contains(w.said.as_str())
                    || matches!(w.said.as_str(), "i" | "you" | "we" | "they" | "it" | "he" | "she")
                    || (w.base.is_some() && matches!(w.form, Form::Third | Form::Past))
                    || (w.base.is_some()
                        && w.form == Form::Base
                        && !self.noun_at(at + 2)
                        && (!GRAMMAR.nounlike.contains(w.lemma.as_str())
                            || self.object_at(at + 2)
                            || self.particle_at(at + 2)))
            });
            // "Check that the picture is complete."
            let reports = at > 0
                && matches!(
                    self.words[at - 1].lemma.as_str(),
                    "check" | "verify" | "confirm" | "ensure" | "see" | "notice" | "mean" | "remember" | "know"
                )
                && next.is_some_and(|w| {
                    !w.is("one")
                        && (c.determiner.contains(w.said.as_str())
                            || matches!(w.said.as_str(), "it" | "they" | "you" | "all" | "both" | "everything"))
                });
            // "one two three, that's all of them"
            let sums_up =
                next.is_some_and(|w| w.said == "'s") && matches!(self.lemma(at + 2), "all" | "it" | "everything");
            if said != "that" || after_thing && clause && !sums_up || reports {
                return Some(Tag::Sub);
            }
        }
        if matches!(
            said,
            "that" | "this" | "these" | "those" | "all" | "both" | "each" | "some" | "any" | "another" | "her"
        ) {
            // "Peel that back and hold it.", "Lift this right off.": a way; but "take that back off".
            let points = matches!(said, "that" | "this" | "these" | "those" | "all" | "both");
            let moved = at > 0 && self.words[at - 1].tag == Tag::Verb;
            if points && moved && self.way_behind(at + 1) {
                return Some(Tag::Pron);
            }
            // "before we go any further"
            if said == "any" && matches!(self.said(at + 1), "further" | "longer" | "more") && !self.noun_at(at + 2) {
                return Some(Tag::Adv);
            }
            // "I pull off both, best with pliers."
            let thing = !(said == "both" && self.words[at].pause)
                && (self.noun_at(at + 1)
                    || self.words.get(at + 1).is_some_and(|w| {
                        numbers::figure_at(&[w.lemma.as_str()], 0).is_some()
                            || c.determiner.contains(w.said.as_str()) && matches!(said, "all" | "both")
                    }));
            return Some(if thing { Tag::Det } else { Tag::Pron });
        }
        // "I'll put it back together off camera."
        let off_camera =
            said == "off" && self.said(at + 1) == "camera" || said == "camera" && at > 0 && self.said(at - 1) == "off";
        if off_camera {
            return Some(Tag::Adv);
        }
        // "Tighten the nut well."
        let ends = self.words[at].pause || at + 1 >= self.words.len();
        if said == "well" && ends && at > 0 && super::super::phrases::is_screw(&self.words[at - 1].lemma) {
            return Some(Tag::Adv);
        }
        // "until you no longer see it"
        if said == "no" && matches!(self.lemma(at + 1), "longer" | "more" | "further")
            || said == "longer" && at > 0 && self.said(at - 1) == "no"
        {
            return Some(Tag::Adv);
        }
        if said == "no" {
            return Some(if self.noun_at(at + 1) { Tag::Det } else { Tag::Adv });
        }
        (c.determiner.contains(said) && !matches!(word, "which")).then_some(Tag::Det)
    }

    /// "back" where the clause or its place ends, "right off", "straight up".
    fn way_behind(&self, at: usize) -> bool {
        let Some(word) = self.words.get(at) else { return false };
        let next = self.words.get(at + 1);
        let ends =
            word.pause || next.is_none_or(|n| matches!(n.said.as_str(), "and" | "then" | "into" | "onto" | "over"));
        match word.said.as_str() {
            "back" => ends,
            "right" | "straight" => !word.pause && self.particle_at(at + 1) && !self.noun_at(at + 2),
            _ => false,
        }
    }

    pub fn subordinator(&self, at: usize) -> Option<Tag> {
        let word = self.words[at].lemma.as_str();
        let next = self.lemma(at + 1);
        match word {
            "if" | "when" | "while" | "because" | "until" | "till" | "unless" | "although" | "though" | "whenever"
            | "whether" | "whereas" | "where" | "cause" | "otherwise" | "why" | "what" | "whatever" | "how"
            | "whoever" => Some(Tag::Sub),
            "since" => Some(Tag::Sub),
            "once" => {
                let clause = self.phrase_at(at + 1)
                    || self
                        .words
                        .get(at + 1)
                        .is_some_and(|w| matches!(w.said.as_str(), "i" | "you" | "we" | "it" | "they" | "that"));
                Some(if clause { Tag::Sub } else { Tag::Adv })
            }
            // "so that's popped": of that, and no purpose.
            // "Hold it with a tissue so there's no grease on it."
            "so" if next == "there"
                && at > 0
                && !self.words[at - 1].pause
                && matches!(self.words[at - 1].tag, Tag::Noun | Tag::Pron | Tag::Adj | Tag::Part) =>
            {
                matches!(self.said(at + 2), "'s" | "is" | "are").then_some(Tag::Sub)
            }
            "so" if next == "that" => (self.said(at + 2) != "'s").then_some(Tag::Sub),
            // "Lower it like you're putting a child to bed."
            "like" if matches!(next, "you" | "i" | "we" | "they") => Some(Tag::Sub),
            // "As you lift it you see the flex."; but "the same way as you took it out".
            "as" if matches!(next, "you" | "i" | "we")
                && (at == 0 || self.words[at - 1].pause || self.words[at - 1].tag == Tag::Conj)
                && self.words.get(at + 2).is_some_and(|w| w.base.is_some()) =>
            {
                Some(Tag::Sub)
            }
            "than" | "as" => Some(Tag::Prep),
            "before" | "after" if matches!(self.said(at + 1), "that" | "this") => Some(Tag::Prep),
            "before" | "after" => Some(if self.clause_at(at + 1) { Tag::Sub } else { Tag::Prep }),
            _ => None,
        }
    }

    /// A phrase and then a verb, or a gerund, soon.
    fn clause_at(&self, at: usize) -> bool {
        let Some(first) = self.words.get(at) else { return false };
        if matches!(first.said.as_str(), "i" | "you" | "we" | "they" | "he" | "it")
            || (first.base.is_some() && first.form == Form::Ing)
        {
            return true;
        }
        self.words[at..].iter().take(6).take_while(|w| !w.pause).any(|w| {
            LEXICON.classes.be.contains(w.said.as_str())
                || LEXICON.classes.have.contains(w.said.as_str())
                || LEXICON.classes.modal.contains(w.said.as_str())
        })
    }

    /// "left", "right", "back", "front", "top": sides are adjectives before a noun, nouns behind an article, else ways.
    pub fn sided(&self, at: usize, before: Option<Tag>) -> Option<Tag> {
        let word = self.words[at].lemma.as_str();
        if !matches!(
            word,
            "left"
                | "right"
                | "back"
                | "front"
                | "top"
                | "bottom"
                | "rear"
                | "middle"
                | "inside"
                | "outside"
                | "underside"
        ) {
            return None;
        }
        let led = matches!(before, Some(Tag::Det | Tag::Adj | Tag::Num | Tag::Owner | Tag::Prep | Tag::Noun | Tag::To))
            && at > 0
            && self.words[at - 1].tag != Tag::Adv;
        let joined = at > 0 && self.words[at - 1].tag == Tag::Conj;
        if !self.words[at].pause && self.noun_at(at + 1) && (led || joined || !matches!(word, "back" | "right")) {
            return Some(Tag::Adj);
        }
        // "Back is put away."
        if at == 0 && LEXICON.classes.be.contains(self.said(1)) {
            return Some(Tag::Noun);
        }
        // "Back cover on."
        let opens = at == 0 || self.words[at - 1].pause;
        let names = opens && !self.words[at].pause && self.noun_at(at + 1) && self.lemma(at + 1) != "side";
        if names && self.words.get(at + 1).is_some_and(|n| n.base.is_none() || !n.pause && self.particle_at(at + 2)) {
            return Some(Tag::Adj);
        }
        match word {
            "left" | "right" => Some(
                if led && before == Some(Tag::Det) || word == "left" && matches!(before, Some(Tag::Prep | Tag::To)) {
                    Tag::Noun
                } else {
                    Tag::Adv
                },
            ),
            "back" => {
                Some(if led && matches!(before, Some(Tag::Det | Tag::Adj | Tag::Prep)) { Tag::Noun } else { Tag::Part })
            }
            // "the outside of the housing"
            "inside" | "outside" if before == Some(Tag::Det) && self.lemma(at + 1) == "of" => Some(Tag::Noun),
            "inside" | "outside" => None,
            _ => Some(Tag::Noun),
        }
    }

    pub fn noun_at(&self, at: usize) -> bool {
        let Some(w) = self.words.get(at) else { return false };
        let c = &LEXICON.classes;
        let word = w.lemma.as_str();
        // "The foil's folded back, not off."
        let pointed =
            at > 0 && matches!(self.said(at - 1), "the" | "its" | "this" | "that" | "a" | "your" | "my" | "new");
        if word == "back" && (w.pause || at + 1 >= self.words.len()) && !pointed {
            return false;
        }
        // "put it all back together"
        // "Wires back where they were."
        if word == "back" && matches!(self.lemma(at + 1), "where" | "how" | "like" | "as") {
            return false;
        }
        if word == "back" && matches!(self.lemma(at + 1), "together" | "in" | "on" | "into" | "onto" | "up" | "again") {
            return false;
        }
        if matches!(word, "first" | "next" | "last" | "again") && (w.pause || !self.noun_at(at + 1)) {
            return false;
        }
        if c.particle.contains(word) && !matches!(word, "back")
            || c.determiner.contains(w.said.as_str())
            || c.preposition.contains(word) && !matches!(word, "next")
            || c.pronoun.contains(word) && !matches!(word, "thing" | "stuff")
            || c.modal.contains(w.said.as_str())
            || c.be.contains(w.said.as_str())
            || c.have.contains(w.said.as_str())
            || c.negation.contains(w.said.as_str())
            || c.does.contains(w.said.as_str())
            || c.conjunction.contains(word)
            || c.subordinator.contains(word)
            || c.adverb.contains(word) && !c.adjective.contains(word)
            || (word.len() > 4 && word.ends_with("ly") && !matches!(word, "assembly" | "supply"))
        {
            return false;
        }
        match w.base {
            // "Keep that screw, it's the only one."
            Some(_) if w.form == Form::Base => {
                let ends = w.pause && !PARTICLES.contains(&word);
                // "Run that pick all the way round."
                let all_the_way = self.lemma(at + 1) == "all" && self.lemma(at + 3) == "way";
                GRAMMAR.nounlike.contains(word) && (ends || all_the_way || !self.object_at(at + 1))
            }
            // "These screws all have a rubber foot."
            Some(base) if w.form == Form::Third && GRAMMAR.things.contains(base) => true,
            // "The back pops right off."
            Some("pop" | "snap" | "slide" | "lift" | "come")
                if w.form == Form::Third
                    && (self.particle_at(at + 1)
                        || matches!(self.lemma(at + 1), "right" | "straight" | "just") && self.particle_at(at + 2)) =>
            {
                false
            }
            Some(_) if w.form == Form::Third => {
                GRAMMAR.nounlike.contains(word)
                    && !(self.object_at(at + 1) || matches!(self.said(at + 1), "us" | "me" | "you"))
            }
            Some(_) if w.form == Form::Past => self.noun_at(at + 1),
            // "keep these organized"
            None if suffered(w) => self.noun_at(at + 1),
            _ => true,
        }
    }

    pub fn phrase_at(&self, at: usize) -> bool {
        let pronoun = matches!(
            self.lemma(at),
            "something" | "anything" | "nothing" | "me" | "you" | "itself" | "each" | "either"
        );
        self.object_at(at) || self.noun_at(at) || pronoun
    }

    pub fn particle(&self, at: usize, before: Option<Tag>) -> Tag {
        let word = self.words[at].lemma.as_str();
        if matches!(word, "open" | "free" | "loose" | "shut" | "closed")
            && matches!(before, Some(Tag::Det | Tag::Adj))
            && self.noun_at(at + 1)
        {
            return Tag::Adj;
        }
        // "put on new glue", "turn on the lamp": what must have an object has it here.
        let asks = at > 0
            && self.words[at - 1].tag == Tag::Verb
            && matches!(
                self.words[at - 1].verb(),
                "put"
                    | "turn"
                    | "switch"
                    | "screw"
                    | "snap"
                    | "clip"
                    | "pop"
                    | "plug"
                    | "fit"
                    | "glue"
                    | "stick"
                    | "set"
                    | "push"
                    | "slide"
                    | "hook"
                    | "lay"
                    | "run"
                    | "click"
            )
            // "The plate was put on the tray.": a place.
            && !(at > 1 && self.words[at - 2].tag == Tag::Be)
            && (word == "in"
                || word == "on" && !matches!(self.words[at - 1].verb(), "set" | "push" | "slide" | "hook"));
        // "the flex in, latch down" in one breath: two ways in a row.
        let two_ways = matches!(word, "in" | "on")
            && before == Some(Tag::Noun)
            && self
                .words
                .get(at + 1)
                .is_some_and(|n| GRAMMAR.kind(std::slice::from_ref(&n.lemma)) == Some(Kind::Lever))
            && self.particle_at(at + 2);
        // "put the back on six screws back in": on, and then its screws.
        let then_screws = word == "on"
            && before == Some(Tag::Noun)
            && LEXICON.numbers.contains_key(self.said(at + 1))
            && super::super::phrases::is_screw(self.lemma(at + 2))
            && self.particle_at(at + 3);
        let two_ways = two_ways || then_screws;
        // "It drops in one way.": in, and how.
        let one_way = word == "in"
            && self.lemma(at + 1) == "one"
            && self.lemma(at + 2) == "way"
            && !self.words[..at].iter().any(|w| w.is("only"));
        // "The new switch goes in flush with the board."
        let one_way = one_way || word == "in" && matches!(self.lemma(at + 1), "flush" | "straight" | "first" | "last");
        let two_ways = two_ways || one_way;
        // "put the screws in one two three": counted aloud.
        let counted = word == "in" && self.lemma(at + 1) == "one" && self.lemma(at + 2) == "two";
        let two_ways = two_ways || counted;
        // "The gasket goes on sticky side to the casing.": on it goes, and how.
        let sided = word == "on"
            && matches!(self.words.get(at.wrapping_sub(1)).map(|w| w.verb()), Some("go" | "put" | "stick"))
            && self.lemma(at + 2) == "side"
            && matches!(self.lemma(at + 3), "to" | "up" | "down" | "out" | "in");
        // "The new gear, on it goes."
        let inverted = matches!(self.said(at + 1), "it" | "she" | "he" | "they")
            && matches!(self.said(at + 2), "goes" | "go" | "comes" | "come");
        if LEADING.contains(&word)
            && word != "down"
            && !sided
            && !inverted
            && !asks
            && !two_ways
            && !self.words[at].pause
            && self.phrase_at(at + 1)
        {
            return Tag::Prep;
        }
        Tag::Part
    }
}
