//! From readings to the first manual, and from a further recording to what it adds.

mod connectors;
mod device;
pub(super) mod draft;
mod fit;
pub(super) mod further;
mod opening;
mod own_words;
mod row;
mod told_order;
