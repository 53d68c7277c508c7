//! Screws: the ledger proves its sums, holes are screws, settings stand in their window, the mat keeps its scale.

use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

const RADIO: &str = "[0:00] Undo four PH1 screws, 8 millimetres, of the back cover. Take off the back cover.\n\n\
    [0:20] Undo two PH1 screws, 6 millimetres, of the fan. Take out the fan.\n\n\
    [0:40] Now the assembly. Put the fan in and install two PH1 screws, 6 millimetres, in the fan.\n\n\
    [0:50] Put the back cover on and install four PH1 screws, 8 millimetres, in the back cover.";

async fn radio(app: &App) -> Result<String, WebDriverError> {
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/screws")).await?;
    app.find("[data-group]").await?;
    Ok(id)
}

/// The layer that the holes of these tests are placed on.
async fn layer(app: &App) -> Result<(), WebDriverError> {
    app.press("New layer").await?;
    app.write("Name of the layer", "Rear").await?;
    app.write("Width × height, mm, or corners", "100 × 60").await?;
    app.write("Round corners, mm", "4").await?;
    app.press("Draw it").await?;
    app.find("svg [data-outline]").await.map(|_| ())
}

async fn place(app: &App, at: &str) -> Result<(), WebDriverError> {
    app.write("At, mm", at).await?;
    app.press("Place").await
}

/// The row of a group by its letter.
fn group(letter: &str) -> String {
    format!("//*[@data-group and .//*[@role='img' and starts-with(@aria-label, 'Group {letter}')]]")
}

async fn holes(app: &App) -> Result<usize, WebDriverError> {
    Ok(app.driver.find_all(By::Css("ol[aria-label='Holes of this group'] li")).await?.len())
}

