//! Migrations, in order. One that has run somewhere is never changed.

mod m001_first;
mod m002_lifetime;

use sea_orm_migration::prelude::*;

pub struct Migrator;

#[async_trait::async_trait]
impl MigratorTrait for Migrator {
    fn migrations() -> Vec<Box<dyn MigrationTrait>> {
        vec![Box::new(m001_first::Migration), Box::new(m002_lifetime::Migration)]
    }
}
