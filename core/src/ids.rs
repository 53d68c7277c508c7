//! Identities that cannot be mixed up: a step's id is not a part's id, though both are UUIDs.
//!
//! Clients make them as UUIDv7 and never reuse one; the core only makes ids when it drafts, and then from a counter
//! that its caller seeds, so that a draft is reproducible.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

macro_rules! id {
    ($($(#[$doc:meta])* $name:ident),+ $(,)?) => {$(
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
        #[serde(transparent)]
        pub struct $name(pub Uuid);

        impl From<Uuid> for $name {
            fn from(id: Uuid) -> Self {
                Self(id)
            }
        }

        impl From<$name> for Uuid {
            fn from(id: $name) -> Self {
                id.0
            }
        }

        impl std::fmt::Display for $name {
            fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                self.0.fmt(f)
            }
        }
    )+};
}

id! {
    /// A manual: what is known of one device.
    ManualId,
    /// A recording: one immutable timed text.
    RecordingId,
    /// A step of the teardown or of a narrated rebuild.
    StepId,
    /// One act inside a step.
    ActionId,
    /// A part of the device.
    PartId,
    /// A group of like fasteners.
    GroupId,
    /// A cable connection.
    ConnectorId,
    /// A glued or clipped joint.
    SeamId,
    /// A mark on the rim of such a joint.
    MarkId,
    /// One application of heat.
    HeatId,
    /// A caution beside a step.
    CautionId,
    /// An author's correction of one statement.
    CorrectionId,
    /// A job (a guide) cut from a manual.
    JobId,
    /// A variant of the device.
    VariantId,
    /// A condition of a step.
    RequirementId,
    /// A note around the work.
    NoteId,
    /// A tool that is laid out.
    ToolId,
    /// A layer of the device.
    LayerId,
    /// A finding, by its rule, its subjects and the facts it rests on.
    FindingKey,
}

/// Makes ids from a seed and a counter, so that drafting the same readings twice gives the same manual.
#[derive(Debug, Clone)]
pub struct IdMaker {
    seed: Uuid,
    next: u64,
}

impl IdMaker {
    /// Ids that follow from `seed`; two makers with one seed give the same ids in the same order.
    pub fn new(seed: Uuid) -> Self {
        Self { seed, next: 0 }
    }

    /// The next id, wrapped by its newtype: `maker.make(StepId)`.
    pub fn make<T>(&mut self, wrap: fn(Uuid) -> T) -> T {
        self.next += 1;
        wrap(Uuid::new_v5(&self.seed, &self.next.to_be_bytes()))
    }
}
