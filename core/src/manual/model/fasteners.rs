//! Groups of like fasteners: how many, which drive, what they hold, and where each of those is known from.

use crate::ids::*;
use crate::labels;
use crate::manual::edits::edit::Apply;
use crate::manual::edits::place::Touched;
use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE, Refusal, above_zero, maybe_text, text};
use crate::manual::edits::sound::Sound;
use crate::manual::model::letters::sound_letter;
use crate::manual::{
    Evidence, HeadForm, HolePlace, JointFacts, Layer, Locking, MAX_TORQUE_NM, Manual, Part, Step, Stored, TorqueFrom,
    Variant,
};
use crate::reading::{Drive, FastenerOp};
use crate::screw::{Class, Thread};
use crate::units::{self, Length, Torque};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a count came about. All claims are kept; disagreement is a finding.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HowCounted {
    Said,
    CountedAloud,
    Drawn,
    /// By a person looking.
    Confirmed,
}

labels!(HowCounted { Said: "said", CountedAloud: "counted aloud", Drawn: "drawn", Confirmed: "confirmed" });

/// One claim about how many there are.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CountClaim {
    pub count: u32,
    pub how: HowCounted,
    pub evidence: Option<Evidence>,
}

/// What becomes of the screws at the rebuild.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FastenerFate {
    Reuse,
    Renew,
    /// On purpose not put back; the reason stands in the note.
    LeaveOut,
}

labels!(FastenerFate { Reuse: "the same ones", Renew: "new ones", LeaveOut: "left out on purpose" });

/// One group of like fasteners.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FastenerGroup {
    pub id: GroupId,
    pub step: StepId,
    /// "rear cover, the long ones"; `None`: named by what they hold.
    #[serde(default)]
    pub name: Option<String>,
    /// The letter that it keeps, see [`Manual::letters`].
    #[serde(default)]
    pub letter: Option<String>,
    pub op: FastenerOp,
    /// The count in force: the last confirmed claim, else the last one.
    pub count: Option<u32>,
    pub claims: Vec<CountClaim>,
    pub drive: Option<Drive>,
    /// `PH00`, `T6`; a hex key by its size.
    pub bit: Option<String>,
    #[serde(rename = "length_mm", with = "units::serde_mm")]
    #[schema(value_type = Option<f64>)]
    pub length: Option<Length>,
    #[serde(rename = "torque_nm", with = "units::serde_nm")]
    #[schema(value_type = Option<f64>)]
    pub torque: Option<Torque>,
    /// Who says how tight; `None`: an author.
    #[serde(default)]
    pub torque_from: Option<TorqueFrom>,
    /// Why a setting outside the computed window stands.
    #[serde(default)]
    pub torque_because: Option<String>,
    /// Snug by hand is all that is asked: no figure is given, and none is recommended.
    #[serde(default)]
    pub snug: bool,
    #[serde(default)]
    #[schema(value_type = Option<String>)]
    pub thread: Option<Thread>,
    /// It forms its own thread: a screw for plastic.
    #[serde(default)]
    pub forming: bool,
    #[serde(default)]
    pub head: Option<HeadForm>,
    #[serde(rename = "head_mm", with = "units::serde_mm", default)]
    #[schema(value_type = Option<f64>)]
    pub head_width: Option<Length>,
    #[serde(default)]
    pub joint: JointFacts,
    #[serde(default)]
    pub stored: Option<Stored>,
    #[serde(default)]
    pub locking: Option<Locking>,
    pub captive: bool,
    /// One or two parts; counted once.
    pub holds: Vec<PartId>,
    /// A part that must be back before they are driven, though it holds nothing of theirs.
    #[serde(default)]
    pub waits_for: Option<PartId>,
    /// Holes that were empty when the device arrived.
    #[serde(default)]
    pub empty_on_arrival: u32,
    #[serde(default)]
    pub layer: Option<LayerId>,
    /// Where they sit on their layer.
    #[serde(default)]
    pub holes: Vec<HolePlace>,
    /// The order they are tightened in as told or embossed, by the numbers of their holes from 1.
    #[serde(default)]
    pub tighten_told: Vec<u32>,
    #[serde(default)]
    pub loosen_told: Vec<u32>,
    /// Tightened to half first, then in full.
    #[serde(default)]
    pub two_passes: bool,
    /// How many the narrator put back, where the rebuild was told.
    pub refitted: Option<u32>,
    pub fate: FastenerFate,
    pub note: Option<String>,
    /// Empty: in all variants.
    #[serde(default)]
    pub variants: Vec<VariantId>,
    pub evidence: Vec<Evidence>,
}

