//! `purged_manuals`: what remains of a manual that was deleted and purged: that it was, and why it is no more.

use sea_orm::entity::prelude::*;

#[derive(Debug, Clone, PartialEq, DeriveEntityModel)]
#[sea_orm(table_name = "purged_manuals")]
pub struct Model {
    #[sea_orm(primary_key, auto_increment = false)]
    pub id: Uuid,
    pub title: String,
    /// How many revisions of it had been published.
    pub revisions: i32,
    pub purged_at: TimeDateTimeWithTimeZone,
    pub reason: String,
}

#[derive(Debug, Clone, Copy, EnumIter, DeriveRelation)]
pub enum Relation {}

impl ActiveModelBehavior for ActiveModel {}
