//! What a step does, as the catalogue of hazards asks for it: acts on things, with tools, at settings, in a state of power.
//!
//! Each is worked out once for a step, and every hazard looks at the same.

use crate::cables::power::{PowerLine, line};
use crate::ids::*;
use crate::manual::{Action, Manual, NoteKind, Part, Phase, Step};
use crate::power::{discharges, unplugs};
use crate::reading::Act;
use crate::things::{Gate, gate, is_lithium, is_mains};
use crate::units::{Quantity, in_celsius};
use std::collections::BTreeMap;
use std::rc::Rc;

/// One step with what is known around it.
pub struct Scene<'m> {
    pub manual: &'m Manual,
    pub step: &'m Step,
    /// In its half, from 1.
    pub number: usize,
    /// The device hangs on the mains, by a part or because somebody unplugs it.
    pub on_mains: bool,
    /// All that it works at.
    names: Vec<Name<'m>>,
    /// The line that the device itself is behind, with what says so.
    device: Option<(Gate, &'m str)>,
    /// Tools and materials, between single spaces.
    tools: Spaced,
    /// Its sentences in small letters, between single spaces.
    told: Spaced,
    /// What is on and touched, in words.
    live: Option<String>,
    /// A cell that is in the device meanwhile.
    cell: Option<&'m str>,
    /// Charge was let out, waited for or measured before.
    discharged: bool,
}

/// What a name tells, worked out once for all hazards.
#[derive(Clone)]
struct Name<'m> {
    /// As it is written.
    text: &'m str,
    /// In small letters between single spaces.
    spaced: Rc<Spaced>,
    gate: Option<Gate>,
}

/// Every name that came up so far: a part stands in many steps.
type Known<'m> = BTreeMap<&'m str, Name<'m>>;

impl<'m> Name<'m> {
    fn of(text: &'m str, known: &mut Known<'m>) -> Self {
        known.entry(text).or_insert_with(|| Self { text, spaced: Rc::new(Spaced::new(text)), gate: gate(text) }).clone()
    }
}

/// Every step of both halves, in the order of the work. O(steps × parts).
pub fn scenes(manual: &Manual) -> Vec<Scene<'_>> {
    let power = line(manual);
    let on_mains =
        power.sources.iter().any(|s| s.name == "mains lead") || manual.parts.values().any(|p| is_mains(&p.name));
    let [apart, back] = [Phase::Teardown, Phase::Rebuild].map(|phase| manual.steps_in(phase));
    let cells = Cells::of(manual, &apart, &back);
    let device = [&manual.head.device, &manual.head.title].into_iter().find_map(|n| Some((gate(n)?, n.as_str())));
    let (mut unplugged, mut discharged) = (false, false);
    let mut known = Known::new();
    let mut out = Vec::with_capacity(apart.len() + back.len());
    for (at, step) in apart.iter().chain(&back).enumerate() {
        let (number, live) = match at.checked_sub(apart.len()) {
            None => (at + 1, live(&power, at)),
            Some(at) => (at + 1, None),
        };
        let cell = cells.inside(at);
        out.push(Scene { number, on_mains, device, discharged, live, cell, ..Scene::of(manual, step, &mut known) });
        unplugged |= unplugs(step);
        discharged |= lets_charge_out(manual, step, unplugged);
    }
    out
}

/// Whether a step lets stored charge out, or waits for it or measures it once the plug is pulled. Waiting for heat or glue
/// lets nothing out.
fn lets_charge_out(manual: &Manual, step: &Step, unplugged: bool) -> bool {
    let does = |acts: &[Act]| step.actions.iter().any(|a| acts.contains(&a.act));
    let warms = does(&[Act::Heat, Act::Apply, Act::Press]) || manual.heats_of(step.id).next().is_some();
    discharges(step) || unplugged && !warms && does(&[Act::Wait, Act::Measure])
}

fn live(power: &PowerLine, at: usize) -> Option<String> {
    let (row, on) = power.live().find(|(row, _)| row.number == at + 1)?;
    let on: Vec<&str> = on.iter().map(|s| s.name.as_str()).collect();
    Some(format!("works at {} while the {} is on", row.touches.as_deref()?, on.join(" and the ")))
}

