//! How long things live: deleted manuals wait for a while and are purged, recordings go where nothing uses them, and there
//! is an end to what one server keeps.

use super::{Store, StoreError};
use crate::entity::{edit, manual, purged, recording, revision};
use paso_core::ids::{ManualId, RecordingId};
use sea_orm::sea_query::OnConflict;
use sea_orm::{
    ColumnTrait, ConnectionTrait, EntityTrait, FromQueryResult, PaginatorTrait, QueryFilter, QueryOrder, QuerySelect,
    Set, Statement, TransactionTrait,
};
use serde::{Deserialize, Serialize};
use time::{Duration, OffsetDateTime};
use utoipa::ToSchema;
use uuid::Uuid;

/// How long a deleted manual can be brought back.
pub const KEPT: Duration = Duration::days(30);

/// A manual that was deleted and not yet purged.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct DeletedRow {
    pub id: ManualId,
    pub title: String,
    pub device: String,
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub deleted_at: OffsetDateTime,
    /// From then on it cannot be brought back.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub purged_from: OffsetDateTime,
}

/// A recording as it is kept.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct KeptRecording {
    pub id: RecordingId,
    pub title: String,
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub brought_at: OffsetDateTime,
    pub bytes: i64,
    /// Whether a manual was made from it, a deleted one or one of its earlier states included.
    pub used: bool,
}

/// What one server keeps at most.
#[derive(Debug, Clone, Copy)]
pub struct Quota {
    pub manuals: u64,
    pub recording_bytes: i64,
}

impl Default for Quota {
    fn default() -> Self {
        Self { manuals: 10_000, recording_bytes: 4_000_000_000 }
    }
}

/// What the store counts, for whoever runs the server.
#[derive(Debug, Default)]
pub struct Figures {
    /// Recordings read since the start, and under way.
    pub readings: u64,
    pub reading: usize,
    /// Connections to the database, and those that wait for work.
    pub connections: u32,
    pub idle: usize,
    /// What the database takes on its disk; 0 where it does not answer.
    pub database_bytes: i64,
}

#[derive(FromQueryResult)]
struct RecordingRow {
    id: Uuid,
    title: String,
    created_at: OffsetDateTime,
    bytes: i64,
    used: bool,
}

/// Recordings that any manual holds or ever held: an undo may bring one back.
const USED: &str = "SELECT jsonb_object_keys(snapshot->'recordings')::uuid FROM manuals \
    UNION SELECT (image->'place'->>'id')::uuid FROM manual_edits, jsonb_array_elements(change->'images') AS image \
    WHERE image->'place'->>'aspect' = 'recordings'";

impl Store {
    /// Manuals that can be brought back, the latest deleted first.
    pub async fn deleted(&self) -> Result<Vec<DeletedRow>, StoreError> {
        let rows = manual::Entity::find()
            .filter(manual::Column::DeletedAt.is_not_null())
            .select_only()
            .columns([manual::Column::Id, manual::Column::Title, manual::Column::Device, manual::Column::DeletedAt])
            .order_by_desc(manual::Column::DeletedAt)
            .into_tuple::<(Uuid, String, String, OffsetDateTime)>()
            .all(&self.db)
            .await?;
        let row = |(id, title, device, deleted_at)| DeletedRow {
            id: ManualId(id),
            title,
            device,
            deleted_at,
            purged_from: deleted_at + KEPT,
        };
        Ok(rows.into_iter().map(row).collect())
    }

    /// Purges what was deleted before a time; what remains says that it was there. Gives how many went.
    pub async fn purge(&self, before: OffsetDateTime) -> Result<usize, StoreError> {
        let old = manual::Entity::find().filter(manual::Column::DeletedAt.lt(before)).select_only();
        let old = old.columns([manual::Column::Id, manual::Column::Title]);
        let old = old.into_tuple::<(Uuid, String)>().all(&self.db).await?;
        for (id, title) in &old {
            let txn = self.db.begin().await?;
            let revisions = revision::Entity::find().filter(revision::Column::ManualId.eq(*id)).count(&txn).await?;
            let tombstone = purged::ActiveModel {
                id: Set(*id),
                title: Set(title.clone()),
                revisions: Set(revisions as i32),
                purged_at: Set(OffsetDateTime::now_utc()),
                reason: Set(format!("deleted, and not brought back within {} days", KEPT.whole_days())),
            };
            let mut again = OnConflict::column(purged::Column::Id);
            again.update_columns([
                purged::Column::Title,
                purged::Column::Revisions,
                purged::Column::PurgedAt,
                purged::Column::Reason,
            ]);
            purged::Entity::insert(tombstone).on_conflict(again).exec(&txn).await?;
            revision::Entity::delete_many().filter(revision::Column::ManualId.eq(*id)).exec(&txn).await?;
            edit::Entity::delete_many().filter(edit::Column::ManualId.eq(*id)).exec(&txn).await?;
            manual::Entity::delete_by_id(*id).exec(&txn).await?;
            txn.commit().await?;
            tracing::info!(manual = %id, revisions, "purged");
        }
        Ok(old.len())
    }

