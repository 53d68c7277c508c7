//! Changes field by field: what an edit touched, what was there before, and how that undoes it.
//!
//! An image names one field of one entity (or a whole entity that came or went) with its value before and after. Undo
//! puts the "before" back only where the "after" still stands, so it can never sweep away what somebody else did since.

use super::place::{Place, Touched};
use super::refusal::Refusal;
use super::sound::check_value;
use crate::manual::Manual;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// One field before and after an edit. `None` as a value: the entity was not there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Image {
    pub place: Place,
    #[schema(value_type = Value)]
    pub before: Option<Value>,
    #[schema(value_type = Value)]
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

/// What stands at a place: a field's value (`null` where it is empty) or the whole entity.
pub(in crate::manual) fn value_at(manual: &Manual, place: &Place) -> Option<Value> {
    let whole = manual.entity(place.aspect, place.id)?;
    match &place.field {
        None => Some(whole),
        Some(field) => match field.split_once('/') {
            Some((list, id)) => whole.get(list)?.as_array()?.iter().find(|item| has_id(item, id)).cloned(),
            None => Some(whole.get(field).cloned().unwrap_or(Value::Null)),
        },
    }
}

fn has_id(item: &Value, id: &str) -> bool {
    item.get("id").and_then(Value::as_str) == Some(id)
}

/// Lists whose entries have ids, where the same entries stand in the same order: each changed entry with its id. Two people
/// may then change two sentences of one step.
fn entries<'a>(before: &'a Value, after: &'a Value) -> Option<Vec<(&'a str, &'a Value, &'a Value)>> {
    let (x, y) = (before.as_array()?, after.as_array()?);
    if x.len() != y.len() {
        return None;
    }
    let id = |item: &'a Value| item.get("id").and_then(Value::as_str);
    let pairs = x.iter().zip(y).map(|(a, b)| Some((id(a)?, a, b)).filter(|_| id(a) == id(b)));
    let pairs: Vec<_> = pairs.collect::<Option<_>>()?;
    Some(pairs.into_iter().filter(|(_, a, b)| a != b).collect())
}

/// Compares the touched entities of two manuals field by field and marks the author of each difference.
///
/// # Errors
/// What an entity holds that cannot be shown or kept, see [`check_value`].
pub(in crate::manual) fn compare(
    before: &Manual,
    after: &mut Manual,
    touched: &Touched,
    author: &str,
) -> Result<Change, Refusal> {
    let mut images = Vec::new();
    for (aspect, id) in touched.iter() {
        let (old, new) = (before.entity(*aspect, *id), after.entity(*aspect, *id));
        new.as_ref().map_or(Ok(()), check_value)?;
        let place = |field: Option<&String>| Place { aspect: *aspect, id: *id, field: field.cloned() };
        match (&old, &new) {
            (Some(Value::Object(a)), Some(Value::Object(b))) => {
                let fields: BTreeSet<&String> = a.keys().chain(b.keys()).collect();
                for field in fields {
                    let (x, y) = (a.get(field), b.get(field));
                    if x == y {
                        continue;
                    }
                    if let Some(entries) = x.zip(y).and_then(|(x, y)| entries(x, y)) {
                        for (id, a, b) in entries {
                            let place = place(Some(&format!("{field}/{id}")));
                            images.push(image(before, place, Some(a.clone()), Some(b.clone())));
                        }
                        continue;
                    }
                    let or_null = |v: Option<&Value>| Some(v.cloned().unwrap_or(Value::Null));
                    images.push(image(before, place(Some(field)), or_null(x), or_null(y)));
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
    Ok(Change { images })
}

fn image(before: &Manual, place: Place, old: Option<Value>, new: Option<Value>) -> Image {
    let authored_before = before.authored.get(&place.key()).cloned();
    Image { place, before: old, after: new, authored_before, authored_after: None }
}

impl Manual {
    /// Puts back what stood before `change`, and gives the change that undoes the undoing.
    ///
    /// # Errors
    /// [`Refusal::Clash`] names every place where somebody else's value stands now, [`Refusal::InUse`] what needs the thing
    /// that would go; nothing is changed then.
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
        // What was undone may be what somebody else's work stands on by now.
        match next.check_all() {
            Err(problem) if self.check_all().is_ok() => Err(Refusal::InUse { problem }),
            _ => Ok((next, Change { images })),
        }
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
                    self.entity(place.aspect, place.id).ok_or(Refusal::Gone { what: "entry", id: place.id })?;
                let value = value.unwrap_or(Value::Null);
                match field.split_once('/') {
                    None => whole[field] = value,
                    Some((list, id)) => {
                        let entry = whole.get_mut(list).and_then(Value::as_array_mut);
                        let entry = entry.and_then(|list| list.iter_mut().find(|item| has_id(item, id)));
                        *entry.ok_or(Refusal::Gone { what: "sentence", id: place.id })? = value;
                    }
                }
                Some(whole)
            }
        };
        self.set_entity(place.aspect, place.id, value)
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