#[rocket::async_test]
async fn the_ledger_names_what_is_left_over() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    app.text("6 screws out in 2 groups.").await?;
    app.text("0 left over.").await?;
    app.write("Put back", "3\n").await?;
    app.text("1 of A (PH1, 8 mm, back cover) left over.").await?;
    app.write("Put back", "4\n").await?;
    app.write("Count", "0\n").await?;
    app.text("A group of no screws is no group. Write at least 1, or remove it.").await?;
    app.write("Count", "4\n").await?;
    app.write("Name of the group", "cover, all round\n").await?;
    app.text("4 × cover, all round").await?;
    // Parted into left and right, the sum stays.
    app.tap("Part this group, or move screws to another").await?;
    app.write("How many", "4").await?;
    app.write("Its name", "cover, left").await?;
    app.press("Move them").await?;
    app.text("4 of 4 screws cannot go: write at least 1, and leave at least 1.").await?;
    app.write("How many", "2").await?;
    app.press("Move them").await?;
    app.text("6 screws out in 3 groups.").await?;
    app.text("0 left over.").await?;
    app.text("2 × cover, left").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    // By keyboard from group to group.
    app.tap_first(By::Css("[data-group]")).await?;
    app.keys(Key::Down + "").await?;
    app.until("the second group is chosen", async || {
        Ok(app.words("[data-group][aria-selected=true]").await?.starts_with('B'))
    })
    .await;
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("cover, left").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_hole_is_a_screw() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    app.press("New layer").await?;
    app.write("Width × height, mm, or corners", "wide").await?;
    app.press("Draw it").await?;
    app.text("Write a width and a height such as 120 × 80").await?;
    app.write("Width × height, mm, or corners", "-3 × 60").await?;
    app.write("Name of the layer", "Rear").await?;
    app.press("Draw it").await?;
    app.text("An outline -3 mm wide cannot be drawn; write more than 0 and at most 5000 mm.").await?;
    app.press("Not now").await?;
    layer(&app).await?;
    place(&app, "10, 10").await?;
    app.until("one hole is placed", async || Ok(holes(&app).await? == 1)).await;
    place(&app, "120, 10").await?;
    app.text("Hole 2 at 120, 10 mm lies outside the outline of “Rear”, which is 100 × 60 mm.").await?;
    place(&app, "10, 10").await?;
    app.text("Holes 1 and 2 stand at the same place. Move one of them or take it away.").await?;
    app.text("PH1, 8 mm, back cover: 4 said, but 1 drawn. Look, and confirm one.").await?;
    app.press("Mirror left to right").await?;
    app.press("Mirror top to bottom").await?;
    app.until("four holes", async || Ok(holes(&app).await? == 4)).await;
    app.until("said and drawn agree", async || Ok(!app.words("main").await?.contains("but 1 drawn"))).await;
    app.text("Tighten crosswise; seat all by hand first, then tighten.").await?;
    app.text("A1, A4, A3, A2").await?;
    app.write("Tightened as told or embossed", "1 2 3\n").await?;
    app.text("The order must name each of the 4 holes once, by their numbers 1 to 4.").await?;
    app.write("Tightened as told or embossed", "1 2 3 4\n").await?;
    app.text("Worked out instead").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    // By pointer in the middle of the layer; by keyboard half a millimetre and five.
    app.tap_first(By::Css("svg [data-outline]")).await?;
    app.until("a fifth hole", async || Ok(holes(&app).await? == 5)).await;
    let middle = "svg [aria-label^='Hole A5 at 50, 30 mm']";
    app.find(middle).await?;
    app.driver.execute(format!("document.querySelector(\"{middle}\").focus()"), vec![]).await?;
    app.keys(Key::Right + "").await?;
    app.find("svg [aria-label^='Hole A5 at 50.5, 30 mm']").await?;
    app.keys(Key::Delete + "").await?;
    app.until("four again", async || Ok(holes(&app).await? == 4)).await;
    app.write("Across, hole 1, mm", "left\n").await?;
    app.text("“left” is no figure.").await?;
    app.write("Across, hole 1, mm", "10\n").await?;
    // The layer may be renamed and drawn anew, but not smaller than its holes reach.
    app.press("Change it").await?;
    app.write("Name of the layer", "Rear face").await?;
    app.write("Width × height, mm, or corners", "50 × 60").await?;
    app.press("Keep the changes").await?;
    app.text("2 placed hole(s) would lie outside. Move them first.").await?;
    app.write("Width × height, mm, or corners", "100 × 60").await?;
    app.press("Keep the changes").await?;
    app.until("it is renamed", async || {
        Ok(app.words("[aria-label='Hole map'] [data-field='Layer']").await?.contains("Rear face"))
    })
    .await;
    // Another group, on a ring of its own.
    app.tap("2. Remove the fan").await?;
    app.tap_first(By::XPath(group("B"))).await?;
    app.choose("By millimetres", "evenly on a ring").await?;
    app.write("Centre, mm", "50 30").await?;
    app.write("Radius, mm", "12").await?;
    app.write("How many", "10000").await?;
    app.press("Place").await?;
    app.text("10000 holes cannot be spread; write 2 to 500.").await?;
    app.write("How many", "2").await?;
    app.press("Place").await?;
    app.until("two holes of the fan", async || Ok(holes(&app).await? == 2)).await;
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("Order: A1, A2, A3, A4.").await?;
    app.find("img[alt='Rear face with 6 holes, numbered in the order of tightening']").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_setting_stands_in_its_window_or_says_why() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    // Without a setting it is snug; the bench is there for who wants it.
    app.text("Snug").await?;
    app.tap("Work it out from thread, class and material").await?;
    app.write("Thread", "7/8\n").await?;
    app.text("“7/8” is no metric thread. Write one such as M2, or with its pitch: M3×0.35.").await?;
    app.write("Thread", "M3\n").await?;
    app.text("Window 0.303–").await?;
    app.choose("Class", "4.8").await?;
    app.choose("Goes into", "steel").await?;
    app.write("Depth, mm", "6\n").await?;
    app.text("Window 0.303–0.498 N·m.").await?;
    app.text("0.4 N·m").await?;
    app.write("Given setting, any unit", "tight\n").await?;
    app.text("“tight” is no torque. Write one such as 0.4 N·m").await?;
    app.write("Given setting, any unit", "3.5 lbf·in\n").await?;
    app.text("39.5 cN·m").await?;
    app.choose("Readers also see", "lbf·in").await?;
    app.text("3.5 lbf·in").await?;
    app.until("the guide says it", async || {
        Ok(app.fetch(&format!("/api/manuals/{id}/guide.md")).await.contains("0.395 N·m (3.5 lbf·in"))
    })
    .await;
    app.write("Given setting, any unit", "9 N·m\n").await?;
    app.text("9 N·m breaks an M3 screw of its class").await?;
    app.write("Given setting, any unit", "0.6 N·m\n").await?;
    app.text("0.6 N·m lies outside the window: the screw twists off.").await?;
    let blocking = || async { app.api(&format!("/api/manuals/{id}")).await["blocking"]["screws"].clone() };
    assert_eq!(blocking().await, 1);
    app.text("FED-STD-H28/2, from memory").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.write("Why it stands", "The maker measured it.\n").await?;
    app.until("the reason lets it stand", async || Ok(blocking().await.is_null())).await;
    app.write("Depth, mm", "deep\n").await?;
    app.text("“deep” is no figure. Write one such as 6 or 4.5.").await?;
    app.write("Friction, from to", "0.9 0.1\n").await?;
    app.text("0.9 to 0.1 is no range of friction.").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_list_of_fasteners_comes_in_and_goes_out() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    let bring = async |name: &str, text: &str| {
        let path = std::env::temp_dir().join(format!("paso-{}-{name}.csv", std::process::id()));
        std::fs::write(&path, text).map_err(|e| WebDriverError::FatalError(e.to_string()))?;
        app.type_into(By::Css("input[type=file][accept*=csv]"), path.to_string_lossy().as_ref()).await
    };
    bring("bad", "step,count,drive,length_mm\n1,4,wobbly,6\n7,2,pozi,4\n").await?;
    app.text("2 of the rows cannot be taken; nothing was changed.").await?;
    app.text("Row 2, column drive: “wobbly” is no drive. Write one of phillips,").await?;
    app.text("Row 3, column step: There is no step 7").await?;
    bring("good", "step,count,drive,bit,length_mm,name\n2,3,torx,T6,4,fan guard\n").await?;
    app.text("taken from the table.").await?;
    app.text("9 screws out in 3 groups.").await?;
    let table = app.fetch(&format!("/api/manuals/{id}/screws.csv")).await;
    assert!(table.contains(",fan guard,,3,torx,T6,,4,"), "{table}");
    app.end().await
}

