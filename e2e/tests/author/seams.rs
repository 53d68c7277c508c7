//! Seams: joints without screws, and the heat that opens them, worked as an author would.

use paso_e2e::{App, Done};
use serde_json::Value;
use thirtyfour::prelude::*;

const RADIO: &str = "[0:00] Heat the rear glass with a heating pad at 75 degrees Celsius for two minutes. Cut the glue of \
    the rear glass with a pick. Lift off the rear glass.\n\n[0:40] Pry the clips of the frame open. Remove the frame.";

async fn radio(app: &App) -> Result<String, WebDriverError> {
    let id = app.make("Radio", RADIO).await;
    app.goto(&format!("/manuals/{id}/seams")).await?;
    app.find("[data-seams]").await?;
    Ok(id)
}

async fn manual(app: &App, id: &str) -> Value {
    app.api(&format!("/api/manuals/{id}")).await["manual"].clone()
}

fn only<'v>(map: &'v Value, of: &str) -> &'v Value {
    map[of].as_object().and_then(|m| m.values().next()).unwrap_or(&Value::Null)
}

#[rocket::async_test]
async fn a_bond_is_warmed_by_keys_and_its_setting_goes_into_the_step() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    app.text("The heat that step 1 tells").await?;
    app.text("Nobody has said what lies here").await?;
    let says = app.find("p[role=status][class]").await?;
    assert!(!says.text().await?.is_empty());
    // The slider by its keys: the answer follows, and what was tried is kept.
    app.find("input[type=range]").await?.send_keys(Key::Up + Key::Up).await?;
    app.text("77 °C").await?;
    app.saved().await?;
    app.until("the setting is the author's", async || {
        Ok(manual(&app, &id).await["seams"]
            .as_object()
            .is_some_and(|s| s.values().any(|s| s["heating"]["setting_c"] == 77.0)))
    })
    .await;
    app.text("mm, the bond").await?;
    app.press("Mildest that surely does").await?;
    app.text("nothing gets too warm.").await?;
    app.press("Write it into step 1").await?;
    app.saved().await?;
    let now = manual(&app, &id).await;
    let heat = only(&now, "heats");
    let kept: Vec<&Value> = now["seams"].as_object().unwrap().values().map(|s| &s["heating"]).collect();
    let kept = kept.into_iter().find(|h| h.is_object()).unwrap();
    assert_eq!((&heat["temp_c"][0], &heat["dwell_s"][0]), (&kept["setting_c"], &kept["seconds"]));
    assert_eq!(heat["from"], "computed");
    app.press("The same as a table").await?;
    app.text("Heated face, °C").await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.end().await
}

#[rocket::async_test]
async fn what_cannot_be_a_layer_is_said_at_its_field() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    app.write("mm, the bond", "-2\n").await?;
    app.text("-2 mm of acrylic foam tape is no layer; write 0.01 to 50 mm.").await?;
    app.write("mm, the bond", "0.4\n").await?;
    app.saved().await?;
    app.choose("Begin with a usual stack", "plastic lid").await?;
    app.until("the plastic lid lies there", async || {
        let now = manual(&app, &id).await;
        Ok(now["seams"].as_object().is_some_and(|s| s.values().any(|s| s["heating"]["layers"][0]["medium"] == "abs")))
    })
    .await;
    // A stack without a bond is refused, and the one before stays.
    app.press("Remove layer 2").await?;
    app.text("No layer is a bond. Say which adhesive holds the cover.").await?;
    app.end().await
}

#[rocket::async_test]
async fn clips_need_no_heat_and_a_joint_is_added_by_hand() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    let joints = manual(&app, &id).await["seams"].as_object().map_or(0, serde_json::Map::len);
    app.press("Add a joint").await?;
    app.saved().await?;
    app.choose("Held by", "clips").await?;
    app.text("Clips and snapped edges open without heat.").await?;
    app.write("Nowhere deeper than, mm", "3\n").await?;
    app.press("Mark it in words").await?;
    app.write("Where", "beside the hinge\n").await?;
    app.text("“beside the hinge” is no place on a rim.").await?;
    app.write("Where", "7 o'clock\n").await?;
    app.write("By a landmark", "beside the hinge\n").await?;
    app.text("Enter at the bottom edge, towards the left (beside the hinge).").await?;
    app.text("No deeper than 3 mm.").await?;
    app.saved().await?;
    let now = manual(&app, &id).await;
    let seams = now["seams"].as_object().unwrap();
    assert_eq!(seams.len(), joints + 1);
    assert!(seams.values().any(|s| s["kind"] == "clips" && s["depth_mm"] == 3.0));
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.end().await
}

