//! Things told in rows: plugs that are shown and then named, cables with whose they are, screws counted while one points.

use super::super::Act;
use super::super::extract::{aloud, drive_near, each_side};
use super::super::lexicon::lemma;
use super::clauses::Clause;
use super::grammar::Kind;
use super::phrases::Phrase;
use super::told::{Reader, Told, Topic};
use super::words::Word;
use compact_str::CompactString;

/// "Two flat cables. The wide one's the picture.": the picture's cable.
pub(super) fn wide_one(c: &mut Clause, number: usize, topic: &Topic) {
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
pub(super) fn that_has(c: &mut Clause, number: usize, topic: &Topic) {
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

/// "Three T5 screws and the lid is free.", "One screw and the pump slides out.": the screws are named, and then it comes.
pub(super) fn screws_and_free(c: Clause) -> Vec<Clause> {
    let named = |p: &Phrase| p.kind == Kind::Screw && p.count.is_some() && !p.definite;
    let freed = |p: &Phrase| p.kind == Kind::Part && p.definite || p.is_pronoun();
    // "Two screws and the fan come out.": one verb tells both.
    let both = matches!(c.base.as_str(), "come" | "go");
    match &c.subjects[..] {
        [screws, thing] if !both && !c.negated && !c.particles.is_empty() && named(screws) && freed(thing) => {
            let screws = fragment(&c, c.from, screws.to, vec![screws.clone()]);
            let free = Clause { from: thing.from, subjects: vec![thing.clone()], ..c };
            vec![screws, free]
        }
        // "Swing motor, two screws, and the crank pops off.": a thing with its screws, and then what comes.
        [part, screws, thing] if !c.negated && !c.particles.is_empty() && named(screws) && freed(thing) => {
            let held = fragment(&c, part.from, screws.to, vec![part.clone(), screws.clone()]);
            let free = Clause { from: thing.from, subjects: vec![thing.clone()], ..c };
            vec![held, free]
        }
        _ => vec![c],
    }
}

/// "Catch that tab first, and four screws.": screws that the verb says nothing of.
pub(super) fn screws_beside(words: &[Word], mut c: Clause) -> Vec<Clause> {
    let others = matches!(c.base.as_str(), "catch" | "mind" | "watch" | "line" | "align" | "check" | "close" | "press");
    let beside = c.objects.last().filter(|p| {
        let anew = p.from > 1 && words[p.from - 1].is("and") && words[p.from - 2].pause;
        others && anew && p.kind == Kind::Screw && p.count.is_some() && !p.definite
    });
    let Some(screws) = beside.cloned().filter(|_| c.objects.len() > 1 && !c.negated) else { return vec![c] };
    c.objects.pop();
    let named = fragment(&c, screws.from - 1, screws.to, vec![screws]);
    vec![c, named]
}

/// "Unscrew the lens ring, two tiny screws.", "Screw the bracket down, one screw each side.": its screws are turned.
pub(super) fn screws_of_it(words: &[Word], c: &mut Clause) {
    let turns = matches!(c.base.as_str(), "unscrew" | "screw" | "undo" | "unfasten" | "unbolt" | "bolt") && !c.negated;
    // "Unbolt the motor, four M3 bolts, eight long.": how long they are may stand behind.
    let [part, screws, rest @ ..] = &c.objects[..] else { return };
    if !rest.iter().all(Phrase::is_pronoun) {
        return;
    }
    let beside = screws.from > 0 && words[screws.from - 1].pause;
    let counted = screws.kind == Kind::Screw && screws.count.is_some() && screws.of.is_empty();
    if turns && beside && counted && part.kind == Kind::Part && part.definite {
        let behind: Vec<&str> = words[screws.to..].iter().map(|w| w.lemma.as_str()).take(3).collect();
        let sides = if each_side(&behind) { 2 } else { 1 };
        c.objects = vec![Phrase { of: vec![part.clone()], count: screws.count.map(|n| n * sides), ..screws.clone() }];
    }
}

/// "Remove the screws there are nine.": said without a breath.
pub(super) fn there_are(words: &[Word], clauses: &mut [Clause]) {
    for n in 1..clauses.len() {
        let (before, rest) = clauses.split_at_mut(n);
        let (order, c) = (&mut before[n - 1], &mut rest[0]);
        let there = c.verb.is_some_and(|v| c.base == "be" && v > 0 && words[v - 1].is("there"));
        let bare = order.order && order.objects.is_empty() && !order.negated;
        if there && bare && c.subjects.iter().all(|s| s.from > order.verb.unwrap_or(usize::MAX)) {
            order.objects.append(&mut c.subjects);
        }
    }
}

/// "The plate is screwed, three screws.": the plate's.
pub(super) fn its_screws(clauses: &mut [Clause]) {
    for n in 1..clauses.len() {
        let (before, rest) = clauses.split_at_mut(n);
        let screwed = &before[n - 1];
        let held = screwed.passive && matches!(screwed.base.as_str(), "screw" | "bolt" | "fasten");
        let part = screwed.subjects.first().filter(|s| held && !screwed.negated && s.kind == Kind::Part && s.definite);
        let counted = |p: &&mut Phrase| p.kind == Kind::Screw && p.count.is_some() && p.of.is_empty();
        let bare = rest[0].verb.is_none() && rest[0].particles.is_empty();
        if let (Some(part), Some(screws)) = (part, rest[0].objects.iter_mut().find(|p| bare && counted(p))) {
            screws.of.push(part.clone());
        }
    }
}

/// "The right half is only held by clips.": what a tool parts next.
pub(super) fn clipped(clauses: &[Clause]) -> Option<&Phrase> {
    let held = |c: &&Clause| {
        let on = matches!(c.base.as_str(), "clip" | "glue" | "snap" | "stick" | "fasten" | "hold" | "tape");
        // "held by two screws"
        let screws = c.places.iter().any(|(_, np)| np.kind == Kind::Screw);
        c.passive && on && !c.negated && !screws
    };
    clauses.iter().filter(held).flat_map(|c| &c.subjects).find(|s| s.kind == Kind::Part && s.definite)
}

/// Things that are only named, out of a clause.
fn fragment(c: &Clause, from: usize, to: usize, objects: Vec<Phrase>) -> Clause {
    Clause {
        from,
        to,
        verb: None,
        base: CompactString::default(),
        subjects: Vec::new(),
        objects,
        particles: Vec::new(),
        places: Vec::new(),
        order: false,
        ..c.clone()
    }
}

/// "Three cables in a row: camera, microphone, side keys.": what is listed behind belongs to the cables.
pub(super) fn row_behind(clauses: &mut Vec<Clause>) {
    let several = |c: &Clause| c.things().find(|p| p.kind == Kind::Plug && p.plural && p.of.is_empty())?.count;
    let bare = |c: &Clause| c.verb.is_none() && c.particles.is_empty() && c.places.is_empty();
    let at = clauses.windows(2).position(|pair| {
        several(&pair[0]).is_some_and(|n| n > 1 && bare(&pair[1]) && pair[1].objects.len() == n as usize)
    });
    if let Some(at) = at {
        let row = clauses.remove(at + 1);
        clauses[at].to = row.to;
        clauses[at].objects.extend(row.objects);
    }
}

/// "Unplug everything along this edge, so that's the lamp, the dial and the beeper.": each of them.
pub(super) fn everything_is(clauses: &mut Vec<Clause>) {
    let all = |c: &Clause| {
        let everything =
            matches!(&c.objects[..], [one] if matches!(one.head(), "everything" | "all") && one.is_pronoun());
        let undone = matches!(c.base.as_str(), "unplug" | "disconnect" | "connect" | "reconnect" | "remove" | "take");
        everything && undone && !c.negated && !c.supposed
    };
    let named = |c: &Clause| {
        let that = c.subjects.iter().all(|s| s.is_pronoun() && matches!(s.head(), "that" | "it"));
        let things = c.objects.len() > 1 && c.objects.iter().all(|o| o.is_thing() && !o.is_pronoun());
        c.base == "be" && !c.negated && that && !c.subjects.is_empty() && things && c.places.is_empty()
    };
    if let Some(at) = clauses.windows(2).position(|pair| all(&pair[0]) && named(&pair[1])) {
        let listed = clauses.remove(at + 1);
        clauses[at].to = listed.to;
        clauses[at].objects = listed.objects;
    }
}

/// "Three cables go to it, the left horn, the right horn and the lamp.": whose they are.
pub(super) fn listed_plugs(words: &[Word], c: &mut Clause) {
    let several = |p: &&Phrase| p.kind == Kind::Plug && p.plural && p.of.is_empty() && p.count.is_some_and(|n| n > 1);
    let Some(plugs) = c.subjects.iter().chain(&c.objects).find(several).cloned() else { return };
    let listed = |p: &&Phrase| {
        let before = p.from.checked_sub(1).map(|i| &words[i]);
        let opens = before.is_some_and(|w| w.pause || w.tag == super::words::Tag::Conj);
        let one = !p.plural || p.kind == Kind::Key;
        p.from >= plugs.to && opens && one && matches!(p.kind, Kind::Part | Kind::Plug | Kind::Key)
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

impl Reader<'_> {
    /// "Three cables go to it, … With all three undone the board slides out.": each is undone.
    pub(super) fn all_undone(&self) -> Option<Told> {
        let (_, plugs) = self.topic.plugs.as_ref().filter(|(at, p)| p.of.len() > 1 && self.number - at <= 3)?;
        let with = self.words.iter().position(|w| w.is("with")).filter(|at| *at < 3);
        // "All off.", "All three unplugged."
        let bare = self.words.len() <= 4 && self.words.first().is_some_and(|w| w.is("all"));
        let opens = with.map(|at| at + 1).or(bare.then_some(0))?;
        let all = |w: &Word| matches!(w.said.as_str(), "all" | "those" | "them" | "these" | "both");
        let undone =
            |w: &Word| matches!(w.said.as_str(), "undone" | "unplugged" | "disconnected" | "off" | "out" | "free");
        let window = self.words[opens..].iter().take(4);
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
    pub(super) fn counted_aloud(&self) -> Option<Told> {
        let first = self.clauses.first().filter(|_| self.clauses.iter().all(|c| c.verb.is_none()))?;
        let spoken_of = self.topic.screws.as_ref().is_some_and(|(at, _)| self.number - at <= 1);
        let driver = drive_near(self.lemmas, 0, self.lemmas.len());
        if driver.is_none() && !spoken_of {
            return None;
        }
        let count = aloud(self.lemmas)?;
        let told = self.blank(first);
        let screw =
            Phrase { count: Some(count), definite: false, ..Phrase { plural: true, ..self.it(first) }.as_screws() };
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

    /// "The panel's clipped all round, so I'm working a card along the edge.": the panel is parted.
    pub(super) fn clipped_on(&self, out: &mut [Told]) {
        let before = || self.topic.clipped.as_ref().filter(|(at, _)| self.number - at <= 2).map(|(_, p)| p);
        let Some(panel) = clipped(self.clauses).or_else(before) else { return };
        for told in out.iter_mut().filter(|t| matches!(t.apart, Some((Act::Pry, "a tool worked in")))) {
            let named = told.places.iter().any(|(_, np)| np.is_thing() || !np.of.is_empty());
            if !named && told.aim.is_none() {
                told.places.push(("of".into(), panel.clone()));
            }
        }
    }
}
