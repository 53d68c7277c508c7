//! The Steps stop: what stands in the margin of each step, every part with where it sits and how it is fixed, every tool
//! with where it is used.

use crate::cautions::{CautionHead, SaidLately};
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{Manual, Part, Step, ToolChoice};
use crate::order::{Chain, removed_in};
use crate::reading::Drive;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// One part of the inventory.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PartRow {
    pub part: PartId,
    /// How many parts it sits inside, one in the other.
    pub level: usize,
    /// "4 × PH1, 8 mm", "glue", "its cable".
    pub fixed_by: Vec<String>,
    /// Where it leaves.
    pub leaves_in: Option<StepId>,
    /// The steps that speak of it, turn its screws, open its plug or warm it, in their order.
    pub used_in: Vec<StepId>,
    /// What has to leave before it, as the reasons have it; where several ways lead to it, any one of them.
    pub behind: Vec<Vec<PartId>>,
    /// Volts times ampere hours of the fitted one and of the new one.
    pub computed_wh: [Option<f64>; 2],
}

/// One tool or material.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ToolRow {
    pub name: String,
    /// Laid out at the start.
    pub laid_out: Option<ToolId>,
    /// Where it is used, in their order.
    pub steps: Vec<StepId>,
    /// Never the only one: another does as well, everywhere.
    pub replaceable: bool,
}

/// What stands beside a step, worded for people.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MarginRow {
    pub step: StepId,
    pub screws: Vec<MarginScrews>,
    pub connectors: Vec<String>,
    pub heat: Vec<String>,
    pub posture: Option<String>,
    /// "spudger", "spudger or pick (best: pick)".
    pub tools: Vec<String>,
    pub variants: Vec<String>,
    pub branches: Vec<String>,
    /// Its cautions, the loudest first.
    pub warnings: Vec<MarginWarning>,
}

/// A group of screws in the margin.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MarginScrews {
    pub group: GroupId,
    /// The drive whose profile is drawn.
    pub drive: Option<Drive>,
    pub words: String,
}

/// All that the stop shows.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StepsView {
    /// Outer parts before what sits inside them.
    pub parts: Vec<PartRow>,
    pub tools: Vec<ToolRow>,
    /// Every step of the page, in its order.
    pub margins: Vec<MarginRow>,
}

/// A caution as readers will see it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MarginWarning {
    pub caution: CautionId,
    pub text: String,
    pub head: CautionHead,
}

/// Works out the tables.
pub fn view(manual: &Manual) -> StepsView {
    let margins = manual.order().into_iter().map(|id| margin(manual, &manual.steps[&id])).collect();
    StepsView { parts: parts(manual), tools: tools(manual), margins }
}

fn margin(manual: &Manual, step: &Step) -> MarginRow {
    let screws = manual.groups_of(step.id).map(|g| MarginScrews {
        group: g.id,
        drive: g.drive,
        words: manual.words_of(g).line(),
    });
    let choices = step.choices.iter().map(ToolChoice::words);
    MarginRow {
        step: step.id,
        screws: screws.collect(),
        connectors: manual.connectors_of(step.id).map(|c| c.words(manual)).collect(),
        heat: manual.heats_of(step.id).map(|h| h.words(manual)).collect(),
        posture: step.posture.map(|p| p.label().to_owned()),
        tools: step.tools.iter().cloned().chain(choices).collect(),
        variants: manual.variant_names(&step.variants),
        branches: step.branches.iter().map(|b| b.words(manual)).collect(),
        warnings: SaidLately::default()
            .next(manual, manual.cautions_of(step.id))
            .into_iter()
            .map(|(c, head)| MarginWarning { caution: c.id, text: c.text.clone(), head })
            .collect(),
    }
}

fn parts(manual: &Manual) -> Vec<PartRow> {
    let chain = Chain::of(manual);
    let mut out = Vec::new();
    push_inside(manual, &chain, None, 0, &mut out);
    out
}

fn push_inside(manual: &Manual, chain: &Chain, outer: Option<PartId>, level: usize, out: &mut Vec<PartRow>) {
    let mut here: Vec<&Part> = manual.parts.values().filter(|p| p.inside == outer).collect();
    here.sort_by_key(|p| p.name.to_lowercase());
    for part in here {
        out.push(row(manual, chain, part, level));
        push_inside(manual, chain, Some(part.id), level + 1, out);
    }
}

