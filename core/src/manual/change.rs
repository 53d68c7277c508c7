//! Changes field by field: what an edit touched, what was there before, and how that undoes it.
//!
//! An image names one field of one entity (or a whole entity that came or went) with its value before and after. Undo
//! puts the "before" back only where the "after" still stands, so it can never sweep away what somebody else did since.

use super::Manual;
use crate::ids::*;
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::collections::BTreeMap;
use thiserror::Error;
use utoipa::ToSchema;
use uuid::Uuid;

/// Which map of the manual an entity lives in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Aspect {
    /// Title, device and language; its id is the manual's.
    Head,
    Recordings,
    Parts,
    Steps,
    Fasteners,
    Connectors,
    Seams,
    Heats,
    Cautions,
    Corrections,
    WordFixes,
    Cuts,
    Settled,
    Jobs,
    Variants,
    Requirements,
    Notes,
    Kit,
    Layers,
}

/// A field of an entity, or the entity itself.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
pub struct Place {
    pub aspect: Aspect,
    pub id: Uuid,
    /// `None`: the entity itself came or went.
    pub field: Option<String>,
}

impl Place {
    fn key(&self) -> String {
        let aspect = serde_json::to_value(self.aspect).expect("an aspect is a word");
        format!("{}/{}/{}", aspect.as_str().unwrap_or_default(), self.id, self.field.as_deref().unwrap_or(""))
    }

    /// Whether changing one of the two can spoil the other.
    pub fn meets(&self, other: &Place) -> bool {
        let same_field = self.field == other.field || self.field.is_none() || other.field.is_none();
        self.aspect == other.aspect && self.id == other.id && same_field
    }
}

/// One field before and after an edit. `None` as a value: the entity was not there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Image {
    pub place: Place,
    #[schema(value_type = Option<Object>)]
    pub before: Option<Value>,
    #[schema(value_type = Option<Object>)]
    pub after: Option<Value>,
    /// Who had set the field by hand before, if anybody.
    pub authored_before: Option<String>,
    /// Who has set it by hand now, if anybody.
    pub authored_after: Option<String>,
}

/// What an edit did.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Change {
    pub images: Vec<Image>,
}

impl Change {
    /// The places this change touched.
    pub fn places(&self) -> impl Iterator<Item = &Place> {
        self.images.iter().map(|i| &i.place)
    }

    /// Whether both changes touch one place.
    pub fn meets(&self, other: &Change) -> bool {
        self.places().any(|p| other.places().any(|o| p.meets(o)))
    }
}

