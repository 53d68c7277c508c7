//! Clauses: each verb with what it is done to, where, with what, and whether it is done at all.

use super::super::lexicon::LEXICON;
use super::super::numbers;
use super::super::tags::Form;
use super::behind::behind;
use super::grammar::{GRAMMAR, Kind};
use super::moods::moods;
use super::phrases::{Phrase, phrase_at};
use super::words::{Tag, Word};
use compact_str::CompactString;

/// Whether the clause tells something that hands do.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Mood {
    /// An order, or something told as done or being done.
    Plain,
    /// "if it breaks": holds for one case.
    If,
    /// "once the felt is peeled back", "after disconnecting both": a result.
    After,
    /// "before you lift it".
    Before,
    /// "until it clicks".
    Until,
    /// "because", "so that", "otherwise".
    Reason,
    /// "that holds the cage".
    Relative,
    /// "to reach the fan".
    Purpose,
    /// "by lifting it up", "cutting the layer".
    Means,
    /// "what", "how", "where": told and not done.
    Question,
}

#[derive(Debug, Clone)]
pub(super) struct Clause {
    pub from: usize,
    pub to: usize,
    /// The verb's place; `None` for "battery out".
    pub verb: Option<usize>,
    pub base: CompactString,
    pub form: Form,
    pub subjects: Vec<Phrase>,
    pub objects: Vec<Phrase>,
    pub particles: Vec<CompactString>,
    pub places: Vec<(CompactString, Phrase)>,
    pub mood: Mood,
    pub passive: bool,
    pub negated: bool,
    /// "would", "could", "might".
    pub supposed: bool,
    /// "can", "may".
    pub possible: bool,
    /// "have removed".
    pub perfect: bool,
    /// Begins with the verb.
    pub order: bool,
    /// What a relative clause tells about.
    pub antecedent: Option<Phrase>,
}

impl Clause {
    /// Everything named in it.
    pub fn things(&self) -> impl Iterator<Item = &Phrase> {
        self.subjects.iter().chain(&self.objects).chain(self.places.iter().map(|(_, p)| p))
    }

    /// The device goes by the name that the title has for it.
    pub fn is_device(&mut self, device: &str) {
        let named = self.subjects.iter_mut().chain(&mut self.objects).chain(self.places.iter_mut().map(|(_, p)| p));
        named
            .filter(|p| {
                matches!(p.kind, Kind::Part | Kind::Plug) && p.words.len() == 1 && p.definite && p.head() == device
            })
            .for_each(|p| p.kind = Kind::Device);
    }

    /// "Slide the card out.", where the title has "a bigger program card": no tool.
    pub fn is_own(&mut self, own: &[CompactString]) {
        let named = self.subjects.iter_mut().chain(&mut self.objects).chain(self.places.iter_mut().map(|(_, p)| p));
        let tools =
            |p: &Phrase| p.words.iter().any(|w| matches!(w.as_str(), "plastic" | "thin" | "razor" | "pry" | "credit"));
        named
            .filter(|p| p.kind == Kind::Opener && own.iter().any(|w| w == p.head()) && !tools(p))
            .for_each(|p| p.kind = Kind::Part);
    }

    /// "The four long screws go in the corners."
    pub fn screws_go(&self, what: &[Phrase]) -> bool {
        let screws = !what.is_empty() && what.iter().all(|p| p.kind == Kind::Screw);
        let there = |p: &str| matches!(p, "in" | "at" | "on" | "along" | "into" | "by" | "under" | "near" | "around");
        let here = self.places.iter().any(|(p, _)| there(p));
        self.base == "go" && matches!(self.form, Form::Third | Form::Base) && screws && here && !self.negated
    }

    /// "You don't need to.": what stands before it may as well stay.
    pub fn spares(&self) -> bool {
        self.negated && self.base == "need" && self.agent() && self.objects.is_empty()
    }

    /// "The battery goes under it.": "it" is still what is spoken of.
    pub fn beside_it(&self) -> bool {
        let by = |p: &str| matches!(p, "under" | "over" | "below" | "behind" | "beside");
        self.places.iter().any(|(p, np)| np.is_pronoun() && np.head() == "it" && by(p))
    }

    pub fn agent(&self) -> bool {
        // "Off she comes.": the thing.
        let moves =
            matches!(self.base.as_str(), "come" | "go" | "pop" | "slide" | "lift") && !self.particles.is_empty();
        let she = |s: &Phrase| moves && matches!(s.words[0].as_str(), "he" | "she");
        self.subjects.last().is_some_and(|s| {
            !she(s) && {
                matches!(
                    s.words[0].as_str(),
                    "i" | "you" | "we" | "he" | "she" | "they" | "one" | "somebody" | "someone" | "anybody" | "who"
                ) && s.is_pronoun()
            }
        })
    }
}

