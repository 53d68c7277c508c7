//! Another recording for a manual: its steps appended, or only there to compare with.

use super::change::{Aspect, Refusal, Touched};
use super::steps::rank_between;
use super::*;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a recording adds to a manual.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Drafted {
    pub parts: Vec<Part>,
    pub steps: Vec<Step>,
    pub fasteners: Vec<FastenerGroup>,
    pub connectors: Vec<Connector>,
    pub seams: Vec<Seam>,
    pub heats: Vec<Heat>,
    pub cautions: Vec<Caution>,
}

/// Changes of the recordings that a manual draws on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RecordingEdit {
    /// Without steps the recording is only there to compare with.
    Attach { recording: RecordingRef, drafted: Option<Box<Drafted>> },
    /// The recording that stands where two differ.
    Follow { recording: Option<RecordingId> },
}

/// Drafts a recording's steps behind those that a manual has; parts of the same name are the same parts.
///
/// # Errors
/// [`Refusal::Invalid`] where the draft cannot be put together, which would be a fault of this program.
pub fn draft_more(manual: &Manual, source: &Source<'_>) -> Result<Drafted, Refusal> {
    let more =
        draft(ManualId(source.recording.id.0), &manual.head.title, &manual.head.device, std::slice::from_ref(source));
    let mut drafted = Drafted {
        parts: more.parts.values().cloned().collect(),
        steps: Vec::new(),
        fasteners: more.fasteners.values().cloned().collect(),
        connectors: more.connectors.values().cloned().collect(),
        seams: more.seams.values().cloned().collect(),
        heats: more.heats.values().cloned().collect(),
        cautions: more.cautions.values().cloned().collect(),
    };
    for phase in [Phase::Teardown, Phase::Rebuild] {
        let mut last = manual.steps_in(phase).last().map(|s| s.rank.clone());
        for step in more.steps_in(phase) {
            let rank = rank_between(last.as_deref(), None);
            last = Some(rank.clone());
            drafted.steps.push(Step { rank, ..step.clone() });
        }
    }
    let known: Vec<(PartId, PartId)> = drafted
        .parts
        .iter()
        .filter_map(|p| {
            let twin = manual.parts.values().find(|k| k.name.eq_ignore_ascii_case(&p.name))?;
            Some((p.id, twin.id))
        })
        .collect();
    drafted.parts.retain(|p| known.iter().all(|(new, _)| *new != p.id));
    renamed(&drafted, &known)
}

/// The draft with the ids of parts that the manual already has. Ids stand in many fields; as text they are all alike.
fn renamed(drafted: &Drafted, known: &[(PartId, PartId)]) -> Result<Drafted, Refusal> {
    let fault = |e: serde_json::Error| Refusal::Invalid { field: "drafted", problem: e.to_string() };
    let text = serde_json::to_string(drafted).map_err(fault)?;
    let text = known.iter().fold(text, |text, (new, old)| text.replace(&new.to_string(), &old.to_string()));
    serde_json::from_str(&text).map_err(fault)
}

impl Manual {
    pub(super) fn edit_recording(&mut self, edit: &RecordingEdit, touched: &mut Touched) -> Result<(), Refusal> {
        match edit {
            RecordingEdit::Attach { recording, drafted } => {
                if self.recordings.contains_key(&recording.id) {
                    return Err(Refusal::Exists { what: "recording", id: recording.id.0 });
                }
                touched.add(Aspect::Recordings, recording.id.0);
                self.recordings.insert(recording.id, recording.clone());
                if let Some(drafted) = drafted {
                    self.take_in(drafted, touched)?;
                }
                Ok(())
            }
            RecordingEdit::Follow { recording } => {
                if let Some(id) = recording.filter(|id| !self.recordings.contains_key(id)) {
                    return Err(Refusal::Gone { what: "recording", id: id.0 });
                }
                touched.add(Aspect::Head, self.id.0);
                self.head.follows = *recording;
                Ok(())
            }
        }
    }

    fn take_in(&mut self, drafted: &Drafted, touched: &mut Touched) -> Result<(), Refusal> {
        macro_rules! take {
            ($($field:ident: $aspect:ident),+) => {$(
                for entity in &drafted.$field {
                    if self.$field.contains_key(&entity.id) {
                        return Err(Refusal::Exists { what: "entry of the draft", id: entity.id.0 });
                    }
                    touched.add(Aspect::$aspect, entity.id.0);
                    self.$field.insert(entity.id, entity.clone());
                }
            )+};
        }
        take!(parts: Parts, steps: Steps, fasteners: Fasteners, connectors: Connectors, seams: Seams, heats: Heats, cautions: Cautions);
        Ok(())
    }
}
