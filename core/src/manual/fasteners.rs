//! Groups of like fasteners: how many, which drive, what they hold, and where each of those is known from.

use super::change::{Aspect, Refusal, Touched, note, text};
use super::steps::{LONGEST_TEXT, LONGEST_TITLE};
use super::{Evidence, Manual};
use crate::ids::*;
use crate::reading::{Drive, FastenerOp};
use crate::units::{self, Length, Torque};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a count came about. All claims are kept; disagreement is a finding.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HowCounted {
    Said,
    CountedAloud,
    Drawn,
    /// By a person looking.
    Confirmed,
}

/// One claim about how many there are.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CountClaim {
    pub count: u32,
    pub how: HowCounted,
    pub evidence: Option<Evidence>,
}

/// What becomes of the screws at the rebuild.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FastenerFate {
    Reuse,
    Renew,
    /// On purpose not put back; the reason stands in the note.
    LeaveOut,
}

/// One group of like fasteners.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FastenerGroup {
    pub id: GroupId,
    pub step: StepId,
    pub op: FastenerOp,
    /// The count in force: the last confirmed claim, else the last one.
    pub count: Option<u32>,
    pub claims: Vec<CountClaim>,
    pub drive: Option<Drive>,
    /// `PH00`, `T6`; a hex key by its size.
    pub bit: Option<String>,
    #[serde(rename = "length_mm", with = "units::serde_mm")]
    #[schema(value_type = Option<f64>)]
    pub length: Option<Length>,
    #[serde(rename = "torque_nm", with = "units::serde_nm")]
    #[schema(value_type = Option<f64>)]
    pub torque: Option<Torque>,
    pub captive: bool,
    /// One or two parts; counted once.
    pub holds: Vec<PartId>,
    /// How many the narrator put back, where the rebuild was told.
    pub refitted: Option<u32>,
    pub fate: FastenerFate,
    pub note: Option<String>,
    /// Empty: in all variants.
    #[serde(default)]
    pub variants: Vec<VariantId>,
    pub evidence: Vec<Evidence>,
}

impl FastenerGroup {
    /// An empty group at a step.
    pub fn new(id: GroupId, step: StepId) -> Self {
        Self {
            id,
            step,
            op: FastenerOp::Remove,
            count: None,
            claims: Vec::new(),
            drive: None,
            bit: None,
            length: None,
            torque: None,
            captive: false,
            holds: Vec::new(),
            refitted: None,
            fate: FastenerFate::Reuse,
            note: None,
            variants: Vec::new(),
            evidence: Vec::new(),
        }
    }
}

/// One field of a group.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FastenerField {
    Op(FastenerOp),
    /// Confirms a count; the claims before it are kept.
    Count(Option<u32>),
    Drive(Option<Drive>),
    Bit(Option<String>),
    LengthMm(Option<f64>),
    TorqueNm(Option<f64>),
    Captive(bool),
    Holds(Vec<PartId>),
    Refitted(Option<u32>),
    Fate(FastenerFate),
    Note(Option<String>),
    Variants(Vec<VariantId>),
    Step(StepId),
}

/// Changes of fastener groups.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FastenerEdit {
    Add { id: GroupId, step: StepId },
    Set { id: GroupId, field: FastenerField },
    Remove { id: GroupId },
}

/// Most screws in one group: no device that people open by hand has more.
const MOST: u32 = 500;
/// Longest screw, in millimetres.
const LONGEST_SCREW: f64 = 500.0;

