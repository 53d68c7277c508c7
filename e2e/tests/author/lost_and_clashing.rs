//! What happens when the server goes away, and when somebody else changed the same.

use paso_e2e::{App, Done};
use serde_json::json;
use thirtyfour::prelude::*;

/// Opens the demo lamp at Steps and gives its id and its first step's.
pub async fn lamp(app: &App) -> Result<(String, String), WebDriverError> {
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

/// A step of three sentences behind the first, by another author, opened for editing.
pub async fn three_sentences(app: &App) -> Result<(String, String), WebDriverError> {
    let shelf = app.api("/api/manuals?find=lamp").await;
    let id = shelf[0]["id"].as_str().unwrap_or_default().to_owned();
    let view = app.api(&format!("/api/manuals/{id}")).await;
    let step = "01890000-0000-7000-8000-0000000000a0";
    let sentence = |n: u32| {
        let id = format!("01890000-0000-7000-8000-0000000000b{n}");
        json!({"id": id, "act": "place", "parts": [], "text": format!("Sentence {n} as it was."), "evidence": []})
    };
    let actions = [sentence(1), sentence(2), sentence(3)];
    let add = json!({"id": step, "phase": "teardown", "after": null, "title": "Three sentences", "actions": actions});
    let edit = json!({
        "id": "01890000-0000-7000-8000-0000000000c0",
        "base_seq": view["seq"],
        "edit": {"step": {"add": add}}
    });
    assert!(app.send_as("Bob", &format!("/api/manuals/{id}/edits"), edit).await, "Bob's step went in");
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.tap_first(By::Css(format!("[data-step='{step}']"))).await?;
    app.press("Edit").await?;
    Ok((id, step.to_owned()))
}

pub async fn sentences(app: &App, id: &str, step: &str) -> Vec<String> {
    let view = app.api(&format!("/api/manuals/{id}")).await;
    let actions = view["manual"]["steps"][step]["actions"].as_array().cloned().unwrap_or_default();
    actions.iter().map(|a| a["text"].as_str().unwrap_or_default().to_owned()).collect()
}

#[rocket::async_test]
async fn three_sentences_typed_while_the_server_is_away_all_survive() -> Done {
    let mut app = App::start(true).await;
    let (id, step) = three_sentences(&app).await?;
    app.stop_server().await;
    for n in 1..=3 {
        app.write(&format!("Sentence {n}"), &format!("Sentence {n} typed while away.")).await?;
    }
    // Leaving the last field sends it.
    app.keys(Key::Tab + "").await?;
    app.text("3 edits are kept here, trying again").await?;
    app.start_server().await;
    app.saved().await?;
    let wanted: Vec<String> = (1..=3).map(|n| format!("Sentence {n} typed while away.")).collect();
    assert_eq!(sentences(&app, &id, &step).await, wanted);
    app.end().await
}

#[rocket::async_test]
async fn two_authors_change_two_sentences_of_one_step() -> Done {
    let app = App::start(true).await;
    let (id, step) = three_sentences(&app).await?;
    let view = app.api(&format!("/api/manuals/{id}")).await;
    let set = json!({"set": {"id": "01890000-0000-7000-8000-0000000000b2", "field": {"text": "Bob's sentence."}}});
    let edit = json!({
        "id": "01890000-0000-7000-8000-0000000000c1",
        "base_seq": view["seq"],
        "edit": {"step": {"sentence": {"id": step, "sentence": set}}}
    });
    assert!(app.send_as("Bob", &format!("/api/manuals/{id}/edits"), edit).await, "Bob's sentence went in");
    app.write("Sentence 1", "My sentence.").await?;
    app.press("Add a sentence").await?;
    app.write("New sentence", "A fourth one.").await?;
    app.keys(Key::Tab + "").await?;
    app.saved().await?;
    let wanted = ["My sentence.", "Bob's sentence.", "Sentence 3 as it was.", "A fourth one."];
    assert_eq!(sentences(&app, &id, &step).await, wanted);
    app.end().await
}

#[rocket::async_test]
async fn a_sentence_moves_joins_and_tells_its_act() -> Done {
    let app = App::start(true).await;
    let (id, step) = three_sentences(&app).await?;
    app.press("Move sentence 3 up").await?;
    app.saved().await?;
    assert_eq!(sentences(&app, &id, &step).await[1], "Sentence 3 as it was.");
    app.press("Join sentence 2 to the one above").await?;
    app.saved().await?;
    assert_eq!(sentences(&app, &id, &step).await[0], "Sentence 1 as it was. Sentence 3 as it was.");
    app.choose("What sentence 1 does", "Remove").await?;
    app.saved().await?;
    let view = app.api(&format!("/api/manuals/{id}")).await;
    assert_eq!(view["manual"]["steps"][&step]["actions"][0]["act"], "remove");
    app.press("Remove sentence 2").await?;
    app.saved().await?;
    assert_eq!(sentences(&app, &id, &step).await.len(), 1);
    assert!(app.axe().await?.is_empty(), "{:?}", app.axe().await?);
    app.end().await
}
