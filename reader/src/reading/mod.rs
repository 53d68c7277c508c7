//! Reading: from a recording to statements with typed facts.
//!
//! A chain of small passes, one file each, and every decision says why it was made:
//!
//! `cues → sentences → repaired words → word classes → phrases → clauses → facts → statements → settled facts → fact sheet`
//!
//! Numbers that go by a name ("half a dozen") are figures from the repaired words on.
//!
//! English only for now. The reading is a pure function of the recording; what an author corrects is kept elsewhere, so
//! that a better reader never overwrites a person.

mod act;
mod clauses;
mod compare;
mod deeds;
mod discrepancies;
mod dozens;
mod extract;
mod facts;
mod farewell;
mod gaps;
mod heard;
mod hints;
mod homes;
mod lexicon;
mod marks;
mod numbers;
mod parting;
mod phases;
mod phrases;
mod quantities;
mod reasons;
mod repair;
mod returned;
mod safety;
mod sentences;
mod settle;
mod sheet;
mod sound;
mod spelling;
mod statements;
mod tags;
mod trace;
mod unmarked;
mod warned;
mod wording;

pub use act::{Act, Direction};
pub use compare::{Comparison, Topic, compare};
pub use deeds::{
    Deed, DraftAct, DraftSheet, DraftStep, Half, deeds, explain as explain_deeds, is_order, sentence, steps, title,
};
pub use discrepancies::Contradiction;
pub use facts::{
    ActFact, CautionSubject, ConnectorFact, ConnectorOp, Consumable, Drive, Facts, FastenerFact, FastenerOp, HeatFact,
    HeatSource, NeedFact, PartFact, PartOp,
};
pub use gaps::{Gap, GapKind};
pub use hints::{Hints, Meant};
pub use lexicon::is_known;
pub use marks::Mark;
pub use numbers::figure_of;
pub use reasons::{breaths, caution_at, is_reason, subject_at, warns};
pub use repair::Repair;
pub use safety::Doubt;
pub use sentences::joined_text;
pub use sheet::{At, CautionRow, Discrepancy, DiscrepancyKind, FactSheet, tally};
pub use spelling::Spelling;
pub use statements::StatementKind;
pub use trace::trace;
pub use warned::{caution, forbids, tells_what_to_do};
pub use wording::{Instruction, ScrewGroup, Whereabouts, list};

use crate::recording::Recording;
use clauses::Clause;
use extract::{Ground, Memory};
use safety::Told;
use sentences::Sentence;
use serde::{Deserialize, Serialize};
use statements::{Judged, Place};
use tags::Tagged;
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
    /// A total that its groups, told later, took the place of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub announced_count: Option<u32>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub marks: Vec<Mark>,
    /// Safety words that can hardly have been said so.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub doubts: Vec<Doubt>,
}

impl Statement {
    /// What was said, with the words that were misheard put right.
    pub fn put_right(&self) -> String {
        let mut text: Vec<char> = self.text.chars().collect();
        let within = |r: &&Repair| r.start >= self.start && r.end <= self.end && r.start <= r.end;
        for r in self.repairs.iter().rev().filter(within) {
            let (from, to) = (r.start - self.start, r.end - self.start);
            if to <= text.len() {
                text.splice(from..to, r.meant.chars());
            }
        }
        text.into_iter().collect()
    }
}

/// All that was read out of one recording.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Reading {
    pub statements: Vec<Statement>,
    /// Where the recording contradicts itself, with both places.
    pub contradictions: Vec<Contradiction>,
    /// Silence and lost speech between acts.
    pub gaps: Vec<Gap>,
    pub sheet: FactSheet,
    /// What hands do, act by act.
    #[serde(skip)]
    pub deeds: Vec<Deed>,
    /// Capitals that names carry.
    #[serde(skip)]
    pub spelling: Spelling,
}

/// Reads a recording. Never fails: what is not understood is said to be so.
pub fn read(recording: &Recording) -> Reading {
    read_with(recording, &Hints::default())
}

