//! A private PostgreSQL cluster on loopback.
//!
//! The start command and every test run own their database server, so that neither asks for anything to be set up and
//! neither meets the other. PostgreSQL refuses to run as root; as root, the cluster belongs to the `postgres` user that
//! Debian's package makes.
//!
//! A folder has one owner: the process that holds its lock. Who connects needs a password from a file that only the owner
//! can read, and works as an ordinary role that owns its database and nothing else.

mod folder;
mod programs;
mod secret;
mod testing;

pub use programs::free_port;
pub use testing::{after_us, test_database, watch};

use folder::Holds;
use programs::{as_owner, bin_dir, is_root, run, run_with, unique};
use secret::Secret;
use std::fs::File;
use std::path::{Path, PathBuf};
use std::process::Command;
use thiserror::Error;

/// Why a cluster did not start or stop.
#[derive(Debug, Error)]
pub enum ClusterError {
    #[error("PostgreSQL's server programs were not found. Install Debian's package “postgresql”, or set DATABASE_URL.")]
    NotInstalled,
    #[error(
        "The data in {dir} were written by PostgreSQL {major}, whose server programs were not found. Install Debian's package “postgresql-{major}”, or carry the data over: see docs/operating.md."
    )]
    OtherVersion { dir: PathBuf, major: u32 },
    #[error(
        "The folder {dir} is in use by another Paso (process {owner}). Stop that one first, or choose another folder with --data."
    )]
    Owned { dir: PathBuf, owner: String },
    #[error(
        "The folder {0} is not empty and holds no database of Paso. Nothing in it was changed. Choose another with --data; if a first start broke off here, remove it."
    )]
    NotOurs(PathBuf),
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

/// How long `pg_ctl` waits for a start, in seconds: its own minute is short for a busy machine with a slow disk that
/// brings a killed server's data in order.
const PATIENCE_S: &str = "240";

/// The role that owns the databases.
const ROLE: &str = "paso";

/// A running cluster. Dropping it leaves it running and lets go of its folder; see [`Cluster::stop`].
#[derive(Debug)]
pub struct Cluster {
    dir: PathBuf,
    bin: PathBuf,
    port: u16,
    durability: Durability,
    secret: Secret,
    /// Locked while we own the folder.
    _lock: File,
}

impl Cluster {
    /// Starts the cluster in `dir`, made on the first start. A server that a killed start left running there is taken over.
    ///
    /// # Errors
    /// Says whose the folder is, what is missing, or which program failed and what it printed.
    pub fn start(dir: &Path, durability: Durability) -> Result<Self, ClusterError> {
        let io = |what: &str| {
            let what = format!("{what} {}", dir.display());
            move |source| ClusterError::Io { what, source }
        };
        std::fs::create_dir_all(dir).map_err(io("making the folder"))?;
        let dir = dir.canonicalize().map_err(io("finding the folder"))?;
        let major = match folder::holds(&dir) {
            Holds::Nothing => None,
            Holds::Ours(major) => Some(major),
            Holds::SomethingElse => return Err(ClusterError::NotOurs(dir)),
        };
        let bin = bin_dir(major).ok_or_else(|| match major {
            Some(major) if bin_dir(None).is_some() => ClusterError::OtherVersion { dir: dir.clone(), major },
            _ => ClusterError::NotInstalled,
        })?;
        hand_over(&dir)?;
        if major.is_none() {
            initialise(&bin, &dir)?;
        }
        let lock = folder::take(&dir)?;
        let secret = Secret::of(&dir)?.unwrap_or_else(Secret::new);
        let mut cluster = Self { dir, bin, port: 0, durability, secret, _lock: lock };
        match cluster.running_port() {
            Some(port) => cluster.port = port,
            None => cluster.start_on_one_of(&mut std::iter::repeat_with(free_port))?,
        }
        cluster.close()?;
        cluster.make_role()?;
        Ok(cluster)
    }

    /// The connection string of a database of the cluster that runs in `dir`, whoever owns it; `None` where none runs.
    ///
    /// # Errors
    /// If its passwords cannot be read.
    pub fn url_of_running(dir: &Path, database: &str) -> Result<Option<String>, ClusterError> {
        let Ok(dir) = dir.canonicalize() else { return Ok(None) };
        let Some(left) = folder::left_by_server(&dir) else { return Ok(None) };
        if folder::works_here(left.process, &dir) == Some(false) {
            return Ok(None);
        }
        Ok(Secret::of(&dir)?.map(|secret| url(&secret, left.port, database)))
    }

    /// Where the newest server programs are, `pg_dump` among them.
    pub fn programs() -> Option<PathBuf> {
        bin_dir(None)
    }

