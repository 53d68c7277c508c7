//! Work that belongs to licensed people is in the guide, and nobody has said who does it.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::ids::StepId;
use crate::manual::{Manual, NoteKind, Phase, Step};
use crate::things::{Gate, gate, is_swollen_cell};
use std::collections::BTreeSet;

pub(super) const RULE: Rule = Rule {
    id: RuleId::LicensedWork,
    stop: Stop::Cautions,
    blocks: true,
    // What is set aside here is who does the work; readers are told it.
    may_set_aside: true,
    why: "What is behind this line kills or needs a licence; a guide says so and stops there.",
    source: "common practice, no source; local codes decide",
};

/// Work behind a line, where it is met first.
#[derive(Debug, Clone, PartialEq)]
pub struct Gated {
    pub gate: Gate,
    /// "power supply board"
    pub what: String,
    /// Who does it, where the author has said so.
    pub who: Option<String>,
    /// The first step that works at it; `None`: the device itself is behind the line.
    pub step: Option<StepId>,
}

/// How an author says that the readers of a guide are the people to whom the work belongs.
pub const READERS: &str = "its readers: ";

impl Gated {
    /// Whether a guide stops at this line: somebody else does the work behind it.
    pub fn stops(&self) -> bool {
        // What kills whoever opens it, and what is noted of one device only, is no matter of who reads.
        let readers = self.who.as_deref().is_some_and(|who| who.to_lowercase().starts_with(READERS));
        match self.gate {
            Gate::SwollenCell => false,
            Gate::MainsSide => self.who.is_some() && !readers,
            _ => self.who.is_some(),
        }
    }
}

/// Every line that a guide crosses, for who words the guide.
pub fn gated(manual: &Manual) -> Vec<Gated> {
    let who = |f: Finding| f.decided(manual).set_aside;
    met(manual)
        .into_iter()
        .map(|m| Gated { gate: m.gate, who: who(finding(&m)), step: m.step.map(|s| s.id), what: m.what })
        .collect()
}

struct Met<'m> {
    gate: Gate,
    what: String,
    step: Option<&'m Step>,
}

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    met(case.manual).iter().map(finding).collect()
}

/// The device itself and how it arrived, then the parts of each step: each kind where it is met first.
fn met(manual: &Manual) -> Vec<Met<'_>> {
    // What is only worked at while putting together is behind the same line: gas is tested, a circuit is filled.
    let steps: Vec<&Step> = [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| manual.steps_in(p)).collect();
    let device = [&manual.head.device, &manual.head.title].into_iter().filter(|_| !steps.is_empty());
    let device = device.map(|name| (name.as_str(), None));
    let arrived = manual.notes_of(NoteKind::Damage).map(|n| n.text.as_str()).filter(|text| is_swollen_cell(text));
    let arrived = arrived.map(|text| (text.trim_end_matches('.'), None));
    let parts = steps.iter().flat_map(|s| manual.worked_at(s).map(|name| (name, Some(*s))));
    let mut out: Vec<Met<'_>> = Vec::new();
    // A part comes up in many steps; its name says the same in each.
    let mut seen: BTreeSet<&str> = BTreeSet::new();
    for (name, step) in device.chain(arrived).chain(parts).filter(|(name, _)| seen.insert(name)) {
        if let Some(gate) = gate(name).filter(|g| out.iter().all(|m| m.gate != *g)) {
            out.push(Met { gate, what: name.to_owned(), step });
        }
    }
    out
}

fn finding(met: &Met<'_>) -> Finding {
    let place = met.step.map_or(String::new(), |s| format!("“{}” works at it: ", s.title));
    let says = format!("{place}{} ({}). Say who does it, or leave it out.", met.gate.belongs(), met.what);
    let about = met.step.map(|s| Subject::Step(s.id)).into_iter().collect();
    RULE.finding_about(about, says).resting_on((met.gate.belongs(), &met.what))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::check;

    #[test]
    fn the_mains_side_is_where_a_guide_stops() {
        check(
            &RULE,
            "Unplug it from the wall. Take off the cover. Undo two screws of the power supply board. Take out the power supply board.",
            &[
                "“Remove the power supply board” works at it: The mains side can kill, and its capacitors stay charged after unplugging. Work on it belongs to qualified people; local codes say to whom (power supply board). Say who does it, or leave it out.",
            ],
        );
    }

    #[test]
    fn work_that_only_the_rebuild_tells_of_counts_too() {
        check(
            &RULE,
            "Unplug it from the wall. Take off the cover. Take out the fan. Now the assembly. Put the fan back in. Clean the evaporator. Put the cover on.",
            &[
                "“Fit the cover” works at it: A refrigerant circuit is under pressure and may burn. Opening it belongs to certified technicians; local codes forbid letting it out (evaporator). Say who does it, or leave it out.",
            ],
        );
    }

    #[test]
    fn a_cell_that_came_in_swollen_is_where_a_guide_stops() {
        check(
            &RULE,
            "The battery was already swollen when it came in. Take off the cover. Take out the battery.",
            &[
                "A swollen cell can burst into flames when it is pressed, bent or pierced. Work on it belongs to people trained for it; local rules say where it is handed in (The battery was already swollen when it came in). Say who does it, or leave it out.",
            ],
        );
    }

    #[test]
    fn one_line_is_drawn_once() {
        check(
            &RULE,
            "Unplug it from the wall. Take out the gas valve. Take out the gas pipe.",
            &[
                "“Remove the gas valve” works at it: Leaking gas burns and explodes. Work on it belongs to licensed fitters; local codes say what is tested afterwards (gas valve). Say who does it, or leave it out.",
            ],
        );
    }

    /// What is worked at and never comes out is no part of the manual.
    #[test]
    fn what_stays_in_place_is_named_by_its_sentence_alone() {
        check(
            &RULE,
            "Unplug it from the wall. Clean the evaporator.",
            &[
                "“Clean the evaporator” works at it: A refrigerant circuit is under pressure and may burn. Opening it belongs to certified technicians; local codes forbid letting it out (evaporator). Say who does it, or leave it out.",
            ],
        );
    }

    #[test]
    fn plugs_springs_and_sensors_are_no_such_work() {
        check(
            &RULE,
            "Unplug the mains lead. Take out the gas spring. Take out the microwave sensor. Take out the battery.",
            &[],
        );
    }
}
