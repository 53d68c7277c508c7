//! Manuals that leave for another installation with all that belongs to them, and that come from one.

use super::{Store, StoreError, to_json};
use crate::bundle::{Bundle, BundledRecording, BundledRevision};
use crate::entity::{recording, revision};
use paso_core::ids::{ManualId, RecordingId};
use sea_orm::{ColumnTrait, EntityTrait, QueryFilter, QueryOrder, Set, TransactionTrait};
use uuid::Uuid;

impl Store {
    /// A manual with its recordings and its revisions.
    pub async fn bundle(&self, id: ManualId) -> Result<Bundle, StoreError> {
        let (_, manual) = self.manual(id).await?;
        let mut recordings = Vec::new();
        for id in manual.recordings.keys() {
            // One that came with an import alone is not here; the manual says that it was.
            if let Some(row) = recording::Entity::find_by_id(id.0).one(&self.db).await? {
                recordings.push(BundledRecording { id: row.id, title: row.title, source: row.source });
            }
        }
        let revisions = revision::Entity::find().filter(revision::Column::ManualId.eq(id.0));
        let revisions = revisions.order_by_asc(revision::Column::Number).all(&self.db).await?;
        let bundled = |r: revision::Model| BundledRevision {
            number: r.number,
            author: r.author,
            at: r.at,
            seq: r.seq,
            markdown: r.markdown,
            manual: r.manual,
            rules: r.rules,
        };
        Ok(Bundle {
            manual: serde_json::to_string_pretty(&*manual).map_err(|e| StoreError::Stored(e.to_string()))?,
            recordings,
            revisions: revisions.into_iter().map(bundled).collect(),
        })
    }

    /// Puts a bundle on the shelf: its recordings under their own ids, the manual under its own or a new one where that is
    /// taken, the revisions with it.
    pub async fn unbundle(&self, bundle: Bundle) -> Result<ManualId, StoreError> {
        // Refused before anything of it is kept.
        let mut manual = paso_core::manual::from_json(&bundle.manual).map_err(StoreError::Import)?;
        for recording in bundle.recordings {
            self.bring(RecordingId(recording.id), &recording.title, recording.source).await?;
        }
        // Recordings without a manual do no harm; a manual without its revisions would.
        let txn = self.db.begin().await?;
        while !self.insert(&txn, &manual).await? {
            manual.id = ManualId(Uuid::now_v7());
        }
        let id = manual.id;
        for r in bundle.revisions {
            let row = revision::ActiveModel {
                manual_id: Set(id.0),
                number: Set(r.number),
                author: Set(r.author),
                at: Set(r.at),
                // Of the edits before it nothing came along.
                seq: Set(0),
                markdown: Set(r.markdown),
                manual: Set(to_json(&r.manual)?),
                rules: Set(r.rules),
            };
            revision::Entity::insert(row).exec_without_returning(&txn).await?;
        }
        txn.commit().await?;
        Ok(id)
    }
}
