//! The class of a word where it stands: an ordered table, of which the first rule that knows the word answers.
//!
//! Small words first, which are what they are; then words that change with their neighbours ("that", "back", "like"); then
//! verbs (`verbs`); and what is left names something.

use super::super::lexicon::LEXICON;
use super::super::tags::Form;
use super::grammar::GRAMMAR;
use super::verbs::is_verb;
use super::words::{FILLERS, Here, PARTICLES, Tag, Tagger, Word, one_as_a_thing};

type Rule = fn(&Here<'_>) -> Option<Tag>;

const RULES: &[Rule] = &[
    call,
    s,
    negation,
    modal,
    get,
    helper,
    does,
    to,
    one,
    real_quick,
    kind_of,
    after_this,
    set_ways,
    roughly,
    such,
    pointer,
    conjunction,
    subordinator,
    left_under,
    insides,
    sided,
    somewhere_clean,
    verb,
    low,
    push_down,
    tells_where,
    loose,
    home,
    particle,
    preposition,
    pronoun,
    face_down,
    place_word,
    adverb,
    adjective,
    participle,
];

impl Tagger<'_> {
    pub(super) fn class(&self, at: usize) -> Tag {
        let here = Here::new(self, at);
        RULES.iter().find_map(|rule| rule(&here)).unwrap_or(Tag::Noun)
    }
}

impl Here<'_> {
    /// Behind "the", "the big".
    fn led(&self) -> bool {
        matches!(self.before, Some(Tag::Det | Tag::Adj))
    }

    fn is_part(&self) -> bool {
        LEXICON.part_heads.at(&[self.word], 0).is_some()
    }
}

/// "Caution, lift it straight up": opens, and names nothing.
fn call(h: &Here<'_>) -> Option<Tag> {
    let calls = matches!(h.word, "caution" | "attention" | "warning" | "note" | "important" | "danger");
    (h.at == 0 && h.w.pause && calls).then_some(Tag::Adv)
}

/// "The whole insides come out the bottom."
fn insides(h: &Here<'_>) -> Option<Tag> {
    matches!(h.said, "insides" | "innards" | "guts").then_some(Tag::Noun)
}

/// "the fan's cable" owns, "the fan's loose" is.
fn s(h: &Here<'_>) -> Option<Tag> {
    (h.said == "'s" && h.at > 0).then(|| h.t.s(h.at))
}

fn negation(h: &Here<'_>) -> Option<Tag> {
    let not = LEXICON.classes.negation.contains(h.said) && h.said.ends_with("n't");
    (matches!(h.said, "not" | "never" | "n't" | "cannot") || not).then_some(Tag::Neg)
}

/// "can", and not "the can"; "gonna" only colours the verb behind it.
fn modal(h: &Here<'_>) -> Option<Tag> {
    let c = &LEXICON.classes;
    let a_can = h.said == "can" && h.led() && !c.be.contains(h.t.said(h.at + 1));
    let tag = if matches!(h.said, "gonna" | "wanna") { Tag::Adv } else { Tag::Modal };
    (c.modal.contains(h.said) && !a_can).then_some(tag)
}

/// "get stuck", and "get zapped", which no list knows.
fn get(h: &Here<'_>) -> Option<Tag> {
    let participle = |w: &Word| {
        w.base.is_some() && w.form == Form::Past || w.base.is_none() && w.said.len() > 4 && w.said.ends_with("ed")
    };
    let suffers = h.t.words.get(h.at + 1).is_some_and(participle);
    matches!(h.said, "get" | "gets" | "got").then_some(if suffers { Tag::Be } else { Tag::Verb })
}

fn helper(h: &Here<'_>) -> Option<Tag> {
    let c = &LEXICON.classes;
    let be = c.be.contains(h.said).then_some(Tag::Be);
    be.or_else(|| c.have.contains(h.said).then_some(Tag::Have))
}

/// "do you see", "does not", and "do the other side"
fn does(h: &Here<'_>) -> Option<Tag> {
    let asked = |w: &Word| {
        matches!(w.said.as_str(), "not" | "you" | "i" | "we" | "they")
            || (w.base.is_some() && w.form == Form::Base && !h.t.object_at(h.at + 1))
    };
    let helps = h.t.words.get(h.at + 1).is_some_and(asked);
    matches!(h.said, "do" | "does" | "did").then_some(if helps { Tag::Does } else { Tag::Verb })
}

