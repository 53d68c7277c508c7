//! Groups of like fasteners: how many, which drive, what they hold, and where each of those is known from.

use super::change::{Aspect, Refusal, Touched, note, text};
use super::screw_facts::MOST_TORQUE_NM;
use super::steps::{LONGEST_TEXT, LONGEST_TITLE};
use super::{Evidence, HeadForm, HolePlace, JointFacts, Locking, Manual, Stored, TorqueFrom};
use crate::ids::*;
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

/// One group of like fasteners.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FastenerGroup {
    pub id: GroupId,
    pub step: StepId,
    /// "rear cover, the long ones"; `None`: named by what they hold.
    #[serde(default)]
    pub name: Option<String>,
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
            op: FastenerOp::Remove,
            count: None,
            claims: Vec::new(),
            drive: None,
            bit: None,
            length: None,
            torque: None,
            torque_from: None,
            torque_because: None,
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
const MOST: u32 = 500;
/// Longest screw, in millimetres.
const LONGEST_SCREW: f64 = 500.0;

impl Manual {
    pub(super) fn edit_fastener(
        &mut self,
        edit: &FastenerEdit,
        author: &str,
        touched: &mut Touched,
    ) -> Result<(), Refusal> {
        match edit {
            FastenerEdit::Add { id, step } => {
                if self.fasteners.contains_key(id) {
                    return Err(Refusal::Exists { what: "group of screws", id: id.0 });
                }
                self.step_mut(*step)?;
                touched.add(Aspect::Fasteners, id.0);
                let group = FastenerGroup {
                    evidence: vec![Evidence::Author { name: author.to_owned() }],
                    ..FastenerGroup::new(*id, *step)
                };
                self.fasteners.insert(*id, group);
            }
            FastenerEdit::Set { id, field } => {
                touched.add(Aspect::Fasteners, id.0);
                if let FastenerField::Step(step) = field {
                    self.step_mut(*step)?;
                }
                if let FastenerField::Holds(parts) = field
                    && let Some(gone) = parts.iter().find(|p| !self.parts.contains_key(p))
                {
                    return Err(Refusal::Gone { what: "part", id: gone.0 });
                }
                if let FastenerField::Variants(variants) = field {
                    self.check_variants(variants)?;
                }
                if let FastenerField::WaitsFor(Some(part)) = field
                    && !self.parts.contains_key(part)
                {
                    return Err(Refusal::Gone { what: "part", id: part.0 });
                }
                let group = self.fasteners.get_mut(id).ok_or(gone(*id))?;
                set_field(group, field, author)?;
            }
            FastenerEdit::Remove { id } => {
                touched.add(Aspect::Fasteners, id.0);
                self.fasteners.remove(id).ok_or(gone(*id))?;
            }
            FastenerEdit::Split { id, new_id, count, holes, name } => {
                if self.fasteners.contains_key(new_id) {
                    return Err(Refusal::Exists { what: "group of screws", id: new_id.0 });
                }
                let whole = self.fasteners.get(id).ok_or(gone(*id))?;
                let part = FastenerGroup {
                    id: *new_id,
                    name: Some(text("name", name, LONGEST_TITLE)?),
                    count: None,
                    claims: Vec::new(),
                    refitted: None,
                    // Not known of which side; they stay with the group they were noted for.
                    empty_on_arrival: 0,
                    layer: None,
                    holes: Vec::new(),
                    tighten_told: Vec::new(),
                    loosen_told: Vec::new(),
                    ..whole.clone()
                };
                self.fasteners.insert(*new_id, part);
                self.shift(*id, *new_id, *count, holes, author, touched)?;
            }
            FastenerEdit::Several { edits } => {
                for edit in edits {
                    self.edit_fastener(edit, author, touched)?;
                }
            }
            FastenerEdit::Shift { from, to, count, holes } => {
                self.shift(*from, *to, *count, holes, author, touched)?;
            }
        }
        Ok(())
    }

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
        let (mut giver, mut taker) = match (self.fasteners.get(&from), self.fasteners.get(&to)) {
            (Some(giver), Some(taker)) => (giver.clone(), taker.clone()),
            (None, _) => return Err(gone(from)),
            _ => return Err(gone(to)),
        };
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
        for group in [giver, taker] {
            touched.add(Aspect::Fasteners, group.id.0);
            self.fasteners.insert(group.id, group);
        }
        Ok(())
    }
}

impl FastenerGroup {
    /// A person looked and says so.
    fn confirm(&mut self, count: u32, author: &str) {
        self.count = Some(count);
        let evidence = Some(Evidence::Author { name: author.to_owned() });
        self.claims.push(CountClaim { count, how: HowCounted::Confirmed, evidence });
    }

