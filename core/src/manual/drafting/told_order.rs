//! What the narrator says about order while drafting: "to reach the fan you have to take off the cover", "the fan sits
//! under the shield". Both become proposals with their seconds; the author confirms or drops them.

use crate::ids::*;
use crate::manual::model::steps::Phase;
use crate::manual::{Evidence, Manual, Reason, Requirement, Standing};
use crate::reading::{Act, Statement, StatementKind};

/// Said of parts, before all steps are known.
#[derive(Default)]
pub(in crate::manual) struct ToldOrder {
    said: Vec<Said>,
}

struct Said {
    reason: Reason,
    /// By their names, in lower case.
    first: String,
    then: String,
    because: String,
    evidence: Evidence,
}

impl ToldOrder {
    pub fn listen(&mut self, statement: &Statement, evidence: &Evidence) {
        if statement.rebuild || statement.kind == StatementKind::Noise {
            return;
        }
        for need in &statement.facts.needs {
            for first in &need.after {
                self.said.push(Said {
                    reason: Reason::Stated,
                    first: first.to_lowercase(),
                    then: need.target.to_lowercase(),
                    because: format!("the narrator says that the {} comes after the {first}", need.target),
                    evidence: evidence.clone(),
                });
            }
        }
        let text = statement.text.to_lowercase();
        const UNDER: [&str; 4] = [" under the ", " underneath the ", " beneath the ", " below the "];
        for under in UNDER {
            if let Some((thing, over)) = format!(" {text}").split_once(under) {
                self.said.push(Said {
                    reason: Reason::Covers,
                    first: over.to_owned(),
                    then: thing.to_owned(),
                    because: "said to lie under it".to_owned(),
                    evidence: evidence.clone(),
                });
            }
        }
    }

    /// Puts what was said into the manual, as far as its steps know the parts.
    pub fn settle(self, manual: &mut Manual, mut id: impl FnMut() -> RequirementId) {
        for said in self.said {
            let covers = said.reason == Reason::Covers;
            let first = if covers { part_at_start(manual, &said.first) } else { part_called(manual, &said.first) };
            let then = if covers { part_at_end(manual, &said.then) } else { part_called(manual, &said.then) };
            let (Some(first), Some(then)) = (first, then) else { continue };
            let (Some((a, before)), Some((b, step))) = (taken_out(manual, first), worked_on(manual, then)) else {
                continue;
            };
            // What is said to lie under something, and was reached before that left, was reached another way.
            if before == step || (covers && a > b) {
                continue;
            }
            let ways = vec![vec![before]];
            if let Some(known) = manual.requirements.values_mut().find(|r| r.step == step && r.ways == ways) {
                known.evidence.push(said.evidence);
                continue;
            }
            let because = if covers {
                format!("the {} lies under the {}", manual.part_name(then), manual.part_name(first))
            } else {
                said.because
            };
            let new = Requirement {
                id: id(),
                step,
                ways,
                reason: said.reason,
                standing: Standing::Proposed,
                because,
                confidence: if covers { 0.8 } else { 0.9 },
                evidence: vec![said.evidence],
            };
            manual.requirements.insert(new.id, new);
        }
    }
}

fn part_called(manual: &Manual, name: &str) -> Option<PartId> {
    manual.parts.values().find(|p| p.name.eq_ignore_ascii_case(name)).map(|p| p.id)
}

/// The part that the words begin with: the longest name, else the only part with such a head ("board", "main board").
fn part_at_start(manual: &Manual, words: &str) -> Option<PartId> {
    let begins = |name: &str| words.strip_prefix(name).is_some_and(|rest| !rest.starts_with(char::is_alphanumeric));
    let fits = names(manual).filter(|(name, _)| begins(name));
    let whole = fits.max_by_key(|(name, _)| name.len()).map(|(_, id)| id);
    whole.or_else(|| only(names(manual).filter(|(name, _)| begins(head(name)))))
}

/// The part that was named last before the words end.
fn part_at_end(manual: &Manual, words: &str) -> Option<PartId> {
    let ends = |name: &str| {
        let at = words.rfind(name)?;
        let end = at + name.len();
        let whole = !words[end..].starts_with(char::is_alphanumeric) && !words[..at].ends_with(char::is_alphanumeric);
        whole.then_some((end, name.len()))
    };
    let named = names(manual).filter_map(|(name, id)| Some((ends(&name)?, id)));
    let whole = named.max_by_key(|(place, _)| *place).map(|(_, id)| id);
    whole.or_else(|| only(names(manual).filter(|(name, _)| ends(head(name)).is_some())))
}

fn names(manual: &Manual) -> impl Iterator<Item = (String, PartId)> {
    manual.parts.values().map(|p| (p.name.to_lowercase(), p.id))
}

fn head(name: &str) -> &str {
    name.rsplit(' ').next().unwrap_or(name)
}

fn only(mut fits: impl Iterator<Item = (String, PartId)>) -> Option<PartId> {
    let first = fits.next()?.1;
    fits.next().is_none().then_some(first)
}

fn taken_out(manual: &Manual, part: PartId) -> Option<(usize, StepId)> {
    step_where(manual, part, |act| matches!(act, Act::Remove | Act::Peel))
}

/// Where it leaves, else where something is first done to it.
fn worked_on(manual: &Manual, part: PartId) -> Option<(usize, StepId)> {
    taken_out(manual, part).or_else(|| step_where(manual, part, |_| true))
}

fn step_where(manual: &Manual, part: PartId, act: impl Fn(Act) -> bool) -> Option<(usize, StepId)> {
    let steps = manual.steps_in(Phase::Teardown);
    let at = steps.iter().position(|s| s.actions.iter().any(|a| act(a.act) && a.parts.contains(&part)))?;
    Some((at, steps[at].id))
}