fn to(h: &Here<'_>) -> Option<Tag> {
    (h.word == "to").then(|| h.t.to(h.at))
}

/// "Now one can take away the lid.", "the new one goes in", "each one a few turns", "the long ones go back"
fn one(h: &Here<'_>) -> Option<Tag> {
    let c = &LEXICON.classes;
    if h.said == "one" && c.modal.contains(h.t.said(h.at + 1)) && !h.led() {
        return Some(Tag::Pron);
    }
    let does = |n: &Word| {
        let is = c.be.contains(n.said.as_str()) || matches!(n.said.as_str(), "came" | "'s");
        n.base.is_some() && n.form == Form::Third || is
    };
    let moves = h.word == "one" && one_as_a_thing(h.t.words, h.at) && h.t.words.get(h.at + 1).is_some_and(does);
    let each = h.said == "one" && h.back(1).is_some_and(|w| matches!(w.said.as_str(), "each" | "every"));
    let ones = h.said == "ones" && (h.led() || h.before == Some(Tag::Num));
    (moves || each || ones).then_some(Tag::Noun)
}

/// "… out real quick"
fn real_quick(h: &Here<'_>) -> Option<Tag> {
    let quick = |w: &str| matches!(w, "quick" | "slow" | "easy" | "good" | "gently");
    let real = h.said == "real" && quick(h.t.said(h.at + 1));
    let quickly = quick(h.said) && h.back(1).is_some_and(|w| w.said == "real");
    (real || quickly).then_some(Tag::Adv)
}

/// "It kind of rotates out.", "that's sort of tucked under": about so.
fn kind_of(h: &Here<'_>) -> Option<Tag> {
    let kind = |w: &str| matches!(w, "kind" | "sort");
    let of = h.word == "of" && h.back(1).is_some_and(|w| kind(&w.said) && w.tag == Tag::Adv);
    let spoken = matches!(h.before, Some(Tag::Pron | Tag::Noun | Tag::Be | Tag::Modal | Tag::Adv));
    let does = |w: &Word| w.base.is_some();
    let about = kind(h.said) && h.next() == "of" && spoken && h.t.words.get(h.at + 2).is_some_and(does);
    (of || about).then_some(Tag::Adv)
}

/// "After this lift up the cell."
fn after_this(h: &Here<'_>) -> Option<Tag> {
    let order = |w: &Word| w.base.is_some() && w.form == Form::Base;
    let this = h.at == 1 && matches!(h.word, "this" | "that") && h.t.said(0) == "after";
    let done = h.t.words.get(2).is_some_and(order) && (h.t.particle_at(3) || h.t.object_at(3));
    (this && done).then_some(Tag::Pron)
}

/// "counter clockwise", "hand tight", "upside down"; "I'll take a picture first, mind, …"
fn set_ways(h: &Here<'_>) -> Option<Tag> {
    let pair = matches!((h.said, h.t.said(h.at + 1)), ("counter" | "anti", "clockwise") | ("hand" | "finger", "tight"));
    let mind = h.said == "mind" && h.w.pause && h.back(1).is_some_and(|w| w.pause);
    (pair || mind || h.said == "upside").then_some(Tag::Adv)
}

/// "like a million screws", "for like three or four minutes": about so many.
fn roughly(h: &Here<'_>) -> Option<Tag> {
    let many = matches!(h.t.lemma(h.at + 2), "million" | "hundred" | "thousand" | "dozen");
    let next = h.t.said(h.at + 1);
    let number = LEXICON.numbers.contains_key(next) && !matches!(next, "one" | "a");
    (h.said == "like" && (next == "a" && many || number)).then_some(Tag::Adv)
}

/// "such a card"
fn such(h: &Here<'_>) -> Option<Tag> {
    (h.word == "such" && (matches!(h.next(), "a" | "an") || h.noun_next())).then_some(Tag::Det)
}

/// "this", "that", "all", "both" and articles.
fn pointer(h: &Here<'_>) -> Option<Tag> {
    h.t.pointer(h.at)
}

/// "the lid plus the screws", and not "the plus pad"
fn conjunction(h: &Here<'_>) -> Option<Tag> {
    let pole = h.word == "plus" && h.before == Some(Tag::Det);
    (!pole && matches!(h.word, "and" | "or" | "but" | "nor" | "plus" | "&")).then_some(Tag::Conj)
}

fn subordinator(h: &Here<'_>) -> Option<Tag> {
    h.t.subordinator(h.at)
}

