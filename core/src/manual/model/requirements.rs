//! What must be done before a step, as narrators and authors say it.
//!
//! The `order` room works most reasons out from the manual itself (screws, cables, covers). This is what it cannot know:
//! what the narrator told, what the author adds, confirms or denies, and where one of several ways will do.

use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, Refusal, note, within};
use crate::manual::edits::sound::Sound;
use crate::manual::{Aspect, Evidence, Manual, Phase, Step};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Why one step waits for another.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Reason {
    /// It lies over it.
    Covers,
    /// Screws, glue, tape or clips hold it.
    Holds,
    /// A cable ties it.
    ConnectedTo,
    /// It sits in an assembly that comes out first.
    Inside,
    /// The source of power first, the mains plug before all.
    Power,
    /// Something must soften, cool, dry or discharge.
    Cure,
    /// The narrator said so.
    Stated,
    /// An author said so.
    Author,
}

labels!(Reason {
    Covers: "Covered" @ "C",
    Holds: "Held" @ "H",
    ConnectedTo: "Tied by a cable" @ "T",
    Inside: "Inside" @ "I",
    Power: "Power first" @ "P",
    Cure: "Must soften, cool or dry" @ "S",
    Stated: "Told" @ "N",
    Author: "Author" @ "A",
});

/// Where a requirement stands with the author.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Standing {
    /// Read from the recording; nobody has looked.
    Proposed,
    /// Holds, because an author says so.
    Confirmed,
    /// Does not hold, whatever the reading or the rules say.
    Dropped,
}

/// One condition of a step: all steps of one of the ways come before it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Requirement {
    pub id: RequirementId,
    pub step: StepId,
    /// One way is a plain "comes first"; several are alternatives ("through the front or the rear").
    pub ways: Vec<Vec<StepId>>,
    pub reason: Reason,
    pub standing: Standing,
    /// In words, for who asks why.
    pub because: String,
    /// From 0 to 1.
    pub confidence: f64,
    pub evidence: Vec<Evidence>,
}

/// Changes of requirements.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RequirementEdit {
    /// An author's own condition, in force at once.
    Add {
        id: RequirementId,
        step: StepId,
        ways: Vec<Vec<StepId>>,
        #[serde(default)]
        because: String,
    },
    /// Confirms or denies that `before` comes before `step`; `id` is new unless that pair was judged before.
    Judge { id: RequirementId, step: StepId, before: StepId, reason: Reason, standing: Standing },
    /// Takes an author's word or a reading's back.
    Remove { id: RequirementId },
}

/// Most ways of one condition: more are not one condition any more.
const MAX_WAYS: usize = 12;

impl Apply for RequirementEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, step, ways, because } => {
                manual.must_be_new::<Requirement>(*id)?;
                let ways = manual.check_ways(*step, ways)?;
                let because = note("because", because, MAX_TEXT)?;
                let evidence = vec![Evidence::author(author)];
                let new = Requirement { because, evidence, ..Requirement::confirmed(*id, *step, ways) };
                manual.put_entity(new, touched);
            }
            Self::Judge { id, step, before, reason, standing } => {
                let ways = manual.check_ways(*step, &[vec![*before]])?;
                let known = manual.requirements.values().find(|r| r.step == *step && r.ways == ways).cloned();
                let new = || Requirement { reason: *reason, ..Requirement::confirmed(*id, *step, ways) };
                let mut judged = known.unwrap_or_else(new);
                judged.standing = *standing;
                judged.evidence.push(Evidence::author(author));
                manual.put_entity(judged, touched);
            }
            Self::Remove { id } => drop(manual.take_entity::<Requirement>(*id, touched)?),
        }
        Ok(())
    }
}

impl Requirement {
    /// An author's word that has no reason yet.
    fn confirmed(id: RequirementId, step: StepId, ways: Vec<Vec<StepId>>) -> Self {
        Self {
            id,
            step,
            ways,
            reason: Reason::Author,
            standing: Standing::Confirmed,
            because: String::new(),
            confidence: 1.0,
            evidence: Vec::new(),
        }
    }
}

impl Manual {
    fn check_ways(&self, step: StepId, ways: &[Vec<StepId>]) -> Result<Vec<Vec<StepId>>, Refusal> {
        let invalid = |problem: &str| Err(Refusal::invalid("ways", problem));
        if ways.is_empty() || ways.iter().any(Vec::is_empty) {
            return invalid("A condition names at least one step that comes before.");
        }
        if ways.len() > MAX_WAYS {
            return invalid("A condition takes at most 12 ways. Join some of them into a step of their own.");
        }
        for id in ways.iter().flatten().chain([&step]) {
            let known = self.must_be_there::<Step>(*id)?;
            if known.phase != Phase::Teardown {
                return invalid("Conditions hold between steps of the teardown; the rebuild follows from them.");
            }
        }
        if ways.iter().flatten().any(|s| *s == step) {
            return invalid("A step cannot come before itself. Choose another one.");
        }
        let mut ways: Vec<Vec<StepId>> = ways.to_vec();
        for way in &mut ways {
            way.sort();
            way.dedup();
        }
        ways.sort();
        ways.dedup();
        Ok(ways)
    }

    /// A step that is gone asks for nothing, and nothing waits for it any more.
    pub(in crate::manual) fn forget_step_in_requirements(&mut self, gone: StepId, touched: &mut Touched) {
        for r in
            self.requirements.values_mut().filter(|r| r.step == gone || r.ways.iter().flatten().any(|s| *s == gone))
        {
            touched.add(Aspect::Requirements, r.id.0);
            for way in &mut r.ways {
                way.retain(|s| *s != gone);
            }
            // A way of which nothing is left would always be open; the condition says nothing then.
            if r.ways.iter().any(Vec::is_empty) {
                r.ways.clear();
            }
        }
        self.requirements.retain(|_, r| r.step != gone && !r.ways.is_empty());
    }

    /// What one step asked for or was asked for goes on to the step it was merged into.
    pub(in crate::manual) fn move_requirements(&mut self, from: StepId, to: StepId, touched: &mut Touched) {
        for r in self.requirements.values_mut() {
            if r.step != from && !r.ways.iter().flatten().any(|s| *s == from) {
                continue;
            }
            touched.add(Aspect::Requirements, r.id.0);
            if r.step == from {
                r.step = to;
            }
            for way in &mut r.ways {
                way.iter_mut().filter(|s| **s == from).for_each(|s| *s = to);
                way.retain(|s| *s != r.step);
                way.sort();
                way.dedup();
            }
            r.ways.retain(|w| !w.is_empty());
        }
        self.requirements.retain(|_, r| !r.ways.is_empty());
    }
}

impl Sound for Requirement {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        within("confidence", self.confidence, [0.0, 1.0], "as a confidence")?;
        manual.check_ways(self.step, &self.ways).map(drop)
    }
}
