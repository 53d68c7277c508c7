//! Liquid thread locker meets polycarbonate.

use super::{Finding, Rule, Stop, Subject};
use crate::fasteners::balance::label;
use crate::manual::{Edit, FastenerEdit, FastenerField, FastenerGroup, Locking, Manual};
use crate::order::Fix;
use crate::screw::Mating;

const RULE: Rule = Rule {
    id: "locker-on-polycarbonate",
    stop: Stop::Screws,
    blocks: true,
    why: "Anaerobic thread locker and oil crack polycarbonate, often days later.",
    source: "common practice, no source",
};

pub(super) fn find(manual: &Manual) -> Vec<Finding> {
    let meets = |g: &&FastenerGroup| {
        let touched = [g.joint.into, g.joint.clamped];
        g.locking == Some(Locking::Liquid) && touched.contains(&Some(Mating::Pc))
    };
    let finding = |g: &FastenerGroup| {
        let says = format!(
            "{}: no liquid thread locker on polycarbonate. Use a screw with a patch, or none.",
            label(manual, g)
        );
        let set = |locking: Option<Locking>, label: &str| {
            let edit = Edit::Fastener(FastenerEdit::Set { id: g.id, field: FastenerField::Locking(locking) });
            Fix { label: label.to_owned(), edit }
        };
        let fixes = vec![set(Some(Locking::Patch), "It has a patch"), set(None, "No locking")];
        Finding { fixes, ..RULE.finding(Subject::Group(g.id), says) }
    };
    manual.fasteners.values().filter(meets).map(finding).collect()
}

#[cfg(test)]
mod tests {
    use crate::checks::written::check;

    #[test]
    fn locker_in_polycarbonate() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 T6 6 mm, into pc, locker
            ~~~ locker-on-polycarbonate: T6, 6 mm, lid: no liquid thread locker on polycarbonate. Use a screw with a patch, or none.
            ",
        );
    }

    #[test]
    fn locker_in_steel() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 T6 6 mm, into steel, locker
            ",
        );
    }
}