pub(super) fn split(w: &[Word]) -> Vec<Clause> {
    let verbs = main_verbs(w);
    let mut out: Vec<Clause> = Vec::new();
    if verbs.is_empty() {
        out.extend(verbless(w, 0, w.len()));
        return out;
    }
    let groups: Vec<usize> =
        verbs.iter().enumerate().map(|(n, v)| group(w, *v, if n == 0 { 0 } else { verbs[n - 1] + 1 })).collect();
    let mut begins: Vec<usize> = Vec::with_capacity(verbs.len());
    let mut subjects_from: Vec<usize> = Vec::with_capacity(verbs.len());
    for n in 0..verbs.len() {
        let low = if n == 0 { 0 } else { verbs[n - 1] + 1 };
        let (begin, subject) = beginning(w, low, groups[n], verbs[n], n == 0);
        begins.push(begin);
        subjects_from.push(subject);
    }
    if begins[0] > 0 {
        out.extend(verbless(w, 0, begins[0]));
    }
    for n in 0..verbs.len() {
        let end = begins.get(n + 1).copied().unwrap_or(w.len());
        let clause = clause(w, begins[n], subjects_from[n], groups[n], verbs[n], end);
        let rest = clause.1;
        out.push(clause.0);
        if rest < end {
            out.extend(verbless(w, rest, end));
        }
    }
    share(w, &mut out);
    moods(w, &mut out);
    described(w, &mut out);
    told_of(w, &mut out);
    out.iter_mut().for_each(|c| serve(w, c));
    // "This coax goes to the antenna, just lifts off.": the antenna's in both.
    for n in 1..out.len() {
        let (before, rest) = out.split_at_mut(n);
        if let ([told], [subject]) = (&before[n - 1].subjects[..], &mut rest[0].subjects[..])
            && told.from == subject.from
        {
            subject.clone_from(told);
        }
    }
    out
}

/// "There's a thermostat clipped on its side": it is there, and nobody clips it.
fn described(w: &[Word], out: &mut [Clause]) {
    for n in 1..out.len() {
        let (before, rest) = out.split_at_mut(n);
        let (there, c) = (&mut before[n - 1], &mut rest[0]);
        let shows =
            there.base == "be" && there.subjects.is_empty() && there.objects.is_empty() && there.places.is_empty();
        let opened = there.verb.is_some_and(|v| v > 0 && w[v - 1].is("there") && c.from == v + 1);
        let participle =
            c.form == Form::Past && !c.passive && !c.perfect && c.verb.is_some_and(|v| w[v].base.is_some());
        if shows && opened && participle && c.subjects.len() == 1 {
            there.objects.clone_from(&c.subjects);
            c.mood = Mood::Relative;
            c.antecedent = None;
        }
    }
}

/// "The ribbon that goes round the corner is the screen's": the ribbon is, and not the corner.
fn told_of(w: &[Word], out: &mut [Clause]) {
    for n in 1..out.len() {
        let (before, rest) = out.split_at_mut(n);
        // "The right half, the one with the sticker, is only held by clips."
        let parted = rest[0].from > 0
            && w[rest[0].from - 1].pause
            && matches!(w[rest[0].from].tag, Tag::Be | Tag::Modal | Tag::Have);
        let named = before[n - 1].objects.iter().find(|o| o.kind == Kind::Part && o.definite);
        if let (true, true, Some(named)) = (parted && rest[0].subjects.is_empty(), before[n - 1].verb.is_none(), named)
        {
            rest[0].subjects = vec![named.clone()];
        }
        let (aside, c) = (&mut before[n - 1], &mut rest[0]);
        let Some(about) = aside.antecedent.clone().filter(|_| aside.mood == Mood::Relative) else { continue };
        let [place] = &c.subjects[..] else { continue };
        let led = place.from > 0 && w[place.from - 1].tag == Tag::Prep && Some(place.from - 1) > aside.verb;
        if led && c.mood == Mood::Plain {
            aside.places.push((w[place.from - 1].lemma.clone(), place.clone()));
            c.subjects = vec![about];
        }
    }
}

