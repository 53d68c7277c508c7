//! Listen: reading as people put it right.

use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

const KETTLE: &str = "[0:00] You need a PH1 screwdriver.\n\n\
    [0:10] Remove four PH1 screws, 8 millimetres, from the base plate. Take off the base plate.\n\n\
    [0:40] Unplug the fan cable. Take out the heeter. The heeter is hot.\n\n\
    [1:10] Now the assembly. Put the heater in. Connect the fan cable.\n\n\
    [1:30] Put the base plate on. Install five PH1 screws, 8 millimetres, in the base plate.";

async fn kettle(app: &App) -> Result<String, WebDriverError> {
    let id = app.make("Kettle", KETTLE).await;
    app.goto(&format!("/manuals/{id}/listen")).await?;
    app.find("[role=option]").await?;
    Ok(id)
}

/// Chooses what the list shows.
async fn show(app: &App, what: &str) -> Result<(), WebDriverError> {
    app.choose("Show", what).await
}

/// What the sheet of the manual's first recording says.
async fn sheet(app: &App, id: &str) -> serde_json::Value {
    let listen = app.api(&format!("/api/manuals/{id}/listen")).await;
    let recording = listen[0]["id"].as_str().unwrap_or_default();
    app.api(&format!("/api/manuals/{id}/recordings/{recording}/sheet")).await
}

