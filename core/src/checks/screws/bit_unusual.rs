//! The bit told for a screw is not one that its thread has by the standards.

use crate::checks::Case;
use crate::fasteners::bits::advice;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, FastenerEdit, FastenerField};

pub(super) const RULE: Rule = Rule {
    id: RuleId::BitUnusual,
    stop: Stop::Screws,
    blocks: false,
    may_set_aside: true,
    why: "A bit that is a size off slips out and strips the head.",
    source: "ISO 7045, ISO 14583, ISO 4762, JIS B 1111 (from memory); below M1.6 common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let odd = |g: &&crate::manual::FastenerGroup| advice(g).unusual;
    let finding = |g: &crate::manual::FastenerGroup| {
        let (usual, bit) = (advice(g).usual, g.bit.as_deref().unwrap_or_default());
        let thread = g.thread.map(|t| t.to_string()).unwrap_or_default();
        let says = format!(
            "{}: {bit} in an {thread} screw, which usually takes {}. Look again, or correct the thread.",
            manual.words_of(g).name(),
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
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn a_size_off() {
        check(&RULE,
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
            &RULE,
            "
            step Remove the lid
            screws of the lid: 4 PH00 6 mm, M2
            ",
        );
    }
}
