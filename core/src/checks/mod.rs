//! Checks: what does not fit together in a manual, one file a rule.
//!
//! Each file holds one rule with all that belongs to it: what triggers it, the sentence the author reads, why it matters,
//! where that is from, the fix that one press applies, and its tests. The list of rules is the listing of this folder.

mod bit_unusual;
mod count_disagreement;
mod label_arithmetic;
mod laid_out_unused;
mod locker_on_polycarbonate;
mod promise_open;
mod replacement_capacity;
mod replacement_connector;
mod replacement_size;
mod replacement_voltage;
mod rough_on_kept_part;
mod screw_mix_up;
mod torque_outside;
mod used_not_laid_out;
#[cfg(test)]
mod written;

use crate::ids::*;
use crate::manual::{Label, Manual, Part, Replacement};
use crate::order::Fix;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A stop of the author's day, in the order of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stop {
    Listen,
    Steps,
    Chain,
    Screws,
    Seams,
    Cables,
    Cautions,
    Fold,
    Rehearse,
    Publish,
}

/// What a finding is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Subject {
    Step(StepId),
    Part(PartId),
    Note(NoteId),
    Tool(ToolId),
    Group(GroupId),
}

/// One rule: what never changes about its findings.
#[derive(Debug, Clone, Copy)]
pub struct Rule {
    pub id: &'static str,
    /// Where it is mended.
    pub stop: Stop,
    /// Stands against publishing.
    pub blocks: bool,
    /// What goes wrong if nobody minds.
    pub why: &'static str,
    /// Standard, formula, or "common practice, no source".
    pub source: &'static str,
}

/// Something that does not fit.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[schema(as = CheckFinding)]
pub struct Finding {
    pub rule: String,
    pub stop: Stop,
    pub blocks: bool,
    /// The sentence that the author reads: what, where, what would be right.
    pub says: String,
    pub why: String,
    pub source: String,
    pub about: Subject,
    /// One press each.
    pub fixes: Vec<Fix>,
}

impl Rule {
    fn finding(&self, about: Subject, says: String) -> Finding {
        Finding {
            rule: self.id.to_owned(),
            stop: self.stop,
            blocks: self.blocks,
            says,
            why: self.why.to_owned(),
            source: self.source.to_owned(),
            about,
            fixes: Vec::new(),
        }
    }
}

/// What a rule says of a manual.
type Find = fn(&Manual) -> Vec<Finding>;

/// Every rule with the stop that its findings are mended at.
const RULES: [(Stop, Find); 14] = [
    (Stop::Screws, torque_outside::find),
    (Stop::Screws, count_disagreement::find),
    (Stop::Screws, screw_mix_up::find),
    (Stop::Screws, bit_unusual::find),
    (Stop::Screws, locker_on_polycarbonate::find),
    (Stop::Steps, replacement_voltage::find),
    (Stop::Steps, replacement_connector::find),
    (Stop::Steps, replacement_size::find),
    (Stop::Steps, replacement_capacity::find),
    (Stop::Steps, label_arithmetic::find),
    (Stop::Chain, rough_on_kept_part::find),
    (Stop::Steps, laid_out_unused::find),
    (Stop::Steps, used_not_laid_out::find),
    (Stop::Steps, promise_open::find),
];

/// All findings of all rules, what blocks publishing first.
pub fn findings(manual: &Manual) -> Vec<Finding> {
    worst_first(RULES.iter().flat_map(|(_, rule)| rule(manual)).collect())
}

/// The findings that are mended at one stop.
pub fn findings_at(manual: &Manual, stop: Stop) -> Vec<Finding> {
    worst_first(RULES.iter().filter(|(at, _)| *at == stop).flat_map(|(_, rule)| rule(manual)).collect())
}

fn worst_first(mut found: Vec<Finding>) -> Vec<Finding> {
    found.sort_by_key(|f| !f.blocks);
    found
}

/// Parts with what is to be ordered for them.
fn replaced(manual: &Manual) -> impl Iterator<Item = (&Part, &Label, &Replacement)> {
    manual.parts.values().filter_map(|p| Some((p, &p.fitted, p.replacement.as_ref()?)))
}
