//! Publishing: the guide as its reader sees it, what remains before that, and the formats it goes out in.

mod around;
mod markdown;
mod schema;
mod screws;

pub use markdown::markdown;
pub use schema::manual_schema;
pub use screws::{ScrewSheet, SheetJoint, SheetLayer, SheetRow};

pub use crate::checks::Stop;

use crate::checks::{self, Subject};
use crate::fasteners::balance::{Balance, balance};
use crate::ids::*;
use crate::manual::{
    Branch, Called, Caution, Connector, FastenerGroup, Heat, Manual, NoteKind, Phase, Step, ToolChoice,
};
use crate::order::{Chain, OrderKind, findings};
use crate::reading::{Consumable, Drive};
use crate::rebuild::{self, Fold};
use crate::units;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// One step as readers see it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GuideStep {
    pub id: StepId,
    pub number: usize,
    pub title: String,
    /// The title of the stage that begins here.
    pub stage: Option<String>,
    /// Before the step, never after it.
    pub cautions: Vec<Caution>,
    pub lines: Vec<String>,
    /// "If it resists: stop.", with the number of the step where it goes on.
    pub branches: Vec<String>,
    /// Which way up the device lies from here on.
    pub posture: Option<String>,
    /// The variants it holds for; empty where it holds for all.
    pub variants: Vec<String>,
    pub note: Option<String>,
    pub tools: Vec<String>,
    pub screws: Vec<ScrewLine>,
    pub heat: Vec<String>,
    pub reviewed: bool,
}

/// A group of screws as readers see it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScrewLine {
    pub group: GroupId,
    /// For readers: "3 × T6, 4 mm, captive, fan, only for the blue one".
    pub words: String,
    /// "6 ×", or "? ×" where nobody counted.
    pub count: Option<u32>,
    /// `PH0`, `T6`, "five-lobe"; `None` where the drive is not known.
    pub drive: Option<String>,
    /// The drive whose profile is drawn.
    pub profile: Option<Drive>,
    pub length_mm: Option<f64>,
    pub captive: bool,
    pub holds: Vec<String>,
    /// The variants that have them; empty where all have.
    pub variants: Vec<String>,
}

impl ScrewLine {
    fn in_words(&self) -> String {
        let count = self.count.map_or("? ×".to_owned(), |n| format!("{n} ×"));
        let mut words = vec![match &self.drive {
            Some(drive) => format!("{count} {drive}"),
            None => count,
        }];
        words.extend(self.length_mm.map(|l| format!("{} mm", units::number(l))));
        if self.captive {
            words.push("captive".to_owned());
        }
        if !self.holds.is_empty() {
            words.push(self.holds.join(" + "));
        }
        if !self.variants.is_empty() {
            words.push(format!("only for {}", self.variants.join(", ")));
        }
        words.join(", ")
    }
}

/// The guide as its reader sees it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Guide {
    pub title: String,
    pub device: String,
    pub tools: Vec<String>,
    pub consumables: Vec<Consumable>,
    pub steps: Vec<GuideStep>,
    pub fold: Fold,
    pub remaining: Vec<Remaining>,
    /// Usual words of care that every guide carries.
    pub care: Vec<String>,
    /// What must hold before, what is lost, what must pass.
    pub around: Vec<Around>,
    /// How readers tell which variant theirs is.
    pub variants: Vec<VariantLine>,
    /// What to order.
    pub orders: Vec<OrderLine>,
    /// Screws with their settings and orders.
    pub screws: ScrewSheet,
    /// Guides that are done first; readers are sent there.
    pub called: Vec<Called>,
}

/// Notes of one kind around the work.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Around {
    pub kind: NoteKind,
    /// "Make sure first"
    pub title: String,
    pub lines: Vec<String>,
}

/// A variant with how to tell it and what is different in it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct VariantLine {
    pub name: String,
    /// How to tell it, and what only it has: "The dial is blue. Only here: the rain sensor; step 6."
    pub text: String,
}

/// What to order for one part, in words.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OrderLine {
    pub part: PartId,
    pub name: String,
    pub text: String,
}

/// How many findings block publishing, by the stop that mends them.
pub fn blocking(manual: &Manual) -> BTreeMap<Stop, u32> {
    let steps = manual.steps_in(Phase::Teardown);
    let mut out = BTreeMap::new();
    for r in remaining(manual, &steps, &balance(manual)).into_iter().filter(|r| r.blocks) {
        *out.entry(r.stop).or_default() += 1;
    }
    out
}

