//! Where a guide stops: work that belongs to others is not told to its readers, and nothing that lies behind it.
//!
//! The steps are taken out of the manual before anything is worked out of it, so that rebuild, balance, tools and materials
//! are those of what is published.

use super::{Block, CautionBlock};
use crate::cautions::CautionHead;
use crate::checks::{Withheld, withheld};
use crate::ids::StepId;
use crate::manual::{Level, Manual, Phase};
use crate::order::keep_only;
use std::borrow::Cow;
use std::collections::BTreeSet;

/// What of a manual is told.
pub(super) struct Open<'m> {
    pub manual: Cow<'m, Manual>,
    pub stops: Vec<StopAt>,
}

/// A place at which a guide stops.
pub(super) struct StopAt {
    /// The last step before it that is told; `None`: it stands before all.
    after: Option<StepId>,
    says: CautionBlock,
}

/// Takes out what belongs to others.
pub(super) fn open(manual: &Manual) -> Open<'_> {
    let all = withheld(manual);
    if all.is_empty() {
        return Open { manual: Cow::Borrowed(manual), stops: Vec::new() };
    }
    let gone: BTreeSet<StepId> = all.iter().flat_map(|w| w.steps.iter().copied()).collect();
    let stops = all.iter().map(|w| StopAt { after: w.after, says: says(manual, w) }).collect();
    let mut open = manual.clone();
    keep_only(&mut open, |id| !gone.contains(id));
    Open { manual: Cow::Owned(open), stops }
}

fn says(manual: &Manual, withheld: &Withheld) -> CautionBlock {
    let apart = manual.steps_in(Phase::Teardown);
    let titles: Vec<&str> = apart.iter().filter(|s| withheld.steps.contains(&s.id)).map(|s| s.title.as_str()).collect();
    let left_out = if titles.is_empty() { String::new() } else { format!(" Left out here: {}.", titles.join("; ")) };
    let who = withheld.line.who.as_deref().unwrap_or_default().trim_end_matches('.');
    let text =
        format!("The guide stops here: this part of the work belongs to {who} ({}).{left_out}", withheld.line.what);
    CautionBlock { head: CautionHead::of(Level::Danger), text }
}

/// Puts each stop behind the last step that is told before it.
pub(super) fn with_stops(mut steps: Vec<Block>, stops: Vec<StopAt>) -> Vec<Block> {
    for stop in stops {
        let is_it = |b: &Block| matches!(b, Block::Step(s) if s.step == stop.after);
        let at = stop.after.and_then(|_| steps.iter().position(is_it)).map_or(0, |n| n + 1);
        steps.insert(at, Block::Caution(stop.says));
    }
    steps
}

#[cfg(test)]
mod tests {
    use crate::checks::findings;
    use crate::finding::RuleId;
    use crate::manual::{Edit, FindingEdit, Manual, drafted};
    use crate::publish::{guide, markdown};
    use rstest::rstest;

    const RADIO: &str = "[0:00] Unplug it from the wall. Remove four PH1 screws from the cover. Take off the cover. Remove two PH0 \
                         screws from the power supply board. Take out the power supply board. Take out the fan.";

    /// The line is crossed, and an author says who works behind it.
    fn decided(told: &str, who: Option<&str>) -> Manual {
        let manual = drafted::manual(told);
        let Some(who) = who else { return manual };
        let lines = findings(&manual).into_iter().filter(|f| f.rule == RuleId::LicensedWork);
        let asides = lines.map(|f| {
            let because = who.to_owned();
            Edit::Finding(FindingEdit::SetAside { id: f.key, rule: f.rule.name(), because })
        });
        let asides: Vec<Edit> = asides.collect();
        asides.iter().fold(manual, |m, edit| m.apply(edit, "Ann").expect("it can be decided").0)
    }

    #[rstest]
    #[case::nobody_decided(None, true)]
    #[case::others(Some("a licensed electrician"), false)]
    #[case::those_who_read_it(Some("Its readers: licensed electricians"), true)]
    fn a_guide_stops_at_the_mains_side(#[case] who: Option<&str>, #[case] told: bool) {
        let text = markdown(&decided(RADIO, who));
        assert_eq!(text.contains("### 3. Remove the power supply board"), told, "{text}");
        assert_eq!(text.contains("this part of the work belongs to a licensed electrician"), !told, "{text}");
    }

    #[test]
    fn what_is_told_is_balanced_without_the_rest() {
        let whole = guide(&decided(RADIO, None)).fold;
        let open = guide(&decided(RADIO, Some("an electrician"))).fold;
        assert_eq!(whole.teardown.last().and_then(|t| t.bench.screws), Some(6));
        assert_eq!(open.teardown.last().and_then(|t| t.bench.screws), Some(4));
        let driven = |fold: &crate::rebuild::Fold| fold.rebuild.iter().flat_map(|s| &s.groups).count();
        assert_eq!((driven(&whole), driven(&open)), (2, 1));
    }

    #[test]
    fn a_device_that_nobody_may_open_has_no_steps() {
        let mut manual = drafted::manual("[0:00] Take off the cover. Take out the fan.");
        manual.head.device = "Hearth 20 microwave oven".to_owned();
        let finding =
            findings(&manual).into_iter().find(|f| f.rule == RuleId::LicensedWork).expect("a line is crossed");
        let aside =
            FindingEdit::SetAside { id: finding.key, rule: finding.rule.name(), because: "a specialist".to_owned() };
        let text = markdown(&manual.apply(&Edit::Finding(aside), "Ann").unwrap().0);
        assert!(text.contains("belongs to a specialist") && !text.contains("### 1."), "{text}");
    }
}
