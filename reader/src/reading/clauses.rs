//! Fifth pass: clauses, each with its verb, what is moved and where.
//!
//! A clause is as much as one verb governs. Where speech is punctuated, commas help; where it runs on, the verbs alone
//! divide it: what stands between two verbs belongs to the first as its object or to the second as its subject.

use super::act::{Act, Direction};
use super::lexicon::LEXICON;
use super::phrases::{self, NounPhrase, Thing};
use super::tags::{self, Form, Tag, Tagged};

/// One verb with what it is done to.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Clause {
    /// Words of the sentence.
    pub from: usize,
    pub to: usize,
    /// Place of the verb; `None` for "battery out first" and "then the lid".
    pub verb: Option<usize>,
    pub base: &'static str,
    pub act: Option<Act>,
    /// Who or what does it, or what "is" so.
    pub subject: Vec<NounPhrase>,
    /// What is moved, opened, undone: the object, or the subject of "the cover comes off" and "is removed".
    pub objects: Vec<NounPhrase>,
    /// "from the frame", "with the spudger".
    pub places: Vec<(String, NounPhrase)>,
    pub mood: Mood,
    /// "Then the lid": goes on with the act before it.
    pub elliptic: bool,
    /// "is held", "are removed".
    pub passive: bool,
}

/// Whether a clause tells what is done or something about it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Mood {
    Plain,
    /// "if", "when", "until" …
    Conditional,
    /// "don't", "never", "without pulling".
    Negated,
    /// "because", "so that", "otherwise".
    Reason,
    /// "that comes out in two minutes".
    Relative,
    /// "would", "could", "might".
    Potential,
    /// "To reach the fan, …".
    Purpose,
}

impl Clause {
    pub fn is_plain(&self) -> bool {
        self.mood == Mood::Plain
    }

    pub fn does(&self, act: Act) -> bool {
        self.act == Some(act)
    }

    /// The first thing named behind one of these prepositions.
    pub fn place(&self, prepositions: &[&str]) -> Option<&NounPhrase> {
        self.places.iter().find(|(p, _)| prepositions.contains(&p.as_str())).map(|(_, np)| np)
    }

    /// Every phrase of the clause, what is moved first.
    pub fn things(&self) -> impl Iterator<Item = &NounPhrase> {
        self.objects.iter().chain(&self.subject).chain(self.places.iter().map(|(_, np)| np))
    }
}

pub(super) fn split(t: &Tagged<'_>) -> Vec<Clause> {
    let mut splitter = Splitter { t, out: Vec::new(), loose: Vec::new(), led: Vec::new() };
    for (from, to) in pieces(t) {
        splitter.piece(from, to);
    }
    splitter.out
}

/// A sentence cut at commas, joining words and relative pronouns.
fn pieces(t: &Tagged<'_>) -> Vec<(usize, usize)> {
    let mut out = Vec::new();
    let mut from = 0;
    for at in 1..t.len() {
        let joins = matches!(t.tags[at], Tag::Conjunction | Tag::Subordinator) && !joins_numbers(t, at);
        if t.pause[at - 1] || joins || opens_relative(t, at) {
            out.push((from, at));
            from = at;
        }
    }
    if from < t.len() {
        out.push((from, t.len()));
    }
    out
}

/// "one and two", "two or three".
fn joins_numbers(t: &Tagged<'_>, at: usize) -> bool {
    matches!(t.tags[at - 1], Tag::Number | Tag::Measure)
        && matches!(t.tag(at + 1), Some(Tag::Number | Tag::Measure))
        && t.tag(at + 2) != Some(Tag::Noun)
}

/// "a battery that comes out": behind a noun, before a verb.
fn opens_relative(t: &Tagged<'_>, at: usize) -> bool {
    matches!(t.words[at], "that" | "which" | "who" | "where")
        && matches!(t.tags[at - 1], Tag::Noun | Tag::Pronoun | Tag::Adjective | Tag::Number)
        && matches!(t.tag(at + 1), Some(Tag::Verb | Tag::Auxiliary | Tag::Modal | Tag::Negation | Tag::Pronoun))
}

