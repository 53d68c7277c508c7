//! Jobs cut from a manual, and the variants of the device it holds for.
//!
//! Choosing routes and cutting steps belongs to the `order` room.

use super::Manual;
use super::change::{Aspect, Refusal, Touched, text};
use super::steps::LONGEST_TITLE;
use crate::ids::*;
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
}

/// A variant of the device.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Variant {
    pub id: VariantId,
    pub name: String,
    /// How readers tell that theirs is this one.
    pub how_to_tell: String,
}

/// Changes of variants.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum VariantEdit {
    Add { id: VariantId, name: String, how_to_tell: String },
    Change { id: VariantId, name: String, how_to_tell: String },
    Remove { id: VariantId },
}

impl Manual {
    pub(super) fn edit_job(&mut self, edit: &JobEdit, touched: &mut Touched) -> Result<(), Refusal> {
        let gone = |id: JobId| Refusal::Gone { what: "job", id: id.0 };
        match edit {
            JobEdit::Add { id, title, targets, without } => {
                if self.jobs.contains_key(id) {
                    return Err(Refusal::Exists { what: "job", id: id.0 });
                }
                if let Some(part) = targets.iter().find(|p| !self.parts.contains_key(p)) {
                    return Err(Refusal::Gone { what: "part", id: part.0 });
                }
                let title = text("title", title, LONGEST_TITLE)?;
                touched.add(Aspect::Jobs, id.0);
                self.jobs.insert(
                    *id,
                    Job {
                        id: *id,
                        title,
                        targets: targets.clone(),
                        fates: BTreeMap::new(),
                        wording: BTreeMap::new(),
                        without: without.clone(),
                        calls: Vec::new(),
                    },
                );
            }
            JobEdit::Rename { id, title } => {
                touched.add(Aspect::Jobs, id.0);
                self.jobs.get_mut(id).ok_or(gone(*id))?.title = text("title", title, LONGEST_TITLE)?;
            }
            JobEdit::SetFate { id, part, fate } => {
                if !self.parts.contains_key(part) {
                    return Err(Refusal::Gone { what: "part", id: part.0 });
                }
                touched.add(Aspect::Jobs, id.0);
                self.jobs.get_mut(id).ok_or(gone(*id))?.fates.insert(*part, *fate);
            }
            JobEdit::ChooseRoute { id, without } => {
                touched.add(Aspect::Jobs, id.0);
                self.jobs.get_mut(id).ok_or(gone(*id))?.without.clone_from(without);
            }
            JobEdit::Call { id, calls } => {
                self.check_calls(*id, calls)?;
                touched.add(Aspect::Jobs, id.0);
                self.jobs.get_mut(id).ok_or(gone(*id))?.calls.clone_from(calls);
            }
            JobEdit::Word { id, step, title } => {
                if !self.steps.contains_key(step) {
                    return Err(Refusal::Gone { what: "step", id: step.0 });
                }
                let title = title.as_deref().map(|t| text("title", t, LONGEST_TITLE)).transpose()?;
                touched.add(Aspect::Jobs, id.0);
                let wording = &mut self.jobs.get_mut(id).ok_or(gone(*id))?.wording;
                match title {
                    Some(title) => wording.insert(*step, title),
                    None => wording.remove(step),
                };
            }
            JobEdit::Remove { id } => {
                if let Some(caller) = self.jobs.values().find(|j| j.calls.contains(id)) {
                    let problem =
                        format!("“{}” sends its readers to this guide. Take that out there first.", caller.title);
                    return Err(Refusal::Invalid { field: "job", problem });
                }
                touched.add(Aspect::Jobs, id.0);
                self.jobs.remove(id).ok_or(gone(*id))?;
                // What was written for this guide alone goes with it, and comes back with it.
                for note in self.notes.values().filter(|n| n.job == Some(*id)) {
                    touched.add(Aspect::Notes, note.id.0);
                }
                self.notes.retain(|_, n| n.job != Some(*id));
            }
        }
        Ok(())
    }

    pub(super) fn edit_variant(&mut self, edit: &VariantEdit, touched: &mut Touched) -> Result<(), Refusal> {
        match edit {
            VariantEdit::Add { id, name, how_to_tell } => {
                if self.variants.contains_key(id) {
                    return Err(Refusal::Exists { what: "variant", id: id.0 });
                }
                self.put_variant(*id, name, how_to_tell, touched)?;
            }
            VariantEdit::Change { id, name, how_to_tell } => {
                self.check_variants(&[*id])?;
                self.put_variant(*id, name, how_to_tell, touched)?;
            }
            VariantEdit::Remove { id } => {
                if let Some(user) = self.held_for(*id) {
                    let problem = format!("{user} holds for this variant. Change that first.");
                    return Err(Refusal::Invalid { field: "variant", problem });
                }
                touched.add(Aspect::Variants, id.0);
                self.variants.remove(id).ok_or(Refusal::Gone { what: "variant", id: id.0 })?;
            }
        }
        Ok(())
    }

    /// Called guides exist, and none of them leads back to the caller.
    pub(super) fn check_calls(&self, id: JobId, calls: &[JobId]) -> Result<(), Refusal> {
        let mut open = calls.to_vec();
        let mut seen: Vec<JobId> = Vec::new();
        while let Some(next) = open.pop() {
            if next == id {
                let problem = "A guide cannot send its readers to itself, nor to one that sends them back.".to_owned();
                return Err(Refusal::Invalid { field: "calls", problem });
            }
            let job = self.jobs.get(&next).ok_or(Refusal::Gone { what: "guide", id: next.0 })?;
            if !seen.contains(&next) {
                seen.push(next);
                open.extend(&job.calls);
            }
        }
        Ok(())
    }

    fn put_variant(&mut self, id: VariantId, name: &str, tell: &str, touched: &mut Touched) -> Result<(), Refusal> {
        let name = text("name", name, LONGEST_TITLE)?;
        let how_to_tell = text("how_to_tell", tell, LONGEST_TITLE)?;
        touched.add(Aspect::Variants, id.0);
        self.variants.insert(id, Variant { id, name, how_to_tell });
        Ok(())
    }

    /// What holds for a variant only, by its name.
    fn held_for(&self, id: VariantId) -> Option<String> {
        if let Some(step) = self.steps.values().find(|s| s.variants.contains(&id)) {
            return Some(format!("The step “{}”", step.title));
        }
        if let Some(part) = self.parts.values().find(|p| p.variants.contains(&id)) {
            return Some(format!("The part “{}”", part.name));
        }
        self.fasteners.values().any(|g| g.variants.contains(&id)).then(|| "A group of screws".to_owned())
    }

    pub(super) fn check_variants(&self, variants: &[VariantId]) -> Result<(), Refusal> {
        match variants.iter().find(|v| !self.variants.contains_key(v)) {
            Some(gone) => Err(Refusal::Gone { what: "variant", id: gone.0 }),
            None => Ok(()),
        }
    }

    /// The names of variants, for "only for …".
    pub fn variant_names(&self, ids: &[VariantId]) -> Vec<String> {
        ids.iter().filter_map(|v| Some(self.variants.get(v)?.name.clone())).collect()
    }
}
