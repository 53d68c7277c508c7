//! Sixth pass: clauses to typed facts.
//!
//! One file a kind of fact. Each looks at one sentence and the little that is remembered of those before it (what was
//! last spoken of, what the last screws held, which drive was in hand), because narrators say "pull that one out", "the
//! same driver" and "three more".

mod cautions;
mod connectors;
mod fasteners;
mod heat;
mod needs;
mod parts;
mod pronouns;
mod tools;

pub(super) use cautions::{Warning, about, named_hazard, warnings};
pub(super) use fasteners::{aloud, drive_near, each_side};
pub(super) use heat::{measures as settings, speaks as speaks_of_heat};
pub(super) use needs::{chain, needs};
pub(super) use tools::{bits_named, is_whole_list, list_opener, named as tools_named};

use super::act::Act;
use super::clauses::Clause;
use super::facts::{ActFact, ConnectorOp, Drive, Facts, FastenerOp, PartOp};
use super::phrases::NounPhrase;
use super::quantities::{self, Quantified, Said};
use super::sentences::Sentence;
use super::tags::Tagged;
use crate::units::Unit;
use std::collections::HashMap;

/// What carries over from sentence to sentence.
#[derive(Debug, Clone, Default)]
pub(super) struct Memory {
    pub rebuild: bool,
    /// The thing last acted on or spoken of, for "it" and "that".
    pub focus: Option<NounPhrase>,
    /// The same for "them" and "those".
    pub focus_plural: Option<NounPhrase>,
    pub focus_part: Option<NounPhrase>,
    cue: Option<usize>,
    /// The last part named in the segment, for screws that are told without what they hold.
    pub last_part: Option<String>,
    /// The last part acted on, with the cue it was in.
    pub acted_in_cue: Option<(usize, String)>,
    pub last_drive: Option<(Drive, Option<String>)>,
    /// The last connection whose device was named, with the cue it stood in.
    pub served: Option<(usize, String)>,
    /// The part that was last spoken of in a leading place.
    pub topic: Option<String>,
    /// The part that a sentence only told of, with its cue; whatever is handled next takes its place.
    pub told: Option<(usize, String)>,
    /// What was disconnected so far.
    pub unplugged: Vec<String>,
    pub last_part_op: Option<PartOp>,
    pub last_connector_op: Option<ConnectorOp>,
    /// Whether the last act was on a connection rather than a part.
    pub last_was_connector: bool,
    pub screws: Screws,
    /// What the sentence before spoke of that can be harmed or do harm, with its cue.
    pub hazard: Option<(usize, super::facts::CautionSubject)>,
    /// Heads of the parts taken off so far.
    pub removed: HashMap<String, usize>,
    /// Heat was spoken of in this cue: its source and place.
    pub heat_cue: Option<usize>,
    pub heat_target: Option<String>,
    pub heat_source: Option<super::facts::HeatSource>,
    /// The whole device was laid on what heats, in this cue.
    pub device_warmed: Option<usize>,
    /// A heating pad was named, so a mere "pad" in talk of heat is that.
    pub heating_pad: bool,
    /// The last unit that was said or meant, with the number of its sentence.
    pub unit: Option<(usize, Unit)>,
    /// Cards were named as tools, so "push the card in" fits no part.
    pub cards: bool,
}

impl Memory {
    /// A new paragraph speaks of parts again: "lift it out" means none of the cables told before.
    fn enter(&mut self, cue: usize) {
        if self.cue == Some(cue) {
            return;
        }
        self.cue = Some(cue);
        self.focus_plural = None;
        if self.focus.as_ref().is_some_and(|f| f.thing != super::phrases::Thing::Part) {
            self.focus = self.focus_part.clone();
        }
    }
}

/// What is remembered of the screws last spoken of.
#[derive(Debug, Clone, Default)]
pub(super) struct Screws {
    pub cue: Option<usize>,
    pub sentence: usize,
    pub what: Option<String>,
    pub drive: Option<(Drive, Option<String>)>,
    pub op: Option<FastenerOp>,
    pub count: Option<u32>,
    pub captive: bool,
    /// A length in this cue was said with its unit, so a bare figure may be one too.
    pub sized: bool,
    /// What captive screws were loosened of, by what they hold.
    pub loosened: Vec<String>,
    /// The last count of a whole, and how many of it were given by groups since.
    pub total: Option<u32>,
    pub given: u32,
    /// Only announced ("there are four screws"), not yet told to be turned.
    pub announced: bool,
}

