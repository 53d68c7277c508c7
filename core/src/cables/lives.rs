//! The life of a cable along the teardown: where it is undone, and which part was lifted before that and hung on it.

use crate::ids::*;
use crate::manual::{Connector, Manual, Phase, Step};
use crate::reading::{Act, CautionSubject};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A part that is lifted while its cable is still on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Tether {
    pub connector: ConnectorId,
    /// What hangs.
    pub part: PartId,
    /// Steps of the teardown, from 1: where it is lifted, and where its cable is undone.
    pub lifted: usize,
    pub freed: usize,
    pub lifted_in: StepId,
    /// Somebody said that it hangs there, or how it is held.
    pub told: bool,
}

/// Every cable on which something hangs for a while. O(steps × parts + connectors × depth of nesting).
pub fn tethers(manual: &Manual) -> Vec<Tether> {
    let steps = manual.steps_in(Phase::Teardown);
    let at = |id: StepId| steps.iter().position(|s| s.id == id);
    let undone = manual.connectors.values().filter(|c| !c.temporary).filter_map(|c| Some((c, at(c.step)?)));
    let mut out: Vec<Tether> = undone.filter_map(|(c, freed)| tether(manual, &steps, c, freed)).collect();
    out.sort_by_key(|t| (t.lifted, t.freed));
    out
}

fn tether(manual: &Manual, steps: &[&Step], connector: &Connector, freed: usize) -> Option<Tether> {
    let hangs: Vec<PartId> = connector.serves.into_iter().flat_map(|p| with_carriers(manual, p)).collect();
    let lifts = |s: &&Step| {
        s.actions.iter().filter(|a| lifted(a.act)).flat_map(|a| &a.parts).find(|p| hangs.contains(p)).copied()
    };
    let (lifted, part) = steps[..freed].iter().enumerate().find_map(|(n, s)| Some((n, lifts(s)?)))?;
    let step = steps[lifted];
    let told = connector.tether.is_some() || says_so(manual, step);
    Some(Tether { connector: connector.id, part, lifted: lifted + 1, freed: freed + 1, lifted_in: step.id, told })
}

fn lifted(act: Act) -> bool {
    matches!(act, Act::Remove | Act::Open)
}

/// A part and what it sits in, from the inside out; a part cannot sit in itself.
fn with_carriers(manual: &Manual, part: PartId) -> impl Iterator<Item = PartId> + '_ {
    std::iter::successors(Some(part), |p| manual.parts.get(p)?.inside).take(manual.parts.len())
}

/// Whether the step that lifts it speaks of the cable: a warning, how far it opens, how it lies then.
fn says_so(manual: &Manual, step: &Step) -> bool {
    let about = |c: &crate::manual::Caution| matches!(c.about, CautionSubject::Cable | CautionSubject::Connector);
    let opening = |s: &crate::manual::Seam| s.swing.is_some() || s.posture.is_some();
    manual.cautions_of(step.id).any(about) || manual.seams.values().any(|s| s.step == step.id && opening(s))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{ConnectorEdit, ConnectorField, Edit, PartEdit, PartField, drafted};

    fn part(manual: &Manual, name: &str) -> PartId {
        manual.parts.values().find(|p| p.name == name).unwrap_or_else(|| panic!("no {name}")).id
    }

    fn told(rest: &str) -> Manual {
        drafted::manual(&format!("[0:00] Remove two screws from the lid. Lift off the lid. {rest}"))
    }

    #[test]
    fn a_part_that_leaves_before_its_cable_hangs_on_it() {
        let manual = told(
            "Take out the fan. Remove three screws from the frame. Take out the frame. Disconnect the fan. Take out the filter.",
        );
        let [hangs] = &tethers(&manual)[..] else {
            panic!("{:?} {:?}", tethers(&manual), manual.steps_in(Phase::Teardown))
        };
        assert_eq!((hangs.part, hangs.told), (part(&manual, "fan"), false));
        assert!(hangs.lifted < hangs.freed);
        let id = hangs.connector;
        let set = ConnectorEdit::Set { id, field: ConnectorField::Tether(Some("lay it on the frame".to_owned())) };
        let manual = manual.apply(&Edit::Connector(set), "Ann").unwrap().0;
        assert!(tethers(&manual)[0].told);
    }

    #[test]
    fn undone_before_it_is_lifted_nothing_hangs() {
        assert_eq!(tethers(&told("Disconnect the fan. Take out the fan.")), []);
    }

    #[test]
    fn what_sits_in_a_lid_hangs_with_the_lid() {
        let manual = told("Disconnect the keypad. Take out the keypad.");
        let inside =
            PartEdit::Set { id: part(&manual, "keypad"), field: PartField::Inside(Some(part(&manual, "lid"))) };
        let manual = manual.apply(&Edit::Part(inside), "Ann").unwrap().0;
        let [hangs] = &tethers(&manual)[..] else { panic!("{:?}", tethers(&manual)) };
        assert_eq!((hangs.part, hangs.lifted), (part(&manual, "lid"), 1));
    }

    #[test]
    fn a_warning_of_the_cable_tells_that_it_hangs() {
        let manual = told(
            "Caution, the cable of the fan is short and tears easily. Take out the fan. Remove three screws from the frame. \
             Take out the frame. Disconnect the fan. Take out the filter.",
        );
        let [hangs] = &tethers(&manual)[..] else { panic!("{:?}", tethers(&manual)) };
        assert!(hangs.told, "{:?}", manual.cautions);
    }
}
