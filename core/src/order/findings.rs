//! What is wrong with the order: rings, steps told too early, steps that nothing needs, parts that no step reaches.
//!
//! One function a finding; each offers the edits that mend it.

use super::verdict::met;
use super::{Chain, Condition};
use crate::ids::*;
use crate::manual::{Edit, Manual, RequirementEdit, Standing, Step, StepEdit};
use crate::reading::Act;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// What kind of thing is wrong.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OrderKind {
    /// Steps wait for each other.
    Ring,
    /// A step stands before what it needs.
    TooEarly,
    /// Nothing needs it, and it takes nothing out.
    Idle,
    /// No step takes it out or works on it.
    Unreached,
}

/// One press that mends a finding.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Fix {
    pub label: String,
    pub edit: Edit,
}

/// One finding.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OrderFinding {
    pub kind: OrderKind,
    /// The sentence that the author reads.
    pub says: String,
    pub steps: Vec<StepId>,
    pub parts: Vec<PartId>,
    pub fixes: Vec<Fix>,
    /// Stands against publishing.
    pub blocks: bool,
}

/// Everything that is wrong, the worst first.
pub fn findings(manual: &Manual, chain: &Chain) -> Vec<OrderFinding> {
    let mut out = rings(manual, chain);
    out.extend(too_early(manual, chain));
    out.extend(idle(manual, chain));
    out.extend(unreached(manual, chain));
    out
}

fn title(manual: &Manual, id: StepId) -> &str {
    manual.steps.get(&id).map_or("a step that is gone", |s| s.title.as_str())
}

/// The shortest ring in words, with its weakest link as the one to let go.
fn rings(manual: &Manual, chain: &Chain) -> Vec<OrderFinding> {
    if chain.stuck().is_empty() {
        return Vec::new();
    }
    let graph = if chain.sure_graph().order().is_none() { chain.sure_graph() } else { chain.graph() };
    let Some(ring) = graph.shortest_cycle() else { return Vec::new() };
    let ring: Vec<StepId> = ring.into_iter().map(|i| chain.steps[i]).collect();
    let links: Vec<(StepId, &Condition)> = (0..ring.len())
        .filter_map(|i| {
            let (before, step) = (ring[i], ring[(i + 1) % ring.len()]);
            chain.of_step(step).find(|c| c.ways.iter().flatten().any(|s| *s == before)).map(|c| (before, c))
        })
        .collect();
    let told: Vec<String> = links
        .iter()
        .map(|(before, c)| {
            format!("“{}” waits for “{}” ({})", title(manual, c.step), title(manual, *before), c.because())
        })
        .collect();
    let weakest = links.iter().min_by(|a, b| a.1.confidence().total_cmp(&b.1.confidence()));
    let fixes = weakest.map(|(before, c)| letting_go(manual, *before, c)).into_iter().collect();
    vec![OrderFinding {
        kind: OrderKind::Ring,
        says: format!("These steps wait for each other, so none can begin: {}.", told.join("; ")),
        steps: ring,
        parts: Vec::new(),
        fixes,
        blocks: true,
    }]
}

fn letting_go(manual: &Manual, before: StepId, c: &Condition) -> Fix {
    let label = format!("“{}” does not wait for “{}”", title(manual, c.step), title(manual, before));
    Fix { label, edit: let_go(before, c) }
}

/// The edit that says a link does not hold; alternatives are taken away whole.
pub(super) fn let_go(before: StepId, c: &Condition) -> Edit {
    Edit::Requirement(match (c.requirement, c.plain()) {
        (Some(id), way) if way.is_none_or(|w| w.len() != 1) => RequirementEdit::Remove { id },
        _ => RequirementEdit::Judge {
            id: RequirementId(Uuid::new_v5(&c.step.0, before.0.as_bytes())),
            step: c.step,
            before,
            reason: c.whys.first().map_or(crate::manual::Reason::Author, |w| w.reason),
            standing: Standing::Dropped,
        },
    })
}

