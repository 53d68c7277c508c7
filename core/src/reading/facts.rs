//! The typed facts of a statement, by the names of the fact sheet.

use super::act::{Act, Direction};
use crate::units::{self, Length, Measure, Span, ThermodynamicTemperature, Time};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The drive of a screw.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Drive {
    Phillips,
    Slotted,
    Torx,
    TorxPlus,
    Hex,
    Pentalobe,
    TriPoint,
    Pozidriv,
    Jis,
    Spanner,
    Square,
    /// Hexalobular with a pin in its middle.
    TorxPin,
    Triangle,
}

impl Drive {
    /// The name of the fact sheet.
    pub fn name(self) -> &'static str {
        match self {
            Self::Phillips => "phillips",
            Self::Slotted => "slotted",
            Self::Torx => "torx",
            Self::TorxPlus => "torx-plus",
            Self::Hex => "hex",
            Self::Pentalobe => "pentalobe",
            Self::TriPoint => "tri-point",
            Self::Pozidriv => "pozidriv",
            Self::Jis => "jis",
            Self::Spanner => "spanner",
            Self::Square => "square",
            Self::TorxPin => "torx-pin",
            Self::Triangle => "triangle",
        }
    }

    /// The code that readers of a guide see.
    pub fn code(self) -> &'static str {
        match self {
            Self::Phillips => "PH",
            Self::Slotted => "SL",
            Self::Torx => "T",
            Self::TorxPlus => "IP",
            Self::Hex => "H",
            Self::Pentalobe => "five-lobe",
            Self::TriPoint => "three-lobe",
            Self::Pozidriv => "PZ",
            Self::Jis => "JIS",
            Self::Spanner => "two-hole",
            Self::Square => "SQ",
            Self::TorxPin => "TR",
            Self::Triangle => "triangle",
        }
    }

    /// The code of a bit of this drive: `PH00`, `T6`, `P2`; a hex key goes by its size across flats, `1.5 mm`.
    pub fn bit(self, size: &str) -> String {
        match self {
            Self::Phillips => format!("PH{size}"),
            Self::Slotted => format!("SL{size}"),
            Self::Torx => format!("T{size}"),
            Self::TorxPlus => format!("IP{size}"),
            Self::Hex => format!("{size} mm"),
            Self::Pentalobe => format!("P{size}"),
            Self::TriPoint => format!("Y{size}"),
            Self::Pozidriv => format!("PZ{size}"),
            Self::Jis => format!("J{size}"),
            Self::Spanner => format!("SP{size}"),
            Self::Square => format!("SQ{size}"),
            Self::TorxPin => format!("TR{size}"),
            Self::Triangle => format!("TA{size}"),
        }
    }
}

/// What happens to a group of fasteners.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FastenerOp {
    Remove,
    /// Turned but left in place.
    Loosen,
    Install,
    Tighten,
}

impl FastenerOp {
    /// Which way the fasteners go.
    pub fn direction(self) -> Direction {
        match self {
            Self::Remove | Self::Loosen => Direction::Out,
            Self::Install | Self::Tighten => Direction::In,
        }
    }
}

/// One operation on a group of like fasteners.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FastenerFact {
    pub op: FastenerOp,
    pub count: Option<u32>,
    pub drive: Option<Drive>,
    /// `PH00`, `T6`; a hex key by its size.
    pub bit: Option<String>,
    #[serde(rename = "length_mm", with = "units::serde_mm")]
    #[schema(value_type = Option<f64>)]
    pub length: Option<Length>,
    pub captive: bool,
    /// What they hold.
    pub what: Option<String>,
    /// Nothing in the sentence says what they hold; it is taken from around it.
    #[serde(skip)]
    #[schema(ignore)]
    pub guessed: bool,
}

/// A connection undone or made.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ConnectorFact {
    pub op: ConnectorOp,
    /// What it serves.
    pub what: Option<String>,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ConnectorOp {
    Disconnect,
    Connect,
}

/// A part that leaves or goes back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PartFact {
    pub op: PartOp,
    pub what: String,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PartOp {
    Remove,
    Install,
}

