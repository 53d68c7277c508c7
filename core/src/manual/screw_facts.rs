//! What is known of the screws of a group besides how many there are: their head, where they lie, what joint they make.

use super::change::Refusal;
use super::fasteners::within;
use crate::screw::{Class, Mating};
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

impl HeadForm {
    pub const ALL: [Self; 7] =
        [Self::Pan, Self::Countersunk, Self::Cylinder, Self::Wafer, Self::Flange, Self::Hexagon, Self::None];

    /// For people, and in tables.
    pub fn name(self) -> &'static str {
        match self {
            Self::Pan => "pan",
            Self::Countersunk => "countersunk",
            Self::Cylinder => "cylinder",
            Self::Wafer => "wafer",
            Self::Flange => "flange",
            Self::Hexagon => "hexagon",
            Self::None => "none",
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

impl Stored {
    pub const ALL: [Self; 4] = [Self::Mat, Self::Row, Self::Pile, Self::InHole];

    /// For people, and in tables.
    pub fn name(self) -> &'static str {
        match self {
            Self::Mat => "mat",
            Self::Row => "row",
            Self::Pile => "pile",
            Self::InHole => "in hole",
        }
    }
}

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

impl Locking {
    pub const ALL: [Self; 3] = [Self::Liquid, Self::Patch, Self::Washer];

    /// For people, and in tables.
    pub fn name(self) -> &'static str {
        match self {
            Self::Liquid => "liquid",
            Self::Patch => "patch",
            Self::Washer => "washer",
        }
    }
}

/// Who says how tight.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TorqueFrom {
    Maker,
    Narrator,
    Author,
}

/// What the torque bench is told of a joint; whatever is not known is empty.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct JointFacts {
    pub class: Option<Class>,
    pub into: Option<Mating>,
    #[serde(rename = "engagement_mm", with = "units::serde_mm", default)]
    #[schema(value_type = Option<f64>)]
    pub engagement: Option<Length>,
    /// What lies under the head.
    pub clamped: Option<Mating>,
    /// Ends of the friction coefficient.
    pub friction: Option<[f64; 2]>,
    /// The most that drives the screw in and the least that strips the hole, both measured, in N·m.
    pub measured_nm: Option<[f64; 2]>,
}

impl JointFacts {
    pub(super) fn checked(&self) -> Result<Self, Refusal> {
        const DEEPEST_MM: f64 = 200.0;
        const LEAST_FRICTION: f64 = 0.03;
        const MOST_FRICTION: f64 = 0.8;
        let invalid = |problem: String| Err(Refusal::Invalid { field: "joint", problem });
        if let Some(depth) = self.engagement {
            within("joint", units::in_millimetres(depth), DEEPEST_MM, "mm of engagement")?;
        }
        if let Some([low, high]) = self.friction {
            let fits = |f: f64| (LEAST_FRICTION..=MOST_FRICTION).contains(&f);
            if !(fits(low) && fits(high) && low <= high) {
                return invalid(format!(
                    "{low} to {high} is no range of friction. Write two figures between {LEAST_FRICTION} and {MOST_FRICTION}, the lower one first."
                ));
            }
        }
        if let Some([drives, strips]) = self.measured_nm {
            within("joint", drives, MOST_TORQUE_NM, "N·m")?;
            within("joint", strips, MOST_TORQUE_NM, "N·m")?;
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
pub(super) const MOST_TORQUE_NM: f64 = 50.0;
