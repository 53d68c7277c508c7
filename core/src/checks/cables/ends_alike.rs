//! Two antenna plugs look alike, and nothing tells which goes where.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::{Connector, ConnectorKind, Phase};

pub(super) const RULE: Rule = Rule {
    id: RuleId::EndsAlike,
    stop: Stop::Cables,
    blocks: false,
    may_set_aside: true,
    why: "Swapped antennas fit as well, and the radio is weak or deaf without anybody knowing why.",
    source: "common practice, no source",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let told = |c: &&Connector| !c.wires.is_empty() || c.place.is_some() || c.makes.is_some();
    let steps = manual.steps_in(Phase::Teardown);
    let coaxial =
        steps.iter().flat_map(|s| manual.connectors_of(s.id)).filter(|c| c.kind == Some(ConnectorKind::Coaxial));
    let all: Vec<&Connector> = coaxial.filter(|c| !c.temporary).collect();
    let silent: Vec<&Connector> = all.iter().copied().filter(|c| !told(c)).collect();
    // One alone cannot be swapped, and one of two that is told tells the other.
    let Some(last) = silent.last().filter(|_| silent.len() > 1) else { return Vec::new() };
    let number = steps.iter().position(|s| s.id == last.step).map_or(0, |n| n + 1);
    let says = format!(
        "{} antenna plugs are undone up to step {number}, and nothing tells which goes where. Write the colour of each and \
         the post it goes to.",
        silent.len()
    );
    let ids: Vec<_> = silent.iter().map(|c| c.id).collect();
    vec![RULE.finding(Subject::Step(last.step), says).resting_on(ids)]
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::drafted::{check, manual};
    use crate::checks::findings;
    use crate::manual::{ConnectorEdit, ConnectorField, ConnectorKind, Edit, Manual};

    const PAIR: &str = "Take off the cover. Disconnect the white antenna cable. Disconnect the black antenna cable. Take out the radio board.";

    #[test]
    fn a_pair_that_nobody_told_apart() {
        let found =
            findings(&manual(PAIR)).into_iter().filter(|f| f.rule == RULE.id).map(|f| f.says).collect::<Vec<_>>();
        assert!(found.len() == 1 && found[0].starts_with("2 antenna plugs are undone"), "{found:?}");
    }

    fn with_colour(manual: &Manual) -> Manual {
        let id = manual.connectors.values().find(|c| c.kind == Some(ConnectorKind::Coaxial)).expect("one").id;
        let wires = "black to MAIN".to_owned();
        manual.apply(&Edit::Connector(ConnectorEdit::Set { id, field: ConnectorField::Wires(wires) }), "Ann").unwrap().0
    }

    #[test]
    fn one_told_tells_the_other() {
        assert!(findings(&with_colour(&manual(PAIR))).iter().all(|f| f.rule != RULE.id));
    }

    #[test]
    fn one_alone_cannot_be_swapped() {
        check(&RULE, "Take off the cover. Disconnect the antenna. Take out the radio board.", &[]);
    }
}
