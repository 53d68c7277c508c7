//! From clauses to acts: which frame a clause fits, and what it is done to.

use super::super::Act;
use super::super::extract::{drive_near, settings, speaks_of_heat, tools_named};
use super::super::facts::Drive;
use super::super::lexicon::LEXICON;
use super::super::phrases::is_screw;
use super::super::quantities::{self, Said};
use super::super::sentences::Token;
use super::super::wording::{BY_HAND, numeral};
use super::clauses::{Clause, Mood, split};
use super::counts::{announces_screws, how_many, one_and_one, only_counts, screws_named, whose_screws};
use super::grammar::{GRAMMAR, Kind};
use super::names::{is_cable, name};
use super::owners::whom_it_serves;
use super::phrases::{Phrase, phrase_at};
use super::plugs::{plugged_in, the_one_for, whose};
use super::results::let_do;
use super::rows::{
    clipped, everything_is, its_screws, listed_plugs, row_behind, screws_and_free, screws_beside, screws_of_it,
    that_has, there_are, wide_one,
};
use super::straight::put_straight;
use super::told::{Reader, Sentenced, Told, Topic, has};
use super::unnamed::{long_ones, name_screws};
use super::wishes::Wish;
use super::words::{Word, tag};
use crate::units::{Measure, Quantity};

pub(super) fn read(number: usize, tokens: &[Token], next: &[Token], topic: &mut Topic) -> Sentenced {
    let words = tag(tokens);
    let lemmas: Vec<&str> = words.iter().map(|w| w.lemma.as_str()).collect();
    let text = words.iter().map(|w| w.said.as_str()).collect::<Vec<_>>().join(" ");
    let mut clauses: Vec<Clause> =
        split(&words).into_iter().flat_map(screws_and_free).flat_map(|c| screws_beside(&words, c)).collect();
    // "Then the plate could be pulled forward.": in what is told afterwards, it was.
    for c in clauses.iter_mut().filter(|c| topic.past && c.supposed && c.passive && c.mood == Mood::Plain) {
        let could = |w: &Word| w.said == "could";
        c.supposed = !words[c.from..c.verb.unwrap_or(c.from)].iter().any(could);
    }
    if let Some(device) = &topic.device {
        clauses.iter_mut().for_each(|c| c.is_device(device));
    }
    for c in &mut clauses {
        c.is_own(&topic.own);
        is_titled(c, &topic.title);
    }
    let lists = name_screws(&words, &mut clauses, number, topic, next);
    if topic.screws.is_some() {
        clauses.iter_mut().for_each(|c| long_ones(&words, c));
    }
    there_are(&words, &mut clauses);
    row_behind(&mut clauses);
    everything_is(&mut clauses);
    its_screws(&mut clauses);
    for c in &mut clauses {
        put_straight(&words, c);
        wide_one(c, number, topic);
        that_has(c, number, topic);
        listed_plugs(&words, c);
        screws_of_it(&words, c);
        the_one_for(&words, c);
        let_do(&words, c);
    }
    let opening = opening(&words);
    if let Some(thing) = &opening {
        topic.put(number, thing, true);
    }
    let pauses: Vec<bool> = words.iter().map(|w| w.pause).collect();
    let heating = speaks_of_heat(&lemmas);
    let quantities = quantities::meant(Said { words: &lemmas, pauses: &pauses }, None, heating);
    let reader = Reader {
        words: &words,
        lemmas: &lemmas,
        text: &text,
        clauses: &clauses,
        quantities: &quantities,
        heating,
        topic,
        number,
    };
    let mut out = Sentenced {
        number,
        words: words.iter().map(|w| w.said.to_string()).collect(),
        said: text.clone(),
        drivers: drivers(&lemmas, &clauses),
        turns: reader.turns(),
        turns_back: GRAMMAR.apart.iter().any(|p| has(&text, p)),
        devices: clauses
            .iter()
            .flat_map(Clause::things)
            .filter(|p| p.kind == Kind::Device && !matches!(words[p.from].said.as_str(), "my" | "our"))
            .filter(|p| words.get(p.to).is_none_or(|w| w.tag != super::words::Tag::Owner))
            .map(Phrase::text)
            .collect(),
        thanks: LEXICON.noise.any(&lemmas).is_some(),
        ..Sentenced::default()
    };
    if words.is_empty() {
        return out;
    }
    out.span = (words[0].start, words[words.len() - 1].end);
    out.driver_bit = drive_near(&lemmas, 0, lemmas.len()).and_then(|(_, bit)| bit).filter(|_| out.drivers.len() == 1);
    out.takes_driver = clauses.iter().any(takes);
    out.tools = reader.tools_at_hand();
    out.counts = clauses.iter().find_map(how_many).or_else(|| only_counts(&lemmas));
    out.lists = reader.is_list();
    if out.lists || reader.is_heading() || reader.announces() {
        if announces_screws(&clauses) {
            topic.listing = Some(number);
            out.screws_of = whose_screws(&clauses);
        }
        return out;
    }
    out.chain = reader.chain();
    out.cue = words[0].cue;
    out.target = reader.target();
    out.acts = reader.acts();
    out.acts.splice(..0, reader.out_by_now());
    if out.acts.is_empty() {
        out.acts = reader.bare();
    }
    if let Some(wish) = reader.wish() {
        wished(&words, wish, &mut out);
    }
    out.for_all = reader.for_everything();
    out.summed_up = reader.summed_up();
    out.measures = reader.measures(0, words.len());
    listen(&words, &clauses, &mut out, topic);
    let short = words.len() <= 4;
    if lists || out.acts.iter().all(|a| a.fragment || short && screws_named(a)) && announces_screws(&clauses) {
        topic.listing = Some(number);
        out.lists_screws = lists;
        out.screws_of = whose_screws(&clauses).filter(|_| !lists);
    }
    about_it(&text, &words, &clauses, &mut out);
    out.opens_with = opening.filter(|p| p.kind == Kind::Part);
    out
}

/// What is listed behind a wish is done by nobody here.
fn wished(words: &[Word], wish: Wish, out: &mut Sentenced) {
    let supposed = out.acts.iter().filter(|a| a.hypothetical && a.apart.is_some());
    // "… and you wouldn't need to take the board out for it": what need not is no list.
    let already = out.target.is_some()
        && !wish.after.is_empty()
        && supposed.flat_map(|a| &a.objects).count() >= wish.after.len().max(1);
    let (start, end) = (words[wish.from].start, words[wish.to - 1].end);
    for told in out.acts.iter_mut().filter(|a| wish.other && (start..end).contains(&a.start)) {
        told.hypothetical = true;
    }
    if !already && out.chain.is_none() {
        out.chain = Some((wish.target, wish.after));
    }
}

