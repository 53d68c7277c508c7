//! `manuals`: the latest snapshot of each manual and what the shelf shows of it.

use sea_orm::entity::prelude::*;

#[derive(Debug, Clone, PartialEq, DeriveEntityModel)]
#[sea_orm(table_name = "manuals")]
pub struct Model {
    #[sea_orm(primary_key, auto_increment = false)]
    pub id: Uuid,
    pub title: String,
    pub device: String,
    pub archived: bool,
    pub deleted_at: Option<TimeDateTimeWithTimeZone>,
    /// Number of the newest edit.
    pub seq: i64,
    pub snapshot: Json,
    /// The edit the snapshot was taken after.
    pub snapshot_seq: i64,
    pub steps: i32,
    /// What the shelf searches: title, device, steps and parts, in lower case.
    pub search: String,
    pub created_at: TimeDateTimeWithTimeZone,
    pub updated_at: TimeDateTimeWithTimeZone,
    /// Fingerprint of what it began as; none of those that came before fingerprints.
    pub began: Option<Uuid>,
}

#[derive(Debug, Clone, Copy, EnumIter, DeriveRelation)]
pub enum Relation {}

impl ActiveModelBehavior for ActiveModel {}
