//! The guide: folded, as its reader sees it, and out in open formats.

use crate::author::Author;
use crate::problem::Problem;
use crate::store::{RevisionInfo, Store, StoreError};
use paso_core::effort::{self, Heard};
use paso_core::ids::{JobId, ManualId};

use paso_core::manual::{CorrectedReading, Manual};
use paso_core::order::cut;
use paso_core::publish::{self, Guide};
use rocket::http::{ContentType, Header, Status};
use rocket::response::Responder;
use rocket::serde::json::{Json, Value};
use rocket::{State, get, post};
use std::sync::Arc;
use uuid::Uuid;

super::endpoints!(guide, markdown, json, publish_revision, revisions, revision, schema);

#[utoipa::path(context_path = "/api", tag = "guide", params(("job" = Option<String>, Query)), responses((status = 200, body = Guide), (status = 404, body = Problem)))]
#[get("/manuals/<id>/guide?<job>")]
pub async fn guide(id: Uuid, job: Option<&str>, store: &State<Store>) -> Result<Json<Guide>, Problem> {
    let manual = whole_or_cut(store, id, job).await?;
    Ok(Json(publish::guide_heard(&manual, &heard(store, id).await?)))
}

/// The times that the recordings of a manual show. One that takes too long to read just now shows none: a guide is no
/// reason to wait for it.
async fn heard(store: &Store, id: Uuid) -> Result<Heard, Problem> {
    // Of the whole manual: where a step ends, the next one tells, be it of this job or not.
    let (_, manual) = store.manual(ManualId(id)).await?;
    let mut kept = Vec::new();
    for recording in manual.recordings.keys() {
        match store.read(&manual, *recording).await {
            Ok(read) => kept.push(read),
            Err(StoreError::Busy | StoreError::TooLong(_) | StoreError::Stumbled(_)) => {}
            Err(other) => return Err(other.into()),
        }
    }
    let readings: Vec<&CorrectedReading> = kept.iter().map(|k| &k.read).collect();
    Ok(effort::heard(&manual, &readings))
}

/// The whole manual, or what one of its jobs cuts from it.
pub(super) async fn whole_or_cut(store: &Store, id: Uuid, job: Option<&str>) -> Result<Arc<Manual>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let Some(job) = job.filter(|j| !j.is_empty()) else { return Ok(manual) };
    let job = job.parse().ok().and_then(|j| manual.jobs.get(&JobId(j)));
    let job = job.ok_or_else(|| Problem::not_found("job in this manual"))?;
    let none =
        || Problem::invalid("job", "No way leads to its parts any more. Look at Chain for what stands in between.");
    cut(&manual, job).map(Arc::new).ok_or_else(none)
}

/// A file for the reader's disk.
#[derive(Responder)]
pub struct Download<T = String> {
    body: T,
    kind: ContentType,
    disposition: Header<'static>,
}

impl<T> Download<T> {
    pub(super) fn new(title: &str, ending: &str, kind: ContentType, body: T) -> Self {
        Self {
            body,
            kind,
            disposition: Header::new(
                "Content-Disposition",
                format!("attachment; filename=\"{}.{ending}\"", file_name(title)),
            ),
        }
    }
}

/// Longest name of a file, in letters.
const MAX_NAME: usize = 100;

/// Letters, digits and hyphens: a name that every system takes.
fn file_name(title: &str) -> String {
    let plain: String =
        title.chars().map(|c| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' }).collect();
    // A header of a kilobyte is refused by some programs, and a file system takes 255 bytes.
    let plain = &plain[..plain.len().min(MAX_NAME)];
    let words: Vec<&str> = plain.split('-').filter(|w| !w.is_empty()).take(12).collect();
    if words.is_empty() { "manual".to_owned() } else { words.join("-") }
}

#[utoipa::path(context_path = "/api", tag = "guide", params(("job" = Option<String>, Query)), responses((status = 200, body = String, content_type = "text/markdown"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/guide.md?<job>")]
pub async fn markdown(id: Uuid, job: Option<&str>, store: &State<Store>) -> Result<Download, Problem> {
    let manual = whole_or_cut(store, id, job).await?;
    let kind = ContentType::new("text", "markdown").with_params(("charset", "utf-8"));
    Ok(Download::new(&manual.head.title, "md", kind, publish::markdown(&manual)))
}

#[utoipa::path(context_path = "/api", tag = "guide", responses((status = 200, body = Manual), (status = 404, body = Problem)))]
#[get("/manuals/<id>/manual.json")]
pub async fn json(id: Uuid, store: &State<Store>) -> Result<Download, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let text = serde_json::to_string_pretty(&*manual).map_err(|_| Problem::not_found("manual"))?;
    Ok(Download::new(&manual.head.title, "json", ContentType::JSON, text))
}

#[utoipa::path(context_path = "/api", tag = "guide", params(("job" = Option<Uuid>, Query)), responses((status = 201, body = RevisionInfo), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/manuals/<id>/revisions?<job>")]
pub async fn publish_revision(
    id: Uuid,
    job: Option<Uuid>,
    author: Author,
    store: &State<Store>,
) -> Result<(Status, Json<RevisionInfo>), Problem> {
    Ok((Status::Created, Json(store.publish(ManualId(id), &author.0, job.map(JobId)).await?)))
}

#[utoipa::path(context_path = "/api", tag = "guide", responses((status = 200, body = Vec<RevisionInfo>), (status = 404, body = Problem)))]
#[get("/manuals/<id>/revisions")]
pub async fn revisions(id: Uuid, store: &State<Store>) -> Result<Json<Vec<RevisionInfo>>, Problem> {
    Ok(Json(store.revisions(ManualId(id)).await?))
}

#[utoipa::path(context_path = "/api", tag = "guide", responses((status = 200, body = String, content_type = "text/markdown"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/revisions/<number>")]
pub async fn revision(id: Uuid, number: i32, store: &State<Store>) -> Result<Download, Problem> {
    let text = store.revision_markdown(ManualId(id), number).await?;
    let kind = ContentType::new("text", "markdown").with_params(("charset", "utf-8"));
    Ok(Download::new(&format!("revision {number}"), "md", kind, text))
}

#[utoipa::path(context_path = "/api", tag = "guide", responses((status = 200, body = Object)))]
#[get("/schema/manual.json")]
pub fn schema() -> Json<Value> {
    Json(publish::manual_schema())
}

#[cfg(test)]
mod tests {
    use super::file_name;
    use rstest::rstest;

    #[rstest]
    #[case("Lamp 3: new \"bulb\"\r\n", "lamp-3-new-bulb")]
    #[case("///", "manual")]
    #[case(&"x".repeat(5_000), &"x".repeat(100))]
    fn names_files_plainly(#[case] title: &str, #[case] name: &str) {
        assert_eq!(file_name(title), name);
    }
}