/// "Switch the Corvid Echo on.": what the title is called by names a thing, whatever its last word means elsewhere. "The
/// Corvid Echo 5" is a model, and so the device itself.
fn is_titled(c: &mut Clause, title: &str) {
    let named = c.subjects.iter_mut().chain(&mut c.objects).chain(c.places.iter_mut().map(|(_, p)| p));
    for p in named.filter(|p| p.words.len() > 1 && p.of.is_empty()) {
        let name = p.text();
        if is_model(title, &name) {
            p.kind = Kind::Device;
        } else if p.kind == Kind::Nothing && has(title, &name) {
            p.kind = Kind::Part;
        }
    }
}

/// Whether a title begins with a name and the figure of its model: "Corvid Echo 5 chart plotter".
fn is_model(title: &str, name: &str) -> bool {
    let figure = |w: &str| w.starts_with(|c: char| c.is_ascii_digit()) || super::super::numbers::lone(&[w]);
    title.strip_prefix(name).and_then(|rest| rest.strip_prefix(' ')?.split(' ').next()).is_some_and(figure)
}

/// What a sentence does, and what a tool parts: spoken of first.
fn acted(acts: &[Told]) -> Vec<Phrase> {
    let prised = |a: &Told| matches!(a.apart, Some((Act::Pry, _)));
    acts.iter()
        .filter(|a| !a.is_named_next())
        .flat_map(|a| {
            // "walked in by the socket": only where it is, and nothing that is parted.
            let parted = |p: &str| !matches!(p, "by" | "at" | "near" | "beside" | "from");
            a.places
                .iter()
                .filter(|(p, _)| prised(a) && parted(p))
                .map(|(_, np)| np)
                .chain(a.objects.iter().filter(|o| o.kind != Kind::Picture))
                .cloned()
                .collect::<Vec<_>>()
        })
        .collect()
}

/// Everything that a sentence names, in its order.
fn spoken(clauses: &[Clause]) -> Vec<Phrase> {
    // "The half comes away, because the box is in it.": what it is about stands before the reason.
    let named = |c: &Clause| c.things().any(|p| p.kind == Kind::Part && p.definite);
    let reason = clauses.iter().position(|c| c.mood == Mood::Reason).unwrap_or(clauses.len());
    let reasons = clauses[..reason].iter().any(named);
    let explains =
        |at: usize, c: &Clause| c.mood == Mood::Reason || at > reason && matches!(c.mood, Mood::Means | Mood::Relative);
    clauses
        .iter()
        .enumerate()
        .filter(|(at, c)| !(reasons && explains(*at, c)))
        .map(|(_, c)| c)
        .filter(|c| !(c.beside_it() || c.negated && c.verb.is_none()))
        .flat_map(|c| {
            // "It goes down the arm.": still spoken of is what goes there.
            let it = c.base == "go" && c.subjects.iter().any(|s| s.is_pronoun() && s.head() == "it");
            // "Now it's out of the case.": where it was.
            let left = |p: &str| p == "of" && c.base == "be" && c.particles.iter().any(|w| w == "out");
            // "Up at the back. Off.": where, and no back that comes off.
            let side =
                |p: &str, np: &Phrase| p == "at" && np.words.len() == 1 && np.of.is_empty() && is_side(np.head());
            let places = c.places.iter().filter(|(p, np)| !it && !left(p) && !side(p, np)).map(|(_, p)| p);
            c.subjects.iter().chain(&c.objects).chain(places).cloned().collect::<Vec<_>>()
        })
        .collect()
}

fn is_side(head: &str) -> bool {
    matches!(head, "back" | "front" | "side" | "top" | "bottom" | "end" | "left" | "right" | "corner" | "edge" | "rear")
}

/// "the camera module", and not "the module", "the new module" or "the screwed bracket".
fn is_whole_name(p: &Phrase) -> bool {
    let done = p.said.iter().any(|w| w.ends_with("ed") && LEXICON.verb_forms.contains_key(w.as_str()));
    // "the flex cables": whose, nobody says.
    let own = p.words.iter().any(|w| !is_cable(w));
    matches!(p.kind, Kind::Part | Kind::Plug) && !p.new && !done && own && (2..=4).contains(&p.words.len())
}

