//! Crash: the server is killed in the middle of a burst of edits, the database with it; every acknowledged edit is there.

use paso_cluster::{Cluster, Durability};
use serde_json::{Value, json};
use std::process::{Child, Command, Stdio};
use std::time::Duration;
use uuid::Uuid;

fn serve(url: &str, port: u16) -> Child {
    Command::new(env!("CARGO_BIN_EXE_paso"))
        .args(["serve", "--no-demo", "--port", &port.to_string()])
        .env("DATABASE_URL", url)
        .stdout(Stdio::null())
        .stderr(Stdio::null())
        .spawn()
        .expect("the server")
}

async fn answers(base: &str) {
    for _ in 0..150 {
        if reqwest::get(format!("{base}/api/health")).await.is_ok_and(|r| r.status().is_success()) {
            return;
        }
        tokio::time::sleep(Duration::from_millis(100)).await;
    }
    panic!("the server did not start");
}

#[tokio::test(flavor = "multi_thread")]
async fn every_acknowledged_edit_survives_a_crash() {
    let dir = std::env::temp_dir().join(format!("paso-crash-{}", std::process::id()));
    let cluster = Cluster::start(&dir, Durability::Safe).expect("a cluster");
    paso_cluster::watch(&cluster);
    cluster.create_database("paso").expect("a database");
    let port = paso_cluster::free_port().expect("a port");
    let base = format!("http://127.0.0.1:{port}");
    let client = reqwest::Client::new();

    let mut server = serve(&cluster.url("paso"), port);
    answers(&base).await;
    let made: Value = client
        .post(format!("{base}/api/manuals"))
        .json(&json!({"title": "Crash"}))
        .send()
        .await
        .unwrap()
        .json()
        .await
        .unwrap();
    let manual = made["id"].as_str().unwrap().to_owned();

    // Edits come one after the other until the server dies under them.
    let burst = tokio::spawn({
        let (client, base, manual) = (client.clone(), base.clone(), manual.clone());
        async move {
            let mut acknowledged = Vec::new();
            for seq in 0.. {
                let title = format!("Title {seq}");
                let body = json!({"id": Uuid::now_v7(), "base_seq": seq, "edit": {"head": {"title": title}}});
                match client.post(format!("{base}/api/manuals/{manual}/edits")).json(&body).send().await {
                    Ok(answer) if answer.status().is_success() => acknowledged.push(title),
                    _ => break,
                }
            }
            acknowledged
        }
    });
    tokio::time::sleep(Duration::from_millis(1_500)).await;
    server.kill().expect("killed");
    server.wait().expect("gone");
    cluster.stop(true).expect("the database falls with it");
    let acknowledged = burst.await.unwrap();
    assert!(acknowledged.len() > 20, "a burst, not {}", acknowledged.len());

    let cluster = Cluster::start(&dir, Durability::Safe).expect("the same cluster");
    let mut server = serve(&cluster.url("paso"), port);
    answers(&base).await;
    let history: Value =
        reqwest::get(format!("{base}/api/manuals/{manual}/history")).await.unwrap().json().await.unwrap();
    let kept: Vec<&str> =
        history.as_array().unwrap().iter().filter_map(|e| e["edit"]["head"]["title"].as_str()).collect();
    for title in acknowledged.iter().rev().take(kept.len().saturating_sub(1)) {
        assert!(kept.contains(&title.as_str()), "{title} was acknowledged and is gone");
    }
    let view: Value = reqwest::get(format!("{base}/api/manuals/{manual}")).await.unwrap().json().await.unwrap();
    let seq = view["seq"].as_u64().unwrap() as usize;
    // The last edit may have been written and its acknowledgement lost; never the other way round.
    assert!(
        seq == acknowledged.len() || seq == acknowledged.len() + 1,
        "{seq} kept, {} acknowledged",
        acknowledged.len()
    );
    server.kill().expect("killed");
    server.wait().expect("gone");
}
