//! Reading as people correct it: words, ends, kinds and facts put right, contradictions settled, tables out and in.

use paso_core::checks::listen::findings;
use paso_core::finding::{Finding, RuleId, Subject};
use paso_core::ids::*;
use paso_core::manual::{
    Edit, House, Manual, ReadingEdit, RecordingEdit, RecordingRef, RecordingRow, Source, draft, draft_more, to_csv,
};
use paso_core::reading::{self, FactSheet, StatementKind};
use paso_core::recording::Recording;
use rstest::{fixture, rstest};
use uuid::Uuid;

const KETTLE: &str = "[0:00] You need a PH1 screwdriver.\n\n\
    [0:10] Remove four PH1 screws, 8 millimetres, from the base plate. Take off the base plate.\n\n\
    [0:40] Unplug the fan cable. Take out the heeter. The heeter is hot.\n\n\
    [1:10] Now the assembly. Put the heater in. Connect the fan cable.\n\n\
    [1:30] Put the base plate on. Install five PH1 screws, 8 millimetres, in the base plate.";

struct Kettle {
    manual: Manual,
    id: RecordingId,
    source: Recording,
}

impl Kettle {
    fn heard(&self) -> RecordingRow {
        self.manual.hear_anew(self.id, &self.source)
    }

    fn apply(&mut self, edit: ReadingEdit) {
        self.manual = self.manual.apply(&Edit::Reading(edit), "Ann").unwrap_or_else(|e| panic!("{e}")).0;
    }

    fn refused(&self, edit: ReadingEdit) -> String {
        self.manual.apply(&Edit::Reading(edit), "Ann").expect_err("refused").to_string()
    }

    fn find(&self, text: &str) -> (usize, usize) {
        let joined = reading::joined_text(&self.source);
        let start = joined.find(text).unwrap_or_else(|| panic!("“{text}” is not said"));
        (start, start + text.len())
    }

    fn word(&self, n: u128, heard: &str, meant: Option<&str>) -> ReadingEdit {
        let (start, end) = self.find(heard);
        ReadingEdit::Word {
            id: CorrectionId(Uuid::from_u128(n)),
            recording: self.id,
            start,
            end,
            heard: heard.to_owned(),
            meant: meant.map(str::to_owned),
        }
    }

    fn sheet(&self) -> FactSheet {
        self.manual.corrections_of(self.id).read(&self.source).sheet().clone()
    }

    fn contradiction(&self, rule: RuleId) -> Option<Finding> {
        let read = self.manual.corrections_of(self.id).read(&self.source);
        findings(&self.manual, &read, &House::default()).into_iter().find(|f| f.rule == rule)
    }

    fn texts(&self) -> Vec<String> {
        self.heard().statements.into_iter().map(|h| h.statement.text).collect()
    }
}

#[fixture]
fn kettle() -> Kettle {
    let source = Recording::parse(KETTLE.as_bytes()).unwrap();
    let id = RecordingId(Uuid::from_u128(7));
    let recording = RecordingRef { id, title: "take one".into(), duration_ms: source.duration_ms() };
    let read = reading::read(&source);
    let manual = draft(ManualId(Uuid::from_u128(1)), "Kettle", "", &[Source { recording, reading: &read }]);
    Kettle { manual, id, source }
}

#[rstest]
fn a_corrected_word_changes_what_is_read_and_undo_brings_it_back(mut kettle: Kettle) {
    let edit = kettle.word(1, "fan", Some("pump"));
    let (next, change) = kettle.manual.apply(&Edit::Reading(edit), "Ann").unwrap();
    let before = std::mem::replace(&mut kettle.manual, next);
    let sheet = kettle.sheet();
    assert_eq!(sheet.connectors[0].fact.what.as_deref(), Some("pump"));
    let (undone, _) = kettle.manual.revert(&change).unwrap();
    assert_eq!(undone.word_fixes, before.word_fixes);
}

#[rstest]
fn a_newer_word_takes_the_place_of_those_it_overlaps(mut kettle: Kettle) {
    kettle.apply(kettle.word(1, "fan", Some("pump")));
    kettle.apply(kettle.word(2, "fan cable", Some("lamp cable")));
    let fixes: Vec<&str> = kettle.manual.word_fixes.values().map(|w| w.meant.as_str()).collect();
    assert_eq!(fixes, ["lamp cable"]);
    kettle.apply(kettle.word(3, "fan cable", None));
    assert!(kettle.manual.word_fixes.is_empty());
}

#[rstest]
fn several_words_are_one_edit(mut kettle: Kettle) {
    let joined = reading::joined_text(&kettle.source);
    let edits = joined.match_indices("heeter").enumerate().map(|(n, (start, heard))| ReadingEdit::Word {
        id: CorrectionId(Uuid::from_u128(20 + n as u128)),
        recording: kettle.id,
        start,
        end: start + heard.len(),
        heard: heard.to_owned(),
        meant: Some("heater".to_owned()),
    });
    kettle.apply(ReadingEdit::Several { edits: edits.collect() });
    let sheet = kettle.sheet();
    assert!(sheet.parts.iter().any(|p| p.fact.what == "heater" && p.at_s == 40), "{:?}", sheet.parts);
}

