//! Liquid thread locker meets polycarbonate.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, FastenerEdit, FastenerField, FastenerGroup, Locking};
use crate::screw::Material;

pub(super) const RULE: Rule = Rule {
    id: RuleId::LockerOnPolycarbonate,
    stop: Stop::Screws,
    blocks: true,
    may_set_aside: false,
    why: "Anaerobic thread locker and oil crack polycarbonate, often days later.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let meets = |g: &&FastenerGroup| {
        let touched = [g.joint.into, g.joint.clamped];
        g.locking == Some(Locking::Liquid) && touched.contains(&Some(Material::Pc))
    };
    let finding = |g: &FastenerGroup| {
        let says = format!(
            "{}: no liquid thread locker on polycarbonate. Use a screw with a patch, or none.",
            manual.words_of(g).name()
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
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn locker_in_polycarbonate() {
        check(&RULE,
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
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 T6 6 mm, into steel, locker
            ",
        );
    }
}
