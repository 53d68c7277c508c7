//! Every aspect of a manual, declared once: its map, its entity, the id it goes by, and what people call one of them.
//!
//! From one line come the field of [`Manual`], the value of [`Aspect`], reading and writing an entity as JSON (which is
//! all that images, undo and replay need), and [`Entity`], by which the edits of an aspect come and go.

use super::edits::place::Touched;
use super::edits::refusal::Refusal;
use super::edits::sound::Sound;
use super::of_steps::OfSteps;
use super::*;
use serde::de::DeserializeOwned;
use serde_json::Value;
use uuid::Uuid;

/// Something that a manual holds in a map of its own.
pub trait Entity: Clone + Serialize + DeserializeOwned {
    type Id: Copy + Ord + Into<Uuid> + From<Uuid>;
    const ASPECT: Aspect;
    /// What people call one: "group of screws".
    const WHAT: &'static str;

    fn id(&self) -> Self::Id;
    fn map(manual: &Manual) -> &BTreeMap<Self::Id, Self>;
    fn map_mut(manual: &mut Manual) -> &mut BTreeMap<Self::Id, Self>;

    /// What is said of one that is not there.
    fn gone(id: Self::Id) -> Refusal {
        Refusal::Gone { what: Self::WHAT, id: id.into() }
    }
}

