//! Whose a data folder is: nobody's yet, ours, or somebody else's, and which process works in it.

use crate::ClusterError;
use std::fs::{File, TryLockError};
use std::io::{Read, Seek, Write};
use std::path::{Path, PathBuf};

/// The file that the owner of the folder keeps locked for as long as it lives. The system lets go of it however the
/// process ends, which a file that only holds a number would not tell.
const LOCK: &str = "paso.lock";
/// Passwords of the cluster, for nobody else to read.
pub const SECRET: &str = "paso.secret";
/// What the first versions left there, and no other program does.
const EARLY_LOG: &str = "server.log";

/// What a folder holds.
#[derive(Debug, PartialEq, Eq)]
pub enum Holds {
    Nothing,
    /// A cluster of ours, written by this major version of PostgreSQL.
    Ours(u32),
    SomethingElse,
}

/// Looks into a folder.
pub fn holds(dir: &Path) -> Holds {
    let Ok(mut entries) = std::fs::read_dir(dir) else { return Holds::SomethingElse };
    if entries.next().is_none() {
        return Holds::Nothing;
    }
    let version = std::fs::read_to_string(dir.join("PG_VERSION")).ok().and_then(|v| v.trim().parse().ok());
    let ours = dir.join(SECRET).exists() || dir.join(EARLY_LOG).exists();
    match version {
        Some(version) if ours => Holds::Ours(version),
        _ => Holds::SomethingElse,
    }
}

/// Takes the folder, until the file is dropped.
pub fn take(dir: &Path) -> Result<File, ClusterError> {
    let path = dir.join(LOCK);
    let io = |source| ClusterError::Io { what: format!("opening {}", path.display()), source };
    let mut file = File::options().read(true).write(true).create(true).truncate(false).open(&path).map_err(io)?;
    match file.try_lock() {
        Ok(()) => {}
        Err(TryLockError::WouldBlock) => {
            let mut owner = String::new();
            file.read_to_string(&mut owner).map_err(io)?;
            return Err(ClusterError::Owned { dir: dir.to_owned(), owner: owner.trim().to_owned() });
        }
        Err(TryLockError::Error(source)) => return Err(io(source)),
    }
    file.set_len(0).map_err(io)?;
    file.rewind().map_err(io)?;
    writeln!(file, "{}", std::process::id()).map_err(io)?;
    Ok(file)
}

/// What a server left in its folder: its process and its port.
#[derive(Debug, PartialEq, Eq)]
pub struct Left {
    pub process: u32,
    pub port: u16,
}

/// The note of a server in this folder; whether it still runs is another question.
pub fn left_by_server(dir: &Path) -> Option<Left> {
    let text = std::fs::read_to_string(note(dir)).ok()?;
    let mut lines = text.lines();
    let process = lines.next()?.trim().parse().ok()?;
    Some(Left { process, port: lines.nth(2)?.trim().parse().ok()? })
}

/// The note itself.
pub fn note(dir: &Path) -> PathBuf {
    dir.join("postmaster.pid")
}

/// Whether that process works in this folder. Its number alone says nothing: after a restart of the machine it may be any
/// process's. `None` where the system does not tell.
pub fn works_here(process: u32, dir: &Path) -> Option<bool> {
    if !Path::new("/proc/self/cwd").exists() {
        return None;
    }
    Some(std::fs::read_link(format!("/proc/{process}/cwd")).is_ok_and(|at| at == dir))
}
