//! Small drawings in millimetres, for sheets at true scale: tags, recesses of drives, screws seen from the side.

use super::glyphs::{self, Paint};
use super::kinds::{Kind, Tag};
use crate::manual::HeadForm;
use crate::reading::Drive;
use crate::units::{in_millimetres, number};
use svg::node::element::{Circle, Group, Line, Path, Polygon, Rectangle, Text};

pub(crate) const INK: &str = "#1d2321";
pub(crate) const FAINT: &str = "#8a938f";

/// Words at a point, `size` millimetres high.
pub(crate) fn words(x: f64, y: f64, size: f64, text: &str) -> Text {
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
pub(crate) fn round(value: f64) -> f64 {
    (value * 100.0).round() / 100.0
}

fn points(of: impl Iterator<Item = (f64, f64)>) -> String {
    of.map(|(x, y)| format!("{},{}", round(x), round(y))).collect::<Vec<_>>().join(" ")
}

/// A shape of the glyphs around a point; `r` is half its size.
fn placed(x: f64, y: f64, r: f64, path: &str) -> Path {
    let place = format!("translate({} {}) scale({})", round(x), round(y), round(r));
    Path::new().set("d", path).set("transform", place)
}

/// A tag: its shape with the letter, the length below.
pub(super) fn tag(x: f64, y: f64, size: f64, tag: &Tag) -> Group {
    let r = size / 2.0;
    let shape = placed(x, y, r, &tag.shape.outline()).set("fill", "#ffffff").set("stroke", INK);
    let letter =
        words(x, y + size * 0.17, size * 0.48, &tag.letter).set("text-anchor", "middle").set("font-weight", 700);
    let mut out = Group::new().add(shape.set("stroke-width", round(0.4 / r))).add(letter);
    if let Some(length) = tag.length_mm {
        let below = words(x, y + size * 1.02, size * 0.34, &format!("{} mm", number(length)));
        out = out.add(below.set("text-anchor", "middle"));
    }
    out
}

/// The recess of a drive in the head of a screw, seen from above.
pub(super) fn recess(x: f64, y: f64, size: f64, drive: Option<Drive>) -> Group {
    let r = size / 2.0;
    let rim = Circle::new().set("cx", x).set("cy", y).set("r", r).set("fill", "#ffffff").set("stroke", INK);
    let out = Group::new().add(rim.set("stroke-width", size * 0.06));
    glyphs::recess(drive).iter().fold(out, |out, mark| {
        let path = placed(x, y, r, &mark.path);
        out.add(match mark.paint {
            Paint::Ink => path.set("fill", INK),
            Paint::Paper => path.set("fill", "#ffffff"),
            Paint::Line(width) => path.set("fill", "none").set("stroke", INK).set("stroke-width", width),
        })
    })
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
