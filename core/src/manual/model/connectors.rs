//! Cable connections: what they serve and how they open.

use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, maybe_text, note, text};
use crate::manual::edits::sound::Sound;
use crate::manual::{Evidence, HolePlace, Layer, Manual, Part, Step};
use crate::things::{is_any_cable, same_cable};
use crate::units::number;
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
    /// The step in which a connection that is only made to try is undone again; `None`: in its own.
    #[serde(default)]
    pub until: Option<StepId>,
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
    pub route: Vec<Waypoint>,
    /// How far what hangs on it can be moved while it is on, in millimetres.
    #[serde(default)]
    pub slack_mm: Option<f64>,
    /// The tightest bend that its cable bears, as a radius in millimetres.
    #[serde(default)]
    pub bend_mm: Option<f64>,
    pub note: Option<String>,
    pub evidence: Vec<Evidence>,
}

/// One place that a cable passes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Waypoint {
    /// "through the slot beside the bracket".
    pub what: String,
    /// Where that is on a layer; `None`: nobody placed it.
    #[serde(default)]
    pub at: Option<LayerSpot>,
    /// The layer on which the cable goes on, where it passes through to the other side.
    #[serde(default)]
    pub through: Option<LayerId>,
}

/// A place on a layer, in millimetres from its upper left corner.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LayerSpot {
    pub layer: LayerId,
    pub x_mm: f64,
    pub y_mm: f64,
}

impl LayerSpot {
    /// Where it is, whatever the layer.
    pub fn place(self) -> HolePlace {
        HolePlace { x_mm: self.x_mm, y_mm: self.y_mm }
    }
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
    Until(Option<StepId>),
    /// What it passes, in words; a place that is told as before stays where it was placed.
    Route(Vec<String>),
    /// Where one of its places is, by its number from 0.
    Passes {
        number: usize,
        at: Option<LayerSpot>,
    },
    /// On which layer it goes on from there.
    Through {
        number: usize,
        to: Option<LayerId>,
    },
    SlackMm(Option<f64>),
    BendMm(Option<f64>),
    On(Option<PartId>),
    Place(Option<String>),
    /// "red to 1; black to 2"; nothing takes them away.
    Wires(String),
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
            until: None,
            on: None,
            place: None,
            wires: Vec::new(),
            opens: None,
            makes: None,
            tether: None,
            route: Vec::new(),
            slack_mm: None,
            bend_mm: None,
            note: None,
            evidence,
        }
    }
}

impl Waypoint {
    /// Told, and not placed.
    pub fn told(what: impl Into<String>) -> Self {
        Self { what: what.into(), at: None, through: None }
    }
}

impl Connector {
    /// What the cable passes, in words.
    pub fn passes(&self) -> impl Iterator<Item = &str> {
        self.route.iter().map(|w| w.what.as_str())
    }

    /// For people: "fan", "battery (power)".
    pub fn words(&self, manual: &Manual) -> String {
        let serves = self.serves.map_or("cable", |p| manual.part_name(p));
        if self.power { format!("{serves} (power)") } else { serves.to_owned() }
    }

