//! One lands where one meant to: links lead to the thing itself, keys stay with the work, and the page is found again as it
//! was left.

use crate::lost_and_clashing::{sentences, three_sentences};
use paso_e2e::{App, Done};
use serde_json::Value;
use thirtyfour::prelude::*;

const RADIO: &str = "[0:10] Undo four PH1 screws, 8 millimetres, of the back cover. Take off the back cover.\n\n\
    [0:20] Disconnect the battery cable with the spudger. Take out the battery.\n\n\
    [0:30] My neighbour once lifted the tray out of a kettle.\n\n\
    [0:40] Disconnect the blower cable. Take out the fan. Clean the blower.\n\n\
    [0:50] Put the fan back in. Put the back cover on and install four PH1 screws.";

/// The label of what has the focus, or of the step it is in.
async fn focus(app: &App) -> Result<String, WebDriverError> {
    let script = "const a = document.activeElement; \
                  return a.getAttribute('aria-label') ?? a.labels?.[0]?.textContent ?? a.textContent ?? '';";
    Ok(app.driver.execute(script, vec![]).await?.json().as_str().unwrap_or_default().to_owned())
}

async fn focus_on(app: &App, what: &str) {
    app.until(&format!("the focus is on {what}"), async || Ok(focus(app).await?.contains(what))).await;
}

/// The cursor of the field in focus, put behind so many characters.
async fn cursor(app: &App, at: usize) -> Result<(), WebDriverError> {
    app.driver.execute(format!("document.activeElement.setSelectionRange({at}, {at})"), vec![]).await.map(drop)
}

async fn words_of(app: &App, id: &str) -> String {
    let view = app.api(&format!("/api/manuals/{id}")).await;
    let steps = view["order"].as_array().unwrap().iter().map(|s| &view["manual"]["steps"][s.as_str().unwrap()]);
    let worded = |a: &Value| view["worded"][a["id"].as_str().unwrap()].as_str().unwrap_or_default().to_owned();
    let all: Vec<String> = steps.flat_map(|s| s["actions"].as_array().unwrap().iter().map(worded)).collect();
    all.join(" ")
}

#[rocket::async_test]
async fn a_finding_leads_to_its_step_with_the_form_open() -> Done {
    let app = App::start(false).await;
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.find("[data-step]").await?;
    app.press("Add a step").await?;
    app.saved().await?;
    app.goto(&format!("/manuals/{id}/publish")).await?;
    let says = app.text("says nothing to do").await?;
    let card = says.query(By::XPath("./ancestor::li")).first().await?;
    card.find(By::LinkText("Go there")).await?.click().await?;
    focus_on(&app, "Title").await;
    assert_eq!(app.field("Title").await?.prop("value").await?.as_deref(), Some("New step"));
    app.end().await
}

