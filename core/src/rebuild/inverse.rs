//! What undoes an act, and the rebuild step that undoes a teardown step.

use super::RebuildLine;
use super::back::{self, goes_back, name_going_back};
use super::exceptions::Moved;
use crate::cables::kinds::makes;
use crate::fasteners::setting::setting;
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{Action, FastenerFate, FastenerGroup, Manual, Phase, Roles, Step};
use crate::reading::{Act, FastenerOp, Instruction, ScrewGroup, list};
use crate::things::{Peeled, peeled};
use crate::units::{Measure, Quantity};

/// What a line of the reverse does; it is left out where the narrator tells the same.
#[derive(Debug, Clone, PartialEq)]
pub(super) enum About {
    /// An act of the teardown on these parts, undone.
    Parts(Act, Vec<PartId>),
    Group(GroupId),
    Connector(ConnectorId),
    Plug,
    SwitchOn,
    /// What closes a joint without screws, before or after the part that it holds.
    Bond {
        part: Option<PartId>,
        before: bool,
    },
    /// An act on something that is no part of the manual, by its name.
    Thing(Act, String),
}

/// One line of the reverse.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Undo {
    pub about: About,
    pub line: RebuildLine,
}

/// A teardown step turned round, before anything told is looked at.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Reversed {
    pub of: StepId,
    /// Its number in the teardown, from 1.
    pub of_number: usize,
    pub title: String,
    pub undos: Vec<Undo>,
    pub groups: Vec<GroupId>,
    pub connectors: Vec<ConnectorId>,
    pub moved: Option<Moved>,
}

/// The act that undoes an act; `None` where nothing does.
///
/// Source: reverse verbs and non-invertible items of the trade (common practice, no source).
pub fn inverse(act: Act) -> Option<Act> {
    match act {
        Act::Remove => Some(Act::Install),
        Act::Unscrew => Some(Act::Drive),
        Act::Loosen => Some(Act::Tighten),
        Act::Disconnect => Some(Act::Connect),
        Act::Desolder => Some(Act::Solder),
        Act::Pry | Act::Release | Act::Open => Some(Act::Close),
        Act::Peel => Some(Act::Apply),
        Act::PowerOff => Some(Act::PowerOn),
        Act::Unplug => Some(Act::Connect),
        Act::Install => Some(Act::Remove),
        Act::Connect => Some(Act::Disconnect),
        Act::Drive => Some(Act::Unscrew),
        Act::Tighten => Some(Act::Loosen),
        Act::Close => Some(Act::Open),
        Act::Apply => Some(Act::Peel),
        Act::Solder => Some(Act::Desolder),
        Act::PowerOn => Some(Act::PowerOff),
        Act::Route => Some(Act::Route),
        Act::Place => Some(Act::Place),
        // Heat, cleaning, marks, waiting and holding leave nothing to undo; a part moved over stays where it is. What was
        // discharged charges by itself, what was cut or drained takes new things ([`back`]).
        Act::Heat
        | Act::Clean
        | Act::Transfer
        | Act::Test
        | Act::Measure
        | Act::Mark
        | Act::Hold
        | Act::Wait
        | Act::Discharge
        | Act::Drain
        | Act::Cut
        | Act::Press
        | Act::Adjust
        | Act::Protect
        | Act::Turn => None,
    }
}

/// A teardown step turned round, act by act from the last to the first: the fan and its screws before the bracket over it.
pub(super) fn fold_step(manual: &Manual, step: &Step, number: usize) -> Reversed {
    let connectors: Vec<ConnectorId> = manual.connectors_of(step.id).filter(|c| !c.temporary).map(|c| c.id).collect();
    let later = |g: &&FastenerGroup| waits_until(manual, g).is_none_or(|s| s == step.id);
    let waits = |g: &&FastenerGroup| g.step != step.id && waits_until(manual, g) == Some(step.id);
    let own: Vec<GroupId> = manual.groups_of(step.id).filter(later).map(|g| g.id).collect();
    let waiting: Vec<GroupId> = manual.fasteners.values().filter(waits).map(|g| g.id).collect();
    let mut rest = Rest {
        manual,
        groups: own.clone(),
        connectors: connectors.iter().copied().filter(|c| !manual.connectors[c].power).collect(),
    };
    let mut undos: Vec<Undo> = Vec::new();
    for action in step.actions.iter().rev() {
        undos.extend(rest.told_by(action));
        if !lifted_too(step, action) {
            undos.extend(back::undo(manual, action.act, &action.parts));
        }
        undos.extend(back::undo_things(manual, step, action));
    }
    super::bond::close(manual, step, &mut undos);
    undos.extend(rest.untold());
    let waiting_lines = waiting.iter().filter_map(|id| screws_back(manual, *id, None).map(|l| (*id, l)));
    undos.extend(waiting_lines.map(|(id, line)| Undo { about: About::Group(id), line }));
    behind_their_parts(manual, &mut undos);
    // Two cables without a name are two.
    undos.dedup_by(|a, b| a.line.text == b.line.text && !matches!(a.about, About::Connector(_)));
    let groups = own.into_iter().chain(waiting).collect();
    Reversed {
        of: step.id,
        of_number: number,
        title: title(manual, step, &undos),
        undos,
        groups,
        connectors,
        moved: None,
    }
}

