//! The Seams stop: every joint without screws, what warms its bond, and what that comes to.

use crate::heat::plan::{HeatPlan, Heating, StackLayer, WarmedBy};
use crate::heat::presets::Preset;
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{Manual, Phase, SeamKind};
use crate::seams::{JudgedHeat, ToldHeat, heating, is_bonded, judge, told};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One joint.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SeamRow {
    pub seam: SeamId,
    pub step: StepId,
    /// Of the teardown, from 1.
    pub step_number: usize,
    pub kind: SeamKind,
    /// The part that it holds, by its name.
    pub part: Option<String>,
    /// What was never said of it: "where to enter", "how deep".
    pub untold: Vec<String>,
    /// `None` where nothing is bonded.
    pub heat: Option<SeamHeat>,
}

/// The heat of a bonded joint.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SeamHeat {
    pub heating: Heating,
    /// Nobody has put the stack together yet: it is what the cover suggests.
    pub guessed: bool,
    pub worked: HeatAnswer,
    pub told: Vec<ToldHeat>,
}

/// What a heating comes to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeatAnswer {
    pub plan: HeatPlan,
    pub judged: JudgedHeat,
}

/// All that the stop shows.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SeamsView {
    pub seams: Vec<SeamRow>,
    pub sources: Vec<SourceRow>,
    pub usual: Vec<UsualStack>,
}

/// A stack to begin with.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct UsualStack {
    pub preset: Preset,
    pub layers: Vec<StackLayer>,
}

/// A source and what it can be set to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SourceRow {
    pub by: WarmedBy,
    pub low_c: f64,
    pub high_c: f64,
}

/// Works out one heating.
///
/// # Errors
/// A sentence that says what cannot be.
pub fn work_out(asked: &Heating) -> Result<HeatAnswer, String> {
    let plan = asked.plan()?;
    let judged = judge(asked, &plan);
    Ok(HeatAnswer { plan, judged })
}

/// Works out the stop, in the order of the teardown.
pub fn view(manual: &Manual) -> SeamsView {
    let steps = manual.steps_in(Phase::Teardown);
    let rows = steps.iter().enumerate().flat_map(|(n, step)| {
        let of_step = manual.seams.values().filter(|s| s.step == step.id);
        of_step.map(move |seam| SeamRow {
            seam: seam.id,
            step: step.id,
            step_number: n + 1,
            kind: seam.kind,
            part: seam.part.map(|p| manual.part_name(p).to_owned()),
            untold: [(seam.entry.is_none(), "where to enter"), (seam.depth.is_none(), "how deep")]
                .into_iter()
                .filter(|(untold, _)| *untold)
                .map(|(_, what)| what.to_owned())
                .collect(),
            heat: is_bonded(seam).then(|| heat(manual, seam)).flatten(),
        })
    });
    let source = |by: &WarmedBy| {
        let [low_c, high_c] = by.range_c();
        SourceRow { by: *by, low_c, high_c }
    };
    let usual = Preset::ALL.iter().map(|p| UsualStack { preset: *p, layers: p.layers() });
    SeamsView { seams: rows.collect(), sources: WarmedBy::ALL.iter().map(source).collect(), usual: usual.collect() }
}

fn heat(manual: &Manual, seam: &crate::manual::Seam) -> Option<SeamHeat> {
    let heating = heating(manual, seam);
    // What was stored under laxer rules may not be reckoned with any more; then there is nothing to show.
    let worked = work_out(&heating).ok()?;
    Some(SeamHeat { heating, guessed: seam.heating.is_none(), worked, told: told(manual, seam) })
}
