//! Serving: database, migrations, Rocket.

use crate::migration::Migrator;
use crate::routes::body::Patience;
use crate::store::{self, Store};
use crate::{api, gate, headers, metrics, page, problem};
use paso_cluster::Cluster;
use rocket::config::{Config, LogLevel, Shutdown};
use rocket::data::{Limits, ToByteUnit};
use rocket::{Build, Rocket, catchers};
use sea_orm::{ConnectOptions, Database};
use sea_orm_migration::MigratorTrait;
use std::net::{IpAddr, Ipv4Addr};
use std::time::Duration;
use thiserror::Error;
use time::OffsetDateTime;

/// Why the server did not start.
#[derive(Debug, Error)]
pub enum ServeError {
    #[error("The database at {url} does not answer: {source}")]
    Database { url: String, source: sea_orm::DbErr },
    #[error("The tables could not be brought up to date: {0}")]
    Migration(sea_orm::DbErr),
    #[error("The server did not start: {0}")]
    Rocket(Box<rocket::Error>),
    #[error(transparent)]
    Cluster(#[from] paso_cluster::ClusterError),
    #[error("The database server fell and does not come up again: {0}")]
    Fell(paso_cluster::ClusterError),
    #[error("The demo could not be loaded: {0}")]
    Demo(String),
}

/// Connects, brings the tables up to date, and gives the store.
///
/// # Errors
/// Names the database without its password.
pub async fn open(url: &str) -> Result<Store, ServeError> {
    let mut options = ConnectOptions::new(url);
    options.max_connections(8).min_connections(1).connect_timeout(Duration::from_secs(10)).sqlx_logging(false);
    let db = Database::connect(options)
        .await
        .map_err(|source| ServeError::Database { url: without_password(url), source })?;
    Migrator::up(&db, None).await.map_err(ServeError::Migration)?;
    Ok(Store::new(db))
}

fn without_password(url: &str) -> String {
    match (url.split_once("://"), url.rsplit_once('@')) {
        (Some((scheme, _)), Some((_, host))) => format!("{scheme}://…@{host}"),
        _ => url.to_owned(),
    }
}

/// The server, ready to launch, under the names of loopback and these hosts. Port 0 means a free one.
pub fn rocket(store: Store, port: u16, hosts: &[String]) -> Rocket<Build> {
    rocket_with(store, port, gate::Gate::new(hosts), Patience::default())
}

/// The same with bounds of its own.
pub fn rocket_with(store: Store, port: u16, gate: gate::Gate, patience: Patience) -> Rocket<Build> {
    let config = Config {
        address: IpAddr::V4(Ipv4Addr::LOCALHOST),
        port,
        log_level: LogLevel::Off,
        cli_colors: false,
        limits: Limits::default().limit("json", 1.mebibytes()).limit("string", 16.mebibytes()),
        shutdown: Shutdown { grace: 2, mercy: 3, ..Shutdown::default() },
        ..Config::default()
    };
    rocket::custom(config)
        .manage(store)
        .manage(metrics::Metrics::default())
        .manage(patience)
        .attach(gate)
        .attach(headers::Headers)
        .attach(headers::Packed)
        .mount("/api", api::routes())
        .mount("/", gate::routes())
        .mount("/", metrics::endpoints())
        .mount("/", page::routes())
        .register("/", catchers![problem::catch_all])
}

/// Serves until a signal asks to stop; requests under way are finished. A cluster of our own is started again where it
/// falls.
///
/// # Errors
/// Says why the server did not start, or why its database does not come up again.
pub async fn run(store: Store, port: u16, hosts: &[String], cluster: Option<&Cluster>) -> Result<(), ServeError> {
    let launched = rocket(store.clone(), port, hosts).attach(rocket::fairing::AdHoc::on_liftoff("address", |rocket| {
        Box::pin(async move {
            let config = rocket.config();
            println!("Paso is at http://{}:{}  (Ctrl-C stops it)", config.address, config.port);
        })
    }));
    tokio::select! {
        served = launched.launch() => served.map(drop).map_err(|e| ServeError::Rocket(Box::new(e)))?,
        fell = watch_over(&store, cluster) => return Err(fell),
        () = purge_daily(&store) => {}
    }
    store.close().await;
    Ok(())
}

/// Purges what was deleted long enough ago, at the start and once a day.
async fn purge_daily(store: &Store) {
    const DAY: Duration = Duration::from_secs(86_400);
    loop {
        if let Err(error) = store.purge(OffsetDateTime::now_utc() - store::KEPT).await {
            tracing::warn!(%error, "purging");
        }
        tokio::time::sleep(DAY).await;
    }
}

/// How often the database is asked whether it is there.
const ROUND: Duration = Duration::from_secs(2);

/// Starts the cluster again whenever it has fallen; ends where it cannot be started.
async fn watch_over(store: &Store, cluster: Option<&Cluster>) -> ServeError {
    let Some(cluster) = cluster else { return std::future::pending().await };
    loop {
        tokio::time::sleep(ROUND).await;
        // A pool whose server refuses it asks again for as long as it may; silence is answer enough.
        if tokio::time::timeout(ROUND, store.ping()).await == Ok(true) {
            continue;
        }
        match tokio::task::block_in_place(|| cluster.revive()) {
            Ok(true) => tracing::error!("the database server had fallen and was started again"),
            Ok(false) => {}
            Err(error) => return ServeError::Fell(error),
        }
    }
}