    /// Starts the server again, on the same port, if it has fallen; says whether it had.
    ///
    /// # Errors
    /// Says why it does not start.
    pub fn revive(&self) -> Result<bool, ClusterError> {
        if self.running_port().is_some() {
            return Ok(false);
        }
        self.start_server().map(|()| true)
    }

    /// Between the look for a free port and its use somebody else may take it, if only for the near end of a connection;
    /// then another is tried. Whatever else keeps the server down does so again and is said after the last try.
    fn start_on_one_of(&mut self, ports: &mut dyn Iterator<Item = std::io::Result<u16>>) -> Result<(), ClusterError> {
        const TRIES: usize = 3;
        let mut outcome = Ok(());
        for port in ports.take(TRIES) {
            self.port = port.map_err(|source| ClusterError::Io { what: "finding a free port".to_owned(), source })?;
            outcome = self.start_server();
            if outcome.is_ok() {
                break;
            }
        }
        outcome
    }

    fn start_server(&self) -> Result<(), ClusterError> {
        // Loopback only, and no socket file: its path may be too long for the system.
        let mut options = format!("-c listen_addresses=127.0.0.1 -p {} -c unix_socket_directories=", self.port);
        options.push_str(match self.durability {
            // A week of logs, a file a weekday.
            Durability::Safe => {
                " -c logging_collector=on -c log_directory=log -c log_filename=server-%a.log -c log_rotation_age=1d -c log_truncate_on_rotation=on"
            }
            Durability::Volatile => " -c fsync=off -c synchronous_commit=off -c full_page_writes=off",
        });
        let log = self.dir.join("server.log");
        run(
            "pg_ctl",
            self.program("pg_ctl")
                .args(["-w", "-t", PATIENCE_S, "-D"])
                .arg(&self.dir)
                .arg("-l")
                .arg(log)
                .args(["-o", &options, "start"]),
        )
    }

    /// The port of a server that runs in this folder already. What a fallen one left is cleared away.
    fn running_port(&self) -> Option<u16> {
        let left = folder::left_by_server(&self.dir)?;
        let asks = || self.program("pg_ctl").arg("-D").arg(&self.dir).arg("status").output();
        if folder::works_here(left.process, &self.dir).unwrap_or_else(|| asks().is_ok_and(|o| o.status.success())) {
            return Some(left.port);
        }
        // PostgreSQL itself would take a process that happens to have this number for its own; if the file cannot be
        // removed, the start that follows says why.
        let _ = std::fs::remove_file(folder::note(&self.dir));
        None
    }

    /// Shuts a cluster of the first versions, which let in whoever reached its port.
    fn close(&self) -> Result<(), ClusterError> {
        let path = self.dir.join("pg_hba.conf");
        let io = |source| ClusterError::Io { what: format!("changing {}", path.display()), source };
        let rules = std::fs::read_to_string(&path).map_err(io)?;
        let lets_in = |rule: &&str| !rule.starts_with('#') && rule.ends_with("trust");
        if !rules.lines().any(|rule| lets_in(&rule)) {
            return Ok(());
        }
        if Secret::of(&self.dir)?.is_none() {
            self.secret.keep(&self.dir)?;
        }
        self.sql("postgres", &format!("ALTER ROLE postgres PASSWORD '{}';", self.secret.superuser))?;
        let shut = |rule: &str| match Some(rule).filter(lets_in) {
            Some(rule) => rule.replace("trust", "scram-sha-256"),
            None => rule.to_owned(),
        };
        let shut: Vec<String> = rules.lines().map(shut).collect();
        std::fs::write(&path, shut.join("\n") + "\n").map_err(io)?;
        run("pg_ctl", self.program("pg_ctl").arg("-D").arg(&self.dir).arg("reload"))
    }

    /// The role that owns the databases. Its password is set on every start, so that it is the one in the file.
    fn make_role(&self) -> Result<(), ClusterError> {
        let password = &self.secret.role;
        self.sql(
            "postgres",
            &format!(
                "DO $$ BEGIN IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '{ROLE}') THEN \
                 CREATE ROLE {ROLE} LOGIN; END IF; END $$; ALTER ROLE {ROLE} PASSWORD '{password}';"
            ),
        )
    }

    /// The connection string of one of its databases.
    pub fn url(&self, database: &str) -> String {
        url(&self.secret, self.port, database)
    }

