//! The mat: a sheet at true scale with a place for every group in the order of removal, and a gauge to tell screws by.
//!
//! Screws sorted by eye go wrong where only half a millimetre tells them apart. Printed at its true size, the sheet holds
//! each group at its place with its screw drawn full-size; a bar of 100 mm shows whether the printer kept the scale.

use super::drawing::{FAINT, diameters, frame, line, recess, round, screw, tag, words};
use super::kinds::{Kind, Sorted, Tag};
use super::ledger::LedgerRow;
use crate::ids::*;
use crate::labels::Label;
use crate::manual::{FastenerFate, FastenerGroup, Locking, Manual};
use crate::units::{in_millimetres, number};
use serde::{Deserialize, Serialize};
use svg::Document;
use svg::node::element::{Circle, Group, Title};
use utoipa::ToSchema;

/// Size of the sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Paper {
    A4,
    Letter,
}

impl Paper {
    /// Width and height in millimetres: ISO 216, and 8.5 × 11 inches.
    pub fn size_mm(self) -> (f64, f64) {
        match self {
            Self::A4 => (210.0, 297.0),
            Self::Letter => (215.9, 279.4),
        }
    }

    /// `a4`, `letter`.
    pub fn from_name(name: &str) -> Option<Self> {
        match name.to_lowercase().as_str() {
            "a4" => Some(Self::A4),
            "letter" => Some(Self::Letter),
            _ => None,
        }
    }
}

/// Printers leave this rim white.
const MARGIN: f64 = 10.0;
const HEADER: f64 = 14.0;
const FOOTER: f64 = 16.0;
/// Room for the drawing above and the screws themselves below.
const CELL: f64 = 38.0;
/// Longest screw that fits into half a line.
const HALF_LINE_MM: f64 = 62.0;
const GAUGE_ROW: f64 = 11.0;
/// The bar that shows whether the scale was kept.
pub const BAR_MM: f64 = 100.0;

/// Pages of the mat with the gauge behind it, each an SVG document at true scale.
pub fn pages(manual: &Manual, sorted: &Sorted, rows: &[LedgerRow], paper: Paper) -> Vec<String> {
    let mut bodies = mat(manual, rows, paper);
    bodies.extend(gauge(manual, sorted, paper));
    let count = bodies.len();
    let title = format!("{}: screw mat", manual.head.title);
    bodies.into_iter().enumerate().map(|(i, body)| page(paper, &title, i + 1, count, body).to_string()).collect()
}

fn page(paper: Paper, title: &str, number: usize, count: usize, body: Group) -> Document {
    let (width, height) = paper.size_mm();
    const MAX_CHARS: usize = 70;
    let short: String = title.chars().take(MAX_CHARS).collect();
    Document::new()
        .set("width", format!("{width}mm"))
        .set("height", format!("{height}mm"))
        .set("viewBox", (0, 0, width, height))
        .set("font-family", "sans-serif")
        .add(Title::new(format!("{title}, page {number} of {count}")))
        .add(words(MARGIN, MARGIN + 4.5, 4.6, &short).set("font-weight", 700))
        .add(words(width - MARGIN, MARGIN + 4.5, 3.4, &format!("page {number} of {count}")).set("text-anchor", "end"))
        .add(words(MARGIN, MARGIN + 9.5, 3.1, "Print at 100 %, not fitted to the page."))
        .add(body)
        .add(calibration(MARGIN, height - MARGIN - 6.0))
}

/// A bar of exactly 100 mm with marks each 10 mm.
fn calibration(x: f64, y: f64) -> Group {
    let bar = frame(x, y, BAR_MM, 3.0, 0.0).set("fill", "#1d2321").set("stroke", "none").set("class", "calibration");
    let text = words(
        x + BAR_MM + 4.0,
        y + 2.8,
        3.1,
        "This bar must measure 100 mm. If it does not, the lengths on this sheet are wrong.",
    );
    (0..=10).fold(Group::new().add(bar).add(text), |g, i| {
        let at = x + 10.0 * f64::from(i);
        g.add(line(at, y + 3.0, at, y + 5.0, 0.2))
    })
}

