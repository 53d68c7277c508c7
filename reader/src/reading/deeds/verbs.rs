//! Whether a word that may be a verb is one where it stands.
//!
//! Half of the verbs of this trade are nouns as well ("plug", "clip", "lift"). Some constructions settle it, whatever
//! stands around ([`SETTLED`]); else its form and the class of the word before it decide, each with a rule of its own:
//! behind "the" nothing is done, behind "to" something always is, and where a clause begins it is nearly always an order.

use super::super::lexicon::LEXICON;
use super::super::numbers;
use super::super::phrases::describes_cable;
use super::super::tags::Form;
use super::grammar::{GRAMMAR, Kind};
use super::words::{Here, Tag, Word};

/// A construction that settles it; `None` where it says nothing of the word.
type Rule = fn(&Here<'_>) -> Option<bool>;

/// In this order: what is no verb by its neighbours comes between what is one, as they were met in speech.
const SETTLED: &[Rule] = &[
    using_it,
    stops_there,
    moved_open,
    until_they_do,
    keeps_it_so,
    making_sure,
    looks_at_it,
    a_quarter_turn,
    going_to,
    checked_to_do,
    a_numbered_step,
    screw_of_its_head,
    only_names,
    numbers_them,
    just_clips_in,
    if_it_breaks,
    between_pauses,
    thing_and_way,
    named_again,
    and_lift,
    a_smear_of,
    it_plugs_in,
    it_opens,
    back_it_off,
    the_one_pulls,
    and_it_works,
    which_comes_off,
];

pub(super) fn is_verb(h: &Here<'_>) -> bool {
    if h.base.is_empty() {
        return false;
    }
    if let Some(settled) = SETTLED.iter().find_map(|rule| rule(h)) {
        return settled;
    }
    match h.w.form {
        Form::Base => base_form(h),
        Form::Third => third_person(h),
        Form::Past => past(h),
        Form::Ing => ing(h),
    }
}

impl Here<'_> {
    fn back_is(&self, by: usize, tag: Tag) -> bool {
        self.back(by).is_some_and(|w| w.tag == tag)
    }

    fn back_said(&self, by: usize, words: &[&str]) -> bool {
        self.back(by).is_some_and(|w| words.contains(&w.said.as_str()))
    }

    fn is_base(&self) -> bool {
        self.w.form == Form::Base
    }

    /// It may as well be the name of a thing.
    fn nounlike(&self) -> bool {
        let names = |w: &str| {
            GRAMMAR.nounlike.contains(w)
                || LEXICON.part_heads.at(&[w], 0).is_some()
                || GRAMMAR.kind(&[w.into()]).is_some_and(|k| k != Kind::Nothing)
        };
        names(self.base) || names(&self.w.lemma)
    }

    fn object_next(&self) -> bool {
        !self.w.pause && self.t.object_at(self.at + 1)
    }

    fn particle_next(&self) -> bool {
        !self.w.pause && self.t.particle_at(self.at + 1)
            || matches!(self.next(), "into" | "onto")
            || matches!(self.next(), "right" | "straight") && self.t.particle_at(self.at + 2)
    }

    fn adverb_next(&self) -> bool {
        self.t.words.get(self.at + 1).is_some_and(|n| {
            (n.lemma.len() > 4 && n.lemma.ends_with("ly") && n.lemma != "assembly")
                || matches!(n.lemma.as_str(), "again" | "here" | "there" | "now" | "only" | "lightly")
        })
    }

    fn preposition_next(&self) -> bool {
        LEXICON.classes.preposition.contains(self.next())
    }

    fn ends(&self) -> bool {
        self.at + 1 >= self.t.words.len() || self.w.pause
    }
}

/// "screws using a driver": with it.
fn using_it(h: &Here<'_>) -> Option<bool> {
    (h.w.said == "using" && matches!(h.before, Some(Tag::Noun | Tag::Part))).then_some(false)
}

/// "if it is puffed up stop right there"
fn stops_there(h: &Here<'_>) -> Option<bool> {
    let there = matches!(h.next(), "right" | "there" | "here" | "immediately");
    (h.w.is("stop") && h.is_base() && there).then_some(true)
}