/// What was spoken of, for the sentences behind.
fn listen(words: &[Word], clauses: &[Clause], out: &mut Sentenced, topic: &mut Topic) {
    let number = out.number;
    let (acted, spoken) = (acted(&out.acts), spoken(clauses));
    // "Take off the blade.": this device has one of its own.
    let own = |a: &&Told| matches!(a.apart, Some((Act::Remove, "taken off by lifting" | "removed")));
    let tools = out.acts.iter().filter(own).flat_map(|a| &a.objects).filter(|o| o.kind == Kind::Opener && o.definite);
    topic.own.extend(tools.map(|o| o.head().into()));
    out.whole = spoken.iter().filter(|p| is_whole_name(p)).map(name).collect();
    let did = !acted.is_empty();
    let spoken_of =
        topic.one.as_ref().filter(|(at, p, _)| number - at <= 2 && p.kind == Kind::Part).map(|t| t.1.clone());
    keep(&spoken, clauses, out, topic, did);
    // "Pull it out along the slope.": where it went is spoken of no more.
    let in_place = |p: &Phrase| did && clauses.iter().flat_map(|c| &c.places).any(|(_, q)| q.from == p.from);
    // "New battery comes with the strips on it, so peel off the liner.": the battery is meant next.
    let peeled = acted.iter().all(|p| p.kind == Kind::Liner) && spoken.iter().any(|p| p.kind == Kind::Part);
    let spoken: Vec<Phrase> = spoken.into_iter().filter(|p| !(peeled && p.kind == Kind::Liner)).collect();
    let topics: Vec<Phrase> = if peeled || acted.iter().all(|p| p.is_pronoun()) {
        spoken.into_iter().rev().filter(|p| !in_place(p)).collect()
    } else {
        acted
    };
    // "The fan has four screws, loosen them. Lift it up.": the fan.
    if did && topics.iter().all(|p| p.kind == Kind::Screw) {
        let has = clauses
            .iter()
            .filter(|c| c.base == "have" && !c.negated && c.objects.iter().any(|o| o.kind == Kind::Screw));
        for p in has.flat_map(|c| &c.subjects).filter(|p| p.kind == Kind::Part && p.definite) {
            topic.put(number, p, did);
        }
    }
    // "Hold the side button.": a key that is pressed is spoken of no more.
    let presses = |c: &&Clause| matches!(c.base.as_str(), "press" | "push" | "hold" | "keep" | "hit" | "tap");
    let pressed = |p: &Phrase| {
        p.kind == Kind::Key && clauses.iter().filter(presses).flat_map(|c| &c.objects).any(|o| o.from == p.from)
    };
    for p in topics.iter().filter(|p| !pressed(p)) {
        topic.put(number, p, did);
    }
    // "Take the new pump. Slide it into the bracket.": it is in the hand.
    let taken = |c: &&Clause| {
        let up = c.base == "pick" && c.particles.iter().any(|p| p == "up");
        c.order && !c.negated && (up || matches!(c.base.as_str(), "take" | "grab" | "get") && c.particles.is_empty())
    };
    for p in clauses.iter().filter(taken).flat_map(|c| &c.objects).filter(|p| p.kind == Kind::Part && p.new) {
        topic.put(number, p, true);
    }
    // "The shell comes off, so the battery's in the middle.": shown behind what was done, and spoken of next.
    let last_act = out.acts.iter().map(|a| a.end).max().unwrap_or(usize::MAX);
    let shown = clauses.iter().filter(|c| {
        let behind = words.get(c.from).is_some_and(|w| w.start >= last_act);
        // "Spread the clips, and the card tips up."
        let up = matches!(c.base.as_str(), "tip" | "spring" | "jump") && c.particles.iter().any(|p| p == "up");
        behind && up && !c.negated
            || behind
                && matches!(c.base.as_str(), "be" | "sit" | "lie")
                && !c.negated
                && !c.passive
                && !c.places.is_empty()
    });
    let named = |p: &&Phrase| p.kind == Kind::Part && p.definite || p.kind == Kind::Plug;
    for p in shown.filter_map(|c| c.subjects.first()).filter(named) {
        topic.put(number, p, did);
    }
    // "Base plate away, mind the receiver lead, it's clipped on.": spoken of next.
    let minds = clauses.iter().filter(|c| {
        let behind = words.get(c.from).is_some_and(|w| w.start >= last_act);
        did && behind && c.order && !c.negated && matches!(c.base.as_str(), "mind" | "watch" | "notice" | "see")
    });
    let minds = minds.filter(|c| words.get(c.to.saturating_sub(1)).is_some_and(|w| w.pause));
    for p in minds.flat_map(|c| &c.objects).filter(named) {
        topic.put(number, p, did);
    }
    // "They're freed with the stick, and there's two leads hanging off it.": spoken of next.
    let there = clauses.iter().filter(|c| {
        let behind = words.get(c.from).is_some_and(|w| w.start >= last_act);
        // "… but it's still on its wires, two spade terminals."
        let there = c.base == "be" && c.subjects.is_empty() || c.verb.is_none() && c.particles.is_empty();
        did && behind && there && !c.negated && c.mood != Mood::If
    });
    for p in there.flat_map(|c| &c.objects).filter(|p| p.kind == Kind::Plug && p.plural) {
        topic.put(number, p, did);
    }
    // "Lift the board up and you'll see the wires going to a white plug.": spoken of next.
    let seen = clauses.iter().filter(|c| {
        let behind = words.get(c.from).is_some_and(|w| w.start >= last_act);
        did && behind && !c.negated && c.agent() && matches!(c.base.as_str(), "see" | "find" | "get" | "reach")
    });
    let plug = |p: &&Phrase| p.kind == Kind::Plug && !p.is_pronoun();
    let at = |c: &'_ Clause| {
        c.places.iter().filter(|(p, _)| p == "to" && c.base == "get").map(|(_, p)| p.clone()).collect::<Vec<_>>()
    };
    for c in seen {
        for p in c.objects.iter().chain(&at(c)).filter(plug) {
            topic.put(number, p, did);
        }
    }
    plugs_anew(clauses, number, spoken_of.as_ref(), topic, did);
}

/// Screws and plugs are kept apart: they are pointed at when other things were spoken of since.
fn keep(spoken: &[Phrase], clauses: &[Clause], out: &Sentenced, topic: &mut Topic, did: bool) {
    let number = out.number;
    for screws in spoken.iter().filter(|p| p.kind == Kind::Screw) {
        topic.put(number, screws, did);
        topic.screws = Some((number, screws.clone()));
    }
    let turned =
        out.acts.iter().flat_map(|a| &a.objects).find(|o| o.kind == Kind::Screw && o.count.is_some_and(|n| n > 1));
    if let Some(screws) = turned.filter(|_| spoken.iter().all(|p| p.kind != Kind::Screw)) {
        topic.screws = Some((number, screws.clone()));
    }
    let owned = clauses.iter().filter(|c| c.base == "have").flat_map(|c| &c.objects);
    if let Some(owner) = owned.filter(|o| o.kind == Kind::Plug && !o.plural).find_map(|o| o.of.first()) {
        topic.served = Some((number, owner.clone()));
    }
    let told_of = clauses.iter().rev().flat_map(|c| &c.subjects).find(|s| s.kind == Kind::Part && s.definite);
    topic.last = spoken.iter().max_by_key(|p| p.from).map(|p| (number, p.clone()));
    // "The ribbon has a latch and the tweeters are plain plugs.": what they are, and none that is spoken of anew.
    let only_what = |p: &Phrase| {
        let is = |c: &&Clause| c.base == "be" && !c.subjects.is_empty() && c.objects.iter().any(|o| o.from == p.from);
        clauses.iter().any(|c| is(&c)) && !p.definite && p.of.is_empty()
    };
    if let Some(plugs) = spoken.iter().find(|p| p.kind == Kind::Plug && p.plural && !only_what(p)) {
        topic.plugs = Some((number, plugs.clone()));
    }
    if let Some(plug) = spoken.iter().rfind(|p| p.kind == Kind::Plug && !p.plural && !p.is_pronoun()) {
        topic.plug = Some((number, plug.clone()));
    }
    if let [c] = clauses
        && points_out(c)
        && let [part] = &c.objects[..]
    {
        topic.pointed_out = Some((number, part.clone()));
    }
    // "The rest of the cables, that's the motor, the buttons and the power."
    let that = |c: &Clause| c.base == "be" && c.subjects.last().is_some_and(|s| matches!(s.head(), "that" | "those"));
    let named_alone = |c: &Clause| c.verb.is_none() && c.particles.is_empty();
    let row = |c: &&Clause| c.objects.len() > 1 && !c.negated && (named_alone(c) || that(c));
    if let Some(named) = clauses.iter().find(row) {
        topic.row = Some((number, named.objects.clone()));
    }
    if let Some(couple) = clauses.iter().find_map(shown_together).filter(|_| !did) {
        topic.couple = Some((number, couple.to_vec()));
    }
    if let Some(panel) = clipped(clauses) {
        topic.clipped = Some((number, panel.clone()));
    }
    if let Some(part) = plugged_in(clauses) {
        topic.plugged = Some((number, part.clone()));
    }
    if let Some(cover) = clauses.iter().find_map(hides_a_screw) {
        topic.cover = Some((number, cover.clone()));
    }
    if let Some(owner) = whom_it_serves(number, clauses, topic) {
        topic.served = Some((number, owner));
    }
    if let Some(subject) = told_of {
        topic.subject = Some((number, subject.clone()));
    }
}