#[rocket::async_test]
async fn a_word_is_put_right_in_all_places_and_undone_at_once() -> Done {
    let app = App::start(false).await;
    let id = kettle(&app).await?;
    app.tap("Take out the heeter.").await?;
    // W goes to the words; the picked word is written anew.
    app.keys("w").await?;
    app.tap_first(By::XPath("//button[.='heeter']")).await?;
    app.write("Meant where “heeter” was heard", "heater").await?;
    app.press("In all 2 places").await?;
    app.saved().await?;
    app.until("the fact follows", async || {
        Ok(sheet(&app, &id).await["parts"].to_string().contains("\"at_s\":40,\"op\":\"remove\",\"what\":\"heater\""))
    })
    .await;
    app.until(
        "both places read so",
        async || Ok(app.driver.find_all(By::XPath("//ins[.='heater']")).await?.len() == 2),
    )
    .await;
    // What was heard is one key away.
    app.tap("Take out the").await?;
    app.keys("h").await?;
    app.until("it reads as heard", async || Ok(app.driver.find_all(By::Css("[role=option] ins")).await?.is_empty()))
        .await;
    app.press("Undo Ctrl Z").await?;
    app.until("both are as heard", async || {
        Ok(!sheet(&app, &id).await.to_string().contains("\"at_s\":40,\"op\":\"remove\",\"what\":\"heater\""))
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn statements_are_joined_and_cut() -> Done {
    let app = App::start(false).await;
    kettle(&app).await?;
    app.tap("Take off the base plate.").await?;
    app.keys("j").await?;
    app.text("from the base plate. Take off the base plate.").await?;
    app.tap_first(By::XPath("//button[.='Take']")).await?;
    app.press("Begin a statement here").await?;
    app.until("it stands alone again", async || {
        Ok(!app.driver.find_all(By::XPath("//*[@role='option']//span[.='Take off the base plate.']")).await?.is_empty())
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn a_contradiction_is_settled_by_a_choice() -> Done {
    let app = App::start(false).await;
    let id = kettle(&app).await?;
    app.tab("To settle").await?;
    app.text("5 screws go back into the base plate; 4 came out.").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.press("4 is right").await?;
    app.until("it is gone", async || Ok(!sheet(&app, &id).await["discrepancies"].to_string().contains("count"))).await;
    app.text("Nothing is left to settle").await?;
    app.press("Undo Ctrl Z").await?;
    app.text("5 screws go back into the base plate; 4 came out.").await?;
    app.press("Both stand as said").await?;
    app.text("Set aside: Both stand as said").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_word_of_the_house_is_offered_in_the_next_recording() -> Done {
    let app = App::start(false).await;
    let first = app.make("Lamp", "[0:00] Take off the strabel.\n\n[0:10] Remove the lid.").await;
    app.goto(&format!("/manuals/{first}/listen")).await?;
    app.tap("Take off the strabel.").await?;
    app.keys("w").await?;
    app.tap_first(By::XPath("//button[.='strabel']")).await?;
    app.write("Meant where “strabel” was heard", "strap").await?;
    app.press("Here").await?;
    app.saved().await?;
    let second = app.make("Clock", "[0:00] Pull the strabel out.\n\n[0:10] Lay the strabel on the mat.").await;
    app.goto(&format!("/manuals/{second}/listen")).await?;
    app.tab("To settle").await?;
    app.text("“strabel” was put right to “strap” in “Lamp”; here it is heard several times.").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.press("Put “strap” in all 2 places").await?;
    app.text("Nothing is left to settle").await?;
    app.tab("What was said").await?;
    app.until("both are mended", async || Ok(app.driver.find_all(By::XPath("//ins[.='strap']")).await?.len() == 2))
        .await;
    app.end().await
}

#[rocket::async_test]
async fn facts_are_put_right_in_place_with_their_units() -> Done {
    let app = App::start(false).await;
    let id = kettle(&app).await?;
    app.tap("Remove four PH1 screws").await?;
    app.keys("f").await?;
    app.write("Length in mm", "7.5").await?;
    app.write("Count", "6").await?;
    app.press("Save facts").await?;
    app.text("screws remove: 6, PH1, 7.5 mm, base plate").await?;
    let group = sheet(&app, &id).await["fasteners"][0].clone();
    assert_eq!((group["count"].as_u64(), group["length_mm"].as_f64()), (Some(6), Some(7.5)));
    // The screws of the step follow.
    app.press("Steps").await?;
    app.text("6 × PH1, 7.5 mm").await?;
    app.press("Listen").await?;
    app.tap("Remove four PH1 screws").await?;
    app.press("As read").await?;
    app.text("screws remove: 4, PH1, 8 mm, base plate").await?;
    app.end().await
}

#[rocket::async_test]
async fn found_words_are_replaced_and_filters_narrow_the_list() -> Done {
    let app = App::start(false).await;
    kettle(&app).await?;
    app.tap("Unplug the fan cable.").await?;
    app.keys("/").await?;
    app.keys("fan").await?;
    app.until("only those with the word", async || Ok(app.driver.find_all(By::Css("[role=option]")).await?.len() == 2))
        .await;
    app.write("Meant was", "pump").await?;
    app.press("Replace in 2 places").await?;
    app.until("both are repaired", async || Ok(app.driver.find_all(By::XPath("//ins[.='pump']")).await?.len() == 2))
        .await;
    show(&app, "Put right by hand").await?;
    app.until("those put right", async || Ok(app.driver.find_all(By::Css("[role=option]")).await?.len() == 2)).await;
    show(&app, "Dead ends and accidents").await?;
    app.text("Nothing of the kind is said.").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_safety_word_in_doubt_shows_both_readings() -> Done {
    let app = App::start(false).await;
    let id = app
        .make("Toaster", "[0:00] Remove the lid. Remove the tray.\n\n[0:20] Connect the fan cable from the main board.")
        .await;
    app.goto(&format!("/manuals/{id}/listen")).await?;
    app.tap("Remove the lid.").await?;
    app.keys(".").await?;
    app.text("The facts follow").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.press("It was “connect”").await?;
    app.until("the author's word stands", async || Ok(sheet(&app, &id).await["connectors"][0]["op"] == "connect"))
        .await;
    app.press("Undo Ctrl Z").await?;
    app.until("the evident one stands again", async || {
        Ok(sheet(&app, &id).await["connectors"][0]["op"] == "disconnect")
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn a_table_comes_back_and_a_bad_row_is_named() -> Done {
    let app = App::start(false).await;
    let id = kettle(&app).await?;
    let listen = app.api(&format!("/api/manuals/{id}/listen")).await;
    let recording = listen[0]["id"].as_str().unwrap_or_default().to_owned();
    let table = app.fetch(&format!("/api/manuals/{id}/recordings/{recording}/statements")).await;
    assert!(table.starts_with("start,end,at,kind,in_job,text,facts"), "{table}");
    app.tab("Recordings").await?;
    let path = app.downloads.join("edited.csv");
    let input = "//li[.//a[contains(., 'CSV')]]//input[@type='file']";

    std::fs::write(&path, table.replacen(",action,yes,Unplug", ",actoin,yes,Unplug", 1))?;
    app.type_into(By::XPath(input), path.to_string_lossy().into_owned()).await?;
    app.text("“actoin” is no kind.").await?;

    let path = app.downloads.join("edited again.csv");
    std::fs::write(&path, table.replacen(",action,yes,Unplug", ",test,yes,Unplug", 1))?;
    app.type_into(By::XPath(input), path.to_string_lossy().into_owned()).await?;
    app.text("1 correction taken from the table.").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_second_recording_is_compared_and_can_be_followed() -> Done {
    let app = App::start(false).await;
    kettle(&app).await?;
    app.tab("Recordings").await?;
    let path = app.downloads.join("second.md");
    std::fs::write(
        &path,
        "[0:00] Remove five PH1 screws, 8 millimetres, from the base plate. Take off the base plate. Take out the switch.",
    )?;
    let input = "//input[@type='file'][following::button[1][contains(., 'Add one to compare')] or preceding::button[1][contains(., 'Add one to compare')]]";
    app.type_into(By::XPath(input), path.to_string_lossy().into_owned()).await?;
    app.text("Side by side").await?;
    app.text("5 PH1 8 mm").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.press("Follow this one").await?;
    app.text("the manual follows this one").await?;
    app.end().await
}

/// A tone that swells, so that its waveform is no straight line.
fn tone(seconds: u32) -> Vec<u8> {
    let rate: u32 = 8_000;
    let length = rate * seconds;
    let mut wav = b"RIFF".to_vec();
    wav.extend((36 + length).to_le_bytes());
    wav.extend(b"WAVEfmt \x10\0\0\0\x01\0\x01\0");
    wav.extend(rate.to_le_bytes());
    wav.extend(rate.to_le_bytes());
    wav.extend(b"\x01\0\x08\0data");
    wav.extend(length.to_le_bytes());
    wav.extend((0..length).map(|i| {
        let loud = f64::from(i) / f64::from(length);
        (128.0 + 120.0 * loud * (f64::from(i) / 6.0).sin()) as u8
    }));
    wav
}

#[rocket::async_test]
async fn the_authors_file_shows_its_waveform_and_plays_the_statement_in_hand() -> Done {
    let app = App::start(false).await;
    kettle(&app).await?;
    let file = app.downloads.join("kettle.wav");
    std::fs::write(&file, tone(100))?;
    app.type_into(By::Css("section[aria-label='Tape'] input[type=file]"), file.to_string_lossy().into_owned()).await?;
    assert!(app.attr("[data-waveform] path", "d").await?.len() > 1_000);
    app.tap("Unplug the fan cable.").await?;
    app.keys(" ").await?;
    let at =
        async || -> Result<f64, WebDriverError> { Ok(app.prop("audio", "currentTime").await?.parse().unwrap_or(0.0)) };
    app.until("it plays from its second", async || Ok((40.0..50.0).contains(&at().await?))).await;
    app.keys("r").await?;
    app.until("slower", async || Ok(app.prop("audio", "playbackRate").await? == "0.6")).await;
    app.keys("l").await?;
    app.find("button[aria-pressed=true]").await?;
    // After a reload the file has to be chosen again, by its name.
    app.driver.refresh().await?;
    app.text("Choose kettle.wav again").await?;
    app.end().await
}

/// Rows of the list that lie over each other.
const OVERLAPS: &str = "const rows = [...document.querySelectorAll('[role=option]')].map(r => r.getBoundingClientRect()).sort((a, b) => a.top - b.top);
    return rows.filter((r, i) => i > 0 && r.top < rows[i - 1].bottom - 0.5).length";

#[rocket::async_test]
async fn rows_never_lie_over_each_other() -> Done {
    let app = App::start(false).await;
    let long = "and mind the ribbon that runs along the left edge because it is short and stiff ".repeat(4);
    let text: String =
        (0..40).map(|n| format!("[{n}:00] Remove the lid {n}, {long}. Pull out the fan {n}.\n\n")).collect();
    let id = app.make("Long", &text).await;
    for width in [1280, 900, 700] {
        app.resize(width, 800).await;
        app.goto(&format!("/manuals/{id}/listen")).await?;
        app.find("[role=option]").await?;
        for key in [Key::Home, Key::PageDown, Key::PageDown, Key::End] {
            app.tap_first(By::Css("[role=option]")).await?;
            app.keys(key + "").await?;
            app.until("no row lies over another", async || Ok(app.driver.execute(OVERLAPS, vec![]).await?.json() == 0))
                .await;
        }
        let rows = app.driver.find_all(By::Css("[role=option]")).await?.len();
        assert!((2..60).contains(&rows), "{rows} rows at {width}");
    }
    app.end().await
}

#[rocket::async_test]
async fn three_thousand_statements_are_a_list_of_a_few_rows() -> Done {
    let app = App::start(false).await;
    let long: String = (0..1_000)
        .map(|n| {
            format!("[{}:{:02}] Remove the lid {n}. Pull out the fan {n}. Unplug the cable {n}.\n\n", n / 6, n % 6 * 10)
        })
        .collect();
    let id = app.make("Long", &long).await;
    app.goto(&format!("/manuals/{id}/listen")).await?;
    app.tap_first(By::Css("[role=option]")).await?;
    assert!(app.driver.find_all(By::Css("[role=option]")).await?.len() < 80);
    app.keys(Key::End + "").await?;
    app.text("Unplug the cable 999.").await?;
    assert!(app.driver.find_all(By::Css("[role=option]")).await?.len() < 80);
    app.end().await
}
