//! How a joint opens, in the order in which it must be read: limits first, then the passes, then how far it swings.

use crate::ids::*;
use crate::labels::Label;
use crate::manual::{Manual, MarkKind, Phase, Seam, SeamKind, SeamMark, rim};
use crate::reading::Act;
use crate::units::{in_millimetres, number};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a joint opens.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OpeningPlan {
    pub lines: Vec<PlanLine>,
    /// What was never said of it: "where to enter", "how deep beside the light sensor".
    pub untold: Vec<String>,
}

/// One line of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PlanLine {
    /// `None` on what holds for the whole joint.
    pub mark: Option<MarkId>,
    /// Its place among the passes, from 1; the same number stands in the picture. `None` on limits.
    pub number: Option<usize>,
    pub text: String,
}

impl PlanLine {
    /// For readers: the number of the picture before what is done there.
    pub fn words(&self) -> String {
        self.number.map_or_else(|| self.text.clone(), |n| format!("({n}) {}", self.text))
    }
}

/// Whether a mark is something to do, in its order; the others are limits and what is known of the joint.
pub fn is_pass(kind: MarkKind) -> bool {
    matches!(kind, MarkKind::Entry | MarkKind::Run | MarkKind::Pick | MarkKind::HandOver)
}

/// The place of every pass among the passes, from 1.
pub fn numbers(seam: &Seam) -> impl Iterator<Item = (MarkId, usize)> {
    seam.marks.iter().filter(|m| is_pass(m.kind)).enumerate().map(|(n, m)| (m.id, n + 1))
}

/// Works out how a joint opens. O(marks).
pub fn plan(manual: &Manual, seam: &Seam) -> OpeningPlan {
    let wording = Wording { manual, seam };
    let line = |mark: &SeamMark, number| PlanLine { mark: Some(mark.id), number, text: wording.line(mark) };
    let general = seam.depth.map(|d| {
        let marked = seam.marks.iter().any(|m| m.depth.is_some());
        let otherwise = if marked { " where nothing else is said" } else { "" };
        whole(format!("No deeper than {} mm{otherwise}.", number(in_millimetres(d))))
    });
    let limits = seam.marks.iter().filter(|m| !is_pass(m.kind)).map(|m| line(m, None));
    let passes = seam.marks.iter().filter(|m| is_pass(m.kind)).enumerate().map(|(n, m)| line(m, Some(n + 1)));
    let last = [swing(seam), seam.posture.as_ref().map(|p| format!("Then: {p}."))];
    let lines = general.into_iter().chain(limits).chain(passes).chain(last.into_iter().flatten().map(whole));
    OpeningPlan { lines: lines.collect(), untold: untold(manual, seam) }
}

fn whole(text: String) -> PlanLine {
    PlanLine { mark: None, number: None, text: text.replace("..", ".") }
}

fn swing(seam: &Seam) -> Option<String> {
    let swing = seam.swing.as_ref()?;
    let angle = swing.at_most_deg.map(|d| format!("no more than {}°", number(d)));
    let hinge = swing.hinge.map(|e| format!("like a book, hinge on the {} edge", e.label()));
    let how: Vec<String> = hinge.into_iter().chain(angle).collect();
    let how = if how.is_empty() { "straight off".to_owned() } else { how.join(", ") };
    let because = swing.because.as_ref().map_or(String::new(), |b| format!(": {b}"));
    let act = if swing.hinge.is_some() { "Open it" } else { "Lift it" };
    Some(format!("{act} {how}{because}."))
}

/// What a reader would have to guess.
fn untold(manual: &Manual, seam: &Seam) -> Vec<String> {
    let mut out = Vec::new();
    let entered = seam.marks.iter().any(|m| m.kind == MarkKind::Entry && (m.at.is_some() || m.landmark.is_some()));
    if !entered && is_pried(manual, seam) {
        out.push("where to enter".to_owned());
    }
    let shallow = |m: &&SeamMark| m.kind == MarkKind::Shallow && m.depth.or(seam.depth).is_none();
    let beside = seam.marks.iter().filter(shallow).map(|m| match m.part {
        Some(part) => format!("how deep beside the {}", manual.part_name(part)),
        None => "how deep where to stay shallow".to_owned(),
    });
    out.extend(beside);
    out
}

