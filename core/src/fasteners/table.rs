//! The ledger as a table (CSV), and a list of fasteners back as edits.
//!
//! Rows with an id change that group; rows without one add a group to the step of their number. Every cell that cannot be
//! taken is named with its row and column, and nothing is taken then.

use super::ledger::LedgerRow;
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{
    CellError, Cells, Edit, FastenerEdit, FastenerFate, FastenerField, FastenerGroup, HeadForm, Locking, Manual, Phase,
    RowError, Stored, Trial, finds_its_rows, numbered_step, read_rows, write_rows,
};
use crate::reading::Drive;
use crate::units::{in_millimetres, in_newton_metres, number, parse_torque};
use std::collections::HashMap;
use uuid::Uuid;

const COLUMNS: [&str; 19] = [
    "id",
    "tag",
    "step",
    "name",
    "holds",
    "count",
    "drive",
    "bit",
    "thread",
    "length_mm",
    "head",
    "for_plastic",
    "captive",
    "stored",
    "fate",
    "locking",
    "torque_nm",
    "empty_on_arrival",
    "note",
];

/// Names heard and written for a drive (common practice), for those who write lists. "Star" and "flat head" mean two
/// things and are asked for.
fn drive_named(name: &str) -> Result<Drive, String> {
    let name = name.trim().to_lowercase();
    if let Some(drive) = Drive::ALL.iter().copied().find(|d| d.name() == name || d.in_words().to_lowercase() == name) {
        return Ok(drive);
    }
    let known = match name.as_str() {
        "ph" | "philips" | "cross" | "cross-head" | "crosshead" | "crosspoint" | "cross recess" | "plus" | "+" => {
            Drive::Phillips
        }
        "pz" | "posidrive" | "posidriv" | "pozi" | "posi" | "supadriv" => Drive::Pozidriv,
        "japanese" | "japanese phillips" | "j" => Drive::Jis,
        "sl" | "slot" | "flat" | "straight" | "minus" | "blade" => Drive::Slotted,
        "t" | "tx" | "torks" | "torques" | "six-lobe" | "hexalobular" => Drive::Torx,
        "tr" | "th" | "t-h" | "security torx" | "torx with pin" | "torx security" => Drive::TorxPin,
        "ip" | "torx plus" | "6ip" => Drive::TorxPlus,
        "h" | "allen" | "alan key" | "inbus" | "imbus" | "hex key" | "hex socket" => Drive::Hex,
        "five-lobe" | "penta" | "5-star" | "pl" => Drive::Pentalobe,
        "three-lobe" | "tri point" | "y" | "y-tip" | "tri-tip" => Drive::TriPoint,
        "two-hole" | "snake-eye" | "snake eye" | "pig-nose" => Drive::Spanner,
        "sq" | "robertson" | "square drive" => Drive::Square,
        "triangular" | "ta" => Drive::Triangle,
        "star" | "flat head" => {
            return Err(format!("“{name}” means two drives. Write phillips or torx, slotted or a countersunk head."));
        }
        _ => {
            let all: Vec<&str> = Drive::ALL.iter().map(|d| d.name()).collect();
            return Err(format!("“{name}” is no drive. Write one of {}.", all.join(", ")));
        }
    };
    Ok(known)
}

/// The ledger as CSV (RFC 4180), one group a row.
pub fn to_csv(manual: &Manual, rows: &[LedgerRow]) -> String {
    let yes = |v: bool| if v { "yes" } else { "no" }.to_owned();
    let groups = rows.iter().filter_map(|r| Some((r, manual.fasteners.get(&r.group)?)));
    let cells = |(row, g): (&LedgerRow, &FastenerGroup)| {
        [
            g.id.to_string(),
            row.tag.letter.clone(),
            row.step_number.to_string(),
            g.name.clone().unwrap_or_default(),
            manual.words_of(g).holds(),
            g.count.map(|n| n.to_string()).unwrap_or_default(),
            g.drive.map(|d| d.name().to_owned()).unwrap_or_default(),
            g.bit.clone().unwrap_or_default(),
            g.thread.map(|t| t.to_string()).unwrap_or_default(),
            g.length.map(|l| number(in_millimetres(l))).unwrap_or_default(),
            g.head.map(|h| h.label().to_owned()).unwrap_or_default(),
            yes(g.forming),
            yes(g.captive),
            g.stored.map(|s| s.label().to_owned()).unwrap_or_default(),
            g.fate.label().to_owned(),
            g.locking.map(|l| l.label().to_owned()).unwrap_or_default(),
            g.torque.map(|t| number(in_newton_metres(t))).unwrap_or_default(),
            g.empty_on_arrival.to_string(),
            g.note.clone().unwrap_or_default(),
        ]
    };
    write_rows(COLUMNS, groups.map(cells))
}

