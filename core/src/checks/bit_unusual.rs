//! The bit told for a screw is not one that its thread has by the standards.

use super::{Finding, Rule, Stop, Subject};
use crate::fasteners::balance::label;
use crate::fasteners::bits::advice;
use crate::manual::{Edit, FastenerEdit, FastenerField, Manual};
use crate::order::Fix;

const RULE: Rule = Rule {
    id: "bit-unusual",
    stop: Stop::Screws,
    blocks: false,
    why: "A bit that is a size off slips out and strips the head.",
    source: "ISO 7045, ISO 14583, ISO 4762, JIS B 1111 (from memory); below M1.6 common practice, no source",
};

pub(super) fn find(manual: &Manual) -> Vec<Finding> {
    let odd = |g: &&crate::manual::FastenerGroup| advice(g).unusual;
    let finding = |g: &crate::manual::FastenerGroup| {
        let (usual, bit) = (advice(g).usual, g.bit.as_deref().unwrap_or_default());
        let thread = g.thread.map(|t| t.to_string()).unwrap_or_default();
        let says = format!(
            "{}: {bit} in an {thread} screw, which usually takes {}. Look again, or correct the thread.",
            label(manual, g),
            usual.join(" or ")
        );
        let set = |bit: String| {
            let label = format!("It is {bit}");
            Fix { label, edit: Edit::Fastener(FastenerEdit::Set { id: g.id, field: FastenerField::Bit(Some(bit)) }) }
        };
        Finding { fixes: usual.iter().cloned().map(set).collect(), ..RULE.finding(Subject::Group(g.id), says) }
    };
    manual.fasteners.values().filter(odd).map(finding).collect()
}

#[cfg(test)]
mod tests {
    use crate::checks::written::check;

    #[test]
    fn a_size_off() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 T8 6 mm, M3
            ~~~ bit-unusual: T8, 6 mm, lid: T8 in an M3 screw, which usually takes T10. Look again, or correct the thread.
            ",
        );
    }

    #[test]
    fn one_of_several_sizes() {
        check(
            "
            step Remove the lid
            screws of the lid: 4 PH00 6 mm, M2
            ",
        );
    }
}
