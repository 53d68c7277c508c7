//! The power along the steps: which sources are there, which of them are still on while a step is done, and what that step
//! touches.
//!
//! A device is live until *every* source is off: the lead from the wall, each pack or cell, a charge that is stored. Sources:
//! lock out before work, no hot plugging (common practice, no source).

use crate::ids::*;
use crate::manual::{Connector, Manual, Phase, Step};
use crate::power::{live_work, sources_out, unplugs};
use crate::reading::Act;
use crate::things::{Source, bare, feeds, holds_charge, same_cable, source};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Something that keeps the device live.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PowerSource {
    /// "battery", "mains lead", "stored charge".
    pub name: String,
    /// The part that it is, where it is one of the device.
    pub part: Option<PartId>,
    /// The step of the teardown that cuts it, from 0; `None`: none does.
    pub cut_at: Option<usize>,
    /// The step that connects it only to try, from 0; `None`: it is on from the beginning.
    pub made_at: Option<usize>,
}

impl PowerSource {
    fn of_device(name: String, part: Option<PartId>, cut_at: Option<usize>) -> Self {
        Self { name, part, cut_at, made_at: None }
    }

    /// Whether it is on when a step, from 0, begins or while it is done.
    fn is_on(&self, at: usize) -> bool {
        self.made_at.is_none_or(|made| made <= at) && self.cut_at.is_none_or(|cut| cut >= at)
    }

    /// Whether it is still on when a step is over.
    fn stays_on(&self, at: usize) -> bool {
        self.is_on(at) && self.cut_at.is_none_or(|cut| cut > at)
    }
}

/// One step on the line of the power.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PowerRow {
    pub step: StepId,
    /// Of the teardown, from 1.
    pub number: usize,
    pub title: String,
    /// Sources, by their place in the list, that are on while the step is done.
    pub on: Vec<usize>,
    /// Sources that it cuts.
    pub cuts: Vec<usize>,
    /// What it does that is safe only while nothing is on.
    pub touches: Option<String>,
    /// It does that, and something is on.
    pub live: bool,
}

/// The sources with the line of the power along the teardown.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PowerLine {
    pub sources: Vec<PowerSource>,
    pub rows: Vec<PowerRow>,
    /// The first step, from 1, at which nothing is on; `None`: never, or nobody knows of a source.
    pub dead_from: Option<usize>,
}

/// Follows the power through the teardown. O(steps × sources).
pub fn line(manual: &Manual) -> PowerLine {
    let steps = manual.steps_in(Phase::Teardown);
    let sources = sources(manual, &steps);
    let rows = steps.iter().enumerate().map(|(at, step)| {
        let which = |test: &dyn Fn(&PowerSource) -> bool| {
            sources.iter().enumerate().filter(|(_, s)| test(s)).map(|(n, _)| n).collect::<Vec<_>>()
        };
        let touches = live_work(manual, step);
        PowerRow {
            step: step.id,
            number: at + 1,
            title: step.title.clone(),
            on: which(&|s| s.is_on(at)),
            cuts: which(&|s| s.cut_at == Some(at)),
            // What a step cuts itself is off before its other work begins.
            live: touches.is_some() && sources.iter().any(|s| s.stays_on(at)),
            touches,
        }
    });
    let rows: Vec<PowerRow> = rows.collect();
    // What is connected only to try lights up a device that was dead before.
    let own = |r: &PowerRow| r.on.iter().all(|n| sources[*n].made_at.is_some());
    let has_own = sources.iter().any(|s| s.made_at.is_none());
    let dead_from = rows.iter().find(|r| has_own && own(r)).map(|r| r.number);
    PowerLine { rows, dead_from, sources }
}

/// The sources in the order in which they are cut, those that nothing cuts last.
fn sources(manual: &Manual, steps: &[&Step]) -> Vec<PowerSource> {
    let mut out = packs(manual, steps);
    out.extend(mains(manual, steps));
    out.extend(stored(manual, steps));
    out.extend(tried(manual, steps));
    out.sort_by_key(|s| s.cut_at.unwrap_or(usize::MAX));
    out
}

