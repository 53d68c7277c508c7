//! Recordings: kept as they were brought, read once for as long as nobody corrects them.

use super::{Store, StoreError, to_json};
use crate::entity::recording;
use paso_core::checks;
use paso_core::finding::Finding;
use paso_core::ids::{ManualId, RecordingId};
use paso_core::manual::{CorrectedReading, Corrections, Manual, RecordingRef};
use paso_core::reading::{self, StatementKind};
use paso_core::recording::Recording;
use sea_orm::{EntityTrait, PaginatorTrait, Set, TryInsertResult};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use std::sync::Arc;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// A recording as it reads under somebody's corrections.
pub struct Kept {
    pub title: String,
    pub source: Arc<Recording>,
    pub read: CorrectedReading,
    corrections: Corrections,
}

impl Kept {
    /// How a manual refers to it.
    pub fn reference(&self) -> RecordingRef {
        RecordingRef { id: self.read.recording, title: self.title.clone(), duration_ms: self.source.duration_ms() }
    }
}

/// The readings that were asked for last, whichever manual asked: the text of a recording never changes under its id, so
/// two that are corrected alike read alike. A new version of the reader begins with none.
#[derive(Default)]
pub(super) struct Readings(Vec<Arc<Kept>>);

impl Readings {
    /// So many are kept in memory; one of an hour of speech takes some megabytes.
    const MOST: usize = 64;

    fn find(&mut self, corrections: &Corrections) -> Option<Arc<Kept>> {
        let at = self.0.iter().position(|kept| kept.corrections == *corrections)?;
        let kept = self.0.remove(at);
        self.0.push(kept.clone());
        Some(kept)
    }

    /// The text of a recording that was read under other corrections.
    fn text(&self, recording: RecordingId) -> Option<(String, Arc<Recording>)> {
        let kept = self.0.iter().find(|kept| kept.read.recording == recording)?;
        Some((kept.title.clone(), kept.source.clone()))
    }

    fn keep(&mut self, kept: Arc<Kept>) {
        self.0.retain(|other| other.corrections != kept.corrections);
        if self.0.len() == Self::MOST {
            self.0.remove(0);
        }
        self.0.push(kept);
    }
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
        let uncorrected = Corrections::none(id);
        let fallback = name.to_owned();
        let (source, read) = self
            .readers
            .run(move || {
                let read = Recording::parse(&source).map(|recording| {
                    let title = recording.title.clone().unwrap_or(fallback);
                    Kept {
                        title,
                        read: uncorrected.read(&recording),
                        source: Arc::new(recording),
                        corrections: uncorrected,
                    }
                });
                (source, read)
            })
            .await?;
        let kept = Arc::new(read?);
        let recording = &kept.source;
        let row = recording::ActiveModel {
            id: Set(id.0),
            title: Set(kept.title.clone()),
            source: Set(source.clone()),
            parsed: Set(to_json(&**recording)?),
            created_at: Set(OffsetDateTime::now_utc()),
        };
        let new = recording::Entity::insert(row).on_conflict_do_nothing_on([recording::Column::Id]);
        if let TryInsertResult::Conflicted = new.exec(&self.db).await? {
            let stored = recording::Entity::find_by_id(id.0).one(&self.db).await?;
            if stored.is_none_or(|stored| stored.source != source) {
                return Err(StoreError::Reused(id.0));
            }
        }
        self.keep_reading(kept.clone());
        Ok(RecordingInfo {
            id,
            title: kept.title.clone(),
            segments: recording.cues.len(),
            duration_ms: recording.duration_ms(),
            timed: recording.timed(),
            statements: reading::tally(&kept.read.reading.statements),
            mended: recording.mended.clone(),
        })
    }

    /// A recording with its title, unread.
    pub async fn source(&self, id: Uuid) -> Result<(String, Recording), StoreError> {
        let row = recording::Entity::find_by_id(id).one(&self.db).await?.ok_or(StoreError::NotFound("recording"))?;
        let recording = serde_json::from_value(row.parsed).map_err(|e| StoreError::Stored(e.to_string()))?;
        Ok((row.title, recording))
    }

    /// A recording, read by today's reader and put right by nobody.
    pub async fn recording(&self, id: Uuid) -> Result<Arc<Kept>, StoreError> {
        // Another server before this database may have deleted it.
        if recording::Entity::find_by_id(id).count(&self.db).await? == 0 {
            self.forget_readings(RecordingId(id));
            return Err(StoreError::NotFound("recording"));
        }
        self.read_under(Corrections::none(RecordingId(id))).await
    }

    /// What the recordings of a manual say against themselves, and what this house put right elsewhere.
    pub async fn heard(&self, id: ManualId, manual: &Manual) -> Result<Vec<Finding>, StoreError> {
        let mut out = Vec::new();
        let house = self.house(id).await?;
        for recording in manual.recordings.keys() {
            let kept = self.read(manual, *recording).await?;
            out.extend(checks::listen::findings(manual, &kept.read, &house));
        }
        Ok(out)
    }

    /// A recording under a manual's corrections: read anew only after somebody has corrected it.
    pub async fn read(&self, manual: &Manual, recording: RecordingId) -> Result<Arc<Kept>, StoreError> {
        self.read_under(manual.corrections_of(recording)).await
    }

    async fn read_under(&self, corrections: Corrections) -> Result<Arc<Kept>, StoreError> {
        let recording = corrections.recording();
        let (known, text) = {
            let mut readings = self.readings.lock().expect("no panic while held");
            (readings.find(&corrections), readings.text(recording))
        };
        if let Some(kept) = known {
            return Ok(kept);
        }
        let (title, source) = match text {
            Some(text) => text,
            None => self.source(recording.0).await.map(|(title, source)| (title, Arc::new(source)))?,
        };
        let reading = self.readers.run(move || {
            let read = corrections.read(&source);
            Kept { title, source, read, corrections }
        });
        let kept = Arc::new(reading.await?);
        self.keep_reading(kept.clone());
        Ok(kept)
    }

    /// Lets go of what was read of a recording that is gone.
    pub(super) fn forget_readings(&self, recording: RecordingId) {
        self.readings.lock().expect("no panic while held").0.retain(|kept| kept.read.recording != recording);
    }

    fn keep_reading(&self, kept: Arc<Kept>) {
        self.readings.lock().expect("no panic while held").keep(kept);
    }
}