    /// Whether names of a sentence mean this one. A cable without a name is meant by a sentence that names none either.
    pub fn is_named(&self, manual: &Manual, names: &[&str]) -> bool {
        match self.serves.map(|p| manual.part_name(p)) {
            Some(serves) => names.iter().any(|n| same_cable(serves, n)),
            None => names.iter().all(|n| is_any_cable(n)),
        }
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
                    ConnectorField::Until(step) => manual.may_be::<Step>(*step)?,
                    ConnectorField::Serves(part) | ConnectorField::On(part) => manual.may_be::<Part>(*part)?,
                    ConnectorField::Passes { at, .. } => at.map_or(Ok(()), |spot| on_its_layer(manual, spot))?,
                    ConnectorField::Through { to, .. } => manual.may_be::<Layer>(*to)?,
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
/// Most places that one cable passes.
const MAX_PLACES: usize = 60;
/// No cable of a device that stands on a bench is longer.
const MAX_CABLE_MM: f64 = 10_000.0;

fn on_its_layer(manual: &Manual, spot: LayerSpot) -> Result<(), Refusal> {
    let layer = manual.must_be_there::<Layer>(spot.layer)?;
    if layer.outline.holds(spot.place()) {
        return Ok(());
    }
    let (width, height) = layer.outline.size_mm();
    let problem = format!(
        "{}, {} mm lies outside “{}”, which is {} × {} mm.",
        number(spot.x_mm),
        number(spot.y_mm),
        layer.name,
        number(width),
        number(height)
    );
    Err(Refusal::invalid("at", problem))
}

/// The route as it is told now; what was told before keeps its place.
fn told_anew(route: &[Waypoint], told: &[String]) -> Result<Vec<Waypoint>, Refusal> {
    if told.len() > MAX_PLACES {
        let problem = format!("{} places that one cable passes; at most {MAX_PLACES} fit.", told.len());
        return Err(Refusal::invalid("route", problem));
    }
    let mut before = route.to_vec();
    let waypoint = |told: &String| {
        let what = note("route", told, MAX_TEXT)?;
        let known = before.iter().position(|w| w.what == what).map(|at| before.remove(at));
        Ok(known.unwrap_or_else(|| Waypoint::told(what)))
    };
    told.iter().map(waypoint).collect()
}

fn length(field: &'static str, value: Option<f64>) -> Result<Option<f64>, Refusal> {
    match value {
        Some(mm) if !(mm.is_finite() && mm > 0.0 && mm <= MAX_CABLE_MM) => {
            let problem =
                format!("{} mm is no length of a cable; write more than 0 and at most {MAX_CABLE_MM} mm.", number(mm));
            Err(Refusal::invalid(field, problem))
        }
        fits => Ok(fits),
    }
}

fn waypoint(connector: &mut Connector, number: usize) -> Result<&mut Waypoint, Refusal> {
    let there = connector.route.len();
    connector.route.get_mut(number).ok_or_else(|| {
        let problem = format!("The cable passes {there} places; there is no number {}.", number + 1);
        Refusal::invalid("number", problem)
    })
}

impl WireEnd {
    /// For people and for tables: "red to 1; black to 2".
    pub fn words(wires: &[Self]) -> String {
        wires.iter().map(|w| format!("{} to {}", w.colour, w.to)).collect::<Vec<_>>().join("; ")
    }

    /// Reads what [`WireEnd::words`] writes; commas do as well.
    ///
    /// # Errors
    /// Names the wire that has no end.
    pub fn read(told: &str) -> Result<Vec<Self>, Refusal> {
        let all: Vec<&str> = told.split([';', ',']).map(str::trim).filter(|t| !t.is_empty()).collect();
        if all.len() > MAX_WIRES {
            let problem = format!("{} wires at one connector; at most {MAX_WIRES} fit.", all.len());
            return Err(Refusal::invalid("wires", problem));
        }
        let half =
            |told: &str| Refusal::invalid("wires", format!("“{told}” is half a wire. Write “red to 1; black to 2”."));
        let end = |told: &str| {
            let (colour, to) = told.split_once(" to ").ok_or_else(|| half(told))?;
            Ok(Self { colour: text("colour", colour, MAX_TITLE)?, to: text("to", to, MAX_TITLE)? })
        };
        all.into_iter().map(end).collect()
    }
}

fn set_field(connector: &mut Connector, field: &ConnectorField) -> Result<(), Refusal> {
    match field {
        ConnectorField::Serves(part) => connector.serves = *part,
        ConnectorField::Kind(kind) => connector.kind = *kind,
        ConnectorField::Power(power) => connector.power = *power,
        ConnectorField::Temporary(temporary) => connector.temporary = *temporary,
        ConnectorField::Until(step) => connector.until = *step,
        ConnectorField::Route(told) => connector.route = told_anew(&connector.route, told)?,
        ConnectorField::Passes { number, at } => waypoint(connector, *number)?.at = *at,
        ConnectorField::Through { number, to } => waypoint(connector, *number)?.through = *to,
        ConnectorField::SlackMm(mm) => connector.slack_mm = length("slack_mm", *mm)?,
        ConnectorField::BendMm(mm) => connector.bend_mm = length("bend_mm", *mm)?,
        ConnectorField::On(part) => connector.on = *part,
        ConnectorField::Place(value) => connector.place = maybe_text("place", value, MAX_TEXT)?,
        ConnectorField::Opens(value) => connector.opens = maybe_text("opens", value, MAX_TEXT)?,
        ConnectorField::Makes(value) => connector.makes = maybe_text("makes", value, MAX_TEXT)?,
        ConnectorField::Tether(value) => connector.tether = maybe_text("tether", value, MAX_TEXT)?,
        ConnectorField::Wires(told) => connector.wires = WireEnd::read(told)?,
        ConnectorField::Note(value) => connector.note = maybe_text("note", value, MAX_TEXT)?,
        ConnectorField::Step(step) => connector.step = *step,
    }
    Ok(())
}

impl Sound for Connector {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        manual.refers::<Step>("step", [self.step])?;
        manual.refers::<Step>("until", self.until)?;
        manual.refers::<Part>("serves", self.serves)?;
        manual.refers::<Part>("on", self.on)?;
        manual.refers::<Layer>("route", self.route.iter().filter_map(|w| w.at.map(|at| at.layer)))?;
        manual.refers::<Layer>("route", self.route.iter().filter_map(|w| w.through))
    }
}