struct Splitter<'t, 'a> {
    t: &'t Tagged<'a>,
    out: Vec<Clause>,
    /// Things told before any verb: "the battery, the fan and the board come out".
    loose: Vec<NounPhrase>,
    /// Places told before any verb.
    led: Vec<(String, NounPhrase)>,
}

impl Splitter<'_, '_> {
    fn piece(&mut self, from: usize, to: usize) {
        let verbs = self.verbs(from, to);
        if verbs.is_empty() {
            self.verbless(from, to);
            return;
        }
        // "flex in, latch down, give it a tug": ways told before the first verb.
        let lead = self.group(verbs[0], from);
        let lead = if self.ways(from, from, lead) { self.out.last().map_or(from, |c| c.to).max(from) } else { from };
        let starts: Vec<usize> =
            verbs.iter().enumerate().map(|(n, v)| if n == 0 { lead } else { self.start(*v, verbs[n - 1]) }).collect();
        for (n, verb) in verbs.iter().enumerate() {
            let end = starts.get(n + 1).copied().unwrap_or(to);
            let clause = self.clause(starts[n], end, *verb, from);
            self.out.push(clause);
        }
    }

    /// Main verbs of a piece; "is" and "has" only where they help no other verb.
    fn verbs(&self, from: usize, to: usize) -> Vec<usize> {
        let helps = |at: usize| {
            (at + 1..to.min(at + 4))
                .take_while(|i| {
                    matches!(
                        self.t.tags[*i],
                        Tag::Adverb | Tag::Negation | Tag::Auxiliary | Tag::Verb | Tag::Pronoun | Tag::To
                    )
                })
                .any(|i| self.t.tags[i] == Tag::Verb || self.t.tags[i] == Tag::Auxiliary)
        };
        (from..to)
            .filter(|i| match self.t.tags[*i] {
                Tag::Verb => true,
                Tag::Auxiliary => !helps(*i),
                _ => false,
            })
            .collect()
    }

    /// Where the helping words before a verb begin.
    fn group(&self, verb: usize, from: usize) -> usize {
        let mut at = verb;
        while at > from
            && matches!(self.t.tags[at - 1], Tag::Auxiliary | Tag::Modal | Tag::Negation | Tag::Adverb | Tag::To)
        {
            at -= 1;
        }
        at
    }

    /// Where the clause of `verb` begins, behind the verb before it.
    fn start(&self, verb: usize, previous: usize) -> usize {
        let t = self.t;
        let mut at = verb;
        while at > previous + 1
            && matches!(
                t.tags[at - 1],
                Tag::Auxiliary | Tag::Modal | Tag::Negation | Tag::Adverb | Tag::To | Tag::Preposition
            )
            && !(t.tags[at - 1] == Tag::Preposition && t.tags[at] != Tag::Verb)
        {
            at -= 1;
        }
        let (_, form) = tags::verb_form(&LEXICON, t.said[verb], t.words[verb]).unwrap_or(("", Form::Base));
        let bare = at == verb && form == Form::Base;
        // "put some alcohol on it never bend …": that "it" is spoken for.
        if at > previous + 2 && t.tags[at - 1] == Tag::Pronoun && t.tags[at - 2] == Tag::Preposition {
            return at;
        }
        if at > previous + 1
            && t.tags[at - 1] == Tag::Pronoun
            && !matches!(t.words[at - 1], "it" | "them" | "me" | "us" | "there" | "here")
        {
            return at - 1;
        }
        if at > previous + 1 && t.tags[at - 1] == Tag::Pronoun && !bare && at - 1 > previous + 1 {
            return at - 1;
        }
        let to = (at..verb).any(|i| t.tags[i] == Tag::To);
        // "Disconnect the cable by flipping up the latch": the cable flips nothing.
        let means = form == Form::Ing && t.tags[at] == Tag::Preposition;
        if bare || to || means {
            return at;
        }
        // A finite verb has the phrase before it as its subject.
        let mut begin = at;
        while begin > previous + 1
            && matches!(t.tags[begin - 1], Tag::Noun | Tag::Adjective | Tag::Number | Tag::Determiner)
        {
            begin -= 1;
            if t.tags[begin] == Tag::Determiner {
                break;
            }
        }
        self.with_its_place(begin, previous)
    }

