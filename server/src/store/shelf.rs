//! The shelf: manuals as rows, and a manual as a whole.

use super::{Row, Store, StoreError, edits, rows, to_json};
use crate::entity::manual;
use paso_core::finding::Stop;
use paso_core::ids::{ActionId, ManualId, StepId};
use paso_core::manual::{Manual, Source, draft};
use sea_orm::sea_query::Expr;
use sea_orm::{ColumnTrait, ConnectionTrait, EntityTrait, QueryFilter, QueryOrder, QuerySelect, Set, TryInsertResult};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use std::sync::Arc;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// One manual on the shelf.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct ShelfRow {
    pub id: ManualId,
    pub title: String,
    pub device: String,
    pub archived: bool,
    pub steps: i32,
    pub seq: i64,
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub updated_at: OffsetDateTime,
}

/// A whole manual with what is worked out of it.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct ManualView {
    /// The newest edit; send it along with every edit.
    pub seq: i64,
    pub manual: Manual,
    pub order: Vec<StepId>,
    /// What act, parts and roles of each sentence make; what readers see of those that have no words of their own.
    pub worded: BTreeMap<ActionId, String>,
    pub can_undo: bool,
    pub can_redo: bool,
    pub archived: bool,
    /// How many findings block publishing, by stop.
    pub blocking: BTreeMap<Stop, u32>,
}

/// Most rows on one page of the shelf.
const PAGE: u64 = 200;

impl Store {
    /// Manuals that hold every word of `find`, the latest first.
    pub async fn shelf(&self, find: &str, archived: bool) -> Result<Vec<ShelfRow>, StoreError> {
        let mut query = manual::Entity::find()
            .filter(manual::Column::DeletedAt.is_null())
            .filter(manual::Column::Archived.eq(archived));
        for word in find.to_lowercase().split_whitespace().take(8) {
            let word = word.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_");
            query = query.filter(manual::Column::Search.like(format!("%{word}%")));
        }
        let rows = query
            .select_only()
            .columns([
                manual::Column::Id,
                manual::Column::Title,
                manual::Column::Device,
                manual::Column::Archived,
                manual::Column::Steps,
                manual::Column::Seq,
                manual::Column::UpdatedAt,
            ])
            .order_by_desc(manual::Column::UpdatedAt)
            .limit(PAGE)
            .into_tuple::<(Uuid, String, String, bool, i32, i64, OffsetDateTime)>()
            .all(&self.db)
            .await?;
        Ok(rows
            .into_iter()
            .map(|(id, title, device, archived, steps, seq, updated_at)| ShelfRow {
                id: ManualId(id),
                title,
                device,
                archived,
                steps,
                seq,
                updated_at,
            })
            .collect())
    }

    /// Drafts a manual from recordings that were brought before, or makes an empty one from none. Made twice under one id,
    /// it is there once.
    pub async fn create(&self, id: ManualId, title: &str, device: &str, recordings: &[Uuid]) -> Result<(), StoreError> {
        let mut read = Vec::new();
        for recording in recordings {
            read.push(self.recording(*recording).await?);
        }
        let (title, device) = (title.to_owned(), device.to_owned());
        let drafting = self.readers.run(move || {
            let sources: Vec<Source<'_>> =
                read.iter().map(|r| Source { recording: r.reference(), reading: &r.read.reading }).collect();
            draft(id, &title, &device, &sources)
        });
        let manual = drafting.await?;
        if self.insert(&self.db, &manual).await? || self.began_as(&manual).await? {
            return Ok(());
        }
        Err(StoreError::Reused(id.0))
    }

    /// Puts a manual from a file on the shelf: under the id that is wanted for it, else under its own, or a new one where
    /// that is taken.
    pub async fn import(&self, json: &str, wanted: Option<ManualId>) -> Result<ManualId, StoreError> {
        let mut manual = paso_core::manual::from_json(json).map_err(StoreError::Import)?;
        manual.id = wanted.unwrap_or(manual.id);
        while !self.insert(&self.db, &manual).await? {
            match wanted {
                Some(id) if self.began_as(&manual).await? => return Ok(id),
                Some(id) => return Err(StoreError::Reused(id.0)),
                None => manual.id = ManualId(Uuid::now_v7()),
            }
        }
        Ok(manual.id)
    }

    /// Whether the manual that goes by this one's id began like it. What it became since is in its edits.
    async fn began_as(&self, manual: &Manual) -> Result<bool, StoreError> {
        let first = manual::Entity::find_by_id(manual.id.0).one(&self.db).await?;
        Ok(first.is_some_and(|row| row.began == Some(fingerprint(manual))))
    }