impl FastenerGroup {
    /// An empty group at a step.
    pub fn new(id: GroupId, step: StepId) -> Self {
        Self {
            id,
            step,
            name: None,
            letter: None,
            op: FastenerOp::Remove,
            count: None,
            claims: Vec::new(),
            drive: None,
            bit: None,
            length: None,
            torque: None,
            torque_from: None,
            torque_because: None,
            snug: false,
            thread: None,
            forming: false,
            head: None,
            head_width: None,
            joint: JointFacts::default(),
            stored: None,
            locking: None,
            captive: false,
            holds: Vec::new(),
            waits_for: None,
            empty_on_arrival: 0,
            layer: None,
            holes: Vec::new(),
            tighten_told: Vec::new(),
            loosen_told: Vec::new(),
            two_passes: false,
            refitted: None,
            fate: FastenerFate::Reuse,
            note: None,
            variants: Vec::new(),
            evidence: Vec::new(),
        }
    }
}

/// One field of a group.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FastenerField {
    Op(FastenerOp),
    /// Confirms a count; the claims before it are kept.
    Count(Option<u32>),
    Drive(Option<Drive>),
    Bit(Option<String>),
    LengthMm(Option<f64>),
    TorqueNm(Option<f64>),
    /// As people write it: "0.4 N·m", "3.5 lbf·in".
    Torque(Option<String>),
    Captive(bool),
    Holds(Vec<PartId>),
    Refitted(Option<u32>),
    Fate(FastenerFate),
    Note(Option<String>),
    Variants(Vec<VariantId>),
    Step(StepId),
    Name(Option<String>),
    /// "M2", "M3×0.35".
    Thread(Option<String>),
    Forming(bool),
    Head(Option<HeadForm>),
    HeadMm(Option<f64>),
    Joint(JointFacts),
    Stored(Option<Stored>),
    Locking(Option<Locking>),
    WaitsFor(Option<PartId>),
    EmptyOnArrival(u32),
    TightenTold(Vec<u32>),
    LoosenTold(Vec<u32>),
    TwoPasses(bool),
    TorqueFrom(Option<TorqueFrom>),
    /// Takes a torque away.
    Snug(bool),
    TorqueBecause(Option<String>),
}

/// Changes of fastener groups.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FastenerEdit {
    Add {
        id: GroupId,
        step: StepId,
    },
    Set {
        id: GroupId,
        field: FastenerField,
    },
    Remove {
        id: GroupId,
    },
    /// Parts a group in two, such as left and right: so many screws, with these of its holes, go to a new one.
    Split {
        id: GroupId,
        new_id: GroupId,
        count: u32,
        holes: Vec<u32>,
        name: String,
    },
    /// So many screws, with these holes (numbers from 1), go from one group to another.
    Shift {
        from: GroupId,
        to: GroupId,
        count: u32,
        holes: Vec<u32>,
    },
    /// All or none, as one edit.
    #[schema(no_recursion)]
    Several {
        edits: Vec<FastenerEdit>,
    },
}

/// Most screws in one group: no device that people open by hand has more.
const MAX_SCREWS: u32 = 500;
/// Widest head, in millimetres.
const MAX_HEAD_MM: f64 = 60.0;
/// Longest screw, in millimetres.
const MAX_LENGTH_MM: f64 = 500.0;

