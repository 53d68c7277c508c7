//! A private PostgreSQL cluster on loopback.
//!
//! The start command and every test run own their database server, so that neither asks for anything to be set up and
//! neither meets the other. PostgreSQL refuses to run as root; as root, the cluster belongs to the `postgres` user that
//! Debian's package makes.

use std::net::TcpListener;
use std::path::{Path, PathBuf};
use std::process::{Command, Output, Stdio};
use std::sync::OnceLock;
use std::sync::atomic::{AtomicU32, Ordering};
use thiserror::Error;

/// Why a cluster did not start or stop.
#[derive(Debug, Error)]
pub enum ClusterError {
    #[error("PostgreSQL's server programs were not found. Install Debian's package “postgresql”, or set DATABASE_URL.")]
    NotInstalled,
    #[error("{program} failed: {message}")]
    Failed { program: &'static str, message: String },
    #[error(
        "The folder {0} cannot be entered by the user “postgres”, which the database server runs as. Choose another with --data."
    )]
    NotEnterable(PathBuf),
    #[error("{what}: {source}")]
    Io { what: String, source: std::io::Error },
}

/// Whether a crash of the machine may lose data; only tests may answer "volatile".
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Durability {
    Safe,
    Volatile,
}

/// A running cluster. Dropping it leaves it running; see [`Cluster::stop`].
#[derive(Debug)]
pub struct Cluster {
    dir: PathBuf,
    bin: PathBuf,
    port: u16,
}

impl Cluster {
    /// Starts the cluster in `dir`, made on the first start; one that runs there already is used as it is.
    ///
    /// # Errors
    /// Says which program failed and what it printed.
    pub fn start(dir: &Path, durability: Durability) -> Result<Self, ClusterError> {
        let bin = bin_dir().ok_or(ClusterError::NotInstalled)?;
        let io = |what: &str| {
            let what = format!("{what} {}", dir.display());
            move |source| ClusterError::Io { what, source }
        };
        std::fs::create_dir_all(dir).map_err(io("making the folder"))?;
        let dir = dir.canonicalize().map_err(io("finding the folder"))?;
        if is_root() {
            run("chown", Command::new("chown").arg("postgres:").arg(&dir))?;
            let enters = as_owner("test").arg("-x").arg(&dir).status().is_ok_and(|s| s.success());
            if !enters {
                return Err(ClusterError::NotEnterable(dir));
            }
        }
        let mut cluster = Self { dir, bin, port: 0 };
        if !cluster.dir.join("PG_VERSION").exists() {
            run(
                "initdb",
                cluster
                    .program("initdb")
                    .args(["-A", "trust", "-U", "postgres", "-E", "UTF8", "--locale=C.UTF-8", "-D"])
                    .arg(&cluster.dir),
            )?;
        }
        if let Some(port) = cluster.running_port() {
            cluster.port = port;
            return Ok(cluster);
        }
        cluster.port =
            free_port().map_err(|source| ClusterError::Io { what: "finding a free port".to_owned(), source })?;
        cluster.start_server(durability)?;
        Ok(cluster)
    }

    fn start_server(&self, durability: Durability) -> Result<(), ClusterError> {
        // Loopback only, and no socket file: its path may be too long for the system.
        let mut options = format!("-c listen_addresses=127.0.0.1 -p {} -c unix_socket_directories=", self.port);
        if durability == Durability::Volatile {
            options.push_str(" -c fsync=off -c synchronous_commit=off -c full_page_writes=off");
        }
        let log = self.dir.join("server.log");
        run(
            "pg_ctl",
            self.program("pg_ctl").args(["-w", "-D"]).arg(&self.dir).arg("-l").arg(log).args(["-o", &options, "start"]),
        )
    }

    /// The port of a server that runs in this folder already (a start that was killed left it behind).
    fn running_port(&self) -> Option<u16> {
        let runs = self.program("pg_ctl").arg("-D").arg(&self.dir).arg("status").output().ok()?.status.success();
        let text = Command::new("cat").arg(self.dir.join("postmaster.pid")).output().ok()?.stdout;
        let port = String::from_utf8(text).ok()?.lines().nth(3)?.trim().parse().ok()?;
        runs.then_some(port)
    }

    /// The connection string of one of its databases.
    pub fn url(&self, database: &str) -> String {
        format!("postgres://postgres@127.0.0.1:{}/{database}", self.port)
    }