    /// "the four in the corners are …": a subject with the place it is told by.
    fn with_its_place(&self, begin: usize, previous: usize) -> usize {
        let t = self.t;
        let place = begin > previous + 2
            && t.tags[begin - 1] == Tag::Preposition
            && matches!(t.words[begin - 1], "in" | "on" | "at" | "of" | "along" | "by" | "from");
        if !place {
            return begin;
        }
        let mut at = begin - 1;
        while at > previous + 1 && matches!(t.tags[at - 1], Tag::Noun | Tag::Adjective | Tag::Number) {
            at -= 1;
        }
        let determined = at > previous + 1 && t.tags[at - 1] == Tag::Determiner;
        // Without an article it may be what the verb before moves.
        if determined
            && at < begin - 1
            && matches!(t.tags[at - 2], Tag::Noun | Tag::Measure | Tag::Pronoun | Tag::Particle)
        {
            at - 1
        } else {
            begin
        }
    }

    fn clause(&mut self, from: usize, to: usize, verb: usize, piece: usize) -> Clause {
        let t = self.t;
        let (base, form) = tags::verb_form(&LEXICON, t.said[verb], t.words[verb]).unwrap_or(("be", Form::Third));
        let auxiliary = (from..verb).any(|i| t.tags[i] == Tag::Auxiliary && LEXICON.classes.be.contains(t.said[i]));
        // "The speaker is hold by three screws", as many say it.
        let by = t.words.get(verb + 1).is_some_and(|w| matches!(*w, "by" | "with"));
        let form = if form == Form::Base && auxiliary && by { Form::Past } else { form };
        let passive = form == Form::Past && (auxiliary || !self.has_agent(from, verb)) && t.tags[verb] == Tag::Verb;
        // "Out it comes."
        let mut particles: Vec<usize> = (from..verb)
            .filter(|i| t.tags[*i] == Tag::Particle && matches!(t.words[*i], "out" | "off" | "in" | "on"))
            .take(1)
            .collect();
        let mut objects = Vec::new();
        let mut places: Vec<(String, NounPhrase)> = Vec::new();
        let mut at = verb + 1;
        while at < to {
            match t.tags[at] {
                // "take it to a battery drop-off": behind a place no way follows.
                Tag::Particle => {
                    if places.iter().all(|(p, _)| p == "with") {
                        particles.push(at);
                    }
                }
                // "pull the plug, not the wires".
                Tag::Negation => break,
                Tag::Preposition => {
                    if matches!(t.words[at], "into" | "onto" | "from" | "over" | "through" | "around" | "along") {
                        particles.push(at);
                    }
                    if let Some((np, end)) = phrases::phrase_at(t, at + 1, to) {
                        places.push((t.words[at].to_owned(), np));
                        at = end;
                        continue;
                    }
                }
                _ => {
                    if let Some((np, end)) = phrases::phrase_at(t, at, to) {
                        // A second thing needs a joining word: "put it back off camera" moves no camera.
                        let more = objects.is_empty()
                            || t.pause[at - 1]
                            || matches!(t.tags[at - 1], Tag::Conjunction | Tag::Pronoun)
                            || np.thing == Thing::Pronoun
                            || matches!(t.tags[at], Tag::Determiner | Tag::Number);
                        if more && (places.is_empty() || objects.is_empty()) {
                            objects.push(np);
                        }
                        at = end.max(at + 1);
                        continue;
                    }
                }
            }
            at += 1;
        }
        // "On the bottom cover there are six screws."
        let leading = self.places(from, verb);
        let mut subject = phrases::phrases(t, from, verb);
        subject.retain(|s| !leading.iter().any(|(_, np)| np.from <= s.from && s.from < np.to));
        places.extend(leading);
        places.append(&mut self.led);
        // "the triggers, the left trigger pops off": without a joining word the last is the subject.
        if subject.len() > 1 && !(from..verb).any(|i| t.tags[i] == Tag::Conjunction && i > from) {
            subject.drain(..subject.len() - 1);
        }
        if !subject.is_empty() || t.tags[from] == Tag::Conjunction {
            let loose = std::mem::take(&mut self.loose);
            subject.splice(0..0, loose);
        } else {
            self.loose.clear();
        }
        let (act, _) = self.act(base, &particles, verb, to);
        // "the lid is on" ends there; "there's a spring in there" and "it is in the middle" tell a place.
        let existential = subject.last().is_some_and(|s| matches!(s.words[0].as_str(), "there" | "here"));
        // "The board's out with four screws" is out all the same.
        let ends = particles
            .last()
            .is_some_and(|p| p + 1 == to || matches!(t.tags[p + 1], Tag::Adverb) || t.words[p + 1] == "with");
        let placed = places.iter().any(|(p, _)| p != "with");
        let act = act.filter(|_| base != "be" || (!existential && ends && !placed));
        // Only out of the wall is it the device that is unplugged.
        let wall = t.words[from..to].iter().any(|w| matches!(*w, "wall" | "mains" | "outlet" | "power" | "charger"));
        let act = if base == "unplug" && act == Some(Act::PowerOff) && !wall { Some(Act::Disconnect) } else { act };
        // "The whole procedure takes 45 minutes": nothing is taken.
        let lasts = base == "take"
            && (verb + 1..to)
                .find(|i| t.tags[*i] != Tag::Adverb && !matches!(t.words[*i], "about" | "around"))
                .is_some_and(|i| t.tags[i] == Tag::Measure);
        let act = act.filter(|_| !lasts);
        // What a passive or a moving verb moves is its subject.
        let itself = objects.is_empty() && !subject.is_empty() && (passive || base == "be" || itself_may(base));
        // "the cover comes up real slow": what comes, comes by itself.
        let alone = matches!(base, "come" | "go" | "fall" | "fly" | "jump") && !subject.is_empty();
        let vague = !subject.is_empty()
            && !passive
            && itself_may(base)
            && objects.iter().all(|o| {
                matches!(o.thing, Thing::Pronoun | Thing::Never) || (o.thing == Thing::Unknown && !o.definite)
            });
        let itself = itself || alone || vague;
        let agent = matches!(
            subject.last().map(|s| s.words[0].as_str()),
            Some("you" | "we" | "i" | "he" | "she" | "they" | "who")
        );
        if (itself || passive && objects.is_empty()) && (!agent || passive) {
            objects.clone_from(&subject);
        } else if passive && !objects.is_empty() && subject.is_empty() {
            // "removed the cover": told in the past, not suffered.
        }
        // "It is glued on", "the wire's clipped inside" tell how a thing is held, not that it is put there.
        let state = passive
            && auxiliary
            && act.is_some_and(|a| a.direction() == Direction::In)
            && !matches!(base, "install" | "reinstall" | "refit" | "reconnect" | "tighten");
        let fits = base == "fit" && form == Form::Third;
        let act = act.filter(|_| !state && !fits);
        // "The cover goes on the new arm."
        let act = act.or_else(|| {
            let goes = matches!(base, "go" | "come")
                && places.iter().any(|(p, _)| matches!(p.as_str(), "in" | "on" | "into" | "onto" | "over"));
            (goes && objects.iter().any(NounPhrase::known)).then_some(Act::Install)
        });
        let mood = self.mood(from, verb, piece, form);
        // "Insert the spudger": a tool goes somewhere, no part goes back.
        let tool = objects.first().is_some_and(|o| o.thing == Thing::Tool);
        let act = if tool && act == Some(Act::Install) { Some(Act::Place) } else { act };
        Clause { from, to, verb: Some(verb), base, act, subject, objects, places, mood, elliptic: false, passive }
    }

