//! Reading: from a recording to statements with typed facts.
//!
//! A chain of small passes, one file each, and every decision says why it was made:
//!
//! `cues → sentences → repaired words → clauses → facts → statements → phases → fact sheet`
//!
//! English only for now. The reading is a pure function of the recording; what an author corrects is kept elsewhere, so
//! that a better reader never overwrites a person.

mod act;
mod clauses;
mod extract;
mod facts;
mod lexicon;
mod numbers;
mod phases;
mod repair;
mod sentences;
mod sheet;
mod sound;
mod statements;

pub use act::{Act, Direction};
pub use facts::{
    ActFact, CautionSubject, ConnectorFact, ConnectorOp, Consumable, Drive, Facts, FastenerFact, FastenerOp, HeatFact,
    HeatSource, NeedFact, PartFact, PartOp,
};
pub use repair::Repair;
pub use sentences::joined_text;
pub use sheet::{At, CautionRow, Discrepancy, DiscrepancyKind, FactSheet, tally};
pub use statements::StatementKind;

use crate::recording::Recording;
use clauses::{Clause, Mood};
use extract::{Ground, Memory};
use sentences::Sentence;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The language the reader understands, as a BCP 47 tag.
pub const LANGUAGE: &str = "en";

/// One thing said, with its kind, its reason and its facts.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Statement {
    /// Characters of the joined text (see [`joined_text`]).
    pub start: usize,
    pub end: usize,
    /// First and last segment it stands in, from 0.
    pub cue: u32,
    pub last_cue: u32,
    pub text: String,
    /// Milliseconds; interpolated inside a segment, so always approximate where `approximate` says so.
    pub from_ms: Option<u64>,
    pub to_ms: Option<u64>,
    pub approximate: bool,
    pub kind: StatementKind,
    /// From 0 to 1.
    pub confidence: f64,
    /// Why it is of this kind.
    pub because: Vec<String>,
    /// Told after the turn to the rebuild.
    pub rebuild: bool,
    pub repairs: Vec<Repair>,
    pub facts: Facts,
}

/// All that was read out of one recording.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Reading {
    pub statements: Vec<Statement>,
    pub sheet: FactSheet,
}

/// Reads a recording. Never fails: what is not understood is said to be so.
pub fn read(recording: &Recording) -> Reading {
    let text: Vec<char> = joined_text(recording).chars().collect();
    let mut sentences = sentences::split(recording);
    let repairs: Vec<Vec<Repair>> = sentences.iter_mut().map(repair::repair).collect();
    let clauses: Vec<Vec<Clause>> = sentences.iter().map(clauses::split).collect();
    let turn = turn(&sentences, &clauses);

    let mut memory = Memory::default();
    let mut statements = Vec::with_capacity(sentences.len());
    let starts = cue_starts(recording);
    for ((sentence, clauses), repairs) in sentences.iter().zip(&clauses).zip(repairs) {
        memory.rebuild = turn.is_some_and(|cue| sentence.tokens[0].cue >= cue);
        statements.push(statement(recording, &starts, &text, sentence, clauses, repairs, &mut memory));
    }
    counting_gives_way(&mut statements);
    totals_give_way(&mut statements);
    let sheet = sheet::build(recording, &statements, turn);
    Reading { statements, sheet }
}

/// "One here, one here and one here, so three T6 screws": what is counted aloud only leads up to what is then said.
fn counting_gives_way(statements: &mut [Statement]) {
    for i in 1..statements.len() {
        let (before, after) = statements.split_at_mut(i);
        let ([counted], [said]) = (&before[i - 1].facts.fasteners[..], &after[0].facts.fasteners[..]) else { continue };
        let bare = counted.drive.is_none() && counted.length.is_none();
        let told = said.drive.is_some() || said.length.is_some();
        if bare && told && counted.op == said.op && counted.count == said.count && counted.count.is_some() {
            before[i - 1].facts.fasteners.clear();
        }
    }
}