/// As [`read`], under the words and ends that an author put right.
pub fn read_with(recording: &Recording, hints: &Hints) -> Reading {
    let text: Vec<char> = joined_text(recording).chars().collect();
    let punctuated = sentences::is_punctuated(recording);
    let (sentences, repairs) = repaired(recording, hints);
    let repairs = sentences.iter().map(|s| of_sentence(&repairs, s)).collect::<Vec<_>>();
    let tagged: Vec<Tagged<'_>> = sentences.iter().map(|s| tags::tag(&s.tokens, punctuated)).collect();
    let clauses: Vec<Vec<Clause>> = tagged.iter().map(clauses::split).collect();
    let deeds::Telling { mut deeds, needs, tools } = deeds::tell(recording, &sentences);
    let ended = farewell::after_the_farewell(&sentences).unwrap_or(sentences.len());
    if let Some(t) = sentences.get(ended).and_then(|s| s.tokens.first()) {
        deeds.retain(|d| d.start < t.start);
    }
    let turn = deeds::turn(&deeds, turn(&sentences, &tagged, &clauses));

    let place = Placing { recording, starts: cue_starts(recording), text };
    let mut memory = Memory::default();
    let mut started = false;
    let mut listing = None;
    let mut statements = Vec::with_capacity(sentences.len());
    for (n, ((sentence, repairs), (tagged, clauses))) in
        sentences.iter().zip(repairs).zip(tagged.iter().zip(&clauses)).enumerate()
    {
        let cue = sentence.tokens[0].cue;
        memory.rebuild = turn.is_some_and(|t| cue >= t);
        // A list of tools goes on in the next segment as long as only tools are named.
        let names = only_names(tagged, clauses);
        let lists = listing.is_some_and(|at| at == cue || at + 1 == cue && names);
        let judged = if n < ended {
            statements::judge(tagged, clauses, Place { cue, listing: lists, names, started })
        } else {
            statements::Judged::after_the_farewell()
        };
        // "Torque driver, 0.1 to 1 newton metre." stands in the list as well, whatever it looks like by itself.
        let goes_on = lists && (names || !(judged.kind == StatementKind::Action && judged.confidence > 0.9));
        listing = (judged.kind == StatementKind::Tool || goes_on).then_some(cue);
        started |=
            judged.kind == StatementKind::Tool || (judged.kind == StatementKind::Action && judged.confidence > 0.9);
        let facts = facts(&judged, sentence, n, tagged, clauses, &mut memory);
        let judged = if tells_of_screws(&judged, &facts) { judged.screws() } else { judged };
        let marks = marks::marks(tagged, clauses, judged.kind);
        statements.push(Statement { marks, ..place.statement(sentence, judged, repairs, facts, memory.rebuild) });
    }
    let told: Vec<Told<'_, '_>> = sentences
        .iter()
        .zip(tagged.iter().zip(&clauses))
        .map(|(sentence, (tagged, clauses))| Told { sentence, tagged, clauses })
        .collect();
    safety::doubt(&mut statements, &told, hints);
    settle::settle(&mut statements);
    deeds::supplement(&mut statements, &deeds, &needs);
    deeds::tools_at_hand(&mut statements, &tools);
    settle::heated_with_what_is_at_hand(&mut statements);
    deeds::only_driver(&mut statements, &mut deeds);
    let words: Vec<&[&str]> = tagged.iter().map(|t| &t.words[..]).collect();
    deeds::all_alike(&mut statements, &mut deeds, &words);
    deeds::only_bit(&mut statements, &mut deeds, &words);
    returned::by_size(&mut statements);
    deeds::figured(&mut deeds, &mut statements);
    homes::find(&mut statements, &mut deeds, &place.text);
    Reading { deeds, ..conclude(recording, statements) }
}

