//! Rules that judge how a cable runs, tried on one that passes placed points of one face.

use crate::checks::findings;
use crate::finding::Rule;
use crate::ids::LayerId;
use crate::manual::{ConnectorEdit, ConnectorField, Edit, LayerEdit, LayerSpot, Manual, Outline, drafted};
use uuid::Uuid;

/// A fan whose cable passes these points of a face of 100 × 60 mm, and what else is known of it.
pub fn placed(points: &[(f64, f64)], fields: Vec<ConnectorField>) -> Manual {
    let manual = drafted::manual("[0:00] Take off the cover. Disconnect the fan cable. Take out the fan.");
    let (id, layer) = (manual.connectors.values().next().expect("a connector").id, LayerId(Uuid::from_u128(1)));
    let outline = Outline::Rectangle { width_mm: 100.0, height_mm: 60.0, radius_mm: 0.0 };
    let told = (1..=points.len()).map(|n| format!("place {n}")).collect();
    let passes = points.iter().enumerate().map(|(number, (x_mm, y_mm))| ConnectorField::Passes {
        number,
        at: Some(LayerSpot { layer, x_mm: *x_mm, y_mm: *y_mm }),
    });
    let fields = std::iter::once(ConnectorField::Route(told)).chain(passes).chain(fields);
    let edits = fields.map(|field| Edit::Connector(ConnectorEdit::Set { id, field }));
    std::iter::once(Edit::Layer(LayerEdit::Add { id: layer, name: "Front".to_owned(), outline }))
        .chain(edits)
        .fold(manual, |manual, edit| manual.apply(&edit, "Ann").expect("it fits").0)
}

/// What a rule says of a manual.
pub fn found(manual: &Manual, rule: &Rule) -> Vec<String> {
    findings(manual).into_iter().filter(|f| f.rule == rule.id).map(|f| f.says).collect()
}
