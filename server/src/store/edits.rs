//! The edit log: applying, rebasing, undo and redo, history.

use super::{Row, Store, StoreError, change_of, rows, shelf::search_text, to_json};
use crate::entity::{edit, manual};
use paso_core::checks;
use paso_core::finding::Stop;
use paso_core::ids::{ManualId, StepId};
use paso_core::manual::{Change, Edit, Entry, EntryKind, FORMAT, Manual, Place, Refusal, next_redo, next_undo};
use sea_orm::{
    ColumnTrait, ConnectionTrait, DatabaseTransaction, EntityTrait, QueryFilter, QueryOrder, QuerySelect, Set,
    TransactionTrait,
};
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// A snapshot is written every so many edits: loading then replays a few dozen at most.
const SNAPSHOT_EVERY: i64 = 50;

/// An edit as a client sends it.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct EditRequest {
    /// UUIDv7 made by the client; the same edit sent twice is applied once.
    pub id: Uuid,
    /// The newest edit the client knows.
    pub base_seq: i64,
    pub edit: Edit,
}

/// What an edit did, and no more than that.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct Applied {
    pub seq: i64,
    /// Fields before and after, to bring a copy up to date. Edits of others since `base_seq` come first.
    pub change: Change,
    pub order: Vec<StepId>,
    pub can_undo: bool,
    pub can_redo: bool,
    pub blocking: BTreeMap<Stop, u32>,
}

/// Both versions of what two people changed.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct Clash {
    /// What was asked for; empty for an undo.
    pub mine: Option<Edit>,
    pub theirs: Vec<Theirs>,
    /// The newest edit; send again with this as `base_seq` to insist.
    pub seq: i64,
}

impl Clash {
    /// "Ann and Bob".
    pub(super) fn authors(&self) -> String {
        let names: BTreeSet<&str> = self.theirs.iter().map(|t| t.author.as_str()).collect();
        names.into_iter().collect::<Vec<_>>().join(" and ")
    }
}

/// What stands at a place now, and who put it there.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct Theirs {
    pub place: Place,
    #[schema(value_type = Value)]
    pub value: Option<serde_json::Value>,
    pub author: String,
}

/// One entry of a manual's history.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct HistoryEntry {
    pub seq: i64,
    pub author: String,
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub at: OffsetDateTime,
    pub kind: EntryKind,
    pub edit: Option<Edit>,
    pub change: Change,
}

/// A step back or forward through an author's own edits.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Way {
    Undo,
    Redo,
}

impl Store {
    /// Applies an edit, or answers with both versions where somebody else changed the same since.
    pub async fn edit(&self, id: ManualId, author: &str, request: &EditRequest) -> Result<Applied, StoreError> {
        let txn = self.db.begin().await?;
        let row = self.locked(&txn, id).await?;
        let before = self.current(&txn, &row).await?;
        if request.base_seq > row.seq {
            return Err(StoreError::Ahead { asked: request.base_seq, newest: row.seq });
        }
        let since = since(&txn, id, request.base_seq).await?;
        if let Some(sent) = sent_before(&txn, id, request.id).await? {
            if !asked_for(&sent, &request.edit)? || sent.author != author {
                return Err(StoreError::Reused(request.id));
            }
            // It was applied, and the answer never arrived.
            return self.applied(&txn, id, author, row.seq, &before, merged(&since)?).await;
        }
        let applied = before.apply(&request.edit, author);
        let (next, change) = match applied {
            Ok(done) => done,
            Err(Refusal::Gone { .. }) if !since.is_empty() => {
                return Err(clash(&before, row.seq, &request.edit, &since, None)?);
            }
            Err(refusal) => return Err(refusal.into()),
        };
        let others: Vec<&edit::Model> = since.iter().filter(|e| change_of(e).is_ok_and(|c| c.meets(&change))).collect();
        if !others.is_empty() {
            return Err(clash(&before, row.seq, &request.edit, &since, Some(&change))?);
        }
        if change.images.is_empty() {
            return self.applied(&txn, id, author, row.seq, &before, merged(&since)?).await;
        }
        let logged =
            Logged { id: request.id, author, kind: "edit", of: None, edit: Some(&request.edit), change: &change };
        let next = self.append(&txn, &row, next, logged).await?;
        let mut all = merged(&since)?;
        all.images.extend(change.images);
        // Right after an edit of one's own there is something to undo and nothing to redo: the log need not be read.
        let answer = answer(row.seq + 1, &next, all, (true, false));
        txn.commit().await?;
        self.keep(id, answer.seq, &next);
        Ok(answer)
    }

