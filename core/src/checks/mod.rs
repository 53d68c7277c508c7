//! Checks: what does not fit together in a manual, one file a rule, a folder a stop.
//!
//! Each file holds one rule with all that belongs to it: what triggers it, the sentence the author reads, why it matters,
//! where that is from, the fix that one press applies, and its tests. The list of rules is the listing of these folders;
//! everything that shows findings (rail, stops, Publish, margins) shows what [`findings`] says.

mod balance;
mod cables;
mod cautions;
#[cfg(test)]
mod drafted;
mod fold;
pub mod listen;
mod order;
mod plain;
mod screws;
mod seams;
mod steps;
#[cfg(test)]
mod written;

pub use cautions::{Gated, READERS, Withheld, gated, proposal, withheld};
pub use plain::{Readability, readability};

use crate::cautions::coverage::{Stretch, stretches};
use crate::effort::Heard;
use crate::fasteners::balance::Balance;
use crate::fasteners::kinds::{Sorted, sort};
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::StepId;
use crate::manual::{Edit, Manual, Step, StepEdit};
use crate::order::Chain;
use crate::rebuild::{Alignment, Difference, Fold};
use plain::{Sentence, sentences};
use serde::{Deserialize, Serialize};
use std::cell::OnceCell;
use std::collections::{BTreeMap, HashMap};
use utoipa::ToSchema;

/// A manual with what many rules read, each worked out once and only where a rule asks for it.
pub struct Case<'m> {
    pub manual: &'m Manual,
    chain: OnceCell<Chain>,
    alignment: OnceCell<Alignment<'m>>,
    fold: OnceCell<Fold>,
    sorted: OnceCell<Sorted>,
    stretches: OnceCell<Vec<Stretch>>,
    sentences: OnceCell<Vec<Sentence<'m>>>,
    differences: OnceCell<Vec<Difference>>,
    places: OnceCell<HashMap<StepId, usize>>,
}

impl<'m> Case<'m> {
    pub fn new(manual: &'m Manual) -> Self {
        Self {
            manual,
            chain: OnceCell::new(),
            alignment: OnceCell::new(),
            fold: OnceCell::new(),
            sorted: OnceCell::new(),
            stretches: OnceCell::new(),
            sentences: OnceCell::new(),
            differences: OnceCell::new(),
            places: OnceCell::new(),
        }
    }

    pub fn chain(&self) -> &Chain {
        self.chain.get_or_init(|| Chain::of(self.manual))
    }

    pub fn balance(&self) -> &Balance {
        &self.fold().balance
    }

    /// Which told sentence of the rebuild undoes which act.
    fn alignment(&self) -> &Alignment<'m> {
        self.alignment.get_or_init(|| Alignment::of(self.manual))
    }

    /// The rebuild beside the teardown.
    pub fn fold(&self) -> &Fold {
        self.fold.get_or_init(|| self.alignment().fold(&Heard::new()))
    }

    pub fn sorted(&self) -> &Sorted {
        self.sorted.get_or_init(|| sort(self.manual))
    }

    /// Every sentence that tells somebody to do something, in the order of the work.
    fn sentences(&self) -> &[Sentence<'m>] {
        self.sentences.get_or_init(|| sentences(self.manual).collect())
    }

    /// What brings which hazard about, and how that is covered.
    pub fn stretches(&self) -> &[Stretch] {
        self.stretches.get_or_init(|| stretches(self.manual))
    }

    /// Where what was told of the rebuild and the teardown turned round disagree.
    pub fn differences(&self) -> &[Difference] {
        self.differences.get_or_init(|| self.alignment().differences(self.chain()))
    }

    /// Where in the work something stands that belongs to a step.
    fn place(&self, subject: &Subject) -> Option<usize> {
        let step = match subject {
            Subject::Step(step) => *step,
            Subject::Group(group) => self.manual.fasteners.get(group)?.step,
            _ => return None,
        };
        let places = || self.manual.order().into_iter().enumerate().map(|(at, step)| (step, at)).collect();
        self.places.get_or_init(places).get(&step).copied()
    }

    /// The title of a step, or a word for one that is gone.
    fn title(&self, id: StepId) -> &'m str {
        self.manual.steps.get(&id).map_or("a step that is gone", |s| s.title.as_str())
    }
}

/// The press that moves the step that cuts the power before the one that works at live parts.
fn move_up(steps: &[&Step], cutting: usize, at: usize) -> Fix {
    let after = at.checked_sub(1).map(|before| steps[before].id);
    let edit = Edit::Step(StepEdit::Move { id: steps[cutting].id, after });
    Fix::new(format!("Move “{}” before it", steps[cutting].title), edit)
}

