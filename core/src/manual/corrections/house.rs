//! House words: what the authors of a house put right once, to be offered wherever the same is heard again.
//!
//! A recogniser mishears the same word in every recording of one narrator, and a house calls one part by one name. Nothing
//! is put right by itself: the next recording offers it, with the guide that it was decided in.

use crate::manual::Manual;
use std::collections::BTreeMap;

/// What was heard, or what the reader called a part, with what a house made of it.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct House {
    words: BTreeMap<String, HouseWord>,
    names: BTreeMap<String, HouseWord>,
}

/// What is said in this house, and where that was decided.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct HouseWord {
    pub meant: String,
    /// Title of the manual.
    pub decided_in: String,
}

impl House {
    /// Collects what was put right in these manuals. Where two disagree, the first one holds: hand over the latest first.
    pub fn of<'a>(manuals: impl IntoIterator<Item = &'a Manual>) -> Self {
        let mut house = Self::default();
        for manual in manuals {
            let word = |meant: &str| HouseWord { meant: meant.to_owned(), decided_in: manual.head.title.clone() };
            // A word that was taken out altogether means something in its own recording only.
            for fix in manual.word_fixes.values().filter(|w| !w.meant.is_empty() && differs(&w.heard, &w.meant)) {
                house.words.entry(fix.heard.to_lowercase()).or_insert_with(|| word(&fix.meant));
            }
            for part in manual.parts.values() {
                let Some(heard) = part.heard_as.as_ref().filter(|heard| differs(heard, &part.name)) else { continue };
                house.names.entry(heard.to_lowercase()).or_insert_with(|| word(&part.name));
            }
        }
        house
    }

    /// Words as they were heard, in small letters, with what was meant.
    pub fn words(&self) -> impl Iterator<Item = (&str, &HouseWord)> {
        self.words.iter().map(|(heard, word)| (heard.as_str(), word))
    }

    /// What this house calls a part that the reader calls so.
    pub fn name(&self, heard: &str) -> Option<&HouseWord> {
        self.names.get(&heard.to_lowercase())
    }

    pub fn is_empty(&self) -> bool {
        self.words.is_empty() && self.names.is_empty()
    }
}

/// Another word, and not only other capitals.
fn differs(heard: &str, meant: &str) -> bool {
    heard.to_lowercase() != meant.to_lowercase()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted::manual;
    use crate::manual::{Edit, PartEdit};

    fn renamed(title: &str, name: &str) -> Manual {
        let mut m = manual("[0:00] Take off the lid. Remove the lumber module.");
        m.head.title = title.into();
        let id = m.parts.values().find(|p| p.name == "lumber module").unwrap().id;
        m.apply(&Edit::Part(PartEdit::Rename { id, name: name.into() }), "Ann").unwrap().0
    }

    #[test]
    fn a_renamed_part_is_known_by_what_the_reader_called_it() {
        let house = House::of([&renamed("Lamp", "limb module")]);
        assert_eq!(house.name("Lumber module").unwrap().meant, "limb module");
        assert_eq!(house.name("lumber module").unwrap().decided_in, "Lamp");
        assert_eq!(house.name("lid"), None);
    }

    #[test]
    fn renamed_twice_it_is_still_known_by_what_was_heard() {
        let once = renamed("Lamp", "limb board");
        let id = once.parts.values().find(|p| p.name == "limb board").unwrap().id;
        let twice = once.apply(&Edit::Part(PartEdit::Rename { id, name: "limb module".into() }), "Ann").unwrap().0;
        assert_eq!(House::of([&twice]).name("lumber module").unwrap().meant, "limb module");
    }

    #[test]
    fn renamed_back_it_is_no_house_word() {
        let once = renamed("Lamp", "limb module");
        let id = once.parts.values().find(|p| p.name == "limb module").unwrap().id;
        let back = once.apply(&Edit::Part(PartEdit::Rename { id, name: "lumber module".into() }), "Ann").unwrap().0;
        assert!(House::of([&back]).is_empty());
    }

    #[test]
    fn the_first_manual_decides() {
        let house = House::of([&renamed("New", "limb module"), &renamed("Old", "arm module")]);
        assert_eq!(house.name("lumber module").unwrap().decided_in, "New");
    }
}
