//! Joints without screws: glue, tape, clips, snapped edges.

use super::opening::{self, MarkEdit, Rebond, SeamMark, Swing};
use crate::heat::plan::Heating;
use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, Refusal, maybe_text, within};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, Layer, Manual, Part, Step};
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
    /// The outline that it runs round.
    pub face: Option<LayerId>,
    /// Where to enter, which way to run, what to keep out of; in the order of the work.
    #[serde(default)]
    pub marks: Vec<SeamMark>,
    /// How far the halves may part once it is open.
    pub swing: Option<Swing>,
    /// How they lie or stand then: "the lid upright against the case".
    pub posture: Option<String>,
    /// How it is closed again.
    #[serde(default)]
    pub rebond: Option<Rebond>,
    /// How deep a tool may go where nothing else is said.
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
    Face(Option<LayerId>),
    Swing(Option<Swing>),
    Posture(Option<String>),
    Rebond(Option<Rebond>),
    DepthMm(Option<f64>),
    Heating(Option<Heating>),
    Note(Option<String>),
}

/// Changes of seams.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SeamEdit {
    Add {
        id: SeamId,
        step: StepId,
        kind: SeamKind,
    },
    Set {
        id: SeamId,
        field: SeamField,
    },
    /// How it opens.
    Mark {
        id: SeamId,
        edit: MarkEdit,
    },
    Remove {
        id: SeamId,
    },
}

/// Deepest that a tool is let in, in millimetres.
pub(super) const MAX_DEPTH_MM: f64 = 100.0;

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
                    face: None,
                    marks: Vec::new(),
                    swing: None,
                    posture: None,
                    rebond: None,
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
                if let SeamField::Face(face) = field {
                    manual.may_be::<Layer>(*face)?;
                }
                let seam = manual.change_entity::<Seam>(*id, touched)?;
                match field {
                    SeamField::Kind(kind) => seam.kind = *kind,
                    SeamField::Part(part) => seam.part = *part,
                    SeamField::Face(face) => seam.face = *face,
                    SeamField::Swing(swing) => seam.swing = swing.as_ref().map(opening::checked).transpose()?,
                    SeamField::Rebond(rebond) => seam.rebond = rebond.as_ref().map(opening::closing).transpose()?,
                    SeamField::Posture(value) => seam.posture = maybe_text("posture", value, MAX_TEXT)?,
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
            Self::Mark { id, edit } => {
                let mut seam = manual.must_be_there::<Seam>(*id)?.clone();
                opening::change(manual, &mut seam, edit, author)?;
                *manual.change_entity::<Seam>(*id, touched)? = seam;
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
        opening::sound(self, manual)?;
        let depth = self.depth.map(units::in_millimetres);
        depth.map(|mm| within("depth_mm", mm, [0.0, MAX_DEPTH_MM], "mm")).transpose().map(drop)
    }
}
