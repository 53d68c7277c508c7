//! Jobs cut from a manual: a target, what becomes of the parts, its own words.
//!
//! Choosing routes and cutting steps belongs to the `order` room.

use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TITLE, Refusal, text};
use crate::manual::edits::sound::Sound;
use crate::manual::model::steps::rank_between;
use crate::manual::{Action, Evidence, Manual, Note, Part, Phase, Reason, Requirement, Standing, Step};
use crate::reading::Act;
use crate::things::same_thing;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What becomes of a part in a job; the technique follows it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PartFate {
    Keep,
    Renew,
    Scrap,
}

labels!(PartFate { Keep: "stays", Renew: "is renewed", Scrap: "goes for scrap" });

/// One job: a target and what becomes of the parts.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Job {
    pub id: JobId,
    pub title: String,
    pub targets: Vec<PartId>,
    pub fates: BTreeMap<PartId, PartFate>,
    /// Titles reworded for this job alone.
    pub wording: BTreeMap<StepId, String>,
    /// Steps that its way does without, where its author chose another way than the least work.
    #[serde(default)]
    pub without: Vec<StepId>,
    /// Guides that are done first; readers are sent there instead of reading their steps again.
    #[serde(default)]
    pub calls: Vec<JobId>,
}

/// What is known of a manual that was cut to one job.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct JobCut {
    pub fates: BTreeMap<PartId, PartFate>,
    pub called: Vec<Called>,
}

/// A guide that another one sends its readers to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Called {
    pub job: JobId,
    pub title: String,
    /// Its steps, as numbers of the calling guide: the first and the last.
    pub from: usize,
    pub to: usize,
    /// What must hold before it.
    pub expects: Vec<String>,
    /// The parts that are out behind it.
    pub leaves: Vec<String>,
}

impl Job {
    /// What becomes of a part: what the author said; else what the job is after is renewed and the rest stays.
    pub fn fate(&self, part: PartId) -> PartFate {
        let usual = if self.targets.contains(&part) { PartFate::Renew } else { PartFate::Keep };
        self.fates.get(&part).copied().unwrap_or(usual)
    }
}

/// Changes of jobs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JobEdit {
    Add {
        id: JobId,
        title: String,
        targets: Vec<PartId>,
        #[serde(default)]
        without: Vec<StepId>,
    },
    Rename {
        id: JobId,
        title: String,
    },
    SetFate {
        id: JobId,
        part: PartId,
        fate: PartFate,
    },
    /// Another way: the least work without these steps.
    ChooseRoute {
        id: JobId,
        without: Vec<StepId>,
    },
    /// The guides that are done first, in this order.
    Call {
        id: JobId,
        calls: Vec<JobId>,
    },
    /// A title for this job alone; `None` goes back to the manual's.
    Word {
        id: JobId,
        step: StepId,
        title: Option<String>,
    },
    Remove {
        id: JobId,
    },
    /// A guide whose way the narrator only told: parts and steps that are not there yet are made, the last for the target,
    /// which waits for the others.
    Told {
        id: JobId,
        title: String,
        way: Vec<ToldPart>,
        evidence: Evidence,
    },
}

/// One part on the way to a told job, with the ids of what is made for it where it is not there yet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ToldPart {
    pub part: PartId,
    pub name: String,
    pub step: StepId,
    pub action: ActionId,
    pub requirement: RequirementId,
}

impl Job {
    fn new(id: JobId, title: String, targets: &[PartId], without: &[StepId]) -> Self {
        Self {
            id,
            title,
            targets: targets.to_vec(),
            fates: BTreeMap::new(),
            wording: BTreeMap::new(),
            without: without.to_vec(),
            calls: Vec::new(),
        }
    }
}

impl Apply for JobEdit {
    fn apply(&self, manual: &mut Manual, _: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, title, targets, without } => {
                manual.must_be_new::<Job>(*id)?;
                manual.must_all_be_there::<Part>(targets)?;
                manual.put_entity(Job::new(*id, text("title", title, MAX_TITLE)?, targets, without), touched);
            }
            Self::Rename { id, title } => {
                manual.change_entity::<Job>(*id, touched)?.title = text("title", title, MAX_TITLE)?;
            }
            Self::SetFate { id, part, fate } => {
                manual.must_be_there::<Part>(*part)?;
                manual.change_entity::<Job>(*id, touched)?.fates.insert(*part, *fate);
            }
            Self::ChooseRoute { id, without } => {
                manual.change_entity::<Job>(*id, touched)?.without.clone_from(without);
            }
            Self::Call { id, calls } => {
                manual.check_calls(*id, calls)?;
                manual.change_entity::<Job>(*id, touched)?.calls.clone_from(calls);
            }
            Self::Word { id, step, title } => {
                manual.must_be_there::<Step>(*step)?;
                let title = title.as_deref().map(|t| text("title", t, MAX_TITLE)).transpose()?;
                let wording = &mut manual.change_entity::<Job>(*id, touched)?.wording;
                match title {
                    Some(title) => wording.insert(*step, title),
                    None => wording.remove(step),
                };
            }
            Self::Told { id, title, way, evidence } => manual.told_job((*id, title), way, evidence, touched)?,
            Self::Remove { id } => {
                if let Some(caller) = manual.jobs.values().find(|j| j.calls.contains(id)) {
                    let problem =
                        format!("“{}” sends its readers to this guide. Take that out there first.", caller.title);
                    return Err(Refusal::invalid("job", problem));
                }
                manual.take_entity::<Job>(*id, touched)?;
                // What was written for this guide alone goes with it, and comes back with it.
                manual.keep_entities::<Note>(|n| n.job != Some(*id), touched);
            }
        }
        Ok(())
    }
}

