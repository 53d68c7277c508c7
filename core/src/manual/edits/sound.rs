//! What the types cannot say of a manual: every reference leads somewhere, every figure can be meant, every text can be
//! shown.
//!
//! There is one validator. A file that is imported is judged whole; an edit is judged by what it touched, whether a form,
//! a draft inside the edit or a table brought it. Each entity says beside its own fields what must hold of it ([`Sound`]);
//! what holds for all of them (keys, texts, sizes) stands here.

use super::place::Touched;
use super::refusal::{MAX_TEXT, Refusal, note};
use crate::manual::{Aspect, Entity, Manual};
use serde_json::Value;
use uuid::Uuid;

/// What must hold of an entity besides its types.
pub(in crate::manual) trait Sound {
    /// # Errors
    /// Names the field and what is wrong with it.
    fn sound(&self, manual: &Manual) -> Result<(), Refusal>;
}

/// Most entities of one kind, and most entries of one list: ten times the largest device anybody takes apart.
const MOST: usize = 20_000;

impl Manual {
    /// Judges the whole manual, as one that comes from a file.
    ///
    /// # Errors
    /// What does not hold, with the kind and id of the entity it is about.
    pub fn check_all(&self) -> Result<(), String> {
        self.check_entity(Aspect::Head, self.id.0).map_err(|e| says("head", self.id.0, &e))?;
        let mut wrong = None;
        self.for_each_entity(|aspect, what, key, id| {
            if wrong.is_none() {
                let judged = if key == id { self.check_entity(aspect, id) } else { Err(misplaced(key)) };
                wrong = judged.map_err(|e| says(what, id, &e)).err();
            }
        });
        wrong.map_or(Ok(()), Err)
    }

    /// Judges what an edit touched, its texts and lists apart: those are judged where they are compared, see
    /// [`check_value`].
    pub(super) fn check_touched(&self, touched: &Touched) -> Result<(), Refusal> {
        touched.iter().try_for_each(|(aspect, id)| self.sound_at(*aspect, *id))
    }

    pub(super) fn check_entity(&self, aspect: Aspect, id: Uuid) -> Result<(), Refusal> {
        if let Some(value) = self.entity(aspect, id) {
            check_value(&value)?;
        }
        self.sound_at(aspect, id)
    }

    /// Refuses a reference that leads nowhere.
    pub(in crate::manual) fn refers<T: Entity>(
        &self,
        field: &'static str,
        ids: impl IntoIterator<Item = T::Id>,
    ) -> Result<(), Refusal> {
        match ids.into_iter().find(|id| !T::map(self).contains_key(id)) {
            Some(id) => {
                let id: Uuid = id.into();
                Err(Refusal::invalid(field, format!("it refers to a {} {id} that is not listed", T::WHAT)))
            }
            None => Ok(()),
        }
    }
}

fn misplaced(key: Uuid) -> Refusal {
    Refusal::invalid("id", format!("it is listed under another id, {key}"))
}

/// "seam 0192…: depth_mm: …", to stand in a sentence.
fn says(what: &str, id: Uuid, refusal: &Refusal) -> String {
    format!("{what} {id}: {}", refusal.to_string().trim_end_matches('.'))
}

/// Texts that can be shown and lists that end, wherever in the entity they stand. An explicit stack, as the depth comes
/// from outside.
pub(super) fn check_value(value: &Value) -> Result<(), Refusal> {
    let mut open = vec![value];
    while let Some(value) = open.pop() {
        match value {
            Value::String(text) => drop(note("text", text, MAX_TEXT)?),
            Value::Array(items) if items.len() > MOST => {
                let problem = format!("a list of {} entries cannot be meant; at most {MOST} fit", items.len());
                return Err(Refusal::invalid("list", problem));
            }
            Value::Array(items) => open.extend(items),
            Value::Object(fields) => open.extend(fields.values()),
            _ => {}
        }
    }
    Ok(())
}