/// Whether another act of the step takes the same parts away: who fits a lid need not be told to close it.
fn lifted_too(step: &Step, action: &Action) -> bool {
    let by = match action.act {
        Act::Pry | Act::Open => Act::Remove,
        // What was glued has no catch to press in.
        Act::Release => Act::Peel,
        _ => return false,
    };
    let lifts = |p: &PartId| step.actions.iter().any(|a| a.act == by && a.parts.contains(p));
    !action.parts.is_empty() && action.parts.iter().all(lifts)
}

/// What a step holds of screws and connectors that no line has brought back yet.
struct Rest<'m> {
    manual: &'m Manual,
    groups: Vec<GroupId>,
    connectors: Vec<ConnectorId>,
}

impl Rest<'_> {
    /// What a sentence of the teardown tells of, the last of it first.
    fn told_by(&mut self, action: &Action) -> Vec<Undo> {
        let names: Vec<&str> = self.manual.named(action).collect();
        let (told, rest): (Vec<GroupId>, Vec<GroupId>) =
            self.groups.iter().partition(|g| action.roles.groups.contains(g));
        self.groups = rest;
        let manual = self.manual;
        let opens = |c: &&ConnectorId| action.act == Act::Disconnect && manual.connectors[c].is_named(manual, &names);
        let here: Vec<ConnectorId> = self.connectors.iter().filter(opens).copied().collect();
        self.connectors.retain(|c| !here.contains(c));
        let screws = told.into_iter().rev().filter_map(|id| self.driven(id));
        screws.chain(here.into_iter().rev().map(|id| self.connected(id))).collect()
    }

    /// What no sentence tells of.
    fn untold(self) -> Vec<Undo> {
        let plugs = self.connectors.iter().map(|id| self.connected(*id));
        plugs.chain(self.groups.iter().filter_map(|id| self.driven(*id))).collect()
    }

    fn driven(&self, id: GroupId) -> Option<Undo> {
        screws_back(self.manual, id, None).map(|line| Undo { about: About::Group(id), line })
    }

    fn connected(&self, id: ConnectorId) -> Undo {
        let connector = &self.manual.connectors[&id];
        let what = connector.serves.map_or("cable", |p| self.manual.part_name(p));
        let how = makes(connector).map_or(String::new(), |how| format!(": {how}"));
        let parts = connector.serves.into_iter().collect();
        let line = RebuildLine { parts, ..RebuildLine::new(Act::Connect, format!("Connect the {what}{how}.")) };
        Undo { about: About::Connector(id), line }
    }
}

/// Screws go in behind the parts that they hold, however the narrator told it.
fn behind_their_parts(manual: &Manual, undos: &mut [Undo]) {
    for at in (0..undos.len()).rev() {
        let About::Group(id) = &undos[at].about else { continue };
        let holds = &manual.fasteners[id].holds;
        let fits = |u: &Undo| matches!(&u.about, About::Parts(_, parts) if parts.iter().any(|p| holds.contains(p)));
        if let Some(last) = undos.iter().rposition(fits).filter(|last| *last > at) {
            undos[at..=last].rotate_left(1);
        }
    }
}

/// The teardown step whose undoing brings back the part that a group waits for, where that comes later than its own.
///
/// A screw of two parts needs no such rule: it came out before both, so it goes in after both.
pub fn waits_until(manual: &Manual, group: &FastenerGroup) -> Option<StepId> {
    let part = group.waits_for?;
    let steps = manual.steps_in(Phase::Teardown);
    let at = steps.iter().position(|s| {
        s.actions.iter().any(|a| a.act.direction() == crate::reading::Direction::Out && a.parts.contains(&part))
    })?;
    let own = steps.iter().position(|s| s.id == group.step)?;
    (at < own).then(|| steps[at].id)
}