    /// "I removed it": somebody acts in the past.
    fn has_agent(&self, from: usize, verb: usize) -> bool {
        (from..verb).any(|i| matches!(self.t.words[i], "i" | "we" | "you" | "he" | "she" | "they" | "who"))
            || (from..verb).all(|i| matches!(self.t.tags[i], Tag::Conjunction | Tag::Adverb))
    }

    /// The act of a verb with its particles, the longest phrase first.
    fn act(&self, base: &str, particles: &[usize], verb: usize, to: usize) -> (Option<Act>, usize) {
        let Some(list) = LEXICON.verbs.get(base) else { return (None, 0) };
        let t = self.t;
        let near = |phrase: &&super::lexicon::VerbPhrase| {
            let first = phrase
                .particles
                .first()
                .map_or(0, |p| particles.iter().position(|i| t.words[*i] == p).unwrap_or(particles.len()));
            (std::cmp::Reverse(phrase.particles.len()), first)
        };
        let found = list
            .iter()
            .filter(|phrase| {
                let mut rest = particles.iter().copied();
                let all = phrase.particles.iter().all(|p| {
                    rest.by_ref().any(|i| t.words[i] == p)
                        || (phrase.particles.len() == 1
                            && verb + 1 < to
                            && t.words[verb + 1] == p
                            && t.tags[verb + 1] != Tag::Preposition)
                });
                // "turn it on", but "turn the lamp face down on a soft cloth".
                all && (phrase.act != Act::PowerOn
                    || phrase.particles.is_empty()
                    || particles.iter().any(|p| t.tags[*p] == Tag::Particle && matches!(t.words[*p], "on" | "up")))
            })
            .min_by_key(near);
        match found {
            Some(phrase) => (Some(phrase.act), phrase.particles.len()),
            None => (None, 0),
        }
    }