/// When each cell leaves and comes back, by the places of the steps of both halves.
struct Cells<'m> {
    all: Vec<(&'m str, Option<usize>, Option<usize>)>,
}

impl<'m> Cells<'m> {
    fn of(manual: &'m Manual, apart: &[&Step], back: &[&Step]) -> Self {
        let mut at: BTreeMap<(PartId, Act), usize> = BTreeMap::new();
        for (n, step) in apart.iter().chain(back).enumerate() {
            for action in step.actions.iter().filter(|a| matches!(a.act, Act::Remove | Act::Install)) {
                for part in &action.parts {
                    at.entry((*part, action.act)).or_insert(n);
                }
            }
        }
        let when = |id, act| at.get(&(id, act)).copied();
        let all: Vec<_> = manual.parts.values().filter(|p| is_lithium(&p.name)).collect();
        // The battery that a cable serves is the battery pack that leaves, where nobody takes out both.
        let leaves = |p: &Part| when(p.id, Act::Remove).is_some();
        let goes_by_another_name = |p: &Part| {
            let longer = |a: &str, b: &str| a.strip_prefix(b).is_some_and(|rest| rest.starts_with(' '));
            let same = |q: &Part| longer(&q.name, &p.name) || longer(&p.name, &q.name);
            !leaves(p) && all.iter().any(|q| leaves(q) && same(q))
        };
        let cells = all.iter().filter(|p| !goes_by_another_name(p));
        Self { all: cells.map(|p| (p.name.as_str(), when(p.id, Act::Remove), when(p.id, Act::Install))).collect() }
    }

    /// One that is in the device when a step is done.
    fn inside(&self, at: usize) -> Option<&'m str> {
        let there = |out: Option<usize>, back: Option<usize>| {
            out.is_none_or(|out| at <= out || back.is_some_and(|back| at >= back))
        };
        self.all.iter().find(|(_, out, back)| there(*out, *back)).map(|(name, ..)| *name)
    }
}

impl<'m> Scene<'m> {
    fn of(manual: &'m Manual, step: &'m Step, known: &mut Known<'m>) -> Self {
        let sentences: Vec<String> = step.actions.iter().map(|a| manual.sentence(a)).collect();
        let by = step.actions.iter().filter_map(|a| a.roles.by.as_deref());
        let materials = step.consumables.iter().map(|c| c.name());
        let choices = step.choices.iter().map(|c| c.words());
        let heated = manual.heats_of(step.id).filter_map(|h| h.source).map(|s| s.name().to_owned());
        let tools: Vec<String> = step
            .tools
            .iter()
            .map(String::as_str)
            .chain(by)
            .chain(materials)
            .map(str::to_owned)
            .chain(choices)
            .chain(heated)
            .collect();
        Self {
            manual,
            step,
            number: 0,
            on_mains: false,
            names: manual.worked_at(step).map(|name| Name::of(name, known)).collect(),
            device: None,
            tools: Spaced::new(&tools.join(" , ")),
            told: Spaced::new(&sentences.join(" , ")),
            live: None,
            cell: None,
            discharged: false,
        }
    }

