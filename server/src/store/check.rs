//! Whether everything that is kept still fits: manuals from their snapshot and their edits, revisions, recordings.

use super::{Store, StoreError, replayed};
use crate::entity::{edit, manual, recording, revision};
use paso_core::manual::{Manual, from_stored};
use paso_core::recording::Recording;
use sea_orm::{ColumnTrait, EntityTrait, QueryFilter, QueryOrder, QuerySelect};
use uuid::Uuid;

/// What lies behind the sentence for people, which says only that it does not fit.
fn why(error: StoreError) -> String {
    match error {
        StoreError::Stored(why) => why,
        other => other.to_string(),
    }
}

impl Store {
    /// How many manuals there are, deleted ones included, and what is wrong with anything, a sentence each.
    pub async fn check(&self) -> Result<(usize, Vec<String>), StoreError> {
        let mut faults = Vec::new();
        let manuals = manual::Entity::find().select_only().column(manual::Column::Id).into_tuple::<Uuid>();
        let manuals = manuals.all(&self.db).await?;
        for id in &manuals {
            if let Some(fault) = self.fault_of_manual(*id).await? {
                faults.push(format!("manual {id}: {fault}"));
            }
        }
        let revisions = revision::Entity::find().select_only();
        let revisions = revisions.columns([revision::Column::ManualId, revision::Column::Number]);
        for (id, number) in revisions.into_tuple::<(Uuid, i32)>().all(&self.db).await? {
            let row = revision::Entity::find_by_id((id, number)).one(&self.db).await?;
            let read = row.map(|row| from_stored(&row.manual.to_string()));
            if let Some(Err(e)) = read {
                faults.push(format!("revision {number} of manual {id}: {e}"));
            }
        }
        let recordings = recording::Entity::find().select_only().column(recording::Column::Id).into_tuple::<Uuid>();
        for id in recordings.all(&self.db).await? {
            let row = recording::Entity::find_by_id(id).one(&self.db).await?;
            if let Some(Err(e)) = row.map(|row| serde_json::from_value::<Recording>(row.parsed)) {
                faults.push(format!("recording {id}: {e}"));
            }
        }
        Ok((manuals.len(), faults))
    }

    /// Goes through all edits from the snapshot on, without the cache.
    async fn fault_of_manual(&self, id: Uuid) -> Result<Option<String>, StoreError> {
        let Some(row) = manual::Entity::find_by_id(id).one(&self.db).await? else { return Ok(None) };
        let snapshot: Manual = match from_stored(&row.snapshot.to_string()) {
            Ok(manual) => manual,
            Err(e) => return Ok(Some(format!("its snapshot cannot be read: {e}"))),
        };
        let edits = edit::Entity::find().filter(edit::Column::ManualId.eq(id)).order_by_asc(edit::Column::Seq);
        let edits = edits.all(&self.db).await?;
        let missing = (1..=row.seq).zip(edits.iter().map(|e| Some(e.seq)).chain(std::iter::repeat(None)));
        if let Some((seq, _)) = missing.into_iter().find(|(wanted, there)| Some(*wanted) != *there) {
            return Ok(Some(format!("its edit {seq} of {} is missing", row.seq)));
        }
        Ok(match replayed(snapshot, edits.iter().filter(|e| e.seq > row.snapshot_seq)) {
            Ok(manual) => manual.check_all().err(),
            Err(e) => Some(why(e)),
        })
    }
}