/// "It's left under two books."
fn left_under(h: &Here<'_>) -> Option<Tag> {
    let stays = matches!(h.next(), "under" | "alone" | "like" | "for" | "on" | "in");
    (h.said == "left" && h.before == Some(Tag::Be) && stays).then_some(Tag::Verb)
}

/// "left", "right", "back", "front", "top"
fn sided(h: &Here<'_>) -> Option<Tag> {
    h.t.sided(h.at, h.before)
}

/// "Put them somewhere clean."
fn somewhere_clean(h: &Here<'_>) -> Option<Tag> {
    let some = h.back(1).is_some_and(|w| matches!(w.said.as_str(), "somewhere" | "something" | "anything"));
    let adjective = LEXICON.classes.adjective.contains(h.word) || h.word == "clean";
    (some && !h.t.object_at(h.at + 1) && adjective).then_some(Tag::Adj)
}

/// "The screen works now."
fn verb(h: &Here<'_>) -> Option<Tag> {
    let works = h.said == "works" && matches!(h.before, Some(Tag::Noun | Tag::Pron));
    (works || is_verb(h)).then_some(Tag::Verb)
}

/// "Pull slowly and low."
fn low(h: &Here<'_>) -> Option<Tag> {
    let led = h.led() || h.before == Some(Tag::Prep);
    (h.word == "low" && !led && (h.w.pause || !h.noun_next())).then_some(Tag::Adv)
}

/// "a push-down connector"
fn push_down(h: &Here<'_>) -> Option<Tag> {
    let moved = |w: &Word| {
        matches!(w.lemma.as_str(), "push" | "pull" | "snap" | "slide" | "screw" | "plug" | "press" | "flip" | "click")
    };
    let named = |n: &Word| LEXICON.part_heads.at(&[n.lemma.as_str()], 0).is_some() || n.is("connector");
    let led = |w: &Word| matches!(w.tag, Tag::Det | Tag::Adj | Tag::Num);
    let way = PARTICLES.contains(&h.word) && h.before == Some(Tag::Noun) && !h.w.pause;
    let inside = way && h.back(1).is_some_and(moved) && h.back(2).is_some_and(led);
    (inside && h.t.words.get(h.at + 1).is_some_and(named)).then_some(Tag::Adj)
}

/// "the three leads up here go to the aerials", "component side up": tells where they are, and how it lies.
fn tells_where(h: &Here<'_>) -> Option<Tag> {
    let behind = h.before == Some(Tag::Noun);
    let here = PARTICLES.contains(&h.word) && behind && !h.w.pause && h.t.pointed_at(h.at);
    let lies = matches!(h.word, "up" | "down") && behind && h.back(1).is_some_and(|w| w.is("side"));
    (here || lies).then_some(Tag::Adv)
}

/// "fingers and loose wires": how they are.
fn loose(h: &Here<'_>) -> Option<Tag> {
    let led = (h.before.is_none() || h.led()) && h.back(1).is_some_and(|w| w.tag != Tag::Noun);
    let state = matches!(h.word, "loose" | "free" | "open" | "tight");
    (state && led && h.noun_next() && !h.w.pause).then_some(Tag::Adj)
}

/// "It goes home now.", but "push the slider home", "tap the bushing home with a block".
fn home(h: &Here<'_>) -> Option<Tag> {
    let tag = if h.led() { Tag::Noun } else { Tag::Adv };
    (h.word == "home" && !h.t.pushed(h.at)).then_some(tag)
}

fn particle(h: &Here<'_>) -> Option<Tag> {
    let way = PARTICLES.contains(&h.word) || PARTICLES.contains(&h.said);
    // "The back opens to the left."
    let opens = h.said == "opens" && h.before == Some(Tag::Noun);
    let way = way && !opens;
    way.then(|| h.t.particle(h.at, h.before))
}

