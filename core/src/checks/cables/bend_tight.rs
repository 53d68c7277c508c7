//! A cable's placed way bends more tightly than the cable bears.

use crate::cables::routes::tight_bend;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::Phase;
use crate::units::number;

pub(super) const RULE: Rule = Rule {
    id: RuleId::BendTight,
    stop: Stop::Cables,
    blocks: false,
    may_set_aside: true,
    why: "A flat or coaxial cable that is bent too tightly breaks inside, often days later.",
    source: "plane geometry: an arc that turns by a takes r · tan(a/2) of each straight; the radius is the author's",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let steps = manual.steps_in(Phase::Teardown);
    let cables = steps.iter().flat_map(|s| manual.connectors_of(s.id));
    let tight = cables.filter_map(|c| Some((c, c.bend_mm?, tight_bend(c)?)));
    tight
        .map(|(cable, bears, bend)| {
            let serves = cable.serves.map_or("a part", |p| manual.part_name(p));
            let says = format!(
                "The cable of the {serves} bends at place {} (“{}”) with room for {} mm; it bears {} mm. Lead it another way.",
                bend.number,
                bend.what,
                number((bend.room_mm * 10.0).round() / 10.0),
                number(bears)
            );
            RULE.finding(Subject::Step(cable.step), says).resting_on((cable.id, bend.number, bears))
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::cables::placed::{found, placed};
    use crate::manual::ConnectorField;
    use rstest::rstest;

    #[rstest]
    #[case::no_room(
        Some(15.0),
        Some("The cable of the fan bends at place 2 (“place 2”) with room for 10 mm; it bears 15 mm.")
    )]
    #[case::room_enough(Some(10.0), None)]
    #[case::nobody_knows(None, None)]
    fn a_right_angle_between_two_straights_of_20_mm(#[case] bears: Option<f64>, #[case] wanted: Option<&str>) {
        let manual = placed(&[(10.0, 10.0), (30.0, 10.0), (30.0, 30.0)], vec![ConnectorField::BendMm(bears)]);
        let said = found(&manual, &RULE);
        match wanted {
            Some(wanted) => assert!(said[0].starts_with(wanted), "{said:?}"),
            None => assert!(said.is_empty(), "{said:?}"),
        }
    }
}
