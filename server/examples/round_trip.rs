//! Measures the round trip of an edit on a 300-step manual over HTTP, and what the disk's own sync takes of it.
//!
//! `cargo run --release -p paso-server --example round_trip`

use paso_cluster::{Cluster, Durability};
use paso_server::{serve, store::Store};
use serde_json::json;
use std::io::Write;
use std::time::{Duration, Instant};
use uuid::Uuid;

const STEPS: usize = 300;
const EDITS: usize = 500;

#[rocket::main]
async fn main() -> Result<(), Box<dyn std::error::Error>> {
    for durability in [Durability::Safe, Durability::Volatile] {
        let dir = std::env::temp_dir().join(format!("paso-round-trip-{}-{durability:?}", std::process::id()));
        let cluster = Cluster::start(&dir, durability)?;
        paso_cluster::watch(&cluster);
        cluster.create_database("paso")?;
        let store = serve::open(&cluster.url("paso")).await?;
        report(&format!("database {durability:?}"), measure(store).await?);
    }
    report("one fdatasync of 8 kB", syncs()?);
    Ok(())
}

async fn measure(store: Store) -> Result<Vec<Duration>, Box<dyn std::error::Error>> {
    let text: String = (0..STEPS)
        .map(|n| format!("[{}:{:02}] Remove four Phillips PH1 screws, length 8 millimetres, from the cover {n}. Lift off the cover {n}.\n\n", n / 4, n % 4 * 15))
        .collect();
    let recording = store.bring("long", text.into_bytes()).await?;
    let id = store.create("Long", "", &[recording.id.0]).await?;
    let (mut seq, manual) = store.manual(id).await?;
    let order = manual.order();
    let port = paso_cluster::free_port()?;
    let rocket = serve::rocket(store, port).ignite().await?;
    let shutdown = rocket.shutdown();
    let served = rocket::tokio::spawn(rocket.launch());
    let client = reqwest::Client::new();
    let url = format!("http://127.0.0.1:{port}/api/manuals/{id}/edits");
    let mut times = Vec::new();
    for n in 0..EDITS {
        let edit = json!({"step": {"set": {"id": order[n % order.len()], "field": {"title": format!("Title {n}")}}}});
        let body = json!({"id": Uuid::now_v7(), "base_seq": seq, "edit": edit});
        let start = Instant::now();
        let answer = client.post(&url).json(&body).send().await;
        let Ok(answer) = answer else {
            rocket::tokio::time::sleep(Duration::from_millis(100)).await;
            continue;
        };
        let applied: serde_json::Value = answer.json().await?;
        times.push(start.elapsed());
        seq = applied["seq"].as_i64().unwrap_or(seq);
    }
    println!("{} steps, {} edits acknowledged", order.len(), times.len());
    shutdown.notify();
    served.await??;
    Ok(times)
}

fn syncs() -> std::io::Result<Vec<Duration>> {
    let path = std::env::temp_dir().join(format!("paso-sync-{}", std::process::id()));
    let mut file = std::fs::File::create(&path)?;
    let mut times = Vec::new();
    for _ in 0..200 {
        file.write_all(&[7; 8192])?;
        let start = Instant::now();
        file.sync_data()?;
        times.push(start.elapsed());
    }
    std::fs::remove_file(path)?;
    Ok(times)
}

fn report(what: &str, mut times: Vec<Duration>) {
    times.sort();
    let at = |share: f64| times[((times.len() - 1) as f64 * share) as usize].as_secs_f64() * 1e3;
    println!("{what}: p50 {:.2} ms, p95 {:.2} ms, max {:.2} ms", at(0.5), at(0.95), at(1.0));
}
