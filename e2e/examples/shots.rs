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
    let (lamp, scale, station) = (id("lamp"), id("scale"), id("weather"));
    let jobs = app.api(&format!("/api/manuals/{station}/jobs")).await;
    let fan = jobs.as_array().into_iter().flatten().find(|j| j["title"] == "New fan").and_then(|j| j["id"].as_str());
    let fan = fan.unwrap_or_default().to_owned();
    // What to do before the picture, in words parted by "; ".
    const NINTH: &str = "tap [role=option][aria-posinset='9']";
    let lamp_at = |stop: &str| format!("/manuals/{lamp}/{stop}");
    let station_at = |stop: &str| format!("/manuals/{station}/{stop}");
    let scale_at = |stop: &str| format!("/manuals/{scale}/{stop}");
    let views: Vec<(&str, String, String)> = vec![
        ("shelf", "/".into(), String::new()),
        ("listen", scale_at("listen"), NINTH.into()),
        ("listen-facts", scale_at("listen"), format!("{NINTH}; press Put facts right")),
        ("listen-contradictions", scale_at("listen"), "press Contradictions".into()),
        ("listen-recordings", scale_at("listen"), "press Recordings".into()),
        ("listen-narrow", scale_at("listen"), format!("narrow; {NINTH}")),
        ("steps", lamp_at("steps"), "tap [data-step]:nth-of-type(5)".into()),
        ("chain", station_at("chain"), "tap [data-step]:nth-of-type(6)".into()),
        ("chain-route", station_at("chain"), "tap [data-step]:nth-of-type(5); keys t".into()),
        ("chain-picture", station_at("chain"), "press Show the picture".into()),
        ("chain-picture-stages", station_at("chain"), "press Show the picture; pick Show=stages".into()),
        ("screws", station_at("screws"), "tap [data-group]:nth-of-type(2)".into()),
        ("screws-tall", station_at("screws"), "tall; tap [data-group]:nth-of-type(4)".into()),
        ("screws-dark", scale_at("screws"), "dark".into()),
        ("screws-narrow", station_at("screws"), "narrow; tap [data-group]:nth-of-type(4)".into()),
        ("screw-mat", format!("/api/manuals/{station}/mat/1?paper=a4"), "plain".into()),
        ("screw-gauge", format!("/api/manuals/{station}/mat/2?paper=a4"), "plain".into()),
        ("screws-torque", station_at("screws"), "tap [data-group]:nth-of-type(4); scroll How tight".into()),
        ("publish-screws", station_at("publish"), "tall; end".into()),
        ("screws-lamp", lamp_at("screws"), String::new()),
        ("chain-dark", scale_at("chain"), "dark; tap [data-step]:nth-of-type(4); keys t".into()),
        ("chain-narrow", scale_at("chain"), "narrow; tap [data-step]:nth-of-type(4); keys t".into()),
        ("steps-branches", station_at("steps"), "tap [data-step]:nth-of-type(12)".into()),
        ("steps-parts", station_at("steps"), "tab Parts; press More of the battery".into()),
        ("steps-parts-narrow", station_at("steps"), "narrow; tab Parts; press More of the battery".into()),
        ("steps-notes-dark", station_at("steps"), "dark; tab Notes".into()),
        ("publish-job", format!("{}?job={}", station_at("publish"), fan), String::new()),
        ("chain-guides", station_at("chain"), "tap section[aria-label='Guides cut from this manual'] summary".into()),
        ("steps-tools", station_at("steps"), "tab Tools".into()),
        ("steps-notes", station_at("steps"), "tab Notes".into()),
        ("steps-words", station_at("steps"), "tab Find and replace; write fan".into()),
        ("publish-guide", station_at("publish"), String::new()),
        ("fold", lamp_at("fold"), String::new()),
        ("fold-unbalanced", scale_at("fold"), String::new()),
        ("publish", lamp_at("publish"), String::new()),
        ("steps-editing", scale_at("steps"), "tap [data-step]; press Edit".into()),
        ("listen-dark", lamp_at("listen"), format!("dark; {NINTH}")),
        ("fold-dark", lamp_at("fold"), "dark".into()),
        ("steps-narrow", lamp_at("steps"), "narrow".into()),
        ("fold-narrow", scale_at("fold"), "narrow".into()),
        ("shelf-narrow", "/".into(), "narrow".into()),
        ("missing", "/manuals/01890000-0000-7000-8000-000000000000/steps".into(), String::new()),
    ];
    for (name, path, before) in views.into_iter().filter(|(n, ..)| only.is_empty() || only.iter().any(|o| o == n)) {
        let width = if before.contains("narrow") { 900 } else { 1280 };
        let height = if before.contains("tall") { 2200 } else { 800 };
        app.resize(width, height).await;
        app.goto(&path).await?;
        if !before.contains("plain") {
            app.find("main").await?;
        }
        settle(900).await;
        for act in before.split("; ") {
            match act.split_once(' ').unwrap_or((act, "")) {
                ("dark", _) => {
                    app.driver.execute("document.documentElement.dataset.look = 'dark'", vec![]).await?;
                }
                ("tap", css) => app.tap_first(By::Css(css)).await?,
                ("press", name) => app.press(name).await?,
                ("pick", choice) => {
                    let (label, option) = choice.split_once('=').unwrap_or((choice, ""));
                    app.choose(label, option).await?;
                }
                ("scroll", name) => {
                    let to = format!("document.querySelector(\"section[aria-label='{name}']\").scrollIntoView()");
                    app.driver.execute(to, vec![]).await?;
                }
                ("end", _) => {
                    app.driver.execute("document.querySelector(\"article table\").scrollIntoView()", vec![]).await?;
                }
                ("tab", name) => app.tab(name).await?,
                ("write", text) => app.write("Find", text).await?,
                ("keys", keys) => app.keys(keys).await?,
                _ => {}
            }
        }
        settle(700).await;
        app.driver.screenshot(&folder.join(format!("{name}.png"))).await?;
    }
    app.end().await
}

/// A moment for what loads and fades in.
async fn settle(ms: u64) {
    rocket::tokio::time::sleep(std::time::Duration::from_millis(ms)).await;
}
