//! Shows how warnings are worded: `cargo run -p paso-reader --example cautions -- FILE…`.
//!
//! Each as it was said and as a guide prints it, for people who work on the wording.

use paso_reader::reading::{StatementKind, caution, read};
use paso_reader::recording::Recording;

fn main() {
    for file in std::env::args().skip(1) {
        let source = std::fs::read(&file).expect("a readable file");
        let recording = Recording::parse(&source).unwrap_or_else(|e| panic!("{e}"));
        for s in read(&recording).statements {
            if !s.facts.cautions.is_empty() && matches!(s.kind, StatementKind::Caution | StatementKind::Condition) {
                println!("{:?}\n  said   {}\n  prints {}", s.facts.cautions[0], s.text, caution(&s.text));
            }
        }
    }
}
