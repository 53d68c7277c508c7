//! Tables that go out and come back: every cell that cannot be taken is named, and nothing is taken then.
//!
//! A spreadsheet takes a cell that begins with one of `= + - @` for a formula. Such a cell goes out behind an apostrophe and
//! comes back without it (common practice, no source).

use crate::ids::StepId;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A cell that cannot be taken.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct RowError {
    /// Line of the table, its head being 1.
    pub row: usize,
    pub column: String,
    pub problem: String,
}

/// A column with what is wrong in it.
pub type CellError = (&'static str, String);

/// The cells of a row by the names of their columns; `None` where the table has no such column.
pub type Cells<'c, 't> = &'c dyn Fn(&str) -> Option<&'t str>;

/// A table as CSV (RFC 4180), its head first.
pub fn write_rows<const N: usize>(columns: [&str; N], rows: impl Iterator<Item = [String; N]>) -> String {
    let mut out = csv::Writer::from_writer(Vec::new());
    let written = out
        .write_record(columns)
        .and_then(|()| rows.map(|row| row.map(harmless)).try_for_each(|row| out.write_record(row)));
    // Writing into memory cannot fail.
    written.expect("a table in memory");
    String::from_utf8(out.into_inner().expect("a table in memory")).expect("text stays text")
}

/// Whether a spreadsheet would calculate a cell, were it not for apostrophes before it.
fn is_formula(cell: &str) -> bool {
    cell.trim_start_matches('\'').starts_with(['=', '+', '-', '@', '\t', '\r'])
}

fn harmless(cell: String) -> String {
    // A figure below zero is none.
    if is_formula(&cell) && cell.parse::<f64>().is_err() { format!("'{cell}") } else { cell }
}

fn as_written(cell: &str) -> &str {
    cell.strip_prefix('\'').filter(|rest| is_formula(rest)).unwrap_or(cell)
}

/// Reads a CSV table (RFC 4180) row by row, the rows numbered from 0.
///
/// # Errors
/// What `head` says of the names of the columns, or all that `row` says of the rows.
pub fn read_rows<T>(
    table: &[u8],
    head: impl Fn(&dyn Fn(&str) -> bool) -> Result<(), CellError>,
    mut row: impl for<'t> FnMut(usize, Cells<'_, 't>) -> Result<Vec<T>, CellError>,
) -> Result<Vec<T>, Vec<RowError>> {
    let mut reader = csv::ReaderBuilder::new().flexible(true).trim(csv::Trim::All).from_reader(table);
    let wrong = |row: usize, column: &str, problem: String| RowError { row, column: column.to_owned(), problem };
    let names = reader.headers().cloned().map_err(|e| vec![wrong(1, "", format!("The table cannot be read: {e}."))])?;
    let column = |name: &str| names.iter().position(|h| h.trim_start_matches('\u{feff}') == name);
    head(&|name| column(name).is_some()).map_err(|(name, problem)| vec![wrong(1, name, problem)])?;
    let (mut taken, mut errors) = (Vec::new(), Vec::new());
    for (n, record) in reader.records().enumerate() {
        let line = n + 2;
        match record {
            Ok(record) => match row(n, &|name| column(name).and_then(|c| record.get(c)).map(as_written)) {
                Ok(found) => taken.extend(found),
                Err((name, problem)) => errors.push(wrong(line, name, problem)),
            },
            Err(e) => errors.push(wrong(line, "", format!("The row cannot be read: {e}."))),
        }
    }
    if errors.is_empty() { Ok(taken) } else { Err(errors) }
}

/// Refuses a table whose rows nothing could be found by: they need an id, or a step to be added to.
///
/// # Errors
/// Names the columns that there are.
pub fn finds_its_rows(columns: &[&str], has: &dyn Fn(&str) -> bool) -> Result<(), CellError> {
    if has("step") || has("id") {
        return Ok(());
    }
    Err(("step", format!("The table has neither a column step nor id. Its columns are {}.", columns.join(", "))))
}

/// The step of the teardown that a cell numbers, from 1.
///
/// # Errors
/// How many there are.
pub fn numbered_step(steps: &[StepId], text: &str) -> Result<StepId, CellError> {
    let number: Option<usize> = text.parse().ok();
    let found = number.and_then(|n| steps.get(n.checked_sub(1)?)).copied();
    found.ok_or_else(|| ("step", format!("There is no step {text}; the teardown has steps 1 to {}.", steps.len())))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// What a spreadsheet would calculate goes out harmless, and every cell comes back as it was.
    #[rstest]
    #[case("=1+1", "'=1+1")]
    #[case("@SUM(A1)", "'@SUM(A1)")]
    #[case("+ the long ones", "'+ the long ones")]
    #[case("-2", "-2")]
    #[case("-rear", "'-rear")]
    #[case("'=quoted", "''=quoted")]
    #[case("'tis the lid", "'tis the lid")]
    #[case("lid = cover", "lid = cover")]
    #[case("", "")]
    fn no_cell_is_a_formula(#[case] cell: &str, #[case] written: &str) {
        let table = write_rows(["name", "end"], std::iter::once([cell.to_owned(), "x".to_owned()]));
        assert_eq!(table, format!("name,end\n{written},x\n"));
        let back = read_rows(table.as_bytes(), |_| Ok(()), |_, cells| Ok(vec![cells("name").unwrap().to_owned()]));
        assert_eq!(back.unwrap(), [cell]);
    }
}