/// Pages with a place for each group.
fn mat(manual: &Manual, rows: &[LedgerRow], paper: Paper) -> Vec<Group> {
    let (width, height) = paper.size_mm();
    let (half, bottom) = ((width - 2.0 * MARGIN) / 2.0, height - MARGIN - FOOTER);
    let top = MARGIN + HEADER;
    let mut pages = vec![Group::new()];
    let (mut column, mut y) = (0.0, top);
    for row in rows {
        let Some(group) = manual.fasteners.get(&row.group) else { continue };
        let wide = group.length.is_some_and(|l| in_millimetres(l) > HALF_LINE_MM);
        if wide && column > 0.0 {
            (column, y) = (0.0, y + CELL);
        }
        if y + CELL > bottom {
            pages.push(Group::new());
            (column, y) = (0.0, top);
        }
        let page = pages.pop().expect("there is always a page");
        let cell_width = if wide { 2.0 * half } else { half };
        let holds = group.name.clone().unwrap_or_else(|| manual.words_of(group).holds());
        pages.push(page.add(cell(group, row, &holds, MARGIN + column * half, y, cell_width)));
        column += if wide { 2.0 } else { 1.0 };
        if column > 1.0 {
            (column, y) = (0.0, y + CELL);
        }
    }
    pages
}

/// One place: tag, what and how many, the step, the screw at its size.
fn cell(group: &FastenerGroup, row: &LedgerRow, holds: &str, x: f64, y: f64, width: f64) -> Group {
    let kind = Kind::of(group);
    let head = group.head_width.map(in_millimetres);
    let count = format!("{} ×", group.count_words());
    // The drawing shows the head.
    let what = Kind { head: None, ..kind.clone() }.words();
    // Past the edge of its place nothing can be read.
    let fitting = |text: &str, size: f64| -> String {
        let most = ((width - 30.0) / (size * 0.6)) as usize;
        if text.chars().count() <= most {
            text.to_owned()
        } else {
            text.chars().take(most - 1).chain(['…']).collect()
        }
    };
    let out = Group::new()
        .set("class", "place")
        .add(frame(x + 0.8, y + 0.8, width - 1.6, CELL - 1.6, 2.0).set("stroke", FAINT))
        .add(tag(x + 9.0, y + 9.0, 11.0, &row.tag))
        .add(recess(x + 21.5, y + 9.0, 6.5, group.drive))
        .add(words(x + 27.0, y + 7.6, 4.0, &fitting(&format!("{count} {what}"), 4.0)).set("font-weight", 700))
        .add(words(x + 27.0, y + 12.6, 3.4, &fitting(&format!("step {}: {holds}", row.step_number), 3.4)));
    let notes = notes(group);
    let out = out.add(words(x + 3.5, y + CELL - 3.0, 3.1, &notes));
    match group.length {
        Some(_) => out.add(screw(x + 27.0, y + 20.0, &kind, head)),
        None => out.add(words(x + 27.0, y + 21.0, 3.1, "length not known").set("fill", FAINT)),
    }
}

/// What must not be forgotten of a group, in a line.
fn notes(group: &FastenerGroup) -> String {
    let fate = (group.fate != FastenerFate::Reuse).then(|| group.fate.label());
    let captive = group.captive.then_some("captive: stays in its part");
    let locking = group.locking.map(Locking::label);
    [captive, fate, locking].into_iter().flatten().collect::<Vec<_>>().join("; ")
}

