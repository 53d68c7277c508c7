//! A tool is left in a gap while something else is done, and nobody takes it out again.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::{Action, Phase, Step};
use crate::things::words;

pub(super) const RULE: Rule = Rule {
    id: RuleId::ToolLeftInside,
    stop: Stop::Fold,
    blocks: false,
    may_set_aside: true,
    why: "A pick or a cloth that stays inside cuts a cable, or rattles until the device is opened again.",
    source: "counting tools in and out of the work (common practice, no source)",
};

/// What is pushed or laid in and must come out.
const TOOLS: [&str; 10] =
    ["pick", "picks", "spudger", "wedge", "wedges", "spatula", "shim", "cloth", "towel", "tissue"];
/// The same, unless it is a card of the device: those are tools in a gap alone.
const IN_A_GAP: [&str; 3] = ["card", "stick", "lever"];
const GAPS: [&str; 4] = ["gap", "seam", "edge", "corner"];
const LEAVES: [&str; 4] = ["leave", "leaving", "leaves", "left"];
const INSIDE: [&str; 7] = ["in", "inside", "under", "underneath", "between", "there", "behind"];
const TAKES: [&str; 8] = ["take", "pull", "remove", "slide", "draw", "lift", "out", "off"];

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let steps: Vec<&Step> = [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| manual.steps_in(p)).collect();
    let row: Vec<(&Step, &Action)> = steps.iter().flat_map(|s| s.actions.iter().map(move |a| (*s, a))).collect();
    let said: Vec<Vec<String>> = row.iter().map(|(_, a)| words(&manual.sentence(a))).collect();
    let left = |i: usize| left_in(&said[i]).filter(|tool| !said[i + 1..].iter().any(|w| taken_out(w, tool)));
    (0..row.len())
        .filter_map(|i| Some((i, left(i)?)))
        .map(|(i, tool)| {
            let (step, action) = row[i];
            let said = manual.sentence(action);
            let says = format!(
                "“{}”: nobody takes the {tool} out again before the device is closed. Tell where it comes out.",
                said.trim_end_matches('.')
            );
            RULE.finding(Subject::Step(step.id), says).resting_on(&said)
        })
        .collect()
}

/// The tool that a sentence leaves where it is.
fn left_in(words: &[String]) -> Option<&str> {
    let has = |list: &[&str]| words.iter().any(|w| list.contains(&w.as_str()));
    let tool = words.iter().find(|w| TOOLS.contains(&w.as_str()) || has(&GAPS) && IN_A_GAP.contains(&w.as_str()))?;
    (has(&LEAVES) && has(&INSIDE)).then_some(tool)
}

fn taken_out(words: &[String], tool: &str) -> bool {
    words.iter().any(|w| w == tool) && words.iter().any(|w| TAKES.contains(&w.as_str())) && left_in(words).is_none()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::check;
    use rstest::rstest;

    #[test]
    fn a_pick_that_stays_in_the_gap() {
        check(
            &RULE,
            "[0:00] Heat the glass. Leave the pick in the gap. Take off the glass. Unplug the fan. Take out the fan.",
            &[
                "“Leave the pick in the gap”: nobody takes the pick out again before the device is closed. Tell where it comes out.",
            ],
        );
    }

    #[rstest]
    #[case::taken_out("[0:00] Heat the glass. Leave the pick in the gap. Pull the pick out. Take off the glass.")]
    #[case::taken_out_later(
        "[0:00] Leave the wedge under the board. Unplug the fan.\n\n[0:20] Take out the wedge. Take out the board."
    )]
    #[case::no_tool("[0:00] Leave the two screws in the bracket. Take off the bracket.")]
    #[case::a_card_of_the_device("[0:00] Leave the memory card in. Take off the glass.")]
    #[case::on_the_bench("[0:00] Leave the pick on the mat. Take off the glass.")]
    fn what_comes_out_again_or_never_went_in(#[case] text: &str) {
        check(&RULE, text, &[]);
    }
}
