//! What a clause is done to.
//!
//! Somebody does something to a thing ("lift the lid"), a thing does so itself ("the lid comes off"), or it suffers ("the lid
//! is taken off"); and many clauses only describe. An ordered table: the first rule that knows the clause answers.

use super::super::super::tags::Form;
use super::super::clauses::{Clause, Mood};
use super::super::grammar::{GRAMMAR, Kind};
use super::super::phrases::Phrase;
use super::super::told::Reader;
use super::super::words::Tag;

/// A clause with what was found out about it once for all rules.
struct Asked<'a> {
    n: usize,
    c: &'a Clause,
    /// "has to be", "can be".
    due: bool,
    /// Things, and no people, do it.
    inanimate: bool,
    /// The things that do it.
    mine: Vec<Phrase>,
}

/// What a rule says of a clause.
enum Says {
    /// Nothing; the next rule is asked.
    Pass,
    /// Nobody does anything.
    Undone,
    Done(Vec<Phrase>),
}

use Says::{Done, Pass, Undone};

/// Done to these, or to nothing.
fn to(things: Option<Vec<Phrase>>) -> Says {
    things.map_or(Undone, Done)
}

/// As they ask: a later rule may rely on what an earlier one has turned away.
const RULES: &[fn(&Reader<'_>, &Asked<'_>) -> Says] = &[
    relative,
    participle,
    participle_of_a_thing,
    got_done,
    reasons,
    thing_to_do,
    what_we_do,
    suffered,
    the_step_is,
    heard,
    how_leads_run,
    tool_goes_in,
    in_turn,
    comes_on,
    over_it_goes,
    is_gone,
    moves,
    becomes,
    somebody_does,
    fronted,
    verb_last,
];

impl Reader<'_> {
    /// What a clause is done to; `None` where nobody does anything.
    pub(super) fn done_to(&self, n: usize, c: &Clause, due: bool) -> Option<Vec<Phrase>> {
        let inanimate = !c.subjects.is_empty() && (self.they_are_things(n, c) || !c.agent());
        let mine = c.subjects.iter().filter(|p| p.is_thing()).cloned().collect();
        let asked = Asked { n, c, due, inanimate, mine };
        let said = RULES.iter().map(|rule| rule(self, &asked)).find(|said| !matches!(said, Pass));
        match said {
            Some(Done(things)) => Some(things),
            Some(Undone) => None,
            Some(Pass) | None => Some(c.objects.clone()),
        }
    }

    /// "Pull the ribbon and they come out.": things, and no people.
    fn they_are_things(&self, n: usize, c: &Clause) -> bool {
        let they = c.subjects.last().is_some_and(|s| s.head() == "they");
        let before = n > 0 && self.clauses[n - 1].verb.is_some() && !self.clauses[n - 1].negated;
        // "Three rubber mounts, they just pull through."
        let named = n > 0 && self.clauses[n - 1].verb.is_none() && self.clauses[n - 1].objects.iter().any(|o| o.plural);
        they && (before || named)
            && c.objects.is_empty()
            && !c.particles.is_empty()
            && matches!(
                c.base.as_str(),
                "come" | "pop" | "slide" | "fall" | "drop" | "go" | "peel" | "lift" | "unscrew" | "pull"
            )
    }
}

/// "There's a ring that comes off too.", "The first thing that has to be removed is the kickstand."
fn relative(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    if a.c.mood != Mood::Relative {
        return Pass;
    }
    if !a.due && r.falls_off(a.c) {
        return to(r.shown_before(a.c).map(|shown| shown.objects.clone()));
    }
    let Some(antecedent) = a.c.antecedent.clone() else { return Undone };
    if antecedent.is_pronoun() || antecedent.kind == Kind::Nothing {
        let is = r.clauses.get(a.n + 1).filter(|k| k.base == "be" && !k.passive);
        return to(is.map(|is| is.objects.iter().filter(|p| p.is_thing()).cloned().collect()));
    }
    Done(vec![antecedent])
}

fn bare_participle(c: &Clause) -> bool {
    c.form == Form::Past && !c.passive && !c.perfect
}