#[rocket::async_test]
async fn a_statement_leads_to_its_step_and_back_to_itself() -> Done {
    let app = App::start(false).await;
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/listen")).await?;
    app.tap("Take out the battery.").await?;
    app.press("Go to step").await?;
    focus_on(&app, "battery").await;
    let step = focus(&app).await?;
    assert!(step.starts_with("Step "), "{step}");
    app.driver.back().await?;
    app.until("the statement is chosen again", async || {
        let chosen = app.driver.find_all(By::Css("[role=option][aria-selected=true]")).await?;
        let Some(row) = chosen.first() else { return Ok(false) };
        Ok(row.text().await?.contains("Take out the battery."))
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn back_and_reload_keep_tab_search_and_choice() -> Done {
    let app = App::start(false).await;
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.find("[data-step]").await?;
    app.tab("Parts").await?;
    app.press("More of the battery").await?;
    app.field("Maker's number").await?;
    app.press("Publish").await?;
    app.text("The whole teardown").await?;
    app.driver.back().await?;
    app.field("Maker's number").await?;
    app.driver.refresh().await?;
    app.field("Maker's number").await?;
    // The rail leads back to where one was, too.
    app.press("Listen").await?;
    app.write("Find /", "fan").await?;
    app.press("Steps").await?;
    app.field("Maker's number").await?;
    app.press("Listen").await?;
    app.until("what was sought stands there", async || {
        Ok(app.field("Find /").await?.prop("value").await?.as_deref() == Some("fan"))
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn a_sentence_that_is_pressed_twice_opens_where_it_stands() -> Done {
    let app = App::start(true).await;
    let (_, step) = three_sentences(&app).await?;
    app.press("Done").await?;
    let at = format!("//*[@data-step='{step}']//p[normalize-space(.)='Sentence 2 as it was.']");
    let sentence = app.driver.find(By::XPath(&at)).await?;
    app.driver.action_chain().double_click_element(&sentence).perform().await?;
    focus_on(&app, "Sentence 2").await;
    app.keys(" At the end.").await?;
    app.keys(Key::Tab + "").await?;
    app.saved().await?;
    app.text("Sentence 2 as it was. At the end.").await?;
    // Opened by its title, it begins with the title again.
    app.keys(Key::Escape + "").await?;
    focus_on(&app, "Step ").await;
    app.keys(Key::Enter + "").await?;
    focus_on(&app, "Title").await;
    app.end().await
}

#[rocket::async_test]
async fn sentences_are_written_on_parted_joined_and_moved_by_keys() -> Done {
    let app = App::start(true).await;
    let (id, step) = three_sentences(&app).await?;
    let titles = async || app.api(&format!("/api/manuals/{id}")).await["order"].as_array().unwrap().len();
    let steps = titles().await;
    app.field("Sentence 1").await?.click().await?;
    cursor(&app, 9_999).await?;
    app.keys(Key::Enter + "Written behind it.").await?;
    app.keys(Key::Enter + "And on.").await?;
    app.keys(Key::Escape + "").await?;
    app.keys(Key::Tab + "").await?;
    app.saved().await?;
    let wanted = ["Sentence 1 as it was.", "Written behind it.", "Sentence 2 as it was.", "Sentence 3 as it was."];
    assert_eq!(sentences(&app, &id, &step).await, wanted, "what Escape left was never there");
    // Parted at the cursor, and put together again.
    app.field("Sentence 2").await?.click().await?;
    cursor(&app, 8).await?;
    app.keys(Key::Enter + "").await?;
    focus_on(&app, "Sentence 3").await;
    app.saved().await?;
    assert_eq!(sentences(&app, &id, &step).await[1..3], ["Written", "behind it."]);
    app.keys(Key::Backspace + "").await?;
    focus_on(&app, "Sentence 2").await;
    app.saved().await?;
    assert_eq!(sentences(&app, &id, &step).await[1], "Written behind it.");
    app.keys(Key::Alt + Key::Up).await?;
    app.saved().await?;
    assert_eq!(sentences(&app, &id, &step).await[0], "Written behind it.");
    focus_on(&app, "Sentence 1").await;
    assert_eq!(titles().await, steps, "no step came of it");
    // Escape closes from the field, and the step has the focus.
    app.keys(Key::Escape + "").await?;
    focus_on(&app, "Step ").await;
    app.end().await
}

#[rocket::async_test]
async fn what_is_marked_as_talk_leaves_the_steps() -> Done {
    let app = App::start(false).await;
    let id = app.make("Radio", RADIO).await;
    assert!(words_of(&app, &id).await.contains("Remove the fan."), "{}", words_of(&app, &id).await);
    app.goto(&format!("/manuals/{id}/listen")).await?;
    app.tap("Take out the fan.").await?;
    app.keys("b").await?;
    app.until("its sentence is gone", async || Ok(!words_of(&app, &id).await.contains("Remove the fan."))).await;
    app.keys(Key::Control + "z").await?;
    app.until("and an undo brings it back", async || Ok(words_of(&app, &id).await.contains("Remove the fan."))).await;
    app.end().await
}

#[rocket::async_test]
async fn a_kind_that_is_right_is_confirmed_by_its_key() -> Done {
    let app = App::start(false).await;
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/listen")).await?;
    app.tap("Take out the fan.").await?;
    app.keys("a").await?;
    app.text("Action, as you said").await?;
    app.keys("a").await?;
    app.saved().await?;
    app.text("Action, as you said").await?;
    app.end().await
}

#[rocket::async_test]
async fn two_names_of_a_part_become_one_and_a_part_says_where_it_is_used() -> Done {
    let app = App::start(false).await;
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/steps?tab=parts")).await?;
    app.press("More of the fan").await?;
    app.press("Remove the part").await?;
    app.text("The part is still used by").await?;
    app.choose("The same thing as", "the blower").await?;
    app.until("the fan is the blower", async || {
        let words = words_of(&app, &id).await;
        Ok(words.contains("Remove the blower.") && !words.contains("fan"))
    })
    .await;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    let used = app.find("section[aria-label='Where the blower is used'] button").await?;
    let title = used.text().await?;
    used.click().await?;
    let (number, title) = title.split_once(". ").expect("a number and a title");
    focus_on(&app, &format!("Step {number}: {title}")).await;
    app.end().await
}

#[rocket::async_test]
async fn steps_have_the_same_numbers_everywhere() -> Done {
    let app = App::start(false).await;
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/listen")).await?;
    app.tap("Put the fan back in.").await?;
    let button = app.button("Go to step").await?;
    let named = button.text().await?;
    button.click().await?;
    let number = named.trim_start_matches("Go to step ").to_owned();
    focus_on(&app, &format!("Step {number}:")).await;
    app.end().await
}

#[rocket::async_test]
async fn plugs_materials_and_amounts_are_worked_on_at_steps() -> Done {
    let app = App::start(false).await;
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.tap_first(By::Css("[data-step]")).await?;
    app.keys("e").await?;
    app.press("Add a plug").await?;
    app.choose("Plug of", "back cover").await?;
    app.choose("How it opens", "latch").await?;
    app.write("The cable passes, parted by commas", "hook, groove\n").await?;
    app.tap("isopropyl alcohol").await?;
    app.saved().await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.press("Done").await?;
    app.text("⟂ back cover").await?;
    app.tab("Tools").await?;
    app.write("Tool or material for the list", "isopropyl alcohol\n").await?;
    app.write("isopropyl alcohol", "5 ml\n").await?;
    app.tab("Notes").await?;
    app.write("Device, as its maker names it", "R-1\n").await?;
    app.saved().await?;
    app.press("Publish").await?;
    app.text("isopropyl alcohol, 5 ml").await?;
    app.text("R-1").await?;
    app.end().await
}
