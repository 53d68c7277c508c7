//! Measures the round trip of an edit on a 300-step manual over HTTP, and what the disk's own sync takes of it.
//!
//! `cargo run --release -p paso-server --example round_trip`

use paso_cluster::{Cluster, Durability};
use paso_core::ids::*;
use paso_core::manual::{Action, CautionEdit, ConnectorEdit, Edit, FastenerEdit, FastenerField, Phase, StepEdit};
use paso_core::reading::{Act, CautionSubject, Drive};
use paso_server::store::EditRequest;
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
    let id = ManualId(Uuid::now_v7());
    store.create(id, "Long", "", &[]).await?;
    let kept = build(&store, id).await?;
    let port = paso_cluster::free_port()?;
    let rocket = serve::rocket(store, port, &[]).ignite().await?;
    let shutdown = rocket.shutdown();
    let served = rocket::tokio::spawn(rocket.launch());
    let client = reqwest::Client::new();
    let url = format!("http://127.0.0.1:{port}/api/manuals/{id}/edits");
    let (mut seq, mut times) = (kept.seq, Vec::new());
    for n in 0..EDITS {
        let edit = json!({"step": {"set": {"id": kept.steps[n % STEPS], "field": {"title": format!("Title {n}")}}}});
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
    println!("{STEPS} steps, {} edits acknowledged", times.len());
    shutdown.notify();
    served.await??;
    Ok(times)
}

/// A manual that was built by edits, and the newest of them.
struct Built {
    steps: Vec<StepId>,
    seq: i64,
}

/// Steps as an author writes them: each with a sentence and a group of screws, every third with a connector, every fifth
/// with a caution.
async fn build(store: &Store, id: ManualId) -> Result<Built, Box<dyn std::error::Error>> {
    let mut built = Built { steps: Vec::new(), seq: 0 };
    for n in 0..STEPS {
        let step = StepId(Uuid::now_v7());
        let title = format!("Remove the cover {n}");
        let text = format!("Remove four PH1 screws, 8 mm, from the cover {n}. Lift off the cover {n}.");
        let actions = vec![Action::typed(ActionId(Uuid::now_v7()), Act::Remove, vec![], &text)];
        let group = GroupId(Uuid::now_v7());
        let set = |field| Edit::Fastener(FastenerEdit::Set { id: group, field });
        let after = built.steps.last().copied();
        let mut edits = vec![
            Edit::Step(StepEdit::Add { id: step, phase: Phase::Teardown, after, title, actions }),
            Edit::Fastener(FastenerEdit::Add { id: group, step }),
            set(FastenerField::Count(Some(4))),
            set(FastenerField::Drive(Some(Drive::Phillips))),
            set(FastenerField::LengthMm(Some(4.0 + (n % 5) as f64))),
        ];
        if n % 3 == 0 {
            edits.push(Edit::Connector(ConnectorEdit::Add { id: ConnectorId(Uuid::now_v7()), step }));
        }
        if n % 5 == 0 {
            let (id, about) = (CautionId(Uuid::now_v7()), CautionSubject::Cable);
            edits.push(Edit::Caution(CautionEdit::Add {
                id,
                step,
                about,
                hazard: None,
                text: "Mind the cable.".into(),
            }));
        }
        for edit in edits {
            let request = EditRequest { id: Uuid::now_v7(), base_seq: built.seq, edit };
            built.seq = store.edit(id, "Ann", &request).await?.seq;
        }
        built.steps.push(step);
    }
    Ok(built)
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
