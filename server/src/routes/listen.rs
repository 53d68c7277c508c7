//! The Listen stop: readings under the author's corrections, as lists, sheets and tables; a second recording.

use super::body::{Body, Unread, storable};
use crate::author::Author;
use crate::problem::{Problem, Rows};
use crate::store::{Applied, EditRequest, Kept, Store};
use paso_core::ids::{ManualId, RecordingId, StepId};
use paso_core::manual::{Edit, HeardPlace, Manual, ReadingEdit, RecordingEdit, RowError, Source, draft_more, to_csv};
use paso_core::reading::{Comparison, FactSheet, compare};
use paso_core::recording::MAX_BYTES;
use paso_core::stops::listen::{ListenView, view};
use rocket::data::ToByteUnit;
use rocket::http::{ContentType, Status};
use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use std::mem;
use std::sync::Arc;
use utoipa::ToSchema;
use uuid::Uuid;

super::endpoints!(listen, heard, step, sheet, table, read_table, differences, add_recording);

#[utoipa::path(context_path = "/api", tag = "listen", responses((status = 200, body = Vec<ListenView>), (status = 404, body = Problem)))]
#[get("/manuals/<id>/listen")]
pub async fn listen(id: Uuid, store: &State<Store>) -> Result<Json<Vec<ListenView>>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let mut out = Vec::new();
    for recording in manual.recordings.keys() {
        let kept = store.read(&manual, *recording).await?;
        out.push(view(&manual, kept.title.clone(), &kept.source, &kept.read));
    }
    Ok(Json(out))
}

/// Every place in the recordings where some words were heard as whole words.
#[utoipa::path(context_path = "/api", tag = "listen", params(("find" = String, Query)), responses((status = 200, body = Vec<HeardPlace>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/manuals/<id>/heard?<find>")]
pub async fn heard(id: Uuid, find: &str, store: &State<Store>) -> Result<Json<Vec<HeardPlace>>, Problem> {
    storable("find", find)?;
    let (_, manual) = store.manual(ManualId(id)).await?;
    let mut out = Vec::new();
    for recording in manual.recordings.keys() {
        out.extend(store.read(&manual, *recording).await?.read.places(find));
    }
    Ok(Json(out))
}

/// A step made of one statement.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct StepFrom {
    pub step: StepId,
    /// Send it like any other edit.
    pub edit: Edit,
}

/// The edit that makes a step of the statement that begins at a character; nothing is changed here.
#[utoipa::path(context_path = "/api", tag = "listen", responses((status = 200, body = StepFrom), (status = 404, body = Problem)))]
#[get("/manuals/<id>/recordings/<recording>/statements/<start>/step")]
pub async fn step(id: Uuid, recording: Uuid, start: usize, store: &State<Store>) -> Result<Json<StepFrom>, Problem> {
    let (manual, kept) = of_manual(store, id, recording).await?;
    let statement = kept.read.reading.statements.iter().find(|s| s.start == start);
    let statement = statement.ok_or_else(|| Problem::not_found("statement at this character"))?;
    let (step, edit) = manual.step_from(RecordingId(recording), statement);
    Ok(Json(StepFrom { step, edit }))
}

/// A recording of a manual, or the sentence that says that there is none.
async fn of_manual(store: &Store, id: Uuid, recording: Uuid) -> Result<(Arc<Manual>, Arc<Kept>), Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    if !manual.recordings.contains_key(&RecordingId(recording)) {
        return Err(Problem::not_found("recording in this manual"));
    }
    let kept = store.read(&manual, RecordingId(recording)).await?;
    Ok((manual, kept))
}

#[utoipa::path(context_path = "/api", tag = "listen", responses((status = 200, body = FactSheet), (status = 404, body = Problem)))]
#[get("/manuals/<id>/recordings/<recording>/sheet")]
pub async fn sheet(id: Uuid, recording: Uuid, store: &State<Store>) -> Result<Json<FactSheet>, Problem> {
    Ok(Json(of_manual(store, id, recording).await?.1.read.sheet().clone()))
}

