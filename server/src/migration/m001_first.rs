//! The first tables: recordings, manuals, their edits, published revisions.

use sea_orm_migration::prelude::*;
use sea_orm_migration::schema::*;

#[derive(DeriveMigrationName)]
pub struct Migration;

#[derive(DeriveIden)]
enum Recordings {
    Table,
    Id,
    Title,
    Source,
    Parsed,
    CreatedAt,
}

#[derive(DeriveIden)]
enum Manuals {
    Table,
    Id,
    Title,
    Device,
    Archived,
    DeletedAt,
    Seq,
    Snapshot,
    SnapshotSeq,
    Steps,
    Search,
    CreatedAt,
    UpdatedAt,
}

#[derive(DeriveIden)]
enum ManualEdits {
    Table,
    ManualId,
    Seq,
    Id,
    Author,
    At,
    Kind,
    Of,
    Edit,
    Change,
    Format,
}

#[derive(DeriveIden)]
enum GuideRevisions {
    Table,
    ManualId,
    Number,
    Author,
    At,
    Seq,
    Markdown,
    Manual,
    Rules,
}

fn recordings() -> TableCreateStatement {
    Table::create()
        .table(Recordings::Table)
        .col(pk_uuid(Recordings::Id))
        .col(text(Recordings::Title))
        .col(blob(Recordings::Source))
        .col(json_binary(Recordings::Parsed))
        .col(timestamp_with_time_zone(Recordings::CreatedAt))
        .to_owned()
}

fn manuals() -> TableCreateStatement {
    Table::create()
        .table(Manuals::Table)
        .col(pk_uuid(Manuals::Id))
        .col(text(Manuals::Title))
        .col(text(Manuals::Device))
        .col(boolean(Manuals::Archived))
        .col(timestamp_with_time_zone_null(Manuals::DeletedAt))
        .col(big_integer(Manuals::Seq))
        .col(json_binary(Manuals::Snapshot))
        .col(big_integer(Manuals::SnapshotSeq))
        .col(integer(Manuals::Steps))
        .col(text(Manuals::Search))
        .col(timestamp_with_time_zone(Manuals::CreatedAt))
        .col(timestamp_with_time_zone(Manuals::UpdatedAt))
        .to_owned()
}

fn edits() -> TableCreateStatement {
    Table::create()
        .table(ManualEdits::Table)
        .col(uuid(ManualEdits::ManualId))
        .col(big_integer(ManualEdits::Seq))
        .col(uuid(ManualEdits::Id))
        .col(text(ManualEdits::Author))
        .col(timestamp_with_time_zone(ManualEdits::At))
        .col(text(ManualEdits::Kind))
        .col(big_integer_null(ManualEdits::Of))
        .col(json_binary_null(ManualEdits::Edit))
        .col(json_binary(ManualEdits::Change))
        .col(integer(ManualEdits::Format))
        .primary_key(Index::create().col(ManualEdits::ManualId).col(ManualEdits::Seq))
        .foreign_key(
            ForeignKey::create().from(ManualEdits::Table, ManualEdits::ManualId).to(Manuals::Table, Manuals::Id),
        )
        .to_owned()
}

/// The same edit sent twice is one.
fn once() -> IndexCreateStatement {
    Index::create()
        .name("manual_edits_once")
        .table(ManualEdits::Table)
        .col(ManualEdits::ManualId)
        .col(ManualEdits::Id)
        .unique()
        .to_owned()
}

fn revisions() -> TableCreateStatement {
    Table::create()
        .table(GuideRevisions::Table)
        .col(uuid(GuideRevisions::ManualId))
        .col(integer(GuideRevisions::Number))
        .col(text(GuideRevisions::Author))
        .col(timestamp_with_time_zone(GuideRevisions::At))
        .col(big_integer(GuideRevisions::Seq))
        .col(text(GuideRevisions::Markdown))
        .col(json_binary(GuideRevisions::Manual))
        .col(text(GuideRevisions::Rules))
        .primary_key(Index::create().col(GuideRevisions::ManualId).col(GuideRevisions::Number))
        .foreign_key(
            ForeignKey::create().from(GuideRevisions::Table, GuideRevisions::ManualId).to(Manuals::Table, Manuals::Id),
        )
        .to_owned()
}

#[async_trait::async_trait]
impl MigrationTrait for Migration {
    async fn up(&self, manager: &SchemaManager) -> Result<(), DbErr> {
        manager.create_table(recordings()).await?;
        manager.create_table(manuals()).await?;
        manager.create_table(edits()).await?;
        manager.create_index(once()).await?;
        manager.create_table(revisions()).await
    }

    async fn down(&self, manager: &SchemaManager) -> Result<(), DbErr> {
        manager.drop_table(Table::drop().table(GuideRevisions::Table).to_owned()).await?;
        manager.drop_table(Table::drop().table(ManualEdits::Table).to_owned()).await?;
        manager.drop_table(Table::drop().table(Manuals::Table).to_owned()).await?;
        manager.drop_table(Table::drop().table(Recordings::Table).to_owned()).await
    }
}