    /// Puts a manual on the shelf; `false` where its id is taken.
    pub(super) async fn insert(&self, db: &impl ConnectionTrait, manual: &Manual) -> Result<bool, StoreError> {
        self.room_for_manual().await?;
        let now = OffsetDateTime::now_utc();
        let row = manual::ActiveModel {
            id: Set(manual.id.0),
            title: Set(manual.head.title.clone()),
            device: Set(manual.head.device.clone()),
            archived: Set(false),
            deleted_at: Set(None),
            seq: Set(0),
            snapshot: Set(to_json(manual)?),
            snapshot_seq: Set(0),
            steps: Set(manual.steps.len() as i32),
            search: Set(search_text(manual)),
            created_at: Set(now),
            updated_at: Set(now),
            began: Set(Some(fingerprint(manual))),
        };
        let inserted = manual::Entity::insert(row).on_conflict_do_nothing_on([manual::Column::Id]).exec(db).await?;
        Ok(!matches!(inserted, TryInsertResult::Conflicted))
    }

    /// The row of a manual that has not been deleted.
    pub(super) async fn row(&self, db: &impl ConnectionTrait, id: ManualId) -> Result<Row, StoreError> {
        match rows(id).into_model::<Row>().one(db).await? {
            Some(row) => Ok(row),
            None => Err(self.missing(id, "manual").await?),
        }
    }

    /// A manual at its newest edit.
    pub async fn manual(&self, id: ManualId) -> Result<(i64, Arc<Manual>), StoreError> {
        let row = self.row(&self.db, id).await?;
        Ok((row.seq, self.current(&self.db, &row).await?))
    }

    /// A manual with what is worked out of it, for one author.
    pub async fn view(&self, id: ManualId, author: &str) -> Result<ManualView, StoreError> {
        let row = self.row(&self.db, id).await?;
        let manual = self.current(&self.db, &row).await?;
        let entries = edits::entries(&self.db, id, author).await?;
        Ok(ManualView {
            seq: row.seq,
            order: manual.order(),
            worded: manual.wordings(),
            can_undo: paso_core::manual::next_undo(&entries).is_some(),
            can_redo: paso_core::manual::next_redo(&entries).is_some(),
            archived: row.archived,
            blocking: edits::blocking(&manual),
            manual: Manual::clone(&manual),
        })
    }

    /// Puts a manual away or back.
    pub async fn archive(&self, id: ManualId, archived: bool) -> Result<(), StoreError> {
        self.row(&self.db, id).await?;
        manual::Entity::update_many()
            .col_expr(manual::Column::Archived, Expr::value(archived))
            .filter(manual::Column::Id.eq(id.0))
            .exec(&self.db)
            .await?;
        Ok(())
    }

    /// Deletes a manual so that [`Store::restore`] can bring it back.
    pub async fn delete(&self, id: ManualId) -> Result<(), StoreError> {
        self.row(&self.db, id).await?;
        self.set_deleted(id, Some(OffsetDateTime::now_utc())).await
    }

    /// Brings a deleted manual back.
    pub async fn restore(&self, id: ManualId) -> Result<(), StoreError> {
        let there = manual::Entity::find_by_id(id.0).one(&self.db).await?;
        if there.is_none() {
            return Err(self.missing(id, "manual").await?);
        }
        self.set_deleted(id, None).await
    }

    async fn set_deleted(&self, id: ManualId, at: Option<OffsetDateTime>) -> Result<(), StoreError> {
        manual::Entity::update_many()
            .col_expr(manual::Column::DeletedAt, Expr::value(at))
            .filter(manual::Column::Id.eq(id.0))
            .exec(&self.db)
            .await?;
        Ok(())
    }

    /// Whether anything was ever put on the shelf, deleted things included.
    pub async fn is_empty(&self) -> Result<bool, StoreError> {
        Ok(manual::Entity::find()
            .select_only()
            .column(manual::Column::Id)
            .into_tuple::<Uuid>()
            .one(&self.db)
            .await?
            .is_none())
    }
}

/// The same for the same manual, whatever id it goes by.
fn fingerprint(manual: &Manual) -> Uuid {
    let nameless = Manual { id: ManualId(Uuid::nil()), ..manual.clone() };
    let json = serde_json::to_vec(&nameless).expect("a manual is plain data");
    Uuid::new_v5(&Uuid::NAMESPACE_OID, &json)
}

/// What the shelf searches.
pub(super) fn search_text(manual: &Manual) -> String {
    let words = [&manual.head.title, &manual.head.device]
        .into_iter()
        .chain(manual.steps.values().map(|s| &s.title))
        .chain(manual.parts.values().map(|p| &p.name));
    words.map(|w| w.to_lowercase()).collect::<Vec<_>>().join("\n")
}
