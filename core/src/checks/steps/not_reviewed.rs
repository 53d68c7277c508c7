//! Steps that nobody has looked at since they were drafted.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::{Phase, Step};

pub(super) const RULE: Rule = Rule {
    id: RuleId::NotReviewed,
    // Read once more when all else is settled: whoever changes a step afterwards has to read it again.
    stop: Stop::Publish,
    blocks: false,
    may_set_aside: true,
    why: "What a program has read and no person has seen is not known to be true.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    // What is told of the rebuild reaches readers as well.
    let steps: Vec<&Step> =
        [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| case.manual.steps_in(p)).collect();
    let unreviewed: Vec<Subject> = steps.iter().filter(|s| !s.reviewed).map(|s| Subject::Step(s.id)).collect();
    if unreviewed.is_empty() {
        return Vec::new();
    }
    let says = format!("{} of {} steps have not been reviewed by anybody.", unreviewed.len(), steps.len());
    vec![RULE.finding_about(unreviewed, says)]
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn one_of_two_was_looked_at() {
        check(
            &RULE,
            "
            reviewed step Remove the lid
            step Remove the fan
            ~~~ not-reviewed: 1 of 2 steps have not been reviewed by anybody.
            ",
        );
    }

    #[test]
    fn all_were_looked_at() {
        check(&RULE, "reviewed step Remove the lid");
    }
}
