//! How a joint opens, as the narrator tells it while opening it: where the tool goes in, which edges it runs along, how deep,
//! what lies behind, how far the halves may swing. What was told of a place without an edge or a corner stays as a landmark,
//! which an author puts on the outline.

use crate::ids::*;
use crate::manual::model::rim::{self, Rim};
use crate::manual::{Evidence, FaceEdge, Manual, MarkKind, Seam, SeamKind, SeamMark, Swing};
use crate::reading::{Act, Statement, StatementKind, figure_of};
use crate::units::{self, Measure, Quantity};

/// Said of the opening, before all parts are known.
#[derive(Default)]
pub(super) struct OpeningTold(Vec<Said>);

struct Said {
    step: StepId,
    /// In small letters.
    text: String,
    tools: Vec<String>,
    measures: Vec<Measure>,
    warns: bool,
    evidence: Evidence,
}

/// Tools that open a joint without screws, by the names of the fact sheet.
const OPENERS: [&str; 4] = ["opening pick", "suction cup", "spudger", "opening tool"];

/// What kind of joint a statement opens; `None` where it opens none.
pub(super) fn opens(statement: &Statement) -> Option<SeamKind> {
    let text = statement.text.to_lowercase();
    let said = |words: &[&str]| words.iter().any(|w| text.contains(w));
    let acts = |acts: &[Act]| statement.facts.acts.iter().any(|a| acts.contains(&a.act));
    let opener = statement.facts.tools.iter().any(|t| t == "opening pick" || t == "suction cup");
    let at_work = statement.kind == StatementKind::Action && opener && (enters(&text) || runs(&text));
    let cuts_bond = acts(&[Act::Cut]) && said(&["glue", "adhesive"]);
    // Who cuts a tie opens no joint.
    if said(&["cable tie", "zip tie", "tie wrap"]) && !said(&["glue", "adhesive"]) {
        return None;
    }
    let clips =
        said(&["clips", "latches", "catches", "snap"]) && !said(&["connector", "plug", "cable", "battery latch"]);
    if !(acts(&[Act::Pry, Act::Peel]) || at_work || cuts_bond || acts(&[Act::Release]) && clips) {
        return None;
    }
    Some(match () {
        () if clips || said(&["clip", "latch"]) => SeamKind::Clips,
        () if said(&["tape"]) => SeamKind::Tape,
        () => SeamKind::Glue,
    })
}

fn enters(text: &str) -> bool {
    ["insert", "push ", "put ", "stick ", "place ", "press ", "wedge", "fix "].iter().any(|v| text.contains(v))
        || text.contains("slide") && (text.contains("into the gap") || text.contains("in the gap"))
}

fn runs(text: &str) -> bool {
    let verb = ["slide", "move", "run ", "work ", "walk", "cut ", "go on", "go round", "go around"];
    let way = ["along", "around", "round", "clockwise", "all sides", "four sides"];
    verb.iter().any(|v| text.contains(v)) && way.iter().any(|w| text.contains(w))
}

impl OpeningTold {
    pub fn listen(&mut self, step: StepId, statement: &Statement, evidence: &Evidence) {
        if statement.rebuild || statement.kind == StatementKind::Noise {
            return;
        }
        let facts = &statement.facts;
        self.0.push(Said {
            step,
            text: statement.text.to_lowercase().replace('’', "'"),
            tools: facts.tools.iter().filter(|t| OPENERS.contains(&t.as_str())).cloned().collect(),
            measures: facts.measures.clone(),
            warns: statement.kind == StatementKind::Caution || !facts.cautions.is_empty(),
            evidence: evidence.clone(),
        });
    }

    /// Puts what was told into the joints, each statement into the first joint of its step.
    pub fn settle(self, manual: &mut Manual, ids: &mut crate::ids::IdMaker) {
        let seams: Vec<SeamId> = manual.seams.keys().copied().collect();
        let mut done = Vec::new();
        for id in seams {
            let Some(mut seam) = manual.seams.get(&id).cloned() else { continue };
            if done.contains(&seam.step) {
                continue;
            }
            let step = seam.step;
            done.push(step);
            // "The eight clips": what they hold is what leaves there.
            seam.part = seam.part.or_else(|| leaves(manual, step));
            for said in self.0.iter().filter(|s| s.step == step) {
                said.mark(manual, &mut seam, ids);
            }
            manual.seams.insert(id, seam);
        }
    }
}

/// The one part that leaves in a step.
fn leaves(manual: &Manual, step: StepId) -> Option<PartId> {
    let out = |a: &&crate::manual::Action| matches!(a.act, Act::Remove | Act::Open | Act::Pry | Act::Release);
    let mut parts = manual.steps.get(&step)?.actions.iter().filter(out).flat_map(|a| a.parts.iter().copied());
    let first = parts.next()?;
    parts.all(|p| p == first).then_some(first)
}

