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
    app.choose("Held by", "clips").await?;
    app.text("Clips and snapped edges open without heat.").await?;
    app.write("Where to enter, and which way to run", "bottom edge, towards the left\n").await?;
    app.write("No deeper than, mm", "3\n").await?;
    app.saved().await?;
    let now = manual(&app, &id).await;
    let seams = now["seams"].as_object().unwrap();
    assert_eq!(seams.len(), joints + 1);
    assert!(seams.values().any(|s| s["kind"] == "clips" && s["depth_mm"] == 3.0));
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.end().await
}
