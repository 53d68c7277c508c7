//! What the narrator told of the rebuild, laid over the teardown turned round.
//!
//! Told steps stand in their own order and words. Each line of the reverse that a sentence tells is left out; the others are
//! filled in where they belong: into the told step that undoes the rest of their teardown step, else as a step of their own
//! behind the one that mere reversing puts before it. What is filled in says so, that a reader of the draft sees what rests
//! on the recording.
//!
//! Source: reverse-order rules of the trade (common practice, no source).

use super::exceptions::{Moved, OrderRule};
use super::inverse::{self, About, Reversed, Undo};
use super::{Bench, RebuildLine, RebuildStep, back};
use crate::cables::trials::trials;
use crate::ids::*;
use crate::manual::{Action, FastenerFate, Manual, PartFate, Phase, Step};
use crate::reading::{Act, Direction};
use crate::things::{Source, ends_alike, is_outlet, one_name, source};
use crate::units::Quantity;
use std::collections::{BTreeMap, BTreeSet};

/// A told sentence: the step and the place in it, from 0.
pub(super) type Place = (usize, usize);

/// The teardown turned round beside what was told of the rebuild: which sentence tells which line. The fold and the
/// differences are both read off it.
pub struct Alignment<'m> {
    pub(super) told: Told<'m>,
    /// Told steps in their order.
    pub(super) steps: Vec<&'m Step>,
    pub(super) reversed: Vec<Reversed>,
    /// By the reversed step and its line.
    pub(super) found: Vec<Vec<Option<Place>>>,
}

impl<'m> Alignment<'m> {
    /// O(lines of the reverse × told sentences).
    pub fn of(manual: &'m Manual) -> Self {
        let steps = manual.steps_in(Phase::Rebuild);
        let reversed = super::reversed(manual, &manual.steps_in(Phase::Teardown));
        let told = Told::of(manual, &reversed, &steps);
        let reversed: Vec<Reversed> = reversed.into_iter().map(|r| told.split(r)).collect();
        let places = |r: &Reversed| r.undos.iter().map(|u| told.place(u)).collect();
        let found = reversed.iter().map(places).collect();
        Self { told, steps, reversed, found }
    }
}

/// The whole rebuild. O(lines of the reverse + told sentences), beside looking up where each stands.
pub(super) fn merge(alignment: &Alignment<'_>) -> Vec<RebuildStep> {
    let Alignment { told, steps, reversed, found } = alignment;
    if steps.is_empty() {
        return reversed.iter().map(worked_out).collect();
    }
    let manual = told.manual;
    let anchors = Anchors::of(found);
    let mut woven: Vec<Woven> = steps.iter().map(|step| Woven::of(manual, step)).collect();
    let mut between: BTreeMap<usize, Vec<RebuildStep>> = BTreeMap::new();
    for (i, step) in reversed.iter().enumerate() {
        if found[i].iter().all(Option::is_none) {
            // Power comes back behind everything, told or not, unless an author overruled that.
            let powers = step.undos.iter().all(|u| matches!(u.about, About::Plug | About::SwitchOn))
                && step.moved.as_ref().is_none_or(Moved::moves);
            let slot = if powers { steps.len() } else { anchors.slot(i, steps.len()) };
            between.entry(slot).or_default().push(worked_out(step));
            continue;
        }
        for (u, at) in found[i].iter().enumerate() {
            match at {
                Some((t, a)) => woven[*t].tells(manual, step, u, *a),
                None => fill(told, &mut woven, step, u, &found[i]),
            }
        }
    }
    let mut out = between.remove(&0).unwrap_or_default();
    for (t, step) in woven.into_iter().enumerate() {
        out.push(step.finished(anchors.elsewhere(t)));
        out.extend(between.remove(&(t + 1)).unwrap_or_default());
    }
    guard_trials(manual, &mut out);
    out
}

/// A step of the reverse as it is.
fn worked_out(step: &Reversed) -> RebuildStep {
    RebuildStep {
        told: None,
        of: Some(step.of),
        of_number: Some(step.of_number),
        told_number: None,
        told_elsewhere: false,
        title: step.title.clone(),
        lines: step.undos.iter().map(|u| u.line.clone()).collect(),
        groups: step.groups.clone(),
        connectors: step.connectors.clone(),
        cautions: Vec::new(),
        moved: step.moved.clone(),
        bench: Bench::default(),
        proofs: Vec::new(),
        renews: false,
        posture: None,
    }
}

