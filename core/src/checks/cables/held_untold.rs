//! A part is lifted while its cable is still on, and nobody said so.

use crate::cables::lives::tethers;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};

pub(super) const RULE: Rule = Rule {
    id: RuleId::HeldUntold,
    stop: Stop::Cables,
    blocks: false,
    may_set_aside: true,
    why: "Who lifts a part that still hangs on its cable tears the cable, or the socket off its board.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let silent = tethers(manual).into_iter().filter(|t| !t.told);
    silent
        .map(|t| {
            let part = manual.part_name(t.part);
            let says = format!(
                "Step {} (“{}”) lifts the {part} while its cable is on; step {} undoes it. Tell how far it may go and what \
                 holds it.",
                t.lifted,
                case.title(t.lifted_in),
                t.freed
            );
            RULE.finding(Subject::Step(t.lifted_in), says).resting_on((t.connector, t.part))
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::check;

    #[test]
    fn lifted_before_it_is_unplugged() {
        check(
            &RULE,
            "Take off the cover. Take out the fan. Take out the frame. Disconnect the fan. Take out the filter.",
            &[
                "Step 2 (“Remove the fan”) lifts the fan while its cable is on; step 4 undoes it. Tell how far it may go and what holds it.",
            ],
        );
    }

    #[test]
    fn unplugged_first() {
        check(&RULE, "Take off the cover. Disconnect the fan. Take out the fan.", &[]);
    }
}