    fn mood(&self, from: usize, verb: usize, piece: usize, form: Form) -> Mood {
        let t = self.t;
        let before = &t.tags[from..verb];
        if before.contains(&Tag::Negation) {
            return Mood::Negated;
        }
        if (from..verb).any(|i| matches!(t.words[i], "without")) {
            return Mood::Negated;
        }
        if form == Form::Ing && verb > 0 && t.tags[verb - 1] == Tag::Preposition && t.words[verb - 1] != "by" {
            return Mood::Relative;
        }
        if (from..verb).any(|i| matches!(t.words[i], "nobody" | "somebody" | "someone" | "anybody" | "people")) {
            return Mood::Potential;
        }
        let previous = self.out.last();
        let infinitive = before.contains(&Tag::To);
        let opener = t.words[piece];
        if from == piece {
            match t.tags[piece] {
                Tag::Subordinator => {
                    return match opener {
                        "because" | "since" | "cause" | "otherwise" | "else" => Mood::Reason,
                        _ => Mood::Conditional,
                    };
                }
                _ if matches!(opener, "whenever" | "should") => return Mood::Conditional,
                _ if matches!(opener, "who" | "which" | "that" | "where") && piece > 0 && opens_relative(t, piece) => {
                    // "there's a ring on the post that comes off, too" tells what happens.
                    let shown = self.out.last().is_some_and(|p| {
                        p.base == "be"
                            && p.subject.last().is_some_and(|s| matches!(s.words[0].as_str(), "there" | "here"))
                    });
                    return if shown { Mood::Plain } else { Mood::Relative };
                }
                _ if opener == "who" => return Mood::Conditional,
                _ => {}
            }
            if infinitive && piece == 0 && t.tags[piece] == Tag::To {
                return Mood::Purpose;
            }
        }
        // "the glue it came off of".
        if t.punctuated
            && from > piece
            && t.tags[from] == Tag::Pronoun
            && t.tags[from - 1] == Tag::Noun
            && !matches!(t.words[from], "here" | "there")
        {
            return Mood::Relative;
        }
        if (from..verb).any(|i| matches!(t.said[i], "would" | "could" | "might" | "may" | "'d" | "wouldn't"))
            || (from..verb).any(|i| t.said[i] == "should" && t.said.get(i + 1) == Some(&"have"))
        {
            return Mood::Potential;
        }
        match previous {
            // An infinitive does what its governor does: "want to", "don't need to", "if you want to".
            Some(p) if infinitive && p.to == from && p.mood != Mood::Reason => p.mood,
            Some(p)
                if p.to == from
                    && from > piece
                    && (form == Form::Ing || matches!(p.base, "go" | "let" | "help" | "try")) =>
            {
                p.mood
            }
            // "if you remove the cover and pull the cable, …".
            Some(p)
                if p.to <= from
                    && matches!(p.mood, Mood::Conditional | Mood::Negated | Mood::Relative)
                    && joined(t, piece, if p.mood == Mood::Negated { &["or", "nor"] } else { &["and", "or"] })
                    && !piece.checked_sub(1).is_some_and(|before| t.pause[before])
                    && t.tag(piece + 1) == Some(Tag::Verb) =>
            {
                p.mood
            }
            _ => Mood::Plain,
        }
    }