/// "There's a wide ribbon to the front panel": whom a plug that is shown serves.
fn serve(w: &[Word], c: &mut Clause) {
    // "The ribbon is the screen's.": whose it is.
    if let (true, [plug], [whose]) = (c.base == "be" && !c.negated, &mut c.subjects[..], &c.objects[..])
        && plug.kind == Kind::Plug
        && plug.of.is_empty()
        && w.get(whose.to).is_some_and(|x| x.tag == Tag::Owner)
    {
        plug.of.push(whose.clone());
        c.objects.clear();
        return;
    }
    // "This coax goes to the antenna": the antenna's.
    let leads = matches!(c.base.as_str(), "go" | "lead" | "run") && c.form == Form::Third && c.particles.is_empty();
    let to = c.places.iter().find(|(p, np)| p == "to" && np.kind == Kind::Part && np.definite);
    if let (true, [plug], Some((_, owner))) = (leads && !c.negated, &mut c.subjects[..], to)
        && plug.kind == Kind::Plug
        && plug.of.is_empty()
        && !plug.plural
        && !matches!(owner.head(), "board" | "mainboard" | "motherboard")
        // "The flex goes to the left."
        && !GRAMMAR.classes.which.contains(owner.head())
    {
        plug.of.push(owner.clone());
        return;
    }
    // "The pump has got a little plug": the pump's.
    let owner = c.subjects.first().filter(|s| s.kind == Kind::Part && s.definite && !c.negated && !c.supposed);
    let has = matches!(c.base.as_str(), "have" | "get");
    if let (true, Some(owner), Some(plug)) = (has, owner, c.objects.first_mut())
        && plug.kind == Kind::Plug
        && !plug.definite
        && plug.of.is_empty()
    {
        plug.of.push(owner.clone());
    }
    if c.base != "be" || !c.subjects.is_empty() {
        return;
    }
    let to = c.places.iter().find(|(p, np)| matches!(p.as_str(), "to" | "for") && np.kind == Kind::Part && np.definite);
    if let ([plug], Some((_, owner))) = (&mut c.objects[..], to)
        && plug.kind == Kind::Plug
        && plug.of.is_empty()
        && !matches!(owner.head(), "board" | "mainboard" | "motherboard")
    {
        plug.of.push(owner.clone());
    }
}

/// "unhook and take out the cable": verbs that are joined share their object.
fn share(w: &[Word], out: &mut [Clause]) {
    for n in 0..out.len().saturating_sub(1) {
        let (left, right) = out.split_at_mut(n + 1);
        let (c, next) = (&mut left[n], &right[0]);
        let Some(verb) = c.verb else { continue };
        // "loosen but don't remove the two bolts"
        let and = |i: usize| w.get(i).is_some_and(|x| x.is("and") || x.is("or") || x.is("but") && next.negated);
        let joined = (and(next.from) || next.from > 0 && and(next.from - 1))
            && next.subjects.is_empty()
            && next.verb.is_some_and(|v| v <= next.from + 2);
        if joined
            && c.objects.is_empty()
            && c.places.is_empty()
            && c.particles.is_empty()
            && !c.passive
            && !w[verb].pause
            && w[verb].form == w[next.verb.unwrap_or(verb)].form
        {
            c.objects.clone_from(&next.objects);
        }
    }
}

/// Verbs that are not merely leading to another: in "need to lift", "keep pushing", "go ahead and peel" the last counts.
fn main_verbs(w: &[Word]) -> Vec<usize> {
    let verbish = |i: usize| matches!(w[i].tag, Tag::Verb | Tag::Be | Tag::Have);
    (0..w.len()).filter(|&i| verbish(i) && leads_to(w, i).is_none()).collect()
}

