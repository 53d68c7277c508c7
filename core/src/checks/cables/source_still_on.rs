//! One source was cut, and another still feeds what a step works at.

use crate::cables::power::{PowerRow, PowerSource, line};
use crate::checks::{Case, move_up};
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::Phase;

pub(super) const RULE: Rule = Rule {
    id: RuleId::SourceStillOn,
    stop: Stop::Cables,
    blocks: true,
    may_set_aside: true,
    why: "Who has unplugged one source takes the device for dead; the other one shorts under the tool.",
    source: "lock out every source before work (common practice, no source)",
};

/// The first step of its kind; where nothing was cut before, `power-not-cut` says so.
pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let line = line(manual);
    let steps = manual.steps_in(Phase::Teardown);
    let cut_before = |row: &PowerRow| line.sources.iter().any(|s| s.cut_at.is_some_and(|c| c + 1 < row.number));
    // What must go first to reach the source at all stays first.
    let on_the_way = |row: &PowerRow, s: &PowerSource| {
        s.cut_at.is_some_and(|c| case.chain().sure_graph().needed_for(&[c]).contains(row.number - 1))
    };
    let first = line.live().filter(|(row, _)| cut_before(row)).find_map(|(row, on)| {
        let on: Vec<&PowerSource> = on.into_iter().filter(|s| !on_the_way(row, s)).collect();
        (!on.is_empty()).then_some((row, on))
    });
    let Some((row, on)) = first else { return Vec::new() };
    let names: Vec<String> = on.iter().map(|s| format!("the {}", s.name)).collect();
    let touches = row.touches.as_deref().unwrap_or_default();
    let help = match on.iter().find_map(|s| s.cut_at) {
        Some(c) => format!("Step {} (“{}”) cuts it: move it up.", c + 1, steps[c].title),
        None => "No step cuts it: add one before.".to_owned(),
    };
    let (number, title) = (row.number, &row.title);
    let says =
        format!("Step {number} (“{title}”) works at {touches} while {} is still on. {help}", names.join(" and "));
    let fix = on.iter().find_map(|s| s.cut_at).map(|c| move_up(&steps, c, number - 1));
    vec![RULE.finding(Subject::Step(row.step), says).resting_on(names).with(fix)]
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::check;
    use rstest::rstest;

    #[test]
    fn unplugged_from_the_wall_and_the_battery_still_in() {
        check(
            &RULE,
            "Unplug the power cord from the wall socket. Take off the cover. Disconnect the fan cable. Take out the fan. \
             Disconnect the battery cable. Take out the battery.",
            &[
                "Step 3 (“Remove the fan”) works at the connector of the fan while the battery is still on. Step 4 (“Remove the battery”) cuts it: move it up.",
            ],
        );
    }

    #[rstest]
    #[case::both_off(
        "Unplug the power cord from the wall socket. Take off the cover. Disconnect the battery cable. Take out the battery. Disconnect the fan cable. Take out the fan."
    )]
    #[case::one_source(
        "Disconnect the battery cable. Take out the battery. Disconnect the fan cable. Take out the fan."
    )]
    #[case::nothing_cut_yet(
        "Disconnect the fan cable. Take out the fan. Disconnect the battery cable. Take out the battery."
    )]
    fn every_source_is_off(#[case] told: &str) {
        check(&RULE, told, &[]);
    }
}