macro_rules! aspects {
    ($($(#[$meta:meta])* $field:ident: $variant:ident, $map:ident[$id:ident => $entity:ident], $what:literal;)+) => {
        /// Which map of the manual an entity lives in.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
        #[serde(rename_all = "snake_case")]
        pub enum Aspect {
            /// Title, device and language; its id is the manual's.
            Head,
            $($variant,)+
        }

        /// What is known of one device.
        #[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
        pub struct Manual {
            /// The format version of this value, see [`FORMAT`].
            pub format: u32,
            pub id: ManualId,
            pub head: Head,
            $(
                $(#[$meta])*
                #[schema(value_type = BTreeMap<$id, $entity>)]
                pub $field: $map<$id, $entity>,
            )+
            /// Only in a manual cut to one job; never saved.
            #[serde(skip)]
            #[schema(ignore)]
            pub cut: Option<JobCut>,
            /// Who last set a field by hand, by place; a field that is not here still follows the reading.
            pub authored: BTreeMap<String, String>,
        }

        impl Manual {
            /// An empty manual.
            pub fn new(id: ManualId, title: &str, device: &str) -> Self {
                Self {
                    format: FORMAT,
                    id,
                    head: Head::new(title, device),
                    $($field: $map::default(),)+
                    cut: None,
                    authored: BTreeMap::new(),
                }
            }

            /// Reads one entity as JSON.
            pub(super) fn entity(&self, aspect: Aspect, id: Uuid) -> Option<Value> {
                match aspect {
                    Aspect::Head => Some(serde_json::to_value(&self.head).expect("the head is plain data")),
                    $(Aspect::$variant => json_of(&self.$field, id),)+
                }
            }

            /// Shows each entity: its aspect, what people call one, the key it is listed under and its own id.
            pub(super) fn for_each_entity(&self, mut show: impl FnMut(Aspect, &'static str, Uuid, Uuid)) {
                $(for (key, entity) in &self.$field {
                    show(Aspect::$variant, $what, (*key).into(), entity.id.into());
                })+
            }

            /// What must hold of one entity besides its types.
            pub(super) fn sound_at(&self, aspect: Aspect, id: Uuid) -> Result<(), Refusal> {
                match aspect {
                    Aspect::Head => self.head.sound(self),
                    $(Aspect::$variant => self.$field.get(&id.into()).map_or(Ok(()), |e| e.sound(self)),)+
                }
            }

            /// Writes one entity from JSON, or takes it away.
            pub(super) fn set_entity(&mut self, aspect: Aspect, id: Uuid, value: Option<Value>) -> Result<(), Refusal> {
                match aspect {
                    Aspect::Head => self.head = read(value.unwrap_or_default())?,
                    $(Aspect::$variant => put_json(&mut self.$field, id, value)?,)+
                }
                Ok(())
            }
        }

        $(impl Entity for $entity {
            type Id = $id;
            const ASPECT: Aspect = Aspect::$variant;
            const WHAT: &'static str = $what;

            fn id(&self) -> $id {
                self.id
            }

            fn map(manual: &Manual) -> &BTreeMap<$id, Self> {
                &manual.$field
            }

            fn map_mut(manual: &mut Manual) -> &mut BTreeMap<$id, Self> {
                &mut manual.$field
            }
        })+
    };
}

aspects! {
    recordings: Recordings, BTreeMap[RecordingId => RecordingRef], "recording";
    parts: Parts, BTreeMap[PartId => Part], "part";
    steps: Steps, BTreeMap[StepId => Step], "step";
    fasteners: Fasteners, OfSteps[GroupId => FastenerGroup], "group of screws";
    connectors: Connectors, OfSteps[ConnectorId => Connector], "connector";
    seams: Seams, OfSteps[SeamId => Seam], "seam";
    heats: Heats, OfSteps[HeatId => Heat], "heat setting";
    cautions: Cautions, OfSteps[CautionId => Caution], "caution";
    corrections: Corrections, BTreeMap[CorrectionId => Correction], "correction";
    #[serde(default)]
    word_fixes: WordFixes, BTreeMap[CorrectionId => WordFix], "corrected word";
    #[serde(default)]
    cuts: Cuts, BTreeMap[CorrectionId => Cut], "cut between statements";
    #[serde(default)]
    settled: Settled, BTreeMap[CorrectionId => Settled], "settled contradiction";
    jobs: Jobs, BTreeMap[JobId => Job], "guide";
    variants: Variants, BTreeMap[VariantId => Variant], "variant";
    #[serde(default)]
    requirements: Requirements, BTreeMap[RequirementId => Requirement], "condition";
    #[serde(default)]
    notes: Notes, BTreeMap[NoteId => Note], "note";
    /// What is laid out at the start.
    #[serde(default)]
    kit: Kit, BTreeMap[ToolId => LaidOut], "tool";
    /// Outlines on which the holes of screws are placed.
    #[serde(default)]
    layers: Layers, BTreeMap[LayerId => Layer], "layer";
    /// Findings that an author has looked at and let be.
    #[serde(default)]
    set_aside: SetAside, BTreeMap[FindingKey => SetAside], "finding that was set aside";
}

fn json_of<K: Ord + From<Uuid>, T: Serialize>(map: &BTreeMap<K, T>, id: Uuid) -> Option<Value> {
    map.get(&K::from(id)).map(|t| serde_json::to_value(t).expect("entities are plain data"))
}

fn put_json<K: Ord + From<Uuid>, T: DeserializeOwned>(
    map: &mut BTreeMap<K, T>,
    id: Uuid,
    value: Option<Value>,
) -> Result<(), Refusal> {
    match value {
        None => map.remove(&K::from(id)),
        Some(value) => map.insert(K::from(id), read(value)?),
    };
    Ok(())
}

fn read<T: DeserializeOwned>(value: Value) -> Result<T, Refusal> {
    serde_json::from_value(value).map_err(|e| Refusal::Invalid { field: "image", problem: e.to_string() })
}

impl Manual {
    /// Whatever refers to one id refers to another: every field of every entity, lists without doubling.
    pub(super) fn refer_to(&mut self, from: Uuid, to: Uuid, touched: &mut Touched) -> Result<(), Refusal> {
        let mut all = Vec::new();
        self.for_each_entity(|aspect, _, _, id| all.push((aspect, id)));
        let (from, to) = (from.to_string(), to.to_string());
        for (aspect, id) in all {
            let Some(mut value) = self.entity(aspect, id) else { continue };
            if refers_elsewhere(&mut value, &from, &to) {
                touched.add(aspect, id);
                self.set_entity(aspect, id, Some(value))?;
            }
        }
        Ok(())
    }
}

/// Replaces an id in a value, as a text or a key, and says whether it was there. Entities nest a few levels deep.
fn refers_elsewhere(value: &mut Value, from: &str, to: &str) -> bool {
    match value {
        Value::String(text) if text == from => {
            to.clone_into(text);
            true
        }
        Value::Array(items) => {
            let mut found = false;
            for item in items.iter_mut() {
                found |= refers_elsewhere(item, from, to);
            }
            if found {
                let mut there = false;
                items.retain(|item| item != to || !std::mem::replace(&mut there, true));
            }
            found
        }
        Value::Object(fields) => {
            let mut found = false;
            if let Some(held) = fields.remove(from) {
                fields.entry(to).or_insert(held);
                found = true;
            }
            for field in fields.values_mut() {
                found |= refers_elsewhere(field, from, to);
            }
            found
        }
        _ => false,
    }
}

/// How the edits of an aspect come by its entities; each says what it touches.
impl Manual {
    /// Refuses an id that is taken.
    pub(super) fn must_be_new<T: Entity>(&self, id: T::Id) -> Result<(), Refusal> {
        if T::map(self).contains_key(&id) {
            return Err(Refusal::Exists { what: T::WHAT, id: id.into() });
        }
        Ok(())
    }

    /// Refuses an id that nothing goes by.
    pub(super) fn must_be_there<T: Entity>(&self, id: T::Id) -> Result<&T, Refusal> {
        T::map(self).get(&id).ok_or_else(|| T::gone(id))
    }

    /// The same where there may be none.
    pub(super) fn may_be<T: Entity>(&self, id: Option<T::Id>) -> Result<(), Refusal> {
        id.map_or(Ok(()), |id| self.must_be_there::<T>(id).map(drop))
    }

    /// Every one of them is there.
    pub(super) fn must_all_be_there<T: Entity>(&self, ids: &[T::Id]) -> Result<(), Refusal> {
        ids.iter().try_for_each(|id| self.must_be_there::<T>(*id).map(drop))
    }

    /// Adds an entity, or writes over the one that goes by its id.
    pub(super) fn put_entity<T: Entity>(&mut self, entity: T, touched: &mut Touched) {
        touched.add(T::ASPECT, entity.id().into());
        T::map_mut(self).insert(entity.id(), entity);
    }

    /// An entity to change.
    pub(super) fn change_entity<T: Entity>(&mut self, id: T::Id, touched: &mut Touched) -> Result<&mut T, Refusal> {
        touched.add(T::ASPECT, id.into());
        T::map_mut(self).get_mut(&id).ok_or_else(|| T::gone(id))
    }

    /// Takes an entity away.
    pub(super) fn take_entity<T: Entity>(&mut self, id: T::Id, touched: &mut Touched) -> Result<T, Refusal> {
        touched.add(T::ASPECT, id.into());
        T::map_mut(self).remove(&id).ok_or_else(|| T::gone(id))
    }

    /// Takes away whatever does not pass.
    pub(super) fn keep_entities<T: Entity>(&mut self, keep: impl Fn(&T) -> bool, touched: &mut Touched) {
        for gone in T::map(self).values().filter(|e| !keep(e)) {
            touched.add(T::ASPECT, gone.id().into());
        }
        T::map_mut(self).retain(|_, e| keep(e));
    }

    /// Changes whatever passes.
    pub(super) fn change_entities<T: Entity>(
        &mut self,
        which: impl Fn(&T) -> bool,
        mut change: impl FnMut(&mut T),
        touched: &mut Touched,
    ) {
        for entity in T::map_mut(self).values_mut().filter(|e| which(e)) {
            touched.add(T::ASPECT, entity.id().into());
            change(entity);
        }
    }
}
