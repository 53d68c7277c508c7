//! How fast cables, hazards and the fold are worked out for a long device. `cargo bench -p paso-core --bench cables`

use criterion::{Criterion, criterion_group, criterion_main};
use paso_core::cables::{lives, power, table};
use paso_core::cautions::coverage::stretches;
use paso_core::ids::{ConnectorId, ManualId, PartId, StepId};
use paso_core::manual::{
    Action, Connector, ConnectorEdit, ConnectorField, ConnectorKind, Edit, Manual, PartEdit, Phase, StepEdit,
};
use paso_core::reading::Act;
use paso_core::{checks, rebuild, stops};
use std::hint::black_box;
use uuid::Uuid;

const STEPS: u128 = 300;
const LONG_STEPS: u128 = 500;
const CONNECTORS: u128 = 200;

fn id(kind: u128, n: u128) -> Uuid {
    Uuid::from_u128(kind << 64 | n)
}

/// A device of so many steps, each taking one part out, with 200 connectors of two boards.
fn long(steps: u128) -> Manual {
    let mut manual = Manual::new(ManualId(Uuid::nil()), "Long", "");
    let mut edit = |edit: Edit| manual = manual.apply(&edit, "Ann").expect("it can be").0;
    let mut after = None;
    for n in 0..steps {
        let (part, step) = (PartId(id(1, n)), StepId(id(2, n)));
        let name = if n % 100 == 99 { format!("control board {n}") } else { format!("part {n}") };
        edit(Edit::Part(PartEdit::Add { id: part, name: name.clone() }));
        let action =
            Action::typed(paso_core::ids::ActionId(id(3, n)), Act::Remove, vec![part], &format!("Remove the {name}."));
        let title = format!("Remove the {name}");
        edit(Edit::Step(StepEdit::Add { id: step, phase: Phase::Teardown, after, title, actions: vec![action] }));
        after = Some(step);
    }
    for n in 0..CONNECTORS {
        let plug = ConnectorId(id(4, n));
        edit(Edit::Connector(ConnectorEdit::Add { id: plug, step: StepId(id(2, n + 50)) }));
        let set = |field| Edit::Connector(ConnectorEdit::Set { id: plug, field });
        // Every tenth is undone only after its part was lifted.
        let serves = if n % 10 == 0 { n } else { n + 50 };
        edit(set(ConnectorField::Serves(Some(PartId(id(1, serves))))));
        edit(set(ConnectorField::Kind(Some(ConnectorKind::Plug))));
    }
    manual
}

fn cables(c: &mut Criterion) {
    let manual = long(STEPS);
    assert_eq!((manual.steps.len(), manual.connectors.len()), (STEPS as usize, CONNECTORS as usize));
    assert!(manual.connectors.values().all(|c: &Connector| c.kind.is_some()));
    c.bench_function("power along 300 steps", |b| b.iter(|| power::line(black_box(&manual))));
    c.bench_function("what hangs on 200 connectors", |b| b.iter(|| lives::tethers(black_box(&manual))));
    c.bench_function("200 connectors as CSV", |b| b.iter(|| table::to_csv(black_box(&manual))));
    c.bench_function("the Cables stop, 300 steps and 200 connectors", |b| {
        b.iter(|| stops::cables::view(black_box(&manual)))
    });
    c.bench_function("every hazard along 300 steps", |b| b.iter(|| stretches(black_box(&manual))));
    c.bench_function("the Cautions stop, 300 steps", |b| b.iter(|| stops::cautions::view(black_box(&manual))));
    c.bench_function("all findings, 300 steps and 200 connectors", |b| b.iter(|| checks::findings(black_box(&manual))));
}

/// Nothing of the rebuild is told, then all of it: both ways of making it.
fn fold(c: &mut Criterion) {
    let untold = long(LONG_STEPS);
    let told = told_back(&untold);
    for (what, manual) in [("nothing told", &untold), ("all told", &told)] {
        c.bench_function(&format!("the fold of 500 steps, {what}"), |b| b.iter(|| rebuild::fold(black_box(manual))));
        c.bench_function(&format!("all findings of 500 steps, {what}"), |b| {
            b.iter(|| checks::findings(black_box(manual)))
        });
    }
}

/// The same with each part fitted by a told step, in reverse.
fn told_back(manual: &Manual) -> Manual {
    let mut told = manual.clone();
    let mut after = None;
    for (n, step) in manual.steps_in(Phase::Teardown).iter().rev().enumerate() {
        let id = StepId(id(5, n as u128));
        let parts = step.actions[0].parts.clone();
        let name = manual.part_name(parts[0]);
        let action = paso_core::ids::ActionId(self::id(6, n as u128));
        let actions = vec![Action::typed(action, Act::Install, parts, &format!("Fit the {name}."))];
        let title = format!("Fit the {name}");
        let add = StepEdit::Add { id, phase: Phase::Rebuild, after, title, actions };
        told = told.apply(&Edit::Step(add), "Ann").expect("it can be").0;
        after = Some(id);
    }
    told
}

criterion_group!(benches, cables, fold);
criterion_main!(benches);
