//! Manuals and recordings in PostgreSQL.
//!
//! A manual is a snapshot plus the tail of its edits. Every edit runs in one transaction that holds the manual's row, so
//! numbers have no gaps and two servers before one database agree. What is cached can be rebuilt at any time; the row's
//! number says whether the cache is fresh.

mod bundle;
mod check;
mod edits;
mod house;
mod lifetime;
mod readers;
mod recordings;
mod revisions;
mod shelf;

pub use edits::{Applied, Clash, EditRequest, HistoryEntry, Theirs, Way};
pub use lifetime::{DeletedRow, Figures, KEPT, KeptRecording, Quota};
pub use recordings::{Kept, RecordingInfo};
pub use revisions::RevisionInfo;
pub use shelf::{ManualView, ShelfRow};

use crate::entity::{edit, manual};
use paso_core::ids::ManualId;
use paso_core::manual::{Change, Manual, Refusal, UpcastError};
use paso_core::recording::RecordingError;
use sea_orm::{
    ColumnTrait, ConnectionTrait, DatabaseConnection, DbErr, EntityTrait, FromQueryResult, QueryFilter, QueryOrder,
    QuerySelect, RuntimeErr, Select,
};
use std::collections::HashMap;
use std::hash::Hash;
use std::sync::{Arc, Mutex};
use thiserror::Error;
use time::Date;
use uuid::Uuid;

/// Why the store could not do what was asked, in a sentence for people. What lies behind the last three is for the log.
#[derive(Debug, Error)]
pub enum StoreError {
    #[error("{}", not_found(.0))]
    NotFound(&'static str),
    #[error(transparent)]
    Refused(#[from] Refusal),
    #[error("{} changed the same since you loaded it. Look at both versions and choose one.", .0.authors())]
    Clash(Box<Clash>),
    #[error("base_seq {asked} is ahead of the newest edit {newest}. Load the manual again.")]
    Ahead { asked: i64, newest: i64 },
    #[error("There is nothing to {0}.")]
    Nothing(&'static str),
    #[error("“{title}” was {reason}; it was purged on {on}. Its revisions went with it.")]
    Purged { title: String, on: Date, reason: String },
    #[error(
        "A manual was made from this recording: its evidence would lead nowhere. Delete the manual first; once it is purged, the recording can go."
    )]
    InUse,
    #[error(
        "This server keeps at most {0}. Nothing was changed; delete what is no longer needed, or ask whoever runs it."
    )]
    Quota(String),
    #[error(transparent)]
    Recording(#[from] RecordingError),
    #[error(transparent)]
    Import(UpcastError),
    #[error("{0}")]
    Unready(String),
    #[error("Other recordings are being read. Nothing was changed; try again in a moment.")]
    Busy,
    #[error("Reading this took longer than {0} s and was given up. Bring the recording in parts.")]
    TooLong(u64),
    #[error(
        "The reader stumbled over this recording; that is a fault of the program, and it is in its log. Nothing was changed."
    )]
    Stumbled(String),
    #[error(
        "The id {0} was sent before, with something else. Nothing was changed; send it again with an id of its own."
    )]
    Reused(Uuid),
    #[error(
        "The disk of the server is full. Nothing was changed. What you typed is kept; tell whoever runs the server."
    )]
    Full,
    #[error("The database cannot hold this: {0}. Nothing was changed; correct it and send it again.")]
    Unstorable(String),
    #[error("Nothing was changed. What you typed is kept; it is sent again in a moment.")]
    Database(DbErr),
    #[error("What is stored does not fit this version of the program. Nothing was changed.")]
    Stored(String),
}

/// Bad data, a full disk and an outage are told apart by PostgreSQL's own codes (appendix A of its manual), as only the
/// last gets better by trying again.
impl From<DbErr> for StoreError {
    fn from(error: DbErr) -> Self {
        let (DbErr::Query(RuntimeErr::SqlxError(inner)) | DbErr::Exec(RuntimeErr::SqlxError(inner))) = &error else {
            return Self::Database(error);
        };
        let Some(told) = inner.as_database_error() else { return Self::Database(error) };
        match told.code().as_deref().unwrap_or_default() {
            "53100" => {
                tracing::error!(error = %told, "disk full");
                Self::Full
            }
            // Data exceptions (a zero character, a figure out of range) and violated rules (an id twice).
            code if code.starts_with("22") || code.starts_with("23") => {
                tracing::warn!(error = %told, code, "refused by the database");
                Self::Unstorable(told.message().to_owned())
            }
            _ => Self::Database(error),
        }
    }
}

/// What is said of something that nothing goes by.
pub(crate) fn not_found(what: &str) -> String {
    format!("There is no such {what}; it may have been deleted. Go back to the shelf.")
}

/// A manual as it stood after an edit.
type Fresh = (i64, Arc<Manual>);

