//! Routes to a target: which steps, in which order, and what they cost.

use super::Chain;
use super::least::{Route, Search, Work, routes};
use super::reasons::removed_in;
use super::sequence::{Setup, sequence};
use crate::effort;
use crate::ids::*;
use crate::labels;
use crate::manual::{FastenerFate, Manual, SeamKind, Step};
use crate::reading::{CautionSubject, Consumable, FastenerOp};
use crate::{power, things};
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// What may go wrong on a route.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Risk {
    /// Glue is cut or softened.
    Glued,
    /// Glass or another brittle thing is lifted.
    Brittle,
    /// Something is used up and must be renewed.
    SingleUse,
    /// A battery is handled.
    Battery,
    /// Mains voltage or a charge that stays.
    Mains,
}

labels!(Risk {
    Glued: "glued",
    Brittle: "brittle",
    SingleUse: "something is used up",
    Battery: "battery",
    Mains: "mains or stored charge",
});

/// A sum of money.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Price {
    pub amount: f64,
    pub currency: String,
}

/// What a route adds up to.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Totals {
    pub steps: usize,
    /// By the counting rule of EN 45554 (from memory).
    pub counted_steps: usize,
    pub seconds: f64,
    /// In the order in which they are taken up.
    pub tools: Vec<String>,
    pub tool_changes: usize,
    /// Screws that come out or are loosened, of those counted.
    pub screws: u32,
    /// Groups whose count nobody knows.
    pub uncounted: usize,
    /// Screws and materials that must be renewed.
    pub renewed: Vec<String>,
    pub risks: Vec<Risk>,
    /// Parts that do not survive their removal.
    pub destroyed: Vec<PartId>,
    /// What new ones of them cost, one sum a currency.
    pub price: Vec<Price>,
    /// Destroyed parts of which no price is known.
    pub unpriced: usize,
}

/// One way to the target.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RouteRow {
    /// In the order in which they are best done.
    pub steps: Vec<StepId>,
    pub totals: Totals,
    /// No cheaper set of steps exists.
    pub proven: bool,
    /// How much the order's changes may cost above the best possible order, in seconds; 0 where it is proven best.
    pub gap_s: f64,
    /// Steps of the first route that this one does without, and steps that it has instead.
    pub without: Vec<StepId>,
    /// What a job has to rule out to be cut along this way.
    pub barred: Vec<StepId>,
    pub instead: Vec<StepId>,
    /// Parts that stay where they are.
    pub stays: Vec<PartId>,
}

/// How deep a part sits.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DepthRow {
    pub part: PartId,
    /// Steps of the cheapest route, its own included; `None` where no step reaches it.
    pub steps: Option<usize>,
    pub counted_steps: Option<usize>,
    pub seconds: Option<f64>,
    /// How many other parts can only be reached through it.
    pub opens: usize,
}

/// The author's weights are hundredths of a second.
const HUNDREDTHS: f64 = 100.0;
/// The search works in whole tenths of a second.
const TENTHS: f64 = 10.0;

impl Chain {
    /// The cheapest ways to take all of `targets` out, the best first; none where no step does, or none can.
    ///
    /// A part that several steps take out may leave by any of them.
    pub fn routes(&self, manual: &Manual, targets: &[PartId], most: usize) -> Vec<RouteRow> {
        self.routes_without(manual, targets, &[], most)
    }

    /// The same, without any of some steps.
    pub fn routes_without(
        &self,
        manual: &Manual,
        targets: &[PartId],
        without: &[StepId],
        most: usize,
    ) -> Vec<RouteRow> {
        let barred: Vec<usize> = without.iter().filter_map(|s| self.at(*s)).collect();
        let work = self.work(manual);
        let Some(goals) = targets.iter().map(|t| self.reached_by(manual, *t)).collect::<Option<Vec<_>>>() else {
            return Vec::new();
        };
        self.routes_to(manual, &work, goals, &barred, most)
    }

    fn work(&self, manual: &Manual) -> Vec<Work> {
        let cost = |s: &StepId| (effort::seconds(manual, &manual.steps[s]) * TENTHS).round().max(1.0) as u64;
        self.needs().into_iter().zip(&self.steps).map(|(needs, s)| Work { cost: cost(s), needs }).collect()
    }

    /// The steps that take a part out, else those that work on it: one of them is the goal.
    fn reached_by(&self, manual: &Manual, part: PartId) -> Option<Vec<usize>> {
        let of = |wanted: &dyn Fn(&Step) -> bool| -> Vec<usize> {
            (0..self.steps.len()).filter(|i| wanted(&manual.steps[&self.steps[*i]])).collect()
        };
        let out = of(&|s| removed_in(s).contains(&part));
        let works = || of(&|s| s.actions.iter().any(|a| a.parts.contains(&part)));
        let found = if out.is_empty() { works() } else { out };
        (!found.is_empty()).then_some(found)
    }

