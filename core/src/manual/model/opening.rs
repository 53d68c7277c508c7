//! How a joint without screws opens: where a tool enters, which way it runs, how deep, what it must keep out of, and how far
//! the halves may swing. Marks stand in the order of the work; what was told of a place may wait to be put on the outline.

use super::layers::Layer;
use super::rim::{self, ROUND, Rim};
use super::seams::MAX_DEPTH_MM;
use crate::ids::*;
use crate::labels;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, above_zero, maybe_text, within};
use crate::manual::{Evidence, HolePlace, Manual, Part, Seam};
use crate::units::{self, Length, Time};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What is marked on a rim.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MarkKind {
    /// Where the tool goes in first, or again.
    Entry,
    /// A stretch that is cut or unclipped in one pass.
    Run,
    /// A stretch where a tool may only go so deep.
    Shallow,
    /// Where no tool may go.
    KeepOut,
    Clip,
    /// More bond than elsewhere.
    GlueSpot,
    /// A tool that stays there, so that the gap does not close.
    Pick,
    /// Where one tool gives way to another.
    HandOver,
}

labels!(MarkKind {
    Entry: "enter",
    Run: "run along" / "run the tool along",
    Shallow: "stay shallow",
    KeepOut: "keep out",
    Clip: "clip",
    GlueSpot: "extra glue",
    Pick: "leave a pick",
    HandOver: "change the tool",
});

/// An edge of a face.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FaceEdge {
    Top,
    Right,
    Bottom,
    Left,
}

labels!(FaceEdge { Top: "top", Right: "right", Bottom: "bottom", Left: "left" });

/// One mark.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SeamMark {
    pub id: MarkId,
    pub kind: MarkKind,
    /// On the face's clock, from 0 to below 12; `None` until somebody has placed it.
    pub at: Option<f64>,
    /// How many hours it goes on clockwise, at most 12; `None` for a single place.
    pub over: Option<f64>,
    /// A pass that runs counterclockwise over its stretch.
    #[serde(default)]
    pub counter: bool,
    /// How its place was told: "beside the card slot".
    pub landmark: Option<String>,
    /// How deep a tool may go here.
    #[serde(rename = "depth_mm", with = "units::serde_mm")]
    #[schema(value_type = Option<f64>)]
    pub depth: Option<Length>,
    /// What is used here; at a change of tools, what is taken from here on.
    pub tool: Option<String>,
    /// What lies behind it.
    pub part: Option<PartId>,
    /// Clips or spots along a stretch.
    pub count: Option<u32>,
    pub evidence: Vec<Evidence>,
}

/// How the halves part once nothing holds them any more.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Swing {
    /// The edge that stays together, like the back of a book; `None`: lifted straight off.
    pub hinge: Option<FaceEdge>,
    pub at_most_deg: Option<f64>,
    /// What would suffer further on: "the ribbon".
    pub because: Option<String>,
}

/// How the joint is closed again, as its author says it.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Rebond {
    /// What holds it then: "adhesive frame".
    pub with: Option<String>,
    #[serde(rename = "width_mm", with = "units::serde_mm")]
    #[schema(value_type = Option<f64>)]
    pub width: Option<Length>,
    /// The edge that goes in before the others.
    pub hook_first: Option<FaceEdge>,
    /// What presses it: "two clamps, spread with a board".
    pub press: Option<String>,
    #[serde(rename = "press_s", with = "units::serde_seconds")]
    #[schema(value_type = Option<f64>)]
    pub press_for: Option<Time>,
    /// Until it may be loaded.
    #[serde(rename = "cure_s", with = "units::serde_seconds")]
    #[schema(value_type = Option<f64>)]
    pub cure: Option<Time>,
}

/// A place as an author gives it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RimAsked {
    /// On the face's clock.
    Hours(f64),
    /// The place on the rim that is nearest to a point.
    Point(HolePlace),
    /// "top right corner", "7 o'clock", "left edge, 34 mm from the top".
    Words(String),
}

/// Which end of a mark is placed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MarkEnd {
    /// Where it is, or begins; a stretch moves along.
    From,
    /// Where it ends, going clockwise.
    To,
}

/// One field of a mark.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MarkField {
    Kind(MarkKind),
    Counter(bool),
    Landmark(Option<String>),
    DepthMm(Option<f64>),
    Tool(Option<String>),
    Part(Option<PartId>),
    Count(Option<u32>),
}

