//! Chains of manuals drafted from a few sentences, as an author would bring them.

use super::reach::totals;
use super::*;
use crate::manual::drafted::manual;
use crate::manual::{Edit, PartEdit, PartField, RequirementEdit, StepEdit};
use rstest::rstest;
use uuid::Uuid;

const PUMP: &str = "[0:00] Unplug the power cord from the wall socket.\n\n\
    [0:10] Remove four PH2 screws from the cover. Take off the cover.\n\n\
    [0:30] Disconnect the battery cable.\n\n\
    [0:40] Disconnect the fan cable. Take out the tray.\n\n\
    [0:50] Take out the fan.\n\n\
    [1:00] Remove two T6 screws from the board. Take out the board.\n\n\
    [1:20] Take out the battery.";

fn step(m: &Manual, title: &str) -> StepId {
    m.steps.values().find(|s| s.title == title).unwrap_or_else(|| panic!("no step “{title}”: {:?}", titles(m))).id
}

fn titles(m: &Manual) -> Vec<&str> {
    m.steps_in(Phase::Teardown).iter().map(|s| s.title.as_str()).collect()
}

fn part(m: &Manual, name: &str) -> PartId {
    m.parts.values().find(|p| p.name == name).unwrap().id
}

/// What a step waits for, with the reasons.
fn waits(m: &Manual, title: &str) -> Vec<(String, Reason)> {
    let chain = Chain::of(m);
    let of = chain.of_step(step(m, title)).map(|c| (m.steps[&c.ways[0][0]].title.clone(), c.whys[0].reason));
    let mut out: Vec<_> = of.collect();
    out.sort();
    out
}

fn with(m: &Manual, edit: RequirementEdit) -> Manual {
    m.apply(&Edit::Requirement(edit), "Ada").unwrap().0
}

fn judged(m: &Manual, before: &str, then: &str, standing: Standing) -> Manual {
    let id = RequirementId(Uuid::from_u128(77));
    with(
        m,
        RequirementEdit::Judge { id, step: step(m, then), before: step(m, before), reason: Reason::Covers, standing },
    )
}

#[test]
fn steps_wait_for_joints_covers_and_power_and_not_for_succession() {
    let m = manual(PUMP);
    let cable = waits(&m, "Remove the tray");
    assert!(cable.contains(&("Disconnect the battery cable".into(), Reason::Power)), "{cable:?}");
    assert!(cable.contains(&("Remove the cover".into(), Reason::Covers)), "{cable:?}");
    let fan = waits(&m, "Remove the fan");
    assert!(fan.contains(&("Remove the tray".into(), Reason::ConnectedTo)), "{fan:?}");
    let board = waits(&m, "Remove the main board");
    assert!(!board.iter().any(|(before, _)| before == "Remove the fan"), "told later is no reason: {board:?}");
}

#[rstest]
#[case("The fan sits under the board. Take out the board.\n\n[0:10] Take out the fan.", Reason::Covers)]
#[case(
    "If you needed to replace the fan you would have to take off the board. Take out the board.\n\n[0:10] Take out the fan.",
    Reason::Stated
)]
fn what_the_narrator_says_of_the_order_is_a_reason(#[case] text: &str, #[case] reason: Reason) {
    let m = manual(&format!("[0:00] {text}"));
    let found = waits(&m, "Remove the fan");
    assert!(found.contains(&("Remove the main board".into(), reason)), "{found:?}");
    assert!(!m.requirements.values().next().unwrap().evidence.is_empty());
}

#[test]
fn a_route_takes_only_what_the_target_needs() {
    let m = manual(PUMP);
    let routes = Chain::of(&m).routes(&m, &[part(&m, "main board")], 3);
    let names: Vec<&str> = routes[0].steps.iter().map(|s| m.steps[s].title.as_str()).collect();
    assert_eq!(names.first().copied(), titles(&m).first().copied());
    assert!(names.ends_with(&["Remove the main board"]) && !names.contains(&"Remove the fan"), "{names:?}");
    assert_eq!((routes[0].totals.screws, routes[0].proven, routes.len()), (6, true, 1));
    assert!(routes[0].stays.contains(&part(&m, "fan")));
}

