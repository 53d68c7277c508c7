//! How cables run: their placed ways on the layers of the device, mirrored where one passes through to the other side, and
//! whether a way can be gone at all (bends, and the length that opening takes).
//!
//! A layer of the other side is seen from that side, so left and right change places there; both are laid middle on middle.

use crate::fasteners::drawing::{FAINT, INK, round, words};
use crate::fasteners::map::outline_path;
use crate::ids::*;
use crate::manual::{Connector, FaceEdge, Layer, LayerSpot, Manual, Seam};
use crate::seams::picture::DrawnWords;
use crate::units::number;
use serde::{Deserialize, Serialize};
use svg::Document;
use svg::node::element::{Circle, Group, Path, Title};
use utoipa::ToSchema;

/// A layer with the cables that run on it, in millimetres from its upper left corner.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RouteLayer {
    pub layer: LayerId,
    pub name: String,
    /// SVG path data in millimetres.
    pub outline: String,
    pub width_mm: f64,
    pub height_mm: f64,
    /// Height of its letters.
    pub size_mm: f64,
    pub cables: Vec<DrawnCable>,
}

/// One cable on one layer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DrawnCable {
    pub connector: ConnectorId,
    /// What it serves: "fan".
    pub serves: String,
    /// Its way between placed points as path data; empty where there is one point.
    pub line: String,
    /// Lengths of strokes and gaps along the way; empty: drawn through. Cables that lie side by side differ.
    pub dashes: String,
    /// Where its name stands.
    pub name: DrawnWords,
    pub places: Vec<DrawnPlace>,
}

/// One place that a cable passes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DrawnPlace {
    /// Its number along the cable, from 1.
    pub number: usize,
    pub what: String,
    pub x_mm: f64,
    pub y_mm: f64,
    /// The cable comes here from the other side, or goes there.
    pub through: bool,
    /// It was placed on the other side and stands here mirrored.
    pub mirrored: bool,
}

/// Every layer of a manual, those without a cable as well: one may be placed there. O(places × layers).
pub fn layers(manual: &Manual) -> Vec<RouteLayer> {
    let steps = manual.steps_in(crate::manual::Phase::Teardown);
    let cables: Vec<&Connector> = steps.iter().flat_map(|s| manual.connectors_of(s.id)).collect();
    manual.layers.values().map(|layer| route_layer(manual, layer, &cables)).collect()
}

fn route_layer(manual: &Manual, layer: &Layer, cables: &[&Connector]) -> RouteLayer {
    let (width_mm, height_mm) = layer.outline.size_mm();
    // Letters stay legible on a small layer and modest on a large one.
    let size_mm = (width_mm.max(height_mm) / 26.0).clamp(2.0, 12.0);
    let mut drawn: Vec<DrawnCable> = Vec::new();
    for cable in cables {
        let places = places(manual, layer, cable);
        if !places.is_empty() {
            let serves = cable.serves.map_or("cable", |p| manual.part_name(p)).to_owned();
            let (line, dashes) = (way(&places), dashes(drawn.len()).to_owned());
            let name = name(&places, &serves, size_mm);
            drawn.push(DrawnCable { connector: cable.id, serves, line, dashes, name, places });
        }
    }
    RouteLayer {
        layer: layer.id,
        name: layer.name.clone(),
        outline: outline_path(&layer.outline),
        width_mm,
        height_mm,
        size_mm,
        cables: drawn,
    }
}

/// Black on white, cables are told apart by their strokes.
fn dashes(nth: usize) -> &'static str {
    ["", "4 2", "1 1.6", "6 2 1 2"][nth % 4]
}

/// The places of a cable on a layer, in the order of the cable.
fn places(manual: &Manual, layer: &Layer, cable: &Connector) -> Vec<DrawnPlace> {
    let place = |(n, w): (usize, &crate::manual::Waypoint)| {
        let at = w.at?;
        let mirrored = at.layer != layer.id;
        let (x_mm, y_mm) = match mirrored {
            false => (at.x_mm, at.y_mm),
            true if w.through == Some(layer.id) => other_side(manual, at, layer)?,
            true => return None,
        };
        let (x_mm, y_mm) = (round(x_mm), round(y_mm));
        Some(DrawnPlace { number: n + 1, what: w.what.clone(), x_mm, y_mm, through: w.through.is_some(), mirrored })
    };
    cable.route.iter().enumerate().filter_map(place).collect()
}

