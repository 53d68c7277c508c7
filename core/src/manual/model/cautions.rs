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

/// One caution.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Caution {
    pub id: CautionId,
    pub step: StepId,
    pub about: CautionSubject,
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
    Text(String),
    Level(Option<Level>),
    Step(StepId),
}

/// Changes of cautions.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CautionEdit {
    Add { id: CautionId, step: StepId, about: CautionSubject, text: String },
    Set { id: CautionId, field: CautionField },
    Remove { id: CautionId },
}

impl Apply for CautionEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, step, about, text: said } => {
                manual.must_be_new::<Caution>(*id)?;
                manual.must_be_there::<Step>(*step)?;
                let text = text("text", said, MAX_TEXT)?;
                let evidence = vec![Evidence::author(author)];
                let caution = Caution { id: *id, step: *step, about: *about, text, level: None, evidence };
                manual.put_entity(caution, touched);
            }
            Self::Set { id, field } => {
                if let CautionField::Step(step) = field {
                    manual.must_be_there::<Step>(*step)?;
                }
                let caution = manual.change_entity::<Caution>(*id, touched)?;
                match field {
                    CautionField::About(about) => caution.about = *about,
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