    /// The first thing it works at that is so.
    pub fn at(&self, is: impl Fn(&str) -> bool) -> Option<&'m str> {
        self.names.iter().map(|n| n.text).find(|n| is(n))
    }

    /// The first thing it works at with one of these words in its name.
    pub fn named(&self, words: &[&str]) -> Option<&'m str> {
        self.names.iter().find(|n| n.spaced.has_any(words)).map(|n| n.text)
    }

    pub fn does(&self, acts: &[Act]) -> bool {
        self.step.actions.iter().any(|a| acts.contains(&a.act))
    }

    /// The first thing that one of these acts is done to and that is so.
    pub fn does_to(&self, acts: &[Act], is: impl Fn(&str) -> bool) -> Option<&'m str> {
        let done = self.step.actions.iter().filter(|a| acts.contains(&a.act));
        done.flat_map(|a| self.things(a)).find(|n| is(n))
    }

    fn things(&self, action: &'m Action) -> impl Iterator<Item = &'m str> {
        let parts = action.parts.iter().map(|p| self.manual.part_name(*p));
        let held = action.roles.groups.iter().filter_map(|g| self.manual.fasteners.get(g));
        let held = held.flat_map(|g| &g.holds).map(|p| self.manual.part_name(*p));
        parts.chain(held).chain(action.roles.things.iter().map(String::as_str))
    }

    /// Whether it takes up a tool or material with one of these words in its name.
    pub fn tool(&self, words: &[&'static str]) -> Option<&'static str> {
        words.iter().copied().find(|w| self.tools.has(w))
    }

    /// Whether its sentences, tools or things say one of these.
    pub fn says(&self, words: &[&'static str]) -> Option<&'static str> {
        words.iter().copied().find(|w| self.told.has(w) || self.tools.has(w))
    }

    /// The hottest setting, in °C.
    pub fn hottest_c(&self) -> Option<f64> {
        let set = self.manual.heats_of(self.step.id).filter_map(|h| h.temperature).map(|t| in_celsius(t.high));
        set.max_by(f64::total_cmp)
    }

    /// Heat is applied: a setting, or an act.
    pub fn heats(&self) -> bool {
        self.does(&[Act::Heat]) || self.manual.heats_of(self.step.id).next().is_some()
    }

    /// A cell that is in the device meanwhile.
    pub fn cell_inside(&self) -> Option<&'m str> {
        self.cell
    }

    /// What it touches while something is on, in words.
    pub fn live(&self) -> Option<&str> {
        self.live.as_deref()
    }

    pub fn is_discharged(&self) -> bool {
        self.discharged
    }

    pub fn is_rebuild(&self) -> bool {
        self.step.phase == Phase::Rebuild
    }

    /// What it works at behind a line that only licensed people cross; of some devices that is all.
    pub fn behind(&self, line: Gate) -> Option<&'m str> {
        let part = self.names.iter().find(|n| n.gate == Some(line)).map(|n| n.text);
        part.or_else(|| self.device.filter(|(gate, _)| *gate == line).map(|(_, name)| name))
    }

    /// Damage that was there on arrival and tells one of these.
    pub fn arrived(&self, words: &[&str]) -> bool {
        self.manual.notes_of(NoteKind::Damage).any(|n| told(&n.text, words))
    }

    /// The heaviest mass that it tells of, in kg.
    pub fn mass_kg(&self) -> Option<f64> {
        let all = self.step.actions.iter().flat_map(|a| &a.roles.measures);
        let masses = all.filter(|m| m.quantity == Quantity::Mass).map(|m| m.to.unwrap_or(m.value) / 1000.0);
        masses.max_by(f64::total_cmp)
    }
}

/// A text as it is searched: small letters and figures with single spaces between and around them, and which letters its
/// words begin with. It is asked for dozens of words for each step and hazard, and most begin with a letter that none has.
#[derive(Debug)]
struct Spaced {
    text: String,
    /// A bit for each first byte, by its lower six bits.
    begins: u64,
}

impl Spaced {
    fn new(text: &str) -> Self {
        let mut out = String::with_capacity(text.len() + 2);
        out.push(' ');
        for c in text.chars() {
            if c.is_alphanumeric() {
                out.extend(c.to_lowercase());
            } else if !out.ends_with(' ') {
                out.push(' ');
            }
        }
        if !out.ends_with(' ') {
            out.push(' ');
        }
        let begins = out.as_bytes().windows(2).filter(|w| w[0] == b' ').fold(0, |all, w| all | bit(w[1]));
        Self { text: out, begins }
    }

    /// Whether it has this word or phrase.
    fn has(&self, word: &str) -> bool {
        let (text, word) = (self.text.as_bytes(), word.as_bytes());
        let Some(first) = word.first().filter(|b| self.begins & bit(**b) != 0) else { return false };
        let begins = |at: &usize| text[*at] == b' ' && text[at + 1] == *first;
        let ends = |at: usize| text.get(at + 1 + word.len()) == Some(&b' ');
        (0..text.len() - 1).filter(begins).any(|at| ends(at) && text[at + 1..].starts_with(word))
    }

    fn has_any(&self, words: &[&str]) -> bool {
        words.iter().any(|w| self.has(w))
    }
}

fn bit(byte: u8) -> u64 {
    1 << (byte & 63)
}

/// Whether words of a person say one of these.
pub fn told(text: &str, words: &[&str]) -> bool {
    Spaced::new(text).has_any(words)
}