/// Changes of the marks of one joint.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MarkEdit {
    /// Behind the others; with a second place it is a stretch, the shorter way round, and a pass runs as it was drawn.
    Add {
        id: MarkId,
        kind: MarkKind,
        place: Option<RimAsked>,
        to: Option<RimAsked>,
    },
    Set {
        id: MarkId,
        field: MarkField,
    },
    Place {
        id: MarkId,
        end: MarkEnd,
        place: RimAsked,
    },
    /// Makes a stretch a single place again.
    Shrink {
        id: MarkId,
    },
    /// Puts it before another mark, or behind all.
    Move {
        id: MarkId,
        before: Option<MarkId>,
    },
    Remove {
        id: MarkId,
    },
}

/// Most marks of one joint.
const MAX_MARKS: usize = 200;
/// Most clips along one stretch.
const MAX_CLIPS: u32 = 500;

impl Seam {
    /// The outline of the face that it runs round.
    pub fn outline<'m>(&self, manual: &'m Manual) -> Option<&'m Layer> {
        manual.layers.get(&self.face?)
    }

    /// Whether it holds a part, or one lies behind it.
    pub fn names(&self, part: PartId) -> bool {
        self.part == Some(part) || self.marks.iter().any(|m| m.part == Some(part))
    }
}

impl SeamMark {
    /// A mark that nothing else is known of.
    pub fn new(id: MarkId, kind: MarkKind, evidence: Evidence) -> Self {
        Self {
            id,
            kind,
            at: None,
            over: None,
            counter: false,
            landmark: None,
            depth: None,
            tool: None,
            part: None,
            count: None,
            evidence: vec![evidence],
        }
    }

    /// Where it stands, once it is placed.
    pub fn rim(&self) -> Option<Rim> {
        self.at.map(|at| Rim { at, over: self.over })
    }

    /// On to a second place, the shorter way.
    fn draw(&mut self, to: Rim) {
        let Some(at) = self.at.filter(|_| to.over.is_none()) else { return self.put(MarkEnd::To, to) };
        let over = rim::hour(to.at - at);
        self.counter = over > ROUND / 2.0;
        (self.at, self.over) =
            if self.counter { (Some(to.at), Some(rim::hour(ROUND - over))) } else { (Some(at), Some(over)) };
        self.over = self.over.filter(|over| *over > 0.0);
    }

    fn put(&mut self, end: MarkEnd, rim: Rim) {
        match (end, self.at) {
            // "Bottom edge" says both ends, whichever is asked for.
            _ if rim.over.is_some() => (self.at, self.over) = (Some(rim.at), rim.over),
            (MarkEnd::From, _) | (MarkEnd::To, None) => self.at = Some(rim.at),
            (MarkEnd::To, Some(at)) => {
                let over = rim::hour(rim.at - at);
                self.over = Some(if over == 0.0 { ROUND } else { over });
            }
        }
    }
}

/// Applies an edit of marks to the joint `id`.
///
/// # Errors
/// Names the field and what would be right.
pub(super) fn change(manual: &Manual, seam: &mut Seam, edit: &MarkEdit, author: &str) -> Result<(), Refusal> {
    match edit {
        MarkEdit::Add { id, kind, place, to } => {
            if seam.marks.iter().any(|m| m.id == *id) {
                return Err(Refusal::Exists { what: "mark", id: id.0 });
            }
            if seam.marks.len() >= MAX_MARKS {
                return Err(Refusal::invalid("marks", format!("One joint takes at most {MAX_MARKS} marks.")));
            }
            let mut mark = SeamMark::new(*id, *kind, Evidence::author(author));
            if let Some(place) = place {
                mark.put(MarkEnd::From, asked(manual, seam, place)?);
            }
            if let Some(to) = to {
                mark.draw(asked(manual, seam, to)?);
            }
            seam.marks.push(mark);
        }
        MarkEdit::Place { id, end, place } => {
            let rim = asked(manual, seam, place)?;
            marked(seam, *id)?.put(*end, rim);
        }
        MarkEdit::Shrink { id } => marked(seam, *id)?.over = None,
        MarkEdit::Set { id, field } => set(manual, marked(seam, *id)?, field)?,
        MarkEdit::Move { id, before } => {
            marked(seam, *id)?;
            before.map(|b| marked(seam, b).map(drop)).transpose()?;
            let at = seam.marks.iter().position(|m| m.id == *id).unwrap_or_default();
            let mark = seam.marks.remove(at);
            let to = before.and_then(|b| seam.marks.iter().position(|m| m.id == b)).unwrap_or(seam.marks.len());
            seam.marks.insert(to, mark);
        }
        MarkEdit::Remove { id } => {
            marked(seam, *id)?;
            seam.marks.retain(|m| m.id != *id);
        }
    }
    Ok(())
}