/// "Nine screws. Eight are 16 mm long, the ninth is 30 mm": the groups are the fact, the total only announces them.
fn totals_give_way(statements: &mut [Statement]) {
    for i in 0..statements.len() {
        let [total] = &statements[i].facts.fasteners[..] else { continue };
        let (Some(count), None) = (total.count, total.length) else { continue };
        let (drive, bit, cue) = (total.drive, total.bit.clone(), statements[i].cue);
        let groups: Vec<usize> = (i + 1..statements.len())
            .take_while(|n| statements[*n].cue == cue)
            .filter(|n| statements[*n].facts.fasteners.iter().any(|f| f.length.is_some()))
            .collect();
        let sum: u32 = groups.iter().flat_map(|n| &statements[*n].facts.fasteners).filter_map(|f| f.count).sum();
        if groups.is_empty() || sum > count + 2 {
            continue;
        }
        for n in groups {
            for f in &mut statements[n].facts.fasteners {
                f.drive = f.drive.or(drive);
                f.bit = f.bit.take().or_else(|| bit.clone());
            }
        }
        statements[i].facts.fasteners.clear();
    }
}

fn turn(sentences: &[Sentence], clauses: &[Vec<Clause>]) -> Option<usize> {
    let told: Vec<(usize, Vec<&str>, &[Clause])> =
        sentences.iter().zip(clauses).map(|(s, c)| (s.tokens[0].cue, words(s), c.as_slice())).collect();
    phases::turn(&told)
}

fn words(sentence: &Sentence) -> Vec<&str> {
    sentence.tokens.iter().map(|t| t.lemma.as_str()).collect()
}

/// Where each cue begins in the joined text, in characters.
fn cue_starts(recording: &Recording) -> Vec<(usize, usize)> {
    let mut at = 0;
    recording
        .cues
        .iter()
        .map(|c| {
            let len = c.text.chars().count();
            let start = at;
            at += len + 1;
            (start, len)
        })
        .collect()
}

fn statement(
    recording: &Recording,
    starts: &[(usize, usize)],
    text: &[char],
    sentence: &Sentence,
    clauses: &[Clause],
    repairs: Vec<Repair>,
    memory: &mut Memory,
) -> Statement {
    let words = words(sentence);
    let (first, last) = (&sentence.tokens[0], sentence.tokens.last().expect("no sentence is empty"));
    let mut judged = statements::judge(&words, clauses);
    let warns = judged.kind == StatementKind::Caution;
    if warns && works_as_well(clauses, &words) {
        judged.kind = StatementKind::Action;
        judged.because.push("it also does something to a known part, so it is an act with a warning".to_owned());
    }
    let ground = if matches!(judged.kind, StatementKind::Action | StatementKind::Test | StatementKind::Observation) {
        Ground::Work
    } else {
        Ground::Told
    };
    let mut facts = extract::extract(sentence, clauses, ground, memory);
    if !judged.chain && (warns || statements::caution(&words, clauses, false).is_some()) {
        facts.cautions = extract::caution_subjects(&words);
    }
    if judged.chain {
        facts.needs = extract::needs(&words, memory);
    }
    if !judged.kind.is_work() {
        facts = Facts::default();
    }
    let end = sentence_end(text, last.end);
    Statement {
        start: first.start,
        end,
        cue: first.cue as u32,
        last_cue: last.cue as u32,
        text: text[first.start..end].iter().map(|c| if *c == '\n' { ' ' } else { *c }).collect(),
        from_ms: place(recording, starts, first.cue, first.start),
        to_ms: place(recording, starts, last.cue, end),
        approximate: true,
        kind: judged.kind,
        confidence: judged.confidence,
        because: judged.because,
        rebuild: memory.rebuild,
        repairs,
        facts,
    }
}

/// A warning that opens with an act on a known part is told while doing it.
fn works_as_well(clauses: &[Clause], words: &[&str]) -> bool {
    let opens =
        words.first().is_some_and(|w| matches!(*w, "caution" | "attention" | "warning" | "never" | "don't" | "note"));
    !opens
        && clauses.iter().take(2).any(|c| c.mood == Mood::Plain && c.act.is_some() && c.objects.iter().any(|o| o.known))
}

/// The closing mark belongs to the sentence.
fn sentence_end(text: &[char], end: usize) -> usize {
    if text.get(end).is_some_and(|c| matches!(c, '.' | '!' | '?' | '…')) { end + 1 } else { end }
}