    /// A piece without a verb: a way ("battery out"), a place ("from the frame"), or more things.
    fn verbless(&mut self, from: usize, to: usize) {
        let t = self.t;
        let begin = (from..to)
            .find(|i| !matches!(t.tags[*i], Tag::Conjunction | Tag::Adverb | Tag::Subordinator))
            .unwrap_or(to);
        if begin >= to {
            return;
        }
        let found = phrases::phrases(t, begin, to);
        if self.ways(from, begin, to) {
            return;
        }
        if t.tags[begin] == Tag::Preposition {
            let places = self.places(begin, to);
            match self.out.last_mut() {
                Some(last) => {
                    last.places.extend(places);
                    last.to = to;
                }
                // "For the joystick, flip up the latch."
                None => self.led.extend(places),
            }
            return;
        }
        if found.is_empty() || t.tags[from..begin.max(from)].contains(&Tag::Negation) || t.tags[begin] == Tag::Negation
        {
            return;
        }
        let goes_on = t.words[from] == "then"
            || (from + 1 < to && t.words[from + 1] == "then")
            || matches!(t.words[begin.saturating_sub(1)], "next" | "first" | "finally" | "now" | "last");
        let conditional = t.tags[from] == Tag::Subordinator;
        match self.out.last_mut() {
            Some(last) if last.verb.is_some() && !goes_on && !conditional && from > 0 && last.to == from => {
                let joined_to_place = joined(t, from, &["and", "or"])
                    && !t.pause[from - 1]
                    && last.places.last().is_some_and(|(_, np)| np.to == from);
                if joined_to_place {
                    let preposition = last.places.last().map_or(String::new(), |(p, _)| p.clone());
                    last.places.extend(found.into_iter().map(|np| (preposition.clone(), np)));
                } else {
                    let places = self.places(begin, to);
                    let last = self.out.last_mut().expect("there is one");
                    // Things behind a preposition of this piece are places.
                    let bare = found.into_iter().filter(|np| !places.iter().any(|(_, p)| p.from == np.from));
                    last.objects.extend(bare);
                    last.places.extend(places);
                }
                let last = self.out.last_mut().expect("there is one");
                last.to = to;
            }
            _ if conditional => {}
            _ => {
                if goes_on || self.out.is_empty() {
                    self.loose.extend(found.iter().cloned());
                }
                let places = self.places(begin, to);
                let objects = found.into_iter().filter(|np| !places.iter().any(|(_, p)| p.from == np.from)).collect();
                self.out.push(Clause {
                    from,
                    to,
                    verb: None,
                    base: "",
                    act: None,
                    subject: Vec::new(),
                    objects,
                    places,
                    mood: Mood::Plain,
                    elliptic: true,
                    passive: false,
                });
            }
        }
    }