    fn set_torque(&mut self, newton_metres: Option<f64>) -> Result<(), Refusal> {
        let checked = newton_metres.map(|nm| within("torque_nm", nm, MOST_TORQUE_NM, "N·m")).transpose()?;
        self.torque = checked.map(|nm| self.check_torque(units::newton_metres(nm))).transpose()?;
        // Source and reason of another setting are none of this one.
        self.torque_from = None;
        self.torque_because = None;
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

fn gone(id: GroupId) -> Refusal {
    Refusal::Gone { what: "group of screws", id: id.0 }
}

fn set_field(group: &mut FastenerGroup, field: &FastenerField, author: &str) -> Result<(), Refusal> {
    match field {
        FastenerField::Op(op) => group.op = *op,
        FastenerField::Count(count) => {
            let count = count.map(|n| whole("count", n)).transpose()?;
            match count {
                Some(count) => group.confirm(count, author),
                None => group.count = None,
            }
        }
        FastenerField::Drive(drive) => group.drive = *drive,
        FastenerField::Bit(bit) => group.bit = bit.as_deref().map(|b| text("bit", b, LONGEST_TITLE)).transpose()?,
        FastenerField::LengthMm(length) => {
            group.length =
                length.map(|mm| within("length_mm", mm, LONGEST_SCREW, "mm")).transpose()?.map(units::millimetres);
        }
        FastenerField::TorqueNm(torque) => group.set_torque(*torque)?,
        FastenerField::Torque(text) => {
            let text = text.as_deref().filter(|t| !t.trim().is_empty());
            let parsed = text.map(units::parse_torque).transpose();
            let torque = parsed.map_err(|problem| Refusal::Invalid { field: "torque_nm", problem })?;
            group.set_torque(torque.map(units::in_newton_metres))?;
        }
        FastenerField::Captive(captive) => group.captive = *captive,
        FastenerField::Holds(parts) => group.holds = parts.clone(),
        FastenerField::Refitted(count) => {
            group.refitted = match count {
                Some(n) if *n > MOST => return Err(too_many("refitted", *n)),
                other => *other,
            };
        }
        FastenerField::Fate(fate) => group.fate = *fate,
        FastenerField::Note(value) => {
            group.note = value.as_deref().map(|n| note("note", n, LONGEST_TEXT)).transpose()?.filter(|n| !n.is_empty());
        }
        FastenerField::Variants(variants) => group.variants.clone_from(variants),
        FastenerField::Step(step) => group.step = *step,
        FastenerField::Name(name) => group.name = words("name", name)?,
        FastenerField::Thread(thread) => {
            let thread = thread.as_deref().filter(|t| !t.trim().is_empty());
            let parsed = thread.map(str::parse).transpose();
            group.thread = parsed.map_err(|problem| Refusal::Invalid { field: "thread", problem })?;
        }
        FastenerField::Forming(forming) => group.forming = *forming,
        FastenerField::Head(head) => group.head = *head,
        FastenerField::HeadMm(width) => {
            const WIDEST_MM: f64 = 60.0;
            group.head_width =
                width.map(|mm| within("head_mm", mm, WIDEST_MM, "mm")).transpose()?.map(units::millimetres);
        }
        FastenerField::Joint(joint) => group.joint = joint.checked()?,
        FastenerField::Stored(stored) => group.stored = *stored,
        FastenerField::Locking(locking) => group.locking = *locking,
        FastenerField::WaitsFor(part) => group.waits_for = *part,
        FastenerField::EmptyOnArrival(holes) => {
            group.empty_on_arrival =
                if *holes > MOST { return Err(too_many("empty_on_arrival", *holes)) } else { *holes };
        }
        FastenerField::TightenTold(order) => group.tighten_told = told_order(group, "tighten_told", order)?,
        FastenerField::LoosenTold(order) => group.loosen_told = told_order(group, "loosen_told", order)?,
        FastenerField::TwoPasses(twice) => group.two_passes = *twice,
        FastenerField::TorqueFrom(from) => group.torque_from = *from,
        FastenerField::TorqueBecause(reason) => group.torque_because = words("torque_because", reason)?,
    }
    Ok(())
}

fn words(field: &'static str, value: &Option<String>) -> Result<Option<String>, Refusal> {
    let value = value.as_deref().filter(|v| !v.trim().is_empty());
    value.map(|v| text(field, v, LONGEST_TITLE)).transpose()
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
    if count > MOST { Err(too_many(field, count)) } else { Ok(count) }
}

fn too_many(field: &'static str, count: u32) -> Refusal {
    Refusal::Invalid { field, problem: format!("{count} screws in one group cannot be meant; write at most {MOST}.") }
}

pub(super) fn within(field: &'static str, value: f64, most: f64, unit: &str) -> Result<f64, Refusal> {
    if value.is_finite() && value > 0.0 && value <= most {
        return Ok(value);
    }
    Err(Refusal::Invalid {
        field,
        problem: format!("{value} {unit} is out of range; write more than 0 and at most {most} {unit}."),
    })
}
