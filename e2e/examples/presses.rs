//! Counts what an author presses from a recording's file to a published guide, at the keyboard, in the real interface:
//! `cargo run -p paso-e2e --example presses FILE…`. A JSON file of changes behind a recording's file is what the author writes.

use paso_e2e::{App, presses};
use std::path::Path;

#[rocket::main]
async fn main() {
    let files: Vec<String> = std::env::args().skip(1).collect();
    let mut files = files.into_iter().peekable();
    while let Some(file) = files.next() {
        let written = files.next_if(|f| f.ends_with(".json"));
        let changes = written.map(|f| std::fs::read_to_string(f).expect("a file of changes"));
        let changes: Vec<presses::Change> =
            changes.map(|json| serde_json::from_str(&json).expect("changes")).unwrap_or_default();
        let app = App::start(false).await;
        match presses::count(&app, Path::new(&file), &changes).await {
            Ok(tally) => println!("{file}: {}", tally.told()),
            Err(error) => eprintln!("{file}: {error}"),
        }
        if let Err(error) = app.end_for_good().await {
            eprintln!("presses: {error}");
        }
    }
}
