//! What a clause is done to, put right: named in another clause, held before, or shared in a list.
//!
//! An ordered table; each rule sees what the one before made of the objects.

use super::super::clauses::{Clause, Mood};
use super::super::grammar::{GRAMMAR, Kind};
use super::super::phrases::Phrase;
use super::super::told::{Reader, Told, has};

/// The objects of a clause, with the act as far as it is told.
struct Found<'a> {
    objects: Vec<Phrase>,
    told: &'a mut Told,
}

type Mend = fn(&Reader<'_>, usize, &Clause, &mut Found<'_>);

const MENDS: &[Mend] = &[
    pulled_on,
    weight_on_it,
    held_before,
    unlocked_and_pulled,
    squeezed_and_pulled,
    left_unsaid,
    which_goes_where,
    sound_and_light,
    touch_and_power,
    looked_at,
    same_screws,
    counted_screws,
    shared_head,
];

impl Reader<'_> {
    pub(super) fn mended(&self, n: usize, c: &Clause, objects: Vec<Phrase>, told: &mut Told) -> Vec<Phrase> {
        let mut found = Found { objects, told };
        for mend in MENDS {
            mend(self, n, c, &mut found);
        }
        found.objects
    }
}

/// "Pull on the tag."
fn pulled_on(r: &Reader<'_>, n: usize, c: &Clause, found: &mut Found<'_>) {
    let pulls = matches!(c.base.as_str(), "pull" | "tug" | "push" | "press");
    let held = |np: &Phrase| matches!(np.kind, Kind::Plug | Kind::Latch | Kind::Lever);
    let on = c.places.iter().find(|(p, np)| p == "on" && held(np));
    if let (true, true, Some((_, held))) = (found.objects.is_empty(), pulls, on) {
        found.objects = r.named(n, c, std::slice::from_ref(held));
    }
}

/// "Put on it a weight."
fn weight_on_it(_: &Reader<'_>, _: usize, _: &Clause, found: &mut Found<'_>) {
    if found.objects.iter().any(|o| o.kind == Kind::Weight) && found.objects.iter().any(Phrase::is_pronoun) {
        let (weights, below): (Vec<Phrase>, Vec<Phrase>) =
            std::mem::take(&mut found.objects).into_iter().partition(|o| o.kind == Kind::Weight);
        found.objects = weights;
        found.told.places.extend(below.into_iter().map(|p| ("on".to_owned(), p)));
    }
}

/// "Take hold of the tab and pull slowly."
fn held_before(r: &Reader<'_>, n: usize, c: &Clause, found: &mut Found<'_>) {
    let along = c.places.iter().all(|(p, _)| matches!(p.as_str(), "from" | "along" | "to" | "towards" | "toward"));
    if found.objects.is_empty() && c.order && along && matches!(c.base.as_str(), "pull" | "lift" | "tug") {
        found.objects = r.held_before(n);
    }
}

/// "It ends in a white plug: press the tab on it and pull."
fn unlocked_and_pulled(r: &Reader<'_>, n: usize, c: &Clause, found: &mut Found<'_>) {
    let pulls = matches!(c.base.as_str(), "pull" | "lift" | "wiggle") && c.places.is_empty() && c.particles.is_empty();
    let latch = |o: &Phrase| matches!(o.kind, Kind::Latch | Kind::Lever);
    let Some(last) = r.clauses[..n].last().filter(|k| k.objects.iter().any(latch) && !k.negated) else { return };
    if found.objects.is_empty()
        && pulls
        && matches!(last.base.as_str(), "press" | "squeeze" | "push" | "depress" | "pinch")
    {
        let named = r.clauses[..n].iter().rev().flat_map(Clause::things);
        let plug = named.filter(|p| p.kind == Kind::Plug && !p.plural && !p.is_pronoun()).last();
        found.objects.extend(plug.cloned());
    }
}

/// "The fan plug is here, squeeze it on the sides and pull."
fn squeezed_and_pulled(r: &Reader<'_>, n: usize, c: &Clause, found: &mut Found<'_>) {
    let pulls = matches!(c.base.as_str(), "pull" | "lift" | "wiggle" | "rock") && c.places.is_empty();
    let squeezes = |k: &&Clause| matches!(k.base.as_str(), "squeeze" | "pinch") && !k.negated && k.order;
    let Some(last) = r.clauses[..n].last().filter(squeezes) else { return };
    let held = |o: &&Phrase| o.is_pronoun() || o.kind == Kind::Plug;
    if found.objects.is_empty() && pulls {
        let it = r.named(n - 1, last, &last.objects).into_iter().find(|o| held(&o) || o.stands);
        found.objects.extend(it.filter(|o| o.kind == Kind::Plug));
    }
}

/// "The display board is clipped in; release with a flat tool and remove.": what was named goes unsaid.
fn left_unsaid(r: &Reader<'_>, n: usize, c: &Clause, found: &mut Found<'_>) {
    let acts = matches!(c.base.as_str(), "remove" | "release" | "withdraw" | "detach" | "discard");
    let bare = c.order && acts && c.particles.is_empty() && found.objects.is_empty();
    let first = r.clauses.first().filter(|k| bare && n > 0 && k.passive && !k.negated && !k.supposed);
    let part = first.and_then(|k| k.subjects.first()).filter(|s| s.kind == Kind::Part && s.definite);
    found.objects.extend(part.cloned());
}

