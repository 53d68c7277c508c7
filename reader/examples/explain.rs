//! Shows what the reader makes of a recording: `cargo run -p paso-reader --example explain -- FILE [--facts]`.
//!
//! Each statement with its kind, its reason and its facts, for people who work on the reader; `--facts` prints the sheet, `--grammar` the words and clauses.

use paso_reader::reading::{Facts, read, trace};
use paso_reader::recording::Recording;

fn main() {
    let args: Vec<String> = std::env::args().skip(1).collect();
    let file = args.iter().find(|a| !a.starts_with("--")).expect("a file");
    let source = std::fs::read(file).expect("a readable file");
    let recording = Recording::parse(&source).unwrap_or_else(|e| panic!("{e}"));
    let reading = read(&recording);
    if args.iter().any(|a| a == "--facts") {
        println!("{}", serde_json::to_string(&reading.sheet).expect("plain data"));
        return;
    }
    if args.iter().any(|a| a == "--grammar") {
        print!("{}", trace(&recording));
        return;
    }
    for s in &reading.statements {
        println!("[{}] {:?} {:.2} {}", s.from_ms.unwrap_or(0) / 1000, s.kind, s.confidence, s.text);
        println!("      because {}", s.because.join("; "));
        for r in &s.repairs {
            println!("      “{}” → “{}”", r.said, r.meant);
        }
        if s.facts != Facts::default() {
            let value = serde_json::to_value(&s.facts).expect("plain data");
            for (name, rows) in value.as_object().into_iter().flatten() {
                for row in rows.as_array().into_iter().flatten() {
                    println!("      {name}: {row}");
                }
            }
        }
    }
}
