//! Words of care that every guide begins with.

use super::CautionBlock;
use crate::cables::power::line;
use crate::cautions::CautionHead;
use crate::cautions::catalogue::entry;
use crate::cautions::coverage::{Covered, stretches};
use crate::cautions::prepare::preparation;
use crate::cautions::signs::Sign;
use crate::manual::{Hazard, Level, Manual, Phase, Step};
use crate::rebuild::Fold;
use crate::things::{holds_charge, is_glass, is_lithium, is_mains};

/// Words of care by what the guide touches; licensed work and local rules go first.
///
/// Source: hazards of the trade (common practice, no source).
pub(super) fn care(manual: &Manual) -> Vec<CautionBlock> {
    // Only what this guide moves, loosens or reaches: a cut guide may leave the cell alone.
    let any = |is: fn(&str) -> bool| manual.steps.values().flat_map(|s| manual.worked_at(s)).any(is);
    let mains = any(is_mains) || any(holds_charge);
    let says = |head, text: &str| CautionBlock { head, text: text.to_owned() };
    let of = CautionHead::named;
    let off = "Switch the device off and unplug it before you begin. What local codes reserve for licensed people stays with them.";
    let cell = "Never pierce, bend, heat or short a lithium cell. Stop if it is swollen, and hand it in where local rules say.";
    let charge =
        "Mains parts can hold a charge after unplugging. Work on them belongs to licensed people; follow local codes.";
    let hot = "Hot surfaces burn. Keep heat away from cells, and wear gloves where you work on warm parts.";
    let glass = "Glass can splinter when it is lifted: wear eye protection.";
    let all = [
        (true, says(CautionHead::of(if mains { Level::Warning } else { Level::Caution }), off)),
        (any(is_lithium), says(of(Level::Warning, "battery cell").under(Sign::Explosive), cell)),
        (mains, says(of(Level::Danger, "mains voltage").under(Sign::Electricity), charge)),
        (!manual.heats.is_empty(), says(of(Level::Caution, "hot parts").under(Sign::Hot), hot)),
        (any(is_glass), says(of(Level::Caution, "glass").under(Sign::Eyes), glass)),
    ];
    let mut out: Vec<CautionBlock> = all.into_iter().filter(|(holds, _)| *holds).map(|(_, block)| block).collect();
    out.sort_by_key(|block| std::cmp::Reverse(block.head.level));
    out
}

/// What the way back brings about as a whole, where nobody warned of it at a step.
pub(super) fn on_the_way_back(manual: &Manual, fold: &Fold) -> Vec<CautionBlock> {
    if fold.rebuild.is_empty() {
        return Vec::new();
    }
    let all = stretches(manual);
    let said = |h| all.iter().any(|s| s.hazard() == h && s.covered == Covered::Said);
    let brought = |h| all.iter().any(|s| s.hazard() == h);
    let bonded = manual.seams.values().any(|s| s.rebond.is_some());
    let fed = !line(manual).sources.is_empty();
    [(Hazard::FirstPower, fed), (Hazard::Curing, bonded)]
        .into_iter()
        .filter(|(h, holds)| (*holds || brought(*h)) && !said(*h))
        .map(|(h, _)| CautionBlock { head: CautionHead::from_catalogue(h), text: entry(h).avoidance.to_owned() })
        .collect()
}

/// What must be ready before the first step, each with what asks for it.
pub(super) fn prepared(manual: &Manual) -> Vec<String> {
    let all = preparation(&stretches(manual)).into_iter();
    all.map(|p| format!("{} ({})", p.what, p.because)).collect()
}

/// Lines that this guide crosses, with who works behind them; where nobody is named it says that it stops.
pub(super) fn gates(manual: &Manual) -> Vec<CautionBlock> {
    let line = |g: crate::checks::Gated| {
        let who = match g.who {
            Some(who) => format!("Who does it: {}.", who.trim_end_matches('.')),
            None => "This guide stops there: nobody has been named who does it.".to_owned(),
        };
        let text = format!("{} ({}). {who}", g.gate.belongs(), g.what);
        CautionBlock { head: CautionHead::of(Level::Danger), text }
    };
    crate::checks::gated(manual).into_iter().map(line).collect()
}

/// What nobody has looked at says so to whoever follows it.
pub(super) fn unreviewed(manual: &Manual) -> Option<CautionBlock> {
    let steps: Vec<&Step> = [Phase::Teardown, Phase::Rebuild].into_iter().flat_map(|p| manual.steps_in(p)).collect();
    let open = steps.iter().filter(|s| !s.reviewed).count();
    (open > 0).then(|| {
        let text =
            format!("{open} of {} steps below were drafted from a recording and reviewed by nobody yet.", steps.len());
        CautionBlock { head: CautionHead::of(Level::Notice), text }
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted::manual;
    use rstest::rstest;

    fn care_of(text: &str) -> String {
        care(&manual(text)).iter().map(|b| b.text.as_str()).collect::<Vec<_>>().join(" ")
    }

    #[rstest]
    #[case::fed("Unplug it from the wall. Take off the cover. Take out the fan.", &["first power after the work"])]
    #[case::nothing_feeds_it("Take off the cover. Take out the fan.", &[])]
    #[case::bonded(
        "Take off the cover. Take out the fan. Now we put it back together. Apply new adhesive to the frame. Put the fan in.",
        &["bond that has not set"]
    )]
    #[case::said_at_its_step(
        "Take off the cover. Take out the fan. Now we put it back together. Caution, leave the glue alone until it has dried, or \
         the seal leaks. Apply new adhesive to the frame. Put the fan in.",
        &[]
    )]
    fn the_way_back_begins_with_what_it_brings_about(#[case] text: &str, #[case] wanted: &[&str]) {
        let manual = manual(text);
        let blocks = on_the_way_back(&manual, &crate::rebuild::fold(&manual));
        let hazards: Vec<&str> = blocks.iter().filter_map(|b| b.head.hazard.as_deref()).collect();
        assert_eq!(hazards, wanted);
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