/// "There's a lamp plug and a motor plug.": both, when "them" is said next.
fn shown_together(c: &Clause) -> Option<&[Phrase]> {
    let shows = c.verb.is_none() || matches!(c.base.as_str(), "be" | "have" | "see" | "get" | "find" | "need");
    let single = |p: &Phrase| matches!(p.kind, Kind::Plug | Kind::Part) && !p.plural && !p.is_pronoun();
    let alike = |all: &[Phrase]| all.iter().all(|p| single(p) && p.kind == all[0].kind);
    let named = &c.objects[..];
    (shows && c.mood == Mood::Plain && !c.negated && c.particles.is_empty() && named.len() > 1 && alike(named))
        .then_some(named)
}

/// "There's a screw under each foot.": the feet.
pub(super) fn hides_a_screw(c: &Clause) -> Option<&Phrase> {
    let shown = matches!(c.base.as_str(), "be" | "hide" | "sit" | "have" | "find" | "see");
    let screw = shown && !c.negated && c.things().any(|p| p.kind == Kind::Screw);
    let by = |p: &str| matches!(p, "behind" | "under" | "beneath" | "below" | "underneath");
    let cover = |np: &Phrase| np.kind == Kind::Part && (np.definite || np.plural);
    c.places.iter().find(|(p, np)| screw && by(p) && cover(np)).map(|(_, np)| np)
}

/// Plugs that a sentence tells whose they are.
fn plugs_anew(clauses: &[Clause], number: usize, spoken_of: Option<&Phrase>, topic: &mut Topic, did: bool) {
    for plug in clauses.iter().filter(|c| c.mood == Mood::Plain).filter_map(whose) {
        topic.put(number, &plug, did);
    }
    // "The pump is on a big plug. I take that off.": the plug is meant.
    for c in clauses.iter().filter(|c| c.base == "be" && c.mood == Mood::Plain) {
        let plug =
            c.places.iter().find(|(p, np)| p == "on" && np.kind == Kind::Plug && !np.definite && np.of.is_empty());
        let it = c.subjects.first().filter(|s| s.head() == "it");
        let owner = c.subjects.first().filter(|s| s.kind == Kind::Part);
        if let (Some((_, plug)), Some(owner)) = (plug, owner.or(it.and(spoken_of))) {
            topic.put(number, &Phrase { of: vec![owner.clone()], ..plug.clone() }, did);
        }
        // "Unplug the pump. It's this white plug.": the pump's.
        let this = c.objects.first().filter(|o| o.kind == Kind::Plug && o.of.is_empty() && !o.plural);
        if let (Some(plug), Some(_), Some(owner)) = (this, it, spoken_of) {
            topic.put(number, &Phrase { of: vec![owner.clone()], ..plug.clone() }, did);
        }
        // "This black wire is the antenna."
        let (s, o) = (c.subjects.first(), c.objects.first());
        if let (Some(wire), Some(is)) =
            (s.filter(|s| s.kind == Kind::Plug && s.of.is_empty()), o.filter(|o| o.kind == Kind::Part && o.definite))
        {
            topic.put(number, &Phrase { of: vec![is.clone()], ..wire.clone() }, did);
        }
    }
}

/// What a sentence is about, and what it leads to.
fn about_it(text: &str, words: &[Word], clauses: &[Clause], out: &mut Sentenced) {
    let about = |c: &&Clause| c.mood == Mood::Plain && !c.negated && !c.order;
    let heading = words.len() <= 4 && clauses.iter().all(|c| c.verb.is_none() && c.particles.is_empty());
    out.heading = heading;
    out.leads_to = clauses.last().filter(|c| clauses.len() == 1 && about(c)).and_then(leads_to);
    // "The four feet just pull off, you don't need to. Open it.": nobody works on the feet.
    let spared = clauses.get(1).is_some_and(Clause::spares);
    out.topic = clauses.first().filter(about).filter(|_| !spared).map(about_what).unwrap_or_default();
    // "Over the top sits a black cover, and that's the fan cover."
    let definite = |p: &Phrase| p.definite && p.kind == Kind::Part;
    if !out.topic.iter().any(definite)
        && let Some(is) = clauses.iter().skip(1).filter(about).find(|c| points_out(c))
    {
        out.topic.clone_from(&is.objects);
    }
    rows(text, clauses, out);
}

/// Plugs that are shown and are to be named next.
fn rows(text: &str, clauses: &[Clause], out: &mut Sentenced) {
    let about = |c: &&Clause| c.mood == Mood::Plain && !c.negated && !c.order;
    let plugs = |p: &&Phrase| p.kind == Kind::Plug && p.count.is_some_and(|n| n > 1);
    let shows = |c: &&Clause| matches!(c.base.as_str(), "have" | "be" | "get") && about(c);
    out.row = clauses
        .iter()
        .filter(|_| out.acts.is_empty())
        .filter(shows)
        .find_map(|c| c.objects.iter().find(plugs))
        .and_then(|p| p.count);
    // "Disconnect in this order. The pump. The lamp."
    let in_order = ["in this order", "in the following order", "the following"].iter().any(|p| has(text, p));
    let unplugs = |c: &&Clause| c.order && !c.negated && matches!(c.base.as_str(), "disconnect" | "unplug");
    if in_order && clauses.iter().any(|c| unplugs(&c) && c.objects.iter().all(|o| !o.is_thing())) {
        const MANY: u32 = 12;
        out.row = Some(MANY);
        out.acts.clear();
    }
}

/// "that's the fan cover"
fn points_out(c: &Clause) -> bool {
    let that = c.subjects.first().is_some_and(|s| matches!(s.head(), "that" | "this") && s.said.len() == 1);
    c.base == "be" && that && c.objects.iter().any(|o| o.kind == Kind::Part && o.definite)
}

fn about_what(c: &Clause) -> Vec<Phrase> {
    if c.subjects.iter().any(|s| s.kind == Kind::Part) {
        c.subjects.clone()
    } else if matches!(c.base.as_str(), "be" | "show") || c.base == "see" && c.possible || c.verb.is_none() {
        c.objects.clone()
    } else {
        Vec::new()
    }
}

