//! The picture of how a joint opens: the outline of the face with what is done outside it and what must be kept out of inside
//! it. Screen and sheet place the same paths; shapes and figures tell the marks apart, never colour alone.

use super::opening::numbers;
use crate::fasteners::drawing::{FAINT, INK, round, words};
use crate::fasteners::map::outline_path;
use crate::ids::*;
use crate::manual::rim::{self, ROUND, Rim};
use crate::manual::{FaceEdge, HolePlace, Manual, MarkKind, Outline, Seam, SeamMark};
use crate::units::{in_millimetres, number};
use serde::{Deserialize, Serialize};
use svg::Document;
use svg::node::element::{Group, Path, Title};
use utoipa::ToSchema;

/// A face with the marks of one joint, in millimetres from its upper left corner.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OpeningPicture {
    pub name: String,
    /// SVG path data in millimetres.
    pub outline: String,
    pub width_mm: f64,
    pub height_mm: f64,
    /// Height of its letters, in millimetres: what is around the outline takes three of them.
    pub size_mm: f64,
    pub marks: Vec<DrawnMark>,
    /// The edge that stays together, and how far it opens.
    pub hinge: Option<DrawnHinge>,
}

/// One placed mark as it is drawn.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DrawnMark {
    pub mark: MarkId,
    pub kind: MarkKind,
    /// Its place among the passes.
    pub number: Option<usize>,
    /// What is filled with ink.
    pub solid: String,
    /// What is drawn as a line.
    pub line: String,
    /// Where its number or its words stand.
    pub at: DrawnWords,
    /// Where the mark itself begins on the rim, in millimetres.
    pub x_mm: f64,
    pub y_mm: f64,
}

/// Words in the picture.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DrawnWords {
    pub text: String,
    pub x_mm: f64,
    pub y_mm: f64,
    /// "start", "middle" or "end", as SVG anchors text.
    pub anchor: String,
}

/// The hinge as it is drawn.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DrawnHinge {
    pub line: String,
    pub at: DrawnWords,
}

/// Draws the marks of a joint that are placed; `None` without an outline. O(marks).
pub fn picture(manual: &Manual, seam: &Seam) -> Option<OpeningPicture> {
    let layer = seam.outline(manual)?;
    let (width_mm, height_mm) = layer.outline.size_mm();
    // Letters stay legible on a small face and modest on a large one.
    let size_mm = (width_mm.max(height_mm) / 26.0).clamp(2.0, 12.0);
    let pen = Pen { outline: &layer.outline, size: size_mm };
    let numbers: Vec<(MarkId, usize)> = numbers(seam).collect();
    let number = |id| numbers.iter().find(|(of, _)| *of == id).map(|(_, n)| *n);
    let hinge = seam.swing.as_ref().and_then(|s| Some(pen.hinge(s.hinge?, s.at_most_deg)));
    let mut taken: Vec<Point> = hinge.iter().map(|h| (h.at.x_mm, h.at.y_mm)).collect();
    let marks = seam.marks.iter().filter_map(|m| {
        let mark = pen.mark(said(manual, seam, m, number(m.id)), seam, m, number(m.id), &taken)?;
        taken.push((mark.at.x_mm, mark.at.y_mm));
        Some(mark)
    });
    Some(OpeningPicture {
        name: layer.name.clone(),
        outline: outline_path(&layer.outline),
        width_mm,
        height_mm,
        size_mm,
        marks: marks.collect(),
        hinge,
    })
}

struct Pen<'m> {
    outline: &'m Outline,
    size: f64,
}

type Point = (f64, f64);

