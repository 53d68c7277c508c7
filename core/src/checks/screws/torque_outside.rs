//! A setting lies outside the window that was computed for its joint.

use crate::checks::Case;
use crate::fasteners::setting::setting;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::labels::Label;
use crate::manual::TorqueFrom;
use crate::manual::{Edit, FastenerEdit, FastenerField, FastenerGroup, Manual};
use crate::screw::{TorqueVerdict, TorqueWindow};
use crate::units::{in_newton_metres, number};

pub(super) const RULE: Rule = Rule {
    id: RuleId::TorqueOutside,
    stop: Stop::Screws,
    blocks: true,
    may_set_aside: false,
    why: "Below the window the screw comes loose; above it something gives way.",
    source: "VDI 2230, ISO 898-7, FED-STD-H28/2 (from memory); shares by common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    manual.fasteners.values().filter_map(|g| outside(manual, g)).collect()
}

fn outside(manual: &Manual, group: &FastenerGroup) -> Option<Finding> {
    let found = setting(group);
    let (window_of, given) = (found.computed.as_ref()?, group.torque?);
    if !found.open {
        return None;
    }
    let (given, label) = (number(in_newton_metres(given)), manual.words_of(group).name());
    let from = group.torque_from.unwrap_or(TorqueFrom::Author).label();
    let guess =
        if found.certain { String::new() } else { format!(" That rests on guesses: {}.", found.assumed.join(", ")) };
    let says = match found.verdict? {
        TorqueVerdict::Breaks if found.certain => {
            format!("{given} N·m for {label}, from {from}, breaks the screw. Write a smaller setting.")
        }
        TorqueVerdict::Breaks => {
            format!("{given} N·m for {label}, from {from}, may break the screw. Look at what is known of it.")
        }
        TorqueVerdict::Above => format!(
            "{given} N·m for {label}, from {from}, is more than {}: {}. Lower it, or say why it stands.",
            window(window_of),
            window_of.limit_says
        ),
        _ => format!(
            "{given} N·m for {label}, from {from}, is less than {}: it may come loose. Raise it, or say why it stands.",
            window(window_of)
        ),
    };
    let set = |nm: f64| {
        let field = FastenerField::TorqueNm(Some(nm));
        let edit = Edit::Fastener(FastenerEdit::Set { id: group.id, field });
        Fix { label: format!("Set {} N·m", number(nm)), edit }
    };
    Some(Finding {
        fixes: window_of.recommended_nm.map(set).into_iter().collect(),
        ..RULE.finding(Subject::Group(group.id), says + &guess).blocking(found.certain)
    })
}

fn window(window_of: &TorqueWindow) -> String {
    format!("the window of {} to {} N·m", number(window_of.min_nm), number(window_of.max_nm))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn more_than_the_hole_bears() {
        check(&RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, M3, class 4.8, into steel, 6 deep, 0.7 N·m
            ~~~ torque-outside: 0.7 N·m for PH1, 8 mm, lid, from the author, is more than the window of 0.303 to 0.498 N·m: the screw twists off. Lower it, or say why it stands.
            ",
        );
    }

    #[test]
    fn too_little_to_hold() {
        check(&RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, M3, class 4.8, into steel, 6 deep, 0.1 N·m
            ~~~ torque-outside: 0.1 N·m for PH1, 8 mm, lid, from the author, is less than the window of 0.303 to 0.498 N·m: it may come loose. Raise it, or say why it stands.
            ",
        );
    }

    #[test]
    fn a_reason_lets_it_stand_unless_it_breaks_the_screw() {
        check(
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, M3, class 4.8, into steel, 6 deep, 0.7 N·m, because it was measured
            screws of the lid: 4 PH1 8 mm, M3, class 4.8, into steel, 6 deep, 0.9 N·m, because it was measured
            ~~~ torque-outside: 0.9 N·m for PH1, 8 mm, lid, from the author, breaks the screw. Write a smaller setting.
            ",
        );
    }

    /// The standard torque of M1.6 (series quoted with JIS B 1083, from memory), as a maker gives it: a guessed class hides
    /// nothing and refuses nothing.
    #[test]
    fn a_guess_never_refuses_a_makers_value() {
        check(
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH000 4 mm, M1.6, 0.086 N·m
            ~~~ torque-outside: 0.086 N·m for PH000, 4 mm, lid, from the author, is more than the window of 0.042 to 0.054 N·m: the screw twists off. Lower it, or say why it stands. That rests on guesses: class 4.8, as is usual for small screws with a cross recess, a hole in steel, 1 diameters deep, the friction that is usual for such a screw.
            ",
        );
    }

    #[test]
    fn inside_or_without_a_thread() {
        check(
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH1 8 mm, M3, class 4.8, into steel, 6 deep, 0.4 N·m
            screws of the lid: 4 PH1 8 mm, 9 N·m
            ",
        );
    }
}