/// What is said of a line or step that nobody told.
pub fn reverse_of(number: usize) -> String {
    format!("Not told: the reverse of step {number}.")
}

fn both(first: Option<String>, second: Option<String>) -> Option<String> {
    [first, second].into_iter().flatten().reduce(|a, b| format!("{a} {b}"))
}

/// The told steps, with what is looked up in them. Names are made bare once: there are many to compare.
pub(super) struct Told<'m> {
    pub(super) manual: &'m Manual,
    /// Sentences in their order, with what each is about.
    pub(super) sentences: Vec<Sentence<'m>>,
    /// What comes out of the device.
    out: BTreeSet<String>,
    /// The first sentence that puts a part back, by its id and by its name.
    by_part: BTreeMap<PartId, Place>,
    by_name: BTreeMap<String, Place>,
}

/// One told sentence: where it stands, the sentence, and the bare names of what it is about.
pub(super) type Sentence<'m> = (Place, &'m Action, Vec<String>);

impl<'m> Told<'m> {
    /// A trial is made to be undone: it brings nothing back.
    fn of(manual: &'m Manual, reversed: &[Reversed], steps: &[&'m Step]) -> Self {
        let parts = reversed.iter().flat_map(|r| &r.undos).flat_map(|u| match &u.about {
            About::Parts(_, parts) => &parts[..],
            _ => &[],
        });
        let for_good = steps.iter().enumerate().filter(|(_, s)| !s.trial);
        let sentences = for_good.flat_map(|(t, s)| {
            let about = |a: &Action| manual.named(a).map(one_name).collect();
            s.actions.iter().enumerate().map(move |(a, action)| ((t, a), action, about(action)))
        });
        let sentences: Vec<Sentence<'m>> = sentences.collect();
        let (mut by_part, mut by_name) = (BTreeMap::new(), BTreeMap::new());
        for (place, action, names) in sentences.iter().filter(|(_, a, _)| puts_back(a.act)) {
            for part in &action.parts {
                by_part.entry(*part).or_insert(*place);
            }
            for name in names.iter().filter(|n| !n.is_empty()) {
                by_name.entry(name.clone()).or_insert(*place);
            }
        }
        let out = parts.map(|p| one_name(manual.part_name(*p))).collect();
        Self { manual, sentences, out, by_part, by_name }
    }

    /// Whether a part of this name comes out of the device, as far as names tell.
    pub(super) fn comes_out(&self, name: &str) -> bool {
        let name = one_name(name);
        self.out.contains(&name) || self.out.iter().any(|o| ends_alike(o, &name))
    }

    /// The words of a told sentence.
    pub(super) fn text(&self, place: Place) -> String {
        self.action(place).map_or(String::new(), |a| self.manual.sentence(a))
    }

    fn action(&self, place: Place) -> Option<&'m Action> {
        let at = self.sentences.binary_search_by_key(&place, |(at, ..)| *at).ok()?;
        Some(self.sentences[at].1)
    }

    /// One line about several parts becomes two where only some of them are told.
    fn split(&self, step: Reversed) -> Reversed {
        let part = |undo: Undo| match &undo.about {
            About::Parts(act, parts) if parts.len() > 1 => {
                let (known, rest): (Vec<PartId>, Vec<PartId>) = parts.iter().partition(|p| self.part(**p).is_some());
                if known.is_empty() || rest.is_empty() {
                    return vec![undo];
                }
                [known, rest].iter().flat_map(|parts| back::undo(self.manual, *act, parts)).collect()
            }
            _ => vec![undo],
        };
        Reversed { undos: step.undos.into_iter().flat_map(part).collect(), ..step }
    }

    /// The sentence that tells a line of the reverse.
    fn place(&self, undo: &Undo) -> Option<Place> {
        match &undo.about {
            About::Parts(_, parts) => {
                let mut places = parts.iter().map(|p| self.part(*p));
                let first = places.next()??;
                places.all(|p| p.is_some()).then_some(first)
            }
            About::Group(id) => self.group(*id),
            About::Connector(id) => self.connector(*id),
            About::Bond { part, .. } => self.bond(*part, undo.line.act?, &undo.line.text),
            About::Thing(_, name) => {
                let name = one_name(name);
                self.find(|a, names| (puts_back(a.act) || a.act == Act::Press) && names.contains(&name))
            }
            About::Plug => self.find(|a, _| plugs_in(self.manual, a)).filter(|at| self.closed(*at)),
            About::SwitchOn => self.find(|a, _| a.act == Act::PowerOn).filter(|at| self.closed(*at)),
        }
    }

    /// What closes a joint is told in the step that fits its part, or in the one before: cleaned, glued, pressed, left.
    fn bond(&self, part: Option<PartId>, act: Act, line: &str) -> Option<Place> {
        let (step, _) = self.part(part?)?;
        let is_glue = |n: &String| ["adhesive", "glue", "tape"].iter().any(|g| n.contains(g));
        let same = |a: &Action, names: &[String]| match act {
            Act::Clean => a.act == Act::Clean || a.act == Act::Remove && names.iter().any(is_glue),
            Act::Apply => matches!(a.act, Act::Apply | Act::Place) && names.iter().any(|n| line.contains(n.as_str())),
            Act::Place => a.text.iter().chain(&a.roles.manner).any(|t| t.contains("edge first")),
            _ => a.act == act,
        };
        let near = |t: usize| t == step || t + 1 == step;
        self.sentences.iter().find(|((t, _), a, names)| near(*t) && same(a, names)).map(|(place, ..)| *place)
    }

    fn part(&self, part: PartId) -> Option<Place> {
        let name = one_name(self.manual.part_name(part));
        let exact = [self.by_part.get(&part), self.by_name.get(&name)].into_iter().flatten().min().copied();
        // "The fan duct" may be the "duct", unless a fan duct came out as well.
        let close = |n: &String| ends_alike(&name, n) && !self.out.contains(n);
        exact.or_else(|| self.find(|a, names| puts_back(a.act) && names.iter().any(close)))
    }

    fn group(&self, id: GroupId) -> Option<Place> {
        let group = &self.manual.fasteners[&id];
        // The author knows that they must wait, wherever they were told.
        if inverse::waits_until(self.manual, group).is_some() {
            return None;
        }
        let holds: Vec<String> = group.holds.iter().map(|p| one_name(self.manual.part_name(*p))).collect();
        let drives = |a: &Action, names: &[String]| {
            let here = a.roles.groups.is_empty() && names.iter().any(|n| holds.contains(n));
            matches!(a.act, Act::Drive | Act::Tighten) && here
        };
        // A sentence of its own goes before one about all screws of the part.
        self.find(|a, _| a.roles.groups.contains(&id)).or_else(|| self.find(drives))
    }

    fn connector(&self, id: ConnectorId) -> Option<Place> {
        let connector = &self.manual.connectors[&id];
        let same = |names: &[String]| {
            let names: Vec<&str> = names.iter().map(String::as_str).collect();
            connector.is_named(self.manual, &names)
        };
        self.find(|a, names| a.act == Act::Connect && same(names))
    }

    /// Nothing is told to be fitted behind this place: only then power is back for good.
    fn closed(&self, (step, _): Place) -> bool {
        !self.sentences.iter().any(|((t, _), a, _)| *t > step && fits(a.act))
    }

    /// The first sentence of its kind.
    fn find(&self, is: impl Fn(&Action, &[String]) -> bool) -> Option<Place> {
        self.sentences.iter().find(|(_, a, names)| is(a, names)).map(|(place, ..)| *place)
    }
}

