//! Properties that must hold whatever authors and narrators do: figures, the fold, the balance, the Markdown.

use paso_core::fasteners::balance::balance;
use paso_core::ids::*;
use paso_core::manual::*;
use paso_core::publish;
use paso_core::reading::{Act, Drive, FastenerOp, read};
use paso_core::rebuild::{RebuildLine, RebuildStep, fold};
use paso_core::recording::Recording;
use proptest::prelude::*;
use pulldown_cmark::{Event, Parser, Tag, TagEnd};
use std::collections::BTreeMap;
use uuid::Uuid;

/// A number below a thousand in English words, as recognisers write them.
fn spelled(n: u32) -> String {
    const ONES: [&str; 20] = [
        "zero",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
        "thirteen",
        "fourteen",
        "fifteen",
        "sixteen",
        "seventeen",
        "eighteen",
        "nineteen",
    ];
    const TENS: [&str; 10] = ["", "", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"];
    match n {
        0..20 => ONES[n as usize].to_owned(),
        20..100 if n.is_multiple_of(10) => TENS[n as usize / 10].to_owned(),
        20..100 => format!("{} {}", TENS[n as usize / 10], ONES[n as usize % 10]),
        _ if n.is_multiple_of(100) => format!("{} hundred", ONES[n as usize / 100]),
        _ => format!("{} hundred and {}", ONES[n as usize / 100], spelled(n % 100)),
    }
}

fn measured(text: &str) -> Vec<(f64, Option<f64>)> {
    let recording = Recording::parse(text.as_bytes()).unwrap();
    read(&recording).sheet.measures.into_iter().map(|m| (m.fact.value, m.fact.to)).collect()
}

#[test]
fn every_number_below_a_thousand_is_read_in_words_and_in_digits() {
    for n in 1..1000 {
        let wanted = vec![(f64::from(n), None)];
        assert_eq!(measured(&format!("The spring is {} millimetres long.", spelled(n))), wanted, "{}", spelled(n));
        assert_eq!(measured(&format!("The spring is {n} millimetres long.")), wanted, "{n}");
    }
}

proptest! {
    #[test]
    fn ranges_keep_their_ends(low in 1u32..400, more in 1u32..400) {
        let high = low + more;
        let wanted = vec![(f64::from(low), Some(f64::from(high)))];
        prop_assert_eq!(measured(&format!("It turns {low} to {high} degrees to the left.")), wanted.clone());
        prop_assert_eq!(measured(&format!("It turns {} to {} degrees to the left.", spelled(low), spelled(high))), wanted);
    }

    #[test]
    fn decimals_are_read_with_point_and_with_comma(whole in 0u32..60, tenth in 1u32..10) {
        let wanted = f64::from(whole * 10 + tenth) / 10.0;
        for text in [format!("{whole}.{tenth}"), format!("{whole},{tenth}"), format!("{} point {}", spelled(whole), spelled(tenth))] {
            let found = measured(&format!("The cell gives {text} volts when full."));
            prop_assert!(found.len() == 1 && (found[0].0 - wanted).abs() < 1e-9, "{} gave {:?}", text, found);
        }
    }
}

/// What one step of a made-up teardown does.
#[derive(Debug, Clone)]
enum Deed {
    Remove,
    Screws { out: Option<u32>, back: Option<u32>, captive: bool, fate: FastenerFate },
    Connector { power: bool },
    Heat,
}

fn deed() -> impl Strategy<Value = Deed> {
    let fate = prop_oneof![Just(FastenerFate::Reuse), Just(FastenerFate::Renew), Just(FastenerFate::LeaveOut)];
    let count = || proptest::option::weighted(0.9, 1..30u32);
    prop_oneof![
        3 => Just(Deed::Remove),
        3 => (count(), proptest::option::weighted(0.5, 0..30u32), any::<bool>(), fate).prop_map(|(out, back, captive, fate)| Deed::Screws { out, back, captive, fate }),
        3 => proptest::bool::weighted(0.2).prop_map(|power| Deed::Connector { power }),
        1 => Just(Deed::Heat),
    ]
}

fn teardown(deeds: &[Deed]) -> Manual {
    let mut m = Manual::new(ManualId(Uuid::nil()), "Made up", "");
    let mut after = None;
    for (n, deed) in deeds.iter().enumerate() {
        let id = |k: u128| Uuid::from_u128(n as u128 * 10 + k + 1);
        let step = StepId(id(0));
        let mut edits = vec![Edit::Step(StepEdit::Add {
            id: step,
            phase: Phase::Teardown,
            after,
            title: format!("Step {n}"),
            actions: vec![],
        })];
        after = Some(step);
        match deed {
            Deed::Remove => {
                let part = PartId(id(1));
                let action = Action::typed(ActionId(id(2)), Act::Remove, vec![part], "Take it off.");
                edits.push(Edit::Part(PartEdit::Add { id: part, name: format!("part {n}") }));
                edits.push(Edit::Step(StepEdit::Set { id: step, field: StepField::Actions(vec![action]) }));
            }
            Deed::Screws { out, back, captive, fate } => {
                let group = GroupId(id(3));
                edits.push(Edit::Fastener(FastenerEdit::Add { id: group, step }));
                for field in [
                    FastenerField::Count(*out),
                    FastenerField::Refitted(*back),
                    FastenerField::Captive(*captive),
                    FastenerField::Fate(*fate),
                    FastenerField::Op(if *captive { FastenerOp::Loosen } else { FastenerOp::Remove }),
                    FastenerField::Drive(Some(Drive::Torx)),
                ] {
                    edits.push(Edit::Fastener(FastenerEdit::Set { id: group, field }));
                }
            }
            Deed::Connector { power } => {
                let connector = ConnectorId(id(4));
                edits.push(Edit::Connector(ConnectorEdit::Add { id: connector, step }));
                edits.push(Edit::Connector(ConnectorEdit::Set { id: connector, field: ConnectorField::Power(*power) }));
            }
            Deed::Heat => edits.push(Edit::Heat(HeatEdit::Add { id: HeatId(id(5)), step })),
        }
        m = edits.iter().fold(m, |m, e| m.apply(e, "test").unwrap().0);
    }
    m
}

/// Deeds that mere reversing undoes: no source of power, nothing captive, nothing that leaves no trace.
fn invertible() -> impl Strategy<Value = Deed> {
    let screws = |n| Deed::Screws { out: Some(n), back: None, captive: false, fate: FastenerFate::Reuse };
    prop_oneof![Just(Deed::Remove), (1..30u32).prop_map(screws), Just(Deed::Connector { power: false })]
}

/// A rebuild as the teardown of another manual.
fn turned(manual: &Manual, rebuild: &[RebuildStep]) -> Manual {
    let mut out = Manual {
        steps: BTreeMap::new(),
        fasteners: BTreeMap::new().into(),
        connectors: BTreeMap::new().into(),
        ..manual.clone()
    };
    let mut after = None;
    for (n, step) in rebuild.iter().enumerate() {
        let id = StepId(Uuid::from_u128(10_000 + n as u128));
        let action = |(i, l): (usize, &RebuildLine)| {
            let id = ActionId(Uuid::from_u128(20_000 + (n * 100 + i) as u128));
            Some(Action::typed(id, l.act?, l.parts.clone(), &l.text))
        };
        let actions = step.lines.iter().enumerate().filter(|(_, l)| !l.parts.is_empty()).filter_map(action).collect();
        let add = StepEdit::Add { id, phase: Phase::Teardown, after, title: step.title.clone(), actions };
        out = out.apply(&Edit::Step(add), "test").unwrap().0;
        after = Some(id);
        for group in &step.groups {
            out.fasteners.insert(*group, FastenerGroup { step: id, ..manual.fasteners[group].clone() });
        }
        for connector in &step.connectors {
            out.connectors.insert(*connector, Connector { step: id, ..manual.connectors[connector].clone() });
        }
    }
    out
}

proptest! {
    #[test]
    fn the_fold_undoes_every_deed_once_and_connects_the_power_last(deeds in proptest::collection::vec(deed(), 0..14)) {
        let manual = teardown(&deeds);
        let fold = fold(&manual);
        prop_assert_eq!(fold.teardown.len(), deeds.len());

        let mut groups: Vec<GroupId> = fold.rebuild.iter().flat_map(|s| s.groups.clone()).collect();
        groups.sort();
        prop_assert_eq!(groups, manual.fasteners.keys().copied().collect::<Vec<_>>(), "every group goes back once");
        let mut connectors: Vec<ConnectorId> = fold.rebuild.iter().flat_map(|s| s.connectors.clone()).collect();
        let order = connectors.clone();
        connectors.sort();
        prop_assert_eq!(connectors, manual.connectors.keys().copied().collect::<Vec<_>>(), "every connector is made once");
        let last_plain = order.iter().rposition(|c| !manual.connectors[c].power);
        let first_power = order.iter().position(|c| manual.connectors[c].power);
        if let (Some(plain), Some(power)) = (last_plain, first_power) {
            prop_assert!(plain < power, "power comes last: {:?}", order);
        }

        // What was not displaced keeps the reverse order.
        let numbers: Vec<usize> = fold.rebuild.iter().filter(|s| s.moved.is_none()).filter_map(|s| s.of_number).collect();
        prop_assert!(numbers.windows(2).all(|w| w[0] >= w[1]), "{:?}", numbers);
    }

    /// An oracle of its own: what lies there is what the deeds took out, whatever the fold says of it.
    #[test]
    fn the_bench_comes_to_what_nobody_put_back(deeds in proptest::collection::vec(deed(), 0..14)) {
        let fold = fold(&teardown(&deeds));
        let parts = deeds.iter().filter(|d| matches!(d, Deed::Remove)).count() as u32;
        let plugs = deeds.iter().filter(|d| matches!(d, Deed::Connector { .. })).count() as u32;
        let screws: Option<u32> = deeds.iter().filter_map(|d| match d {
            Deed::Screws { out, captive: false, .. } => Some(*out),
            _ => None,
        }).sum();
        if let Some(row) = fold.teardown.last() {
            prop_assert_eq!((row.bench.parts, row.bench.plugs, row.bench.screws), (parts, plugs, screws));
        }
        if let Some(step) = fold.rebuild.last() {
            prop_assert_eq!((step.bench.parts, step.bench.plugs), (0, 0));
            let left: Option<u32> = deeds.iter().filter_map(|d| match d {
                Deed::Screws { out, back, captive: false, fate: FastenerFate::Reuse } => Some(out.map(|o| back.map_or(0, |b| o.saturating_sub(b)))),
                Deed::Screws { out, captive: false, .. } => Some(out.map(|_| 0)),
                _ => None,
            }).sum();
            // Too many of one group may hide what is left of another on the bench; the accounts keep groups apart.
            prop_assert!(step.bench.screws.zip(left).is_none_or(|(lie, left)| lie <= left), "{:?} {:?}", step.bench.screws, left);
        }
        for account in fold.accounts.iter().filter(|a| !a.uncounted && a.proven) {
            prop_assert_eq!(account.out, account.back + account.renewed + account.moved_over + account.kept_out, "{:?}", account);
        }
    }

    /// Turned round twice, everything stands where it stood, as long as no exception moves anything.
    #[test]
    fn the_fold_of_a_fold_is_the_teardown(deeds in proptest::collection::vec(invertible(), 1..12)) {
        let manual = teardown(&deeds);
        let once = fold(&manual);
        prop_assert!(once.rebuild.iter().all(|s| s.moved.is_none()));
        let back = turned(&manual, &once.rebuild);
        let twice = fold(&back);
        let parts = |steps: &[RebuildStep]| -> Vec<PartId> { steps.iter().flat_map(|s| &s.lines).flat_map(|l| l.parts.clone()).collect() };
        let out: Vec<PartId> = manual.steps_in(Phase::Teardown).iter().flat_map(|s| &s.actions).flat_map(|a| a.parts.clone()).collect();
        prop_assert_eq!(parts(&twice.rebuild), out);
        let groups: Vec<GroupId> = manual.steps_in(Phase::Teardown).iter().flat_map(|s| manual.groups_of(s.id).map(|g| g.id).collect::<Vec<_>>()).collect();
        prop_assert_eq!(twice.rebuild.iter().flat_map(|s| s.groups.clone()).collect::<Vec<_>>(), groups);
        let counts = |m: &Manual| m.fasteners.values().map(|g| g.count).collect::<Vec<_>>();
        prop_assert_eq!(counts(&back), counts(&manual));
    }

    #[test]
    fn the_balance_adds_up(deeds in proptest::collection::vec(deed(), 0..14)) {
        let balance = balance(&teardown(&deeds));
        for row in &balance.rows {
            if let (Some(out), Some(back), Some(left)) = (row.out, row.back, row.left_over) {
                // out + new = driven + replaced + left over, per group (bookkeeping of the trade; common practice).
                prop_assert_eq!(i64::from(out), i64::from(back) + i64::from(row.renewed) + left);
            }
        }
        let left: i64 = balance.rows.iter().filter(|r| !r.on_purpose).filter_map(|r| r.left_over).filter(|n| *n > 0).sum();
        prop_assert_eq!(i64::from(balance.left_over), left);
        let sound = balance.left_over == 0 && balance.too_many == 0 && balance.uncounted == 0;
        prop_assert_eq!(balance.proven, sound);
        prop_assert_eq!(balance.rows.len(), deeds.iter().filter(|d| matches!(d, Deed::Screws { captive: false, .. })).count());
    }

    /// Checked by a general-purpose CommonMark parser: whatever an author writes comes back as text, never as markup.
    #[test]
    fn an_authors_words_never_become_markup(title in "[ -~]{1,40}", line in "[ -~äé漢]{1,60}") {
        prop_assume!(!title.trim().is_empty() && !line.trim().is_empty());
        let action = Action::typed(ActionId(Uuid::from_u128(2)), Act::Place, vec![], &line);
        let add = Edit::Step(StepEdit::Add { id: StepId(Uuid::from_u128(1)), phase: Phase::Teardown, after: None, title: title.clone(), actions: vec![action] });
        let manual = Manual::new(ManualId(Uuid::nil()), "Guide", "").apply(&add, "Ann").unwrap().0;
        let text = publish::markdown(&manual);
        let words = |text: &str| text.split_whitespace().collect::<Vec<_>>().join(" ");
        let (mut headings, mut items, mut open) = (Vec::new(), Vec::new(), String::new());
        for event in Parser::new(&text) {
            match event {
                Event::Start(Tag::Heading { .. } | Tag::Item) => open.clear(),
                Event::Text(t) => open.push_str(&t),
                Event::SoftBreak => open.push(' '),
                Event::End(TagEnd::Heading(_)) => headings.push(words(&open)),
                Event::End(TagEnd::Item) => items.push(words(&open)),
                Event::Html(_) | Event::InlineHtml(_) | Event::Code(_) => prop_assert!(false, "markup in\n{}", text),
                Event::Start(Tag::Emphasis | Tag::Link { .. } | Tag::Image { .. }) => prop_assert!(false, "markup in\n{}", text),
                _ => {}
            }
        }
        let heading = format!("1. {}", words(&title));
        prop_assert!(headings.contains(&heading), "{} is not among {:?}", heading, headings);
        prop_assert!(items.contains(&words(&line)), "{} is not among {:?}", line, items);
    }
}
