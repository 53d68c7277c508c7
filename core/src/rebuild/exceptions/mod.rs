//! Exceptions from mere reversing, one file each: what stands elsewhere, why, and where that is from.
//!
//! Each takes the reverse as it stands and moves what it is about. An author may overrule any of them for one step, with a
//! reason; what is overruled stands where mere reversing puts it, and says so.

mod pack_last;
mod power_last;
mod switched_on_last;

use super::inverse::Reversed;
use crate::finding::{Subject, decision_key};
use crate::ids::FindingKey;
use crate::labels;
use crate::manual::Manual;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What puts a step of the rebuild elsewhere.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum OrderRule {
    PowerLast,
    PackLast,
    SwitchedOnLast,
    /// The narrator goes another way.
    ToldElsewhere,
}

labels!(OrderRule {
    PowerLast: "power last",
    PackLast: "pack behind all plugs",
    SwitchedOnLast: "switched on last",
    ToldElsewhere: "told here",
});

/// Why a step of the rebuild does not stand where mere reversing would put it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Moved {
    pub rule: OrderRule,
    /// The sentence for people: what waits for what.
    pub because: String,
    /// "common practice: no hot plugging, no source"
    pub source: String,
    /// By what an author overrules it; `None` where there is nothing to overrule.
    pub key: Option<FindingKey>,
    /// The author's reason, where it was overruled: then it stands where mere reversing puts it.
    pub overruled: Option<String>,
}

impl Moved {
    /// As readers are told it.
    pub fn words(&self) -> String {
        format!("{} ({})", self.because.trim_end_matches('.'), self.source) + "."
    }

    /// Whether it stands elsewhere.
    pub fn moves(&self) -> bool {
        self.overruled.is_none()
    }
}

/// One exception.
struct Exception {
    rule: OrderRule,
    source: &'static str,
    /// Which steps of the reverse it is about.
    about: fn(&Manual, &Reversed) -> bool,
    /// Where a step goes that it is about, among the others; `None` where it may stay.
    place: fn(&Manual, &[Reversed]) -> Option<Place>,
}

/// A place among the steps of the reverse, and the sentence that says why.
struct Place {
    to: usize,
    because: String,
}

/// In the order in which they are applied: what is switched on last goes behind what is connected last.
const ALL: [&Exception; 3] = [&pack_last::EXCEPTION, &power_last::EXCEPTION, &switched_on_last::EXCEPTION];

/// Moves what does not stand where mere reversing puts it. O(steps² of the reverse that an exception is about).
pub(super) fn apply(manual: &Manual, out: &mut Vec<Reversed>) {
    for exception in ALL {
        // From the back, that what is moved to one place keeps its order.
        for at in (0..out.len()).rev() {
            if out[at].moved.is_none() && (exception.about)(manual, &out[at]) {
                exception.put(manual, out, at);
            }
        }
    }
}

impl Exception {
    fn put(&self, manual: &Manual, out: &mut Vec<Reversed>, at: usize) {
        let mut step = out.remove(at);
        let Some(Place { to, because }) = (self.place)(manual, out).filter(|p| p.to > at) else {
            out.insert(at, step);
            return;
        };
        let key = decision_key(self.rule, &[Subject::Step(step.of)]);
        let overruled = manual.set_aside.get(&key).map(|aside| aside.because.clone());
        let to = if overruled.is_some() { at } else { to };
        step.moved =
            Some(Moved { rule: self.rule, because, source: self.source.to_owned(), key: Some(key), overruled });
        out.insert(to, step);
    }
}

/// Behind the last step that makes a connector which is no source; with the number of that step in the teardown.
fn behind_the_plugs(manual: &Manual, out: &[Reversed]) -> Option<(usize, usize)> {
    let makes = |s: &Reversed| s.connectors.iter().any(|c| !manual.connectors[c].power);
    let last = out.iter().rposition(makes)?;
    Some((last + 1, out[last].of_number))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{Edit, FindingEdit, drafted};
    use crate::rebuild::{RebuildStep, fold};
    use rstest::rstest;

    /// What stands elsewhere, with its rule; `!` before what was overruled.
    fn moved(manual: &Manual) -> Vec<String> {
        let words = |s: RebuildStep| {
            let moved = s.moved?;
            let mark = if moved.moves() { "" } else { "!" };
            Some(format!("{mark}{}: {}", crate::labels::Label::label(moved.rule), s.title))
        };
        fold(manual).rebuild.into_iter().filter_map(words).collect()
    }

    const LATE_POWER: &str = "[0:00] Take off the cover.\n\n[0:10] Disconnect the fan cable. Take out the fan.\n\n\
                              [0:20] Disconnect the battery connector.\n\n[0:30] Take out the board.";
    const LATE_OFF: &str = "[0:00] Take off the cover.\n\n[0:10] Switch off the lamp.\n\n[0:20] Take out the fan.";

    #[rstest]
    #[case::power(LATE_POWER, "power last")]
    #[case::switch(LATE_OFF, "switched on last")]
    fn an_author_overrules_with_a_reason_and_it_stands_where_reversing_puts_it(#[case] told: &str, #[case] rule: &str) {
        let manual = drafted::manual(told);
        let before = fold(&manual).rebuild;
        let own = before.iter().position(|s| s.moved.is_some()).expect("something is moved");
        let (of, moved_by) = (before[own].of.expect("it undoes one"), before[own].moved.clone().unwrap());
        assert_eq!(crate::labels::Label::label(moved_by.rule), rule);
        let id = moved_by.key.expect("it can be overruled");
        let because = "The maker wants it so.".to_owned();
        let edit = FindingEdit::SetAside { id, rule: rule.to_owned(), because: because.clone() };
        let overruled = manual.apply(&Edit::Finding(edit), "Ann").expect("a reason").0;
        let after = fold(&overruled).rebuild;
        let now = after.iter().position(|s| s.of == Some(of) && s.moved.is_some()).expect("it says so");
        assert!(now < own, "{now} {own}");
        assert_eq!(after[now].moved.as_ref().unwrap().overruled.as_ref(), Some(&because));
        let again = overruled.apply(&Edit::Finding(FindingEdit::TakeUp { id }), "Ann").expect("it stands again").0;
        assert_eq!(moved(&again), moved(&manual));
    }

    /// A told rebuild changes nothing about it.
    #[test]
    fn what_is_overruled_stands_so_beside_a_told_rebuild() {
        let told = format!(
            "{LATE_OFF}\n\n[0:30] Take out the tray.\n\n[0:40] Now the assembly. Put the tray in.\n\n\
                            [0:50] Put the fan in.\n\n[1:00] Put the cover on."
        );
        let manual = drafted::manual(&told);
        let steps = fold(&manual).rebuild;
        let on = steps.last().and_then(|s| s.moved.clone()).expect("switched on last");
        let id = on.key.expect("it can be overruled");
        let edit = FindingEdit::SetAside { id, rule: "switched on last".to_owned(), because: "A lamp.".to_owned() };
        let overruled = manual.apply(&Edit::Finding(edit), "Ann").expect("a reason").0;
        let titles: Vec<String> = fold(&overruled).rebuild.into_iter().map(|s| s.title).collect();
        assert_eq!(titles, ["Fit the tray", "Fit the fan", "Switch on and test", "Fit the cover"]);
    }
}
