//! Something was promised to the reader and is not told yet.

use super::{Finding, Rule, Stop, Subject};
use crate::manual::{Edit, Manual, Note, NoteEdit, NoteField, NoteKind};
use crate::order::Fix;

const RULE: Rule = Rule {
    id: "promise-open",
    stop: Stop::Steps,
    blocks: false,
    why: "Readers wait for it to the end.",
    source: "common practice, no source",
};

pub(super) fn find(manual: &Manual) -> Vec<Finding> {
    let finding = |note: &Note| {
        let says = format!("Promised and not told yet: “{}” Tell it in a step, then tick it off.", note.text);
        let edit = Edit::Note(NoteEdit::Set { id: note.id, field: NoteField::Done(true) });
        let fix = Fix { label: "It is told".to_owned(), edit };
        Finding { fixes: vec![fix], ..RULE.finding(Subject::Note(note.id), says) }
    };
    manual.notes_of(NoteKind::Promise).filter(|n| !n.done).map(finding).collect()
}

#[cfg(test)]
mod tests {
    use crate::checks::written::check;

    #[test]
    fn it_is_still_open() {
        check(
            "
            promise: I show you later how to fill it.
            ~~~ promise-open: Promised and not told yet: “I show you later how to fill it.” Tell it in a step, then tick it off.
            ",
        );
    }

    #[test]
    fn it_is_told() {
        check("kept promise: I show you later how to fill it.");
    }
}
