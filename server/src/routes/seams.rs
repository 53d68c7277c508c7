//! The Seams stop: joints without screws and the heat that opens them.

use super::body::Body;
use crate::problem::Problem;
use crate::store::{Store, StoreError};
use paso_core::heat::plan::Heating;
use paso_core::ids::{ManualId, SeamId};
use paso_core::seams::opening::{PlanLine, plan};
use paso_core::seams::picture::{picture, picture_svg};
use paso_core::stops::seams::{HeatAnswer, SeamsView, view, work_out};
use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::tokio::task::spawn_blocking;
use rocket::{State, get, post};
use uuid::Uuid;

super::endpoints!(seams, heat, opening);

#[utoipa::path(context_path = "/api", tag = "seams", responses((status = 200, body = SeamsView), (status = 404, body = Problem)))]
#[get("/manuals/<id>/seams")]
pub async fn seams(id: Uuid, store: &State<Store>) -> Result<Json<SeamsView>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let worked = spawn_blocking(move || view(&manual)).await;
    Ok(Json(worked.map_err(|e| StoreError::Stumbled(e.to_string()))?))
}

/// What one heating comes to, whatever it belongs to: for a setting that is being tried out.
#[utoipa::path(context_path = "/api", tag = "seams", request_body = Heating, responses((status = 200, body = HeatAnswer), (status = 422, body = Problem)))]
#[post("/heat", format = "json", data = "<asked>")]
pub async fn heat(asked: Body<Heating>) -> Result<Json<HeatAnswer>, Problem> {
    let asked = asked?.0;
    let worked = spawn_blocking(move || work_out(&asked)).await;
    let worked = worked.map_err(|e| StoreError::Stumbled(e.to_string()))?;
    worked.map(Json).map_err(|says| Problem::invalid("heating", says))
}

/// How a joint opens, drawn at true scale; its words are the picture's title.
#[utoipa::path(context_path = "/api", tag = "seams", responses((status = 200, body = String, content_type = "image/svg+xml"), (status = 404, body = Problem)))]
#[get("/manuals/<id>/seams/<seam>/opening")]
pub async fn opening(id: Uuid, seam: Uuid, store: &State<Store>) -> Result<(ContentType, String), Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let seam = manual.seams.get(&SeamId(seam)).ok_or_else(|| Problem::not_found("joint"))?;
    let drawn = picture(&manual, seam).ok_or_else(|| Problem::not_found("outline of this joint's face"))?;
    let told: Vec<String> = plan(&manual, seam).lines.iter().map(PlanLine::words).collect();
    Ok((ContentType::SVG, picture_svg(&drawn, &told)))
}
