//! The tables, one file each.

pub mod edit;
pub mod manual;
pub mod purged;
pub mod recording;
pub mod revision;
