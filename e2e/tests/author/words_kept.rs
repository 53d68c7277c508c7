//! No word is ever lost: slow answers, several tabs, pages that are left half typed, and what the server refuses.

use crate::lost_and_clashing::{lamp, sentences, three_sentences};
use paso_e2e::{App, Done};
use serde_json::{Value, json};
use thirtyfour::prelude::*;

async fn title_of(app: &App, id: &str, step: &str) -> Value {
    app.api(&format!("/api/manuals/{id}")).await["manual"]["steps"][step]["title"].clone()
}

/// Opens the first step of the demo lamp for editing.
async fn open_first(app: &App) -> Result<(String, String), WebDriverError> {
    let (id, step) = lamp(app).await?;
    app.tap_first(By::Css("[data-step]")).await?;
    app.press("Edit").await?;
    Ok((id, step))
}

#[rocket::async_test]
async fn a_slow_answer_takes_back_no_word() -> Done {
    let app = App::start(true).await;
    let (id, step) = three_sentences(&app).await?;
    app.latency(300).await?;
    app.write("Sentence 1", "First, typed before the answer.").await?;
    app.press("Add a sentence").await?;
    app.write("New sentence", "Added before the answer.").await?;
    app.write("Sentence 2", "Second, typed before the answer.").await?;
    app.press("Move sentence 3 up").await?;
    app.saved().await?;
    let wanted = [
        "First, typed before the answer.",
        "Sentence 3 as it was.",
        "Second, typed before the answer.",
        "Added before the answer.",
    ];
    assert_eq!(sentences(&app, &id, &step).await, wanted);
    app.end_for_good().await
}

#[rocket::async_test]
async fn what_is_typed_while_the_server_is_away_shows_in_its_place_at_once() -> Done {
    let mut app = App::start(true).await;
    let (id, step) = three_sentences(&app).await?;
    app.stop_server().await;
    app.press("Add a sentence").await?;
    app.write("New sentence", "Added while away.").await?;
    app.keys(Key::Tab + "").await?;
    app.press("Move sentence 4 up").await?;
    app.until("the added sentence is the third", || async {
        Ok(app.field("Sentence 3").await?.prop("value").await?.as_deref() == Some("Added while away."))
    })
    .await;
    app.press("Remove sentence 1").await?;
    app.press("Done").await?;
    app.text("Added while away.").await?;
    app.start_server().await;
    app.saved().await?;
    let wanted = ["Sentence 2 as it was.", "Added while away.", "Sentence 3 as it was."];
    assert_eq!(sentences(&app, &id, &step).await, wanted);
    app.end().await
}

#[rocket::async_test]
async fn two_tabs_of_one_author_keep_what_both_typed_while_the_server_was_away() -> Done {
    two_tabs("").await
}

/// A browser tells a tab in its own time what another one has stored, and lets it send in its turn: here always too late.
#[rocket::async_test]
async fn two_tabs_keep_what_both_typed_where_one_of_them_hears_and_sends_late() -> Done {
    two_tabs(
        "const ask = navigator.locks.request.bind(navigator.locks);
        const late = () => new Promise((go) => setTimeout(go, 4000));
        navigator.locks.request = (...turn) => late().then(() => ask(...turn));
        // Nor does it ask the server because somebody looks at it again.
        for (const told of ['storage', 'visibilitychange'])
            addEventListener(told, (event) => event.stopImmediatePropagation(), true);",
    )
    .await
}