/// A guide for one part keeps what protects whoever follows it, though no joint, cover or cable asks for it.
#[rstest]
#[case::discharge(
    "Unplug it from the wall. Take off the cover. Discharge the smoothing capacitor. Take out the speaker.",
    "speaker",
    &["Unplug the device", "Remove the cover", "Discharge the smoothing capacitor", "Remove the speaker"]
)]
#[case::and_not_what_stands_between(
    "Unplug it from the wall. Take off the cover. Discharge the smoothing capacitor. Wait two minutes.\n\n[0:10] Take out the filter. Take out the speaker.",
    "speaker",
    &["Unplug the device", "Remove the cover", "Discharge the smoothing capacitor", "Remove the speaker"]
)]
#[case::told_later_and_not_reached(
    "Take out the filter.\n\n[0:10] Take off the cover. Discharge the smoothing capacitor. Take out the board.",
    "filter",
    &["Remove the filter"]
)]
fn a_cut_keeps_what_protects(#[case] text: &str, #[case] target: &str, #[case] wanted: &[&str]) {
    let m = manual(&format!("[0:00] {text}"));
    let route = Chain::of(&m).routes(&m, &[part(&m, target)], 1).remove(0);
    let names: Vec<&str> = route.steps.iter().map(|s| m.steps[s].title.as_str()).collect();
    assert_eq!(names, wanted, "of {:?}", titles(&m));
}

#[test]
fn a_charge_is_a_risk() {
    let m = manual("[0:00] Take off the cover. Discharge the smoothing capacitor. Take out the speaker.");
    let route = Chain::of(&m).routes(&m, &[part(&m, "speaker")], 1).remove(0);
    assert!(route.totals.risks.contains(&super::reach::Risk::Mains), "{:?}", route.totals.risks);
}

#[test]
fn nothing_has_to_come_off_is_an_answer() {
    let m = manual("[0:00] Take out the tray.\n\n[0:10] Remove two screws from the board. Take out the board.");
    let routes = Chain::of(&m).routes(&m, &[part(&m, "tray")], 3);
    assert_eq!(routes[0].steps, [step(&m, "Remove the tray")]);
    assert_eq!(Chain::of(&m).routes(&m, &[], 3)[0].steps, []);
}

#[test]
fn the_author_has_the_last_word() {
    let m = manual(PUMP);
    let dropped = judged(&m, "Remove the cover", "Remove the tray", Standing::Dropped);
    assert!(!waits(&dropped, "Remove the tray").iter().any(|(b, _)| b == "Remove the cover"));
    assert_eq!(Chain::of(&dropped).dropped.len(), 1);
    let confirmed = judged(&dropped, "Remove the cover", "Remove the tray", Standing::Confirmed);
    let chain = Chain::of(&confirmed);
    let c = chain.of_step(step(&m, "Remove the tray")).find(|c| c.confirmed).unwrap();
    assert_eq!((c.confidence(), confirmed.requirements.len()), (1.0, 1));
}

#[test]
fn one_of_two_ways_will_do() {
    let text = "[0:00] Take off the front.\n\n[0:10] Remove nine screws from the rear. Take off the rear.\n\n[0:30] Take out the pump.";
    let m = manual(text);
    let ways = vec![vec![step(&m, "Remove the front")], vec![step(&m, "Remove the rear cover")]];
    let id = RequirementId(Uuid::from_u128(5));
    let m = with(&m, RequirementEdit::Add { id, step: step(&m, "Remove the pump"), ways, because: String::new() });
    let routes = Chain::of(&m).routes(&m, &[part(&m, "pump")], 3);
    let names = |r: &RouteRow| r.steps.iter().map(|s| m.steps[s].title.clone()).collect::<Vec<_>>();
    assert_eq!(names(&routes[0]), ["Remove the front", "Remove the pump"]);
    assert_eq!(names(&routes[1]), ["Remove the rear cover", "Remove the pump"]);
    assert_eq!(routes[1].instead, [step(&m, "Remove the rear cover")]);
    assert!(routes[0].totals.seconds < routes[1].totals.seconds);
}

#[test]
fn a_way_tells_what_it_destroys_and_what_that_costs() {
    let mut m = manual("[0:00] Take off the seal.\n\n[0:10] Take off the film.\n\n[0:20] Take out the pump.");
    for (name, price) in [("seal", Some(4.5)), ("film", None)] {
        let id = part(&m, name);
        let new = crate::manual::Replacement { price, currency: Some("EUR".into()), ..Default::default() };
        for field in [PartField::SingleUse(true), PartField::Replacement(Some(new))] {
            m = m.apply(&Edit::Part(PartEdit::Set { id, field }), "Ada").unwrap().0;
        }
    }
    let steps: Vec<StepId> = m.steps_in(Phase::Teardown).iter().map(|s| s.id).collect();
    let all = totals(&m, &steps);
    assert_eq!(all.destroyed.len(), 2);
    assert_eq!(all.price, [Price { amount: 4.5, currency: "EUR".into() }]);
    assert_eq!((all.unpriced, totals(&m, &steps[2..]).destroyed.len()), (1, 0));
}