/// "Bent tweezers 6.": a tool or a number, and nothing that is done.
fn only_names(t: &Tagged<'_>, clauses: &[Clause]) -> bool {
    const FEW: usize = 6;
    let tool = || !extract::tools_named(&t.words).is_empty() || lexicon::LEXICON.consumables.any(&t.words).is_some();
    // "Shield lifting tool": no order, whatever its first word looks like.
    let jig = t.words.last().is_some_and(|w| matches!(*w, "tool" | "jig" | "fixture"))
        && t.words.len() > 2
        && !t.words.iter().any(|w| lexicon::LEXICON.classes.determiner.contains(*w));
    t.words.len() <= FEW && (jig || clauses.iter().all(|c| c.verb.is_none()) && (numbers::lone(&t.words) || tool()))
}

/// The sentences under the words and ends that an author put right, with what was repaired.
fn repaired(recording: &Recording, hints: &Hints) -> (Vec<Sentence>, Vec<Repair>) {
    let text: Vec<char> = joined_text(recording).chars().collect();
    let mut sentences = sentences::split(recording);
    let titled = repair::titled(recording.title.as_deref());
    let mut repairs = hints::put_words(&mut sentences, hints, &text);
    for (sentence, repairs) in sentences.iter_mut().zip(&mut repairs) {
        repairs.extend(repair::repair(sentence, hints, &titled));
        dozens::in_figures(sentence);
    }
    let mut repairs: Vec<Repair> = repairs.into_iter().flatten().collect();
    repairs.sort_by_key(|r| r.start);
    if !sentences::is_punctuated(recording) {
        sentences = sentences.into_iter().flat_map(parted).collect();
    }
    (hints::put_ends(sentences, hints), repairs)
}

/// The guide that a recording tells, before any author touched it.
pub fn draft_guide(recording: &Recording) -> DraftSheet {
    let reading = read(recording);
    deeds::draft(recording, &reading)
}

/// What follows from statements: contradictions, gaps and the sheet. Statements may have been corrected since.
pub fn conclude(recording: &Recording, statements: Vec<Statement>) -> Reading {
    let turn = statements.iter().find(|s| s.rebuild).map(|s| s.cue as usize);
    let contradictions = discrepancies::find(&statements);
    let gaps = gaps::find(recording, &statements);
    let sheet = sheet::build(recording, &statements, turn, &contradictions);
    Reading { statements, contradictions, gaps, sheet, deeds: Vec::new(), spelling: Spelling::of(recording) }
}

/// A run-on sentence in the parts that can stand alone.
fn parted(sentence: Sentence) -> Vec<Sentence> {
    let ends = {
        let tagged = tags::tag(&sentence.tokens, false);
        parting::ends(&tagged, &clauses::split(&tagged))
    };
    parting::part(sentence, &ends)
}

/// The repairs that stand in a sentence.
fn of_sentence(all: &[Repair], sentence: &Sentence) -> Vec<Repair> {
    let (Some(first), Some(last)) = (sentence.tokens.first(), sentence.tokens.last()) else { return Vec::new() };
    let from = all.partition_point(|r| r.start < first.start);
    all[from..].iter().take_while(|r| r.start < last.end).cloned().collect()
}

