//! What an author put right about what was heard, and the recording as it reads under it.

pub(super) mod follow;
pub(super) mod heard;
pub(super) mod house;
pub(super) mod places;
pub(super) mod readings;
pub(super) mod statement_table;
pub(super) mod table_rows;
