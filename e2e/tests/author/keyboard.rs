//! The whole job without a pointer.

use super::FAN;
use super::pointer::titles;
use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

/// What has the focus: its name, else its words.
pub async fn focused(app: &App) -> Result<String, WebDriverError> {
    let script = "const e = document.activeElement; const id = e.id && document.querySelector(`label[for='${e.id}']`);
        return e.getAttribute('aria-label') || (id && id.textContent) || e.textContent || ''";
    Ok(app.driver.execute(script, vec![]).await?.json().as_str().unwrap_or_default().trim().to_owned())
}

/// Presses Tab until the focus is on something of this name.
async fn tab_to(app: &App, name: &str) -> Done {
    for _ in 0..90 {
        if focused(app).await?.starts_with(name) {
            return Ok(());
        }
        app.keys(Key::Tab + "").await?;
    }
    panic!("Tab never reached “{name}”; it is on “{}”", focused(app).await?);
}

#[rocket::async_test]
async fn from_pasted_text_to_a_published_guide() -> Done {
    let app = App::start(false).await;
    app.goto("/").await?;
    tab_to(&app, "or paste the text").await?;
    app.keys(FAN.split("\n\n").skip(1).collect::<Vec<_>>().join("\n\n")).await?;
    tab_to(&app, "Read the pasted text").await?;
    app.keys(Key::Enter + "").await?;
    app.text("segments").await?;
    tab_to(&app, "Title").await?;
    app.keys(Key::Control + "a").await?;
    app.keys("Fan swap").await?;
    tab_to(&app, "Draft the manual").await?;
    app.keys(Key::Enter + "").await?;
    app.text("What was said").await?;

    // Listen: arrows and letters.
    app.find("[role=option]").await?;
    tab_to(&app, "Show as heard").await?;
    app.keys(Key::Tab + "").await?;
    app.keys(Key::Down + "").await?;
    app.keys(Key::Down + "").await?;
    app.keys("o").await?;
    app.text("Observation, as you said").await?;
    app.keys("x").await?;
    app.saved().await?;
    app.keys(Key::Control + "z").await?;
    app.keys(Key::Control + "z").await?;
    app.until("both undone", async || {
        Ok(app.driver.find_all(By::XPath("//*[contains(., 'as you said')]")).await?.is_empty())
    })
    .await;

    // Steps: move, review, edit, merge.
    tab_to(&app, "Steps").await?;
    app.keys(Key::Enter + "").await?;
    app.find("[data-step]").await?;
    tab_to(&app, "Step 1").await?;
    app.keys(Key::Alt + Key::Down).await?;
    app.until("the step moved down", async || Ok(titles(&app).await?[1] == "Remove the base plate")).await;
    app.keys(Key::Alt + Key::Up).await?;
    app.until("and up again", async || Ok(titles(&app).await?[0] == "Remove the base plate")).await;
    app.keys("r").await?;
    app.text("1 reviewed").await?;
    app.keys(Key::Enter + "").await?;
    app.until("the title is being written", async || Ok(focused(&app).await? == "Title")).await;
    app.keys(Key::Control + "a").await?;
    app.keys("Open the base").await?;
    app.keys(Key::Enter + "").await?;
    app.until("the title shows", async || Ok(titles(&app).await?[0] == "Open the base")).await;
    app.until("the step has the focus", async || Ok(focused(&app).await?.starts_with("Step 1"))).await;
    app.keys(Key::Enter + "").await?;
    app.until("the title is being written", async || Ok(focused(&app).await? == "Title")).await;
    tab_to(&app, "Put back").await?;
    app.keys(Key::Control + "a").await?;
    app.keys("4").await?;
    tab_to(&app, "Done").await?;
    app.keys(Key::Enter + "").await?;
    app.until("the step has the focus", async || Ok(focused(&app).await?.starts_with("Step 1"))).await;
    app.keys(Key::Down + "").await?;
    app.keys("m").await?;
    app.until("merged upwards", async || Ok(titles(&app).await?[1] == "Remove the fan")).await;
    app.keys(Key::Control + "z").await?;
    app.until("and parted again", async || Ok(titles(&app).await?[1] == "Remove the battery")).await;

    // Fold and Publish.
    tab_to(&app, "Fold").await?;
    app.keys(Key::Enter + "").await?;
    app.text("0 left over").await?;
    tab_to(&app, "Publish").await?;
    app.keys(Key::Enter + "").await?;
    tab_to(&app, "Publish revision 1").await?;
    app.keys(Key::Enter + "").await?;
    app.text("Revision 1").await?;
    app.end().await
}

#[rocket::async_test]
async fn stops_to_come_say_what_they_will_be_and_lead_nowhere() -> Done {
    let app = App::start(true).await;
    let id = app.api("/api/manuals").await[0]["id"].as_str().unwrap_or_default().to_owned();
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.find("[data-step]").await?;
    tab_to(&app, "Rehearse").await?;
    app.text("To come. One step at a time").await?;
    app.keys(Key::Enter + "").await?;
    assert!(app.driver.current_url().await?.path().ends_with("/steps"));
    app.end().await
}
