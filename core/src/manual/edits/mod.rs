//! How a manual changes: places and their images, the one function that applies an edit, undo, what must hold, old
//! formats, find and replace.

pub(super) mod change;
pub(super) mod edit;
pub(super) mod find;
pub(super) mod history;
pub(super) mod place;
pub(super) mod refusal;
pub(super) mod sound;
pub(super) mod upcast;
