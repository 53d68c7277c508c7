//! `recordings`: sources as they were brought, and their cues. Never changed.

use sea_orm::entity::prelude::*;

#[derive(Debug, Clone, PartialEq, DeriveEntityModel)]
#[sea_orm(table_name = "recordings")]
pub struct Model {
    #[sea_orm(primary_key, auto_increment = false)]
    pub id: Uuid,
    pub title: String,
    pub source: Vec<u8>,
    /// The parsed recording.
    pub parsed: Json,
    pub created_at: TimeDateTimeWithTimeZone,
}

#[derive(Debug, Clone, Copy, EnumIter, DeriveRelation)]
pub enum Relation {}

impl ActiveModelBehavior for ActiveModel {}
