//! Counts what an author presses from a recording's file to a published guide, at the keyboard, in the real interface:
//! `cargo run -p paso-e2e --example presses FILE…`.

use paso_e2e::{App, presses};
use std::path::Path;

#[rocket::main]
async fn main() {
    let files: Vec<String> = std::env::args().skip(1).collect();
    for file in files {
        let app = App::start(false).await;
        match presses::count(&app, Path::new(&file)).await {
            Ok(tally) => println!("{file}: {}", tally.told()),
            Err(error) => eprintln!("{file}: {error}"),
        }
        if let Err(error) = app.end_for_good().await {
            eprintln!("presses: {error}");
        }
    }
}
