//! Places on the rim of a face, as people tell them: "the top right corner", "at 7 o'clock", "left edge, 34 mm from the top".
//!
//! A place is kept as an hour on the face's own clock, and not in millimetres: narrators tell corners and edges long before
//! anybody has measured the outline, and an outline that is measured later must not move what was told. The clock is that of
//! a square laid over the face, so 12 is the middle of the top edge, 3 that of the right one, and the corners are half past
//! one, half past four, half past seven and half past ten, whatever the face's proportions.

use super::holes::HolePlace;
use super::layers::Outline;
use crate::reading::figure_of;
use crate::units::number;

/// Hours on the whole way round.
pub const ROUND: f64 = 12.0;
/// Hours of one edge.
const EDGE: f64 = 3.0;
/// Half past one: where the right edge begins.
const FIRST_CORNER: f64 = 1.5;
/// This near to a corner or a middle, in hours, one says the corner or the middle.
const NEAR: f64 = 0.12;

/// The edges in clock order, from the right one on.
const EDGES: [&str; 4] = ["right", "bottom", "left", "top"];
/// The corner at which each edge begins.
const CORNERS: [&str; 4] = ["top right", "bottom right", "bottom left", "top left"];

/// Where something stands on a rim, or which stretch it takes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Rim {
    /// On the face's clock, from 0 to below 12.
    pub at: f64,
    /// Clockwise from there, above 0 and at most 12; `None` for a single place.
    pub over: Option<f64>,
}

/// The same hour from 0 to below 12, in hundredths.
pub fn hour(of: f64) -> f64 {
    let hour = (of.rem_euclid(ROUND) * 100.0).round() / 100.0;
    if hour >= ROUND { 0.0 } else { hour }
}

/// Reads a place from what was typed or said.
///
/// # Errors
/// A sentence that says what would be right, also where millimetres are told and no outline says what they mean.
pub fn read(text: &str, outline: Option<&Outline>) -> Result<Rim, String> {
    let lower = text.to_lowercase().replace(['’', '‘'], "'");
    let parts = lower.split(|c: char| c.is_whitespace() || matches!(c, ',' | ';' | '(' | ')'));
    let words: Vec<&str> = parts.map(|w| w.trim_matches(['.', '!', '?'])).filter(|w| !w.is_empty()).collect();
    let told = all_round(&words)
        .or_else(|| clock(&words))
        .or_else(|| corner(&words))
        .map(Ok)
        .or_else(|| edge(&words, outline))
        .or_else(|| point(&words, outline));
    told.unwrap_or_else(|| {
        Err(format!(
            "“{}” is no place on a rim. Write “7 o'clock”, “top right corner”, “middle of the left edge”, “left edge, 34 mm \
             from the top”, “bottom edge”, “all round”, or two figures in millimetres.",
            text.trim()
        ))
    })
}

fn all_round(words: &[&str]) -> Option<Rim> {
    let said = |a: &str, b: &str| words.windows(2).any(|w| w[0] == a && w[1] == b);
    let round = said("all", "round") || said("all", "around") || said("way", "round") || said("way", "around");
    let sides = ["all", "every", "four"].iter().any(|w| said(w, "sides") || said(w, "edges"));
    (round || sides).then_some(Rim { at: 0.0, over: Some(ROUND) })
}

/// "7 o'clock", "half past ten", "7:30".
fn clock(words: &[&str]) -> Option<Rim> {
    let at = |of: f64| Some(Rim { at: hour(of), over: None });
    if let Some(i) = words.iter().position(|w| matches!(*w, "o'clock" | "oclock")) {
        let told = words.get(i.checked_sub(1)?)?;
        return clock_hour(told).and_then(at);
    }
    if let Some(i) = words.windows(2).position(|w| w == ["half", "past"]) {
        return words.get(i + 2).and_then(|w| clock_hour(w)).and_then(|h| at(h + 0.5));
    }
    let [only] = words else { return None };
    only.contains(':').then(|| clock_hour(only)).flatten().and_then(at)
}