/// "under the lid", and "it sits underneath"
fn preposition(h: &Here<'_>) -> Option<Tag> {
    let next = h.word == "next" && h.next() != "to";
    if !LEXICON.classes.preposition.contains(h.word) || h.word == "like" || next {
        return None;
    }
    let alone = matches!(
        h.word,
        "inside" | "underneath" | "below" | "above" | "near" | "behind" | "under" | "beneath" | "opposite" | "next"
    );
    // "Work your way around cutting the glue."
    let going = |n: &Word| n.base.is_some() && n.form == Form::Ing;
    if matches!(h.word, "around" | "round" | "along" | "across") && h.t.words.get(h.at + 1).is_some_and(going) {
        return Some(Tag::Part);
    }
    // "There's a ring inside that you pull out."
    let inside_that = alone && h.next() == "that" && matches!(h.t.said(h.at + 2), "you" | "we" | "i");
    Some(match h.before {
        _ if inside_that => Tag::Adv,
        _ if !alone || h.t.phrase_at(h.at + 1) => Tag::Prep,
        Some(Tag::Prep) => Tag::Noun,
        _ => Tag::Adv,
    })
}

fn pronoun(h: &Here<'_>) -> Option<Tag> {
    let place = matches!(h.word, "thing" | "stuff" | "here" | "there");
    if LEXICON.classes.pronoun.contains(h.word) && !place {
        return Some(Tag::Pron);
    }
    (h.word == "like").then_some(Tag::Prep)
}

/// "the lamp face down": a way to lie, and no part of the name.
fn face_down(h: &Here<'_>) -> Option<Tag> {
    (h.said == "face" && matches!(h.next(), "down" | "up" | "downwards" | "upwards")).then_some(Tag::Adv)
}

fn place_word(h: &Here<'_>) -> Option<Tag> {
    // "the screws in the battery well"
    let named = h.back(2).is_some_and(|w| matches!(w.tag, Tag::Det | Tag::Adj | Tag::Noun));
    if h.word == "well" && h.back(1).is_some_and(|w| w.tag == Tag::Noun) && named {
        return Some(Tag::Noun);
    }
    if h.word == "side" && !h.noun_next() {
        return Some(Tag::Noun);
    }
    matches!(h.word, "here" | "there").then_some(Tag::Adv)
}

fn adverb(h: &Here<'_>) -> Option<Tag> {
    let c = &LEXICON.classes;
    let inside = matches!(h.before, Some(Tag::Prep | Tag::Adj | Tag::Num | Tag::Noun | Tag::Owner));
    let describes = c.adjective.contains(h.word) && (h.before == Some(Tag::Det) || h.noun_next() && inside);
    let listed = (c.adverb.contains(h.word) || FILLERS.contains(&h.word)) && !describes;
    // "rearward", "hingewards": a way.
    let wards = h.word.len() > 6 && (h.word.ends_with("ward") || h.word.ends_with("wards")) && h.word != "forward";
    let names = matches!(
        h.word,
        "assembly" | "disassembly" | "reassembly" | "supply" | "subassembly" | "family" | "fly" | "belly"
    );
    let ly = h.word.len() > 4 && h.word.ends_with("ly") && !names;
    (listed || wards || ly).then_some(Tag::Adv)
}

fn adjective(h: &Here<'_>) -> Option<Tag> {
    if h.said == "seconds" {
        return Some(Tag::Noun);
    }
    let listed = LEXICON.classes.adjective.contains(h.word) || GRAMMAR.passing.contains(h.word);
    // "reusable", "adjustable": says how a thing is.
    let able = (h.word.ends_with("able") || h.word.ends_with("ible")) && h.word.len() > 6 && h.word != "turntable";
    // "If it's only the fan that's noisy": behind "is", as "noisy" names nothing.
    // "Smooth as you like."
    let alone = h.at == 0 && !h.noun_next() && h.w.base.is_none();
    let is = alone || h.before == Some(Tag::Be) && (h.w.pause || !h.noun_next());
    let state = is && LEXICON.everyday_adjectives.contains(h.word);
    if listed || (able || state) && !h.is_part() {
        return Some(Tag::Adj);
    }
    (LEXICON.everyday_adverbs.contains(h.word) && !GRAMMAR.nounlike.contains(h.word)).then_some(Tag::Adv)
}

/// "the glued bezel", "is widened", "in the sequence indicated"
fn participle(h: &Here<'_>) -> Option<Tag> {
    if h.said == "felt" {
        return Some(Tag::Noun);
    }
    if h.before == Some(Tag::Be) && h.word.len() > 4 && h.word.ends_with("ed") {
        return Some(Tag::Adj);
    }
    let past = h.w.base.is_some() && h.w.form == Form::Past && !GRAMMAR.nounlike.contains(h.word);
    // What stands behind a thing tells of it.
    let behind = h.before == Some(Tag::Noun) && !h.noun_next();
    past.then_some(if behind { Tag::Adv } else { Tag::Adj })
}