/// A step that stands before what it needs, with the move that mends it.
fn too_early(manual: &Manual, chain: &Chain) -> Vec<OrderFinding> {
    let stuck = chain.stuck();
    let broken = chain.conditions.iter().filter(|c| !stuck.contains(&c.step) && !met(c, &chain.steps));
    let finding = |c: &Condition| {
        // The way that ends soonest asks for the shortest move.
        let ends = |way: &Vec<StepId>| way.iter().filter_map(|s| chain.at(*s)).max();
        let last = c.ways.iter().filter_map(ends).min()?;
        let last = chain.steps[last];
        let to = Fix {
            label: format!("Move it behind “{}”", title(manual, last)),
            edit: Edit::Step(StepEdit::Move { id: c.step, after: Some(last) }),
        };
        let own = chain.at(c.step)?;
        let front = Fix {
            label: format!("Move “{}” before it", title(manual, last)),
            edit: Edit::Step(StepEdit::Move { id: last, after: own.checked_sub(1).map(|i| chain.steps[i]) }),
        };
        Some(OrderFinding {
            kind: OrderKind::TooEarly,
            says: format!("“{}” stands before “{}”, but {}.", title(manual, c.step), title(manual, last), c.because()),
            steps: vec![c.step, last],
            parts: Vec::new(),
            fixes: vec![to, front, letting_go(manual, last, c)],
            blocks: c.confidence() >= 0.8,
        })
    };
    broken.filter_map(finding).collect()
}

/// A step that nothing waits for and that takes nothing out: left over from talk, or a reason is missing.
fn idle(manual: &Manual, chain: &Chain) -> Vec<OrderFinding> {
    let graph = chain.graph();
    let works = |s: &Step| {
        s.actions.iter().any(|a| {
            matches!(a.act, Act::Remove | Act::Peel | Act::Test | Act::Clean | Act::Apply | Act::Transfer | Act::Mark)
        })
    };
    let alone = |(i, id): &(usize, &StepId)| graph.after(*i).is_empty() && !works(&manual.steps[*id]);
    let finding = |(i, id): (usize, &StepId)| {
        let next = chain.steps.get(i + 1).map(|next| Fix {
            label: format!("“{}” waits for it", title(manual, *next)),
            edit: Edit::Requirement(RequirementEdit::Judge {
                id: RequirementId(Uuid::new_v5(&next.0, id.0.as_bytes())),
                step: *next,
                before: *id,
                reason: crate::manual::Reason::Author,
                standing: Standing::Confirmed,
            }),
        });
        OrderFinding {
            kind: OrderKind::Idle,
            says: format!("Nothing waits for “{}”, and it takes nothing out.", title(manual, *id)),
            steps: vec![*id],
            parts: Vec::new(),
            fixes: next.into_iter().collect(),
            blocks: false,
        }
    };
    chain.steps.iter().enumerate().filter(alone).map(finding).collect()
}

/// A part that is named somewhere, but that no step takes out or works on.
fn unreached(manual: &Manual, chain: &Chain) -> Vec<OrderFinding> {
    let handled = |part: PartId| {
        chain.steps.iter().any(|s| {
            manual.steps[s].actions.iter().any(|a| a.parts.contains(&part))
                || manual.groups_of(*s).any(|g| g.holds.contains(&part))
                || manual.connectors_of(*s).any(|c| c.serves == Some(part))
                || manual.heats_of(*s).any(|h| h.target == Some(part))
        })
    };
    let lost: Vec<PartId> = manual.parts.keys().copied().filter(|p| !handled(*p)).collect();
    let finding = |part: PartId| OrderFinding {
        kind: OrderKind::Unreached,
        says: format!("No step of the teardown takes out or works on the {}.", manual.part_name(part)),
        steps: Vec::new(),
        parts: vec![part],
        fixes: Vec::new(),
        blocks: false,
    };
    lost.into_iter().map(finding).collect()
}
