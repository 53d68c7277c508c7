//! Fold: the picture walked by keys, a difference mended, an exception overruled, a long one folded.

use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

const LAMP: &str = "# Recording: Lamp\n\n\
[0:00] Remove four PH1 screws from the cover. Take off the cover.\n\n\
[0:20] Disconnect the fan cable. Take out the fan, it sits under the cover.\n\n\
[0:30] Disconnect the battery cable.\n\n\
[0:40] Take out the tray.\n\n\
[0:50] Now the assembly. Put the tray in.\n\n\
[1:00] Put the cover on. Install four PH1 screws in the cover.\n\n\
[1:10] Put the fan in. Connect the fan cable.\n";

async fn open(app: &App, told: &str) -> Result<String, WebDriverError> {
    let id = app.make("Lamp", told).await;
    app.goto(&format!("/manuals/{id}/fold")).await?;
    app.find("ol[aria-label='Putting together'] li").await?;
    Ok(id)
}

/// The titles of one half in the order of the work, as a screen reader meets them.
async fn half(app: &App, name: &str) -> Result<Vec<String>, WebDriverError> {
    let css = format!("ol[aria-label='{name}'] h3 > span:nth-child(2)");
    let mut out = Vec::new();
    for item in app.driver.find_all(By::Css(css)).await? {
        out.push(item.text().await?);
    }
    Ok(out)
}