#[rocket::async_test]
async fn a_guide_touches_only_its_own_screws() -> Done {
    let app = App::start(true).await;
    let shelf = app.api("/api/manuals").await;
    let rows = shelf.as_array().cloned().unwrap_or_default();
    let station = rows.iter().find(|r| r["title"].as_str().is_some_and(|t| t.contains("weather"))).cloned();
    let id = station.unwrap_or_default()["id"].as_str().unwrap_or_default().to_owned();
    app.goto(&format!("/manuals/{id}/screws")).await?;
    app.text("16 screws out in 5 groups.").await?;
    app.text("Only their length tells").await?;
    app.choose("Guide", "New battery").await?;
    app.text("6 screws out in 2 groups.").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.goto(&format!("/manuals/{id}/screws")).await?;
    app.tap_first(By::XPath(group("D"))).await?;
    // Other groups have the same button: the one of D stands first once D is drawn.
    app.find("[aria-label^='Group D'] + h3").await?;
    app.press("Put the caution at its step").await?;
    app.until("the finding is mended", async || {
        Ok(!app
            .words("main")
            .await?
            .contains("4 mm too long: it bottoms, marks what lies beneath or cracks the boss. Tell"))
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn what_does_not_matter_is_set_aside_with_a_reason() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    app.write("Put back", "3\n").await?;
    app.text("1 of A (PH1, 8 mm, back cover) left over.").await?;
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("1 thing to mend first").await?;
    app.goto(&format!("/manuals/{id}/screws")).await?;
    app.find("[data-group]").await?;
    app.write("Put back", "4\n").await?;
    // Two kinds that differ by their length alone.
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("Ready to publish").await?;
    app.press("It does not matter here").await?;
    app.press("Set it aside").await?;
    app.text("Nothing is written here. Write at least one word.").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.keys(Key::Escape + "").await?;
    app.write("Why it does not matter here", "Kept in two trays.").await?;
    app.press("Set it aside").await?;
    app.text("Set aside: Kept in two trays.").await?;
    app.saved().await?;
    let findings = app.api(&format!("/api/manuals/{id}/findings")).await["findings"].clone();
    let aside = findings.as_array().into_iter().flatten().filter(|f| f["set_aside"] == "Kept in two trays.").count();
    assert_eq!(aside, 1, "{findings}");
    app.press("It matters after all").await?;
    app.until("it stands again", async || Ok(!app.words("main").await?.contains("Set aside: Kept in two trays.")))
        .await;
    app.press("Undo Ctrl Z").await?;
    app.text("Set aside: Kept in two trays.").await?;
    app.end().await
}

#[rocket::async_test]
async fn the_ledger_is_walked_cell_by_cell() -> Done {
    let app = App::start(false).await;
    radio(&app).await?;
    let focused = "return document.activeElement.getAttribute('role') + ' ' + document.activeElement.textContent";
    let here = async || -> Result<String, WebDriverError> {
        Ok(app.driver.execute(focused, vec![]).await?.json().as_str().unwrap_or_default().to_owned())
    };
    app.tap_first(By::XPath(group("A"))).await?;
    app.keys(Key::Home + "").await?;
    assert_eq!(here().await?, "gridcell A");
    app.keys(Key::Right + "").await?;
    assert!(here().await?.starts_with("rowheader 4 × PH1"), "{}", here().await?);
    app.keys(Key::Right + "").await?;
    assert_eq!(here().await?, "gridcell 4", "screws out");
    app.keys(Key::End + "").await?;
    assert_eq!(here().await?, "gridcell 0", "left over");
    app.end().await
}

/// Longest run of one colour in a row of pixels, each of so many samples.
fn run(pixels: &[u8], samples: usize, colour: [u8; 3]) -> usize {
    let (mut best, mut now) = (0, 0);
    for pixel in pixels.chunks_exact(samples) {
        let same = pixel.iter().zip(colour).all(|(a, b)| a.abs_diff(b) < 12);
        now = if same { now + 1 } else { 0 };
        best = best.max(now);
    }
    best
}

#[rocket::async_test]
async fn the_mat_keeps_its_scale() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    app.resize(1000, 1300).await;
    app.goto(&format!("/api/manuals/{id}/mat/1?paper=a4")).await?;
    let shot = app.driver.screenshot_as_png().await?;
    let decoder = png::Decoder::new(std::io::Cursor::new(shot));
    let mut reader = decoder.read_info()?;
    let mut pixels = vec![0; reader.output_buffer_size().ok_or("a picture")?];
    let info = reader.next_frame(&mut pixels)?;
    // Chromium draws 96 pixels an inch (CSS).
    let pixel = |mm: f64| (mm * 96.0 / 25.4).round() as usize;
    let samples = info.color_type.samples();
    let width = info.width as usize * samples;
    let row = |mm: f64| &pixels[pixel(mm) * width..(pixel(mm) + 1) * width];
    let bar = run(row(297.0 - 16.0 + 1.5), samples, [0x1d, 0x23, 0x21]);
    assert!(bar.abs_diff(pixel(100.0)) <= 1, "100 mm are {bar} pixels");
    // The shank of the first group, 8 mm long, with half of its rim at both ends.
    let shank = run(row(10.0 + 14.0 + 20.0), samples, [0xe6, 0xe9, 0xe7]);
    assert!(shank.abs_diff(pixel(8.0)) <= 2, "8 mm are {shank} pixels");
    app.goto(&format!("/api/manuals/{id}/mat?paper=legal")).await?;
    app.text("“legal” is no paper. Write a4 or letter.").await?;
    app.end().await
}
