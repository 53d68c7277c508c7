//! Counts what an author presses from a recording's file to a published guide, at the keyboard, in the real interface:
//! `cargo run -p paso-e2e --example presses FILE…`.
//!
//! The walk is the plainest one: every open question is answered by the way out that has the focus, those without one are
//! passed over, every step is reviewed, and the guide is published. What a careful author would still write is not counted.

use paso_e2e::{App, Done};
use std::path::Path;
use thirtyfour::prelude::*;

#[rocket::main]
async fn main() {
    let files: Vec<String> = std::env::args().skip(1).collect();
    for file in files {
        let app = App::start(false).await;
        match count(&app, Path::new(&file)).await {
            Ok(tally) => println!("{file}: {}", tally.told()),
            Err(error) => eprintln!("{file}: {error}"),
        }
        if let Err(error) = app.end_for_good().await {
            eprintln!("presses: {error}");
        }
    }
}

/// Presses by what they were for.
#[derive(Debug, Default)]
struct Tally {
    brought_in: usize,
    walked: usize,
    answered: usize,
    passed_over: usize,
    reviewed: usize,
    published: usize,
    /// What keeps the guide from being published, in its own words.
    blocked: String,
}

impl Tally {
    fn all(&self) -> usize {
        self.brought_in + self.walked + self.answered + self.reviewed + self.published
    }

    fn told(&self) -> String {
        format!(
            "{} presses: {} to bring it in, {} for the walk ({} of it passed over), {} answers, {} steps reviewed, {} to publish{}",
            self.all(),
            self.brought_in,
            self.walked,
            self.passed_over,
            self.answered,
            self.reviewed,
            self.published,
            self.blocked
        )
    }
}

/// What the walk asks: its heading, its words, and whether a way out has the focus.
async fn asked(app: &App) -> Result<(String, bool), WebDriverError> {
    let script = "const h = document.querySelector(\"[aria-label='To settle'] h2\"); if (!h) return ['', false];
        const dock = h.closest(\"[aria-label='To settle']\");
        const way = document.activeElement.closest('[data-ways]');
        return [h.textContent + (dock.querySelector('[data-ways]')?.textContent ?? ''), dock.contains(way)]";
    let told = app.driver.execute(script, vec![]).await?;
    let told = told.json();
    Ok((told[0].as_str().unwrap_or_default().to_owned(), told[1].as_bool().unwrap_or(false)))
}

/// The rules of the open findings.
///
/// # Panics
/// If the server answers otherwise: a count made without it would be too low, and nobody would see it.
async fn open(app: &App, id: &str) -> Vec<String> {
    let all = app.api(&format!("/api/manuals/{id}/findings")).await;
    let rows = all["findings"].as_array().expect("a list of findings");
    let kept = rows.iter().filter(|f| f["set_aside"].is_null());
    kept.map(|f| f["rule"].as_str().expect("a rule").to_owned()).collect()
}

/// A moment for what a press does to be drawn.
async fn settled(app: &App) -> Done {
    app.saved().await?;
    rocket::tokio::time::sleep(std::time::Duration::from_millis(400)).await;
    Ok(())
}

async fn count(app: &App, file: &Path) -> Result<Tally, Box<dyn std::error::Error + Send + Sync>> {
    let mut tally = Tally::default();
    app.goto("/").await?;
    app.type_into(By::Css("input[type=file]"), file.canonicalize()?.to_string_lossy().as_ref()).await?;
    app.press("Draft the manual from 1 recording").await?;
    tally.brought_in = 2;
    app.text("to settle").await?;
    let url = app.driver.current_url().await?;
    let id = url.path().split('/').nth(2).unwrap_or_default().to_owned();
    let mut passed = 0;
    while passed < open(app, &id).await.len() {
        if passed == 0 && tally.walked == 0 || !asked(app).await?.0.starts_with(&format!("{} of", passed + 1)) {
            app.keys(Key::F8 + "").await?;
            tally.walked += 1;
            settled(app).await?;
        }
        let (question, way) = asked(app).await?;
        if question.contains("reviewed") {
            tally.reviewed += review(app, &id).await?;
            continue;
        }
        if way {
            app.keys(Key::Enter + "").await?;
            tally.answered += 1;
            settled(app).await?;
        }
        if !way || asked(app).await?.0 == question {
            passed += 1;
            tally.passed_over += 1;
        }
    }
    app.press("Publish").await?;
    tally.published = 1;
    settled(app).await?;
    let button = app.button("Publish revision 1").await;
    match button {
        Ok(button) if button.is_enabled().await? => {
            button.click().await?;
            app.text("Revision 1").await?;
            tally.published += 1;
        }
        _ => tally.blocked = format!("; not published, {} left to settle", open(app, &id).await.len()),
    }
    Ok(tally)
}

/// Reviews one step after another with one key, until none is left that nobody has read: how many presses that took.
async fn review(app: &App, id: &str) -> Result<usize, Box<dyn std::error::Error + Send + Sync>> {
    let mut presses = 0;
    while open(app, id).await.iter().any(|rule| rule == "not-reviewed") {
        app.until("a step in focus", async || {
            let script = "return document.activeElement.hasAttribute('data-step')";
            Ok(app.driver.execute(script, vec![]).await?.json().as_bool().unwrap_or(false))
        })
        .await;
        app.keys("r").await?;
        presses += 1;
        settled(app).await?;
    }
    Ok(presses)
}