#[utoipa::path(context_path = "/api", tag = "listen", responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/recordings/<recording>/statements")]
pub async fn table(id: Uuid, recording: Uuid, store: &State<Store>) -> Result<(ContentType, String), Problem> {
    let (manual, kept) = of_manual(store, id, recording).await?;
    Ok((ContentType::CSV, to_csv(&manual.hear(&kept.source, &kept.read))))
}

/// What an edited table asks for: edits to send one after another, none where nothing differs.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct TableRead {
    pub changes: usize,
    pub edits: Vec<Edit>,
}

/// Half of what the body of one edit may be.
const MOST_OF_AN_EDIT: usize = 500_000;

impl TableRead {
    /// Divides what a table asks for, so that every edit fits into a request.
    pub(super) fn of<E: Serialize>(changes: Vec<E>, several: impl Fn(Vec<E>) -> Edit) -> Result<Self, Problem> {
        let mut read = Self { changes: changes.len(), edits: Vec::new() };
        let (mut part, mut size) = (Vec::new(), 0);
        for change in changes {
            let takes = serde_json::to_string(&change).map_err(|e| Problem::invalid("table", e.to_string()))?.len();
            if size + takes > MOST_OF_AN_EDIT && !part.is_empty() {
                read.edits.push(several(mem::take(&mut part)));
                size = 0;
            }
            part.push(change);
            size += takes;
        }
        if !part.is_empty() {
            read.edits.push(several(part));
        }
        Ok(read)
    }
}

/// Largest table: it holds the text once more, and its facts.
pub(super) const MAX_TABLE: usize = MAX_BYTES * 10;

/// Every cell that cannot be taken, as one answer.
pub(super) fn bad_rows(rows: Vec<RowError>) -> Problem {
    let detail = format!("{} of the rows cannot be taken; nothing was changed.", rows.len());
    Problem { rows: Some(Box::new(Rows(rows))), ..Problem::invalid("table", detail) }
}

/// The body is the edited table. Nothing is changed here; the edits that come back are sent like any others.
#[utoipa::path(context_path = "/api", tag = "listen", request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = TableRead), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/manuals/<id>/recordings/<recording>/statements", data = "<file>")]
pub async fn read_table(
    id: Uuid,
    recording: Uuid,
    file: Unread<'_>,
    store: &State<Store>,
) -> Result<Json<TableRead>, Problem> {
    let (manual, kept) = of_manual(store, id, recording).await?;
    let bytes = file.whole("table", MAX_TABLE.bytes()).await?;
    let heard = manual.hear(&kept.source, &kept.read);
    let edits = manual.from_csv(RecordingId(recording), &heard, &bytes).map_err(bad_rows)?;
    TableRead::of(edits, |edits| Edit::Reading(ReadingEdit::Several { edits })).map(Json)
}

#[utoipa::path(context_path = "/api", tag = "listen", responses((status = 200, body = Vec<Comparison>), (status = 404, body = Problem)))]
#[get("/manuals/<id>/compare/<first>/<second>")]
pub async fn differences(
    id: Uuid,
    first: Uuid,
    second: Uuid,
    store: &State<Store>,
) -> Result<Json<Vec<Comparison>>, Problem> {
    let (_, one) = of_manual(store, id, first).await?;
    let (_, other) = of_manual(store, id, second).await?;
    Ok(Json(compare(one.read.sheet(), other.read.sheet())))
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
    request: Body<AddRecording>,
    store: &State<Store>,
) -> Result<(Status, Json<Applied>), Problem> {
    let request = request?.0;
    let (_, manual) = store.manual(ManualId(id)).await?;
    let read = store.recording(request.recording.0).await?;
    let recording = read.reference();
    let drafted = if request.append {
        let source = Source { recording: recording.clone(), reading: &read.read.reading };
        Some(Box::new(draft_more(&manual, &source).map_err(|e| Problem::invalid("recording", e.to_string()))?))
    } else {
        None
    };
    let edit = Edit::Recording(RecordingEdit::Attach { recording, drafted });
    let request = EditRequest { id: request.id, base_seq: request.base_seq, edit };
    Ok((Status::Ok, Json(store.edit(ManualId(id), &author.0, &request).await?)))
}