impl Manual {
    pub(super) fn edit_fastener(
        &mut self,
        edit: &FastenerEdit,
        author: &str,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        match edit {
            FastenerEdit::Add { id, step } => {
                if self.fasteners.contains_key(id) {
                    return Err(Refusal::Exists { what: "group of screws", id: id.0 });
                }
                self.step_mut(*step)?;
                touched.add(Aspect::Fasteners, id.0);
                let group = FastenerGroup {
                    evidence: vec![Evidence::Author { name: author.to_owned() }],
                    ..FastenerGroup::new(*id, *step)
                };
                self.fasteners.insert(*id, group);
            }
            FastenerEdit::Set { id, field } => {
                touched.add(Aspect::Fasteners, id.0);
                if let FastenerField::Step(step) = field {
                    self.step_mut(*step)?;
                }
                if let FastenerField::Holds(parts) = field
                    && let Some(gone) = parts.iter().find(|p| !self.parts.contains_key(p))
                {
                    return Err(Refusal::Gone { what: "part", id: gone.0 });
                }
                if let FastenerField::Variants(variants) = field {
                    self.check_variants(variants)?;
                }
                let group = self.fasteners.get_mut(id).ok_or(Refusal::Gone { what: "group of screws", id: id.0 })?;
                set_field(group, field, author)?;
            }
            FastenerEdit::Remove { id } => {
                touched.add(Aspect::Fasteners, id.0);
                self.fasteners.remove(id).ok_or(Refusal::Gone { what: "group of screws", id: id.0 })?;
            }
        }
        Ok(())
    }
}

fn set_field(group: &mut FastenerGroup, field: &FastenerField, author: &str) -> Result<(), Refusal> {
    match field {
        FastenerField::Op(op) => group.op = *op,
        FastenerField::Count(count) => {
            let count = count.map(|n| whole("count", n)).transpose()?;
            group.count = count;
            if let Some(count) = count {
                let evidence = Some(Evidence::Author { name: author.to_owned() });
                group.claims.push(CountClaim { count, how: HowCounted::Confirmed, evidence });
            }
        }
        FastenerField::Drive(drive) => group.drive = *drive,
        FastenerField::Bit(bit) => group.bit = bit.as_deref().map(|b| text("bit", b, LONGEST_TITLE)).transpose()?,
        FastenerField::LengthMm(length) => {
            group.length =
                length.map(|mm| within("length_mm", mm, LONGEST_SCREW, "mm")).transpose()?.map(units::millimetres);
        }
        FastenerField::TorqueNm(torque) => {
            const STRONGEST: f64 = 50.0;
            group.torque =
                torque.map(|nm| within("torque_nm", nm, STRONGEST, "N·m")).transpose()?.map(units::newton_metres);
        }
        FastenerField::Captive(captive) => group.captive = *captive,
        FastenerField::Holds(parts) => group.holds = parts.clone(),
        FastenerField::Refitted(count) => {
            group.refitted = match count {
                Some(n) if *n > MOST => return Err(too_many("refitted", *n)),
                other => *other,
            };
        }
        FastenerField::Fate(fate) => group.fate = *fate,
        FastenerField::Note(value) => {
            group.note = value.as_deref().map(|n| note("note", n, LONGEST_TEXT)).transpose()?.filter(|n| !n.is_empty());
        }
        FastenerField::Variants(variants) => group.variants.clone_from(variants),
        FastenerField::Step(step) => group.step = *step,
    }
    Ok(())
}

fn whole(field: &'static str, count: u32) -> Result<u32, Refusal> {
    if count == 0 {
        return Err(Refusal::Invalid {
            field,
            problem: "A group of no screws is no group. Write at least 1, or remove it.".to_owned(),
        });
    }
    if count > MOST { Err(too_many(field, count)) } else { Ok(count) }
}

fn too_many(field: &'static str, count: u32) -> Refusal {
    Refusal::Invalid { field, problem: format!("{count} screws in one group cannot be meant; write at most {MOST}.") }
}

fn within(field: &'static str, value: f64, most: f64, unit: &str) -> Result<f64, Refusal> {
    if value.is_finite() && value > 0.0 && value <= most {
        return Ok(value);
    }
    Err(Refusal::Invalid {
        field,
        problem: format!("{value} {unit} is out of range; write more than 0 and at most {most} {unit}."),
    })
}
