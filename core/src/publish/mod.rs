//! Publishing: the guide as its reader sees it, and the formats it goes out in.
//!
//! A guide has one skeleton, [`Guide`]: sections of blocks, each of a kind that every format knows how to set. The page and
//! the Markdown are made from it, and so will be any later format, so that what a reader of one is told, readers of all
//! are told.

mod around;
mod cables;
mod care;
mod markdown;
mod schema;
mod screws;
mod steps;
mod withheld;

pub use cables::{CableSheetRow, SheetRoutes};
pub use markdown::markdown;
pub use schema::manual_schema;
pub use screws::{SheetLayer, SheetRow};

use crate::cautions::CautionHead;
use crate::effort::Heard;
use crate::ids::*;
use crate::labels;
use crate::manual::{Manual, NoteKind, Phase, Step, ToolChoice};
use crate::reading::{Consumable, Drive};
use crate::rebuild::{self, Fold};
use crate::seams::opening::PlanLine;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// The guide as its reader sees it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Guide {
    pub title: String,
    pub device: String,
    /// In the order of the page; none is empty.
    pub sections: Vec<Section>,
    pub fold: Fold,
}

/// A chapter.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Section {
    pub title: String,
    pub blocks: Vec<Block>,
}

/// Something that is set as one.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Block {
    /// A warning in a frame.
    Caution(CautionBlock),
    /// One of a list.
    Item(String),
    Text(String),
    /// A stage of the work begins; no step.
    Stage(String),
    Step(StepBlock),
    /// The table of all screws.
    Screws(Vec<SheetRow>),
    /// The table of all connectors.
    Cables(Vec<CableSheetRow>),
    /// The map of a layer's holes.
    Map(SheetLayer),
    /// How cables run on a layer.
    Routes(SheetRoutes),
}

/// A warning that stands in no step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CautionBlock {
    pub head: CautionHead,
    pub text: String,
}

/// One step, or another guide in the place of some.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StepBlock {
    /// "4", or "1–3" where a guide stands for several.
    pub number: String,
    pub title: String,
    /// The step of the teardown that this is, or that it undoes.
    pub step: Option<StepId>,
    /// The guide that readers are sent to.
    pub guide: Option<JobId>,
    /// What must be read before, first.
    pub lines: Vec<StepLine>,
    /// How its joints open, where an author has put that on an outline.
    pub opens: Vec<OpeningSheet>,
}

/// How one joint opens, beside its picture.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OpeningSheet {
    pub seam: SeamId,
    /// "How the rear cover opens".
    pub title: String,
    pub lines: Vec<PlanLine>,
}

/// One line of a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StepLine {
    pub kind: LineKind,
    pub text: String,
    /// The drive whose profile is drawn, on lines of screws.
    pub drive: Option<Drive>,
    /// How loudly a caution speaks, of what, and what happens.
    pub head: Option<CautionHead>,
}

/// What a line of a step is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LineKind {
    /// The variants it holds for.
    Variants,
    /// Which way up the device lies.
    Posture,
    Caution,
    /// Something to do.
    Act,
    Screws,
    Heat,
    Connector,
    /// In which order screws are turned, with the numbers of the map.
    Order,
    /// What to do if something goes another way.
    Branch,
    Note,
    /// Why it is done so, or here.
    Why,
    /// What must be seen, felt, read or tried before one goes on.
    Check,
}

labels!(LineKind {
    Variants: "Only for",
    Posture: "The device lies",
    Caution: "Caution",
    Act: "Do",
    Screws: "Screws",
    Heat: "Heat",
    Connector: "Unplug",
    Order: "In this order",
    Branch: "If",
    Note: "Note",
    Why: "Why",
    Check: "Check",
});

/// Works out the guide of a manual, or of what a job cut from it. Work that belongs to others is left out, and said so.
pub fn guide(whole: &Manual) -> Guide {
    guide_heard(whole, &Heard::new())
}

