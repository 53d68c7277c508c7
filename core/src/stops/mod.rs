//! The stops: all that each of them shows, put together from the rooms before.
//!
//! A type `…View` is all that a stop shows, a type `…Row` one line in it. What does not fit is no part of a view: every list
//! of findings, at every stop, reads `checks`.

pub mod cables;
pub mod cautions;
pub mod chain;
pub mod listen;
pub mod screws;
pub mod seams;
pub mod steps;
