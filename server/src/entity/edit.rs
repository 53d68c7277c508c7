//! `manual_edits`: the append-only log of every manual.

use sea_orm::entity::prelude::*;

#[derive(Debug, Clone, PartialEq, DeriveEntityModel)]
#[sea_orm(table_name = "manual_edits")]
pub struct Model {
    #[sea_orm(primary_key, auto_increment = false)]
    pub manual_id: Uuid,
    #[sea_orm(primary_key, auto_increment = false)]
    pub seq: i64,
    /// Made by the client: the same edit sent twice is applied once.
    pub id: Uuid,
    pub author: String,
    pub at: TimeDateTimeWithTimeZone,
    /// `edit`, `undo` or `redo`.
    pub kind: String,
    /// The entry that an undo or redo reverted.
    pub of: Option<i64>,
    /// The edit as asked for; empty for undo and redo.
    pub edit: Option<Json>,
    /// Images before and after.
    pub change: Json,
    /// Format of edit and change.
    pub format: i32,
}

#[derive(Debug, Clone, Copy, EnumIter, DeriveRelation)]
pub enum Relation {}

impl ActiveModelBehavior for ActiveModel {}
