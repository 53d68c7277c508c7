//! A cluster keeps its data, has one owner, lets in nobody without a password, and says what is wrong.

use paso_cluster::{Cluster, ClusterError, Durability, after_us, free_port, test_database, watch};
use std::os::unix::fs::{MetadataExt, PermissionsExt};
use std::path::{Path, PathBuf};
use std::process::Command;

fn folder(name: &str) -> PathBuf {
    std::env::temp_dir().join(format!("paso-cluster-{}-{name}", std::process::id()))
}

fn is_root() -> bool {
    Command::new("id").arg("-u").output().is_ok_and(|o| o.stdout.trim_ascii() == b"0")
}

/// A query's answer, or what the server says against it.
fn asked(url: &str, sql: &str) -> Result<String, String> {
    let out = Command::new("psql").args(["-X", "-w", "-t", "-A", "-c", sql, url]).output().expect("psql");
    let text = |bytes: Vec<u8>| String::from_utf8_lossy(&bytes).trim().to_owned();
    if out.status.success() { Ok(text(out.stdout)) } else { Err(text(out.stderr)) }
}

/// The server's process, as its note has it.
fn process(dir: &Path) -> String {
    let note = std::fs::read_to_string(dir.join("postmaster.pid")).expect("it runs");
    note.lines().next().expect("a number").to_owned()
}

#[test]
fn a_stopped_cluster_keeps_its_databases() {
    let dir = folder("kept");
    let first = Cluster::start(&dir, Durability::Volatile).expect("a cluster");
    watch(&first);
    first.create_database("kept").expect("a database");
    asked(&first.url("kept"), "CREATE TABLE t (n int)").expect("a table");
    first.stop(false).expect("stopped");
    let second = Cluster::start(&dir, Durability::Volatile).expect("started anew");
    second.create_database("kept").expect("there already is no error");
    assert_eq!(asked(&second.url("kept"), "SELECT count(*) FROM t").as_deref(), Ok("0"));
    second.stop(true).expect("stopped at once");
}

#[test]
fn a_folder_has_one_owner_who_is_named_and_a_server_left_behind_is_taken_over() {
    let dir = folder("owned");
    let first = Cluster::start(&dir, Durability::Volatile).expect("a cluster");
    watch(&first);
    let url = first.url("postgres");
    let refused = Cluster::start(&dir, Durability::Volatile).expect_err("it has an owner").to_string();
    assert!(refused.contains("in use by another Paso") && refused.contains("--data"), "{refused}");
    assert!(refused.contains(&format!("process {}", std::process::id())), "{refused}");
    assert!(asked(&url, "SELECT 1").is_ok(), "who was refused has stopped nothing");
    // As after a kill: nobody owns the folder, and the server goes on.
    drop(first);
    let heir = Cluster::start(&dir, Durability::Volatile).expect("the same server");
    assert_eq!(heir.url("postgres"), url, "one server, one port");
    heir.stop(true).expect("stopped");
}

#[test]
fn nobody_comes_in_without_the_password_and_who_comes_in_is_no_superuser() {
    let dir = folder("shut-in");
    let cluster = Cluster::start(&dir, Durability::Volatile).expect("a cluster");
    watch(&cluster);
    cluster.create_database("mine").expect("a database");
    let url = cluster.url("mine");
    let password = url.split([':', '@']).nth(2).expect("a password");
    for user in ["postgres", "paso"] {
        let open = url.replace(&format!("paso:{password}@"), &format!("{user}@"));
        let refused = asked(&open, "SELECT 1").expect_err("no password");
        assert!(refused.contains("no password supplied"), "{refused}");
        let wrong = url.replace(&format!("paso:{password}@"), &format!("{user}:wrong@"));
        let refused = asked(&wrong, "SELECT 1").expect_err("a wrong password");
        assert!(refused.contains("password authentication failed"), "{refused}");
    }
    let role =
        asked(&url, "SELECT rolsuper OR rolcreaterole OR rolcreatedb FROM pg_roles WHERE rolname = current_user");
    assert_eq!(role.as_deref(), Ok("f"));
    assert_eq!(asked(&url, "SHOW data_checksums").as_deref(), Ok("on"));
    let secret = std::fs::metadata(dir.join("paso.secret")).expect("it is kept");
    assert_eq!(secret.permissions().mode() & 0o777, 0o600);
    cluster.stop(true).expect("stopped");
}

/// The first versions trusted whoever reached the port and let everything belong to the superuser.
#[test]
fn a_cluster_of_the_first_versions_is_shut_and_keeps_its_tables() {
    let dir = folder("early");
    std::fs::create_dir_all(&dir).expect("a folder");
    let owner = |program: &str| {
        let program = Cluster::programs().expect("PostgreSQL").join(program);
        let mut command = Command::new(if is_root() { Path::new("runuser") } else { &program });
        if is_root() {
            command.args(["-u", "postgres", "--"]).arg(&program);
        }
        command.current_dir("/");
        command
    };
    if is_root() {
        assert!(Command::new("chown").arg("postgres:").arg(&dir).status().expect("chown").success());
    }
    let port = free_port().expect("a port");
    let init = owner("initdb").args(["-A", "trust", "-U", "postgres", "-D"]).arg(&dir).output().expect("initdb");
    assert!(init.status.success(), "{init:?}");
    let options = format!("-c listen_addresses=127.0.0.1 -p {port} -c unix_socket_directories= -c fsync=off");
    let mut start = owner("pg_ctl");
    start.args(["-w", "-o", &options, "start", "-l"]).arg(dir.join("server.log")).arg("-D").arg(&dir);
    assert!(start.stdout(std::process::Stdio::null()).status().expect("pg_ctl").success());
    let open = |database: &str| format!("postgres://postgres@127.0.0.1:{port}/{database}");
    asked(&open("postgres"), "CREATE DATABASE early").expect("trusted");
    asked(&open("early"), "CREATE TABLE t (n int)").expect("trusted");

    let cluster = Cluster::start(&dir, Durability::Volatile).expect("taken over");
    watch(&cluster);
    cluster.create_database("early").expect("it is there");
    let belongs =
        "INSERT INTO t VALUES (1); ALTER TABLE t ADD m int; SELECT tableowner FROM pg_tables WHERE tablename = 't'";
    assert!(asked(&cluster.url("early"), belongs).expect("it belongs to the role").ends_with("paso"));
    asked(&open("early"), "SELECT 1").expect_err("nobody is trusted any more");
    cluster.stop(true).expect("stopped");
}

