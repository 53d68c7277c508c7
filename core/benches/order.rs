//! How fast the order room is. `cargo bench -p paso-core --bench order`; `order_networkx.py` beside it times networkx on the
//! same graph.

use criterion::{Criterion, criterion_group, criterion_main};
use paso_core::checks;
use paso_core::ids::*;
use paso_core::manual::{Manual, RecordingRef, Source, draft};
use paso_core::order::{Chain, Graph, Need, Work, least};
use paso_core::reading::read;
use paso_core::recording::Recording;
use paso_core::stops::chain::view;
use paso_core::stops::steps;
use std::hint::black_box;
use uuid::Uuid;

/// Numbers that look random and are the same in every language.
struct Dice(u64);

impl Dice {
    fn below(&mut self, n: u64) -> usize {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        ((self.0 >> 33) % n) as usize
    }
}

fn acyclic(nodes: usize, edges: usize) -> Graph {
    let mut dice = Dice(1);
    let pair = || {
        let (a, b) = (dice.below(nodes as u64), dice.below(nodes as u64));
        (a.min(b), a.max(b))
    };
    let pairs: Vec<(usize, usize)> = std::iter::repeat_with(pair).filter(|(a, b)| a != b).take(edges).collect();
    Graph::new(nodes, pairs)
}

fn graphs(c: &mut Criterion) {
    let graph = acyclic(10_000, 30_000);
    let mut group = c.benchmark_group("graph of 10,000 acts and 30,000 edges");
    group.sample_size(10);
    group.bench_function("reduction", |b| b.iter(|| black_box(&graph).reduction()));
    group.bench_function("closure", |b| b.iter(|| black_box(&graph).closure()));
    group.finish();
}

/// A chain of acts in which forty need one of two or three others before them.
fn choices() -> Vec<Work> {
    let mut dice = Dice(7);
    let mut work: Vec<Work> = (0..20).map(|_| Work { cost: 5 + dice.below(60) as u64, needs: vec![] }).collect();
    for _ in 0..40 {
        let before = work.len() as u64;
        let ways = 2 + dice.below(2);
        let way = |d: &mut Dice| (0..1 + d.below(2)).map(|_| d.below(before)).collect::<Vec<usize>>();
        let needs =
            vec![Need { ways: (0..ways).map(|_| way(&mut dice)).collect() }, Need::on(work.len() - 1 - dice.below(4))];
        work.push(Work { cost: 5 + dice.below(60) as u64, needs });
    }
    work
}

fn alternatives(c: &mut Criterion) {
    let work = choices();
    let target = [work.len() - 1];
    let found = least(&work, &target, &[]).expect("a route");
    assert!(found.proven(), "cost {} bound {}", found.cost, found.bound);
    c.bench_function("40 alternatives to a proven optimum", |b| b.iter(|| least(black_box(&work), &target, &[])));
}

fn long_manual() -> Manual {
    let told: String = (0..300)
        .map(|n| {
            let time = format!("[{}:{:02}]", n / 6, n % 6 * 10);
            match n {
                0 => format!("{time} Remove six PH1 screws from the cover. Take off the cover.\n\n"),
                1 => format!("{time} Disconnect the battery cable.\n\n"),
                n if n % 3 == 0 => format!("{time} Disconnect the fan {n} cable. Take out the tray {n}.\n\n"),
                n => format!(
                    "{time} Remove two T6 screws, 4 millimetres, from the plate {n}. Take out the plate {n}.\n\n"
                ),
            }
        })
        .collect();
    let recording = Recording::parse(told.as_bytes()).expect("a narration");
    let reference = RecordingRef { id: RecordingId(Uuid::nil()), title: String::new(), duration_ms: 0 };
    let source = Source { recording: reference, reading: &read(&recording) };
    draft(ManualId(Uuid::nil()), "Long", "", &[source])
}

fn manual(c: &mut Criterion) {
    let manual = long_manual();
    let steps = Chain::of(&manual).steps.len();
    let target = *manual.parts.keys().last().expect("parts");
    c.bench_function(&format!("all that Chain shows, {steps} steps"), |b| b.iter(|| view(black_box(&manual))));
    c.bench_function(&format!("parts, tools and findings, {steps} steps"), |b| {
        b.iter(|| (steps::view(black_box(&manual)), checks::findings(black_box(&manual))))
    });
    c.bench_function(&format!("routes to a part, {steps} steps"), |b| {
        b.iter(|| Chain::of(black_box(&manual)).routes(&manual, &[target], 4))
    });
}

criterion_group!(benches, graphs, alternatives, manual);
criterion_main!(benches);