/// The verb that this one only leads to.
fn leads_to(w: &[Word], at: usize) -> Option<usize> {
    let helping = matches!(w[at].tag, Tag::Be | Tag::Have);
    // "the pack comes sliding out"
    let comes = w[at].verb() == "come" && w.get(at + 1).is_some_and(|n| n.tag == Tag::Verb && n.form == Form::Ing);
    let raising = GRAMMAR.raising.contains(w[at].verb()) || helping || comes;
    if !raising {
        return None;
    }
    let mut to = false;
    let mut i = at + 1;
    while i < w.len() && i < at + 6 {
        let word = &w[i];
        // "Before we go any further let's get it unplugged.": begins anew.
        if word.is("let") && w.get(i + 1).is_some_and(|n| n.said == "'s") {
            return None;
        }
        match word.tag {
            Tag::Adv | Tag::Neg | Tag::Does => {}
            // "the board's gotta come out"
            Tag::Modal if helping && word.is("gotta") => to = true,
            Tag::To => to = true,
            // "I should be able to get a card in."
            Tag::Adj if helping && word.is("able") => {}
            // "let's", "let me", "help you"; "is it" of a question.
            Tag::Pron if matches!(w[at].verb(), "let" | "help" | "want") && !to => {}
            Tag::Conj if (w[at].verb() == "go" || w[at].verb() == "try") && word.is("and") && i <= at + 2 => to = true,
            Tag::Part if w[at].verb() == "go" && word.is("ahead") => {}
            Tag::Prep if word.is("by") && matches!(w[at].verb(), "start" | "begin" | "continue" | "finish") => {}
            Tag::Prep
                if word.is("with")
                    && matches!(w[at].verb(), "start" | "begin" | "continue")
                    && w.get(i + 1).is_some_and(|n| n.tag == Tag::Verb && n.form == Form::Ing) => {}
            Tag::Part | Tag::Prep if word.is("on") && w[at].verb() == "go" => {}
            Tag::Have | Tag::Be => {
                // "have been", "to be": helping on.
                if !(helping || to) {
                    return None;
                }
            }
            Tag::Verb => {
                let base = w[at].verb();
                let fits = match word.form {
                    Form::Base => to || matches!(base, "let" | "help" | "go") || (w[at].tag == Tag::Be && i == at + 1),
                    Form::Past => {
                        helping && !to
                            || matches!(base, "get" | "want" | "need")
                            || to && matches!(w[i - 1].tag, Tag::Be | Tag::Have)
                    }
                    Form::Ing => {
                        w[at].tag == Tag::Be
                            || comes
                            || matches!(
                                base,
                                "start"
                                    | "keep"
                                    | "begin"
                                    | "need"
                                    | "want"
                                    | "try"
                                    | "finish"
                                    | "continue"
                                    | "go"
                                    | "have"
                            )
                            || to
                    }
                    Form::Third => false,
                };
                return fits.then_some(i);
            }
            _ => return None,
        }
        let goes = w[at].verb() == "go" && w[at].form == Form::Third;
        if word.pause && (i > at + 1 || goes) {
            return None;
        }
        i += 1;
    }
    None
}

/// Where the words that help a verb begin.
fn group(w: &[Word], verb: usize, low: usize) -> usize {
    let mut at = verb;
    while at > low {
        let p = &w[at - 1];
        // "Lift the screen gently, there are two ribbons."
        if p.pause && (p.tag != Tag::Adv || w[at].is("there")) {
            break;
        }
        let raising = p.tag == Tag::Verb && leads_to(w, at - 1).is_some();
        let helps =
            matches!(p.tag, Tag::Modal | Tag::Be | Tag::Have | Tag::Does | Tag::Neg | Tag::To | Tag::Adv) || raising;
        let through = matches!(p.tag, Tag::Pron | Tag::Conj | Tag::Prep | Tag::Part)
            && at >= low + 2
            && w[..at - 1].len() > low
            && {
                // "let me", "let's", "go ahead and", "start by"
                (low..at - 1).rev().take(3).any(|k| leads_to(w, k).is_some_and(|v| v >= at && v <= verb))
            };
        // "I should be able to get it out."
        let able = p.tag == Tag::Adj && p.is("able") && at >= low + 2 && w[at - 2].tag == Tag::Be;
        if !(helps || through || able) {
            break;
        }
        at -= 1;
    }
    at
}

