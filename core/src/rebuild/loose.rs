//! What lies loose goes in before what holds it: once the cap is on, no hand reaches the spring under it.
//!
//! A list in one breath ("take off the cap, the spring and the washer") tells no order but that in which things come away, so
//! the way back turns it round, and what holds nothing by itself goes ahead of all else. Source: common practice, no source.

use crate::ids::PartId;
use crate::manual::Manual;
use crate::things::lies_loose;

/// The parts of one act in the order in which they go back: from the last to the first, loose ones ahead.
pub(super) fn in_order(manual: &Manual, parts: &[PartId]) -> Vec<PartId> {
    let loose = |p: &PartId| lies_loose(manual.part_name(*p));
    let (first, then): (Vec<PartId>, Vec<PartId>) = parts.iter().rev().copied().partition(loose);
    first.into_iter().chain(then).collect()
}

/// Why loose parts stand ahead of another; `None` where nothing holds them, or nothing is loose.
pub(super) fn because(manual: &Manual, parts: &[PartId]) -> Option<String> {
    let holds = parts.iter().find(|p| !lies_loose(manual.part_name(**p)))?;
    parts.iter().any(|p| lies_loose(manual.part_name(*p))).then(|| {
        let holds = manual.part_name(*holds);
        format!("What lies loose goes in first: once the {holds} is on, no hand holds it (common practice).")
    })
}

#[cfg(test)]
mod tests {
    use crate::manual::drafted;
    use crate::rebuild::{RebuildLine, fold};
    use rstest::rstest;

    fn lines(told: &str) -> Vec<RebuildLine> {
        let manual = drafted::manual(&format!("[0:00] {told}"));
        fold(&manual).rebuild.into_iter().flat_map(|s| s.lines).collect()
    }

    #[rstest]
    #[case::last_off_goes_in_first(
        "Take off the cap, the tray and the fan.",
        "Fit the fan, the tray and the cap.",
        false
    )]
    #[case::loose_first("Take off the cap, the spring and the tray.", "Fit the spring, the tray and the cap.", true)]
    #[case::loose_ones_turned_round(
        "Take off the cap, the spring and the washer.",
        "Fit the washer, the spring and the cap.",
        true
    )]
    #[case::nothing_holds_them("Take out the spring and the washer.", "Fit the washer and the spring.", false)]
    #[case::two("Take off the hood and the tray.", "Fit the tray and the hood.", false)]
    fn a_list_goes_back_from_its_end(#[case] told: &str, #[case] wanted: &str, #[case] says_why: bool) {
        let lines = lines(told);
        let fits = lines.iter().find(|l| l.text.starts_with("Fit")).expect("parts go back");
        assert_eq!(fits.text, wanted);
        assert_eq!(fits.because.is_some(), says_why, "{:?}", fits.because);
    }

    /// What came out by an act of its own has its place: the spring was reached with the lever on.
    #[test]
    fn acts_of_their_own_keep_the_order_of_the_work() {
        let texts: Vec<String> = lines("Take out the spring. Take off the hood.").into_iter().map(|l| l.text).collect();
        assert_eq!(texts, ["Fit the hood.", "Fit the spring."]);
    }
}