#[rstest]
fn statements_are_cut_and_joined_and_each_takes_the_other_back(mut kettle: Kettle) {
    let plain = kettle.texts();
    let at = kettle.find("Take off the base").0;
    let cut = |n, joins| ReadingEdit::Cut { id: CorrectionId(Uuid::from_u128(n)), recording: kettle.id, at, joins };
    let (join, split) = (cut(1, true), cut(2, false));
    kettle.apply(join);
    assert_eq!(kettle.texts().len(), plain.len() - 1);
    kettle.apply(split);
    assert_eq!(kettle.texts(), plain);
    assert!(kettle.manual.cuts.is_empty());
}

#[rstest]
fn facts_put_right_are_in_the_sheet_and_in_the_steps(mut kettle: Kettle) {
    let heard = kettle.heard();
    let s = heard.statements.iter().find(|h| h.statement.text.starts_with("Remove four")).unwrap().statement.clone();
    let mut facts = s.facts.clone();
    facts.fasteners[0].count = Some(5);
    kettle.apply(ReadingEdit::SetFacts {
        id: CorrectionId(Uuid::from_u128(1)),
        recording: kettle.id,
        start: s.start,
        end: s.end,
        facts: Some(facts),
    });
    assert_eq!(kettle.sheet().fasteners[0].fact.count, Some(5));
    assert!(kettle.manual.fasteners.values().any(|g| g.count == Some(5)));
    let row = kettle.heard().statements.into_iter().find(|h| h.statement.start == s.start).unwrap();
    assert!(row.facts_corrected && !row.corrected);
}

#[rstest]
fn a_contradiction_names_both_places_and_a_choice_ends_it(mut kettle: Kettle) {
    let count = kettle.contradiction(RuleId::CountContradicted).expect("four came out and five go back");
    assert_eq!(count.says, "5 screws go back into the base plate; 4 came out.");
    let said: Vec<String> = reading::joined_text(&kettle.source).chars().map(String::from).collect();
    let words = count.about.iter().map(|subject| match subject {
        Subject::Words { start, end, .. } => said[*start..*end].concat(),
        other => panic!("{other:?}"),
    });
    let words: Vec<String> = words.collect();
    assert!(words[0].starts_with("Install five") && words[1].starts_with("Remove four"), "{words:?}");
    let labels: Vec<&str> = count.fixes.iter().map(|c| c.label.as_str()).collect();
    assert_eq!(labels, ["5 is right", "4 is right", "Both stand as said"]);

    let take = |kettle: &mut Kettle, n: usize| {
        let edit = count.fixes[n].edit.clone();
        kettle.manual = kettle.manual.apply(&edit, "Ann").unwrap().0;
    };
    take(&mut kettle, 2);
    let settled = kettle.contradiction(RuleId::CountContradicted).unwrap().set_aside;
    assert_eq!(settled.as_deref(), Some("Both stand as said"));
    take(&mut kettle, 1);
    assert_eq!(kettle.contradiction(RuleId::CountContradicted), None);
}

#[rstest]
fn a_statement_becomes_a_step_once(kettle: Kettle) {
    let heard = kettle.heard();
    let hot = &heard.statements.iter().find(|h| h.statement.text.starts_with("The heeter is hot")).unwrap().statement;
    let (id, edit) = kettle.manual.step_from(kettle.id, hot);
    let next = kettle.manual.apply(&edit, "Ann").unwrap().0;
    assert_eq!(next.steps[&id].actions[0].text, Some(hot.text.clone()));
    assert!(next.apply(&edit, "Ann").is_err(), "asked for twice, it is one step");
    let row = next.hear_anew(kettle.id, &kettle.source);
    let row = row.statements.iter().find(|h| h.statement.start == hot.start).unwrap();
    assert_eq!(row.step, Some(id));
}

#[rstest]
fn what_is_no_part_of_the_job_tells_no_facts(mut kettle: Kettle) {
    let s = kettle.heard().statements.into_iter().find(|h| h.statement.text.starts_with("Unplug")).unwrap().statement;
    let id = CorrectionId(Uuid::from_u128(1));
    kettle.apply(ReadingEdit::Drop { id, recording: kettle.id, start: s.start, end: s.end, dropped: true });
    let sheet = kettle.sheet();
    assert!(sheet.connectors.iter().all(|c| c.at_s != 40), "{:?}", sheet.connectors);
}

#[rstest]
fn a_table_that_nobody_edited_changes_nothing(mut kettle: Kettle) {
    kettle.apply(kettle.word(1, "fan", Some("pump")));
    let heard = kettle.heard();
    assert_eq!(kettle.manual.from_csv(kettle.id, &heard, to_csv(&heard).as_bytes()), Ok(vec![]));
}

