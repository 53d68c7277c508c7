//! One thing is told to be on both sides.

use super::{Clash, shortened};
use crate::finding::{Fix, Rule, RuleId, Stop};
use crate::manual::{Edit, ReadingEdit};
use crate::reading::Statement;

pub(super) const RULE: Rule = Rule {
    id: RuleId::SideContradicted,
    stop: Stop::Listen,
    blocks: false,
    // What is decided here is an edit of the reading, and stands in its table.
    may_set_aside: false,
    why: "Readers pry where the cable is.",
    source: "common practice, no source",
};

pub(super) fn fixes(clash: &Clash<'_>) -> Vec<Fix> {
    let places = [Some(clash.at()), clash.against()];
    let mut out: Vec<Fix> = places.into_iter().flatten().filter_map(|s| turn(clash, s)).collect();
    out.push(clash.settle("Both stand as said"));
    out
}

/// "left" for "right" in one of the two places, or the other way round.
fn turn(clash: &Clash<'_>, s: &Statement) -> Option<Fix> {
    let lower = s.text.to_lowercase();
    let (heard, meant) = [("left", "right"), ("right", "left")].into_iter().find(|(w, _)| lower.contains(w))?;
    let start = s.start + lower[..lower.find(heard)?].chars().count();
    let label = format!("“{meant}” was meant in “{}”", shortened(&s.text));
    let edit = ReadingEdit::Word {
        id: clash.id(&label),
        recording: clash.recording,
        start,
        end: start + heard.len(),
        heard: heard.to_owned(),
        meant: Some(meant.to_owned()),
    };
    Some(Fix::new(label, Edit::Reading(edit)))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::listen::written::check;

    #[test]
    fn the_left_speaker_goes_back_as_the_right_one() {
        check(
            &RULE,
            "
            Remove the left speaker. Take out the pump.
            Now the assembly. Put the pump in. Put the right speaker in.
            ~~~ Here it is the right speaker, before it was the left one. [“left” was meant in “Put the right speaker in.” | “right” was meant in “Remove the left speaker.” | Both stand as said]
            ",
        );
    }
}
