//! The rebuild: what the narrator told of it, and the teardown folded over for the rest.
//!
//! The teardown is turned round first ([`inverse`](mod@inverse)): the inverse of each act, in reverse order, the power source last of the
//! connectors. What the narrator told of the rebuild is laid over it and stands, with its own words and order; what was not
//! told stays as the reverse of its step, and says so. Sources: reverse-order rules of the trade (common practice, no source).

mod accounts;
mod back;
mod bond;
mod classes;
mod differences;
mod exceptions;
mod inverse;
mod loose;
mod proofs;
mod score;
mod swap;
mod told;
mod work;

pub use accounts::{Account, Bench, Counted, LeftOver};
pub use classes::{ClassRow, Classed};
pub use differences::Difference;
pub use exceptions::{Moved, OrderRule};
pub use inverse::{inverse, waits_until};
pub use proofs::{Proof, ProofKind, Taken};
pub use score::{Score, Scored};
pub use swap::{Swap, swaps};
pub use told::{Alignment, reverse_of};
pub use work::{Clock, Grade, GradeReason, StepTime, WorkSheet};

use crate::effort::Heard;
use crate::fasteners::balance::{self, Balance, balance};
use crate::ids::*;
use crate::manual::{Caution, Manual, Phase, Posture, Step};
use crate::reading::{Act, CautionSubject};
use inverse::Reversed;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use utoipa::ToSchema;

/// One step of the rebuild, told or worked out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RebuildStep {
    /// The step of the manual whose words these are; `None`: nobody told it, the teardown was turned round.
    pub told: Option<StepId>,
    /// Its place among the told steps as they were told, from 1.
    pub told_number: Option<usize>,
    /// It stands in another place among the told ones than it was told.
    pub told_elsewhere: bool,
    /// The teardown step that it undoes; `None`: it undoes nothing.
    pub of: Option<StepId>,
    /// Its number in the teardown, from 1.
    pub of_number: Option<usize>,
    pub title: String,
    pub lines: Vec<RebuildLine>,
    /// Groups driven here.
    pub groups: Vec<GroupId>,
    /// Connectors made here.
    pub connectors: Vec<ConnectorId>,
    /// What can go wrong on the way back as well; read before the lines.
    pub cautions: Vec<CautionId>,
    /// Why it does not stand where mere reversing would put it.
    pub moved: Option<Moved>,
    /// What still lies on the bench after it.
    pub bench: Bench,
    /// What can be checked after it.
    pub proofs: Vec<Proof>,
    /// How the device lies from here on, where it lay otherwise before: turned back as the teardown had turned it.
    pub posture: Option<Posture>,
    /// Something new goes in: a part that is renewed, a screw, a tape.
    pub renews: bool,
}

/// One act of the rebuild.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RebuildLine {
    pub act: Option<Act>,
    pub text: String,
    /// Why it stands here or is not the plain inverse, with the rule's source.
    pub because: Option<String>,
    /// The sentence that tells it; `None`: worked out.
    pub told: Option<ActionId>,
    /// Parts that it brings back.
    pub parts: Vec<PartId>,
    /// What it needs a new one of, because the old one held once: "cable tie".
    pub takes_new: Option<String>,
}

impl RebuildLine {
    fn new(act: Act, text: String) -> Self {
        Self { act: Some(act), text, because: None, told: None, parts: Vec::new(), takes_new: None }
    }
}

/// Teardown and rebuild side by side.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Fold {
    pub teardown: Vec<TeardownRow>,
    /// In the order of the rebuild.
    pub rebuild: Vec<RebuildStep>,
    /// The screws, group by group.
    pub balance: Balance,
    /// What came out, kind by kind.
    pub accounts: Vec<Account>,
    /// What lies there once all is apart: what stays out or is thrown away has left.
    pub turn: Bench,
    pub work: WorkSheet,
}

