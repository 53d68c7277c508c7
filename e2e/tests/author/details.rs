//! The smaller things an author does at each stop.

use super::pointer::bring;
use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

/// Opens a demo manual at a stop.
async fn open(app: &App, find: &str, stop: &str) -> Result<String, WebDriverError> {
    let shelf = app.api(&format!("/api/manuals?find={find}")).await;
    let id = shelf[0]["id"].as_str().unwrap_or_default().to_owned();
    app.goto(&format!("/manuals/{id}/{stop}")).await?;
    app.find("main h2").await?;
    Ok(id)
}

#[rocket::async_test]
async fn listen_unfolds_talk_shows_repairs_and_makes_steps() -> Done {
    let app = App::start(true).await;
    open(&app, "scale", "listen").await?;
    // What was heard stays readable beside what was meant.
    assert_eq!(app.words("ins").await?, "philips");
    assert_eq!(app.words("del").await?, "filips");
    assert!(app.attr("ins", "title").await?.contains("sounds like"));

    app.choose("Show", "Everything").await?;
    app.tap("hey folks so this is the mossby grain scale").await?;
    app.press("Make a step of it").await?;
    app.find("[data-step]").await?;
    app.text("hey folks so this is").await?;
    app.press("Undo Ctrl Z").await?;
    app.until("the step is gone", async || {
        Ok(app.driver.find_all(By::XPath("//h4[starts-with(., 'hey folks')]")).await?.is_empty())
    })
    .await;

    // A dropped statement folds away and can be brought back.
    app.press("Listen").await?;
    app.choose("Show", "The work, talk folded").await?;
    // The list is drawn anew under the choice; a press on a row that is just leaving chooses nothing.
    app.until("the statement is in hand", async || {
        app.tap("okay lift off the bottom cover slowly").await?;
        Ok(app.button("Not part of this job").await.is_ok())
    })
    .await;
    app.press("Not part of this job").await?;
    app.until("it is folded", async || {
        Ok(app.driver.find_all(By::XPath("//*[@role='option'][contains(., 'slowly')]")).await?.is_empty())
    })
    .await;
    app.choose("Show", "Everything").await?;
    app.until("the folded statement is in hand", async || {
        app.tap("okay lift off the bottom cover slowly").await?;
        Ok(app.button("Bring back").await.is_ok())
    })
    .await;
    app.press("Bring back").await?;
    app.saved().await?;
    app.end().await
}

#[rocket::async_test]
async fn the_tape_reads_out_the_words_in_hand_and_plays_the_authors_file() -> Done {
    let app = App::start(true).await;
    open(&app, "lamp", "steps").await?;
    app.tap("Remove the reflector").await?;
    app.until("its words are lit", async || {
        Ok(app.words("section[aria-label='Tape'] mark").await?.starts_with("Remove four T8 screws"))
    })
    .await;
    let label = app.attr("section[aria-label='Tape'] svg[role=img]", "aria-label").await?;
    assert!(label.contains("Selected: about 3:0"), "{label}");

    // One second of silence, as a WAV file.
    let rate: u32 = 8_000;
    let mut wav = b"RIFF".to_vec();
    wav.extend((36 + rate).to_le_bytes());
    wav.extend(b"WAVEfmt \x10\0\0\0\x01\0\x01\0");
    wav.extend(rate.to_le_bytes());
    wav.extend(rate.to_le_bytes());
    wav.extend(b"\x01\0\x08\0data");
    wav.extend(rate.to_le_bytes());
    wav.extend(vec![128_u8; rate as usize]);
    let file = app.downloads.join("take.wav");
    std::fs::write(&file, wav)?;
    app.type_into(By::Css("section[aria-label='Tape'] input[type=file]"), file.to_string_lossy().into_owned()).await?;
    app.until("the file is playable", async || Ok(!matches!(&*app.prop("audio", "readyState").await?, "" | "0"))).await;
    app.press("Put the media file away").await?;
    app.until("it is gone", async || Ok(app.driver.find_all(By::Css("audio")).await?.is_empty())).await;
    app.end().await
}

