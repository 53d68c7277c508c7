//! The typed facts of a statement, by the names of the fact sheet.

use super::act::{Act, Direction};
use crate::labels;
use crate::labels::Label;
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

labels!(Drive {
    Phillips: "PH cross",
    Pozidriv: "PZ cross",
    Jis: "JIS cross",
    Slotted: "SL slot",
    Torx: "T six-lobe",
    TorxPlus: "IP six-lobe plus",
    Hex: "H hex socket",
    Pentalobe: "five-lobe",
    TriPoint: "three-lobe",
    Spanner: "two-hole",
    Square: "SQ square",
    TorxPin: "TR six-lobe with pin",
    Triangle: "triangle",
});

impl Drive {
    /// The drive that a tool of the fact sheet turns: `torx screwdriver`.
    pub fn of_driver(tool: &str) -> Option<Self> {
        let name = tool.strip_suffix(" screwdriver")?;
        Self::ALL.iter().copied().find(|d| d.name() == name)
    }

    /// A tool of the fact sheet as readers see it, drives by shape and code: "T six-lobe screwdriver".
    pub fn tool_words(tool: &str) -> String {
        use crate::labels::Label;
        Self::of_driver(tool).map_or_else(|| tool.to_owned(), |d| format!("{} screwdriver", d.label()))
    }

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

    /// What readers of a guide see where no bit is known: the code where it stands on every driver, else the shape.
    pub fn in_words(self) -> &'static str {
        match self {
            Self::Phillips => "PH",
            Self::Slotted => "slotted",
            Self::Torx => "six-lobe",
            Self::TorxPlus => "six-lobe plus",
            Self::Hex => "hex socket",
            Self::Pentalobe => "five-lobe",
            Self::TriPoint => "three-lobe",
            Self::Pozidriv => "PZ",
            Self::Jis => "JIS",
            Self::Spanner => "two-hole",
            Self::Square => "square",
            Self::TorxPin => "six-lobe pin",
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

labels!(FastenerOp { Remove: "remove", Loosen: "loosen", Install: "install", Tighten: "tighten" });

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

labels!(ConnectorOp { Disconnect: "disconnect", Connect: "connect" });

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

labels!(PartOp { Remove: "remove" / "leaves", Install: "install" / "goes back" });

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

labels!(HeatSource {
    HeatGun: "heat gun",
    HairDryer: "hair dryer",
    HeatingPad: "heating pad",
    HeatingElement: "heating element",
    Oven: "oven",
    SolderingIron: "soldering iron",
});

impl HeatSource {
    /// The name of the fact sheet.
    pub fn name(self) -> &'static str {
        self.label()
    }

    /// The source that goes by this tool name.
    pub fn from_tool(name: &str) -> Option<Self> {
        Self::ALL.iter().copied().find(|s| s.name() == name)
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

labels!(Consumable {
    Adhesive: "adhesive",
    Tape: "tape",
    ThermalPaste: "thermal paste",
    ThermalPad: "thermal pad",
    IsopropylAlcohol: "isopropyl alcohol",
    CleaningCloth: "cleaning cloth",
    CottonSwab: "cotton swab",
    ProtectiveFilm: "protective film",
    Gasket: "gasket",
});

impl Consumable {
    /// The name of the fact sheet.
    pub fn name(self) -> &'static str {
        self.label()
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

labels!(CautionSubject {
    Battery: "battery",
    Cable: "cable",
    Connector: "connector",
    Glass: "glass",
    Burn: "burn",
    Overheating: "overheating",
    Esd: "static charge",
    Liquid: "liquid",
    StrippedScrew: "stripped screw",
    ScrewMixup: "screw mix-up",
    LostScrew: "lost screw",
    Sensor: "sensor",
    Lens: "lens",
    Membrane: "membrane",
    Pinch: "pinched cable",
    Seal: "seal",
    Power: "power",
    ShortCircuit: "short circuit",
    SharpTool: "sharp tool",
    Force: "force",
    Orientation: "orientation",
    Contamination: "contamination",
    WrongPart: "wrong part",
    KeepPart: "part to keep",
    Mains: "mains",
    Chemical: "chemical",
    OwnRisk: "own risk",
    Other: "other",
});

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
