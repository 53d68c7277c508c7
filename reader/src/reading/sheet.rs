//! Last pass: the fact sheet of a whole recording, and where the recording contradicts itself.

use super::Statement;
use super::discrepancies::Contradiction;
use super::facts::{CautionSubject, ConnectorFact, Consumable, FastenerFact, HeatFact, NeedFact, PartFact};
use super::lexicon::{LEXICON, lemma};
use super::statements::{StatementKind, has_work};
use crate::labels;
use crate::recording::Recording;
use crate::units::Measure;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// A fact with the second of the segment it stands in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct At<T> {
    pub at_s: u64,
    #[serde(flatten)]
    pub fact: T,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CautionRow {
    pub at_s: u64,
    pub about: CautionSubject,
}

/// How a recording contradicts itself.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum DiscrepancyKind {
    Count,
    Unit,
    Size,
    Repeat,
    Omitted,
    LateTool,
    LatePosture,
    Side,
    Order,
}

labels!(DiscrepancyKind {
    Count: "Count",
    Unit: "Units",
    Size: "Size",
    Repeat: "Said twice",
    Omitted: "Left out",
    LateTool: "Not on the list",
    LatePosture: "How it lies, told late",
    Side: "Left or right",
    Order: "Order",
});

#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Discrepancy {
    pub at_s: u64,
    pub kind: DiscrepancyKind,
}

/// All facts of one recording, in the shape that `paso read --facts` prints.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FactSheet {
    pub rebuild_from_s: Option<u64>,
    pub tools: Vec<String>,
    pub consumables: Vec<Consumable>,
    pub fasteners: Vec<At<FastenerFact>>,
    pub connectors: Vec<At<ConnectorFact>>,
    pub parts: Vec<At<PartFact>>,
    pub heat: Vec<At<HeatFact>>,
    pub cautions: Vec<CautionRow>,
    pub measures: Vec<At<Measure>>,
    pub needs: Vec<At<NeedFact>>,
    pub idle_segments: Vec<u64>,
    pub discrepancies: Vec<Discrepancy>,
}

/// The facts of all statements in one sheet.
pub(super) fn build(
    recording: &Recording,
    statements: &[Statement],
    turn: Option<usize>,
    contradictions: &[Contradiction],
) -> FactSheet {
    let second = |cue: u32| recording.cues[cue as usize].start.unwrap_or(0) / 1000;
    fn rows<'a, T: Clone + 'a>(
        statements: &'a [Statement],
        second: &'a dyn Fn(u32) -> u64,
        of: fn(&Statement) -> &Vec<T>,
    ) -> Vec<At<T>> {
        statements.iter().flat_map(|s| of(s).iter().map(|f| At { at_s: second(s.last_cue), fact: f.clone() })).collect()
    }
    let mut cautions: Vec<CautionRow> = Vec::new();
    for s in statements {
        for about in &s.facts.cautions {
            let row = CautionRow { at_s: second(s.last_cue), about: *about };
            if !cautions.contains(&row) {
                cautions.push(row);
            }
        }
    }
    let mut sheet = FactSheet {
        rebuild_from_s: turn.map(|cue| second(cue as u32)),
        tools: tools(statements),
        consumables: statements
            .iter()
            .flat_map(|s| s.facts.consumables.iter().copied())
            .collect::<BTreeSet<_>>()
            .into_iter()
            .collect(),
        fasteners: rows(statements, &second, |s| &s.facts.fasteners),
        connectors: rows(statements, &second, |s| &s.facts.connectors),
        parts: rows(statements, &second, |s| &s.facts.parts),
        heat: rows(statements, &second, |s| &s.facts.heat),
        cautions,
        measures: rows(statements, &second, |s| &s.facts.measures),
        needs: rows(statements, &second, |s| &s.facts.needs),
        idle_segments: idle(recording, statements, turn, &second),
        discrepancies: Vec::new(),
    };
    for found in contradictions {
        let row = Discrepancy { at_s: second(statements[found.at].last_cue), kind: found.kind };
        if !sheet.discrepancies.contains(&row) {
            sheet.discrepancies.push(row);
        }
    }
    sheet
}

