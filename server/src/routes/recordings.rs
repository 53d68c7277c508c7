//! Bringing recordings, and taking them out again as captions.

use super::body::{Unread, request_id, storable};
use crate::problem::Problem;
use crate::store::{RecordingInfo, Store};
use paso_core::ids::RecordingId;
use paso_core::recording::{self, MAX_BYTES};
use rocket::data::ToByteUnit;
use rocket::http::{ContentType, Status};
use rocket::serde::json::Json;
use rocket::{State, get, post};
use utoipa::ToSchema;
use uuid::Uuid;

super::endpoints!(bring, captions);

/// The body is the file itself; it is refused while it streams in once it grows past the limit.
///
/// It goes by the id of the request (UUIDv7, made by the client); the same request sent twice brings it once.
#[utoipa::path(context_path = "/api", tag = "recordings", params(("name" = String, Query), ("request" = Option<Uuid>, Query)), request_body(content = String, content_type = "text/plain"),
    responses((status = 201, body = RecordingInfo), (status = 413, body = Problem), (status = 422, body = Problem)))]
#[post("/recordings?<name>&<request>", data = "<file>")]
pub async fn bring(
    name: &str,
    request: Option<&str>,
    file: Unread<'_>,
    store: &State<Store>,
) -> Result<(Status, Json<RecordingInfo>), Problem> {
    let id = RecordingId(request_id(request)?);
    storable("name", name)?;
    let bytes = file.whole("recording", MAX_BYTES.bytes()).await?;
    let info = store.bring(id, short_name(name), bytes).await?;
    Ok((Status::Created, Json(info)))
}

/// A file's name without folders and ending.
fn short_name(name: &str) -> &str {
    let base = name.rsplit(['/', '\\']).next().unwrap_or(name).trim();
    let stem = base.rsplit_once('.').map_or(base, |(stem, _)| stem);
    let end = stem.char_indices().nth(200).map_or(stem.len(), |(i, _)| i);
    if stem.is_empty() { "Recording" } else { &stem[..end] }
}

/// A caption format to take a recording out in.
#[derive(Debug, Clone, Copy, rocket::FromFormField, ToSchema)]
#[schema(rename_all = "lowercase")]
pub enum CaptionFormat {
    Vtt,
    Srt,
}

#[utoipa::path(context_path = "/api", tag = "recordings", responses((status = 200, body = String, content_type = "text/vtt"), (status = 404, body = Problem)))]
#[get("/recordings/<id>/captions?<format>")]
pub async fn captions(
    id: Uuid,
    format: Result<CaptionFormat, rocket::form::Errors<'_>>,
    store: &State<Store>,
) -> Result<(ContentType, String), Problem> {
    let format = format.map_err(|_| Problem::invalid("format", "The format is vtt or srt."))?;
    let (_, source) = store.source(id).await?;
    Ok(match format {
        CaptionFormat::Vtt => (ContentType::new("text", "vtt"), recording::to_webvtt(&source)),
        CaptionFormat::Srt => (ContentType::new("application", "x-subrip"), recording::to_subrip(&source)),
    })
}

#[cfg(test)]
mod tests {
    use super::short_name;
    use rstest::rstest;

    #[rstest]
    #[case("C:\\films\\lamp.take.2.vtt", "lamp.take.2")]
    #[case("lamp", "lamp")]
    #[case(".srt", "Recording")]
    #[case("", "Recording")]
    fn shortens_names(#[case] name: &str, #[case] short: &str) {
        assert_eq!(short_name(name), short);
    }
}