#[rocket::async_test]
async fn a_step_told_too_early_is_moved_by_one_press() -> Done {
    let app = App::start(false).await;
    open(&app, LAMP).await?;
    app.text("≠ differs").await?;
    // The told order runs along the edge.
    for place in ["told 1st", "told 2nd", "told 3rd"] {
        app.text(place).await?;
    }
    app.tap("Fit the cover").await?;
    app.text("is told before").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    let told = ["Fit the tray", "Connect the battery", "Fit the cover", "Fit the fan"];
    assert_eq!(half(&app, "Putting together").await?.len(), told.len());
    app.press("Move “Fit the cover” behind “Fit the fan”").await?;
    app.saved().await?;
    app.until("the cover goes on last", async || {
        Ok(half(&app, "Putting together").await?.last().is_some_and(|t| t == "Fit the cover"))
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn an_exception_is_overruled_with_a_reason_and_holds_again() -> Done {
    let app = App::start(false).await;
    let told = "[0:00] Take off the cover.\n\n[0:10] Disconnect the fan cable. Take out the fan.\n\n\
                [0:20] Disconnect the battery connector.\n\n[0:30] Take out the board.";
    open(&app, told).await?;
    let row = async || {
        Ok::<_, WebDriverError>(half(&app, "Putting together").await?.iter().position(|t| t.contains("battery")))
    };
    let late = row().await?;
    app.text("↕ moved").await?;
    app.tap("Connect the battery").await?;
    app.text("connected last of all connectors").await?;
    app.press("Put it where reversing has it …").await?;
    // A reason is needed: the refusal stands at the field.
    app.press("Overrule").await?;
    app.text("Nothing is written here").await?;
    app.write("Why it stands where reversing has it", "The maker tests it live here").await?;
    app.press("Overrule").await?;
    app.saved().await?;
    app.text("Overruled: The maker tests it live here").await?;
    assert!(row().await? < late);
    app.press("The rule holds after all").await?;
    app.saved().await?;
    app.until("it is last again", async || Ok(row().await? == late)).await;
    app.end().await
}

#[rocket::async_test]
async fn arrows_walk_the_picture_and_what_lies_there_is_said() -> Done {
    let app = App::start(false).await;
    open(&app, LAMP).await?;
    let here = async || app.words("li:focus h3 > span:nth-child(2)").await;
    app.driver.execute("document.querySelector(\"[data-place^='t']\").focus()", vec![]).await?;
    assert_eq!(here().await?, "Remove the cover");
    app.text("4 screws, 1 part on the bench").await?;
    app.keys(Key::Down + "").await?;
    assert_eq!(here().await?, "Remove the fan");
    app.keys(Key::Right + "").await?;
    assert!(app.find("li:focus").await?.attr("data-place").await?.is_some_and(|p| p.starts_with('r')));
    app.keys(Key::Left + "").await?;
    assert!(app.find("li:focus").await?.attr("data-place").await?.is_some_and(|p| p.starts_with('t')));
    // The choice stays over a reload.
    let chosen = here().await?;
    app.until("it is in the address", async || {
        Ok(app.driver.current_url().await?.query().is_some_and(|q| q.contains("step=")))
    })
    .await;
    app.driver.refresh().await?;
    app.text("Open step").await?;
    assert!(!chosen.is_empty());
    app.end().await
}

#[rocket::async_test]
async fn a_long_fold_folds_what_simply_turns_round() -> Done {
    let app = App::start(false).await;
    let sides = ["front", "rear", "left", "right", "upper", "lower"];
    let parts = ["bracket", "fan", "sensor", "motor", "lever", "spring", "pulley", "magnet", "filter", "handle"];
    let all = parts.iter().flat_map(|part| sides.iter().map(move |side| format!("the {side} {part}")));
    let told: String =
        all.enumerate().map(|(n, what)| format!("[{}:{:02}] Take out {what}.\n\n", n / 6, n % 6 * 10)).collect();
    let id = app.make("Long", &format!("# Recording: Long\n\n{told}")).await;
    app.goto(&format!("/manuals/{id}/fold")).await?;
    app.text("the same turned round").await?;
    let few = half(&app, "Taking apart").await?.len();
    assert_eq!(few, 0, "all of it is plain");
    app.press("Show steps 11 to 20").await?;
    app.until("ten are shown", async || Ok(half(&app, "Taking apart").await?.len() == few + 10)).await;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.end().await
}

#[rocket::async_test]
async fn an_empty_manual_says_where_to_begin() -> Done {
    let app = App::start(false).await;
    let id = app.make("Empty", "[0:00] Hello and welcome back to the channel.").await;
    app.goto(&format!("/manuals/{id}/fold")).await?;
    app.text("Nothing to fold").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.end().await
}

/// A step that the recording cut, one that it shows, and talk between them.
const CLOCKED: &str = "# Recording: Lamp\n\n\
[0:10] Remove eighteen PH1 screws from the cover. Take off the cover.\n\n\
[0:14] Disconnect the fan cable. Take out the fan.\n\n\
[0:50] My neighbour has a dog and it is very loud today.\n\n\
[1:00] Take out the tray.\n\n\
[1:20] Thanks for watching.\n";

#[rocket::async_test]
async fn the_recording_tells_how_long_a_step_takes_and_which_seconds_to_look_at() -> Done {
    let app = App::start(false).await;
    open(&app, CLOCKED).await?;
    let strip = "[aria-label='The recording, step by step'] button";
    app.find(strip).await?;
    let mut said = Vec::new();
    for stretch in app.driver.find_all(By::Css(strip)).await? {
        said.push(stretch.attr("aria-label").await?.unwrap_or_default());
    }
    assert_eq!(said[0], "Step 1 4 s of work, not believed: Remove the cover");
    assert!(said[1].starts_with("Step 2 36 s of work") && said[1].contains("10 s of talk"), "{said:?}");
    app.text("The recording holds 4 s").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    // A stretch takes its step in hand, on the picture too.
    app.tap_first(By::Css(format!("{strip}:nth-of-type(2)"))).await?;
    app.find(&format!("{strip}:nth-of-type(2)[aria-pressed='true']")).await?;
    app.tap("0:10 to 0:14").await?;
    app.find("[role='option'][aria-selected='true']").await?;
    app.text("Remove eighteen PH1 screws from the cover.").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_score_follows_only_from_a_table_of_ones_own() -> Done {
    let app = App::start(false).await;
    open(&app, LAMP).await?;
    app.press("Score it by a table of your own").await?;
    app.text("Give a row its weight to see a score.").await?;
    app.write("fasteners, weight", "2\n").await?;
    app.text("Still to fill in: the points of fasteners in class A.").await?;
    app.write("fasteners, points of class A", "10\n").await?;
    app.text("Score: 10 of 10").await?;
    app.write("fasteners, points of class B", "many\n").await?;
    app.text("“many” is no figure.").await?;
    app.keys(Key::Escape + "").await?;
    app.write("steps, weight", "1\n").await?;
    app.text("how many steps are class A and class B").await?;
    app.write("Class A up to, steps", "2\n").await?;
    app.write("Class B up to, steps", "2\n").await?;
    app.text("Class A goes up to 2 steps, so class B must go further than that, not up to 2.").await?;
    app.write("Class B up to, steps", "20\n").await?;
    app.write("steps, points of class A", "10\n").await?;
    app.write("steps, points of class B", "4\n").await?;
    app.text("Score: 8 of 10").await?;
    app.text("class B: 1 × 4").await?;
    app.saved().await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.driver.refresh().await?;
    app.text("Score: 8 of 10").await?;
    app.press("Take the table away").await?;
    app.text("Score it by a table of your own").await?;
    app.end().await
}
