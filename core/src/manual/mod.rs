//! The manual: what is known of one device, and the only way to change it.
//!
//! A [`Manual`] is a plain value. Authors change it by [`Edit`]s, one enum an aspect; [`Manual::apply`] is pure and
//! returns the new manual with a [`Change`] whose images undo it field by field. Undo, redo, history, clashes and live
//! updates all come from those images.
//!
//! Places that later rooms need (branches, postures, temporary acts, fates, variants, jobs) are in the model from the
//! first format version on, so that no file has to change its shape when their screens arrive.

mod attach;
mod cautions;
mod change;
mod connectors;
mod draft;
mod draft_device;
mod edit;
mod evidence;
mod fasteners;
mod find;
mod follow;
mod heard;
mod history;
mod holes;
mod jobs;
mod kit;
mod layers;
mod notes;
mod parts;
mod readings;
mod requirements;
mod screw_facts;
mod seams;
mod statement_table;
mod steps;
mod supply;
mod table_rows;
mod told_order;
mod upcast;
mod weights;

pub use attach::{Drafted, RecordingEdit, draft_more};
pub use cautions::{Caution, CautionEdit, CautionField};
pub use change::{Aspect, Change, Image, Place, Refusal};
pub use connectors::{Connector, ConnectorEdit, ConnectorField, ConnectorKind};
pub use draft::{Source, draft};
pub use edit::{Edit, HeadEdit};
pub use evidence::Evidence;
pub use fasteners::{CountClaim, FastenerEdit, FastenerFate, FastenerField, FastenerGroup, HowCounted};
pub use find::{TextEdit, TextHit, Wanted};
pub use heard::{Choice, Heard, HeardFinding, HeardRecording, Lost};
pub use history::{Entry, EntryKind, next_redo, next_undo};
pub use holes::{Across, HoleEdit, HolePlace};
pub use jobs::{Called, Job, JobCut, JobEdit, PartFate, Variant, VariantEdit};
pub use kit::{KitEdit, LaidOut, ToolChoice};
pub use layers::{Layer, LayerEdit, Outline};
pub use notes::{Note, NoteEdit, NoteField, NoteKind};
pub use parts::{Part, PartEdit, PartField};
pub use readings::{Correction, Cut, ReadingEdit, Settled, WordFix};
pub use requirements::{Reason, Requirement, RequirementEdit, Standing};
pub use screw_facts::{HeadForm, JointFacts, Locking, Stored, TorqueFrom};
pub use seams::{Heat, HeatEdit, HeatField, Seam, SeamEdit, SeamField, SeamKind};
pub use statement_table::to_csv;
pub(crate) use steps::ranks;
pub use steps::{Action, Branch, Phase, Posture, Step, StepEdit, StepField, TemporaryAct};
pub use supply::{Label, Replacement};
pub use table_rows::{Cells, RowError, Wrong, read_rows};
pub use upcast::{UpcastError, from_json};
pub use weights::{Weights, WeightsInSeconds};

use crate::ids::*;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// The shape of manuals, edits and images written by this version.
pub const FORMAT: u32 = 1;

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
}

/// A recording that the manual draws on; its text lives apart and never changes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RecordingRef {
    pub id: RecordingId,
    pub title: String,
    pub duration_ms: u64,
}

/// What is known of one device.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Manual {
    /// The format version of this value, see [`FORMAT`].
    pub format: u32,
    pub id: ManualId,
    pub head: Head,
    pub recordings: BTreeMap<RecordingId, RecordingRef>,
    pub parts: BTreeMap<PartId, Part>,
    pub steps: BTreeMap<StepId, Step>,
    pub fasteners: BTreeMap<GroupId, FastenerGroup>,
    pub connectors: BTreeMap<ConnectorId, Connector>,
    pub seams: BTreeMap<SeamId, Seam>,
    pub heats: BTreeMap<HeatId, Heat>,
    pub cautions: BTreeMap<CautionId, Caution>,
    pub corrections: BTreeMap<CorrectionId, Correction>,
    #[serde(default)]
    pub word_fixes: BTreeMap<CorrectionId, WordFix>,
    #[serde(default)]
    pub cuts: BTreeMap<CorrectionId, Cut>,
    #[serde(default)]
    pub settled: BTreeMap<CorrectionId, Settled>,
    pub jobs: BTreeMap<JobId, Job>,
    pub variants: BTreeMap<VariantId, Variant>,
    #[serde(default)]
    pub requirements: BTreeMap<RequirementId, Requirement>,
    #[serde(default)]
    pub notes: BTreeMap<NoteId, Note>,
    /// What is laid out at the start.
    #[serde(default)]
    pub kit: BTreeMap<ToolId, LaidOut>,
    /// Outlines on which the holes of screws are placed.
    #[serde(default)]
    pub layers: BTreeMap<LayerId, Layer>,
    /// Only in a manual cut to one job; never saved.
    #[serde(skip)]
    #[schema(ignore)]
    pub cut: Option<JobCut>,
    /// Who last set a field by hand, by place; a field that is not here still follows the reading.
    pub authored: BTreeMap<String, String>,
}

impl Manual {
    /// An empty manual.
    pub fn new(id: ManualId, title: &str, device: &str) -> Self {
        Self {
            format: FORMAT,
            id,
            head: Head {
                title: title.to_owned(),
                device: device.to_owned(),
                language: crate::reading::LANGUAGE.to_owned(),
                follows: None,
                weights: Weights::default(),
            },
            recordings: BTreeMap::new(),
            parts: BTreeMap::new(),
            steps: BTreeMap::new(),
            fasteners: BTreeMap::new(),
            connectors: BTreeMap::new(),
            seams: BTreeMap::new(),
            heats: BTreeMap::new(),
            cautions: BTreeMap::new(),
            corrections: BTreeMap::new(),
            word_fixes: BTreeMap::new(),
            cuts: BTreeMap::new(),
            settled: BTreeMap::new(),
            jobs: BTreeMap::new(),
            variants: BTreeMap::new(),
            requirements: BTreeMap::new(),
            notes: BTreeMap::new(),
            kit: BTreeMap::new(),
            layers: BTreeMap::new(),
            cut: None,
            authored: BTreeMap::new(),
        }
    }

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

    /// Groups of a step, in the order they were made.
    pub fn groups_of(&self, step: StepId) -> impl Iterator<Item = &FastenerGroup> {
        self.fasteners.values().filter(move |g| g.step == step)
    }

    /// Connectors of a step.
    pub fn connectors_of(&self, step: StepId) -> impl Iterator<Item = &Connector> {
        self.connectors.values().filter(move |c| c.step == step)
    }

    /// Applications of heat in a step.
    pub fn heats_of(&self, step: StepId) -> impl Iterator<Item = &Heat> {
        self.heats.values().filter(move |h| h.step == step)
    }

    /// Cautions before a step.
    pub fn cautions_of(&self, step: StepId) -> impl Iterator<Item = &Caution> {
        self.cautions.values().filter(move |c| c.step == step)
    }
}
