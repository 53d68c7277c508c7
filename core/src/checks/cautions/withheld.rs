//! What a guide leaves to others: the steps behind each line that only licensed people cross, and those that can only follow.

use super::licensed_work::{Gated, gated};
use crate::ids::StepId;
use crate::manual::{Manual, Phase, Step};
use crate::order::Chain;
use crate::things::gate;
use std::collections::BTreeSet;

/// A line at which a guide stops.
#[derive(Debug, Clone, PartialEq)]
pub struct Withheld {
    pub line: Gated,
    /// The steps that are left out because of it, of both halves.
    pub steps: BTreeSet<StepId>,
    /// The last step before it that is told; `None`: it stands before all.
    pub after: Option<StepId>,
}

/// Where a guide stops, in the order of the lines. O(lines crossed × (steps + requirements)), nothing where none is.
pub fn withheld(manual: &Manual) -> Vec<Withheld> {
    let crossed: Vec<Gated> = gated(manual).into_iter().filter(Gated::stops).collect();
    if crossed.is_empty() {
        return Vec::new();
    }
    let apart = manual.steps_in(Phase::Teardown);
    let chain = Chain::of(manual);
    let mut gone: BTreeSet<StepId> = BTreeSet::new();
    let stop = |line: Gated| {
        let mut steps = behind(manual, &apart, &chain, &line);
        let first = apart.iter().position(|s| steps.contains(&s.id)).unwrap_or(apart.len());
        let after = apart[..first].iter().rev().find(|s| !gone.contains(&s.id)).map(|s| s.id);
        steps.extend(back_to_others(manual, &apart, &steps));
        gone.extend(&steps);
        Withheld { line, steps, after }
    };
    crossed.into_iter().map(stop).collect()
}

/// The steps that work behind a line, and those that can only follow them.
fn behind(manual: &Manual, apart: &[&Step], chain: &Chain, line: &Gated) -> BTreeSet<StepId> {
    let crosses = |s: &Step| line.step.is_none() || manual.worked_at(s).any(|n| gate(n) == Some(line.gate));
    let at: Vec<usize> = apart.iter().enumerate().filter(|(_, s)| crosses(s)).map(|(n, _)| n).collect();
    let waiting = chain.sure_graph().waiting_for(&at);
    let mut out: BTreeSet<StepId> = waiting.ones().filter_map(|n| apart.get(n)).map(|s| s.id).collect();
    out.extend(manual.steps_in(Phase::Rebuild).into_iter().filter(|s| crosses(s)).map(|s| s.id));
    out
}

/// Told steps of the rebuild that bring back nothing but what others take out.
fn back_to_others(manual: &Manual, apart: &[&Step], gone: &BTreeSet<StepId>) -> Vec<StepId> {
    let moved = |s: &Step| s.actions.iter().filter(|a| a.moves()).flat_map(|a| a.parts.clone()).collect::<Vec<_>>();
    let theirs: BTreeSet<_> = apart.iter().filter(|s| gone.contains(&s.id)).flat_map(|s| moved(s)).collect();
    let only_theirs = |s: &&Step| {
        let parts = moved(s);
        !parts.is_empty() && parts.iter().all(|p| theirs.contains(p))
    };
    manual.steps_in(Phase::Rebuild).into_iter().filter(only_theirs).map(|s| s.id).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::checks::findings;
    use crate::finding::RuleId;
    use crate::manual::{Edit, FindingEdit, drafted};
    use rstest::rstest;

    const RADIO: &str = "[0:00] Unplug it from the wall. Remove four PH1 screws from the cover. Take off the cover. Remove two PH0 \
                         screws from the power supply board. Take out the power supply board. Take out the fan. Now we put it \
                         back together. Put the power supply board in. Put the fan in. Put the cover back on.";

    #[rstest]
    #[case::nobody_decided(None, &[])]
    #[case::others(Some("a licensed electrician"), &["Remove the power supply board", "Fit the power supply board"])]
    #[case::those_who_read_it(Some("Its readers: licensed electricians"), &[])]
    fn the_mains_side_is_left_to_others(#[case] who: Option<&str>, #[case] wanted: &[&str]) {
        let manual = drafted::manual(RADIO);
        let lines = findings(&manual).into_iter().filter(|f| f.rule == RuleId::LicensedWork);
        let manual = lines.zip(who).fold(manual.clone(), |m, (f, who)| {
            let because = who.to_owned();
            let aside = FindingEdit::SetAside { id: f.key, rule: f.rule.name(), because };
            m.apply(&Edit::Finding(aside), "Ann").expect("it can be decided").0
        });
        let steps: BTreeSet<StepId> = withheld(&manual).into_iter().flat_map(|w| w.steps).collect();
        let both = [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| manual.steps_in(p));
        let titles: Vec<&str> = both.filter(|s| steps.contains(&s.id)).map(|s| s.title.as_str()).collect();
        assert_eq!(titles, wanted);
    }
}