impl Pen<'_> {
    fn rim(&self, hour: f64) -> Point {
        let HolePlace { x_mm, y_mm } = rim::place(self.outline, hour);
        (x_mm, y_mm)
    }

    /// Straight into the face at an hour, by one millimetre.
    fn inward(&self, hour: f64) -> Point {
        const STEP: f64 = 0.05;
        let (a, b) = (self.rim(hour - STEP), self.rim(hour + STEP));
        let (x, y) = (b.0 - a.0, b.1 - a.1);
        // Clockwise, the face lies on the right hand.
        let length = x.hypot(y).max(f64::MIN_POSITIVE);
        (-y / length, x / length)
    }

    /// A point as many millimetres inside the rim; outside where negative.
    fn off(&self, hour: f64, inside: f64) -> Point {
        let ((x, y), (u, v)) = (self.rim(hour), self.inward(hour));
        (x + u * inside, y + v * inside)
    }

    /// The hours along a stretch, near enough for a smooth line.
    fn hours(rim: Rim) -> Vec<f64> {
        let over = rim.over.unwrap_or(0.0);
        let steps = (over / 0.1).ceil().max(1.0) as u32;
        (0..=steps).map(|n| rim.at + over * f64::from(n) / f64::from(steps)).collect()
    }

    fn along(&self, rim: Rim, inside: f64) -> Vec<Point> {
        Self::hours(rim).into_iter().map(|h| self.off(h, inside)).collect()
    }

    fn mark(
        &self,
        text: String,
        seam: &Seam,
        mark: &SeamMark,
        number: Option<usize>,
        taken: &[Point],
    ) -> Option<DrawnMark> {
        let rim = mark.rim()?;
        let s = self.size;
        let middle = rim.at + rim.over.unwrap_or(0.0) / 2.0;
        let (mut solid, mut line) = (String::new(), String::new());
        let mut far = -1.5 * s;
        match mark.kind {
            MarkKind::Entry => {
                solid = rim.over.map_or_else(|| self.arrow_in(rim.at), |_| self.arrow_in(middle));
                line = if rim.over.is_some() { open(&self.along(rim, -0.35 * s)) } else { String::new() };
                far = -2.2 * s;
            }
            MarkKind::Run => (line, solid) = self.run(rim, mark.counter),
            MarkKind::Shallow => {
                let deep = mark.depth.or(seam.depth).map_or(s * 0.8, in_millimetres).max(s * 0.5);
                line = self.hatched(rim, deep, false);
                far = deep + 0.9 * s;
            }
            MarkKind::KeepOut => {
                line = self.hatched(rim, s * 1.3, true);
                far = s * 2.2;
            }
            MarkKind::Clip => solid = self.spots(rim, mark.count, |pen, h| pen.block(h)),
            MarkKind::GlueSpot => solid = self.spots(rim, mark.count, |pen, h| pen.dot(h)),
            MarkKind::Pick => line = closed(&self.wedge(middle)),
            MarkKind::HandOver => line = closed(&self.diamond(middle)),
        }
        let (x_mm, y_mm) = self.rim(rim.at);
        let at = self.free_words(rim, far, text, taken);
        Some(DrawnMark {
            mark: mark.id,
            kind: mark.kind,
            number,
            solid,
            line,
            at,
            x_mm: round(x_mm),
            y_mm: round(y_mm),
        })
    }

    /// Words at the middle of a mark, or a little along the rim where others stand there already.
    fn free_words(&self, rim: Rim, inside: f64, text: String, taken: &[Point]) -> DrawnWords {
        let middle = rim.at + rim.over.unwrap_or(0.0) / 2.0;
        let wide = self.size * (0.6 + 0.3 * text.chars().count() as f64);
        let aside = |n: i32| f64::from(if n % 2 == 0 { n / 2 } else { -(n + 1) / 2 }) * 0.25;
        let tried = (0..9).map(|n| self.words(middle + aside(n), inside, text.clone()));
        let free = |w: &DrawnWords| {
            taken.iter().all(|(x, y)| (w.x_mm - x).abs() > wide || (w.y_mm - y).abs() > 1.2 * self.size)
        };
        let mut tried = tried.skip_while(|w| !free(w));
        tried.next().unwrap_or_else(|| self.words(middle, inside, text))
    }

    /// Words beside the rim, set so that they run away from it.
    fn words(&self, hour: f64, inside: f64, text: String) -> DrawnWords {
        let (x, y) = self.off(hour, inside);
        let (u, _) = self.inward(hour);
        let towards = u * inside.signum();
        let anchor = match () {
            () if towards > 0.5 => "start",
            () if towards < -0.5 => "end",
            () => "middle",
        };
        DrawnWords { text, x_mm: round(x), y_mm: round(y + self.size * 0.35), anchor: anchor.to_owned() }
    }

    /// From outside to a little inside the rim.
    fn arrow_in(&self, hour: f64) -> String {
        let s = self.size;
        let (u, v) = self.inward(hour);
        let side = |(x, y): Point, by: f64| (x - v * by, y + u * by);
        let (tip, back) = (self.off(hour, 0.5 * s), self.off(hour, -1.3 * s));
        closed(&[tip, side(back, 0.6 * s), side(back, -0.6 * s)])
    }

    /// The way of a tool outside the rim, with the head of an arrow where it ends.
    fn run(&self, rim: Rim, counter: bool) -> (String, String) {
        let s = self.size;
        let over = rim.over.unwrap_or(0.6);
        // All the way round, the end must not run into the beginning.
        let over = if over > ROUND - 0.3 { ROUND - 0.4 } else { over };
        let mut way = self.along(Rim { at: rim.at, over: Some(over) }, -0.55 * s);
        if counter {
            way.reverse();
        }
        let [.., before, end] = way[..] else { return Default::default() };
        let (x, y) = (end.0 - before.0, end.1 - before.1);
        let length = x.hypot(y).max(f64::MIN_POSITIVE);
        let (u, v) = (x / length * s * 0.75, y / length * s * 0.75);
        let head = [(end.0 + u, end.1 + v), (end.0 - v * 0.6, end.1 + u * 0.6), (end.0 + v * 0.6, end.1 - u * 0.6)];
        (open(&way), closed(&head))
    }

    /// A band inside the rim: short strokes across it, crossed where no tool may go at all.
    fn hatched(&self, rim: Rim, deep: f64, crossed: bool) -> String {
        // A single place is as wide as a tool.
        let rim = Rim { at: rim.at - if rim.over.is_none() { 0.2 } else { 0.0 }, over: rim.over.or(Some(0.4)) };
        let inner = self.along(rim, deep);
        let hours = Self::hours(rim);
        let mut out = open(&inner);
        for pair in hours.windows(2) {
            out.push_str(&open(&[self.off(pair[0], 0.0), self.off(pair[1], deep)]));
            if crossed {
                out.push_str(&open(&[self.off(pair[0], deep), self.off(pair[1], 0.0)]));
            }
        }
        for end in [hours.first(), hours.last()].into_iter().flatten() {
            out.push_str(&open(&[self.off(*end, 0.0), self.off(*end, deep)]));
        }
        out
    }

    /// One shape for each of a count, evenly along the stretch.
    fn spots(&self, rim: Rim, count: Option<u32>, shape: impl Fn(&Self, f64) -> String) -> String {
        let Some(over) = rim.over else { return shape(self, rim.at) };
        let count = count.unwrap_or(3).clamp(1, 100);
        (0..count).map(|n| shape(self, rim.at + over * (f64::from(n) + 0.5) / f64::from(count))).collect()
    }

    fn block(&self, hour: f64) -> String {
        let (x, y) = self.rim(hour);
        let r = self.size * 0.4;
        closed(&[(x - r, y - r), (x + r, y - r), (x + r, y + r), (x - r, y + r)])
    }

    fn dot(&self, hour: f64) -> String {
        let (x, y) = self.rim(hour);
        let r = round(self.size * 0.45);
        format!("M{} {}a{r} {r} 0 1 0 {} 0a{r} {r} 0 1 0 -{} 0z", round(x - r), round(y), 2.0 * r, 2.0 * r)
    }

    fn wedge(&self, hour: f64) -> [Point; 3] {
        let s = self.size;
        let (u, v) = self.inward(hour);
        let ((x, y), back) = (self.off(hour, s), self.off(hour, -s));
        [(x, y), (back.0 - v * s * 0.35, back.1 + u * s * 0.35), (back.0 + v * s * 0.35, back.1 - u * s * 0.35)]
    }

    fn diamond(&self, hour: f64) -> [Point; 4] {
        let (x, y) = self.off(hour, -0.55 * self.size);
        let r = self.size * 0.6;
        [(x, y - r), (x + r, y), (x, y + r), (x - r, y)]
    }

    fn hinge(&self, edge: FaceEdge, at_most_deg: Option<f64>) -> DrawnHinge {
        let middle = match edge {
            FaceEdge::Top => 0.0,
            FaceEdge::Right => 3.0,
            FaceEdge::Bottom => 6.0,
            FaceEdge::Left => 9.0,
        };
        let rim = Rim { at: middle - 1.2, over: Some(2.4) };
        let angle = at_most_deg.map_or(String::new(), |d| format!(", at most {}°", number(d)));
        // Beside the middle, where entries and depths are told.
        let at = self.words(middle + 0.6, 3.4 * self.size, format!("hinge{angle}"));
        DrawnHinge { line: open(&self.along(rim, -self.size)), at }
    }
}

