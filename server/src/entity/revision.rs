//! `guide_revisions`: what was published, as it was published.

use sea_orm::entity::prelude::*;

#[derive(Debug, Clone, PartialEq, DeriveEntityModel)]
#[sea_orm(table_name = "guide_revisions")]
pub struct Model {
    #[sea_orm(primary_key, auto_increment = false)]
    pub manual_id: Uuid,
    #[sea_orm(primary_key, auto_increment = false)]
    pub number: i32,
    pub author: String,
    pub at: TimeDateTimeWithTimeZone,
    /// The edit that was newest.
    pub seq: i64,
    pub markdown: String,
    pub manual: Json,
    /// Version of the program whose rules worked it out.
    pub rules: String,
}

#[derive(Debug, Clone, Copy, EnumIter, DeriveRelation)]
pub enum Relation {}

impl ActiveModelBehavior for ActiveModel {}