/// What a statement tells of one mark.
#[derive(Default)]
struct Told {
    rim: Option<Rim>,
    landmark: Option<String>,
    tool: Option<String>,
    part: Option<PartId>,
    count: Option<u32>,
    counter: bool,
}

impl Said {
    fn has(&self, words: &[&str]) -> bool {
        words.iter().any(|w| self.text.contains(w))
    }

    fn mark(&self, manual: &Manual, seam: &mut Seam, ids: &mut crate::ids::IdMaker) {
        let before = seam.marks.len();
        let mut put = |seam: &mut Seam, kind, told: Told| {
            let twin = |m: &SeamMark| {
                m.kind == kind && m.rim() == told.rim && m.landmark == told.landmark && m.part == told.part
            };
            if seam.marks.iter().any(twin) {
                return;
            }
            let mut mark = SeamMark::new(ids.make(MarkId), kind, self.evidence.clone());
            (mark.at, mark.over) = (told.rim.map(|r| r.at), told.rim.and_then(|r| r.over));
            (mark.landmark, mark.tool, mark.part) = (told.landmark, told.tool, told.part);
            (mark.count, mark.counter) = (told.count, told.counter);
            seam.marks.push(mark);
        };
        self.swing(manual, seam);
        let place = rim::read(&self.text, None).ok();
        let behind = self.behind(manual, seam);
        let shuns = self.has(&["go around it", "go round it", "keep away", "keep out", "stay away"]);
        if self.warns || shuns || self.has(&["go deep", "go in deep"]) {
            let landmark = if place.is_none() { self.landmark(&BEHIND) } else { None };
            if place.is_some() || behind.is_some() && landmark.is_some() {
                let kind = if shuns { MarkKind::KeepOut } else { MarkKind::Shallow };
                put(seam, kind, Told { rim: place, landmark, part: behind, ..Told::default() });
            }
        } else {
            self.work(seam, place, &mut put);
        }
        self.limit(seam, before);
    }

    /// What the hands do there.
    fn work(&self, seam: &mut Seam, place: Option<Rim>, put: &mut impl FnMut(&mut Seam, MarkKind, Told)) {
        let tool = self.tools.last().cloned();
        let counter = self.has(&["counterclockwise", "anticlockwise", "anti-clockwise"]);
        if let Some(count) = self.clips() {
            put(seam, MarkKind::Clip, Told { rim: place, count: Some(count), counter, ..Told::default() });
        }
        if runs(&self.text) {
            for rim in self.stretches(place) {
                put(seam, MarkKind::Run, Told { rim: Some(rim), tool: tool.clone(), counter, ..Told::default() });
            }
        } else if enters(&self.text) && tool.is_some() {
            let landmark = if place.is_none() { self.landmark(&BESIDE) } else { None };
            let last = seam.marks.iter_mut().rev().find(|m| m.kind == MarkKind::Entry);
            match last {
                // "Pull and insert the first pick": where the cup was put.
                Some(entry) if place.is_none() && landmark.is_none() => entry.tool = tool,
                _ => put(seam, MarkKind::Entry, Told { rim: place, landmark, tool, ..Told::default() }),
            }
        }
        if self.has(&["continue with ", "go on with "]) {
            let taken = self.after(&["continue with ", "go on with "]);
            put(seam, MarkKind::HandOver, Told { rim: place, tool: taken, ..Told::default() });
        }
        if self.has(&["leave it in", "leave the pick", "leave that in", "leave the card"]) {
            let last = seam.marks.iter().rev().find_map(SeamMark::rim);
            put(seam, MarkKind::Pick, Told { rim: place.or(last), ..Told::default() });
        }
        if self.has(&["more glue", "extra glue", "strip of glue", "spot of glue", "glue spot"]) {
            let landmark = if place.is_none() { self.landmark(&BESIDE) } else { None };
            if place.is_some() || landmark.is_some() {
                put(seam, MarkKind::GlueSpot, Told { rim: place, landmark, ..Told::default() });
            }
        }
    }

    /// "No deeper than 2 mm" holds for what the same statement marks, else for the whole joint.
    fn limit(&self, seam: &mut Seam, before: usize) {
        let length = self.measures.iter().find(|m| m.quantity == Quantity::Length && self.text.contains("deep"));
        let Some(depth) = length.map(|m| units::millimetres(m.to.unwrap_or(m.value))) else { return };
        if seam.marks.len() == before {
            seam.depth = seam.depth.or(Some(depth));
        }
        for mark in &mut seam.marks[before..] {
            mark.depth = Some(depth);
        }
    }

