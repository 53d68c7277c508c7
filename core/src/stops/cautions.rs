//! The Cautions stop: every hazard along the steps, why it is there, whether somebody warns of it in time, and what a reader
//! is told before all work.

use crate::cautions::catalogue::WarnPlace;
use crate::cautions::coverage::{Covered, Stretch, free};
use crate::cautions::prepare::{Preparation, preparation};
use crate::cautions::signs::Sign;
use crate::cautions::{CautionHead, head};
use crate::checks::{Case, Readability, gated, proposal, readability, withheld};
use crate::finding::Finding;
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{Caution, Hazard, Level, Manual, Phase};
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// One hazard over one stretch of steps.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HazardRow {
    pub hazard: Hazard,
    pub name: String,
    pub level: Level,
    pub sign: Sign,
    pub phase: Phase,
    pub place: WarnPlace,
    /// The steps that bring it about, with their numbers from 1.
    pub steps: Vec<HazardStep>,
    /// Why the first one does: "lets the return spring go".
    pub why: String,
    pub covered: Covered,
    /// The cautions that say it.
    pub said: Vec<SaidCaution>,
    /// What a reader is told where nobody has worded it.
    pub proposed: SaidWords,
    /// The proposal, with the press that takes it; `None` where it is said.
    pub finding: Option<Finding>,
    /// Why it was declined.
    pub declined: Option<String>,
    /// To whom the work belongs, or which rules decide.
    pub defers: Option<String>,
    pub source: String,
}

/// One step of a stretch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HazardStep {
    pub step: StepId,
    pub number: usize,
    pub title: String,
}

/// A caution with how it looks to its reader.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SaidCaution {
    pub caution: CautionId,
    pub step_number: usize,
    pub words: SaidWords,
}

/// What goes before a caution, and what it says.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SaidWords {
    pub head: CautionHead,
    pub text: String,
}

/// A line that only licensed people cross.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GateRow {
    /// What can happen and to whom the work belongs.
    pub belongs: String,
    pub what: String,
    /// Who does it; `None`: nobody has said so yet, and the guide cannot go out.
    pub who: Option<String>,
}

/// All that the stop shows.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CautionsView {
    /// In the order of the work.
    pub hazards: Vec<HazardRow>,
    /// Cautions that the catalogue knows nothing of, as they were told.
    pub free: Vec<SaidCaution>,
    pub preparation: Vec<Preparation>,
    pub gates: Vec<GateRow>,
    /// How long the sentences are.
    pub readability: Readability,
    pub teardown_steps: usize,
    pub rebuild_steps: usize,
}

/// Works out the stop. O(steps × hazards).
pub fn view(manual: &Manual) -> CautionsView {
    let case = Case::new(manual);
    let stretches = case.stretches();
    let left: BTreeSet<StepId> = withheld(manual).into_iter().flat_map(|w| w.steps).collect();
    let gate = |g: crate::checks::Gated| GateRow { belongs: g.gate.belongs().to_owned(), what: g.what, who: g.who };
    CautionsView {
        hazards: stretches.iter().map(|s| row(manual, s, &left)).collect(),
        free: free(manual, stretches).into_iter().map(|c| said(manual, c)).collect(),
        preparation: preparation(stretches.iter().filter(|s| !left.contains(&s.first()))),
        gates: gated(manual).into_iter().map(gate).collect(),
        readability: readability(manual),
        teardown_steps: manual.steps_in(Phase::Teardown).len(),
        rebuild_steps: manual.steps_in(Phase::Rebuild).len(),
    }
}

fn row(manual: &Manual, stretch: &Stretch, left: &BTreeSet<StepId>) -> HazardRow {
    let entry = stretch.entry;
    let covered = if left.contains(&stretch.first()) { Covered::Others } else { stretch.covered };
    let finding = (covered == Covered::Unsaid).then(|| proposal(manual, stretch).decided(manual));
    let step = |(id, number): &(StepId, usize)| HazardStep {
        step: *id,
        number: *number,
        title: manual.steps.get(id).map_or(String::new(), |s| s.title.clone()),
    };
    let cautions = stretch.cautions.iter().filter_map(|id| manual.cautions.get(id));
    HazardRow {
        hazard: entry.hazard,
        name: entry.hazard.label().to_owned(),
        level: entry.level,
        sign: entry.sign,
        phase: stretch.phase,
        place: entry.place,
        steps: stretch.steps.iter().map(step).collect(),
        why: stretch.why.clone(),
        covered,
        said: cautions.map(|c| said(manual, c)).collect(),
        proposed: SaidWords { head: CautionHead::from_catalogue(entry.hazard), text: stretch.proposed() },
        declined: finding.as_ref().and_then(|f| f.set_aside.clone()),
        finding,
        defers: entry.defers.map(str::to_owned),
        source: entry.source.to_owned(),
    }
}

fn said(manual: &Manual, caution: &Caution) -> SaidCaution {
    let phase = manual.steps.get(&caution.step).map_or(Phase::Teardown, |s| s.phase);
    let at = manual.steps_in(phase).iter().position(|s| s.id == caution.step).map_or(0, |n| n + 1);
    let words = SaidWords { head: head(manual, caution), text: caution.text.clone() };
    SaidCaution { caution: caution.id, step_number: at, words }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{Edit, FindingEdit, drafted};

    fn told() -> Manual {
        drafted::manual(
            "[0:00] Caution, the glass splinters. Pry off the front glass with the opening pick. Caution, the ribbon is short, do \
             not tear it. Take out the tray. Take out the return spring. Take out the main board.",
        )
    }

    fn of(view: &CautionsView, hazard: Hazard) -> &HazardRow {
        view.hazards.iter().find(|h| h.hazard == hazard).unwrap_or_else(|| panic!("{:?}", view.hazards))
    }

    #[test]
    fn each_hazard_says_how_it_is_covered() {
        let view = view(&told());
        let covered = |h| of(&view, h).covered;
        assert_eq!(covered(Hazard::Splinters), Covered::Said);
        assert_eq!(covered(Hazard::Spring), Covered::Unsaid);
        assert_eq!(covered(Hazard::Static), Covered::General);
        assert_eq!(view.free.len(), 1, "{:?}", view.free);
        assert!(of(&view, Hazard::Splinters).said[0].words.text.contains("splinters"));
    }

    #[test]
    fn a_proposal_is_taken_with_one_press_or_declined_with_a_reason() {
        let manual = told();
        let finding = of(&view(&manual), Hazard::Spring).finding.clone().expect("it is proposed");
        let taken = manual.apply(&finding.fixes[0].edit, "Ann").unwrap().0;
        let row = view(&taken);
        let row = of(&row, Hazard::Spring);
        assert_eq!(
            (row.covered, row.said[0].words == row.proposed),
            (Covered::Said, true),
            "what is taken is what was shown"
        );
        let because = "it is not under tension".to_owned();
        let aside = FindingEdit::SetAside { id: finding.key, rule: finding.rule.name(), because: because.clone() };
        let declined = manual.apply(&Edit::Finding(aside), "Ann").unwrap().0;
        assert_eq!(of(&view(&declined), Hazard::Spring).declined.as_ref(), Some(&because));
    }
}