/// Cells and packs of the device; each is cut where its connector is undone, or where it leaves.
fn packs(manual: &Manual, steps: &[&Step]) -> Vec<PowerSource> {
    let parts: Vec<_> = manual.parts.values().filter(|p| p.power_source).collect();
    let pack = |name: &str| source(name) != Some(Source::Mains);
    let mut out: Vec<PowerSource> = parts
        .iter()
        .filter(|p| pack(&p.name))
        .map(|part| PowerSource::of_device(part.name.clone(), Some(part.id), None))
        .collect();
    for (at, step) in steps.iter().enumerate() {
        for connector in manual.connectors_of(step.id).filter(|c| c.power && !c.temporary) {
            let name = connector.serves.map_or("power", |p| manual.part_name(p));
            if source(name) == Some(Source::Mains) {
                continue;
            }
            match fed_by(&mut out, connector, name) {
                Some(known) => known.cut_at = known.cut_at.or(Some(at)),
                None => out.push(PowerSource::of_device(name.to_owned(), None, Some(at))),
            }
        }
        for part in sources_out(manual, step) {
            if let Some(known) = out.iter_mut().find(|s| s.part == Some(part)) {
                known.cut_at = known.cut_at.or(Some(at));
            }
        }
    }
    out
}

/// The source whose connector this is: by its part, by the name of its cable, or because it is the only one.
fn fed_by<'s>(sources: &'s mut [PowerSource], connector: &Connector, name: &str) -> Option<&'s mut PowerSource> {
    let same = |s: &PowerSource| {
        s.part == connector.serves && s.part.is_some() || same_cable(&s.name, name) || bare(&s.name) == bare(name)
    };
    if let Some(at) = sources.iter().position(same) {
        return sources.get_mut(at);
    }
    // "The power connector" of a device with one pack is that pack's.
    let [only] = sources else { return None };
    (feeds(name) && source(name).is_none()).then_some(only)
}

/// The lead from the wall, where somebody unplugs it or the device has one.
fn mains(manual: &Manual, steps: &[&Step]) -> Option<PowerSource> {
    let cut_at = steps.iter().position(|s| unplugs(s));
    let lead = manual.parts.values().find(|p| p.power_source && source(&p.name) == Some(Source::Mains));
    let there = cut_at.is_some() || lead.is_some();
    let name = lead.map_or_else(|| "mains lead".to_owned(), |p| p.name.clone());
    there.then(|| PowerSource::of_device(name, lead.map(|p| p.id), cut_at))
}

/// A charge that stays after everything is unplugged, where somebody lets it out, waits for it or measures it.
fn stored(manual: &Manual, steps: &[&Step]) -> Option<PowerSource> {
    let held = |s: &Step| {
        let names = |a: &crate::manual::Action| {
            a.parts.iter().any(|p| holds_charge(manual.part_name(*p))) || a.roles.things.iter().any(|t| holds_charge(t))
        };
        s.actions.iter().any(|a| a.act == Act::Discharge || matches!(a.act, Act::Wait | Act::Measure) && names(a))
    };
    let cut_at = steps.iter().rposition(|s| held(s))?;
    Some(PowerSource::of_device("stored charge".to_owned(), None, Some(cut_at)))
}

/// Sources that are connected for a while, only to position or to try something; each from where it is made to where it is
/// undone again.
fn tried(manual: &Manual, steps: &[&Step]) -> Vec<PowerSource> {
    let at = |id: StepId| steps.iter().position(|s| s.id == id);
    let sources = manual.connectors.values().filter(|c| c.power && c.temporary);
    let source = |c: &Connector| {
        let made = at(c.step)?;
        let undone = c.until.and_then(at).filter(|until| *until >= made).unwrap_or(made);
        let name = format!("{}, to try", c.serves.map_or("power", |p| manual.part_name(p)));
        Some(PowerSource { name, part: c.serves, cut_at: Some(undone), made_at: Some(made) })
    };
    sources.filter_map(source).collect()
}

