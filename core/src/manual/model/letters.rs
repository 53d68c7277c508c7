//! The letter that a group of screws goes by on mats, maps and in sentences.
//!
//! Letters follow the order of removal for as long as nothing was taken away. From then on they are written down: what is
//! printed, and stuck to a tray, must not change its name because another group went.

use crate::ids::*;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::Refusal;
use crate::manual::{Aspect, FastenerGroup, Manual, Phase, told_at};
use std::collections::{BTreeMap, BTreeSet};

impl Manual {
    /// The groups of the teardown with the numbers of their steps, in the order in which they come out.
    /// O(groups · log groups).
    pub fn groups_in_order(&self) -> Vec<(usize, &FastenerGroup)> {
        let numbers: BTreeMap<StepId, usize> =
            self.steps_in(Phase::Teardown).iter().enumerate().map(|(i, s)| (s.id, i + 1)).collect();
        let mut groups: Vec<(usize, &FastenerGroup)> =
            self.fasteners.values().filter_map(|g| Some((*numbers.get(&g.step)?, g))).collect();
        // As they are told within a step: ids do not sort by time.
        groups.sort_by_key(|(number, g)| (*number, told_at(&g.evidence), g.id));
        groups
    }

    /// The letter of each group of the teardown: its own, else the next one in the order of removal.
    pub fn letters(&self) -> BTreeMap<GroupId, String> {
        let taken: BTreeSet<&str> = self.fasteners.values().filter_map(|g| g.letter.as_deref()).collect();
        // A letter that was given up is on somebody's tray: new groups go on behind the last.
        let used = (0..).map(letter).take_while(|l| taken.iter().any(|t| behind(t, l) || t == l)).count();
        let mut free = (used..).map(letter);
        let groups = self.groups_in_order();
        groups.into_iter().map(|(_, g)| (g.id, g.letter.clone().or_else(|| free.next()).unwrap_or_default())).collect()
    }

    /// Writes down the letters as they stand, before a group goes.
    pub(in crate::manual) fn keep_letters(&mut self, touched: &mut Touched) {
        for (id, letter) in self.letters() {
            if let Some(group) = self.fasteners.get_mut(&id).filter(|g| g.letter.is_none()) {
                group.letter = Some(letter);
                touched.add(Aspect::Fasteners, id.0);
            }
        }
    }
}

/// A, B … Z, AA, AB …
fn letter(n: usize) -> String {
    let last = char::from(b'A' + (n % 26) as u8);
    if n < 26 { last.to_string() } else { format!("{}{last}", letter(n / 26 - 1)) }
}

/// Whether one letter comes later than another.
fn behind(one: &str, other: &str) -> bool {
    (one.len(), one) > (other.len(), other)
}

/// # Errors
/// Where it is no letter.
pub(super) fn sound_letter(letter: &str) -> Result<(), Refusal> {
    if (1..=3).contains(&letter.len()) && letter.bytes().all(|b| b.is_ascii_uppercase()) {
        return Ok(());
    }
    Err(Refusal::invalid("letter", format!("“{letter}” is no letter; groups go by A to ZZZ")))
}

#[cfg(test)]
mod tests {
    use super::letter;
    use crate::manual::written::{group, manual};
    use crate::manual::{Edit, FastenerEdit, Manual, StepEdit};
    use rstest::rstest;

    #[rstest]
    #[case(0, "A")]
    #[case(25, "Z")]
    #[case(26, "AA")]
    #[case(701, "ZZ")]
    #[case(702, "AAA")]
    fn letters_go_on_behind_z(#[case] n: usize, #[case] wanted: &str) {
        assert_eq!(letter(n), wanted);
    }

    fn applied(m: &Manual, edit: Edit) -> Manual {
        m.apply(&edit, "Ann").unwrap().0
    }

    fn letters(m: &Manual) -> String {
        m.letters().into_values().collect::<Vec<_>>().join(" ")
    }

    const THREE: &str = "1 lid: 4 PH0 8 mm\n2 fan: 2 PH0 6 mm\n3 pump: 1 T6 4 mm";

    #[test]
    fn a_group_that_goes_leaves_the_others_their_letters() {
        let m = applied(&manual(THREE), Edit::Fastener(FastenerEdit::Remove { id: group(10) }));
        assert_eq!(letters(&m), "B C");
        let step = m.fasteners[&group(11)].step;
        let m = applied(&m, Edit::Fastener(FastenerEdit::Add { id: group(20), step }));
        assert_eq!(m.letters()[&group(20)], "D", "the letter that was given up is on somebody's tray");
    }

    #[test]
    fn so_does_a_step_with_its_screws() {
        let m = manual(THREE);
        let id = m.fasteners[&group(11)].step;
        assert_eq!(letters(&applied(&m, Edit::Step(StepEdit::Remove { id }))), "A C");
    }

    #[test]
    fn an_undo_brings_the_letters_back_as_they_were() {
        let m = manual(THREE);
        let (next, change) = m.apply(&Edit::Fastener(FastenerEdit::Remove { id: group(10) }), "Ann").unwrap();
        assert_eq!(next.revert(&change).unwrap().0.letters(), m.letters());
    }
}