    /// "battery out", "keypad flex in, latch down": each thing with its way is a clause.
    fn ways(&mut self, from: usize, begin: usize, to: usize) -> bool {
        let t = self.t;
        // "Even with the plug out" tells how things are.
        if (from..to.min(begin + 2)).any(|i| matches!(t.words[i], "with" | "without" | "even")) {
            return false;
        }
        let mut found = false;
        let mut at = begin;
        for way in begin..to {
            if !self.is_way(way, to) || (way == begin && t.words[way] != "out") || way < at {
                continue;
            }
            let Some(act) = verbless_act(t, way, to) else { continue };
            let mut objects: Vec<NounPhrase> = phrases::phrases(t, at, way);
            if objects.is_empty() && way == begin {
                objects = phrases::phrases(t, way + 1, to).into_iter().take(1).collect();
            }
            let end = (way..to)
                .take_while(|i| matches!(t.tags[*i], Tag::Particle | Tag::Adverb) || *i == way)
                .last()
                .map_or(to, |i| i + 1);
            let one = (at..way).any(|i| matches!(t.words[i], "first" | "last") && t.words.get(i + 1) == Some(&"one"));
            let negated = one || t.tags[at..way].contains(&Tag::Negation);
            at = end;
            let bodily = |o: &NounPhrase| {
                o.known()
                    || matches!(o.thing, Thing::Screw | Thing::Never)
                    || (o.thing == Thing::Unknown && o.definite)
                    || (o.thing == Thing::Pronoun
                        && !matches!(o.words[0].as_str(), "you" | "we" | "i" | "there" | "here" | "what"))
            };
            if !objects.iter().any(bodily) {
                continue;
            }
            let next = (end..to).find(|i| self.is_way(*i, to)).map_or(to, |_| end);
            found = true;
            self.out.push(Clause {
                from: if found && self.out.last().is_some_and(|c| c.from >= from) { end.min(way) } else { from },
                to: next,
                verb: None,
                base: "",
                act: Some(act),
                subject: Vec::new(),
                objects,
                places: self.places(end, next),
                mood: if negated { Mood::Negated } else { Mood::Plain },
                elliptic: false,
                passive: false,
            });
        }
        found
    }

    /// A particle that tells a way; "in" and "on" also before a latch ("flex in latch down").
    fn is_way(&self, at: usize, to: usize) -> bool {
        let t = self.t;
        if t.tags[at] == Tag::Particle {
            return true;
        }
        t.tags[at] == Tag::Preposition
            && matches!(t.words[at], "in" | "on")
            && at + 1 < to
            && matches!(t.words[at + 1], "latch" | "tail" | "lock" | "ear" | "then" | "first")
    }

    fn places(&self, from: usize, to: usize) -> Vec<(String, NounPhrase)> {
        let t = self.t;
        let mut out = Vec::new();
        let mut at = from;
        while at < to {
            if t.tags[at] == Tag::Preposition
                && let Some((np, end)) = phrases::phrase_at(t, at + 1, to)
            {
                out.push((t.words[at].to_owned(), np));
                at = end;
            } else {
                at += 1;
            }
        }
        out
    }
}

/// Verbs that tell of a thing what it does or what is done to it: "the cover lifts off", "lift the cover off".
fn itself_may(base: &str) -> bool {
    matches!(
        base,
        "come"
            | "go"
            | "fall"
            | "jump"
            | "drop"
            | "lift"
            | "slide"
            | "pop"
            | "pull"
            | "snap"
            | "clip"
            | "click"
            | "roll"
            | "let"
            | "peel"
            | "separate"
            | "fly"
            | "work"
            | "swing"
            | "twist"
            | "screw"
            | "hook"
            | "plug"
            | "press"
            | "fit"
            | "sit"
            | "detach"
            | "unplug"
            | "disconnect"
            | "connect"
            | "open"
            | "close"
            | "install"
    )
}

