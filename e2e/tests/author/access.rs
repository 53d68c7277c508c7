//! axe-core finds nothing wrong: every view, light and dark, wide and narrow, full and empty.

use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

async fn clean(app: &App, what: &str) -> Done {
    let found = app.axe().await?;
    assert!(found.is_empty(), "{what}: {found:#?}");
    Ok(())
}

#[rocket::async_test]
async fn every_view_is_clean() -> Done {
    let app = App::start(true).await;
    let shelf = app.api("/api/manuals").await;
    let id = shelf[1]["id"].as_str().unwrap_or_default().to_owned();
    let views = [
        ("/".to_owned(), "ul li a"),
        (format!("/manuals/{id}/listen"), "[role=option]"),
        (format!("/manuals/{id}/steps"), "[data-step]"),
        (format!("/manuals/{id}/chain"), "[data-step]"),
        (format!("/manuals/{id}/screws"), "[data-group]"),
        (format!("/manuals/{id}/fold"), "[data-place]"),
        (format!("/manuals/{id}/publish"), "article h2"),
        ("/manuals/01890000-0000-7000-8000-000000000000/steps".to_owned(), "[role=alert]"),
    ];
    for (width, look) in [(1280, "light"), (900, "dark")] {
        app.resize(width, 800).await;
        for (path, shows) in &views {
            app.goto(path).await?;
            app.find(shows).await?;
            app.driver.execute(format!("document.documentElement.dataset.look = '{look}'"), vec![]).await?;
            if shows.contains("option") || shows.contains("step") {
                app.tap_first(By::Css(*shows)).await?;
            }
            clean(&app, &format!("{path} {width} {look}")).await?;
            let wide =
                app.driver.execute("return document.documentElement.scrollWidth - window.innerWidth", vec![]).await?;
            assert!(wide.json().as_i64().unwrap_or(1) <= 0, "{path} scrolls sideways at {width}");
        }
    }
    app.goto(&views[2].0).await?;
    app.tap_first(By::Css("[data-step]")).await?;
    app.press("Edit").await?;
    app.field("Title").await?;
    clean(&app, "a step being edited").await?;
    app.end().await
}

#[rocket::async_test]
async fn an_empty_shelf_and_an_empty_manual_are_clean() -> Done {
    let app = App::start(false).await;
    app.goto("/").await?;
    app.text("The shelf is empty").await?;
    clean(&app, "an empty shelf").await?;
    app.press("Start an empty manual").await?;
    for stop in ["steps", "listen", "chain", "screws", "fold", "publish"] {
        let path =
            app.driver.current_url().await?.path().rsplit_once('/').map(|(p, _)| p.to_owned()).unwrap_or_default();
        app.goto(&format!("{path}/{stop}")).await?;
        app.find("main h2").await?;
        clean(&app, stop).await?;
    }
    app.end().await
}
