//! Recordings: kept as they were brought, read once for as long as nobody corrects them.

use super::{Store, StoreError, keep, to_json};
use crate::entity::recording;
use paso_core::checks;
use paso_core::finding::Finding;
use paso_core::ids::{ManualId, RecordingId};
use paso_core::manual::{CorrectedReading, Corrections, Manual, RecordingRef};
use paso_core::reading::{self, Reading, StatementKind};
use paso_core::recording::Recording;
use sea_orm::{EntityTrait, Set, TryInsertResult};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use std::sync::Arc;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// A recording with its reading.
pub struct ReadRecording {
    pub id: RecordingId,
    pub title: String,
    pub recording: Recording,
    pub reading: Reading,
}

impl ReadRecording {
    /// How a manual refers to it.
    pub fn reference(&self) -> RecordingRef {
        RecordingRef { id: self.id, title: self.title.clone(), duration_ms: self.recording.duration_ms() }
    }
}

/// A recording as it reads under the corrections of a manual.
pub struct Kept {
    pub title: String,
    pub source: Recording,
    pub read: CorrectedReading,
    corrections: Corrections,
}

/// What became of a file that was brought.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct RecordingInfo {
    pub id: RecordingId,
    pub title: String,
    pub segments: usize,
    pub duration_ms: u64,
    pub timed: bool,
    /// How many statements of each kind were read.
    pub statements: BTreeMap<StatementKind, usize>,
    /// What had to be mended in the file.
    pub mended: Vec<paso_core::recording::Mended>,
}

impl Store {
    /// Keeps a recording, after reading it once to see that it can be read. Brought twice under one id, it is kept once.
    pub async fn bring(&self, id: RecordingId, name: &str, source: Vec<u8>) -> Result<RecordingInfo, StoreError> {
        self.room_for_recording(source.len()).await?;
        let (source, read) = self
            .readers
            .run(move || {
                let read = Recording::parse(&source).map(|recording| {
                    let reading = reading::read(&recording);
                    (recording, reading)
                });
                (source, read)
            })
            .await?;
        let (recording, reading) = read?;
        let title = recording.title.clone().unwrap_or_else(|| name.to_owned());
        let row = recording::ActiveModel {
            id: Set(id.0),
            title: Set(title.clone()),
            source: Set(source.clone()),
            parsed: Set(to_json(&recording)?),
            created_at: Set(OffsetDateTime::now_utc()),
        };
        let new = recording::Entity::insert(row).on_conflict_do_nothing_on([recording::Column::Id]);
        if let TryInsertResult::Conflicted = new.exec(&self.db).await? {
            let kept = recording::Entity::find_by_id(id.0).one(&self.db).await?;
            if kept.is_none_or(|kept| kept.source != source) {
                return Err(StoreError::Reused(id.0));
            }
        }
        Ok(RecordingInfo {
            id,
            title,
            segments: recording.cues.len(),
            duration_ms: recording.duration_ms(),
            timed: recording.timed(),
            statements: reading::tally(&reading.statements),
            mended: recording.mended,
        })
    }

    /// A recording with its title, unread.
    pub async fn source(&self, id: Uuid) -> Result<(String, Recording), StoreError> {
        let row = recording::Entity::find_by_id(id).one(&self.db).await?.ok_or(StoreError::NotFound("recording"))?;
        let recording = serde_json::from_value(row.parsed).map_err(|e| StoreError::Stored(e.to_string()))?;
        Ok((row.title, recording))
    }

    /// A recording, read by today's reader.
    pub async fn recording(&self, id: Uuid) -> Result<ReadRecording, StoreError> {
        let (title, recording) = self.source(id).await?;
        let (recording, reading) = self
            .readers
            .run(move || {
                let reading = reading::read(&recording);
                (recording, reading)
            })
            .await?;
        Ok(ReadRecording { id: RecordingId(id), title, recording, reading })
    }

    /// What the recordings of a manual say against themselves, and what this house put right elsewhere.
    pub async fn heard(&self, id: ManualId, manual: &Manual) -> Result<Vec<Finding>, StoreError> {
        let mut out = Vec::new();
        let house = self.house(id).await?;
        for recording in manual.recordings.keys() {
            let kept = self.read(id, manual, *recording).await?;
            out.extend(checks::listen::findings(manual, &kept.read, &house));
        }
        Ok(out)
    }

    /// A recording under a manual's corrections: read anew only after somebody has corrected it.
    pub async fn read(&self, id: ManualId, manual: &Manual, recording: RecordingId) -> Result<Arc<Kept>, StoreError> {
        let corrections = manual.corrections_of(recording);
        let key = (id, recording);
        let known = self.readings.lock().expect("no panic while held").get(&key).cloned();
        if let Some(kept) = known.as_ref().filter(|k| k.corrections == corrections) {
            return Ok(kept.clone());
        }
        // The text of a recording never changes.
        let (title, source) = match known {
            Some(kept) => (kept.title.clone(), kept.source.clone()),
            None => self.source(recording.0).await?,
        };
        let reading = self.readers.run(move || {
            let read = corrections.read(&source);
            Kept { title, source, read, corrections }
        });
        let kept = Arc::new(reading.await?);
        keep(&self.readings, key, kept.clone());
        Ok(kept)
    }
}
