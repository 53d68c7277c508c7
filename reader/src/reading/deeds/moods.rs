//! How each clause is meant, from what opens it and what it hangs on.
//!
//! A condition, a result, an aim and a question tell no act by themselves; and "and" goes on as the clause before was meant.

use super::super::tags::Form;
use super::clauses::{Clause, Mood};
use super::grammar::{GRAMMAR, Kind};
use super::phrases::Phrase;
use super::words::{Tag, Word};

/// Gives every clause its mood, what it tells about, and the subject that it shares.
pub(super) fn moods(w: &[Word], out: &mut [Clause]) {
    for n in 0..out.len() {
        let (before, rest) = out.split_at_mut(n);
        let c = &mut rest[0];
        let Some(verb) = c.verb else { continue };
        let previous = before.iter().rev().find(|p| p.verb.is_some());
        let opens = (c.from..verb).rev().find(|i| w[*i].tag == Tag::Sub);
        let infinitive = infinitive(w, c, verb);
        if let Some(at) = opens {
            c.mood = subordinate(w, at, c, previous);
            if c.mood == Mood::Relative {
                c.antecedent = antecedent(at, c, before);
            }
            agreeing(w, at, verb, c, before);
        } else if every_time(w, c) {
            c.mood = Mood::If;
        } else if infinitive && (alone(w, c, verb) || previous.is_some_and(reminds)) {
            c.order = true;
        } else if infinitive {
            c.mood = Mood::Purpose;
        } else if is_gerund(w, c, verb) {
            gerund(w, verb, c, previous);
        } else {
            own_subject(w, verb, c, previous);
            joined(w, verb, c, previous);
        }
    }
}

/// "Don't forget to plug it in.", "Remember to seat the latch.": an order.
fn reminds(p: &Clause) -> bool {
    p.base == "forget" && p.negated || p.base == "remember" && p.order
}

/// "to reach the fan"; but "have to", "going to" only lead to what is done.
fn infinitive(w: &[Word], c: &Clause, verb: usize) -> bool {
    let leads = |i: usize| {
        matches!(w[i].tag, Tag::Have | Tag::Be | Tag::Modal)
            || (w[i].tag == Tag::Verb && GRAMMAR.raising.contains(w[i].verb()))
            || matches!(w[i].said.as_str(), "gonna" | "gotta" | "wanna" | "going")
    };
    (c.from..verb).any(|i| w[i].tag == Tag::To) && !(c.from..verb).any(leads)
}

/// "that gets …", "that's …": a subject with its verb.
fn goes_off(w: &[Word], at: usize) -> bool {
    w.get(at).is_some_and(|that| that.is("that")) && w.get(at + 1).is_some_and(|v| matches!(v.tag, Tag::Be | Tag::Verb))
}

/// "if it breaks", "once it is off", "so that it holds".
fn subordinate(w: &[Word], at: usize, c: &Clause, previous: Option<&Clause>) -> Mood {
    let shows = |p: &Clause| p.base == "be" && p.objects.is_empty() && p.subjects.iter().all(Phrase::is_pronoun);
    match w[at].lemma.as_str() {
        "if" | "unless" | "whenever" | "whoever" => Mood::If,
        // "…, so that gets unplugged next": "that" is what was named.
        "so" if at > 0 && w[at - 1].pause && goes_off(w, at + 1) => Mood::Plain,
        "when" | "once" | "after" => Mood::After,
        "while" => Mood::Means,
        "before" | "as" => Mood::Before,
        "until" | "till" => Mood::Until,
        "because" | "like" | "since" | "cause" | "otherwise" | "although" | "though" | "whereas" | "so" => Mood::Reason,
        "that" if at > 0 && w[at - 1].is("now") => Mood::After,
        "that" | "which" | "who" if at > 0 => Mood::Relative,
        // "That's where a pick is pushed in.": told.
        "where" if c.passive && previous.is_some_and(shows) => c.mood,
        "where" | "what" | "how" | "why" | "whether" | "whatever" | "which" | "who" => Mood::Question,
        _ => c.mood,
    }
}

