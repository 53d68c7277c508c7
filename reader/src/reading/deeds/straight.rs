//! Clauses put straight: what is said in an unusual place or by a set phrase, before anybody asks what is done.
//!
//! "Into the slot goes the tray" and "the tray goes into the slot" are one; so are "get rid of it" and "remove it".

use super::clauses::Clause;
use super::grammar::Kind;
use super::phrases::{Phrase, phrase_at};
use super::words::Word;
use compact_str::CompactString;

pub(super) fn put_straight(words: &[Word], c: &mut Clause) {
    rid_of(words, c);
    goes_into(words, c);
    fronted(c);
    out_the_front(words, c);
    the_top(c);
    looked_over(words, c);
    the_black_bit(c);
    the_lever(c);
    the_card(c);
    cut_through(c);
    shorted_across(c);
}

/// "Flip up the black bit and the ribbon slides out.": what is flipped up is a latch, whatever it is called.
fn the_black_bit(c: &mut Clause) {
    let flips = matches!(c.base.as_str(), "flip" | "flick" | "lift") && c.particles.iter().any(|p| p == "up");
    let bit = |p: &&mut Phrase| p.definite && p.words.len() > 1 && matches!(p.head(), "bit" | "thing" | "piece");
    for p in c.objects.iter_mut().filter(|p| flips && bit(p)) {
        p.kind = Kind::Lever;
    }
}

/// "Flick the lever up.": a lever that moves is a latch, and no tool.
fn the_lever(c: &mut Clause) {
    let moves = matches!(c.base.as_str(), "flick" | "flip" | "swing" | "raise" | "thumb" | "throw" | "fold" | "tip");
    let way = c.particles.iter().any(|p| matches!(p.as_str(), "up" | "down" | "back" | "over"));
    for p in c.objects.iter_mut().filter(|p| moves && way && p.kind == Kind::Opener && p.head() == "lever") {
        p.kind = Kind::Lever;
    }
}

/// "Unseat the card.": a card with a seat is no tool that opens.
fn the_card(c: &mut Clause) {
    let seats = matches!(c.base.as_str(), "seat" | "unseat" | "reseat" | "eject" | "swap");
    for p in c.objects.iter_mut().filter(|p| seats && p.kind == Kind::Opener && p.head() == "card") {
        p.kind = Kind::Part;
    }
}

/// "Snip through the cable tie.": it is cut.
fn cut_through(c: &mut Clause) {
    let cuts = matches!(c.base.as_str(), "cut" | "snip" | "nip" | "slice" | "saw" | "clip" | "slit");
    if !cuts || !c.objects.is_empty() {
        return;
    }
    let tie = |(p, np): &(CompactString, Phrase)| p == "through" && np.kind == Kind::Tie;
    if let Some(at) = c.places.iter().position(tie) {
        c.objects.push(c.places.remove(at).1);
    }
}

/// "Short across the capacitor with a resistor."
fn shorted_across(c: &mut Clause) {
    let shorts = c.base == "short" && c.objects.is_empty();
    let across = c.places.iter().position(|(p, np)| shorts && p == "across" && np.is_thing());
    c.objects.extend(across.map(|at| c.places.remove(at).1));
}

/// "There's a plug in the corner, get rid of that.": it is removed.
fn rid_of(words: &[Word], c: &mut Clause) {
    let Some(rid) = c.objects.first().filter(|o| c.base == "get" && o.head() == "rid") else { return };
    let behind = (rid.from..words.len().min(rid.from + 3)).find(|i| words[*i].is("of"));
    let Some((thing, _)) = behind.and_then(|of| phrase_at(words, of + 1, c.to.min(words.len()))) else { return };
    c.base = "remove".into();
    c.objects = vec![thing];
    c.places.retain(|(p, _)| p != "of");
}

/// "Into the slot goes the tray."
fn goes_into(words: &[Word], c: &mut Clause) {
    let goes = matches!(c.base.as_str(), "go" | "come" | "fit" | "slide" | "drop") && !c.order && c.subjects.is_empty();
    let led = words[c.from..c.verb.unwrap_or(c.from)].iter().any(|w| matches!(w.lemma.as_str(), "into" | "onto"));
    if goes && led && c.objects.len() == 1 && c.objects[0].definite {
        c.subjects.append(&mut c.objects);
    }
}

