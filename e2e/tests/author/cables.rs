//! Cables: what is connected and what is live, worked as an author would.

use paso_e2e::{App, Done};
use serde_json::Value;
use thirtyfour::prelude::*;

/// A device with two sources; the narrator unplugs one and works on.
const CLOCK: &str = "[0:00] Unplug the power cord from the wall socket. Take off the cover.\n\n\
    [0:20] Disconnect the fan cable. Take out the fan.\n\n\
    [0:40] Disconnect the battery cable. Take out the battery.\n\n\
    [1:00] Flip up the latch and disconnect the display flex. Take out the display.\n\n\
    [1:20] Now we put it back together. Put the display in. Connect the display flex. Put the battery in. Connect the battery \
    cable. Put the fan in. Route the fan cable behind the post. Connect the fan cable. Put the cover back on.";

async fn clock(app: &App) -> Result<String, WebDriverError> {
    let id = app.make("Clock", CLOCK).await;
    app.goto(&format!("/manuals/{id}/cables")).await?;
    app.find("[data-cables]").await?;
    Ok(id)
}

async fn plugs(app: &App, id: &str) -> Vec<Value> {
    let manual = app.api(&format!("/api/manuals/{id}")).await["manual"].clone();
    manual["connectors"].as_object().map_or(Vec::new(), |m| m.values().cloned().collect())
}

#[rocket::async_test]
async fn a_second_source_is_seen_and_its_step_moved_up() -> Done {
    let app = App::start(false).await;
    let id = clock(&app).await?;
    app.text("works at the connector of the fan while the battery is still on.").await?;
    let line = app.find("section[aria-label='Power along the steps'] svg").await?;
    let says = line.attr("aria-label").await?.unwrap_or_default();
    assert!(says.contains("mains lead: on until step 1") && says.contains("while something is on"), "{says}");
    app.press("Move “Remove the battery” before it").await?;
    app.saved().await?;
    app.until("nothing live is touched", async || {
        let view = app.api(&format!("/api/manuals/{id}/findings")).await;
        Ok(!view.to_string().contains("source-still-on"))
    })
    .await;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.end().await
}

