//! What is left to settle, walked through with one key.

use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

const OVEN: &str = "[0:00] Unplug the power cord from the wall socket. Take off the cover.\n\n\
    [0:20] Take out the return spring. Caution, the ribbon is short, do not tear it. Take out the tray.\n\n\
    [0:40] Remove two PH1 screws from the cell holder. Take out the cell holder.\n\n\
    [1:00] Now we put it back together. Put the cell holder in. Put the tray in. Put the cover back on.";

/// Open findings of a manual: stop and key, in the order of the API.
async fn open(app: &App, id: &str) -> Vec<(String, String)> {
    let all = app.api(&format!("/api/manuals/{id}/findings")).await;
    let rows = all["findings"].as_array().cloned().unwrap_or_default();
    let kept = rows.into_iter().filter(|f| f["set_aside"].is_null());
    kept.map(|f| (f["stop"].as_str().unwrap_or("").to_owned(), f["key"].as_str().unwrap_or("").to_owned())).collect()
}

async fn heading(app: &App) -> Result<String, WebDriverError> {
    app.words("[aria-label='To settle'] h2").await
}

#[rocket::async_test]
async fn one_key_walks_every_open_question_in_the_order_of_the_rail() -> Done {
    let app = App::start(false).await;
    let id = app.make("Drying box", OVEN).await;
    let all = open(&app, &id).await.len();
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.text(&format!("{all} to settle")).await?;
    let order = ["listen", "steps", "chain", "screws", "seams", "cables", "cautions", "fold", "publish"];
    let mut at = 0;
    for n in 1..=all {
        app.keys(Key::F8 + "").await?;
        let wanted = format!("{n} of {all} to settle");
        app.until(&wanted, async || Ok(heading(&app).await.is_ok_and(|h| h.starts_with(&wanted)))).await;
        let named = heading(&app).await?.rsplit(": ").next().unwrap_or("").to_lowercase();
        let stop = order.iter().position(|s| *s == named).unwrap_or_else(|| panic!("no stop “{named}”"));
        assert!(stop >= at, "“{named}” comes after “{}”", order[at]);
        at = stop;
        // Steps are read where they stand, last of all.
        let place = if named == "publish" { "steps" } else { &named };
        app.until("the stop itself", async || {
            Ok(app.driver.current_url().await?.path().ends_with(&format!("/{place}")))
        })
        .await;
    }
    // Past the last comes the first again.
    app.keys(Key::F8 + "").await?;
    app.until("the first again", async || Ok(heading(&app).await?.starts_with("1 of"))).await;
    app.keys(Key::Shift + Key::F8).await?;
    app.until("the last", async || Ok(heading(&app).await?.starts_with(&format!("{all} of")))).await;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.keys(Key::Escape + "").await?;
    app.end().await
}

/// A step is reviewed by reading it: the walk leads to the next one that nobody has read, and never into a field of it.
#[rocket::async_test]
async fn steps_are_reviewed_one_after_another_with_one_key() -> Done {
    let app = App::start(false).await;
    let id = app.make("Drying box", OVEN).await;
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.text("to settle").await?;
    let row = async |n: usize| -> Result<bool, WebDriverError> {
        let script =
            "const e = document.activeElement; return e.hasAttribute('data-step') ? e.getAttribute('aria-label') : ''";
        let focused = app.driver.execute(script, vec![]).await?;
        Ok(focused.json().as_str().is_some_and(|t| t.starts_with(&format!("Step {n}:"))))
    };
    for _ in 0..open(&app, &id).await.len() {
        app.keys(Key::F8 + "").await?;
        app.until("a question", async || Ok(heading(&app).await.is_ok())).await;
        if app.words("[aria-label='To settle'] [data-ways]").await?.contains("reviewed") {
            break;
        }
    }
    for n in 1..=3 {
        app.until(&format!("step {n} in focus"), async || row(n).await).await;
        app.keys("r").await?;
        app.text(&format!("{n} reviewed")).await?;
    }
    app.until("step 4 in focus", async || row(4).await).await;
    app.end().await
}

