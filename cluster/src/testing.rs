//! Clusters of tests: gone when the test process is gone, however that ends.

use crate::programs::{is_root, unique};
use crate::{Cluster, Durability};
use std::path::Path;
use std::process::{Command, Stdio};
use std::sync::OnceLock;

/// A fresh, empty database for one test, on a cluster that this test process owns.
///
/// # Panics
/// If the cluster cannot start; a test cannot go on without it.
pub fn test_database() -> String {
    static SHARED: OnceLock<Cluster> = OnceLock::new();
    let cluster = SHARED.get_or_init(|| {
        let dir = std::env::temp_dir().join(format!("paso-test-{}", std::process::id()));
        let cluster = Cluster::start(&dir, Durability::Volatile).expect("a cluster for the tests");
        watch(&cluster);
        cluster
    });
    let name = format!("test_{}", unique());
    cluster.create_database(&name).expect("a database for the test");
    cluster.url(&name)
}

/// Stops the cluster and removes its folder once this process is gone.
///
/// # Panics
/// If no shell can be started.
pub fn watch(cluster: &Cluster) {
    let stop = if is_root() { "runuser -u postgres -- " } else { "" };
    let script = format!("cd /; {stop}\"$1\" -D \"$2\" -m immediate stop; rm -rf -- \"$2\"");
    after_us(&script, &[&cluster.bin.join("pg_ctl"), &cluster.dir]);
}

/// Runs a shell script once this process is gone, however it ends; statics are never dropped. The script finds the paths
/// as `$1`, `$2` and so on.
///
/// # Panics
/// If no shell can be started.
pub fn after_us(script: &str, paths: &[&Path]) {
    let waits = format!("while kill -0 {} 2>/dev/null; do sleep 1; done; {script}", std::process::id());
    Command::new("setsid")
        .args(["--fork", "sh", "-c", &waits, "sh"])
        .args(paths)
        .stdin(Stdio::null())
        .stdout(Stdio::null())
        .stderr(Stdio::null())
        .status()
        .expect("a watcher");
}