fn marked(seam: &mut Seam, id: MarkId) -> Result<&mut SeamMark, Refusal> {
    seam.marks.iter_mut().find(|m| m.id == id).ok_or(Refusal::Gone { what: "mark", id: id.0 })
}

fn asked(manual: &Manual, seam: &Seam, place: &RimAsked) -> Result<Rim, Refusal> {
    let outline = seam.outline(manual).map(|l| &l.outline);
    let invalid = |problem: String| Refusal::invalid("place", problem);
    match place {
        RimAsked::Hours(at) if at.is_finite() => Ok(Rim { at: rim::hour(*at), over: None }),
        RimAsked::Hours(at) => Err(invalid(format!("{at} is no hour; write 0 to 12."))),
        RimAsked::Point(to) if !(to.x_mm.is_finite() && to.y_mm.is_finite()) => {
            Err(invalid("A place takes two figures in millimetres.".to_owned()))
        }
        RimAsked::Point(to) => match outline {
            Some(outline) => Ok(Rim { at: rim::nearest(outline, *to), over: None }),
            None => Err(invalid("Millimetres need an outline. Draw the outline of the face first.".to_owned())),
        },
        RimAsked::Words(told) => rim::read(told, outline).map_err(invalid),
    }
}

fn set(manual: &Manual, mark: &mut SeamMark, field: &MarkField) -> Result<(), Refusal> {
    match field {
        MarkField::Kind(kind) => mark.kind = *kind,
        MarkField::Counter(counter) => mark.counter = *counter,
        MarkField::Landmark(told) => mark.landmark = maybe_text("landmark", told, MAX_TEXT)?,
        MarkField::DepthMm(mm) => mark.depth = mm.map(depth).transpose()?.map(units::millimetres),
        MarkField::Tool(tool) => mark.tool = maybe_text("tool", tool, MAX_TITLE)?,
        MarkField::Part(part) => {
            manual.may_be::<Part>(*part)?;
            mark.part = *part;
        }
        MarkField::Count(count) => mark.count = count.map(clips).transpose()?,
    }
    Ok(())
}

fn depth(mm: f64) -> Result<f64, Refusal> {
    within("depth_mm", mm, [0.0, MAX_DEPTH_MM], "mm")
}

fn clips(count: u32) -> Result<u32, Refusal> {
    if (1..=MAX_CLIPS).contains(&count) {
        return Ok(count);
    }
    Err(Refusal::invalid("count", format!("{count} clips on one stretch cannot be meant; write 1 to {MAX_CLIPS}.")))
}

/// Whether a swing can be meant.
pub(super) fn checked(swing: &Swing) -> Result<Swing, Refusal> {
    let at_most_deg = swing.at_most_deg.map(|d| within("at_most_deg", d, [1.0, 360.0], "°")).transpose()?;
    Ok(Swing { hinge: swing.hinge, at_most_deg, because: maybe_text("because", &swing.because, MAX_TEXT)? })
}

/// Longest width of a strip of adhesive, in millimetres, and longest pressing or curing, in seconds: a month.
const MAX_STRIP_MM: f64 = 200.0;
const MAX_CURE_S: f64 = 30.0 * 86_400.0;

/// Whether closing a joint can be meant so.
pub(super) fn closing(rebond: &Rebond) -> Result<Rebond, Refusal> {
    rebond.width.map(|w| above_zero("width_mm", units::in_millimetres(w), MAX_STRIP_MM, "mm")).transpose()?;
    for (field, time) in [("press_s", rebond.press_for), ("cure_s", rebond.cure)] {
        time.map(|t| within(field, units::in_seconds(t), [0.0, MAX_CURE_S], "s")).transpose()?;
    }
    let with = maybe_text("with", &rebond.with, MAX_TITLE)?;
    Ok(Rebond { with, press: maybe_text("press", &rebond.press, MAX_TITLE)?, ..rebond.clone() })
}

