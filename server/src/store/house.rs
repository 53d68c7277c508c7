//! House words: what authors put right in the other manuals of this installation.

use super::{Store, StoreError};
use crate::entity::manual;
use paso_core::ids::ManualId;
use paso_core::manual::House;
use sea_orm::{ColumnTrait, EntityTrait, QueryFilter, QueryOrder, QuerySelect};
use std::sync::Arc;
use uuid::Uuid;

/// So many manuals are asked, the latest first: what was decided long ago and never again is no habit of the house.
const ASKED: u64 = 24;

/// The manuals with their newest edits, and what was collected from them.
#[derive(Debug)]
pub(super) struct Collected {
    from: Vec<(Uuid, i64)>,
    house: Arc<House>,
}

impl Store {
    /// What was put right in the manuals beside this one; collected anew only where one of them changed.
    pub(super) async fn house(&self, beside: ManualId) -> Result<Arc<House>, StoreError> {
        let from: Vec<(Uuid, i64)> = manual::Entity::find()
            .filter(manual::Column::DeletedAt.is_null())
            .filter(manual::Column::Id.ne(beside.0))
            .select_only()
            .columns([manual::Column::Id, manual::Column::Seq])
            .order_by_desc(manual::Column::UpdatedAt)
            .limit(ASKED)
            .into_tuple()
            .all(&self.db)
            .await?;
        let same = |c: &&Collected| c.from == from;
        if let Some(known) = self.house.lock().expect("no panic while held").as_ref().filter(same) {
            return Ok(known.house.clone());
        }
        let mut manuals = Vec::new();
        for (id, _) in &from {
            match self.manual(ManualId(*id)).await {
                Ok((_, manual)) => manuals.push(manual),
                // Deleted since it was listed.
                Err(StoreError::NotFound(_)) => {}
                Err(other) => return Err(other),
            }
        }
        let house = Arc::new(House::of(manuals.iter().map(AsRef::as_ref)));
        *self.house.lock().expect("no panic while held") = Some(Collected { from, house: house.clone() });
        Ok(house)
    }
}