/// Where the clause of a verb begins, and where its subject does.
fn beginning(w: &[Word], low: usize, group: usize, verb: usize, first: bool) -> (usize, usize) {
    // The last place before the group where a clause may begin.
    let then = |i: usize| {
        w[i].is("then")
            && i + 1 < group
            && matches!(w[i + 1].tag, Tag::Det | Tag::Noun | Tag::Adj)
            && w[i - 1].tag == Tag::Noun
    };
    let opens = |i: usize| {
        i == low && (first || w[i].tag == Tag::Sub)
            || i > low && (w[i - 1].pause || matches!(w[i].tag, Tag::Conj | Tag::Sub) || then(i))
    };
    let mut bound = (low..=group.min(w.len() - 1)).rev().find(|&i| opens(i));
    let infinitive = (group..verb).any(|i| w[i].tag == Tag::To)
        && !(group..verb).any(|i| {
            matches!(w[i].tag, Tag::Have | Tag::Be)
                || (w[i].tag == Tag::Verb && matches!(w[i].verb(), "need" | "want" | "go"))
        });
    let finite = (group..verb).any(|i| matches!(w[i].tag, Tag::Modal | Tag::Be | Tag::Have | Tag::Does))
        || (group..verb).any(|i| w[i].tag == Tag::Verb || somebody_does_not(&w[i]))
        || w[verb].tag != Tag::Verb
        || matches!(w[verb].form, Form::Third | Form::Past);
    // "the two plugs come off": a plural and a verb without an object.
    let plural = group > low
        && group == verb
        && w[verb].form == Form::Base
        && w[group - 1].tag == Tag::Noun
        && w.get(verb + 1).is_none_or(|n| !matches!(n.tag, Tag::Det | Tag::Pron | Tag::Noun | Tag::Adj))
        && matches!(
            w[verb].verb(),
            "come"
                | "go"
                | "let"
                | "slide"
                | "lift"
                | "pop"
                | "pull"
                | "drop"
                | "fall"
                | "swing"
                | "peel"
                | "need"
                | "sit"
                | "stay"
        );
    let finite = finite || plural;
    let pronoun = group > low
        && w[group - 1].tag == Tag::Pron
        && matches!(
            w[group - 1].said.as_str(),
            "i" | "you"
                | "we"
                | "they"
                | "he"
                | "she"
                | "it"
                | "that"
                | "this"
                | "these"
                | "those"
                | "which"
                | "who"
                | "both"
                | "all"
        );
    let takes_subject = finite
        || pronoun
            && !(w[group - 1].is("it") && w[verb].form == Form::Base)
            && !(matches!(w[group - 1].lemma.as_str(), "that" | "this" | "these" | "those" | "it" | "both" | "all")
                && w[verb].form == Form::Base
                && !finite
                && (low < group - 1 || low > 0 && low == group - 1));
    if infinitive && !takes_subject {
        let at = bound.filter(|b| *b > low && only_ways(w, *b, group)).unwrap_or(group);
        return (at, group);
    }
    // "so out come the batteries"
    let fronted = verb > low
        && w[verb - 1].tag == Tag::Part
        && matches!(w[verb].verb(), "come" | "go")
        && w.get(verb + 1).is_some_and(|n| n.tag == Tag::Det);
    if fronted {
        return (verb - 1, verb - 1);
    }
    // "display flex first, push it in": what it is about, and then an order.
    let in_turn = |i: &usize| matches!(w[*i].lemma.as_str(), "first" | "last" | "next") && w[*i].pause;
    // "Ribbon back in first, then lay the board down."
    let named = |at: &usize| *at > low && matches!(w[at - 1].tag, Tag::Noun | Tag::Part);
    let about = (group..verb).rev().find(in_turn).filter(named);
    if let (Form::Base, Some(at)) = (w[verb].form, about) {
        return (at + 1, at + 1);
    }
    if let Some(b) = bound.filter(|b| *b > low || first || w[*b].tag == Tag::Sub) {
        // "the screws, the cover and the tray come off": a list before the first verb is one subject.
        if first && finite {
            let mut b2 = b;
            let then = w[b].tag == Tag::Conj && w.get(b + 1).is_some_and(|x| x.is("then"));
            let near = if then { 3 } else { 2 };
            let pointing = group > b && group - b <= near && w[group - 1].tag == Tag::Pron;
            while !pointing
                && b2 > low
                && (low..b2).all(|i| {
                    matches!(
                        w[i].tag,
                        Tag::Noun | Tag::Adj | Tag::Det | Tag::Num | Tag::Conj | Tag::Owner | Tag::Adv | Tag::Prep
                    )
                })
                && w[b2].tag != Tag::Sub
                && !led(w, low)
            {
                b2 = low;
            }
            bound = Some(b2);
        }
        let b = bound.unwrap_or(b);
        // "battery out first, always squeeze the sides": a way without a verb, then an order.
        let way = (b..group).rev().find(|i| w[*i].tag != Tag::Adv).filter(|i| w[*i].tag == Tag::Part && *i > b);
        if !takes_subject && w[verb].form == Form::Base && way.is_some_and(|i| w[i - 1].tag == Tag::Noun) {
            return (group, group);
        }
        // "take out the game card and the memory card you don't want those": the list ends before who does something.
        if takes_subject && ends_a_list(w, b, group) {
            return (group - 1, group - 1);
        }
        // "top shell back on, front edge first it's got two pins": who does it stands right before the verb.
        if takes_subject && w[b].tag != Tag::Sub && stands_alone(w, b, group) {
            return (group - 1, group - 1);
        }
        let nothing_between = b == group || (b..group).all(|i| matches!(w[i].tag, Tag::Conj | Tag::Adv | Tag::Sub));
        // "because two cables connect it"
        let told_of = w[b].tag == Tag::Sub && group == verb && group > b + 1 && w[group - 1].tag == Tag::Noun;
        if takes_subject || told_of || nothing_between || only_ways(w, b, group) || first {
            return (b, b);
        }
    }
    if takes_subject {
        // Run-on speech: the phrase right before is the subject.
        let mut at = group;
        while at > low && matches!(w[at - 1].tag, Tag::Noun | Tag::Adj | Tag::Num | Tag::Det | Tag::Owner | Tag::Pron) {
            at -= 1;
            if matches!(w[at].tag, Tag::Det | Tag::Pron) {
                break;
            }
        }
        // "the clips along the edge come off"
        while at > low + 1
            && w[at - 1].tag == Tag::Prep
            && matches!(w[at - 2].tag, Tag::Noun)
            && matches!(
                w[at - 1].lemma.as_str(),
                "of" | "on" | "in" | "for" | "at" | "along" | "under" | "below" | "beside"
            )
        {
            let mut k = at - 2;
            while k > low && matches!(w[k - 1].tag, Tag::Noun | Tag::Adj | Tag::Num) {
                k -= 1;
            }
            if k > low && w[k - 1].tag == Tag::Det {
                k -= 1;
            } else if w[k].tag != Tag::Num && k > low {
                break;
            }
            at = k;
        }
        return (at, at);
    }
    (group, group)
}