fn clock_hour(word: &str) -> Option<f64> {
    let (hours, minutes) = word.split_once(':').unwrap_or((word, "0"));
    let (hours, minutes) = (figure_of(hours)?, minutes.parse::<u32>().ok()?);
    ((1.0..=ROUND).contains(&hours) && hours.fract() == 0.0 && minutes < 60).then(|| hours + f64::from(minutes) / 60.0)
}

/// Which edge a word names.
fn edge_of(word: &str) -> Option<usize> {
    let word = match word {
        "upper" | "topside" => "top",
        "lower" | "underside" => "bottom",
        "left-hand" => "left",
        "right-hand" => "right",
        other => other,
    };
    EDGES.iter().position(|e| *e == word)
}

fn corner(words: &[&str]) -> Option<Rim> {
    words.iter().find(|w| w.starts_with("corner"))?;
    let named: Vec<usize> = words.iter().filter_map(|w| edge_of(w)).collect();
    let at = CORNERS.iter().position(|c| c.split(' ').all(|e| edge_of(e).is_some_and(|e| named.contains(&e))))?;
    Some(Rim { at: FIRST_CORNER + EDGE * at as f64, over: None })
}

/// "bottom edge", "middle of the left side", "left edge, 34 mm from the top".
fn edge(words: &[&str], outline: Option<&Outline>) -> Option<Result<Rim, String>> {
    let is_edge = |w: &&str| matches!(*w, "edge" | "side" | "rim" | "end");
    let noun = words.iter().position(is_edge)?;
    let edge = words[..noun].iter().rev().find_map(|w| edge_of(w))?;
    let begin = FIRST_CORNER + EDGE * edge as f64;
    if words.iter().any(|w| matches!(*w, "middle" | "centre" | "center" | "mid")) {
        return Some(Ok(Rim { at: hour(begin + EDGE / 2.0), over: None }));
    }
    let Some((mm, from)) = distance(&words[noun..]) else {
        return Some(Ok(Rim { at: hour(begin), over: Some(EDGE) }));
    };
    Some(along(edge, mm, from, outline))
}

/// "34 mm from the top": the figure and the edge it is measured from.
fn distance(words: &[&str]) -> Option<(f64, usize)> {
    let from = words.iter().position(|w| *w == "from")?;
    let figure = |w: &&str| w.trim_end_matches("mm").parse::<f64>().ok();
    let mm = words[..from].iter().rev().find_map(figure)?;
    Some((mm, words[from..].iter().find_map(|w| edge_of(w))?))
}

fn along(edge: usize, mm: f64, from: usize, outline: Option<&Outline>) -> Result<Rim, String> {
    let Some(outline) = outline else {
        return Err("Millimetres need an outline. Draw the outline of the face first.".to_owned());
    };
    let (width, height) = outline.size_mm();
    let length = if edge.is_multiple_of(2) { height } else { width };
    if edge % 2 == from % 2 {
        return Err(format!(
            "The {} edge is measured from an edge beside it, not from the {}.",
            EDGES[edge], EDGES[from]
        ));
    }
    if !(mm.is_finite() && (0.0..=length).contains(&mm)) {
        return Err(format!("The {} edge is {} mm long; {} mm is not on it.", EDGES[edge], number(length), number(mm)));
    }
    // The edge begins at the edge before it on the clock.
    let share = if from == (edge + 3) % 4 { mm / length } else { 1.0 - mm / length };
    Ok(Rim { at: hour(FIRST_CORNER + EDGE * (edge as f64 + share)), over: None })
}

/// "40, 0": millimetres from the upper left corner.
fn point(words: &[&str], outline: Option<&Outline>) -> Option<Result<Rim, String>> {
    let figures: Vec<f64> = words.iter().filter(|w| **w != "mm").map(|w| w.parse().ok()).collect::<Option<_>>()?;
    let [x_mm, y_mm] = figures[..] else { return None };
    Some(match outline {
        Some(outline) => Ok(Rim { at: nearest(outline, HolePlace { x_mm, y_mm }), over: None }),
        None => Err("Millimetres need an outline. Draw the outline of the face first.".to_owned()),
    })
}

