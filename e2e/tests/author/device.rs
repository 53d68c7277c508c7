//! What stands beside the steps: parts with their labels, tools, notes, stages, all words at once; fates in a guide.

use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

const RADIO: &str = "[0:00] Tools required, a spudger and tweezers.\n\n\
    [0:10] Undo four PH1 screws, 8 millimetres, of the back cover. Take off the back cover.\n\n\
    [0:20] Disconnect the battery cable with the spudger.\n\n\
    [0:25] The battery has 3.7 volts and 2000 milliamp hours. The battery sits in the tray. Take out the battery.\n\n\
    [0:40] How to charge it, I'll show you later. Take out the tray.";

async fn radio(app: &App, tab: &str) -> Result<String, WebDriverError> {
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/steps")).await?;
    app.find("[data-step]").await?;
    app.tab(tab).await?;
    Ok(id)
}

/// Waits until these words are nowhere on the page.
async fn gone(app: &App, words: &str) {
    app.until(&format!("“{words}” is gone"), async || Ok(!app.words("main").await?.contains(words))).await;
}

#[rocket::async_test]
async fn what_to_order_is_held_against_what_is_fitted() -> Done {
    let app = App::start(false).await;
    let id = radio(&app, "Parts").await?;
    // Drafted from the recording: inside the tray, with its label.
    app.text("in the tray").await?;
    app.press("More of the battery").await?;
    app.until("the heard label stands there", async || {
        Ok(app.field("Capacity, mAh").await?.prop("value").await?.as_deref() == Some("2000"))
    })
    .await;
    app.write("Order number", "R-77\n").await?;
    let voltage = "section[aria-label='What to order'] input[inputmode=decimal]";
    app.type_into(By::Css(voltage), "-7\n").await?;
    app.text("-7 V is out of range; write more than 0 and at most 1000 V.").await?;
    app.type_into(By::Css(voltage), Key::Control + "a").await?;
    app.type_into(By::Css(voltage), "7.4\n").await?;
    app.text("The new battery has 7.4 V, the fitted one 3.7 V. Order one of 3.7 V.").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    let blocking = app.api(&format!("/api/manuals/{id}")).await["blocking"]["steps"].clone();
    assert_eq!(blocking, 1, "it stands against publishing");
    app.type_into(By::Css(voltage), Key::Control + "a").await?;
    app.type_into(By::Css(voltage), "3.7\n").await?;
    gone(&app, "The new battery has").await;
    // Inside itself is impossible, and that is said.
    app.press("More of the tray").await?;
    app.choose("Inside", "the battery").await?;
    app.text("A part cannot sit inside itself or inside what it holds.").await?;
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("battery: No. R-77, 3.7 V").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_tool_nobody_uses_goes_and_one_of_two_does() -> Done {
    let app = App::start(false).await;
    let id = radio(&app, "Tools").await?;
    app.text("On the tool list and used in no step: tweezers.").await?;
    app.press("Take the tweezers off the list").await?;
    gone(&app, "used in no step: tweezers").await;
    app.write("Tool or material for the list", "spudger\n").await?;
    app.text("“spudger” is on the list already. Write another tool.").await?;
    app.write("Tool or material for the list", "anti-static mat\n").await?;
    app.text("On the tool list and used in no step: anti-static mat.").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    // A choice of tools in a step.
    app.tab("Order").await?;
    app.tap("Remove the tray").await?;
    app.keys("e").await?;
    app.write("Any of these tools, parted by commas", "pick\n").await?;
    app.text("A choice has at least two tools.").await?;
    app.write("Any of these tools, parted by commas", "pick, plastic card\n").await?;
    app.choose("The best", "plastic card").await?;
    app.press("Done").await?;
    app.text("pick or plastic card (best: plastic card)").await?;
    let guide = app.api(&format!("/api/manuals/{id}/guide")).await;
    let sections = guide["sections"].as_array().cloned().unwrap_or_default();
    let tools = sections.iter().find(|s| s["title"] == "Tools").map(|s| s["blocks"].to_string()).unwrap_or_default();
    assert!(tools.contains("pick or plastic card (best: plastic card)"), "{tools}");
    app.end().await
}

#[rocket::async_test]
async fn notes_frame_the_guide_and_promises_are_kept_in_sight() -> Done {
    let app = App::start(false).await;
    let id = radio(&app, "Notes").await?;
    app.text("Promised and not told yet: “How to charge it, I'll show you later.”").await?;
    app.press("It is told").await?;
    gone(&app, "Promised and not told yet").await;
    app.choose_in("section[aria-label='Around the work'] form", "Kind of a new note", "test at the end").await?;
    app.write("New note: Around the work", "It plays for an hour.\n").await?;
    app.until("the note is kept", async || {
        Ok(app.find("[role=group][aria-label='It plays for an hour.']").await.is_ok())
    })
    .await;
    app.press("Write it down").await?;
    app.text("Nothing is written here. Write at least one word.").await?;
    app.write("Name of a new variant", "Blue").await?;
    app.write("How to tell the new variant", "The dial is blue.\n").await?;
    app.find("[role=group][aria-label='Blue']").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("Tests at the end").await?;
    app.text("It plays for an hour.").await?;
    app.text("Blue: The dial is blue.").await?;
    app.end().await
}

#[rocket::async_test]
async fn words_change_everywhere_at_once_and_come_back_at_once() -> Done {
    let app = App::start(false).await;
    let id = radio(&app, "Find and replace").await?;
    app.write("Find", "back cover").await?;
    app.text("Replace 4 places").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.write("Replace with", "tray").await?;
    app.press("Replace 4 places").await?;
    app.text("Two parts would be called “tray” then.").await?;
    app.write("Replace with", "rear lid\n").await?;
    app.text("“back cover” stands nowhere.").await?;
    let chain = app.api(&format!("/api/manuals/{id}/chain")).await.to_string();
    assert!(chain.contains("Remove the rear lid"), "{chain}");
    app.press("Undo Ctrl Z").await?;
    app.text("Replace 4 places").await?;
    app.press("Show it").await?;
    app.until("the step is shown", async || {
        Ok(app.words("[data-step][aria-current=true]").await?.contains("back cover"))
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn a_stage_opens_and_a_guide_says_what_is_renewed() -> Done {
    let app = App::start(false).await;
    let id = radio(&app, "Order").await?;
    app.tap("Remove the back cover").await?;
    app.keys("e").await?;
    app.write("A stage begins here; empty: the one before goes on", "Opening\n").await?;
    app.press("Done").await?;
    app.text("Opening").await?;
    app.goto(&format!("/manuals/{id}/chain")).await?;
    app.tap("Remove the battery").await?;
    app.keys("t").await?;
    app.press("Make a guide").await?;
    app.press("Replace the battery").await?;
    app.choose("The back cover", "goes for scrap").await?;
    app.saved().await?;
    app.tap_first(By::LinkText("Read the guide")).await?;
    app.text("Fit the new battery.").await?;
    let text = app.words("article").await?;
    assert!(text.contains("Opening") && !text.contains("Fit the back cover"), "{text}");
    // A second guide sends its readers to the first one.
    app.goto(&format!("/manuals/{id}/chain")).await?;
    app.press("What counts as work").await?;
    app.write("A turn of the device", "-5\n").await?;
    app.text("-5 s for one change cannot be meant; write 0 to 3600 s.").await?;
    app.tap("Remove the tray").await?;
    app.keys("t").await?;
    app.press("Make a guide").await?;
    app.press("Replace the tray").await?;
    app.tap_first(By::XPath("//*[@aria-label='Guides done before Replace the tray']//label")).await?;
    app.saved().await?;
    app.tap_first(By::XPath("(//a[. = 'Read the guide'])[last()]")).await?;
    app.text("It leaves out of the device: back cover, battery").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.end().await
}