/// What "that" and "which" tell about: the plug that is pulled, else the thing right before.
fn antecedent(at: usize, c: &Clause, before: &[Clause]) -> Option<Phrase> {
    let previous = before.iter().rev().find(|p| p.verb.is_some());
    let unplugs = matches!(c.base.as_str(), "disconnect" | "unplug" | "connect" | "detach");
    let plug = previous.filter(|_| unplugs).and_then(|p| {
        let named = p.objects.iter().chain(&p.subjects);
        named.into_iter().find(|np| np.kind == Kind::Plug).cloned()
    });
    let right_before = || {
        previous.and_then(|p| {
            let mut named = p.places.iter().map(|(_, np)| np).chain(&p.objects).chain(&p.subjects);
            let near = named.find(|np| np.to == at || np.to + 1 == at)?;
            // "the clamp in the centre, which is held by one screw": the clamp.
            let place = near.kind == Kind::Nothing && p.places.iter().any(|(_, np)| np.from == near.from);
            Some(p.objects.last().filter(|_| place).unwrap_or(near).clone())
        })
    };
    let further = || {
        let mut named = before.iter().rev().flat_map(|p| p.objects.iter().chain(&p.subjects));
        named.find(|np| np.to == at).cloned()
    };
    plug.or_else(right_before).or_else(further)
}

/// "We've got a bracket covering the plugs, that's got to go.": the bracket, which is one.
fn agreeing(w: &[Word], at: usize, verb: usize, c: &mut Clause, before: &[Clause]) {
    let single = (c.from..verb).any(|i| matches!(w[i].said.as_str(), "'s" | "is" | "has"));
    if single && c.antecedent.as_ref().is_some_and(|p| p.plural) && at > 0 && w[at - 1].pause {
        let fits = |p: &&Phrase| p.is_thing() && !p.plural && !p.is_pronoun();
        let other = before.iter().rev().flat_map(|k| k.objects.iter().chain(&k.subjects)).find(fits);
        c.antecedent = other.cloned().or(c.antecedent.take());
    }
}

/// "It buzzes every time the pump comes on."
fn every_time(w: &[Word], c: &Clause) -> bool {
    c.from > 1 && w[c.from - 1].is("time") && w[c.from - 2].is("every")
}

/// "To check the window for any crack.": nothing else is told.
fn alone(w: &[Word], c: &Clause, verb: usize) -> bool {
    let opens = c.from <= 1 && w[..verb].iter().all(|x| matches!(x.tag, Tag::To | Tag::Conj | Tag::Adv));
    opens && w.iter().filter(|x| matches!(x.tag, Tag::Verb | Tag::Be | Tag::Have)).count() == 1
}

fn is_gerund(w: &[Word], c: &Clause, verb: usize) -> bool {
    c.form == Form::Ing && !c.passive && !(c.from..verb).any(|i| matches!(w[i].tag, Tag::Be | Tag::Verb))
}

/// "by lifting it up", "after disconnecting both", "without bending it".
fn gerund(w: &[Word], verb: usize, c: &mut Clause, previous: Option<&Clause>) {
    let within = (c.from..verb).find(|i| w[*i].tag == Tag::Prep);
    let led = within.or_else(|| c.from.checked_sub(1).filter(|i| w[*i].tag == Tag::Prep)).map(|i| w[i].lemma.as_str());
    // "I'm just going round and giving each a turn."
    let goes_on = || {
        let and = (c.from..verb).any(|i| w[i].is("and")) && c.subjects.is_empty();
        and && previous.is_some_and(|p| p.form == Form::Ing && p.mood == Mood::Plain && !p.negated)
    };
    let mood = match led {
        Some("after") => Mood::After,
        Some("before") => Mood::Before,
        Some("without") => Mood::Reason,
        Some("for") => Mood::Purpose,
        None if commented(w, c.from, verb) || goes_on() => Mood::Plain,
        _ => Mood::Means,
    };
    c.mood = mood;
    c.negated |= led == Some("without");
}

