//! Where nothing is heard: silence at the bench, or speech that was lost.
//!
//! Idle talk is not meant here; that is a kind of statement. A gap matters because something may have been done in it that
//! nobody told.

use super::Statement;
use super::lexicon::{LEXICON, lemma};
use super::statements::StatementKind;
use crate::recording::Recording;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a gap is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GapKind {
    /// Nobody speaks, between two acts.
    Silence,
    /// A sentence breaks off, or the recogniser wrote nonsense where somebody worked.
    LostSpeech,
}

/// A stretch of the recording without words about the work.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Gap {
    pub kind: GapKind,
    pub from_ms: u64,
    pub to_ms: u64,
    /// The statement before it, by its place in the reading.
    pub after: usize,
}

/// Shorter pauses are breath.
const SHORTEST_MS: u64 = 10_000;
/// Slower than this a segment holds more silence than speech (English is spoken at 2 to 3 words a second).
const SLOWEST_WORDS_PER_S: f64 = 0.6;

pub(super) fn find(recording: &Recording, statements: &[Statement]) -> Vec<Gap> {
    if !recording.timed() {
        return Vec::new();
    }
    let mut out: Vec<Gap> = (1..recording.cues.len()).filter_map(|n| before(recording, statements, n)).collect();
    out.extend(nonsense(statements));
    out.sort_by_key(|g| g.from_ms);
    out.dedup_by_key(|g| g.after);
    out
}

/// The pause before a segment.
fn before(recording: &Recording, statements: &[Statement], n: usize) -> Option<Gap> {
    let cue = &recording.cues[n - 1];
    let ends = spoken_until(cue.start?, cue.end?, &cue.text);
    let to_ms = recording.cues[n].start?;
    let kind = if breaks_off(&cue.text) { GapKind::LostSpeech } else { GapKind::Silence };
    let shortest = if kind == GapKind::LostSpeech { SHORTEST_MS / 3 } else { SHORTEST_MS };
    if to_ms.saturating_sub(ends) < shortest {
        return None;
    }
    let after = statements.partition_point(|s| (s.cue as usize) < n).checked_sub(1)?;
    let works = statements[after..].iter().take(2).any(|s| s.kind == StatementKind::Action);
    works.then_some(Gap { kind, from_ms: ends, to_ms, after })
}

/// When the words of a segment are over: at its end, unless they could never fill it.
fn spoken_until(start: u64, end: u64, text: &str) -> u64 {
    let words = text.split_whitespace().count() as f64;
    let seconds = end.saturating_sub(start) as f64 / 1000.0;
    if seconds > 0.0 && words / seconds < SLOWEST_WORDS_PER_S {
        return start + (words / 2.5 * 1000.0) as u64;
    }
    end
}

/// "… and then you take the": a word that wants another.
fn breaks_off(text: &str) -> bool {
    let Some(last) = text.split_whitespace().next_back() else { return false };
    if last.ends_with(['.', '!', '?']) {
        return false;
    }
    let word = lemma(&last.to_lowercase());
    let c = &LEXICON.classes;
    c.determiner.contains(&word)
        || c.conjunction.contains(&word)
        || matches!(word.as_str(), "to" | "of" | "from" | "with" | "into")
}

/// Noise between two acts: the recogniser heard something and made nothing of it.
fn nonsense(statements: &[Statement]) -> impl Iterator<Item = Gap> + '_ {
    let acts = |s: &Statement| s.kind == StatementKind::Action;
    (1..statements.len().saturating_sub(1)).filter_map(move |i| {
        let s = &statements[i];
        let between = acts(&statements[i - 1]) && acts(&statements[i + 1]);
        (s.kind == StatementKind::Noise && between).then_some(())?;
        Some(Gap { kind: GapKind::LostSpeech, from_ms: s.from_ms?, to_ms: s.to_ms?, after: i - 1 })
    })
}

#[cfg(test)]
mod tests {
    use super::super::read;
    use super::GapKind::{self, *};
    use crate::recording::Recording;
    use rstest::rstest;

    #[rstest]
    #[case("[0:00] Remove the lid.\n\n[0:40] Pull out the fan.", &[(Silence, 0)])]
    #[case("[0:00] Remove the lid.\n\n[0:04] Pull out the fan.", &[])]
    #[case("1\n00:00:00,000 --> 00:00:03,000\nremove the lid and then take the\n\n2\n00:00:09,000 --> 00:00:12,000\npull out the fan\n", &[(LostSpeech, 0)])]
    #[case("[0:00] Remove the lid. Thank you. Pull out the fan.", &[(LostSpeech, 0)])]
    #[case("Remove the lid. Pull out the fan.", &[])]
    fn finds_gaps(#[case] text: &str, #[case] wanted: &[(GapKind, usize)]) {
        let gaps = read(&Recording::parse(text.as_bytes()).unwrap()).gaps;
        assert_eq!(gaps.iter().map(|g| (g.kind, g.after)).collect::<Vec<_>>(), wanted, "{gaps:?}");
    }
}
