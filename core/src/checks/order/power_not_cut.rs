//! Live parts are worked on before anything cuts the power.

use crate::checks::{Case, move_up};
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::{ActionId, PartId, StepId};
use crate::manual::{Action, Edit, Manual, Part, Phase, Step, StepEdit};
use crate::power::{cut, live_work, switches_off};
use crate::reading::Act;
use crate::things::{Source, source};
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::PowerNotCut,
    stop: Stop::Chain,
    blocks: true,
    may_set_aside: true,
    why: "A slipping tool shorts live parts: boards die, cells burn, mains can kill.",
    source: "lock out before work, no hot plugging (common practice, no source)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let steps = manual.steps_in(Phase::Teardown);
    let cutting = steps.iter().position(|s| cut(manual, s).is_some());
    // What must go first to reach the source at all stays first.
    let on_the_way = |at: usize| cutting.is_some_and(|c| case.chain().sure_graph().needed_for(&[c]).contains(at));
    let early = cutting.unwrap_or(steps.len());
    let live = (0..early).filter(|at| !on_the_way(*at));
    let Some((at, what)) = live.into_iter().find_map(|at| Some((at, live_work(manual, steps[at])?))) else {
        return Vec::new();
    };
    let off = steps[..=at].iter().position(|s| switches_off(s));
    let off = off.map_or(String::new(), |n| format!("; step {} only switches it off", n + 1));
    let (title, number) = (&steps[at].title, at + 1);
    let help = match cutting {
        Some(c) => format!("Step {} (“{}”) cuts it: move it up.", c + 1, steps[c].title),
        None => "Add a step before it that unplugs the device or disconnects its battery.".to_owned(),
    };
    let says = format!("Step {number} (“{title}”) works at {what} before anything cuts the power{off}. {help}");
    let fixes = match cutting {
        Some(c) => vec![move_up(&steps, c, at)],
        None => steps_that_cut(manual, &steps, at),
    };
    vec![RULE.finding(Subject::Step(steps[at].id), says).resting_on(cutting).with(fixes)]
}

/// A step before it for each source that the manual knows. Where it knows none, the wall is asked for: a device that runs
/// on cells is not dead because somebody pulled a plug.
fn steps_that_cut(manual: &Manual, steps: &[&Step], at: usize) -> Vec<Fix> {
    let live = steps[at].id;
    let before = at.checked_sub(1).map(|n| steps[n].id);
    let outside = |p: &&Part| matches!(source(&p.name), Some(Source::Mains | Source::Supply | Source::Charger));
    let (fed, cells): (Vec<&Part>, Vec<&Part>) = manual.parts.values().filter(|p| p.power_source).partition(outside);
    let taken = cells.iter().map(|p| {
        let edit = added(live, before, Act::Remove, vec![p.id], format!("Remove the {}", p.name));
        Fix::new(format!("Take the {} out before it", p.name), edit)
    });
    let unplugged = (!fed.is_empty() || cells.is_empty()).then(|| {
        Fix::new("Unplug the device first", added(live, None, Act::Unplug, Vec::new(), "Unplug the device".to_owned()))
    });
    taken.chain(unplugged).collect()
}

