//! Something is known to lie behind a joint, and nobody said how deep a tool may go beside it.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::MarkKind;

pub(super) const RULE: Rule = Rule {
    id: RuleId::DepthUntold,
    stop: Stop::Seams,
    blocks: false,
    may_set_aside: true,
    why: "“Not too deep” is no figure: a flex is cut and a cell is pierced a few millimetres behind the rim.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let open = manual.seams.values().filter(|s| s.depth.is_none() && manual.steps.contains_key(&s.step));
    open.flat_map(|seam| {
        let silent = seam.marks.iter().filter(|m| m.kind == MarkKind::Shallow && m.depth.is_none());
        silent.map(|mark| {
            let beside = mark
                .part
                .map_or("where it must stay shallow".to_owned(), |p| format!("beside the {}", manual.part_name(p)));
            let says = format!(
                "“{}” does not tell how deep the tool may go {beside}. Write the millimetres.",
                case.title(seam.step)
            );
            RULE.finding(Subject::Step(seam.step), says).resting_on((seam.id, mark.id))
        })
    })
    .collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn not_too_deep_is_no_figure() {
        check(
            &RULE,
            "
            step Remove the lid with spudger
            ~~~ depth-untold: “Remove the lid” does not tell how deep the tool may go beside the fan cable. Write the millimetres.
            ~~~ depth-untold: “Remove the lid” does not tell how deep the tool may go where it must stay shallow. Write the millimetres.
            joint of the lid: glue
            mark stay shallow: top edge, fan cable
            mark stay shallow: left edge
            mark stay shallow: right edge, 2 mm
            mark keep out: bottom right corner
            ",
        );
    }

    #[test]
    fn a_limit_for_the_whole_joint_holds_there_too() {
        check(&RULE, "step Remove the lid\njoint of the lid: glue, 3 mm\nmark stay shallow: top edge, fan cable");
    }
}
