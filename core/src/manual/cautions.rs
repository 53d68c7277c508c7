//! Cautions: what can hurt or break, said before the step it belongs to.

use super::change::{Aspect, Refusal, Touched, text};
use super::steps::LONGEST_TEXT;
use super::{Evidence, Manual};
use crate::ids::*;
use crate::reading::CautionSubject;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One caution.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Caution {
    pub id: CautionId,
    pub step: StepId,
    pub about: CautionSubject,
    pub text: String,
    pub evidence: Vec<Evidence>,
}

/// One field of a caution.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CautionField {
    About(CautionSubject),
    Text(String),
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

impl Manual {
    pub(super) fn edit_caution(
        &mut self,
        edit: &CautionEdit,
        author: &str,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        match edit {
            CautionEdit::Add { id, step, about, text: said } => {
                if self.cautions.contains_key(id) {
                    return Err(Refusal::Exists { what: "caution", id: id.0 });
                }
                self.step_mut(*step)?;
                let said = text("text", said, LONGEST_TEXT)?;
                touched.add(Aspect::Cautions, id.0);
                let evidence = vec![Evidence::Author { name: author.to_owned() }];
                self.cautions.insert(*id, Caution { id: *id, step: *step, about: *about, text: said, evidence });
            }
            CautionEdit::Set { id, field } => {
                touched.add(Aspect::Cautions, id.0);
                if let CautionField::Step(step) = field {
                    self.step_mut(*step)?;
                }
                let caution = self.cautions.get_mut(id).ok_or(Refusal::Gone { what: "caution", id: id.0 })?;
                match field {
                    CautionField::About(about) => caution.about = *about,
                    CautionField::Text(said) => caution.text = text("text", said, LONGEST_TEXT)?,
                    CautionField::Step(step) => caution.step = *step,
                }
            }
            CautionEdit::Remove { id } => {
                touched.add(Aspect::Cautions, id.0);
                self.cautions.remove(id).ok_or(Refusal::Gone { what: "caution", id: id.0 })?;
            }
        }
        Ok(())
    }
}