/// What stands at a mark: the number of a pass, how deep and what lies behind.
fn said(manual: &Manual, seam: &Seam, mark: &SeamMark, number: Option<usize>) -> String {
    if let Some(number) = number {
        return number.to_string();
    }
    let depth = mark.depth.or(seam.depth).filter(|_| mark.kind == MarkKind::Shallow);
    let depth = depth.map(|d| format!("≤ {} mm", crate::units::number(in_millimetres(d))));
    let part = mark.part.map(|p| manual.part_name(p).to_owned());
    let count = mark.count.filter(|n| *n > 1).map(|n| format!("{n} ×"));
    let words: Vec<String> = count.into_iter().chain(depth).chain(part).collect();
    if words.is_empty() && mark.kind == MarkKind::KeepOut {
        return "keep out".to_owned();
    }
    words.join(" ")
}

fn open(points: &[Point]) -> String {
    let points: Vec<String> = points.iter().map(|(x, y)| format!("{} {}", round(*x), round(*y))).collect();
    format!("M{}", points.join("L"))
}

fn closed(points: &[Point]) -> String {
    format!("{}z", open(points))
}

/// The picture at true scale as an SVG document; it tells its marks in words to who cannot see it.
pub fn picture_svg(picture: &OpeningPicture, told: &[String]) -> String {
    let OpeningPicture { width_mm, height_mm, size_mm, .. } = picture;
    let rim = 4.0 * size_mm;
    let (width, height) = (round(width_mm + 2.0 * rim), round(height_mm + 2.0 * rim));
    let outline = Path::new().set("d", picture.outline.as_str()).set("fill", "#ffffff").set("stroke", FAINT);
    let mut body = Group::new().add(outline.set("stroke-width", round(size_mm * 0.12)));
    if let Some(hinge) = &picture.hinge {
        body = body.add(stroke(&hinge.line, size_mm * 0.3)).add(label(&hinge.at, *size_mm));
    }
    for mark in &picture.marks {
        let mut group = Group::new().set("class", "mark").add(stroke(&mark.line, size_mm * 0.1));
        group = group.add(Path::new().set("d", mark.solid.as_str()).set("fill", INK));
        body = body.add(group.add(label(&mark.at, *size_mm)));
    }
    let says = format!("How {} opens. {}", picture.name, told.join(" "));
    Document::new()
        .set("width", format!("{width}mm"))
        .set("height", format!("{height}mm"))
        .set("viewBox", (round(-rim), round(-rim), width, height))
        .set("font-family", "sans-serif")
        .add(Title::new(says))
        .add(body)
        .to_string()
}

