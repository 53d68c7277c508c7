//! Undo and redo over an append-only log: which entry is next.
//!
//! The log is never shortened. An undo is an entry of its own that names what it undid, and so is a redo; what is in
//! force follows from reading one author's entries in order.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What an entry of the log did.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EntryKind {
    Edit,
    /// Undid the entry with this number.
    Undo(i64),
    /// Brought back what the entry with this number had undone.
    Redo(i64),
}

/// One entry of the log, as far as undo and redo care.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Entry {
    pub seq: i64,
    pub kind: EntryKind,
}

/// Entries in force (to undo) and undone ones (to redo) after reading one author's log in order.
fn stacks(mine: &[Entry]) -> (Vec<i64>, Vec<i64>) {
    let (mut done, mut undone) = (Vec::new(), Vec::new());
    for entry in mine {
        match entry.kind {
            EntryKind::Edit => {
                done.push(entry.seq);
                undone.clear();
            }
            EntryKind::Undo(of) => {
                done.retain(|s| *s != of);
                undone.push(entry.seq);
            }
            EntryKind::Redo(of) => {
                undone.retain(|s| *s != of);
                done.push(entry.seq);
            }
        }
    }
    (done, undone)
}

/// The entry whose change the author's next undo reverts.
pub fn next_undo(mine: &[Entry]) -> Option<i64> {
    stacks(mine).0.last().copied()
}

/// The undo whose change the author's next redo reverts. A new edit forgets what could be redone.
pub fn next_redo(mine: &[Entry]) -> Option<i64> {
    stacks(mine).1.last().copied()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// `e` edit, `u` undo, `r` redo, each numbered by its place.
    fn log(script: &str) -> Vec<Entry> {
        let mut out: Vec<Entry> = Vec::new();
        for (n, c) in script.chars().enumerate() {
            let kind = match c {
                'e' => EntryKind::Edit,
                'u' => EntryKind::Undo(next_undo(&out).expect("something to undo")),
                _ => EntryKind::Redo(next_redo(&out).expect("something to redo")),
            };
            out.push(Entry { seq: n as i64, kind });
        }
        out
    }

    #[rstest]
    #[case("", None, None)]
    #[case("ee", Some(1), None)]
    #[case("eeu", Some(0), Some(2))]
    #[case("eeuu", None, Some(3))]
    #[case("eeuur", Some(4), Some(2))]
    #[case("eeuurr", Some(5), None)]
    #[case("eeue", Some(3), None)]
    #[case("eeuuru", None, Some(5))]
    fn finds_what_is_next(#[case] script: &str, #[case] undo: Option<i64>, #[case] redo: Option<i64>) {
        let log = log(script);
        assert_eq!((next_undo(&log), next_redo(&log)), (undo, redo));
    }
}