fn row(manual: &Manual, chain: &Chain, part: &Part, level: usize) -> PartRow {
    let leaves_in = chain.steps.iter().copied().find(|s| removed_in(&manual.steps[s]).contains(&part.id));
    PartRow {
        part: part.id,
        level,
        fixed_by: fixed_by(manual, part.id),
        leaves_in,
        used_in: manual.order().into_iter().filter(|s| uses(manual, &manual.steps[s], part.id)).collect(),
        behind: leaves_in.map(|step| behind(manual, chain, step)).unwrap_or_default(),
        computed_wh: [part.fitted.computed_wh(), part.replacement.as_ref().and_then(|r| r.label.computed_wh())],
    }
}

fn uses(manual: &Manual, step: &Step, part: PartId) -> bool {
    step.actions.iter().any(|a| a.parts.contains(&part))
        || manual.groups_of(step.id).any(|g| g.holds.contains(&part) || g.waits_for == Some(part))
        || manual.connectors_of(step.id).any(|c| c.serves == Some(part))
        || manual.heats_of(step.id).any(|h| h.target == Some(part))
        || manual.seams.values().any(|s| s.step == step.id && s.part == Some(part))
}

/// What a step waits for, as the parts that leave there, in the order of the steps. Behind a choice of ways nothing is
/// sure any more.
fn behind(manual: &Manual, chain: &Chain, step: StepId) -> Vec<Vec<PartId>> {
    let mut out: Vec<(Option<usize>, Vec<PartId>)> = Vec::new();
    let (mut seen, mut open) = (BTreeSet::from([step]), vec![step]);
    while let Some(step) = open.pop() {
        for c in chain.of_step(step) {
            match c.plain() {
                Some(way) => {
                    for before in way.iter().copied().filter(|s| seen.insert(*s)) {
                        let place = chain.at(before);
                        out.extend(removed_in(&manual.steps[&before]).into_iter().map(|p| (place, vec![p])));
                        open.push(before);
                    }
                }
                None => {
                    let mut any: Vec<StepId> = c.ways.iter().flatten().copied().collect();
                    any.sort_by_key(|s| chain.at(*s));
                    let place = any.first().and_then(|s| chain.at(*s));
                    out.push((place, any.iter().flat_map(|s| removed_in(&manual.steps[s])).collect()));
                }
            }
        }
    }
    out.retain(|(_, any)| !any.is_empty());
    out.sort();
    out.dedup();
    out.into_iter().map(|(_, any)| any).collect()
}

fn fixed_by(manual: &Manual, part: PartId) -> Vec<String> {
    let mut out = Vec::new();
    for g in manual.fasteners.values().filter(|g| g.holds.contains(&part)) {
        let kind = [Some(g.drive_words().unwrap_or("screws".to_owned())), g.length_words()];
        let kind: Vec<String> = kind.into_iter().flatten().collect();
        out.push(format!("{} × {}", g.count_words(), kind.join(", ")));
    }
    for s in manual.seams.values().filter(|s| s.part == Some(part)) {
        out.push(s.kind.phrase().to_owned());
    }
    out.extend(manual.connectors.values().any(|c| c.serves == Some(part)).then(|| "its cable".to_owned()));
    out
}