/// "Get the old foam cleaned off.", "There, popped."; but "the cover removed" tells of a thing.
fn participle(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let c = a.c;
    if !bare_participle(c) || !c.subjects.is_empty() {
        return Pass;
    }
    let alone = r.words.len() <= 3 && c.objects.is_empty() && c.places.is_empty();
    let only = || r.words.iter().enumerate().all(|(i, w)| Some(i) == c.verb || w.tag == Tag::Adv);
    if alone && only() {
        // "Two screws under it. Unscrewed.": the screws, which are told.
        let turned = matches!(c.base.as_str(), "unscrew" | "undo" | "loosen" | "tighten" | "remove");
        let told = r.topic.screws.as_ref().is_some_and(|(at, _)| turned && r.number - at <= 1);
        return to((!told).then(|| vec![r.it(c)]));
    }
    let gets = |p: &&Clause| matches!(p.base.as_str(), "get" | "have") && !p.negated && !p.supposed;
    let Some(led) = r.clauses[..a.n].last().filter(gets) else { return Undone };
    let named = c.objects.iter().chain(&led.objects).filter(|p| p.is_thing() && !p.is_pronoun());
    let things: Vec<Phrase> = named.cloned().collect();
    to((!things.is_empty()).then_some(things))
}

/// "Receiver lead tucked under its clips.", "Foot ring stuck down."
fn participle_of_a_thing(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    if r.only_participle(a.c) { Done(a.mine.clone()) } else { Pass }
}

/// "You get the battery unhooked before anything else.", "Get one bolt started by hand."
fn got_done(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let gets = |k: &&Clause| {
        k.base == "get" && k.objects.is_empty() && (k.agent() || k.order) && !k.negated && k.mood == Mood::Plain
    };
    let got = r.clauses[..a.n].last().filter(gets);
    if bare_participle(a.c) && !a.c.agent() && got.is_some() { Done(a.c.subjects.clone()) } else { Pass }
}

/// "The reason is …"
fn reasons(_: &Reader<'_>, a: &Asked<'_>) -> Says {
    if a.c.subjects.iter().any(|s| matches!(s.head(), "reason" | "why")) { Undone } else { Pass }
}

/// "The first thing to disconnect is the battery."
fn thing_to_do(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    r.thing_to_do(a.n, a.c).map_or(Pass, Done)
}

/// "Those are what we are going to take out."
fn what_we_do(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let what = |v: usize| r.lemmas[v..].get(1) == Some(&"what");
    let is = r.clauses[..a.n].last().filter(|p| p.base == "be" && p.verb.is_some_and(what));
    let moves = a.c.agent() && a.c.objects.is_empty() && !a.c.particles.is_empty();
    is.filter(|_| moves).map_or(Pass, |is| Done(is.subjects.clone()))
}

/// "The lid is taken off.", "The battery plug can be pulled, and after that the other plugs."
fn suffered(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let c = a.c;
    if !c.passive {
        return Pass;
    }
    // "It's given a minute."
    if c.base == "give" && c.objects.iter().any(|o| o.kind == Kind::Time) {
        return Done(Vec::new());
    }
    let alike = |p: &&Phrase| p.definite && !p.is_pronoun() && c.subjects.last().is_some_and(|s| s.kind == p.kind);
    let all = c.subjects.iter().chain(c.objects.iter().filter(alike));
    let subjects: Vec<Phrase> = all.filter(|p| p.is_thing() || p.kind == Kind::Heat).cloned().collect();
    let told = !r.describes(c, a.due) || r.done_in_rebuild(c);
    to((told && !subjects.is_empty()).then_some(subjects))
}

/// "The next step will be to remove the screws."
fn the_step_is(_: &Reader<'_>, a: &Asked<'_>) -> Says {
    let steps = |p: &Phrase| matches!(p.head(), "step" | "thing" | "job" | "task" | "goal") && p.kind != Kind::Part;
    let of_step = a.c.subjects.iter().any(steps) && a.c.subjects.iter().all(|s| steps(s) || s.is_pronoun());
    if of_step && !a.c.objects.is_empty() { Done(a.c.objects.clone()) } else { Pass }
}

/// "You will hear the latches open."
fn heard(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let hears = |k: &Clause| matches!(k.base.as_str(), "hear" | "see" | "feel" | "notice");
    let heard = a.n > 0 && hears(&r.clauses[a.n - 1]);
    // "You'll see a connector for the fan, unplug it.": an order.
    let ordered = a.c.order && !a.c.objects.is_empty() && r.words[a.c.from.saturating_sub(1)].pause;
    let nothing = !ordered && a.c.objects.iter().all(Phrase::is_pronoun);
    let bare = !a.c.agent() && nothing && r.words[a.c.from].tag != Tag::Conj;
    if heard && bare { Undone } else { Pass }
}