fn joined(t: &Tagged<'_>, at: usize, by: &[&str]) -> bool {
    at < t.len() && by.contains(&t.words[at])
}

/// "battery out first", "keypad flex in", "trigger back on": a thing and a way, no verb.
fn verbless_act(t: &Tagged<'_>, way: usize, to: usize) -> Option<Act> {
    let last = (way..to.min(way + 3))
        .take_while(|i| *i == way || t.tags[*i] == Tag::Particle || matches!(t.words[*i], "straight" | "right"))
        .last()?;
    let words: Vec<&str> = t.words[way..=last].to_vec();
    let act = |w: &str| match w {
        "in" | "on" | "back" => Some(Act::Install),
        "out" | "off" => Some(Act::Remove),
        "down" | "shut" => Some(Act::Close),
        "up" | "open" => Some(Act::Open),
        _ => None,
    };
    words.iter().rev().find_map(|w| act(w))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::reading::sentences;
    use crate::recording::Recording;
    use rstest::rstest;

    fn read(text: &str) -> Vec<(Option<Act>, Vec<String>, Mood)> {
        let recording = Recording::parse(text.as_bytes()).unwrap();
        let sentence = sentences::split(&recording).remove(0);
        let tagged = tags::tag(&sentence.tokens, true);
        split(&tagged).into_iter().map(|c| (c.act, c.objects.iter().map(NounPhrase::text).collect(), c.mood)).collect()
    }

    #[rstest]
    #[case("Remove the rear cover.", Act::Remove, &["rear cover"])]
    #[case("Take the rear cover off.", Act::Remove, &["rear cover"])]
    #[case("now you want to carefully lift off the shield", Act::Remove, &["shield"])]
    #[case("The back shell comes right off.", Act::Remove, &["back shell"])]
    #[case("Transfer the pressure spring and the film guide from the old print head.", Act::Transfer, &["pressure spring", "film guide"])]
    #[case("Disconnect the coin cell cable from the main board.", Act::Disconnect, &["coin cell cable"])]
    #[case("Put the battery door on.", Act::Install, &["battery door"])]
    #[case("Lift the wobulator out.", Act::Remove, &["wobulator"])]
    #[case("The battery and the fan come out.", Act::Remove, &["battery", "fan"])]
    #[case("Lay the camera with the rear screen on the heating pad.", Act::Place, &["camera"])]
    #[case("Battery out first.", Act::Remove, &["battery"])]
    fn finds_verb_and_objects(#[case] text: &str, #[case] act: Act, #[case] objects: &[&str]) {
        let found = read(text);
        let hit = found.iter().find(|c| c.0 == Some(act)).unwrap_or_else(|| panic!("{found:?}"));
        assert_eq!(hit.1, objects);
    }

    #[test]
    fn parts_clauses_at_every_verb() {
        let found = read("Open the latch of the keypad connector and pull out the flex cable.");
        assert_eq!(found.iter().filter_map(|f| f.0).collect::<Vec<_>>(), [Act::Open, Act::Remove]);
    }

    #[rstest]
    #[case("Don't pull or twist the wires.", Mood::Negated)]
    #[case("If it tears, wait a minute.", Mood::Conditional)]
    #[case("Lift it without bending the cell.", Mood::Negated)]
    #[case("You would lift the board.", Mood::Potential)]
    #[case("To remove the fan, open the cage.", Mood::Purpose)]
    fn tells_what_is_not_done(#[case] text: &str, #[case] mood: Mood) {
        assert!(read(text).iter().any(|c| c.2 == mood), "{:?}", read(text));
    }
}
