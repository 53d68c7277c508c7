//! Takes the pictures of `docs/screenshots` from demo data: `cargo run -p paso-e2e --example shots [FOLDER] [VIEW…]`.

use paso_core::finding::Stop;
use paso_core::labels::Label;
use paso_e2e::App;
use std::path::Path;
use thirtyfour::{By, Key};

#[rocket::main]
async fn main() {
    let mut args = std::env::args().skip(1).collect::<Vec<_>>().into_iter();
    let folder = args.next().unwrap_or_else(|| "docs/screenshots".to_owned());
    let only: Vec<String> = args.collect();
    if let Err(error) = take(Path::new(&folder), &only).await {
        eprintln!("shots: {error}");
    }
}

/// Where a picture is taken, and what is done before, in words parted by "; ".
type View = (String, String, String);

/// The demo's manuals by their ids.
struct Demo {
    lamp: String,
    scale: String,
    station: String,
    incubator: String,
}

/// The ninth row of a list.
const NINTH: &str = "tap [role=option][aria-posinset='9']";

/// Every stop that is built: as it is, in the dark, and narrow.
fn stops(demo: &Demo) -> impl Iterator<Item = View> {
    Stop::built().flat_map(|stop| {
        let (manual, before) = match stop {
            Stop::Listen => (&demo.scale, NINTH),
            Stop::Steps => (&demo.lamp, "tap [data-step]:nth-of-type(5)"),
            Stop::Chain => (&demo.station, "tap [data-step]:nth-of-type(6)"),
            Stop::Screws => (&demo.station, "tap [data-group]:nth-of-type(4)"),
            Stop::Cautions => (&demo.incubator, ""),
            Stop::Fold | Stop::Publish => (&demo.lamp, ""),
            _ => (&demo.station, ""),
        };
        let (name, path) = (stop.wire(), format!("/manuals/{manual}/{}", stop.wire()));
        ["", "dark", "narrow"].map(|look| {
            let name = if look.is_empty() { name.clone() } else { format!("{name}-{look}") };
            (name, path.clone(), format!("{look}; {before}"))
        })
    })
}

async fn take(folder: &Path, only: &[String]) -> Result<(), Box<dyn std::error::Error + Send + Sync>> {
    std::fs::create_dir_all(folder)?;
    let app = App::start(true).await;
    let views = views(&app).await.into_iter().filter(|(n, ..)| only.is_empty() || only.iter().any(|o| o == n));
    for (name, path, before) in views {
        let width = if before.contains("narrow") { 900 } else { 1280 };
        let height = if before.contains("tall") { 2200 } else { 800 };
        app.resize(width, height).await;
        app.goto(&path).await?;
        if !before.contains("plain") {
            app.find("main").await?;
        }
        settle(900).await;
        for act in before.split("; ") {
            prepare(&app, act).await?;
        }
        settle(700).await;
        app.driver.screenshot(&folder.join(format!("{name}.png"))).await?;
    }
    app.end().await
}

/// Does one thing of a view's list.
async fn prepare(app: &App, act: &str) -> Result<(), thirtyfour::error::WebDriverError> {
    match act.split_once(' ').unwrap_or((act, "")) {
        ("dark", _) => app.driver.execute("document.documentElement.dataset.look = 'dark'", vec![]).await.map(drop),
        ("tap", css) => app.tap_first(By::Css(css)).await,
        ("press", name) => app.press(name).await,
        ("pick", choice) => {
            let (label, option) = choice.split_once('=').unwrap_or((choice, ""));
            app.choose(label, option).await
        }
        ("scroll", name) => {
            let to = format!("document.querySelector(\"section[aria-label='{name}']\").scrollIntoView()");
            app.driver.execute(to, vec![]).await.map(drop)
        }
        ("end", _) => {
            app.driver.execute("document.querySelector(\"article table\").scrollIntoView()", vec![]).await.map(drop)
        }
        ("into", css) => {
            let to = format!("document.querySelector(\"{css}\").scrollIntoView({{ block: 'center' }})");
            app.driver.execute(to, vec![]).await.map(drop)
        }
        ("tab", name) => app.tab(name).await,
        ("write", text) => app.write("Find", text).await,
        ("keys", keys) => app.keys(keys).await,
        ("walk", times) => {
            for _ in 0..times.parse().unwrap_or(1) {
                app.keys(Key::F8 + "").await?;
                settle(400).await;
            }
            Ok(())
        }
        _ => Ok(()),
    }
}