/// "Flip it open like a book.", "Pull it free and lay it down.": a way; but "let it open".
fn moved_open(h: &Here<'_>) -> Option<bool> {
    let way = matches!(h.w.lemma.as_str(), "open" | "shut" | "free" | "loose") && h.is_base();
    let moved = h.back(2).filter(|v| way && h.before == Some(Tag::Pron) && v.tag == Tag::Verb)?;
    Some(matches!(moved.verb(), "let" | "make" | "help" | "watch" | "see"))
}

/// "till both clips snap", "until the tabs click": what they do at last.
fn until_they_do(h: &Here<'_>) -> Option<bool> {
    const FARTHEST: usize = 4;
    let sounds = matches!(h.w.lemma.as_str(), "snap" | "click" | "clip" | "lock" | "catch" | "pop" | "stop");
    let several = h.back(1).is_some_and(|w| w.tag == Tag::Noun && w.said.ends_with('s'));
    let until = || (2..=FARTHEST).filter_map(|by| h.back(by)).any(|w| matches!(w.said.as_str(), "until" | "till"));
    (sounds && h.is_base() && several && until()).then_some(true)
}

/// "Keep it clean.", "Leave the lens dry.": how it stays.
fn keeps_it_so(h: &Here<'_>) -> Option<bool> {
    const FARTHEST: usize = 4;
    let way = matches!(h.w.lemma.as_str(), "clean" | "dry" | "warm" | "cool" | "wet" | "clear" | "level" | "flat");
    let mut back = (1..=FARTHEST).map_while(|by| h.back(by)).take_while(|w| !w.pause && w.tag != Tag::Conj);
    let keeps = |w: &Word| w.tag == Tag::Verb && matches!(w.verb(), "keep" | "leave" | "stay");
    (way && h.is_base() && h.before != Some(Tag::To) && back.any(keeps)).then_some(false)
}

/// "Put the lid on, making sure that no cable is squeezed."
fn making_sure(h: &Here<'_>) -> Option<bool> {
    (h.w.said == "making" && h.next() == "sure").then_some(true)
}

/// "turn it over and look at the display side", "and watch for the washer"
fn looks_at_it(h: &Here<'_>) -> Option<bool> {
    let watches = h.w.is("watch") && matches!(h.next(), "for" | "out" | "that" | "your");
    let looks = h.w.is("look") && h.is_base() && matches!(h.next(), "at" | "inside" | "into" | "under");
    let named = matches!(h.before, Some(Tag::Det | Tag::Adj | Tag::Num));
    ((watches || looks) && h.at > 0 && !named).then_some(true)
}

/// "Give each a quarter turn first."
fn a_quarter_turn(h: &Here<'_>) -> Option<bool> {
    let part = h.back(1).is_some_and(|w| matches!(w.lemma.as_str(), "quarter" | "half" | "full"));
    (h.w.is("turn") && part).then_some(false)
}

/// "I'm gonna start with the heater."
fn going_to(h: &Here<'_>) -> Option<bool> {
    (h.is_base() && h.back_said(1, &["gonna", "wanna"])).then_some(true)
}

/// "Check that the fan turns.", "Make sure the drum spins.": the last word is what it does, and no part of its name.
fn checked_to_do(h: &Here<'_>) -> Option<bool> {
    let ends = |at: usize| at + 1 >= h.t.words.len() || h.t.words[at].pause;
    // "lights up", "comes on"
    let way = matches!(h.t.said(h.at + 1), "up" | "on" | "off" | "out" | "down" | "freely");
    let last = ends(h.at) || ends(h.at + 1) && way;
    let asks = matches!(h.t.lemma(0), "check" | "make" | "see" | "verify" | "confirm" | "ensure");
    let that = |i: usize| matches!(h.t.said(i), "that" | "sure" | "whether" | "if");
    let does = h.w.form == Form::Third && last && asks && h.before == Some(Tag::Noun);
    (does && (h.at.saturating_sub(5)..h.at.saturating_sub(1)).any(that)).then_some(true)
}

/// "step 7 disconnect the plug": a number of the list, then an order.
fn a_numbered_step(h: &Here<'_>) -> Option<bool> {
    let number = |w: &Word| numbers::figure_at(&[w.lemma.as_str()], 0).is_some();
    if h.w.is("step") && h.t.words.get(h.at + 1).is_some_and(number) {
        return Some(false);
    }
    let behind = h.before == Some(Tag::Num) && h.back(2).is_some_and(|w| w.is("step"));
    (behind && h.is_base()).then_some(true)
}

