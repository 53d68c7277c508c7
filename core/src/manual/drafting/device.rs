//! What the narrator says of the device itself while drafting: where a part sits, what its label says, what is laid out,
//! how it arrived, what is promised. All of it is a draft that the author corrects.

use crate::ids::*;
use crate::manual::model::notes::{self, Note};
use crate::manual::{Evidence, LaidOut, Manual};
use crate::reading::{Drive, Mark, Statement, StatementKind};
use crate::units::{self, Measure, Quantity};

/// Said of the device, before all its parts are known.
#[derive(Default)]
pub(in crate::manual) struct DeviceTold {
    laid_out: Vec<(String, Evidence)>,
    notes: Vec<(crate::manual::NoteKind, String, Evidence)>,
    places: Vec<(String, Evidence)>,
    labels: Vec<(Vec<Measure>, bool, Evidence)>,
}

impl DeviceTold {
    pub fn listen(&mut self, statement: &Statement, evidence: &Evidence) {
        if statement.kind == StatementKind::Noise {
            return;
        }
        if statement.kind == StatementKind::Tool && !statement.marks.contains(&Mark::Rejected) {
            let facts = &statement.facts;
            let materials = facts.consumables.iter().map(|c| c.name().to_owned());
            self.laid_out.extend(
                facts.tools.iter().map(|t| Drive::tool_words(t)).chain(materials).map(|name| (name, evidence.clone())),
            );
        }
        if let Some(kind) = notes::heard(&statement.text) {
            self.notes.push((kind, statement.text.clone(), evidence.clone()));
        }
        if statement.kind == StatementKind::Observation && !statement.rebuild {
            self.places.push((statement.text.clone(), evidence.clone()));
        }
        let electric = |m: &&Measure| {
            matches!(m.quantity, Quantity::Voltage | Quantity::Capacity | Quantity::Energy) && m.to.is_none()
        };
        let label: Vec<Measure> = statement.facts.measures.iter().filter(electric).cloned().collect();
        if label.iter().any(|m| m.quantity != Quantity::Voltage) {
            let said = statement.text.to_lowercase();
            let new = ["replacement", "new ", "order "].iter().any(|w| said.contains(w));
            self.labels.push((label, new, evidence.clone()));
        }
    }

    pub fn settle(self, manual: &mut Manual, ids: &mut IdMaker) {
        for (name, evidence) in self.laid_out {
            if let Some(known) = manual.kit.values_mut().find(|t| t.name == name) {
                known.evidence.push(evidence);
                continue;
            }
            let id = ids.make(ToolId);
            manual.kit.insert(id, LaidOut { id, name, amount: None, evidence: vec![evidence] });
        }
        for (kind, text, evidence) in self.notes {
            let id = ids.make(NoteId);
            let text = crate::manual::model::parts::capitalised(text.trim());
            manual.notes.insert(id, Note { id, kind, text, job: None, done: false, evidence: vec![evidence] });
        }
        for (said, evidence) in self.places {
            put_in_place(manual, &said, evidence);
        }
        let mut sources = manual.parts.values().filter(|p| p.power_source).map(|p| p.id);
        // With two sources of power nobody can say whose label was read.
        if let (Some(source), None) = (sources.next(), sources.next()) {
            let part = manual.parts.get_mut(&source).expect("it was found there");
            for (label, new, evidence) in self.labels {
                write_label(part, &label, new);
                part.evidence.push(evidence);
            }
        }
    }
}