#[rocket::async_test]
async fn how_a_joint_opens_is_drawn_on_its_outline_and_read_in_the_guide() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    app.text("Draw the outline of the face, or choose one").await?;
    app.press("New outline").await?;
    app.write("Name of the layer", "Rear").await?;
    app.write("Width × height, mm, or corners", "-5 × 120").await?;
    app.press("Draw it").await?;
    app.text("An outline -5 mm wide cannot be drawn").await?;
    app.write("Width × height, mm, or corners", "80 × 120").await?;
    app.press("Draw it").await?;
    app.find("[data-outline]").await?.scroll_into_view().await?;
    // One press marks a place, a drag a stretch.
    app.draw("[data-outline]", (0.5, 1.02), (0.5, 1.02)).await?;
    app.text("Enter at the middle of the bottom edge").await?;
    app.choose("A press on the rim marks", "stay shallow").await?;
    app.draw("[data-outline]", (1.02, 0.25), (1.02, 0.75)).await?;
    app.text("Stay shallow along the right edge, 3").await?;
    app.text("Not told: how deep where to stay shallow.").await?;
    app.write("No deeper than, mm", "2\n").await?;
    app.text("No deeper than 2 mm along the right edge").await?;
    // The first mark by its keys: a tenth of an hour clockwise is to the left at the bottom.
    let entry = app.find("[data-seams] svg [role=button][aria-label^='enter']").await?;
    entry.send_keys(Key::Right + Key::Right + Key::Right).await?;
    app.text("Enter at the bottom edge, 3").await?;
    app.saved().await?;
    app.press("How far it opens").await?;
    app.choose("Stays together at the", "left").await?;
    app.write("Opens at most, °", "0\n").await?;
    app.text("0 ° is out of range; write 1 to 360 °.").await?;
    app.write("Opens at most, °", "90\n").await?;
    app.text("Open it like a book, hinge on the left edge, no more than 90°.").await?;
    app.write("Bonded again with", "adhesive frame\n").await?;
    app.write("Pressed for, min", "10\n").await?;
    app.saved().await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("How the rear glass opens").await?;
    app.until("the picture is drawn", async || app.prop("figure img", "naturalWidth").await.map(|w| w != "0")).await;
    app.text("No deeper than 2 mm along the right edge").await?;
    app.text("Apply the adhesive frame.").await?;
    app.text("Press it for 10 min.").await?;
    let markdown = app.fetch(&format!("/api/manuals/{id}/guide.md")).await;
    assert!(markdown.contains("How the rear glass opens") && markdown.contains("no more than 90°"), "{markdown}");
    app.end().await
}

#[rocket::async_test]
async fn marks_are_put_in_order_and_taken_away_by_keys() -> Done {
    let app = App::start(false).await;
    let id = radio(&app).await?;
    let marks = async || -> Vec<String> {
        let now = manual(&app, &id).await;
        let seam = now["seams"]
            .as_object()
            .and_then(|s| s.values().find(|s| s["marks"].as_array().is_some_and(|m| !m.is_empty())));
        let marks = seam.and_then(|s| s["marks"].as_array().cloned()).unwrap_or_default();
        marks.iter().map(|m| m["kind"].as_str().unwrap_or_default().to_owned()).collect()
    };
    let before = marks().await.len();
    app.press("Mark it in words").await?;
    app.write("By a landmark", "the card slot\n").await?;
    app.choose("A press on the rim marks", "leave a pick").await?;
    app.press("Mark it in words").await?;
    app.write("Where", "top right corner\n").await?;
    app.text("Leave a pick in at the top right corner").await?;
    app.button("Earlier").await?.send_keys(Key::Enter).await?;
    app.until("the pick stands first", async || Ok(marks().await.get(before).is_some_and(|k| k == "pick"))).await;
    app.button("Remove the mark").await?.send_keys(Key::Enter).await?;
    app.until("one mark is left", async || Ok(marks().await.len() == before + 1)).await;
    app.text("Enter at the card slot.").await?;
    app.end().await
}
