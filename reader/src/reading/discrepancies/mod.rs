//! Where a recording contradicts itself or its own arithmetic.
//!
//! One file a kind. False alarms cost more than misses here: an author who is told three times that nothing is wrong
//! stops looking. Each finding names both places that do not agree, so that the author sees them side by side.

mod counts;
mod late_posture;
mod late_tools;
mod omitted;
mod orders;
mod repeats;
mod sides;
mod units_clash;

use super::Statement;
use super::lexicon::{contraction, lemma};
use super::sheet::DiscrepancyKind;
use compact_str::CompactString;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One contradiction with both its places.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Contradiction {
    pub kind: DiscrepancyKind,
    /// The statement that does not fit, by its place in the reading.
    pub at: usize,
    /// The statement it does not fit with.
    pub against: Option<usize>,
    /// What does not agree, in a sentence.
    pub says: String,
    /// Of a tool told late: each tool and material, by the names of the fact sheet.
    pub names: Vec<String>,
    /// Of screws that come out or go back in several groups: the further statements that make the two sums.
    #[serde(skip)]
    pub rest: Vec<usize>,
}

pub(super) fn find(statements: &[Statement]) -> Vec<Contradiction> {
    let words: Vec<Vec<CompactString>> = statements.iter().map(words_of).collect();
    let story = Story { statements, words: &words };
    let mut out = Vec::new();
    for rule in [
        repeats::find,
        counts::find,
        units_clash::find,
        omitted::find,
        late_tools::find,
        late_posture::find,
        sides::find,
        orders::find,
    ] {
        out.extend(rule(&story));
    }
    out.sort_by_key(|f| (f.at, f.kind));
    out
}

/// The statements with their repaired words.
struct Story<'a> {
    statements: &'a [Statement],
    /// Lemmas of each statement, repaired.
    words: &'a [Vec<CompactString>],
}

impl Story<'_> {
    fn refs(&self, i: usize) -> Vec<&str> {
        self.words[i].iter().map(CompactString::as_str).collect()
    }

    /// Whether the recording tells a rebuild at all.
    fn turns(&self) -> bool {
        self.statements.iter().any(|s| s.rebuild)
    }

    /// Every fact of a kind with the statement it stands in.
    fn facts<'s, T: 's>(&'s self, of: fn(&Statement) -> &Vec<T>) -> impl Iterator<Item = (usize, &'s T)> {
        self.statements.iter().enumerate().flat_map(move |(i, s)| of(s).iter().map(move |f| (i, f)))
    }
}

fn finding(kind: DiscrepancyKind, at: usize, against: Option<usize>, says: String) -> Contradiction {
    Contradiction { kind, at, against, says, names: Vec::new(), rest: Vec::new() }
}

fn words_of(statement: &Statement) -> Vec<CompactString> {
    let text = statement.text.to_lowercase().replace('’', "'");
    let mut out = Vec::new();
    for word in text
        .split(|c: char| !(c.is_alphanumeric() || c == '\'' || c == '.' || c == '%'))
        .map(|w| w.trim_matches(['.', '\'']))
    {
        if word.is_empty() {
            continue;
        }
        let meant = statement.repairs.iter().find(|r| r.said == word).map_or(word, |r| r.meant.as_str());
        out.extend(meant.split(' ').flat_map(contraction).map(lemma));
    }
    out
}
