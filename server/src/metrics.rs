//! Figures for whoever runs the server, in the text format that Prometheus reads.

use crate::store::{Figures, Store};
use prometheus_client::encoding::{EncodeLabelSet, text};
use prometheus_client::metrics::counter::Counter;
use prometheus_client::metrics::family::Family;
use prometheus_client::metrics::gauge::Gauge;
use prometheus_client::metrics::histogram::{Histogram, exponential_buckets};
use prometheus_client::registry::{Registry, Unit};
use rocket::http::{ContentType, Status};
use rocket::{Request, Response, Route, State, get, routes};
use std::sync::atomic::Ordering;
use std::time::Duration;

#[derive(Debug, Clone, PartialEq, Eq, Hash, EncodeLabelSet)]
struct Answer {
    method: String,
    status: u32,
}

/// What is counted while the server runs.
pub struct Metrics {
    registry: Registry,
    requests: Family<Answer, Counter>,
    seconds: Histogram,
    readings: Counter,
    reading: Gauge,
    connections: Gauge,
    idle: Gauge,
    database_bytes: Gauge,
}

impl Default for Metrics {
    fn default() -> Self {
        let mut registry = Registry::with_prefix("paso");
        let requests = Family::<Answer, Counter>::default();
        registry.register("requests", "Requests answered", requests.clone());
        // From a millisecond to half a minute.
        let seconds = Histogram::new(exponential_buckets(0.001, 2.0, 15));
        registry.register_with_unit("request", "Time to answer a request", Unit::Seconds, seconds.clone());
        let readings = Counter::default();
        registry.register("readings", "Readings and drafts done since the start", readings.clone());
        let mut gauge = |name: &str, help: &str| {
            let gauge = Gauge::default();
            registry.register(name, help, gauge.clone());
            gauge
        };
        let reading = gauge("readings_now", "Recordings being read");
        let connections = gauge("database_connections", "Connections to the database");
        let idle = gauge("database_connections_idle", "Connections that wait for work");
        let database_bytes = gauge("database_bytes", "What the database takes on its disk");
        Self { registry, requests, seconds, readings, reading, connections, idle, database_bytes }
    }
}

impl Metrics {
    /// Counts one answer.
    pub fn answered(&self, request: &Request<'_>, response: &Response<'_>, took: Duration) {
        let answer = Answer { method: request.method().to_string(), status: u32::from(response.status().code) };
        self.requests.get_or_create(&answer).inc();
        self.seconds.observe(took.as_secs_f64());
    }

    fn text(&self, figures: &Figures) -> Option<String> {
        // The store counts them.
        self.readings.inner().store(figures.readings, Ordering::Relaxed);
        self.reading.set(figures.reading as i64);
        self.connections.set(figures.connections as i64);
        self.idle.set(figures.idle as i64);
        self.database_bytes.set(figures.database_bytes);
        let mut out = String::new();
        text::encode(&mut out, &self.registry).ok()?;
        Some(out)
    }
}

/// The figures as they stand now.
#[get("/metrics")]
async fn metrics(metrics: &State<Metrics>, store: &State<Store>) -> Result<(ContentType, String), Status> {
    let kind =
        ContentType::new("application", "openmetrics-text").with_params([("version", "1.0.0"), ("charset", "utf-8")]);
    metrics.text(&store.figures().await).map(|text| (kind, text)).ok_or(Status::InternalServerError)
}

/// The route of the figures, beside the API: no page asks for them.
pub fn endpoints() -> Vec<Route> {
    routes![metrics]
}
