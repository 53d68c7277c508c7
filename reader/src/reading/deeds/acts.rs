//! From clauses to acts: which frame a clause fits, and what it is done to.

use super::super::Act;
use super::super::extract::{drive_near, tools_named};
use super::super::facts::Drive;
use super::super::lexicon::{LEXICON, lemma};
use super::super::numbers;
use super::super::sentences::Token;
use super::super::tags::Form;
use super::Half;
use super::clauses::{Clause, Mood, split};
use super::grammar::{Frame, GRAMMAR, Kind};
use super::phrases::{Phrase, phrase_at};
use super::told::{Reader, Sentenced, TOOLS, Told, Topic, has};
use super::words::{Word, tag};
use crate::units::{Measure, Quantity};
use compact_str::CompactString;

pub(super) fn read(number: usize, tokens: &[Token], topic: &mut Topic) -> Sentenced {
    let words = tag(tokens);
    let lemmas: Vec<&str> = words.iter().map(|w| w.lemma.as_str()).collect();
    let text = words.iter().map(|w| w.said.as_str()).collect::<Vec<_>>().join(" ");
    let mut clauses = split(&words);
    if let Some(device) = &topic.device {
        clauses.iter_mut().for_each(|c| c.is_device(device));
    }
    for c in &mut clauses {
        wide_one(c, number, topic);
        that_has(c, number, topic);
        listed_plugs(&words, c);
    }
    let opening = opening(&words);
    if let Some(thing) = &opening {
        topic.put(number, thing, true);
    }
    let reader = Reader { words: &words, lemmas: &lemmas, text: &text, clauses: &clauses, topic, number };
    let mut out = Sentenced {
        number,
        words: words.iter().map(|w| w.said.to_string()).collect(),
        drivers: drivers(&lemmas),
        turns: reader.turns(),
        turns_back: GRAMMAR.apart.iter().any(|p| has(&text, p)),
        devices: clauses
            .iter()
            .flat_map(Clause::things)
            .filter(|p| p.kind == Kind::Device && !matches!(words[p.from].said.as_str(), "my" | "our"))
            .map(Phrase::text)
            .collect(),
        thanks: LEXICON.noise.any(&lemmas).is_some(),
        ..Sentenced::default()
    };
    if words.is_empty() {
        return out;
    }
    out.span = (words[0].start, words[words.len() - 1].end);
    out.tools = reader.tools_at_hand();
    if reader.is_list() || reader.is_heading() || reader.announces() {
        return out;
    }
    out.chain = reader.chain();
    out.cue = words[0].cue;
    out.target = reader.target();
    out.acts = reader.acts();
    out.measures = reader.measures(0, words.len());
    let prised = |a: &Told| matches!(a.apart, Some((Act::Pry, _)));
    let acted: Vec<Phrase> = out
        .acts
        .iter()
        .flat_map(|a| {
            // "walked in by the socket": only where it is, and nothing that is parted.
            let parted = |p: &str| !matches!(p, "by" | "at" | "near" | "beside" | "from");
            a.places
                .iter()
                .filter(|(p, _)| prised(a) && parted(p))
                .map(|(_, np)| np)
                .chain(&a.objects)
                .cloned()
                .collect::<Vec<_>>()
        })
        .collect();
    let did = !acted.is_empty();
    let spoken_of =
        topic.one.as_ref().filter(|(at, p, _)| number - at <= 2 && p.kind == Kind::Part).map(|t| t.1.clone());
    let spoken: Vec<Phrase> = clauses
        .iter()
        .filter(|c| !(c.beside_it() || c.negated && c.verb.is_none()))
        .flat_map(|c| {
            // "It goes down the arm.": still spoken of is what goes there.
            let it = c.base == "go" && c.subjects.iter().any(|s| s.is_pronoun() && s.head() == "it");
            let places = c.places.iter().filter(|_| !it).map(|(_, p)| p);
            c.subjects.iter().chain(&c.objects).chain(places).cloned().collect::<Vec<_>>()
        })
        .collect();
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
    topic.last = spoken.iter().max_by_key(|p| p.from).map(|p| (number, p.clone()));
    if let Some(plugs) = spoken.iter().find(|p| p.kind == Kind::Plug && p.plural) {
        topic.plugs = Some((number, plugs.clone()));
    }
    topic.hear(number, &clauses);
    // "Pull it out along the slope.": where it went is spoken of no more.
    let in_place = |p: &Phrase| did && clauses.iter().flat_map(|c| &c.places).any(|(_, q)| q.from == p.from);
    let topics: Vec<Phrase> = if acted.iter().all(|p| p.is_pronoun()) {
        spoken.into_iter().rev().filter(|p| !in_place(p)).collect()
    } else {
        acted
    };
    for p in &topics {
        topic.put(number, p, did);
    }
    // "The shell comes off, so the battery's in the middle.": shown behind what was done, and spoken of next.
    let last_act = out.acts.iter().map(|a| a.end).max().unwrap_or(usize::MAX);
    let shown = clauses.iter().filter(|c| {
        let behind = words.get(c.from).is_some_and(|w| w.start >= last_act);
        behind && matches!(c.base.as_str(), "be" | "sit" | "lie") && !c.negated && !c.passive && !c.places.is_empty()
    });
    let named = |p: &&Phrase| p.kind == Kind::Part && p.definite || p.kind == Kind::Plug;
    for p in shown.filter_map(|c| c.subjects.first()).filter(named) {
        topic.put(number, p, did);
    }
    // "The pump is on a big plug. I take that off.": the plug is meant.
    for c in clauses.iter().filter(|c| c.base == "be" && c.mood == Mood::Plain) {
        let plug =
            c.places.iter().find(|(p, np)| p == "on" && np.kind == Kind::Plug && !np.definite && np.of.is_empty());
        let it = c.subjects.first().filter(|s| s.head() == "it");
        let owner = c.subjects.first().filter(|s| s.kind == Kind::Part);
        if let (Some((_, plug)), Some(owner)) = (plug, owner.or(it.and(spoken_of.as_ref()))) {
            topic.put(number, &Phrase { of: vec![owner.clone()], ..plug.clone() }, did);
        }
        // "Unplug the pump. It's this white plug.": the pump's.
        let this = c.objects.first().filter(|o| o.kind == Kind::Plug && o.of.is_empty() && !o.plural);
        if let (Some(plug), Some(_), Some(owner)) = (this, it, spoken_of.as_ref()) {
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
    let about = |c: &&Clause| c.mood == Mood::Plain && !c.negated && !c.order;
    let heading = words.len() <= 4 && clauses.iter().all(|c| c.verb.is_none() && c.particles.is_empty());
    out.heading = heading;
    out.leads_to = clauses.last().filter(|c| clauses.len() == 1 && about(c)).and_then(leads_to);
    let plugs = |p: &&Phrase| p.kind == Kind::Plug && p.count.is_some_and(|n| n > 1);
    let shows = |c: &&Clause| matches!(c.base.as_str(), "have" | "be" | "get") && about(c);
    out.row = clauses
        .iter()
        .filter(|_| out.acts.is_empty())
        .filter(shows)
        .find_map(|c| c.objects.iter().find(plugs))
        .and_then(|p| p.count);
    // "Disconnect in this order. The pump. The lamp."
    let in_order = ["in this order", "in the following order", "the following"].iter().any(|p| has(&text, p));
    let unplugs = |c: &&Clause| c.order && !c.negated && matches!(c.base.as_str(), "disconnect" | "unplug");
    if in_order && clauses.iter().any(|c| unplugs(&c) && c.objects.iter().all(|o| !o.is_thing())) {
        const MANY: u32 = 12;
        out.row = Some(MANY);
        out.acts.clear();
    }
    out.opens_with = opening.filter(|p| p.kind == Kind::Part);
    out.topic = clauses.first().filter(about).map(about_what).unwrap_or_default();
    // "Over the top sits a black cover, and that's the fan cover."
    let definite = |p: &Phrase| p.definite && p.kind == Kind::Part;
    if !out.topic.iter().any(definite)
        && let Some(is) = clauses.iter().skip(1).filter(about).find(|c| points_out(c))
    {
        out.topic.clone_from(&is.objects);
    }
    out
}

/// "until the lamp goes out", "till the screen is off": nothing leaves.
fn goes_dark(c: &Clause) -> bool {
    let glows =
        |s: &Phrase| matches!(s.head(), "light" | "lamp" | "led" | "indicator" | "screen" | "display" | "logo" | "fan");
    matches!(c.base.as_str(), "be" | "go") && c.subjects.iter().any(glows)
}

/// "that's the fan cover"
fn points_out(c: &Clause) -> bool {
    let that = c.subjects.first().is_some_and(|s| matches!(s.head(), "that" | "this") && s.said.len() == 1);
    c.base == "be" && that && c.objects.iter().any(|o| o.kind == Kind::Part && o.definite)
}

fn about_what(c: &Clause) -> Vec<Phrase> {
    if c.subjects.iter().any(|s| s.kind == Kind::Part) {
        c.subjects.clone()
    } else if matches!(c.base.as_str(), "be" | "show") || c.verb.is_none() {
        c.objects.clone()
    } else {
        Vec::new()
    }
}

/// "Two flat cables. The wide one's the picture.": the picture's cable.
fn wide_one(c: &mut Clause, number: usize, topic: &Topic) {
    let plugs = topic.plugs.as_ref().filter(|(at, _)| number - at <= 4);
    let one = |s: &Phrase| s.is_pronoun() && s.definite && s.to > s.from + 1;
    if let (true, [subject], [is], Some((_, cable))) =
        (c.base == "be" && !c.negated && !c.passive, &c.subjects[..], &c.objects[..], plugs)
        && one(subject)
        && matches!(is.kind, Kind::Part | Kind::Picture)
        && is.definite
    {
        let single = |w: &CompactString| lemma(w);
        let said = cable.said.iter().map(single).collect();
        let plug = Phrase {
            said,
            count: None,
            plural: false,
            of: vec![Phrase { kind: Kind::Part, ..is.clone() }],
            from: subject.from,
            to: subject.to,
            ..cable.clone()
        };
        (c.subjects, c.objects) = (vec![plug], Vec::new());
    }
}

/// "The dial is on the front board. That has two screws and one plug.": the board, named last.
fn that_has(c: &mut Clause, number: usize, topic: &Topic) {
    let that = |s: &Phrase| matches!(s.head(), "that" | "this") && s.said.len() == 1 && s.is_pronoun();
    let last = topic.last.as_ref().filter(|(at, p)| number == at + 1 && p.kind == Kind::Part && p.definite);
    if let (true, [subject], Some((_, last))) = (c.base == "have" && !c.negated, &mut c.subjects[..], last)
        && that(subject)
    {
        *subject = Phrase { from: subject.from, to: subject.to, stands: true, ..last.clone() };
        if let Some(plug) = c.objects.iter_mut().find(|o| o.kind == Kind::Plug && !o.definite && o.of.is_empty()) {
            plug.of.push(last.clone());
        }
    }
}

/// "Three cables go to it, the left horn, the right horn and the lamp.": whose they are.
fn listed_plugs(words: &[Word], c: &mut Clause) {
    let several = |p: &&Phrase| p.kind == Kind::Plug && p.plural && p.of.is_empty() && p.count.is_some_and(|n| n > 1);
    let Some(plugs) = c.subjects.iter().chain(&c.objects).find(several).cloned() else { return };
    let listed = |p: &&Phrase| {
        let before = p.from.checked_sub(1).map(|i| &words[i]);
        let opens = before.is_some_and(|w| w.pause || w.tag == super::words::Tag::Conj);
        p.from >= plugs.to && opens && !p.plural && matches!(p.kind, Kind::Part | Kind::Plug) && p.definite
    };
    let items: Vec<Phrase> = c.things().filter(listed).cloned().collect();
    if plugs.count != Some(items.len() as u32) {
        return;
    }
    let from = plugs.from;
    let kept = |p: &Phrase| items.iter().all(|i| i.from != p.from);
    c.objects.retain(kept);
    c.places.retain(|(_, p)| kept(p));
    for p in c.subjects.iter_mut().chain(&mut c.objects).filter(|p| p.from == from) {
        p.of.clone_from(&items);
        p.said = p.said.iter().map(|w| lemma(w)).collect();
    }
}

/// "For the frame I take a thin tool": what the sentence is about, and "it" in it.
fn opening(words: &[Word]) -> Option<Phrase> {
    let leads = words.first().is_some_and(|w| w.is("for"));
    let (thing, _) = leads.then(|| phrase_at(words, 1, words.len())).flatten()?;
    Some(thing).filter(|p| p.definite && matches!(p.kind, Kind::Part | Kind::Plug | Kind::Film | Kind::Tape))
}

/// "This is for the keypad.", "That one goes to the printer.", "And that's the speaker."
fn leads_to(c: &Clause) -> Option<(Phrase, bool)> {
    let points = c.subjects.first().is_some_and(|s| s.is_pronoun() && !matches!(s.head(), "i" | "you" | "we" | "they"));
    if !points || c.passive {
        return None;
    }
    let part = |p: &&Phrase| matches!(p.kind, Kind::Part | Kind::Device) && p.definite && !p.is_pronoun();
    let to = c.places.iter().filter(|(p, _)| matches!(p.as_str(), "for" | "to")).map(|(_, p)| p).find(part);
    match c.base.as_str() {
        "be" | "go" | "lead" | "run" | "belong" | "connect" if to.is_some() => to.map(|p| (p.clone(), true)),
        "be" => c.objects.iter().find(part).map(|p| (p.clone(), false)),
        _ => None,
    }
}

fn drivers(lemmas: &[&str]) -> Vec<Drive> {
    tools_named(lemmas).iter().filter_map(|t| Drive::of_driver(t)).collect()
}

fn due_now(text: &str) -> bool {
    has(text, "now") || has(text, "then") || has(text, "next")
}

impl Reader<'_> {
    fn turns(&self) -> bool {
        let heading = self.words.len() <= 8 && LEXICON.rebuild.any(self.lemmas).is_some();
        let announced = heading || GRAMMAR.together.iter().any(|p| has(self.text, p));
        let later = ["when reassembling", "on reassembly", "during reassembly", "when you reassemble"];
        announced
            && !self.text.contains("if you")
            && !self.text.contains("reverse")
            && !later.iter().any(|p| has(self.text, p))
    }

    /// "Things that I keep on my bench are a hobby knife …", "a hairdryer will also do".
    fn tools_at_hand(&self) -> Vec<String> {
        let has_it = |c: &Clause| {
            !c.negated
                && !c.supposed
                && matches!(
                    c.base.as_str(),
                    "use" | "have" | "need" | "keep" | "take" | "grab" | "get" | "do" | "wear" | "want"
                )
        };
        if self.words.iter().any(|w| w.tag == super::words::Tag::Neg) || !self.clauses.iter().any(has_it) {
            return Vec::new();
        }
        tools_named(self.lemmas)
    }

    /// "You need these tools", "tools required": named and not used.
    fn is_list(&self) -> bool {
        if self.words.len() > 45 {
            return false;
        }
        if tools_named(self.lemmas).len() < 2 && LEXICON.tool_list.at(self.lemmas, 0).is_none() {
            return false;
        }
        // "You'll be wanting some heat, a hair dryer is fine."
        let wants = |c: &Clause| matches!(c.base.as_str(), "want" | "need") && c.agent() && !c.objects.is_empty();
        let part = |p: &Phrase| p.kind == Kind::Part && p.definite && !p.is_pronoun();
        let wanted = self.words.len() <= 30
            && self.clauses.iter().any(wants)
            && !self.clauses.iter().flat_map(|c| &c.objects).any(part);
        let names = ["prepare", "get", "grab", "use", "have", "need", "want", "be", "require", "recommend", "make"];
        let done = |c: &Clause| {
            let told = c.order || c.passive || c.agent();
            let objects = if c.passive { &c.subjects } else { &c.objects };
            let off = c.particles.iter().any(|p| p == "off" || p == "out");
            told && (off || !names.contains(&c.base.as_str())) && self.frame(c, Half::Apart, objects).is_some()
        };
        (wanted || super::super::extract::list_opener(self.lemmas).is_some()) && !self.clauses.iter().any(done)
    }

    fn is_heading(&self) -> bool {
        self.clauses.iter().all(|c| c.verb.is_none() && c.particles.is_empty())
            && self.words.len() > 1
            && self.text.contains("disassembly")
    }

    /// What the recording is about, or was.
    fn announces(&self) -> bool {
        if self.words.len() > 45 {
            return false;
        }
        let said = |p: &&String| has(self.text, p);
        // "put the bowl on and that's it thanks for watching": thanks behind the work, in one breath.
        let thanks = |p: &String| p.starts_with("thank") || p.starts_with("see you") || p == "subscribe";
        let works =
            || self.clauses.iter().any(|c| c.order && !c.negated && self.frame(c, Half::Apart, &c.objects).is_some());
        GRAMMAR.announced.iter().filter(said).any(|p| !(thanks(p) && works()))
    }

    /// What a supposed job is after.
    fn target(&self) -> Option<Phrase> {
        let named = |p: &&Phrase| p.kind == Kind::Part && !p.is_pronoun();
        let aims = self.clauses.iter().filter(|c| matches!(c.mood, Mood::If | Mood::Purpose | Mood::After));
        let jobs = aims.filter(|c| {
            matches!(
                c.base.as_str(),
                "replace"
                    | "change"
                    | "swap"
                    | "exchange"
                    | "reach"
                    | "get"
                    | "access"
                    | "remove"
                    | "repair"
                    | "fix"
                    | "do"
                    | "need"
                    | "upgrade"
            )
        });
        let object = |c: &Clause| {
            c.objects
                .iter()
                .find(named)
                .or_else(|| c.places.iter().filter(|(p, _)| p == "to").map(|(_, p)| p).find(named))
                .cloned()
        };
        let job = jobs.filter_map(object).next();
        // "for a new joystick, you'd first need to …"
        let new = || {
            let fors = (0..self.words.len()).filter(|i| self.words[*i].is("for"));
            let phrases = fors.filter_map(|i| phrase_at(self.words, i + 1, self.words.len()));
            phrases.map(|(p, _)| p).find(|p| p.new && named(&p))
        };
        job.or_else(new)
    }

    /// Told as something that may be done, by somebody, some time.
    fn supposed(&self) -> bool {
        let verb_would = self.clauses.iter().any(|c| c.supposed && c.agent() && !self.advises(c));
        // Longer is no sentence but breathless speech.
        let wants = ["who wants", "whoever wants", "anyone who", "who wishes"];
        // "If it does not start, take the module out again."
        let fails =
            ["if it doesn't", "if it does not", "if it won't", "if that doesn't", "if that does not", "if nothing"];
        if fails.iter().any(|p| self.text.starts_with(p)) {
            return true;
        }
        let somebody = self.words.len() <= 45 && wants.iter().any(|p| has(self.text, p));
        somebody
            || verb_would
            || [
                "can only be",
                "is accessible",
                "are accessible",
                "by the way",
                "if you ever",
                "if you want",
                "if you wanted",
                "if you need",
                "if you needed",
                "if somebody",
                "if one of",
                "in case",
                "when you want",
                "if you had to",
                "if your",
                "in another",
                "some people",
                "someone who",
            ]
            .iter()
            .any(|p| has(self.text, p))
    }

    /// "Before we go on I would plug it in and test it.": what somebody advises is done.
    fn advises(&self, c: &Clause) -> bool {
        let own = c.subjects.last().is_some_and(|s| s.head() == "i");
        let works = matches!(
            c.base.as_str(),
            "plug" | "test" | "try" | "connect" | "start" | "put" | "use" | "clean" | "check"
        );
        own && works && !c.negated && !self.clauses.iter().any(|k| k.mood == Mood::If)
    }

    fn acts(&self) -> Vec<Told> {
        let supposed = self.supposed();
        let mut out: Vec<Told> = Vec::new();
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
                    && matches!(c.mood, Mood::Relative | Mood::Means);
            if holding
                && let Some(last) = out.last_mut().filter(|t| {
                    t.objects.iter().any(|o| o.kind == Kind::Screw) && t.objects.iter().all(|o| o.of.is_empty())
                })
            {
                let held = self.named(n, c, &c.objects);
                if let Some(held) = held.into_iter().find(|p| p.is_thing() && !p.is_pronoun()) {
                    for o in last.objects.iter_mut().filter(|o| o.kind == Kind::Screw) {
                        o.of.push(held.clone());
                    }
                }
                continue;
            }
            // "The cover comes off once its screws are out.": first the screws.
            let main = n.checked_sub(1).map(|i| &self.clauses[i]).filter(|k| k.mood == Mood::Plain);
            let main = main.filter(|_| c.mood == Mood::After).map(|k| self.words[k.from].start);
            let at = main.and_then(|start| out.iter().position(|t| t.start >= start)).unwrap_or(out.len());
            let mut told_now = Vec::new();
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
        self.under_the_plug(&mut out);
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

    /// "Three cables go to it, … With all three undone the board slides out.": each is undone.
    fn all_undone(&self) -> Option<Told> {
        let (_, plugs) = self.topic.plugs.as_ref().filter(|(at, p)| p.of.len() > 1 && self.number - at <= 3)?;
        let opens = self.words.iter().position(|w| w.is("with")).filter(|at| *at < 3)?;
        let all = |w: &Word| matches!(w.said.as_str(), "all" | "those" | "them" | "these" | "both");
        let undone =
            |w: &Word| matches!(w.said.as_str(), "undone" | "unplugged" | "disconnected" | "off" | "out" | "free");
        let window = self.words[opens + 1..].iter().take(4);
        let at = window.clone().position(undone)?;
        window.take(at).find(|w| all(w))?;
        let first = self.clauses.first()?;
        let here = self.it(first);
        Some(Told {
            apart: Some((Act::Disconnect, "all of a row undone")),
            objects: vec![Phrase { from: here.from, to: here.to, ..plugs.clone() }],
            places: Vec::new(),
            particles: Vec::new(),
            confidence: 0.7,
            ..self.blank(first)
        })
    }

    /// "One here, two, three and a fourth one down here, Phillips.": pointed at and counted, with what turns them.
    fn counted_aloud(&self) -> Option<Told> {
        let first = self.clauses.first().filter(|_| self.clauses.iter().all(|c| c.verb.is_none()))?;
        let spoken_of = self.topic.screws.as_ref().is_some_and(|(at, _)| self.number - at <= 1);
        let driver = drive_near(self.lemmas, 0, self.lemmas.len());
        if driver.is_none() && !spoken_of {
            return None;
        }
        let count = numbers::pointed_at(self.lemmas)?;
        let told = self.blank(first);
        let screw = Phrase {
            kind: Kind::Screw,
            words: vec!["screw".into()],
            said: vec!["screws".into()],
            count: Some(count),
            plural: true,
            definite: false,
            ..self.it(first)
        };
        Some(Told {
            apart: Some((Act::Unscrew, "screws are counted")),
            together: Some((Act::Drive, "screws are counted")),
            presented: true,
            count: Some(count),
            drive: driver.as_ref().map(|d| d.0),
            bit: driver.and_then(|d| d.1),
            objects: vec![screw],
            places: Vec::new(),
            confidence: 0.6,
            ..told
        })
    }

    /// "It has a push-down connector, so get the spudger under the long side.": the connector is undone.
    fn under_the_plug(&self, out: &mut [Told]) {
        let Some((n, c)) = self.clauses.iter().enumerate().find(|(_, c)| c.base == "have" && !c.negated) else {
            return;
        };
        let Some(plug) = c.objects.iter().find(|o| o.kind == Kind::Plug) else { return };
        let owner = self.named(n, c, &c.subjects).into_iter().find(|s| s.kind == Kind::Part);
        for told in out.iter_mut().filter(|t| matches!(t.apart, Some((Act::Pry, _)))) {
            if told.places.iter().any(|(p, np)| p == "under" && np.kind == Kind::Nothing) {
                told.apart = Some((Act::Disconnect, "a tool under the plug just shown"));
                told.objects = vec![Phrase { of: owner.clone().into_iter().collect(), ..plug.clone() }];
            }
        }
    }

    fn tool_of(&self, c: &Clause) -> Option<String> {
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

    fn act(&self, n: usize, c: &Clause) -> Vec<Told> {
        if c.negated {
            return Vec::new();
        }
        if let Some(told) = self.repeated(c) {
            return vec![told];
        }
        match c.verb {
            None => {
                let mut told = self.verbless(c).filter(|t| !(t.elliptic && self.taken_up(n)));
                if let Some(told) = &mut told {
                    told.objects = self.named(n, c, &told.objects);
                }
                told.into_iter().collect()
            }
            Some(_) => match self.presented(n, c) {
                Some(told) => vec![told],
                None => self.verbal(n, c),
            },
        }
    }

    pub(super) fn blank(&self, c: &Clause) -> Told {
        let (from, to) = (c.from.min(self.words.len() - 1), c.to.clamp(c.from + 1, self.words.len()));
        let at = c.objects.first().map(|p| p.to.saturating_sub(1)).or(c.verb).unwrap_or(from).min(self.words.len() - 1);
        let length = numbers::quantities(&self.lemmas[from..to])
            .into_iter()
            .find(|q| q.measure.quantity == Quantity::Length)
            .map(|q| q.measure.value);
        let drive = drive_near(self.lemmas, from, to);
        Told {
            apart: None,
            together: None,
            objects: c.objects.clone(),
            places: c.places.iter().map(|(p, np)| (p.to_string(), np.clone())).collect(),
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
                let first = c.base != "want" && self.text.contains("want to do is");
                ready || first || self.words[c.from..v].iter().any(will)
            }),
            hypothetical: false,
            state: false,
            making_sure: c.base == "make" && has(self.text, "make sure") || c.base == "ensure",
            manner: self.manner(c),
            until: self.until(c),
            measures: self.measures(from, self.words.len()),
        }
    }

    fn manner(&self, c: &Clause) -> Vec<String> {
        let ways = |w: &Word| {
            w.tag == super::words::Tag::Adv
                && (w.said.len() > 4
                    && w.said.ends_with("ly")
                    && !matches!(
                        w.said.as_str(),
                        "really"
                            | "actually"
                            | "basically"
                            | "probably"
                            | "finally"
                            | "only"
                            | "usually"
                            | "obviously"
                            | "simply"
                            | "mostly"
                            | "completely"
                            | "normally"
                            | "immediately"
                            | "easily"
                            | "exactly"
                            | "already"
                            | "directly"
                            | "recently"
                            | "hopefully"
                            | "currently"
                    )
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
        out.dedup();
        out.truncate(2);
        out
    }

    fn until(&self, c: &Clause) -> Option<String> {
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
        let words: Vec<String> = words.iter().enumerate().map(|(at, w)| is(at, w)).collect();
        let told = words.iter().any(|w| matches!(w.as_str(), "i" | "we" | "you" | "my" | "our" | "'s" | "here"));
        (!told && words.len() > 1).then(|| words.join(" "))
    }

    /// "until the lamp goes out", "till the fan stops"
    fn until_dark(&self, c: &Clause) -> bool {
        const DARK: [&str; 14] = [
            "is dark",
            "goes dark",
            "'s dark",
            "goes out",
            "shuts down",
            "shuts off",
            "turns off",
            "is off",
            "goes black",
            "fan stops",
            "powers down",
            "switches off",
            "lights out",
            "dies",
        ];
        const NEAR: usize = 12;
        let till = |w: &Word| w.is("until") || w.is("till");
        let Some(from) = (c.verb.unwrap_or(c.from)..self.words.len()).take(NEAR).find(|i| till(&self.words[*i])) else {
            return false;
        };
        let said = self.words[from..].iter().take(7).map(|w| w.said.as_str()).collect::<Vec<_>>().join(" ");
        DARK.iter().any(|d| has(&said, d))
    }

    fn measures(&self, from: usize, to: usize) -> Vec<Measure> {
        let wanted =
            |q: &Quantity| matches!(q, Quantity::Temperature | Quantity::Duration | Quantity::Angle | Quantity::Torque);
        numbers::quantities(&self.lemmas[from.min(to)..to])
            .into_iter()
            .map(|q| q.measure)
            .filter(|m| wanted(&m.quantity))
            .collect()
    }

    fn verbal(&self, n: usize, c: &Clause) -> Vec<Told> {
        if let Some(told) = self.begun(c) {
            return vec![told];
        }
        let Some((objects, told)) = self.done(n, c) else { return Vec::new() };
        // "Unplug the power and the aerial.": the device, and then its plugs.
        let mains = |o: &Phrase| c.base == "unplug" && matches!(o.head(), "power" | "mains") && o.words.len() == 1;
        let objects: Vec<Phrase> =
            objects.into_iter().map(|o| if mains(&o) { Phrase { kind: Kind::Device, ..o } } else { o }).collect();
        // "put back the bumpers and the eight screws": each kind of thing has its own act.
        let mut groups: Vec<Vec<Phrase>> = Vec::new();
        for o in objects {
            match groups.iter_mut().find(|g| {
                (g[0].kind == Kind::Screw) == (o.kind == Kind::Screw)
                    && (g[0].kind == Kind::Plug) == (o.kind == Kind::Plug)
            }) {
                Some(g) => g.push(o),
                None => groups.push(vec![o]),
            }
        }
        if groups.is_empty() {
            groups.push(Vec::new());
        }
        let several = groups.len() > 1;
        groups
            .into_iter()
            .filter(|g| !several || g.iter().any(|p| p.kind != Kind::Nothing))
            .filter_map(|objects| {
                let mut told = told.clone();
                told.new = objects.iter().any(|o| o.new);
                told.count = objects.iter().find(|o| o.kind == Kind::Screw).and_then(|o| o.count);
                told.apart = self.frame(c, Half::Apart, &objects).map(|f| (f.act, f.name.as_str()));
                told.together = self.frame(c, Half::Together, &objects).map(|f| (f.act, f.name.as_str()));
                // "I press the button to see if it turns on."
                let key =
                    objects.iter().any(|o| o.kind == Kind::Key) && matches!(c.base.as_str(), "press" | "push" | "hold");
                if key
                    && ["turns on", "comes on", "lights up", "starts up", "turn on"].iter().any(|p| has(self.text, p))
                {
                    told.together = Some((Act::PowerOn, "a key pressed to see it come on"));
                }
                // "Hold the key until the lamp goes out.", "Hold both down till it shuts down."
                let pressed = |o: &Phrase| {
                    matches!(o.kind, Kind::Key | Kind::Pronoun) || matches!(o.head(), "trigger" | "switch" | "rocker")
                };
                if matches!(c.base.as_str(), "hold" | "press" | "push" | "keep")
                    && !told.particles.iter().any(|p| p == "up")
                    && objects.iter().any(pressed)
                    && self.until_dark(c)
                {
                    told.apart = Some((Act::PowerOff, "held until it is off"));
                    told.together = told.apart;
                }
                // "Push the button for eight seconds."
                let seconds = told.measures.iter().any(|m| m.quantity == Quantity::Duration && m.value >= 2.0);
                if key && seconds {
                    told.together = Some((Act::PowerOn, "a key held for seconds"));
                }
                // "Give some heat to it.": to what was spoken of.
                if matches!(told.apart, Some((Act::Heat, _))) {
                    for (_, place) in told.places.iter_mut().filter(|(_, p)| p.is_pronoun()) {
                        if let [meant] = &self.named(n, c, std::slice::from_ref(place))[..] {
                            *place = meant.clone();
                        }
                    }
                }
                // What stays in its part is loosened and tightened.
                if objects.iter().any(|o| o.kind == Kind::Screw && o.words.iter().any(|w| w == "captive")) {
                    told.apart =
                        told.apart.map(|(act, why)| (if act == Act::Unscrew { Act::Loosen } else { act }, why));
                    told.together =
                        told.together.map(|(act, why)| (if act == Act::Drive { Act::Tighten } else { act }, why));
                }
                // "Put it with the spring.": laid beside what it belongs to.
                let beside = |(p, np): &(compact_str::CompactString, Phrase)| {
                    p == "with" && np.kind == Kind::Part && np.definite
                };
                if matches!(told.together, Some((Act::Install, _)))
                    && c.base == "put"
                    && c.particles.is_empty()
                    && !c.places.is_empty()
                    && c.places.iter().all(beside)
                {
                    told.apart = Some((Act::Mark, "laid beside its part"));
                    told.together = told.apart;
                }
                if self.comes_in_turn(c) {
                    let plug = objects.iter().all(|o| o.kind == Kind::Plug);
                    let act = if plug { Act::Connect } else { Act::Install };
                    // "The two leads gotta go first."
                    let due = self.words[c.from..c.verb.unwrap_or(c.from)]
                        .iter()
                        .any(|w| matches!(w.said.as_str(), "gotta" | "have" | "has" | "must" | "need" | "needs"));
                    let out = if plug { Act::Disconnect } else { Act::Remove };
                    let apart = (due && c.base != "be").then_some((out, "its turn to go"));
                    (told.apart, told.together) = (apart, Some((act, "its turn in the rebuild")));
                }
                if self.laid(c) {
                    (told.apart, told.together) = (None, Some((Act::Route, "leads run behind something")));
                }
                // "It goes around the big pulley.": in the rebuild it is put there.
                let goes = c.base == "go"
                    && told.together.is_none()
                    && matches!(c.form, Form::Third | Form::Base)
                    && objects.iter().all(|o| o.kind == Kind::Part);
                let there = ["around", "over", "onto", "into", "under", "behind", "through", "on", "in", "between"];
                if goes
                    && !objects.is_empty()
                    && c.places.iter().any(|(p, np)| there.contains(&p.as_str()) && np.is_thing())
                {
                    (told.apart, told.together) = (None, Some((Act::Install, "goes to its place")));
                }
                if told.state {
                    told.apart = None;
                }
                // "Peel the mesh off and stick it on the new one."
                let onto_new = |(p, np): &(CompactString, Phrase)| {
                    np.new && np.is_pronoun() && matches!(p.as_str(), "on" | "onto" | "to" | "into")
                };
                let own = !objects.is_empty()
                    && objects.iter().all(|o| !o.new && !matches!(o.kind, Kind::Tape | Kind::Glue | Kind::Screw));
                if own && c.places.iter().any(onto_new) && matches!(told.together, Some((Act::Install | Act::Press, _)))
                {
                    told.together = Some((Act::Transfer, "put on the new one"));
                    told.apart = told.together;
                }
                // "We'll put in a new one.": later.
                let later =
                    told.future && c.agent() && objects.iter().all(|o| o.new && o.is_pronoun() || o.head() == "one");
                if later && !objects.is_empty() && matches!(told.together, Some((Act::Install, _))) {
                    return None;
                }
                told.objects = objects;
                (told.apart.is_some() || told.together.is_some()).then_some(told)
            })
            .flat_map(|told| {
                let driven = self.driven_with_it(&told);
                [Some(told), driven]
            })
            .flatten()
            .collect()
    }

    /// "Install the fan with three screws.": fitted, and its screws driven.
    fn driven_with_it(&self, told: &Told) -> Option<Told> {
        let fits = matches!(told.together, Some((Act::Install, _)))
            && told.objects.iter().any(|o| matches!(o.kind, Kind::Part | Kind::Pronoun));
        let (_, screws) = told.places.iter().find(|(p, np)| fits && p == "with" && np.kind == Kind::Screw)?;
        let part = told.objects.first()?.clone();
        let mut group = screws.clone();
        if part.kind == Kind::Part {
            group.of.push(part);
        }
        Some(Told {
            apart: None,
            together: Some((Act::Drive, "fitted with its screws")),
            count: screws.count,
            objects: vec![group],
            places: Vec::new(),
            ..told.clone()
        })
    }

    fn done(&self, n: usize, c: &Clause) -> Option<(Vec<Phrase>, Told)> {
        let mut told = self.blank(c);
        let mut confidence: f64 = 0.85;
        let due = self.is_due(c);
        match c.mood {
            Mood::Plain => {}
            Mood::After => {
                // A result: "once the felt is peeled back", "after disconnecting both of those".
                told.result = true;
                confidence = 0.6;
                // "even when it is unplugged"
                if self.words[c.from.saturating_sub(1)..=c.from].iter().any(|w| w.is("even")) {
                    return None;
                }
                let gone = self.is_gone(c);
                if !c.passive && c.form != Form::Ing && !c.agent() && !gone {
                    return None;
                }
                // "after you get the shield off"
                let got = c.base == "get" && c.particles.iter().any(|p| p == "off" || p == "out");
                // "Once you lift the spreader": it is off then.
                let lifts = matches!(
                    c.base.as_str(),
                    "lift" | "remove" | "disconnect" | "unplug" | "undo" | "unscrew" | "detach"
                );
                let lifts = lifts && c.agent() && c.objects.iter().any(|o| o.definite && !o.is_pronoun());
                let got = got || lifts;
                if c.form == Form::Base && !gone && !got || c.supposed || c.agent() && !c.perfect && !got {
                    return None;
                }
            }
            // "until it pops off"
            Mood::Until
                if c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out"))
                    && !c.agent()
                    && !c.passive
                    && !goes_dark(c) =>
            {
                confidence = 0.6;
            }
            // "Grease the ring before you push the new heater in."
            Mood::Before if c.agent() && c.objects.iter().any(|o| o.new && o.kind == Kind::Part) => {
                told.result = true;
                confidence = 0.6;
            }
            Mood::Relative if due && c.antecedent.is_some() => {}
            // "the clamp, which I'll pop off now"
            Mood::Relative if c.agent() && c.antecedent.is_some() && !c.supposed && self.is_next(c) => {}
            // "There's a rubber ring on the post that comes off too."
            Mood::Relative if self.falls_off(c) => {}
            Mood::Question
                if c.agent()
                    && c.objects.is_empty()
                    && !c.particles.is_empty()
                    && self.lemmas[..c.from.max(1)].contains(&"be") | self.text.contains("are what we") => {}
            // "The first thing to disconnect is the battery."
            Mood::Purpose if self.thing_to_do(n, c).is_some() => {}
            Mood::Purpose => {
                if !self.aim_is_done(n, c) && !self.looks_whether(n, c) {
                    return None;
                }
                confidence = 0.75;
            }
            // "Mind the leads while lifting out the pump."
            Mood::Means
                if c.form == Form::Ing && c.subjects.is_empty() && self.lemmas[c.from..].first() == Some(&"while") =>
            {
                confidence = 0.7
            }
            Mood::Means => {
                let follows =
                    c.from > 0 && self.words[c.from - 1].pause || self.lemmas[c.from..].first() == Some(&"by");
                if !follows || c.form != Form::Ing {
                    return None;
                }
                told.result = true;
                confidence = 0.5;
            }
            _ => return None,
        }
        // "the customer says that …", "I've already taken it down"
        let reported = n > 0
            && matches!(
                self.clauses[n - 1].base.as_str(),
                "say" | "tell" | "complain" | "claim" | "report" | "think" | "believe" | "hope"
            );
        if reported && !c.order && c.mood != Mood::Purpose
            || (c.perfect || c.form == Form::Past && c.agent())
                && (has(self.text, "already") || has(self.text, "earlier") || self.text.contains("off camera"))
        {
            return None;
        }
        // "Take it to a drop off": carried somewhere, and not taken off.
        if matches!(c.base.as_str(), "take" | "bring") && c.places.iter().any(|(p, np)| p == "to" && !np.definite) {
            return None;
        }
        let mut objects = self.named(n, c, &self.done_to(n, c, due)?);
        // "Pull on the tag."
        if objects.is_empty()
            && matches!(c.base.as_str(), "pull" | "tug" | "push" | "press")
            && let Some((_, held)) =
                c.places.iter().find(|(p, np)| p == "on" && matches!(np.kind, Kind::Plug | Kind::Latch | Kind::Lever))
        {
            objects = self.named(n, c, std::slice::from_ref(held));
        }
        // "Put on it a weight."
        if objects.iter().any(|o| o.kind == Kind::Weight) && objects.iter().any(Phrase::is_pronoun) {
            let (weights, below) = objects.into_iter().partition(|o| o.kind == Kind::Weight);
            objects = weights;
            let below: Vec<Phrase> = below;
            told.places.extend(below.into_iter().map(|p| ("on".to_owned(), p)));
        }
        // "Take hold of the tab and pull slowly."
        let along = c.places.iter().all(|(p, _)| matches!(p.as_str(), "from" | "along" | "to" | "towards" | "toward"));
        if objects.is_empty() && c.order && along && matches!(c.base.as_str(), "pull" | "lift" | "tug") {
            objects = self.held_before(n);
        }
        // "check that the leads do not get pinched": a caution, and no test.
        let harm = ["pinched", "trapped", "squeezed", "crushed", "caught"].iter().any(|w| has(self.text, w));
        if harm && matches!(c.base.as_str(), "check" | "verify" | "make" | "ensure" | "see") {
            return None;
        }
        // "Mark which wire goes where."
        if objects.is_empty()
            && matches!(c.base.as_str(), "mark" | "note" | "label" | "remember" | "photograph")
            && let Some(asked) = self.clauses.get(n + 1).filter(|k| matches!(k.mood, Mood::Relative | Mood::Question))
        {
            objects = asked.subjects.iter().filter(|s| s.is_thing() && !s.is_pronoun()).cloned().collect();
        }
        // "check if the compass shows the way": what is looked at stands in the question.
        if objects.iter().all(|o| !o.is_thing() || o.is_pronoun())
            && matches!(c.base.as_str(), "check" | "verify" | "test" | "see" | "make" | "look")
            && let Some(asked) = self.clauses.get(n + 1).filter(|k| {
                matches!(k.mood, Mood::If | Mood::Question | Mood::Relative)
                    || k.agent() && k.base == "get"
                    || k.subjects.iter().any(|s| matches!(s.kind, Kind::Part | Kind::Picture | Kind::Plug))
            })
        {
            let seen = |s: &&Phrase| (s.is_thing() || s.kind == Kind::Picture) && !s.is_pronoun();
            objects = asked.subjects.iter().filter(seen).cloned().collect();
            // "Turn the camera on to see if it works."
            if objects.is_empty()
                && self.looks(c)
                && let Some(on) = self.switched_on(n)
            {
                objects = on.objects.iter().filter(|o| o.kind == Kind::Part && !o.is_pronoun()).cloned().collect();
            }
            // "Check you've got sound on both sides."
            if objects.is_empty() && asked.agent() && asked.base == "get" {
                let got = asked.objects.iter().filter(|o| !o.is_pronoun()).cloned();
                objects = got.map(|o| Phrase { kind: Kind::Part, ..o }).collect();
            }
        }
        // "Two tiny screws. … The same two go back in.": the screws.
        let same = has(self.text, "same");
        let screws = self.topic.screws.as_ref().filter(|(at, _)| same || self.number - at <= 2);
        if let ([o], Some((_, screws)), "go" | "come") = (&mut objects[..], screws, c.base.as_str())
            && o.is_pronoun()
            && o.count.is_some_and(|n| n > 1)
            && c.particles.iter().any(|p| p == "in")
        {
            *o = Phrase { from: o.from, to: o.to, count: o.count, ..screws.clone() };
        }
        // "right and left coil cables", "the following five": what lists share.
        for i in 0..objects.len() {
            let count = objects[i].count.unwrap_or(0);
            if objects[i].is_pronoun()
                && count > 1
                && (matches!(c.base.as_str(), "undo" | "unscrew" | "loosen") || self.these_screws(c))
                && objects[i].head() != "both"
            {
                objects[i].kind = Kind::Screw;
                objects[i].words = vec!["screw".into()];
                objects[i].said = vec!["screws".into()];
            } else if let Some(next) = objects.get(i + 1).cloned().filter(|q| !q.is_pronoun() && q.words.len() > 1)
                && objects[i].said.len() == 1
                && matches!(
                    objects[i].said[0].as_str(),
                    "left"
                        | "right"
                        | "upper"
                        | "lower"
                        | "top"
                        | "bottom"
                        | "front"
                        | "rear"
                        | "inner"
                        | "outer"
                        | "first"
                        | "second"
                        | "red"
                        | "black"
                        | "white"
                        | "blue"
                        | "yellow"
                        | "green"
                        | "brown"
                        | "wide"
                        | "narrow"
                )
            {
                let side = objects[i].said[0].clone();
                objects[i] = Phrase { words: next.words.clone(), said: next.said.clone(), ..next };
                objects[i].words[0] = side.clone();
                if let Some(first) = objects[i].said.first_mut() {
                    *first = side;
                }
            }
        }
        if c.base == "handle" && told.places.is_empty() {
            told.confidence = 0.4;
        }
        if c.possible {
            // "You can replace the cell": an offer.
            if self.text.contains("without ") && c.passive && !due_now(self.text) {
                return None;
            }
            let example = ["such a", "any "].iter().any(|p| self.text.contains(p));
            if c.agent() && (example || matches!(c.base.as_str(), "replace" | "change" | "swap" | "try")) {
                return None;
            }
            confidence -= 0.1;
        }
        if c.base == "be" || c.mood == Mood::Until {
            told.result = true;
        }
        if c.perfect && !c.passive {
            told.result = true;
            confidence -= 0.2;
        }
        told.confidence = confidence;
        told.state = c.passive && self.describes(c, due);
        Some((objects, told))
    }

    /// What the clause before takes hold of.
    fn held_before(&self, n: usize) -> Vec<Phrase> {
        let Some(c) = self.clauses[..n].last().filter(|c| c.order && !c.negated) else { return Vec::new() };
        let thing = |p: &&Phrase| p.is_thing() && !TOOLS.contains(&p.kind);
        match c.base.as_str() {
            "take" | "get" => {
                let hold = c.objects.iter().filter(|o| o.head() == "hold");
                self.named(n - 1, c, &hold.flat_map(|o| &o.of).filter(thing).cloned().collect::<Vec<_>>())
            }
            "grab" | "grip" | "hold" | "catch" | "pinch" | "grasp" => {
                self.named(n - 1, c, &c.objects.iter().filter(thing).cloned().collect::<Vec<_>>())
            }
            _ => Vec::new(),
        }
    }

    /// "has to be taken out", "must be disconnected", "can be lifted".
    fn is_due(&self, c: &Clause) -> bool {
        let Some(verb) = c.verb else { return false };
        let must = |w: &Word| {
            matches!(w.lemma.as_str(), "have" | "must" | "need" | "can" | "should" | "to" | "gotta")
                || matches!(w.said.as_str(), "has" | "needs")
        };
        let leaves = matches!(c.base.as_str(), "come" | "go") && !c.particles.is_empty();
        (c.passive || leaves) && self.words[c.from..verb].iter().any(must)
    }

    /// "I'll … now", "we're going to …".
    fn is_next(&self, c: &Clause) -> bool {
        let verb = c.verb.unwrap_or(c.from);
        self.words[c.from..verb].iter().any(|w| matches!(w.said.as_str(), "will" | "'ll" | "gonna" | "going"))
            && c.objects.is_empty()
            && !c.particles.is_empty()
    }

    /// "The lid is off.", "Once that's out", "That's the old one out."
    fn is_gone(&self, c: &Clause) -> bool {
        let it = |p: &Phrase| matches!(p.head(), "it" | "that" | "this") && p.said.len() == 1;
        // "Wiggle the head forwards and it's free."
        let before = || self.clauses.iter().take_while(|k| k.from < c.from).last();
        let freed = c.particles.len() == 1 && c.particles[0] == "free" && c.places.is_empty() && c.objects.is_empty();
        let eased = |k: &Clause| {
            matches!(k.base.as_str(), "wiggle" | "lift" | "pull" | "ease" | "work" | "rock" | "slide" | "push")
        };
        let worked = |k: &Clause| k.order && !k.negated && eased(k) && k.objects.iter().any(|o| o.kind == Kind::Part);
        if c.base == "be" && freed && c.mood == Mood::Plain && c.subjects.iter().all(it) && before().is_some_and(worked)
        {
            return true;
        }
        c.base == "be"
            && c.particles.len() == 1
            && (matches!(c.particles[0].as_str(), "off" | "out") && c.places.is_empty()
                // "With that the back is free."
                || c.particles[0] == "free" && c.places.iter().all(|(p, np)| p == "with" && np.head() == "that"))
            && c.objects.is_empty()
            && !c.subjects.is_empty()
            && c.subjects.iter().all(|p| p.kind == Kind::Part || c.mood == Mood::After && it(p))
    }

    fn thing_to_do(&self, n: usize, c: &Clause) -> Option<Vec<Phrase>> {
        let thing = |p: &Phrase| {
            matches!(p.head(), "thing" | "part" | "piece")
                && self.words[p.from..p.to]
                    .iter()
                    .any(|w| matches!(w.said.as_str(), "first" | "next" | "last" | "only"))
        };
        let before = self.clauses[..n].last()?;
        let is = self.clauses.get(n + 1).filter(|k| k.base == "be" && !k.passive)?;
        let led = c.mood == Mood::Purpose
            && c.objects.is_empty()
            && before.verb.is_none()
            && before.objects.last().is_some_and(thing);
        let things: Vec<Phrase> = is.objects.iter().filter(|p| p.is_thing() && !p.is_pronoun()).cloned().collect();
        (led && !things.is_empty()).then_some(things)
    }

    /// "Go ahead and remove these four.": what is pointed at by fours is screws, where no other four were named.
    pub(super) fn these_screws(&self, c: &Clause) -> bool {
        let screws_at = self.topic.screws.as_ref().map_or(0, |(at, _)| *at);
        let others = self
            .topic
            .many
            .as_ref()
            .is_some_and(|(at, p, _)| self.number - at <= 2 && p.kind != Kind::Screw && *at >= screws_at);
        let out = c.base == "remove" || c.base == "take" && c.particles.iter().any(|p| p == "out");
        out && !others && c.objects.iter().any(|o| o.is_pronoun() && o.count.is_some())
    }

    fn falls_off(&self, c: &Clause) -> bool {
        matches!(c.base.as_str(), "come" | "pop" | "lift" | "slide")
            && c.form == Form::Third
            && c.particles.iter().any(|p| p == "off" || p == "out")
            && c.places.is_empty()
            && self.shown_before(c).is_some()
    }

    /// "There's a rubber ring …": the clause before that shows a part.
    fn shown_before(&self, c: &Clause) -> Option<&Clause> {
        let before = self.clauses.iter().take_while(|k| k.from < c.from).last()?;
        let part = before.objects.iter().any(|o| o.kind == Kind::Part);
        (before.base == "be" && before.subjects.is_empty() && part).then_some(before)
    }

    /// "use a driver to remove the screws", "the next step is to pull": the aim is what is done.
    fn aim_is_done(&self, n: usize, c: &Clause) -> bool {
        let Some(p) = self.clauses[..n].iter().rev().find(|p| p.verb.is_some()) else { return false };
        if p.negated || p.supposed || !matches!(p.mood, Mood::Plain) && p.mood != c.mood {
            return false;
        }
        // "I tell it to shut down."
        let down = || self.frame(c, Half::Apart, &[]).is_some_and(|f| f.act == Act::PowerOff);
        if p.base == "tell" && p.agent() && p.objects.iter().any(|o| o.is_pronoun() || o.kind == Kind::Device) && down()
        {
            return true;
        }
        let tool = self.tool_of(p).is_some() || p.objects.iter().any(|o| TOOLS.contains(&o.kind) || o.head() == "tool");
        let away = c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out" | "away"));
        let tool = tool || p.subjects.iter().any(|o| p.passive && TOOLS.contains(&o.kind));
        // "my fingernail", "both thumbs"
        let hand = |o: &Phrase| {
            matches!(o.head(), "finger" | "fingernail" | "thumb" | "thumbnail" | "hand" | "plier" | "pliers")
        };
        let tool = tool || p.objects.iter().any(hand);
        let uses = (matches!(p.base.as_str(), "use" | "take" | "grab" | "insert" | "get" | "need")
            || away
                && matches!(
                    p.base.as_str(),
                    "push" | "slide" | "work" | "put" | "place" | "stick" | "press" | "run" | "move"
                ))
            && tool;
        let step = p.base == "be"
            && !p.passive
            && p.subjects.iter().any(|s| matches!(s.head(), "step" | "thing" | "job" | "task" | "way" | "do"));
        let nods = p.base == "be" && self.lemmas[..c.from].iter().any(|w| matches!(*w, "do" | "step" | "thing"));
        let again = p.mood == Mood::Purpose
            && c.mood == Mood::Purpose
            && n > 0
            && self.aim_is_done(n - 1, &self.clauses[n - 1]);
        // "We are able to", and not "it is there to".
        let raised = GRAMMAR.raising.contains(&p.base)
            && !tool
            && p.objects.is_empty()
            && (p.base != "be" || p.agent() || p.subjects.is_empty());
        (uses || step || nods || again || raised) && self.frame(c, Half::Apart, &c.objects).is_some()
    }

    /// "Switch it on to see if it works.": what it is switched on for is done.
    fn looks_whether(&self, n: usize, c: &Clause) -> bool {
        self.looks(c) && self.switched_on(n).is_some()
    }

    fn looks(&self, c: &Clause) -> bool {
        matches!(c.base.as_str(), "check" | "test" | "verify" | "try")
            || matches!(c.base.as_str(), "see" | "find")
                && (["if", "whether"].iter().any(|w| has(self.text, w)) || self.text.contains("to see that"))
    }

    /// The clause right before that switches something on or plugs it in.
    fn switched_on(&self, n: usize) -> Option<&Clause> {
        let on = |p: &&Clause| {
            !p.negated
                && !p.supposed
                && matches!(
                    p.base.as_str(),
                    "switch" | "turn" | "power" | "plug" | "connect" | "press" | "hold" | "start" | "boot" | "run"
                )
        };
        self.clauses[..n].iter().rev().take(2).find(on)
    }

    /// Leads run behind, under or along something.
    fn laid(&self, c: &Clause) -> bool {
        let by = ["behind", "under", "through", "along", "around", "between", "underneath", "past", "over"];
        let lead = |p: &Phrase| p.kind == Kind::Plug || matches!(p.head(), "antenna" | "aerial");
        let inanimate = !c.subjects.is_empty() && c.subjects.iter().all(lead);
        inanimate
            && matches!(c.base.as_str(), "go" | "run" | "come")
            && c.places.iter().any(|(p, np)| by.contains(&p.as_str()) && !np.is_pronoun())
    }

    /// "The battery plug comes last."
    fn comes_in_turn(&self, c: &Clause) -> bool {
        let turn = |w: &Word| matches!(w.lemma.as_str(), "last" | "first" | "next");
        // "The supply plug is the last."
        let named = |s: &Phrase| matches!(s.kind, Kind::Plug | Kind::Part) && s.definite && !s.is_pronoun();
        let the_last = c.base == "be" && !c.subjects.is_empty() && c.subjects.iter().all(named) && {
            let behind: Vec<&str> = c.verb.map(|v| &self.lemmas[v + 1..c.to]).unwrap_or_default().to_vec();
            matches!(behind[..], ["the", "last"] | ["last"] | ["the", "last", "one"])
        };
        if the_last && c.mood == Mood::Plain && !c.negated && !c.supposed {
            return true;
        }
        matches!(c.base.as_str(), "come" | "follow" | "go")
            && c.form != Form::Ing
            && c.mood == Mood::Plain
            && !c.supposed
            && c.particles.is_empty()
            && c.objects.is_empty()
            && c.verb.is_some_and(|v| {
                self.words[v + 1..].first().is_some_and(turn) || self.words[c.from..v].last().is_some_and(turn)
            })
    }

    /// What a clause is done to; `None` where nobody does anything.
    fn done_to(&self, n: usize, c: &Clause, due: bool) -> Option<Vec<Phrase>> {
        if c.mood == Mood::Relative && !due && self.falls_off(c) {
            return self.shown_before(c).map(|shown| shown.objects.clone());
        }
        if c.mood == Mood::Relative {
            let antecedent = c.antecedent.clone()?;
            // "The first thing that has to be removed is the kickstand."
            if antecedent.is_pronoun() || antecedent.kind == Kind::Nothing {
                let is = self.clauses.get(n + 1).filter(|k| k.base == "be" && !k.passive)?;
                return Some(is.objects.iter().filter(|p| p.is_thing()).cloned().collect());
            }
            return Some(vec![antecedent]);
        }
        // "get the old foam cleaned off"; else "the cover removed" tells of a thing.
        if c.form == Form::Past && !c.passive && !c.perfect && c.subjects.is_empty() {
            // "There, popped.", "Unplugged.": what was spoken of is done.
            let alone = self.words.len() <= 3 && c.objects.is_empty() && c.places.is_empty();
            let only =
                || self.words.iter().enumerate().all(|(i, w)| Some(i) == c.verb || w.tag == super::words::Tag::Adv);
            if alone && only() {
                // "Two screws under it. Unscrewed.": the screws, which are told.
                let turned = matches!(c.base.as_str(), "unscrew" | "undo" | "loosen" | "tighten" | "remove");
                let told = self.topic.screws.as_ref().is_some_and(|(at, _)| turned && self.number - at <= 1);
                return (!told).then(|| vec![self.it(c)]);
            }
            let led = self.clauses[..n]
                .last()
                .filter(|p| matches!(p.base.as_str(), "get" | "have") && !p.negated && !p.supposed)?;
            let things: Vec<Phrase> =
                c.objects.iter().chain(&led.objects).filter(|p| p.is_thing() && !p.is_pronoun()).cloned().collect();
            return (!things.is_empty()).then_some(things);
        }
        // "You get the battery unhooked before anything else."
        let got =
            self.clauses[..n].last().filter(|k| k.base == "get" && k.objects.is_empty() && k.agent() && !k.negated);
        if c.form == Form::Past && !c.passive && !c.perfect && !c.agent() && got.is_some_and(|k| k.mood == Mood::Plain)
        {
            return Some(c.subjects.clone());
        }
        if c.subjects.iter().any(|s| matches!(s.head(), "reason" | "why")) {
            return None;
        }
        if let Some(things) = self.thing_to_do(n, c) {
            return Some(things);
        }
        // "those are what we are going to take out"
        if c.agent()
            && c.objects.is_empty()
            && !c.particles.is_empty()
            && let Some(is) = self.clauses[..n]
                .last()
                .filter(|p| p.base == "be" && p.verb.is_some_and(|v| self.lemmas[v..].get(1) == Some(&"what")))
        {
            return Some(is.subjects.clone());
        }
        if c.passive {
            // "the battery plug can be pulled, and after that the other plugs"
            let more = c
                .objects
                .iter()
                .filter(|p| p.definite && !p.is_pronoun() && c.subjects.last().is_some_and(|s| s.kind == p.kind));
            // "It's given a minute."
            if c.base == "give" && c.objects.iter().any(|o| o.kind == Kind::Time) {
                return Some(Vec::new());
            }
            let subjects: Vec<Phrase> =
                c.subjects.iter().chain(more).filter(|p| p.is_thing() || p.kind == Kind::Heat).cloned().collect();
            if self.describes(c, due) && !self.done_in_rebuild(c) {
                return None;
            }
            return (!subjects.is_empty()).then_some(subjects);
        }
        // "The next step will be to remove the screws."
        let steps = |p: &Phrase| matches!(p.head(), "step" | "thing" | "job" | "task" | "goal") && p.kind != Kind::Part;
        if !c.objects.is_empty()
            && c.subjects.iter().any(steps)
            && c.subjects.iter().all(|s| steps(s) || s.is_pronoun())
        {
            return Some(c.objects.clone());
        }
        // "You will hear the latches open."
        let heard = n > 0 && matches!(self.clauses[n - 1].base.as_str(), "hear" | "see" | "feel" | "notice");
        if heard && !c.agent() && c.objects.is_empty() && self.words[c.from].tag != super::words::Tag::Conj {
            return None;
        }
        // "Pull the ribbon and they come out.": things, and no people.
        let they = c.subjects.last().is_some_and(|s| s.head() == "they")
            && c.objects.is_empty()
            && !c.particles.is_empty()
            && n > 0
            && self.clauses[n - 1].verb.is_some()
            && !self.clauses[n - 1].negated
            && matches!(
                c.base.as_str(),
                "come" | "pop" | "slide" | "fall" | "drop" | "go" | "peel" | "lift" | "unscrew"
            );
        let inanimate = !c.subjects.is_empty() && (they || !c.agent());
        if inanimate {
            let mine: Vec<Phrase> = c.subjects.iter().filter(|p| p.is_thing()).cloned().collect();
            let moves = matches!(
                c.base.as_str(),
                "come"
                    | "go"
                    | "slide"
                    | "lift"
                    | "pop"
                    | "pull"
                    | "drop"
                    | "fall"
                    | "swing"
                    | "fold"
                    | "peel"
                    | "snap"
                    | "tilt"
                    | "open"
                    | "slip"
                    | "ease"
                    | "unscrew"
                    | "unplug"
                    | "unclip"
                    | "separate"
                    | "tip"
                    | "plug"
                    | "turn"
                    | "flip"
                    | "screw"
                    | "clip"
                    | "draw"
                    | "unhook"
                    | "press"
                    | "push"
                    | "hinge"
                    | "detach"
                    | "jump"
                    | "break"
            );
            // "the cover comes off", "the board goes in first"; but "the cable goes to the fan".
            let placed = c.base == "go"
                && (c.form == Form::Third || c.form == Form::Base && mine.len() > 1)
                && c.places.iter().any(|(p, np)| {
                    (matches!(
                        p.as_str(),
                        "around" | "over" | "onto" | "into" | "under" | "behind" | "through" | "between"
                    ) || p == "on" && np.new
                        || p == "in" && np.head() == "wall")
                        && np.is_thing()
                        || p == "in" && np.kind == Kind::Part && np.definite
                        || p == "on" && np.head() == "top"
                });
            // "The side panel hinges down."
            let folds = matches!(c.base.as_str(), "hinge" | "fold" | "swing" | "tilt");
            // "It lifts itself."
            let way = c.objects.iter().any(|o| o.head() == "itself")
                // "It unscrews to the left."
                || c.base == "unscrew" && c.form == Form::Third
                || placed
                || folds && c.particles.iter().any(|p| p == "down")
                || c.particles.iter().any(|p| {
                    !matches!(p.as_str(), "along" | "around" | "through" | "over" | "down" | "across" | "together")
                });
            // "The wires go behind this post.": how they run, or how they are to be laid.
            let leads = mine.iter().all(|p| p.kind == Kind::Plug)
                && !placed
                && !c.places.is_empty()
                && !c.particles.iter().any(|p| matches!(p.as_str(), "in" | "on" | "back" | "off" | "out"))
                && matches!(c.base.as_str(), "come" | "go" | "plug" | "run");
            if leads {
                return (c.base != "plug" && self.laid(c)).then_some(mine);
            }
            // "Then a thin card goes underneath."
            let led_in =
                c.places.iter().any(|(p, _)| matches!(p.as_str(), "under" | "between" | "behind" | "into" | "in"))
                    || self.lemmas[c.from..c.to].iter().any(|w| matches!(*w, "underneath" | "in"));
            if c.base == "go" && led_in && mine.iter().all(|p| p.kind == Kind::Opener) && !mine.is_empty() {
                return Some(mine);
            }
            if self.comes_in_turn(c) && !mine.is_empty() {
                return Some(mine);
            }
            // "Plug it in and it should come on.": it starts, and nothing is fitted.
            let starts = c.base == "come" && c.particles.iter().all(|p| p == "on") && c.places.is_empty();
            if starts && !c.particles.is_empty() && c.subjects.iter().all(|s| s.is_pronoun() && s.head() == "it") {
                return None;
            }
            // "Over she goes."
            if c.base == "go" && self.words[c.from].is("over") && c.subjects.iter().all(Phrase::is_pronoun) {
                return Some(Vec::new());
            }
            // "Now the shell is off."
            if c.base == "be" {
                if self.text.starts_with("make sure") || self.text.starts_with("ensure") {
                    return None;
                }
                return self.is_gone(c).then_some(mine);
            }
            // "The board goes in and two screws."
            let screws = c.objects.iter().filter(|o| o.kind == Kind::Screw && o.count.is_some());
            let mine: Vec<Phrase> = mine.into_iter().chain(screws.cloned()).collect();
            // "The screws come out one two three."
            let counted = |o: &Phrase| o.count.is_some() && (o.kind == Kind::Screw || o.is_pronoun());
            let object_less =
                c.objects.iter().all(|o| !o.is_thing() || counted(o) || matches!(o.head(), "itself" | "themselves"));
            // "The pack comes sliding out."
            let comes = self.words[self.verb_group(c)].iter().any(|w| w.verb() == "come");
            let told = c.form != Form::Ing || comes;
            let goes = moves && way && object_less && !mine.is_empty() && !c.supposed && told;
            let goes = goes
                && !(c.base == "go"
                    && c.particles.iter().all(|p| p == "in" || p == "on")
                    && !self.text.contains("now")
                    && c.places.iter().any(|(_, p)| p.kind == Kind::Part && !p.definite));
            return goes.then_some(mine);
        }
        // "Let the battery become empty."
        if c.base == "become"
            && let Some(let_) = self.clauses[..n].last().filter(|k| k.base == "let")
        {
            return Some(let_.objects.clone());
        }
        // Somebody does it, or it is an order.
        let objects: Vec<Phrase> = c.objects.to_vec();
        if c.agent() && c.form == Form::Third {
            return None;
        }
        if let Some(fronted) = self.fronted(n, c) {
            return Some(vec![fronted]);
        }
        Some(objects)
    }

    /// "it is glued on", "it's held in with glue", "the cable is taped": how it is, not what is done.
    fn describes(&self, c: &Clause, due: bool) -> bool {
        let made_sure = self.text.starts_with("make sure") || self.text.starts_with("ensure");
        let state = !due
            && !made_sure
            && c.mood == Mood::Plain
            && !self.words[self.verb_group(c)]
                .iter()
                .any(|w| matches!(w.said.as_str(), "now" | "then" | "being" | "be"));
        let describes = matches!(
            c.base.as_str(),
            "glue"
                | "screw"
                | "solder"
                | "clip"
                | "hold"
                | "tape"
                | "stick"
                | "attach"
                | "mount"
                | "connect"
                | "fix"
                | "fasten"
                | "seat"
                | "fit"
                | "plug"
                | "lock"
                | "route"
                | "hide"
                | "cover"
                | "snap"
                | "secure"
                | "press"
                | "open"
                | "deliver"
                | "mold"
                | "leave"
                | "lay"
                | "position"
                | "protect"
                | "hook"
                | "fold"
                | "bend"
                | "set"
                | "insert"
        );
        // "The wires are soldered back."
        let state = state && !c.particles.iter().any(|p| p == "back");
        // "it's gonna be stuck a little"
        let stuck = c.base == "stick" && !c.particles.iter().any(|p| matches!(p.as_str(), "on" | "down" | "in"));
        // "The pack is fitted last."
        let turn = c
            .verb
            .and_then(|v| self.words.get(v + 1))
            .is_some_and(|w| matches!(w.lemma.as_str(), "last" | "next" | "first"));
        let state = state && !turn;
        let weighed = c.places.iter().any(|(_, np)| np.kind == Kind::Weight);
        (state || stuck) && describes && !weighed
    }

    /// From behind the subject to the verb: "now" of "is now glued", and not of "Now the lid is glued".
    fn verb_group(&self, c: &Clause) -> std::ops::Range<usize> {
        let verb = c.verb.unwrap_or(c.from);
        let from = c.subjects.last().map_or(c.from, |s| s.to);
        from.min(verb)..verb
    }

    /// "The board is screwed down, the speaker is snapped in.": with a way in, so that it may be done.
    fn done_in_rebuild(&self, c: &Clause) -> bool {
        let be = |w: &Word| matches!(w.said.as_str(), "is" | "are" | "'s" | "'re" | "gets" | "get");
        let now = c.verb.is_some_and(|v| self.words[c.from..v].iter().any(be));
        let fitted = matches!(
            c.base.as_str(),
            "screw"
                | "clip"
                | "snap"
                | "plug"
                | "hook"
                | "lay"
                | "set"
                | "insert"
                | "fit"
                | "connect"
                | "press"
                | "fold"
        );
        let way = |p: &CompactString| matches!(p.as_str(), "in" | "on" | "down" | "back" | "into" | "onto" | "over");
        now && fitted && c.mood == Mood::Plain && c.particles.iter().any(way)
    }

    /// "it", where nobody says so.
    pub(super) fn it(&self, c: &Clause) -> Phrase {
        let at = c.verb.unwrap_or(c.from);
        Phrase {
            from: at,
            to: at,
            words: vec!["it".into()],
            said: vec!["it".into()],
            count: None,
            kind: Kind::Pronoun,
            definite: true,
            plural: false,
            new: false,
            guess: false,
            stands: false,
            of: Vec::new(),
        }
    }

    /// "The block we push in from the front.": what it is done to stands before who does it.
    fn fronted(&self, n: usize, c: &Clause) -> Option<Phrase> {
        let [thing, who] = &c.subjects[..] else { return None };
        let goes_on = |k: &Clause| k.verb.is_some() && k.mood == Mood::Plain && !k.order && k.subjects.is_empty();
        let next = self.clauses.get(n + 1).is_none_or(|k| !goes_on(k));
        let bare = c.objects.is_empty() && c.form == Form::Base && c.agent() && thing.to == who.from;
        (n == 0 && next && bare && thing.definite && thing.is_thing() && !thing.is_pronoun()).then(|| thing.clone())
    }

    fn frame(&self, c: &Clause, half: Half, objects: &[Phrase]) -> Option<&'static Frame> {
        let away =
            c.particles.iter().any(|p| matches!(p.as_str(), "off" | "out" | "away" | "apart" | "loose" | "free"));
        let whose = |o: &Phrase| if o.kind == Kind::Nothing { o.of.first().map_or(o.kind, |p| p.kind) } else { o.kind };
        // An aerial that is unclipped or pressed on is its plug.
        let aerial = |o: &Phrase| {
            matches!(o.head(), "antenna" | "aerial")
                && matches!(
                    c.base.as_str(),
                    "pop" | "unclip" | "unsnap" | "unplug" | "press" | "snap" | "clip" | "click" | "push"
                )
        };
        // "Pop the little bar up on the connector."
        let by_plug = || ["connector", "socket", "flex", "ribbon", "cable"].iter().any(|w| has(self.text, w));
        let bar = |o: &Phrase| o.head() == "bar" && o.words.len() == 1 && by_plug();
        let whose = |o: &Phrase| {
            if aerial(o) {
                Kind::Plug
            } else if bar(o) {
                Kind::Lever
            } else {
                whose(o)
            }
        };
        let kind = objects.iter().map(whose).find(|k| !matches!(k, Kind::Nothing)).unwrap_or(if objects.is_empty() {
            Kind::None
        } else {
            Kind::Nothing
        });
        // "loosen but don't remove"
        let but =
            self.lemmas.get(c.to.saturating_sub(1)..).is_some_and(|rest| rest.iter().take(2).any(|w| *w == "but"));
        let to = if but { (c.to + 3).min(self.words.len()) } else { c.to };
        // "see if it heats"
        let whether = c.base == "see" && self.words.get(to).is_some_and(|w| w.is("if") || w.is("whether"));
        let to = to + usize::from(whether);
        let (from, to) = (c.from, to.max(c.from));
        let text = self.words[from..to].iter().map(|w| w.lemma.as_str()).collect::<Vec<_>>().join(" ");
        let said = self.words[from..to].iter().map(|w| w.said.as_str()).collect::<Vec<_>>().join(" ");
        let places: Vec<String> = c.places.iter().map(|(p, np)| format!("{p} {}", np.words.join(" "))).collect();
        let mut particles = c.particles.clone();
        if c.places.iter().any(|(p, np)| p == "to" && np.head() == "side" && (np.definite || np.count == Some(1))) {
            particles.push("aside".into());
        }
        // "Turn it away from you": a way to turn, and nothing that leaves.
        if c.places.iter().any(|(p, np)| p == "from" && matches!(np.head(), "you" | "me" | "yourself" | "myself")) {
            particles.retain(|p| p != "away");
        }
        let particles = &particles;
        // "The flex goes in underneath": comes off by nothing that goes in.
        let inwards = !away && particles.iter().any(|p| matches!(p.as_str(), "in" | "into" | "onto"));
        GRAMMAR.frames_of(&c.base).find(|f| {
            !(inwards && f.act == Act::Disconnect)
                && (f.particles.is_empty() || f.particles.iter().any(|p| particles.contains(p)))
                && !(away
                    && matches!(
                        f.act,
                        Act::Install | Act::Connect | Act::Drive | Act::Close | Act::Press | Act::Adjust
                    ))
                && (f.kinds.is_empty() && (kind != Kind::Nothing || matches!(f.act, Act::Heat | Act::Clean))
                    || f.kinds.contains(&kind))
                && (f.words.is_empty() || f.words.iter().any(|p| has(&text, p) || has(&said, p)))
                && (f.places.is_empty()
                    || f.places.iter().any(|p| places.iter().any(|q| has(q, p)) || particles.iter().any(|q| q == p)))
                && f.half.is_none_or(|only| (only == Half::Together) == (half == Half::Together))
        })
    }
}
