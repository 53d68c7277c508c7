//! The Seams stop: joints without screws and the heat that opens them.

use super::body::Body;
use crate::problem::Problem;
use crate::store::{Store, StoreError};
use paso_core::heat::plan::Heating;
use paso_core::ids::ManualId;
use paso_core::stops::seams::{HeatAnswer, SeamsView, view, work_out};
use rocket::serde::json::Json;
use rocket::tokio::task::spawn_blocking;
use rocket::{State, get, post};
use uuid::Uuid;

super::endpoints!(seams, heat);

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