/// A place as it is seen from the other side.
fn other_side(manual: &Manual, at: LayerSpot, layer: &Layer) -> Option<(f64, f64)> {
    let (width, height) = manual.layers.get(&at.layer)?.outline.size_mm();
    let (there_width, there_height) = layer.outline.size_mm();
    Some((there_width / 2.0 - (at.x_mm - width / 2.0), there_height / 2.0 + (at.y_mm - height / 2.0)))
}

/// Straight from place to place; where the cable is on the other side meanwhile, the line is broken.
fn way(places: &[DrawnPlace]) -> String {
    let mut out = String::new();
    for (n, place) in places.iter().enumerate() {
        let away = n > 0 && places[n - 1].through && !places[n - 1].mirrored;
        let pen = if n == 0 || away { "M" } else { "L" };
        out.push_str(&format!("{pen}{} {}", place.x_mm, place.y_mm));
    }
    out
}

/// The name of a cable beside where it begins, away from its line.
fn name(places: &[DrawnPlace], serves: &str, size: f64) -> DrawnWords {
    let first = &places[0];
    let goes_right = places.get(1).is_some_and(|next| next.x_mm > first.x_mm);
    // At the left edge there is no room before it.
    let before = goes_right && first.x_mm > size * (1.5 + 0.55 * serves.chars().count() as f64);
    let goes_up = places.get(1).is_some_and(|next| next.y_mm < first.y_mm);
    let down = if goes_up { 1.3 } else { -0.5 };
    DrawnWords {
        text: serves.to_owned(),
        x_mm: round(first.x_mm + if before { -size } else { size }),
        y_mm: round(first.y_mm + size * down),
        anchor: if before { "end" } else { "start" }.to_owned(),
    }
}

/// A bend that is tighter than the cable bears.
#[derive(Debug, Clone, PartialEq)]
pub struct TightBend {
    /// Of the place where it is, from 1.
    pub number: usize,
    pub what: String,
    /// The radius, in millimetres, that there is room for.
    pub room_mm: f64,
}

/// The tightest bend of a cable's placed way, where it is tighter than the cable bears.
///
/// An arc of radius `r` that turns by `a` takes `r · tan(a/2)` of each straight beside it (plane geometry); each straight
/// serves two bends, so a half of it counts.
pub fn tight_bend(cable: &Connector) -> Option<TightBend> {
    let bears = cable.bend_mm?;
    let placed: Vec<(usize, &str, LayerSpot)> =
        cable.route.iter().enumerate().filter_map(|(n, w)| Some((n + 1, w.what.as_str(), w.at?))).collect();
    let bends = placed.windows(3).filter(|w| w.iter().all(|(_, _, at)| at.layer == w[0].2.layer));
    let room = bends.filter_map(|w| Some((w[1], room_for(w[0].2, w[1].2, w[2].2)?)));
    let tightest = room.min_by(|a, b| a.1.total_cmp(&b.1));
    tightest.filter(|(_, room)| *room < bears).map(|((number, what, _), room_mm)| TightBend {
        number,
        what: what.to_owned(),
        room_mm,
    })
}

/// The largest radius that a bend at `at` has room for, in millimetres; `None`: it goes on straight.
fn room_for(from: LayerSpot, at: LayerSpot, to: LayerSpot) -> Option<f64> {
    let (a, b) = ((at.x_mm - from.x_mm, at.y_mm - from.y_mm), (to.x_mm - at.x_mm, to.y_mm - at.y_mm));
    let straight = a.0.hypot(a.1).min(b.0.hypot(b.1)) / 2.0;
    let turn = (a.0 * b.1 - a.1 * b.0).atan2(a.0 * b.0 + a.1 * b.1).abs();
    (turn > 1e-6).then(|| straight / (turn / 2.0).tan())
}

/// What opening a lid takes of a cable, and what it has.
#[derive(Debug, Clone, PartialEq)]
pub struct ShortCable {
    pub seam: SeamId,
    pub step: StepId,
    pub has_mm: f64,
    pub needs_mm: f64,
    pub opens_deg: f64,
    /// How far the lid may be opened while the cable is on.
    pub at_most_deg: f64,
}

