//! How well the reader reads, measured over narrations of invented devices with answers made by hand.
//!
//! `cargo test -p paso-reader --test score -- --nocapture` prints the tables. The floors stand a little
//! under what the reader reached; they are raised when it gets better. They were lowered twice, when parts and plugs came to
//! be read off the deeds, which name plugs worse in these neat narrations and better in life-like ones. The narrations under
//! `unseen` were written with their answers before the reader was tuned. What was missed in them was looked at when the
//! deeds took over; until then it never was.

mod acts;
mod calibration;
mod judge;

use judge::{FIELDS, Gold, Tally};
use paso_reader::reading::{FactSheet, read};
use paso_reader::recording::Recording;
use rstest::rstest;
use std::collections::BTreeMap;
use std::path::{Path, PathBuf};

/// Exact F1 of a field that must be reached, in thousandths.
type Floors = [(&'static str, u32); 12];

const TUNED: Floors = FLOORS_TUNED;
const UNSEEN: Floors = FLOORS_UNSEEN;

include!("floors.rs");

pub fn narrations(folder: &str) -> Vec<PathBuf> {
    let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/narrations").join(folder);
    let mut files: Vec<PathBuf> = std::fs::read_dir(path)
        .expect("a folder of narrations")
        .filter_map(|entry| Some(entry.ok()?.path()))
        .filter(|p| p.extension().is_some_and(|e| e == "md"))
        .collect();
    files.sort();
    files
}

pub fn recording(file: &Path) -> Recording {
    Recording::parse(&std::fs::read(file).expect("a narration")).expect("a recording")
}

fn score(folder: &str, sheet: impl Fn(&Recording) -> FactSheet) -> BTreeMap<&'static str, Tally> {
    let mut tallies: BTreeMap<&'static str, Tally> = FIELDS.iter().map(|f| (*f, Tally::default())).collect();
    for file in narrations(folder) {
        let gold = Gold::load(&file.with_extension("json"));
        gold.compare(&sheet(&recording(&file)), &mut tallies);
    }
    tallies
}

/// The mean of the fields.
fn overall(tallies: &BTreeMap<&'static str, Tally>) -> f64 {
    tallies.values().map(Tally::f1).sum::<f64>() / tallies.len() as f64
}

fn print(title: &str, tallies: &BTreeMap<&'static str, Tally>) {
    println!("{title}: {:.3}", overall(tallies));
    for field in FIELDS {
        let t = &tallies[field];
        println!("  {field:<16} {:.3}   (right {}, missed {}, wrong {})", t.f1(), t.hit, t.missed, t.wrong);
    }
}

#[rstest]
#[case::tuned("tuned", TUNED)]
#[case::never_tuned("unseen", UNSEEN)]
fn every_field_keeps_its_floor(#[case] folder: &str, #[case] floors: Floors) {
    let tallies = score(folder, |r| read(r).sheet);
    print(folder, &tallies);
    for (field, floor) in floors {
        let reached = (tallies[field].f1() * 1000.0).round() as u32;
        assert!(reached >= floor, "{folder}, {field}: {reached} is under the floor of {floor}");
    }
}

fn acts(changed: impl Fn(&Recording) -> Recording) -> acts::ActTally {
    let mut tally = acts::ActTally::default();
    for file in narrations("lifelike") {
        acts::compare(&file, &changed(&recording(&file)), &mut tally);
    }
    tally
}

#[test]
fn drafted_acts_keep_their_floor() {
    let told = acts(Recording::clone);
    let bare = acts(stripped);
    println!("acts {:.3}, order {:.3}; stripped {:.3}", told.f1(), told.order(), bare.f1());
    assert!(told.f1() >= FLOOR_ACTS, "{:.3}", told.f1());
    assert!(told.order() >= FLOOR_ORDER, "{:.3}", told.order());
    assert!(told.f1() - bare.f1() <= STRIPPED_COST_OF_ACTS, "{:.3} against {:.3}", told.f1(), bare.f1());
}

/// Recognisers write speech without marks as often as with them.
fn stripped(recording: &Recording) -> Recording {
    let mut out = recording.clone();
    for cue in &mut out.cues {
        let text: String = cue.text.to_lowercase();
        let chars: Vec<char> = text.chars().collect();
        cue.text = (0..chars.len())
            .filter(|i| {
                let inside =
                    *i > 0 && chars[i - 1].is_ascii_digit() && chars.get(i + 1).is_some_and(char::is_ascii_digit);
                !matches!(chars[*i], '.' | ',' | ';' | ':' | '!' | '?') || inside
            })
            .map(|i| chars[i])
            .collect();
    }
    out
}

#[rstest]
#[case("tuned")]
#[case("unseen")]
fn marks_and_capitals_are_a_help_and_no_need(#[case] folder: &str) {
    /// What losing them may cost.
    const COST: f64 = STRIPPED_COST;
    let with = overall(&score(folder, |r| read(r).sheet));
    let tallies = score(folder, |r| read(&stripped(r)).sheet);
    print(&format!("{folder}, stripped"), &tallies);
    let without = overall(&tallies);
    assert!(with - without <= COST, "{folder}: {with:.3} with marks, {without:.3} without");
}
