//! The chain as a screen shows it: steps with their depth, conditions with what is worth drawing, and what is wrong.

use super::verdict::met;
use super::{Chain, Condition, OrderFinding, PartDepth, findings};
use crate::effort;
use crate::ids::*;
use crate::manual::Manual;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// One step of the chain.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ChainStep {
    pub step: StepId,
    /// From 1, in the order of the manual.
    pub number: usize,
    pub title: String,
    /// The stage it belongs to.
    pub stage: Option<String>,
    /// Longest chain of steps before it; `None` while steps wait for each other.
    pub level: Option<usize>,
    /// How many steps wait for it, directly or through others.
    pub opens: usize,
    pub seconds: f64,
    /// Whether the seconds are the author's and not the estimate.
    pub timed: bool,
    pub tools: Vec<String>,
    pub removes: Vec<PartId>,
}

/// A condition with how it is to be drawn.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ConditionView {
    #[serde(flatten)]
    pub condition: Condition,
    /// No chain of others says it already.
    pub drawn: bool,
    /// The manual's order does not respect it.
    pub broken: bool,
    pub confidence: f64,
}

/// All that the stop shows.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ChainView {
    pub steps: Vec<ChainStep>,
    pub conditions: Vec<ConditionView>,
    /// What an author said does not hold.
    pub dropped: Vec<Condition>,
    pub findings: Vec<OrderFinding>,
    /// The deepest first.
    pub parts: Vec<PartDepth>,
    /// The few parts behind which most lies, the first the most.
    pub gates: Vec<PartDepth>,
    /// Conditions that nobody has confirmed.
    pub unconfirmed: usize,
}

/// Works out all that the stop shows.
pub fn view(manual: &Manual) -> ChainView {
    let chain = Chain::of(manual);
    let graph = chain.graph();
    let levels = graph.levels();
    let drawn = graph.reduction();
    let stages: BTreeMap<StepId, Option<&str>> = manual.stages().into_iter().collect();
    let steps = chain.steps.iter().enumerate().map(|(i, id)| {
        let step = &manual.steps[id];
        ChainStep {
            step: *id,
            number: i + 1,
            title: step.title.clone(),
            stage: stages.get(id).copied().flatten().map(str::to_owned),
            level: levels.as_ref().map(|l| l[i]),
            opens: graph.waiting_for(&[i]).count_ones(..) - 1,
            seconds: effort::seconds(manual, step),
            timed: step.time_s.is_some(),
            tools: step.tools.clone(),
            removes: super::propose::removed_in(step),
        }
    });
    let conditions = chain.conditions.iter().map(|c| ConditionView {
        drawn: worth_drawing(&chain, drawn.as_deref(), c),
        broken: !met(c, &chain.steps),
        confidence: c.confidence(),
        condition: c.clone(),
    });
    let parts = chain.depths(manual);
    ChainView {
        steps: steps.collect(),
        conditions: conditions.collect(),
        dropped: chain.dropped.clone(),
        findings: findings(manual, &chain),
        gates: gates(&parts),
        parts,
        unconfirmed: chain.conditions.iter().filter(|c| !c.confirmed).count(),
    }
}

fn gates(parts: &[PartDepth]) -> Vec<PartDepth> {
    const FEW: usize = 3;
    let mut gates: Vec<PartDepth> = parts.iter().filter(|p| p.opens > 0).cloned().collect();
    gates.sort_by_key(|p| std::cmp::Reverse(p.opens));
    gates.truncate(FEW);
    gates
}

/// Alternatives and what the author said are always shown; while there is a ring, everything is.
fn worth_drawing(chain: &Chain, drawn: Option<&[(usize, usize)]>, c: &Condition) -> bool {
    let (Some(drawn), Some([before])) = (drawn, c.plain()) else { return true };
    let pair = chain.at(*before).zip(chain.at(c.step));
    c.confirmed || pair.is_some_and(|p| drawn.binary_search(&p).is_ok())
}