async fn views(app: &App) -> Vec<View> {
    let shelf = app.api("/api/manuals").await;
    let id = |title: &str| {
        let mut rows = shelf.as_array().into_iter().flatten();
        let row = rows.find(|r| r["title"].as_str().is_some_and(|t| t.contains(title)));
        row.and_then(|r| r["id"].as_str()).unwrap_or_default().to_owned()
    };
    let demo = Demo { lamp: id("lamp"), scale: id("scale"), station: id("weather"), incubator: id("incubator") };
    let jobs = app.api(&format!("/api/manuals/{}/jobs", demo.station)).await;
    let fan = jobs.as_array().into_iter().flatten().find(|j| j["title"] == "New fan").and_then(|j| j["id"].as_str());
    let lamp = |stop: &str| format!("/manuals/{}/{stop}", demo.lamp);
    let station = |stop: &str| format!("/manuals/{}/{stop}", demo.station);
    let scale = |stop: &str| format!("/manuals/{}/{stop}", demo.scale);
    let sheet = |page: u8| format!("/api/manuals/{}/mat/{page}?paper=a4", demo.station);
    let guides = "tap section[aria-label='Guides cut from this manual'] [aria-expanded]";
    let more = [
        ("shelf", "/".to_owned(), ""),
        ("shelf-narrow", "/".to_owned(), "narrow"),
        ("missing", "/manuals/01890000-0000-7000-8000-000000000000/steps".to_owned(), ""),
        ("listen-facts", scale("listen"), "tap [role=option][aria-posinset='9']; press Put facts right"),
        ("listen-to-settle", station("listen"), "tab To settle"),
        ("listen-recordings", scale("listen"), "tab Recordings"),
        ("steps-branches", station("steps"), "tap [data-step]:nth-of-type(12)"),
        ("steps-editing", scale("steps"), "tap [data-step]; press Edit; press With what, where, how"),
        ("steps-parts", station("steps"), "tab Parts; press More of the battery"),
        ("steps-parts-narrow", station("steps"), "narrow; tab Parts; press More of the battery"),
        ("steps-tools", station("steps"), "tab Tools"),
        ("steps-notes", station("steps"), "tab Notes"),
        ("settle", scale("steps"), "walk 4"),
        ("steps-words", station("steps"), "tab Find and replace; write fan"),
        ("chain-route", station("chain"), "tap [data-step]:nth-of-type(5); keys t"),
        ("chain-route-dark", scale("chain"), "dark; tap [data-step]:nth-of-type(4); keys t"),
        ("chain-picture", station("chain"), "press Show the picture"),
        ("settle-narrow", station("steps"), "narrow; dark; walk 9"),
        ("chain-guides", station("chain"), guides),
        ("screws-tall", station("screws"), "tall; tap [data-group]:nth-of-type(4)"),
        ("screws-torque", station("screws"), "tap [data-group]:nth-of-type(4); scroll How tight"),
        ("screws-lamp", lamp("screws"), ""),
        ("screw-mat", sheet(1), "plain"),
        ("screw-gauge", sheet(2), "plain"),
        ("seams-lamp", lamp("seams"), "tall"),
        ("seams-tall", station("seams"), "tall"),
        ("seams-marked", station("seams"), "tap section[aria-label='How it opens'] ol button"),
        ("publish-opening", station("publish"), "into figure"),
        ("publish-cables", station("publish"), "into section[aria-label='Cables']"),
        (
            "cables-way",
            station("cables"),
            "tap [role=option]:nth-of-type(4); into section[aria-label='How the cable runs']",
        ),
        ("publish-stops", format!("/manuals/{}/publish", demo.incubator), ""),
        ("cautions-lamp", lamp("cautions"), ""),
        ("fold-unbalanced", scale("fold"), "tap [data-place='r3']"),
        ("fold-times", station("fold"), "scroll Where the minutes go"),
        ("publish-job", format!("{}?job={}", station("publish"), fan.unwrap_or_default()), ""),
        ("publish-screws", station("publish"), "tall; end"),
    ];
    let more = more.into_iter().map(|(name, path, before)| (name.to_owned(), path, before.to_owned()));
    stops(&demo).chain(more).collect()
}

/// A moment for what loads and fades in.
async fn settle(ms: u64) {
    rocket::tokio::time::sleep(std::time::Duration::from_millis(ms)).await;
}