/// "one Phillips-head screw that fastens the plate"
fn screw_of_its_head(h: &Here<'_>) -> Option<bool> {
    let kind =
        |w: &Word| matches!(w.lemma.as_str(), "head" | "headed") || LEXICON.drives.at(&[w.lemma.as_str()], 0).is_some();
    (h.w.is("screw") && h.back(1).is_some_and(kind)).then_some(false)
}

/// "round the rim", "the felt ring", "like a book", "Torque driver, set to 0.2 newton metres."
fn only_names(h: &Here<'_>) -> Option<bool> {
    let names = match h.base {
        "round" | "be" | "have" => true,
        "feel" => h.w.said == "felt" && matches!(h.before, Some(Tag::Det | Tag::Adj)),
        "like" => !matches!(h.before, Some(Tag::To | Tag::Modal)) && h.t.said(h.at + 1) != "to",
        "torque" => matches!(h.next(), "driver" | "screwdriver" | "wrench" | "tool"),
        _ => false,
    };
    names.then_some(false)
}

/// "The memory just clips in."
fn just_clips_in(h: &Here<'_>) -> Option<bool> {
    let just = h.back_said(1, &["just", "simply"]) && h.back_is(2, Tag::Noun);
    (just && h.w.form == Form::Third && (h.particle_next() || h.ends())).then_some(true)
}

/// "If the strip breaks, use a card.": what may happen.
fn if_it_breaks(h: &Here<'_>) -> Option<bool> {
    const FARTHEST: usize = 5;
    let fails = matches!(h.base, "break" | "tear" | "snap" | "slip" | "stick" | "jam" | "crack" | "spin" | "strip");
    let ends = h.w.pause && h.w.form == Form::Third && h.before == Some(Tag::Noun);
    let supposed = || (2..=FARTHEST).filter_map(|by| h.back(by)).any(|w| matches!(w.said.as_str(), "if" | "when"));
    (fails && ends && supposed()).then_some(true)
}

/// "Number the plugs.": ordered only where a thing follows; else "number four", "a cotton swab", "the slot".
fn numbers_them(h: &Here<'_>) -> Option<bool> {
    let rarely = matches!(h.base, "number" | "swab" | "slot" | "tag" | "bag" | "punch" | "hammer" | "score");
    let begins = matches!(h.before, None | Some(Tag::Conj | Tag::Adv | Tag::Pron | Tag::To | Tag::Modal));
    (rarely && h.is_base()).then_some(begins && h.object_next())
}

/// "tweezers under the edge, lift, and stick it on the new one"
fn between_pauses(h: &Here<'_>) -> Option<bool> {
    let alone = h.w.pause && h.back(1).is_some_and(|w| w.pause) && h.is_base();
    let moves = matches!(h.base, "lift" | "pull" | "push" | "twist" | "press" | "squeeze" | "wiggle");
    (alone && moves).then_some(true)
}

/// "touch panel ribbon in, latch down": a thing and its way.
fn thing_and_way(h: &Here<'_>) -> Option<bool> {
    if !(GRAMMAR.things.contains(h.base) && h.is_base() && h.before.is_none() && h.t.particle_at(h.at + 1)) {
        return None;
    }
    let ends = |at: usize| h.t.words.get(at).is_none_or(|p| p.pause || at + 1 >= h.t.words.len());
    let ways = |n: usize| (1..=n).all(|k| h.t.particle_at(h.at + k)) && ends(h.at + n);
    let opens = || h.t.lemma(1) == "back" && h.t.particle_at(2) || h.t.words.get(1).is_some_and(|p| p.pause);
    ((1..=2).any(ways) && (h.at > 0 || opens())).then_some(false)
}

/// "It's in a little lock, so lock up": the thing that was named.
fn named_again(h: &Here<'_>) -> Option<bool> {
    let opens = matches!(h.before, None | Some(Tag::Adv)) && h.at > 0;
    let way = opens && h.is_base() && GRAMMAR.nounlike.contains(h.base) && h.t.particle_at(h.at + 1);
    let named = || h.t.words[..h.at].iter().any(|w| w.tag == Tag::Noun && w.lemma == h.w.lemma);
    (way && named()).then_some(false)
}