/// Pages on which a screw is laid to be told from the others: every kind at its true size against one edge, and a scale
/// with a mark each quarter of a millimetre.
fn gauge(manual: &Manual, sorted: &Sorted, paper: Paper) -> Vec<Group> {
    let (width, height) = paper.size_mm();
    let edge = MARGIN + 42.0;
    let longest = width - MARGIN - edge - 1.0;
    let per_page = ((height - 2.0 * MARGIN - HEADER - FOOTER - 34.0) / GAUGE_ROW).floor() as usize;
    let mut kinds: Vec<(&Kind, &[GroupId])> = sorted.kinds.iter().map(|(k, g)| (k, g.as_slice())).collect();
    kinds.retain(|(k, _)| k.length_mm.is_some_and(|l| l <= longest));
    kinds.sort_by(|a, b| a.0.length_mm.unwrap_or(0.0).total_cmp(&b.0.length_mm.unwrap_or(0.0)));
    kinds.chunks(per_page).map(|chunk| gauge_page(manual, sorted, chunk, edge, longest)).collect()
}

fn gauge_page(manual: &Manual, sorted: &Sorted, kinds: &[(&Kind, &[GroupId])], edge: f64, longest: f64) -> Group {
    let top = MARGIN + HEADER + 6.0;
    let bottom = top + GAUGE_ROW * kinds.len() as f64 + 4.0;
    let says =
        "Gauge: lay the head's underside on the upright line (a sunk head with its top); read where the tip ends.";
    let mut out = Group::new()
        .set("class", "gauge")
        .add(words(MARGIN, top - 3.0, 3.1, says))
        .add(line(edge, top, edge, bottom + 8.0, 0.4))
        .add(scale(edge, bottom, longest.min(60.0)));
    for (i, (kind, groups)) in kinds.iter().enumerate() {
        let y = top + GAUGE_ROW * (i as f64 + 0.5);
        let head = groups.iter().find_map(|g| manual.fasteners.get(g)?.head_width).map(in_millimetres);
        let (d, dk) = diameters(kind, head);
        let length = kind.length_mm.unwrap_or(0.0);
        let known = if kind.thread.is_some() { "" } else { "?" };
        let letters: Vec<&str> = groups.iter().filter_map(|g| sorted.tags.get(g)).map(|t| t.letter.as_str()).collect();
        let first: Option<&Tag> = groups.first().and_then(|g| sorted.tags.get(g));
        if let Some(first) = first {
            let plain = Tag { length_mm: None, ..first.clone() };
            out = out.add(tag(MARGIN + 4.5, y, 6.5, &plain));
        }
        let all = if letters.len() > 6 { format!("{}, …", letters[..6].join(", ")) } else { letters.join(", ") };
        out = out
            .add(words(MARGIN + 10.0, y - 0.6, 3.1, &format!("{} mm", number(length))).set("font-weight", 700))
            .add(words(MARGIN + 10.0, y + 3.2, 2.7, &all))
            .add(screw(edge, y, kind, head))
            .add(words(
                edge + length + 3.0,
                y + 1.0,
                2.7,
                &format!("⌀{}{known}, head ⌀{}{known}", number(d), number(round(dk))),
            ));
    }
    out.add(holes(sorted, MARGIN, bottom + 16.0))
}

/// Marks each quarter, half and whole millimetre, with figures each five.
fn scale(x: f64, y: f64, length: f64) -> Group {
    let quarters = (length * 4.0).floor() as u32;
    (0..=quarters).fold(Group::new().set("class", "scale"), |g, q| {
        let at = x + f64::from(q) / 4.0;
        let tall = match q {
            q if q % 20 == 0 => 6.0,
            q if q % 4 == 0 => 4.0,
            q if q % 2 == 0 => 2.6,
            _ => 1.6,
        };
        let g = g.add(line(at, y, at, y + tall, 0.1));
        if q % 20 == 0 { g.add(words(at + 0.6, y + 6.4, 2.4, &(q / 4).to_string())) } else { g }
    })
}