/// Where a lid is swung open further than a cable on it reaches: the chord of the place where the cable leaves it, which
/// is `2 · d · sin(angle/2)` at a distance `d` from the hinge (plane geometry).
pub fn too_short(manual: &Manual, cable: &Connector) -> Option<ShortCable> {
    let has_mm = cable.slack_mm?;
    manual.seams.values().find_map(|seam| {
        let swing = seam.swing.as_ref()?;
        let (opens_deg, d) = (swing.at_most_deg?, from_hinge(manual, seam, swing.hinge?, cable)?);
        let needs_mm = 2.0 * d * (opens_deg.min(180.0).to_radians() / 2.0).sin();
        let at_most_deg = 2.0 * (has_mm / (2.0 * d)).min(1.0).asin().to_degrees();
        let short = needs_mm > has_mm;
        short.then_some(ShortCable { seam: seam.id, step: seam.step, has_mm, needs_mm, opens_deg, at_most_deg })
    })
}

/// How far from the hinge a cable leaves the face, in millimetres.
fn from_hinge(manual: &Manual, seam: &Seam, hinge: FaceEdge, cable: &Connector) -> Option<f64> {
    let (width, height) = seam.outline(manual)?.outline.size_mm();
    let at = cable.route.iter().filter_map(|w| w.at).find(|at| Some(at.layer) == seam.face)?;
    Some(match hinge {
        FaceEdge::Left => at.x_mm,
        FaceEdge::Right => width - at.x_mm,
        FaceEdge::Top => at.y_mm,
        FaceEdge::Bottom => height - at.y_mm,
    })
}

/// The cables of a layer at true scale as an SVG document; its title tells the ways to who cannot see them.
pub fn routes_svg(layer: &RouteLayer) -> String {
    let RouteLayer { width_mm, height_mm, size_mm, .. } = layer;
    let rim = 2.0 * size_mm;
    let (width, height) = (round(width_mm + 2.0 * rim), round(height_mm + 2.0 * rim));
    let outline = Path::new().set("d", layer.outline.as_str()).set("fill", "#ffffff").set("stroke", FAINT);
    let body = Group::new().add(outline.set("stroke-width", round(size_mm * 0.12)));
    let body = layer.cables.iter().fold(body, |body, cable| body.add(drawn(cable, *size_mm)));
    let told: Vec<String> = layer.cables.iter().map(DrawnCable::words).collect();
    Document::new()
        .set("width", format!("{width}mm"))
        .set("height", format!("{height}mm"))
        .set("viewBox", (round(-rim), round(-rim), width, height))
        .set("font-family", "sans-serif")
        .add(Title::new(format!("Cables on {}. {}", layer.name, told.join(" "))))
        .add(body)
        .to_string()
}

fn drawn(cable: &DrawnCable, size: f64) -> Group {
    let mut line = Path::new().set("d", cable.line.as_str()).set("fill", "none").set("stroke", INK);
    line = line.set("stroke-width", round(size * 0.3)).set("stroke-linejoin", "round");
    if !cable.dashes.is_empty() {
        line = line.set("stroke-dasharray", scaled(&cable.dashes, size * 0.3));
    }
    let mut out = Group::new().set("class", "cable").add(line);
    for place in &cable.places {
        let spot = Circle::new().set("cx", place.x_mm).set("cy", place.y_mm).set("r", round(size * 0.62));
        let fill = if place.through { INK } else { "#ffffff" };
        out = out.add(spot.set("fill", fill).set("stroke", INK).set("stroke-width", round(size * 0.12)));
        let text = words(place.x_mm, place.y_mm + size * 0.28, round(size * 0.8), &place.number.to_string());
        let colour = if place.through { "#ffffff" } else { INK };
        out = out.add(text.set("text-anchor", "middle").set("font-weight", 700).set("fill", colour));
    }
    let name = &cable.name;
    out.add(words(name.x_mm, name.y_mm, round(size), &name.text).set("text-anchor", name.anchor.as_str()))
}

/// "4 2" in strokes of another width.
fn scaled(dashes: &str, by: f64) -> String {
    let all = dashes.split(' ').filter_map(|d| d.parse::<f64>().ok());
    all.map(|d| round(d * by * 2.0).to_string()).collect::<Vec<_>>().join(" ")
}