#[rocket::async_test]
async fn the_first_way_out_has_the_focus_and_the_next_question_follows() -> Done {
    let app = App::start(false).await;
    let id = app.make("Drying box", OVEN).await;
    let all = open(&app, &id).await.len();
    app.goto(&format!("/manuals/{id}/cautions")).await?;
    app.text(&format!("{all} to settle")).await?;
    for _ in 0..all {
        app.keys(Key::F8 + "").await?;
        app.until("a question", async || Ok(heading(&app).await.is_ok())).await;
        if app.words("[aria-label='To settle'] [data-ways]").await?.contains("Warn before step") {
            break;
        }
    }
    app.until("the way out in focus", async || {
        let script = "return document.activeElement.closest('[data-ways]') ? document.activeElement.textContent : ''";
        let focused = app.driver.execute(script, vec![]).await?;
        Ok(focused.json().as_str().is_some_and(|t| t.starts_with("Warn before step")))
    })
    .await;
    let asked = heading(&app).await?;
    app.keys(Key::Enter + "").await?;
    app.saved().await?;
    app.until("one less", async || Ok(heading(&app).await? != asked)).await;
    app.text(&format!("{} to settle", open(&app, &id).await.len())).await?;
    app.press("Close Esc").await?;
    app.until("closed", async || Ok(heading(&app).await.is_err())).await;
    app.end().await
}

/// Two glued panels, of which nobody tells where to enter.
const PANELS: &str = "[0:00] Heat the front panel for two minutes. Pry off the front panel with an opening pick.\n\n\
    [0:30] Heat the rear panel for two minutes. Pry off the rear panel with an opening pick. Take out the tray.\n\n\
    [1:00] Now we put it back together. Put the tray in. Glue the rear panel on. Glue the front panel on.";

#[rocket::async_test]
async fn the_walk_takes_the_joint_that_is_asked_about_in_hand() -> Done {
    let app = App::start(false).await;
    let id = app.make("Tide clock", PANELS).await;
    let all = open(&app, &id).await;
    let first = all
        .iter()
        .filter(|(stop, _)| stop == "listen" || stop == "steps" || stop == "chain" || stop == "screws")
        .count();
    let joints = all.iter().filter(|(stop, _)| stop == "seams").count();
    assert!(joints > 1, "{all:?}");
    app.goto(&format!("/manuals/{id}/seams")).await?;
    app.text(&format!("{} to settle", all.len())).await?;
    for n in 1..=first + joints {
        app.keys(Key::F8 + "").await?;
        let wanted = format!("{n} of ");
        app.until(&wanted, async || Ok(heading(&app).await.is_ok_and(|h| h.starts_with(&wanted)))).await;
        if n <= first {
            continue;
        }
        let asked = app.words("[aria-label='To settle'] [data-ways] p").await?;
        let panel = if asked.contains("front panel") { "front panel" } else { "rear panel" };
        assert!(asked.contains(panel), "{asked}");
        app.until(&format!("the {panel} in hand"), async || {
            Ok(app.words("[role=option][aria-selected=true]").await.is_ok_and(|w| w.contains(panel)))
        })
        .await;
    }
    app.end().await
}

/// Two parts, apart from one another, of which nobody tells how they go back.
const UNTOLD: &str = "[0:00] Take off the cover. Take out the fan.\n\n\
    [0:20] Take out the board. Take out the tray. Take out the cell.\n\n\
    [0:40] Now we put it back together. Put the cell in. Put the board in. Put the cover back on.";

#[rocket::async_test]
async fn the_walk_takes_the_step_that_is_asked_about_in_hand_on_the_fold() -> Done {
    let app = App::start(false).await;
    let id = app.make("Tide clock", UNTOLD).await;
    let all = open(&app, &id).await;
    let at_fold = all.iter().filter(|(stop, _)| stop == "fold").count();
    assert!(at_fold > 1, "{all:?}");
    app.goto(&format!("/manuals/{id}/fold")).await?;
    app.text(&format!("{} to settle", all.len())).await?;
    let mut seen = Vec::new();
    for n in 1..all.len() {
        app.keys(Key::F8 + "").await?;
        let wanted = format!("{n} of ");
        app.until(&wanted, async || Ok(heading(&app).await.is_ok_and(|h| h.starts_with(&wanted)))).await;
        if !heading(&app).await?.ends_with("Fold") {
            continue;
        }
        let asked = app.words("[aria-label='To settle'] [data-ways] p").await?;
        let part = if asked.contains("fan") { "fan" } else { "tray" };
        app.until(&format!("the {part} in hand"), async || {
            Ok(app.words("[data-place][aria-current=true]").await.is_ok_and(|w| w.contains(part)))
        })
        .await;
        seen.push(part);
    }
    assert!(seen.contains(&"fan") && seen.contains(&"tray"), "{seen:?}");
    app.end().await
}
