//! Screws as an engineer sees them: threads and their strength, and the order in which they are driven.
//!
//! The ledger, the risks of mixing up, the torque bench and the mat build on these.

pub mod thread;
pub mod tighten;