impl DrawnCable {
    /// "Fan: 1 behind the post, 2 under the clip (through to the other side)."
    pub fn words(&self) -> String {
        let place = |p: &DrawnPlace| {
            let through = if p.through { " (through to the other side)" } else { "" };
            format!("{} {}{through}", p.number, p.what)
        };
        let all: Vec<String> = self.places.iter().map(place).collect();
        format!("{}: {}.", crate::manual::capitalised(&self.serves), all.join(", "))
    }
}

impl ShortCable {
    /// "60 mm, and 90° takes 113 mm".
    pub fn words(&self) -> String {
        format!(
            "{} mm, and {}° takes {} mm",
            number(self.has_mm),
            number(self.opens_deg),
            number(self.needs_mm.round())
        )
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{ConnectorEdit, ConnectorField, Edit, LayerEdit, Outline, drafted};
    use proptest::prelude::*;
    use rstest::rstest;
    use uuid::Uuid;

    fn layer(n: u128) -> LayerId {
        LayerId(Uuid::from_u128(n))
    }

    fn spot(n: u128, x_mm: f64, y_mm: f64) -> LayerSpot {
        LayerSpot { layer: layer(n), x_mm, y_mm }
    }

    /// A manual with two faces and one cable that passes as many places as are given.
    fn with(places: &[Option<LayerSpot>], through: Option<(usize, u128)>) -> Manual {
        let mut manual = drafted::manual("[0:00] Take off the cover. Disconnect the fan cable. Take out the fan.");
        let outline = Outline::Rectangle { width_mm: 100.0, height_mm: 60.0, radius_mm: 0.0 };
        let larger = Outline::Rectangle { width_mm: 120.0, height_mm: 60.0, radius_mm: 0.0 };
        let id = manual.connectors.values().next().expect("a connector").id;
        let set = |field| Edit::Connector(ConnectorEdit::Set { id, field });
        let told = (1..=places.len()).map(|n| format!("place {n}")).collect();
        let mut edits = vec![
            Edit::Layer(LayerEdit::Add { id: layer(1), name: "Front".to_owned(), outline }),
            Edit::Layer(LayerEdit::Add { id: layer(2), name: "Back".to_owned(), outline: larger }),
            set(ConnectorField::Route(told)),
        ];
        edits.extend(places.iter().enumerate().map(|(number, at)| set(ConnectorField::Passes { number, at: *at })));
        edits.extend(through.map(|(number, to)| set(ConnectorField::Through { number, to: Some(layer(to)) })));
        for edit in edits {
            manual = manual.apply(&edit, "Ann").expect("each fits").0;
        }
        manual
    }

    fn cable(manual: &Manual) -> &Connector {
        manual.connectors.values().next().expect("a connector")
    }

    fn ways(manual: &Manual) -> Vec<String> {
        layers(manual).into_iter().map(|l| l.cables.into_iter().map(|c| c.line).collect()).collect()
    }

    #[test]
    fn a_cable_is_drawn_from_place_to_place_and_what_nobody_placed_is_left_out() {
        let manual = with(&[Some(spot(1, 10.0, 10.0)), None, Some(spot(1, 40.0, 10.0))], None);
        assert_eq!(ways(&manual), ["M10 10L40 10", ""]);
        let drawn = &layers(&manual)[0];
        assert_eq!(drawn.cables[0].words(), "Fan: 1 place 1, 3 place 3.");
        let svg = routes_svg(drawn);
        assert_eq!(svg.matches("<circle").count(), 2, "{svg}");
        assert!(svg.contains("Cables on Front. Fan: 1 place 1"), "{svg}");
    }

    #[test]
    fn passing_through_it_stands_mirrored_on_the_other_side_and_goes_on_there() {
        let places = [Some(spot(1, 10.0, 10.0)), Some(spot(1, 30.0, 20.0)), Some(spot(2, 60.0, 40.0))];
        let manual = with(&places, Some((1, 2)));
        // 20 mm left of the middle of the front is 20 mm right of the middle of the back.
        assert_eq!(ways(&manual), ["M10 10L30 20", "M80 20L60 40"]);
        let back = &layers(&manual)[1].cables[0].places;
        assert!(back[0].mirrored && back[0].through && !back[1].mirrored, "{back:?}");
    }

    #[test]
    fn a_way_that_comes_back_is_broken_where_it_was_on_the_other_side() {
        let places = [Some(spot(1, 10.0, 10.0)), Some(spot(1, 30.0, 20.0)), Some(spot(1, 70.0, 20.0))];
        assert_eq!(ways(&with(&places, Some((1, 2))))[0], "M10 10L30 20M70 20");
    }

    proptest! {
        /// Seen from the other side and back again, a place is where it was.
        #[test]
        fn twice_mirrored_is_not_mirrored(x in 0.0..100.0_f64, y in 0.0..60.0_f64) {
            let manual = with(&[Some(spot(1, x, y))], None);
            let there = other_side(&manual, spot(1, x, y), &manual.layers[&layer(2)]).unwrap();
            let back = other_side(&manual, spot(2, there.0, there.1), &manual.layers[&layer(1)]).unwrap();
            prop_assert!((back.0 - x).abs() < 1e-9 && (back.1 - y).abs() < 1e-9, "{back:?}");
        }
    }

    #[rstest]
    // A right angle between straights of 20 mm: an arc of 10 mm takes 10 mm of each.
    #[case::right_angle((0.0, 0.0), (20.0, 0.0), (20.0, 20.0), Some(10.0))]
    // Half a right angle: tan 22.5° = 0.41421.
    #[case::slight((0.0, 0.0), (20.0, 0.0), (40.0, 20.0), Some(24.142))]
    #[case::the_shorter_counts((0.0, 0.0), (8.0, 0.0), (8.0, 50.0), Some(4.0))]
    #[case::straight((0.0, 0.0), (20.0, 0.0), (50.0, 0.0), None)]
    fn room_of_a_bend(
        #[case] from: (f64, f64),
        #[case] at: (f64, f64),
        #[case] to: (f64, f64),
        #[case] wanted: Option<f64>,
    ) {
        let of = |(x, y)| spot(1, x, y);
        let room = room_for(of(from), of(at), of(to));
        match (room, wanted) {
            (Some(room), Some(wanted)) => assert!((room - wanted).abs() < 0.001, "{room}"),
            (room, wanted) => assert_eq!(room, wanted),
        }
    }

    #[rstest]
    #[case::outside(ConnectorField::Passes { number: 0, at: Some(spot(1, 130.0, 10.0)) }, "lies outside “Front”, which is 100 × 60 mm")]
    #[case::no_such_place(ConnectorField::Passes { number: 4, at: None }, "passes 1 places; there is no number 5")]
    #[case::no_length(ConnectorField::SlackMm(Some(-3.0)), "-3 mm is no length of a cable")]
    #[case::no_radius(ConnectorField::BendMm(Some(f64::NAN)), "no length of a cable")]
    fn absurd_ways_say_why(#[case] field: ConnectorField, #[case] says: &str) {
        let manual = with(&[None], None);
        let edit = Edit::Connector(ConnectorEdit::Set { id: cable(&manual).id, field });
        let refused = manual.apply(&edit, "Ann").expect_err("refused").to_string();
        assert!(refused.contains(says), "{refused}");
    }

    #[test]
    fn what_is_told_anew_keeps_its_place_and_a_layer_takes_its_places_with_it() {
        let manual = with(&[Some(spot(1, 10.0, 10.0)), Some(spot(2, 10.0, 10.0))], None);
        let told = ["place 2", "under the clip", "place 1"].map(str::to_owned).to_vec();
        let edit = Edit::Connector(ConnectorEdit::Set { id: cable(&manual).id, field: ConnectorField::Route(told) });
        let manual = manual.apply(&edit, "Ann").unwrap().0;
        let at = |m: &Manual| cable(m).route.iter().map(|w| w.at.map(|at| at.layer)).collect::<Vec<_>>();
        assert_eq!(at(&manual), [Some(layer(2)), None, Some(layer(1))]);
        let gone = manual.apply(&Edit::Layer(LayerEdit::Remove { id: layer(2) }), "Ann").unwrap().0;
        assert_eq!(at(&gone), [None, None, Some(layer(1))]);
        let small = Outline::Rectangle { width_mm: 5.0, height_mm: 5.0, radius_mm: 0.0 };
        let refused = gone.apply(&Edit::Layer(LayerEdit::Redraw { id: layer(1), outline: small }), "Ann").unwrap_err();
        assert!(refused.to_string().contains("1 place(s) of cables would lie outside"), "{refused}");
    }
}
