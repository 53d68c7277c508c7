//! The bits of the job: what to lay out, in which order each step takes them, and what a group's own bit is worth.

use crate::ids::*;
use crate::manual::{FastenerGroup, HeadForm, Manual};
use crate::screw::drive::{Bit, WrongBit, fewest_changes, security, set_screw_keys, usual_bits, wrong_bits};
use crate::units::in_millimetres;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// The bits of one step in their best order.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct StepBits {
    pub step: StepId,
    pub number: usize,
    pub bits: Vec<String>,
}

/// All bits.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Bits {
    /// In the order in which they are taken up.
    pub bits: Vec<Bit>,
    /// Changes of bit along the teardown, the fewest possible.
    pub changes: usize,
    pub steps: Vec<StepBits>,
    /// Groups whose drive nobody knows.
    pub unknown: usize,
}

/// What is to be said of the bit of one group.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BitAdvice {
    /// Bits that such a screw usually has.
    pub usual: Vec<String>,
    /// The bit given is none of them.
    pub unusual: bool,
    pub security: bool,
    pub wrong: Vec<WrongBit>,
}

/// Lists the bits of the teardown.
pub fn bits(manual: &Manual) -> Bits {
    let mut out = Bits::default();
    let mut steps: BTreeMap<usize, (StepId, Vec<String>)> = BTreeMap::new();
    for (number, group) in manual.groups_in_order() {
        let Some(bit) = group.drive_words() else {
            out.unknown += 1;
            continue;
        };
        let count = group.count.unwrap_or(0);
        match out.bits.iter_mut().find(|b| b.name == bit) {
            Some(known) => known.screws += count,
            None => out.bits.push(Bit {
                name: bit.clone(),
                drive: group.drive,
                screws: count,
                security: group.drive.is_some_and(security),
            }),
        }
        steps.entry(number).or_insert((group.step, Vec::new())).1.push(bit);
    }
    let lists: Vec<Vec<String>> = steps.values().map(|(_, bits)| bits.clone()).collect();
    let (changes, order) = fewest_changes(&lists);
    out.changes = changes;
    out.steps =
        steps.into_iter().zip(order).map(|((number, (step, _)), bits)| StepBits { step, number, bits }).collect();
    out
}

/// What is known of the bit of a group.
pub fn advice(group: &FastenerGroup) -> BitAdvice {
    let Some(drive) = group.drive else { return BitAdvice::default() };
    let by_table = if group.head == Some(HeadForm::None) { set_screw_keys } else { usual_bits };
    let usual = group.thread.map(|t| by_table(drive, in_millimetres(t.diameter))).unwrap_or_default();
    let unusual = group.bit.as_ref().is_some_and(|b| !usual.is_empty() && !usual.contains(b));
    BitAdvice { wrong: wrong_bits(drive, group.bit.as_deref()), security: security(drive), usual, unusual }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::written::{group, manual};
    use rstest::rstest;

    #[test]
    fn bits_are_listed_in_the_order_they_are_taken_up() {
        let m = manual("1 lid: 4 PH0 8 mm\n1 lid: 2 T6 8 mm\n2 fan: 2 PH0 6 mm\n3 foot: 1 T6 4 mm");
        let found = bits(&m);
        let listed: Vec<(&str, u32)> = found.bits.iter().map(|b| (b.name.as_str(), b.screws)).collect();
        assert_eq!(listed, [("PH0", 6), ("T6", 3)]);
        assert_eq!((found.changes, found.steps[0].bits.join(" ")), (2, "T6 PH0".to_owned()));
    }

    #[rstest]
    #[case("1 lid: 4 PH1 8 mm, M3", false)]
    #[case("1 lid: 4 PH2 8 mm, M3", false)]
    #[case("1 lid: 4 PH0 8 mm, M3", true)]
    #[case("1 lid: 4 T10 8 mm, M3", false)]
    #[case("1 lid: 4 T8 8 mm, M3", true)]
    #[case("1 lid: 4 T8 8 mm", false)]
    fn a_bit_is_held_against_its_thread(#[case] text: &str, #[case] unusual: bool) {
        assert_eq!(advice(&manual(text).fasteners[&group(10)]).unusual, unusual);
    }
}