#[rstest]
fn an_edited_table_comes_back_as_corrections(mut kettle: Kettle) {
    let heard = kettle.heard();
    let table = to_csv(&heard)
        .replace("Take out the heeter.", "Take out the big heater.")
        .replace(",action,yes,Unplug the fan cable.", ",test,no,Unplug the fan cable.");
    let edits = kettle.manual.from_csv(kettle.id, &heard, table.as_bytes()).unwrap();
    assert_eq!(edits.len(), 3, "{edits:?}");
    kettle.apply(ReadingEdit::Several { edits });
    let heard = kettle.heard();
    let unplug = heard.statements.iter().find(|h| h.statement.text.starts_with("Unplug")).unwrap();
    assert_eq!((unplug.kind, unplug.dropped), (StatementKind::Test, true));
    assert!(to_csv(&heard).contains("Take out the big heater."));
}

#[rstest]
#[case::kind(",action,yes,Unplug", ",actoin,yes,Unplug", "kind", "“actoin” is no kind. Write one of action,")]
#[case::in_job(",action,yes,Unplug", ",action,maybe,Unplug", "in_job", "“maybe” is neither yes nor no.")]
#[case::facts("\"\"acts\"\":", "\"\"axts\"\":", "facts", "The facts are not the JSON that came out")]
fn a_bad_cell_is_named_with_its_row(
    kettle: Kettle,
    #[case] from: &str,
    #[case] to: &str,
    #[case] column: &str,
    #[case] problem: &str,
) {
    let heard = kettle.heard();
    let table = to_csv(&heard).replacen(from, to, 1);
    let errors = kettle.manual.from_csv(kettle.id, &heard, table.as_bytes()).unwrap_err();
    assert_eq!(errors.len(), 1, "{errors:?}");
    assert_eq!(errors[0].column, column);
    assert!(errors[0].row >= 2 && errors[0].problem.starts_with(problem), "{errors:?}");
}

#[rstest]
#[case("kind,text\naction,Lift it.\n", "The table has no column start and end.")]
#[case("start,end\n1,9000\n", "No statement stands at characters 1 to 9000.")]
#[case("start,end\nfirst,2\n", "“first” is no number of a character.")]
fn a_table_of_something_else_is_refused(kettle: Kettle, #[case] table: &str, #[case] problem: &str) {
    let errors = kettle.manual.from_csv(kettle.id, &kettle.heard(), table.as_bytes()).unwrap_err();
    assert!(errors[0].problem.starts_with(problem), "{errors:?}");
}

#[rstest]
fn wrong_places_are_refused_with_a_sentence(kettle: Kettle) {
    let id = CorrectionId(Uuid::from_u128(1));
    let backwards = ReadingEdit::Drop { id, recording: kettle.id, start: 9, end: 9, dropped: true };
    assert!(kettle.refused(backwards).contains("no stretch of text"));
    let foreign = ReadingEdit::Cut { id, recording: RecordingId(Uuid::nil()), at: 3, joins: false };
    assert!(kettle.refused(foreign).contains("no longer there"));
    let nested = ReadingEdit::Several { edits: vec![ReadingEdit::Several { edits: vec![] }] };
    assert!(kettle.refused(nested).contains("may not hold several"));
}

#[rstest]
fn a_second_recording_adds_what_is_new_where_it_is_told(kettle: Kettle) {
    let source = Recording::parse(b"[0:00] Take off the base plate. Take out the switch.").unwrap();
    let read = reading::read(&source);
    let id = RecordingId(Uuid::from_u128(8));
    let recording = RecordingRef { id, title: "take two".into(), duration_ms: 0 };
    let drafted =
        draft_more(&kettle.manual, &Source { recording: recording.clone(), reading: &read }).expect("a draft");
    let edit = Edit::Recording(RecordingEdit::Attach { recording, drafted: Some(Box::new(drafted)) });
    let (both, change) = kettle.manual.apply(&edit, "Ann").unwrap();
    assert_eq!(both.recordings.len(), 2);
    assert_eq!(both.steps.len(), kettle.manual.steps.len() + 1, "the base plate was told before");
    let plates = both.parts.values().filter(|p| p.name.eq_ignore_ascii_case("base plate")).count();
    assert_eq!(plates, 1, "one part, told twice");
    let titles: Vec<&str> =
        both.steps_in(paso_core::manual::Phase::Teardown).iter().map(|s| s.title.as_str()).collect();
    let at = titles.iter().position(|t| t.to_lowercase().contains("switch")).expect("a step for the switch");
    assert_eq!(titles[at - 1], "Remove the base plate", "{titles:?}");
    assert!(both.apply(&edit, "Ann").is_err(), "the same recording only once");
    assert_eq!(both.revert(&change).unwrap().0.steps, kettle.manual.steps);
}
