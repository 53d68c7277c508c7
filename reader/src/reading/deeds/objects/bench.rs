//! What is on the bench while the narration goes on: what is out, what is in work, what was named.
//!
//! The state decides what words mean: a part that is off cannot leave again, screws that go in were out, "it" is in work.

use super::super::super::facts::Drive;
use super::super::super::lexicon::lemma;
use super::super::names::is_cable;
use crate::units::Measure;
use std::collections::{BTreeMap, BTreeSet};

/// The driver that was named last.
#[derive(Debug)]
pub(super) struct Driver {
    pub sentence: usize,
    pub drive: Drive,
    pub bit: Option<String>,
    /// It was taken, or named while work went on; what is on a list is in nobody's hand.
    pub in_hand: bool,
}

/// What is on the bench while the narration goes on.
#[derive(Debug, Default)]
pub(super) struct Bench {
    /// Parts that are out, by name.
    pub out: Vec<String>,
    /// The part in work.
    pub at: Option<String>,
    /// "The bracket's got to go.": announced last, and not yet off.
    pub due: Option<String>,
    /// The sentence that announced it.
    pub due_at: usize,
    /// Lids that stand open and hang on, by name.
    pub opened: BTreeSet<String>,
    /// What was unplugged and not plugged in since, by name.
    pub unplugged: Vec<String>,
    /// Latches and locks that were opened, by their last word: the one opened last.
    pub released: BTreeMap<String, String>,
    /// The whole device was plugged in.
    pub live: bool,
    /// What was soldered off, by name.
    pub desoldered: Vec<String>,
    /// What the heading right before names, with its sentence.
    pub headed: Option<(usize, String)>,
    /// What was plugged in last.
    pub connected: Option<String>,
    /// The last cable or plug.
    pub plug: Option<String>,
    /// Screws and latches told before the thing that they hold: places in the list of deeds.
    pub waiting: Vec<usize>,
    /// What screws were undone of, and how many where that was told.
    pub unscrewed: BTreeMap<String, Option<u32>>,
    /// What screws were driven of since.
    pub driven: BTreeSet<String>,
    /// The sentence in which screws were undone that hold nobody knows what.
    pub undone: Option<usize>,
    pub power_trial: bool,
    /// Temperatures that a heater was set to, until it heats something.
    pub warmth: Vec<Measure>,
    /// The only drive of the whole recording, and the one named last.
    pub only_driver: Option<Drive>,
    pub driver: Option<Driver>,
    /// The only drive of the list of tools.
    pub listed: Option<Drive>,
    /// What came off last: "the new one" takes its place.
    pub last_out: Option<String>,
    /// Full names by their last word: "board" is the main board where only one board was named.
    pub full: BTreeMap<String, BTreeSet<String>>,
    /// The whole name heard last for a last word, with its sentence: "That leaves the camera module."
    pub whole: BTreeMap<String, (usize, String)>,
    /// Whole names by their last word, where the whole recording has but one: "module" is the camera module.
    pub only: BTreeMap<String, String>,
    /// The sentence that is being settled.
    pub sentence: usize,
    /// Last words of everything named so far.
    pub named: BTreeSet<String>,
    /// What went in last: screws that go in behind it are its own.
    pub fitted: Option<String>,
    /// What screws were driven of last.
    pub driven_last: Option<String>,
    /// What the last screws held.
    pub screws: Option<String>,
    /// The last word of the title's first thing: "fan" of "Desk fan with lamp".
    pub titled: Option<String>,
    /// The title in small letters.
    pub title: String,
    /// The device itself, as first named.
    pub device: Option<String>,
    /// Plugs that were shown and are still to be named, with the last sentence of the row before and its segment after.
    pub row: Option<(usize, u32, usize)>,
    /// The sentence that pulled or made a plug of which nobody said whose it is, and its place in the list of deeds.
    pub unowned: Option<(usize, usize)>,
    /// What was warmed last, with the sentence: what holds it is soft, so that it is parted next.
    pub warmed: Option<(usize, String)>,
}

impl Bench {
    /// Learns the whole names that a sentence speaks of.
    pub fn hear(&mut self, number: usize, whole: &[String]) {
        self.sentence = number;
        for name in whole {
            let last = name.rsplit(' ').next().unwrap_or(name);
            self.whole.insert(lemma(last).to_string(), (number, name.clone()));
        }
    }

    /// It left, or its screws or its plug did.
    pub fn is_off(&self, name: &String) -> bool {
        self.out.contains(name) || self.unscrewed.contains_key(name) || self.unplugged.contains(name)
    }

    /// What was unplugged and is called so: "the coil" after the coil cable was pulled.
    pub fn pulled(&self, name: &str) -> Option<&String> {
        let served = |w: &str| w.split(' ').filter(|w| !is_cable(w)).map(|w| lemma(w).to_string()).collect::<Vec<_>>();
        let meant = served(name);
        let exact = self.unplugged.iter().find(|w| w.as_str() == name);
        exact.or_else(|| self.unplugged.iter().find(|w| !meant.is_empty() && served(w) == meant))
    }

    /// Puts the only full name known in the place of its last word, and learns full names.
    pub fn full_name(&mut self, name: &mut String) {
        match name.rsplit_once(' ') {
            Some((_, last)) => {
                let last = lemma(last).to_string();
                self.full.entry(last).or_default().insert(name.clone());
            }
            // "Next, the charging board. … The board comes away.": what is in work.
            None if let Some(at) = self.at.as_ref().filter(|at| at.ends_with(&format!(" {name}"))) => {
                name.clone_from(at)
            }
            // "the remaining connectors": several, and no one's.
            None if lemma(name) != name.as_str() && self.full.contains_key(lemma(name).as_str()) => {}
            None => {
                let head = lemma(name);
                let known = self.full.get(head.as_str()).filter(|full| full.len() == 1);
                let known = known.and_then(|k| k.first());
                let one_of_it = |w: &String| w.ends_with(name.as_str());
                let recent = || self.whole.get(head.as_str()).filter(|(at, w)| self.sentence - at <= 3 && one_of_it(w));
                let heard = || recent().map(|(_, w)| w);
                let only = || self.only.get(head.as_str()).filter(|w| one_of_it(w));
                match known.or_else(heard).or_else(only) {
                    Some(full) => name.clone_from(full),
                    // A device has one main board, and only that one goes without a name.
                    None if name == "board" => "main board".clone_into(name),
                    None => {}
                }
            }
        }
    }
}