/// The hour of the place on the rim that is nearest to a point; a hundredth of an hour is finer than a hand places.
pub fn nearest(outline: &Outline, to: HolePlace) -> f64 {
    let far = |h: f64| {
        let at = place(outline, h);
        (at.x_mm - to.x_mm).hypot(at.y_mm - to.y_mm)
    };
    let hours = (0..1_200).map(|n| f64::from(n) / 100.0);
    hours.min_by(|a, b| far(*a).total_cmp(&far(*b))).unwrap_or(0.0)
}

/// Where an hour stands on an outline, in millimetres: straight out from the middle of its box to the rim.
pub fn place(outline: &Outline, at: f64) -> HolePlace {
    let (width, height) = outline.size_mm();
    let (u, v) = on_square(at);
    let (middle, end) = ((width / 2.0, height / 2.0), (u * width, v * height));
    let way = |share: f64| HolePlace {
        x_mm: middle.0 + (end.0 - middle.0) * share,
        y_mm: middle.1 + (end.1 - middle.1) * share,
    };
    if outline.holds(way(1.0)) {
        return way(1.0);
    }
    // From outside inward, so that a notch does not hide the rim behind it.
    const STEPS: u32 = 64;
    let share = |n: u32| 1.0 - f64::from(n) / f64::from(STEPS);
    let Some(first) = (1..=STEPS).find(|n| outline.holds(way(share(*n)))) else { return on_rim(outline, way(1.0)) };
    let (mut outside, mut inside) = (share(first - 1), share(first));
    for _ in 0..30 {
        let half = (outside + inside) / 2.0;
        *(if outline.holds(way(half)) { &mut inside } else { &mut outside }) = half;
    }
    way(inside)
}

/// The place of a rim of corners that is nearest to a point: in the crook of an angle no way inward meets the outline.
fn on_rim(outline: &Outline, to: HolePlace) -> HolePlace {
    let Outline::Corners(corners) = outline else { return to };
    let ends = corners.iter().zip(corners.iter().cycle().skip(1));
    let nearest = ends.map(|(a, b)| {
        let (x, y) = (b.x_mm - a.x_mm, b.y_mm - a.y_mm);
        let along = (to.x_mm - a.x_mm) * x + (to.y_mm - a.y_mm) * y;
        let share = (along / (x * x + y * y).max(f64::MIN_POSITIVE)).clamp(0.0, 1.0);
        HolePlace { x_mm: a.x_mm + x * share, y_mm: a.y_mm + y * share }
    });
    let far = |p: &HolePlace| (p.x_mm - to.x_mm).hypot(p.y_mm - to.y_mm);
    nearest.min_by(|a, b| far(a).total_cmp(&far(b))).unwrap_or(to)
}

/// An hour on the rim of the unit square.
fn on_square(at: f64) -> (f64, f64) {
    let turned = (at - FIRST_CORNER).rem_euclid(ROUND);
    let share = turned.rem_euclid(EDGE) / EDGE;
    match (turned / EDGE) as usize {
        0 => (1.0, share),
        1 => (1.0 - share, 1.0),
        2 => (0.0, 1.0 - share),
        _ => (share, 0.0),
    }
}

/// A place for readers: "top right corner", "middle of the left edge", "left edge, 34 mm from the top".
pub fn words(at: f64, outline: Option<&Outline>) -> String {
    let turned = (at - FIRST_CORNER).rem_euclid(ROUND);
    let nearest_corner = (turned / EDGE).round();
    if (turned - nearest_corner * EDGE).abs() <= NEAR {
        return format!("{} corner", CORNERS[nearest_corner as usize % 4]);
    }
    let (edge, share) = ((turned / EDGE) as usize, turned.rem_euclid(EDGE) / EDGE);
    if (share - 0.5).abs() * EDGE <= NEAR {
        return format!("middle of the {} edge", EDGES[edge]);
    }
    // From the nearer end, and on upright edges from the top, as one reads.
    let (from, share) = if share < 0.5 { ((edge + 3) % 4, share) } else { ((edge + 1) % 4, 1.0 - share) };
    match outline.map(Outline::size_mm) {
        Some((width, height)) => {
            let length = if edge.is_multiple_of(2) { height } else { width };
            format!("{} edge, {} mm from the {}", EDGES[edge], number((share * length).round()), EDGES[from])
        }
        None => format!("{} edge, towards the {}", EDGES[edge], EDGES[from]),
    }
}

