//! What is drafted, whatever was said: sentences that can be printed, a second of the recording behind each, and nothing new
//! when the same is heard twice.
//!
//! Every narration of the reader's tests goes through the whole chain. The reader's own tests ask whether an act is heard
//! right; these ask what becomes of it, right or wrong.

use paso_core::ids::{ManualId, RecordingId};
use paso_core::manual::{Action, Evidence, Manual, RecordingRef, Source, Step, draft, draft_more};
use paso_core::reading::{self, Act, Reading, read};
use paso_core::rebuild::{RebuildStep, fold};
use paso_core::recording::Recording;
use rstest::rstest;
use std::fmt::Write as _;
use std::path::{Path, PathBuf};
use std::sync::OnceLock;
use uuid::Uuid;

struct Drafted {
    name: String,
    recording: RecordingRef,
    reading: Reading,
    length: usize,
    manual: Manual,
}

/// Speech told line by line, each a segment, and whole narrations.
fn all() -> &'static [Drafted] {
    static ALL: OnceLock<Vec<Drafted>> = OnceLock::new();
    ALL.get_or_init(|| {
        let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../reader/tests");
        let folders = ["speech", "narrations/lifelike", "narrations/tuned", "narrations/unseen"];
        let files = folders.iter().flat_map(|f| std::fs::read_dir(root.join(f)).expect("a folder"));
        let mut paths: Vec<PathBuf> = files.map(|f| f.expect("a file").path()).collect();
        paths.retain(|p| p.extension().is_some_and(|e| e == "md" || e == "txt"));
        paths.sort();
        assert!(paths.len() > 60, "{} narrations", paths.len());
        paths.iter().map(|p| drafted(p)).collect()
    })
}

fn drafted(path: &Path) -> Drafted {
    let text = std::fs::read_to_string(path).expect("a narration");
    let text = if path.extension().is_some_and(|e| e == "txt") { transcript(&text) } else { text };
    let source = Recording::parse(text.as_bytes()).expect("timed text");
    let reading = read(&source);
    let recording = RecordingRef { id: RecordingId(Uuid::nil()), title: "t".into(), duration_ms: source.duration_ms() };
    let sources = [Source { recording: recording.clone(), reading: &reading }];
    let manual = draft(ManualId(Uuid::nil()), "Draft", "", &sources);
    let name = path.file_stem().and_then(|n| n.to_str()).unwrap_or_default().to_owned();
    Drafted { name, recording, length: reading::joined_text(&source).chars().count(), reading, manual }
}

/// The lines of a file of the reader's tests without its answers.
fn transcript(file: &str) -> String {
    let title = file.lines().find(|l| l.starts_with("# Recording: ")).unwrap_or_default();
    let said = file.lines().map(str::trim).filter(|l| !l.is_empty() && !l.starts_with(['>', '?', '#']));
    let mut text = format!("{title}\n\n");
    for (n, line) in said.enumerate() {
        let _ = write!(text, "[{:02}:{:02}] {line}\n\n", n * 6 / 60, n * 6 % 60);
    }
    text
}

/// Every sentence that a reader meets, of both halves.
fn sentences(manual: &Manual) -> Vec<String> {
    let told = manual.steps.values().flat_map(|s| &s.actions).map(|a| manual.sentence(a));
    let lines = fold(manual).rebuild.into_iter().flat_map(|s| s.lines).map(|l| l.text);
    told.chain(lines).collect()
}

/// Fails with all that is wrong, each with its narration.
fn assert_none(wrong: impl Fn(&Drafted) -> Vec<String>) {
    let faults: Vec<String> =
        all().iter().flat_map(|d| wrong(d).into_iter().map(|w| format!("{}: {w}", d.name))).collect();
    assert!(faults.is_empty(), "{} faults\n{}", faults.len(), faults.join("\n"));
}

fn words(sentence: &str) -> Vec<String> {
    let bare = |w: &str| w.trim_matches(|c: char| !c.is_alphanumeric()).to_lowercase();
    sentence.split_whitespace().map(bare).filter(|w| !w.is_empty()).collect()
}

fn opens_small(s: &str) -> bool {
    !s.starts_with(|c: char| c.is_uppercase() || c.is_ascii_digit())
}

fn has_no_end(s: &str) -> bool {
    !s.ends_with(['.', '!', '?', '…'])
}