/// "The battery sits in the frame under the tray": where it sits, and inside what if that is a part.
fn put_in_place(manual: &mut Manual, said: &str, evidence: Evidence) {
    const SITS: [&str; 6] = [" sits ", " is located ", " is mounted ", " lies ", " is inside ", " lives "];
    let low = said.to_lowercase();
    // Lower-casing may change lengths outside ASCII; then the cut would fall elsewhere.
    if low.len() != said.len() {
        return;
    }
    let Some((at, verb)) = SITS.iter().find_map(|v| low.find(v).map(|at| (at, *v))) else { return };
    let subject = low[..at].trim_start_matches("and ").trim_start_matches("here ").trim_start_matches("the ").trim();
    let Some(part) = manual.parts.values().find(|p| p.name.eq_ignore_ascii_case(subject)).map(|p| p.id) else { return };
    let begin = at + if verb == " is inside " { " is ".len() } else { verb.len() };
    let place = said[begin..].split([',', '.', ';']).next().unwrap_or("").trim();
    const MAX_WORDS: usize = 9;
    if place.is_empty() || place.split(' ').count() > MAX_WORDS {
        return;
    }
    let within = ["in the ", "inside the ", "inside of the "]
        .iter()
        .find_map(|w| place.to_lowercase().strip_prefix(w).map(str::to_owned));
    let outer = within
        .and_then(|name| manual.parts.values().find(|p| p.name.eq_ignore_ascii_case(&name)).map(|p| p.id))
        .filter(|outer| manual.check_inside(part, *outer).is_ok());
    let place = place.to_owned();
    let part = manual.parts.get_mut(&part).expect("it was found there");
    if part.place.is_none() {
        (part.place, part.inside) = (Some(place), part.inside.or(outer));
        part.evidence.push(evidence);
    }
}

/// The first figure of a kind stands; a later one is a discrepancy that Listen shows.
fn write_label(part: &mut crate::manual::Part, label: &[Measure], new: bool) {
    let target = if new { &mut part.replacement.get_or_insert_default().label } else { &mut part.fitted };
    for m in label {
        match m.quantity {
            Quantity::Voltage => target.voltage = target.voltage.or(Some(units::volts(m.value))),
            Quantity::Capacity => target.capacity = target.capacity.or(Some(units::milliampere_hours(m.value))),
            Quantity::Energy => target.energy = target.energy.or(Some(units::watt_hours(m.value))),
            _ => {}
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::manual::drafted::manual as drafted;
    use crate::manual::{Manual, NoteKind, Part};

    fn part<'a>(manual: &'a Manual, name: &str) -> &'a Part {
        manual.parts.values().find(|p| p.name == name).unwrap()
    }

    const LAMP: &str = "[0:00] Tools required, a spudger and tweezers.\n\n\
        [0:05] Remove the cover. The battery sits in the tray under the board. Why, I'll show you later.\n\n\
        [0:20] The battery has 3.7 volts and 2600 milliamp hours. Remove the battery. Remove the tray.\n\n\
        [0:40] The new battery has 3.7 volts and 3000 milliamp hours.";

    #[test]
    fn the_label_of_the_old_and_the_new_one_are_kept_apart() {
        let manual = drafted(LAMP);
        let battery = part(&manual, "battery");
        let new = battery.replacement.as_ref().unwrap();
        assert_eq!((battery.fitted.computed_wh(), new.label.computed_wh()), (Some(9.62), Some(11.1)), "{battery:?}");
    }

    #[test]
    fn a_part_sits_where_it_was_said_to() {
        let manual = drafted(LAMP);
        assert_eq!(part(&manual, "battery").place.as_deref(), Some("in the tray under the board"));
        let inside = drafted("Remove the cover. The battery sits in the tray. Remove the battery. Remove the tray.");
        assert_eq!(part(&inside, "battery").inside, Some(part(&inside, "tray").id));
    }

    #[test]
    fn what_is_laid_out_and_promised_is_written_down() {
        let manual = drafted(LAMP);
        let kit: Vec<&str> = manual.kit.values().map(|t| t.name.as_str()).collect();
        assert_eq!((kit.contains(&"spudger"), kit.contains(&"tweezers"), kit.len()), (true, true, 2));
        assert_eq!(manual.notes_of(NoteKind::Promise).count(), 1);
    }
}
