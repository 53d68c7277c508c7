//! `cargo run -p paso-reader --example deeds -- FILE [--explain]`: the drafted guide of a recording as JSON, or how its
//! sentences are taken apart.

use paso_reader::reading::{draft_guide, explain_deeds};
use paso_reader::recording::Recording;

fn main() {
    let path = std::env::args().nth(1).expect("a file");
    let recording = Recording::parse(&std::fs::read(&path).expect("a readable file")).expect("a recording");
    if std::env::args().any(|a| a == "--facts") {
        let sheet = paso_reader::reading::read(&recording).sheet;
        println!("{}", serde_json::to_string(&sheet).expect("a sheet is plain data"));
    } else if std::env::args().any(|a| a == "--deeds") {
        println!("{}", serde_json::to_string(&paso_reader::reading::deeds(&recording)).expect("deeds are plain data"));
    } else if std::env::args().any(|a| a == "--explain") {
        print!("{}", explain_deeds(&recording));
    } else {
        println!("{}", serde_json::to_string(&draft_guide(&recording)).expect("a sheet is plain data"));
    }
}