/// A stretch for readers: "bottom edge", "all round", "from the top left corner clockwise to the middle of the right edge".
pub fn stretch_words(rim: Rim, counter: bool, outline: Option<&Outline>) -> String {
    let Some(over) = rim.over else { return words(rim.at, outline) };
    if over >= ROUND - NEAR {
        return "all round".to_owned();
    }
    let turned = (rim.at - FIRST_CORNER).rem_euclid(ROUND);
    let begins = (turned / EDGE).round();
    if (turned - begins * EDGE).abs() <= NEAR && (over - EDGE).abs() <= NEAR {
        return format!("{} edge", EDGES[begins as usize % 4]);
    }
    if let Some(told) = on_one_edge(rim.at, over, outline) {
        return told;
    }
    let bracketed = |at| {
        let told = words(at, outline);
        told.split_once(", ").map_or(told.clone(), |(edge, off)| format!("{edge} ({off})"))
    };
    let (from, to) = (bracketed(rim.at), bracketed(hour(rim.at + over)));
    if counter {
        format!("from the {to} counterclockwise to the {from}")
    } else {
        format!("from the {from} clockwise to the {to}")
    }
}

/// "top edge, 66 to 94 mm from the left".
fn on_one_edge(at: f64, over: f64, outline: Option<&Outline>) -> Option<String> {
    let turned = (at - FIRST_CORNER).rem_euclid(ROUND);
    let (edge, share) = ((turned / EDGE) as usize, turned.rem_euclid(EDGE) / EDGE);
    if share * EDGE + over > EDGE + NEAR {
        return None;
    }
    let (width, height) = outline?.size_mm();
    let length = if edge.is_multiple_of(2) { height } else { width };
    // As one reads: from the top and from the left.
    let (shares, from) = match edge {
        0 | 3 => ([share, share + over / EDGE], if edge == 0 { "top" } else { "left" }),
        _ => ([1.0 - share - over / EDGE, 1.0 - share], if edge == 1 { "left" } else { "top" }),
    };
    let [a, b] = shares.map(|s| number((s.clamp(0.0, 1.0) * length).round()));
    Some(format!("{} edge, {a} to {b} mm from the {from}", EDGES[edge]))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    fn face() -> Outline {
        Outline::Rectangle { width_mm: 80.0, height_mm: 120.0, radius_mm: 8.0 }
    }

    #[rstest]
    #[case("7 o'clock", 7.0)]
    #[case("at seven o’clock", 7.0)]
    #[case("12 o'clock", 0.0)]
    #[case("half past ten", 10.5)]
    #[case("7:30", 7.5)]
    #[case("top right corner", 1.5)]
    #[case("the corner at the lower left", 7.5)]
    #[case("middle of the left edge", 9.0)]
    #[case("the centre of the upper side", 0.0)]
    #[case("left edge, 30 mm from the top", 9.75)]
    #[case("left edge, 30 mm from the bottom", 8.25)]
    #[case("right edge 30mm from the top", 2.25)]
    #[case("bottom edge, 20 mm from the left", 6.75)]
    #[case("40, 0", 0.0)]
    #[case("80 mm, 60 mm", 3.0)]
    fn a_place_is_read(#[case] text: &str, #[case] at: f64) {
        assert_eq!(read(text, Some(&face())), Ok(Rim { at, over: None }), "{text}");
    }

    #[rstest]
    #[case("along the bottom edge", 4.5, 3.0)]
    #[case("the right-hand side", 1.5, 3.0)]
    #[case("all the way round", 0.0, 12.0)]
    #[case("on four sides", 0.0, 12.0)]
    fn a_stretch_is_read(#[case] text: &str, #[case] at: f64, #[case] over: f64) {
        assert_eq!(read(text, None), Ok(Rim { at, over: Some(over) }), "{text}");
    }

    #[rstest]
    #[case("near the hinge", "“near the hinge” is no place on a rim. Write “7 o'clock”")]
    #[case("", "“” is no place")]
    #[case("25 o'clock", "is no place")]
    #[case("left edge, 130 mm from the top", "The left edge is 120 mm long; 130 mm is not on it.")]
    #[case("left edge, 30 mm from the right", "is measured from an edge beside it, not from the right.")]
    #[case("left edge, -3 mm from the top", "-3 mm is not on it")]
    #[case("10, 20, 30", "is no place")]
    fn what_is_no_place_says_what_would_be(#[case] text: &str, #[case] says: &str) {
        let refused = read(text, Some(&face())).unwrap_err();
        assert!(refused.contains(says), "{refused}");
    }

    #[rstest]
    #[case("left edge, 30 mm from the top")]
    #[case("40, 0")]
    fn millimetres_need_an_outline(#[case] text: &str) {
        assert!(read(text, None).unwrap_err().starts_with("Millimetres need an outline."));
    }

    #[rstest]
    #[case(1.45, "top right corner")]
    #[case(9.1, "middle of the left edge")]
    #[case(9.75, "left edge, 30 mm from the top")]
    #[case(8.25, "left edge, 30 mm from the bottom")]
    #[case(11.0, "top edge, 13 mm from the left")]
    fn a_place_is_told_as_people_tell_it(#[case] at: f64, #[case] told: &str) {
        assert_eq!(words(at, Some(&face())), told);
    }

    #[rstest]
    #[case(Rim { at: 4.5, over: Some(3.0) }, false, "bottom edge")]
    #[case(Rim { at: 3.0, over: Some(12.0) }, false, "all round")]
    #[case(Rim { at: 1.75, over: Some(9.5) }, false, "from the right edge (towards the top) clockwise to the top edge (towards the left)")]
    #[case(Rim { at: 6.0, over: Some(4.5) }, false, "from the middle of the bottom edge clockwise to the top left corner")]
    #[case(Rim { at: 6.0, over: Some(4.5) }, true, "from the top left corner counterclockwise to the middle of the bottom edge")]
    fn a_stretch_is_told_the_way_one_runs(#[case] rim: Rim, #[case] counter: bool, #[case] told: &str) {
        assert_eq!(stretch_words(rim, counter, None), told);
    }

    #[rstest]
    #[case(11.5, 1.0, "top edge, 27 to 53 mm from the left")]
    #[case(2.0, 0.5, "right edge, 20 to 40 mm from the top")]
    #[case(4.5, 1.5, "bottom edge, 40 to 80 mm from the left")]
    #[case(8.0, 1.0, "left edge, 60 to 100 mm from the top")]
    fn a_stretch_of_one_edge_is_told_by_its_ends(#[case] at: f64, #[case] over: f64, #[case] told: &str) {
        assert_eq!(stretch_words(Rim { at, over: Some(over) }, false, Some(&face())), told);
    }

    #[test]
    fn rounded_corners_and_notches_are_followed() {
        let at = place(&face(), 1.5);
        // Straight out from the middle, the arc is met before the corner of the box.
        assert!(face().holds(at) && at.x_mm > 76.0 && at.y_mm < 5.0 && at.y_mm > 1.0, "{at:?}");
        let corners = [(0., 0.), (50., 0.), (50., 20.), (20., 20.), (20., 50.), (0., 50.)];
        let notched = Outline::Corners(corners.into_iter().map(|(x_mm, y_mm)| HolePlace { x_mm, y_mm }).collect());
        let at = place(&notched, 4.5);
        assert!(notched.holds(at), "{at:?}");
    }

    proptest! {
        #[test]
        fn what_is_told_is_read_again(n in 0_u32..1_200) {
            let at = f64::from(n) / 100.0;
            let told = words(at, Some(&face()));
            let read = read(&told, Some(&face())).unwrap();
            let off = (read.at - at).rem_euclid(ROUND);
            // A corner and a middle are told within their nearness, the rest to the millimetre.
            prop_assert!(off.min(ROUND - off) <= NEAR + 1e-9, "{told}: {at} read as {}", read.at);
        }

        #[test]
        fn the_nearest_hour_of_a_place_is_its_own(n in 0_u32..1_200) {
            let at = f64::from(n) / 100.0;
            let back = nearest(&face(), place(&face(), at));
            let (a, b) = (place(&face(), at), place(&face(), back));
            prop_assert!((a.x_mm - b.x_mm).hypot(a.y_mm - b.y_mm) < 0.5);
        }
    }
}
