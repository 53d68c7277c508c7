//! Parts that came out and are not told again.

use super::super::facts::{PartFact, PartOp};
use super::super::lexicon::{LEXICON, lemma};
use super::super::sheet::DiscrepancyKind;
use super::{Contradiction, Story, finding};
use compact_str::CompactString;
use std::collections::BTreeSet;

/// Parts that came out and were never told again, in a recording that tells the rebuild. Parts told by another name would
/// be false alarms, so only parts whose head stays unsaid after the turn count.
pub(super) fn find(story: &Story<'_>) -> Vec<Contradiction> {
    if !story.turns() {
        return Vec::new();
    }
    let later: BTreeSet<&str> = (0..story.statements.len())
        .filter(|i| story.statements[*i].rebuild)
        .flat_map(|i| story.words[i].iter().map(CompactString::as_str))
        .collect();
    // A rebuild that is only summed up omits everything and means nothing by it.
    let told = parts(story).filter(|(i, p)| story.statements[*i].rebuild && p.op == PartOp::Install).count();
    if told < FEWEST_TOLD {
        return Vec::new();
    }
    const USED_UP: [&str; 16] = [
        "sticker", "label", "gasket", "seal", "film", "foil", "tape", "foot", "feet", "plug cap", "assembly", "card",
        "half", "back", "top", "bottom",
    ];
    const SAME: [&[&str]; 9] = [
        &["cover", "housing", "shell", "case", "lid", "back", "panel", "door", "plate", "everything"],
        &["screen", "display", "glass", "panel", "lcd"],
        &["board", "motherboard", "mainboard"],
        &["battery", "pack", "cell", "accumulator"],
        &["bin", "box", "container"],
        &["shield", "cover", "plate", "can"],
        &["module", "board", "memory", "unit"],
        &["speaker", "loudspeaker"],
        &["cushion", "pad"],
    ];
    let lost: Vec<Contradiction> = parts(story)
        .filter(|(i, p)| !story.statements[*i].rebuild && p.op == PartOp::Remove)
        .filter(|(_, p)| is_named_as_a_part(&p.what))
        .filter(|(i, p)| {
            let words: Vec<&str> = p.what.split(' ').collect();
            let head = words.last().copied().unwrap_or("");
            let named = words.iter().any(|w| later.contains(w) && (!LEXICON.classes.adjective.contains(*w)));
            let otherwise = SAME
                .iter()
                .filter(|s| s.contains(&head))
                .any(|s| s.iter().any(|w| later.contains(w)) && head != "shield");
            let soon = parts(story)
                .any(|(n, q)| q.op == PartOp::Install && n >= *i && q.what.split(' ').next_back() == Some(head));
            !named && !soon && !otherwise && !USED_UP.contains(&head) && !p.what.contains("old")
        })
        .map(|(i, p)| {
            let head = p.what.rsplit(' ').next().unwrap_or_default();
            let (come, is) = if lemma(head) == head { ("comes", "is") } else { ("come", "are") };
            let says = format!("The {} {come} out and {is} never told to go back.", p.what);
            finding(DiscrepancyKind::Omitted, i, None, says)
        })
        .collect();
    // A narrator forgets one part or two; who seems to forget more was not understood.
    if lost.len() > MOST_FORGOTTEN { Vec::new() } else { lost }
}

/// A rebuild of fewer parts is summed up.
const FEWEST_TOLD: usize = 4;

const MOST_FORGOTTEN: usize = 2;

/// "laser shield", "hard drive": its last word is one that parts are called by. What is called otherwise may be a word
/// that the recogniser misheard, and goes back by its right name.
fn is_named_as_a_part(name: &str) -> bool {
    let words: Vec<CompactString> = name.split(' ').map(lemma).collect();
    let words: Vec<&str> = words.iter().map(CompactString::as_str).collect();
    (0..words.len()).any(|at| LEXICON.part_heads.at(&words, at).is_some_and(|(len, _)| at + len == words.len()))
        && (0..words.len()).all(|at| LEXICON.tools.at(&words, at).is_none())
}

fn parts<'s>(story: &'s Story<'_>) -> impl Iterator<Item = (usize, &'s PartFact)> {
    story.facts(|s| &s.facts.parts)
}
