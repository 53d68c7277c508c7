//! Cable connections: what they serve and how they open.

use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, maybe_text, note, text};
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
    /// A flat cable under a latch; nobody said which way the latch goes.
    Latch,
    LatchFlips,
    LatchSlides,
    /// A tab or loop that the plug is pulled by.
    PullTab,
    /// A small round antenna plug, popped straight up.
    Coaxial,
    /// A plug with wires, pulled along its cable.
    Plug,
    /// A flat cable held by nothing but the contacts.
    Friction,
    /// Springs or pins that only touch.
    Spring,
    /// The blades of a battery that slides in.
    Blade,
    /// A push-on tag.
    Spade,
    ScrewTerminal,
    Soldered,
}

labels!(ConnectorKind {
    PressFit: "press fit",
    Latch: "latch",
    LatchFlips: "latch that flips up",
    LatchSlides: "latch that slides",
    PullTab: "pull tab",
    Coaxial: "coaxial",
    Plug: "plug with wires",
    Friction: "friction fit",
    Spring: "spring contact",
    Blade: "battery blades",
    Spade: "push-on tag",
    ScrewTerminal: "screw terminal",
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
    /// The board or part that it sits on.
    #[serde(default)]
    pub on: Option<PartId>,
    /// Where on it: "lower left, beside the fan".
    #[serde(default)]
    pub place: Option<String>,
    /// Wire colours with the posts or pins that they go to.
    #[serde(default)]
    pub wires: Vec<WireEnd>,
    /// How this one is opened, where its kind does not say it.
    #[serde(default)]
    pub opens: Option<String>,
    /// How this one is made.
    #[serde(default)]
    pub makes: Option<String>,
    /// How a part that still hangs on it is held: "prop the lid against a box".
    #[serde(default)]
    pub tether: Option<String>,
    /// What the cable passes, in order.
    pub route: Vec<String>,
    pub note: Option<String>,
    pub evidence: Vec<Evidence>,
}

/// One wire and where it goes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WireEnd {
    pub colour: String,
    pub to: String,
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
    On(Option<PartId>),
    Place(Option<String>),
    Wires(Vec<WireEnd>),
    Opens(Option<String>),
    Makes(Option<String>),
    Tether(Option<String>),
    Note(Option<String>),
    Step(StepId),
}

/// Changes of connectors.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ConnectorEdit {
    Add {
        id: ConnectorId,
        step: StepId,
    },
    Set {
        id: ConnectorId,
        field: ConnectorField,
    },
    Remove {
        id: ConnectorId,
    },
    /// All or none, as one edit.
    #[schema(no_recursion)]
    Several {
        edits: Vec<ConnectorEdit>,
    },
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
            on: None,
            place: None,
            wires: Vec::new(),
            opens: None,
            makes: None,
            tether: None,
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
                    ConnectorField::Serves(part) | ConnectorField::On(part) => manual.may_be::<Part>(*part)?,
                    _ => {}
                }
                set_field(manual.change_entity::<Connector>(*id, touched)?, field)?;
            }
            Self::Remove { id } => drop(manual.take_entity::<Connector>(*id, touched)?),
            Self::Several { edits } => edits.iter().try_for_each(|edit| edit.apply(manual, author, touched))?,
        }
        Ok(())
    }
}

/// Most wires of one connector.
const MAX_WIRES: usize = 100;

fn set_field(connector: &mut Connector, field: &ConnectorField) -> Result<(), Refusal> {
    match field {
        ConnectorField::Serves(part) => connector.serves = *part,
        ConnectorField::Kind(kind) => connector.kind = *kind,
        ConnectorField::Power(power) => connector.power = *power,
        ConnectorField::Temporary(temporary) => connector.temporary = *temporary,
        ConnectorField::Route(route) => {
            connector.route = route.iter().map(|r| note("route", r, MAX_TEXT)).collect::<Result<_, _>>()?;
        }
        ConnectorField::On(part) => connector.on = *part,
        ConnectorField::Place(value) => connector.place = maybe_text("place", value, MAX_TEXT)?,
        ConnectorField::Opens(value) => connector.opens = maybe_text("opens", value, MAX_TEXT)?,
        ConnectorField::Makes(value) => connector.makes = maybe_text("makes", value, MAX_TEXT)?,
        ConnectorField::Tether(value) => connector.tether = maybe_text("tether", value, MAX_TEXT)?,
        ConnectorField::Wires(wires) => {
            if wires.len() > MAX_WIRES {
                let problem = format!("{} wires at one connector; at most {MAX_WIRES} fit.", wires.len());
                return Err(Refusal::invalid("wires", problem));
            }
            let end = |w: &WireEnd| {
                if w.colour.trim().is_empty() || w.to.trim().is_empty() {
                    let said = format!("{} {}", w.colour, w.to);
                    let problem = format!("“{}” is half a wire. Write “red to 1, black to 2”.", said.trim());
                    return Err(Refusal::invalid("wires", problem));
                }
                Ok(WireEnd { colour: text("colour", &w.colour, MAX_TITLE)?, to: text("to", &w.to, MAX_TITLE)? })
            };
            connector.wires = wires.iter().map(end).collect::<Result<_, Refusal>>()?;
        }
        ConnectorField::Note(value) => connector.note = maybe_text("note", value, MAX_TEXT)?,
        ConnectorField::Step(step) => connector.step = *step,
    }
    Ok(())
}

impl Sound for Connector {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        manual.refers::<Step>("step", [self.step])?;
        manual.refers::<Part>("serves", self.serves)?;
        manual.refers::<Part>("on", self.on)
    }
}
