//! Takes the pictures of `docs/screenshots` from demo data: `cargo run -p paso-e2e --example shots [FOLDER] [VIEW…]`.

use paso_e2e::App;
use std::path::Path;
use thirtyfour::By;

#[rocket::main]
async fn main() {
    let mut args = std::env::args().skip(1).collect::<Vec<_>>().into_iter();
    let folder = args.next().unwrap_or_else(|| "docs/screenshots".to_owned());
    let only: Vec<String> = args.collect();
    if let Err(error) = take(Path::new(&folder), &only).await {
        eprintln!("shots: {error}");
    }
}

async fn take(folder: &Path, only: &[String]) -> Result<(), Box<dyn std::error::Error + Send + Sync>> {
    std::fs::create_dir_all(folder)?;
    let app = App::start(true).await;
    let shelf = app.api("/api/manuals").await;
    let id = |title: &str| {
        let rows = shelf.as_array().into_iter().flatten();
        rows.filter(|r| r["title"].as_str().unwrap_or("").contains(title))
            .filter_map(|r| r["id"].as_str())
            .next()
            .unwrap_or("")
            .to_owned()
    };
    let (lamp, scale) = (id("lamp"), id("scale"));
    let views: Vec<(&str, String, &str)> = vec![
        ("shelf", "/".into(), ""),
        ("listen", format!("/manuals/{scale}/listen"), "[role=option][aria-posinset='9']"),
        ("listen-facts", format!("/manuals/{scale}/listen"), "facts [role=option][aria-posinset='9']"),
        ("listen-contradictions", format!("/manuals/{scale}/listen"), "press Contradictions"),
        ("listen-recordings", format!("/manuals/{scale}/listen"), "press Recordings"),
        ("listen-narrow", format!("/manuals/{scale}/listen"), "narrow [role=option][aria-posinset='9']"),
        ("steps", format!("/manuals/{lamp}/steps"), "[data-step]:nth-of-type(5)"),
        ("fold", format!("/manuals/{lamp}/fold"), ""),
        ("fold-unbalanced", format!("/manuals/{scale}/fold"), ""),
        ("publish", format!("/manuals/{lamp}/publish"), ""),
        ("steps-editing", format!("/manuals/{scale}/steps"), "edit"),
        ("listen-dark", format!("/manuals/{lamp}/listen"), "dark [role=option][aria-posinset='9']"),
        ("fold-dark", format!("/manuals/{lamp}/fold"), "dark"),
        ("steps-narrow", format!("/manuals/{lamp}/steps"), "narrow"),
        ("fold-narrow", format!("/manuals/{scale}/fold"), "narrow"),
        ("shelf-narrow", "/".into(), "narrow"),
        ("missing", "/manuals/01890000-0000-7000-8000-000000000000/steps".into(), ""),
    ];
    for (name, path, extra) in views.into_iter().filter(|(n, ..)| only.is_empty() || only.iter().any(|o| o == n)) {
        let width = if extra.contains("narrow") { 900 } else { 1280 };
        app.resize(width, 800).await;
        app.goto(&path).await?;
        app.find("main").await?;
        if extra.contains("dark") {
            app.driver.execute("document.documentElement.dataset.look = 'dark'", vec![]).await?;
        }
        rocket::tokio::time::sleep(std::time::Duration::from_millis(900)).await;
        let css = extra.replace("dark", "").replace("narrow", "").replace("edit", "").replace("facts", "");
        if let Some(button) = extra.strip_prefix("press ") {
            app.press(button).await?;
        }
        let css = if extra.starts_with("press ") { String::new() } else { css };
        if !css.trim().is_empty() {
            app.tap_first(By::Css(css.trim())).await?;
        }
        if extra == "edit" {
            app.tap_first(By::Css("[data-step]")).await?;
            app.press("Edit").await?;
        }
        if extra.starts_with("facts") {
            app.press("Put facts right").await?;
        }
        rocket::tokio::time::sleep(std::time::Duration::from_millis(500)).await;
        app.driver.screenshot(&folder.join(format!("{name}.png"))).await?;
    }
    app.end().await
}