    /// Reverts the author's latest edit in force, or brings back what they undid last. A request sent twice steps once.
    pub async fn step(&self, id: ManualId, author: &str, way: Way, request: Uuid) -> Result<Applied, StoreError> {
        let txn = self.db.begin().await?;
        let row = self.locked(&txn, id).await?;
        let before = self.current(&txn, &row).await?;
        let kind = match way {
            Way::Undo => "undo",
            Way::Redo => "redo",
        };
        if let Some(sent) = sent_before(&txn, id, request).await? {
            if sent.kind != kind || sent.author != author {
                return Err(StoreError::Reused(request));
            }
            return self.applied(&txn, id, author, row.seq, &before, change_of(&sent)?).await;
        }
        let entries = entries(&txn, id, author).await?;
        let target = match way {
            Way::Undo => next_undo(&entries),
            Way::Redo => next_redo(&entries),
        };
        let target = target.ok_or(StoreError::Nothing(kind))?;
        let entry = edit::Entity::find_by_id((id.0, target)).one(&txn).await?.ok_or(StoreError::NotFound("edit"))?;
        let (next, change) = match before.revert(&change_of(&entry)?) {
            Ok(done) => done,
            Err(Refusal::Clash { .. }) => {
                let since = since(&txn, id, target).await?;
                let undone = change_of(&entry)?;
                return Err(clash_on(&before, row.seq, None, &since, &undone)?);
            }
            Err(refusal) => return Err(refusal.into()),
        };
        let logged = Logged { id: request, author, kind, of: Some(target), edit: None, change: &change };
        let next = self.append(&txn, &row, next, logged).await?;
        let answer = self.applied(&txn, id, author, row.seq + 1, &next, change).await?;
        txn.commit().await?;
        self.keep(id, answer.seq, &next);
        Ok(answer)
    }

    /// The latest entries of a manual's history, newest first.
    pub async fn history(&self, id: ManualId, limit: u64) -> Result<Vec<HistoryEntry>, StoreError> {
        self.row(&self.db, id).await?;
        let rows = edit::Entity::find()
            .filter(edit::Column::ManualId.eq(id.0))
            .order_by_desc(edit::Column::Seq)
            .limit(limit)
            .all(&self.db)
            .await?;
        rows.into_iter()
            .map(|row| {
                Ok(HistoryEntry {
                    seq: row.seq,
                    kind: kind_of(&row.kind, row.of),
                    change: change_of(&row)?,
                    edit: row
                        .edit
                        .map(serde_json::from_value)
                        .transpose()
                        .map_err(|e| StoreError::Stored(e.to_string()))?,
                    author: row.author,
                    at: row.at,
                })
            })
            .collect()
    }

    /// The row, held until the transaction ends: edits of one manual come one after the other.
    pub(super) async fn locked(&self, txn: &DatabaseTransaction, id: ManualId) -> Result<Row, StoreError> {
        rows(id).lock_exclusive().into_model::<Row>().one(txn).await?.ok_or(StoreError::NotFound("manual"))
    }

    async fn append(
        &self,
        txn: &DatabaseTransaction,
        row: &Row,
        next: Manual,
        logged: Logged<'_>,
    ) -> Result<Arc<Manual>, StoreError> {
        let seq = row.seq + 1;
        let now = OffsetDateTime::now_utc();
        let entry = edit::ActiveModel {
            manual_id: Set(row.id),
            seq: Set(seq),
            id: Set(logged.id),
            author: Set(logged.author.to_owned()),
            at: Set(now),
            kind: Set(logged.kind.to_owned()),
            of: Set(logged.of),
            edit: Set(logged.edit.map(to_json).transpose()?),
            change: Set(to_json(logged.change)?),
            format: Set(FORMAT as i32),
        };
        edit::Entity::insert(entry).exec_without_returning(txn).await?;
        let mut update = manual::ActiveModel {
            id: Set(row.id),
            seq: Set(seq),
            title: Set(next.head.title.clone()),
            device: Set(next.head.device.clone()),
            steps: Set(next.steps.len() as i32),
            search: Set(search_text(&next)),
            updated_at: Set(now),
            ..Default::default()
        };
        if seq - row.snapshot_seq >= SNAPSHOT_EVERY {
            update.snapshot = Set(to_json(&next)?);
            update.snapshot_seq = Set(seq);
        }
        manual::Entity::update_many().set(update).filter(manual::Column::Id.eq(row.id)).exec(txn).await?;
        Ok(Arc::new(next))
    }

    async fn applied(
        &self,
        db: &impl ConnectionTrait,
        id: ManualId,
        author: &str,
        seq: i64,
        manual: &Manual,
        change: Change,
    ) -> Result<Applied, StoreError> {
        let entries = entries(db, id, author).await?;
        Ok(answer(seq, manual, change, (next_undo(&entries).is_some(), next_redo(&entries).is_some())))
    }
}

