//! Sentences written at the keyboard while a guide is read.

use super::FAN;
use super::keyboard::focused;
use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

async fn sentences(app: &App) -> Result<Vec<String>, WebDriverError> {
    let script = "return [...document.querySelectorAll('[data-step] p')].map((p) => p.textContent)";
    let told = app.driver.execute(script, vec![]).await?;
    Ok(told
        .json()
        .as_array()
        .map(|a| a.iter().filter_map(|v| v.as_str().map(str::to_owned)).collect())
        .unwrap_or_default())
}

/// The first step has the focus; where it is.
async fn at_first_step(app: &App) -> Result<String, WebDriverError> {
    let id = app.make("Fan swap", FAN).await;
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.find("[data-step]").await?;
    app.driver.execute("document.querySelector('[data-step]').focus()", vec![]).await?;
    Ok(id)
}

#[rocket::async_test]
async fn one_key_writes_on_and_one_more_closes_the_step() -> Done {
    let app = App::start(false).await;
    at_first_step(&app).await?;
    app.keys("s").await?;
    app.until("a new sentence is being written", async || Ok(focused(&app).await? == "New sentence")).await;
    app.keys("Lay the base plate aside.").await?;
    app.keys(Key::Control + Key::Enter).await?;
    app.until("the step has the focus", async || Ok(focused(&app).await?.starts_with("Step 1"))).await;
    app.until("the sentence stands", async || {
        Ok(sentences(&app).await?.iter().any(|s| s == "Lay the base plate aside."))
    })
    .await;
    // Nothing was written: nothing is added.
    let before = sentences(&app).await?;
    app.keys("s").await?;
    app.until("a new sentence is being written", async || Ok(focused(&app).await? == "New sentence")).await;
    app.keys(Key::Control + Key::Enter).await?;
    app.until("the step has the focus", async || Ok(focused(&app).await?.starts_with("Step 1"))).await;
    app.saved().await?;
    assert_eq!(sentences(&app).await?, before);
    app.end().await
}

#[rocket::async_test]
async fn what_is_refused_stays_open_with_its_words() -> Done {
    let app = App::start(false).await;
    at_first_step(&app).await?;
    app.keys("s").await?;
    app.until("a new sentence is being written", async || Ok(focused(&app).await? == "New sentence")).await;
    let long = "a".repeat(5000);
    let fill = "const t = document.activeElement; const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set;
        set.call(t, arguments[0]); t.dispatchEvent(new Event('input', { bubbles: true }))";
    app.driver.execute(fill, vec![long.as_str().into()]).await?;
    // However long the refusal takes.
    app.latency(1500).await?;
    app.keys(Key::Control + Key::Enter).await?;
    app.text("at most").await?;
    app.until("the field stays open", async || Ok(focused(&app).await? == "New sentence")).await;
    app.end_for_good().await
}

#[rocket::async_test]
async fn a_condition_stands_first_in_its_sentence_and_a_bare_if_is_refused() -> Done {
    let app = App::start(false).await;
    at_first_step(&app).await?;
    app.keys(Key::Enter + "").await?;
    app.press("With what, where, how").await?;
    app.write("Only if (“if it is tight”)", "if").await?;
    app.keys(Key::Tab + "").await?;
    app.find("[aria-invalid=true]").await?;
    app.write("Only if (“if it is tight”)", "if it is stuck").await?;
    app.keys(Key::Tab + "").await?;
    app.saved().await?;
    app.driver.execute("document.activeElement.blur()", vec![]).await?;
    app.press("Done").await?;
    app.until("the condition leads", async || {
        Ok(sentences(&app).await?.iter().any(|s| s.starts_with("If it is stuck, ")))
    })
    .await;
    app.end().await
}
