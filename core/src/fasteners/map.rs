//! The hole map of a layer as a drawing: outline, holes with their tags, and the order they are tightened in.

use super::drawing::{FAINT, frame, round, tag, words};
use super::joints::Joint;
use super::kinds::{Sorted, Tag};
use crate::ids::*;
use crate::manual::{FastenerGroup, Layer, Manual, Outline};
use crate::units::number;
use svg::Document;
use svg::node::element::{Group, Polygon, Title};

/// White around the outline, in millimetres of the drawing.
const RIM: f64 = 8.0;

/// Draws a layer at true scale as an SVG document; the numbers are the places in the order of tightening.
pub fn layer_svg(manual: &Manual, layer: &Layer, sorted: &Sorted, joints: &[Joint]) -> String {
    let (width, height) = layer.outline.size_mm();
    // Tags stay legible on a small layer and modest on a large one.
    let size = (width.max(height) / 22.0).clamp(2.5, 14.0);
    let groups: Vec<&FastenerGroup> = manual.fasteners.values().filter(|g| g.layer == Some(layer.id)).collect();
    let title = format!(
        "{}, {} × {} mm: {} holes",
        layer.name,
        number(width),
        number(height),
        groups.iter().map(|g| g.holes.len()).sum::<usize>()
    );
    let mut body = Group::new().add(outline(&layer.outline));
    for group in groups {
        let Some(of) = sorted.tags.get(&group.id) else { continue };
        for (i, hole) in group.holes.iter().enumerate() {
            let place = place_in_order(joints, group.id, i as u32 + 1);
            body = body.add(hole_mark(hole.x_mm, hole.y_mm, size, of, place));
        }
    }
    let (full_width, full_height) = (round(width + 2.0 * RIM), round(height + 2.0 * RIM));
    Document::new()
        .set("width", format!("{full_width}mm"))
        .set("height", format!("{full_height}mm"))
        .set("viewBox", (-RIM, -RIM, full_width, full_height))
        .set("font-family", "sans-serif")
        .add(Title::new(title))
        .add(body)
        .to_string()
}

fn outline(outline: &Outline) -> Group {
    let shape = Group::new().set("fill", "#ffffff").set("stroke", FAINT).set("stroke-width", 0.6);
    match outline {
        Outline::Rectangle { width_mm, height_mm, radius_mm } => {
            shape.add(frame(0.0, 0.0, *width_mm, *height_mm, *radius_mm))
        }
        Outline::Corners(corners) => {
            let points: Vec<String> = corners.iter().map(|c| format!("{},{}", round(c.x_mm), round(c.y_mm))).collect();
            shape.add(Polygon::new().set("points", points.join(" ")))
        }
    }
}

fn hole_mark(x: f64, y: f64, size: f64, of: &Tag, place: Option<usize>) -> Group {
    let out = Group::new().set("class", "hole").add(tag(x, y, size, of));
    match place {
        Some(place) => {
            let text = words(x + size * 0.75, y - size * 0.55, size * 0.62, &place.to_string());
            out.add(text.set("font-weight", 700))
        }
        None => out,
    }
}

/// Where a hole stands in its joint's order of tightening, from 1.
fn place_in_order(joints: &[Joint], group: GroupId, number: u32) -> Option<usize> {
    let joint = joints.iter().find(|j| j.groups.contains(&group))?;
    joint.tighten.holes.iter().position(|h| h.group == group && h.number == number).map(|i| i + 1)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fasteners::joints::joints;
    use crate::fasteners::kinds::sort;
    use crate::fasteners::written::manual;

    #[test]
    fn every_hole_stands_on_the_map_with_its_place_in_the_order() {
        let m = manual("1 lid: 4 PH0 8 mm at 10,10 90,10 90,90 10,90\n2 fan: 1 T6 4 mm");
        let layer = m.layers.values().next().unwrap();
        let drawn = layer_svg(&m, layer, &sort(&m), &joints(&m));
        assert_eq!(drawn.matches("class=\"hole\"").count(), 4);
        assert!(drawn.contains("width=\"116mm\"") && drawn.contains("Rear, 100 × 100 mm: 4 holes"), "{drawn}");
        assert!((1..=4).all(|n| drawn.contains(&format!("\n{n}\n"))), "{drawn}");
    }
}