/// "a quarter turn and lift", "press the tab and pull, not yank", "under it and press"
fn and_lift(h: &Here<'_>) -> Option<bool> {
    if !(h.ends() && h.is_base() && h.at > 1 && h.back(1).is_some_and(|w| w.is("and"))) {
        return None;
    }
    let moved = matches!(h.base, "lift" | "pull" | "tug" | "twist" | "wiggle");
    let it = h.back_said(2, &["it", "them"]) && matches!(h.base, "push" | "press" | "squeeze" | "turn");
    (moved || it).then_some(true)
}

/// "a smear of grease", "dab of glue"
fn a_smear_of(h: &Here<'_>) -> Option<bool> {
    (matches!(h.base, "smear" | "dab" | "coat" | "lick" | "squirt") && h.next() == "of").then_some(false)
}

/// "The motor plugs in here, so unplug that.": where it is joined.
fn it_plugs_in(h: &Here<'_>) -> Option<bool> {
    let single = h.back(1).is_some_and(|w| w.tag == Tag::Noun && w.said == w.lemma);
    let plugs = h.w.said == "plugs" && matches!(h.next(), "in" | "into") && single;
    // "The keypad cable plugs in on the left."
    let cable = || h.back(1).is_some_and(|w| describes_cable(&w.lemma)) && h.back_is(2, Tag::Noun);
    (plugs && !h.w.pause && (h.back_is(2, Tag::Det) || cable())).then_some(true)
}

/// "The back opens to the left now."
fn it_opens(h: &Here<'_>) -> Option<bool> {
    (h.w.said == "opens" && h.before == Some(Tag::Noun) && !h.noun_next()).then_some(true)
}

/// "Back it off and the dial drops down.", "Back the nut out."
fn back_it_off(h: &Here<'_>) -> Option<bool> {
    const FARTHEST: usize = 4;
    let begins = matches!(h.before, None | Some(Tag::Adv | Tag::Conj)) && h.t.object_at(h.at + 1);
    let way = (2..=FARTHEST).map(|n| h.t.said(h.at + n)).any(|w| matches!(w, "off" | "out"));
    (h.w.said == "back" && begins && way).then_some(true)
}

/// "the power one just pulls off"
fn the_one_pulls(h: &Here<'_>) -> Option<bool> {
    let just = usize::from(h.back_is(1, Tag::Adv));
    let one = h.back_said(1 + just, &["one"]) && h.back(2 + just).is_some_and(|w| !w.pause);
    let which = h.back(2 + just).is_some_and(|w| matches!(w.tag, Tag::Det | Tag::Adj | Tag::Noun));
    (h.w.form == Form::Third && one && which && h.particle_next()).then_some(true)
}

/// "the gearbox which just lifts away"
fn which_comes_off(h: &Here<'_>) -> Option<bool> {
    let just = usize::from(h.back_is(1, Tag::Adv));
    let which = h.back_said(1 + just, &["which"]);
    (h.w.form == Form::Third && which && h.particle_next()).then_some(true)
}

/// "it powers up and the motor turns", "and the lamp lights": what a thing does at the end.
fn and_it_works(h: &Here<'_>) -> Option<bool> {
    let works = matches!(h.base, "turn" | "spin" | "light" | "run" | "move" | "buzz" | "beep" | "start" | "work");
    let thing = h.back_is(1, Tag::Noun) && h.back_is(2, Tag::Det) && h.back(3).is_some_and(|w| w.is("and"));
    (works && h.w.form == Form::Third && h.ends() && thing).then_some(true)
}

/// "lift": ordered behind nothing, done behind "to", a thing behind "the".
fn base_form(h: &Here<'_>) -> bool {
    match h.before {
        Some(Tag::To | Tag::Modal | Tag::Does | Tag::Neg) => true,
        Some(Tag::Pron) => base_behind_pronoun(h),
        Some(Tag::Num) => base_behind_number(h),
        Some(Tag::Adj) => order_behind_state(h),
        Some(Tag::Det | Tag::Owner | Tag::Prep) => false,
        Some(Tag::Be | Tag::Have) => base_behind_helper(h),
        Some(Tag::Noun) => base_behind_noun(h),
        Some(Tag::Part | Tag::Verb) => {
            let way = h.before == Some(Tag::Part) || h.t.object_at(h.at + 2);
            !h.nounlike() || h.object_next() || h.particle_next() && way
        }
        _ => opens_a_clause(h),
    }
}

