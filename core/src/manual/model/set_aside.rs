//! Findings that an author has looked at and let be, with the reason.
//!
//! What is kept is the finding's key, which follows from its rule, what it is about, and the facts it rests on. When one of
//! these changes, the finding comes back under another key: nobody has looked at that yet.

use crate::ids::FindingKey;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, text};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, Manual};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A finding that stands no longer in the way.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SetAside {
    pub id: FindingKey,
    /// The rule's name; rules may go, what was decided stays readable.
    pub rule: String,
    /// Why it does not matter here.
    pub because: String,
    pub evidence: Vec<Evidence>,
}

/// Changes of findings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FindingEdit {
    SetAside {
        id: FindingKey,
        rule: String,
        because: String,
    },
    /// It counts again.
    TakeUp {
        id: FindingKey,
    },
}

impl Apply for FindingEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::SetAside { id, rule, because } => {
                let because = text("because", because, MAX_TEXT)?;
                let rule = text("rule", rule, MAX_TITLE)?;
                let evidence = vec![Evidence::author(author)];
                manual.put_entity(SetAside { id: *id, rule, because, evidence }, touched);
            }
            Self::TakeUp { id } => drop(manual.take_entity::<SetAside>(*id, touched)?),
        }
        Ok(())
    }
}

impl Sound for SetAside {
    fn sound(&self, _: &Manual) -> Result<(), Refusal> {
        text("because", &self.because, MAX_TEXT).map(drop)
    }
}