/// Every tool once; a screw of a known drive makes its driver certain.
fn tools(statements: &[Statement]) -> Vec<String> {
    let mut out: BTreeSet<String> = statements.iter().flat_map(|s| s.facts.tools.iter().cloned()).collect();
    out.extend(
        statements
            .iter()
            .flat_map(|s| &s.facts.fasteners)
            .filter_map(|f| f.drive)
            .map(|d| format!("{} screwdriver", d.name())),
    );
    if out.iter().any(|t| t.ends_with(" screwdriver")) {
        out.remove("screwdriver");
    }
    out.into_iter().collect()
}

/// Characters of a first segment in which its greeting stands.
const WITHIN: usize = 160;

/// Segments in which no statement carries work.
fn idle(recording: &Recording, statements: &[Statement], turn: Option<usize>, second: &dyn Fn(u32) -> u64) -> Vec<u64> {
    let mut working = BTreeSet::new();
    for s in statements.iter().filter(|s| has_work(s.kind, &s.facts, s.confidence) || shows_parts(s)) {
        working.extend(s.cue..=s.last_cue);
    }
    // "Hello, and welcome back. Today it's the P2, and we'll put a new display in."
    let first = statements.iter().filter(|s| s.cue == 0 && s.last_cue == 0);
    if recording.cues.len() > 1 && welcomes(&recording.cues[0].text) && first.clone().all(only_announces) {
        working.remove(&0);
    }
    // "So now let's build it up again.": the turn is work, however little is said in it.
    working.extend(turn.map(|cue| cue as u32));
    (0..recording.cues.len() as u32).filter(|c| !working.contains(c)).map(second).collect()
}

/// Opens a recording, before any work.
fn welcomes(text: &str) -> bool {
    const GREETS: [&str; 8] =
        ["hello", "hey", "hi", "welcome", "in this video", "good morning", "good evening", "my friends"];
    let start: String = text.to_lowercase().chars().take(WITHIN).collect();
    let words: Vec<&str> = start.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).collect();
    // As whole words: "they" greets nobody.
    let start = format!(" {} ", words.join(" "));
    GREETS.iter().any(|g| start.contains(&format!(" {g} ")))
}

/// Nothing is done in it, and it names no tool and no danger; what it measures is no work yet.
fn only_announces(s: &Statement) -> bool {
    let f = &s.facts;
    let done = !f.parts.is_empty() || !f.fasteners.is_empty() || !f.connectors.is_empty() || !f.heat.is_empty();
    !done && f.cautions.is_empty() && f.needs.is_empty() && f.tools.is_empty() && f.consumables.is_empty()
}

/// Tells what is inside: two parts or more, by their names.
fn shows_parts(s: &Statement) -> bool {
    if s.kind != StatementKind::Observation {
        return false;
    }
    let words: Vec<_> =
        s.text.to_lowercase().split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).map(lemma).collect();
    let words: Vec<&str> = words.iter().map(|w| w.as_str()).collect();
    LEXICON.part_heads.all(&words).len() >= 2
}

/// How often each kind of statement occurs, for summaries.
pub fn tally(statements: &[Statement]) -> BTreeMap<StatementKind, usize> {
    statements.iter().fold(BTreeMap::new(), |mut map, s| {
        *map.entry(s.kind).or_default() += 1;
        map
    })
}

#[cfg(test)]
mod tests {
    use crate::reading::read;
    use crate::recording::Recording;
    use rstest::rstest;

    #[rstest]
    #[case::a_greeting("Hello and welcome back. Today it's a fan that dies after forty minutes.", true)]
    #[case::no_greeting_in_they("They run for forty minutes, and then the fan dies.", false)]
    #[case::at_work_at_once("Hello. Undo the four screws of the lid.", false)]
    fn a_first_segment_that_only_greets_is_idle(#[case] first: &str, #[case] idle: bool) {
        let text = format!("[0:00] {first}\n\n[0:30] Take off the lid.\n");
        let sheet = read(&Recording::parse(text.as_bytes()).unwrap()).sheet;
        assert_eq!(sheet.idle_segments.contains(&0), idle);
    }
}