/// "For the frame I take a thin tool": what the sentence is about, and "it" in it.
fn opening(words: &[Word]) -> Option<Phrase> {
    let filler = |w: &&Word| matches!(w.said.as_str(), "now" | "so" | "okay" | "then" | "and" | "next");
    let at = words.iter().take_while(filler).count();
    let leads = words.get(at).is_some_and(|w| w.is("for"));
    let (thing, _) = leads.then(|| phrase_at(words, at + 1, words.len())).flatten()?;
    Some(thing).filter(|p| p.definite && matches!(p.kind, Kind::Part | Kind::Plug | Kind::Film | Kind::Tape))
}

/// "This is for the keypad.", "That one goes to the printer.", "And that's the speaker.", "…, that's the power": what it
/// leads to, and whether that is told by "for" or "to".
pub(super) fn leads_to(c: &Clause) -> Option<(Phrase, bool)> {
    let which = |s: &Phrase| s.is_pronoun() && !matches!(s.head(), "i" | "you" | "we" | "they");
    let relative = c.mood == Mood::Relative && c.subjects.is_empty();
    if !(relative || c.subjects.first().is_some_and(which)) || c.passive {
        return None;
    }
    let thing = |p: &Phrase| matches!(p.kind, Kind::Part | Kind::Device | Kind::Key) || p.head() == "power";
    let part = |p: &&Phrase| thing(p) && p.definite && !p.is_pronoun();
    let to = c.places.iter().filter(|(p, _)| matches!(p.as_str(), "for" | "to")).map(|(_, p)| p).find(part);
    let (owner, told) = match c.base.as_str() {
        "be" | "go" | "lead" | "run" | "belong" | "connect" if to.is_some() => (to?, true),
        "be" => (c.objects.iter().find(part)?, false),
        _ => return None,
    };
    // "the power": what it brings, and no thing by itself.
    let kind = if owner.kind == Kind::Nothing { Kind::Part } else { owner.kind };
    Some((Phrase { kind, ..owner.clone() }, told))
}

/// "Off with that.", "All of them out.": what leaves so is told by what it is.
fn of_its_kind(told: &mut Told) {
    const PART: &str = "a part out, without a verb";
    let all = |kind: Kind| !told.objects.is_empty() && told.objects.iter().all(|o| o.kind == kind);
    let leaves = told.apart == Some((Act::Remove, PART));
    told.apart = match told.apart {
        Some(_) if leaves && all(Kind::Plug) => Some((Act::Disconnect, "a plug off, without a verb")),
        Some(_) if leaves && all(Kind::Screw) => Some((Act::Unscrew, "screws out, without a verb")),
        other => other,
    };
}

/// "Take the T5 driver.", "I'm going to use a Phillips."
fn takes(c: &Clause) -> bool {
    let handles = matches!(c.base.as_str(), "grab" | "take" | "use" | "get" | "swap" | "switch" | "change" | "go");
    // "gets its two T8s": screws.
    handles && !c.negated && (c.order || c.agent()) && c.things().all(|p| p.kind != Kind::Screw)
}

/// Drivers that are named; "Grab the number two Phillips." names one as well.
fn drivers(lemmas: &[&str], clauses: &[Clause]) -> Vec<Drive> {
    let named: Vec<Drive> = tools_named(lemmas).iter().filter_map(|t| Drive::of_driver(t)).collect();
    let screws = lemmas.iter().any(|w| is_screw(w));
    if !named.is_empty() || screws || !clauses.iter().any(takes) {
        return named;
    }
    drive_near(lemmas, 0, lemmas.len()).map(|(drive, _)| drive).into_iter().collect()
}

