//! A setting lies outside the window that was computed for its joint.

use super::{Finding, Rule, Stop, Subject};
use crate::fasteners::balance::label;
use crate::fasteners::setting::{setting, source_words};
use crate::manual::{Edit, FastenerEdit, FastenerField, FastenerGroup, Manual};
use crate::order::Fix;
use crate::screw::Bench;
use crate::screw::torque::Stands;
use crate::units::{in_newton_metres, number};

const RULE: Rule = Rule {
    id: "torque-outside",
    stop: Stop::Screws,
    blocks: true,
    why: "Below the window the screw comes loose; above it something gives way.",
    source: "VDI 2230, ISO 898-7, FED-STD-H28/2 (from memory); shares by common practice, no source",
};

pub(super) fn find(manual: &Manual) -> Vec<Finding> {
    manual.fasteners.values().filter_map(|g| outside(manual, g)).collect()
}

fn outside(manual: &Manual, group: &FastenerGroup) -> Option<Finding> {
    let found = setting(group);
    let (bench, given) = (found.bench.as_ref()?, group.torque?);
    if !found.open {
        return None;
    }
    let (given, label) = (number(in_newton_metres(given)), label(manual, group));
    let from = source_words(group.torque_from);
    let says = match found.stands? {
        Stands::Breaks => format!("{given} N·m for {label}, from {from}, breaks the screw. Write a smaller setting."),
        Stands::Above => format!(
            "{given} N·m for {label}, from {from}, is more than {}: {}. Lower it, or say why it stands.",
            window(bench),
            bench.limit_says
        ),
        _ => format!(
            "{given} N·m for {label}, from {from}, is less than {}: it may come loose. Raise it, or say why it stands.",
            window(bench)
        ),
    };
    let set = |nm: f64| {
        let field = FastenerField::TorqueNm(Some(nm));
        let edit = Edit::Fastener(FastenerEdit::Set { id: group.id, field });
        Fix { label: format!("Set {} N·m", number(nm)), edit }
    };
    Some(Finding {
        fixes: bench.recommended_nm.map(set).into_iter().collect(),
        ..RULE.finding(Subject::Group(group.id), says)
    })
}

fn window(bench: &Bench) -> String {
    format!("the window of {} to {} N·m", number(bench.holds_nm), number(bench.harms_nm))
}

#[cfg(test)]
mod tests {
    use crate::checks::written::check;

    #[test]
    fn more_than_the_hole_bears() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, M3, into steel, 6 deep, 0.7 N·m
            ~~~ torque-outside: 0.7 N·m for PH1, 8 mm, lid, from the author, is more than the window of 0.303 to 0.468 N·m: the screw twists off. Lower it, or say why it stands.
            ",
        );
    }

    #[test]
    fn too_little_to_hold() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, M3, into steel, 6 deep, 0.1 N·m
            ~~~ torque-outside: 0.1 N·m for PH1, 8 mm, lid, from the author, is less than the window of 0.303 to 0.468 N·m: it may come loose. Raise it, or say why it stands.
            ",
        );
    }

    #[test]
    fn a_reason_lets_it_stand_unless_it_breaks_the_screw() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, M3, into steel, 6 deep, 0.7 N·m, because it was measured
            screws of the lid: 4 PH1 8 mm, M3, into steel, 6 deep, 0.9 N·m, because it was measured
            ~~~ torque-outside: 0.9 N·m for PH1, 8 mm, lid, from the author, breaks the screw. Write a smaller setting.
            ",
        );
    }

    #[test]
    fn inside_or_without_a_thread() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, M3, into steel, 6 deep, 0.4 N·m
            screws of the lid: 4 PH1 8 mm, 9 N·m
            ",
        );
    }
}