fn tools(manual: &Manual) -> Vec<ToolRow> {
    let mut rows: BTreeMap<String, ToolRow> = BTreeMap::new();
    let row = |name: &str| ToolRow { name: name.to_owned(), laid_out: None, steps: Vec::new(), replaceable: true };
    let mut used = |name: &str, step: StepId, replaceable: bool| {
        let tool = rows.entry(name.to_lowercase()).or_insert_with(|| row(name));
        tool.replaceable &= replaceable;
        if tool.steps.last() != Some(&step) {
            tool.steps.push(step);
        }
    };
    for id in manual.order() {
        let step = &manual.steps[&id];
        let branches = step.branches.iter().flat_map(|b| &b.tools);
        step.tools.iter().chain(branches).for_each(|t| used(t, id, false));
        step.consumables.iter().for_each(|c| used(c.name(), id, false));
        step.choices.iter().flat_map(|c| &c.any_of).for_each(|t| used(t, id, true));
    }
    for tool in manual.kit.values() {
        let known = rows.entry(tool.name.to_lowercase()).or_insert_with(|| row(&tool.name));
        known.laid_out = Some(tool.id);
        known.replaceable &= !known.steps.is_empty();
    }
    rows.into_values().collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted::manual_of;
    use crate::manual::{Edit, RequirementEdit, StepEdit, StepField, ToolChoice};
    use uuid::Uuid;

    const LAMP: &str = "[0:00] Tools required, a spudger and tweezers.\n\n\
        [0:05] Undo four Phillips PH1 screws, length 8 millimetres, of the cover. Remove the cover.\n\n\
        [0:20] The battery sits in the tray. Disconnect the battery cable with a spudger. Pull out the battery.\n\n\
        [0:30] Remove the tray.";

    fn lamp() -> Manual {
        lamp_of(0)
    }

    fn lamp_of(id: u128) -> Manual {
        manual_of(id, LAMP)
    }

    #[test]
    fn parts_stand_inside_each_other_with_what_fixes_them() {
        let manual = lamp();
        let rows: Vec<(&str, usize, String)> =
            parts(&manual).iter().map(|r| (manual.part_name(r.part), r.level, r.fixed_by.join("; "))).collect();
        assert_eq!(
            rows,
            [
                ("cover", 0, "4 × PH1, 8 mm".to_owned()),
                ("tray", 0, String::new()),
                ("battery", 1, "its cable".to_owned())
            ]
        );
    }

    #[test]
    fn a_part_says_which_steps_use_it() {
        let manual = lamp();
        let order = manual.order();
        let rows = parts(&manual);
        let used = |name: &str| {
            let row = rows.iter().find(|r| manual.part_name(r.part) == name).unwrap();
            row.used_in.iter().map(|s| order.iter().position(|o| o == s).unwrap() + 1).collect::<Vec<_>>()
        };
        assert_eq!((used("cover"), used("battery")), (vec![1], vec![2]));
    }

    #[test]
    fn what_lies_behind_what_follows_from_the_reasons() {
        let manual = lamp();
        let rows = parts(&manual);
        let battery = rows.iter().find(|r| manual.part_name(r.part) == "battery").unwrap();
        let behind: Vec<&str> = battery.behind.iter().flatten().map(|p| manual.part_name(*p)).collect();
        assert_eq!(behind, ["cover"]);
    }

    #[test]
    fn what_lies_behind_stands_in_the_order_of_the_steps() {
        for seed in 0..8 {
            let manual = lamp_of(seed);
            let [cover, battery, tray] = manual.order()[..] else { panic!("three steps") };
            let id = RequirementId(Uuid::nil());
            let wait =
                RequirementEdit::Add { id, step: tray, ways: vec![vec![cover, battery]], because: String::new() };
            let manual = manual.apply(&Edit::Requirement(wait), "Ann").unwrap().0;
            let rows = parts(&manual);
            let tray = rows.iter().find(|r| manual.part_name(r.part) == "tray").unwrap();
            let behind: Vec<&str> = tray.behind.iter().flatten().map(|p| manual.part_name(*p)).collect();
            assert_eq!(behind, ["cover", "battery"], "{seed}");
        }
    }

    #[test]
    fn tools_tell_where_they_are_used_and_whether_another_does() {
        let manual = lamp();
        let step = manual.order()[1];
        let choice =
            ToolChoice { any_of: vec!["pick".into(), "card".into()], preferred: Some("card".into()), why: None };
        let edit = Edit::Step(StepEdit::Set { id: step, field: StepField::Choices(vec![choice]) });
        let manual = manual.apply(&edit, "Ann").unwrap().0;
        let told: Vec<(String, bool, usize, bool)> =
            tools(&manual).into_iter().map(|t| (t.name, t.laid_out.is_some(), t.steps.len(), t.replaceable)).collect();
        assert_eq!(
            told,
            [
                ("card".to_owned(), false, 1, true),
                ("PH cross screwdriver".to_owned(), false, 1, false),
                ("pick".to_owned(), false, 1, true),
                ("spudger".to_owned(), true, 1, false),
                ("tweezers".to_owned(), true, 0, false),
            ]
        );
    }
}
