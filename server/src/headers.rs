//! Headers that every answer carries, answers of the API packed, and one line of log for each.
//!
//! Every request has an id, which stands in its answer and in its line of the log: who reports a problem names it.

use crate::metrics::Metrics;
use flate2::Compression;
use flate2::write::GzEncoder;
use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::Header;
use rocket::{Data, Request, Response};
use std::io::{Cursor, Write};
use std::time::Instant;
use uuid::Uuid;

/// The header of a request's id.
const REQUEST_ID: &str = "X-Request-Id";

/// What a request goes by: the id that a proxy gave it, where that is one, or a new one.
struct RequestId(String);

impl RequestId {
    fn of(request: &Request<'_>) -> Self {
        let sound = |id: &&str| {
            (8..=64).contains(&id.len()) && id.bytes().all(|b| b.is_ascii_alphanumeric() || b == b'-' || b == b'_')
        };
        let given = request.headers().get_one(REQUEST_ID).filter(sound);
        Self(given.map_or_else(|| Uuid::now_v7().simple().to_string(), str::to_owned))
    }
}

/// Security headers and the request log.
pub struct Headers;

#[rocket::async_trait]
impl Fairing for Headers {
    fn info(&self) -> Info {
        Info { name: "security headers and request log", kind: Kind::Request | Kind::Response }
    }

    async fn on_request(&self, request: &mut Request<'_>, _: &mut Data<'_>) {
        request.local_cache(Instant::now);
        request.local_cache(|| RequestId::of(request));
    }

    async fn on_response<'r>(&self, request: &'r Request<'_>, response: &mut Response<'r>) {
        response.set_header(Header::new("X-Content-Type-Options", "nosniff"));
        response.set_header(Header::new("X-Frame-Options", "DENY"));
        response.set_header(Header::new("Referrer-Policy", "no-referrer"));
        response.set_header(Header::new("Cross-Origin-Opener-Policy", "same-origin"));
        response.set_header(Header::new("Cross-Origin-Resource-Policy", "same-origin"));
        response.set_header(Header::new("Permissions-Policy", "camera=(), microphone=(), geolocation=()"));
        if request.uri().path().starts_with("/api") {
            response.set_header(Header::new("Cache-Control", "no-store"));
            // An answer of the API is data; opened as a page it must do nothing.
            // A sheet to print carries its size of paper as its only style.
            let printed = response.content_type().is_some_and(|t| t.is_html());
            let policy = if printed {
                "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'"
            } else {
                "default-src 'none'; frame-ancestors 'none'"
            };
            response.set_header(Header::new("Content-Security-Policy", policy));
        }
        let id = request.local_cache(|| RequestId::of(request));
        response.set_header(Header::new(REQUEST_ID, id.0.clone()));
        let took = request.local_cache(Instant::now).elapsed();
        if let Some(metrics) = request.rocket().state::<Metrics>() {
            metrics.answered(request, response, took);
        }
        tracing::info!(
            request = %id.0,
            method = %request.method(),
            path = %request.uri().path(),
            status = response.status().code,
            micros = took.as_micros() as u64,
            "request"
        );
    }
}

/// Packs what the API answers: JSON of a long recording shrinks to a tenth. The front end's files are packed when they are
/// first sent (see `page`).
pub struct Packed;

/// Less than one network packet is not worth it.
const MIN_BYTES: usize = 1_400;

#[rocket::async_trait]
impl Fairing for Packed {
    fn info(&self) -> Info {
        Info { name: "gzip for the API", kind: Kind::Response }
    }

    async fn on_response<'r>(&self, request: &'r Request<'_>, response: &mut Response<'r>) {
        let takes =
            request.headers().get("Accept-Encoding").any(|e| e.split(',').any(|e| e.trim().starts_with("gzip")));
        let api = request.uri().path().starts_with("/api");
        let packed = response.headers().contains("Content-Encoding");
        let small = response.body().preset_size().is_none_or(|n| n < MIN_BYTES);
        if !api || packed || small {
            return;
        }
        response.adjoin_raw_header("Vary", "Accept-Encoding");
        if !takes {
            return;
        }
        let Ok(bytes) = response.body_mut().to_bytes().await else { return };
        // The fastest level: answers are made anew each time, and the network here is seldom slow.
        let mut encoder = GzEncoder::new(Vec::new(), Compression::fast());
        let body = encoder.write_all(&bytes).and_then(|()| encoder.finish()).expect("memory takes every byte");
        response.set_raw_header("Content-Encoding", "gzip");
        response.set_sized_body(body.len(), Cursor::new(body));
    }
}