/// "doesn't", "won't": of somebody or something; "don't" may be an order.
fn somebody_does_not(w: &Word) -> bool {
    w.tag == Tag::Neg && w.said.ends_with("n't") && w.said != "don't"
}

/// A pronoun that is a subject by itself, behind a thing and its way.
fn stands_alone(w: &[Word], from: usize, group: usize) -> bool {
    let nominative = |x: &Word| matches!(x.said.as_str(), "i" | "you" | "we" | "they" | "he" | "she" | "it");
    group > from + 1
        && w[group - 1].tag == Tag::Pron
        && nominative(&w[group - 1])
        && !matches!(w[group - 2].tag, Tag::Conj | Tag::Sub | Tag::Prep)
        && (from + 1..group - 1).any(|i| w[i].tag == Tag::Part && w[i - 1].tag == Tag::Noun)
        && !only_ways(w, from, group - 1)
}

/// "and the memory card | you", "and the memory card back in | that": a thing of the list before, then a subject by itself.
fn ends_a_list(w: &[Word], from: usize, group: usize) -> bool {
    let nominative = |x: &Word| matches!(x.said.as_str(), "i" | "you" | "we" | "they" | "he" | "she" | "it");
    let pointer = |x: &Word| matches!(x.said.as_str(), "that" | "this") && w[group].tag == Tag::Be;
    let listed = from > 0
        && group > from + 3
        && w[from].is("and")
        && w[from + 1].tag == Tag::Det
        && w[from - 1].tag == Tag::Noun
        && w[from + 1..group - 1]
            .iter()
            .all(|x| !x.pause && matches!(x.tag, Tag::Det | Tag::Adj | Tag::Noun | Tag::Part));
    listed && w[group - 1].tag == Tag::Pron && (nominative(&w[group - 1]) || pointer(&w[group - 1]))
}

/// The stretch begins with a preposition: "on the left side, the cover".
fn led(w: &[Word], at: usize) -> bool {
    w.get(at).is_some_and(|x| x.tag == Tag::Prep)
}

/// Nothing but ways and places: "with the lever,", "then carefully".
fn only_ways(w: &[Word], from: usize, to: usize) -> bool {
    let mut i = from;
    while i < to {
        match w[i].tag {
            Tag::Adv | Tag::Conj | Tag::Part | Tag::Neg => i += 1,
            Tag::Prep => match phrase_at(w, i + 1, to) {
                Some((_, end)) => i = end,
                None => i += 1,
            },
            _ => return false,
        }
    }
    true
}