impl Manual {
    fn told_job(
        &mut self,
        (id, title): (JobId, &str),
        way: &[ToldPart],
        evidence: &Evidence,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        self.must_be_new::<Job>(id)?;
        let [before @ .., target] = way else {
            return Err(Refusal::invalid("way", "A guide needs a part that it is about."));
        };
        let mut first: Vec<(StepId, RequirementId)> = Vec::new();
        for told in before {
            let part = self.told_part(told, evidence, touched)?;
            first.push((self.told_step(part, told, evidence, touched)?, told.requirement));
        }
        let part = self.told_part(target, evidence, touched)?;
        let step = self.told_step(part, target, evidence, touched)?;
        for (other, requirement) in first.into_iter().filter(|(other, _)| *other != step) {
            self.must_be_new::<Requirement>(requirement)?;
            let new = Requirement {
                id: requirement,
                step,
                ways: vec![vec![other]],
                reason: Reason::Stated,
                standing: Standing::Confirmed,
                because: format!("the narrator says how the {} is reached", self.part_name(part)),
                confidence: 1.0,
                evidence: vec![evidence.clone()],
            };
            self.put_entity(new, touched);
        }
        self.put_entity(Job::new(id, text("title", title, MAX_TITLE)?, &[part], &[]), touched);
        Ok(())
    }

    fn told_part(&mut self, told: &ToldPart, evidence: &Evidence, touched: &mut Touched) -> Result<PartId, Refusal> {
        let known = self.parts.values().find(|p| same_thing(&p.name, &told.name)).map(|p| p.id);
        if let Some(known) = known {
            return Ok(known);
        }
        self.must_be_new::<Part>(told.part)?;
        self.put_entity(Part::new(told.part, text("name", &told.name, MAX_TITLE)?, vec![evidence.clone()]), touched);
        Ok(told.part)
    }

    /// The step that takes a part out, at the end of the teardown where there was none.
    fn told_step(
        &mut self,
        part: PartId,
        told: &ToldPart,
        evidence: &Evidence,
        touched: &mut Touched,
    ) -> Result<StepId, Refusal> {
        let steps = self.steps_in(Phase::Teardown);
        let takes_out = |a: &Action| matches!(a.act, Act::Remove | Act::Peel) && a.parts.contains(&part);
        if let Some(step) = steps.iter().find(|s| s.actions.iter().any(takes_out)) {
            return Ok(step.id);
        }
        let rank = rank_between(steps.last().map(|s| s.rank.as_str()), None);
        self.must_be_new::<Step>(told.step)?;
        let title = format!("Remove the {}", self.part_name(part));
        let action = Action {
            text: None,
            evidence: vec![evidence.clone()],
            ..Action::typed(told.action, Act::Remove, vec![part], "")
        };
        let step = Step {
            actions: vec![action],
            note: Some("Told and not shown: look how it is held before you pull.".to_owned()),
            evidence: vec![evidence.clone()],
            ..Step::new(told.step, Phase::Teardown, rank, title)
        };
        self.put_entity(step, touched);
        Ok(told.step)
    }

    /// Called guides exist, and none of them leads back to the caller.
    pub(in crate::manual) fn check_calls(&self, id: JobId, calls: &[JobId]) -> Result<(), Refusal> {
        let mut open = calls.to_vec();
        let mut seen: Vec<JobId> = Vec::new();
        while let Some(next) = open.pop() {
            if next == id {
                let problem = "A guide cannot send its readers to itself, nor to one that sends them back.";
                return Err(Refusal::invalid("calls", problem));
            }
            let job = self.must_be_there::<Job>(next)?;
            if !seen.contains(&next) {
                seen.push(next);
                open.extend(&job.calls);
            }
        }
        Ok(())
    }
}

impl Sound for Job {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        text("title", &self.title, MAX_TITLE)?;
        manual.refers::<Part>("targets", self.targets.iter().copied())?;
        manual.refers::<Part>("fates", self.fates.keys().copied())?;
        manual.refers::<Step>("wording", self.wording.keys().copied())?;
        manual.refers::<Job>("calls", self.calls.iter().copied())?;
        manual.check_calls(self.id, &self.calls)
    }
}