/// One line of the teardown side.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TeardownRow {
    pub step: StepId,
    pub number: usize,
    pub title: String,
    /// Screws out in this step; `None` where a count is missing.
    pub screws_out: Option<u32>,
    pub has_screws: bool,
    /// What lies on the bench after it.
    pub bench: Bench,
}

/// Folds a manual's teardown over into its rebuild.
pub fn fold(manual: &Manual) -> Fold {
    fold_heard(manual, &Heard::new())
}

/// The same, with the times that the recordings show.
pub fn fold_heard(manual: &Manual, heard: &Heard) -> Fold {
    Alignment::of(manual).fold(heard)
}

impl Alignment<'_> {
    /// Both halves, with the times that the recordings show.
    pub fn fold(&self, heard: &Heard) -> Fold {
        folded(self.told.manual, self, heard)
    }
}

fn folded(manual: &Manual, alignment: &Alignment<'_>, heard: &Heard) -> Fold {
    let steps = manual.steps_in(Phase::Teardown);
    let balance = balance(manual);
    let mut rebuild = rebuild(manual, alignment);
    lay(manual, &steps, &mut rebuild);
    let accounts::Benches { apart, turn, together } = accounts::benches(manual, &steps, &rebuild);
    for (step, bench) in rebuild.iter_mut().zip(together) {
        step.renews = accounts::renews(manual, step);
        step.bench = bench;
    }
    let accounts = accounts::accounts(manual, &steps, &rebuild, &balance);
    let teardown = rows(manual, &steps, apart);
    let work = work::work(manual, &teardown, &rebuild, heard);
    let mut fold = Fold { teardown, rebuild, balance, accounts, turn, work };
    proofs::put(manual, &mut fold);
    fold
}

fn rows(manual: &Manual, steps: &[&Step], benches: Vec<Bench>) -> Vec<TeardownRow> {
    let rows = steps.iter().zip(benches).enumerate();
    rows.map(|(i, (step, bench))| {
        // Captive and loosened screws stay in their part: nothing of them lies on the bench.
        let out: Vec<Option<u32>> =
            manual.groups_of(step.id).filter(|g| balance::comes_out(g)).map(|g| g.count).collect();
        TeardownRow {
            step: step.id,
            number: i + 1,
            title: step.title.clone(),
            screws_out: out.iter().copied().sum::<Option<u32>>(),
            has_screws: !out.is_empty(),
            bench,
        }
    })
    .collect()
}

/// What is told stands; what is not is the teardown turned round.
fn rebuild(manual: &Manual, alignment: &Alignment<'_>) -> Vec<RebuildStep> {
    let mut out = told::merge(alignment);
    let mut said = BTreeSet::new();
    let order: BTreeMap<StepId, usize> = alignment.steps.iter().enumerate().map(|(i, s)| (s.id, i + 1)).collect();
    let mut place = 0;
    for step in &mut out {
        step.told_number = step.told.and_then(|id| order.get(&id).copied());
        place += usize::from(step.told_number.is_some());
        step.told_elsewhere = step.told_number.is_some_and(|n| n != place);
        // What a step warns of is said once, where the first half of it goes back.
        step.cautions = warned(manual, step).into_iter().filter(|c| said.insert(*c)).collect();
    }
    out
}

/// What is put back lies as it lay when it was taken off; a told posture goes before. O(steps).
fn lay(manual: &Manual, steps: &[&Step], rebuild: &mut [RebuildStep]) {
    let mut lay = BTreeMap::new();
    let mut now = None;
    for step in steps {
        now = step.posture.or(now);
        lay.insert(step.id, now);
    }
    for step in rebuild {
        let told = step.told.and_then(|id| manual.steps.get(&id)).and_then(|s| s.posture);
        let lies = told.or_else(|| step.of.and_then(|of| lay.get(&of).copied().flatten()));
        step.posture = lies.filter(|_| lies != now);
        now = lies.or(now);
    }
}

