//! What can be checked on the way back, and when: by look, by feel, by instrument, by function.
//!
//! A check stands behind the step of the rebuild after which it can be made, and says what must be seen and where to go back
//! to if it is not. What must work is tried before a face is glued shut, where the source is a cell and connected by then;
//! a device fed from the mains is never switched on open. Common practice, no source.

mod functions;

use super::{Fold, RebuildStep};
use crate::cables::kinds::handling;
use crate::ids::*;
use crate::labels;
use crate::manual::{Manual, SeamKind};
use crate::reading::{Act, Direction};
use crate::things::{Source, is_mains, lies_loose, source};
use functions::Subsystem;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// How something is checked.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ProofKind {
    Look,
    Feel,
    Instrument,
    Function,
}

labels!(ProofKind { Look: "look", Feel: "feel", Instrument: "measure", Function: "try" });

/// One check.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Proof {
    pub kind: ProofKind,
    /// "Plug of the fan", "display"
    pub what: String,
    /// "Show one picture all white. Good when no line is dead."
    pub says: String,
    /// The steps of the teardown whose undoing is the likeliest to be looked at again, with their numbers.
    pub back_to: Vec<Taken>,
    /// The same in words; `None` where the step itself is the place to look.
    pub if_not: Option<String>,
}

/// A step of the teardown with its number, from 1.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Taken {
    pub step: StepId,
    pub number: usize,
}

impl Proof {
    /// As readers are told it: "Display: show … Good when no line is dead. If not, look again at what step 4 took apart."
    pub fn words(&self) -> String {
        let or = self.if_not.as_ref().map_or(String::new(), |or| format!(" {or}"));
        format!("{}: {}{or}", crate::manual::capitalised(&self.what), self.says)
    }
}

/// "If not, look again at what steps 4 and 2 took apart."
fn look_again(steps: &[Taken]) -> Option<String> {
    let numbers: Vec<String> = steps.iter().map(|t| t.number.to_string()).collect();
    let word = if numbers.len() == 1 { "step" } else { "steps" };
    (!numbers.is_empty()).then(|| format!("If not, look again at what {word} {} took apart.", numbers.join(" and ")))
}

/// Fills in the checks of every step. O(lines + parts · words).
pub(super) fn put(manual: &Manual, fold: &mut Fold) {
    for step in &mut fold.rebuild {
        step.proofs = on_the_way(manual, step);
    }
    let Some(at) = tried_after(manual, &fold.rebuild) else { return };
    let last = fold.rebuild.len() - 1;
    for (system, proof) in plan(manual, fold) {
        let place = if system.closed { last } else { at };
        fold.rebuild[place].proofs.push(proof);
    }
}

/// What the hands and eyes of the step itself can tell.
fn on_the_way(manual: &Manual, step: &RebuildStep) -> Vec<Proof> {
    let mut out = plugs(manual, step);
    out.extend(left_loose(manual, step));
    out.extend(closed(manual, step));
    out
}

/// Plugs of one kind are felt for the same way.
fn plugs(manual: &Manual, step: &RebuildStep) -> Vec<Proof> {
    let mut kinds: BTreeMap<&str, Vec<&str>> = BTreeMap::new();
    for connector in step.connectors.iter().map(|c| &manual.connectors[c]) {
        if let Some(kind) = connector.kind {
            let serves = connector.serves.map_or("cable", |p| manual.part_name(p));
            kinds.entry(handling(kind).sits).or_default().push(serves);
        }
    }
    let proof = |(sits, serves): (&str, Vec<&str>)| Proof {
        kind: ProofKind::Feel,
        what: format!("plug of the {}", serves.join(", the ")),
        says: format!("{sits}."),
        back_to: Vec::new(),
        if_not: None,
    };
    kinds.into_iter().map(proof).collect()
}

/// What lies loose when the step is done: the next part holds it, and a device that is tilted meanwhile loses it.
fn left_loose(manual: &Manual, step: &RebuildStep) -> Option<Proof> {
    let fitted = step.lines.iter().filter(|l| l.act == Some(Act::Install)).flat_map(|l| &l.parts);
    let (loose, held): (Vec<PartId>, Vec<PartId>) = fitted.partition(|p| lies_loose(manual.part_name(**p)));
    if loose.is_empty() || !held.is_empty() {
        return None;
    }
    let names: Vec<String> = loose.iter().map(|p| manual.part_name(*p).to_owned()).collect();
    Some(Proof {
        kind: ProofKind::Look,
        what: names.join(", "),
        says: "in place by itself; keep the device level until the next part holds it.".to_owned(),
        back_to: Vec::new(),
        if_not: None,
    })
}

/// What closes the device lies flush.
fn closed(manual: &Manual, step: &RebuildStep) -> Option<Proof> {
    const CLOSES: [&str; 12] =
        ["cover", "lid", "housing", "shell", "back", "panel", "door", "case", "bezel", "hood", "plate", "glass"];
    let last = |p: &PartId| manual.part_name(*p).rsplit(' ').next().unwrap_or_default().to_lowercase();
    let fits = |act: Act| act.direction() == Direction::In || matches!(act, Act::Apply | Act::Press);
    let fitted = step.lines.iter().filter(|l| l.act.is_some_and(fits)).flat_map(|l| &l.parts);
    let cover = fitted.into_iter().find(|p| CLOSES.contains(&last(p).as_str()))?;
    Some(Proof {
        kind: ProofKind::Look,
        what: manual.part_name(*cover).to_owned(),
        says: "it lies flush all round, with no gap and no cable caught.".to_owned(),
        back_to: Vec::new(),
        if_not: None,
    })
}