/// Something that remains before publishing.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Remaining {
    /// Where it is mended.
    pub stop: Stop,
    pub what: String,
    /// Blocks publishing; the rest only waits.
    pub blocks: bool,
    pub step: Option<StepId>,
    pub group: Option<GroupId>,
}

/// Works out the guide of a manual's full teardown.
pub fn guide(manual: &Manual) -> Guide {
    let steps = manual.steps_in(Phase::Teardown);
    let fold = rebuild::fold(manual);
    let tools: BTreeSet<String> = manual.steps.values().flat_map(tools_of).collect();
    let consumables: BTreeSet<Consumable> = manual.steps.values().flat_map(|s| s.consumables.iter().copied()).collect();
    Guide {
        title: manual.head.title.clone(),
        device: manual.head.device.clone(),
        tools: tools.into_iter().collect(),
        consumables: consumables.into_iter().collect(),
        remaining: remaining(manual, &steps, &fold.balance),
        steps: steps.iter().enumerate().map(|(i, s)| step(manual, s, i + 1)).collect(),
        fold,
        care: care(manual),
        around: around::notes(manual),
        variants: around::variants(manual),
        orders: around::orders(manual),
        screws: screws::sheet(manual),
        called: manual.cut.as_ref().map_or(Vec::new(), |c| c.called.clone()),
    }
}

/// What one takes in hand, with "spudger or pick" where one of several does.
fn tools_of(step: &Step) -> Vec<String> {
    step.tools.iter().cloned().chain(step.choices.iter().map(ToolChoice::words)).collect()
}

fn step(manual: &Manual, step: &Step, number: usize) -> GuideStep {
    GuideStep {
        id: step.id,
        number,
        title: step.title.clone(),
        stage: step.stage.clone(),
        cautions: manual.cautions_of(step.id).cloned().collect(),
        lines: step.actions.iter().map(|a| a.text.clone()).collect(),
        branches: step.branches.iter().map(|b| branch_text(manual, b)).collect(),
        posture: step.posture.as_ref().map(|p| p.words().to_owned()),
        variants: manual.variant_names(&step.variants),
        note: step.note.clone(),
        tools: tools_of(step),
        screws: manual.groups_of(step.id).map(|g| screw_line(manual, g)).collect(),
        heat: manual.heats_of(step.id).map(|h| heat_text(manual, h)).collect(),
        reviewed: step.reviewed,
    }
}

/// A branch for people: what sets it off, what to do, with what, and where it goes on.
fn branch_text(manual: &Manual, b: &Branch) -> String {
    let tools = if b.tools.is_empty() { String::new() } else { format!(" You need: {}.", b.tools.join(", ")) };
    let steps = manual.steps_in(Phase::Teardown);
    let next = b.resume.map(|id| match steps.iter().position(|s| s.id == id) {
        Some(at) => format!("Go on at step {}.", at + 1),
        None => "Then go on with the rebuild: no step of this guide is left.".to_owned(),
    });
    let advice = b.advice.trim_end_matches('.');
    format!("{}: {advice}.{tools} {}", b.condition, next.as_deref().unwrap_or("Stop here."))
}

fn screw_line(manual: &Manual, group: &FastenerGroup) -> ScrewLine {
    let line = ScrewLine {
        group: group.id,
        words: String::new(),
        count: group.count,
        drive: group.bit.clone().or_else(|| group.drive.map(|d| d.code().to_owned())),
        profile: group.drive,
        length_mm: group.length.map(units::in_millimetres),
        captive: group.captive,
        holds: group.holds.iter().map(|p| manual.part_name(*p).to_owned()).collect(),
        variants: manual.variant_names(&group.variants),
    };
    ScrewLine { words: line.in_words(), ..line }
}

/// A heat setting for people: "heating pad on the rear cover, 75–80 °C, 2 min to 3 min".
fn heat_text(manual: &Manual, heat: &Heat) -> String {
    let mut words = vec![heat.source.map_or("heat", |s| s.name()).to_owned()];
    if let Some(target) = heat.target {
        words[0].push_str(&format!(" on the {}", manual.part_name(target)));
    }
    if let Some(t) = heat.temperature {
        let (low, high) = (units::in_celsius(t.low), units::in_celsius(t.high));
        words.push(if low == high {
            format!("{} °C", units::number(low))
        } else {
            format!("{}–{} °C", units::number(low), units::number(high))
        });
    }
    if let Some(d) = heat.dwell {
        let (low, high) = (units::in_seconds(d.low), units::in_seconds(d.high));
        words.push(if low == high {
            units::duration_text(low)
        } else {
            format!("{} to {}", units::duration_text(low), units::duration_text(high))
        });
    }
    words.join(", ")
}

