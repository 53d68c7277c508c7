//! Where what was told of the rebuild and the teardown turned round do not agree, each with both its places.
//!
//! Both are aligned line by line (`told`). What most of a told rebuild leaves out, what is told again, what never came out,
//! and what is told before something that must go in under it is a difference. That something merely stands elsewhere than
//! reversing puts it is none: narrators go their own ways, and the step says so. Counts, sizes and sides that do not agree
//! are found where they are heard, by the rules of Listen, and by the balance.

use super::back::goes_back;
use super::inverse::{About, Reversed};
use super::told::{Alignment, Place, Sentence};
use crate::ids::*;
use crate::manual::{Phase, Reason};
use crate::order::{Chain, Condition, SURE};
use crate::reading::Act;
use crate::things::is_any_cable;
use std::collections::{BTreeMap, BTreeSet};

/// One difference between the told rebuild and the teardown turned round.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Difference {
    /// It came out, most of the rebuild was told, and this was not.
    Untold { of: StepId, line: String },
    /// It is fitted and never came out.
    NeverOut { told: StepId, part: PartId },
    /// It is told before something that goes in under it, behind it, or before power.
    TooEarly {
        told: StepId,
        sentence: String,
        /// What it must wait for.
        other: StepId,
        waits_for: String,
        /// The teardown steps of both.
        of: [StepId; 2],
        /// Why, from the chain.
        because: String,
    },
    /// It is told a second time, and nothing took it out between.
    Twice { told: StepId, action: ActionId, sentence: String, first: StepId },
}

/// Who tells less of the lines that go back leaves the rebuild to reversing. Common practice, no source.
const MOSTLY_TOLD: f64 = 0.6;