/// A rule with what it finds.
type Check = (Rule, fn(&Case<'_>) -> Vec<Finding>);

/// Every rule that a manual alone can break; those of recordings stand in [`listen`].
fn rules() -> impl Iterator<Item = &'static Check> {
    rules_of_guides().chain(order::RULES_OF_WHOLE)
}

/// Those that also judge a guide cut from a manual; what such a one leaves out, it leaves out on purpose.
fn rules_of_guides() -> impl Iterator<Item = &'static Check> {
    let text = steps::TEXT.iter();
    text.chain(balance::RULES)
        .chain(fold::RULES)
        .chain(order::RULES)
        .chain(screws::RULES)
        .chain(seams::RULES)
        .chain(cables::RULES)
        .chain(cautions::RULES)
        .chain(steps::RULES)
        .chain(plain::RULES)
}

/// All findings of all rules under the author's decisions: what blocks publishing first, what was set aside last.
pub fn findings(manual: &Manual) -> Vec<Finding> {
    findings_of(&Case::new(manual))
}

/// As [`findings`], for who has worked some of the case out already.
pub fn findings_of(case: &Case<'_>) -> Vec<Finding> {
    let of_whole = order::RULES_OF_WHOLE.iter().filter(|_| case.manual.cut.is_none());
    let all = rules_of_guides().chain(of_whole);
    in_order(all.flat_map(|(_, find)| along(case, find(case))).map(|f| f.decided(case.manual)).collect())
}

/// What one rule found, in the order of the work; rules look through tables whose order is that of their ids, so of chance.
fn along(case: &Case<'_>, mut found: Vec<Finding>) -> Vec<Finding> {
    found.sort_by_cached_key(|f| f.about.iter().find_map(|s| case.place(s)).unwrap_or(usize::MAX));
    found
}

/// The order in which findings are read.
pub fn in_order(mut found: Vec<Finding>) -> Vec<Finding> {
    found.sort_by_key(|f| (f.set_aside.is_some(), !f.blocks));
    found
}

/// What remains before publishing, as far as it stands in the way.
pub fn blocking(found: &[Finding]) -> impl Iterator<Item = &Finding> {
    found.iter().filter(|f| f.blocks)
}

/// How many findings block publishing, by the stop that mends them.
pub fn blocking_by_stop(found: &[Finding]) -> BTreeMap<Stop, u32> {
    let mut out = BTreeMap::new();
    for f in blocking(found) {
        *out.entry(f.stop).or_default() += 1;
    }
    out
}

/// Every finding of a manual, or of a guide cut from it, with the count for the rail.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FindingsView {
    pub findings: Vec<Finding>,
    pub blocking: BTreeMap<Stop, u32>,
}

impl FindingsView {
    /// What the rules say of a manual, with what its recordings say (see [`listen`]).
    pub fn new(manual: &Manual, heard: Vec<Finding>) -> Self {
        let mut all = findings(manual);
        all.extend(heard);
        let findings = in_order(all);
        Self { blocking: blocking_by_stop(&findings), findings }
    }
}

/// The rule of this name.
pub fn rule(id: RuleId) -> &'static Rule {
    let all = rules().map(|(rule, _)| rule).chain(listen::rules());
    all.into_iter().find(|r| r.id == id).expect("every name has its rule; a test holds that")
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::collections::BTreeSet;

    /// A table in the order of its ids gives another walk through the questions with every manual.
    #[test]
    fn one_rule_asks_in_the_order_of_the_work() {
        let parts = ["lid", "tray", "screen", "fan", "board", "cell", "bezel", "grille"];
        let one = |part| {
            format!(
                "step Remove the {part} with spudger\njoint of the {part}: glue\nmark run along: top edge\n\
                 screws of the {part}: ? PH1 8 mm\n"
            )
        };
        let text: String = parts.iter().map(one).collect();
        let (manual, _) = written::written(&text);
        let places: Vec<usize> = manual
            .seams
            .values()
            .map(|s| manual.order().iter().position(|step| *step == s.step).expect("a step of the manual"))
            .collect();
        assert!(!places.is_sorted(), "the table has them in order by itself, and this shows nothing");
        for rule in [RuleId::EntryUntold, RuleId::Uncounted] {
            let asked = written::found(super::rule(rule), &text);
            assert_eq!(asked.len(), parts.len());
            for (part, says) in parts.iter().zip(asked) {
                assert!(says.contains(part), "“{says}” is asked where the {part} should be");
            }
        }
    }

    /// A name without a rule would be offered by the API and never found; the enum's last name bounds the search.
    #[test]
    fn every_name_has_one_rule_at_one_stop() {
        let all: Vec<&Rule> = rules().map(|(rule, _)| rule).chain(listen::rules()).collect();
        let names: BTreeSet<RuleId> = all.iter().map(|r| r.id).collect();
        assert_eq!(names.len(), all.len(), "two rules share a name");
        let schema = serde_json::to_value(<RuleId as utoipa::PartialSchema>::schema()).unwrap();
        assert_eq!(schema["enum"].as_array().unwrap().len(), all.len(), "a name has no rule");
        for rule in all {
            assert!(!rule.why.is_empty() && !rule.source.is_empty(), "{:?} gives no reason", rule.id);
        }
    }
}
