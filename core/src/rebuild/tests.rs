use super::*;
use crate::labels::Label;
use crate::manual::*;
use crate::reading::Act;
use rstest::rstest;
use uuid::Uuid;

/// A teardown written as an author would: one line a step, `screws 4/3` = four out, three back.
#[allow(clippy::too_many_lines)] // One table of words.
fn teardown(script: &str) -> Manual {
    let mut manual = Manual::new(ManualId(Uuid::nil()), "Lamp", "Lamp 1");
    let mut ids = crate::ids::IdMaker::new(Uuid::nil());
    let mut last = None;
    for line in script.lines().map(str::trim).filter(|l| !l.is_empty()) {
        let step = ids.make(StepId);
        let apply = |manual: &Manual, edit: Edit| manual.apply(&edit, "test").unwrap().0;
        manual = apply(
            &manual,
            Edit::Step(StepEdit::Add {
                id: step,
                phase: Phase::Teardown,
                after: last,
                title: line.to_owned(),
                actions: Vec::new(),
            }),
        );
        last = Some(step);
        let (verb, rest) = line.split_once(' ').unwrap();
        let part_id = |manual: &Manual, name: &str| manual.parts.values().find(|p| p.name == name).map(|p| p.id);
        match verb {
            "remove" | "peel" => {
                let part = part_id(&manual, rest).unwrap_or_else(|| ids.make(PartId));
                if part_id(&manual, rest).is_none() {
                    manual = apply(&manual, Edit::Part(PartEdit::Add { id: part, name: rest.to_owned() }));
                }
                let act = if verb == "peel" { Act::Peel } else { Act::Remove };
                let action = Action::typed(ids.make(ActionId), act, vec![part], line);
                manual =
                    apply(&manual, Edit::Step(StepEdit::Set { id: step, field: StepField::Actions(vec![action]) }));
            }
            "switch" | "unplug" | "discharge" => {
                let act = match verb {
                    "switch" => Act::PowerOff,
                    "unplug" => Act::Unplug,
                    _ => Act::Discharge,
                };
                let sentence = Box::new(Action::typed(ids.make(ActionId), act, Vec::new(), line));
                let edit = StepEdit::Sentence { id: step, sentence: SentenceEdit::Add { sentence, after: None } };
                manual = apply(&manual, Edit::Step(edit));
            }
            "disconnect" => {
                let part = ids.make(PartId);
                manual = apply(&manual, Edit::Part(PartEdit::Add { id: part, name: format!("{rest} cable") }));
                let id = ids.make(ConnectorId);
                manual = apply(&manual, Edit::Connector(ConnectorEdit::Add { id, step }));
                manual = apply(
                    &manual,
                    Edit::Connector(ConnectorEdit::Set { id, field: ConnectorField::Serves(Some(part)) }),
                );
                manual = apply(
                    &manual,
                    Edit::Connector(ConnectorEdit::Set { id, field: ConnectorField::Power(rest == "battery") }),
                );
            }
            "screws" => {
                let id = ids.make(GroupId);
                manual = apply(&manual, Edit::Fastener(FastenerEdit::Add { id, step }));
                let (out, back) = rest.split_once('/').unwrap_or((rest, ""));
                manual = apply(
                    &manual,
                    Edit::Fastener(FastenerEdit::Set { id, field: FastenerField::Count(out.parse().ok()) }),
                );
                manual = apply(
                    &manual,
                    Edit::Fastener(FastenerEdit::Set { id, field: FastenerField::Refitted(back.parse().ok()) }),
                );
            }
            other => panic!("unknown verb {other}"),
        }
    }
    manual
}

fn titles(manual: &Manual) -> Vec<String> {
    fold(manual).rebuild.into_iter().map(|s| s.title).collect()
}

#[test]
fn reverses_the_order() {
    let manual = teardown("screws 4\nremove lid\nremove fan");
    assert_eq!(titles(&manual), ["Fit the fan", "Fit the lid", "Drive in the four screws"]);
}

#[test]
fn the_power_source_waits_for_every_other_connector() {
    let manual = teardown("remove lid\ndisconnect fan\ndisconnect battery\nremove board");
    let fold = fold(&manual);
    assert_eq!(titles(&manual), ["Fit the board", "Connect the fan cable", "Connect the battery cable", "Fit the lid"]);
    assert!(fold.rebuild[2].moved.as_ref().unwrap().words().contains("last of all connectors"));
}

