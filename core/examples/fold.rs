//! Prints how a recording's rebuild stands to its teardown, for who works on the fold:
//! `cargo run -p paso-core --example fold -- FILE …`.

use paso_core::effort::Heard;
use paso_core::ids::{ManualId, RecordingId};
use paso_core::manual::{RecordingRef, Source, draft};
use paso_core::order::Chain;
use paso_core::reading::read;
use paso_core::rebuild::Alignment;
use paso_core::recording::Recording;
use uuid::Uuid;

fn main() {
    for path in std::env::args().skip(1) {
        let bytes = std::fs::read(&path).unwrap_or_else(|e| panic!("{path}: {e}"));
        let recording = Recording::parse(&bytes).unwrap_or_else(|e| panic!("{path}: {e}"));
        let reading = read(&recording);
        let reference =
            RecordingRef { id: RecordingId(Uuid::nil()), title: path.clone(), duration_ms: recording.duration_ms() };
        let manual = draft(ManualId(Uuid::nil()), "Draft", "", &[Source { recording: reference, reading: &reading }]);
        let alignment = Alignment::of(&manual);
        let fold = alignment.fold(&Heard::new());
        let differs = alignment.differences(&Chain::of(&manual));
        let told = fold.rebuild.iter().filter(|s| s.told.is_some()).count();
        let (out, back) = (fold.teardown.len(), fold.rebuild.len());
        println!("{path}: {out} out, {back} back, {told} told, {} differ", differs.len());
        for difference in &differs {
            println!("    {difference:?}");
        }
    }
}
