//! PostgreSQL's own programs, run as the user that owns the cluster.

use crate::ClusterError;
use std::io::Write;
use std::net::TcpListener;
use std::path::{Path, PathBuf};
use std::process::{Command, Output, Stdio};
use std::sync::atomic::{AtomicU32, Ordering};

/// A program as the cluster's owner, from a folder that owner can enter.
pub fn as_owner(program: impl AsRef<std::ffi::OsStr>) -> Command {
    let mut command = if is_root() {
        let mut c = Command::new("runuser");
        c.args(["-u", "postgres", "--"]).arg(program);
        c
    } else {
        Command::new(program)
    };
    command.current_dir("/").stdin(Stdio::null());
    command
}

/// PostgreSQL refuses to run as root; then the user of Debian's package does it.
pub fn is_root() -> bool {
    Command::new("id").arg("-u").output().is_ok_and(|o| o.stdout.trim_ascii() == b"0")
}

/// Runs a program to its end. Its output goes to a file, not a pipe: a server it leaves behind would hold a pipe open.
pub fn run(program: &'static str, command: &mut Command) -> Result<(), ClusterError> {
    run_with(program, command, "")
}

/// The same with something to read, which then shows in no list of processes.
pub fn run_with(program: &'static str, command: &mut Command, input: &str) -> Result<(), ClusterError> {
    let io = |source| ClusterError::Io { what: format!("running {program}"), source };
    let log = std::env::temp_dir().join(format!("paso-{program}-{}-{}.log", std::process::id(), unique()));
    let file = std::fs::File::create(&log).map_err(io)?;
    if !input.is_empty() {
        command.stdin(Stdio::piped());
    }
    let mut child = command.stdout(file.try_clone().map_err(io)?).stderr(file).spawn().map_err(io)?;
    if let Some(mut pipe) = child.stdin.take() {
        pipe.write_all(input.as_bytes()).map_err(io)?;
    }
    let status = child.wait().map_err(io)?;
    let message = std::fs::read_to_string(&log).unwrap_or_default().trim().to_owned();
    // A log that stays behind in the temporary folder harms nobody.
    let _ = std::fs::remove_file(&log);
    if status.success() { Ok(()) } else { Err(ClusterError::Failed { program, message }) }
}

/// Where the server programs of a major version are; of the newest where none is asked for. Debian keeps each version's
/// programs in a folder of its own.
pub fn bin_dir(major: Option<u32>) -> Option<PathBuf> {
    let mut found: Vec<(u32, PathBuf)> = Vec::new();
    if let Ok(versions) = std::fs::read_dir("/usr/lib/postgresql") {
        let version = |v: std::fs::DirEntry| Some((v.file_name().to_str()?.parse().ok()?, v.path().join("bin")));
        found.extend(versions.flatten().filter_map(version));
    }
    found.extend(configured().and_then(|bin| Some((version_of(&bin)?, bin))));
    found.retain(|(version, bin)| is_server(bin) && major.is_none_or(|m| m == *version));
    found.into_iter().max().map(|(_, bin)| bin)
}

fn configured() -> Option<PathBuf> {
    let asked: Output = Command::new("pg_config").arg("--bindir").output().ok()?;
    Some(PathBuf::from(String::from_utf8(asked.stdout).ok()?.trim()))
}

/// 15 of "postgres (PostgreSQL) 15.8 (Debian 15.8-0)".
fn version_of(bin: &Path) -> Option<u32> {
    let said = Command::new(bin.join("postgres")).arg("--version").output().ok()?;
    let said = String::from_utf8(said.stdout).ok()?;
    said.split_whitespace().find_map(|word| word.split('.').next()?.parse().ok())
}

fn is_server(bin: &Path) -> bool {
    bin.join("initdb").exists() && bin.join("pg_ctl").exists()
}

/// A port nobody listens on just now.
///
/// # Errors
/// The system's own, where loopback cannot be bound.
pub fn free_port() -> std::io::Result<u16> {
    Ok(TcpListener::bind(("127.0.0.1", 0))?.local_addr()?.port())
}

/// A number that this process has not used yet.
pub fn unique() -> u32 {
    static NEXT: AtomicU32 = AtomicU32::new(0);
    NEXT.fetch_add(1, Ordering::Relaxed)
}
