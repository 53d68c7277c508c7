//! Cable connections: what they serve and how they open.

use super::change::{Aspect, Refusal, Touched, note};
use super::steps::LONGEST_TEXT;
use super::{Evidence, Manual};
use crate::ids::*;
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

impl Manual {
    pub(super) fn edit_connector(
        &mut self,
        edit: &ConnectorEdit,
        author: &str,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        match edit {
            ConnectorEdit::Add { id, step } => {
                if self.connectors.contains_key(id) {
                    return Err(Refusal::Exists { what: "connector", id: id.0 });
                }
                self.step_mut(*step)?;
                touched.add(Aspect::Connectors, id.0);
                let evidence = vec![Evidence::Author { name: author.to_owned() }];
                let new = Connector {
                    id: *id,
                    step: *step,
                    serves: None,
                    kind: None,
                    power: false,
                    temporary: false,
                    route: Vec::new(),
                    note: None,
                    evidence,
                };
                self.connectors.insert(*id, new);
            }
            ConnectorEdit::Set { id, field } => {
                touched.add(Aspect::Connectors, id.0);
                match field {
                    ConnectorField::Step(step) => drop(self.step_mut(*step)?),
                    ConnectorField::Serves(Some(part)) if !self.parts.contains_key(part) => {
                        return Err(Refusal::Gone { what: "part", id: part.0 });
                    }
                    _ => {}
                }
                let c = self.connectors.get_mut(id).ok_or(Refusal::Gone { what: "connector", id: id.0 })?;
                match field {
                    ConnectorField::Serves(part) => c.serves = *part,
                    ConnectorField::Kind(kind) => c.kind = *kind,
                    ConnectorField::Power(power) => c.power = *power,
                    ConnectorField::Temporary(temporary) => c.temporary = *temporary,
                    ConnectorField::Route(route) => {
                        c.route = route.iter().map(|r| note("route", r, LONGEST_TEXT)).collect::<Result<_, _>>()?
                    }
                    ConnectorField::Note(value) => {
                        c.note = value
                            .as_deref()
                            .map(|n| note("note", n, LONGEST_TEXT))
                            .transpose()?
                            .filter(|n| !n.is_empty())
                    }
                    ConnectorField::Step(step) => c.step = *step,
                }
            }
            ConnectorEdit::Remove { id } => {
                touched.add(Aspect::Connectors, id.0);
                self.connectors.remove(id).ok_or(Refusal::Gone { what: "connector", id: id.0 })?;
            }
        }
        Ok(())
    }
}
