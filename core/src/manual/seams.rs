//! Glued and clipped joints, and the heat that opens them.

use super::change::{Aspect, Refusal, Touched, note};
use super::steps::LONGEST_TEXT;
use super::{Evidence, Manual};
use crate::ids::*;
use crate::reading::HeatSource;
use crate::units::{self, Length, Span, ThermodynamicTemperature, Time};
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

/// One application of heat.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Heat {
    pub id: HeatId,
    pub step: StepId,
    pub source: Option<HeatSource>,
    pub target: Option<PartId>,
    /// `[low, high]` in degrees Celsius.
    #[serde(rename = "temp_c", with = "units::serde_celsius::span")]
    #[schema(value_type = Option<Vec<f64>>)]
    pub temperature: Option<Span<ThermodynamicTemperature>>,
    /// `[low, high]` in seconds.
    #[serde(rename = "dwell_s", with = "units::serde_seconds::span")]
    #[schema(value_type = Option<Vec<f64>>)]
    pub dwell: Option<Span<Time>>,
    pub evidence: Vec<Evidence>,
}

/// One field of a heat setting.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeatField {
    Source(Option<HeatSource>),
    Target(Option<PartId>),
    /// `[low, high]` in degrees Celsius.
    TempC(Option<[f64; 2]>),
    /// `[low, high]` in seconds.
    DwellS(Option<[f64; 2]>),
}

/// Changes of heat settings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeatEdit {
    Add { id: HeatId, step: StepId },
    Set { id: HeatId, field: HeatField },
    Remove { id: HeatId },
}

impl Manual {
    fn check_part(&self, part: Option<PartId>) -> Result<Option<PartId>, Refusal> {
        match part {
            Some(id) if !self.parts.contains_key(&id) => Err(Refusal::Gone { what: "part", id: id.0 }),
            other => Ok(other),
        }
    }

    pub(super) fn edit_seam(&mut self, edit: &SeamEdit, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match edit {
            SeamEdit::Add { id, step, kind } => {
                if self.seams.contains_key(id) {
                    return Err(Refusal::Exists { what: "seam", id: id.0 });
                }
                self.step_mut(*step)?;
                touched.add(Aspect::Seams, id.0);
                let evidence = vec![Evidence::Author { name: author.to_owned() }];
                self.seams.insert(
                    *id,
                    Seam {
                        id: *id,
                        step: *step,
                        kind: *kind,
                        part: None,
                        entry: None,
                        depth: None,
                        note: None,
                        evidence,
                    },
                );
            }
            SeamEdit::Set { id, field } => {
                touched.add(Aspect::Seams, id.0);
                let part = match field {
                    SeamField::Part(part) => self.check_part(*part)?,
                    _ => None,
                };
                let seam = self.seams.get_mut(id).ok_or(Refusal::Gone { what: "seam", id: id.0 })?;
                let words =
                    |field, value: &Option<String>| value.as_deref().map(|n| note(field, n, LONGEST_TEXT)).transpose();
                match field {
                    SeamField::Kind(kind) => seam.kind = *kind,
                    SeamField::Part(_) => seam.part = part,
                    SeamField::Entry(value) => seam.entry = words("entry", value)?,
                    SeamField::Note(value) => seam.note = words("note", value)?,
                    SeamField::DepthMm(value) => {
                        seam.depth = value
                            .map(|mm| bounded("depth_mm", mm, 0.0, 100.0, "mm"))
                            .transpose()?
                            .map(units::millimetres)
                    }
                }
            }
            SeamEdit::Remove { id } => {
                touched.add(Aspect::Seams, id.0);
                self.seams.remove(id).ok_or(Refusal::Gone { what: "seam", id: id.0 })?;
            }
        }
        Ok(())
    }

    pub(super) fn edit_heat(&mut self, edit: &HeatEdit, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match edit {
            HeatEdit::Add { id, step } => {
                if self.heats.contains_key(id) {
                    return Err(Refusal::Exists { what: "heat setting", id: id.0 });
                }
                self.step_mut(*step)?;
                touched.add(Aspect::Heats, id.0);
                let evidence = vec![Evidence::Author { name: author.to_owned() }];
                self.heats.insert(
                    *id,
                    Heat { id: *id, step: *step, source: None, target: None, temperature: None, dwell: None, evidence },
                );
            }
            HeatEdit::Set { id, field } => {
                touched.add(Aspect::Heats, id.0);
                let target = match field {
                    HeatField::Target(part) => self.check_part(*part)?,
                    _ => None,
                };
                let heat = self.heats.get_mut(id).ok_or(Refusal::Gone { what: "heat setting", id: id.0 })?;
                match field {
                    HeatField::Source(source) => heat.source = *source,
                    HeatField::Target(_) => heat.target = target,
                    HeatField::TempC(range) => {
                        heat.temperature = range
                            .map(|r| ordered("temp_c", r, 20.0, 500.0, "°C"))
                            .transpose()?
                            .map(|[low, high]| Span { low: units::celsius(low), high: units::celsius(high) })
                    }
                    HeatField::DwellS(range) => {
                        heat.dwell = range
                            .map(|r| ordered("dwell_s", r, 0.0, 86_400.0, "s"))
                            .transpose()?
                            .map(|[low, high]| Span { low: units::seconds(low), high: units::seconds(high) })
                    }
                }
            }
            HeatEdit::Remove { id } => {
                touched.add(Aspect::Heats, id.0);
                self.heats.remove(id).ok_or(Refusal::Gone { what: "heat setting", id: id.0 })?;
            }
        }
        Ok(())
    }
}

fn bounded(field: &'static str, value: f64, low: f64, high: f64, unit: &str) -> Result<f64, Refusal> {
    if value.is_finite() && (low..=high).contains(&value) {
        return Ok(value);
    }
    Err(Refusal::Invalid { field, problem: format!("{value} {unit} is out of range; write {low} to {high} {unit}.") })
}

fn ordered(field: &'static str, [a, b]: [f64; 2], low: f64, high: f64, unit: &str) -> Result<[f64; 2], Refusal> {
    let range = [bounded(field, a, low, high, unit)?, bounded(field, b, low, high, unit)?];
    if a > b {
        return Err(Refusal::Invalid {
            field,
            problem: format!("The range runs from {a} down to {b} {unit}; write the lower figure first."),
        });
    }
    Ok(range)
}
