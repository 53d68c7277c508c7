//! The Listen stop: readings under the author's corrections, as lists, sheets and tables; a second recording.

use super::{Body, body};
use crate::author::Author;
use crate::problem::{Problem, Rows};
use crate::store::{Applied, EditRequest, Store};
use paso_core::ids::{ManualId, RecordingId};
use paso_core::manual::{
    Edit, HeardRecording, Manual, ReadingEdit, RecordingEdit, RowError, Source, draft_more, to_csv,
};
use paso_core::reading::{Comparison, FactSheet, compare};
use paso_core::recording::{Cue, MAX_BYTES, Recording};
use rocket::data::{Data, ToByteUnit};
use rocket::http::{ContentType, Status};
use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// One recording of a manual as the Listen stop shows it.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct ListenRecording {
    pub id: RecordingId,
    pub title: String,
    pub duration_ms: u64,
    pub timed: bool,
    pub cues: Vec<Cue>,
    pub heard: HeardRecording,
}

#[utoipa::path(context_path = "/api", tag = "listen", responses((status = 200, body = Vec<ListenRecording>), (status = 404, body = Problem)))]
#[get("/manuals/<id>/listen")]
pub async fn listen(id: Uuid, store: &State<Store>) -> Result<Json<Vec<ListenRecording>>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let mut out = Vec::new();
    for recording in manual.recordings.keys() {
        let (title, source) = store.source(recording.0).await?;
        out.push(ListenRecording {
            id: *recording,
            title,
            duration_ms: source.duration_ms(),
            timed: source.timed(),
            heard: manual.hear(*recording, &source),
            cues: source.cues,
        });
    }
    Ok(Json(out))
}

/// A recording of a manual, or the sentence that says that there is none.
async fn of_manual(store: &Store, id: Uuid, recording: Uuid) -> Result<(std::sync::Arc<Manual>, Recording), Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    if !manual.recordings.contains_key(&RecordingId(recording)) {
        return Err(Problem::not_found("recording in this manual"));
    }
    let (_, source) = store.source(recording).await?;
    Ok((manual, source))
}

#[utoipa::path(context_path = "/api", tag = "listen", responses((status = 200, body = FactSheet), (status = 404, body = Problem)))]
#[get("/manuals/<id>/recordings/<recording>/sheet")]
pub async fn sheet(id: Uuid, recording: Uuid, store: &State<Store>) -> Result<Json<FactSheet>, Problem> {
    let (manual, source) = of_manual(store, id, recording).await?;
    Ok(Json(manual.sheet(RecordingId(recording), &source)))
}

#[utoipa::path(context_path = "/api", tag = "listen", responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/recordings/<recording>/statements")]
pub async fn table(id: Uuid, recording: Uuid, store: &State<Store>) -> Result<(ContentType, String), Problem> {
    let (manual, source) = of_manual(store, id, recording).await?;
    Ok((ContentType::CSV, to_csv(&manual.hear(RecordingId(recording), &source))))
}

/// What an edited table asks for: one edit to send, none where nothing differs.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct TableRead {
    pub changes: usize,
    pub edit: Option<Edit>,
}

/// The whole of a table that was sent.
pub(super) async fn table_bytes(file: Data<'_>) -> Result<Vec<u8>, Problem> {
    // A table holds the text once more, and its facts.
    let limit = MAX_BYTES * 10;
    let read = file.open(limit.bytes()).into_bytes().await;
    let bytes = read.map_err(|e| Problem::invalid("table", format!("The file broke off while it was sent: {e}.")))?;
    if !bytes.is_complete() {
        return Err(Problem::invalid("table", format!("The table is larger than {limit} bytes.")));
    }
    Ok(bytes.into_inner())
}

/// Every cell that cannot be taken, as one answer.
pub(super) fn bad_rows(rows: Vec<RowError>) -> Problem {
    let detail = format!("{} of the rows cannot be taken; nothing was changed.", rows.len());
    Problem { rows: Some(Box::new(Rows(rows))), ..Problem::invalid("table", detail) }
}

/// The body is the edited table. Nothing is changed here; the edit that comes back is sent like any other.
#[utoipa::path(context_path = "/api", tag = "listen", request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = TableRead), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/manuals/<id>/recordings/<recording>/statements", data = "<file>")]
pub async fn read_table(
    id: Uuid,
    recording: Uuid,
    file: Data<'_>,
    store: &State<Store>,
) -> Result<Json<TableRead>, Problem> {
    let (manual, source) = of_manual(store, id, recording).await?;
    let bytes = table_bytes(file).await?;
    let heard = manual.hear(RecordingId(recording), &source);
    let edits = manual.from_csv(RecordingId(recording), &heard, &bytes).map_err(bad_rows)?;
    let changes = edits.len();
    let edit = (changes > 0).then_some(Edit::Reading(ReadingEdit::Several { edits }));
    Ok(Json(TableRead { changes, edit }))
}

#[utoipa::path(context_path = "/api", tag = "listen", responses((status = 200, body = Vec<Comparison>), (status = 404, body = Problem)))]
#[get("/manuals/<id>/compare/<first>/<second>")]
pub async fn differences(
    id: Uuid,
    first: Uuid,
    second: Uuid,
    store: &State<Store>,
) -> Result<Json<Vec<Comparison>>, Problem> {
    let (manual, one) = of_manual(store, id, first).await?;
    let (_, other) = of_manual(store, id, second).await?;
    Ok(Json(compare(&manual.sheet(RecordingId(first), &one), &manual.sheet(RecordingId(second), &other))))
}

/// Another recording for a manual.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct AddRecording {
    /// UUIDv7 made by the client; the same request sent twice is applied once.
    pub id: Uuid,
    pub base_seq: i64,
    pub recording: RecordingId,
    /// Append its steps; else it is only there to compare with.
    pub append: bool,
}

#[utoipa::path(context_path = "/api", tag = "listen", request_body = AddRecording, responses((status = 200, body = Applied), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/manuals/<id>/recordings", format = "json", data = "<request>")]
pub async fn add_recording(
    id: Uuid,
    author: Author,
    request: Body<'_, AddRecording>,
    store: &State<Store>,
) -> Result<(Status, Json<Applied>), Problem> {
    let request = body(request)?;
    let (_, manual) = store.manual(ManualId(id)).await?;
    let read = store.recording(request.recording.0).await?;
    let recording = read.reference();
    let drafted = if request.append {
        let source = Source { recording: recording.clone(), reading: &read.reading };
        Some(Box::new(draft_more(&manual, &source).map_err(|e| Problem::invalid("recording", e.to_string()))?))
    } else {
        None
    };
    let edit = Edit::Recording(RecordingEdit::Attach { recording, drafted });
    let request = EditRequest { id: request.id, base_seq: request.base_seq, edit };
    Ok((Status::Ok, Json(store.edit(ManualId(id), &author.0, &request).await?)))
}
