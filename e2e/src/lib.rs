//! Driving the real interface: a server of its own, a browser of its own, and words for what a user does.
//!
//! Each test gets a fresh database and a server on a free port inside the test process. A browser is handed from test to
//! test: what it keeps belongs to an origin, and every server has a port of its own, so a test finds nothing of another
//! and can be run alone. One that fails takes its browser with it.

pub mod presses;

use paso_server::serve;
use paso_server::store::Store;
use serde_json::{Value, json};
use std::process::{Child, Command, Stdio};
use std::sync::{Mutex, OnceLock};
use std::time::Duration;
use thirtyfour::prelude::*;

/// What tests return.
pub type Done = Result<(), Box<dyn std::error::Error + Send + Sync>>;

/// A running application with a browser before it.
pub struct App {
    pub base: String,
    pub driver: WebDriver,
    pub downloads: std::path::PathBuf,
    store: Store,
    port: u16,
    shutdown: rocket::Shutdown,
}

/// How long something may take to show up; a busy machine is slow, and a wait ends as soon as it is there.
const PATIENCE: Duration = Duration::from_secs(30);

/// The size of pictures and of most screens that authors use.
const SIZE: (u32, u32) = (1280, 800);

impl App {
    /// Starts server and browser; `demo` loads the demo manuals.
    ///
    /// # Panics
    /// If either does not start; a test cannot go on without them.
    pub async fn start(demo: bool) -> Self {
        let store = serve::open(&paso_cluster::test_database()).await.expect("a database");
        if demo {
            paso_server::demo::load_once(&store).await.expect("the demo");
        }
        let port = paso_cluster::free_port().expect("a port");
        let shutdown = launch(&store, port).await;
        let idle = IDLE.lock().expect("no test panics while it holds the list").pop();
        let Browser { driver, downloads } = match idle {
            Some(browser) => browser,
            None => browser().await,
        };
        let app = Self { base: format!("http://127.0.0.1:{port}"), driver, downloads, store, port, shutdown };
        app.resize(SIZE.0, SIZE.1).await;
        app
    }

    /// Takes the server away; the browser stays.
    pub async fn stop_server(&self) {
        self.shutdown.clone().notify();
        while reqwest::get(format!("{}/api/health", self.base)).await.is_ok() {
            rocket::tokio::time::sleep(Duration::from_millis(50)).await;
        }
    }

    /// Brings the server back on its port.
    pub async fn start_server(&mut self) {
        self.shutdown = launch(&self.store, self.port).await;
    }

    /// Sends something to the API in the name of another author; tells whether it was accepted.
    pub async fn send_as(&self, author: &str, path: &str, body: Value) -> bool {
        let request = reqwest::Client::new().post(format!("{}{path}", self.base)).header("Paso-Author", author);
        request.json(&body).send().await.is_ok_and(|r| r.status().is_success())
    }

    /// Sets the size of the page itself, not of the window around it.
    ///
    /// # Panics
    /// If the browser cannot be resized.
    pub async fn resize(&self, width: u32, height: u32) {
        self.driver.set_window_rect(0, 0, width, height + 143).await.expect("a window");
        let inner = self
            .driver
            .execute("return window.innerHeight", vec![])
            .await
            .expect("a height")
            .json()
            .as_u64()
            .unwrap_or(0);
        let frame = i64::from(height + 143) - inner as i64;
        self.driver.set_window_rect(0, 0, width, (i64::from(height) + frame) as u32).await.expect("a window");
    }

    pub async fn goto(&self, path: &str) -> Result<(), WebDriverError> {
        self.driver.goto(format!("{}{path}", self.base)).await
    }

    /// The first element that shows up for a selector.
    pub async fn find(&self, css: &str) -> Result<WebElement, WebDriverError> {
        self.first(By::Css(css)).await
    }

    /// What stands on the first element for a selector.
    pub async fn words(&self, css: &str) -> Result<String, WebDriverError> {
        steadily(|| async { self.find(css).await?.text().await }).await
    }

    /// An attribute of the first element for a selector; empty where it has none.
    pub async fn attr(&self, css: &str, name: &str) -> Result<String, WebDriverError> {
        steadily(|| async { Ok(self.find(css).await?.attr(name).await?.unwrap_or_default()) }).await
    }

    /// A property of the first element for a selector, as text; empty where it has none.
    pub async fn prop(&self, css: &str, name: &str) -> Result<String, WebDriverError> {
        steadily(|| async { Ok(self.find(css).await?.prop(name).await?.unwrap_or_default()) }).await
    }

