//! Published revisions: what was published, kept as it was.

use super::{Store, StoreError, to_json};
use crate::entity::revision;
use paso_core::finding::Finding;
use paso_core::ids::{JobId, ManualId};
use paso_core::manual::Manual;
use paso_core::order::cut;
use paso_core::{checks, publish};
use sea_orm::{
    ActiveModelTrait, ColumnTrait, EntityTrait, QueryFilter, QueryOrder, QuerySelect, Set, TransactionTrait,
};
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use time::OffsetDateTime;
use utoipa::ToSchema;

/// One published revision, without its text.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct RevisionInfo {
    pub number: i32,
    /// Of the guide, as it was called then.
    pub title: String,
    pub author: String,
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub at: OffsetDateTime,
    /// The edit that was newest.
    pub seq: i64,
}

/// Whether nothing blocks publishing, the recordings' own contradictions among it.
fn ready(manual: &Manual, heard: Vec<Finding>) -> Result<(), StoreError> {
    let found: Vec<Finding> = checks::findings(manual).into_iter().chain(heard).collect();
    let blocking: Vec<&str> = checks::blocking(&found).map(|f| f.says.as_str()).collect();
    if blocking.is_empty() {
        return Ok(());
    }
    Err(StoreError::Unready(format!("{} thing(s) block publishing: {}", blocking.len(), blocking.join(" "))))
}

/// The manual, or what one of its jobs cuts from it.
fn cut_to(manual: Arc<Manual>, job: Option<JobId>) -> Result<Arc<Manual>, StoreError> {
    let Some(job) = job else { return Ok(manual) };
    let job = manual.jobs.get(&job).ok_or(StoreError::NotFound("job in this manual"))?;
    let no_way = || StoreError::Unready("no way leads to the parts of this job.".to_owned());
    cut(&manual, job).map(Arc::new).ok_or_else(no_way)
}

fn info_of(row: revision::Model) -> RevisionInfo {
    RevisionInfo { number: row.number, title: title_of(&row.manual), author: row.author, at: row.at, seq: row.seq }
}

fn title_of(manual: &serde_json::Value) -> String {
    manual["head"]["title"].as_str().unwrap_or_default().to_owned()
}

impl Store {
    /// Publishes the manual as it stands, or what one of its jobs cuts from it. What was published since the last edit is
    /// not published again: however often somebody presses, it is one revision.
    ///
    /// # Errors
    /// [`StoreError::Unready`] names what blocks publishing.
    pub async fn publish(&self, id: ManualId, author: &str, job: Option<JobId>) -> Result<RevisionInfo, StoreError> {
        // What the recordings say is read without holding a connection: a few presses at once would use them all up.
        let (seq, manual) = self.manual(id).await?;
        let manual = cut_to(manual, job)?;
        let heard = self.heard(id, &manual).await?;
        let txn = self.db.begin().await?;
        let row = self.locked(&txn, id).await?;
        if row.seq != seq {
            let problem = "somebody changed the manual just now. Look at it, and press again.";
            return Err(StoreError::Unready(problem.to_owned()));
        }
        ready(&manual, heard)?;
        let text = publish::markdown(&manual);
        let rules = env!("CARGO_PKG_VERSION");
        let same = revision::Entity::find()
            .filter(revision::Column::ManualId.eq(id.0))
            .filter(revision::Column::Seq.eq(row.seq))
            .filter(revision::Column::Markdown.eq(&text))
            .filter(revision::Column::Rules.eq(rules))
            .one(&txn)
            .await?;
        if let Some(same) = same {
            return Ok(info_of(same));
        }
        let last: Option<i32> = revision::Entity::find()
            .filter(revision::Column::ManualId.eq(id.0))
            .select_only()
            .column_as(revision::Column::Number.max(), "last")
            .into_tuple()
            .one(&txn)
            .await?
            .flatten();
        let info = RevisionInfo {
            number: last.unwrap_or(0) + 1,
            title: manual.head.title.clone(),
            author: author.to_owned(),
            at: OffsetDateTime::now_utc(),
            seq: row.seq,
        };
        revision::ActiveModel {
            manual_id: Set(id.0),
            number: Set(info.number),
            author: Set(info.author.clone()),
            at: Set(info.at),
            seq: Set(info.seq),
            markdown: Set(text),
            manual: Set(to_json(&*manual)?),
            rules: Set(rules.to_owned()),
        }
        .insert(&txn)
        .await?;
        txn.commit().await?;
        Ok(info)
    }

    /// Revisions of a manual, newest first.
    pub async fn revisions(&self, id: ManualId) -> Result<Vec<RevisionInfo>, StoreError> {
        self.row(&self.db, id).await?;
        let rows = revision::Entity::find()
            .filter(revision::Column::ManualId.eq(id.0))
            .order_by_desc(revision::Column::Number)
            .all(&self.db)
            .await?;
        Ok(rows.into_iter().map(info_of).collect())
    }

    /// The text of a revision as it was published.
    pub async fn revision_markdown(&self, id: ManualId, number: i32) -> Result<String, StoreError> {
        let row = revision::Entity::find_by_id((id.0, number)).one(&self.db).await?;
        match row {
            Some(row) => Ok(row.markdown),
            None => Err(self.missing(id, "revision").await?),
        }
    }
}
