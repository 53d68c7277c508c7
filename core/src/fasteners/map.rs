//! The hole map of a layer: outline, holes with their tags, and the order they are tightened in. One list of what stands
//! where, for the screen and for the sheet.

use super::drawing::{FAINT, round, tag, words};
use super::joints::Joint;
use super::kinds::{Sorted, Tag};
use crate::ids::*;
use crate::manual::{Layer, Manual, Outline};
use crate::units::number;
use serde::{Deserialize, Serialize};
use svg::Document;
use svg::node::element::{Group, Path, Title};
use utoipa::ToSchema;

/// White around the outline, in millimetres of the drawing.
const RIM: f64 = 8.0;

/// One hole with all that is drawn at it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HoleMark {
    pub group: GroupId,
    /// Its number in the group, from 1.
    pub number: u32,
    pub x_mm: f64,
    pub y_mm: f64,
    pub tag: Tag,
    /// Its place in the order of tightening, from 1; `None` where no order is known.
    pub place: Option<usize>,
}

/// A layer as it is drawn.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LayerMap {
    pub layer: LayerId,
    pub name: String,
    /// SVG path data in millimetres.
    pub outline: String,
    pub width_mm: f64,
    pub height_mm: f64,
    pub holes: Vec<HoleMark>,
}

/// What stands where on a layer, in millimetres from its upper left corner. O(holes).
pub fn layer_map(manual: &Manual, layer: &Layer, sorted: &Sorted, joints: &[Joint]) -> LayerMap {
    let (width_mm, height_mm) = layer.outline.size_mm();
    let groups = manual.fasteners.values().filter(|g| g.layer == Some(layer.id));
    let tagged = groups.filter_map(|g| Some((g, sorted.tags.get(&g.id)?)));
    let holes = tagged.flat_map(|(g, tag)| {
        g.holes.iter().enumerate().map(move |(i, hole)| {
            let number = i as u32 + 1;
            let place = place_in_order(joints, g.id, number);
            HoleMark { group: g.id, number, x_mm: hole.x_mm, y_mm: hole.y_mm, tag: tag.clone(), place }
        })
    });
    LayerMap {
        layer: layer.id,
        name: layer.name.clone(),
        outline: outline_path(&layer.outline),
        width_mm,
        height_mm,
        holes: holes.collect(),
    }
}

/// Draws a layer at true scale as an SVG document; the numbers are the places in the order of tightening.
pub fn layer_svg(map: &LayerMap) -> String {
    let (width, height) = (map.width_mm, map.height_mm);
    // Tags stay legible on a small layer and modest on a large one.
    let size = (width.max(height) / 22.0).clamp(2.5, 14.0);
    let title = format!("{}, {} × {} mm: {} holes", map.name, number(width), number(height), map.holes.len());
    let outline = Path::new().set("d", map.outline.as_str()).set("fill", "#ffffff").set("stroke", FAINT);
    let body = Group::new().add(outline.set("stroke-width", 0.6));
    let body = map.holes.iter().fold(body, |body, hole| body.add(hole_mark(hole, size)));
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

/// An outline as path data in millimetres.
pub(crate) fn outline_path(outline: &Outline) -> String {
    match outline {
        Outline::Rectangle { width_mm: w, height_mm: h, radius_mm: r } => {
            let (across, down) = (round(w - 2.0 * r), round(h - 2.0 * r));
            let r = round(*r);
            format!(
                "M{r} 0h{across}a{r} {r} 0 0 1 {r} {r}v{down}a{r} {r} 0 0 1 -{r} {r}h-{across}a{r} {r} 0 0 1 -{r} -{r}v-{down}a{r} {r} 0 0 1 {r} -{r}z"
            )
        }
        Outline::Corners(corners) => {
            let points: Vec<String> = corners.iter().map(|c| format!("{} {}", round(c.x_mm), round(c.y_mm))).collect();
            format!("M{}z", points.join("L"))
        }
    }
}

fn hole_mark(hole: &HoleMark, size: f64) -> Group {
    let (x, y) = (hole.x_mm, hole.y_mm);
    let out = Group::new().set("class", "hole").add(tag(x, y, size, &hole.tag));
    match hole.place {
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
    use crate::manual::written::manual;

    #[test]
    fn every_hole_stands_on_the_map_with_its_place_in_the_order() {
        let m = manual("1 lid: 4 PH0 8 mm at 10,10 90,10 90,90 10,90\n2 fan: 1 T6 4 mm");
        let layer = m.layers.values().next().unwrap();
        let drawn = layer_svg(&layer_map(&m, layer, &sort(&m), &joints(&m)));
        assert_eq!(drawn.matches("class=\"hole\"").count(), 4);
        assert!(drawn.contains("width=\"116mm\"") && drawn.contains("Rear, 100 × 100 mm: 4 holes"), "{drawn}");
        assert!((1..=4).all(|n| drawn.contains(&format!("\n{n}\n"))), "{drawn}");
    }
}
