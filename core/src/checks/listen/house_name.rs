//! The reader calls a part by a name that this house changed elsewhere.

use crate::finding::{Finding, Fix, Rule, RuleId, Stop, Subject};
use crate::manual::{CorrectedReading, Edit, Evidence, House, HouseWord, Manual, Part, PartEdit};

pub(super) const RULE: Rule = Rule {
    id: RuleId::HouseName,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "A house that calls one part by one name is understood by its readers and finds its parts again.",
    source: "common practice, no source",
};

/// One finding a part that still has the reader's name.
pub(super) fn find<'a>(
    manual: &'a Manual,
    read: &'a CorrectedReading,
    house: &'a House,
) -> impl Iterator<Item = Finding> + 'a {
    let from_here = |p: &Part| p.evidence.first().and_then(Evidence::recording) == Some(read.recording);
    let drafted = manual.parts.values().filter(move |p| p.heard_as.is_none() && from_here(p));
    drafted.filter_map(move |part| {
        let word = house.name(&part.name)?;
        let taken = manual.parts.values().any(|p| p.name.eq_ignore_ascii_case(&word.meant));
        (!taken).then(|| offer(part, word).decided(manual))
    })
}

fn offer(part: &Part, word: &HouseWord) -> Finding {
    let HouseWord { meant, decided_in } = word;
    let says = format!("The {} is called {meant} in “{decided_in}”.", part.name);
    let edit = PartEdit::Rename { id: part.id, name: meant.clone() };
    RULE.finding(Subject::Part(part.id), says).with([Fix::new(format!("Call it {meant}"), Edit::Part(edit))])
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::findings;
    use crate::finding::Finding;
    use crate::manual::drafted::{RECORDING, manual, recording};
    use crate::manual::{Edit, House, Manual, PartEdit};

    const TEXT: &str = "[0:00] Take off the lid. Remove the lumber module.";

    fn rename(m: &Manual, from: &str, to: &str) -> Manual {
        let id = m.parts.values().find(|p| p.name == from).unwrap().id;
        m.apply(&Edit::Part(PartEdit::Rename { id, name: to.into() }), "Ann").unwrap().0
    }

    fn offered(m: &Manual) -> Vec<Finding> {
        let mut other = rename(&manual(TEXT), "lumber module", "limb module");
        other.head.title = "Lamp".into();
        let read = m.corrections_of(RECORDING).read(&recording(TEXT));
        findings(m, &read, &House::of([&other])).into_iter().filter(|f| f.rule == RULE.id).collect()
    }

    #[test]
    fn the_name_of_the_house_is_offered_and_taken() {
        let m = manual(TEXT);
        let found = offered(&m);
        assert_eq!(found.len(), 1);
        assert_eq!(found[0].says, "The lumber module is called limb module in “Lamp”.");
        let mended = m.apply(&found[0].fixes[0].edit, "Ann").unwrap().0;
        assert!(mended.parts.values().any(|p| p.name == "limb module"));
        assert!(offered(&mended).is_empty());
    }

    #[test]
    fn an_author_who_chose_another_name_is_left_alone() {
        assert!(offered(&rename(&manual(TEXT), "lumber module", "side module")).is_empty());
    }

    #[test]
    fn a_name_that_is_taken_is_not_offered() {
        assert!(offered(&rename(&manual(TEXT), "lid", "limb module")).is_empty());
    }
}