    /// Makes a database unless it is there.
    ///
    /// # Errors
    /// Says what `createdb` printed.
    pub fn create_database(&self, name: &str) -> Result<(), ClusterError> {
        let port = self.port.to_string();
        let mut command = self.program("createdb");
        command.args(["-h", "127.0.0.1", "-p", &port, "-U", "postgres", name]);
        match run("createdb", &mut command) {
            Err(ClusterError::Failed { message, .. }) if message.contains("already exists") => Ok(()),
            other => other,
        }
    }

    /// Stops the server: at the next quiet moment, or at once as a crash would.
    ///
    /// # Errors
    /// Says what `pg_ctl` printed.
    pub fn stop(&self, at_once: bool) -> Result<(), ClusterError> {
        let mode = if at_once { "immediate" } else { "fast" };
        run("pg_ctl", self.program("pg_ctl").args(["-w", "-D"]).arg(&self.dir).args(["-m", mode, "stop"]))
    }

    fn program(&self, name: &str) -> Command {
        as_owner(self.bin.join(name))
    }
}

/// A program as the cluster's owner, from a folder that owner can enter.
fn as_owner(program: impl AsRef<std::ffi::OsStr>) -> Command {
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

fn is_root() -> bool {
    Command::new("id").arg("-u").output().is_ok_and(|o| o.stdout.trim_ascii() == b"0")
}

/// Runs a program to its end. Its output goes to a file, not a pipe: a server it leaves behind would hold a pipe open.
fn run(program: &'static str, command: &mut Command) -> Result<(), ClusterError> {
    let io = |source| ClusterError::Io { what: format!("running {program}"), source };
    let log = std::env::temp_dir().join(format!("paso-{program}-{}-{}.log", std::process::id(), unique()));
    let file = std::fs::File::create(&log).map_err(io)?;
    let status = command.stdout(file.try_clone().map_err(io)?).stderr(file).status().map_err(io)?;
    let message = std::fs::read_to_string(&log).unwrap_or_default().trim().to_owned();
    // A log that stays behind in the temporary folder harms nobody.
    let _ = std::fs::remove_file(&log);
    if status.success() { Ok(()) } else { Err(ClusterError::Failed { program, message }) }
}

/// Debian keeps each version's programs in a folder of its own; the newest wins.
fn bin_dir() -> Option<PathBuf> {
    let asked =
        Command::new("pg_config").arg("--bindir").output().ok().and_then(|o: Output| String::from_utf8(o.stdout).ok());
    let mut places: Vec<PathBuf> = asked.map(|p| PathBuf::from(p.trim())).into_iter().collect();
    if let Ok(versions) = std::fs::read_dir("/usr/lib/postgresql") {
        let mut found: Vec<(u32, PathBuf)> = versions
            .flatten()
            .filter_map(|v| Some((v.file_name().to_str()?.parse().ok()?, v.path().join("bin"))))
            .collect();
        found.sort();
        places.extend(found.into_iter().rev().map(|(_, p)| p));
    }
    places.into_iter().find(|p| p.join("initdb").exists() && p.join("pg_ctl").exists())
}

/// A port nobody listens on just now.
///
/// # Errors
/// The system's own, where loopback cannot be bound.
pub fn free_port() -> std::io::Result<u16> {
    Ok(TcpListener::bind(("127.0.0.1", 0))?.local_addr()?.port())
}

fn unique() -> u32 {
    static NEXT: AtomicU32 = AtomicU32::new(0);
    NEXT.fetch_add(1, Ordering::Relaxed)
}

/// A fresh, empty database for one test, on a cluster that this test process owns.
///
/// The cluster goes away with the process, however that ends: a watcher stops it and removes its folder.
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
    let (bin, dir) = (cluster.bin.display(), cluster.dir.display());
    after_us(&format!("cd /; {stop}{bin}/pg_ctl -D {dir} -m immediate stop; rm -rf {dir}"));
}

/// Runs a shell script once this process is gone, however it ends; statics are never dropped.
///
/// # Panics
/// If no shell can be started.
pub fn after_us(script: &str) {
    let waits = format!("while kill -0 {} 2>/dev/null; do sleep 1; done; {script}", std::process::id());
    Command::new("setsid")
        .args(["--fork", "sh", "-c", &waits])
        .stdin(Stdio::null())
        .stdout(Stdio::null())
        .stderr(Stdio::null())
        .status()
        .expect("a watcher");
}
