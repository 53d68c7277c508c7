//! One screw as an engineer sees it: its thread, its drive and bits, its strength, and how tight is tight.
//!
//! Nothing here knows of manuals. That a setting would break the screw must be known before an author may write it down,
//! so this room stands before the manual's.

pub mod drive;
pub mod strength;
pub mod thread;
pub mod torque;

pub use strength::{Class, Material};
pub use thread::Thread;
pub use torque::{Joint, Limit, TorqueVerdict, TorqueWindow, Worked};