/// The power connectors of a teardown step alone.
pub(super) fn power_step(manual: &Manual, step: &Step, number: usize, connectors: Vec<ConnectorId>) -> Reversed {
    let what = |id: &ConnectorId| manual.connectors[id].serves.map_or("power source", |p| manual.part_name(p));
    let undo = |id: &ConnectorId| {
        let line = RebuildLine {
            because: Some("No hot plugging (common practice).".to_owned()),
            ..RebuildLine::new(Act::Connect, format!("Connect the {}, last of all connectors.", what(id)))
        };
        Undo { about: About::Connector(*id), line }
    };
    Reversed {
        of: step.id,
        of_number: number,
        title: format!("Connect the {}", connectors.first().map_or("power source", what)),
        undos: connectors.iter().map(undo).collect(),
        groups: Vec::new(),
        connectors,
        moved: None,
    }
}

/// Plugged in and switched on, where power was cut; `None` where nothing was off.
pub(super) fn power_back(steps: &[&Step]) -> Option<Reversed> {
    let cuts = |act: Act| steps.iter().position(|s| s.actions.iter().any(|a| a.act == act));
    let (unplugged, off) = (cuts(Act::Unplug), cuts(Act::PowerOff));
    let at = [unplugged, off].into_iter().flatten().min()?;
    let undo = |about: About, act: Act, text: &str| Undo { about, line: RebuildLine::new(act, text.to_owned()) };
    let plug = unplugged.map(|_| undo(About::Plug, Act::Connect, "Plug the device in again."));
    let on = undo(About::SwitchOn, Act::PowerOn, "Switch on and test.");
    Some(Reversed {
        of: steps[at].id,
        of_number: at + 1,
        title: if plug.is_some() { "Plug in and test".to_owned() } else { "Switch on and test".to_owned() },
        undos: plug.into_iter().chain([on]).collect(),
        groups: Vec::new(),
        connectors: Vec::new(),
        moved: None,
    })
}

/// The line that brings screws back, with where and how it is told; `None` where they stay out.
pub(super) fn screws_back(manual: &Manual, id: GroupId, told: Option<&Action>) -> Option<RebuildLine> {
    let group = &manual.fasteners[&id];
    if group.fate == FastenerFate::LeaveOut {
        return None;
    }
    let stayed = matches!(group.op, FastenerOp::Loosen) || group.captive;
    let act = if stayed { Act::Tighten } else { Act::Drive };
    let tight = setting(group);
    let torque =
        tight.in_force_nm.map(|nm| Measure { quantity: Quantity::Torque, value: nm, to: None, unit: String::new() });
    let size = ScrewGroup {
        count: group.refitted.or(group.count),
        drive: group.drive,
        bit: group.bit.clone(),
        length_mm: group.length.map(crate::units::in_millimetres),
    };
    let none = Roles::default();
    let roles = told.map_or(&none, |a| &a.roles);
    let said = Instruction {
        act,
        things: group.holds.first().map(|p| manual.part_name(*p)).into_iter().collect(),
        screws: vec![size],
        by: roles.by.as_deref(),
        places: &roles.places,
        manner: &roles.manner,
        condition: None,
        until: roles.until.as_deref(),
        measures: torque.as_slice(),
    };
    let text = said.sentence();
    let mut more: Vec<String> = Vec::new();
    more.extend((group.fate == FastenerFate::Renew).then(|| "new ones, the old ones stay out".to_owned()));
    more.extend(group.locking.map(|l| format!("with {}", l.label())));
    more.extend(tight.in_force_nm.and_then(|nm| manual.head.torque_again(nm)));
    more.extend(tight.from);
    let text = if more.is_empty() { text } else { format!("{} ({}).", text.trim_end_matches('.'), more.join("; ")) };
    // Where the part never left, there is nothing to wait for.
    let because = waits_until(manual, group)
        .and(group.waits_for)
        .map(|p| format!("These wait until the {} is back.", manual.part_name(p)));
    Some(RebuildLine { because, told: told.map(|a| a.id), ..RebuildLine::new(act, text) })
}

fn title(manual: &Manual, step: &Step, undos: &[Undo]) -> String {
    let out = step.actions.iter().filter(|a| a.act.direction() == crate::reading::Direction::Out);
    let mut parts: Vec<String> = Vec::new();
    let peels = |act: Act, name: &str| act == Act::Peel && peeled(name) == Peeled::Film;
    let going = out.flat_map(|a| a.parts.iter().map(|p| (a.act, p))).filter(|(_, p)| goes_back(manual, **p));
    for (act, part) in going {
        let name = name_going_back(manual, *part);
        // A film has served: no line brings it back.
        if peels(act, &name) {
            continue;
        }
        if !parts.contains(&name) {
            parts.push(name);
        }
    }
    match parts.as_slice() {
        // How it is done stands in the line.
        [] => undos.first().map_or_else(
            || step.title.clone(),
            |u| u.line.text.split(':').next().unwrap_or_default().trim_end_matches('.').to_owned(),
        ),
        parts => format!("Fit the {}", list(&parts.iter().map(String::as_str).collect::<Vec<_>>())),
    }
}
