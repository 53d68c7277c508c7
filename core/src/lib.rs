//! The rules of the job: from the recording of a disassembly to a repair guide.
//!
//! Everything here is a pure function over plain types: no input or output, no clock, no database, no interface. The
//! rooms stand in the order of the work, and a room uses only those before it; [`ROOMS`] is that order, and a test holds
//! every `use` to it. What was said is read by the crate `paso-reader`, whose rooms come first.

pub mod cables;
pub mod cautions;
pub mod checks;
pub mod effort;
pub mod fasteners;
pub mod finding;
pub mod heat;
pub mod ids;
pub mod manual;
pub mod order;
pub mod power;
pub mod publish;
pub mod rebuild;
pub mod screw;
pub mod seams;
pub mod stops;
pub mod things;
pub mod words;

pub use paso_reader::{labels, reading, recording, units};

/// The rooms in the order of the work.
pub const ROOMS: [&str; 22] = [
    "labels",
    "units",
    "recording",
    "reading",
    "ids",
    "things",
    "screw",
    "heat",
    "manual",
    "finding",
    "power",
    "effort",
    "order",
    "fasteners",
    "seams",
    "cables",
    "rebuild",
    "cautions",
    "checks",
    "stops",
    "publish",
    "words",
];
