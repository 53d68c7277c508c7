//! Joints without screws: glue, tape, clips, snapped edges.

use crate::heat::plan::Heating;
use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, Refusal, maybe_text, within};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, Manual, Part, Step};
use crate::units::{self, Length};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What holds a seam together.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SeamKind {
    Glue,
    Tape,
    Clips,
    SnapEdge,
}

labels!(SeamKind { Glue: "glue", Tape: "tape", Clips: "clips", SnapEdge: "snapped edge" / "a snapped edge" });

impl SeamKind {
    /// "glue holds the lid", "clips hold the lid".
    pub fn verb(self) -> &'static str {
        if self == Self::Clips { "hold" } else { "holds" }
    }
}

/// One joint without screws.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Seam {
    pub id: SeamId,
    pub step: StepId,
    pub kind: SeamKind,
    /// The part it holds.
    pub part: Option<PartId>,
    /// Where to enter and which way to run.
    pub entry: Option<String>,
    /// How deep a tool may go.
    #[serde(rename = "depth_mm", with = "units::serde_mm")]
    #[schema(value_type = Option<f64>)]
    pub depth: Option<Length>,
    /// How its bond is warmed, as an author put it together.
    #[serde(default)]
    pub heating: Option<Heating>,
    pub note: Option<String>,
    pub evidence: Vec<Evidence>,
}

/// One field of a seam.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SeamField {
    Kind(SeamKind),
    Part(Option<PartId>),
    Entry(Option<String>),
    DepthMm(Option<f64>),
    Heating(Option<Heating>),
    Note(Option<String>),
}

/// Changes of seams.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SeamEdit {
    Add { id: SeamId, step: StepId, kind: SeamKind },
    Set { id: SeamId, field: SeamField },
    Remove { id: SeamId },
}

/// Deepest that a tool is let in, in millimetres.
const MAX_DEPTH_MM: f64 = 100.0;

impl Apply for SeamEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, step, kind } => {
                manual.must_be_new::<Seam>(*id)?;
                manual.must_be_there::<Step>(*step)?;
                let seam = Seam {
                    id: *id,
                    step: *step,
                    kind: *kind,
                    part: None,
                    entry: None,
                    depth: None,
                    heating: None,
                    note: None,
                    evidence: vec![Evidence::author(author)],
                };
                manual.put_entity(seam, touched);
            }
            Self::Set { id, field } => {
                if let SeamField::Part(part) = field {
                    manual.may_be::<Part>(*part)?;
                }
                let seam = manual.change_entity::<Seam>(*id, touched)?;
                match field {
                    SeamField::Kind(kind) => seam.kind = *kind,
                    SeamField::Part(part) => seam.part = *part,
                    SeamField::Entry(value) => seam.entry = maybe_text("entry", value, MAX_TEXT)?,
                    SeamField::Heating(heating) => {
                        heating.as_ref().map_or(Ok(()), checked)?;
                        seam.heating.clone_from(heating);
                    }
                    SeamField::Note(value) => seam.note = maybe_text("note", value, MAX_TEXT)?,
                    SeamField::DepthMm(value) => {
                        let depth = value.map(|mm| within("depth_mm", mm, [0.0, MAX_DEPTH_MM], "mm")).transpose()?;
                        seam.depth = depth.map(units::millimetres);
                    }
                }
            }
            Self::Remove { id } => drop(manual.take_entity::<Seam>(*id, touched)?),
        }
        Ok(())
    }
}

fn checked(heating: &Heating) -> Result<(), Refusal> {
    heating.check().map_err(|problem| Refusal::invalid("heating", problem))
}

impl Sound for Seam {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        manual.refers::<Step>("step", [self.step])?;
        manual.refers::<Part>("part", self.part)?;
        self.heating.as_ref().map_or(Ok(()), checked)?;
        let depth = self.depth.map(units::in_millimetres);
        depth.map(|mm| within("depth_mm", mm, [0.0, MAX_DEPTH_MM], "mm")).transpose().map(drop)
    }
}
