//! The manual: what is known of one device, and the only way to change it.
//!
//! A [`Manual`] is a plain value. Authors change it by [`Edit`]s, one enum an aspect; [`Manual::apply`] is pure and
//! returns the new manual with a [`Change`] whose images undo it field by field. Undo, redo, history, clashes and live
//! updates all come from those images.
//!
//! The folders: `model` holds what there is, each aspect with its edits; `edits` how change works; `corrections` what was
//! put right of what was heard; `drafting` how a manual begins. Every aspect is declared once, in `aspects.rs`.

mod aspects;
mod corrections;
#[cfg(test)]
pub(crate) mod drafted;
mod drafting;
mod edits;
mod model;
mod of_steps;
#[cfg(test)]
pub(crate) mod written;

pub use aspects::{Aspect, Entity, Manual};
pub use corrections::heard::{CorrectedReading, Corrections, LostCorrection, RecordingRow, StatementRow};
pub use corrections::house::{House, HouseWord};
pub use corrections::places::HeardPlace;
pub use corrections::readings::{Correction, Cut, ReadingEdit, Settled, WordFix};
pub use corrections::statement_table::to_csv;
pub use corrections::table_rows::{CellError, Cells, RowError, finds_its_rows, numbered_step, read_rows, write_rows};
pub use drafting::draft::{Source, draft};
pub use drafting::further::draft_more;
pub use edits::change::{Change, Image};
pub use edits::edit::{Edit, HeadEdit, Trial};
pub use edits::find::{TextEdit, TextHit, Wanted};
pub use edits::history::{Entry, EntryKind, next_redo, next_undo};
pub use edits::place::Place;
pub use edits::refusal::Refusal;
pub use edits::upcast::{UpcastError, from_json, from_stored};
pub use model::actions::{Action, RoleField, Roles, WordDoubt};
pub use model::cautions::{Caution, CautionEdit, CautionField, Hazard, Level};
pub use model::connectors::{Connector, ConnectorEdit, ConnectorField, ConnectorKind, LayerSpot, Waypoint, WireEnd};
pub use model::evidence::Evidence;
pub use model::fasteners::{CountClaim, FastenerEdit, FastenerFate, FastenerField, FastenerGroup, HowCounted};
pub use model::group_words::{GroupWords, kind_words};
pub use model::heats::{Heat, HeatEdit, HeatField, HeatFrom};
pub use model::holes::{Across, HoleEdit, HolePlace};
pub use model::jobs::{Called, Job, JobCut, JobEdit, PartFate, ToldPart};
pub use model::kit::{KitEdit, LaidOut, ToolChoice};
pub use model::layers::{Layer, LayerEdit, Outline};
pub use model::notes::{Note, NoteEdit, NoteField, NoteKind};
pub use model::opening::{FaceEdge, MarkEdit, MarkEnd, MarkField, MarkKind, Rebond, RimAsked, SeamMark, Swing};
pub(crate) use model::parts::rename_in as replaced_in;
pub use model::parts::{Part, PartEdit, PartField, capitalised, is_plural};
pub use model::recordings::{ClaimAgain, Drafted, RecordingEdit, RecordingRef, ToldAgain};
pub use model::requirements::{Reason, Requirement, RequirementEdit, Standing};
pub use model::scores::{ScoreRow, ScoreTable, StepLimits};
pub use model::screw_facts::{HeadForm, JointFacts, Locking, MAX_TORQUE_NM, Stored, TorqueFrom};
pub use model::seams::{Seam, SeamEdit, SeamField, SeamKind};
pub use model::sentences::{SentenceEdit, SentenceField};
pub use model::set_aside::{FindingEdit, SetAside};
pub(crate) use model::steps::ranks;
pub use model::steps::{Branch, Phase, Posture, Step, StepEdit, StepField, TemporaryAct};
pub use model::supply::{RatingLabel, Replacement};
pub use model::variants::{Variant, VariantEdit};
pub use model::weights::{Weights, WeightsInSeconds};

/// Places on the rim of a face.
pub mod rim {
    pub use super::model::rim::{ROUND, Rim, hour, nearest, place, read, stretch_words, words};
}

use crate::ids::*;
use crate::units::TorqueUnit;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// The shape of manuals, edits and images written by this version. A test holds the shape itself against it.
pub const FORMAT: u32 = 8;

