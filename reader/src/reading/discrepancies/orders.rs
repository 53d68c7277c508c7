//! Steps told before what they need.

use super::super::facts::PartOp;
use super::super::lexicon::LEXICON;
use super::super::sheet::DiscrepancyKind;
use super::{Contradiction, Story, finding};

/// A step told before what it needs: a chain of "before", or the narrator's own admission.
pub(super) fn find(story: &Story<'_>) -> Vec<Contradiction> {
    let mut out = Vec::new();
    for (i, s) in story.statements.iter().enumerate() {
        let words = story.refs(i);
        let admits = LEXICON.wrong_order.any(&words).is_some()
            && (words.contains(&"before") || words.contains(&"first"))
            && !s.facts.is_empty();
        if admits {
            let says = "The narrator says that this belonged earlier.".to_owned();
            out.push(finding(DiscrepancyKind::Order, i, None, says));
            continue;
        }
        if !words.contains(&"before") || words.contains(&"first") {
            continue;
        }
        for need in &s.facts.needs {
            let gone = |what: &str| {
                story.statements[..i].iter().any(|e| {
                    e.facts
                        .parts
                        .iter()
                        .any(|p| p.op == PartOp::Remove && p.what.split(' ').next_back() == what.split(' ').next_back())
                })
            };
            let undone = |what: &str| {
                story.statements[..i]
                    .iter()
                    .any(|e| e.facts.connectors.iter().any(|c| c.what.as_deref() == Some(what)) && e.cue < s.cue)
            };
            if gone(&need.target) && need.after.iter().all(|a| !gone(a) && !undone(a)) {
                let says =
                    format!("The {} is out before what should go first: {}.", need.target, need.after.join(", "));
                out.push(finding(DiscrepancyKind::Order, i, None, says));
            }
        }
    }
    out
}
