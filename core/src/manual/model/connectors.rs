//! Cable connections: what they serve and how they open.

use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, Refusal, maybe_text, note};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, Manual, Part, Step};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a connector opens.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ConnectorKind {
    /// Two halves pressed together, lifted straight up.
    PressFit,
    /// A flat cable under a latch that flips up or slides out.
    Latch,
    /// A small round antenna plug, popped straight up.
    Coaxial,
    /// A plug pulled along its cable.
    Plug,
    Soldered,
}

labels!(ConnectorKind {
    PressFit: "press fit",
    Latch: "latch",
    Coaxial: "coaxial",
    Plug: "plug",
    Soldered: "soldered",
});

/// One connection.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Connector {
    pub id: ConnectorId,
    pub step: StepId,
    pub serves: Option<PartId>,
    pub kind: Option<ConnectorKind>,
    /// Brings the power: opened first, made last of all connectors.
    pub power: bool,
    /// Made only to position or to test, and undone again.
    pub temporary: bool,
    /// What the cable passes, in order.
    pub route: Vec<String>,
    pub note: Option<String>,
    pub evidence: Vec<Evidence>,
}

/// One field of a connector.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ConnectorField {
    Serves(Option<PartId>),
    Kind(Option<ConnectorKind>),
    Power(bool),
    Temporary(bool),
    Route(Vec<String>),
    Note(Option<String>),
    Step(StepId),
}

/// Changes of connectors.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ConnectorEdit {
    Add { id: ConnectorId, step: StepId },
    Set { id: ConnectorId, field: ConnectorField },
    Remove { id: ConnectorId },
}

impl Connector {
    /// A connection of which nothing is known but where it is opened.
    pub fn new(id: ConnectorId, step: StepId, evidence: Vec<Evidence>) -> Self {
        Self {
            id,
            step,
            serves: None,
            kind: None,
            power: false,
            temporary: false,
            route: Vec::new(),
            note: None,
            evidence,
        }
    }
}

impl Connector {
    /// For people: "fan", "battery (power)".
    pub fn words(&self, manual: &Manual) -> String {
        let serves = self.serves.map_or("cable", |p| manual.part_name(p));
        if self.power { format!("{serves} (power)") } else { serves.to_owned() }
    }
}

impl Apply for ConnectorEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, step } => {
                manual.must_be_new::<Connector>(*id)?;
                manual.must_be_there::<Step>(*step)?;
                manual.put_entity(Connector::new(*id, *step, vec![Evidence::author(author)]), touched);
            }
            Self::Set { id, field } => {
                match field {
                    ConnectorField::Step(step) => drop(manual.must_be_there::<Step>(*step)?),
                    ConnectorField::Serves(part) => manual.may_be::<Part>(*part)?,
                    _ => {}
                }
                set_field(manual.change_entity::<Connector>(*id, touched)?, field)?;
            }
            Self::Remove { id } => drop(manual.take_entity::<Connector>(*id, touched)?),
        }
        Ok(())
    }
}

fn set_field(connector: &mut Connector, field: &ConnectorField) -> Result<(), Refusal> {
    match field {
        ConnectorField::Serves(part) => connector.serves = *part,
        ConnectorField::Kind(kind) => connector.kind = *kind,
        ConnectorField::Power(power) => connector.power = *power,
        ConnectorField::Temporary(temporary) => connector.temporary = *temporary,
        ConnectorField::Route(route) => {
            connector.route = route.iter().map(|r| note("route", r, MAX_TEXT)).collect::<Result<_, _>>()?;
        }
        ConnectorField::Note(value) => connector.note = maybe_text("note", value, MAX_TEXT)?,
        ConnectorField::Step(step) => connector.step = *step,
    }
    Ok(())
}

impl Sound for Connector {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        manual.refers::<Step>("step", [self.step])?;
        manual.refers::<Part>("serves", self.serves)
    }
}
