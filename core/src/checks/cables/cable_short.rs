//! A lid is to be opened further than a cable on it reaches.

use crate::cables::routes::too_short;
use crate::checks::Case;
use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{Edit, Phase, SeamEdit, SeamField, Swing};

pub(super) const RULE: Rule = Rule {
    id: RuleId::CableShort,
    stop: Stop::Cables,
    blocks: true,
    may_set_aside: true,
    why: "Whoever opens the lid as far as the guide says tears the cable, or its socket off the board.",
    source: "plane geometry: a point at d from the hinge moves by the chord 2 · d · sin(angle/2)",
};

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let manual = case.manual;
    let steps = manual.steps_in(Phase::Teardown);
    let cables = steps.iter().flat_map(|s| manual.connectors_of(s.id));
    cables
        .filter_map(|cable| {
            let short = too_short(manual, cable)?;
            let serves = cable.serves.map_or("a part", |p| manual.part_name(p));
            let whole = short.at_most_deg.floor();
            let says = format!(
                "“{}” opens further than the cable of the {serves} reaches: it gives {}. Open to {whole}° at most, or undo it \
                 first.",
                case.title(short.step),
                short.words()
            );
            let seam = &manual.seams[&short.seam];
            let swing = Swing { at_most_deg: Some(whole), ..seam.swing.clone()? };
            let edit = SeamEdit::Set { id: seam.id, field: SeamField::Swing(Some(swing)) };
            let fix = Fix::new(format!("Open to {whole}° at most"), Edit::Seam(edit));
            Some(RULE.finding(Subject::Step(short.step), says).resting_on((cable.id, short.words())).with([fix]))
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::cables::placed::{found, placed};
    use crate::checks::findings;
    use crate::ids::{LayerId, SeamId};
    use crate::manual::{ConnectorField, Edit, FaceEdge, Manual, SeamEdit, SeamField, SeamKind, Swing};
    use uuid::Uuid;

    /// The cover swings on its left edge; the cable leaves it 30 mm from there.
    fn opened(deg: f64, slack_mm: f64) -> Manual {
        let manual = placed(&[(30.0, 10.0)], vec![ConnectorField::SlackMm(Some(slack_mm))]);
        let (id, step) = (SeamId(Uuid::from_u128(9)), manual.steps_in(crate::manual::Phase::Teardown)[0].id);
        let swing = Swing { hinge: Some(FaceEdge::Left), at_most_deg: Some(deg), because: None };
        let set = |field| Edit::Seam(SeamEdit::Set { id, field });
        let edits = [
            Edit::Seam(SeamEdit::Add { id, step, kind: SeamKind::Glue }),
            set(SeamField::Face(Some(LayerId(Uuid::from_u128(1))))),
            set(SeamField::Swing(Some(swing))),
        ];
        edits.iter().fold(manual, |m, e| m.apply(e, "Ann").expect("it fits").0)
    }

    #[test]
    fn a_lid_that_opens_further_than_its_cable_reaches() {
        let manual = opened(90.0, 30.0);
        let said = found(&manual, &RULE);
        let wanted =
            "opens further than the cable of the fan reaches: it gives 30 mm, and 90° takes 42 mm. Open to 60° at most";
        assert!(said[0].contains(wanted), "{said:?}");
        let fix = findings(&manual).into_iter().find(|f| f.rule == RULE.id).unwrap().fixes.remove(0);
        assert!(found(&manual.apply(&fix.edit, "Ann").unwrap().0, &RULE).is_empty());
    }

    #[test]
    fn a_cable_that_reaches() {
        assert!(found(&opened(90.0, 43.0), &RULE).is_empty());
        assert!(found(&opened(60.0, 30.0), &RULE).is_empty());
    }
}