impl PowerLine {
    /// Steps that work at something live, with the sources that are still on.
    pub fn live(&self) -> impl Iterator<Item = (&PowerRow, Vec<&PowerSource>)> {
        self.rows.iter().filter(|row| row.live).map(|row| {
            let on = row.on.iter().filter(|n| !row.cuts.contains(n)).map(|n| &self.sources[*n]);
            (row, on.collect())
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{ConnectorEdit, ConnectorField, Edit, PartEdit, PartField, drafted};
    use proptest::prelude::*;

    fn told(steps: &[&str]) -> PowerLine {
        line(&drafted::manual(&format!("[0:00] {}", steps.join(" "))))
    }

    const FAN: &str = "Disconnect the fan cable. Take out the fan.";
    const BATTERY: &str = "Disconnect the battery cable. Take out the battery.";
    const COIN: &str = "Take out the coin cell.";
    const WALL: &str = "Unplug the power cord from the wall socket.";
    const COVER: &str = "Take off the cover.";

    fn on_at_fan(line: &PowerLine) -> Vec<String> {
        let row = line.live().find(|(row, _)| row.touches.as_deref().is_some_and(|t| t.contains("fan")));
        row.map_or(Vec::new(), |(_, on)| on.iter().map(|s| s.name.clone()).collect())
    }

    #[test]
    fn one_source_cut_is_not_all_of_them() {
        let line = told(&[WALL, COVER, FAN, BATTERY]);
        let cut: Vec<(&str, Option<usize>)> = line.sources.iter().map(|s| (s.name.as_str(), s.cut_at)).collect();
        assert_eq!(cut, [("mains lead", Some(0)), ("battery", Some(3))]);
        assert_eq!((on_at_fan(&line), line.dead_from), (vec!["battery".to_owned()], None));
        assert_eq!(told(&[WALL, COVER, BATTERY, FAN]).dead_from, Some(4));
        assert!(on_at_fan(&told(&[WALL, COVER, BATTERY, FAN])).is_empty());
    }

    #[test]
    fn what_is_connected_to_try_is_on_until_it_is_undone() {
        let mut manual =
            drafted::manual(&format!("[0:00] {COVER} {BATTERY} Take out the tray. {FAN} Take out the filter."));
        let steps: Vec<StepId> = manual.steps_in(Phase::Teardown).iter().map(|s| s.id).collect();
        let id = ConnectorId(uuid::Uuid::from_u128(1));
        let battery = manual.parts.values().find(|p| p.name == "battery").map(|p| p.id);
        let set = |field| ConnectorEdit::Set { id, field };
        let edits = [
            ConnectorEdit::Add { id, step: steps[2] },
            set(ConnectorField::Serves(battery)),
            set(ConnectorField::Power(true)),
            set(ConnectorField::Temporary(true)),
        ];
        for edit in edits {
            manual = manual.apply(&Edit::Connector(edit), "Ann").unwrap().0;
        }
        // Undone in its own step, it is off when the fan is worked at.
        assert_eq!((on_at_fan(&line(&manual)), line(&manual).dead_from), (vec![], Some(3)));
        manual = manual.apply(&Edit::Connector(set(ConnectorField::Until(Some(steps[4])))), "Ann").unwrap().0;
        assert_eq!(on_at_fan(&line(&manual)), ["battery, to try"]);
        manual = manual.apply(&Edit::Step(crate::manual::StepEdit::Remove { id: steps[4] }), "Ann").unwrap().0;
        assert_eq!(on_at_fan(&line(&manual)), [""; 0], "its end is gone with the step");
    }

    #[test]
    fn without_a_source_nothing_is_live() {
        let line = told(&[COVER, FAN]);
        assert!(line.sources.is_empty() && line.live().next().is_none(), "{:?}", line.sources);
    }

    #[test]
    fn a_source_that_nothing_cuts_stays_on() {
        let mut manual = drafted::manual(&format!("[0:00] {COVER} {FAN}"));
        let id = PartId(uuid::Uuid::from_u128(1));
        let field = PartField::PowerSource(true);
        for edit in [PartEdit::Add { id, name: "battery".to_owned() }, PartEdit::Set { id, field }] {
            manual = manual.apply(&Edit::Part(edit), "Ann").unwrap().0;
        }
        let line = line(&manual);
        assert_eq!(on_at_fan(&line), ["battery"]);
        assert!(line.rows.iter().all(|r| r.on == [0] && r.cuts.is_empty()), "{:?}", line.rows);
        assert_eq!(line.dead_from, None);
    }

    /// The same answer by hand: a source is on at a step where no step up to it cut that source.
    fn by_hand(order: &[usize]) -> Vec<&'static str> {
        let at = |n: usize| order.iter().position(|o| *o == n);
        let fan = at(3).expect("the fan is always there");
        [(0, "mains lead"), (1, "battery"), (2, "coin cell")]
            .into_iter()
            .filter(|(n, _)| at(*n).is_some_and(|cut| cut > fan))
            .map(|(_, name)| name)
            .collect()
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(48))]
        #[test]
        fn any_sources_in_any_order(mut order in Just(vec![0, 1, 2, 3]).prop_shuffle(), left in proptest::bits::u8::between(0, 3)) {
            order.retain(|n| *n == 3 || left & (1 << n) != 0);
            let steps = [WALL, BATTERY, COIN, FAN];
            let told_in_order: Vec<&str> = std::iter::once(COVER).chain(order.iter().map(|n| steps[*n])).collect();
            let mut found = on_at_fan(&told(&told_in_order));
            let mut expected = by_hand(&order);
            found.sort();
            expected.sort_unstable();
            prop_assert_eq!(found, expected, "{:?}", told_in_order);
        }
    }
}