    async fn first(&self, by: By) -> Result<WebElement, WebDriverError> {
        self.driver.query(by).wait(PATIENCE, Duration::from_millis(60)).first().await
    }

    /// A button or link by the words on it, or by its name where it shows only a sign.
    pub async fn button(&self, name: &str) -> Result<WebElement, WebDriverError> {
        let xpath = format!(
            "//button[normalize-space(.)={q} or @aria-label={q}] | //a[normalize-space(.)={q}] | //button[starts-with(normalize-space(.), {q})] | //nav//a[starts-with(normalize-space(.), {q})]",
            q = quoted(name)
        );
        self.driver.query(By::XPath(xpath)).wait(PATIENCE, Duration::from_millis(60)).and_displayed().first().await
    }

    pub async fn press(&self, name: &str) -> Result<(), WebDriverError> {
        steadily(|| async { self.button(name).await?.click().await }).await
    }

    /// Opens the tab that begins with these words.
    pub async fn tab(&self, name: &str) -> Result<(), WebDriverError> {
        let xpath = format!("//*[@role='tab' and starts-with(normalize-space(.), {})]", quoted(name));
        self.tap_first(By::XPath(xpath)).await
    }

    /// Clicks the element that holds these words.
    pub async fn tap(&self, words: &str) -> Result<(), WebDriverError> {
        steadily(|| async { self.text(words).await?.click().await }).await
    }

    /// Clicks the first element for a selector.
    pub async fn tap_first(&self, by: By) -> Result<(), WebDriverError> {
        steadily(|| async { self.first(by.clone()).await?.click().await }).await
    }

    /// Types into, or chooses a file for, the first element of a selector.
    pub async fn type_into(&self, by: By, text: impl Into<TypingData>) -> Result<(), WebDriverError> {
        let text = text.into().to_string();
        steadily(|| async { self.first(by.clone()).await?.send_keys(&text).await }).await
    }

    /// Picks the first choice of a field that holds these words.
    pub async fn choose(&self, label: &str, text: &str) -> Result<(), WebDriverError> {
        self.choose_in("", label, text).await
    }

    /// The same where several fields have one label: the one inside a selector.
    pub async fn choose_in(&self, css: &str, label: &str, text: &str) -> Result<(), WebDriverError> {
        let option =
            format!("//*[@role='listbox']//*[@role='option' and contains(normalize-space(.), {})]", quoted(text));
        // The list of choices lies over the page and is the last of all lists.
        let option = By::XPath(format!("({option})[last()]"));
        // A field that is drawn anew under the press takes its list with it: then the press is made again.
        const TRIES: usize = 3;
        for _ in 1..TRIES {
            self.tap_first(By::Css(format!("{css} [data-field='{label}']"))).await?;
            let open = self.driver.query(option.clone()).wait(PATIENCE / 4, Duration::from_millis(60)).exists().await?;
            if open {
                return self.tap_first(option).await;
            }
        }
        self.tap_first(By::Css(format!("{css} [data-field='{label}']"))).await?;
        self.tap_first(option).await
    }

    /// An element that holds these words.
    pub async fn text(&self, words: &str) -> Result<WebElement, WebDriverError> {
        let xpath = format!(
            "//body//*[contains(normalize-space(.), {q}) and not(.//*[contains(normalize-space(.), {q})])]",
            q = quoted(words)
        );
        self.driver.query(By::XPath(xpath)).wait(PATIENCE, Duration::from_millis(60)).first().await
    }

    /// A field by its label.
    pub async fn field(&self, label: &str) -> Result<WebElement, WebDriverError> {
        let q = quoted(label);
        let xpath = format!(
            "//*[(self::input or self::textarea or self::select) and (@aria-label={q} or @id=//label[normalize-space(.)={q}]/@for)]"
        );
        self.driver.query(By::XPath(xpath)).wait(PATIENCE, Duration::from_millis(60)).first().await
    }

    /// Replaces what a field holds.
    pub async fn write(&self, label: &str, text: &str) -> Result<(), WebDriverError> {
        steadily(|| async {
            let field = self.field(label).await?;
            field.click().await?;
            field.send_keys(Key::Control + "a").await?;
            field.send_keys(Key::Delete + "").await?;
            field.send_keys(text).await
        })
        .await
    }

