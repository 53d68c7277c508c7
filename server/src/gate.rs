//! Who may talk to the server: Paso's own page, and programs that say they are one.
//!
//! The server listens on loopback, where any page in the author's browser can reach it. So a name that is not ours is
//! refused (DNS rebinding), a request that another page sends is refused, and a write must carry what a foreign page cannot
//! send without asking first: JSON, or the header of our own. Forms are refused whole: Rocket reads a method out of them.
//!
//! Source: Fetch Metadata Request Headers (W3C) and the same-origin rules of the Fetch standard, from memory.

use crate::problem::Problem;
use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::uri::Origin;
use rocket::http::{Method, Status};
use rocket::{Data, Request, Route, get, routes};
use std::sync::Arc;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

/// Turns away whoever may not talk to the server.
pub struct Gate {
    /// Names besides those of loopback, lower case, without a port.
    hosts: Vec<String>,
    /// Places for requests in work.
    places: Arc<Semaphore>,
}

/// Requests in work at once: many times what a house of authors needs. Beyond it each would only wait for the others, and
/// be slower for everybody.
const PLACES: usize = 256;

/// The place of a request, given back when the request is gone.
struct Place(#[expect(dead_code, reason = "it is held, not read")] Option<OwnedSemaphorePermit>);

/// Why a request is turned away; the route that answers reads it.
#[derive(Default, Clone)]
struct Refused(Option<Problem>);

/// Where a refused request goes: nothing else is ever routed there.
const ANSWER: &str = "/-refused";

/// The header that only our own page and programs that mean it send.
const OWN_HEADER: &str = "Paso-Author";

impl Gate {
    /// Admits the names of loopback and these.
    pub fn new(hosts: &[String]) -> Self {
        Self { hosts: hosts.iter().map(|h| h.to_lowercase()).collect(), places: Arc::new(Semaphore::new(PLACES)) }
    }

    /// The same with other bounds.
    #[must_use]
    pub fn with_places(self, places: usize) -> Self {
        Self { places: Arc::new(Semaphore::new(places)), ..self }
    }

    /// Takes a place for a request of the API, or says that there is none.
    fn crowded(&self, request: &Request<'_>) -> Option<Problem> {
        if !request.uri().path().starts_with("/api") || request.uri().path() == "/api/live" {
            return None;
        }
        let place = self.places.clone().try_acquire_owned().ok();
        let full = place.is_none();
        request.local_cache(|| Place(place));
        let detail = "The server has more to do than it can. Nothing was changed; it is sent again in a moment.";
        full.then(|| Problem::new(Status::ServiceUnavailable, "busy", "Busy", detail))
    }

    fn refusal(&self, request: &Request<'_>) -> Option<Problem> {
        let header = |name: &str| request.headers().get_one(name);
        let refused = |detail: String| Some(Problem::new(Status::Forbidden, "foreign", "Not from here", detail));
        let host = header("Host").map(|h| without_port(h).to_lowercase());
        if let Some(host) = host.as_deref().filter(|h| !self.admits(h)) {
            return refused(format!(
                "This server does not go by the name “{host}”. Use http://localhost, or start it with --host {host}."
            ));
        }
        if let Some(origin) = header("Origin").filter(|o| !same_origin(o, header("Host"))) {
            return refused(format!("A page of {origin} may not use this server. Open Paso's own page."));
        }
        let api = request.uri().path().starts_with("/api");
        let foreign = header("Sec-Fetch-Site").is_some_and(|s| !matches!(s, "same-origin" | "none"));
        if api && foreign {
            return refused("Another page may not use this server. Open Paso's own page.".to_owned());
        }
        let writes = !matches!(request.method(), Method::Get | Method::Head | Method::Options);
        let kind = request.content_type();
        let form = kind.is_some_and(|k| k.is_form() || k.is_form_data());
        let json = kind.is_some_and(|k| k.is_json());
        if form || writes && !json && header(OWN_HEADER).is_none() {
            let detail = format!("A change is sent as application/json, or with the header {OWN_HEADER}: your name.");
            return Some(Problem::new(Status::UnsupportedMediaType, "media-type", "Not understood", detail));
        }
        None
    }

    fn admits(&self, host: &str) -> bool {
        matches!(host, "localhost" | "127.0.0.1" | "[::1]") || self.hosts.iter().any(|h| h == host)
    }
}

/// "localhost" of "localhost:8000", "[::1]" of "[::1]:8000".
fn without_port(host: &str) -> &str {
    let digits = |port: &str| port.bytes().all(|b| b.is_ascii_digit());
    host.rsplit_once(':').filter(|(_, port)| digits(port)).map_or(host, |(name, _)| name)
}

/// Whether an `Origin` names the server that was asked.
fn same_origin(origin: &str, host: Option<&str>) -> bool {
    let asked = origin.strip_prefix("http://").or_else(|| origin.strip_prefix("https://"));
    asked.zip(host).is_some_and(|(asked, host)| asked.eq_ignore_ascii_case(host))
}

#[rocket::async_trait]
impl Fairing for Gate {
    fn info(&self) -> Info {
        Info { name: "only our own page", kind: Kind::Request }
    }

    async fn on_request(&self, request: &mut Request<'_>, _: &mut Data<'_>) {
        if let Some(problem) = self.refusal(request).or_else(|| self.crowded(request)) {
            tracing::warn!(method = %request.method(), path = %request.uri().path(), why = %problem.detail, "refused");
            request.local_cache(|| Refused(Some(problem)));
            // A fairing cannot answer; it can only send the request where it is answered.
            request.set_method(Method::Get);
            request.set_uri(Origin::parse(ANSWER).expect("a path"));
        }
    }
}

#[rocket::async_trait]
impl<'r> rocket::request::FromRequest<'r> for Refused {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, Self::Error> {
        rocket::request::Outcome::Success(request.local_cache(Refused::default).clone())
    }
}

/// Answers who was turned away.
#[get("/-refused")]
fn answer(refused: Refused) -> Problem {
    refused.0.unwrap_or_else(|| Problem::not_found("page"))
}

/// The route that answers who was turned away.
pub fn routes() -> Vec<Route> {
    routes![answer]
}
