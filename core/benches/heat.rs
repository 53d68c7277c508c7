//! How fast a heating is followed, and worked out with its band, its setting and its curves.
//! `cargo bench -p paso-core --bench heat`; SciPy beside it: `python3 core/benches/heat_scipy.py`.

use criterion::{Criterion, criterion_group, criterion_main};
use paso_core::heat::conduction::{Drive, Place, Spell, Stack, follow};
use paso_core::heat::plan::{Heating, WarmedBy};
use paso_core::heat::presets::Preset;
use paso_core::stops::seams::work_out;
use std::hint::black_box;

/// The handbook's first scenario, ten minutes of it.
fn solve(c: &mut Criterion) {
    let layers = Preset::GlassBack.layers().iter().map(|l| l.medium.slab(l.thickness_mm, 1)).collect();
    let stack = Stack { layers, start_c: 23.0, room_c: 23.0, rear: 5.0 };
    let spell = Spell { drive: Drive::Plate { temp_c: 85.0, contact: 3e-4 }, seconds: 600.0 };
    c.bench_function("follow a stack of five layers for 600 s", |b| {
        b.iter(|| follow(black_box(&stack), &[spell], &[Place::Middle(1)]))
    });
}

fn plan(c: &mut Criterion) {
    for by in [WarmedBy::Plate, WarmedBy::HeatGun] {
        let asked = Heating { layers: Preset::GlassBack.layers(), by, setting_c: 85.0, seconds: 120.0, room_c: 23.0 };
        c.bench_function(&format!("plan a heating, {by:?}"), |b| b.iter(|| black_box(&asked).plan()));
        // What the browser waits for while a slider moves: setting, band, window, and what to change.
        c.bench_function(&format!("all that the bench shows, {by:?}"), |b| b.iter(|| work_out(black_box(&asked))));
    }
}

criterion_group!(benches, solve, plan);
criterion_main!(benches);
