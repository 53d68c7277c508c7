//! The connectors of a guide as its reader needs them at the bench: which, how it is made again, where its cable runs.

use super::Block;
use crate::cables::kinds::{drawing, handling, makes};
use crate::cables::routes::{DrawnCable, layers};
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{Connector, Manual, Phase, WireEnd};
use crate::units::number;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One connector.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CableSheetRow {
    /// "battery (power)".
    pub serves: String,
    pub step_number: usize,
    /// "latch that flips up"; empty where nobody knows.
    pub kind: String,
    /// Path data in a box of 48 × 28, drawn as a line.
    pub drawing: Option<String>,
    /// Where it sits, which wire goes where, what its cable passes.
    pub runs: Vec<String>,
    /// How it is made, and what tells that it sits.
    pub made: Vec<String>,
    /// What opening it wrongly breaks.
    pub wrong: Option<String>,
}

/// A layer with the ways of the cables on it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SheetRoutes {
    pub layer: LayerId,
    pub name: String,
    /// One sentence a cable: "Fan: 1 behind the post, 2 under the clip."
    pub ways: Vec<String>,
}

/// All connectors of which more is known than what they serve, and the layers on which their cables were placed.
pub(super) fn blocks(manual: &Manual) -> Vec<Block> {
    let steps = manual.steps_in(Phase::Teardown);
    let all = steps.iter().enumerate().flat_map(|(n, s)| manual.connectors_of(s.id).map(move |c| (n + 1, c)));
    let rows: Vec<CableSheetRow> = all.filter_map(|(n, c)| row(manual, n, c)).collect();
    let table = (!rows.is_empty()).then_some(Block::Cables(rows));
    let routed = layers(manual).into_iter().filter(|l| !l.cables.is_empty());
    let routes = routed.map(|l| {
        let ways = l.cables.iter().map(DrawnCable::words).collect();
        Block::Routes(SheetRoutes { layer: l.layer, name: l.name, ways })
    });
    table.into_iter().chain(routes).collect()
}

fn row(manual: &Manual, step_number: usize, c: &Connector) -> Option<CableSheetRow> {
    let kind = c.kind.map(handling);
    let on = c.on.map(|p| format!("on the {}", manual.part_name(p)));
    let ends = (!c.wires.is_empty()).then(|| WireEnd::words(&c.wires));
    let route =
        (!c.route.is_empty()).then(|| format!("the cable runs {}", c.passes().collect::<Vec<_>>().join(", then ")));
    let bend = c.bend_mm.map(|mm| format!("bend it no more tightly than {} mm", number(mm)));
    let runs: Vec<String> = [on, c.place.clone(), ends, route, bend].into_iter().flatten().collect();
    let sits = kind.map(|k| format!("it sits when {}", k.sits));
    let made: Vec<String> = makes(c).map(str::to_owned).into_iter().chain(sits).collect();
    let known = !runs.is_empty() || !made.is_empty();
    known.then(|| CableSheetRow {
        serves: c.words(manual),
        step_number,
        kind: c.kind.map_or(String::new(), |k| k.label().to_owned()),
        drawing: c.kind.map(|k| drawing(k).to_owned()),
        runs,
        made,
        wrong: kind.map(|k| k.wrong.to_owned()),
    })
}

impl CableSheetRow {
    /// For readers: "Step 4, fan, plug with wires: …".
    pub fn words(&self) -> String {
        let kind = if self.kind.is_empty() { String::new() } else { format!(", {}", self.kind) };
        let made = (!self.made.is_empty()).then(|| format!("to make it, {}", self.made.join("; ")));
        let told: Vec<String> = self.runs.iter().cloned().chain(made).collect();
        let wrong = self.wrong.as_ref().map_or(String::new(), |w| format!(" {w}"));
        format!("Step {}, {}{kind}: {}.{wrong}", self.step_number, self.serves, told.join("; "))
    }
}