#[test]
fn a_power_source_taken_first_needs_no_displacing() {
    let manual = teardown("remove lid\ndisconnect battery\ndisconnect fan\nremove board");
    let fold = fold(&manual);
    assert_eq!(titles(&manual), ["Fit the board", "Connect the fan cable", "Connect the battery cable", "Fit the lid"]);
    assert!(fold.rebuild.iter().all(|s| s.moved.is_none()));
}

/// A pack that slides out makes the device live when it slides in: behind every plug, and the covers told after it follow.
#[rstest]
#[case::taken_late("remove lid\ndisconnect fan\nremove board\nremove pack", &["Fit the board", "Connect the fan cable", "Fit the pack", "Fit the lid"], true)]
#[case::taken_first("remove pack\nremove lid\ndisconnect fan", &["Connect the fan cable", "Fit the lid", "Fit the pack"], false)]
#[case::no_plugs("remove lid\nremove pack\nremove board", &["Fit the board", "Fit the pack", "Fit the lid"], false)]
fn a_pack_goes_in_behind_every_connector(#[case] script: &str, #[case] wanted: &[&str], #[case] displaced: bool) {
    let mut manual = teardown(script);
    let pack = manual.parts.values().find(|p| p.name == "pack").unwrap().id;
    manual =
        manual.apply(&Edit::Part(PartEdit::Set { id: pack, field: PartField::PowerSource(true) }), "test").unwrap().0;
    assert_eq!(titles(&manual), wanted);
    let folded = fold(&manual).rebuild;
    let own = folded.iter().find(|s| s.title == "Fit the pack").unwrap();
    assert_eq!(own.moved.is_some(), displaced, "{:?}", own.moved);
}

/// A battery with a plug is dead until it is plugged in: it goes in where reversing puts it.
#[test]
fn a_battery_with_a_plug_stays_in_its_place() {
    let mut manual = teardown("remove lid\ndisconnect battery\ndisconnect fan\nremove battery cable");
    let battery = manual.parts.values().find(|p| p.name == "battery cable").unwrap().id;
    let field = PartField::PowerSource(true);
    manual = manual.apply(&Edit::Part(PartEdit::Set { id: battery, field }), "test").unwrap().0;
    let wanted = ["Fit the battery cable", "Connect the fan cable", "Connect the battery cable", "Fit the lid"];
    assert_eq!(titles(&manual), wanted);
}

/// Switched off, unplugged and discharged are three things: one comes back, one is plugged in, and charge is never let in.
#[rstest]
#[case::off_first("switch off\nremove lid\nremove fan", &["Fit the fan", "Fit the lid", "Switch on and test"], false)]
#[case::off_in_the_middle("remove lid\nswitch off\nremove fan", &["Fit the fan", "Fit the lid", "Switch on and test"], true)]
#[case::unplugged("unplug radio\nremove lid", &["Fit the lid", "Plug in and test"], false)]
#[case::off_and_unplugged("switch off\nunplug radio\nremove lid", &["Fit the lid", "Plug in and test"], false)]
#[case::discharged("remove lid\ndischarge capacitor\nremove fan", &["Fit the fan", "Fit the lid"], false)]
#[case::cell_before_the_covers("switch off\nremove lid\ndisconnect battery\nremove fan", &["Fit the fan", "Connect the battery cable", "Fit the lid", "Switch on and test"], false)]
fn nothing_is_switched_on_before_the_last_cover_is_back(
    #[case] script: &str,
    #[case] wanted: &[&str],
    #[case] displaced: bool,
) {
    let manual = teardown(script);
    assert_eq!(titles(&manual), wanted);
    let last = fold(&manual).rebuild.pop().unwrap();
    assert_eq!(last.moved.is_some(), displaced, "{:?}", last.moved);
}

#[test]
fn peeled_adhesive_is_renewed_and_says_why() {
    let fold = fold(&teardown("peel sleeve"));
    let line = &fold.rebuild[0].lines[0];
    assert!(line.text.starts_with("Renew the adhesive") && line.because.is_some());
}

