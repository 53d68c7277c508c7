//! A step treats a part roughly that stays in use in one of the guides.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, Job, JobEdit, Manual, PartFate, Step};
use crate::order::Chain;
use crate::reading::Act;
use std::collections::BTreeMap;

pub(super) const RULE: Rule = Rule {
    id: RuleId::RoughOnKeptPart,
    stop: Stop::Chain,
    blocks: true,
    may_set_aside: true,
    why: "Scrap may be handled roughly; the same gesture ruins a part that stays.",
    source: "common practice, no source",
};

/// How narrators say that a thing need not survive.
const ROUGH: [&str; 12] = [
    "broken anyway",
    "it's going in the bin",
    "goes in the bin",
    "doesn't matter if it breaks",
    "doesn't matter if you break",
    "you can break it",
    "just rip",
    "rip it",
    "bend it",
    "smash",
    "snap it off",
    "no need to be careful",
];

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let rough: BTreeMap<_, _> = manual.steps.values().filter_map(|s| Some((s.id, how(manual, s)?))).collect();
    if rough.is_empty() {
        return Vec::new();
    }
    let chain = case.chain();
    manual.jobs.values().flat_map(|job| of_job(manual, chain, job, &rough)).collect()
}

fn of_job(
    manual: &Manual,
    chain: &Chain,
    job: &Job,
    rough: &BTreeMap<crate::ids::StepId, &'static str>,
) -> Vec<Finding> {
    let steps = chain.way_of(manual, job).map(|way| way.steps).unwrap_or_default();
    let mut out = Vec::new();
    for id in steps {
        let Some(how) = rough.get(&id) else { continue };
        let step = &manual.steps[&id];
        let moved = step.actions.iter().filter(|a| matches!(a.act, Act::Remove | Act::Peel)).flat_map(|a| &a.parts);
        for part in moved.filter(|p| job.fate(**p) == PartFate::Keep) {
            let name = manual.part_name(*part);
            let says = format!(
                "“{}” is told for scrap (“{how}”), but in “{}” the {name} stays. Write the gentle way, or renew the {name}.",
                step.title, job.title
            );
            let edit = Edit::Job(JobEdit::SetFate { id: job.id, part: *part, fate: PartFate::Renew });
            let fix = Fix { label: format!("Renew the {name} in “{}”", job.title), edit };
            out.push(Finding { fixes: vec![fix], ..RULE.finding(Subject::Step(id), says) });
        }
    }
    out
}

fn how(manual: &Manual, step: &Step) -> Option<&'static str> {
    let told = |a| manual.sentence(a).to_lowercase().replace('’', "'");
    let told: Vec<String> = step.actions.iter().map(told).collect();
    let says = |words: &str| told.iter().any(|t| t.contains(words));
    ROUGH.into_iter().find(|words| says(words))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;

    #[test]
    fn the_panel_stays_and_is_levered_like_scrap() {
        check(&RULE,
            "
            step Remove the panel: Lever under it, it's broken anyway.
            ~~~ rough-on-kept-part: “Remove the panel” is told for scrap (“broken anyway”), but in “New pump” the panel stays. Write the gentle way, or renew the panel.
            step Remove the pump
            guide New pump: pump
            ",
        );
    }

    #[test]
    fn the_panel_is_what_is_renewed() {
        check(
            &RULE,
            "
            step Remove the panel: Lever under it, it's broken anyway.
            guide New panel: panel
            ",
        );
    }
}