fn remaining(manual: &Manual, steps: &[&Step], balance: &Balance) -> Vec<Remaining> {
    let mut out = Vec::new();
    let mut say = |what: String, blocks: bool, step: Option<StepId>, group: Option<GroupId>| {
        let stop = if group.is_some() { Stop::Fold } else { Stop::Steps };
        out.push(Remaining { stop, what, blocks, step, group });
    };
    if steps.is_empty() {
        say("The guide has no steps. Bring a recording or write the first step.".to_owned(), true, None, None);
    }
    for row in &balance.rows {
        let step = manual.fasteners.get(&row.group).map(|g| g.step);
        match row.left_over {
            None => say(
                format!("Nobody has counted the screws: {}. Count them and write the number.", row.label),
                true,
                step,
                Some(row.group),
            ),
            Some(n) if n > 0 && !row.on_purpose => say(
                format!(
                    "{n} left over: {} out, {} back ({}). Say where the rest goes.",
                    row.out.unwrap_or(0),
                    row.back.unwrap_or(0) + row.renewed,
                    row.label
                ),
                true,
                step,
                Some(row.group),
            ),
            Some(n) if n < 0 => say(
                format!("{} more go back than came out ({}). Check both counts.", -n, row.label),
                true,
                step,
                Some(row.group),
            ),
            _ => {}
        }
    }
    for f in findings(manual, &Chain::of(manual)) {
        if matches!(f.kind, OrderKind::Ring | OrderKind::TooEarly) {
            out.push(Remaining {
                stop: Stop::Chain,
                what: f.says,
                blocks: f.blocks,
                step: f.steps.first().copied(),
                group: None,
            });
        }
    }
    for f in checks::findings(manual) {
        let (step, group) = match f.about {
            Subject::Step(id) => (Some(id), None),
            Subject::Group(id) => (manual.fasteners.get(&id).map(|g| g.step), Some(id)),
            _ => (None, None),
        };
        out.push(Remaining { stop: f.stop, what: f.says, blocks: f.blocks, step, group });
    }
    let mut say = |what: String, step: Option<StepId>| {
        out.push(Remaining { stop: Stop::Steps, what, blocks: false, step, group: None });
    };
    for (i, step) in steps.iter().enumerate() {
        if step.actions.is_empty() {
            say(
                format!("Step {} says nothing to do: “{}”. Write a sentence or remove it.", i + 1, step.title),
                Some(step.id),
            );
        }
    }
    let unreviewed = steps.iter().filter(|s| !s.reviewed).count();
    if unreviewed > 0 {
        let first = steps.iter().find(|s| !s.reviewed).map(|s| s.id);
        say(format!("{unreviewed} of {} steps have not been reviewed by anybody.", steps.len()), first);
    }
    out
}

/// Words of care by what the guide touches; licensed work and local rules go first.
///
/// Source: hazards of the trade (common practice, no source).
fn care(manual: &Manual) -> Vec<String> {
    let names: Vec<String> = manual.parts.values().map(|p| p.name.to_lowercase()).collect();
    let any = |words: &[&str]| names.iter().any(|n| words.iter().any(|w| n.split(' ').any(|x| x == *w)));
    let mut out = vec!["Switch the device off and unplug it before you begin. What local codes reserve for licensed people stays with them.".to_owned()];
    if any(&["battery", "pack", "cell"]) {
        out.push("Never pierce, bend, heat or short a lithium cell. Stop if it is swollen, and hand it in where local rules say.".to_owned());
    }
    if any(&["mains", "transformer", "socket", "element", "thermostat"]) {
        out.push("Mains parts can hold a charge after unplugging. Work on them belongs to licensed people; follow local codes.".to_owned());
    }
    if !manual.heats.is_empty() {
        out.push("Hot surfaces burn. Keep heat away from cells and let parts cool before you touch them.".to_owned());
    }
    if any(&["glass", "display", "screen", "lens"]) {
        out.push("Glass can splinter when it is lifted: wear eye protection.".to_owned());
    }
    out
}

/// What a connector is called, for formats that list them.
pub(crate) fn connector_name(manual: &Manual, connector: &Connector) -> String {
    connector.serves.map_or("cable".to_owned(), |p| manual.part_name(p).to_owned())
}

#[cfg(test)]
mod tests;