fn puts_back(act: Act) -> bool {
    matches!(act, Act::Install | Act::Close | Act::Connect | Act::Solder)
        || matches!(act, Act::Apply | Act::Place | Act::Route | Act::Transfer)
}

/// Whether an act closes the device further: while one is to come, it is open.
fn fits(act: Act) -> bool {
    act.direction() == Direction::In && !matches!(act, Act::PowerOn | Act::Connect)
}

/// "Plug the lead back into the wall."
fn plugs_in(manual: &Manual, action: &Action) -> bool {
    let places = action.roles.places.iter().map(|p| p.thing.as_str());
    action.act == Act::Connect
        && (manual.named(action).any(|n| source(n) == Some(Source::Mains))
            || places.chain(manual.named(action)).any(is_outlet))
}

/// Which told step the lines of each reversed step are told in, as far as both run the same way.
struct Anchors {
    /// By the place among the reversed steps; none where nothing of it is told.
    told: Vec<Option<usize>>,
    /// Whether it runs with the others.
    with: Vec<bool>,
}

impl Anchors {
    fn of(found: &[Vec<Option<Place>>]) -> Self {
        let told: Vec<Option<usize>> =
            found.iter().map(|lines| lines.iter().flatten().map(|(t, _)| *t).max()).collect();
        let with = longest_rising(&told);
        Self { told, with }
    }

