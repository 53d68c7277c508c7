//! The connectors as a table (CSV), and a list of connectors back as edits, by the rules of the ledger of screws: rows with
//! an id change that connector, rows without one add one to the step of their number.

use crate::ids::*;
use crate::labels::Label;
use crate::manual::{
    CellError, Cells, Connector, ConnectorEdit, ConnectorField, ConnectorKind, Edit, Manual, Phase, RowError, Trial,
    WireEnd, finds_its_rows, numbered_step, read_rows, write_rows,
};
use crate::units::number;
use std::collections::HashMap;
use uuid::Uuid;

const COLUMNS: [&str; 15] = [
    "id",
    "step",
    "serves",
    "kind",
    "on",
    "place",
    "power",
    "temporary",
    "opens",
    "makes",
    "route",
    "slack_mm",
    "bend_mm",
    "wires",
    "note",
];

/// All connectors as CSV (RFC 4180), in the order of the steps.
pub fn to_csv(manual: &Manual) -> String {
    let steps = manual.steps_in(Phase::Teardown);
    let named = |p: Option<PartId>| p.map_or(String::new(), |p| manual.part_name(p).to_owned());
    let yes = |v: bool| if v { "yes" } else { "no" }.to_owned();
    let cells = |(n, c): (usize, &Connector)| {
        [
            c.id.to_string(),
            (n + 1).to_string(),
            named(c.serves),
            c.kind.map_or(String::new(), |k| k.label().to_owned()),
            named(c.on),
            c.place.clone().unwrap_or_default(),
            yes(c.power),
            yes(c.temporary),
            c.opens.clone().unwrap_or_default(),
            c.makes.clone().unwrap_or_default(),
            c.passes().collect::<Vec<_>>().join("; "),
            c.slack_mm.map_or(String::new(), number),
            c.bend_mm.map_or(String::new(), number),
            WireEnd::words(&c.wires),
            c.note.clone().unwrap_or_default(),
        ]
    };
    let rows = steps.iter().enumerate().flat_map(|(n, s)| manual.connectors_of(s.id).map(move |c| (n, c)));
    write_rows(COLUMNS, rows.map(cells))
}