#[rocket::async_test]
async fn a_kind_says_how_it_opens_and_an_author_says_it_better() -> Done {
    let app = App::start(false).await;
    let id = clock(&app).await?;
    app.tap_first(By::XPath("//*[@role='option'][contains(., 'display')]")).await?;
    app.text("flip the latch up by 90°, then slide the flat cable out, often at 45°").await?;
    app.text("about 20 times").await?;
    app.choose("Kind", "coaxial").await?;
    app.text("Pulled sideways or by its cable, the plug and its socket are bent.").await?;
    app.write("Opens so, where the kind does not say it", "with the forked tool\n").await?;
    app.write("Wires, such as red to 1; black to 2", "red, black to 2\n").await?;
    app.text("“red” is half a wire. Write “red to 1; black to 2”.").await?;
    app.write("Wires, such as red to 1; black to 2", "red to 1, black to 2\n").await?;
    app.saved().await?;
    app.until("both wires are kept", async || {
        Ok(plugs(&app, &id).await.iter().any(|p| p["wires"].as_array().is_some_and(|w| w.len() == 2)))
    })
    .await;
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("Unplug: display. With the forked tool").await?;
    app.text("red to 1; black to 2").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_route_that_was_told_too_late_is_recorded_with_one_press() -> Done {
    let app = App::start(false).await;
    let id = clock(&app).await?;
    app.text("and nothing tells how it ran when").await?;
    app.press("Record “behind the post”").await?;
    app.saved().await?;
    app.until("the route is kept", async || {
        Ok(plugs(&app, &id).await.iter().any(|p| p["route"][0]["what"] == "behind the post"))
    })
    .await;
    app.end().await
}

#[rocket::async_test]
async fn connectors_are_walked_through_and_added_by_keys() -> Done {
    let app = App::start(false).await;
    let id = clock(&app).await?;
    let before = plugs(&app, &id).await.len();
    app.tap_first(By::Css("[role=option]")).await?;
    app.keys(Key::Down + "").await?;
    let chosen = app.find("[role=option][aria-selected=true]").await?;
    let name = chosen.text().await?;
    let sheet =
        app.find("section[aria-label^='Connector of the']").await?.attr("aria-label").await?.unwrap_or_default();
    let serves = name.lines().next().unwrap_or_default().trim_end_matches(" (power)").to_owned();
    assert!(sheet.ends_with(&serves), "{sheet} is not {serves}");
    app.button("Add a connector").await?.send_keys(Key::Enter).await?;
    app.text("Say of which kind it is").await?;
    app.saved().await?;
    assert_eq!(plugs(&app, &id).await.len(), before + 1);
    app.end().await
}

#[rocket::async_test]
async fn a_way_is_drawn_on_two_sides_and_read_in_the_guide() -> Done {
    let app = App::start(false).await;
    let id = clock(&app).await?;
    app.tap_first(By::XPath("//*[@role='option'][contains(., 'display')]")).await?;
    for (button, name, size) in
        [("Draw a layer to place it on", "Front", "100 × 60"), ("New layer", "Back", "100 × 60")]
    {
        app.press(button).await?;
        app.write("Name of the layer", name).await?;
        app.write("Width × height, mm, or corners", size).await?;
        app.press("Draw it").await?;
        app.find("[data-outline]").await?;
    }
    app.write("The cable passes, parted by commas", "along the frame, through the hinge\n").await?;
    app.choose("Layer", "Front").await?;
    app.find("[data-outline]").await?.scroll_into_view().await?;
    app.draw("[data-outline]", (0.2, 0.5), (0.2, 0.5)).await?;
    app.find("svg [aria-label='Place 1 along the frame']").await?;
    app.draw("[data-outline]", (0.8, 0.5), (0.8, 0.5)).await?;
    // A third press has no words to go by yet; it gets a number.
    app.draw("[data-outline]", (0.8, 0.9), (0.8, 0.9)).await?;
    let third = app.find("svg [aria-label='Place 3 place 3']").await?;
    third.send_keys(Key::Delete + "").await?;
    app.press("Remove place 3").await?;
    app.saved().await?;
    app.until("two places are left, both where they were pressed", async || {
        let route = way(&app, &id).await;
        Ok(route.len() == 2 && (route[1]["at"]["x_mm"].as_f64().unwrap_or_default() - 80.0).abs() < 1.5)
    })
    .await;
    let hinge = app.find("svg [aria-label='Place 2 through the hinge']").await?;
    hinge.send_keys(Key::Right + Key::Right + Key::Right).await?;
    app.saved().await?;
    app.until("keys moved it by one and a half millimetres", async || {
        Ok((way(&app, &id).await[1]["at"]["x_mm"].as_f64().unwrap_or_default() - 81.5).abs() < 1.5)
    })
    .await;
    app.write("Across, down of place 2, mm", "400, 10\n").await?;
    app.text("400, 10 mm lies outside “Front”, which is 100 × 60 mm.").await?;
    app.write("Across, down of place 2, mm", "80, 30\n").await?;
    app.choose("From place 2 on", "through to Back").await?;
    app.choose("Layer", "Back").await?;
    // Seen from behind, what was on the right is on the left.
    app.until("it stands mirrored", async || Ok(app.attr("svg [data-mirrored] circle", "cx").await? == "20")).await;
    app.saved().await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("Display: 1 along the frame, 2 through the hinge (through to the other side).").await?;
    app.until("the picture is drawn", async || app.prop("figure img", "naturalWidth").await.map(|w| w != "0")).await;
    app.end().await
}

/// What the cable of the display passes.
async fn way(app: &App, id: &str) -> Vec<Value> {
    let routed = plugs(app, id).await.into_iter().filter_map(|p| p["route"].as_array().cloned());
    routed.max_by_key(Vec::len).unwrap_or_default()
}