    fn routes_to(
        &self,
        manual: &Manual,
        work: &[Work],
        goals: Vec<Vec<usize>>,
        barred: &[usize],
        most: usize,
    ) -> Vec<RouteRow> {
        // One act that costs nothing and needs a way to each goal.
        let mut work = work.to_vec();
        let end = work.len();
        let needs = goals.into_iter().map(|ways| super::Need { ways: ways.into_iter().map(|s| vec![s]).collect() });
        work.push(Work { cost: 0, needs: needs.collect() });
        let found: Vec<Route> = routes(&work, &[end], barred, most)
            .into_iter()
            .map(|mut r| {
                r.acts.retain(|a| *a != end);
                r
            })
            .collect();
        let setups = self.setups(manual);
        let needs: Vec<Vec<super::Need>> = work.into_iter().map(|w| w.needs).collect();
        let views = found.iter().filter_map(|route| {
            let order = sequence(&needs[..end], &setups, &route.acts, manual.head.weights)?;
            let steps: Vec<StepId> = order.acts.iter().map(|a| self.steps[*a]).collect();
            let differs = |a: &Route, b: &Route| -> Vec<StepId> {
                a.acts.iter().filter(|x| !b.acts.contains(x)).map(|x| self.steps[*x]).collect()
            };
            Some(RouteRow {
                totals: totals(manual, &steps),
                proven: route.proven(),
                gap_s: (order.cost - order.bound) as f64 / HUNDREDTHS,
                without: differs(&found[0], route),
                barred: route.without.iter().map(|a| self.steps[*a]).collect(),
                instead: differs(route, &found[0]),
                stays: stays(manual, &steps),
                steps,
            })
        });
        views.collect()
    }

    fn setups(&self, manual: &Manual) -> Vec<Setup> {
        let mut tools: BTreeMap<&str, u32> = BTreeMap::new();
        let mut out = Vec::with_capacity(self.steps.len());
        for (told, id) in self.steps.iter().enumerate() {
            let step = &manual.steps[id];
            let tool = step.tools.first().map(|first| {
                let next = tools.len() as u32;
                *tools.entry(first.as_str()).or_insert(next)
            });
            // What a step heats stays soft for the steps that open it.
            let seam = manual.seams.values().filter(|s| s.step == *id).filter_map(|s| s.part);
            let heated: Vec<PartId> = manual.heats.values().filter_map(|h| h.target).collect();
            let warm = manual.heats_of(*id).filter_map(|h| h.target).chain(seam).find(|p| heated.contains(p));
            let warm = warm.and_then(|p| manual.parts.keys().position(|k| *k == p)).map(|n| n as u32);
            let posture = step.posture.map(|p| p as u32);
            out.push(Setup { tool, posture, warm, told });
        }
        out
    }

    /// The depth of every part, the deepest first, and how many others lie behind it. One search a part.
    pub fn depths(&self, manual: &Manual) -> Vec<DepthRow> {
        let work = self.work(manual);
        let search = Search::new(&work, &[]);
        let graph = self.sure_graph();
        let mut out: Vec<DepthRow> = manual
            .parts
            .keys()
            .map(|part| {
                let goal = self.reached_by(manual, *part);
                let best =
                    goal.as_ref().and_then(|g| g.iter().filter_map(|s| search.run(&[*s])).min_by_key(|r| r.cost));
                let steps: Option<Vec<StepId>> = best.map(|r| r.acts.iter().map(|a| self.steps[*a]).collect());
                let totals = steps.as_ref().map(|s| totals(manual, s));
                let behind = goal.filter(|g| g.len() == 1).map(|g| graph.waiting_for(&g));
                let opens = behind.map_or(0, |set| {
                    let others = set.ones().flat_map(|i| removed_in(&manual.steps[&self.steps[i]]));
                    others.filter(|p| p != part).collect::<BTreeSet<_>>().len()
                });
                DepthRow {
                    part: *part,
                    steps: totals.as_ref().map(|t| t.steps),
                    counted_steps: totals.as_ref().map(|t| t.counted_steps),
                    seconds: totals.map(|t| t.seconds),
                    opens,
                }
            })
            .collect();
        out.sort_by_key(|d| (std::cmp::Reverse(d.steps), d.part));
        out
    }
}

