//! The Chain stop: what comes before what and why, routes to parts, and what moves are allowed.

use crate::problem::Problem;
use crate::store::Store;
use paso_core::ids::{ManualId, PartId, StepId};
use paso_core::manual::Manual;
use paso_core::order::{Chain, JobRow, RouteRow, Spot, jobs};
use paso_core::stops::chain::{ChainView, view};
use rocket::serde::json::Json;
use rocket::{State, get};
use uuid::Uuid;

super::endpoints!(chain, routes, spots, all_jobs);

/// Most targets of one route: a job names a few parts.
const MAX_TARGETS: usize = 40;
/// Most routes shown side by side.
const MAX_ROUTES: usize = 4;

#[utoipa::path(context_path = "/api", tag = "chain", responses((status = 200, body = ChainView), (status = 404, body = Problem)))]
#[get("/manuals/<id>/chain")]
pub async fn chain(id: Uuid, store: &State<Store>) -> Result<Json<ChainView>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    Ok(Json(view(&manual)))
}

/// The cheapest routes to parts, by their ids parted by commas; none where no step reaches one of them.
#[utoipa::path(context_path = "/api", tag = "chain", params(("targets" = String, Query)), responses((status = 200, body = Vec<RouteRow>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/manuals/<id>/chain/routes?<targets>")]
pub async fn routes(id: Uuid, targets: Option<&str>, store: &State<Store>) -> Result<Json<Vec<RouteRow>>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let targets = parts(&manual, targets.unwrap_or_default())?;
    Ok(Json(Chain::of(&manual).routes(&manual, &targets, MAX_ROUTES)))
}

fn parts(manual: &Manual, list: &str) -> Result<Vec<PartId>, Problem> {
    let wanted: Vec<&str> = list.split(',').map(str::trim).filter(|t| !t.is_empty()).collect();
    if wanted.is_empty() || wanted.len() > MAX_TARGETS {
        return Err(Problem::invalid("targets", format!("Name 1 to {MAX_TARGETS} parts by their ids.")));
    }
    let part = |text: &str| {
        let id = text.parse().ok().map(PartId).filter(|p| manual.parts.contains_key(p));
        id.ok_or_else(|| Problem::invalid("targets", format!("“{text}” is no part of this manual.")))
    };
    wanted.into_iter().map(part).collect()
}

/// The jobs of a manual with what each comes to.
#[utoipa::path(context_path = "/api", tag = "chain", responses((status = 200, body = Vec<JobRow>), (status = 404, body = Problem)))]
#[get("/manuals/<id>/jobs")]
pub async fn all_jobs(id: Uuid, store: &State<Store>) -> Result<Json<Vec<JobRow>>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    Ok(Json(jobs(&manual)))
}

/// How every spot is judged where a step could stand.
#[utoipa::path(context_path = "/api", tag = "chain", responses((status = 200, body = Vec<Spot>), (status = 404, body = Problem)))]
#[get("/manuals/<id>/chain/spots/<step>")]
pub async fn spots(id: Uuid, step: Uuid, store: &State<Store>) -> Result<Json<Vec<Spot>>, Problem> {
    let (_, manual) = store.manual(ManualId(id)).await?;
    let chain = Chain::of(&manual);
    if chain.at(StepId(step)).is_none() {
        return Err(Problem::not_found("step in this teardown"));
    }
    Ok(Json(chain.judge_all(StepId(step), |s| manual.steps[&s].title.clone())))
}