async fn two_tabs(first_do: &str) -> Done {
    let mut app = App::start(true).await;
    let (id, step) = three_sentences(&app).await?;
    let first = app.driver.window().await?;
    let second = app.driver.new_tab().await?;
    app.driver.switch_to_window(second.clone()).await?;
    app.driver.cdp().send_raw("Page.addScriptToEvaluateOnNewDocument", json!({"source": first_do})).await?;
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.tap_first(By::Css(format!("[data-step='{step}']"))).await?;
    app.press("Edit").await?;
    app.stop_server().await;
    app.write("Sentence 2", "Typed in the second tab.").await?;
    app.keys(Key::Tab + "").await?;
    app.text("1 edit is kept here").await?;
    app.driver.switch_to_window(first.clone()).await?;
    app.write("Sentence 1", "Typed in the first tab.").await?;
    app.keys(Key::Tab + "").await?;
    app.text("2 edits are kept here").await?;
    app.start_server().await;
    app.saved().await?;
    app.driver.switch_to_window(second).await?;
    app.saved().await?;
    let wanted = ["Typed in the first tab.", "Typed in the second tab.", "Sentence 3 as it was."];
    assert_eq!(sentences(&app, &id, &step).await, wanted);
    app.until("the second tab shows what the first one typed", || async {
        Ok(app.field("Sentence 1").await?.prop("value").await?.as_deref() == Some("Typed in the first tab."))
    })
    .await;
    app.driver.close_window().await?;
    app.driver.switch_to_window(first).await?;
    app.end_for_good().await
}

#[rocket::async_test]
async fn a_field_left_half_typed_keeps_its_words() -> Done {
    let app = App::start(true).await;
    for how in ["reload", "back", "another stop"] {
        let (id, step) = open_first(&app).await?;
        let typed = format!("Half typed, then {how}");
        app.write("Title", &typed).await?;
        match how {
            "reload" => app.driver.refresh().await?,
            "back" => {
                app.driver.back().await?;
                // The page is away; whenever the manual is opened again, its words are there.
                app.goto(&format!("/manuals/{id}/steps")).await?;
            }
            _ => drop(app.driver.execute("document.querySelector('nav a[href$=\"/chain\"]').click()", vec![]).await?),
        }
        app.until(how, || async { Ok(title_of(&app, &id, &step).await == typed) }).await;
    }
    app.end().await
}

#[rocket::async_test]
async fn escape_throws_away_what_was_half_typed() -> Done {
    let app = App::start(true).await;
    let (id, step) = open_first(&app).await?;
    let before = title_of(&app, &id, &step).await;
    app.write("Title", "Half typed").await?;
    app.keys(Key::Escape + "").await?;
    app.saved().await?;
    app.driver.refresh().await?;
    app.find("[data-step]").await?;
    app.saved().await?;
    assert_eq!(title_of(&app, &id, &step).await, before);
    app.end().await
}

#[rocket::async_test]
async fn what_is_no_count_stays_in_its_field_with_the_sentence() -> Done {
    let app = App::start(true).await;
    let (id, _) = open_first(&app).await?;
    app.press("Add screws").await?;
    app.saved().await?;
    let seq = app.api(&format!("/api/manuals/{id}")).await["seq"].clone();
    for (typed, says) in [
        ("abc", "“abc” is no figure. Write one such as 4."),
        ("1e", "“1e” is no figure."),
        ("2.7", "2.7 cannot be counted. Write a whole number such as 4."),
        ("-3", "A count is 0 or more."),
    ] {
        app.write("Count", &format!("{typed}\n")).await?;
        app.text(says).await?;
        assert_eq!(app.field("Count").await?.prop("value").await?.as_deref(), Some(typed), "it stays as it was typed");
    }
    assert!(app.axe().await?.is_empty(), "{:?}", app.axe().await?);
    assert_eq!(app.api(&format!("/api/manuals/{id}")).await["seq"], seq, "nothing of it was stored");
    app.write("Count", "4\n").await?;
    app.saved().await?;
    assert_ne!(app.api(&format!("/api/manuals/{id}")).await["seq"], seq);
    app.end().await
}

