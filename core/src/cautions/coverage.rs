//! Which hazards stand where: what brings them about, over which steps, and whether somebody warned in time.
//!
//! The same hazard over steps that follow each other is one stretch and is warned of once, before the first of them; what
//! holds for the whole guide stands before all work.

use super::catalogue::{ENTRIES, Entry, WarnPlace};
use super::scene::{Scene, scenes};
use crate::ids::*;
use crate::labels;
use crate::manual::{Caution, Hazard, Manual, Phase};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a hazard is covered.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Covered {
    /// Before the first step that brings it about.
    Said,
    /// Only at a later one.
    Late,
    /// Before all work, for the whole guide.
    General,
    /// Nowhere.
    Unsaid,
    /// The step is left to others, and told to nobody.
    Others,
}

labels!(Covered {
    Said: "said",
    Late: "said too late",
    General: "said before all work",
    Unsaid: "not said",
    Others: "left to others"
});

/// One hazard over one stretch of steps.
#[derive(Debug, Clone)]
pub struct Stretch {
    pub entry: &'static Entry,
    pub phase: Phase,
    /// The steps that bring it about, with their numbers from 1; never empty.
    pub steps: Vec<(StepId, usize)>,
    /// Why the first one does, after "this step".
    pub why: String,
    pub covered: Covered,
    /// The cautions that say it, in the order of the steps.
    pub cautions: Vec<CautionId>,
}

/// Two steps that are further apart than this are two stretches.
const NEXT: usize = 2;

/// Every stretch of every hazard, in the order of the work. O(steps × hazards).
pub fn stretches(manual: &Manual) -> Vec<Stretch> {
    let scenes = scenes(manual);
    let mut out: Vec<Stretch> = ENTRIES.iter().flat_map(|entry| of_hazard(manual, entry, &scenes)).collect();
    out.sort_by_key(|s| (s.phase == Phase::Rebuild, s.steps[0].1, std::cmp::Reverse(s.entry.level)));
    out
}

fn of_hazard(manual: &Manual, entry: &'static Entry, scenes: &[Scene<'_>]) -> Vec<Stretch> {
    let mut out: Vec<Stretch> = Vec::new();
    // What is prepared for taking apart is ready for putting together.
    let apart_only = entry.place == WarnPlace::Preparation;
    for scene in scenes.iter().filter(|s| !apart_only || !s.is_rebuild()) {
        let Some(why) = (entry.trigger)(scene) else { continue };
        let (phase, at) = (scene.step.phase, (scene.step.id, scene.number));
        let goes_on = |s: &Stretch| {
            entry.place != WarnPlace::Step || s.phase == phase && s.steps.last().is_some_and(|(_, n)| at.1 - n <= NEXT)
        };
        match out.last_mut().filter(|s| goes_on(s)) {
            Some(stretch) => stretch.steps.push(at),
            None => {
                out.push(Stretch { entry, phase, steps: vec![at], why, covered: Covered::Unsaid, cautions: Vec::new() })
            }
        }
    }
    out.iter_mut().for_each(|stretch| cover(manual, scenes, stretch));
    out
}