/// What gives the heat.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub enum HeatSource {
    #[serde(rename = "heat gun")]
    HeatGun,
    #[serde(rename = "hair dryer")]
    HairDryer,
    #[serde(rename = "heating pad")]
    HeatingPad,
    #[serde(rename = "heating element")]
    HeatingElement,
    #[serde(rename = "oven")]
    Oven,
    #[serde(rename = "soldering iron")]
    SolderingIron,
}

impl HeatSource {
    /// The name of the fact sheet.
    pub fn name(self) -> &'static str {
        match self {
            Self::HeatGun => "heat gun",
            Self::HairDryer => "hair dryer",
            Self::HeatingPad => "heating pad",
            Self::HeatingElement => "heating element",
            Self::Oven => "oven",
            Self::SolderingIron => "soldering iron",
        }
    }

    /// The source that goes by this tool name.
    pub fn from_tool(name: &str) -> Option<Self> {
        [Self::HeatGun, Self::HairDryer, Self::HeatingPad, Self::HeatingElement, Self::Oven, Self::SolderingIron]
            .into_iter()
            .find(|s| s.name() == name)
    }
}

/// Heat is applied.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeatFact {
    pub source: Option<HeatSource>,
    pub target: Option<String>,
    #[serde(rename = "temp_c", with = "units::serde_celsius::span")]
    #[schema(value_type = Option<Vec<f64>>)]
    pub temperature: Option<Span<ThermodynamicTemperature>>,
    #[serde(rename = "dwell_s", with = "units::serde_seconds::span")]
    #[schema(value_type = Option<Vec<f64>>)]
    pub dwell: Option<Span<Time>>,
}

/// A part that can only be reached after others.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct NeedFact {
    pub target: String,
    /// Empty: nothing has to come off first.
    pub after: Vec<String>,
}

/// What is used up or must be new.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
pub enum Consumable {
    #[serde(rename = "adhesive")]
    Adhesive,
    #[serde(rename = "tape")]
    Tape,
    #[serde(rename = "thermal paste")]
    ThermalPaste,
    #[serde(rename = "thermal pad")]
    ThermalPad,
    #[serde(rename = "isopropyl alcohol")]
    IsopropylAlcohol,
    #[serde(rename = "cleaning cloth")]
    CleaningCloth,
    #[serde(rename = "cotton swab")]
    CottonSwab,
    #[serde(rename = "protective film")]
    ProtectiveFilm,
    #[serde(rename = "gasket")]
    Gasket,
}

impl Consumable {
    /// The name of the fact sheet.
    pub fn name(self) -> &'static str {
        match self {
            Self::Adhesive => "adhesive",
            Self::Tape => "tape",
            Self::ThermalPaste => "thermal paste",
            Self::ThermalPad => "thermal pad",
            Self::IsopropylAlcohol => "isopropyl alcohol",
            Self::CleaningCloth => "cleaning cloth",
            Self::CottonSwab => "cotton swab",
            Self::ProtectiveFilm => "protective film",
            Self::Gasket => "gasket",
        }
    }
}

/// What a caution is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum CautionSubject {
    Battery,
    Cable,
    Connector,
    Glass,
    Burn,
    Overheating,
    Esd,
    Liquid,
    StrippedScrew,
    ScrewMixup,
    LostScrew,
    Sensor,
    Lens,
    Membrane,
    Pinch,
    Seal,
    Power,
    ShortCircuit,
    SharpTool,
    Force,
    Orientation,
    Contamination,
    WrongPart,
    KeepPart,
    Mains,
    Chemical,
    OwnRisk,
    Other,
}

/// One act that a statement tells, with what it is done to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ActFact {
    pub act: Act,
    pub objects: Vec<String>,
    /// Characters of the joined text.
    pub start: usize,
    pub end: usize,
}

/// Everything typed that one statement says.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Facts {
    pub acts: Vec<ActFact>,
    pub fasteners: Vec<FastenerFact>,
    pub connectors: Vec<ConnectorFact>,
    pub parts: Vec<PartFact>,
    pub heat: Vec<HeatFact>,
    pub cautions: Vec<CautionSubject>,
    pub measures: Vec<Measure>,
    pub needs: Vec<NeedFact>,
    pub tools: Vec<String>,
    pub consumables: Vec<Consumable>,
}

impl Facts {
    /// Whether anything of the work stands here.
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}