/// "Mark which wire goes where."
fn which_goes_where(r: &Reader<'_>, n: usize, c: &Clause, found: &mut Found<'_>) {
    let notes = matches!(c.base.as_str(), "mark" | "note" | "label" | "remember" | "photograph");
    let asked = r.clauses.get(n + 1).filter(|k| matches!(k.mood, Mood::Relative | Mood::Question));
    if let (true, true, Some(asked)) = (found.objects.is_empty(), notes, asked) {
        found.objects = asked.subjects.iter().filter(|s| s.is_thing() && !s.is_pronoun()).cloned().collect();
    }
}

/// "Test the touch and the sound."
fn sound_and_light(_: &Reader<'_>, _: usize, c: &Clause, found: &mut Found<'_>) {
    if matches!(c.base.as_str(), "test" | "try" | "check") {
        for o in found
            .objects
            .iter_mut()
            .filter(|o| matches!(o.head(), "sound" | "light" | "picture" | "touch" | "focus" | "volume" | "vibration"))
        {
            o.kind = Kind::Part;
        }
    }
}

/// "Disconnect the touch.": its cable.
fn touch_and_power(_: &Reader<'_>, _: usize, c: &Clause, found: &mut Found<'_>) {
    if matches!(c.base.as_str(), "disconnect" | "unplug" | "connect" | "reconnect") {
        let served = |o: &&mut Phrase| matches!(o.head(), "touch" | "picture" | "sound" | "light" | "charging");
        found
            .objects
            .iter_mut()
            .filter(|o| o.kind == Kind::Nothing && o.definite)
            .filter(served)
            .for_each(|o| o.kind = Kind::Part);
    }
}

/// "Check if the compass shows the way.": what is looked at stands in the question.
fn looked_at(r: &Reader<'_>, n: usize, c: &Clause, found: &mut Found<'_>) {
    let unnamed = found.objects.iter().all(|o| !o.is_thing() || o.is_pronoun());
    let looks = matches!(c.base.as_str(), "check" | "verify" | "confirm" | "test" | "see" | "make" | "look");
    let asks = |k: &&Clause| {
        matches!(k.mood, Mood::If | Mood::Question | Mood::Relative)
            || k.agent() && k.base == "get"
            || k.subjects.iter().any(|s| matches!(s.kind, Kind::Part | Kind::Picture | Kind::Plug))
            || k.subjects.iter().any(|s| s.is_pronoun() && s.head() == "it")
    };
    let Some(asked) = r.clauses.get(n + 1).filter(asks).filter(|_| unnamed && looks) else { return };
    let seen = |s: &&Phrase| (s.is_thing() || s.kind == Kind::Picture) && !s.is_pronoun();
    found.objects = asked.subjects.iter().filter(seen).cloned().collect();
    // "Halves together, check that it spins free."
    let it = |s: &&Phrase| s.is_pronoun() && s.head() == "it";
    if found.objects.is_empty()
        && asked.subjects.iter().all(|s| it(&s))
        && matches!(c.base.as_str(), "check" | "verify")
        && asked.base != "have"
        && r.clauses[..n].iter().all(|k| k.mood != Mood::If)
    {
        let meant = r.named(n + 1, asked, &asked.subjects);
        found.objects = meant.into_iter().filter(|p| p.kind == Kind::Part && !p.is_pronoun()).collect();
    }
    // "Turn the camera on to see if it works."
    if let (true, true, Some(on)) = (found.objects.is_empty(), r.looks(c), r.switched_on(n)) {
        found.objects = on.objects.iter().filter(|o| o.kind == Kind::Part && !o.is_pronoun()).cloned().collect();
    }
    // "Check you've got sound on both sides."
    if found.objects.is_empty() && asked.agent() && asked.base == "get" {
        let got = asked.objects.iter().filter(|o| !o.is_pronoun()).cloned();
        found.objects = got.map(|o| Phrase { kind: Kind::Part, ..o }).collect();
    }
}

/// "Two tiny screws. … The same two go back in.": the screws.
fn same_screws(r: &Reader<'_>, _: usize, c: &Clause, found: &mut Found<'_>) {
    let same = has(r.text, "same");
    let screws = r.topic.screws.as_ref().filter(|(at, _)| same || r.number - at <= 2);
    if let ([o], Some((_, screws)), "go" | "come" | "get") = (&mut found.objects[..], screws, c.base.as_str())
        && o.is_pronoun()
        && o.count.is_some_and(|n| n > 1)
        && c.particles.iter().any(|p| p == "in")
    {
        *o = Phrase { from: o.from, to: o.to, count: o.count, ..screws.clone() };
    }
}

/// "Undo the following five.", "Drive the three in by hand."
fn counted_screws(r: &Reader<'_>, _: usize, c: &Clause, found: &mut Found<'_>) {
    let turns = matches!(c.base.as_str(), "undo" | "unscrew" | "loosen" | "drive") || r.these_screws(c);
    let several = |o: &&mut Phrase| o.is_pronoun() && o.count.is_some_and(|n| n > 1) && o.head() != "both";
    for o in found.objects.iter_mut().filter(several).filter(|_| turns) {
        *o = o.as_screws();
    }
}

/// "Right and left coil cables": what lists share.
fn shared_head(_: &Reader<'_>, _: usize, _: &Clause, found: &mut Found<'_>) {
    for i in 1..found.objects.len() {
        let next = found.objects[i].clone();
        let [side] = &found.objects[i - 1].said[..] else { continue };
        let shares = !next.is_pronoun() && next.words.len() > 1 && GRAMMAR.classes.which.contains(side);
        if !shares || next.said.is_empty() {
            continue;
        }
        let side = side.clone();
        let mut one = next;
        one.words[0] = side.clone();
        one.said[0] = side;
        found.objects[i - 1] = one;
    }
}
