//! Power: what cuts it, what is done to live parts, what lets stored charge out.
//!
//! Checks, the order and the rebuild read it here, so that "off" means the same everywhere: switching off is not
//! unplugging, unplugging is not discharging, and a cover with "battery" in its name cuts nothing.
//!
//! Source: lock out before work, no hot plugging (common practice, no source).

use crate::ids::*;
use crate::manual::{Connector, Manual, Step};
use crate::reading::{Act, Direction};
use crate::things::{is_board, is_lithium};

/// How a step cuts the device off from a source.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Cut {
    Unplugged,
    /// The connector of a source.
    Disconnected,
    /// A cell or pack leaves.
    TakenOut,
}

/// How a step cuts the power, if it does.
pub fn cut(manual: &Manual, step: &Step) -> Option<Cut> {
    if unplugs(step) {
        return Some(Cut::Unplugged);
    }
    if manual.connectors_of(step.id).any(|c| c.power && !c.temporary) {
        return Some(Cut::Disconnected);
    }
    sources_out(manual, step).next().map(|_| Cut::TakenOut)
}

/// The sources that a step takes out of the device.
pub fn sources_out<'m>(manual: &'m Manual, step: &'m Step) -> impl Iterator<Item = PartId> + 'm {
    let out = step.actions.iter().filter(|a| a.act == Act::Remove).flat_map(|a| a.parts.iter().copied());
    out.filter(|p| manual.parts.get(p).is_some_and(|p| p.power_source))
}

/// Whether a step switches the device off.
pub fn switches_off(step: &Step) -> bool {
    does(step, Act::PowerOff)
}

/// Whether a step lets stored charge out.
pub fn discharges(step: &Step) -> bool {
    does(step, Act::Discharge)
}

/// Whether a step is only the time that what was cut needs to be safe, or the proof that it is.
pub fn only_waits(step: &Step) -> bool {
    !step.actions.is_empty() && step.actions.iter().all(|a| matches!(a.act, Act::Wait | Act::Measure))
}

/// Whether a step pulls the plug from the wall or a charger.
pub fn unplugs(step: &Step) -> bool {
    does(step, Act::Unplug)
}

fn does(step: &Step, act: Act) -> bool {
    step.actions.iter().any(|a| a.act == act)
}

/// What a step does that is safe only while the power is cut, in words; `None` where it does nothing of the kind.
pub fn live_work(manual: &Manual, step: &Step) -> Option<String> {
    let data = |c: &&Connector| !c.power && !c.temporary;
    if let Some(c) = manual.connectors_of(step.id).find(data) {
        let what =
            c.serves.map_or("a connector".to_owned(), |p| format!("the connector of the {}", manual.part_name(p)));
        return Some(what);
    }
    let held = manual.groups_of(step.id).flat_map(|g| &g.holds).copied().find(|p| is_live(manual.part_name(*p)));
    if let Some(part) = held {
        return Some(format!("the screws of the {}", manual.part_name(part)));
    }
    // A tool at a board or cell, whether the manual lists it as a part or only the sentence names it.
    let worked = step.actions.iter().filter(|a| a.act.direction() == Direction::Out && a.act != Act::Remove);
    let mut names = worked.flat_map(|a| {
        let parts = a.parts.iter().map(|p| manual.part_name(*p));
        parts.chain(a.roles.things.iter().map(String::as_str))
    });
    names.find(|n| is_live(n)).map(|name| format!("the {name}"))
}

fn is_live(name: &str) -> bool {
    is_board(name) || is_lithium(name)
}