/// A manual's row without its snapshot, which is large and needed only to fill the cache.
#[derive(Debug, Clone, FromQueryResult)]
struct Row {
    id: Uuid,
    seq: i64,
    snapshot_seq: i64,
    archived: bool,
}

/// The rows of manuals that have not been deleted, light as above.
fn rows(id: ManualId) -> Select<manual::Entity> {
    manual::Entity::find_by_id(id.0).filter(manual::Column::DeletedAt.is_null()).select_only().columns([
        manual::Column::Id,
        manual::Column::Seq,
        manual::Column::SnapshotSeq,
        manual::Column::Archived,
    ])
}

/// Everything that is kept.
#[derive(Clone)]
pub struct Store {
    db: DatabaseConnection,
    cache: Arc<Mutex<HashMap<ManualId, Fresh>>>,
    readings: Arc<Mutex<recordings::Readings>>,
    readers: readers::Readers,
    /// What the house put right, as it was last collected.
    house: Arc<Mutex<Option<house::Collected>>>,
    quota: Quota,
}

/// Manuals kept in memory; a manual of 300 steps takes about a megabyte.
const CACHED: usize = 64;

impl Store {
    pub fn new(db: DatabaseConnection) -> Self {
        Self {
            db,
            cache: Arc::default(),
            readings: Arc::default(),
            readers: readers::Readers::default(),
            house: Arc::default(),
            quota: Quota::default(),
        }
    }

    /// The same with other limits.
    #[must_use]
    pub fn with_quota(self, quota: Quota) -> Self {
        Self { quota, ..self }
    }

    /// Whether the database answers.
    pub async fn ping(&self) -> bool {
        self.db.ping().await.is_ok()
    }

    /// Closes the connections, so that the database server can stop in peace.
    pub async fn close(&self) {
        if let Err(error) = self.db.clone().close().await {
            tracing::warn!(%error, "closing the database");
        }
    }

    /// The manual at its newest edit, from the cache or from snapshot and tail.
    async fn current(&self, db: &impl ConnectionTrait, row: &Row) -> Result<Arc<Manual>, StoreError> {
        let id = ManualId(row.id);
        if let Some((seq, manual)) = self.cached(id)
            && seq == row.seq
        {
            return Ok(manual);
        }
        let snapshot = manual::Entity::find_by_id(row.id)
            .select_only()
            .columns([manual::Column::Snapshot, manual::Column::SnapshotSeq])
            .into_tuple::<(serde_json::Value, i64)>()
            .one(db)
            .await?;
        let (snapshot, snapshot_seq) = snapshot.ok_or(StoreError::NotFound("manual"))?;
        let at =
            paso_core::manual::from_stored(&snapshot.to_string()).map_err(|e| StoreError::Stored(e.to_string()))?;
        let tail = edit::Entity::find()
            .filter(edit::Column::ManualId.eq(row.id))
            .filter(edit::Column::Seq.gt(snapshot_seq))
            .filter(edit::Column::Seq.lte(row.seq))
            .order_by_asc(edit::Column::Seq)
            .all(db)
            .await?;
        let manual = Arc::new(replayed(at, &tail)?);
        self.keep(id, row.seq, &manual);
        Ok(manual)
    }

    fn cached(&self, id: ManualId) -> Option<Fresh> {
        self.cache.lock().expect("no panic while held").get(&id).cloned()
    }

    fn keep(&self, id: ManualId, seq: i64, manual: &Arc<Manual>) {
        keep(&self.cache, id, (seq, manual.clone()));
    }
}

/// Puts something into a cache of [`CACHED`] things.
fn keep<K: Copy + Eq + Hash, V>(cache: &Mutex<HashMap<K, V>>, key: K, value: V) {
    let mut cache = cache.lock().expect("no panic while held");
    if cache.len() >= CACHED && !cache.contains_key(&key) {
        // Any one will do: what is thrown out is made again when asked for.
        if let Some(other) = cache.keys().next().copied() {
            cache.remove(&other);
        }
    }
    cache.insert(key, value);
}

/// A snapshot with the edits behind it.
fn replayed<'e>(snapshot: Manual, tail: impl IntoIterator<Item = &'e edit::Model>) -> Result<Manual, StoreError> {
    tail.into_iter().try_fold(snapshot, |at, entry| {
        at.replay(&change_of(entry)?).map_err(|e| StoreError::Stored(format!("edit {}: {e}", entry.seq)))
    })
}

fn change_of(entry: &edit::Model) -> Result<Change, StoreError> {
    serde_json::from_value(entry.change.clone()).map_err(|e| StoreError::Stored(format!("edit {}: {e}", entry.seq)))
}

fn to_json<T: serde::Serialize>(value: &T) -> Result<serde_json::Value, StoreError> {
    serde_json::to_value(value).map_err(|e| StoreError::Stored(e.to_string()))
}