/// What a table asks for.
///
/// # Errors
/// Every cell that cannot be taken, with its row and what would be right.
pub fn from_csv(manual: &Manual, table: &[u8]) -> Result<Vec<FastenerEdit>, Vec<RowError>> {
    let known = Known::of(manual);
    let mut trial = Trial::of(manual);
    read_rows(
        table,
        |has| finds_its_rows(&COLUMNS, has),
        |row, cell| {
            let found = changes(&known, row, cell)?;
            // What the manual would refuse is told at its row.
            let tried = found.iter().try_for_each(|edit| trial.accepts(&Edit::Fastener(edit.clone())));
            tried.map(|()| found).map_err(|refused| ("", refused.to_string()))
        },
    )
}

/// What the cells of a table are looked up in, made once for all of its rows.
struct Known<'a> {
    manual: &'a Manual,
    steps: Vec<StepId>,
    parts: HashMap<String, PartId>,
}

impl<'a> Known<'a> {
    fn of(manual: &'a Manual) -> Self {
        let steps = manual.steps_in(Phase::Teardown).iter().map(|s| s.id).collect();
        let parts = manual.parts.values().map(|p| (p.name.to_lowercase(), p.id)).collect();
        Self { manual, steps, parts }
    }
}

/// What one row changes.
fn changes<'a>(known: &Known<'_>, row: usize, cell: Cells<'_, 'a>) -> Result<Vec<FastenerEdit>, CellError> {
    let written = |name: &str| cell(name).filter(|c| !c.is_empty());
    let Known { manual, steps, .. } = known;
    let step = written("step").map(|text| numbered_step(steps, text)).transpose()?;
    let mut out = Vec::new();
    let (id, now) = match written("id") {
        Some(text) => {
            let there = text.parse().ok().map(GroupId).and_then(|id| manual.fasteners.get(&id));
            let group = there.ok_or_else(|| {
                ("id", format!("“{text}” is no group of this manual. Leave the id empty to add one."))
            })?;
            (group.id, group.clone())
        }
        None => {
            let step = step.ok_or_else(|| ("step", "A new group needs the number of its step.".to_owned()))?;
            let seed = format!("row/{row}/{}", COLUMNS.map(|c| cell(c).unwrap_or_default()).join("/"));
            let id = GroupId(Uuid::new_v5(&manual.id.0, seed.as_bytes()));
            if manual.fasteners.contains_key(&id) {
                return Err(("id", "This row was brought before. Write the id of its group to change it.".to_owned()));
            }
            out.push(FastenerEdit::Add { id, step });
            (id, FastenerGroup::new(id, step))
        }
    };
    let fields = fields(known, step, &now, cell)?;
    out.extend(fields.into_iter().map(|field| FastenerEdit::Set { id, field }));
    Ok(out)
}

/// What a row says against what is known of its group: only what differs becomes an edit, and a column that is not there
/// changes nothing.
struct Row<'a, 'c> {
    known: &'a Known<'a>,
    now: &'a FastenerGroup,
    cell: Cells<'a, 'c>,
    out: Vec<FastenerField>,
}

fn fields(
    known: &Known<'_>,
    step: Option<StepId>,
    now: &FastenerGroup,
    cell: Cells<'_, '_>,
) -> Result<Vec<FastenerField>, CellError> {
    let mut row = Row { known, now, cell, out: Vec::new() };
    if let Some(step) = step {
        row.put(step != now.step, FastenerField::Step(step));
    }
    row.what_it_holds()?;
    row.what_it_is()?;
    row.what_becomes_of_it()?;
    row.how_tight()?;
    Ok(row.out)
}

impl Row<'_, '_> {
    fn put(&mut self, differs: bool, field: FastenerField) {
        if differs {
            self.out.push(field);
        }
    }

    /// What a cell says, or that it is empty; `None` where there is no such column.
    fn text(&self, name: &str) -> Option<Option<String>> {
        (self.cell)(name).map(|c| Some(c.to_owned()).filter(|c| !c.is_empty()))
    }