/// "The board goes in first."; but "the cable goes to the fan".
fn placed(a: &Asked<'_>) -> bool {
    let into = |p: &str| matches!(p, "around" | "over" | "onto" | "into" | "under" | "behind" | "through" | "between");
    let there = |(p, np): &(compact_str::CompactString, Phrase)| {
        let led = into(p) || p == "on" && np.new || p == "in" && np.head() == "wall";
        // "The frame goes over the lot."
        led && (np.is_thing() || np.head() == "lot")
            || p == "in" && np.kind == Kind::Part && np.definite
            || p == "on" && np.head() == "top"
    };
    let goes = a.c.form == Form::Third || a.c.form == Form::Base && a.mine.len() > 1;
    // "The board drops over the posts."
    let onto =
        |(p, np): &(compact_str::CompactString, Phrase)| matches!(p.as_str(), "over" | "onto" | "into") && np.definite;
    let lands = matches!(a.c.base.as_str(), "drop" | "slip" | "lower") && a.c.form == Form::Third && !a.mine.is_empty();
    a.c.base == "go" && (goes && a.c.places.iter().any(there) || a.c.screws_go(&a.mine))
        || lands && a.c.places.iter().any(onto)
}

/// "The wires go behind this post.": how they run, or how they are to be laid.
fn how_leads_run(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let c = a.c;
    let own_way = c.particles.iter().any(|p| matches!(p.as_str(), "in" | "on" | "back" | "off" | "out"));
    let leads = a.mine.iter().all(|p| p.kind == Kind::Plug)
        && !placed(a)
        && !c.places.is_empty()
        && !own_way
        && matches!(c.base.as_str(), "come" | "go" | "plug" | "run");
    if !(a.inanimate && leads) {
        return Pass;
    }
    to((c.base != "plug" && r.laid(c)).then(|| a.mine.clone()))
}

/// "Then a thin card goes underneath."
fn tool_goes_in(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let c = a.c;
    let into = |p: &str| matches!(p, "under" | "between" | "behind" | "into" | "in");
    let led_in = c.places.iter().any(|(p, _)| into(p))
        || r.lemmas[c.from..c.to].iter().any(|w| matches!(*w, "underneath" | "in"));
    let tools = !a.mine.is_empty() && a.mine.iter().all(|p| p.kind == Kind::Opener);
    if a.inanimate && c.base == "go" && led_in && tools { Done(a.mine.clone()) } else { Pass }
}

/// "The battery plug comes last."
fn in_turn(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    if a.inanimate && r.comes_in_turn(a.c) && !a.mine.is_empty() { Done(a.mine.clone()) } else { Pass }
}

/// "Plug it in and it should come on.": it starts, and nothing is fitted.
fn comes_on(_: &Reader<'_>, a: &Asked<'_>) -> Says {
    let c = a.c;
    let on = !c.particles.is_empty() && c.particles.iter().all(|p| p == "on") && c.places.is_empty();
    let it = c.subjects.iter().all(|s| s.is_pronoun() && s.head() == "it");
    if a.inanimate && c.base == "come" && on && it { Undone } else { Pass }
}

/// "Over she goes."
fn over_it_goes(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let over = a.c.base == "go" && r.words[a.c.from].is("over") && a.c.subjects.iter().all(Phrase::is_pronoun);
    if a.inanimate && over { Done(Vec::new()) } else { Pass }
}

/// "Now the shell is off."
fn is_gone(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    if !a.inanimate || a.c.base != "be" {
        return Pass;
    }
    // "And that's the back off."
    let that = a.c.subjects.iter().all(|s| matches!(s.head(), "that" | "there") && s.is_pronoun());
    let off = a.c.particles.len() == 1 && matches!(a.c.particles[0].as_str(), "off" | "out");
    if let ([thing], true) = (&a.c.objects[..], that && off && a.c.places.is_empty() && a.c.mood == Mood::Plain)
        && thing.definite
        && thing.kind == Kind::Part
    {
        return Done(vec![thing.clone()]);
    }
    let made_sure = r.text.starts_with("make sure") || r.text.starts_with("ensure");
    to((!made_sure && r.is_gone(a.c)).then(|| a.mine.clone()))
}