/// What must hold of the marks of a joint.
pub(super) fn sound(seam: &Seam, manual: &Manual) -> Result<(), Refusal> {
    manual.refers::<Layer>("face", seam.face)?;
    seam.swing.as_ref().map(checked).transpose()?;
    seam.rebond.as_ref().map(closing).transpose()?;
    if seam.marks.len() > MAX_MARKS {
        return Err(Refusal::invalid("marks", format!("One joint takes at most {MAX_MARKS} marks.")));
    }
    for (n, mark) in seam.marks.iter().enumerate() {
        if seam.marks[..n].iter().any(|m| m.id == mark.id) {
            return Err(Refusal::invalid("marks", format!("mark {} stands there twice", mark.id)));
        }
        manual.refers::<Part>("part", mark.part)?;
        mark.depth.map(|d| depth(units::in_millimetres(d))).transpose()?;
        mark.count.map(clips).transpose()?;
        mark.at.map(|at| within("at", at, [0.0, ROUND], "o'clock")).transpose()?;
        mark.over.map(|over| within("over", over, [0.0, ROUND], "hours")).transpose()?;
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{Edit, LayerEdit, Outline, SeamEdit, SeamField, drafted};
    use rstest::rstest;
    use uuid::Uuid;

    const TOLD: &str = "[0:00] Cut the glue of the rear glass with a pick. Lift off the rear glass.";

    fn id(n: u128) -> MarkId {
        MarkId(Uuid::from_u128(n))
    }

    fn seam(manual: &Manual) -> &Seam {
        manual.seams.values().next().expect("the glue")
    }

    fn apply(manual: &Manual, edit: MarkEdit) -> Result<Manual, Refusal> {
        manual.apply(&Edit::Seam(SeamEdit::Mark { id: seam(manual).id, edit }), "Ann").map(|(m, _)| m)
    }

    fn words(told: &str) -> RimAsked {
        RimAsked::Words(told.to_owned())
    }

    /// A joint on an outline of 80 × 120 mm, with nothing marked.
    fn outlined() -> Manual {
        let manual = drafted::manual(TOLD);
        let face = LayerId(Uuid::from_u128(7));
        let outline = Outline::Rectangle { width_mm: 80.0, height_mm: 120.0, radius_mm: 5.0 };
        let id = seam(&manual).id;
        let edits = [
            Edit::Layer(LayerEdit::Add { id: face, name: "Rear".to_owned(), outline }),
            Edit::Seam(SeamEdit::Set { id, field: SeamField::Face(Some(face)) }),
        ];
        let mut manual = edits.iter().fold(manual, |m, e| m.apply(e, "Ann").expect("a face").0);
        manual.seams.values_mut().for_each(|s| s.marks.clear());
        manual
    }

    fn added(manual: &Manual, n: u128, kind: MarkKind, told: &str) -> Manual {
        apply(manual, MarkEdit::Add { id: id(n), kind, place: Some(words(told)), to: None }).expect(told)
    }

    #[rstest]
    #[case::words(words("bottom edge, 20 mm from the left"), 6.75)]
    #[case::hours(RimAsked::Hours(18.75), 6.75)]
    #[case::a_press_beside_the_rim(RimAsked::Point(HolePlace { x_mm: 20.0, y_mm: 131.0 }), 6.75)]
    fn an_entry_is_placed_as_the_author_likes(#[case] place: RimAsked, #[case] at: f64) {
        let manual =
            apply(&outlined(), MarkEdit::Add { id: id(1), kind: MarkKind::Entry, place: Some(place), to: None })
                .unwrap();
        assert_eq!(seam(&manual).marks[0].at, Some(at));
    }

    #[test]
    fn a_stretch_is_placed_by_both_ends_and_moves_as_one() {
        let manual = added(&outlined(), 1, MarkKind::Run, "7 o'clock");
        let to = |place| MarkEdit::Place { id: id(1), end: MarkEnd::To, place };
        let manual = apply(&manual, to(words("2 o'clock"))).unwrap();
        assert_eq!((seam(&manual).marks[0].at, seam(&manual).marks[0].over), (Some(7.0), Some(7.0)));
        let from = MarkEdit::Place { id: id(1), end: MarkEnd::From, place: words("9 o'clock") };
        let manual = apply(&manual, from).unwrap();
        assert_eq!((seam(&manual).marks[0].at, seam(&manual).marks[0].over), (Some(9.0), Some(7.0)));
        // Back to where it began: all the way round.
        let manual = apply(&manual, to(words("9 o'clock"))).unwrap();
        assert_eq!(seam(&manual).marks[0].over, Some(12.0));
        let manual = apply(&manual, to(words("right edge"))).unwrap();
        assert_eq!((seam(&manual).marks[0].at, seam(&manual).marks[0].over), (Some(1.5), Some(3.0)));
    }

    #[rstest]
    #[case::clockwise("11 o'clock", "2 o'clock", (11.0, Some(3.0), false))]
    #[case::the_other_way("2 o'clock", "11 o'clock", (11.0, Some(3.0), true))]
    #[case::not_moved("2 o'clock", "2 o'clock", (2.0, None, false))]
    #[case::a_whole_edge("2 o'clock", "left edge", (7.5, Some(3.0), false))]
    fn a_stretch_is_drawn_the_shorter_way(
        #[case] from: &str,
        #[case] to: &str,
        #[case] (at, over, counter): (f64, Option<f64>, bool),
    ) {
        let drawn = MarkEdit::Add { id: id(1), kind: MarkKind::Run, place: Some(words(from)), to: Some(words(to)) };
        let manual = apply(&outlined(), drawn).unwrap();
        let mark = &seam(&manual).marks[0];
        assert_eq!((mark.at, mark.over, mark.counter), (Some(at), over, counter));
    }

    #[test]
    fn passes_keep_the_order_they_are_put_in() {
        let three = [(1, "left edge"), (2, "top edge"), (3, "right edge")];
        let manual = three.iter().fold(outlined(), |m, (n, told)| added(&m, *n, MarkKind::Run, told));
        let order = |m: &Manual| seam(m).marks.iter().map(|m| m.id.0.as_u128()).collect::<Vec<_>>();
        let manual = apply(&manual, MarkEdit::Move { id: id(3), before: Some(id(1)) }).unwrap();
        assert_eq!(order(&manual), [3, 1, 2]);
        let manual = apply(&manual, MarkEdit::Move { id: id(3), before: None }).unwrap();
        assert_eq!(order(&manual), [1, 2, 3]);
        let manual = apply(&manual, MarkEdit::Remove { id: id(2) }).unwrap();
        assert_eq!(order(&manual), [1, 3]);
    }

    #[rstest]
    #[case::no_place(MarkEdit::Place { id: id(1), end: MarkEnd::From, place: words("somewhere") }, "“somewhere” is no place on a rim")]
    #[case::nowhere(MarkEdit::Place { id: id(1), end: MarkEnd::From, place: RimAsked::Hours(f64::NAN) }, "NaN is no hour")]
    #[case::far_off(MarkEdit::Place { id: id(1), end: MarkEnd::From, place: RimAsked::Point(HolePlace { x_mm: f64::INFINITY, y_mm: 0.0 }) }, "two figures in millimetres")]
    #[case::deep(MarkEdit::Set { id: id(1), field: MarkField::DepthMm(Some(-2.0)) }, "depth_mm: -2 mm is out of range")]
    #[case::clips(MarkEdit::Set { id: id(1), field: MarkField::Count(Some(0)) }, "0 clips on one stretch cannot be meant")]
    #[case::gone(MarkEdit::Remove { id: id(9) }, "The mark is no longer there")]
    #[case::moved_before_nothing(MarkEdit::Move { id: id(1), before: Some(id(9)) }, "The mark is no longer there")]
    #[case::twice(MarkEdit::Add { id: id(1), kind: MarkKind::Clip, place: None, to: None }, "The mark is there already")]
    fn what_cannot_be_is_refused_in_a_sentence(#[case] edit: MarkEdit, #[case] says: &str) {
        let manual = added(&outlined(), 1, MarkKind::Entry, "top edge");
        let refused = apply(&manual, edit).unwrap_err().to_string();
        assert!(refused.contains(says), "{refused}");
    }

    #[test]
    fn a_face_that_goes_leaves_the_marks_at_their_hours() {
        let manual = added(&outlined(), 1, MarkKind::Entry, "left edge, 30 mm from the top");
        let gone = Edit::Layer(LayerEdit::Remove { id: seam(&manual).face.expect("a face") });
        let manual = manual.apply(&gone, "Ann").unwrap().0;
        assert_eq!((seam(&manual).face, seam(&manual).marks[0].at), (None, Some(9.75)));
    }

    #[test]
    fn two_marks_of_one_joint_are_changed_by_two_people() {
        let manual = added(&added(&outlined(), 1, MarkKind::Entry, "top edge"), 2, MarkKind::Run, "left edge");
        let deep = |n, mm| SeamEdit::Mark {
            id: seam(&manual).id,
            edit: MarkEdit::Set { id: id(n), field: MarkField::DepthMm(Some(mm)) },
        };
        let (_, one) = manual.apply(&Edit::Seam(deep(1, 2.0)), "Ann").unwrap();
        let (_, two) = manual.apply(&Edit::Seam(deep(2, 3.0)), "Ben").unwrap();
        assert!(!one.meets(&two));
    }

    #[rstest]
    #[case(Some(0.0))]
    #[case(Some(400.0))]
    fn an_angle_is_one(#[case] at_most_deg: Option<f64>) {
        let manual = outlined();
        let swing = Swing { hinge: Some(FaceEdge::Left), at_most_deg, because: None };
        let set = SeamEdit::Set { id: seam(&manual).id, field: SeamField::Swing(Some(swing)) };
        let refused = manual.apply(&Edit::Seam(set), "Ann").unwrap_err().to_string();
        assert!(refused.contains("° is out of range; write 1 to 360 °"), "{refused}");
    }
}
