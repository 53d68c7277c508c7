//! The rules of the job: from the recording of a disassembly to a repair guide.
//!
//! Everything here is a pure function over plain types: no input or output, no clock, no database, no interface. The
//! modules stand in the order of the work, and a module uses only those before it:
//!
//! `units → screw → recording → reading → manual → effort → order → fasteners → rebuild → checks → device → screws → publish`

pub mod checks;
pub mod device;
pub mod effort;
pub mod fasteners;
pub mod ids;
pub mod manual;
pub mod order;
pub mod publish;
pub mod reading;
pub mod rebuild;
pub mod recording;
pub mod screw;
pub mod screws;
pub mod units;