/// Why an edit was not applied. Every variant says what was wrong and what would be right.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum Refusal {
    #[error(
        "The {what} is no longer there; somebody removed it, or it belongs to another manual. Reload and try again."
    )]
    Gone { what: &'static str, id: Uuid },
    #[error("The {what} is there already. Choose another id.")]
    Exists { what: &'static str, id: Uuid },
    #[error("{field}: {problem}")]
    Invalid { field: &'static str, problem: String },
    #[error("Somebody has changed the same since: {count} place(s) differ. Look at both versions and choose.")]
    Clash { count: usize, places: Vec<Place> },
}

/// Checks a text that people typed: not empty, not endless, nothing that a database or a page cannot hold.
pub(super) fn text(field: &'static str, value: &str, longest: usize) -> Result<String, Refusal> {
    let value = value.trim();
    let invalid = |problem: String| Err(Refusal::Invalid { field, problem });
    if value.is_empty() {
        return invalid("Nothing is written here. Write at least one word.".to_owned());
    }
    note(field, value, longest)
}

/// As [`text`], but may be empty.
pub(super) fn note(field: &'static str, value: &str, longest: usize) -> Result<String, Refusal> {
    let length = value.chars().count();
    if length > longest {
        let problem = format!("The text has {length} characters; at most {longest} fit. Shorten it.");
        return Err(Refusal::Invalid { field, problem });
    }
    if let Some(c) = value.chars().find(|c| c.is_control() && !matches!(c, '\n' | '\t')) {
        let problem = format!("The text holds the control character U+{:04X}. Take it out.", c as u32);
        return Err(Refusal::Invalid { field, problem });
    }
    Ok(value.trim().to_owned())
}

/// Places an edit may have touched; which fields really differ is found by comparing.
#[derive(Debug, Default)]
pub(super) struct Touched(Vec<(Aspect, Uuid)>);

impl Touched {
    pub fn add(&mut self, aspect: Aspect, id: Uuid) {
        if !self.0.contains(&(aspect, id)) {
            self.0.push((aspect, id));
        }
    }
}

/// Reads one entity as JSON.
fn entity(manual: &Manual, aspect: Aspect, id: Uuid) -> Option<Value> {
    fn get<K: Ord, T: Serialize>(map: &BTreeMap<K, T>, key: K) -> Option<Value> {
        map.get(&key).map(|t| serde_json::to_value(t).expect("entities are plain data"))
    }
    match aspect {
        Aspect::Head => Some(serde_json::to_value(&manual.head).expect("the head is plain data")),
        Aspect::Recordings => get(&manual.recordings, RecordingId(id)),
        Aspect::Parts => get(&manual.parts, PartId(id)),
        Aspect::Steps => get(&manual.steps, StepId(id)),
        Aspect::Fasteners => get(&manual.fasteners, GroupId(id)),
        Aspect::Connectors => get(&manual.connectors, ConnectorId(id)),
        Aspect::Seams => get(&manual.seams, SeamId(id)),
        Aspect::Heats => get(&manual.heats, HeatId(id)),
        Aspect::Cautions => get(&manual.cautions, CautionId(id)),
        Aspect::Corrections => get(&manual.corrections, CorrectionId(id)),
        Aspect::WordFixes => get(&manual.word_fixes, CorrectionId(id)),
        Aspect::Cuts => get(&manual.cuts, CorrectionId(id)),
        Aspect::Settled => get(&manual.settled, CorrectionId(id)),
        Aspect::Jobs => get(&manual.jobs, JobId(id)),
        Aspect::Variants => get(&manual.variants, VariantId(id)),
        Aspect::Requirements => get(&manual.requirements, RequirementId(id)),
        Aspect::Notes => get(&manual.notes, NoteId(id)),
        Aspect::Kit => get(&manual.kit, ToolId(id)),
        Aspect::Layers => get(&manual.layers, LayerId(id)),
    }
}

/// Writes one entity from JSON, or takes it away.
fn set_entity(manual: &mut Manual, aspect: Aspect, id: Uuid, value: Option<Value>) -> Result<(), Refusal> {
    fn put<K: Ord, T: DeserializeOwned>(map: &mut BTreeMap<K, T>, key: K, value: Option<Value>) -> Result<(), Refusal> {
        match value {
            None => map.remove(&key),
            Some(value) => map.insert(
                key,
                serde_json::from_value(value)
                    .map_err(|e| Refusal::Invalid { field: "image", problem: e.to_string() })?,
            ),
        };
        Ok(())
    }
    match aspect {
        Aspect::Head => {
            let value = value.unwrap_or_default();
            manual.head = serde_json::from_value(value)
                .map_err(|e| Refusal::Invalid { field: "head", problem: e.to_string() })?;
            Ok(())
        }
        Aspect::Recordings => put(&mut manual.recordings, RecordingId(id), value),
        Aspect::Parts => put(&mut manual.parts, PartId(id), value),
        Aspect::Steps => put(&mut manual.steps, StepId(id), value),
        Aspect::Fasteners => put(&mut manual.fasteners, GroupId(id), value),
        Aspect::Connectors => put(&mut manual.connectors, ConnectorId(id), value),
        Aspect::Seams => put(&mut manual.seams, SeamId(id), value),
        Aspect::Heats => put(&mut manual.heats, HeatId(id), value),
        Aspect::Cautions => put(&mut manual.cautions, CautionId(id), value),
        Aspect::Corrections => put(&mut manual.corrections, CorrectionId(id), value),
        Aspect::WordFixes => put(&mut manual.word_fixes, CorrectionId(id), value),
        Aspect::Cuts => put(&mut manual.cuts, CorrectionId(id), value),
        Aspect::Settled => put(&mut manual.settled, CorrectionId(id), value),
        Aspect::Jobs => put(&mut manual.jobs, JobId(id), value),
        Aspect::Variants => put(&mut manual.variants, VariantId(id), value),
        Aspect::Requirements => put(&mut manual.requirements, RequirementId(id), value),
        Aspect::Notes => put(&mut manual.notes, NoteId(id), value),
        Aspect::Kit => put(&mut manual.kit, ToolId(id), value),
        Aspect::Layers => put(&mut manual.layers, LayerId(id), value),
    }
}

/// What stands at a place: a field's value (`null` where it is empty) or the whole entity.
pub(super) fn value_at(manual: &Manual, place: &Place) -> Option<Value> {
    let whole = entity(manual, place.aspect, place.id)?;
    match &place.field {
        None => Some(whole),
        Some(field) => Some(whole.get(field).cloned().unwrap_or(Value::Null)),
    }
}

/// Compares the touched entities of two manuals field by field and marks the author of each difference.
pub(super) fn compare(before: &Manual, after: &mut Manual, touched: &Touched, author: &str) -> Change {
    let mut images = Vec::new();
    for (aspect, id) in &touched.0 {
        let (old, new) = (entity(before, *aspect, *id), entity(after, *aspect, *id));
        let place = |field: Option<&String>| Place { aspect: *aspect, id: *id, field: field.cloned() };
        match (&old, &new) {
            (Some(Value::Object(a)), Some(Value::Object(b))) => {
                let fields: std::collections::BTreeSet<&String> = a.keys().chain(b.keys()).collect();
                for field in fields {
                    let (x, y) = (a.get(field), b.get(field));
                    if x != y {
                        let or_null = |v: Option<&Value>| Some(v.cloned().unwrap_or(Value::Null));
                        images.push(image(before, place(Some(field)), or_null(x), or_null(y)));
                    }
                }
            }
            _ if old != new => images.push(image(before, place(None), old, new)),
            _ => {}
        }
    }
    for image in &mut images {
        image.authored_after = Some(author.to_owned());
        after.mark_author(&image.place, Some(author));
    }
    Change { images }
}

fn image(before: &Manual, place: Place, old: Option<Value>, new: Option<Value>) -> Image {
    let authored_before = before.authored.get(&place.key()).cloned();
    Image { place, before: old, after: new, authored_before, authored_after: None }
}

impl Manual {
    /// Puts back what stood before `change`, and gives the change that undoes the undoing.
    ///
    /// # Errors
    /// [`Refusal::Clash`] names every place where somebody else's value stands now; nothing is changed then.
    pub fn revert(&self, change: &Change) -> Result<(Manual, Change), Refusal> {
        let stale: Vec<Place> =
            change.images.iter().filter(|i| value_at(self, &i.place) != i.after).map(|i| i.place.clone()).collect();
        if !stale.is_empty() {
            return Err(Refusal::Clash { count: stale.len(), places: stale });
        }
        let mut next = self.clone();
        let mut images = Vec::with_capacity(change.images.len());
        for image in change.images.iter().rev() {
            next.put(&image.place, image.before.clone())?;
            let authored_now = next.authored.get(&image.place.key()).cloned();
            next.mark_author(&image.place, image.authored_before.as_deref());
            images.push(Image {
                place: image.place.clone(),
                before: image.after.clone(),
                after: image.before.clone(),
                authored_before: authored_now,
                authored_after: image.authored_before.clone(),
            });
        }
        Ok((next, Change { images }))
    }

    /// Applies a logged change again, when a manual is loaded from its snapshot and the edits behind it.
    ///
    /// # Errors
    /// [`Refusal::Gone`] where the log does not fit the snapshot.
    pub fn replay(&self, change: &Change) -> Result<Manual, Refusal> {
        let mut next = self.clone();
        for image in &change.images {
            next.put(&image.place, image.after.clone())?;
            next.mark_author(&image.place, image.authored_after.as_deref());
        }
        Ok(next)
    }

    /// Writes a field or a whole entity.
    fn put(&mut self, place: &Place, value: Option<Value>) -> Result<(), Refusal> {
        let value = match &place.field {
            None => value,
            Some(field) => {
                let mut whole =
                    entity(self, place.aspect, place.id).ok_or(Refusal::Gone { what: "entry", id: place.id })?;
                whole[field] = value.unwrap_or(Value::Null);
                Some(whole)
            }
        };
        set_entity(self, place.aspect, place.id, value)
    }

    fn mark_author(&mut self, place: &Place, author: Option<&str>) {
        match author {
            Some(name) => self.authored.insert(place.key(), name.to_owned()),
            None => self.authored.remove(&place.key()),
        };
    }

    /// What stands at a place now, for showing both versions of a clash.
    pub fn value_at(&self, place: &Place) -> Option<Value> {
        value_at(self, place)
    }
}
