//! A part goes by more nouns in a row than can be taken apart at a glance.

use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};

pub(super) const RULE: Rule = Rule {
    id: RuleId::NounString,
    stop: Stop::Steps,
    blocks: false,
    may_set_aside: true,
    why: "Of five nouns in a row nobody sees which one the part is.",
    source: "ASD-STE100: at most three nouns in a row (from memory)",
};

/// Most nouns in a row.
const MOST: usize = 3;
/// Words of a name that are no nouns: which one, where, of what.
const OTHERS: [&str; 26] = [
    "the", "of", "for", "left", "right", "upper", "lower", "front", "rear", "back", "top", "bottom", "main", "small",
    "large", "long", "short", "new", "old", "inner", "outer", "middle", "first", "second", "two", "four",
];

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    let parts = case.manual.parts.values().filter(|p| nouns(&p.name) > MOST);
    parts
        .map(|p| {
            let says = format!(
                "“{}” is {} nouns in a row. Call it by the last of them, or part it with “of”: one name, the same in every sentence.",
                p.name,
                nouns(&p.name)
            );
            RULE.finding(Subject::Part(p.id), says)
        })
        .collect()
}

/// The longest row of nouns in a name.
fn nouns(name: &str) -> usize {
    let others = |w: &str| OTHERS.contains(&w) || w.chars().any(|c| c.is_ascii_digit());
    let lower = name.to_lowercase();
    let words = lower.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty());
    let (longest, _) = words.fold((0, 0), |(longest, row), word| {
        let row = if others(word) { 0 } else { row + 1 };
        (longest.max(row), row)
    });
    longest
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::checks::drafted::manual;
    use crate::checks::findings;
    use crate::manual::{Edit, PartEdit};
    use rstest::rstest;

    #[rstest]
    #[case("battery bracket", 2)]
    #[case("rear camera flex cable", 3)]
    #[case("camera flex cable bracket", 4)]
    #[case("bracket of the camera flex cable", 3)]
    #[case("left T5 screw post", 2)]
    fn nouns_in_a_row(#[case] name: &str, #[case] count: usize) {
        assert_eq!(nouns(name), count);
    }

    #[test]
    fn a_part_with_a_long_name() {
        let told = manual("Take off the cover. Take out the fan.");
        let id = told.parts.values().find(|p| p.name == "fan").expect("it is a part").id;
        let found = |name: &str| {
            let renamed = told.apply(&Edit::Part(PartEdit::Rename { id, name: name.to_owned() }), "Ann").unwrap().0;
            findings(&renamed).into_iter().any(|f| f.rule == RULE.id)
        };
        assert!(found("pump motor fan housing") && !found("fan housing"));
    }
}
