//! What is known of the screws of a group besides how many there are: their head, where they lie, what joint they make.

use crate::labels;
use crate::manual::edits::refusal::{Refusal, above_zero};
use crate::screw::{Class, Material};
use crate::units::{self, Length};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Shape of a screw's head.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeadForm {
    /// Rounded, flat below.
    Pan,
    /// Sits flush in a cone.
    Countersunk,
    /// A tall cylinder.
    Cylinder,
    /// Wide and very flat.
    Wafer,
    /// With a collar below.
    Flange,
    /// Turned from outside.
    Hexagon,
    /// A set screw.
    None,
}

labels!(HeadForm {
    Pan: "pan",
    Countersunk: "countersunk",
    Cylinder: "cylinder",
    Wafer: "wafer",
    Flange: "flange",
    Hexagon: "hexagon",
    None: "none: set screw",
});

impl HeadForm {
    /// Diameter of the face that bears, in thread diameters; 0 where the head bears nowhere. A hexagon bears on its washer
    /// face: ISO 4017, 4.57 mm at M3 to 8.74 mm at M6, from memory.
    pub fn bearing(self) -> f64 {
        match self {
            Self::Hexagon => 1.45,
            Self::None => 0.0,
            other => other.width(),
        }
    }

    /// Outer diameter in thread diameters: ISO 7045, 7046, 4762 and 4017, wafers and flanges by common practice; from memory.
    pub fn width(self) -> f64 {
        match self {
            Self::Pan | Self::Countersunk => 1.9,
            Self::Cylinder => 1.7,
            Self::Wafer => 2.5,
            Self::Flange => 2.3,
            Self::Hexagon => 2.0,
            Self::None => 1.0,
        }
    }
}

/// Where screws lie while they are out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stored {
    /// On a mat with a place for each group.
    Mat,
    /// In a row in the order of removal, read back from the other end.
    Row,
    /// In a pile by kind.
    Pile,
    /// Left standing in their holes.
    InHole,
}

labels!(Stored { Mat: "on the mat", Row: "in a row", Pile: "in a pile", InHole: "in their holes" });

/// What keeps a screw from turning by itself.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Locking {
    /// Liquid thread locker; renewed each time.
    Liquid,
    /// A patch on the thread; good for a few times.
    Patch,
    Washer,
}

labels!(Locking { Liquid: "thread locker", Patch: "a patch", Washer: "a washer" });

/// Who says how tight.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TorqueFrom {
    Maker,
    Narrator,
    Author,
}

labels!(TorqueFrom { Maker: "the maker", Narrator: "the narrator", Author: "the author" });

/// What the torque bench is told of a joint; whatever is not known is empty.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct JointFacts {
    pub class: Option<Class>,
    pub into: Option<Material>,
    #[serde(rename = "engagement_mm", with = "units::serde_mm", default)]
    #[schema(value_type = Option<f64>)]
    pub engagement: Option<Length>,
    /// What lies under the head.
    pub clamped: Option<Material>,
    /// Ends of the friction coefficient.
    pub friction: Option<[f64; 2]>,
    /// The most that drives the screw in and the least that strips the hole, both measured, in N·m.
    pub measured_nm: Option<[f64; 2]>,
}

impl JointFacts {
    pub(in crate::manual) fn checked(&self) -> Result<Self, Refusal> {
        const MAX_DEPTH_MM: f64 = 200.0;
        const MIN_FRICTION: f64 = 0.03;
        const MAX_FRICTION: f64 = 0.8;
        let invalid = |problem: String| Err(Refusal::Invalid { field: "joint", problem });
        if let Some(depth) = self.engagement {
            above_zero("joint", units::in_millimetres(depth), MAX_DEPTH_MM, "mm of engagement")?;
        }
        if let Some([low, high]) = self.friction {
            let fits = |f: f64| (MIN_FRICTION..=MAX_FRICTION).contains(&f);
            if !(fits(low) && fits(high) && low <= high) {
                return invalid(format!(
                    "{low} to {high} is no range of friction. Write two figures between {MIN_FRICTION} and {MAX_FRICTION}, the lower one first."
                ));
            }
        }
        if let Some([drives, strips]) = self.measured_nm {
            above_zero("joint", drives, MAX_TORQUE_NM, "N·m")?;
            above_zero("joint", strips, MAX_TORQUE_NM, "N·m")?;
            if drives >= strips {
                return invalid(format!(
                    "A hole that strips at {strips} N·m cannot take {drives} N·m to drive the screw in. Write the smaller one first."
                ));
            }
        }
        Ok(*self)
    }
}

/// Stronger than any joint that is driven by hand at a bench.
pub const MAX_TORQUE_NM: f64 = 50.0;