/// The same, with the times that the recordings show.
pub fn guide_heard(whole: &Manual, heard: &Heard) -> Guide {
    let withheld::Open { manual, stops } = withheld::open(whole);
    let manual = &*manual;
    let fold = rebuild::fold_heard(manual, heard);
    let around = |kind| section(kind_title(kind), items(around::notes(manual, kind)));
    let mut sections = vec![
        section(
            "Before you begin",
            care::gates(whole)
                .into_iter()
                .chain(care::unreviewed(manual))
                .chain(care::care(manual))
                .map(Block::Caution)
                .chain(items(care::prepared(manual)))
                .collect(),
        ),
        section("Which one is yours", items(around::variants(manual))),
    ];
    sections.extend([NoteKind::Before, NoteKind::Bound, NoteKind::Lost, NoteKind::Harmless].map(around));
    sections.extend([
        section("To order", items(around::orders(manual, &fold))),
        section("The new part", items(around::swapped(manual, &fold))),
        section("Tools", items(tools(manual).iter().map(|t| with_bits(manual, t)).collect())),
        section("Materials", items(materials(manual))),
        section("Taking apart", withheld::with_stops(steps::teardown(manual), stops)),
        section("Putting together", {
            let first = care::on_the_way_back(manual, &fold).into_iter().map(Block::Caution);
            first.chain(steps::rebuild(manual, &fold)).collect()
        }),
        section("Screws", screws::blocks(manual, &fold.balance)),
        section("Cables", cables::blocks(manual)),
        around(NoteKind::MustPass),
    ]);
    sections.retain(|s| !s.blocks.is_empty());
    Guide { title: manual.head.title.clone(), device: manual.head.device.clone(), sections, fold }
}

fn section(title: &str, blocks: Vec<Block>) -> Section {
    Section { title: title.to_owned(), blocks }
}

fn items(lines: Vec<String>) -> Vec<Block> {
    lines.into_iter().map(Block::Item).collect()
}

/// The heading over notes of a kind.
fn kind_title(kind: NoteKind) -> &'static str {
    crate::labels::Label::phrase(kind)
}

fn tools(manual: &Manual) -> Vec<String> {
    let all: BTreeMap<String, String> =
        manual.steps.values().flat_map(tools_of).map(|t| (t.to_lowercase(), t)).collect();
    all.into_values().collect()
}

/// A driver with the bits that this guide takes: "PH cross screwdriver: PH0, PH1".
fn with_bits(manual: &Manual, tool: &str) -> String {
    let turns = <Drive as crate::labels::Label>::ALL
        .iter()
        .find(|d| Drive::tool_words(&format!("{} screwdriver", d.name())) == tool);
    let Some(drive) = turns else { return tool.to_owned() };
    let all = crate::fasteners::bits::bits(manual).bits;
    let sized: BTreeSet<String> = all.into_iter().filter(|b| b.drive == Some(*drive)).map(|b| b.name).collect();
    let sized: Vec<String> = sized.into_iter().filter(|b| b.chars().any(|c| c.is_ascii_digit())).collect();
    if sized.is_empty() { tool.to_owned() } else { format!("{tool}: {}", sized.join(", ")) }
}

/// What one takes in hand, with "spudger or pick" where one of several does.
fn tools_of(step: &Step) -> Vec<String> {
    step.tools.iter().cloned().chain(step.choices.iter().map(ToolChoice::words)).collect()
}

fn materials(manual: &Manual) -> Vec<String> {
    let all: BTreeSet<Consumable> = manual.steps.values().flat_map(|s| s.consumables.iter().copied()).collect();
    all.into_iter().map(|c| with_amount(manual, c.name())).collect()
}

/// A material with how much of it is laid out: "adhesive, 20 cm".
fn with_amount(manual: &Manual, name: &str) -> String {
    let amount = manual.kit.values().find(|t| t.name.eq_ignore_ascii_case(name)).and_then(|t| t.amount.as_deref());
    amount.map_or_else(|| name.to_owned(), |amount| format!("{name}, {amount}"))
}

/// The steps of the teardown, in their order.
fn teardown_steps(manual: &Manual) -> Vec<&Step> {
    manual.steps_in(Phase::Teardown)
}

#[cfg(test)]
mod tests;