    /// Behind how many of the told steps a reversed step goes that nobody told: behind the one that mere reversing puts
    /// before it, else before the one that it puts behind it.
    fn slot(&self, i: usize, steps: usize) -> usize {
        let stands = |j: usize| self.told[j].filter(|_| self.with[j]);
        let before = (0..i).rev().find_map(stands).map(|t| t + 1);
        before.or_else(|| (i + 1..self.told.len()).find_map(stands)).unwrap_or(steps)
    }

    /// A told step that undoes something in another place than mere reversing would.
    fn elsewhere(&self, t: usize) -> bool {
        let mut here = self.told.iter().zip(&self.with).filter(|(told, _)| **told == Some(t)).peekable();
        here.peek().is_some() && here.all(|(_, with)| !with)
    }
}

/// Marks the longest row of places that never falls. O(n log n).
fn longest_rising(places: &[Option<usize>]) -> Vec<bool> {
    let mut ends: Vec<usize> = Vec::new();
    let mut came_from: Vec<Option<usize>> = vec![None; places.len()];
    for (i, place) in places.iter().enumerate().filter(|(_, p)| p.is_some()) {
        let length = ends.partition_point(|e| places[*e] <= *place);
        came_from[i] = length.checked_sub(1).map(|l| ends[l]);
        if length == ends.len() { ends.push(i) } else { ends[length] = i }
    }
    let mut marked = vec![false; places.len()];
    let mut at = ends.last().copied();
    while let Some(i) = at {
        marked[i] = true;
        at = came_from[i];
    }
    marked
}

/// A line that is not told stands behind the sentence that fits its part, else beside the lines of its step that are told.
fn fill(told: &Told<'_>, woven: &mut [Woven], step: &Reversed, u: usize, found: &[Option<Place>]) {
    let undo = &step.undos[u];
    let waits = match &undo.about {
        About::Group(id) => {
            let group = &told.manual.fasteners[id];
            inverse::waits_until(told.manual, group).and(group.waits_for)
        }
        _ => None,
    };
    let held = match &undo.about {
        About::Group(id) => waits.or(told.manual.fasteners[id].holds.first().copied()),
        About::Connector(id) => told.manual.connectors[id].serves,
        About::Bond { part, .. } => *part,
        _ => None,
    };
    let untold = waits.is_none().then(|| reverse_of(step.of_number));
    let line = RebuildLine { because: both(untold, undo.line.because.clone()), ..undo.line.clone() };
    let before = || found[..u].iter().rev().flatten().next();
    let beside = held.and_then(|p| told.part(p)).or_else(|| before().copied());
    let (t, sentence, behind) = match beside {
        Some((t, a)) => (t, a, true),
        None => {
            let (t, a) = found[u..].iter().flatten().next().expect("something of the step is told");
            (*t, *a, false)
        }
    };
    let cleans = matches!(undo.about, About::Bond { before: true, .. }) && undo.line.act == Some(Act::Clean);
    let applied = || woven[t].step.told.and_then(|step| first_applied(told.manual, step));
    let sentence = if cleans { applied().map_or(sentence, |at| at.min(sentence)) } else { sentence };
    let sentence = &mut woven[t].sentences[sentence];
    if behind && !matches!(undo.about, About::Bond { before: true, .. }) {
        sentence.behind.push(line)
    } else {
        sentence.before.push(line)
    }
    woven[t].takes(&undo.about);
}

/// Where a told step puts on what bonds: faces are cleaned before it, and not between it and the part.
fn first_applied(manual: &Manual, step: StepId) -> Option<usize> {
    manual.steps.get(&step)?.actions.iter().position(|a| a.act == Act::Apply)
}