/// What kind of sentence the facts are looked for in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Ground {
    Work,
    /// A list of tools, a chain told, a warning: things are named but nothing is done.
    Told,
}

/// One sentence with everything the extractors need of it.
pub(super) struct Scene<'t, 'a> {
    pub t: &'t Tagged<'a>,
    pub clauses: &'t [Clause],
    pub quantities: &'t [Quantified],
    pub cue: usize,
    pub number: usize,
}

impl Scene<'_, '_> {
    pub fn words(&self) -> &[&str] {
        &self.t.words
    }

    pub fn clause_at(&self, at: usize) -> Option<&Clause> {
        self.clauses.iter().find(|c| (c.from..c.to).contains(&at))
    }
}

pub(super) fn extract(
    sentence: &Sentence,
    number: usize,
    t: &Tagged<'_>,
    clauses: &[Clause],
    ground: Ground,
    memory: &mut Memory,
) -> Facts {
    let before = memory.unit.filter(|(n, _)| number <= n + 1).map(|(_, unit)| unit);
    let said = Said { words: &t.words, pauses: &t.pause };
    let quantities = quantities::meant(said, before, heat::speaks(&t.words));
    memory.unit = quantities.last().map(|q| (number, q.unit)).or(memory.unit);
    memory.enter(sentence.tokens[0].cue);
    let clauses = pronouns::resolve(t, clauses, memory);
    let scene = Scene { t, clauses: &clauses, quantities: &quantities, cue: sentence.tokens[0].cue, number };
    let mut facts = Facts { tools: tools::tools(&scene), consumables: tools::consumables(t), ..Facts::default() };
    memory.cards |= facts.tools.iter().any(|t| t == "opening pick");
    let heating = heat::spoken(scene.words(), scene.cue, memory);
    facts.measures = heat::measures(&quantities, &t.words, heating);
    facts.heat = heat::heat(&scene, &facts.tools, ground, memory);
    if ground == Ground::Work {
        facts.acts = acts(sentence, &clauses);
        facts.parts = parts::parts(&scene, memory);
        facts.connectors = connectors::connectors(&scene, memory);
        facts.fasteners = fasteners::fasteners(&scene, memory);
    }
    pronouns::remember(&scene, memory);
    facts
}

fn acts(sentence: &Sentence, clauses: &[Clause]) -> Vec<ActFact> {
    clauses
        .iter()
        .filter(|c| c.is_plain())
        .filter_map(|c| {
            let act = c.act?;
            Some(ActFact {
                act,
                objects: c.objects.iter().filter(|o| o.known() || o.is_part()).map(NounPhrase::text).collect(),
                start: sentence.tokens[c.from].start,
                end: sentence.tokens[c.to - 1].end,
            })
        })
        .collect()
}

pub(super) fn mentions(words: &[&str], phrase: &[&str]) -> bool {
    words.windows(phrase.len()).any(|w| w == phrase)
}

/// Where something is only laid or kept, never fitted.
pub(super) fn is_surface(np: &NounPhrase) -> bool {
    const SURFACES: [&str; 34] = [
        "pad",
        "mat",
        "table",
        "bench",
        "cup",
        "towel",
        "cloth",
        "pile",
        "dish",
        "hand",
        "heap",
        "bowl",
        "bottle cap",
        "lid of something",
        "side",
        "fixture",
        "cradle",
        "jig",
        "something",
        "floor",
        "surface",
        "tray of",
        "row",
        "place",
        "box",
        "bag",
        "face",
        "mug",
        "desk",
        "container",
        "stack",
        "magnet",
        "ground",
        "way",
    ];
    let text = np.text();
    SURFACES.iter().any(|s| text == *s || text.ends_with(&format!(" {s}"))) || np.thing == super::phrases::Thing::Tool
}

/// Verbs that lay or push a part in its place when the talk is of putting together.
pub(super) fn places_things(clause: &Clause) -> bool {
    clause.does(Act::Place)
        && matches!(
            clause.base,
            "place"
                | "lay"
                | "put"
                | "set"
                | "slide"
                | "push"
                | "align"
                | "drop"
                | "hook"
                | "position"
                | "move"
                | "rotate"
                | "turn"
                | "bring"
        )
}