/// Edits of an earlier visit that the server does not take any more stand aside with their words; the rest goes on.
#[rocket::async_test]
async fn a_refused_edit_is_set_aside_with_its_words_and_the_next_one_goes() -> Done {
    let app = App::start(true).await;
    let (id, step) = lamp(&app).await?;
    let gone = "01890000-0000-7000-8000-00000000dead";
    let edit = |id: &str, title: &str| json!({"step": {"set": {"id": id, "field": {"title": title}}}});
    let keep = |n: u32, edit: Value| {
        let key = format!("01890000-0000-7000-8000-0000000000e{n}");
        let item = json!({"id": key, "edit": edit}).to_string();
        (format!("paso.edit.{id}.Local author.{key}"), item)
    };
    for (key, item) in [keep(1, edit(gone, "Words of a lost step")), keep(2, edit(&step, "Words that go through"))] {
        app.driver.execute("localStorage.setItem(arguments[0], arguments[1])", vec![json!(key), json!(item)]).await?;
    }
    app.driver.refresh().await?;
    app.text("Not taken: “Words of a lost step”").await?;
    app.until("the next one has gone", || async { Ok(title_of(&app, &id, &step).await == "Words that go through") })
        .await;
    assert!(app.axe().await?.is_empty(), "{:?}", app.axe().await?);
    app.driver.refresh().await?;
    app.text("Not taken: “Words of a lost step”").await?;
    app.press("Close").await?;
    app.driver.refresh().await?;
    app.saved().await?;
    assert!(!app.words("body").await?.contains("Words of a lost step"), "seen and closed");
    app.end().await
}

#[rocket::async_test]
async fn a_refusal_is_shown_once_at_its_field() -> Done {
    let app = App::start(true).await;
    open_first(&app).await?;
    app.write("Title", &"long ".repeat(60)).await?;
    app.keys(Key::Enter + "").await?;
    app.text("The text has 299 characters; at most 200 fit. Shorten it.").await?;
    app.until("it is said once", || async { Ok(app.words("body").await?.matches("at most 200 fit").count() == 1) })
        .await;
    let kept = app.field("Title").await?.prop("value").await?.unwrap_or_default();
    assert_eq!(kept, "long ".repeat(60), "refused text stays in its field");
    app.end().await
}

#[rocket::async_test]
async fn undo_says_what_it_undid() -> Done {
    let app = App::start(true).await;
    lamp(&app).await?;
    app.keys(Key::Control + "z").await?;
    app.text("There is nothing to undo.").await?;
    assert!(!app.words("[role=alert]").await?.contains("Not taken"), "an undo has no words of its own");
    app.press("Close").await?;
    open_first(&app).await?;
    app.write("Title", "Another title\n").await?;
    app.saved().await?;
    app.press("Undo Ctrl Z").await?;
    app.text("Undone: title of step 1.").await?;
    app.press("Redo Ctrl ⇧ Z").await?;
    app.text("Done again: title of step 1.").await?;
    app.end().await
}

#[rocket::async_test]
async fn two_texts_of_one_sentence_are_read_side_by_side_and_both_kept() -> Done {
    let app = App::start(true).await;
    let (id, step) = three_sentences(&app).await?;
    let view = app.api(&format!("/api/manuals/{id}")).await;
    let set = json!({"set": {"id": "01890000-0000-7000-8000-0000000000b1", "field": {"text": "Bob's words."}}});
    let edit = json!({
        "id": "01890000-0000-7000-8000-0000000000c1",
        "base_seq": view["seq"],
        "edit": {"step": {"sentence": {"id": step, "sentence": set}}}
    });
    assert!(app.send_as("Bob", &format!("/api/manuals/{id}/edits"), edit).await, "Bob's sentence went in");
    app.write("Sentence 1", "My words.").await?;
    app.keys(Key::Tab + "").await?;
    app.text("Bob changed the same since you loaded it.").await?;
    let shown = app.words("[role=dialog]").await?;
    assert!(shown.contains("Bob's words.") && shown.contains("My words."), "{shown}");
    assert!(!shown.contains('{') && !shown.contains("actions/"), "words, not a program's data: {shown}");
    app.press("Keep both, theirs first").await?;
    app.saved().await?;
    assert_eq!(sentences(&app, &id, &step).await[0], "Bob's words. My words.");
    app.end().await
}
