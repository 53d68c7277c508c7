//! How a manual began, so that a request sent twice is known again; and what remains of one that was purged.

use sea_orm_migration::prelude::*;
use sea_orm_migration::schema::*;

#[derive(DeriveMigrationName)]
pub struct Migration;

#[derive(DeriveIden)]
enum Manuals {
    Table,
    Began,
}

#[derive(DeriveIden)]
enum PurgedManuals {
    Table,
    Id,
    Title,
    Revisions,
    PurgedAt,
    Reason,
}

fn purged() -> TableCreateStatement {
    Table::create()
        .table(PurgedManuals::Table)
        .col(pk_uuid(PurgedManuals::Id))
        .col(text(PurgedManuals::Title))
        .col(integer(PurgedManuals::Revisions))
        .col(timestamp_with_time_zone(PurgedManuals::PurgedAt))
        .col(text(PurgedManuals::Reason))
        .to_owned()
}

#[async_trait::async_trait]
impl MigrationTrait for Migration {
    async fn up(&self, manager: &SchemaManager) -> Result<(), DbErr> {
        let began = Table::alter().table(Manuals::Table).add_column(uuid_null(Manuals::Began)).to_owned();
        manager.alter_table(began).await?;
        manager.create_table(purged()).await
    }

    async fn down(&self, manager: &SchemaManager) -> Result<(), DbErr> {
        manager.drop_table(Table::drop().table(PurgedManuals::Table).to_owned()).await?;
        manager.alter_table(Table::alter().table(Manuals::Table).drop_column(Manuals::Began).to_owned()).await
    }
}
