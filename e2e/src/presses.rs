//! How many presses an author needs, from a recording's file to a published guide, at the keyboard, in the real interface.
//!
//! The walk is the plainest one: every open question is answered by the way out that has the focus, those without one are
//! passed over, every step is reviewed, and the guide is published. What a careful author would still write is not counted.

use crate::{App, Done};
use std::collections::HashSet;
use std::path::Path;
use thirtyfour::prelude::*;

/// Presses by what they were for.
#[derive(Debug, Default)]
pub struct Tally {
    pub brought_in: usize,
    pub walked: usize,
    pub answered: usize,
    /// Questions that no way out answers: an author settles them where they stand. No press.
    pub passed_over: usize,
    /// Counts that nobody told.
    pub typed: usize,
    pub reviewed: usize,
    pub published: usize,
    /// What keeps the guide from being published, in words; empty where it is.
    pub blocked: String,
}

impl Tally {
    pub fn all(&self) -> usize {
        self.brought_in + self.walked + self.answered + self.typed + self.reviewed + self.published
    }

    pub fn told(&self) -> String {
        format!(
            "{} presses: {} to bring it in, {} for the walk ({} of it passed over), {} answers, {} for counts, {} steps reviewed, {} to publish{}",
            self.all(),
            self.brought_in,
            self.walked,
            self.passed_over,
            self.answered,
            self.typed,
            self.reviewed,
            self.published,
            self.blocked
        )
    }
}

/// What the walk asks: the stop and its words, and whether a way out has the focus.
async fn asked(app: &App) -> Result<(String, bool), WebDriverError> {
    let script = "const h = document.querySelector(\"[aria-label='To settle'] h2\"); if (!h) return ['', false];
        const dock = h.closest(\"[aria-label='To settle']\");
        const way = document.activeElement.closest('[data-ways]');
        return [h.textContent + (dock.querySelector('[data-ways]')?.textContent ?? ''), dock.contains(way)]";
    let told = app.driver.execute(script, vec![]).await?;
    let told = told.json();
    let words = told[0].as_str().unwrap_or_default();
    Ok((words.rsplit(" to settle: ").next().unwrap_or_default().to_owned(), told[1].as_bool().unwrap_or(false)))
}

/// The open findings: their rules, with what they say.
///
/// # Panics
/// If the server answers otherwise: a count made without it would be too low, and nobody would see it.
async fn open(app: &App, id: &str) -> Vec<(String, String)> {
    let all = app.api(&format!("/api/manuals/{id}/findings")).await;
    let rows = all["findings"].as_array().expect("a list of findings");
    let kept = rows.iter().filter(|f| f["set_aside"].is_null());
    let words = |f: &serde_json::Value, key: &str| f[key].as_str().expect("words").to_owned();
    kept.map(|f| (words(f, "rule"), words(f, "says"))).collect()
}

/// A number that an author has counted, and Enter.
const COUNTED: &str = "2\u{e007}";

/// Whether the walk has led into a field for a count.
async fn in_count_field(app: &App) -> Result<bool, WebDriverError> {
    let script = "return document.activeElement?.getAttribute('inputmode') === 'decimal'";
    Ok(app.driver.execute(script, vec![]).await?.json().as_bool().unwrap_or(false))
}

/// A moment for what a press does to be drawn.
async fn settled(app: &App) -> Done {
    app.saved().await?;
    rocket::tokio::time::sleep(std::time::Duration::from_millis(400)).await;
    Ok(())
}

/// Brings a recording in, settles, reviews and publishes.
///
/// # Errors
/// If the browser does not answer, or the file cannot be read.
///
/// # Panics
/// If the interface does not show what it should.
pub async fn count(app: &App, file: &Path) -> Result<Tally, Box<dyn std::error::Error + Send + Sync>> {
    let mut tally = Tally::default();
    app.goto("/").await?;
    app.type_into(By::Css("input[type=file]"), file.canonicalize()?.to_string_lossy().as_ref()).await?;
    app.press("Draft the manual from 1 recording").await?;
    tally.brought_in = 2;
    app.text("to settle").await?;
    let url = app.driver.current_url().await?;
    let id = url.path().split('/').nth(2).unwrap_or_default().to_owned();
    let mut passed: HashSet<String> = HashSet::new();
    // Once round without a question that was not passed over: the walk is over.
    let mut gone_on = 0;
    while gone_on <= passed.len() + 1 && !open(app, &id).await.is_empty() {
        let (question, way) = asked(app).await?;
        if question.is_empty() || passed.contains(&question) {
            app.keys(Key::F8 + "").await?;
            tally.walked += 1;
            gone_on += 1;
            settled(app).await?;
            continue;
        }
        gone_on = 0;
        if question.contains("reviewed") {
            tally.reviewed += review(app, &id).await?;
            continue;
        }
        if way {
            app.keys(Key::Enter + "").await?;
            tally.answered += 1;
        } else if question.contains("Count them") {
            app.until("the field for the count", async || in_count_field(app).await).await;
            app.keys(COUNTED).await?;
            tally.typed += COUNTED.chars().count();
        }
        settled(app).await?;
        if asked(app).await?.0 == question {
            tally.passed_over += 1;
            passed.insert(question);
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
        _ => tally.blocked = format!("; not published, left to settle: {:?}", open(app, &id).await),
    }
    Ok(tally)
}

/// Reviews one step after another with one key, until none is left that nobody has read: how many presses that took.
async fn review(app: &App, id: &str) -> Result<usize, Box<dyn std::error::Error + Send + Sync>> {
    let mut presses = 0;
    while open(app, id).await.iter().any(|(rule, _)| rule == "not-reviewed") {
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
