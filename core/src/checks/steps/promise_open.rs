//! Something was promised to the reader and is not told yet.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, Note, NoteEdit, NoteField, NoteKind};

pub(super) const RULE: Rule = Rule {
    id: RuleId::PromiseOpen,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Readers wait for it to the end.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
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
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn it_is_still_open() {
        check(&RULE,
            "
            promise: I show you later how to fill it.
            ~~~ promise-open: Promised and not told yet: “I show you later how to fill it.” Tell it in a step, then tick it off.
            ",
        );
    }

    #[test]
    fn it_is_told() {
        check(&RULE, "kept promise: I show you later how to fill it.");
    }
}