    fn what_it_holds(&mut self) -> Result<(), CellError> {
        if let Some(name) = self.text("name") {
            self.put(name != self.now.name, FastenerField::Name(name));
        }
        if let Some(holds) = (self.cell)("holds") {
            let parts = holds.split('+').map(str::trim).filter(|p| !p.is_empty());
            let found: Vec<PartId> = parts.map(|name| self.part(name)).collect::<Result<_, _>>()?;
            self.put(found != self.now.holds, FastenerField::Holds(found));
        }
        if let Some(Some(count)) = self.text("count") {
            let count: u32 =
                count.parse().map_err(|_| ("count", format!("“{count}” is no count. Write a whole number.")))?;
            self.put(Some(count) != self.now.count, FastenerField::Count(Some(count)));
        }
        Ok(())
    }

    fn part(&self, name: &str) -> Result<PartId, CellError> {
        let part = self.known.parts.get(&name.to_lowercase());
        part.copied().ok_or_else(|| ("holds", format!("“{name}” is no part of this manual. Add it first.")))
    }

    fn what_it_is(&mut self) -> Result<(), CellError> {
        if let Some(drive) = self.text("drive") {
            let drive = drive.map(|d| drive_named(&d)).transpose().map_err(|p| ("drive", p))?;
            self.put(drive != self.now.drive, FastenerField::Drive(drive));
        }
        if let Some(bit) = self.text("bit") {
            self.put(bit != self.now.bit, FastenerField::Bit(bit));
        }
        if let Some(thread) = self.text("thread") {
            self.put(thread != self.now.thread.map(|t| t.to_string()), FastenerField::Thread(thread));
        }
        if let Some(length) = figure("length_mm", self.cell)? {
            self.put(length != self.now.length.map(in_millimetres), FastenerField::LengthMm(length));
        }
        if let Some(head) = labelled::<HeadForm>("head", self.cell)? {
            self.put(head != self.now.head, FastenerField::Head(head));
        }
        if let Some(forming) = yes_or_no("for_plastic", self.cell)? {
            self.put(forming != self.now.forming, FastenerField::Forming(forming));
        }
        if let Some(captive) = yes_or_no("captive", self.cell)? {
            self.put(captive != self.now.captive, FastenerField::Captive(captive));
        }
        Ok(())
    }

    fn what_becomes_of_it(&mut self) -> Result<(), CellError> {
        if let Some(stored) = labelled::<Stored>("stored", self.cell)? {
            self.put(stored != self.now.stored, FastenerField::Stored(stored));
        }
        if let Some(Some(fate)) = labelled::<FastenerFate>("fate", self.cell)? {
            self.put(fate != self.now.fate, FastenerField::Fate(fate));
        }
        if let Some(Some(empty)) = self.text("empty_on_arrival") {
            let empty = empty.parse().map_err(|_| ("empty_on_arrival", format!("“{empty}” is no whole number.")))?;
            self.put(empty != self.now.empty_on_arrival, FastenerField::EmptyOnArrival(empty));
        }
        if let Some(note) = self.text("note") {
            self.put(note != self.now.note, FastenerField::Note(note));
        }
        Ok(())
    }

    fn how_tight(&mut self) -> Result<(), CellError> {
        if let Some(locking) = labelled::<Locking>("locking", self.cell)? {
            self.put(locking != self.now.locking, FastenerField::Locking(locking));
        }
        if let Some(torque) = self.text("torque_nm") {
            let torque = torque.map(|t| parse_torque(&t)).transpose().map_err(|p| ("torque_nm", p))?;
            let nm = torque.map(in_newton_metres);
            self.put(nm != self.now.torque.map(in_newton_metres), FastenerField::TorqueNm(nm));
        }
        Ok(())
    }
}

fn figure<'a>(name: &'static str, cell: &dyn Fn(&str) -> Option<&'a str>) -> Result<Option<Option<f64>>, CellError> {
    let Some(text) = cell(name) else { return Ok(None) };
    if text.is_empty() {
        return Ok(Some(None));
    }
    let value = text.replace(',', ".").parse::<f64>();
    value
        .map(|v| Some(Some(v)))
        .map_err(|_| (name, format!("“{text}” is no figure. Write millimetres such as 6 or 4.5.")))
}