/// "The belt you just roll off the wheel.": the belt is rolled off, and the wheel stays.
fn fronted(c: &mut Clause) {
    let [thing, you] = &c.subjects[..] else { return };
    let somebody = matches!(you.head(), "you" | "i" | "we") && you.is_pronoun();
    let away = c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out"));
    if somebody && away && !c.passive && thing.kind == Kind::Part && thing.definite && c.objects.len() == 1 {
        let from = c.objects.remove(0);
        c.places.push(("from".into(), from));
        c.objects.push(c.subjects.remove(0));
    }
}

/// "Look at the cord, all the way along.", "Look along the cord for cracks.": it is inspected. Who only looks at a thing sees it.
fn looked_over(words: &[Word], c: &mut Clause) {
    /// Words behind in which it is told how closely.
    const BEHIND: usize = 5;
    if c.base != "look" || !c.order || c.negated || !c.objects.is_empty() {
        return;
    }
    let led = |p: &str| matches!(p, "at" | "along" | "over");
    let thing = |np: &Phrase| matches!(np.kind, Kind::Part | Kind::Plug | Kind::Key) && np.definite;
    let Some(at) = c.places.iter().position(|(p, np)| led(p) && thing(np)) else { return };
    let text: Vec<&str> = words[c.from..(c.to + BEHIND).min(words.len())].iter().map(|w| w.lemma.as_str()).collect();
    let along = text.windows(4).any(|w| w == ["all", "the", "way", "along"]);
    let fault = |w: &str| matches!(w, "crack" | "damage" | "wear" | "burn" | "scorch" | "corrosion" | "nick" | "cut");
    if along || text.windows(2).any(|w| w[0] == "for" && fault(w[1])) {
        c.base = "inspect".into();
        c.objects = vec![c.places.remove(at).1];
        c.particles.clear();
    }
}

/// "The drum slides right out the front.", "It pops off its axle.": where it comes from, and nothing that is moved.
fn out_the_front(words: &[Word], c: &mut Clause) {
    let moves = matches!(c.base.as_str(), "slide" | "pop" | "come" | "lift" | "fall" | "drop" | "slip" | "pull" | "go");
    let away = c.particles.iter().any(|p| matches!(p.as_str(), "out" | "off"));
    let thing = c.subjects.last().is_some_and(|s| matches!(s.kind, Kind::Part | Kind::Pronoun) && s.head() != "thing");
    let itself = thing && !c.agent() && !c.order && !c.passive;
    let from = |o: &Phrase| {
        let side = matches!(o.head(), "front" | "back" | "side" | "top" | "bottom" | "end");
        side && o.words.len() == 1 || words[o.from].is("its")
    };
    if moves && away && itself && c.objects.len() == 1 && c.objects[0].definite && from(&c.objects[0]) {
        c.places.push(("from".into(), c.objects.remove(0)));
    }
}

/// "The whole top comes away.", "Take the bottom off.": a side that leaves is a part.
fn the_top(c: &mut Clause) {
    let leaves = matches!(c.base.as_str(), "come" | "lift" | "pop" | "pull" | "take" | "slide" | "get" | "peel");
    let away = c.particles.iter().any(|p| matches!(p.as_str(), "off" | "away"));
    if !(leaves && away) || c.negated {
        return;
    }
    let side = |p: &&mut Phrase| {
        p.kind == Kind::Nothing && p.definite && p.of.is_empty() && matches!(p.text().as_str(), "top" | "bottom")
    };
    let whole = |p: &&mut Phrase| {
        let own = p.words.len() == 2 && matches!(p.words[0].as_str(), "whole" | "entire");
        own && p.kind == Kind::Nothing && matches!(p.head(), "top" | "bottom")
    };
    for p in c.subjects.iter_mut().chain(&mut c.objects).filter(|p| side(p) || whole(p)) {
        p.kind = Kind::Part;
    }
}
