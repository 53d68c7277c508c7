//! The screws of a manual: how many, which, where, how tight, and how none is left over.

pub mod balance;
pub mod bits;
pub(crate) mod drawing;
pub mod glyphs;
pub mod joints;
pub mod kinds;
pub mod ledger;
pub mod map;
pub mod mat;
pub mod mixup;
pub mod setting;
pub mod table;
pub mod tighten;