/// Circles of the threads that occur, to hold a tip against.
fn holes(sorted: &Sorted, x: f64, y: f64) -> Group {
    let mut sizes: Vec<String> = Vec::new();
    let mut out = Group::new();
    let mut at = x + 6.0;
    for (kind, _) in sorted.kinds.iter().filter(|(k, _)| k.thread.is_some()) {
        let (d, _) = diameters(kind, None);
        let name = kind.thread.map(|t| t.to_string()).unwrap_or_default();
        const MAX_SIZES: usize = 12;
        if sizes.contains(&name) || sizes.len() >= MAX_SIZES {
            continue;
        }
        let circle = Circle::new().set("cx", round(at)).set("cy", round(y)).set("r", round(d / 2.0));
        out = out
            .add(circle.set("fill", "none").set("stroke", "#1d2321").set("stroke-width", 0.2))
            .add(words(at, y + 7.5, 2.7, &name).set("text-anchor", "middle"));
        sizes.push(name);
        at += 14.0;
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fasteners::kinds::sort;
    use crate::fasteners::ledger::ledger;
    use crate::manual::written::manual;
    use rstest::rstest;

    fn drawn(text: &str, paper: Paper) -> Vec<String> {
        let m = manual(text);
        let sorted = sort(&m);
        pages(&m, &sorted, &ledger(&m, &sorted).rows, paper)
    }

    #[rstest]
    #[case(Paper::A4, "width=\"210mm\"", "viewBox=\"0 0 210 297\"")]
    #[case(Paper::Letter, "width=\"215.9mm\"", "viewBox=\"0 0 215.9 279.4\"")]
    fn a_sheet_is_as_large_as_its_paper(#[case] paper: Paper, #[case] width: &str, #[case] view: &str) {
        let pages = drawn("1 lid: 4 PH0 8 mm, M2, captive", paper);
        assert_eq!(pages.len(), 2, "one page of places, one of the gauge");
        assert!(pages.iter().all(|p| p.contains(width) && p.contains(view) && p.contains("class=\"calibration\"")));
        assert!(
            pages[0].contains("4 × PH0, M2, 8 mm") && pages[0].contains("captive: stays in its part"),
            "{}",
            pages[0]
        );
    }

    #[test]
    fn a_screw_is_drawn_at_its_length() {
        let page = &drawn("1 lid: 4 PH0 7.25 mm, M2, pan", Paper::A4)[0];
        let shank = page.split("<rect").find(|r| r.contains("class=\"shank\"")).unwrap();
        assert!(shank.contains("width=\"7.25\"") && shank.contains("height=\"2\""), "{shank}");
    }

    #[test]
    fn many_groups_go_on_over_pages_and_none_is_lost() {
        let text: String = (0..45).map(|i| format!("{} part{i}: 2 PH0 {} mm\n", i + 1, 3 + i % 9)).collect();
        let pages = drawn(&text, Paper::A4);
        let places = |p: &String| p.matches("class=\"place\"").count();
        assert_eq!(pages.iter().map(places).sum::<usize>(), 45);
        assert!(pages.len() > 3 && pages.iter().all(|p| places(p) <= 16));
    }

    #[test]
    fn words_of_authors_cannot_break_the_sheet() {
        let mut m = manual("1 lid: 4 PH0 8 mm");
        m.head.title = "</svg><script>alert(1)</script> & co".into();
        let sorted = sort(&m);
        let page = &pages(&m, &sorted, &ledger(&m, &sorted).rows, Paper::A4)[0];
        assert!(!page.contains("<script>") && page.contains("&lt;script&gt;"), "{page}");
    }

    #[test]
    fn a_long_screw_takes_the_whole_line() {
        let page = &drawn("1 lid: 4 PH2 120 mm\n2 fan: 2 PH2 8 mm", Paper::A4)[0];
        assert!(page.contains("width=\"188.4\""), "{page}");
    }

    #[test]
    fn without_screws_there_is_one_empty_page() {
        assert_eq!(drawn("", Paper::A4).len(), 1);
    }
}
