//! Cautions: what is warned of, what is proposed, and where a guide stops.

use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

/// A device on the mains whose narrator warns of one thing and works at the supply.
const OVEN: &str = "[0:00] Unplug the power cord from the wall socket. Take off the cover.\n\n\
    [0:20] Take out the return spring. Caution, the ribbon is short, do not tear it. Take out the tray.\n\n\
    [0:40] Remove two PH1 screws from the power supply board. Take out the power supply board.\n\n\
    [1:00] Now we put it back together. Put the power supply board in. Put the tray in. Put the cover back on.";

async fn oven(app: &App) -> Result<String, WebDriverError> {
    let id = app.make("Drying box", OVEN).await;
    app.goto(&format!("/manuals/{id}/cautions")).await?;
    app.find("[data-cautions]").await?;
    Ok(id)
}

async fn hazard(app: &App, name: &str) -> Result<(), WebDriverError> {
    app.tap_first(By::XPath(format!("//*[@role='option'][contains(., '{name}')]"))).await
}

#[rocket::async_test]
async fn a_proposal_is_taken_or_declined_and_a_caution_reworded() -> Done {
    let app = App::start(false).await;
    let id = oven(&app).await?;
    hazard(&app, "spring under tension").await?;
    app.text("lets the return spring go").await?;
    app.text("Wear eye protection, hold it, and let it go slowly.").await?;
    app.press("Decline it").await?;
    app.write("Why no warning is needed here", "it hangs loose\n").await?;
    app.text("declined, it hangs loose").await?;
    app.press("It matters after all").await?;
    app.press("Warn before step 3").await?;
    app.saved().await?;
    app.write("Words of the caution at step 3", "Hold it with pliers.\n").await?;
    app.text("Hold it with pliers.").await?;
    app.saved().await?;
    assert_eq!(app.axe().await?, Vec::<String>::new());
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("It flies off: into eyes, or out of sight. Hold it with pliers.").await?;
    app.end().await
}

#[rocket::async_test]
async fn a_guide_stops_where_the_work_belongs_to_others() -> Done {
    let app = App::start(false).await;
    let id = oven(&app).await?;
    app.text("Nobody has said who does it: the guide cannot go out.").await?;
    app.press("Say who does it").await?;
    app.write("Who does it; the guide stops there, unless you write “its readers: …”", "a licensed electrician\n")
        .await?;
    app.text("Who does it: a licensed electrician.").await?;
    app.saved().await?;
    app.text("left to others").await?;
    app.goto(&format!("/manuals/{id}/publish")).await?;
    app.text("The guide stops here: this part of the work belongs to a licensed electrician").await?;
    let guide = app.find("article").await?.text().await?;
    assert!(!guide.contains("Take out the power supply board."), "{guide}");
    assert!(guide.contains("Take out the tray."), "{guide}");
    app.end().await
}

#[rocket::async_test]
async fn hazards_are_walked_through_by_keys() -> Done {
    let app = App::start(false).await;
    oven(&app).await?;
    app.tap_first(By::Css("[role=option]")).await?;
    app.keys(Key::Down + "").await?;
    let chosen = app.find("[role=option][aria-selected=true]").await?.text().await?;
    let sheet = app.find("section[aria-label^='Hazard:']").await?.attr("aria-label").await?.unwrap_or_default();
    let name = chosen.lines().next().unwrap_or_default().to_owned();
    assert!(sheet.ends_with(&name), "{sheet} is not {name}");
    app.end().await
}
