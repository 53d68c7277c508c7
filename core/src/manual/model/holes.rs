//! Holes of a group on their layer: a hole is a screw, so placing one counts it.

use crate::ids::*;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::Refusal;
use crate::manual::{CountClaim, FastenerGroup, HowCounted, Layer, Manual};
use crate::units::number;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Where the axis of a hole stands, in millimetres from the upper left corner of its layer.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HolePlace {
    pub x_mm: f64,
    pub y_mm: f64,
}

/// Which line holes are mirrored across.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Across {
    /// The upright middle line: left to right.
    Upright,
    /// The level middle line: top to bottom.
    Level,
}

/// Changes of the holes of a group.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HoleEdit {
    /// All of its holes, on one layer.
    Place { id: GroupId, layer: LayerId, holes: Vec<HolePlace> },
    /// Adds the mirror image of every hole.
    Mirror { id: GroupId, across: Across },
    /// Adds holes at even distances from the first to the last place, both included.
    Spread { id: GroupId, layer: LayerId, from: HolePlace, to: HolePlace, count: u32 },
    /// Adds holes at even angles on a circle, the first one at the top.
    Ring { id: GroupId, layer: LayerId, centre: HolePlace, radius_mm: f64, count: u32 },
    /// Takes all of them away.
    Clear { id: GroupId },
}

/// Most holes of one group; as many as a group has screws.
const MAX_HOLES: usize = 500;
/// Holes nearer than this are one hole, in millimetres.
const SAME_MM: f64 = 0.05;

impl HolePlace {
    fn rounded(self) -> Self {
        // A hundredth of a millimetre is finer than any hole is drilled.
        let round = |v: f64| (v * 100.0).round() / 100.0;
        Self { x_mm: round(self.x_mm), y_mm: round(self.y_mm) }
    }

    /// A share of the way from here to another place.
    fn towards(self, to: Self, share: f64) -> Self {
        Self { x_mm: self.x_mm + (to.x_mm - self.x_mm) * share, y_mm: self.y_mm + (to.y_mm - self.y_mm) * share }
    }

    /// A share of a turn round this centre, from the top on.
    fn around(self, radius_mm: f64, share: f64) -> Self {
        let angle = std::f64::consts::TAU * share;
        Self { x_mm: self.x_mm + radius_mm * angle.sin(), y_mm: self.y_mm - radius_mm * angle.cos() }
    }

    fn near(self, other: Self) -> bool {
        (self.x_mm - other.x_mm).hypot(self.y_mm - other.y_mm) < SAME_MM
    }
}

impl FastenerGroup {
    /// Its holes with the count that follows from them.
    pub(in crate::manual) fn put_holes(&mut self, holes: Vec<HolePlace>) {
        self.claims.retain(|c| c.how != HowCounted::Drawn);
        let count = holes.len() as u32;
        if count > 0 {
            self.claims.push(CountClaim { count, how: HowCounted::Drawn, evidence: None });
        }
        // Where nobody said a number, the drawing is all there is.
        if self.claims.iter().all(|c| c.how == HowCounted::Drawn) {
            self.count = (count > 0).then_some(count);
        }
        // Numbers of holes that are gone mean nothing any more.
        let known = |order: &Vec<u32>| order.iter().all(|n| *n <= count);
        if !known(&self.tighten_told) {
            self.tighten_told.clear();
        }
        if !known(&self.loosen_told) {
            self.loosen_told.clear();
        }
        self.holes = holes;
    }
}

impl Apply for HoleEdit {
    fn apply(&self, manual: &mut Manual, _: &str, touched: &mut Touched) -> Result<(), Refusal> {
        let (id, layer, holes) = match self {
            Self::Place { id, layer, holes } => (*id, Some(*layer), holes.clone()),
            Self::Mirror { id, across } => {
                let (layer, holes) = manual.mirrored(*id, *across)?;
                (*id, Some(layer), holes)
            }
            Self::Spread { id, layer, from, to, count } => {
                let at = |i: u32| from.towards(*to, f64::from(i) / f64::from((*count).max(2) - 1));
                (*id, Some(*layer), manual.with_more(*id, *layer, *count, at)?)
            }
            Self::Ring { id, layer, centre, radius_mm, count } => {
                let at = |i: u32| centre.around(*radius_mm, f64::from(i) / f64::from(*count));
                (*id, Some(*layer), manual.with_more(*id, *layer, *count, at)?)
            }
            Self::Clear { id } => (*id, None, Vec::new()),
        };
        let holes: Vec<HolePlace> = holes.into_iter().map(HolePlace::rounded).collect();
        if let Some(layer) = layer {
            manual.check_holes(id, layer, &holes)?;
        }
        let group = manual.change_entity::<FastenerGroup>(id, touched)?;
        group.layer = layer;
        group.put_holes(holes);
        Ok(())
    }
}