impl Reader<'_> {
    pub(super) fn acts(&self) -> Vec<Told> {
        let supposed = self.supposed();
        let mut out: Vec<Told> = Vec::new();
        // "Take out these three that hold the supply."
        let turned = |o: &Phrase, t: &Told| {
            let unscrewed = matches!(t.apart, Some((Act::Unscrew, _)));
            o.kind == Kind::Screw || o.is_pronoun() && o.count.is_some() && unscrewed
        };
        // A tool serves its clause and the two behind it.
        let mut tool: Option<(usize, String)> = None;
        let mut aim: Option<Phrase> = None;
        for (n, c) in self.clauses.iter().enumerate() {
            if let Some(named) = self.tool_of(c) {
                tool = Some((n, named));
            }
            if c.mood == Mood::Purpose && !c.negated {
                aim = c.objects.iter().find(|p| p.is_thing()).cloned().or(aim);
            }
            // "the bolts that hold the hood", "screws securing the lid": tells of the screws before it.
            let holding =
                matches!(c.base.as_str(), "hold" | "secure" | "fasten" | "keep" | "attach" | "fix" | "retain")
                    && !c.passive
                    && (matches!(c.mood, Mood::Relative | Mood::Means)
                        // "Two screws to hold that down."
                        || c.mood == Mood::Purpose && n > 0 && self.clauses[n - 1].verb.is_none());
            if holding
                && let Some(last) = out
                    .last_mut()
                    .filter(|t| t.objects.iter().any(|o| turned(o, t)) && t.objects.iter().all(|o| o.of.is_empty()))
            {
                let held = self.named(n, c, &c.objects);
                if let Some(held) = held.into_iter().find(|p| p.is_thing() && !p.is_pronoun()) {
                    for o in last.objects.iter_mut().filter(|o| o.kind == Kind::Screw || o.is_pronoun()) {
                        o.kind = Kind::Screw;
                        o.of.push(held.clone());
                    }
                }
                continue;
            }
            // "The cover comes off once its screws are out.": first the screws.
            let main = n.checked_sub(1).map(|i| &self.clauses[i]).filter(|k| k.mood == Mood::Plain);
            // "Lower the display in, connecting its cable first."
            let first = c.mood == Mood::Means && self.words[c.from..c.to].iter().any(|w| w.is("first"));
            // "Remove the clamp, which is held by a single screw."
            let held = c.mood == Mood::Relative && c.passive && matches!(c.base.as_str(), "hold" | "secure" | "fasten");
            let main = main.filter(|_| c.mood == Mood::After || first || held).map(|k| self.words[k.from].start);
            let at = main.and_then(|start| out.iter().position(|t| t.start >= start)).unwrap_or(out.len());
            let mut told_now = Vec::new();
            told_now.extend(self.other_screws(c, out.last()));
            for mut told in self.act(n, c) {
                told.hypothetical = supposed || c.supposed && !self.advises(c);
                if told.by.is_none() {
                    told.by = tool.as_ref().filter(|(at, _)| n <= at + 2).map(|(_, name)| name.clone());
                }
                told.aim = told.aim.or_else(|| aim.clone());
                told_now.push(told);
            }
            out.splice(at..at, told_now);
        }
        // "Undo the clamp, that's two screws.": undone by its screws.
        if let Some(group) =
            self.clauses.iter().flat_map(Clause::things).find(|p| p.kind == Kind::Screw && p.count.is_some())
        {
            for told in out.iter_mut().filter(|t| matches!(t.apart, Some((Act::Release, "undone")))) {
                told.apart = Some((Act::Unscrew, "undone by its screws"));
                told.count = group.count;
            }
            if out.iter().any(|t| matches!(t.apart, Some((Act::Unscrew, "undone by its screws")))) {
                out.retain(|t| !t.presented);
            }
        }
        one_and_one(&mut out);
        self.clipped_on(&mut out);
        self.under_the_plug(&mut out);
        self.plug_by_its_housing(&mut out);
        self.plug_is_off(&mut out);
        self.told_behind(&mut out);
        self.plugged_here(&mut out);
        self.told_by_the_end(&mut out);
        out.extend(self.that_is_back().filter(|_| out.is_empty()));
        if out.is_empty() {
            out = self.its_turn();
        }
        self.put_in_by_now(&mut out);
        if let Some(told) = self.all_undone() {
            out.insert(0, told);
        }
        out.extend(self.counted_aloud().filter(|_| out.is_empty()));
        // "Insert the pick to separate the shell": the aim may stand behind.
        if let Some(aim) = &aim {
            for told in &mut out {
                told.aim.get_or_insert_with(|| aim.clone());
            }
        }
        out
    }

    /// "Take out the two screws of the hinge and then the other two on the other hinge."
    fn other_screws(&self, c: &Clause, last: Option<&Told>) -> Option<Told> {
        let turned = last.filter(|t| matches!(t.apart, Some((Act::Unscrew, _))) && !t.presented)?;
        let screws = turned.objects.first().filter(|o| o.kind == Kind::Screw)?;
        let [more] = &c.objects[..] else { return None };
        let others = c.verb.is_none() && c.particles.is_empty() && more.is_pronoun() && more.count.is_some();
        let (_, holds) = c
            .places
            .iter()
            .find(|(p, np)| matches!(p.as_str(), "on" | "of" | "in" | "from") && np.kind == Kind::Part)?;
        others.then(|| Told {
            apart: turned.apart,
            together: turned.together,
            count: more.count,
            objects: vec![Phrase {
                from: more.from,
                to: more.to,
                count: more.count,
                of: vec![holds.clone()],
                ..screws.clone()
            }],
            confidence: 0.6,
            places: Vec::new(),
            ..self.blank(c)
        })
    }

    pub(super) fn tool_of(&self, c: &Clause) -> Option<String> {
        let handled = matches!(
            c.base.as_str(),
            "use" | "take" | "grab" | "get" | "need" | "insert" | "slide" | "push" | "put" | "place" | "pick"
        );
        let phrases = c.places.iter().filter(|(p, _)| matches!(p.as_str(), "with" | "using" | "by")).map(|(_, np)| np);
        let phrases =
            phrases.chain(c.objects.iter().filter(|_| handled)).chain(c.subjects.iter().filter(|_| c.passive));
        for p in phrases {
            let words: Vec<&str> = self.lemmas[p.from..p.to].to_vec();
            if let Some(name) = tools_named(&words).into_iter().next() {
                return Some(name);
            }
        }
        None
    }

    /// "Then three catches, they're freed with the stick.": the clause behind it tells what is done.
    fn taken_up(&self, n: usize) -> bool {
        let Some(next) = self.clauses.get(n + 1) else { return false };
        let of_it = |s: &Phrase| matches!(s.head(), "it" | "they" | "these" | "those" | "that") && s.said.len() == 1;
        // "Then the keypad, flex in, tail down.": whose flex it is.
        let flex = |o: &Phrase| matches!(o.kind, Kind::Plug | Kind::Lever) && o.of.is_empty() && o.words.len() == 1;
        let its = next.verb.is_none() && !next.particles.is_empty() && next.objects.first().is_some_and(flex);
        its || next.verb.is_some() && next.passive && next.subjects.first().is_some_and(of_it)
    }

    pub(super) fn act(&self, n: usize, c: &Clause) -> Vec<Told> {
        if c.negated {
            return self.not_forgotten(c).into_iter().collect();
        }
        // "Clean the strip, and do the contacts as well."
        let more = ["as well", "too", "next"].iter().any(|p| has(self.text, p)) && c.base == "do" && c.order;
        if more && c.objects.first().is_some_and(|o| o.kind == Kind::Part && o.definite) {
            return vec![Told { elliptic: true, confidence: 0.6, ..self.blank(c) }];
        }
        if let Some(told) = self.repeated(c) {
            return vec![told];
        }
        match c.verb {
            None => {
                let mut told = self.verbless(c).filter(|t| !(t.elliptic && self.taken_up(n)));
                if let Some(told) = &mut told {
                    told.objects = self.named(n, c, &told.objects);
                    of_its_kind(told);
                }
                told.into_iter().collect()
            }
            Some(_) if self.picked_up(n, c) => Vec::new(),
            Some(_) => {
                match self.presented(n, c).or_else(|| self.left_hand_thread(c)).or_else(|| self.kept_moving(c)) {
                    Some(told) => vec![told],
                    None => self.verbal(n, c),
                }
            }
        }
    }

    /// "So the heat gun, a hundred degrees, two minutes, keep moving.": what is in work is heated.
    fn kept_moving(&self, c: &Clause) -> Option<Told> {
        let moves = matches!(c.base.as_str(), "move" | "keep" | "go" | "wave") && !c.negated;
        let heater = c.subjects.first().filter(|s| moves && s.kind == Kind::Heater && !c.agent())?;
        let told = self.blank(c);
        let warm = |m: &Measure| matches!(m.quantity, Quantity::Temperature | Quantity::Duration);
        told.measures.iter().any(warm).then(|| Told {
            apart: Some((Act::Heat, "a heater, how warm and how long")),
            objects: vec![self.it(c)],
            by: tools_named(&self.lemmas[heater.from..heater.to]).into_iter().next(),
            places: Vec::new(),
            particles: Vec::new(),
            confidence: 0.6,
            ..told
        })
    }

    /// "Do not forget the battery.": in the rebuild it is told by that.
    fn not_forgotten(&self, c: &Clause) -> Option<Told> {
        let named =
            |o: &Phrase| matches!(o.kind, Kind::Part | Kind::Plug | Kind::Screw) && o.definite && !o.is_pronoun();
        let parts = !c.objects.is_empty() && c.objects.iter().all(named);
        let screws = c.objects.iter().all(|o| o.kind == Kind::Screw);
        // "Into the slot goes the tray, and don't forget the cage."
        let at_the_end = c.from > 0 && c.to == self.words.len() && self.words[c.from - 1].pause;
        let alone = |k: &Clause| k.base == "forget" || k.mood == Mood::Before;
        let where_they_are = |p: &str| screws && matches!(p, "by" | "at" | "under" | "in" | "on" | "near");
        let forgets = c.base == "forget"
            && c.places.iter().all(|(p, _)| where_they_are(p))
            && (at_the_end || self.clauses.iter().all(alone));
        // "Strap bracket, don't forget."
        let named = || {
            let before = self.clauses.first().filter(|k| k.verb.is_none() && self.clauses.len() == 2)?;
            let part = |o: &&Phrase| matches!(o.kind, Kind::Part | Kind::Plug);
            before.objects.first().filter(part).filter(|_| c.order && c.objects.is_empty()).cloned()
        };
        let named = named().filter(|_| c.base == "forget" && c.places.is_empty());
        let plug = c.objects.iter().chain(&named).any(|o| o.kind == Kind::Plug);
        let act = if plug {
            Act::Connect
        } else if parts && screws {
            Act::Drive
        } else {
            Act::Install
        };
        let told = || Told { together: Some((act, "not to be forgotten")), confidence: 0.6, ..self.blank(c) };
        match named {
            Some(part) => Some(Told { objects: vec![part], ..told() }),
            None => (forgets && parts).then(told),
        }
    }

    pub(super) fn blank(&self, c: &Clause) -> Told {
        let (from, to) = (c.from.min(self.words.len() - 1), c.to.clamp(c.from + 1, self.words.len()));
        let at = c.objects.first().map(|p| p.to.saturating_sub(1)).or(c.verb).unwrap_or(from).min(self.words.len() - 1);
        let length = self
            .quantities
            .iter()
            .filter(|q| (from..to).contains(&q.at) && q.measure.quantity == Quantity::Length)
            .find(|q| !q.sizes_a_tool(self.lemmas))
            .map(|q| q.measure.value);
        // "four hex stand-offs": six-sided outside, and no socket for a key.
        let outside = self.lemmas[from..to].iter().any(|w| matches!(*w, "stand-off" | "standoff" | "nut"));
        let drive = drive_near(self.lemmas, from, to).filter(|(drive, _)| !(outside && *drive == Drive::Hex));
        let oriented = self.oriented(c);
        let within =
            |np: &Phrase| oriented.as_ref().is_some_and(|(way, _)| way.start + 1 < np.from && np.from < way.end);
        let manner = self.manner(c).into_iter().chain(oriented.as_ref().map(|(_, way)| way.clone())).collect();
        Told {
            apart: None,
            together: None,
            objects: c.objects.clone(),
            // What only says which way it lies is no place.
            places: c
                .places
                .iter()
                .filter(|(p, np)| p == "with" || !within(np))
                .map(|(p, np)| (p.to_string(), np.clone()))
                .collect(),
            particles: c.particles.iter().map(ToString::to_string).collect(),
            by: None,
            count: None,
            drive: drive.as_ref().map(|d| d.0),
            bit: drive.and_then(|d| d.1),
            length_mm: length,
            cue: self.words[c.verb.unwrap_or(at).max(at)].cue,
            start: self.words[from].start,
            end: self.words[to - 1].end,
            confidence: 0.8,
            result: false,
            presented: false,
            unowned: false,
            elliptic: false,
            fragment: false,
            new: c.objects.iter().any(|o| o.new),
            aim: None,
            aside: c.particles.iter().any(|p| p == "aside" || p == "away")
                || c.places.iter().any(|(_, p)| p.head() == "side" && (p.definite || p.count == Some(1))),
            future: c.verb.is_some_and(|v| {
                // "we are ready to"
                let ready = c.from > 0 && self.words[c.from - 1].is("ready");
                let will = |w: &Word| matches!(w.said.as_str(), "will" | "'ll" | "going" | "gonna" | "gotta" | "ready");
                // "The first thing we want to do is take the batteries out."
                let will_do = ["want to do is", "gonna do is", "going to do is"].iter().any(|p| self.text.contains(p));
                let first = c.base != "want" && will_do;
                // "Let's get the speaker out of the way. One screw here, …"
                let lets = self.words[c.from.saturating_sub(2)..v].iter().any(|w| w.is("let"));
                // "Begin by removing the guard. It's held by a nut."
                let begins = |w: &Word| matches!(w.verb(), "begin" | "start");
                let by = v >= 2 && self.words[v - 1].is("by") && begins(&self.words[v - 2]);
                ready || first || lets || by || self.words[c.from..v].iter().any(will)
            }),
            hypothetical: false,
            state: false,
            making_sure: c.base == "make" && has(self.text, "make sure") || c.base == "ensure",
            manner,
            condition: self.condition(c),
            until: self.until(c),
            shows: self.shows(c),
            measures: self.measures(from, self.words.len()),
        }
    }

    pub(super) fn manner(&self, c: &Clause) -> Vec<String> {
        let ways = |w: &Word| {
            w.tag == super::words::Tag::Adv
                && (w.said.len() > 4 && w.said.ends_with("ly") && !GRAMMAR.classes.no_manner.contains(&w.said)
                    || matches!(w.said.as_str(), "straight" | "sideways"))
        };
        let words = &self.words[c.from..c.to.max(c.from)];
        // "straight up" is one way.
        let aimed = |at: usize| {
            let next = words.get(at + 1).map(|w| w.said.as_str());
            next.filter(|n| words[at].said == "straight" && matches!(*n, "up" | "down" | "out" | "in" | "back"))
        };
        let told = |(at, w): (usize, &Word)| match aimed(at) {
            Some(next) => format!("straight {next}"),
            None => w.said.to_string(),
        };
        let mut out: Vec<String> = words.iter().enumerate().filter(|(_, w)| ways(w)).map(told).collect();
        out.extend(self.how_often(c));
        // "Pick the screws out by hand."
        out.extend(c.places.iter().any(|(p, np)| p == "by" && np.head() == "hand").then(|| BY_HAND.to_owned()));
        out.dedup();
        out.truncate(2);
        out
    }

    /// "Turn the shaft all the way round, twenty times or so."
    fn how_often(&self, c: &Clause) -> Option<String> {
        const BEHIND: usize = 6;
        if !matches!(c.base.as_str(), "turn" | "rotate" | "spin" | "crank") || c.passive {
            return None;
        }
        let words = &self.words[c.from..(c.to + BEHIND).min(self.words.len())];
        let said = |at: usize| words.get(at).map_or("", |w| w.said.as_str());
        let all_round = |at: usize| {
            said(at) == "all"
                && said(at + 1) == "the"
                && said(at + 2) == "way"
                && matches!(said(at + 3), "round" | "around")
        };
        let round = (0..words.len()).any(all_round).then_some("all the way round");
        let times = (1..words.len()).find(|at| said(*at) == "times" && words[at - 1].tag == super::words::Tag::Num);
        let figure = times.and_then(|at| super::super::numbers::figure_at(&[said(at - 1)], 0));
        let times = figure.map(|f| format!("{} times", numeral(f.value as u32)));
        match (round, times) {
            (Some(round), Some(times)) => Some(format!("{round}, {times}")),
            (round, times) => round.map(str::to_owned).or(times),
        }
    }

    /// "The motor goes in with the flat side to the switch.", "with the label facing down": which way it lies, with its words.
    fn oriented(&self, c: &Clause) -> Option<(std::ops::Range<usize>, String)> {
        const LONGEST: usize = 9;
        const SIDES: [&str; 20] = [
            "side", "edge", "end", "face", "label", "arrow", "notch", "text", "writing", "logo", "plus", "mark",
            "hole", "ridge", "rib", "dot", "stripe", "contact", "bevel", "tail",
        ];
        const WAYS: [&str; 17] = [
            "up",
            "down",
            "out",
            "in",
            "first",
            "facing",
            "to",
            "towards",
            "toward",
            "over",
            "pointing",
            "outwards",
            "inwards",
            "upwards",
            "downwards",
            "forward",
            "on",
        ];
        let (_, side) =
            c.places.iter().find(|(p, np)| p == "with" && SIDES.contains(&np.head()) && np.of.is_empty())?;
        let from = (side.from.saturating_sub(2)..side.from).find(|i| self.words[*i].is("with"))?;
        let way =
            self.words.get(side.to).filter(|w| WAYS.contains(&w.said.as_str()) && !self.words[side.to - 1].pause)?;
        let ends = |i: &usize| {
            let w = &self.words[*i];
            w.pause
                || self
                    .words
                    .get(i + 1)
                    .is_none_or(|n| matches!(n.said.as_str(), "and" | "so" | "then" | "because" | "but"))
        };
        let last = (side.to..self.words.len()).take(LONGEST).find(ends)?;
        let said: Vec<&str> = self.words[from..=last].iter().map(|w| w.said.as_str()).collect();
        let spoken =
            |w: &&str| matches!(*w, "i" | "we" | "you" | "my" | "our" | "here" | "this" | "that" | "'s" | "me");
        // "with the hole on it": no way to lie.
        let alone = way.said == "on" && said.len() < 6 || said.iter().any(spoken);
        (!alone && said.len() <= LONGEST).then(|| (from..last + 1, said.join(" ")))
    }

    /// "Check that every key moves freely.": what shows that it is good.
    fn shows(&self, c: &Clause) -> Option<String> {
        let looks =
            matches!(c.base.as_str(), "check" | "verify" | "confirm" | "see" | "test" | "try" | "make" | "ensure");
        let asks = |k: &&Clause| {
            let near = (c.to..=c.to + 1).contains(&k.from) || k.from == c.to.saturating_sub(1);
            near && k.verb.is_some() && matches!(k.mood, Mood::If | Mood::Relative | Mood::Question | Mood::Plain)
        };
        let k = self.clauses.iter().filter(|k| looks && k.from > c.from).find(asks)?;
        let opens = ["that", "if", "whether"];
        let led = self.words[c.verb?..k.verb?].iter().any(|w| opens.contains(&w.said.as_str()));
        const LONGEST: usize = 10;
        let mut words: Vec<&str> = self.words[k.from..k.to.min(self.words.len())]
            .iter()
            .skip_while(|w| opens.contains(&w.said.as_str()) || w.is("and"))
            .map(|w| w.said.as_str())
            .collect();
        while words.last().is_some_and(|w| matches!(*w, "and" | "so" | "or" | "but" | "then" | "yep" | "yes" | "okay"))
        {
            words.pop();
        }
        if let Some(first) = words.first_mut().filter(|w| matches!(**w, "she" | "he")) {
            *first = "it";
        }
        let spoken = |w: &&str| {
            const SPOKEN: [&str; 14] =
                ["i", "we", "you", "my", "our", "me", "us", "your", "here", "this", "'s", "'ll", "'ve", "'re"];
            SPOKEN.contains(w)
        };
        let plain = (2..=LONGEST).contains(&words.len()) && !words.iter().any(spoken);
        // "see if it finds …": half of what was asked.
        let whole = !words.last().is_some_and(|w| matches!(*w, "finds" | "shows" | "has" | "gets" | "makes" | "is"));
        (led && plain && whole).then(|| words.join(" "))
    }

    pub(super) fn until(&self, c: &Clause) -> Option<String> {
        let until = self.clauses.iter().find(|k| k.mood == Mood::Until && k.from >= c.from && k.from < c.to + 4)?;
        let to = until.to.min(until.from + 10).min(self.words.len());
        let words: Vec<&str> = self.words[until.from..to]
            .iter()
            .skip_while(|w| matches!(w.lemma.as_str(), "and" | "until" | "till"))
            .map(|w| w.said.as_str())
            .collect();
        // "until it's below 5 volts"
        let is = |at: usize, w: &&str| {
            if *w == "'s" && at > 0 && words[at - 1] == "it" { "is".to_owned() } else { (*w).to_owned() }
        };
        let mut words: Vec<String> = words.iter().enumerate().map(|(at, w)| is(at, w)).collect();
        while matches!(words.last().map(String::as_str), Some("and" | "or" | "but" | "then")) {
            words.pop();
        }
        let told = words.iter().any(|w| matches!(w.as_str(), "i" | "we" | "you" | "my" | "our" | "'s" | "here"));
        // "until there is": what there is was cut off.
        let broken =
            words.last().is_some_and(|w| matches!(w.as_str(), "is" | "are" | "was" | "has" | "have" | "the" | "a"));
        (!told && !broken && words.len() > 1).then(|| words.join(" "))
    }

    /// "until the lamp goes out", "till the fan stops"
    pub(super) fn until_dark(&self, c: &Clause) -> bool {
        const NEAR: usize = 12;
        let till = |w: &Word| w.is("until") || w.is("till");
        let Some(from) = (c.verb.unwrap_or(c.from)..self.words.len()).take(NEAR).find(|i| till(&self.words[*i])) else {
            return false;
        };
        let said = self.words[from..].iter().take(7).map(|w| w.said.as_str()).collect::<Vec<_>>().join(" ");
        GRAMMAR.classes.dark.iter().any(|d| has(&said, d))
    }

    pub(super) fn measures(&self, from: usize, to: usize) -> Vec<Measure> {
        let wanted =
            |q: &Quantity| matches!(q, Quantity::Temperature | Quantity::Duration | Quantity::Angle | Quantity::Torque);
        let told: Vec<_> = self.quantities.iter().filter(|q| (from..to).contains(&q.at)).cloned().collect();
        settings(&told, self.lemmas, self.heating).into_iter().filter(|m| wanted(&m.quantity)).collect()
    }
}
