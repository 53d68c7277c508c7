//! Layers of the device with their outlines, on which the holes of the screws are placed.

use crate::ids::*;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TITLE, Refusal, text};
use crate::manual::edits::sound::Sound;
use crate::manual::{Connector, FastenerGroup, HolePlace, Manual, Seam, Waypoint};
use crate::units::number;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One layer: what is seen with everything above it taken off.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Layer {
    pub id: LayerId,
    pub name: String,
    pub outline: Outline,
}

/// The rim of a layer in millimetres, the origin being its upper left corner.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Outline {
    /// A rectangle with rounded corners.
    Rectangle { width_mm: f64, height_mm: f64, radius_mm: f64 },
    /// Corner points in their order round the rim.
    Corners(Vec<HolePlace>),
}

/// Changes of layers.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LayerEdit {
    Add {
        id: LayerId,
        name: String,
        outline: Outline,
    },
    Rename {
        id: LayerId,
        name: String,
    },
    /// Refused while a hole would lie outside.
    Redraw {
        id: LayerId,
        outline: Outline,
    },
    /// Its holes go with it, and the places of cables on it.
    Remove {
        id: LayerId,
    },
}

const MAX_SIDE_MM: f64 = 5_000.0;
const MAX_CORNERS: usize = 60;

impl Outline {
    /// The smallest box around it: width and height.
    pub fn size_mm(&self) -> (f64, f64) {
        match self {
            Self::Rectangle { width_mm, height_mm, .. } => (*width_mm, *height_mm),
            Self::Corners(corners) => {
                (corners.iter().map(|c| c.x_mm).fold(0.0, f64::max), corners.iter().map(|c| c.y_mm).fold(0.0, f64::max))
            }
        }
    }

    /// The way once round its rim.
    pub fn rim_mm(&self) -> f64 {
        match self {
            Self::Rectangle { width_mm, height_mm, radius_mm } => {
                2.0 * (width_mm + height_mm) - (8.0 - std::f64::consts::TAU) * radius_mm
            }
            Self::Corners(corners) => {
                let next = corners.iter().cycle().skip(1);
                corners.iter().zip(next).map(|(a, b)| (a.x_mm - b.x_mm).hypot(a.y_mm - b.y_mm)).sum()
            }
        }
    }

    /// Whether a point lies on it; the rim belongs to it.
    pub fn holds(&self, at: HolePlace) -> bool {
        match self {
            Self::Rectangle { width_mm, height_mm, radius_mm } => {
                // Distance from the rectangle that the centres of the corner arcs span.
                let beyond = |v: f64, far: f64| (radius_mm - v).max(v - (far - radius_mm)).max(0.0);
                let inside = (0.0..=*width_mm).contains(&at.x_mm) && (0.0..=*height_mm).contains(&at.y_mm);
                inside && beyond(at.x_mm, *width_mm).hypot(beyond(at.y_mm, *height_mm)) <= radius_mm + 1e-9
            }
            Self::Corners(corners) => inside_polygon(corners, at),
        }
    }

    fn checked(&self) -> Result<(), Refusal> {
        let invalid = |problem: String| Err(Refusal::Invalid { field: "outline", problem });
        match self {
            Self::Rectangle { width_mm, height_mm, radius_mm } => {
                for (side, name) in [(width_mm, "wide"), (height_mm, "high")] {
                    if !(side.is_finite() && *side > 0.0 && *side <= MAX_SIDE_MM) {
                        return invalid(format!(
                            "An outline {} mm {name} cannot be drawn; write more than 0 and at most {MAX_SIDE_MM} mm.",
                            number(*side)
                        ));
                    }
                }
                let most = width_mm.min(*height_mm) / 2.0;
                if !(radius_mm.is_finite() && *radius_mm >= 0.0 && *radius_mm <= most) {
                    return invalid(format!(
                        "Corners of {} mm do not fit; write 0 to {} mm, half of the shorter side.",
                        number(*radius_mm),
                        number(most)
                    ));
                }
            }
            Self::Corners(corners) => {
                if !(3..=MAX_CORNERS).contains(&corners.len()) {
                    return invalid(format!("An outline has 3 to {MAX_CORNERS} corners; these are {}.", corners.len()));
                }
                let fits = |v: f64| v.is_finite() && (0.0..=MAX_SIDE_MM).contains(&v);
                if let Some(at) = corners.iter().position(|c| !fits(c.x_mm) || !fits(c.y_mm)) {
                    return invalid(format!("Corner {} lies outside 0 to {MAX_SIDE_MM} mm.", at + 1));
                }
            }
        }
        Ok(())
    }
}

/// By crossings of a ray; points on the rim count as inside.
fn inside_polygon(corners: &[HolePlace], at: HolePlace) -> bool {
    let mut inside = false;
    for (i, a) in corners.iter().enumerate() {
        let b = corners[(i + 1) % corners.len()];
        let along = (b.x_mm - a.x_mm, b.y_mm - a.y_mm);
        let off = (at.x_mm - a.x_mm, at.y_mm - a.y_mm);
        let cross = along.0 * off.1 - along.1 * off.0;
        let dot = along.0 * off.0 + along.1 * off.1;
        if cross.abs() < 1e-9 && (0.0..=along.0 * along.0 + along.1 * along.1).contains(&dot) {
            return true;
        }
        let crosses = (a.y_mm > at.y_mm) != (b.y_mm > at.y_mm);
        if crosses && at.x_mm < along.0 * (at.y_mm - a.y_mm) / along.1 + a.x_mm {
            inside = !inside;
        }
    }
    inside
}