/// Title, device and language of a manual.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Head {
    pub title: String,
    /// The device as its maker names it.
    pub device: String,
    /// BCP 47 tag of the text.
    pub language: String,
    /// The recording that stands where two differ.
    #[serde(default)]
    pub follows: Option<RecordingId>,
    /// What counts as work when ways are compared.
    #[serde(default)]
    pub weights: Weights,
    /// The unit that torques are told in beside newton metres; `None`: centinewton metres.
    #[serde(default)]
    pub second_unit: Option<TorqueUnit>,
    /// Points for classes of repairability; `None`: no scores.
    #[serde(default)]
    pub scores: Option<ScoreTable>,
}

impl Head {
    /// A torque in the second unit, "40 cN·m"; `None` where that is the newton metre itself.
    pub fn torque_again(&self, newton_metres: f64) -> Option<String> {
        let unit = self.second_unit.unwrap_or(TorqueUnit::CentinewtonMetre);
        (unit != TorqueUnit::NewtonMetre).then(|| unit.with_unit(newton_metres))
    }

    fn new(title: &str, device: &str) -> Self {
        Self {
            title: title.to_owned(),
            device: device.to_owned(),
            language: crate::reading::LANGUAGE.to_owned(),
            follows: None,
            weights: Weights::default(),
            second_unit: None,
            scores: None,
        }
    }
}

/// Whether a manual may go by this title and this device.
///
/// # Errors
/// What is wrong with which of them.
pub fn check_names(title: &str, device: &str) -> Result<(), Refusal> {
    edits::refusal::text("title", title, edits::refusal::MAX_TITLE)?;
    edits::refusal::note("device", device, edits::refusal::MAX_TITLE).map(drop)
}

impl Manual {
    /// Steps of one phase in their order.
    pub fn steps_in(&self, phase: Phase) -> Vec<&Step> {
        let mut steps: Vec<&Step> = self.steps.values().filter(|s| s.phase == phase).collect();
        // Two clients may choose one rank at one time; the id settles it the same way everywhere.
        steps.sort_by(|a, b| a.rank.cmp(&b.rank).then(a.id.cmp(&b.id)));
        steps
    }

    /// Steps in the order of the page: the teardown, then a narrated rebuild.
    pub fn order(&self) -> Vec<StepId> {
        [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| self.steps_in(p)).map(|s| s.id).collect()
    }

    /// The name of a part, or a word for one that is gone.
    pub fn part_name(&self, id: PartId) -> &str {
        self.parts.get(&id).map_or("a part that was removed", |p| &p.name)
    }

    /// Names of all that a step works at: parts that it moves, unscrews, unplugs, warms or opens, and what its sentences
    /// name that is no part of the manual.
    pub fn worked_at<'m>(&'m self, step: &'m Step) -> impl Iterator<Item = &'m str> {
        let moved = step.actions.iter().flat_map(|a| a.parts.iter().copied());
        let held = self.groups_of(step.id).flat_map(|g| g.holds.iter().copied());
        let served = self.connectors_of(step.id).filter_map(|c| c.serves);
        let warmed = self.heats_of(step.id).filter_map(|h| h.target);
        let opened = self.seams.of(step.id).filter_map(|s| s.part);
        let parts = moved.chain(held).chain(served).chain(warmed).chain(opened);
        let things = step.actions.iter().flat_map(|a| &a.roles.things).map(String::as_str);
        parts.map(|p| self.part_name(p)).chain(things)
    }

    /// Groups of a step, in the order they were made.
    pub fn groups_of(&self, step: StepId) -> impl Iterator<Item = &FastenerGroup> {
        self.fasteners.of(step)
    }

    /// Connectors of a step.
    pub fn connectors_of(&self, step: StepId) -> impl Iterator<Item = &Connector> {
        self.connectors.of(step)
    }

    /// Applications of heat in a step.
    pub fn heats_of(&self, step: StepId) -> impl Iterator<Item = &Heat> {
        self.heats.of(step)
    }

    /// Cautions before a step.
    pub fn cautions_of(&self, step: StepId) -> impl Iterator<Item = &Caution> {
        self.cautions.of(step)
    }
}

/// The character of its recording at which something is told first; behind all others where nobody told it.
pub fn told_at(evidence: &[Evidence]) -> usize {
    let start = |e: &Evidence| match e {
        Evidence::Recording { start, .. } => Some(*start),
        _ => None,
    };
    evidence.iter().find_map(start).unwrap_or(usize::MAX)
}