/// Finds the cautions that warn of a stretch: in it, or in the step right before it.
fn cover(manual: &Manual, scenes: &[Scene<'_>], stretch: &mut Stretch) {
    let entry = stretch.entry;
    let (first, last) = (stretch.steps[0].1, stretch.steps[stretch.steps.len() - 1].1);
    let near = scenes.iter().filter(|s| {
        let here = entry.place == WarnPlace::Preparation || s.step.phase == stretch.phase;
        here && (entry.place != WarnPlace::Step || (first.saturating_sub(1)..=last).contains(&s.number))
    });
    let told = near.flat_map(|s| manual.cautions_of(s.step.id).map(move |c| (s.number, c)));
    let told: Vec<(usize, &Caution)> = told.filter(|(_, c)| entry.is_told_by(c)).collect();
    stretch.cautions = told.iter().map(|(_, c)| c.id).collect();
    stretch.covered = match told.first() {
        Some((at, _)) if *at <= first => Covered::Said,
        _ if entry.place != WarnPlace::Step => Covered::General,
        Some(_) => Covered::Late,
        None => Covered::Unsaid,
    };
}

impl Stretch {
    /// The step before which it must be said.
    pub fn first(&self) -> StepId {
        self.steps[0].0
    }

    pub fn hazard(&self) -> Hazard {
        self.entry.hazard
    }

    /// What a reader is told where nobody has worded it: what to do, and whose work it is.
    pub fn proposed(&self) -> String {
        match self.entry.defers {
            Some(who) => format!("{} Ask {who}.", self.entry.avoidance),
            None => self.entry.avoidance.to_owned(),
        }
    }
}

/// Cautions that warn of nothing the catalogue finds: they stay as they were told.
pub fn free<'m>(manual: &'m Manual, stretches: &[Stretch]) -> Vec<&'m Caution> {
    let steps = [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| manual.steps_in(p));
    let all = steps.flat_map(|s| manual.cautions_of(s.id));
    all.filter(|c| stretches.iter().all(|s| !s.cautions.contains(&c.id))).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{CautionEdit, CautionField, Edit, drafted};
    use rstest::rstest;

    fn told(text: &str) -> Manual {
        drafted::manual(&format!("[0:00] {text}"))
    }

    fn of(manual: &Manual, hazard: Hazard) -> Vec<Stretch> {
        stretches(manual).into_iter().filter(|s| s.hazard() == hazard).collect()
    }

    const HEAT: &str = "Heat the front glass with a heat gun to 80 degrees. Pry off the front glass.";

    #[test]
    fn steps_that_follow_each_other_are_one_stretch() {
        let manual = told(
            "Pry off the front glass. Take out the tray. Pry off the rear glass. Take out the fan. Take out the duct. Take out \
             the filter. Pry off the side glass.",
        );
        let numbers: Vec<Vec<usize>> =
            of(&manual, Hazard::Splinters).iter().map(|s| s.steps.iter().map(|(_, n)| *n).collect()).collect();
        assert_eq!(numbers.len(), 2, "{numbers:?}");
        assert!(numbers[0].len() == 2 && numbers[1].len() == 1, "{numbers:?}");
    }

    #[rstest]
    #[case::nobody_warned(HEAT, Covered::Unsaid)]
    #[case::warned_before(
        "Caution, the glass gets hot and burns your fingers. Heat the front glass with a heat gun to 80 degrees. Pry off the front glass.",
        Covered::Said
    )]
    fn a_warning_covers_what_it_is_about(#[case] text: &str, #[case] covered: Covered) {
        let manual = told(text);
        let stretches = of(&manual, Hazard::HotPart);
        assert_eq!(stretches.iter().map(|s| s.covered).collect::<Vec<_>>(), [covered], "{:?}", manual.cautions);
    }

    #[test]
    fn a_warning_that_is_moved_behind_comes_too_late() {
        let manual = told(
            "Caution, the glass splinters. Pry off the front glass. Take out the tray. Pry off the rear glass. Take out the fan.",
        );
        let [stretch] = &of(&manual, Hazard::Splinters)[..] else { panic!("{:?}", of(&manual, Hazard::Splinters)) };
        assert_eq!(stretch.covered, Covered::Said, "{:?}", manual.cautions);
        let (id, step) = (stretch.cautions[0], stretch.steps[1].0);
        let edit = Edit::Caution(CautionEdit::Set { id, field: CautionField::Step(step) });
        let moved = manual.apply(&edit, "Ann").unwrap().0;
        assert_eq!(of(&moved, Hazard::Splinters)[0].covered, Covered::Late);
    }

    #[test]
    fn what_holds_for_the_whole_guide_is_one_stretch() {
        let manual = told(
            "Take off the cover. Take out the main board. Take out the fan. Take out the tray. Take out the duct. Take out the sensor board.",
        );
        let [stretch] = &of(&manual, Hazard::Static)[..] else { panic!("{:?}", of(&manual, Hazard::Static)) };
        assert_eq!((stretch.covered, stretch.steps.len()), (Covered::General, 2));
    }

    #[test]
    fn a_caution_of_its_own_stays() {
        let manual = told("Caution, the ribbon is short, do not tear it. Take out the tray.");
        let free = free(&manual, &stretches(&manual));
        assert_eq!(free.len(), manual.cautions.len());
        assert!(!free.is_empty());
    }

    #[test]
    fn an_author_who_says_which_hazard_it_is_decides() {
        let manual = told(&format!("Caution, the ribbon is short, do not tear it. {HEAT}"));
        assert_eq!(of(&manual, Hazard::HotPart)[0].covered, Covered::Unsaid);
        let id = manual.cautions.values().next().expect("one").id;
        let set = CautionEdit::Set { id, field: CautionField::Hazard(Some(Hazard::HotPart)) };
        let manual = manual.apply(&Edit::Caution(set), "Ann").unwrap().0;
        assert_eq!(of(&manual, Hazard::HotPart)[0].covered, Covered::Said);
    }
}