/// How many findings block publishing, by stop. Contradictions of a recording never do, so no recording is read for it.
pub(super) fn blocking(manual: &Manual) -> BTreeMap<Stop, u32> {
    checks::blocking_by_stop(&checks::findings(manual))
}

fn answer(seq: i64, manual: &Manual, change: Change, (can_undo, can_redo): (bool, bool)) -> Applied {
    Applied { seq, change, order: manual.order(), can_undo, can_redo, blocking: blocking(manual) }
}

struct Logged<'a> {
    id: Uuid,
    author: &'a str,
    kind: &'static str,
    of: Option<i64>,
    edit: Option<&'a Edit>,
    change: &'a Change,
}

fn kind_of(kind: &str, of: Option<i64>) -> EntryKind {
    match (kind, of) {
        ("undo", Some(of)) => EntryKind::Undo(of),
        ("redo", Some(of)) => EntryKind::Redo(of),
        _ => EntryKind::Edit,
    }
}

/// One author's entries, oldest first, as far as undo and redo care.
pub(super) async fn entries(db: &impl ConnectionTrait, id: ManualId, author: &str) -> Result<Vec<Entry>, StoreError> {
    let rows = edit::Entity::find()
        .filter(edit::Column::ManualId.eq(id.0))
        .filter(edit::Column::Author.eq(author))
        .select_only()
        .columns([edit::Column::Seq, edit::Column::Kind, edit::Column::Of])
        .order_by_asc(edit::Column::Seq)
        .into_tuple::<(i64, String, Option<i64>)>()
        .all(db)
        .await?;
    Ok(rows.into_iter().map(|(seq, kind, of)| Entry { seq, kind: kind_of(&kind, of) }).collect())
}

async fn since(db: &impl ConnectionTrait, id: ManualId, seq: i64) -> Result<Vec<edit::Model>, StoreError> {
    Ok(edit::Entity::find()
        .filter(edit::Column::ManualId.eq(id.0))
        .filter(edit::Column::Seq.gt(seq))
        .order_by_asc(edit::Column::Seq)
        .all(db)
        .await?)
}

/// The entry that a request of this id made, if it came before.
async fn sent_before(db: &impl ConnectionTrait, manual: ManualId, id: Uuid) -> Result<Option<edit::Model>, StoreError> {
    let sent = edit::Entity::find().filter(edit::Column::ManualId.eq(manual.0)).filter(edit::Column::Id.eq(id));
    Ok(sent.one(db).await?)
}

/// Whether an entry came of this very edit. What was drafted of a recording depends on the manual at that time: there it is
/// the recording that counts.
fn asked_for(sent: &edit::Model, edit: &Edit) -> Result<bool, StoreError> {
    let asked = to_json(edit)?;
    let recording = |e: &serde_json::Value| e.pointer("/recording/attach/recording/id").cloned();
    let attached = recording(&asked);
    Ok(match &sent.edit {
        Some(sent) if attached.is_some() => recording(sent) == attached,
        sent => *sent == Some(asked),
    })
}

fn merged(since: &[edit::Model]) -> Result<Change, StoreError> {
    let mut all = Change::default();
    for entry in since {
        all.images.extend(change_of(entry)?.images);
    }
    Ok(all)
}

/// Both versions: what was asked for, and what stands at the places that somebody else touched since.
fn clash(
    now: &Manual,
    seq: i64,
    mine: &Edit,
    since: &[edit::Model],
    change: Option<&Change>,
) -> Result<StoreError, StoreError> {
    match change {
        Some(change) => clash_on(now, seq, Some(mine), since, change),
        // What the edit was about is gone: everything that went since is the other version.
        None => {
            let mut went = merged(since)?;
            went.images.retain(|i| i.after.is_none());
            clash_on(now, seq, Some(mine), since, &went)
        }
    }
}

fn clash_on(
    now: &Manual,
    seq: i64,
    mine: Option<&Edit>,
    since: &[edit::Model],
    change: &Change,
) -> Result<StoreError, StoreError> {
    let mut theirs: Vec<Theirs> = Vec::new();
    for entry in since {
        for image in change_of(entry)?.images {
            if change.places().any(|p| p.meets(&image.place)) {
                theirs.retain(|t| t.place != image.place);
                theirs.push(Theirs {
                    value: now.value_at(&image.place),
                    place: image.place,
                    author: entry.author.clone(),
                });
            }
        }
    }
    Ok(StoreError::Clash(Box::new(Clash { mine: mine.cloned(), theirs, seq })))
}