/// "you lift", "pull it clip by clip"
fn base_behind_pronoun(h: &Here<'_>) -> bool {
    // "is that warm": asked, and nothing done.
    let state = matches!(h.base, "warm" | "dry" | "clean" | "open" | "loose" | "free" | "cool" | "empty");
    if h.back_is(2, Tag::Be) && state {
        return false;
    }
    let done_to = h.back(2).is_some_and(|w| matches!(w.tag, Tag::Verb | Tag::Prep)) && !h.back_is(1, Tag::Pron);
    if done_to {
        return !h.nounlike() || h.object_next();
    }
    !(h.nounlike() && h.noun_next() && !h.object_next()) || h.back_said(1, &["you", "we", "i", "they"])
}

fn base_behind_number(h: &Here<'_>) -> bool {
    // "the four in the middle are 6 keep them apart"
    if h.back_is(2, Tag::Be) && h.t.said(h.at + 1) == "them" {
        return true;
    }
    // "the same two go back in"
    if matches!(h.base, "go" | "come") && h.particle_next() {
        return true;
    }
    // "the Echo 5 run the pick through": a name that ends in a number; but "one screw each side".
    let object = h.object_next() && LEXICON.classes.determiner.contains(h.t.said(h.at + 1));
    object && !GRAMMAR.things.contains(h.base) && h.back_is(2, Tag::Noun)
}

/// "it's only plastic stick the feet on": what it is, and then an order.
fn order_behind_state(h: &Here<'_>) -> bool {
    let stands = |at: usize| h.t.words[..at - 1].iter().rev().find(|w| w.tag != Tag::Adv);
    h.object_next() && h.at > 1 && stands(h.at).is_some_and(|w| w.tag == Tag::Be)
}

/// "all you do is lift", "I've set it"
fn base_behind_helper(h: &Here<'_>) -> bool {
    let said = h.w.said.as_str();
    let job = h.back(2).is_some_and(|w| matches!(w.lemma.as_str(), "do" | "step" | "thing" | "job"));
    if h.before == Some(Tag::Be) && job || h.before == Some(Tag::Have) && matches!(said, "set" | "put") {
        return true;
    }
    let alike = matches!(said, "set" | "put" | "cut" | "run");
    h.object_next() || (!h.nounlike() || alike) && h.particle_next()
}

/// "the wires tear", "the battery clip"
fn base_behind_noun(h: &Here<'_>) -> bool {
    // "let the lamp cool"
    let lets = |n: usize| h.back(n + 1).is_some_and(|w| w.verb() == "let" && w.tag == Tag::Verb);
    if (1..=5).any(lets) && !h.noun_next() {
        return true;
    }
    if matches!(h.base, "need" | "want") {
        let ing = |n: &Word| n.form == Form::Ing && n.base.is_some();
        return h.t.said(h.at + 1) == "to" || h.t.words.get(h.at + 1).is_some_and(ing);
    }
    if h.back_is(1, Tag::Adv) {
        // "the feet just press in"
        let things = h.t.words[..h.at].iter().rfind(|w| w.tag != Tag::Adv);
        let plural = things.is_some_and(|w| w.said != w.lemma || w.said == "feet");
        return h.object_next() || !h.nounlike() || plural && h.particle_next();
    }
    // "the wires of the battery tear easily"
    if matches!(h.next(), "easily" | "quickly" | "apart") && !h.ends() {
        return true;
    }
    let plural = h.back(1).is_some_and(|w| w.said != w.lemma);
    // "for the joystick flip up the latch"
    let up = h.next() == "up" && h.t.object_at(h.at + 2) && !GRAMMAR.things.contains(h.base);
    let moves = plural && (h.particle_next() || h.adverb_next()) && !h.ends();
    !h.nounlike() || h.object_next() || up || moves
}

