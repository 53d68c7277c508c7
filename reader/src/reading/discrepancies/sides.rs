//! Left that becomes right.

use super::super::lexicon::LEXICON;
use super::super::sheet::DiscrepancyKind;
use super::super::statements::StatementKind;
use super::{Contradiction, Story, finding};
use std::collections::{BTreeMap, BTreeSet};

/// A left part that goes back as a right one.
pub(super) fn find(story: &Story<'_>) -> Vec<Contradiction> {
    let mut seen: BTreeMap<String, (&str, bool, usize)> = BTreeMap::new();
    let mut both: BTreeSet<String> = BTreeSet::new();
    let mut out = Vec::new();
    for i in 0..story.statements.len() {
        let s = &story.statements[i];
        if !s.kind.is_work() && i > 3 {
            continue;
        }
        let late = s.rebuild;
        let words = story.refs(i);
        let sided = |side: &str| {
            (0..words.len())
                .filter(|at| words[*at] == side)
                .filter_map(|at| sided_thing(&words, at))
                .collect::<BTreeSet<_>>()
        };
        both.extend(sided("left").intersection(&sided("right")).cloned());
        for at in 0..words.len() {
            let side = match words[at] {
                "left" => "left",
                "right" => "right",
                _ => continue,
            };
            let Some(head) = sided_thing(&words, at) else { continue };
            match seen.get(&head) {
                None => {
                    seen.insert(head, (side, late, i));
                }
                Some((known, _, _)) if *known == side => {}
                // Both sides told before the turn: the device has two.
                Some((known, was_late, first)) => {
                    if !both.contains(&head)
                        && ((late && !was_late) || (!late && story.statements[i].kind == StatementKind::Observation))
                        && !words.contains(&"other")
                    {
                        let says = format!("Here it is the {side} {head}, before it was the {known} one.");
                        out.push(finding(DiscrepancyKind::Side, i, Some(*first), says));
                    }
                    both.insert(head);
                }
            }
        }
    }
    out
}

/// "left half shell", "right stick module": the head behind the side; "on the left side" is a place and no thing.
fn sided_thing(words: &[&str], at: usize) -> Option<String> {
    let tail: Vec<&str> = words[at + 1..].iter().copied().take(3).collect();
    let mut len = 0;
    for i in 0..tail.len() {
        if LEXICON.part_heads.at(&tail, i).is_some() {
            len = i + 1;
        } else if LEXICON.classes.preposition.contains(tail[i])
            || LEXICON.classes.conjunction.contains(tail[i])
            || LEXICON.classes.be.contains(tail[i])
        {
            break;
        }
    }
    let first = tail.first()?;
    if len == 0 || matches!(*first, "side" | "edge" | "corner" | "hand" | "top" | "bottom") {
        return None;
    }
    Some((*first).to_owned())
}
