//! The screws of a manual: how many, which, where, how tight, and how none is left over.

pub mod drive;
pub mod tighten;