    /// Presses a surface at a place in shares of its box, and draws on to a second one.
    pub async fn draw(&self, css: &str, from: (f64, f64), to: (f64, f64)) -> Result<(), WebDriverError> {
        let face = self.find(css).await?.rect().await?;
        let at = |(x, y): (f64, f64)| ((face.x + face.width * x) as i64, (face.y + face.height * y) as i64);
        let ((x, y), (u, v)) = (at(from), at(to));
        let chain = self.driver.action_chain().move_to(x, y).click_and_hold().move_to((x + u) / 2, (y + v) / 2);
        chain.move_to(u, v).release().perform().await
    }

    /// Presses keys wherever the focus is.
    pub async fn keys(&self, keys: impl Into<TypingData>) -> Result<(), WebDriverError> {
        let keys = keys.into().to_string();
        steadily(|| async { self.driver.active_element().await?.send_keys(&keys).await }).await
    }

    /// Waits until the saved state says that nothing is on its way.
    pub async fn saved(&self) -> Result<(), WebDriverError> {
        self.text("All saved").await.map(|_| ())
    }

    /// Waits until something holds.
    ///
    /// # Panics
    /// Says what never came true.
    pub async fn until<F, G>(&self, what: &str, mut holds: F)
    where
        F: FnMut() -> G,
        G: Future<Output = Result<bool, WebDriverError>>,
    {
        for _ in 0..430 {
            if holds().await.unwrap_or(false) {
                return;
            }
            rocket::tokio::time::sleep(Duration::from_millis(70)).await;
        }
        let at = self.driver.current_url().await.map(|u| u.to_string()).unwrap_or_default();
        panic!("never: {what}; the browser stands at {at}");
    }

    /// Asks the API for JSON.
    ///
    /// # Panics
    /// If the server does not answer with JSON.
    pub async fn api(&self, path: &str) -> Value {
        reqwest::get(format!("{}{path}", self.base)).await.expect("an answer").json().await.expect("JSON")
    }

    /// Asks the server for text.
    ///
    /// # Panics
    /// If the server does not answer.
    pub async fn fetch(&self, path: &str) -> String {
        reqwest::get(format!("{}{path}", self.base)).await.expect("an answer").text().await.expect("text")
    }

    /// Makes a manual out of one recording and gives its id.
    ///
    /// # Panics
    /// If the server does not take it.
    pub async fn make(&self, title: &str, recording: &str) -> String {
        let client = reqwest::Client::new();
        let post = async |path: &str, body: String, kind: &str| -> Value {
            let request = client
                .post(format!("{}{path}", self.base))
                .header("Content-Type", kind)
                .header("Paso-Author", "Ann")
                .body(body);
            request.send().await.expect("an answer").json().await.expect("JSON")
        };
        let info = post(&format!("/api/recordings?name={title}"), recording.to_owned(), "text/plain").await;
        let new = json!({"title": title, "recordings": [info["id"]]}).to_string();
        let made = post("/api/manuals", new, "application/json").await;
        made["id"].as_str().expect("an id").to_owned()
    }

    /// What axe-core finds wrong with the page.
    pub async fn axe(&self) -> Result<Vec<String>, WebDriverError> {
        const AXE: &str = include_str!("../../web/node_modules/axe-core/axe.min.js");
        self.driver.execute(AXE, vec![]).await?;
        let script = "const done = arguments[arguments.length - 1];
            axe.run(document, {resultTypes: ['violations']}).then(r => done(r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.html + ' ' + (n.failureSummary || '').split('\\n')[1]).join(' | '))), e => done([String(e)]))";
        let found = self.driver.execute_async(script, vec![]).await?;
        Ok(found.json().as_array().into_iter().flatten().filter_map(|v| v.as_str().map(str::to_owned)).collect())
    }

    /// Shows the page as it prints.
    pub async fn emulate_print(&self) -> Result<(), WebDriverError> {
        self.emulate("print").await
    }

    /// Every answer comes so many milliseconds later, in this tab.
    pub async fn latency(&self, ms: u32) -> Result<(), WebDriverError> {
        self.driver.cdp().send_raw("Network.enable", json!({})).await?;
        let slow = json!({"offline": false, "latency": ms, "downloadThroughput": -1, "uploadThroughput": -1});
        self.driver.cdp().send_raw("Network.emulateNetworkConditions", slow).await.map(drop)
    }

    async fn emulate(&self, media: &str) -> Result<(), WebDriverError> {
        self.driver.cdp().send_raw("Emulation.setEmulatedMedia", json!({"media": media})).await.map(drop)
    }

    /// Ends the server and the browser, where a test has left its mark on it: further tabs, a slow network.
    pub async fn end_for_good(self) -> Done {
        self.driver.quit().await?;
        self.shutdown.notify();
        Ok(())
    }

    /// Ends the server, and leaves the browser to the next test as it was found.
    pub async fn end(self) -> Done {
        self.emulate("").await?;
        self.driver.goto("about:blank").await?;
        std::fs::remove_dir_all(&self.downloads)?;
        std::fs::create_dir_all(&self.downloads)?;
        self.shutdown.notify();
        let browser = Browser { driver: self.driver, downloads: self.downloads };
        IDLE.lock().expect("no test panics while it holds the list").push(browser);
        Ok(())
    }
}

