//! The Chain stop: steps with their depth, conditions with what is worth drawing and what an author can say of them.

use crate::effort;
use crate::ids::*;
use crate::manual::{Edit, Evidence, Manual, Reason, RequirementEdit, Standing};
use crate::order::{Chain, Condition, DepthRow, SURE, Why, dropping, judged, removed_in};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// One step of the chain.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ChainRow {
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

/// One reason as it is read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WhyRow {
    pub reason: Reason,
    pub because: String,
    /// How sure it is, in per cent.
    pub percent: u8,
    pub evidence: Vec<Evidence>,
}

/// A condition with how it is drawn, and the edits by which an author says whether it holds.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ConditionRow {
    pub step: StepId,
    /// One way of one step is a plain "comes first".
    pub ways: Vec<Vec<StepId>>,
    /// The surest first.
    pub whys: Vec<WhyRow>,
    /// An author has looked and said yes.
    pub confirmed: bool,
    /// No chain of others says it already.
    pub drawn: bool,
    /// The manual's order does not respect it.
    pub broken: bool,
    /// Sure enough to forbid a move.
    pub sure: bool,
    /// It holds; `None` where somebody has said so already, or where it has several ways.
    pub confirm: Option<Edit>,
    /// It does not hold.
    pub drop: Option<Edit>,
}

/// A condition that an author said does not hold, with the edit that takes it back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DroppedRow {
    pub step: StepId,
    pub ways: Vec<Vec<StepId>>,
    pub take_back: Option<Edit>,
}

/// All that the stop shows.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ChainView {
    pub steps: Vec<ChainRow>,
    pub conditions: Vec<ConditionRow>,
    /// What an author said does not hold.
    pub dropped: Vec<DroppedRow>,
    /// The deepest first.
    pub parts: Vec<DepthRow>,
    /// The few parts behind which most lies, the first the most.
    pub gates: Vec<DepthRow>,
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
        ChainRow {
            step: *id,
            number: i + 1,
            title: step.title.clone(),
            stage: stages.get(id).copied().flatten().map(str::to_owned),
            level: levels.as_ref().map(|l| l[i]),
            opens: graph.waiting_for(&[i]).count_ones(..) - 1,
            seconds: effort::seconds(manual, step),
            timed: step.time_s.is_some(),
            tools: step.tools.clone(),
            removes: removed_in(step),
        }
    });
    let conditions = chain.conditions.iter().map(|c| row(&chain, drawn.as_deref(), c));
    let parts = chain.depths(manual);
    ChainView {
        steps: steps.collect(),
        conditions: conditions.collect(),
        dropped: chain.dropped.iter().map(dropped).collect(),
        gates: gates(&parts),
        parts,
        unconfirmed: chain.conditions.iter().filter(|c| !c.confirmed).count(),
    }
}

fn row(chain: &Chain, drawn: Option<&[(usize, usize)]>, c: &Condition) -> ConditionRow {
    let why = |w: &Why| WhyRow {
        reason: w.reason,
        because: w.because.clone(),
        percent: (w.confidence * 100.0).round() as u8,
        evidence: w.evidence.clone(),
    };
    let one = c.plain().and_then(<[StepId]>::first).copied();
    let reason = c.whys.first().map_or(Reason::Author, |w| w.reason);
    let confirm = one.filter(|_| !c.confirmed).map(|before| judged(c.step, before, reason, Standing::Confirmed));
    // Of several ways none alone can be denied; the condition is taken away whole.
    let drop = match one {
        Some(before) => Some(dropping(before, c)),
        None => c.requirement.map(|id| Edit::Requirement(RequirementEdit::Remove { id })),
    };
    ConditionRow {
        step: c.step,
        ways: c.ways.clone(),
        whys: c.whys.iter().map(why).collect(),
        confirmed: c.confirmed,
        drawn: worth_drawing(chain, drawn, c),
        broken: !c.met_by(&chain.steps),
        sure: c.confidence() >= SURE,
        confirm: confirm.map(Edit::Requirement),
        drop,
    }
}

fn dropped(c: &Condition) -> DroppedRow {
    let take_back = c.requirement.map(|id| Edit::Requirement(RequirementEdit::Remove { id }));
    DroppedRow { step: c.step, ways: c.ways.clone(), take_back }
}

fn gates(parts: &[DepthRow]) -> Vec<DepthRow> {
    const FEW: usize = 3;
    let mut gates: Vec<DepthRow> = parts.iter().filter(|p| p.opens > 0).cloned().collect();
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
