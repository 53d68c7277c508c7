//! axe-core finds nothing wrong: every view, light and dark, wide and narrow, full and empty.

use paso_core::finding::Stop;
use paso_core::labels::Label;
use paso_e2e::{App, Done};
use thirtyfour::prelude::*;

async fn clean(app: &App, what: &str) -> Done {
    let found = app.axe().await?;
    assert!(found.is_empty(), "{what}: {found:#?}");
    Ok(())
}

/// What shows that a stop has drawn its content, and whether choosing it opens more.
const fn shows(stop: Stop) -> (&'static str, bool) {
    match stop {
        Stop::Listen => ("[role=option]", true),
        Stop::Steps | Stop::Chain => ("[data-step]", true),
        Stop::Screws => ("[data-group]", true),
        Stop::Seams => ("[data-seams]", false),
        Stop::Cables => ("[data-cables]", false),
        Stop::Cautions => ("[data-cautions]", false),
        Stop::Fold => ("[data-place]", false),
        // A stop that is to come needs its mark here as soon as it is built.
        _ => ("article h2", false),
    }
}

/// Nothing for axe-core, and nothing that scrolls sideways.
async fn fits(app: &App, what: &str) -> Done {
    clean(app, what).await?;
    let wide = app.driver.execute("return document.documentElement.scrollWidth - window.innerWidth", vec![]).await?;
    assert!(wide.json().as_i64().unwrap_or(1) <= 0, "{what} scrolls sideways");
    Ok(())
}

async fn look(app: &App, look: &str) -> Done {
    app.driver.execute(format!("document.documentElement.dataset.look = '{look}'"), vec![]).await?;
    Ok(())
}

#[rocket::async_test]
async fn every_stop_is_clean() -> Done {
    let app = App::start(true).await;
    let shelf = app.api("/api/manuals").await;
    let id = shelf[1]["id"].as_str().unwrap_or_default().to_owned();
    for (width, dress) in [(1280, "light"), (900, "dark")] {
        app.resize(width, 800).await;
        for stop in Stop::built() {
            let (mark, opens) = shows(stop);
            app.goto(&format!("/manuals/{id}/{}", stop.wire())).await?;
            app.find(mark).await?;
            look(&app, dress).await?;
            if opens {
                app.tap_first(By::Css(mark)).await?;
            }
            fits(&app, &format!("{} {width} {dress}", stop.label())).await?;
            let page = "return document.documentElement.scrollHeight - window.innerHeight";
            let below = app.driver.execute(page, vec![]).await?;
            assert_eq!(below.json(), 0, "{}: only the stop scrolls, not the page around it", stop.label());
        }
        for (path, mark) in [("/", "ul li a"), ("/manuals/01890000-0000-7000-8000-000000000000/steps", "[role=alert]")]
        {
            app.goto(path).await?;
            app.find(mark).await?;
            look(&app, dress).await?;
            fits(&app, &format!("{path} {width} {dress}")).await?;
        }
    }
    app.goto(&format!("/manuals/{id}/steps")).await?;
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
    app.text("No steps yet.").await?;
    let here = app.driver.current_url().await?.path().to_owned();
    let manual = here.rsplit_once('/').map(|(manual, _)| manual).unwrap_or_default();
    for stop in Stop::built() {
        app.goto(&format!("{manual}/{}", stop.wire())).await?;
        app.find("main h2").await?;
        clean(&app, stop.label()).await?;
    }
    app.end().await
}

/// Presses Tab until an element inside `css` has the focus.
async fn tab_into(app: &App, css: &str) -> Done {
    for _ in 0..120 {
        let inside = app.driver.execute(format!("return !!document.activeElement.closest(\"{css}\")"), vec![]).await?;
        if inside.json() == true {
            return Ok(());
        }
        app.keys(Key::Tab + "").await?;
    }
    panic!("Tab never reached {css}");
}

#[rocket::async_test]
async fn every_stop_is_walked_by_keyboard() -> Done {
    let app = App::start(true).await;
    let shelf = app.api("/api/manuals").await;
    let id = shelf[1]["id"].as_str().unwrap_or_default().to_owned();
    app.goto(&format!("/manuals/{id}/{}", Stop::Listen.wire())).await?;
    for stop in Stop::built() {
        // Along the rail into the stop, through its page, and round again: no trap, nothing lost.
        app.find("nav a").await?;
        tab_into(&app, &format!("nav a[href$='/{}']", stop.wire())).await?;
        app.keys(Key::Enter + "").await?;
        app.find(shows(stop).0).await?;
        tab_into(&app, "main").await?;
        let seen = app
            .driver
            .execute(
                "const r = document.activeElement.getBoundingClientRect(); return r.width > 0 && r.height > 0",
                vec![],
            )
            .await?;
        assert_eq!(seen.json(), true, "{}: the focus can be seen", stop.label());
    }
    app.end().await
}