fn clause(w: &[Word], begin: usize, subject_from: usize, group: usize, verb: usize, end: usize) -> (Clause, usize) {
    let (subjects, mut particles, mut places) = ahead(w, subject_from, group);
    let behind = behind(w, verb, end, &subjects, (&mut particles, &mut places));
    let helpers = &w[group..verb];
    let order = w[verb].form == Form::Base && subjects.is_empty() && !helpers.iter().any(|h| h.tag == Tag::To);
    let base = match w[verb].tag {
        Tag::Verb => w[verb].verb(),
        Tag::Have => "have",
        _ => "be",
    };
    let clause = Clause {
        from: begin,
        to: behind.stop,
        verb: Some(verb),
        base: base.into(),
        form: w[verb].form,
        subjects,
        objects: behind.objects,
        particles,
        places,
        mood: Mood::Plain,
        passive: passive(w, helpers, verb),
        negated: negated(w, begin, helpers, verb),
        supposed: supposed(w, helpers, verb),
        possible: helpers.iter().any(|h| matches!(h.said.as_str(), "can" | "may")),
        perfect: w[verb].form == Form::Past
            && helpers.iter().any(|h| h.tag == Tag::Have)
            && !helpers.iter().any(|h| h.tag == Tag::To),
        order,
        antecedent: None,
    };
    (clause, behind.stop)
}

type Ahead = (Vec<Phrase>, Vec<CompactString>, Vec<(CompactString, Phrase)>);

/// What stands before the verb: who or what, ways, places.
fn ahead(w: &[Word], from: usize, to: usize) -> Ahead {
    let (mut subjects, mut particles, mut places) = (Vec::new(), Vec::new(), Vec::new());
    let mut i = from;
    while i < to {
        let led = w[i].tag == Tag::Prep;
        if w[i].tag == Tag::Part {
            particles.push(w[i].lemma.clone());
            i += 1;
            continue;
        }
        match phrase_at(w, i + usize::from(led), to) {
            Some((p, after)) if led => {
                places.push((w[i].lemma.clone(), p));
                i = after;
            }
            Some((p, after)) => {
                subjects.push(p);
                i = after;
            }
            None => i += 1,
        }
    }
    (subjects, particles, places)
}

fn negated(w: &[Word], begin: usize, helpers: &[Word], verb: usize) -> bool {
    // "Don't plug it in yet, no, actually do plug it in."
    if verb > begin && w[verb - 1].said == "do" && w[verb - 1].tag == Tag::Does {
        return false;
    }
    let not = |x: &Word| x.tag == Tag::Neg || x.said == "no" && x.tag == Tag::Adv || x.is("without");
    helpers.iter().any(|h| h.tag == Tag::Neg) || begin < verb && w[begin..verb].iter().any(not)
}

fn passive(w: &[Word], helpers: &[Word], verb: usize) -> bool {
    // "it's gone stiff": has gone.
    if matches!(w[verb].verb(), "go" | "come") || w[verb].tag != Tag::Verb {
        return false;
    }
    let needs_ing = helpers.iter().any(|h| matches!(h.verb(), "need" | "want")) && w[verb].form == Form::Ing;
    let be = helpers.iter().rposition(|h| h.tag == Tag::Be);
    // "I'm gonna put it down": puts it.
    let going = helpers.iter().rposition(|h| matches!(h.said.as_str(), "gonna" | "wanna"));
    let be = be.filter(|at| going.is_none_or(|going| *at > going));
    w[verb].form == Form::Past && be.is_some() || needs_ing
}

fn supposed(w: &[Word], helpers: &[Word], verb: usize) -> bool {
    const WOULD: [&str; 7] = ["would", "could", "might", "'d", "wouldn't", "couldn't", "should've"];
    // "I'd like to see whether it works."
    let likes = helpers.iter().any(|h| h.said == "like") && helpers.iter().any(|h| h.tag == Tag::To);
    helpers.iter().any(|h| WOULD.contains(&h.said.as_str())) && !(likes && w[verb].verb() == "see")
}

/// A list without marks goes on: things of one kind, and "and the" one before it ends.
pub(super) fn goes_on(w: &[Word], objects: &[Phrase], p: &Phrase, after: usize) -> bool {
    let alike = objects.last().is_some_and(|o| o.kind == p.kind && o.definite && !o.is_pronoun());
    let and_the = (after..w.len().min(after + 6))
        .find(|i| w[*i].tag != Tag::Noun && w[*i].tag != Tag::Adj && w[*i].tag != Tag::Det);
    alike
        && p.definite
        && matches!(p.kind, Kind::Plug | Kind::Part)
        && and_the.is_some_and(|i| w[i].is("and") && w.get(i + 1).is_some_and(|n| n.tag == Tag::Det))
}

