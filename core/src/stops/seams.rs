//! The Seams stop: every joint without screws, what warms its bond, and what that comes to.

use crate::heat::plan::{HeatPlan, Heating, StackLayer, WarmedBy};
use crate::heat::presets::Preset;
use crate::heat::window::{WindowPoint, window};
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{Manual, Phase, Seam, SeamKind, SeamMark, rim};
use crate::seams::opening::{OpeningPlan, plan};
use crate::seams::picture::{OpeningPicture, picture};
use crate::seams::ways::{Way, advice, reheating, ways};
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
    pub opening: OpeningPlan,
    /// Its face with the marks; `None` without an outline.
    pub picture: Option<OpeningPicture>,
    /// Where each mark stands, for who types it: "left edge, 34 mm from the top".
    pub places: Vec<MarkPlace>,
    /// `None` where nothing is bonded.
    pub heat: Option<SeamHeat>,
}

/// A mark's place as it is typed, by both its ends.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MarkPlace {
    pub mark: MarkId,
    pub from: String,
    /// Where a stretch ends, going clockwise.
    pub to: Option<String>,
}

/// The heat of a bonded joint.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SeamHeat {
    pub heating: Heating,
    /// Nobody has put the stack together yet: it is what the cover suggests.
    pub guessed: bool,
    pub told: Vec<ToldHeat>,
}

/// What a heating comes to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeatAnswer {
    pub plan: HeatPlan,
    pub judged: JudgedHeat,
    /// By temperature, from when on the bond is soft and something harmed.
    pub window: Vec<WindowPoint>,
    /// What to change where no setting of this source does.
    pub advice: Vec<String>,
    /// How long there is to cut; `None` where the bond does not get soft.
    pub reheating: Option<String>,
    /// Other ways to part the bond.
    pub ways: Vec<Way>,
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
    /// What is set is the air at its nozzle.
    pub blows: bool,
}

/// Works out one heating.
///
/// # Errors
/// A sentence that says what cannot be.
pub fn work_out(asked: &Heating) -> Result<HeatAnswer, String> {
    let plan = asked.plan()?;
    let judged = judge(asked, &plan);
    let (advice, reheating, ways) = (advice(asked, &plan), reheating(&plan), ways(asked, &plan));
    Ok(HeatAnswer { plan, judged, window: window(asked), advice, reheating, ways })
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
            opening: plan(manual, seam),
            picture: picture(manual, seam),
            places: seam.marks.iter().filter_map(|m| place(manual, seam, m)).collect(),
            heat: is_bonded(seam).then(|| heat(manual, seam)),
        })
    });
    let source = |by: &WarmedBy| {
        let [low_c, high_c] = by.range_c();
        SourceRow { by: *by, low_c, high_c, blows: by.blows() }
    };
    let usual = Preset::ALL.iter().map(|p| UsualStack { preset: *p, layers: p.layers() });
    SeamsView { seams: rows.collect(), sources: WarmedBy::ALL.iter().map(source).collect(), usual: usual.collect() }
}

fn place(manual: &Manual, seam: &Seam, mark: &SeamMark) -> Option<MarkPlace> {
    let outline = seam.outline(manual).map(|l| &l.outline);
    let at = mark.at?;
    let to = mark.over.map(|over| rim::words(rim::hour(at + over), outline));
    Some(MarkPlace { mark: mark.id, from: rim::words(at, outline), to })
}

/// What it comes to is asked for the one joint in hand ([`work_out`]): all of them at once would take a second.
fn heat(manual: &Manual, seam: &Seam) -> SeamHeat {
    SeamHeat { heating: heating(manual, seam), guessed: seam.heating.is_none(), told: told(manual, seam) }
}
