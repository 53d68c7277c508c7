//! How fast the room of the screws is: everything the stop shows of a guide with 1,000 screws, after any edit.
//! `cargo bench -p paso-core --bench screws`

use criterion::{Criterion, criterion_group, criterion_main};
use paso_core::fasteners::kinds::sort;
use paso_core::fasteners::ledger::ledger;
use paso_core::fasteners::mat::{Paper, pages};
use paso_core::fasteners::table::from_csv;
use paso_core::fasteners::tighten::{Hole, tightening};
use paso_core::ids::*;
use paso_core::manual::*;
use paso_core::reading::{Act, Drive};
use paso_core::screw::{Class, Material};
use paso_core::stops::screws;
use std::hint::black_box;
use uuid::Uuid;

const STEPS: usize = 50;
const GROUPS: usize = 125;
const SCREWS: u32 = 8;

/// 1,000 screws in 125 groups of some forty kinds, each with its holes and its joint.
fn device() -> Manual {
    let mut m = Manual::new(ManualId(Uuid::nil()), "Press", "");
    let mut ids = IdMaker::new(Uuid::nil());
    let layer = ids.make(LayerId);
    let outline = Outline::Rectangle { width_mm: 900.0, height_mm: 900.0, radius_mm: 5.0 };
    let mut edit = |edit: Edit| m = m.apply(&edit, "Ada").expect("it can be done").0;
    edit(Edit::Layer(LayerEdit::Add { id: layer, name: "Bed".into(), outline }));
    let mut steps = Vec::new();
    for n in 0..STEPS {
        let (part, step) = (ids.make(PartId), ids.make(StepId));
        edit(Edit::Part(PartEdit::Add { id: part, name: format!("part {n}") }));
        let action = Action::typed(ids.make(ActionId), Act::Remove, vec![part], "Take it out.");
        let after = steps.last().map(|(s, _)| *s);
        let title = format!("Remove part {n}");
        edit(Edit::Step(StepEdit::Add { id: step, phase: Phase::Teardown, after, title, actions: vec![action] }));
        steps.push((step, part));
    }
    for n in 0..GROUPS {
        let id = ids.make(GroupId);
        let (step, part) = steps[n % STEPS];
        edit(Edit::Fastener(FastenerEdit::Add { id, step }));
        let joint = JointFacts { class: Some(Class::C88), into: Some(Material::Aluminium), ..JointFacts::default() };
        for field in [
            FastenerField::Count(Some(SCREWS)),
            FastenerField::Holds(vec![part]),
            FastenerField::Drive(Some(if n % 3 == 0 { Drive::Torx } else { Drive::Phillips })),
            FastenerField::LengthMm(Some(3.0 + (n % 14) as f64)),
            FastenerField::Thread(Some(["M2", "M2.5", "M3"][n % 3].into())),
            FastenerField::Joint(joint),
            FastenerField::TorqueNm(Some(0.2)),
        ] {
            edit(Edit::Fastener(FastenerEdit::Set { id, field }));
        }
        let at = |i: u32| HolePlace { x_mm: 20.0 + 100.0 * f64::from(i), y_mm: 5.0 + 7.0 * n as f64 };
        edit(Edit::Hole(HoleEdit::Place { id, layer, holes: (0..SCREWS).map(at).collect() }));
    }
    m
}

fn stop(c: &mut Criterion) {
    let m = device();
    assert_eq!(m.fasteners.values().filter_map(|g| g.count).sum::<u32>(), 1_000);
    c.bench_function("all that Screws shows of 1,000 screws", |b| b.iter(|| screws::view(black_box(&m))));
    let sorted = sort(&m);
    let rows = ledger(&m, &sorted).rows;
    c.bench_function("mat of 125 groups", |b| b.iter(|| pages(black_box(&m), &sorted, &rows, Paper::A4)));
}

/// A list that an author brings: so many new groups, a row each.
fn table(c: &mut Criterion) {
    let m = device();
    for rows in [500, 5_000] {
        let row = |n: usize| format!("{},{},pozi,M2.5,\"8,5\",0.2,as drawn {n}\n", 1 + n % STEPS, 1 + n % 8);
        let list =
            format!("step,count,drive,thread,length_mm,torque_nm,note\n{}", (0..rows).map(row).collect::<String>());
        c.bench_function(&format!("list of {rows} rows"), |b| b.iter(|| from_csv(black_box(&m), list.as_bytes())));
    }
}

fn order(c: &mut Criterion) {
    let holes: Vec<Hole> = (0..200).map(|i| Hole::at_mm(f64::from(i * 37 % 101), f64::from(i * 53 % 97))).collect();
    c.bench_function("tightening order of 200 holes", |b| b.iter(|| tightening(black_box(&holes))));
}

criterion_group!(benches, stop, table, order);
criterion_main!(benches);