pub(super) fn stays(manual: &Manual, steps: &[StepId]) -> Vec<PartId> {
    let gone: BTreeSet<PartId> = steps.iter().flat_map(|s| removed_in(&manual.steps[s])).collect();
    manual.parts.keys().copied().filter(|p| !gone.contains(p)).collect()
}

/// What steps add up to, done in this order: seconds, screws, turns of the device. O(steps + what hangs on them).
pub fn totals(manual: &Manual, steps: &[StepId]) -> Totals {
    let steps: Vec<&Step> = steps.iter().map(|s| &manual.steps[s]).collect();
    let mut out = Totals { steps: steps.len(), ..Totals::default() };
    let mut hand: Option<&str> = None;
    for step in &steps {
        out.seconds += effort::seconds(manual, step);
        for tool in &step.tools {
            if hand.is_some_and(|h| h != tool) {
                out.tool_changes += 1;
            }
            hand = Some(tool);
            if !out.tools.contains(tool) {
                out.tools.push(tool.clone());
            }
        }
        for g in manual.groups_of(step.id).filter(|g| matches!(g.op, FastenerOp::Remove | FastenerOp::Loosen)) {
            out.screws += g.count.unwrap_or(0);
            out.uncounted += usize::from(g.count.is_none());
            if g.fate == FastenerFate::Renew {
                out.renewed.push(g.in_a_sentence());
            }
        }
        out.renewed.extend(step.consumables.iter().filter(|c| used_up(**c)).map(|c| c.name().to_owned()));
        out.risks.extend(risks(manual, step));
    }
    let gone = steps.iter().flat_map(|s| removed_in(s));
    let gone: BTreeSet<PartId> = gone.filter(|p| manual.parts.get(p).is_some_and(|p| p.single_use)).collect();
    out.destroyed = gone.into_iter().collect();
    (out.price, out.unpriced) = prices(manual, &out.destroyed);
    out.seconds += effort::TOOL_CHANGE_S * out.tool_changes as f64;
    out.seconds += effort::TURN_S * turns(&steps) as f64;
    out.renewed.sort();
    out.renewed.dedup();
    out.risks.sort();
    out.risks.dedup();
    let acts: Vec<effort::Counted<'_>> = steps.iter().flat_map(|s| effort::counted(s)).collect();
    out.counted_steps = effort::count_steps(&acts, effort::CountingRule::default());
    out
}

/// What new ones of these parts cost, one sum a currency, and how many have no price.
pub(super) fn prices(manual: &Manual, parts: &[PartId]) -> (Vec<Price>, usize) {
    let mut sums: BTreeMap<String, f64> = BTreeMap::new();
    let mut unknown = 0;
    for part in parts {
        let new = manual.parts.get(part).and_then(|p| p.replacement.as_ref());
        match new.and_then(|n| Some((n.price?, n.currency.clone().unwrap_or_default()))) {
            Some((price, currency)) => *sums.entry(currency).or_default() += price,
            None => unknown += 1,
        }
    }
    (sums.into_iter().map(|(currency, amount)| Price { amount, currency }).collect(), unknown)
}

fn turns(steps: &[&Step]) -> usize {
    let postures: Vec<_> = steps.iter().filter_map(|s| s.posture.as_ref()).collect();
    postures.windows(2).filter(|w| w[0] != w[1]).count()
}

fn used_up(c: Consumable) -> bool {
    matches!(
        c,
        Consumable::Adhesive
            | Consumable::Tape
            | Consumable::ThermalPaste
            | Consumable::ThermalPad
            | Consumable::Gasket
    )
}

fn risks(manual: &Manual, step: &Step) -> Vec<Risk> {
    let mut out = Vec::new();
    if manual.seams.values().any(|s| s.step == step.id && s.kind == SeamKind::Glue) {
        out.push(Risk::Glued);
    }
    if step.consumables.iter().any(|c| used_up(*c)) || manual.groups_of(step.id).any(|g| g.fate == FastenerFate::Renew)
    {
        out.push(Risk::SingleUse);
    }
    for c in manual.cautions_of(step.id) {
        match c.about {
            CautionSubject::Glass => out.push(Risk::Brittle),
            CautionSubject::Battery => out.push(Risk::Battery),
            CautionSubject::Mains => out.push(Risk::Mains),
            _ => {}
        }
    }
    for name in manual.worked_at(step) {
        out.extend(things::is_lithium(name).then_some(Risk::Battery));
        out.extend((things::is_mains(name) || things::holds_charge(name)).then_some(Risk::Mains));
    }
    out.extend(power::discharges(step).then_some(Risk::Mains));
    out
}