impl Apply for FastenerEdit {
    fn apply(&self, manual: &mut Manual, author: &str, touched: &mut Touched) -> Result<(), Refusal> {
        match self {
            Self::Add { id, step } => {
                manual.must_be_new::<FastenerGroup>(*id)?;
                manual.must_be_there::<Step>(*step)?;
                let evidence = vec![Evidence::author(author)];
                manual.put_entity(FastenerGroup { evidence, ..FastenerGroup::new(*id, *step) }, touched);
            }
            Self::Set { id, field } => {
                match field {
                    FastenerField::Step(step) => drop(manual.must_be_there::<Step>(*step)?),
                    FastenerField::Holds(parts) => manual.must_all_be_there::<Part>(parts)?,
                    FastenerField::Variants(variants) => manual.must_all_be_there::<Variant>(variants)?,
                    FastenerField::WaitsFor(part) => manual.may_be::<Part>(*part)?,
                    _ => {}
                }
                set_field(manual.change_entity::<FastenerGroup>(*id, touched)?, field, author)?;
            }
            Self::Remove { id } => {
                manual.keep_letters(touched);
                manual.take_entity::<FastenerGroup>(*id, touched)?;
            }
            Self::Split { id, new_id, count, holes, name } => {
                manual.must_be_new::<FastenerGroup>(*new_id)?;
                let part = manual.must_be_there::<FastenerGroup>(*id)?.part(*new_id, text("name", name, MAX_TITLE)?);
                manual.put_entity(part, touched);
                manual.shift(*id, *new_id, *count, holes, author, touched)?;
            }
            Self::Several { edits } => edits.iter().try_for_each(|edit| edit.apply(manual, author, touched))?,
            Self::Shift { from, to, count, holes } => manual.shift(*from, *to, *count, holes, author, touched)?,
        }
        Ok(())
    }
}

impl Manual {
    /// What is out of one group is in the other: the sum stays the same.
    fn shift(
        &mut self,
        from: GroupId,
        to: GroupId,
        count: u32,
        holes: &[u32],
        author: &str,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        let invalid = |problem: String| Err(Refusal::Invalid { field: "count", problem });
        if from == to {
            return invalid("The screws are in this group already. Choose another one.".to_owned());
        }
        let mut giver = self.must_be_there::<FastenerGroup>(from)?.clone();
        let mut taker = self.must_be_there::<FastenerGroup>(to)?.clone();
        let has = giver.count.unwrap_or(giver.holes.len() as u32);
        if count == 0 || count >= has {
            return invalid(format!(
                "{count} of {has} screws cannot go: write at least 1, and leave at least 1. Remove the group to empty it."
            ));
        }
        if holes.len() > count as usize {
            return invalid(format!("{} holes cannot go with {count} screws.", holes.len()));
        }
        if let Some(n) = holes.iter().find(|n| **n == 0 || **n as usize > giver.holes.len()) {
            return invalid(format!("There is no hole {n} in this group; it has {}.", giver.holes.len()));
        }
        if !holes.is_empty() && !taker.holes.is_empty() && taker.layer != giver.layer {
            return invalid(
                "The other group has its holes on another layer. Move the holes apart from the screws.".to_owned(),
            );
        }
        let goes = |i: usize| holes.contains(&(i as u32 + 1));
        let (moved, kept): (Vec<(usize, HolePlace)>, _) =
            giver.holes.iter().copied().enumerate().partition(|(i, _)| goes(*i));
        let places = |list: Vec<(usize, HolePlace)>| list.into_iter().map(|(_, h)| h).collect::<Vec<_>>();
        if !moved.is_empty() {
            taker.layer = giver.layer;
            giver.put_holes(places(kept));
            let all = taker.holes.iter().copied().chain(places(moved)).collect();
            taker.put_holes(all);
        }
        let refitted = giver.refitted;
        giver.confirm(has - count, author);
        let had = self.fasteners[&to].count.unwrap_or(0);
        taker.confirm(whole("count", had + count)?, author);
        // Told for the whole group, it can be parted only where it says that all went back.
        if refitted == Some(has) {
            giver.refitted = Some(has - count);
            taker.refitted = Some(taker.refitted.unwrap_or(had) + count);
        }
        self.put_entity(giver, touched);
        self.put_entity(taker, touched);
        Ok(())
    }
}

