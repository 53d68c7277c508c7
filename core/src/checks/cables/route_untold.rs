//! A cable is routed on the way back, and how it ran was not recorded when it came out.

use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Action, Connector, ConnectorEdit, ConnectorField, Edit, Evidence, Manual, Phase, Step};
use crate::reading::Act;
use crate::things::{bare, same_cable};
use crate::units::clock;

pub(super) const RULE: Rule = Rule {
    id: RuleId::RouteUntold,
    stop: Stop::Cables,
    blocks: false,
    may_set_aside: true,
    why: "A cable in the wrong place is pinched by the cover, rubs through, or hides under a screw.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let back = manual.steps_in(Phase::Rebuild);
    let routed = back.iter().flat_map(|s| s.actions.iter().filter(|a| a.act == Act::Route).map(move |a| (*s, a)));
    let mut seen = Vec::new();
    routed
        .filter_map(|(step, action)| {
            let connector = cable_of(manual, action)?;
            if !connector.route.is_empty() || seen.contains(&connector.id) {
                return None;
            }
            seen.push(connector.id);
            Some(finding(case, step, action, connector))
        })
        .collect()
}

fn finding(case: &Case<'_>, step: &Step, action: &Action, connector: &Connector) -> Finding {
    let what = connector.serves.map_or("cable", |p| case.manual.part_name(p));
    let look = began(&connector.evidence).map_or(String::new(), |ms| format!(" Look at {}.", clock(ms)));
    let says = format!(
        "“{}” routes the cable of the {what}, and nothing tells how it ran when “{}” took it out.{look}",
        step.title,
        case.title(connector.step)
    );
    let told: Vec<String> = action.roles.places.iter().map(|p| format!("{} {}", p.preposition, p.thing)).collect();
    let fix = (!told.is_empty()).then(|| {
        let set = ConnectorEdit::Set { id: connector.id, field: ConnectorField::Route(told.clone()) };
        Fix::new(format!("Record “{}”", told.join(", ")), Edit::Connector(set))
    });
    RULE.finding(Subject::Step(connector.step), says).resting_on(connector.id).with(fix)
}

/// The connector whose cable a sentence routes.
fn cable_of<'m>(manual: &'m Manual, action: &Action) -> Option<&'m Connector> {
    let names: Vec<&str> = action
        .parts
        .iter()
        .map(|p| manual.part_name(*p))
        .chain(action.roles.things.iter().map(String::as_str))
        .collect();
    let serves = |c: &&Connector| {
        let name = c.serves.map(|p| manual.part_name(p));
        name.is_some_and(|name| names.iter().any(|n| same_cable(n, name) || bare(n) == bare(name)))
    };
    let steps = manual.steps_in(Phase::Teardown);
    steps.iter().flat_map(|s| manual.connectors_of(s.id)).filter(|c| !c.temporary).find(serves)
}

fn began(evidence: &[Evidence]) -> Option<u64> {
    evidence.iter().find_map(|e| match e {
        Evidence::Recording { from_ms, .. } => *from_ms,
        _ => None,
    })
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::manual;
    use crate::checks::findings;
    use crate::manual::Manual;

    const TOLD: &str = "Take off the cover. Disconnect the fan cable. Take out the fan. Now we put it back together. Put the \
                        fan in. Route the fan cable behind the post. Connect the fan cable. Put the cover back on.";

    fn found(manual: &Manual) -> Vec<crate::finding::Finding> {
        findings(manual).into_iter().filter(|f| f.rule == RULE.id).collect()
    }

    #[test]
    fn routed_back_and_never_recorded() {
        let told = manual(TOLD);
        let [finding] = &found(&told)[..] else { panic!("{:?}", found(&told)) };
        assert!(finding.says.contains("routes the cable of the fan"), "{}", finding.says);
        assert_eq!(finding.fixes[0].label, "Record “behind the post”");
        let mended = told.apply(&finding.fixes[0].edit, "Ann").unwrap().0;
        assert!(found(&mended).is_empty());
    }

    #[test]
    fn nothing_is_routed() {
        assert!(found(&manual("Take off the cover. Disconnect the fan cable. Take out the fan.")).is_empty());
    }
}