impl Manual {
    fn with_more(
        &self,
        id: GroupId,
        layer: LayerId,
        count: u32,
        at: impl Fn(u32) -> HolePlace,
    ) -> Result<Vec<HolePlace>, Refusal> {
        if count < 2 || count as usize > MAX_HOLES {
            return Err(invalid(format!("{count} holes cannot be spread; write 2 to {MAX_HOLES}.")));
        }
        let group = self.must_be_there::<FastenerGroup>(id)?;
        // Holes stand on one layer; those of another one are not carried over.
        let kept = if group.layer == Some(layer) { group.holes.clone() } else { Vec::new() };
        let new: Vec<HolePlace> = (0..count).map(at).filter(|h| !kept.iter().any(|k| k.near(*h))).collect();
        Ok(kept.into_iter().chain(new).collect())
    }

    fn mirrored(&self, id: GroupId, across: Across) -> Result<(LayerId, Vec<HolePlace>), Refusal> {
        let group = self.must_be_there::<FastenerGroup>(id)?;
        let layer = group.layer.ok_or_else(|| invalid("There is no hole to mirror. Place one first.".to_owned()))?;
        let (width, height) = self.layers.get(&layer).map_or((0.0, 0.0), |l| l.outline.size_mm());
        let mut all = group.holes.clone();
        for hole in &group.holes {
            let image = match across {
                Across::Upright => HolePlace { x_mm: width - hole.x_mm, ..*hole },
                Across::Level => HolePlace { y_mm: height - hole.y_mm, ..*hole },
            };
            // A hole on the middle line is its own mirror image.
            if !all.iter().any(|h| h.near(image)) {
                all.push(image);
            }
        }
        Ok((layer, all))
    }

    pub(super) fn check_holes(&self, id: GroupId, layer: LayerId, holes: &[HolePlace]) -> Result<(), Refusal> {
        let layer = self.must_be_there::<Layer>(layer)?;
        if holes.len() > MAX_HOLES {
            return Err(invalid(format!(
                "{} holes in one group cannot be meant; at most {MAX_HOLES} fit.",
                holes.len()
            )));
        }
        if let Some(at) = holes.iter().position(|h| !h.x_mm.is_finite() || !h.y_mm.is_finite()) {
            return Err(invalid(format!("Hole {} has no place. Write its millimetres.", at + 1)));
        }
        if let Some(at) = holes.iter().position(|h| !layer.outline.holds(*h)) {
            let (width, height) = layer.outline.size_mm();
            let HolePlace { x_mm, y_mm } = holes[at];
            return Err(invalid(format!(
                "Hole {} at {}, {} mm lies outside the outline of “{}”, which is {} × {} mm.",
                at + 1,
                number(x_mm),
                number(y_mm),
                layer.name,
                number(width),
                number(height)
            )));
        }
        for (i, hole) in holes.iter().enumerate() {
            if let Some(first) = holes[..i].iter().position(|h| h.near(*hole)) {
                return Err(invalid(format!(
                    "Holes {} and {} stand at the same place. Move one of them or take it away.",
                    first + 1,
                    i + 1
                )));
            }
        }
        let others = self.fasteners.values().filter(|g| g.id != id && g.layer == Some(layer.id));
        for other in others {
            if let Some(at) = holes.iter().position(|h| other.holes.iter().any(|o| o.near(*h))) {
                let says = "already has a screw of another group. A screw that holds two parts belongs to one group.";
                return Err(invalid(format!("The place of hole {} {says}", at + 1)));
            }
        }
        Ok(())
    }
}

fn invalid(problem: String) -> Refusal {
    Refusal::Invalid { field: "holes", problem }
}
