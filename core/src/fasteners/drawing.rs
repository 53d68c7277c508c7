//! Small drawings in millimetres, for sheets at true scale: tags, recesses of drives, screws seen from the side.

use super::kinds::{Kind, Shape, Tag};
use crate::manual::HeadForm;
use crate::reading::Drive;
use crate::units::{in_millimetres, number};
use svg::node::element::path::Data;
use svg::node::element::{Circle, Group, Line, Path, Polygon, Rectangle, Text};

pub(super) const INK: &str = "#1d2321";
pub(super) const FAINT: &str = "#8a938f";

/// Words at a point, `size` millimetres high.
pub(super) fn words(x: f64, y: f64, size: f64, text: &str) -> Text {
    Text::new(text).set("x", round(x)).set("y", round(y)).set("font-size", size).set("fill", INK)
}

/// A straight line.
pub(super) fn line(x1: f64, y1: f64, x2: f64, y2: f64, width: f64) -> Line {
    let line = Line::new().set("x1", round(x1)).set("y1", round(y1)).set("x2", round(x2)).set("y2", round(y2));
    line.set("stroke", INK).set("stroke-width", width)
}

/// A rectangle that is only its rim.
pub(super) fn frame(x: f64, y: f64, width: f64, height: f64, radius: f64) -> Rectangle {
    let rect = Rectangle::new().set("x", round(x)).set("y", round(y)).set("width", round(width));
    rect.set("height", round(height)).set("rx", radius).set("fill", "none").set("stroke", INK).set("stroke-width", 0.25)
}

/// Hundredths of a millimetre: no printer is finer, and files stay small.
pub(super) fn round(value: f64) -> f64 {
    (value * 100.0).round() / 100.0
}

fn points(of: impl Iterator<Item = (f64, f64)>) -> String {
    of.map(|(x, y)| format!("{},{}", round(x), round(y))).collect::<Vec<_>>().join(" ")
}

fn corners(x: f64, y: f64, radius: f64, n: usize, first_deg: f64) -> String {
    let at = |i: usize| (first_deg + 360.0 * i as f64 / n as f64).to_radians();
    points((0..n).map(|i| (x + radius * at(i).cos(), y + radius * at(i).sin())))
}

/// A tag: its shape with the letter, the length below.
pub(super) fn tag(x: f64, y: f64, size: f64, tag: &Tag) -> Group {
    let r = size / 2.0;
    let polygon = |points: String| Polygon::new().set("points", points);
    let shape = match tag.shape {
        Shape::Circle => Group::new().add(Circle::new().set("cx", x).set("cy", y).set("r", r)),
        Shape::Square => Group::new().add(polygon(corners(x, y, r * 1.2, 4, 45.0))),
        Shape::Triangle => Group::new().add(polygon(corners(x, y + r * 0.2, r * 1.35, 3, -90.0))),
        Shape::Diamond => Group::new().add(polygon(corners(x, y, r * 1.2, 4, 0.0))),
        Shape::Pentagon => Group::new().add(polygon(corners(x, y, r * 1.12, 5, -90.0))),
        Shape::Hexagon => Group::new().add(polygon(corners(x, y, r * 1.08, 6, 0.0))),
        Shape::Slab => Group::new().add(frame(x - r * 1.25, y - r * 0.75, r * 2.5, r * 1.5, 0.0)),
        Shape::Drop => {
            let data = Data::new()
                .move_to((round(x), round(y - r * 1.3)))
                .quadratic_curve_to((round(x + r * 1.5), round(y + r * 0.5), round(x), round(y + r)))
                .quadratic_curve_to((round(x - r * 1.5), round(y + r * 0.5), round(x), round(y - r * 1.3)))
                .close();
            Group::new().add(Path::new().set("d", data))
        }
    };
    let shape = shape.set("fill", "#ffffff").set("stroke", INK).set("stroke-width", 0.4);
    let letter =
        words(x, y + size * 0.17, size * 0.48, &tag.letter).set("text-anchor", "middle").set("font-weight", 700);
    let mut out = Group::new().add(shape).add(letter);
    if let Some(length) = tag.length_mm {
        let below = words(x, y + size * 1.02, size * 0.34, &format!("{} mm", number(length)));
        out = out.add(below.set("text-anchor", "middle"));
    }
    out
}