    /// Why something of a manual is not there: it may have been purged.
    pub(super) async fn missing(&self, id: ManualId, what: &'static str) -> Result<StoreError, StoreError> {
        let row = purged::Entity::find_by_id(id.0).one(&self.db).await?;
        Ok(row.map_or(StoreError::NotFound(what), |p| StoreError::Purged {
            title: p.title,
            on: p.purged_at.date(),
            reason: p.reason,
        }))
    }

    /// All recordings, the latest first.
    pub async fn recordings(&self) -> Result<Vec<KeptRecording>, StoreError> {
        let sql = format!(
            "SELECT id, title, created_at, octet_length(source)::bigint AS bytes, id IN ({USED}) AS used \
             FROM recordings ORDER BY created_at DESC, id"
        );
        let query = Statement::from_string(self.db.get_database_backend(), sql);
        let rows = RecordingRow::find_by_statement(query).all(&self.db).await?;
        let row = |r: RecordingRow| KeptRecording {
            id: RecordingId(r.id),
            title: r.title,
            brought_at: r.created_at,
            bytes: r.bytes,
            used: r.used,
        };
        Ok(rows.into_iter().map(row).collect())
    }

    /// Deletes a recording that no manual was made from.
    ///
    /// # Errors
    /// [`StoreError::InUse`] where one was: its evidence would lead nowhere.
    pub async fn delete_recording(&self, id: RecordingId) -> Result<(), StoreError> {
        let sql = format!("DELETE FROM recordings WHERE id = $1 AND id NOT IN ({USED})");
        let statement = Statement::from_sql_and_values(self.db.get_database_backend(), sql, [id.0.into()]);
        if self.db.execute_raw(statement).await?.rows_affected() > 0 {
            self.forget_readings(id);
            return Ok(());
        }
        match recording::Entity::find_by_id(id.0).one(&self.db).await? {
            Some(_) => Err(StoreError::InUse),
            None => Err(StoreError::NotFound("recording")),
        }
    }

    /// The figures as they stand now.
    pub async fn figures(&self) -> Figures {
        let (readings, reading) = self.readers.figures();
        let pool = self.db.get_postgres_connection_pool();
        let sql = "SELECT pg_database_size(current_database()) AS bytes";
        let asked = self.db.query_one_raw(Statement::from_string(self.db.get_database_backend(), sql)).await;
        let database_bytes = asked.ok().flatten().and_then(|row| row.try_get("", "bytes").ok()).unwrap_or_default();
        Figures { readings, reading, connections: pool.size(), idle: pool.num_idle(), database_bytes }
    }

    /// Refuses what would be one too many.
    pub(super) async fn room_for_manual(&self) -> Result<(), StoreError> {
        match manual::Entity::find().count(&self.db).await? {
            kept if kept >= self.quota.manuals => Err(StoreError::Quota(format!("{} manuals", self.quota.manuals))),
            _ => Ok(()),
        }
    }

    pub(super) async fn room_for_recording(&self, bytes: usize) -> Result<(), StoreError> {
        let sql = "SELECT coalesce(sum(octet_length(source)), 0)::bigint AS bytes FROM recordings";
        let query = Statement::from_string(self.db.get_database_backend(), sql);
        let row = self.db.query_one_raw(query).await?;
        let kept: i64 = row.map_or(Ok(0), |row| row.try_get("", "bytes"))?;
        if kept + bytes as i64 > self.quota.recording_bytes {
            return Err(StoreError::Quota(format!("{} MB of recordings", self.quota.recording_bytes / 1_000_000)));
        }
        Ok(())
    }
}