/// One of the labels of an enum, nothing, or no such column.
fn labelled<T: Label>(name: &'static str, cell: Cells<'_, '_>) -> Result<Option<Option<T>>, CellError> {
    let Some(text) = cell(name) else { return Ok(None) };
    if text.is_empty() {
        return Ok(Some(None));
    }
    let found = T::from_label(text);
    found.map(|v| Some(Some(v))).ok_or_else(|| (name, format!("“{text}” is none of {}.", T::choices())))
}

fn yes_or_no(name: &'static str, cell: Cells<'_, '_>) -> Result<Option<bool>, CellError> {
    match cell(name) {
        None | Some("") => Ok(None),
        Some(text) if text.eq_ignore_ascii_case("yes") => Ok(Some(true)),
        Some(text) if text.eq_ignore_ascii_case("no") => Ok(Some(false)),
        Some(text) => Err((name, format!("“{text}” is neither yes nor no."))),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fasteners::kinds::sort;
    use crate::fasteners::ledger::ledger;
    use crate::manual::written::{group, manual};
    use rstest::rstest;

    fn csv_of(m: &Manual) -> String {
        to_csv(m, &ledger(m, &sort(m)).rows)
    }

    fn brought(m: &Manual, table: &str) -> Manual {
        let edits = from_csv(m, table.as_bytes()).unwrap();
        m.apply(&Edit::Fastener(FastenerEdit::Several { edits }), "Ann").unwrap().0
    }

    const LID: &str = "1 lid: 4 PH0 8 mm, M2, countersunk, 0.1 N·m\n2 fan: 2 T6 4.5 mm, captive";

    #[test]
    fn a_table_that_comes_back_unchanged_changes_nothing() {
        let m = manual(LID);
        assert_eq!(from_csv(&m, csv_of(&m).as_bytes()).unwrap(), []);
    }

    #[test]
    fn a_list_of_fasteners_is_added_and_changed() {
        let m = manual(LID);
        let id = group(10);
        let table = format!(
            "\u{feff}id,step,count,drive,thread,length_mm,torque_nm,holds\n{id},1,5,pozi,M2.5,\"8,5\",2 lbf·in,lid + fan\n,2,3,Allen,,6,,fan\n"
        );
        let next = brought(&m, &table);
        let lid = &next.fasteners[&id];
        assert_eq!((lid.count, lid.drive, lid.holds.len()), (Some(5), Some(Drive::Pozidriv), 2));
        assert_eq!(lid.thread.unwrap().to_string(), "M2.5");
        assert_eq!(lid.torque.map(in_newton_metres), Some(0.226));
        let new = next.fasteners.values().find(|g| g.drive == Some(Drive::Hex)).unwrap();
        assert_eq!((new.count, new.length.map(in_millimetres)), (Some(3), Some(6.0)));
    }

    #[rstest]
    #[case("step,drive\n1,wobbly", 2, "drive", "“wobbly” is no drive. Write one of phillips, pozidriv,")]
    #[case("step,drive\n1,star", 2, "drive", "means two drives")]
    #[case("step,count\n1,4\n9,2", 3, "step", "There is no step 9; the teardown has steps 1 to 2.")]
    #[case("step,length_mm\n1,-4", 2, "", "-4 mm is out of range")]
    #[case("step,length_mm\n1,long", 2, "length_mm", "“long” is no figure")]
    #[case("step,count\n1,many", 2, "count", "Write a whole number")]
    #[case("step,head\n1,odd", 2, "head", "“odd” is none of pan, countersunk,")]
    #[case("step,holds\n1,wheel", 2, "holds", "“wheel” is no part")]
    #[case("step,torque_nm\n1,tight", 2, "torque_nm", "is no torque")]
    #[case("step,thread\n1,7/8", 2, "", "is no metric thread")]
    #[case("count\n4", 1, "step", "neither a column step nor id")]
    #[case("id,count\nabc,4", 2, "id", "is no group of this manual")]
    fn a_bad_cell_is_named(#[case] table: &str, #[case] row: usize, #[case] column: &str, #[case] says: &str) {
        let errors = from_csv(&manual(LID), table.as_bytes()).unwrap_err();
        let found = &errors[0];
        assert_eq!((found.row, found.column.as_str()), (row, column), "{errors:?}");
        assert!(found.problem.contains(says), "{errors:?}");
    }
}