/// "And then just tightening the screws up.": told while it is done.
fn commented(w: &[Word], from: usize, verb: usize) -> bool {
    let opens = |x: &Word| matches!(x.said.as_str(), "and" | "then" | "now" | "so" | "just" | "okay" | "again");
    let alone = !w.iter().any(|x| matches!(x.tag, Tag::Be | Tag::Modal | Tag::Have));
    let one = w.iter().filter(|x| x.tag == Tag::Verb).count() == 1;
    from == 0
        && verb > 0
        && alone
        && one
        && w[..verb].iter().all(opens)
        && w[..verb].iter().any(|x| x.is("then") || x.is("now"))
}

/// "The drum is loose and can now be drawn out.", "It goes to the aerial, just lifts off.": the subject before.
fn own_subject(w: &[Word], verb: usize, c: &mut Clause, previous: Option<&Clause>) {
    let Some(p) = previous.filter(|p| c.subjects.is_empty() && p.mood == Mood::Plain && !p.subjects.is_empty()) else {
        return;
    };
    let finite = (c.from..verb).any(|i| matches!(w[i].tag, Tag::Be | Tag::Modal | Tag::Have));
    let and = w.get(c.from).is_some_and(|x| x.tag == Tag::Conj);
    // "… four feet, and underneath each of them is a small screw."
    let inverted = and && w.get(c.from + 1).is_some_and(|x| x.tag == Tag::Prep) && c.base == "be";
    let and = and && !inverted;
    let just = c.form == Form::Third && c.from > 0 && w[c.from - 1].pause && w[c.from].is("just");
    if just || finite && and && !c.order {
        c.subjects.clone_from(&p.subjects);
    }
}

/// "and" goes on as the clause before was meant, where nothing else is said.
fn joined(w: &[Word], verb: usize, c: &mut Clause, previous: Option<&Clause>) {
    let and = (c.from..verb).any(|i| w[i].tag == Tag::Conj && w[i].is("and") || w[i].is("or"));
    // "is connected and inserted": nothing stands between.
    let right_behind = c.from == verb && verb > 1 && w[verb - 1].is("and") && c.form == Form::Past;
    let and = and || right_behind;
    let Some(p) = previous.filter(|_| and && c.subjects.is_empty()) else { return };
    if !goes_on(w, verb, c, p) {
        return;
    }
    let holds = p.mood == Mood::Relative
        && matches!(p.base.as_str(), "hold" | "secure" | "fasten" | "keep" | "be" | "attach" | "fix");
    let lasting = matches!(
        p.mood,
        Mood::If | Mood::Purpose | Mood::Before | Mood::Until | Mood::Means | Mood::Relative | Mood::Question
    );
    if lasting && !holds {
        c.mood = p.mood;
        c.antecedent.clone_from(&p.antecedent);
    }
    if !c.order || p.supposed || p.negated && c.form == p.form && !p.order {
        shared(c, p);
    }
}

/// Whether the clause is meant as the one before it.
fn goes_on(w: &[Word], verb: usize, c: &Clause, p: &Clause) -> bool {
    let aim = p.mood == Mood::Purpose;
    let then = (c.from..verb).any(|i| w[i].is("then"));
    let alike = (!then || c.form == Form::Past) && p.form == c.form || c.form == Form::Base && aim;
    // "slide it back to free its hooks and lift it out": the lift is no purpose any more.
    let away = |k: &Clause| k.particles.iter().any(|p| matches!(p.as_str(), "off" | "out"));
    let lifted = aim && away(c) && !away(p);
    // "Give it a twist to break the seal, and lift it up.": a new order behind the comma.
    let anew = aim && c.order && c.from > 0 && w[c.from - 1].pause;
    // "Push it down till both clips snap and pull the tool out."
    let reached = p.mood == Mood::Until && c.order;
    // "… to break the paste loose and then lift it straight up"
    let next = aim && c.order && then && !c.objects.is_empty();
    alike && !lifted && !anew && !next && !reached
}

/// "The cover slides down and comes off", "I warmed it and peeled it off": who does it.
fn shared(c: &mut Clause, p: &Clause) {
    c.supposed |= p.supposed;
    c.possible |= p.possible;
    let suffered = p.passive && c.form == Form::Past;
    let told = !p.passive && c.form == Form::Past && p.form == Form::Past && !c.perfect;
    c.passive |= suffered;
    if suffered || told || c.form == Form::Third || c.form == Form::Base && !p.order {
        c.subjects.clone_from(&p.subjects);
    }
}