/// Time of a character, interpolated inside its segment.
fn place(recording: &Recording, starts: &[(usize, usize)], cue: usize, at: usize) -> Option<u64> {
    let c = &recording.cues[cue];
    let (begin, end) = (c.start?, c.end.or(c.start)?);
    let (start, len) = starts[cue];
    let within = at.saturating_sub(start).min(len) as u64;
    Some(begin + (end - begin) * within / (len as u64).max(1))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn one(text: &str) -> Statement {
        read(&Recording::parse(text.as_bytes()).unwrap()).statements.remove(0)
    }

    #[rstest]
    #[case("Remove the rear cover.", StatementKind::Action)]
    #[case("Caution. The keypad cable lies directly below.", StatementKind::Caution)]
    #[case("Do not insert it deeper than 3 millimetres.", StatementKind::Caution)]
    #[case("If it does break, put a few drops of isopropyl along the edge.", StatementKind::Condition)]
    #[case(
        "If you needed to replace the socket you would have to take off the foot and the base.",
        StatementKind::Condition
    )]
    #[case("Tools required, a Phillips screwdriver and tweezers.", StatementKind::Tool)]
    #[case("Check that all buttons work.", StatementKind::Test)]
    #[case("The battery sits in the middle.", StatementKind::Observation)]
    #[case("Hello and welcome back to the channel.", StatementKind::Chatter)]
    #[case("Thank you. Thank you. Thank you.", StatementKind::Noise)]
    fn tells_the_kind_and_why(#[case] text: &str, #[case] kind: StatementKind) {
        let s = one(text);
        assert_eq!(s.kind, kind, "{:?}", s.because);
        assert!(!s.because.is_empty());
    }

    #[rstest]
    #[case(
        "Remove six Phillips PH0 screws, length 6.0 millimetres, from the rear housing.",
        Some(6),
        Some(Drive::Phillips),
        Some("PH0"),
        Some(6.0),
        Some("rear housing")
    )]
    #[case("Undo the four T6 screws of the shield.", Some(4), Some(Drive::Torx), Some("T6"), None, Some("shield"))]
    #[case(
        "Take out one here, one here and one here, three screws in all, from the lid.",
        Some(3),
        None,
        None,
        None,
        Some("lid")
    )]
    fn reads_screws(
        #[case] text: &str,
        #[case] count: Option<u32>,
        #[case] drive: Option<Drive>,
        #[case] bit: Option<&str>,
        #[case] length: Option<f64>,
        #[case] what: Option<&str>,
    ) {
        let facts = one(text).facts.fasteners;
        let f = &facts[0];
        assert_eq!(
            (f.op, f.count, f.drive, f.bit.as_deref(), f.what.as_deref()),
            (FastenerOp::Remove, count, drive, bit, what)
        );
        assert_eq!(f.length.map(crate::units::in_millimetres), length);
    }

    #[test]
    fn a_chain_is_a_need_and_no_act() {
        let s =
            one("If you needed to replace the power socket you would have to take off the rubber foot and the base.");
        assert_eq!(
            s.facts.needs,
            [NeedFact { target: "power socket".into(), after: vec!["rubber foot".into(), "base".into()] }]
        );
        assert!(s.facts.parts.is_empty());
    }

    #[test]
    fn reads_heat() {
        let s = one("Heat the rear cover with the heat gun at 80 degrees Celsius for two to three minutes.");
        let heat = serde_json::to_value(&s.facts.heat).unwrap();
        assert_eq!(
            heat,
            serde_json::json!([{"source": "heat gun", "target": "rear cover", "temp_c": [80.0, 80.0], "dwell_s": [120.0, 180.0]}])
        );
    }

    #[test]
    fn places_statements_inside_their_segment() {
        let r = read(&Recording::parse(b"[0:10] Remove the lid. Remove the fan.\n\n[0:20] Stop.").unwrap());
        assert_eq!((r.statements[0].from_ms, r.statements[1].from_ms > Some(14_000)), (Some(10_000), true));
        assert!(r.statements[1].approximate);
    }
}