    /// Makes a database unless it is there; it and its tables belong to the ordinary role.
    ///
    /// # Errors
    /// Says what PostgreSQL answered.
    pub fn create_database(&self, name: &str) -> Result<(), ClusterError> {
        let made = self.sql("postgres", &format!("CREATE DATABASE \"{name}\" OWNER {ROLE};"));
        match made {
            Err(ClusterError::Failed { message, .. }) if message.contains("already exists") => {
                self.sql("postgres", &format!("ALTER DATABASE \"{name}\" OWNER TO {ROLE};"))?;
                self.sql(name, GIVE_TABLES)
            }
            other => other,
        }
    }

    /// Runs SQL as the superuser.
    fn sql(&self, database: &str, sql: &str) -> Result<(), ClusterError> {
        let port = self.port.to_string();
        let mut psql = Command::new(self.bin.join("psql"));
        psql.args(["-X", "-q", "-w", "-v", "ON_ERROR_STOP=1", "-h", "127.0.0.1", "-p", &port, "-U", "postgres"]);
        psql.args(["-d", database]).env("PGPASSWORD", &self.secret.superuser).current_dir("/");
        run_with("psql", &mut psql, sql)
    }

    /// Stops the server, at the next quiet moment or at once as a crash would, and lets go of the folder.
    ///
    /// # Errors
    /// Says what `pg_ctl` printed.
    pub fn stop(self, at_once: bool) -> Result<(), ClusterError> {
        self.stop_server(if at_once { "immediate" } else { "fast" })
    }

    fn stop_server(&self, mode: &str) -> Result<(), ClusterError> {
        run("pg_ctl", self.program("pg_ctl").args(["-w", "-D"]).arg(&self.dir).args(["-m", mode, "stop"]))
    }

    fn program(&self, name: &str) -> Command {
        as_owner(self.bin.join(name))
    }
}

fn url(secret: &Secret, port: u16, database: &str) -> String {
    format!("postgres://{ROLE}:{}@127.0.0.1:{port}/{database}", secret.role)
}

/// Tables of a database that the superuser made, as the first versions did.
const GIVE_TABLES: &str = "DO $$ DECLARE t record; BEGIN \
    FOR t IN SELECT tablename FROM pg_tables WHERE schemaname = 'public' AND tableowner = 'postgres' LOOP \
    EXECUTE format('ALTER TABLE public.%I OWNER TO paso', t.tablename); END LOOP; END $$;";

/// As root, the folder goes to the user that the server runs as. It is empty or ours, see [`folder::holds`].
fn hand_over(dir: &Path) -> Result<(), ClusterError> {
    if !is_root() {
        return Ok(());
    }
    run("chown", Command::new("chown").arg("postgres:").arg("--").arg(dir))?;
    let enters = as_owner("test").arg("-x").arg(dir).status().is_ok_and(|s| s.success());
    if enters { Ok(()) } else { Err(ClusterError::NotEnterable(dir.to_owned())) }
}

/// Makes the cluster. Its passwords are the last thing that is written: without them it counts as broken off.
fn initialise(bin: &Path, dir: &Path) -> Result<(), ClusterError> {
    let secret = Secret::new();
    let password = std::env::temp_dir().join(format!("paso-initdb-{}-{}", std::process::id(), unique()));
    secret::write(&password, &secret.superuser)?;
    if is_root() {
        run("chown", Command::new("chown").arg("postgres:").arg("--").arg(&password))?;
    }
    let mut initdb = as_owner(bin.join("initdb"));
    initdb.args(["-k", "-A", "scram-sha-256", "-U", "postgres", "-E", "UTF8", "--locale=C.UTF-8", "--pwfile"]);
    let made = run("initdb", initdb.arg(&password).arg("-D").arg(dir));
    std::fs::remove_file(&password)
        .map_err(|source| ClusterError::Io { what: format!("removing {}", password.display()), source })?;
    made?;
    secret.keep(dir)
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::net::TcpListener;

    #[test]
    fn a_port_that_was_taken_meanwhile_is_changed_for_another() {
        let dir = std::env::temp_dir().join(format!("paso-cluster-{}-port", std::process::id()));
        let mut cluster = Cluster::start(&dir, Durability::Volatile).expect("a cluster");
        watch(&cluster);
        cluster.stop_server("immediate").expect("stopped");
        let holder = TcpListener::bind(("127.0.0.1", 0)).expect("a port");
        let taken = holder.local_addr().expect("its number").port();
        let free = free_port().expect("another");
        cluster.start_on_one_of(&mut [taken, free].map(Ok).into_iter()).expect("on the second");
        assert_eq!(cluster.running_port(), Some(free));
        cluster.stop_server("immediate").expect("stopped");
        let refused = cluster.start_on_one_of(&mut std::iter::repeat_with(|| Ok(taken))).expect_err("it is taken");
        assert!(refused.to_string().starts_with("pg_ctl failed: "), "{refused}");
    }
}
