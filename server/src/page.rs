//! The front end, out of the binary.
//!
//! Assets carry their hash in their names and are cached for ever; the page is not cached, because it names them and
//! carries a fresh nonce for the styles that the front end writes at run time.

use flate2::Compression;
use flate2::write::GzEncoder;
use rocket::http::{ContentType, Header, Status};
use rocket::response::{Responder, Response};
use rocket::{Request, Route, get, routes};
use rust_embed::RustEmbed;
use std::collections::HashMap;
use std::io::{Cursor, Write};
use std::path::PathBuf;
use std::sync::{LazyLock, Mutex};
use uuid::Uuid;

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/../web/dist"]
#[allow_missing = true]
struct Dist;

/// Stands in the page where the nonce goes.
const NONCE: &str = "__NONCE__";

/// Something of the front end.
enum Sent {
    Page { html: String, nonce: String },
    Asset { name: String, bytes: Vec<u8>, kind: ContentType },
    Missing,
}

impl<'r> Responder<'r, 'static> for Sent {
    fn respond_to(self, request: &'r Request<'_>) -> rocket::response::Result<'static> {
        match self {
            Sent::Page { html, nonce } => Response::build()
                .header(ContentType::HTML)
                .header(Header::new("Cache-Control", "no-store"))
                .header(Header::new("Content-Security-Policy", policy(&nonce)))
                .sized_body(html.len(), Cursor::new(html))
                .ok(),
            Sent::Asset { name, bytes, kind } => {
                let mut response = Response::build();
                response
                    .header(kind.clone())
                    .header(Header::new("Cache-Control", "public, max-age=31536000, immutable"))
                    .header(Header::new("Vary", "Accept-Encoding"));
                let takes_gzip = request.headers().get("Accept-Encoding").any(|v| v.contains("gzip"));
                let packed = (takes_gzip && is_text(&kind)).then(|| packed(&name, &bytes));
                if packed.is_some() {
                    response.header(Header::new("Content-Encoding", "gzip"));
                }
                let body = packed.unwrap_or(bytes);
                response.sized_body(body.len(), Cursor::new(body)).ok()
            }
            Sent::Missing => crate::problem::catch_all(Status::NotFound, request).respond_to(request),
        }
    }
}

fn is_text(kind: &ContentType) -> bool {
    kind.is_javascript() || kind.is_css() || kind.is_svg() || kind.is_html()
}

/// An asset as gzip, packed once for as long as the server runs.
fn packed(name: &str, bytes: &[u8]) -> Vec<u8> {
    static PACKED: LazyLock<Mutex<HashMap<String, Vec<u8>>>> = LazyLock::new(Mutex::default);
    let mut packed = PACKED.lock().expect("no panic while held");
    let pack = || {
        let mut encoder = GzEncoder::new(Vec::new(), Compression::best());
        encoder.write_all(bytes).and_then(|()| encoder.finish()).expect("memory takes every byte")
    };
    packed.entry(name.to_owned()).or_insert_with(pack).clone()
}

/// Only this server's own scripts, styles and data; styles written at run time by nonce.
fn policy(nonce: &str) -> String {
    format!(
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; font-src 'self'; img-src 'self' data:; \
         media-src 'self' blob:; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
    )
}

fn page() -> Sent {
    let nonce = Uuid::new_v4().simple().to_string();
    let html = match Dist::get("index.html") {
        Some(file) => String::from_utf8_lossy(&file.data).replace(NONCE, &nonce),
        None => "<!doctype html><title>Paso</title><p>The front end is not built. Run ./start.".to_owned(),
    };
    Sent::Page { html, nonce }
}

#[get("/")]
fn root() -> Sent {
    page()
}

/// A path with an ending is a file; any other is a place inside the front end.
#[get("/<path..>", rank = 20)]
fn place(path: PathBuf) -> Sent {
    if path.starts_with("api") {
        return Sent::Missing;
    }
    // By its file name as well it leaves with its policy and nonce.
    if path.as_os_str() == "index.html" {
        return page();
    }
    let Some(ending) = path.extension().and_then(|e| e.to_str()) else { return page() };
    let kind = ContentType::from_extension(ending).unwrap_or(ContentType::Binary);
    match path.to_str().and_then(Dist::get) {
        Some(file) => Sent::Asset { name: path.display().to_string(), bytes: file.data.into_owned(), kind },
        None => Sent::Missing,
    }
}

/// The routes of the page and its assets.
pub fn routes() -> Vec<Route> {
    routes![root, place]
}