/// The step after which everything touched can be tried; `None` where nothing goes back.
fn tried_after(manual: &Manual, rebuild: &[RebuildStep]) -> Option<usize> {
    let last = rebuild.len().checked_sub(1)?;
    let mains = manual.parts.values().any(|p| is_mains(&p.name))
        || manual.steps.values().flat_map(|s| &s.actions).any(|a| a.act == Act::Unplug);
    let powered = rebuild.iter().position(|s| {
        let back = s.lines.iter().flat_map(|l| &l.parts);
        s.connectors.iter().any(|c| manual.connectors[c].power)
            || back.into_iter().any(|p| source(manual.part_name(*p)) == Some(Source::Cell) && !has_plug(manual, *p))
    });
    let plugged = rebuild.iter().rposition(|s| s.connectors.iter().any(|c| !manual.connectors[c].power));
    let sealed = rebuild.iter().position(|s| s.of.is_some_and(|of| seals(manual, of)));
    match (powered.max(plugged), sealed) {
        // Behind the source and every plug, before glue: here a fault still costs nothing.
        (Some(ready), Some(sealed)) if !mains && powered.is_some() && ready < sealed => Some(sealed - 1),
        _ => Some(last),
    }
}

fn has_plug(manual: &Manual, part: PartId) -> bool {
    manual.connectors.values().any(|c| c.power && c.serves == Some(part))
}

/// Whether undoing this step closes a face for good: glue or tape, which opening destroys.
fn seals(manual: &Manual, of: StepId) -> bool {
    manual.seams.values().any(|s| s.step == of && matches!(s.kind, SeamKind::Glue | SeamKind::Tape))
}

/// One trial a subsystem, with the steps that touched it.
fn plan(manual: &Manual, fold: &Fold) -> Vec<(&'static Subsystem, Proof)> {
    let mut touched: BTreeMap<&str, (&'static Subsystem, Vec<Taken>)> = BTreeMap::new();
    for row in &fold.teardown {
        let step = &manual.steps[&row.step];
        let moved =
            step.actions.iter().filter(|a| a.act.direction() == Direction::Out).flat_map(|a| a.parts.iter().copied());
        let plugged = manual.connectors_of(row.step).filter_map(|c| c.serves);
        for system in moved.chain(plugged).filter_map(|p| functions::of(manual.part_name(p))) {
            let steps = &mut touched.entry(system.name).or_insert((system, Vec::new())).1;
            if !steps.iter().any(|t| t.step == row.step) {
                steps.push(Taken { step: row.step, number: row.number });
            }
        }
    }
    // In the order of the table: what one sees at once, first.
    let mut rows: Vec<_> = touched.into_values().collect();
    rows.sort_by_key(|(system, _)| functions::SUBSYSTEMS.iter().position(|s| s.name == system.name));
    let proof = |(system, mut steps): (&'static Subsystem, Vec<Taken>)| {
        // What was touched last, deepest inside, is the likeliest.
        steps.reverse();
        steps.truncate(2);
        let proof = Proof {
            kind: system.kind,
            what: system.name.to_owned(),
            says: format!("{} Good when {}.", system.trial, system.passes),
            if_not: look_again(&steps),
            back_to: steps,
        };
        (system, proof)
    };
    rows.into_iter().map(proof).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::labels::Label;
    use crate::manual::drafted;
    use crate::rebuild::fold;
    use rstest::rstest;

    /// "Fit the fan: try fan, look cover", one line a step that has checks.
    fn checks(told: &str) -> Vec<String> {
        let fold = fold(&drafted::manual(told));
        let line = |s: &RebuildStep| {
            let all: Vec<String> = s.proofs.iter().map(|p| format!("{} {}", p.kind.label(), p.what)).collect();
            format!("{}: {}", s.title, all.join(", "))
        };
        fold.rebuild.iter().filter(|s| !s.proofs.is_empty()).map(line).collect()
    }

    #[rstest]
    #[case::at_the_end(
        "[0:00] Take off the cover.\n\n[0:10] Disconnect the fan cable. Take out the fan.",
        &["Fit the cover: look cover, try fan"]
    )]
    #[case::before_glue(
        "[0:00] Heat the front glass to 70 degrees. Pry off the front glass, it is glued.\n\n\
         [0:10] Disconnect the battery cable. Disconnect the fan cable. Take out the fan.",
        &["Connect the battery: measure charging, try fan", "Fit the front glass: look front glass"]
    )]
    #[case::mains_only_closed(
        "[0:00] Unplug the heater from the wall. Heat the front glass to 70 degrees. Pry off the front glass, it is glued.\n\n\
         [0:10] Disconnect the battery cable. Disconnect the fan cable. Take out the fan.",
        &["Fit the front glass: look front glass", "Plug in and test: measure charging, try fan"]
    )]
    #[case::nothing_that_works("[0:00] Take out the tray.", &[])]
    fn what_can_be_checked_stands_where_it_can(#[case] told: &str, #[case] wanted: &[&str]) {
        assert_eq!(checks(told), wanted);
    }

    #[test]
    fn a_failed_trial_leads_back_to_what_was_touched_last() {
        let told = "[0:00] Take off the cover.\n\n[0:10] Disconnect the fan cable.\n\n[0:20] Take out the tray.\n\n\
                    [0:30] Take out the fan.";
        let fold = fold(&drafted::manual(told));
        let fan = fold.rebuild.iter().flat_map(|s| &s.proofs).find(|p| p.what == "fan").expect("a trial");
        let last = fold.teardown.last().expect("steps").number;
        assert_eq!(fan.back_to.first().map(|t| t.number), Some(last));
        assert!(fan.if_not.as_ref().is_some_and(|w| w.contains(&last.to_string())));
    }
}