/// The teardown turned round, with what stands elsewhere and why.
fn reversed(manual: &Manual, steps: &[&Step]) -> Vec<Reversed> {
    let mut out: Vec<Reversed> = Vec::new();
    for (i, step) in steps.iter().enumerate().rev() {
        let mut folded = inverse::fold_step(manual, step, i + 1);
        let (sources, others): (Vec<ConnectorId>, Vec<ConnectorId>) =
            folded.connectors.iter().partition(|id| manual.connectors[id].power);
        folded.connectors = others;
        if !folded.undos.is_empty() || !folded.groups.is_empty() || !folded.connectors.is_empty() {
            out.push(folded);
        }
        out.extend((!sources.is_empty()).then(|| inverse::power_step(manual, step, i + 1, sources)));
    }
    if let Some(on) = inverse::power_back(steps) {
        let at = out.iter().position(|s| s.of_number < on.of_number).unwrap_or(out.len());
        out.insert(at, on);
    }
    exceptions::apply(manual, &mut out);
    out
}

/// The cautions of the teardown that hold on the way back; what is warned of mixing up stands where the screws go in.
fn warned(manual: &Manual, step: &RebuildStep) -> Vec<CautionId> {
    let drives = |of: StepId| step.groups.iter().any(|g| manual.fasteners[g].step == of);
    let here = |c: &&Caution| match c.about {
        CautionSubject::ScrewMixup => drives(c.step),
        about => Some(c.step) == step.of && goes_wrong_twice(about, &c.text) && !tells_of_opening(&c.text),
    };
    let steps = step.groups.iter().map(|g| manual.fasteners[g].step).chain(step.of);
    let steps: BTreeSet<StepId> = steps.collect();
    let again = steps.into_iter().flat_map(|s| manual.cautions_of(s).filter(here).map(|c| c.id).collect::<Vec<_>>());
    // The narrator's own warnings of the rebuild go first.
    step.told.into_iter().flat_map(|s| manual.cautions_of(s).map(|c| c.id)).chain(again).collect()
}

/// "Pull the plug and not the wires" is no warning for who pushes it in.
fn tells_of_opening(text: &str) -> bool {
    const OPENING: [&str; 11] =
        ["pull", "pulling", "pry", "prying", "peel", "lift", "remove", "disconnect", "unplug", "open", "off"];
    let said = text.to_lowercase();
    said.split(|c: char| !c.is_alphanumeric()).any(|w| OPENING.contains(&w))
}

/// "Keep the lead clear of the rib when you close it", "bend the flex and it tears" hold for who puts it together.
fn tells_of_closing(text: &str) -> bool {
    const CLOSING: [&str; 16] = [
        "close", "closing", "fit", "fitting", "press", "pressing", "push", "pinch", "pinched", "assembly", "insert",
        "mix", "bend", "fold", "crease", "short",
    ];
    let said = text.to_lowercase();
    said.split(|c: char| !c.is_alphanumeric()).any(|w| CLOSING.contains(&w))
}

/// Whether what is warned of while taking apart can happen while putting together.
///
/// Source: common practice, no source. Guides made by hand repeat hardly anything but screws that can be mixed up: an edge
/// that is pried, or a lens that a card passes, is past when it goes back.
fn goes_wrong_twice(about: CautionSubject, text: &str) -> bool {
    use CautionSubject as C;
    match about {
        C::Battery | C::Mains | C::Esd | C::StrippedScrew | C::ScrewMixup | C::Pinch | C::Seal => true,
        C::Orientation | C::Contamination | C::WrongPart => true,
        // These hurt people as well: a shock, a fire, splinters.
        C::Power | C::ShortCircuit | C::Glass => true,
        // What breaks while it is laid bare is warned of again where it is said to break while it goes in.
        C::Cable | C::Connector | C::Sensor | C::Lens | C::Membrane => tells_of_closing(text),
        // Heat, blades and force serve the opening; what gets lost or wet got so by then.
        C::Burn | C::Overheating | C::Liquid | C::LostScrew | C::SharpTool | C::Force => false,
        C::KeepPart | C::Chemical | C::OwnRisk | C::Other => false,
    }
}

#[cfg(test)]
mod tests;