    fn swing(&self, manual: &Manual, seam: &mut Seam) {
        let turns = self.has(&["open", "lift", "swing", "tilt", "fold", "hinge", "comes off", "comes up"]);
        let angle = self.measures.iter().find(|m| m.quantity == Quantity::Angle).map(|m| m.to.unwrap_or(m.value));
        let angle = angle.filter(|a| turns && (1.0..=360.0).contains(a));
        let book = turns && self.has(&["like a book", "hinge on", "hinge at", "hinged"]);
        if angle.is_none() && !book {
            return;
        }
        let edges = [
            ("left", FaceEdge::Left),
            ("right", FaceEdge::Right),
            ("top", FaceEdge::Top),
            ("bottom", FaceEdge::Bottom),
        ];
        let hinge = edges.into_iter().find(|(word, _)| {
            ["to the ", "hinge on the ", "hinge at the ", "hinged at the ", "hinged on the "]
                .iter()
                .any(|lead| self.text.contains(&format!("{lead}{word}")))
        });
        let behind = self.behind(manual, seam).map(|p| format!("the {}", manual.part_name(p)));
        let told = Swing { hinge: hinge.map(|(_, e)| e), at_most_deg: angle, because: behind };
        seam.swing.get_or_insert(told);
    }

    /// A part of the device that is named here and is not what the joint holds.
    fn behind(&self, manual: &Manual, seam: &Seam) -> Option<PartId> {
        let words: Vec<&str> = self.text.split(|c: char| !c.is_alphanumeric()).collect();
        let named = |name: &str| name.to_lowercase().split_whitespace().all(|w| words.contains(&w));
        let others = manual.parts.values().filter(|p| Some(p.id) != seam.part && named(&p.name));
        others.max_by_key(|p| p.name.split_whitespace().count()).map(|p| p.id)
    }

    /// "eight latches", "5 clips".
    fn clips(&self) -> Option<u32> {
        if self.has(&["connector", "plug", "battery latch"]) {
            return None;
        }
        let words: Vec<&str> = self.text.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).collect();
        let noun = words.iter().position(|w| matches!(*w, "clips" | "latches" | "catches" | "clip" | "latch"))?;
        let number = |w: &&str| figure_of(w).filter(|n| n.fract() == 0.0 && (1.0..=100.0).contains(n));
        // "Eight small plastic clips."
        words[noun.saturating_sub(3)..noun].iter().rev().find_map(number).map(|n| n as u32)
    }

    /// "Along the bottom and the left side", edge by edge; "around the glass", all round.
    fn stretches(&self, place: Option<Rim>) -> Vec<Rim> {
        let mut out = Vec::new();
        let along = self.text.split_once("along").map_or("", |(_, rest)| rest);
        for word in along.split(|c: char| !c.is_alphabetic()) {
            if let Ok(rim) = rim::read(&format!("{word} edge"), None)
                && rim.over.is_some()
                && !out.contains(&rim)
            {
                out.push(rim);
            }
        }
        if !out.is_empty() && self.has(&["side", "edge", "rim"]) {
            return out;
        }
        if let Some(rim) = place.filter(|r| r.over.is_some()) {
            return vec![rim];
        }
        let round = self.has(&["around the", "round the", "clockwise", "all the way", "all sides", "four sides"]);
        round.then_some(Rim { at: 0.0, over: Some(rim::ROUND) }).into_iter().collect()
    }

    /// How a place is told without an edge: "beside the charging socket".
    fn landmark(&self, leads: &[&str]) -> Option<String> {
        let told = leads.iter().filter_map(|lead| self.text.find(lead).map(|at| (at, *lead))).min_by_key(|(at, _)| *at);
        let (at, _) = told?;
        let rest = self.text[at..].trim();
        let end = rest.find([',', '.', ';', ':']).unwrap_or(rest.len());
        let phrase = rest[..end].split(" and ").next().unwrap_or_default().trim();
        let words = phrase.split(' ').count();
        (2..=9).contains(&words).then(|| phrase.to_owned())
    }

    /// "the thicker lever", behind one of the leads.
    fn after(&self, leads: &[&str]) -> Option<String> {
        let (at, lead) = leads.iter().find_map(|lead| self.text.find(lead).map(|at| (at, lead)))?;
        let rest = &self.text[at + lead.len()..];
        let end = rest.find([',', '.', ';']).unwrap_or(rest.len());
        let tool = rest[..end].split(" and ").next().unwrap_or_default();
        let tool = tool.trim().trim_start_matches("the ").trim_start_matches("a ");
        (!tool.is_empty() && tool.split(' ').count() <= 4).then(|| tool.to_owned())
    }
}

