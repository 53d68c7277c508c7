//! Tables that come back from outside: every cell that cannot be taken is named, and nothing is taken then.

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
            Ok(record) => match row(n, &|name| column(name).and_then(|c| record.get(c))) {
                Ok(found) => taken.extend(found),
                Err((name, problem)) => errors.push(wrong(line, name, problem)),
            },
            Err(e) => errors.push(wrong(line, "", format!("The row cannot be read: {e}."))),
        }
    }
    if errors.is_empty() { Ok(taken) } else { Err(errors) }
}