fn says_a_word_twice(s: &str) -> bool {
    // "Check, check, check.", "clips that that rail holds" are said so.
    words(s).windows(2).any(|w| w[0] == w[1] && w[0] != "that" && w[0] != "check")
}

fn has_two_articles(s: &str) -> bool {
    let article = |w: &str| matches!(w, "the" | "a" | "an");
    words(s).windows(2).any(|w| article(&w[0]) && article(&w[1]))
}

fn breaks_off(s: &str) -> bool {
    const OPEN: [&str; 13] =
        ["and", "or", "but", "the", "a", "an", "of", "with", "until", "from", "into", "its", "then"];
    words(s).last().is_some_and(|last| OPEN.contains(&last.as_str()))
}

fn stands_apart(s: &str) -> bool {
    s.contains("  ") || s.contains(" .") || s.contains(" ,") || s.contains('\n')
}

#[rstest]
#[case::with_a_capital(opens_small)]
#[case::with_an_end(has_no_end)]
#[case::each_word_once(says_a_word_twice)]
#[case::one_article(has_two_articles)]
#[case::to_its_end(breaks_off)]
#[case::without_gaps(stands_apart)]
fn a_sentence_can_be_printed(#[case] wrong: fn(&str) -> bool) {
    assert_none(|d| sentences(&d.manual).into_iter().filter(|s| wrong(s)).collect());
}

#[test]
fn a_title_says_what_is_done() {
    assert_none(|d| {
        let bad = |t: &&str| t.is_empty() || t.ends_with('.') || opens_small(t) || breaks_off(t) || has_two_articles(t);
        let told = d.manual.steps.values().map(|s| s.title.as_str());
        let back = fold(&d.manual).rebuild;
        told.chain(back.iter().map(|s| s.title.as_str())).filter(bad).map(str::to_owned).collect()
    });
}

#[test]
fn a_step_says_nothing_twice_in_a_row() {
    // Two plugs without names of their own, and rows of screws told one by one, are two.
    let one = |act: Act| !matches!(act, Act::Connect | Act::Drive | Act::Tighten);
    assert_none(|d| {
        let told = |s: &Step| s.actions.iter().filter(|a| one(a.act)).map(|a| d.manual.sentence(a)).collect();
        let rows = d.manual.steps.values().map(told);
        let lines = |s: RebuildStep| s.lines.into_iter().filter(|l| l.act.is_none_or(one)).map(|l| l.text).collect();
        let back = fold(&d.manual).rebuild.into_iter().map(lines);
        let all: Vec<Vec<String>> = rows.chain(back).collect();
        all.iter().flat_map(|row| row.windows(2)).filter(|w| w[0] == w[1]).map(|w| w[0].clone()).collect()
    });
}

#[test]
fn every_sentence_stands_in_the_recording() {
    assert_none(|d| {
        let stands =
            |e: &Evidence| matches!(e, Evidence::Recording { start, end, .. } if start < end && *end <= d.length);
        let lost = |a: &&Action| a.evidence.is_empty() || !a.evidence.iter().all(stands);
        d.manual.steps.values().flat_map(|s| &s.actions).filter(lost).map(|a| d.manual.sentence(a)).collect()
    });
}

#[test]
fn what_is_heard_twice_is_one_guide() {
    assert_none(|d| {
        let again = RecordingRef { id: RecordingId(Uuid::from_u128(2)), ..d.recording.clone() };
        let more = draft_more(&d.manual, &Source { recording: again, reading: &d.reading }).expect("a draft");
        let steps = more.steps.iter().map(|s| format!("step {}", s.title));
        let parts = more.parts.iter().map(|p| format!("part {}", p.name));
        let screws = more.fasteners.iter().map(|g| format!("screws {:?} {:?}", g.count, g.bit));
        let plugs = more.connectors.iter().map(|_| "a plug".to_owned());
        steps.chain(parts).chain(screws).chain(plugs).collect()
    });
}

#[test]
fn every_part_has_its_name_once() {
    assert_none(|d| {
        let mut names: Vec<String> = d.manual.parts.values().map(|p| p.name.to_lowercase()).collect();
        names.sort();
        names.windows(2).filter(|w| w[0] == w[1]).map(|w| w[0].clone()).collect()
    });
}