#[test]
fn a_server_that_was_stopped_at_once_comes_up_again() {
    let dir = folder("crashed");
    let cluster = Cluster::start(&dir, Durability::Safe).expect("a cluster");
    watch(&cluster);
    cluster.stop(true).expect("stopped at once");
    let again = Cluster::start(&dir, Durability::Safe).expect("recovered");
    again.create_database("after").expect("it takes work");
    assert!(dir.join("log").is_dir(), "its log is kept a file a weekday");
    again.stop(false).expect("stopped");
}

#[test]
fn a_server_that_fell_is_started_again_on_its_port() {
    let dir = folder("fell");
    let cluster = Cluster::start(&dir, Durability::Safe).expect("a cluster");
    watch(&cluster);
    let url = cluster.url("postgres");
    assert!(!cluster.revive().expect("it runs"), "nothing was to be done");
    let killed = process(&dir);
    assert!(Command::new("kill").args(["-9", &killed]).status().expect("kill").success());
    while Path::new("/proc").join(&killed).exists() {
        std::thread::sleep(std::time::Duration::from_millis(20));
    }
    assert!(cluster.revive().expect("it comes up"));
    assert_eq!(asked(&url, "SELECT 1").as_deref(), Ok("1"));
    cluster.stop(true).expect("stopped");
}

/// After a restart of the machine the number in the note may be any process's; here it is our own.
#[test]
fn a_note_with_a_number_that_somebody_else_has_by_now_is_no_server() {
    let dir = folder("reused");
    let cluster = Cluster::start(&dir, Durability::Volatile).expect("a cluster");
    watch(&cluster);
    let note = std::fs::read_to_string(dir.join("postmaster.pid")).expect("it runs");
    let stale = note.replacen(&process(&dir), &std::process::id().to_string(), 1);
    cluster.stop(true).expect("stopped");
    std::fs::write(dir.join("postmaster.pid"), stale).expect("a stale note");
    let again = Cluster::start(&dir, Durability::Volatile).expect("a new server");
    assert_ne!(process(&dir), std::process::id().to_string());
    again.stop(true).expect("stopped");
}

#[test]
fn a_folder_that_is_no_folder_is_refused_in_a_sentence() {
    let path = folder("file");
    std::fs::write(&path, "not a folder").expect("a file");
    after_us("rm -f -- \"$1\"", &[&path]);
    let error = Cluster::start(&path, Durability::Safe).expect_err("no cluster in a file");
    assert!(matches!(error, ClusterError::Io { .. }), "{error}");
    assert!(error.to_string().starts_with("making the folder"), "{error}");
}

#[test]
fn a_folder_of_somebody_else_is_neither_used_nor_touched() {
    let dir = folder("not ours");
    std::fs::create_dir_all(&dir).expect("a folder");
    after_us("rm -rf -- \"$1\"", &[&dir]);
    std::fs::write(dir.join("letters.txt"), "dear").expect("a file");
    let owner = std::fs::metadata(&dir).expect("it is there").uid();
    let refused = Cluster::start(&dir, Durability::Safe).expect_err("not ours").to_string();
    assert!(refused.contains("is not empty and holds no database of Paso"), "{refused}");
    assert_eq!(std::fs::metadata(&dir).expect("it is there").uid(), owner, "never given away");
    assert_eq!(std::fs::read_dir(&dir).expect("a folder").count(), 1, "nothing was put there");
}

#[test]
fn data_of_another_version_are_named() {
    let dir = folder("old");
    std::fs::create_dir_all(&dir).expect("a folder");
    after_us("rm -rf -- \"$1\"", &[&dir]);
    std::fs::write(dir.join("PG_VERSION"), "9\n").expect("a file");
    std::fs::write(dir.join("paso.secret"), "a\nb\n").expect("a file");
    let refused = Cluster::start(&dir, Durability::Safe).expect_err("nobody has that one").to_string();
    assert!(refused.contains("were written by PostgreSQL 9") && refused.contains("“postgresql-9”"), "{refused}");
}

/// Only root has a second user to shut out.
#[test]
fn a_folder_that_the_database_user_cannot_enter_is_named() {
    if !is_root() {
        return;
    }
    let shut = folder("shut");
    std::fs::create_dir_all(shut.join("data")).expect("folders");
    after_us("rm -rf -- \"$1\"", &[&shut]);
    std::fs::set_permissions(&shut, PermissionsExt::from_mode(0o700)).expect("shut");
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