#[rocket::async_test]
async fn a_part_renamed_once_is_renamed_everywhere() -> Done {
    let app = App::start(true).await;
    let id = open(&app, "lamp", "steps").await?;
    app.tap("Remove the reflector").await?;
    app.press("Edit").await?;
    app.write("Part, renamed everywhere", "mirror").await?;
    app.keys(Key::Enter + "").await?;
    app.saved().await?;
    app.press("Done").await?;
    app.text("Remove the mirror").await?;
    app.text("Lift out the mirror.").await?;
    let guide = app.api(&format!("/api/manuals/{id}/guide")).await.to_string();
    assert!(!guide.contains("reflector") && guide.contains("Fit the mirror"), "{guide}");
    app.press("Undo Ctrl Z").await?;
    app.text("Remove the reflector").await?;
    app.end().await
}

#[rocket::async_test]
async fn screws_cautions_and_sentences_are_put_right_in_place() -> Done {
    let app = App::start(false).await;
    bring(&app).await?;
    app.press("Steps").await?;
    app.tap("Remove the base plate").await?;
    app.press("Edit").await?;
    app.write("Length, mm", "-3").await?;
    app.keys(Key::Tab + "").await?;
    app.text("-3 mm is out of range; write more than 0 and at most 500 mm.").await?;
    app.write("Length, mm", "7.5").await?;
    app.keys(Key::Tab + "").await?;
    app.choose("Drive", "PZ").await?;
    app.write("Bit", "PZ1").await?;
    app.keys(Key::Tab + "").await?;
    app.press("Add a caution").await?;
    app.write("Caution", "Hold the plate: it springs up.").await?;
    app.keys(Key::Tab + "").await?;
    app.choose("About", "force").await?;
    app.choose("Signal word", "Warning").await?;
    app.write("Note", "Keep the plate clean.").await?;
    app.keys(Key::Tab + "").await?;
    app.press("Remove sentence 1").await?;
    app.saved().await?;
    app.press("Done").await?;
    app.text("4 × PZ1, 7.5 mm, base plate").await?;
    app.text("Warning, force.").await?;
    app.text("What is forced breaks. Hold the plate: it springs up.").await?;
    app.text("Keep the plate clean.").await?;
    app.press("Publish").await?;
    app.text("Warning, force.").await?;
    app.text("4 × PZ1, 7.5 mm, base plate").await?;
    app.end().await
}

