//! A sentence or a part of it told twice.

use super::super::numbers;
use super::super::sheet::DiscrepancyKind;
use super::super::statements::StatementKind;
use super::{Contradiction, Story, finding};
use compact_str::CompactString;

/// The same sentence again at once, or "Step seven. Step seven. Disconnect …" joined in one.
pub(super) fn find(story: &Story<'_>) -> Vec<Contradiction> {
    let again = (1..story.statements.len())
        .filter(|i| said_again(story, *i))
        .map(|i| finding(DiscrepancyKind::Repeat, i, Some(i - 1), "The same sentence is said twice.".to_owned()));
    let within = (0..story.statements.len())
        .filter(|i| stutters(&story.words[*i]))
        .map(|i| finding(DiscrepancyKind::Repeat, i, None, "A part of the sentence is said twice.".to_owned()));
    again.chain(within).collect()
}

fn said_again(story: &Story<'_>, i: usize) -> bool {
    // "Detach the fan 15. Detach the fan 16.": the numbers of pages stand between.
    let paged = i > 1 && numbers::lone(&story.words[i - 1]);
    let (a, b) = (&story.words[i - 1 - usize::from(paged)], &story.words[i]);
    let step = b.len() == 2 && b[0] == "step";
    a == b
        && (b.len() >= 4 || step || paged && b.len() >= 3)
        && story.statements[i].kind != StatementKind::Noise
        && !thanks(b)
}

fn thanks(words: &[CompactString]) -> bool {
    words.iter().any(|w| matches!(w.as_str(), "thank" | "watching" | "bye" | "music" | "subscribe"))
}

fn stutters(w: &[CompactString]) -> bool {
    // A sentence of a thousand words is no sentence: it would take its square.
    const LONGEST: usize = 120;
    let w = &w[..w.len().min(LONGEST)];
    (2..=w.len() / 2).any(|n| {
        (0..w.len().saturating_sub(2 * n - 1))
            .any(|at| w[at..at + n] == w[at + n..at + 2 * n] && (n >= 4 || w[at] == "step"))
    })
}
