//! From the recording of a disassembly to typed facts: what was said, what it means, and why.
//!
//! A crate of its own, because it is half of the job's code and changes at another pace than the rest: who works on rules
//! or screens never waits for it. Everything here is a pure function over plain types. The modules stand in the order of
//! the work, and a module uses only those before it:
//!
//! `labels → units → recording → reading`

// A rule of the grammar is one match over classes of words: cut in two it is longer and says less.
#![allow(clippy::too_many_lines)]

pub mod labels;
pub mod reading;
pub mod recording;
pub mod units;
