//! The new part of a job: what goes over to it from the old one, which films come off it and when, and how long the old one
//! is kept.
//!
//! What was told stands with its step. What nobody told is only asked for: no rule knows what a part is delivered with
//! (common practice, no source).

use super::back::is_renewed;
use super::{Fold, ProofKind};
use crate::ids::{ActionId, PartId};
use crate::manual::Manual;
use crate::reading::Act;
use crate::things::is_glass;
use std::collections::BTreeSet;

/// One part that is renewed, with what its reader does beside fitting it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Swap {
    pub part: PartId,
    /// Whole sentences, in the order of the work.
    pub says: Vec<String>,
}

/// The parts that something new goes in for, in the order in which they go in. O(parts · lines).
pub fn swaps(manual: &Manual, fold: &Fold) -> Vec<Swap> {
    let lines = fold.rebuild.iter().flat_map(|s| &s.lines);
    let mut seen = BTreeSet::new();
    let fitted = lines.flat_map(|l| &l.parts).copied().filter(|p| seen.insert(*p));
    let renewed = |p: &PartId| {
        let part = manual.parts.get(p);
        // What breaks in opening is bought by the metre or the dozen; nothing is taken over from it.
        is_renewed(manual, *p) && part.is_some_and(|p| !p.single_use)
    };
    fitted.filter(renewed).map(|p| swap(manual, fold, p)).collect()
}

fn swap(manual: &Manual, fold: &Fold, part: PartId) -> Swap {
    let name = manual.part_name(part).to_owned();
    let mut says = Vec::new();
    let with = manual.parts.get(&part).and_then(|p| p.replacement.as_ref()).and_then(|r| r.comes_with.clone());
    says.extend(with.as_ref().map(|with| format!("The new {name} comes with {with}.")));
    let over = told(manual, fold, Act::Transfer, part);
    says.extend(over.iter().map(|(what, at)| {
        format!("Move over from the old {name} to the new one: the {what}, in step {at} of the rebuild.")
    }));
    if over.is_empty() {
        let but = with.map_or("", |_| " and did not come with it");
        says.push(format!(
            "Hold the old {name} beside the new one. Brackets, sensors, buttons, pins, gaskets and foils that only the old \
             one has{but} go over."
        ));
    }
    let films = told(manual, fold, Act::Peel, part);
    says.extend(
        films.iter().map(|(what, at)| format!("Peel the {what} off the new {name} in step {at} of the rebuild.")),
    );
    if films.is_empty() && is_glass(&name) {
        says.push(format!(
            "Leave the film on the face of the new {name} until the work is done. The one on its glue comes off right before \
             it is pressed on."
        ));
    }
    says.push(match tested(fold) {
        Some(at) => format!("Keep the old {name} until the tests behind step {at} of the rebuild have passed."),
        None => format!("Keep the old {name} until the device works again."),
    });
    Swap { part, says }
}

/// What told lines of a kind are done to before a part is fitted, with the number of the rebuild step: what is moved over and
/// peeled is moved and peeled for the next part that goes in.
fn told(manual: &Manual, fold: &Fold, of: Act, part: PartId) -> Vec<(String, usize)> {
    let mut out = Vec::new();
    let mut open: Vec<(String, usize)> = Vec::new();
    for (i, step) in fold.rebuild.iter().enumerate() {
        let action = |id: ActionId| manual.steps.get(&step.told?)?.actions.iter().find(|a| a.id == id);
        for line in &step.lines {
            if let Some(action) = line.told.filter(|_| line.act == Some(of)).and_then(action) {
                let parts = action.parts.iter().map(|p| manual.part_name(*p).to_owned());
                let things: Vec<String> = parts.chain(action.roles.things.iter().cloned()).collect();
                open.extend((!things.is_empty()).then(|| (things.join(", the "), i + 1)));
            } else if line.act == Some(Act::Install) {
                let fitted = std::mem::take(&mut open);
                out.extend(if line.parts.contains(&part) { fitted } else { Vec::new() });
            }
        }
    }
    out
}