#[rocket::async_test]
async fn removing_a_step_takes_its_screws_and_undo_brings_both_back() -> Done {
    let app = App::start(false).await;
    bring(&app).await?;
    app.press("Steps").await?;
    app.tap("Remove the fan").await?;
    app.type_into(By::Css("[aria-current=true]"), Key::Delete + "").await?;
    app.until("the step is gone", async || {
        Ok(app.driver.find_all(By::XPath("//h4[.='Remove the fan']")).await?.is_empty())
    })
    .await;
    app.press("Fold").await?;
    app.text("4 screws: 3 back + 1 left over").await?;
    app.press("Undo Ctrl Z").await?;
    app.text("6 screws: 5 back + 1 left over").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_manual_saved_as_json_comes_back_by_the_same_door() -> Done {
    let app = App::start(true).await;
    let id = open(&app, "lamp", "publish").await?;
    let manual = app.api(&format!("/api/manuals/{id}/manual.json")).await;
    let file = app.downloads.join("lamp.json");
    std::fs::write(&file, manual.to_string())?;
    app.goto("/").await?;
    app.type_into(By::Css("input[type=file]"), file.to_string_lossy().into_owned()).await?;
    app.text("What was said").await?;
    assert!(!app.driver.current_url().await?.path().contains(&id), "a copy of its own");
    let broken = app.downloads.join("broken.json");
    std::fs::write(&broken, "{\"format\": 99}")?;
    app.goto("/").await?;
    app.type_into(By::Css("input[type=file]"), broken.to_string_lossy().into_owned()).await?;
    app.text("The manual has format 99").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_manual_with_all_that_belongs_to_it_leaves_as_one_file_and_comes_back() -> Done {
    let app = App::start(true).await;
    open(&app, "lamp", "publish").await?;
    app.press("Manual, recordings and revisions as ZIP").await?;
    let zip = || std::fs::read_dir(&app.downloads).into_iter().flatten().flatten().map(|f| f.path());
    let zip = || zip().find(|p| p.extension().is_some_and(|e| e == "zip"));
    app.until("the file is there", async || Ok(zip().is_some())).await;
    let file = zip().expect("just seen");
    let other = App::start(false).await;
    other.goto("/").await?;
    other.type_into(By::Css("input[type=file]"), file.to_string_lossy().into_owned()).await?;
    // What was said stands in the recording, which only the bundle carries.
    other.text("What was said").await?;
    other.find("section[aria-label='Tape']").await?;
    let broken = app.downloads.join("broken.zip");
    std::fs::write(&broken, &std::fs::read(&file)?[..400])?;
    other.goto("/").await?;
    other.type_into(By::Css("input[type=file]"), broken.to_string_lossy().into_owned()).await?;
    other.text("The file is no bundle").await?;
    other.end().await?;
    app.end().await
}

#[rocket::async_test]
async fn the_printed_guide_is_the_guide_alone() -> Done {
    let app = App::start(true).await;
    open(&app, "lamp", "publish").await?;
    app.find("article h2").await?;
    app.emulate_print().await?;
    let script = "return ['header', 'nav', 'aside', 'section[aria-label=Tape]'].filter(s => { const e = document.querySelector(s); return e && getComputedStyle(e).display !== 'none' })";
    let shown = app.driver.execute(script, vec![]).await?;
    assert_eq!(shown.json().to_string(), "[]");
    let clipped = app
        .driver
        .execute("const m = document.querySelector('main'); return m.scrollHeight - m.clientHeight", vec![])
        .await?;
    assert!(clipped.json().as_i64().unwrap_or(1) <= 1, "the whole guide prints: {clipped:?}", clipped = clipped.json());
    app.end().await
}

#[rocket::async_test]
async fn what_is_told_of_the_rebuild_stands_and_a_trial_is_guarded() -> Done {
    let app = App::start(false).await;
    let told = "# Recording: Radio\n\n[0:00] Unplug the radio.\n\n[0:10] Remove four PH1 screws from the cover. Take off the cover.\n\n\
        [0:20] Take out the board.\n\n[0:30] Take out the coil.\n\n[0:40] Now the assembly. Put the coil in until it clicks.\n\n\
        [0:50] Switch on the radio.\n\n[1:00] Put the cover on.\n";
    let id = app.make("Radio", told).await;
    app.goto(&format!("/manuals/{id}/fold")).await?;
    app.text("worked out").await?;
    app.tap("Every line").await?;
    app.text("Put the coil in until it clicks.").await?;
    app.text("Not told: the reverse of step 2.").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    let guide = async || app.fetch(&format!("/api/manuals/{id}/guide.md")).await;
    let text = guide().await;
    assert!(
        text.contains("touch nothing inside it while it is live") && text.contains("Switch it off again"),
        "{text}"
    );
    assert!(guide().await.contains("- Fit the main board.\n  *Not told: the reverse of step 3.*"), "{}", guide().await);
    app.press("Steps").await?;
    app.tap("Switch on the radio").await?;
    app.press("Edit").await?;
    app.tap_first(By::XPath("//label[contains(., 'only a trial')]")).await?;
    app.saved().await?;
    let text = guide().await;
    assert!(text.contains("touch nothing inside"), "whatever the step is called, the device is open\n{text}");
    app.end().await
}