impl Apply for LayerEdit {
    fn apply(&self, manual: &mut Manual, _: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, name, outline } => {
                manual.must_be_new::<Layer>(*id)?;
                outline.checked()?;
                let name = text("name", name, MAX_TITLE)?;
                manual.put_entity(Layer { id: *id, name, outline: outline.clone() }, touched);
            }
            Self::Rename { id, name } => {
                manual.change_entity::<Layer>(*id, touched)?.name = text("name", name, MAX_TITLE)?;
            }
            Self::Redraw { id, outline } => {
                outline.checked()?;
                let here = manual.fasteners.values().filter(|g| g.layer == Some(*id));
                let outside = here.flat_map(|g| &g.holes).filter(|h| !outline.holds(**h)).count();
                if outside > 0 {
                    let problem = format!("{outside} placed hole(s) would lie outside. Move them first.");
                    return Err(Refusal::invalid("outline", problem));
                }
                let off = |w: &Waypoint| w.at.is_some_and(|at| at.layer == *id && !outline.holds(at.place()));
                let cables = manual.connectors.values().flat_map(|c| &c.route).filter(|w| off(w)).count();
                if cables > 0 {
                    let problem = format!("{cables} place(s) of cables would lie outside. Move them first.");
                    return Err(Refusal::invalid("outline", problem));
                }
                manual.change_entity::<Layer>(*id, touched)?.outline = outline.clone();
            }
            Self::Remove { id } => {
                manual.take_entity::<Layer>(*id, touched)?;
                let lose = |g: &mut FastenerGroup| {
                    g.layer = None;
                    g.put_holes(Vec::new());
                };
                manual.change_entities(|g| g.layer == Some(*id), lose, touched);
                manual.change_entities(|s: &Seam| s.face == Some(*id), |s| s.face = None, touched);
                let here = |w: &Waypoint| w.through == Some(*id) || w.at.is_some_and(|at| at.layer == *id);
                let unplace = |c: &mut Connector| {
                    for w in c.route.iter_mut().filter(|w| here(w)) {
                        w.at = w.at.filter(|at| at.layer != *id);
                        w.through = w.through.filter(|to| to != id);
                    }
                };
                manual.change_entities(|c: &Connector| c.route.iter().any(here), unplace, touched);
            }
        }
        Ok(())
    }
}

impl Sound for Layer {
    fn sound(&self, _: &Manual) -> Result<(), Refusal> {
        text("name", &self.name, MAX_TITLE)?;
        self.outline.checked()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn at(x_mm: f64, y_mm: f64) -> HolePlace {
        HolePlace { x_mm, y_mm }
    }

    /// By hand: 2 · (100 + 60) less 8 · 5 and a circle of 5 more; a right triangle of 3, 4 and 5.
    #[test]
    fn once_round_the_rim() {
        let rectangle = Outline::Rectangle { width_mm: 100.0, height_mm: 60.0, radius_mm: 5.0 };
        assert!((rectangle.rim_mm() - (320.0 - 40.0 + 31.415_926)).abs() < 1e-3);
        assert_eq!(Outline::Corners(vec![at(0.0, 0.0), at(3.0, 0.0), at(3.0, 4.0)]).rim_mm(), 12.0);
    }

    #[rstest]
    #[case(at(0.0, 20.0), true)]
    #[case(at(50.0, 30.0), true)]
    #[case(at(0.5, 0.5), false)]
    #[case(at(3.0, 3.0), true)]
    #[case(at(101.0, 20.0), false)]
    #[case(at(f64::NAN, 20.0), false)]
    fn corners_are_rounded(#[case] hole: HolePlace, #[case] inside: bool) {
        let outline = Outline::Rectangle { width_mm: 100.0, height_mm: 60.0, radius_mm: 5.0 };
        assert_eq!(outline.holds(hole), inside);
    }

    #[rstest]
    #[case(at(10.0, 10.0), true)]
    #[case(at(40.0, 40.0), false)]
    #[case(at(50.0, 10.0), true)]
    #[case(at(51.0, 10.0), false)]
    fn an_outline_of_corners_may_have_a_notch(#[case] hole: HolePlace, #[case] inside: bool) {
        let corners = [(0., 0.), (50., 0.), (50., 20.), (20., 20.), (20., 50.), (0., 50.)];
        let outline = Outline::Corners(corners.into_iter().map(|(x, y)| at(x, y)).collect());
        assert_eq!(outline.holds(hole), inside);
    }

    #[rstest]
    #[case(Outline::Rectangle { width_mm: -4.0, height_mm: 60.0, radius_mm: 0.0 }, "An outline -4 mm wide cannot be drawn")]
    #[case(Outline::Rectangle { width_mm: 40.0, height_mm: 60.0, radius_mm: 30.0 }, "write 0 to 20 mm")]
    #[case(Outline::Rectangle { width_mm: 40.0, height_mm: f64::INFINITY, radius_mm: 0.0 }, "high cannot be drawn")]
    #[case(Outline::Corners(vec![at(0.0, 0.0), at(1.0, 0.0)]), "3 to 60 corners; these are 2")]
    #[case(Outline::Corners(vec![at(0.0, 0.0), at(1.0, 0.0), at(1.0, 9e9)]), "Corner 3 lies outside")]
    fn absurd_outlines_say_why(#[case] outline: Outline, #[case] says: &str) {
        let refused = outline.checked().unwrap_err().to_string();
        assert!(refused.contains(says), "{refused}");
    }
}