/// A told step while lines of the reverse are woven in.
struct Woven {
    step: RebuildStep,
    sentences: Vec<Beside>,
    /// How many lines of a teardown step, by its number, it undoes.
    undoes: BTreeMap<(usize, StepId), usize>,
}

/// A told sentence with what stands beside it.
struct Beside {
    /// None where all that it moves becomes scrap, or all that it drives stays out or waits for something else.
    words: Option<RebuildLine>,
    /// The groups that it tells of, each with all that is known of it and its turn in the sentence; they stand for the words.
    screws: Vec<(usize, RebuildLine)>,
    /// It tells how tight and nothing else; screws told with their torque before have said so.
    tightness: bool,
    before: Vec<RebuildLine>,
    behind: Vec<RebuildLine>,
}

impl Woven {
    fn of(manual: &Manual, step: &Step) -> Self {
        let sentence = |a: &Action| Beside {
            words: words(manual, a),
            screws: Vec::new(),
            tightness: tells_torque_alone(a),
            before: Vec::new(),
            behind: Vec::new(),
        };
        Self {
            sentences: step.actions.iter().map(sentence).collect(),
            undoes: BTreeMap::new(),
            step: RebuildStep {
                told: Some(step.id),
                of: None,
                of_number: None,
                told_number: None,
                told_elsewhere: false,
                title: step.title.clone(),
                lines: Vec::new(),
                groups: Vec::new(),
                connectors: Vec::new(),
                cautions: Vec::new(),
                moved: None,
                bench: Bench::default(),
                proofs: Vec::new(),
                renews: false,
                posture: None,
            },
        }
    }

    fn takes(&mut self, about: &About) {
        match about {
            About::Group(group) => self.step.groups.push(*group),
            About::Connector(connector) => self.step.connectors.push(*connector),
            _ => {}
        }
    }

    /// Line `u` of a reversed step is told in sentence `a`.
    fn tells(&mut self, manual: &Manual, reversed: &Reversed, u: usize, a: usize) {
        *self.undoes.entry((reversed.of_number, reversed.of)).or_default() += 1;
        let about = &reversed.undos[u].about;
        self.takes(about);
        // It may be told by another name: the part that came out is back all the same.
        if let (About::Parts(_, parts), Some(words)) = (about, &mut self.sentences[a].words) {
            words.parts.extend(parts.iter().filter(|p| !words.parts.contains(p)).copied().collect::<Vec<_>>());
        }
        let action = self.step.told.and_then(|s| manual.steps[&s].actions.get(a));
        // An author's words stand as they are.
        if let (About::Group(group), Some(action)) = (about, action.filter(|a| a.text.is_none() || a.said)) {
            let turn = action.roles.groups.iter().position(|g| g == group).unwrap_or(usize::MAX);
            let lines = inverse::screws_back(manual, *group, Some(action));
            self.sentences[a].screws.extend(lines.into_iter().map(|line| (turn, line)));
        }
    }

    fn finished(mut self, elsewhere: bool) -> RebuildStep {
        // Of several teardown steps the one that it tells most of; of those the last to be taken apart.
        let of = self.undoes.iter().max_by_key(|(key, n)| (**n, key.0)).map(|(key, _)| *key);
        self.step.of = of.map(|(_, id)| id);
        self.step.of_number = of.map(|(number, _)| number);
        self.step.moved = elsewhere.then(told_elsewhere);
        let mut driven = false;
        for mut s in self.sentences {
            // The reverse has them the other way round.
            s.screws.sort_by_key(|(turn, _)| *turn);
            if s.tightness && driven && s.screws.is_empty() {
                self.step.lines.extend(s.before.into_iter().chain(s.behind));
                continue;
            }
            driven |= !s.screws.is_empty();
            let screws = s.screws.into_iter().map(|(_, line)| line);
            let told: Vec<RebuildLine> =
                if screws.len() == 0 { s.words.into_iter().collect() } else { screws.collect() };
            self.step.lines.extend(s.before.into_iter().chain(told).chain(s.behind));
        }
        self.step
    }
}