/// A new step behind another, for the one that works at live parts.
fn added(live: StepId, after: Option<StepId>, act: Act, parts: Vec<PartId>, title: String) -> Edit {
    // The same choice has the same id, however often it is offered.
    let id = |what: &str| Uuid::new_v5(&live.0, format!("{what} {title}").as_bytes());
    let sentence = Action { text: None, ..Action::typed(ActionId(id("sentence")), act, parts, "") };
    let (id, actions) = (StepId(id("step")), vec![sentence]);
    Edit::Step(StepEdit::Add { id, phase: Phase::Teardown, after, title, actions })
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::{check, manual};
    use crate::checks::findings;
    use crate::manual::Phase;
    use rstest::rstest;

    #[test]
    fn a_plug_before_the_battery() {
        check(
            &RULE,
            "Take off the cover. Disconnect the fan cable. Take out the fan. Disconnect the battery cable. Take out the battery.",
            &[
                "Step 2 (“Remove the fan”) works at the connector of the fan before anything cuts the power. Step 3 (“Remove the battery”) cuts it: move it up.",
            ],
        );
    }

    #[test]
    fn switched_off_is_not_unplugged() {
        check(
            &RULE,
            "Switch off the kettle. Take off the base. Undo two screws of the main board. Take out the main board.",
            &[
                "Step 3 (“Remove the main board”) works at the screws of the main board before anything cuts the power; step 1 only switches it off. Add a step before it that unplugs the device or disconnects its battery.",
            ],
        );
    }

    #[test]
    fn the_cover_of_a_battery_cuts_nothing() {
        check(
            &RULE,
            "Take off the battery cover. Disconnect the fan cable. Take out the fan.",
            &[
                "Step 2 (“Remove the fan”) works at the connector of the fan before anything cuts the power. Add a step before it that unplugs the device or disconnects its battery.",
            ],
        );
    }

    #[test]
    fn a_tool_at_a_board_that_is_no_part_of_the_manual() {
        check(
            &RULE,
            "Take off the cover. Pry up the main board.",
            &[
                "Step 2 (“Pry up the main board”) works at the main board before anything cuts the power. Add a step before it that unplugs the device or disconnects its battery.",
            ],
        );
    }

    #[test]
    fn one_press_moves_the_cut_before_it() {
        let told = manual("Take off the cover. Disconnect the fan cable. Take out the fan. Take out the battery pack.");
        let found = findings(&told).into_iter().find(|f| f.rule == RULE.id).unwrap();
        let moved = told.apply(&found.fixes[0].edit, "Ann").unwrap().0;
        assert!(findings(&moved).iter().all(|f| f.rule != RULE.id));
    }

    #[rstest]
    #[case::by_its_cells(
        "Take off the cover. Disconnect the fan cable. Take out the fan. Now the assembly. Put the fan in. Put the batteries in. Put the cover on.",
        &["Take the batteries out before it"],
        "Remove the batteries."
    )]
    #[case::by_the_wall("Take off the cover. Disconnect the fan cable. Take out the fan.", &["Unplug the device first"], "Unplug the device.")]
    fn one_press_adds_the_step_that_cuts(#[case] text: &str, #[case] offered: &[&str], #[case] sentence: &str) {
        let told = manual(text);
        let found = findings(&told).into_iter().find(|f| f.rule == RULE.id).unwrap();
        let labels: Vec<&str> = found.fixes.iter().map(|f| f.label.as_str()).collect();
        assert_eq!(labels, offered);
        for fix in &found.fixes {
            let safe = told.apply(&fix.edit, "Ann").unwrap().0;
            assert!(findings(&safe).iter().all(|f| f.rule != RULE.id), "{}", fix.label);
        }
        let safe = told.apply(&found.fixes[0].edit, "Ann").unwrap().0;
        let sentences: Vec<String> =
            safe.steps_in(Phase::Teardown).iter().flat_map(|s| &s.actions).map(|a| safe.sentence(a)).collect();
        let at = |text: &str| sentences.iter().position(|s| s == text);
        assert!(at(sentence).is_some() && at(sentence) < at("Disconnect the fan cable."), "{sentences:?}");
    }

    #[rstest]
    #[case::unplugged("Unplug it from the wall. Disconnect the fan cable. Take out the fan.")]
    #[case::disconnected(
        "Take off the cover. Disconnect the battery cable. Disconnect the fan cable. Take out the fan."
    )]
    #[case::pack_out("Take out the battery pack. Disconnect the fan cable. Take out the fan.")]
    #[case::nothing_electric("Undo four screws of the lid. Take off the lid. Take out the spring.")]
    fn where_it_is_cut_or_there_is_none(#[case] text: &str) {
        check(&RULE, text, &[]);
    }
}
