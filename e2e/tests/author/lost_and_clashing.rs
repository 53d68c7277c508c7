//! What happens when the server goes away, and when somebody else changed the same.

use paso_e2e::{App, Done};
use serde_json::json;
use thirtyfour::prelude::*;

/// Opens the demo lamp at Steps and gives its id and its first step's.
async fn lamp(app: &App) -> Result<(String, String), WebDriverError> {
    let shelf = app.api("/api/manuals?find=lamp").await;
    let id = shelf[0]["id"].as_str().unwrap_or_default().to_owned();
    let view = app.api(&format!("/api/manuals/{id}")).await;
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.find("[data-step]").await?;
    Ok((id, view["order"][0].as_str().unwrap_or_default().to_owned()))
}

async fn retitle(app: &App, text: &str) -> Done {
    app.tap_first(By::Css("[data-step]")).await?;
    app.press("Edit").await?;
    app.write("Title", text).await?;
    app.keys(Key::Enter + "").await?;
    Ok(())
}

#[rocket::async_test]
async fn edits_are_kept_while_the_server_is_away_and_sent_when_it_is_back() -> Done {
    let mut app = App::start(true).await;
    let (id, step) = lamp(&app).await?;
    app.stop_server().await;
    retitle(&app, "Typed while away").await?;
    app.text("1 edit is kept here, trying again").await?;
    let warns =
        "const e = new Event('beforeunload', {cancelable: true}); window.dispatchEvent(e); return e.defaultPrevented";
    assert_eq!(app.driver.execute(warns, vec![]).await?.json(), &json!(true), "leaving warns");
    app.start_server().await;
    app.saved().await?;
    let view = app.api(&format!("/api/manuals/{id}")).await;
    assert_eq!(view["manual"]["steps"][&step]["title"], "Typed while away");
    assert_eq!(app.driver.execute(warns, vec![]).await?.json(), &json!(false));
    app.end().await
}

#[rocket::async_test]
async fn two_versions_are_shown_and_one_is_chosen() -> Done {
    let app = App::start(true).await;
    let (id, step) = lamp(&app).await?;
    let view = app.api(&format!("/api/manuals/{id}")).await;
    let edit = json!({
        "id": "01890000-0000-7000-8000-000000000001",
        "base_seq": view["seq"],
        "edit": {"step": {"set": {"id": step, "field": {"title": "Bob's title"}}}}
    });
    let sent = app.send_as("Bob", &format!("/api/manuals/{id}/edits"), edit).await;
    assert!(sent, "Bob's edit went through");
    retitle(&app, "My title").await?;
    app.text("Bob changed the same since you loaded it.").await?;
    app.text("Bob's title").await?;
    assert!(app.axe().await?.is_empty(), "{:?}", app.axe().await?);
    app.press("Mine goes over theirs").await?;
    app.saved().await?;
    let now = app.api(&format!("/api/manuals/{id}")).await;
    assert_eq!(now["manual"]["steps"][&step]["title"], "My title");
    app.end().await
}
