//! Variants of the device that a manual holds for: steps, parts and screws may be there in some of them only.

use crate::ids::*;
use crate::manual::Manual;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TITLE, Refusal, text};
use crate::manual::edits::sound::Sound;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A variant of the device.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Variant {
    pub id: VariantId,
    pub name: String,
    /// How readers tell that theirs is this one.
    pub how_to_tell: String,
}

/// Changes of variants.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum VariantEdit {
    Add { id: VariantId, name: String, how_to_tell: String },
    Change { id: VariantId, name: String, how_to_tell: String },
    Remove { id: VariantId },
}

impl Apply for VariantEdit {
    fn apply(&self, manual: &mut Manual, _: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, name, how_to_tell } => {
                manual.must_be_new::<Variant>(*id)?;
                manual.put_entity(Variant::checked(*id, name, how_to_tell)?, touched);
            }
            Self::Change { id, name, how_to_tell } => {
                manual.must_be_there::<Variant>(*id)?;
                manual.put_entity(Variant::checked(*id, name, how_to_tell)?, touched);
            }
            Self::Remove { id } => {
                if let Some(user) = manual.held_for(*id) {
                    let problem = format!("{user} holds for this variant. Change that first.");
                    return Err(Refusal::invalid("variant", problem));
                }
                manual.take_entity::<Variant>(*id, touched)?;
            }
        }
        Ok(())
    }
}

impl Variant {
    fn checked(id: VariantId, name: &str, how_to_tell: &str) -> Result<Self, Refusal> {
        let name = text("name", name, MAX_TITLE)?;
        Ok(Self { id, name, how_to_tell: text("how_to_tell", how_to_tell, MAX_TITLE)? })
    }
}

impl Manual {
    /// What holds for a variant only, by its name.
    fn held_for(&self, id: VariantId) -> Option<String> {
        if let Some(step) = self.steps.values().find(|s| s.variants.contains(&id)) {
            return Some(format!("The step “{}”", step.title));
        }
        if let Some(part) = self.parts.values().find(|p| p.variants.contains(&id)) {
            return Some(format!("The part “{}”", part.name));
        }
        self.fasteners.values().any(|g| g.variants.contains(&id)).then(|| "A group of screws".to_owned())
    }

    /// The names of variants, for "only for …".
    pub fn variant_names(&self, ids: &[VariantId]) -> Vec<String> {
        ids.iter().filter_map(|v| Some(self.variants.get(v)?.name.clone())).collect()
    }
}

impl Sound for Variant {
    fn sound(&self, _: &Manual) -> Result<(), Refusal> {
        text("name", &self.name, MAX_TITLE).map(drop)
    }
}
