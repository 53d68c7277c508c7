//! A sheet of repairability: steps, fasteners, tools, place and skill, in the classes of a standard, each with its reason.
//!
//! Classes after EN 45554:2020, from memory: the wording is ours, and whoever declares something holds the standard beside it.
//! Scores come only from a table of the house, see `score`: weights belong to the rules of a product group.

use super::work::Grade;
use crate::effort::{CountingRule, count_steps, counted};
use crate::labels;
use crate::manual::{Action, FastenerFate, Manual, SeamKind, Step};
use crate::reading::{Act, Drive};
use crate::things::is_cut_to_open;
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// What is classed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Classed {
    Steps,
    Fasteners,
    Tools,
    Place,
    Skill,
}

labels!(Classed { Steps: "steps", Fasteners: "fasteners", Tools: "tools", Place: "place", Skill: "skill" });

/// One class with what it means and why it is this one.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct ClassRow {
    pub of: Classed,
    /// "A" is the easiest.
    pub class: char,
    /// "go back as they were"
    pub means: String,
    /// What decides it: "glue in steps 4 and 5"; empty where nothing speaks against the easiest.
    pub because: String,
}

/// The steps by the standard's counting rule: one ends with a part removed or a change of tool.
pub(super) fn steps(steps: &[&Step]) -> usize {
    let acts: Vec<_> = steps.iter().flat_map(|s| counted(s)).collect();
    count_steps(&acts, CountingRule::default())
}

/// The sheet of a teardown. O(steps · what hangs on them).
pub(super) fn sheet(manual: &Manual, steps: &[&Step], grade: Grade) -> Vec<ClassRow> {
    vec![fasteners(manual, steps), tools(manual, steps), place(manual, steps), skill(grade)]
}

fn row(of: Classed, class: char, means: &str, because: String) -> ClassRow {
    ClassRow { of, class, means: means.to_owned(), because }
}

/// "glue in steps 4 and 5"; empty where no step has it.
fn steps_with(what: &str, steps: &[&Step], has: impl Fn(&Step) -> bool) -> Option<String> {
    let numbers: Vec<String> =
        steps.iter().enumerate().filter(|(_, s)| has(s)).map(|(i, _)| (i + 1).to_string()).collect();
    let word = if numbers.len() == 1 { "step" } else { "steps" };
    (!numbers.is_empty()).then(|| format!("{what} in {word} {}", numbers.join(", ")))
}

fn fasteners(manual: &Manual, steps: &[&Step]) -> ClassRow {
    let through = |a: &Action| a.act == Act::Cut && manual.named(a).any(|n| !is_cut_to_open(n));
    if let Some(why) = steps_with("what is cut through", steps, |s| s.actions.iter().any(through)) {
        return row(Classed::Fasteners, 'C', "neither come off whole nor go back", why);
    }
    let glue = |s: &Step| {
        let sticks = |k: SeamKind| matches!(k, SeamKind::Glue | SeamKind::Tape);
        manual.seams.values().any(|j| j.step == s.id && sticks(j.kind)) || s.actions.iter().any(|a| a.act == Act::Peel)
    };
    let acts = |s: &Step, acts: &[Act]| s.actions.iter().any(|a| acts.contains(&a.act));
    let new = |s: &Step| manual.groups_of(s.id).any(|g| g.fate == FastenerFate::Renew);
    let why = [
        steps_with("glue or tape", steps, glue),
        steps_with("solder", steps, |s| acts(s, &[Act::Desolder])),
        steps_with("a tie or tape that is cut", steps, |s| acts(s, &[Act::Cut])),
        steps_with("screws that are renewed", steps, new),
    ];
    let why: Vec<String> = why.into_iter().flatten().collect();
    if why.is_empty() {
        return row(Classed::Fasteners, 'A', "go back as they were", String::new());
    }
    row(Classed::Fasteners, 'B', "come off whole, and new ones go back", why.join("; "))
}

/// Drivers and hand tools of a common kit; what else there is to buy; what only the maker has, nobody here can know.
fn tools(manual: &Manual, steps: &[&Step]) -> ClassRow {
    const COMMON: [&str; 14] = [
        "screwdriver",
        "spudger",
        "tweezers",
        "pliers",
        "cutter",
        "knife",
        "multimeter",
        "soldering iron",
        "brush",
        "spanner",
        "wrench",
        "lever",
        "magnifier",
        "hex key",
    ];
    let special =
        |d: Drive| matches!(d, Drive::Pentalobe | Drive::TriPoint | Drive::Spanner | Drive::TorxPin | Drive::Triangle);
    let drives: BTreeSet<&str> = steps
        .iter()
        .flat_map(|s| manual.groups_of(s.id))
        .filter_map(|g| g.drive)
        .filter(|d| special(*d))
        .map(Drive::in_words)
        .collect();
    let hand = steps.iter().flat_map(|s| &s.tools).map(|t| t.to_lowercase());
    let others: BTreeSet<String> = hand.filter(|t| !COMMON.iter().any(|c| t.contains(c))).collect();
    let why: Vec<String> = drives.into_iter().map(|d| format!("{d} bit")).chain(others).collect();
    if why.is_empty() {
        return row(Classed::Tools, 'A', "none, or what a common kit holds", String::new());
    }
    row(Classed::Tools, 'C', "others that anybody can buy", why.join(", "))
}

fn place(manual: &Manual, steps: &[&Step]) -> ClassRow {
    let hot = steps_with("heat", steps, |s| manual.heats_of(s.id).next().is_some());
    let solder = steps_with("solder", steps, |s| s.actions.iter().any(|a| a.act == Act::Desolder));
    let why: Vec<String> = hot.into_iter().chain(solder).collect();
    if why.is_empty() {
        return row(Classed::Place, 'A', "where the device is used", String::new());
    }
    row(Classed::Place, 'B', "a workshop", why.join("; "))
}

fn skill(grade: Grade) -> ClassRow {
    let because = || format!("the work is {}", crate::labels::Label::label(grade));
    match grade {
        Grade::Easy => row(Classed::Skill, 'A', "anybody who follows the guide", String::new()),
        Grade::Moderate | Grade::Hard => row(Classed::Skill, 'B', "somebody who repairs now and then", because()),
        Grade::Expert => row(Classed::Skill, 'C', "somebody trained for such devices", because()),
    }
}

#[cfg(test)]
mod tests {
    use crate::manual::drafted;
    use crate::rebuild::fold;
    use rstest::rstest;

    #[rstest]
    #[case::easiest("Remove two PH1 screws from the lid. Take off the lid.", "AAAA")]
    #[case::glue(
        "Heat the front glass with the heating pad to 70 degrees. Pry off the front glass, it is glued.",
        "BCBB"
    )]
    #[case::tie("Cut the cable tie. Take off the lid.", "BAAA")]
    #[case::solder("Desolder the buzzer with the soldering iron.", "BABC")]
    fn the_hardest_step_decides(#[case] told: &str, #[case] classes: &str) {
        let work = fold(&drafted::manual(&format!("[0:00] {told}"))).work;
        let found: String = work.classes.iter().map(|c| c.class).collect();
        assert_eq!(found, classes, "{:?}", work.classes);
    }

    #[test]
    fn what_is_not_the_easiest_says_why() {
        let told = "[0:00] Take off the lid.\n\n[0:10] Peel off the foam. Desolder the buzzer.";
        let work = fold(&drafted::manual(told)).work;
        assert!(work.classes.iter().all(|c| (c.class == 'A') == c.because.is_empty()), "{:?}", work.classes);
    }
}
