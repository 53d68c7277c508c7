//! A word is heard that this house put right elsewhere: the same correction is one press away.

use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::ids::*;
use crate::manual::{CorrectedReading, Edit, HeardPlace, House, HouseWord, Manual, ReadingEdit};
use crate::reading::{Statement, is_known};
use uuid::Uuid;

pub(super) const RULE: Rule = Rule {
    id: RuleId::HouseWord,
    stop: Stop::Listen,
    blocks: false,
    may_set_aside: true,
    why: "A recogniser mishears the same word in every recording of one narrator.",
    source: "common practice, no source",
};

/// One finding a word, with every place that it stands in.
pub(super) fn find<'a>(
    manual: &'a Manual,
    read: &'a CorrectedReading,
    house: &'a House,
) -> impl Iterator<Item = Finding> + 'a {
    // A word that means something by itself was misheard there, and not everywhere.
    let odd = |heard: &str| heard.contains(' ') || !is_known(heard);
    house.words().filter(move |(heard, _)| odd(heard)).filter_map(move |(heard, word)| {
        let mut places = read.places(heard);
        places.retain(|p| !repaired(&read.reading.statements, p, &word.meant));
        (!places.is_empty()).then(|| offer(&places, word).decided(manual))
    })
}

/// The reader knows the word by itself.
fn repaired(statements: &[Statement], place: &HeardPlace, meant: &str) -> bool {
    let here = statements.iter().flat_map(|s| &s.repairs).filter(|r| r.start <= place.start && place.end <= r.end);
    here.into_iter().any(|r| r.by_author || r.meant.eq_ignore_ascii_case(meant))
}

fn offer(places: &[HeardPlace], word: &HouseWord) -> Finding {
    let HouseWord { meant, decided_in } = word;
    let heard = &places[0].heard;
    let (n, times) = (places.len(), if places.len() == 1 { "once" } else { "several times" });
    let says = format!("“{heard}” was put right to “{meant}” in “{decided_in}”; here it is heard {times}.");
    let label = if n == 1 { format!("Put “{meant}” here") } else { format!("Put “{meant}” in all {n} places") };
    let fix = |p: &HeardPlace| ReadingEdit::Word {
        id: CorrectionId(Uuid::new_v5(&p.recording.0, format!("house/{}/{meant}", p.start).as_bytes())),
        recording: p.recording,
        start: p.start,
        end: p.end,
        heard: p.heard.clone(),
        meant: Some(meant.clone()),
    };
    let edits = places.iter().map(fix).collect();
    let words = |p: &HeardPlace| Subject::Words { recording: p.recording, start: p.start, end: p.end };
    let about = places.iter().take(2).map(words).collect();
    RULE.finding_about(about, says).with([Fix::new(label, Edit::Reading(ReadingEdit::Several { edits }))])
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::findings;
    use crate::finding::Finding;
    use crate::ids::*;
    use crate::manual::drafted::{RECORDING, manual, recording};
    use crate::manual::{Edit, House, Manual, ReadingEdit};
    use rstest::rstest;
    use uuid::Uuid;

    /// The house put “heard” right to “meant” in another manual.
    fn house(heard: &str, meant: &str) -> House {
        let mut other = manual(&format!("[0:00] Take off the lid. The {heard} is loose."));
        other.head.title = "Lamp".into();
        let start = "Take off the lid. The ".chars().count();
        let edit = ReadingEdit::Word {
            id: CorrectionId(Uuid::from_u128(1)),
            recording: RECORDING,
            start,
            end: start + heard.chars().count(),
            heard: heard.into(),
            meant: Some(meant.into()),
        };
        House::of([&other.apply(&Edit::Reading(edit), "Ann").unwrap().0])
    }

    fn offered(manual: &Manual, text: &str, house: &House) -> Vec<Finding> {
        let read = manual.corrections_of(RECORDING).read(&recording(text));
        findings(manual, &read, house).into_iter().filter(|f| f.rule == RULE.id).collect()
    }

    #[rstest]
    #[case::once(
        "[0:00] Pull the strabel out.",
        "“strabel” was put right to “strap” in “Lamp”; here it is heard once.",
        "Put “strap” here"
    )]
    #[case::twice(
        "[0:00] Pull the Strabel out. Lay the strabel aside.",
        "“Strabel” was put right to “strap” in “Lamp”; here it is heard several times.",
        "Put “strap” in all 2 places"
    )]
    fn it_is_offered(#[case] text: &str, #[case] says: &str, #[case] label: &str) {
        let found = offered(&manual(text), text, &house("strabel", "strap"));
        assert_eq!(found.len(), 1);
        assert_eq!((found[0].says.as_str(), found[0].fixes[0].label.as_str()), (says, label));
        assert!(!found[0].blocks);
    }

    #[test]
    fn one_press_puts_it_right_everywhere() {
        let text = "[0:00] Pull the strabel out. Lay the strabel aside.";
        let (m, house) = (manual(text), house("strabel", "strap"));
        let fix = offered(&m, text, &house).remove(0).fixes.remove(0);
        let mended = m.apply(&fix.edit, "Ann").unwrap().0;
        assert!(offered(&mended, text, &house).is_empty());
        let read = mended.corrections_of(RECORDING).read(&recording(text));
        assert!(read.reading.statements.iter().all(|s| s.facts.parts.iter().all(|p| p.what == "strap")));
    }

    #[rstest]
    #[case::not_heard("[0:00] Pull the cord out.", "strabel", "strap")]
    #[case::part_of_a_word("[0:00] Pull the strabels out.", "strabel", "strap")]
    #[case::a_word_that_means_something("[0:00] Lift the left cover off.", "left", "lift")]
    #[case::the_reader_knows_it("[0:00] Take the sponger and pry the cover off.", "sponger", "spudger")]
    fn nothing_is_offered(#[case] text: &str, #[case] heard: &str, #[case] meant: &str) {
        assert!(offered(&manual(text), text, &house(heard, meant)).is_empty());
    }
}