/// Finds and does again when the page drew its elements anew in between, or something still lay over them: a user would
/// not notice, and the driver must not either.
async fn steadily<T, F>(act: impl Fn() -> F) -> Result<T, WebDriverError>
where
    F: Future<Output = Result<T, WebDriverError>>,
{
    const TRIES: usize = 20;
    for _ in 1..TRIES {
        match act().await {
            Err(error) if redrawn(&error) => rocket::tokio::time::sleep(Duration::from_millis(100)).await,
            done => return done,
        }
    }
    act().await
}

fn redrawn(error: &WebDriverError) -> bool {
    use thirtyfour::error::WebDriverErrorInner::*;
    matches!(error.as_inner(), StaleElementReference(_) | ElementClickIntercepted(_) | ElementNotInteractable(_))
}

async fn launch(store: &Store, port: u16) -> rocket::Shutdown {
    let rocket = serve::rocket(store.clone(), port, &[]).ignite().await.expect("a server");
    let shutdown = rocket.shutdown();
    rocket::tokio::spawn(rocket.launch());
    shutdown
}

/// An XPath string that may hold quotes.
fn quoted(text: &str) -> String {
    if text.contains('\'') { format!("\"{text}\"") } else { format!("'{text}'") }
}

/// ChromeDriver, started once a test process on a free port and ended with it.
fn chromedriver() -> u16 {
    static DRIVER: OnceLock<(Child, u16)> = OnceLock::new();
    let (_, port) = DRIVER.get_or_init(|| {
        let port = paso_cluster::free_port().expect("a port");
        let child = Command::new("chromedriver")
            .arg(format!("--port={port}"))
            .stdin(Stdio::null())
            .stdout(Stdio::null())
            .stderr(Stdio::null())
            .spawn()
            .expect("chromedriver; ./test installs it");
        // A browser outlives its driver; its folder names it. The brackets keep the shell from finding itself.
        let (driver, us) = (child.id(), std::process::id());
        let script = format!(
            "kill {driver}; for c in /proc/[0-9]*/cmdline; do \
             grep -q '[p]aso-browser-{us}-' $c && kill $(echo $c | cut -d/ -f3); done; sleep 1; \
             rm -rf -- \"$1\"/paso-browse[r]-{us}-*",
        );
        paso_cluster::after_us(&script, &[&std::env::temp_dir()]);
        (child, port)
    });
    *port
}

struct Browser {
    driver: WebDriver,
    downloads: std::path::PathBuf,
}

/// Browsers that no test uses just now; they end with this process.
static IDLE: Mutex<Vec<Browser>> = Mutex::new(Vec::new());

async fn browser() -> Browser {
    let folder = std::env::temp_dir()
        .join(format!("paso-browser-{}-{:?}", std::process::id(), std::thread::current().id()).replace(['(', ')'], ""));
    let downloads = folder.join("downloads");
    std::fs::create_dir_all(&downloads).expect("a folder for downloads");
    let mut wanted = DesiredCapabilities::chrome();
    for flag in [
        "--headless",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--force-prefers-reduced-motion",
        "--disable-dev-shm-usage",
    ] {
        wanted.add_arg(flag).expect("a flag");
    }
    wanted.add_arg(&format!("--user-data-dir={}", folder.join("profile").display())).expect("a flag");
    let prefs = json!({"download.default_directory": downloads, "download.prompt_for_download": false});
    wanted.add_experimental_option("prefs", prefs).expect("an option");
    let url = format!("http://127.0.0.1:{}", chromedriver());
    for _ in 0..50 {
        if let Ok(driver) = WebDriver::new(&url, wanted.clone()).await {
            return Browser { driver, downloads };
        }
        rocket::tokio::time::sleep(Duration::from_millis(200)).await;
    }
    panic!("the browser did not start");
}
