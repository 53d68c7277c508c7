//! A cluster keeps its data, is found again while it runs, and says what is wrong.

use paso_cluster::{Cluster, ClusterError, Durability, free_port, test_database, watch};
use std::process::Command;

fn folder(name: &str) -> std::path::PathBuf {
    std::env::temp_dir().join(format!("paso-cluster-{}-{name}", std::process::id()))
}

#[test]
fn a_running_cluster_is_used_as_it_is_and_a_stopped_one_keeps_its_databases() {
    let dir = folder("kept");
    let first = Cluster::start(&dir, Durability::Volatile).expect("a cluster");
    watch(&first);
    first.create_database("kept").expect("a database");
    let second = Cluster::start(&dir, Durability::Volatile).expect("the same cluster");
    assert_eq!(first.url("kept"), second.url("kept"), "one server, one port");
    second.stop(false).expect("stopped");
    let third = Cluster::start(&dir, Durability::Volatile).expect("started anew");
    third.create_database("kept").expect("there already is no error");
    assert!(third.url("kept").starts_with("postgres://postgres@127.0.0.1:"));
    third.stop(true).expect("stopped at once");
}

#[test]
fn a_server_that_was_stopped_at_once_comes_up_again() {
    let dir = folder("crashed");
    let cluster = Cluster::start(&dir, Durability::Safe).expect("a cluster");
    watch(&cluster);
    cluster.stop(true).expect("stopped at once");
    let again = Cluster::start(&dir, Durability::Safe).expect("recovered");
    again.create_database("after").expect("it takes work");
    again.stop(false).expect("stopped");
}

#[test]
fn a_folder_that_is_no_folder_is_refused_in_a_sentence() {
    let path = folder("file");
    std::fs::write(&path, "not a folder").expect("a file");
    let error = Cluster::start(&path, Durability::Safe).expect_err("no cluster in a file");
    assert!(matches!(error, ClusterError::Io { .. }), "{error}");
    assert!(error.to_string().starts_with("making the folder"), "{error}");
}

/// Only root has a second user to shut out.
#[test]
fn a_folder_that_the_database_user_cannot_enter_is_named() {
    let root = Command::new("id").arg("-u").output().is_ok_and(|o| o.stdout.trim_ascii() == b"0");
    if !root {
        return;
    }
    let shut = folder("shut");
    std::fs::create_dir_all(shut.join("data")).expect("folders");
    Command::new("chmod").arg("700").arg(&shut).status().expect("chmod");
    let error = Cluster::start(&shut.join("data"), Durability::Safe).expect_err("shut out");
    assert!(matches!(error, ClusterError::NotEnterable(_)), "{error}");
    assert!(error.to_string().contains("--data"), "it says what would be right: {error}");
}

#[test]
fn every_test_gets_a_database_of_its_own() {
    let (one, two) = (test_database(), test_database());
    assert_ne!(one, two);
    assert_ne!(free_port().expect("a port"), 0);
}