/// The last step of the rebuild behind which something is tried.
fn tested(fold: &Fold) -> Option<usize> {
    let tried = |i: &usize| fold.rebuild[*i].proofs.iter().any(|p| p.kind == ProofKind::Function);
    (0..fold.rebuild.len()).rev().find(tried).map(|i| i + 1)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ids::JobId;
    use crate::manual::{Edit, JobEdit, PartEdit, PartField, Replacement, drafted};
    use crate::rebuild::fold;
    use uuid::Uuid;

    const CLOCK: &str = "[0:00] Undo four screws of the base plate. Take off the base plate.\n\n\
        [0:20] Unplug the display cable. Take out the display.\n\n\
        [0:40] Now the assembly. Move the bracket over from the old display to the new one.\n\n\
        [1:00] Peel off the liner. Fit the display. Connect the display cable.\n\n\
        [1:20] Put the base plate on. Install four screws in the base plate.";

    /// The sentences for the part that a job renews.
    fn says(told: &str, part: &str, with: Option<&str>) -> Vec<String> {
        let mut manual = drafted::manual(told);
        let target = manual.parts.values().find(|p| p.name == part).expect("the part is told").id;
        let job = JobId(Uuid::from_u128(1));
        let new = Replacement { comes_with: with.map(str::to_owned), ..Replacement::default() };
        let edits = [
            Edit::Part(PartEdit::Set { id: target, field: PartField::Replacement(Some(new)) }),
            Edit::Job(JobEdit::Add { id: job, title: "New one".into(), targets: vec![target], without: vec![] }),
        ];
        for edit in edits {
            manual = manual.apply(&edit, "Ann").unwrap().0;
        }
        let cut = crate::order::cut(&manual, &manual.jobs[&job]).expect("a way");
        let swaps = swaps(&cut, &fold(&cut));
        assert_eq!(swaps.iter().map(|s| s.part).collect::<Vec<_>>(), [target]);
        swaps.into_iter().flat_map(|s| s.says).collect()
    }

    #[test]
    fn what_was_told_to_go_over_stands_with_its_step() {
        let says = says(CLOCK, "display", None);
        assert_eq!(says[0], "Move over from the old display to the new one: the bracket, in step 1 of the rebuild.");
        assert!(says.contains(&"Peel the liner off the new display in step 2 of the rebuild.".to_owned()), "{says:?}");
        assert!(says.last().is_some_and(|s| s.starts_with("Keep the old display until")), "{says:?}");
    }

    /// The bracket goes onto the display, and not onto the battery that is new as well.
    #[test]
    fn each_new_part_has_its_own() {
        let mut manual =
            drafted::manual(&CLOCK.replace("Take out the display.", "Take out the display. Take out the battery."));
        let targets: Vec<PartId> =
            ["display", "battery"].map(|n| manual.parts.values().find(|p| p.name == n).unwrap().id).to_vec();
        let job = JobId(Uuid::from_u128(1));
        let add = JobEdit::Add { id: job, title: "Both".into(), targets: targets.clone(), without: vec![] };
        manual = manual.apply(&Edit::Job(add), "Ann").unwrap().0;
        let cut = crate::order::cut(&manual, &manual.jobs[&job]).expect("a way");
        for swap in swaps(&cut, &fold(&cut)) {
            let over = swap.says.iter().any(|s| s.contains("the bracket"));
            assert_eq!(over, swap.part == targets[0], "{:?}", swap.says);
        }
    }

    #[test]
    fn what_nobody_told_is_asked_for() {
        let told = "[0:00] Take off the cover. Unplug the fan cable. Take out the fan.";
        let without = says(told, "fan", None);
        assert!(without[0].contains("beside the new one") && !without[0].contains("did not come"), "{without:?}");
        let with = says(told, "fan", Some("two screws"));
        assert_eq!(with[0], "The new fan comes with two screws.");
        assert!(with[1].contains("and did not come with it"), "{with:?}");
        assert!(!with.iter().any(|s| s.contains("film")), "{with:?}");
    }

    #[test]
    fn a_face_keeps_its_film() {
        let says = says("[0:00] Take off the cover. Unplug the display cable. Take out the display.", "display", None);
        assert!(says.iter().any(|s| s.starts_with("Leave the film")), "{says:?}");
    }

    #[test]
    fn nothing_new_nothing_to_take_over() {
        let manual = drafted::manual(CLOCK);
        assert!(swaps(&manual, &fold(&manual)).is_empty());
    }
}