/// Whether a thing that moves goes a way that takes it out of the device, or into it.
fn goes_a_way(r: &Reader<'_>, a: &Asked<'_>) -> bool {
    let c = a.c;
    let by_itself = matches!(c.base.as_str(), "unscrew" | "unclip" | "unhook") && c.form == Form::Third;
    // "The side panel hinges down."
    let folds = matches!(c.base.as_str(), "hinge" | "fold" | "swing" | "tilt");
    let down = folds && c.particles.iter().any(|p| p == "down");
    let pulled_through =
        matches!(c.base.as_str(), "pull" | "push" | "pop") && c.particles.iter().any(|p| p == "through");
    // "Down she comes."
    let comes_down = c.base == "come" && r.words[c.from].is("down") && r.words.len() <= 4;
    let only_along = |p: &str| matches!(p, "along" | "around" | "through" | "over" | "down" | "across" | "together");
    // "It lifts itself."
    c.objects.iter().any(|o| o.head() == "itself")
        || by_itself
        || placed(a)
        || down
        || pulled_through
        || comes_down
        || c.particles.iter().any(|p| !only_along(p))
}

/// "The cover comes off.", "The pack comes sliding out.", "The screws come out one two three."
fn moves(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    if !a.inanimate {
        return Pass;
    }
    let c = a.c;
    // "The board goes in and two screws."
    let screws = c.objects.iter().filter(|o| o.kind == Kind::Screw && o.count.is_some());
    let mine: Vec<Phrase> = a.mine.iter().chain(screws).cloned().collect();
    let counted = |o: &Phrase| o.count.is_some() && (o.kind == Kind::Screw || o.is_pronoun());
    let object_less =
        c.objects.iter().all(|o| !o.is_thing() || counted(o) || matches!(o.head(), "itself" | "themselves"));
    let comes = r.words[r.verb_group(c)].iter().any(|w| w.verb() == "come");
    let told = (c.form != Form::Ing || comes) && !c.supposed;
    // "The cable goes in a channel.": where it runs.
    let runs_in = c.base == "go"
        && c.particles.iter().all(|p| p == "in" || p == "on")
        && !r.text.contains("now")
        && c.places.iter().any(|(_, p)| p.kind == Kind::Part && !p.definite);
    let goes = GRAMMAR.classes.moves.contains(&c.base) && goes_a_way(r, a) && object_less && told && !runs_in;
    to((goes && !mine.is_empty()).then_some(mine))
}

/// "Let the battery become empty."
fn becomes(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let let_ = r.clauses[..a.n].last().filter(|k| k.base == "let" && a.c.base == "become");
    let_.map_or(Pass, |k| Done(k.objects.clone()))
}

/// "He takes it off.": told of somebody.
fn somebody_does(_: &Reader<'_>, a: &Asked<'_>) -> Says {
    if a.c.agent() && a.c.form == Form::Third { Undone } else { Pass }
}

/// "The block we push in from the front.": what it is done to stands before who does it.
fn fronted(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let c = a.c;
    let [thing, who] = &c.subjects[..] else { return Pass };
    let goes_on = |k: &Clause| k.verb.is_some() && k.mood == Mood::Plain && !k.order && k.subjects.is_empty();
    let next = r.clauses.get(a.n + 1).is_none_or(|k| !goes_on(k));
    let bare = c.objects.is_empty() && c.form == Form::Base && c.agent() && thing.to == who.from;
    let named = thing.definite && thing.is_thing() && !thing.is_pronoun();
    if a.n == 0 && next && bare && named { Done(vec![thing.clone()]) } else { Pass }
}

/// "Lamp cable and motor cable connect.": said by somebody whose own language has the verb last.
fn verb_last(r: &Reader<'_>, a: &Asked<'_>) -> Says {
    let c = a.c;
    let acts = matches!(c.base.as_str(), "connect" | "disconnect" | "remove" | "unscrew" | "install" | "unplug");
    let bare = c.objects.is_empty() && c.particles.is_empty() && c.form == Form::Base && !c.agent() && !c.passive;
    let things = !c.subjects.is_empty() && c.subjects.iter().all(|s| s.is_thing() && !s.is_pronoun());
    let ends = r.words[c.verb.unwrap_or(c.from)].pause || c.verb == Some(r.words.len() - 1);
    if a.n == 0 && acts && bare && things && ends { Done(a.mine.clone()) } else { Pass }
}