/// Whether a tool has to find its way in: what is only peeled off needs no entry; a joint that somebody described does.
pub fn is_pried(manual: &Manual, seam: &Seam) -> bool {
    let Some(step) = manual.steps.get(&seam.step) else { return false };
    let described = !seam.marks.is_empty() || seam.face.is_some();
    let pried = step.actions.iter().any(|a| matches!(a.act, Act::Pry | Act::Cut));
    seam.kind != SeamKind::Tape && step.phase == Phase::Teardown && (described || pried)
}

struct Wording<'m> {
    manual: &'m Manual,
    seam: &'m Seam,
}

impl Wording<'_> {
    fn line(&self, mark: &SeamMark) -> String {
        let place = self.place(mark);
        let at = place.as_ref().map_or(String::new(), |p| format!(" {p}"));
        let depth = mark.depth.map(|d| format!("no deeper than {} mm", number(in_millimetres(d))));
        let deep = depth.as_ref().map_or(String::new(), |d| format!(", {d}"));
        let part = mark.part.map(|p| self.manual.part_name(p));
        let behind = part.map_or(String::new(), |p| format!(": the {p} lies behind it"));
        let tool = mark.tool.as_deref().map(|t| format!(" the {t}")).unwrap_or_default();
        let text = match mark.kind {
            MarkKind::Entry if mark.tool.as_deref().is_some_and(|t| t.contains("suction")) => {
                format!("Put{tool} on{}{deep}", at.replacen(" at the ", " the ", 1).replacen(" along the ", " the ", 1))
            }
            MarkKind::Entry => format!("Enter{at}{}{deep}", with(&tool)),
            MarkKind::Run => {
                let tool = if tool.is_empty() { " the tool" } else { &tool };
                let way = self.way(mark);
                format!("Run{tool}{at}{way}{deep}")
            }
            MarkKind::Pick => {
                format!("Leave{} in{at}: it holds the gap", if tool.is_empty() { " a pick" } else { &tool })
            }
            MarkKind::HandOver => {
                let taken = if tool.is_empty() { " another tool" } else { &tool };
                format!("Go on with{taken}{}", place.map_or(String::new(), |p| format!(" {p}")))
            }
            MarkKind::Shallow => match depth {
                Some(depth) => format!("{}{at}{behind}", crate::manual::capitalised(&depth)),
                None => format!("Stay shallow{at}{behind}"),
            },
            MarkKind::KeepOut => format!("Keep out{at}{behind}"),
            MarkKind::Clip => format!("{}{at}", counted(mark.count, "clip")),
            MarkKind::GlueSpot => match mark.count {
                None => format!("Extra glue{at}"),
                count => format!("{}{at}", counted(count, "spot of extra glue")),
            },
        };
        format!("{text}.")
    }

    /// "at the top right corner", "along the bottom edge", "all round", "beside the card slot".
    fn place(&self, mark: &SeamMark) -> Option<String> {
        let outline = self.seam.outline(self.manual).map(|l| &l.outline);
        let landmark = mark.landmark.as_deref().map(led);
        let Some(rim) = mark.rim() else { return landmark };
        let told = rim::stretch_words(rim, mark.counter, outline);
        let told = match rim.over {
            None => format!("at the {told}"),
            Some(_) if told.contains(" edge") && !told.starts_with("from") => format!("along the {told}"),
            Some(_) => told,
        };
        Some(landmark.map_or(told.clone(), |l| format!("{told} ({l})")))
    }

    /// Which way round, where the stretch does not say it.
    fn way(&self, mark: &SeamMark) -> &'static str {
        match mark.rim() {
            Some(rim) if rim.over.is_some_and(|o| o > 11.8) => {
                if mark.counter {
                    ", counterclockwise"
                } else {
                    ", clockwise"
                }
            }
            _ => "",
        }
    }
}

