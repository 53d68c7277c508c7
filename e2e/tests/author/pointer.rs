//! The whole job by pointer: from a file to a published guide.

use super::FAN;
use paso_e2e::{App, Done};
use std::time::Duration;
use thirtyfour::prelude::*;

/// Brings the narration as a file and drafts the manual.
pub async fn bring(app: &App) -> Done {
    app.goto("/").await?;
    let file = app.downloads.join("fan-swap.md");
    std::fs::write(&file, FAN)?;
    app.type_into(By::Css("input[type=file]"), file.to_string_lossy().into_owned()).await?;
    app.text("Fan swap").await?;
    app.press("Draft the manual from 1 recording").await?;
    app.text("What was said").await?;
    Ok(())
}

/// The titles of the steps as they stand on the page.
pub async fn titles(app: &App) -> Result<Vec<String>, WebDriverError> {
    let script = "return [...document.querySelectorAll('[data-step] h4')].map(h => h.textContent)";
    let found = app.driver.execute(script, vec![]).await?;
    Ok(found.json().as_array().into_iter().flatten().filter_map(|t| t.as_str().map(str::to_owned)).collect())
}

#[rocket::async_test]
async fn from_a_file_to_a_published_guide() -> Done {
    let app = App::start(false).await;
    app.goto("/").await?;
    app.text("The shelf is empty").await?;
    bring(&app).await?;

    // Listen: why a statement is what it is, and another kind for it.
    app.text("1 statement of talk or noise").await?;
    app.tap("Lift out the fan.").await?;
    app.text("because verb “lift”").await?;
    app.press("Observation").await?;
    app.text("Observation, as you said").await?;
    app.saved().await?;
    app.press("Undo Ctrl Z").await?;
    app.text("Action, 95 % sure").await?;
    app.press("Go to step 3").await?;

    // Steps: drag, rename, merge, split.
    app.find("[data-step]").await?;
    assert_eq!(titles(&app).await?[..3], ["Remove the base plate", "Remove the battery", "Remove the fan"]);
    let grip = app.find("[title='Drag Remove the fan']").await?;
    let first = app.find("[data-step] h4").await?;
    app.driver.action_chain().move_to_element_center(&grip).click_and_hold().move_by_offset(0, -8).perform().await?;
    app.driver.action_chain().move_to_element_center(&first).move_by_offset(4, -4).release().perform().await?;
    app.until("the dragged step stands first", async || Ok(titles(&app).await?[0] == "Remove the fan")).await;
    app.press("Undo Ctrl Z").await?;
    app.until("undo puts it back", async || Ok(titles(&app).await?[0] == "Remove the base plate")).await;

    app.tap("Remove the battery").await?;
    app.press("Edit").await?;
    app.write("Title", " ").await?;
    app.keys(Key::Enter + "").await?;
    app.text("Nothing is written here. Write at least one word.").await?;
    app.write("Title", "Take the battery out").await?;
    app.keys(Key::Enter + "").await?;
    app.until("the title shows", async || Ok(titles(&app).await?[1] == "Take the battery out")).await;

    app.tap("Take the battery out").await?;
    app.press("Edit").await?;
    app.press("Split the step before sentence 2").await?;
    app.press("Done").await?;
    app.until("a second step", async || Ok(titles(&app).await?[2] == "Remove the battery")).await;
    app.tap("Remove the battery").await?;
    app.press("Edit").await?;
    app.press("Merge into the step above").await?;
    app.until("one step again", async || Ok(titles(&app).await?[2] == "Remove the fan")).await;

    // Fold: a screw is left over; its step puts it right.
    app.press("Fold").await?;
    app.text("1 left over").await?;
    app.press("Steps").await?;
    app.tap("Remove the base plate").await?;
    app.press("Edit").await?;
    app.write("Put back", "4").await?;
    app.press("Done").await?;
    app.saved().await?;
    app.press("Fold").await?;
    app.text("0 left over").await?;

    // Publish: the guide, a revision, the files.
    app.press("Publish").await?;
    app.text("steps have not been reviewed").await?;
    app.press("Publish revision 1").await?;
    app.text("Revision 1").await?;
    app.press("Guide as Markdown").await?;
    let file = app.downloads.join("fan-swap.md");
    app.until("the file is on the disk", async || {
        Ok(std::fs::read_dir(&app.downloads).into_iter().flatten().flatten().count() > 1)
    })
    .await;
    rocket::tokio::time::sleep(Duration::from_millis(300)).await;
    let written =
        std::fs::read_dir(&app.downloads)?.flatten().map(|f| f.path()).find(|p| *p != file).expect("a download");
    assert!(std::fs::read_to_string(written)?.contains("### 2. Take the battery out"));
    app.end().await
}

