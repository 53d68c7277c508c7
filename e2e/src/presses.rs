//! How many presses an author needs, from a recording's file to a published guide, at the keyboard, in the real interface.
//!
//! The walk is the plainest one: every open question is answered by the way out that has the focus, those without one are
//! passed over, every step is reviewed, and the guide is published. What a careful author writes on the way is given as
//! [`Change`]s; its letters are counted by themselves.

use crate::{App, Done};
use serde::Deserialize;
use std::collections::HashSet;
use std::path::Path;
use thirtyfour::prelude::*;

/// Where in a step an author writes.
#[derive(Debug, Clone, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Place {
    AtTheEnd,
    /// Behind the sentence that begins so.
    Behind(String),
    /// Instead of the sentence that begins so.
    Instead(String),
}

/// A sentence that an author writes while the steps are reviewed.
#[derive(Debug, Clone, Deserialize)]
pub struct Change {
    /// The step's title, with its number ("Step 10: Test the cord") where several have the same.
    pub step: String,
    pub place: Place,
    pub words: String,
}

type Wrong = Box<dyn std::error::Error + Send + Sync>;

/// Presses by what they were for.
#[derive(Debug, Default)]
pub struct Tally {
    pub brought_in: usize,
    pub walked: usize,
    pub answered: usize,
    /// Questions that no way out answers: an author settles them where they stand. No press.
    pub passed_over: Vec<String>,
    /// Counts that nobody told.
    pub typed: usize,
    pub reviewed: usize,
    /// Presses for sentences, and their letters.
    pub written: usize,
    pub letters: usize,
    pub published: usize,
    /// What keeps the guide from being published, in words; empty where it is.
    pub blocked: String,
}

impl Tally {
    pub fn all(&self) -> usize {
        self.brought_in + self.walked + self.answered + self.typed + self.reviewed + self.written + self.published
    }

    /// How long a practised hand needs, in seconds, by the keystroke-level model (Card, Moran and Newell, 1980; its values from
    /// memory): 0.28 s for a key of an average typist, and 1.35 s to make up one's mind before each press that is no letter.
    /// The time to read is not in it.
    pub fn seconds(&self) -> f64 {
        const KEY_S: f64 = 0.28;
        const MIND_S: f64 = 1.35;
        self.all() as f64 * (KEY_S + MIND_S) + self.letters as f64 * KEY_S
    }

    pub fn told(&self) -> String {
        format!(
            "{} presses: {} to bring it in, {} for the walk ({} passed over: {:?}), {} answers, {} for counts, {} steps reviewed, {} for sentences of {} letters, {} to publish; {:.0} s by the keystroke-level model{}",
            self.all(),
            self.brought_in,
            self.walked,
            self.passed_over.len(),
            self.passed_over,
            self.answered,
            self.typed,
            self.reviewed,
            self.written,
            self.letters,
            self.published,
            self.seconds(),
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
pub async fn count(app: &App, file: &Path, changes: &[Change]) -> Result<Tally, Wrong> {
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
            review(app, &id, changes, &mut tally).await?;
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
            tally.passed_over.push(question.clone());
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

/// Reviews one step after another with one key, until none is left that nobody has read, and writes on the way what the
/// author has to say of a step.
async fn review(app: &App, id: &str, changes: &[Change], tally: &mut Tally) -> Done {
    while open(app, id).await.iter().any(|(rule, _)| rule == "not-reviewed") {
        let label = step_in_focus(app).await?;
        let here = |c: &&Change| label == c.step || label.split_once(": ").is_some_and(|(_, title)| title == c.step);
        for change in changes.iter().filter(here) {
            tally.written += write(app, change).await?;
            tally.letters += change.words.chars().count();
            step_in_focus(app).await?;
        }
        app.keys("r").await?;
        tally.reviewed += 1;
        settled(app).await?;
    }
    Ok(())
}

/// Waits for a step to have the focus: its number and title.
async fn step_in_focus(app: &App) -> Result<String, WebDriverError> {
    let script =
        "const e = document.activeElement; return e.hasAttribute('data-step') ? e.getAttribute('aria-label') : ''";
    let label = async || Ok(app.driver.execute(script, vec![]).await?.json().as_str().unwrap_or_default().to_owned());
    app.until("a step in focus", async || Ok(!label().await?.is_empty())).await;
    label().await
}

/// Writes one sentence: how many presses that took beside its letters.
async fn write(app: &App, change: &Change) -> Result<usize, Wrong> {
    let presses = match &change.place {
        Place::AtTheEnd => {
            app.keys("s").await?;
            1
        }
        Place::Behind(begin) => {
            open_at(app, begin).await?;
            app.keys(Key::Enter + "").await?;
            3
        }
        Place::Instead(begin) => {
            open_at(app, begin).await?;
            app.keys(Key::Control + "a").await?;
            3
        }
    };
    app.until("a field to write in", async || in_sentence(app).await).await;
    app.keys(change.words.as_str()).await?;
    app.keys(Key::Control + Key::Enter).await?;
    settled(app).await?;
    Ok(presses + 1)
}

/// Two presses on a sentence open its step there.
async fn open_at(app: &App, begin: &str) -> Done {
    let sentence = format!("//li[@data-step]//p[starts-with(normalize-space(.), \"{begin}\")]");
    let sentence = app.driver.find(By::XPath(sentence)).await?;
    app.driver.action_chain().double_click_element(&sentence).perform().await?;
    app.until("the sentence open", async || in_sentence(app).await).await;
    Ok(())
}

async fn in_sentence(app: &App) -> Result<bool, WebDriverError> {
    let script = "return document.activeElement?.closest('[data-sentence]') !== null && document.activeElement.tagName === 'TEXTAREA'";
    Ok(app.driver.execute(script, vec![]).await?.json().as_bool().unwrap_or(false))
}