/// How many words a quantity takes that stands alone: "5 millimetres", not "5 millimetre screws".
pub(super) fn sized(w: &[Word], at: usize) -> Option<usize> {
    let lemmas: Vec<&str> = w[at..w.len().min(at + 6)].iter().map(|w| w.lemma.as_str()).collect();
    let figure = numbers::figure_at(&lemmas, 0)?;
    let (unit, _) = LEXICON.units.at(&lemmas, figure.len)?;
    let len = figure.len + unit;
    let named = w.get(at + len).is_some_and(|n| matches!(n.tag, Tag::Noun | Tag::Adj)) && !w[at + len - 1].pause;
    (!named).then_some(len)
}

/// "Dust bin in", "latch down", "off with the hood", "then the lid": ways without a verb.
fn verbless(w: &[Word], from: usize, to: usize) -> Vec<Clause> {
    let mut out = Vec::new();
    let (mut objects, mut particles, mut places): (Vec<Phrase>, Vec<CompactString>, Vec<(CompactString, Phrase)>) =
        (Vec::new(), Vec::new(), Vec::new());
    let mut at = from;
    let mut begin = from;
    let mut flush = |objects: &mut Vec<Phrase>,
                     particles: &mut Vec<CompactString>,
                     places: &mut Vec<(CompactString, Phrase)>,
                     from: usize,
                     to: usize| {
        if !objects.is_empty() || !particles.is_empty() {
            out.push(Clause {
                from,
                to,
                verb: None,
                base: CompactString::default(),
                form: Form::Base,
                subjects: Vec::new(),
                objects: std::mem::take(objects),
                particles: std::mem::take(particles),
                places: std::mem::take(places),
                mood: Mood::Plain,
                passive: false,
                negated: w[from..to].iter().any(|x| x.tag == Tag::Neg),
                supposed: false,
                possible: false,
                perfect: false,
                order: false,
                antecedent: None,
            });
        }
        places.clear();
    };
    while at < to {
        match w[at].tag {
            Tag::Part => {
                particles.push(w[at].lemma.clone());
                at += 1;
            }
            Tag::Prep => match phrase_at(w, at + 1, to) {
                Some((p, after)) => {
                    if objects.is_empty() && !particles.is_empty() && w[at].is("with") {
                        objects.push(p);
                    } else {
                        places.push((w[at].lemma.clone(), p));
                    }
                    at = after;
                }
                None => at += 1,
            },
            Tag::Sub => {
                at += 1;
            }
            // "the washer, then the spring": each goes on with the act.
            Tag::Adv if (w[at].is("then") || w[at].is("next")) && !objects.is_empty() => {
                flush(&mut objects, &mut particles, &mut places, begin, at);
                begin = at;
                at += 1;
            }
            // "Microphones first, flex in": says what the rest is about.
            Tag::Adv | Tag::Adj
                if (w[at].is("first") || w[at].is("last"))
                    && w[at].pause
                    && !objects.is_empty()
                    && particles.is_empty()
                    && at + 1 < to =>
            {
                at += 1;
                flush(&mut objects, &mut particles, &mut places, begin, at);
                begin = at;
            }
            _ => match phrase_at(w, at, to) {
                // "ribbon cable, no latch, straight out"
                Some((_, after)) if w[at].is("no") && !objects.is_empty() => at = after,
                // "front board in, two screws, 6 millimetres": screws, and no size, are a fragment of their own.
                Some((p, after)) if p.kind == Kind::Nothing && p.of.is_empty() && !objects.is_empty() => at = after,
                Some((p, after)) => {
                    // "four screws, feet back on": the way is that of the feet.
                    let screws = objects.iter().any(|o: &Phrase| o.kind == Kind::Screw) && p.kind != Kind::Screw;
                    let own_way = screws && w[at - 1].pause && w.get(after).is_some_and(|n| n.tag == Tag::Part);
                    // "Bottom plate on it and the four screws in.": each its own way.
                    let on_it = p.kind == Kind::Screw && !places.is_empty() && !objects.is_empty();
                    let own_way = own_way || on_it && w.get(after).is_some_and(|n| n.tag == Tag::Part);
                    if own_way || !particles.is_empty() && !objects.is_empty() {
                        flush(&mut objects, &mut particles, &mut places, begin, at);
                        begin = at;
                    }
                    objects.push(p);
                    at = after;
                }
                None => at += 1,
            },
        }
        let way = !particles.is_empty() || !places.is_empty() && !objects.is_empty();
        if at > begin && at <= to && w[at - 1].pause && way {
            flush(&mut objects, &mut particles, &mut places, begin, at);
            begin = at;
        }
    }
    flush(&mut objects, &mut particles, &mut places, begin, to);
    out
}
