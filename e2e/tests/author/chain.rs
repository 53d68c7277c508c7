//! Chain: reasons, routes, the author's word; moves judged at Steps; guides cut to a job.

use super::pointer::titles;
use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

const PUMP: &str = "[0:00] Remove four PH2 screws, 10 millimetres, from the cover. Take off the cover.\n\n\
    [0:20] Disconnect the battery cable.\n\n\
    [0:30] Disconnect the fan cable. Take out the tray.\n\n\
    [0:50] Take out the fan.\n\n\
    [1:00] Remove two T6 screws, 4 millimetres, from the main board. Take out the main board.";

async fn pump(app: &App, stop: &str) -> Result<String, WebDriverError> {
    let id = app.make("Pump", PUMP).await;
    app.goto(&format!("/manuals/{id}/{stop}")).await?;
    app.find("[data-step]").await?;
    Ok(id)
}

#[rocket::async_test]
async fn a_step_says_why_it_stands_there_and_the_author_decides() -> Done {
    let app = App::start(false).await;
    let id = pump(&app, "chain").await?;
    app.tap("Remove the fan").await?;
    app.text("its cable ties the fan, 95 % sure").await?;
    app.press("Show where it was said, 0:30").await?;
    app.until("the tape shows the words", async || {
        Ok(app.words("section[aria-label='Tape'] mark").await?.contains("Disconnect the fan cable"))
    })
    .await;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.press("Does not hold: “Remove the tray”").await?;
    app.text("does not hold, as an author said").await?;
    app.press("Take that back").await?;
    app.text("its cable ties the fan").await?;
    // By keyboard: Y confirms all reasons of the step in hand, A goes to adding one.
    app.tap("Remove the main board").await?;
    app.keys("y").await?;
    app.until("all its reasons are confirmed", async || {
        let chain = app.api(&format!("/api/manuals/{id}/chain")).await;
        let steps = chain["steps"].as_array().cloned().unwrap_or_default();
        let board = steps.iter().find(|s| s["title"] == "Remove the main board").map(|s| s["step"].clone());
        let own = chain["conditions"].as_array().into_iter().flatten().filter(|c| Some(&c["step"]) == board.as_ref());
        Ok(own.clone().count() > 0 && own.clone().all(|c| c["confirmed"] == true))
    })
    .await;
    app.tap("Remove the main board").await?;
    app.keys("a").await?;
    app.choose("It also waits for", "4. ").await?;
    app.press("Add this").await?;
    app.text("an author says so").await?;
    app.press("Undo Ctrl Z").await?;
    app.until("it is taken back", async || {
        Ok(app.driver.find_all(By::XPath("//p[contains(., 'an author says so')]")).await?.is_empty())
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn a_part_is_picked_and_its_way_becomes_a_guide() -> Done {
    let app = App::start(false).await;
    let id = pump(&app, "chain").await?;
    app.write("Which part should come out?", "main b").await?;
    app.tap_first(By::Css("[data-trigger=ComboBox] [role=option]")).await?;
    app.text("To reach the main board").await?;
    app.text("No set of steps is less work.").await?;
    let way = app.words("ol[aria-label='Steps of this way']").await?;
    // Nobody works at a board while its battery is connected.
    let steps = ["Remove the cover", "Disconnect the battery cable", "Remove the main board"];
    assert_eq!(way.lines().collect::<Vec<_>>(), steps);
    app.write("Title of a guide of this way", "New main board").await?;
    app.press("Make a guide").await?;
    app.tap("New main board").await?;
    app.write("As in the manual", "Open the pump").await?;
    app.keys(Key::Enter + "").await?;
    app.text("1 worded for this one alone").await?;
    app.press("Read the guide").await?;
    app.text("Open the pump").await?;
    app.until("only its steps", async || {
        Ok(app.driver.find_all(By::XPath("//article//h3[.='Remove the fan']")).await?.is_empty())
    })
    .await;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    let guide = app.api(&format!("/api/manuals/{id}/guide")).await;
    assert!(guide.to_string().contains("\"title\":\"Remove the cover\""), "the manual keeps its own words");
    app.press("Publish revision 1").await?;
    app.text("New main board, ").await?;
    app.end().await
}

#[rocket::async_test]
async fn two_ways_stand_side_by_side() -> Done {
    let app = App::start(true).await;
    let shelf = app.api("/api/manuals").await;
    let rows = shelf.as_array().cloned().unwrap_or_default();
    let station = rows.iter().find(|r| r["title"].as_str().is_some_and(|t| t.contains("weather"))).cloned();
    let id = station.unwrap_or_default()["id"].as_str().unwrap_or_default().to_owned();
    app.goto(&format!("/manuals/{id}/chain")).await?;
    app.tap("Remove the battery bracket").await?;
    app.text("One of these: “Remove the ").await?;
    app.keys("t").await?;
    app.text("front glass: 21.50 EUR").await?;
    app.press("○ Way 2").await?;
    app.until("the second way goes through the front", async || {
        Ok(app.words("ol[aria-label='Steps of this way']").await?.contains("Remove the front glass"))
    })
    .await;
    app.press("Show the picture").await?;
    app.find("svg [role=button]").await?;
    app.choose("Show", "stages").await?;
    app.tap_first(By::XPath("//*[@aria-expanded='false' and contains(., 'Opening the front')]")).await?;
    app.until("the stage is opened into its steps", async || {
        let picture = app.words("[aria-label='Layers of the chain']").await?;
        Ok(picture.contains("display") && !picture.contains("Opening the front"))
    })
    .await;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.end().await
}

#[rocket::async_test]
async fn a_move_against_a_reason_is_refused_and_a_doubtful_one_is_told() -> Done {
    let app = App::start(false).await;
    pump(&app, "steps").await?;
    app.tap("Remove the fan").await?;
    app.keys(Key::Alt + Key::Up).await?;
    app.text("Not moved: “Remove the tray” before “Remove the fan”: its cable ties the fan.").await?;
    assert_eq!(titles(&app).await?[3], "Remove the fan");
    app.press("That does not hold: move it").await?;
    app.until("it moves after all", async || Ok(titles(&app).await?[2] == "Remove the fan")).await;
    app.tap("Remove the main board").await?;
    app.keys(Key::Alt + Key::Up).await?;
    app.until("what nothing speaks against moves", async || Ok(titles(&app).await?[3] == "Remove the main board"))
        .await;
    app.end().await
}

#[rocket::async_test]
async fn a_plug_pulled_live_is_mended_with_one_press() -> Done {
    let app = App::start(false).await;
    let text = "[0:00] Remove the cover.\n\n[0:10] Disconnect the fan cable. Take out the tray.\n\n\
        [0:20] Disconnect the battery cable.\n\n[0:30] Take out the fan.";
    let id = app.make("Live", text).await;
    app.goto(&format!("/manuals/{id}/chain")).await?;
    app.text("nothing is done live").await?;
    app.press("Move it behind “Disconnect the battery cable”").await?;
    app.until("the finding is gone", async || {
        Ok(app.driver.find_all(By::XPath("//*[contains(., 'nothing is done live.')]")).await?.is_empty())
    })
    .await;
    app.press("Steps").await?;
    app.until("the battery goes first", async || {
        Ok(titles(&app).await?.get(1).is_some_and(|t| t == "Disconnect the battery cable"))
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn a_branch_and_a_posture_reach_the_reader() -> Done {
    let app = App::start(false).await;
    pump(&app, "steps").await?;
    app.tap("Remove the fan").await?;
    app.press("Edit").await?;
    app.press("Add an “if”").await?;
    app.write("If", "If the fan sticks").await?;
    app.write("do this", "Turn it a little.").await?;
    app.choose("How the device lies", "on its side").await?;
    app.write("Seconds, practised; empty for the estimate", "-5").await?;
    app.keys(Key::Enter + "").await?;
    app.text("-5 s is out of range").await?;
    app.write("Seconds, practised; empty for the estimate", "30").await?;
    app.keys(Key::Enter + "").await?;
    app.press("Done").await?;
    app.saved().await?;
    app.press("Publish").await?;
    app.text("If the fan sticks: Turn it a little. Stop here.").await?;
    app.text("The device lies on its side").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_step_is_duplicated_and_a_part_is_put_inside_another() -> Done {
    let app = App::start(false).await;
    let id = pump(&app, "steps").await?;
    app.tap("Remove the main board").await?;
    app.press("Edit").await?;
    app.choose("Where the main board sits", "in the tray").await?;
    app.press("Duplicate the step").await?;
    app.until("it stands there twice", async || {
        Ok(titles(&app).await?.contains(&"Remove the main board, again".into()))
    })
    .await;
    app.press("Undo Ctrl Z").await?;
    app.saved().await?;
    let chain = app.api(&format!("/api/manuals/{id}/chain")).await.to_string();
    assert!(chain.contains("the main board sits in the tray, which comes out first"), "{chain}");
    app.end().await
}

/// What the narrator only tells is one press away from a guide.
#[rocket::async_test]
async fn a_way_that_was_only_told_becomes_a_guide() -> Done {
    let app = App::start(true).await;
    let shelf = app.api("/api/manuals?find=lamp").await;
    let id = shelf[0]["id"].as_str().unwrap_or_default().to_owned();
    app.goto(&format!("/manuals/{id}/chain")).await?;
    app.text("The narrator says how the switch is reached: first the base plate, the driver board.").await?;
    app.press("Make it a guide").await?;
    app.text("New switch").await?;
    app.saved().await?;
    let jobs = app.api(&format!("/api/manuals/{id}/jobs")).await;
    let job = jobs.as_array().into_iter().flatten().find(|j| j["title"] == "New switch").cloned().unwrap_or_default();
    let path = format!("/api/manuals/{id}/guide.md?job={}", job["id"].as_str().unwrap_or_default());
    let guide = app.fetch(&path).await;
    assert!(guide.contains("Remove the switch") && guide.contains("Told and not shown"), "{guide}");
    assert!(guide.find("Remove the driver board") < guide.find("Remove the switch"), "{guide}");
    app.press("Undo Ctrl Z").await?;
    app.until("it is offered again", async || {
        Ok(!app.driver.find_all(By::XPath("//*[contains(., 'how the switch is reached')]")).await?.is_empty())
    })
    .await;
    app.end().await
}