impl FastenerGroup {
    /// A group like this one, still without screws.
    fn part(&self, id: GroupId, name: String) -> Self {
        Self {
            id,
            name: Some(name),
            letter: None,
            count: None,
            claims: Vec::new(),
            refitted: None,
            // Not known of which side; they stay with the group they were noted for.
            empty_on_arrival: 0,
            layer: None,
            holes: Vec::new(),
            tighten_told: Vec::new(),
            loosen_told: Vec::new(),
            ..self.clone()
        }
    }

    /// A person looked and says so.
    fn confirm(&mut self, count: u32, author: &str) {
        self.count = Some(count);
        let evidence = Some(Evidence::author(author));
        self.claims.push(CountClaim { count, how: HowCounted::Confirmed, evidence });
    }

    fn set_torque(&mut self, newton_metres: Option<f64>) -> Result<(), Refusal> {
        let checked = newton_metres.map(|nm| above_zero("torque_nm", nm, MAX_TORQUE_NM, "N·m")).transpose()?;
        self.torque = checked.map(|nm| self.check_torque(units::newton_metres(nm))).transpose()?;
        // Source and reason of another setting are none of this one.
        self.torque_from = None;
        self.torque_because = None;
        self.snug &= self.torque.is_none();
        Ok(())
    }

    /// A setting that would break the screw is no setting.
    fn check_torque(&self, torque: Torque) -> Result<Torque, Refusal> {
        let Some(thread) = self.thread else { return Ok(torque) };
        // Of a screw whose class nobody knows, only what breaks the strongest is sure to break it.
        let (class, known) = self.joint.class.map_or((Class::C109, false), |c| (c, true));
        let (setting, breaks) = (units::in_newton_metres(torque), thread.breaking_torque_nm(class));
        if setting < breaks {
            return Ok(torque);
        }
        let which = if known { format!("an {thread} screw of its class") } else { format!("any {thread} screw") };
        Err(Refusal::Invalid {
            field: "torque_nm",
            problem: format!(
                "{} N·m breaks {which}, which stands less than {} N·m. Write a smaller setting.",
                units::number(setting),
                units::number(breaks)
            ),
        })
    }
}

fn set_field(group: &mut FastenerGroup, field: &FastenerField, author: &str) -> Result<(), Refusal> {
    match field {
        FastenerField::Op(op) => group.op = *op,
        FastenerField::Count(count) => match count.map(|n| whole("count", n)).transpose()? {
            Some(count) => group.confirm(count, author),
            None => group.count = None,
        },
        FastenerField::Drive(drive) => group.drive = *drive,
        FastenerField::Bit(bit) => group.bit = bit.as_deref().map(|b| text("bit", b, MAX_TITLE)).transpose()?,
        FastenerField::LengthMm(length) => {
            group.length =
                length.map(|mm| above_zero("length_mm", mm, MAX_LENGTH_MM, "mm")).transpose()?.map(units::millimetres);
        }
        FastenerField::TorqueNm(torque) => group.set_torque(*torque)?,
        FastenerField::Torque(text) => {
            let text = text.as_deref().filter(|t| !t.trim().is_empty());
            let parsed = text.map(units::parse_torque).transpose();
            let torque = parsed.map_err(|problem| Refusal::Invalid { field: "torque_nm", problem })?;
            group.set_torque(torque.map(units::in_newton_metres))?;
        }
        FastenerField::Snug(snug) => {
            group.snug = *snug;
            if *snug {
                group.set_torque(None)?;
            }
        }
        FastenerField::Captive(captive) => group.captive = *captive,
        FastenerField::Holds(parts) => group.holds = parts.clone(),
        FastenerField::Refitted(count) => {
            group.refitted = count.map(|n| at_most("refitted", n)).transpose()?;
        }
        FastenerField::Fate(fate) => group.fate = *fate,
        FastenerField::Note(value) => group.note = maybe_text("note", value, MAX_TEXT)?,
        FastenerField::Variants(variants) => group.variants.clone_from(variants),
        FastenerField::Step(step) => group.step = *step,
        FastenerField::Name(name) => group.name = maybe_text("name", name, MAX_TITLE)?,
        FastenerField::Thread(thread) => {
            let thread = thread.as_deref().filter(|t| !t.trim().is_empty());
            let parsed = thread.map(str::parse).transpose();
            group.thread = parsed.map_err(|problem| Refusal::Invalid { field: "thread", problem })?;
        }
        FastenerField::Forming(forming) => group.forming = *forming,
        FastenerField::Head(head) => group.head = *head,
        FastenerField::HeadMm(width) => {
            group.head_width =
                width.map(|mm| above_zero("head_mm", mm, MAX_HEAD_MM, "mm")).transpose()?.map(units::millimetres);
        }
        FastenerField::Joint(joint) => group.joint = joint.checked()?,
        FastenerField::Stored(stored) => group.stored = *stored,
        FastenerField::Locking(locking) => group.locking = *locking,
        FastenerField::WaitsFor(part) => group.waits_for = *part,
        FastenerField::EmptyOnArrival(holes) => {
            group.empty_on_arrival = at_most("empty_on_arrival", *holes)?;
        }
        FastenerField::TightenTold(order) => group.tighten_told = told_order(group, "tighten_told", order)?,
        FastenerField::LoosenTold(order) => group.loosen_told = told_order(group, "loosen_told", order)?,
        FastenerField::TwoPasses(twice) => group.two_passes = *twice,
        FastenerField::TorqueFrom(from) => group.torque_from = *from,
        FastenerField::TorqueBecause(reason) => group.torque_because = maybe_text("torque_because", reason, MAX_TITLE)?,
    }
    Ok(())
}

