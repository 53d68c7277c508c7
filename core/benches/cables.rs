//! How fast cables and hazards are worked out for a long device. `cargo bench -p paso-core --bench cables`

use criterion::{Criterion, criterion_group, criterion_main};
use paso_core::cables::{lives, power, table};
use paso_core::cautions::coverage::stretches;
use paso_core::ids::{ConnectorId, ManualId, PartId, StepId};
use paso_core::manual::{
    Action, Connector, ConnectorEdit, ConnectorField, ConnectorKind, Edit, Manual, PartEdit, Phase, StepEdit,
};
use paso_core::reading::Act;
use paso_core::{checks, stops};
use std::hint::black_box;
use uuid::Uuid;

const STEPS: u128 = 300;
const CONNECTORS: u128 = 200;

fn id(kind: u128, n: u128) -> Uuid {
    Uuid::from_u128(kind << 64 | n)
}

/// A device of 300 steps, each taking one part out, with 200 connectors of two boards.
fn long() -> Manual {
    let mut manual = Manual::new(ManualId(Uuid::nil()), "Long", "");
    let mut edit = |edit: Edit| manual = manual.apply(&edit, "Ann").expect("it can be").0;
    let mut after = None;
    for n in 0..STEPS {
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
    let manual = long();
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

criterion_group!(benches, cables);
criterion_main!(benches);
