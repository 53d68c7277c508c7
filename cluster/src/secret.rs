//! The passwords of a cluster: one of its superuser, used only to set things up, and one of the role the program works as.

use crate::ClusterError;
use crate::folder::SECRET;
use std::fs::File;
use std::io::Write;
use std::os::unix::fs::OpenOptionsExt;
use std::path::Path;
use uuid::Uuid;

/// Kept in one file, a line each, that only its owner can read.
#[derive(Clone)]
pub struct Secret {
    pub superuser: String,
    pub role: String,
}

// They belong into no log.
impl std::fmt::Debug for Secret {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str("Secret(…)")
    }
}

impl Secret {
    /// New ones: each of 244 random bits.
    pub fn new() -> Self {
        let password = || format!("{}{}", Uuid::new_v4().simple(), Uuid::new_v4().simple());
        Self { superuser: password(), role: password() }
    }

    /// Those of a folder, where it has any.
    pub fn of(dir: &Path) -> Result<Option<Self>, ClusterError> {
        let path = dir.join(SECRET);
        if !path.exists() {
            return Ok(None);
        }
        let text = std::fs::read_to_string(&path).map_err(|e| io("reading", &path, e))?;
        let mut lines = text.lines().map(str::to_owned);
        match (lines.next(), lines.next()) {
            (Some(superuser), Some(role)) => Ok(Some(Self { superuser, role })),
            _ => Err(io("reading", &path, std::io::Error::other("it does not hold two passwords"))),
        }
    }

    /// Keeps them in the folder.
    pub fn keep(&self, dir: &Path) -> Result<(), ClusterError> {
        write(&dir.join(SECRET), &format!("{}\n{}\n", self.superuser, self.role))
    }
}

/// Writes a file that nobody else may read, from its first byte on.
pub fn write(path: &Path, text: &str) -> Result<(), ClusterError> {
    let file = File::options().write(true).create_new(true).mode(0o600).open(path);
    file.and_then(|mut file| file.write_all(text.as_bytes())).map_err(|e| io("writing", path, e))
}

fn io(what: &str, path: &Path, source: std::io::Error) -> ClusterError {
    ClusterError::Io { what: format!("{what} {}", path.display()), source }
}
