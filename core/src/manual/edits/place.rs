//! Where something stands in a manual, and which places an edit has touched.

use crate::manual::Aspect;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A field of an entity, or the entity itself.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
pub struct Place {
    pub aspect: Aspect,
    pub id: Uuid,
    /// `None`: the entity itself came or went. "actions/ID" is one sentence of a step.
    pub field: Option<String>,
}

impl Place {
    pub(in crate::manual) fn key(&self) -> String {
        let aspect = serde_json::to_value(self.aspect).expect("an aspect is a word");
        format!("{}/{}/{}", aspect.as_str().unwrap_or_default(), self.id, self.field.as_deref().unwrap_or(""))
    }

    /// Whether changing one of the two can spoil the other.
    pub fn meets(&self, other: &Place) -> bool {
        let within = |a: &str, b: &str| a == b || a.strip_prefix(b).is_some_and(|rest| rest.starts_with('/'));
        let same_field = match (&self.field, &other.field) {
            (Some(a), Some(b)) => within(a, b) || within(b, a),
            _ => true,
        };
        self.aspect == other.aspect && self.id == other.id && same_field
    }
}

/// Places an edit may have touched; which fields really differ is found by comparing.
#[derive(Debug, Default)]
pub(in crate::manual) struct Touched(Vec<(Aspect, Uuid)>);

impl Touched {
    pub fn add(&mut self, aspect: Aspect, id: Uuid) {
        if !self.0.contains(&(aspect, id)) {
            self.0.push((aspect, id));
        }
    }

    pub fn iter(&self) -> impl Iterator<Item = &(Aspect, Uuid)> {
        self.0.iter()
    }
}
