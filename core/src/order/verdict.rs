//! Whether a step may stand where an author drags it: fine, fine with a warning, or refused, each with its reason.

use super::{Chain, Condition, SURE, dropping};
use crate::ids::*;
use crate::manual::Edit;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a move is judged.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Judged {
    Fine,
    /// Something unsure speaks against it.
    Doubtful,
    Refused,
}

/// A judgement with its reasons.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MoveVerdict {
    pub judged: Judged,
    /// The sentence that the author reads; empty where all is fine.
    pub says: String,
    /// What speaks against it.
    pub against: Vec<Condition>,
    /// The edits that drop all that speaks against it.
    pub drops: Vec<Edit>,
}

/// A judgement of one spot.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Spot {
    /// The step it would stand behind; `None` is the front.
    pub after: Option<StepId>,
    #[serde(flatten)]
    pub verdict: MoveVerdict,
}

impl Chain {
    /// Judges every spot where `step` could stand, from the front on.
    pub fn judge_all(&self, step: StepId, title: impl Fn(StepId) -> String) -> Vec<Spot> {
        let others = self.steps.iter().copied().filter(|s| *s != step).map(Some);
        std::iter::once(None)
            .chain(others)
            .map(|after| Spot { after, verdict: self.judge(step, after, &title) })
            .collect()
    }

    /// Judges moving `step` right behind `after`, or to the front.
    ///
    /// Only what the move makes worse counts: an order that was broken before is a finding, not a reason against moves.
    pub fn judge(&self, step: StepId, after: Option<StepId>, title: impl Fn(StepId) -> String) -> MoveVerdict {
        let mut order: Vec<StepId> = self.steps.iter().copied().filter(|s| *s != step).collect();
        let at = after.and_then(|a| order.iter().position(|s| *s == a)).map_or(0, |i| i + 1);
        order.insert(at, step);
        let mut against: Vec<Condition> =
            self.conditions.iter().filter(|c| c.met_by(&self.steps) && !c.met_by(&order)).cloned().collect();
        against.sort_by(|a, b| b.confidence().total_cmp(&a.confidence()));
        let Some(worst) = against.first() else {
            return MoveVerdict { judged: Judged::Fine, says: String::new(), against, drops: Vec::new() };
        };
        let first: Vec<String> = worst.ways[0].iter().map(|s| format!("“{}”", title(*s))).collect();
        let pair = format!("{} before “{}”: {}", first.join(" and "), title(worst.step), worst.because());
        let (judged, says) = if worst.confidence() >= SURE {
            (Judged::Refused, format!("{pair}."))
        } else {
            (Judged::Doubtful, format!("{pair} – if that is so."))
        };
        let broken = |c: &Condition, before: &StepId| !stands_before(&order, *before, c.step);
        let drops = against.iter().flat_map(|c| {
            let first = c.ways.iter().flatten().find(|b| broken(c, b)).copied();
            first.map(|before| dropping(before, c))
        });
        MoveVerdict { judged, says, drops: drops.collect(), against }
    }
}

fn stands_before(order: &[StepId], a: StepId, b: StepId) -> bool {
    let place = |id: StepId| order.iter().position(|s| *s == id);
    place(a) < place(b)
}
