//! How fast the core is: reading a recording and applying an edit. `cargo bench -p paso-core`

use criterion::{BenchmarkId, Criterion, Throughput, criterion_group, criterion_main};
use paso_core::ids::{ManualId, RecordingId};
use paso_core::manual::{Edit, PartEdit, RecordingRef, Source, StepEdit, StepField, draft};
use paso_core::reading::read;
use paso_core::recording::Recording;
use paso_core::{publish, rebuild};
use std::hint::black_box;
use uuid::Uuid;

const NARRATION: &str = include_str!("../../demo/bench-lamp.md");

/// The demo narration told again and again, later and later.
fn long(times: usize) -> Recording {
    let mut recording = Recording::parse(NARRATION.as_bytes()).expect("the demo narration");
    let once = recording.cues.clone();
    let length = recording.duration_ms();
    for n in 1..times as u64 {
        recording.cues.extend(once.iter().cloned().map(|mut cue| {
            cue.start = cue.start.map(|s| s + n * length);
            cue.end = cue.end.map(|e| e + n * length);
            cue
        }));
    }
    recording
}

fn reading(c: &mut Criterion) {
    let mut group = c.benchmark_group("read");
    group.sample_size(10);
    // Up to the largest source taken: twice the text may take twice the time and no more.
    for size in [20_000, 100_000, 500_000, 2_000_000] {
        let recording = long(size / NARRATION.len() + 1);
        let bytes: usize = recording.cues.iter().map(|c| c.text.len()).sum();
        group.throughput(Throughput::Bytes(bytes as u64));
        group.bench_with_input(BenchmarkId::from_parameter(bytes), &recording, |b, r| b.iter(|| read(black_box(r))));
    }
    group.finish();
}

fn edits(c: &mut Criterion) {
    let recording = long(20);
    let reading = read(&recording);
    let reference =
        RecordingRef { id: RecordingId(Uuid::nil()), title: "long".into(), duration_ms: recording.duration_ms() };
    let manual =
        draft(ManualId(Uuid::nil()), "Long", "", &[Source { recording: reference.clone(), reading: &reading }]);
    let id = manual.order()[0];
    let edit = Edit::Step(StepEdit::Set { id, field: StepField::Title("Another title".into()) });
    c.bench_function(&format!("apply an edit, {} steps", manual.steps.len()), |b| {
        b.iter(|| manual.apply(black_box(&edit), "Ann"))
    });
    let part = manual.parts.values().next().expect("a lamp has parts").id;
    let rename = Edit::Part(PartEdit::Rename { id: part, name: "foot".into() });
    c.bench_function("rename a part", |b| b.iter(|| manual.apply(black_box(&rename), "Ann")));
    let sentences: usize = manual.steps.values().map(|s| s.actions.len()).sum();
    c.bench_function(&format!("word {sentences} sentences"), |b| b.iter(|| black_box(&manual).wordings()));
    c.bench_function("draft", |b| {
        b.iter(|| {
            let source = Source { recording: reference.clone(), reading: black_box(&reading) };
            draft(ManualId(Uuid::nil()), "Long", "", &[source])
        });
    });
    c.bench_function("fold", |b| b.iter(|| rebuild::fold(black_box(&manual))));
    c.bench_function("guide", |b| b.iter(|| publish::guide(black_box(&manual))));
}

criterion_group!(benches, reading, edits);
criterion_main!(benches);
