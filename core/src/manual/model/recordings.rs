//! The recordings that a manual draws on; their text lives apart and never changes.

use crate::ids::*;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TITLE, Refusal, text};
use crate::manual::edits::sound::Sound;
use crate::manual::{
    Action, Aspect, Caution, Connector, CountClaim, Entity, Evidence, FastenerGroup, Heat, Manual, Part, Seam, Step,
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A recording that the manual draws on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RecordingRef {
    pub id: RecordingId,
    pub title: String,
    pub duration_ms: u64,
}

/// What a recording adds to a manual.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Drafted {
    pub parts: Vec<Part>,
    pub steps: Vec<Step>,
    pub fasteners: Vec<FastenerGroup>,
    pub connectors: Vec<Connector>,
    pub seams: Vec<Seam>,
    pub heats: Vec<Heat>,
    pub cautions: Vec<Caution>,
    /// Steps of the manual that it tells again.
    #[serde(default)]
    pub again: Vec<ToldAgain>,
}

/// A step that a further recording tells again: what it adds to it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ToldAgain {
    pub step: StepId,
    pub evidence: Vec<Evidence>,
    /// Acts that the step did not tell so far.
    pub sentences: Vec<Action>,
    /// How many screws it counts; where it counts others than before, that is a finding.
    pub claims: Vec<ClaimAgain>,
}

/// A count that a further recording tells of screws that the manual has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ClaimAgain {
    pub group: GroupId,
    pub claim: CountClaim,
}

/// Changes of the recordings that a manual draws on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RecordingEdit {
    /// Without steps the recording is only there to compare with.
    Attach { recording: RecordingRef, drafted: Option<Box<Drafted>> },
    /// The recording that stands where two differ.
    Follow { recording: Option<RecordingId> },
}

impl Apply for RecordingEdit {
    fn apply(&self, manual: &mut Manual, _: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Attach { recording, drafted } => {
                manual.must_be_new::<RecordingRef>(recording.id)?;
                manual.put_entity(recording.clone(), touched);
                drafted.as_ref().map_or(Ok(()), |drafted| manual.take_in(drafted, touched))
            }
            Self::Follow { recording } => {
                manual.may_be::<RecordingRef>(*recording)?;
                touched.add(Aspect::Head, manual.id.0);
                manual.head.follows = *recording;
                Ok(())
            }
        }
    }
}

impl Manual {
    fn take_in(&mut self, drafted: &Drafted, touched: &mut Touched) -> Result<(), Refusal> {
        self.take_all(&drafted.parts, touched)?;
        self.take_all(&drafted.steps, touched)?;
        self.take_all(&drafted.fasteners, touched)?;
        self.take_all(&drafted.connectors, touched)?;
        self.take_all(&drafted.seams, touched)?;
        self.take_all(&drafted.heats, touched)?;
        self.take_all(&drafted.cautions, touched)?;
        for told in &drafted.again {
            let step = self.change_entity::<Step>(told.step, touched)?;
            step.evidence
                .extend(told.evidence.iter().filter(|e| !step.evidence.contains(e)).cloned().collect::<Vec<_>>());
            step.actions.extend(told.sentences.iter().cloned());
            for ClaimAgain { group, claim } in &told.claims {
                let group = self.change_entity::<FastenerGroup>(*group, touched)?;
                group.evidence.extend(claim.evidence.clone());
                group.claims.push(claim.clone());
            }
        }
        Ok(())
    }

    fn take_all<T: Entity>(&mut self, entities: &[T], touched: &mut Touched) -> Result<(), Refusal> {
        for entity in entities {
            self.must_be_new::<T>(entity.id())?;
            self.put_entity(entity.clone(), touched);
        }
        Ok(())
    }
}

impl Sound for RecordingRef {
    fn sound(&self, _: &Manual) -> Result<(), Refusal> {
        text("title", &self.title, MAX_TITLE).map(drop)
    }
}
