//! A joint is pried open, and nobody said where the tool goes in.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::{MarkKind, Seam};
use crate::seams::opening::is_pried;

pub(super) const RULE: Rule = Rule {
    id: RuleId::EntryUntold,
    stop: Stop::Seams,
    blocks: false,
    may_set_aside: true,
    why: "Who guesses where to begin breaks a clip, scratches the edge, or cuts what lies right behind it.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let entered = |s: &Seam| {
        s.marks
            .iter()
            .any(|m| m.kind == MarkKind::Entry && (m.at.is_some() || m.landmark.is_some() || m.tool.is_some()))
    };
    let silent = manual.seams.values().filter(|s| is_pried(manual, s) && !entered(s));
    silent
        .map(|seam| {
            let says = format!(
                "“{}” does not tell where the tool goes in first. Mark it on the outline.",
                case.title(seam.step)
            );
            RULE.finding(Subject::Step(seam.step), says).resting_on(seam.id)
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn nobody_said_where() {
        check(
            &RULE,
            "
            step Remove the lid with spudger
            ~~~ entry-untold: “Remove the lid” does not tell where the tool goes in first. Mark it on the outline.
            joint of the lid: glue
            mark run along: all round
            ",
        );
    }

    #[test]
    fn told_by_its_place_or_a_landmark() {
        check(&RULE, "step Remove the lid\njoint of the lid: clips\nmark enter: top edge");
        check(&RULE, "step Remove the lid\njoint of the lid: clips\nmark enter: beside the card slot");
    }

    #[test]
    fn what_is_peeled_has_no_entry() {
        check(
            &RULE,
            "step Remove the foot\njoint of the foot: glue\nstep Remove the strip\njoint of the strip: tape\nmark run along: top edge",
        );
    }
}