#[rocket::async_test]
async fn the_shelf_renames_archives_deletes_and_undoes() -> Done {
    let app = App::start(true).await;
    app.goto("/").await?;
    app.press("Rename New battery for the Mossby grain scale").await?;
    app.write("Title", "Scale").await?;
    app.keys(Key::Enter + "").await?;
    app.button("Scale").await?;
    app.press("Delete Scale").await?;
    app.text("“Scale” was deleted.").await?;
    app.press("Undo").await?;
    app.button("Scale").await?;
    app.press("Delete Scale").await?;
    app.text("“Scale” was deleted.").await?;
    app.goto("/").await?;
    app.press("Deleted").await?;
    app.text("can be brought back until").await?;
    assert!(app.axe().await?.is_empty(), "{:?}", app.axe().await?);
    app.press("Bring back Scale").await?;
    app.text("Nothing was deleted lately.").await?;
    app.press("Back to the shelf").await?;
    app.press("Archive Scale").await?;
    app.press("Archive").await?;
    app.press("Take Scale out of the archive").await?;
    app.text("Nothing is archived.").await?;
    app.press("Back to the shelf").await?;
    app.write("Find a manual", "load cell").await?;
    app.until("only the scale is found", async || Ok(app.driver.find_all(By::Css("ul > li a")).await?.len() == 1))
        .await;
    app.end().await
}

#[rocket::async_test]
async fn a_manual_written_from_scratch_needs_no_recording() -> Done {
    let app = App::start(false).await;
    app.goto("/").await?;
    app.write("Title", "From scratch").await?;
    app.press("Start an empty manual").await?;
    app.text("No steps yet.").await?;
    app.press("Add a step").await?;
    app.write("Title", "Take the lid off").await?;
    app.press("Add a sentence").await?;
    app.write("New sentence", "Lift the lid.").await?;
    app.press("Add screws").await?;
    app.write("Count", "0").await?;
    app.keys(Key::Tab + "").await?;
    app.text("A group of no screws is no group.").await?;
    app.write("Count", "3").await?;
    app.keys(Key::Tab + "").await?;
    app.press("Done").await?;
    app.text("3 ×").await?;
    app.press("Fold").await?;
    app.text("3 screws: 3 back").await?;
    app.end().await
}

#[rocket::async_test]
async fn bad_files_say_what_is_wrong_and_where() -> Done {
    let app = App::start(false).await;
    app.goto("/").await?;
    app.write("or paste the text", "[0:10] fine\n\n[1:75] not a time").await?;
    app.press("Read the pasted text").await?;
    app.text("Line 3: “[1:75]” is not a time.").await?;
    let binary = app.downloads.join("film.bin");
    std::fs::write(&binary, b"ab\xff\xfe")?;
    app.type_into(By::Css("input[type=file]"), binary.to_string_lossy().into_owned()).await?;
    app.text("Line 1: the text is not UTF-8").await?;
    assert_eq!(
        app.field("or paste the text").await?.value().await?.as_deref(),
        Some("[0:10] fine\n\n[1:75] not a time")
    );
    app.end().await
}