fn stroke(path: &str, width: f64) -> Path {
    Path::new().set("d", path).set("fill", "none").set("stroke", INK).set("stroke-width", round(width))
}

fn label(at: &DrawnWords, size: f64) -> svg::node::element::Text {
    words(at.x_mm, at.y_mm, round(size), &at.text).set("text-anchor", at.anchor.as_str()).set("font-weight", 650)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{Edit, LayerEdit, MarkEdit, RimAsked, SeamEdit, SeamField, Swing, drafted};
    use crate::seams::opening::plan;
    use proptest::prelude::*;
    use uuid::Uuid;

    const TOLD: &str = "[0:00] Cut the glue of the rear glass with a pick. Lift off the rear glass.";

    fn seam(manual: &Manual) -> &Seam {
        manual.seams.values().next().expect("the glue")
    }

    fn on(outline: Outline) -> Manual {
        let mut manual = drafted::manual(TOLD);
        manual.seams.values_mut().for_each(|s| s.marks.clear());
        let face = LayerId(Uuid::from_u128(7));
        let add = Edit::Layer(LayerEdit::Add { id: face, name: "Rear".to_owned(), outline });
        let set = Edit::Seam(SeamEdit::Set { id: seam(&manual).id, field: SeamField::Face(Some(face)) });
        [add, set].iter().fold(manual, |m, e| m.apply(e, "Ann").expect("a face").0)
    }

    fn rectangle(width_mm: f64, height_mm: f64) -> Outline {
        Outline::Rectangle { width_mm, height_mm, radius_mm: 4.0 }
    }

    fn with(manual: &Manual, n: u128, kind: MarkKind, told: &str) -> Manual {
        let place = (!told.is_empty()).then(|| RimAsked::Words(told.to_owned()));
        let edit = MarkEdit::Add { id: MarkId(Uuid::from_u128(n)), kind, place, to: None };
        manual.apply(&Edit::Seam(SeamEdit::Mark { id: seam(manual).id, edit }), "Ann").expect("a mark").0
    }

    /// All points of a path of moves and lines.
    fn points(path: &str) -> Vec<Point> {
        let pairs = path.split(['M', 'L', 'z']).filter(|p| !p.trim().is_empty());
        let figures = |p: &str| p.split(' ').map(|f| f.parse().expect("a figure")).collect::<Vec<f64>>();
        pairs.map(figures).map(|f| (f[0], f[1])).collect()
    }

    #[test]
    fn what_is_placed_is_drawn_under_the_number_of_its_line() {
        let marks = [
            (MarkKind::KeepOut, "top edge"),
            (MarkKind::Entry, "7 o'clock"),
            (MarkKind::Entry, ""),
            (MarkKind::Run, "all round"),
        ];
        let manual = marks
            .iter()
            .enumerate()
            .fold(on(rectangle(80.0, 120.0)), |m, (n, (kind, told))| with(&m, n as u128 + 1, *kind, told));
        let picture = picture(&manual, seam(&manual)).expect("a face");
        let drawn: Vec<_> = picture.marks.iter().map(|m| (m.kind, m.number)).collect();
        assert_eq!(drawn, [(MarkKind::KeepOut, None), (MarkKind::Entry, Some(1)), (MarkKind::Run, Some(3))]);
        for line in plan(&manual, seam(&manual)).lines {
            let mark = picture.marks.iter().find(|m| Some(m.mark) == line.mark);
            assert!(mark.is_none_or(|m| m.number == line.number), "{line:?}");
        }
    }

    #[test]
    fn the_sheet_tells_its_marks_in_words_as_well() {
        let manual = with(&on(rectangle(80.0, 120.0)), 1, MarkKind::Entry, "bottom edge");
        let swing = Swing { hinge: Some(FaceEdge::Left), at_most_deg: Some(90.0), because: None };
        let set = Edit::Seam(SeamEdit::Set { id: seam(&manual).id, field: SeamField::Swing(Some(swing)) });
        let manual = manual.apply(&set, "Ann").unwrap().0;
        let picture = picture(&manual, seam(&manual)).unwrap();
        let told: Vec<String> = plan(&manual, seam(&manual)).lines.into_iter().map(|l| l.text).collect();
        let svg = picture_svg(&picture, &told);
        assert!(svg.contains("Enter along the bottom edge.") && svg.contains("hinge, at most 90°"), "{svg}");
        assert_eq!(svg.matches("class=\"mark\"").count(), 1);
    }

    #[test]
    fn without_an_outline_there_is_no_picture() {
        let manual = drafted::manual(TOLD);
        assert_eq!(picture(&manual, seam(&manual)), None);
    }

    proptest! {
        /// Limits lie inside the face, what the hands do outside it, whatever its proportions.
        #[test]
        fn inside_and_outside_are_kept_apart(width in 30.0_f64..400.0, height in 30.0_f64..400.0, at in 0.0_f64..12.0) {
            let outline = rectangle(width, height);
            let place = |kind| {
                let manual = with(&on(outline.clone()), 1, kind, "");
                let edit = MarkEdit::Place { id: MarkId(Uuid::from_u128(1)), end: crate::manual::MarkEnd::From, place: RimAsked::Hours(at) };
                let manual = manual.apply(&Edit::Seam(SeamEdit::Mark { id: seam(&manual).id, edit }), "Ann").unwrap().0;
                let picture = picture(&manual, seam(&manual)).unwrap();
                (picture.marks[0].clone(), picture.size_mm)
            };
            let near = |p: &Point, by: f64| {
                let grown = rectangle(width + 2.0 * by, height + 2.0 * by);
                grown.holds(HolePlace { x_mm: p.0 + by, y_mm: p.1 + by })
            };
            let (limit, _) = place(MarkKind::KeepOut);
            prop_assert!(points(&limit.line).iter().all(|p| near(p, 0.05)), "{}", limit.line);
            let (run, size) = place(MarkKind::Run);
            let inside = points(&run.line).iter().filter(|p| near(p, -0.2 * size)).count();
            prop_assert_eq!(inside, 0, "{}", run.line);
        }
    }
}
