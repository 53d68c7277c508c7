//! The screws of a manual: how many, which, where, how tight, and how none is left over.

pub mod balance;
pub mod drive;
pub mod joints;
pub mod kinds;
pub mod ledger;
pub mod mixup;
pub mod setting;
pub mod tighten;
#[cfg(test)]
mod written;