/// Words that say what lies where, in warnings.
const BEHIND: [&str; 8] = [
    " directly below ",
    " right below ",
    " below the ",
    " behind the ",
    " under the ",
    " beside the ",
    " near the ",
    " next to ",
];
/// Words that say where a tool goes.
const BESIDE: [&str; 11] = [
    " at the ",
    " in the notch",
    " in the slot",
    " into the notch",
    " into the slot",
    " by the ",
    " near the ",
    " beside ",
    " between ",
    " next to ",
    " across ",
];

#[cfg(test)]
mod tests {
    use super::*;
    use crate::labels::Label;
    use crate::manual::drafted;
    use rstest::rstest;

    /// Marks as "kind: place; depth; tool; what lies behind".
    fn marks(told: &str) -> Vec<String> {
        let manual =
            drafted::manual(&format!("[0:00] Remove the two screws of the base. {told} Lift off the rear screen."));
        let [seam] = &manual.seams.values().collect::<Vec<_>>()[..] else {
            panic!("one joint: {:?}", manual.seams.values().map(|s| (s.kind, s.part)).collect::<Vec<_>>())
        };
        let told = |m: &SeamMark| {
            let place = m.rim().map(|r| rim::stretch_words(r, m.counter, None)).or(m.landmark.clone());
            let count = m.count.map(|n| format!("{n} ×"));
            let depth = m.depth.map(|d| format!("{} mm", units::number(units::in_millimetres(d))));
            let part = m.part.map(|p| manual.part_name(p).to_owned());
            let rest = [place, count, depth, m.tool.clone(), part].into_iter().flatten().collect::<Vec<_>>();
            format!("{}: {}", m.kind.label(), rest.join("; "))
        };
        seam.marks.iter().map(told).collect()
    }

    #[rstest]
    #[case::cup_then_pick(
        "Put the suction cup on the upper edge of the rear screen. Insert the opening pick.",
        &["enter: top edge; opening pick"]
    )]
    #[case::edge_by_edge(
        "Slide the opening pick along the bottom and the left side. Slide the opening pick along the bottom and the left side.",
        &["run along: bottom edge; opening pick", "run along: left edge; opening pick"]
    )]
    #[case::all_round("Move the opening pick around the rear screen.", &["run along: all round; opening pick"])]
    #[case::depth_of_the_entry(
        "Insert the opening pick at the lower left corner, no deeper than 2 millimetres.",
        &["enter: bottom left corner; 2 mm; opening pick"]
    )]
    #[case::landmark("Insert the opening pick beside the charging socket.", &["enter: beside the charging socket; opening pick"])]
    #[case::clock("Insert the opening pick at 7 o'clock.", &["enter: bottom edge, towards the left; opening pick"])]
    fn what_hands_do_is_marked(#[case] told: &str, #[case] expected: &[&str]) {
        assert_eq!(marks(told), expected);
    }

    #[test]
    fn what_lies_behind_is_kept_out_of() {
        let told = marks(
            "Insert the opening pick at the top left corner. Caution, the light sensor is in the middle of the upper edge, go \
             around it.",
        );
        assert!(told[1].starts_with("keep out: middle of the top edge"), "{told:?}");
    }

    #[test]
    fn a_limit_that_stands_alone_holds_for_the_joint() {
        let manual = drafted::manual(
            "[0:00] Pry up the rear cover with the opening pick. Do not insert it deeper than 3 millimetres. Lift off the \
             rear cover.",
        );
        let seam = manual.seams.values().next().unwrap();
        assert_eq!(seam.depth.map(units::in_millimetres), Some(3.0));
    }

    #[test]
    fn how_far_it_opens_is_told_with_its_angle() {
        let manual = drafted::manual(
            "[0:00] Release the eight clips of the rear housing. Open the rear housing to the left like a book, no more than \
             40 degrees.",
        );
        let seam = manual.seams.values().next().unwrap();
        assert_eq!((seam.kind, seam.marks[0].count), (SeamKind::Clips, Some(8)));
        let swing = seam.swing.as_ref().expect("a swing");
        assert_eq!((swing.hinge, swing.at_most_deg), (Some(FaceEdge::Left), Some(40.0)));
    }

    #[test]
    fn two_statements_of_one_joint_are_one_joint() {
        let manual = drafted::manual(
            "[0:00] Pry up the rear cover with the opening pick. Pry along the left side of the rear cover. Lift off the rear \
             cover.",
        );
        assert_eq!(manual.seams.len(), 1);
    }
}
