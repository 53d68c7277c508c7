//! A map of what hangs on steps, which knows without a search what hangs on which.
//!
//! Nearly every rule asks of each step for its screws, plugs and settings. Looked for in the whole map each time, that is
//! steps times screws; so the map keeps a row for each step, made when first asked for and forgotten with any change.

use super::model::evidence::Evidence;
use super::told_at;
use crate::ids::StepId;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use std::collections::{BTreeMap, btree_map};
use std::ops::{Deref, DerefMut};
use std::sync::OnceLock;

/// Something that hangs on one step.
pub trait OfStep {
    fn step(&self) -> StepId;
    fn evidence(&self) -> &[Evidence];
}

/// Entities by their id, and by the step they hang on. It reads and changes like the map that it is.
#[derive(Debug)]
pub struct OfSteps<K, T> {
    map: BTreeMap<K, T>,
    rows: OnceLock<BTreeMap<StepId, Vec<K>>>,
}

impl<K: Ord + Copy, T: OfStep> OfSteps<K, T> {
    /// What hangs on a step, in the order in which it was told; what nobody told comes last. Ids do not sort by time.
    pub fn of(&self, step: StepId) -> impl Iterator<Item = &T> {
        let row = self.rows.get_or_init(|| self.rows()).get(&step);
        row.into_iter().flatten().map(|id| &self.map[id])
    }

    fn rows(&self) -> BTreeMap<StepId, Vec<K>> {
        let mut rows: BTreeMap<StepId, Vec<K>> = BTreeMap::new();
        for (id, entity) in &self.map {
            rows.entry(entity.step()).or_default().push(*id);
        }
        for row in rows.values_mut() {
            row.sort_by_key(|id| told_at(self.map[id].evidence()));
        }
        rows
    }
}

impl<K, T> From<BTreeMap<K, T>> for OfSteps<K, T> {
    fn from(map: BTreeMap<K, T>) -> Self {
        Self { map, rows: OnceLock::new() }
    }
}

impl<K: Clone, T: Clone> Clone for OfSteps<K, T> {
    /// The rows are made again by whoever asks: most copies are made to be changed.
    fn clone(&self) -> Self {
        Self::from(self.map.clone())
    }
}

impl<K, T> Default for OfSteps<K, T> {
    fn default() -> Self {
        Self::from(BTreeMap::new())
    }
}

impl<K: PartialEq, T: PartialEq> PartialEq for OfSteps<K, T> {
    fn eq(&self, other: &Self) -> bool {
        self.map == other.map
    }
}

impl<K, T> Deref for OfSteps<K, T> {
    type Target = BTreeMap<K, T>;

    fn deref(&self) -> &Self::Target {
        &self.map
    }
}

impl<K, T> DerefMut for OfSteps<K, T> {
    fn deref_mut(&mut self) -> &mut Self::Target {
        self.rows.take();
        &mut self.map
    }
}

impl<'a, K, T> IntoIterator for &'a OfSteps<K, T> {
    type Item = (&'a K, &'a T);
    type IntoIter = btree_map::Iter<'a, K, T>;

    fn into_iter(self) -> Self::IntoIter {
        self.map.iter()
    }
}

impl<K: Serialize, T: Serialize> Serialize for OfSteps<K, T> {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        self.map.serialize(serializer)
    }
}

impl<'de, K: Ord + Deserialize<'de>, T: Deserialize<'de>> Deserialize<'de> for OfSteps<K, T> {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        BTreeMap::deserialize(deserializer).map(Self::from)
    }
}

macro_rules! hang_on_steps {
    ($($entity:ident),+) => {
        $(impl OfStep for super::$entity {
            fn step(&self) -> StepId {
                self.step
            }

            fn evidence(&self) -> &[Evidence] {
                &self.evidence
            }
        })+
    };
}

hang_on_steps!(FastenerGroup, Connector, Seam, Heat, Caution);

#[cfg(test)]
mod tests {
    use crate::ids::StepId;
    use crate::manual::{CautionEdit, CautionField, Edit, Manual, drafted};

    fn told_of(manual: &Manual, step: StepId) -> Vec<String> {
        manual.cautions_of(step).map(|c| c.text.clone()).collect()
    }

    /// What was asked before a change is not answered again behind it.
    #[test]
    fn rows_follow_a_change() {
        let manual = drafted::manual(
            "[0:00] Caution, the rim is sharp. Take off the cover.\n\n[0:20] Take out the fan.\n\n[0:40] Take out the tray.",
        );
        let (id, from) = manual.cautions.values().map(|c| (c.id, c.step)).next().expect("a caution was told");
        let to = manual.steps.keys().copied().find(|s| *s != from).expect("there are other steps");
        assert_eq!((told_of(&manual, from).len(), told_of(&manual, to).len()), (1, 0));
        let edit = Edit::Caution(CautionEdit::Set { id, field: CautionField::Step(to) });
        let moved = manual.apply(&edit, "Ann").unwrap().0;
        assert_eq!((told_of(&moved, from).len(), told_of(&moved, to).len()), (0, 1));
        let mut by_hand = moved.clone();
        assert_eq!(told_of(&by_hand, to).len(), 1);
        by_hand.cautions.clear();
        assert_eq!(told_of(&by_hand, to).len(), 0);
    }
}