#[rstest]
#[case("Remove the fan", Some("Remove the main board"), Judged::Fine, "")]
#[case(
    "Disconnect the battery cable",
    None,
    Judged::Doubtful,
    "“Remove the cover” before “Disconnect the battery cable”: the cover covers it – if that is so."
)]
#[case(
    "Remove the main board",
    Some("Remove the cover"),
    Judged::Refused,
    "“Disconnect the battery cable” before “Remove the main board”: the source of power is disconnected before one works at the screws of the main board: nothing is done live."
)]
#[case(
    "Remove the fan",
    Some("Disconnect the battery cable"),
    Judged::Refused,
    "“Remove the tray” before “Remove the fan”: its cable ties the fan."
)]
fn a_move_is_judged(#[case] which: &str, #[case] after: Option<&str>, #[case] wanted: Judged, #[case] says: &str) {
    let m = manual(&PUMP.replace("Unplug the power cord from the wall socket.", "Hello."));
    let verdict = Chain::of(&m).judge(step(&m, which), after.map(|a| step(&m, a)), |s| m.steps[&s].title.clone());
    assert_eq!((verdict.judged, verdict.says.as_str()), (wanted, says));
    // Who drops all that speaks against it may move it.
    let free = verdict.drops.iter().fold(m, |m, edit| m.apply(edit, "Ada").unwrap().0);
    let again = Chain::of(&free).judge(step(&free, which), after.map(|a| step(&free, a)), |_| String::new());
    assert_eq!(again.judged, Judged::Fine, "{again:?}");
}

#[test]
fn a_part_that_a_guide_is_about_stays() {
    let m = manual(PUMP);
    let (id, targets) = (JobId(Uuid::from_u128(3)), vec![part(&m, "main board")]);
    let add = crate::manual::JobEdit::Add { id, title: "New board".into(), targets: targets.clone(), without: vec![] };
    let m = m.apply(&Edit::Job(add), "Ada").unwrap().0;
    let m = m.apply(&Edit::Step(StepEdit::Remove { id: step(&m, "Remove the main board") }), "Ada").unwrap().0;
    let gone = Edit::Part(crate::manual::PartEdit::Remove { id: targets[0] });
    assert!(m.apply(&gone, "Ada").unwrap_err().to_string().contains("the guide “New board”"));
    assert_eq!(jobs(&m)[0].route, None, "its way is gone, and that is said");
}

#[test]
fn how_deep_parts_sit_and_what_they_open() {
    let m = manual(PUMP);
    let depths = Chain::of(&m).depths(&m);
    let of = |name: &str| depths.iter().find(|d| d.part == part(&m, name)).unwrap();
    assert!(of("cover").opens >= 3 && of("fan").opens == 0, "{depths:?}");
    assert!(of("fan").steps > of("cover").steps);
}

#[test]
fn a_removed_or_merged_step_leaves_no_condition_behind() {
    let m = judged(&manual(PUMP), "Remove the fan", "Remove the main board", Standing::Confirmed);
    let gone = m.apply(&Edit::Step(StepEdit::Remove { id: step(&m, "Remove the fan") }), "Ada").unwrap().0;
    assert!(gone.requirements.is_empty());
    let into = step(&m, "Remove the tray");
    let merged = m.apply(&Edit::Step(StepEdit::Merge { id: step(&m, "Remove the fan"), into }), "Ada").unwrap().0;
    assert_eq!(merged.requirements.values().next().unwrap().ways, [[into]]);
}

#[rstest]
#[case(&[], "names at least one step")]
#[case(&["Remove the fan"], "cannot come before itself")]
fn a_condition_that_says_nothing_is_refused(#[case] ways: &[&str], #[case] problem: &str) {
    let m = manual(PUMP);
    let ways = ways.iter().map(|w| vec![step(&m, w)]).collect();
    let id = RequirementId(Uuid::from_u128(9));
    let edit = RequirementEdit::Add { id, step: step(&m, "Remove the fan"), ways, because: String::new() };
    let refusal = m.apply(&Edit::Requirement(edit), "Ada").unwrap_err().to_string();
    assert!(refusal.contains(problem), "{refusal}");
}
