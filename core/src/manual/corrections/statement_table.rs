//! Statements as a table (CSV), and an edited table back as corrections.
//!
//! A row is found again by its characters. What may be changed is its kind, whether it is part of the job, the words as
//! they are to be read, and the facts; every row that is wrong is named with its column, and nothing is taken then.

use crate::ids::*;
use crate::labels::Label;
use crate::manual::corrections::heard::{RecordingRow, StatementRow};
use crate::manual::corrections::readings::MAX_WORDS;
use crate::manual::corrections::table_rows::{CellError, Cells, RowError, read_rows, write_rows};
use crate::manual::{Manual, ReadingEdit};
use crate::reading::{Facts, StatementKind};
use crate::units;
use std::collections::HashMap;
use uuid::Uuid;

const COLUMNS: [&str; 7] = ["start", "end", "at", "kind", "in_job", "text", "facts"];

/// The statements as CSV (RFC 4180), one a row.
pub fn to_csv(heard: &RecordingRow) -> String {
    let row = |h: &StatementRow| {
        let s = &h.statement;
        [
            s.start.to_string(),
            s.end.to_string(),
            s.from_ms.map(units::clock).unwrap_or_default(),
            h.kind.name().to_owned(),
            if h.dropped { "no" } else { "yes" }.to_owned(),
            as_read(h),
            serde_json::to_string(&s.facts).unwrap_or_default(),
        ]
    };
    write_rows(COLUMNS, heard.statements.iter().map(row))
}

/// The text with the author's words in place of those heard.
fn as_read(h: &StatementRow) -> String {
    let s = &h.statement;
    let chars: Vec<char> = s.text.chars().collect();
    let mut out = String::new();
    let mut at = s.start;
    for r in s.repairs.iter().filter(|r| r.by_author && r.start >= s.start && r.end <= s.end) {
        out.extend(&chars[at - s.start..r.start - s.start]);
        out.push_str(&r.meant);
        at = r.end;
    }
    out.extend(&chars[(at - s.start).min(chars.len())..]);
    out
}

impl Manual {
    /// The corrections that an edited table asks for.
    ///
    /// # Errors
    /// Every cell that cannot be taken, with its row and what would be right.
    pub fn from_csv(
        &self,
        recording: RecordingId,
        heard: &RecordingRow,
        table: &[u8],
    ) -> Result<Vec<ReadingEdit>, Vec<RowError>> {
        let head = |has: &dyn Fn(&str) -> bool| {
            let missing: Vec<&str> = ["start", "end"].into_iter().filter(|c| !has(c)).collect();
            let Some(_) = missing.first() else { return Ok(()) };
            let column = if has("start") { "end" } else { "start" };
            let problem =
                format!("The table has no column {}. Its columns are {}.", missing.join(" and "), COLUMNS.join(", "));
            Err((column, problem))
        };
        let at = |h: &StatementRow| (h.statement.start, h.statement.end);
        let rows: Rows<'_> = heard.statements.iter().map(|h| (at(h), h)).collect();
        read_rows(table, head, |_, cell| changes(recording, &rows, cell))
    }
}

/// The statements by their characters.
type Rows<'h> = HashMap<(usize, usize), &'h StatementRow>;

/// What one row changes.
fn changes<'a>(recording: RecordingId, rows: &Rows<'_>, cell: Cells<'_, 'a>) -> Result<Vec<ReadingEdit>, CellError> {
    let place = |name: &'static str| -> Result<usize, CellError> {
        let text = cell(name).unwrap_or_default();
        text.parse().map_err(|_| (name, format!("“{text}” is no number of a character. Leave the column as it came.")))
    };
    let (start, end) = (place("start")?, place("end")?);
    let Some(h) = rows.get(&(start, end)) else {
        let problem =
            format!("No statement stands at characters {start} to {end}. Take the table out anew and edit that.");
        return Err(("start", problem));
    };
    let id = |what: &str| CorrectionId(Uuid::new_v5(&recording.0, format!("table/{what}/{start}/{end}").as_bytes()));
    let mut out = Vec::new();
    if let Some(kind) = cell("kind") {
        let kind = StatementKind::from_name(kind).ok_or_else(|| {
            let all: Vec<&str> = StatementKind::ALL.iter().map(|k| k.name()).collect();
            ("kind", format!("“{kind}” is no kind. Write one of {}.", all.join(", ")))
        })?;
        if kind != h.kind {
            out.push(ReadingEdit::ChangeKind { id: id("row"), recording, start, end, kind: Some(kind) });
        }
    }
    if let Some(in_job) = cell("in_job") {
        let dropped = match in_job.to_lowercase().as_str() {
            "yes" => false,
            "no" => true,
            _ => return Err(("in_job", format!("“{in_job}” is neither yes nor no."))),
        };
        if dropped != h.dropped {
            out.push(ReadingEdit::Drop { id: id("row"), recording, start, end, dropped });
        }
    }
    if let Some(facts) = cell("facts").filter(|f| !f.is_empty()) {
        let facts: Facts = serde_json::from_str(facts)
            .map_err(|e| ("facts", format!("The facts are not the JSON that came out: {e}.")))?;
        // As written: what a figure loses on its way through a file is no change.
        if serde_json::to_value(&facts).ok() != serde_json::to_value(&h.statement.facts).ok() {
            out.push(ReadingEdit::SetFacts { id: id("row"), recording, start, end, facts: Some(facts) });
        }
    }
    if let Some(text) = cell("text")
        && text != as_read(h).trim()
    {
        if text.chars().count() > MAX_WORDS * 4 {
            return Err(("text", "The text is longer than a statement can be. Shorten it.".to_owned()));
        }
        out.extend(reworded(recording, h, text));
    }
    Ok(out)
}

/// The words from the first to the last that differ, as one correction.
fn reworded(recording: RecordingId, h: &StatementRow, text: &str) -> Option<ReadingEdit> {
    let s = &h.statement;
    let chars: Vec<char> = s.text.chars().collect();
    let heard = words(&chars);
    let new: Vec<&str> = text.split_whitespace().collect();
    let same = |a: &(usize, usize), b: &&str| chars[a.0..a.1].iter().copied().eq(b.chars());
    let ahead = heard.iter().zip(&new).take_while(|(a, b)| same(a, b)).count();
    let most = heard.len().min(new.len()) - ahead;
    let behind = heard.iter().rev().zip(new.iter().rev()).take(most).take_while(|(a, b)| same(a, b)).count();
    // Something of the old text has to stand for what is only added.
    let from = ahead.min(heard.len().checked_sub(1)?);
    let to = (heard.len() - behind).max(from + 1);
    let meant = new.get(from..(new.len() - (heard.len() - to)).max(from)).unwrap_or_default().join(" ");
    let (a, b) = (heard[from].0, heard[to - 1].1);
    Some(ReadingEdit::Word {
        id: CorrectionId(Uuid::new_v5(&recording.0, format!("table/words/{}/{a}", s.start).as_bytes())),
        recording,
        start: s.start + a,
        end: s.start + b,
        heard: chars[a..b].iter().collect(),
        meant: Some(meant),
    })
}

/// Where the words of a text stand.
fn words(chars: &[char]) -> Vec<(usize, usize)> {
    let mut out: Vec<(usize, usize)> = Vec::new();
    for (i, c) in chars.iter().enumerate() {
        match out.last_mut() {
            _ if c.is_whitespace() => {}
            Some(last) if last.1 == i => last.1 = i + 1,
            _ => out.push((i, i + 1)),
        }
    }
    out
}
