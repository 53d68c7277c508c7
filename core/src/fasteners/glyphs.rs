//! The small shapes by which screws are told apart, drawn once: recesses of drives and outlines of tags.
//!
//! Each is path data in a square from −1 to 1, so that sheets at true scale, the screen and any later format place the
//! same shape. Shapes and letters carry the meaning, never colour.

use super::kinds::Shape;
use crate::reading::Drive;

/// How a mark is painted.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Paint {
    /// Filled with ink.
    Ink,
    /// A stroke of ink, so wide.
    Line(f64),
    /// Filled with paper: a pin in a recess.
    Paper,
}

/// One mark of a glyph.
#[derive(Debug, Clone, PartialEq)]
pub struct Mark {
    /// SVG path data.
    pub path: String,
    pub paint: Paint,
}

fn mark(path: impl Into<String>, paint: Paint) -> Mark {
    Mark { path: path.into(), paint }
}

/// Thousandths are finer than any screen or printer shows these.
fn fine(v: f64) -> f64 {
    // Adding nothing turns −0 into 0.
    (v * 1000.0).round() / 1000.0 + 0.0
}

fn polygon(points: impl Iterator<Item = (f64, f64)>) -> String {
    let points: Vec<String> = points.map(|(x, y)| format!("{} {}", fine(x), fine(y))).collect();
    format!("M{}Z", points.join("L"))
}

fn corners(y: f64, radius: f64, n: usize, first_deg: f64) -> String {
    let at = |i: usize| (first_deg + 360.0 * i as f64 / n as f64).to_radians();
    polygon((0..n).map(|i| (radius * at(i).cos(), y + radius * at(i).sin())))
}

fn circle(x: f64, r: f64) -> String {
    let (left, right) = (fine(x - r), fine(x + r));
    format!("M{left} 0A{r} {r} 0 1 1 {right} 0A{r} {r} 0 1 1 {left} 0Z")
}

fn lobes(n: usize) -> Mark {
    const FAR: f64 = 0.68;
    const NEAR: f64 = 0.42;
    let at = |i: usize| {
        let (angle, far) = (std::f64::consts::PI * i as f64 / n as f64, if i.is_multiple_of(2) { FAR } else { NEAR });
        (far * angle.sin(), -far * angle.cos())
    };
    mark(polygon((0..2 * n).map(at)), Paint::Ink)
}

/// The recess of a drive, seen from above, inside a head of radius 1; a question mark where nobody knows it.
pub fn recess(drive: Option<Drive>) -> Vec<Mark> {
    const CROSS: &str = "M0 -0.65V0.65M-0.65 0H0.65";
    const WIDE: Paint = Paint::Line(0.3);
    let filled = |n, first| vec![mark(corners(0.0, 0.6, n, first), Paint::Ink)];
    match drive {
        Some(Drive::Phillips | Drive::Jis) => vec![mark(CROSS, WIDE)],
        Some(Drive::Pozidriv) => {
            let ribs = "M0.3 0.3L0.5 0.5M-0.3 0.3L-0.5 0.5M0.3 -0.3L0.5 -0.5M-0.3 -0.3L-0.5 -0.5";
            vec![mark(CROSS, WIDE), mark(ribs, Paint::Line(0.12))]
        }
        Some(Drive::Slotted) => vec![mark("M-0.7 0H0.7", WIDE)],
        Some(Drive::Torx | Drive::TorxPlus) => vec![lobes(6)],
        Some(Drive::TorxPin) => vec![lobes(6), mark(circle(0.0, 0.16), Paint::Paper)],
        Some(Drive::Pentalobe) => vec![lobes(5)],
        Some(Drive::Hex) => filled(6, 0.0),
        Some(Drive::Square) => filled(4, 45.0),
        Some(Drive::Triangle) => filled(3, -90.0),
        Some(Drive::TriPoint) => vec![mark("M0 0V-0.65M0 0L0.56 0.33M0 0L-0.56 0.33", WIDE)],
        Some(Drive::Spanner) => vec![mark(circle(-0.35, 0.16), Paint::Ink), mark(circle(0.35, 0.16), Paint::Ink)],
        None => {
            let hook = "M-0.2 -0.24A0.22 0.22 0 1 1 0.1 -0.04C0.03 -0.01 0 0.04 0 0.14M0 0.4V0.42";
            vec![mark(hook, Paint::Line(0.16))]
        }
    }
}

impl Shape {
    /// The outline of a tag, about as large as a circle of radius 1.
    pub fn outline(self) -> String {
        match self {
            Self::Circle => circle(0.0, 1.0),
            Self::Square => corners(0.0, 1.2, 4, 45.0),
            Self::Triangle => corners(0.2, 1.35, 3, -90.0),
            Self::Diamond => corners(0.0, 1.2, 4, 0.0),
            Self::Pentagon => corners(0.0, 1.12, 5, -90.0),
            Self::Hexagon => corners(0.0, 1.08, 6, 0.0),
            Self::Slab => "M-1.25 -0.75H1.25V0.75H-1.25Z".to_owned(),
            Self::Drop => "M0 -1.3Q1.5 0.5 0 1Q-1.5 0.5 0 -1.3Z".to_owned(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::labels::Label;
    use std::collections::BTreeSet;

    /// Two drives that look alike would be told apart by nothing; PH and JIS, T and IP differ only in their code.
    #[test]
    fn drives_that_differ_are_drawn_differently() {
        let drawn: BTreeSet<String> = Drive::ALL.iter().map(|d| format!("{:?}", recess(Some(*d)))).collect();
        assert_eq!(drawn.len(), Drive::ALL.len() - 2);
        assert!(!drawn.contains(&format!("{:?}", recess(None))));
    }

    #[test]
    fn every_tag_has_its_own_outline_and_stays_in_its_square() {
        let outlines: BTreeSet<String> = Shape::ALL.iter().map(|s| s.outline()).collect();
        assert_eq!(outlines.len(), Shape::ALL.len());
        for figure in outlines.iter().flat_map(|o| o.split(|c: char| !"-.0123456789".contains(c))) {
            let Ok(figure) = figure.parse::<f64>() else { continue };
            assert!(figure.abs() <= 1.5, "{figure}");
        }
    }
}