fn turn(sentences: &[Sentence], tagged: &[Tagged<'_>], clauses: &[Vec<Clause>]) -> Option<usize> {
    let told: Vec<(usize, Vec<&str>, &[Clause])> = sentences
        .iter()
        .zip(tagged)
        .zip(clauses)
        .map(|((s, t), c)| (s.tokens[0].cue, t.words.clone(), c.as_slice()))
        .collect();
    phases::turn(&told)
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

fn facts(
    judged: &Judged,
    sentence: &Sentence,
    number: usize,
    tagged: &Tagged<'_>,
    clauses: &[Clause],
    memory: &mut Memory,
) -> Facts {
    let reversed = lexicon::LEXICON.rebuild_reverse.any(&tagged.words).is_some();
    let ground = match judged.kind {
        // "Putting it back is the reverse, battery last": summed up, not done.
        _ if reversed => Ground::Told,
        StatementKind::Action | StatementKind::Test | StatementKind::Observation => Ground::Work,
        // "Unplug that first, and not by the wires": a warning may stand beside the act.
        StatementKind::Caution if judged.warning.as_ref().is_some_and(|w| !w.whole) => Ground::Work,
        StatementKind::Chatter if may_size_screws(judged, sentence, tagged, memory) => Ground::Work,
        _ => Ground::Told,
    };
    let spoken_of = memory.focus.clone();
    let hazard = memory.hazard.take().filter(|(cue, _)| *cue == sentence.tokens[0].cue).map(|(_, h)| h);
    let mut facts = extract::extract(sentence, number, tagged, clauses, ground, memory);
    if judged.kind == StatementKind::Noise {
        return Facts::default();
    }
    // A list names the heat gun and heats nothing.
    if judged.kind == StatementKind::Tool {
        facts.heat.clear();
    }
    if judged.kind == StatementKind::Chatter && !tells_of_screws(judged, &facts) {
        // What talk mentions is not used, but a price is a price.
        return Facts { measures: facts.measures, ..Facts::default() };
    }
    if judged.chain {
        facts.needs = extract::needs(tagged, clauses, spoken_of.as_ref());
    } else if let Some(warning) = &judged.warning {
        facts.cautions = extract::about(tagged, warning, spoken_of.as_ref(), hazard);
    }
    memory.hazard = extract::named_hazard(&tagged.words).map(|h| (sentence.tokens[0].cue, h));
    facts
}

/// Counts and sizes may be told of screws just spoken of, where nothing else is named.
fn may_size_screws(judged: &Judged, sentence: &Sentence, t: &Tagged<'_>, memory: &Memory) -> bool {
    judged.confidence < UNSURE
        && memory.screws.cue == Some(sentence.tokens[0].cue)
        && t.tags.iter().filter(|t| matches!(t, tags::Tag::Number | tags::Tag::Measure)).count() > 1
}

/// Below this, talk is only what nothing else was found in.
const UNSURE: f64 = 0.65;

/// "Then two at the corners, they're 25": no thing is named, and it is no talk.
fn tells_of_screws(judged: &Judged, facts: &Facts) -> bool {
    let told = facts.fasteners.iter().any(|f| f.count.is_some() && f.length.is_some());
    judged.kind == StatementKind::Chatter && judged.confidence < UNSURE && told
}

/// Puts sentences back into the recording's text and time.
struct Placing<'a> {
    recording: &'a Recording,
    starts: Vec<(usize, usize)>,
    text: Vec<char>,
}

impl Placing<'_> {
    fn statement(
        &self,
        sentence: &Sentence,
        judged: Judged,
        repairs: Vec<Repair>,
        facts: Facts,
        rebuild: bool,
    ) -> Statement {
        let (first, last) = (&sentence.tokens[0], sentence.tokens.last().expect("no sentence is empty"));
        let end = sentence_end(&self.text, last.end);
        Statement {
            start: first.start,
            end,
            cue: first.cue as u32,
            last_cue: last.cue as u32,
            text: self.text[first.start..end].iter().map(|c| if *c == '\n' { ' ' } else { *c }).collect(),
            from_ms: place(self.recording, &self.starts, first.cue, first.start),
            to_ms: place(self.recording, &self.starts, last.cue, end),
            approximate: true,
            kind: judged.kind,
            confidence: judged.confidence,
            because: judged.because,
            rebuild,
            repairs,
            facts,
            announced_count: None,
            marks: Vec::new(),
            doubts: Vec::new(),
        }
    }
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
    #[case("Material required. Isopropyl alcohol, cleaning cloth, adhesive ring.", StatementKind::Tool)]
    #[case("The driver board holds a charge after the plug is pulled.", StatementKind::Caution)]
    #[case("The pump holds the valve.", StatementKind::Observation)]
    #[case("You hold the pump.", StatementKind::Action)]
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
