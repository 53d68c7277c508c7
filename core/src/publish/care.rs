//! Words of care that every guide begins with.

use crate::manual::{Manual, Phase, Step};
use crate::things::{holds_charge, is_glass, is_lithium, is_mains};

/// Words of care by what the guide touches; licensed work and local rules go first.
///
/// Source: hazards of the trade (common practice, no source).
pub(super) fn care(manual: &Manual) -> Vec<String> {
    // Only what this guide moves, loosens or reaches: a cut guide may leave the cell alone.
    let any = |is: fn(&str) -> bool| manual.steps.values().flat_map(|s| manual.worked_at(s)).any(is);
    let mut out = vec!["Switch the device off and unplug it before you begin. What local codes reserve for licensed people stays with them.".to_owned()];
    if any(is_lithium) {
        out.push("Never pierce, bend, heat or short a lithium cell. Stop if it is swollen, and hand it in where local rules say.".to_owned());
    }
    if any(is_mains) || any(holds_charge) {
        out.push("Mains parts can hold a charge after unplugging. Work on them belongs to licensed people; follow local codes.".to_owned());
    }
    if !manual.heats.is_empty() {
        out.push(
            "Hot surfaces burn. Keep heat away from cells, and wear gloves where you work on warm parts.".to_owned(),
        );
    }
    if any(is_glass) {
        out.push("Glass can splinter when it is lifted: wear eye protection.".to_owned());
    }
    out
}

/// Lines that this guide crosses, with who works behind them; where nobody is named it says that it stops.
pub(super) fn gates(manual: &Manual) -> Vec<String> {
    let line = |g: crate::checks::Gated| {
        let who = match g.who {
            Some(who) => format!("Who does it: {}.", who.trim_end_matches('.')),
            None => "This guide stops there: nobody has been named who does it.".to_owned(),
        };
        format!("{} ({}). {who}", g.gate.belongs(), g.what)
    };
    crate::checks::gated(manual).into_iter().map(line).collect()
}

/// What nobody has looked at says so to whoever follows it.
pub(super) fn unreviewed(manual: &Manual) -> Option<String> {
    let steps: Vec<&Step> = [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| manual.steps_in(p)).collect();
    let open = steps.iter().filter(|s| !s.reviewed).count();
    (open > 0).then(|| {
        format!("{open} of {} steps below were drafted from a recording and reviewed by nobody yet.", steps.len())
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted::manual;
    use rstest::rstest;

    fn care_of(text: &str) -> String {
        care(&manual(text)).join(" ")
    }

    #[rstest]
    #[case::cell("Take out the battery.", "lithium cell", true)]
    #[case::load_cell("Take out the load cell.", "lithium cell", false)]
    #[case::its_cover("Take off the battery cover.", "lithium cell", false)]
    #[case::memory("Undo the two screws of the memory socket. Remove the memory socket.", "Mains parts", false)]
    #[case::supply("Remove the power supply board.", "Mains parts", true)]
    #[case::capacitor("Remove the smoothing capacitor.", "Mains parts", true)]
    #[case::lens("Lift out the lens holder.", "splinter", false)]
    #[case::glass("Lift off the display.", "splinter", true)]
    fn warned_of_what_parts_are_and_not_of_a_word_in_them(
        #[case] text: &str,
        #[case] words: &str,
        #[case] warned: bool,
    ) {
        assert_eq!(care_of(text).contains(words), warned, "{}", care_of(text));
    }
}