fn with(tool: &str) -> String {
    if tool.is_empty() { String::new() } else { format!(" with{tool}") }
}

/// "8 clips", "A clip", "Clips".
fn counted(count: Option<u32>, what: &str) -> String {
    let many = what.strip_prefix("spot").map_or_else(|| format!("{what}s"), |rest| format!("spots{rest}"));
    match count {
        Some(1) => format!("A {what}"),
        Some(n) => format!("{n} {many}"),
        None => crate::manual::capitalised(&many),
    }
}

/// A landmark with a word before it that says how it lies: "beside the card slot", "at the card slot".
fn led(landmark: &str) -> String {
    const LEADS: [&str; 22] = [
        "at", "in", "on", "by", "near", "beside", "between", "next", "below", "under", "behind", "above", "across",
        "along", "around", "directly", "right", "into", "over", "opposite", "from", "through",
    ];
    let first = landmark.split(' ').next().unwrap_or_default();
    if LEADS.contains(&first) {
        return landmark.to_owned();
    }
    let article = if ["the", "a", "an"].contains(&first) { "" } else { "the " };
    format!("at {article}{landmark}")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{
        Edit, FaceEdge, LayerEdit, MarkEdit, MarkEnd, MarkField, Outline, RimAsked, SeamEdit, SeamField, Swing, drafted,
    };
    use rstest::rstest;
    use uuid::Uuid;

    fn seam(manual: &Manual) -> &Seam {
        manual.seams.values().next().expect("the glue")
    }

    fn edited(manual: &Manual, edit: MarkEdit) -> Manual {
        manual.apply(&Edit::Seam(SeamEdit::Mark { id: seam(manual).id, edit }), "Ann").expect("a mark").0
    }

    /// A rear glass of 80 × 120 mm with the marks, each "kind place" with its fields.
    fn marked(marks: &[(MarkKind, &str, Vec<MarkField>)]) -> Manual {
        let mut manual = drafted::manual(
            "[0:00] Cut the glue of the rear glass with a pick. Lift off the rear glass. Disconnect the sensor cable. Remove \
             the light sensor.",
        );
        manual.seams.values_mut().for_each(|s| s.marks.clear());
        let face = LayerId(Uuid::from_u128(7));
        let outline = Outline::Rectangle { width_mm: 80.0, height_mm: 120.0, radius_mm: 5.0 };
        let add = Edit::Layer(LayerEdit::Add { id: face, name: "Rear".to_owned(), outline });
        let on = Edit::Seam(SeamEdit::Set { id: seam(&manual).id, field: SeamField::Face(Some(face)) });
        let mut manual = [add, on].iter().fold(manual, |m, e| m.apply(e, "Ann").expect("a face").0);
        for (n, (kind, told, fields)) in marks.iter().enumerate() {
            let id = MarkId(Uuid::from_u128(100 + n as u128));
            let (from, to) = told.split_once(" .. ").unwrap_or((told, ""));
            let place = |told: &str| (!told.is_empty()).then(|| RimAsked::Words(told.to_owned()));
            manual = edited(&manual, MarkEdit::Add { id, kind: *kind, place: place(from), to: None });
            if let Some(place) = place(to) {
                manual = edited(&manual, MarkEdit::Place { id, end: MarkEnd::To, place });
            }
            for field in fields {
                manual = edited(&manual, MarkEdit::Set { id, field: field.clone() });
            }
        }
        manual
    }

    fn tool(name: &str) -> MarkField {
        MarkField::Tool(Some(name.to_owned()))
    }

    fn line(kind: MarkKind, told: &str, fields: Vec<MarkField>) -> String {
        let manual = marked(&[(kind, told, fields)]);
        plan(&manual, seam(&manual)).lines[0].text.clone()
    }

    #[rstest]
    #[case(MarkKind::Entry, "top edge", vec![tool("suction cup")], "Put the suction cup on the top edge.")]
    #[case(MarkKind::Entry, "7:30", vec![tool("opening pick"), MarkField::DepthMm(Some(2.0))], "Enter at the bottom left corner with the opening pick, no deeper than 2 mm.")]
    #[case(MarkKind::Entry, "", vec![MarkField::Landmark(Some("charging socket".to_owned()))], "Enter at the charging socket.")]
    #[case(MarkKind::Entry, "left edge, 30 mm from the top", vec![MarkField::Landmark(Some("beside the card slot".to_owned()))], "Enter at the left edge, 30 mm from the top (beside the card slot).")]
    #[case(MarkKind::Run, "bottom edge", vec![tool("opening pick")], "Run the opening pick along the bottom edge.")]
    #[case(MarkKind::Run, "all round", vec![], "Run the tool all round, clockwise.")]
    #[case(MarkKind::Run, "top left corner .. 3 o'clock", vec![MarkField::Counter(true)], "Run the tool from the middle of the right edge counterclockwise to the top left corner.")]
    #[case(MarkKind::Pick, "top left corner", vec![], "Leave a pick in at the top left corner: it holds the gap.")]
    #[case(MarkKind::HandOver, "3 o'clock", vec![tool("thicker lever")], "Go on with the thicker lever at the middle of the right edge.")]
    #[case(MarkKind::Shallow, "right edge", vec![MarkField::DepthMm(Some(1.5))], "No deeper than 1.5 mm along the right edge.")]
    #[case(MarkKind::KeepOut, "middle of the top edge", vec![], "Keep out at the middle of the top edge.")]
    #[case(MarkKind::Clip, "all round", vec![MarkField::Count(Some(8))], "8 clips all round.")]
    #[case(MarkKind::GlueSpot, "bottom right corner", vec![MarkField::Count(Some(1))], "A spot of extra glue at the bottom right corner.")]
    fn a_mark_is_told_in_a_sentence(
        #[case] kind: MarkKind,
        #[case] told: &str,
        #[case] fields: Vec<MarkField>,
        #[case] says: &str,
    ) {
        assert_eq!(line(kind, told, fields), says);
    }

    #[test]
    fn limits_are_read_before_the_tool_goes_in() {
        let manual = marked(&[
            (MarkKind::Entry, "bottom edge", vec![tool("opening pick")]),
            (MarkKind::Run, "all round", vec![tool("opening pick")]),
            (MarkKind::KeepOut, "top edge", vec![]),
        ]);
        let swing =
            Swing { hinge: Some(FaceEdge::Left), at_most_deg: Some(90.0), because: Some("the ribbon".to_owned()) };
        let set = |field| Edit::Seam(SeamEdit::Set { id: seam(&manual).id, field });
        let manual = [set(SeamField::Swing(Some(swing))), set(SeamField::DepthMm(Some(3.0)))]
            .iter()
            .fold(manual.clone(), |m, e| m.apply(e, "Ann").unwrap().0);
        let told: Vec<(Option<usize>, String)> =
            plan(&manual, seam(&manual)).lines.into_iter().map(|l| (l.number, l.text)).collect();
        let expected = [
            (None, "No deeper than 3 mm."),
            (None, "Keep out along the top edge."),
            (Some(1), "Enter along the bottom edge with the opening pick."),
            (Some(2), "Run the opening pick all round, clockwise."),
            (None, "Open it like a book, hinge on the left edge, no more than 90°: the ribbon."),
        ];
        assert_eq!(told, expected.map(|(n, t)| (n, t.to_owned())));
    }

    #[test]
    fn what_was_never_told_is_listed() {
        let manual = marked(&[(MarkKind::Shallow, "top edge", vec![])]);
        let sensor = manual.parts.values().find(|p| p.name == "light sensor").expect("a part").id;
        let id = seam(&manual).marks[0].id;
        let manual = edited(&manual, MarkEdit::Set { id, field: MarkField::Part(Some(sensor)) });
        assert_eq!(plan(&manual, seam(&manual)).untold, ["where to enter", "how deep beside the light sensor"]);
        let deep = edited(&manual, MarkEdit::Set { id, field: MarkField::DepthMm(Some(1.0)) });
        assert_eq!(plan(&deep, seam(&deep)).untold, ["where to enter"]);
    }
}