fn told_elsewhere() -> Moved {
    Moved {
        rule: OrderRule::ToldElsewhere,
        because: "Told here; mere reversing would put it in another place".to_owned(),
        source: "the narrator".to_owned(),
        key: None,
        overruled: None,
    }
}

/// "Tighten to 0.4 newton metres."
fn tells_torque_alone(action: &Action) -> bool {
    let roles = &action.roles;
    let bare = action.parts.is_empty() && roles.things.is_empty() && roles.manner.is_empty();
    let bare = bare && roles.until.is_none() && roles.condition.is_none();
    let torque = !roles.measures.is_empty() && roles.measures.iter().all(|m| m.quantity == Quantity::Torque);
    action.act == Act::Tighten && bare && torque && (action.text.is_none() || action.said)
}

/// A told sentence; a part that the job renews is told as a new one.
fn words(manual: &Manual, action: &Action) -> Option<RebuildLine> {
    let groups = action.roles.groups.iter().filter_map(|g| manual.fasteners.get(g));
    let mut elsewhere =
        groups.map(|g| g.fate == FastenerFate::LeaveOut || inverse::waits_until(manual, g).is_some()).peekable();
    if elsewhere.peek().is_some() && elsewhere.all(|e| e) && (action.text.is_none() || action.said) {
        return None;
    }
    if !action.parts.is_empty() && action.parts.iter().all(|p| !back::goes_back(manual, *p)) {
        return None;
    }
    let mut text = manual.sentence(action);
    let renewed = |p: &&PartId| manual.cut.as_ref().and_then(|c| c.fates.get(p)) == Some(&PartFate::Renew);
    for part in action.parts.iter().filter(renewed).filter(|_| action.text.is_none() || action.said) {
        let name = manual.part_name(*part);
        text = text.replacen(&format!("the {name}"), &format!("the new {name}"), 1);
    }
    // Who cleans a board has not brought it back.
    let parts = if puts_back(action.act) { action.parts.clone() } else { Vec::new() };
    Some(RebuildLine { told: Some(action.id), parts, ..RebuildLine::new(action.act, text) })
}

/// Power while parts are still to be fitted: the step says how to hold the device, and to switch it off again. Whoever
/// switches on an open device only tries it, whatever the step is called; a source may be plugged in for good before the
/// covers, unless the step is a trial.
///
/// Source: common practice, no source.
fn guard_trials(manual: &Manual, steps: &mut [RebuildStep]) {
    let live = trials(manual);
    for at in 0..steps.len() {
        let Some(step) = steps[at].told.and_then(|id| manual.steps.get(&id)) else { continue };
        let powers = |a: &Action| {
            a.act == Act::PowerOn
                || plugs_in(manual, a)
                || step.trial && a.act == Act::Connect && manual.named(a).any(|n| source(n).is_some())
        };
        let open = steps[at + 1..].iter().any(|s| s.lines.iter().any(|l| l.act.is_some_and(fits)));
        if open && step.actions.iter().any(powers) {
            let line = |text: String| RebuildLine {
                act: None,
                text,
                because: Some("The device is still open (common practice).".to_owned()),
                told: None,
                parts: Vec::new(),
                takes_new: None,
            };
            let now = live.iter().find(|t| t.step == step.id).map_or(String::new(), |t| format!("{} ", t.words()));
            let now = now.trim_start();
            steps[at].lines.insert(
                0,
                line(format!(
                    "{now}Hold the device steady and clear of metal; touch nothing inside it while it is live."
                )),
            );
            let off = step.actions.iter().any(|a| a.act == Act::PowerOff);
            let end = if off {
                "Cut the power before you go on."
            } else {
                "Switch it off again and cut the power before you go on."
            };
            steps[at].lines.push(line(end.to_owned()));
        }
    }
}

#[cfg(test)]
mod tests {
    use super::super::fold;
    use super::*;
    use crate::manual::drafted::manual;
    use crate::manual::{Edit, FastenerEdit, FastenerField, Phase, SentenceEdit, SentenceField, StepEdit, StepField};
    use rstest::rstest;

    const APART: &str = "[0:00] Remove four PH1 screws, length 8 millimetres, from the cover. Take off the cover.\n\n\
        [0:20] Disconnect the fan cable. Remove two T6 screws from the fan. Take out the fan.\n\n\
        [0:40] Take out the tray.\n\n[1:00] Now the assembly.\n\n";

