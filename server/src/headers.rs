//! Headers that every answer carries, and one line of log for each.

use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::Header;
use rocket::{Data, Request, Response};
use std::time::Instant;

/// Security headers and the request log.
pub struct Headers;

#[rocket::async_trait]
impl Fairing for Headers {
    fn info(&self) -> Info {
        Info { name: "security headers and request log", kind: Kind::Request | Kind::Response }
    }

    async fn on_request(&self, request: &mut Request<'_>, _: &mut Data<'_>) {
        request.local_cache(Instant::now);
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
        let took = request.local_cache(Instant::now).elapsed();
        tracing::info!(
            method = %request.method(),
            path = %request.uri().path(),
            status = response.status().code,
            micros = took.as_micros() as u64,
            "request"
        );
    }
}
