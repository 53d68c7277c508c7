//! Cautions: what can hurt or break, said before the step it belongs to.

use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, Refusal, text};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, Manual, Step};
use crate::reading::CautionSubject;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How loudly a caution speaks, by who is hurt and how badly; the words of ANSI Z535.6, from memory.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Level {
    /// The device may suffer, nobody is hurt.
    Notice,
    /// Somebody may be hurt a little.
    Caution,
    /// Somebody may die or be hurt badly.
    Warning,
    /// Somebody will, if it is not minded.
    Danger,
}

labels!(Level { Notice: "Notice", Caution: "Caution", Warning: "Warning", Danger: "Danger" });

/// What can hurt or break, told apart as finely as what must be said of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Hazard {
    Mains,
    StoredCharge,
    StillConnected,
    Microwave,
    PictureTube,
    Refrigerant,
    Gas,
    CellPried,
    CellHeated,
    CellSwollen,
    CellShorted,
    CellSoldered,
    Splinters,
    BrokenGlass,
    SheetEdge,
    Blade,
    HotPart,
    SolderFume,
    Solvent,
    SolventHeated,
    CompressedAir,
    Beam,
    Ultraviolet,
    StartUp,
    Spring,
    Magnet,
    Dust,
    Germs,
    Heavy,
    Earth,
    SafetyPart,
    Water,
    Pressure,
    FirstPower,
    Static,
    OpenOptics,
    ScrewLength,
    Rough,
    DataLoss,
    SealOpened,
    Curing,
}

labels!(Hazard {
    Mains: "mains voltage",
    StoredCharge: "stored charge",
    StillConnected: "source still connected",
    Microwave: "microwave oven",
    PictureTube: "picture tube",
    Refrigerant: "refrigerant",
    Gas: "gas",
    CellPried: "battery cell",
    CellHeated: "heat at a battery cell",
    CellSwollen: "swollen battery cell",
    CellShorted: "short circuit of a cell",
    CellSoldered: "soldering at a battery cell",
    Splinters: "glass",
    BrokenGlass: "broken glass",
    SheetEdge: "sharp edge",
    Blade: "blade",
    HotPart: "hot parts",
    SolderFume: "hot solder and its fume",
    Solvent: "liquid and vapour",
    SolventHeated: "vapour near heat",
    CompressedAir: "compressed air",
    Beam: "laser or bright beam",
    Ultraviolet: "ultraviolet light",
    StartUp: "part that starts up",
    Spring: "spring under tension",
    Magnet: "strong magnet",
    Dust: "harmful dust",
    Germs: "dirt that carries germs",
    Heavy: "heavy part",
    Earth: "protective earth",
    SafetyPart: "part that safety hangs on",
    Water: "water beside live parts",
    Pressure: "pressure",
    FirstPower: "first power after the work",
    Static: "static charge",
    OpenOptics: "open optics",
    ScrewLength: "screw that is too long or too tight",
    Rough: "rough handling",
    DataLoss: "data",
    SealOpened: "seal",
    Curing: "bond that has not set",
});

/// One caution.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Caution {
    pub id: CautionId,
    pub step: StepId,
    pub about: CautionSubject,
    /// Which hazard of the catalogue it warns of, where somebody has said so; `None`: what it is about tells.
    #[serde(default)]
    pub hazard: Option<Hazard>,
    pub text: String,
    /// As its author says; `None`: by what it is about and what it tells.
    #[serde(default)]
    pub level: Option<Level>,
    pub evidence: Vec<Evidence>,
}

/// One field of a caution.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CautionField {
    About(CautionSubject),
    Hazard(Option<Hazard>),
    Text(String),
    Level(Option<Level>),
    Step(StepId),
}

/// Changes of cautions.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CautionEdit {
    Add {
        id: CautionId,
        step: StepId,
        about: CautionSubject,
        #[serde(default)]
        hazard: Option<Hazard>,
        text: String,
    },
    Set {
        id: CautionId,
        field: CautionField,
    },
    Remove {
        id: CautionId,
    },
    /// All or none, as one edit.
    #[schema(no_recursion)]
    Several {
        edits: Vec<CautionEdit>,
    },
}

impl Apply for CautionEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Several { edits } => edits.iter().try_for_each(|edit| edit.apply(manual, author, touched))?,
            Self::Add { id, step, about, hazard, text: said } => {
                manual.must_be_new::<Caution>(*id)?;
                manual.must_be_there::<Step>(*step)?;
                let text = text("text", said, MAX_TEXT)?;
                let evidence = vec![Evidence::author(author)];
                let (id, step, about, hazard) = (*id, *step, *about, *hazard);
                let caution = Caution { id, step, about, hazard, text, level: None, evidence };
                manual.put_entity(caution, touched);
            }
            Self::Set { id, field } => {
                if let CautionField::Step(step) = field {
                    manual.must_be_there::<Step>(*step)?;
                }
                let caution = manual.change_entity::<Caution>(*id, touched)?;
                match field {
                    CautionField::About(about) => caution.about = *about,
                    CautionField::Hazard(hazard) => caution.hazard = *hazard,
                    CautionField::Text(said) => caution.text = text("text", said, MAX_TEXT)?,
                    CautionField::Level(level) => caution.level = *level,
                    CautionField::Step(step) => caution.step = *step,
                }
            }
            Self::Remove { id } => drop(manual.take_entity::<Caution>(*id, touched)?),
        }
        Ok(())
    }
}

impl Sound for Caution {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        text("text", &self.text, MAX_TEXT)?;
        manual.refers::<Step>("step", [self.step])
    }
}