// Worked case: 12 out, 2 stripped and replaced by 2 new, 12 driven leaves nothing over (bookkeeping, computed by hand).
#[rstest]
#[case("screws 4", 0, 0, 0, true)]
#[case("screws 6/5", 1, 0, 0, false)]
#[case("screws 4/5", 0, 1, 0, false)]
#[case("screws x", 0, 0, 1, false)]
#[case("screws 6/5\nscrews 4/5", 1, 1, 0, false)]
fn balances_screws(
    #[case] script: &str,
    #[case] left: u32,
    #[case] too_many: u32,
    #[case] uncounted: usize,
    #[case] proven: bool,
) {
    let balance = balance(&teardown(script));
    assert_eq!(
        (balance.left_over, balance.too_many, balance.uncounted, balance.proven),
        (left, too_many, uncounted, proven)
    );
}

#[test]
fn the_bench_holds_what_came_out_so_far() {
    let fold = fold(&teardown("screws 4\nremove lid\nscrews 3"));
    assert_eq!(fold.teardown.iter().map(|r| r.bench.screws).collect::<Vec<_>>(), [Some(4), Some(4), Some(7)]);
}

#[test]
fn one_group_that_nobody_counted_leaves_the_bench_unknown() {
    let fold = fold(&teardown("screws 4\nscrews ?\nscrews 3"));
    assert_eq!(fold.teardown.iter().map(|r| r.bench.screws).collect::<Vec<_>>(), [Some(4), None, None]);
}

/// What stays out is not driven, what is renewed says so, and what was counted back is the count.
#[rstest]
#[case::counted_back("screws 4/3", None, Some("Drive in the three screws."))]
#[case::renewed(
    "screws 4",
    Some(FastenerFate::Renew),
    Some("Drive in the four screws (new ones, the old ones stay out).")
)]
#[case::left_out("screws 4", Some(FastenerFate::LeaveOut), None)]
fn the_line_of_the_screws_says_what_goes_back(
    #[case] script: &str,
    #[case] fate: Option<FastenerFate>,
    #[case] wanted: Option<&str>,
) {
    let mut manual = teardown(script);
    let id = *manual.fasteners.keys().next().unwrap();
    if let Some(fate) = fate {
        let edit = Edit::Fastener(FastenerEdit::Set { id, field: FastenerField::Fate(fate) });
        manual = manual.apply(&edit, "test").unwrap().0;
    }
    let lines: Vec<String> = fold(&manual).rebuild.into_iter().flat_map(|s| s.lines).map(|l| l.text).collect();
    assert_eq!(lines, wanted.into_iter().collect::<Vec<_>>());
}

#[test]
fn every_act_that_takes_apart_has_an_inverse_that_puts_together() {
    use crate::reading::Direction;
    for act in Act::ALL.iter().copied().filter(|a| a.direction() == Direction::Out) {
        let back = inverse(act).unwrap_or_else(|| panic!("{act:?} has no inverse"));
        assert_ne!(back.direction(), Direction::Out, "{act:?} → {back:?}");
    }
}

/// Face down for the base plate, on its side for the switch: the way back turns it the same way, each time once.
#[test]
fn the_device_is_turned_back_where_the_work_needs_it() {
    let mut manual = teardown("remove cap\nremove plate\nremove switch\nremove spring");
    let ids: Vec<StepId> = manual.steps_in(Phase::Teardown).iter().map(|s| s.id).collect();
    for (at, posture) in [(1, Posture::FaceDown), (2, Posture::OnSide)] {
        let field = StepField::Posture(Some(posture));
        manual = manual.apply(&Edit::Step(StepEdit::Set { id: ids[at], field }), "test").unwrap().0;
    }
    let lies: Vec<Option<Posture>> = fold(&manual).rebuild.iter().map(|s| s.posture).collect();
    assert_eq!(lies, [None, None, Some(Posture::FaceDown), None]);
}

#[test]
fn a_told_step_knows_its_place_among_the_told_ones() {
    let fold = fold(&drafted::manual(
        "[0:00] Take off the cover. Unplug the fan cable. Take out the fan. Take out the tray.\n\n\
         [0:20] Now the assembly. Put the tray in.\n\n[0:30] Put the fan in.\n\n[0:40] Put the cover on.",
    ));
    let numbers: Vec<Option<usize>> = fold.rebuild.iter().filter(|s| s.told.is_some()).map(|s| s.told_number).collect();
    assert_eq!(numbers, [Some(1), Some(2), Some(3)]);
    assert!(fold.rebuild.iter().all(|s| s.told.is_some() == s.told_number.is_some()));
}