/// A clause begins: nearly always an order.
fn opens_a_clause(h: &Here<'_>) -> bool {
    if !h.nounlike() || h.object_next() || h.particle_next() || h.adverb_next() {
        return true;
    }
    // "Heat gun and spudger" are things, "clean rubber feet" is an order.
    if !GRAMMAR.classes.ordered.contains(h.base) {
        return false;
    }
    let named = h.t.words.get(h.at + 1).is_some_and(|n| h.noun_next() || n.base.is_none());
    let compound = GRAMMAR.classes.compounding.contains(h.next());
    named && !h.ends() && !compound || h.preposition_next() && h.next() != "of"
}

/// "comes", "holds"; and the plural of a thing.
fn third_person(h: &Here<'_>) -> bool {
    if GRAMMAR.things.contains(h.base) && h.before != Some(Tag::Pron) {
        return false;
    }
    match h.before {
        Some(Tag::Pron | Tag::Sub) => true,
        // "If one breaks, …"
        Some(Tag::Num) => h.ends() && h.back_said(1, &["one"]) && h.back_is(2, Tag::Sub),
        Some(Tag::Part) => matches!(h.base, "come" | "go"),
        Some(Tag::Noun) => third_behind_noun(h),
        None => third_opens(h),
        _ => false,
    }
}

fn third_behind_noun(h: &Here<'_>) -> bool {
    // "This ribbon needs to come out."
    if matches!(h.base, "need" | "want") && h.t.said(h.at + 1) == "to" {
        return true;
    }
    let runs = matches!(h.base, "run" | "go" | "sit" | "lie" | "lead" | "point");
    !h.nounlike()
        || h.preposition_next() && runs && h.next() != "of"
        || h.particle_next()
        || h.adverb_next()
        || h.object_next() && h.base != "screw"
}

fn third_opens(h: &Here<'_>) -> bool {
    // "Seems like the board stays."
    if h.at == 0 {
        return h.next() == "like";
    }
    // "This coax goes to the antenna, just lifts straight off."
    if h.back_said(1, &["just"]) && h.back(2).is_some_and(|w| w.pause) {
        return h.particle_next();
    }
    // "Inside sits one screw."
    let lies = matches!(h.base, "sit" | "lie" | "come" | "hide" | "follow");
    if h.at == 1 && h.back_is(1, Tag::Adv) && lies {
        return h.object_next();
    }
    let way = h.particle_next() || h.preposition_next();
    h.back_is(1, Tag::Sub) && (!h.nounlike() || h.object_next() || way)
        // "the cover slides down and comes off", "… and unhooks at the top"
        || h.back_is(1, Tag::Conj) && !h.nounlike() && way
        // "… slides back and then tilts away"
        || h.back_said(1, &["then"]) && h.back_is(2, Tag::Conj) && h.particle_next()
}

/// "is held", "the screws removed", "the glued bezel"
fn past(h: &Here<'_>) -> bool {
    match h.before {
        Some(Tag::Be | Tag::Have | Tag::Neg) => true,
        Some(Tag::Det | Tag::Adj | Tag::Num | Tag::Owner | Tag::Prep) => false,
        Some(Tag::Noun | Tag::Pron | Tag::Part) => !h.noun_next() || h.back_is(1, Tag::Pron),
        None => !h.noun_next() || h.back_is(1, Tag::Sub) || h.back_is(1, Tag::Conj),
        _ => !h.noun_next(),
    }
}

/// "by lifting", "the opening tool"
fn ing(h: &Here<'_>) -> bool {
    match h.before {
        // "another two hiding under the feet"
        Some(Tag::Num) if h.preposition_next() || h.object_next() => true,
        Some(Tag::Det | Tag::Adj | Tag::Num | Tag::Owner) => false,
        Some(Tag::Noun) => {
            let way = h.preposition_next() || h.particle_next();
            h.object_next() || way && !GRAMMAR.things.contains(h.base)
        }
        Some(Tag::Prep | Tag::Be | Tag::Verb | Tag::Neg) => {
            let names = matches!(
                h.base,
                "open" | "heat" | "lock" | "mount" | "solder" | "press" | "ground" | "clean" | "charge" | "pry"
            );
            let led = h.before == Some(Tag::Prep) && !names;
            h.object_next() || !h.noun_next() || h.before == Some(Tag::Be) || led
        }
        _ => h.object_next() || h.particle_next() || !h.noun_next(),
    }
}