/// The recess of a drive in the head of a screw, seen from above.
pub(super) fn recess(x: f64, y: f64, size: f64, drive: Option<Drive>) -> Group {
    let r = size / 2.0;
    let rim = Circle::new().set("cx", x).set("cy", y).set("r", r).set("fill", "#ffffff");
    let out = Group::new().set("stroke", INK).set("stroke-width", size * 0.06).add(rim);
    let thick = |x1: f64, y1: f64, x2: f64, y2: f64| line(x + x1 * r, y + y1 * r, x + x2 * r, y + y2 * r, size * 0.15);
    let filled = |n: usize, first: f64| Polygon::new().set("points", corners(x, y, r * 0.6, n, first)).set("fill", INK);
    let lobes = |n: usize| {
        let at = |i: usize| {
            let (angle, far) =
                (std::f64::consts::PI * i as f64 / n as f64, if i.is_multiple_of(2) { 0.68 } else { 0.42 });
            (x + far * r * angle.sin(), y - far * r * angle.cos())
        };
        Polygon::new().set("points", points((0..2 * n).map(at))).set("fill", INK)
    };
    match drive {
        Some(Drive::Phillips | Drive::Jis) => out.add(thick(0.0, -0.65, 0.0, 0.65)).add(thick(-0.65, 0.0, 0.65, 0.0)),
        Some(Drive::Pozidriv) => {
            let thin = |dx: f64, dy: f64| {
                line(x + 0.3 * dx * r, y + 0.3 * dy * r, x + 0.5 * dx * r, y + 0.5 * dy * r, size * 0.06)
            };
            let cross = out.add(thick(0.0, -0.65, 0.0, 0.65)).add(thick(-0.65, 0.0, 0.65, 0.0));
            cross.add(thin(1.0, 1.0)).add(thin(-1.0, 1.0)).add(thin(1.0, -1.0)).add(thin(-1.0, -1.0))
        }
        Some(Drive::Slotted) => out.add(thick(-0.7, 0.0, 0.7, 0.0)),
        Some(Drive::Torx | Drive::TorxPlus) => out.add(lobes(6)),
        Some(Drive::TorxPin) => {
            let pin = Circle::new().set("cx", x).set("cy", y).set("r", round(r * 0.16)).set("fill", "#ffffff");
            out.add(lobes(6)).add(pin)
        }
        Some(Drive::Pentalobe) => out.add(lobes(5)),
        Some(Drive::Hex) => out.add(filled(6, 0.0)),
        Some(Drive::Square) => out.add(filled(4, 45.0)),
        Some(Drive::Triangle) => out.add(filled(3, -90.0)),
        Some(Drive::TriPoint) => {
            out.add(thick(0.0, 0.0, 0.0, -0.65)).add(thick(0.0, 0.0, 0.56, 0.33)).add(thick(0.0, 0.0, -0.56, 0.33))
        }
        Some(Drive::Spanner) => {
            let hole = |dx: f64| {
                Circle::new().set("cx", round(x + dx * r)).set("cy", y).set("r", round(r * 0.16)).set("fill", INK)
            };
            out.add(hole(-0.35)).add(hole(0.35))
        }
        None => out.add(words(x, y + size * 0.18, size * 0.55, "?").set("text-anchor", "middle").set("stroke", "none")),
    }
}

/// Diameter of the thread that a screw is drawn with where nobody knows it: small ones are about M2.
const UNKNOWN_MM: f64 = 2.0;

/// Thread and head diameter of a kind in millimetres; the head's is that of its form where it was not measured.
pub(super) fn diameters(kind: &Kind, head_mm: Option<f64>) -> (f64, f64) {
    let d = kind.thread.map_or(UNKNOWN_MM, |t| in_millimetres(t.diameter));
    (d, head_mm.unwrap_or(kind.head.unwrap_or(HeadForm::Pan).width() * d))
}

/// A screw from the side at true length. Its length is measured from under the head (ISO), with the head where it is sunk
/// and over all where there is none; `x` is where the length begins.
pub(super) fn screw(x: f64, y: f64, kind: &Kind, head_mm: Option<f64>) -> Group {
    let (d, head) = diameters(kind, head_mm);
    let length = kind.length_mm.unwrap_or(0.0);
    let form = kind.head.unwrap_or(HeadForm::Pan);
    let tall = match form {
        HeadForm::Cylinder => d,
        HeadForm::Wafer => 0.35 * d,
        HeadForm::Hexagon => 0.7 * d,
        HeadForm::Countersunk => (head - d) / 2.0,
        HeadForm::Pan | HeadForm::Flange => 0.6 * d,
        HeadForm::None => 0.0,
    };
    let shank_from = if form == HeadForm::Countersunk { x + tall.min(length) } else { x };
    let shank = frame(shank_from, y - d / 2.0, (x + length - shank_from).max(0.0), d, 0.0);
    let out = Group::new().add(shank.set("fill", "#e6e9e7").set("class", "shank"));
    let outline = match form {
        HeadForm::None => return out,
        HeadForm::Countersunk => points(
            [(x, y - head / 2.0), (x, y + head / 2.0), (shank_from, y + d / 2.0), (shank_from, y - d / 2.0)]
                .into_iter(),
        ),
        HeadForm::Pan => points(
            [
                (x, y - head / 2.0),
                (x, y + head / 2.0),
                (x - tall * 0.6, y + head / 2.0),
                (x - tall, y + head * 0.3),
                (x - tall, y - head * 0.3),
                (x - tall * 0.6, y - head / 2.0),
            ]
            .into_iter(),
        ),
        _ => points(
            [(x, y - head / 2.0), (x, y + head / 2.0), (x - tall, y + head / 2.0), (x - tall, y - head / 2.0)]
                .into_iter(),
        ),
    };
    out.add(Polygon::new().set("points", outline).set("fill", "#c9cfcc").set("stroke", INK).set("stroke-width", 0.25))
}