impl Alignment<'_> {
    /// All differences, kind after kind. O(lines × told sentences + conditions of the chain).
    pub fn differences(&self, chain: &Chain) -> Vec<Difference> {
        if self.steps.is_empty() {
            return Vec::new();
        }
        let mut out = self.untold();
        out.extend(self.never_out());
        out.extend(self.too_early(chain));
        out.extend(self.twice());
        out
    }

    /// Joints are closed and power comes back without a word; the rest is told, or it is missing.
    fn lines(&self) -> impl Iterator<Item = (&Reversed, &super::inverse::Undo, Option<Place>)> {
        let both = self.reversed.iter().zip(&self.found);
        both.flat_map(|(r, f)| r.undos.iter().zip(f).map(move |(u, at)| (r, u, *at)))
            .filter(|(_, u, _)| matches!(u.about, About::Parts(..) | About::Group(_) | About::Connector(_)))
    }

    /// Screws are told with their part, if at all: who says "cover on" has driven them.
    fn untold(&self) -> Vec<Difference> {
        let (all, told) = (self.lines().count(), self.lines().filter(|(.., at)| at.is_some()).count());
        if all == 0 || (told as f64) < MOSTLY_TOLD * all as f64 {
            return Vec::new();
        }
        let missing = self.lines().filter(|(_, u, at)| at.is_none() && !matches!(u.about, About::Group(_)));
        missing.map(|(r, u, _)| Difference::Untold { of: r.of, line: u.line.text.clone() }).collect()
    }

    fn never_out(&self) -> Vec<Difference> {
        let manual = self.told.manual;
        let is_new = |(_, a, _): &&Sentence<'_>| manual.sentence(a).to_lowercase().contains("new ");
        let fits = self.told.sentences.iter().filter(|(_, a, _)| a.act == Act::Install).filter(|s| !is_new(s));
        let teardown = manual.steps_in(Phase::Teardown);
        let moved = teardown.iter().flat_map(|s| &s.actions).flat_map(|a| a.parts.iter().copied());
        let moved: BTreeSet<PartId> = moved.collect();
        let mut seen = BTreeSet::new();
        let strange = fits.flat_map(|((t, _), a, _)| a.parts.iter().map(|p| (self.steps[*t].id, *p)));
        strange
            .filter(|(_, part)| !moved.contains(part) && !self.is_known(*part) && seen.insert(*part))
            .map(|(told, part)| Difference::NeverOut { told, part })
            .collect()
    }

    /// It came out under a name like its own, or the job is about it.
    fn is_known(&self, part: PartId) -> bool {
        let manual = self.told.manual;
        let own = &manual.parts[&part];
        self.told.comes_out(&own.name) || !goes_back(manual, part) || own.replacement.is_some()
    }

    /// What the chain took out first goes in last.
    fn too_early(&self, chain: &Chain) -> Vec<Difference> {
        type At = fn(&Reversed, &[Option<Place>]) -> Option<Place>;
        let all = |at: At| -> BTreeMap<StepId, Place> {
            self.reversed.iter().zip(&self.found).filter_map(|(r, f)| Some((r.of, at(r, f)?))).collect()
        };
        let (places, held) = (all(fitted_at), all(held_at));
        // That heat must soften something says nothing of the way back.
        let lasts = |c: &&Condition| c.whys.first().is_none_or(|w| w.reason != Reason::Cure);
        let sure = chain.conditions.iter().filter(|c| c.confidence() >= SURE).filter(lasts);
        let pairs = sure.filter_map(|c| Some((c.plain()?, c)));
        let mut seen = BTreeSet::new();
        let mut out = Vec::new();
        for (before, c) in pairs.flat_map(|(way, c)| way.iter().map(move |s| (*s, c))) {
            // What holds a part goes in behind it; a plug of the same step may be made while the lid still stands open.
            let holds = c.whys.first().is_some_and(|w| w.reason == Reason::Holds);
            let covering = if holds { held.get(&before) } else { places.get(&before) };
            let (Some(covering), Some(covered)) = (covering, places.get(&c.step)) else { continue };
            // Within one sentence both go in together.
            if covering < covered && seen.insert(*covering) {
                out.push(Difference::TooEarly {
                    told: self.steps[covering.0].id,
                    sentence: self.told.text(*covering),
                    other: self.steps[covered.0].id,
                    waits_for: self.told.text(*covered),
                    of: [before, c.step],
                    because: c.because().to_owned(),
                });
            }
        }
        out
    }

    /// The same part fitted or the same plug made by two sentences.
    fn twice(&self) -> Vec<Difference> {
        let mut first: BTreeMap<(Act, String), Place> = BTreeMap::new();
        let mut out = Vec::new();
        for (place, action, names) in &self.told.sentences {
            match action.act {
                Act::Remove | Act::Disconnect | Act::Unscrew | Act::Open => {
                    first.retain(|(_, told), _| !names.iter().any(|n| told.contains(n.as_str())));
                }
                Act::Install | Act::Connect if names.iter().any(|n| !n.is_empty() && !is_any_cable(n)) => {
                    let key = (action.act, names.join(", "));
                    if let Some(before) = first.insert(key, *place) {
                        out.push(Difference::Twice {
                            told: self.steps[place.0].id,
                            action: action.id,
                            sentence: self.told.text(*place),
                            first: self.steps[before.0].id,
                        });
                    }
                }
                _ => {}
            }
        }
        out
    }
}

/// Where a step of the reverse fastens what it holds: its screws, else its part.
fn held_at(step: &Reversed, found: &[Option<Place>]) -> Option<Place> {
    let lines = || step.undos.iter().zip(found);
    let screws = lines().any(|(u, _)| matches!(u.about, About::Group(_)));
    let fastens =
        |about: &About| if screws { matches!(about, About::Group(_)) } else { matches!(about, About::Parts(..)) };
    lines().filter(|(u, _)| fastens(&u.about)).find_map(|(_, at)| *at)
}

/// Where a step of the reverse puts its part back: what else it tells may stand anywhere around.
fn fitted_at(step: &Reversed, found: &[Option<Place>]) -> Option<Place> {
    let lines = || step.undos.iter().zip(found);
    let fits = lines().filter(|(u, _)| matches!(u.about, About::Parts(..)));
    let plugs = lines().filter(|(u, _)| matches!(u.about, About::Connector(_)));
    fits.chain(plugs).find_map(|(_, at)| *at)
}