/// What a table asks for.
///
/// # Errors
/// Every cell that cannot be taken, with its row and what would be right.
pub fn from_csv(manual: &Manual, table: &[u8]) -> Result<Vec<ConnectorEdit>, Vec<RowError>> {
    let known = Known::of(manual);
    let mut trial = Trial::of(manual);
    read_rows(
        table,
        |has| finds_its_rows(&COLUMNS, has),
        |row, cell| {
            let found = known.changes(row, cell)?;
            let tried = found.iter().try_for_each(|edit| trial.accepts(&Edit::Connector(edit.clone())));
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

    fn changes(&self, row: usize, cell: Cells<'_, '_>) -> Result<Vec<ConnectorEdit>, CellError> {
        let written = |name: &str| cell(name).filter(|c| !c.is_empty());
        let step = written("step").map(|text| numbered_step(&self.steps, text)).transpose()?;
        let mut out = Vec::new();
        let now = match written("id") {
            Some(text) => {
                let there = text.parse().ok().map(ConnectorId).and_then(|id| self.manual.connectors.get(&id));
                let says = || format!("“{text}” is no connector of this manual. Leave the id empty to add one.");
                there.ok_or_else(|| ("id", says()))?.clone()
            }
            None => {
                let step = step.ok_or_else(|| ("step", "A new connector needs the number of its step.".to_owned()))?;
                let seed = format!("connector/{row}/{}", COLUMNS.map(|c| cell(c).unwrap_or_default()).join("/"));
                let id = ConnectorId(Uuid::new_v5(&self.manual.id.0, seed.as_bytes()));
                if self.manual.connectors.contains_key(&id) {
                    return Err(("id", "This row was brought before. Write its id to change it.".to_owned()));
                }
                out.push(ConnectorEdit::Add { id, step });
                Connector::new(id, step, Vec::new())
            }
        };
        let fields = self.fields(step, &now, cell)?;
        out.extend(fields.into_iter().map(|field| ConnectorEdit::Set { id: now.id, field }));
        Ok(out)
    }

    fn part(&self, column: &'static str, text: &str) -> Result<Option<PartId>, CellError> {
        if text.is_empty() {
            return Ok(None);
        }
        let says = || format!("“{text}” is no part of this manual. Add it at Steps, or leave the cell empty.");
        self.parts.get(&text.to_lowercase()).copied().map(Some).ok_or_else(|| (column, says()))
    }

    /// Only what differs becomes an edit; a column that is not there changes nothing.
    fn fields(
        &self,
        step: Option<StepId>,
        now: &Connector,
        cell: Cells<'_, '_>,
    ) -> Result<Vec<ConnectorField>, CellError> {
        let mut out = Vec::new();
        let mut put = |differs: bool, field: ConnectorField| out.extend(differs.then_some(field));
        let text = |name: &str| cell(name).map(|t| Some(t.to_owned()).filter(|t| !t.is_empty()));
        if let Some(step) = step {
            put(step != now.step, ConnectorField::Step(step));
        }
        if let Some(name) = cell("serves") {
            let part = self.part("serves", name)?;
            put(part != now.serves, ConnectorField::Serves(part));
        }
        if let Some(name) = cell("on") {
            let part = self.part("on", name)?;
            put(part != now.on, ConnectorField::On(part));
        }
        if let Some(name) = cell("kind") {
            let kind = kind_named(name)?;
            put(kind != now.kind, ConnectorField::Kind(kind));
        }
        if let Some(power) = yes_or_no("power", cell)? {
            put(power != now.power, ConnectorField::Power(power));
        }
        if let Some(temporary) = yes_or_no("temporary", cell)? {
            put(temporary != now.temporary, ConnectorField::Temporary(temporary));
        }
        for (name, known, field) in [
            ("place", &now.place, ConnectorField::Place as fn(Option<String>) -> ConnectorField),
            ("opens", &now.opens, ConnectorField::Opens),
            ("makes", &now.makes, ConnectorField::Makes),
            ("note", &now.note, ConnectorField::Note),
        ] {
            if let Some(value) = text(name) {
                put(value != *known, field(value));
            }
        }
        if let Some(list) = cell("route") {
            let route: Vec<String> = parts_of(list);
            put(!now.passes().eq(route.iter().map(String::as_str)), ConnectorField::Route(route));
        }
        for (name, known, field) in [
            ("slack_mm", now.slack_mm, ConnectorField::SlackMm as fn(Option<f64>) -> ConnectorField),
            ("bend_mm", now.bend_mm, ConnectorField::BendMm),
        ] {
            if let Some(value) = cell(name) {
                let value = millimetres(name, value)?;
                put(value != known, field(value));
            }
        }
        if let Some(list) = cell("wires") {
            put(list != WireEnd::words(&now.wires), ConnectorField::Wires(list.to_owned()));
        }
        Ok(out)
    }
}

/// What stands between semicolons.
fn parts_of(list: &str) -> Vec<String> {
    list.split(';').map(str::trim).filter(|p| !p.is_empty()).map(str::to_owned).collect()
}

fn millimetres(column: &'static str, text: &str) -> Result<Option<f64>, CellError> {
    if text.is_empty() {
        return Ok(None);
    }
    let says =
        || (column, format!("“{text}” is no length in millimetres. Write a number such as 60, or leave it empty."));
    text.parse().map(Some).map_err(|_| says())
}

fn kind_named(name: &str) -> Result<Option<ConnectorKind>, CellError> {
    if name.is_empty() {
        return Ok(None);
    }
    let known = ConnectorKind::ALL.iter().copied().find(|k| k.label().eq_ignore_ascii_case(name));
    let all: Vec<&str> = ConnectorKind::ALL.iter().map(|k| k.label()).collect();
    known
        .map(Some)
        .ok_or_else(|| ("kind", format!("“{name}” is no kind of connector. Write one of {}.", all.join(", "))))
}

fn yes_or_no(column: &'static str, cell: Cells<'_, '_>) -> Result<Option<bool>, CellError> {
    match cell(column).map(str::to_lowercase).as_deref() {
        None | Some("") => Ok(None),
        Some("yes" | "true" | "1") => Ok(Some(true)),
        Some("no" | "false" | "0") => Ok(Some(false)),
        Some(other) => Err((column, format!("“{other}” is neither yes nor no."))),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted;
    use rstest::rstest;

    fn fan() -> Manual {
        drafted::manual(
            "[0:00] Disconnect the battery cable. Take out the battery. Flip up the latch and disconnect the display flex. \
             Take out the fan.",
        )
    }

    fn brought(manual: &Manual, table: &str) -> Result<Manual, Vec<RowError>> {
        let edits = from_csv(manual, table.as_bytes())?;
        Ok(edits.into_iter().fold(manual.clone(), |m, e| m.apply(&Edit::Connector(e), "Ann").expect("it was tried").0))
    }

    #[test]
    fn what_goes_out_comes_back_as_it_was() {
        let manual = fan();
        let table = to_csv(&manual);
        assert_eq!(table.lines().count(), 1 + manual.connectors.len());
        assert_eq!(from_csv(&manual, table.as_bytes()), Ok(Vec::new()));
    }

    #[test]
    fn a_row_without_an_id_adds_a_connector() {
        let manual = fan();
        let table =
            "step,serves,kind,wires,route,power\n1,fan,coaxial,black to MAIN; white to AUX,groove; under the tape,no\n";
        let next = brought(&manual, table).unwrap();
        let added = next.connectors.values().find(|c| !manual.connectors.contains_key(&c.id)).expect("one more");
        assert_eq!((added.kind, added.route.len(), added.wires.len()), (Some(ConnectorKind::Coaxial), 2, 2));
        assert_eq!(WireEnd::words(&added.wires), "black to MAIN; white to AUX");
    }

    #[rstest]
    #[case("step,serves\n99,fan\n", "step", "There is no step 99")]
    #[case("step,serves\n1,flux capacitor\n", "serves", "“flux capacitor” is no part of this manual")]
    #[case("step,kind\n1,glued\n", "kind", "“glued” is no kind of connector. Write one of press fit")]
    #[case("step,power\n1,perhaps\n", "power", "“perhaps” is neither yes nor no.")]
    #[case("step,wires\n1,red\n", "", "“red” is half a wire.")]
    #[case("id,note\n12,x\n", "id", "“12” is no connector of this manual")]
    #[case("serves\nfan\n", "step", "The table has neither a column step nor id.")]
    fn a_cell_that_cannot_be_taken_is_named(#[case] table: &str, #[case] column: &str, #[case] says: &str) {
        let wrong = brought(&fan(), table).unwrap_err();
        assert!(wrong.iter().any(|w| w.column == column && w.problem.contains(says)), "{wrong:?}");
    }
}