/// An order that names each hole of the group once, or none at all.
fn told_order(group: &FastenerGroup, field: &'static str, order: &[u32]) -> Result<Vec<u32>, Refusal> {
    let mut sorted = order.to_vec();
    sorted.sort_unstable();
    let holes = group.holes.len().max(group.count.unwrap_or(0) as usize) as u32;
    if order.is_empty() || sorted.iter().copied().eq(1..=holes) {
        return Ok(order.to_vec());
    }
    let problem = format!("The order must name each of the {holes} holes once, by their numbers 1 to {holes}.");
    Err(Refusal::Invalid { field, problem })
}

fn whole(field: &'static str, count: u32) -> Result<u32, Refusal> {
    if count == 0 {
        return Err(Refusal::Invalid {
            field,
            problem: "A group of no screws is no group. Write at least 1, or remove it.".to_owned(),
        });
    }
    at_most(field, count)
}

fn at_most(field: &'static str, count: u32) -> Result<u32, Refusal> {
    if count > MAX_SCREWS {
        let problem = format!("{count} screws in one group cannot be meant; write at most {MAX_SCREWS}.");
        return Err(Refusal::Invalid { field, problem });
    }
    Ok(count)
}

impl Sound for FastenerGroup {
    fn sound(&self, manual: &Manual) -> Result<(), Refusal> {
        manual.refers::<Step>("step", [self.step])?;
        manual.refers::<Part>("holds", self.holds.iter().copied())?;
        manual.refers::<Part>("waits_for", self.waits_for)?;
        manual.refers::<Layer>("layer", self.layer)?;
        manual.refers::<Variant>("variants", self.variants.iter().copied())?;
        self.letter.as_deref().map_or(Ok(()), sound_letter)?;
        self.count.map(|n| whole("count", n)).transpose()?;
        // What was heard may be absurd; it is a finding, and only what is in force counts.
        at_most("empty_on_arrival", self.empty_on_arrival)?;
        self.refitted.map(|n| at_most("refitted", n)).transpose()?;
        let figures = [
            ("length_mm", self.length.map(units::in_millimetres), MAX_LENGTH_MM, "mm"),
            ("torque_nm", self.torque.map(units::in_newton_metres), MAX_TORQUE_NM, "N·m"),
            ("head_mm", self.head_width.map(units::in_millimetres), MAX_HEAD_MM, "mm"),
        ];
        for (field, value, most, unit) in figures {
            value.map(|v| above_zero(field, v, most, unit)).transpose()?;
        }
        self.joint.checked()?;
        match self.layer {
            Some(layer) => manual.check_holes(self.id, layer, &self.holes),
            None if !self.holes.is_empty() => Err(Refusal::invalid("holes", "they stand on no layer")),
            None => Ok(()),
        }
    }
}