    fn told(words: &str) -> Manual {
        manual(&format!("{APART}[1:10] {words}"))
    }

    #[test]
    fn screws_go_back_in_the_order_in_which_several_sentences_tell_them() {
        let text = "[0:00] Remove three PH1 screws, length 8 millimetres, and two PH1 screws, length 12 millimetres, from the \
            cover. Take off the cover.\n\n[0:20] Take out the tray.\n\n[1:00] Now put it back together. Put the tray in. \
            Put the cover on. Three at the top, 8 millimetres. Two of the 12s at the bottom.";
        let last = rebuilt(&manual(text)).pop();
        let told = "Put the cover on. Drive in the three PH1 screws (8 mm) of the cover at the top. \
            Drive in the two PH1 screws (12 mm) of the cover.";
        assert_eq!(last.as_deref(), Some(told));
    }

    /// One line a step, `+` before what was worked out.
    fn rebuilt(manual: &Manual) -> Vec<String> {
        let line = |l: &RebuildLine| format!("{}{}", if l.told.is_some() { "" } else { "+ " }, l.text);
        let step = |s: RebuildStep| s.lines.iter().map(line).collect::<Vec<_>>().join(" ");
        fold(manual).rebuild.into_iter().map(step).collect()
    }

    #[rstest]
    #[case::nothing("", &[
        "+ Fit the tray.",
        "+ Fit the fan. + Drive in the two T6 screws of the fan. + Connect the fan.",
        "+ Fit the cover. + Drive in the four PH1 screws (8 mm) of the cover.",
    ])]
    #[case::everything(
        "Put the tray in.\n\n[1:20] Put the fan in. Drive in the two screws of the fan. Connect the fan cable.\n\n\
         [1:40] Put the cover on. Drive in the four screws of the cover.", &[
        "Put the tray in.",
        "Put the fan in. Drive in the two T6 screws of the fan. Connect the fan cable.",
        "Put the cover on. Drive in the four PH1 screws (8 mm) of the cover.",
    ])]
    #[case::a_step_between("Put the tray in.\n\n[1:40] Put the cover on. Drive in the four screws of the cover.", &[
        "Put the tray in.",
        "+ Fit the fan. + Drive in the two T6 screws of the fan. + Connect the fan.",
        "Put the cover on. Drive in the four PH1 screws (8 mm) of the cover.",
    ])]
    #[case::lines_within_steps("Put the fan in.\n\n[1:40] Put the cover on.", &[
        "+ Fit the tray.",
        "Put the fan in. + Drive in the two T6 screws of the fan. + Connect the fan.",
        "Put the cover on. + Drive in the four PH1 screws (8 mm) of the cover.",
    ])]
    #[case::something_new_and_a_new_one("Put the new fan in.\n\n[1:30] Apply thermal paste on the chip.\n\n[1:40] Put the cover on.", &[
        "+ Fit the tray.",
        "Put the new fan in. + Drive in the two T6 screws of the fan. + Connect the fan.",
        "Apply the thermal paste on the chip. Put the cover on. + Drive in the four PH1 screws (8 mm) of the cover.",
    ])]
    fn what_is_told_stands_and_the_rest_is_worked_out(#[case] words: &str, #[case] wanted: &[&str]) {
        assert_eq!(rebuilt(&told(words)), wanted);
    }

    #[test]
    fn another_order_stands_as_it_is_told_and_is_marked() {
        let m = told("Put the cover on.\n\n[1:20] Put the tray in.\n\n[1:40] Put the fan in.");
        let steps = fold(&m).rebuild;
        let marked: Vec<(&str, bool)> = steps.iter().map(|s| (s.title.as_str(), s.moved.is_some())).collect();
        assert_eq!(marked, [("Fit the cover", true), ("Fit the tray", false), ("Fit the fan", false)]);
    }

    #[test]
    fn what_is_worked_out_says_so_beside_what_is_told() {
        let all = fold(&told("Put the fan in.")).rebuild;
        let connect = all[1].lines.iter().find(|l| l.text == "Connect the fan.").unwrap();
        assert_eq!(connect.because.as_deref(), Some("Not told: the reverse of step 2."));
    }

    #[test]
    fn a_told_step_faces_the_one_that_it_undoes() {
        let m = told("Put the tray in.\n\n[1:20] Put the fan in. Connect the fan cable.");
        let numbers: Vec<Option<usize>> = fold(&m).rebuild.iter().map(|s| s.of_number).collect();
        assert_eq!(numbers, [Some(3), Some(2), Some(1)]);
        let steps = fold(&m).rebuild;
        assert!(steps[1].told.is_some() && steps[1].connectors.len() == 1 && steps[1].groups.len() == 1);
    }

    #[test]
    fn words_of_an_author_stand_as_they_are() {
        let m = told("Put the cover on. Drive in the four screws of the cover.");
        let step = m.steps_in(Phase::Rebuild)[0];
        let drive = step.actions.iter().find(|a| a.act == Act::Drive).unwrap().id;
        let field = SentenceField::Text(Some("Screws in, crosswise.".into()));
        let edit = StepEdit::Sentence { id: step.id, sentence: SentenceEdit::Set { id: drive, field } };
        let m = m.apply(&Edit::Step(edit), "Ann").unwrap().0;
        assert!(rebuilt(&m).iter().any(|s| s.ends_with("Screws in, crosswise.")), "{:?}", rebuilt(&m));
    }

    #[rstest]
    #[case::open("Put the fan in. Connect the fan cable.", &["Hold the device steady and clear of metal; touch nothing inside it while it is live.", "Switch on the lamp.", "Switch it off again and cut the power before you go on."])]
    fn a_trial_under_power_is_held_and_ended(#[case] before: &str, #[case] wanted: &[&str]) {
        let m = told(&format!("{before}\n\n[1:20] Switch on the lamp.\n\n[1:30] Put the cover on."));
        let on = m.steps_in(Phase::Rebuild).into_iter().find(|s| s.actions.iter().any(|a| a.act == Act::PowerOn));
        let id = on.expect("it is told").id;
        let set = |trial| Edit::Step(StepEdit::Set { id, field: StepField::Trial(trial) });
        let lines = |m: &Manual| -> Vec<String> {
            let all = fold(m).rebuild;
            let step = all.into_iter().find(|s| s.told == Some(id)).unwrap();
            step.lines.into_iter().map(|l| l.text).collect()
        };
        let trial = m.apply(&set(true), "Ann").unwrap().0;
        assert_eq!(lines(&trial), wanted);
        // Whatever the step is called: the device is open.
        let plain = m.apply(&set(false), "Ann").unwrap().0;
        assert_eq!(lines(&plain), wanted);
    }

    #[rstest]
    #[case::while_open("Switch on the lamp.\n\n[1:40] Put the cover on.", true)]
    #[case::when_closed("Put the cover on.\n\n[1:40] Switch on the lamp.", false)]
    fn power_is_back_for_good_only_when_all_is_closed(#[case] words: &str, #[case] again: bool) {
        let m = manual(&format!("[0:00] Switch off the lamp.\n\n{}[1:30] {words}", APART.replace("[0:00]", "[0:10]")));
        let lines = rebuilt(&m);
        assert_eq!(lines.last().is_some_and(|l| l == "+ Switch on and test."), again, "{lines:?}");
    }

    #[test]
    fn what_stays_out_is_not_driven_because_it_was_told() {
        let m = told("Put the cover on. Drive in the four screws of the cover.");
        let group = m.fasteners.values().find(|g| g.count == Some(4)).unwrap().id;
        let field = FastenerField::Fate(FastenerFate::LeaveOut);
        let m = m.apply(&Edit::Fastener(FastenerEdit::Set { id: group, field }), "Ann").unwrap().0;
        assert_eq!(rebuilt(&m).last().map(String::as_str), Some("Put the cover on."));
    }

    #[rstest]
    #[case(&[Some(0), Some(1), Some(2)], &[true, true, true])]
    #[case(&[Some(2), Some(0), Some(1)], &[false, true, true])]
    #[case(&[None, Some(3), None, Some(3)], &[false, true, false, true])]
    #[case(&[], &[])]
    fn the_longest_row_that_never_falls(#[case] places: &[Option<usize>], #[case] marked: &[bool]) {
        assert_eq!(longest_rising(places), marked);
    }
}
