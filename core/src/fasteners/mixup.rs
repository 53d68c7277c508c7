//! Which screw does harm in which wrong hole.
//!
//! A screw that is too long bottoms, marks what lies beneath or cracks the boss; one that is too short strips the few turns
//! it reaches. Nobody takes a slot for a cross, so only kinds that look alike are held against each other; another size of
//! bit makes nothing unmistakable, because the hole does not show which bit its screw had. Source: common practice; the turns that hold follow from the pitch (whole turns less one for the chamfer).

use super::kinds::{Kind, Sorted};
use crate::ids::*;
use crate::labels;
use crate::labels::Label;
use crate::manual::{HeadForm, Manual};
use crate::screw::Thread;
use crate::screw::drive::look_alike;
use crate::units::{in_millimetres, millimetres, number};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What the wrong screw does.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Harm {
    TooLong,
    TooShort,
    /// Its thread is another one.
    WrongThread,
    /// Its head does not sit.
    WrongHead,
}

labels!(Harm { TooLong: "too long", TooShort: "too short", WrongThread: "thread", WrongHead: "head" });

/// One kind of screw in the holes of another.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MixUp {
    /// Places in the list of kinds.
    pub screw: usize,
    pub hole: usize,
    pub harm: Harm,
    /// "2 mm too long: it bottoms …"
    pub says: String,
}

/// Two kinds that only their length tells apart.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OnlyLength {
    pub kinds: [usize; 2],
    pub groups: [Vec<GroupId>; 2],
    /// How to tell them.
    pub says: String,
}

/// Risks of mixing up.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Risks {
    pub mix_ups: Vec<MixUp>,
    pub only_length: Vec<OnlyLength>,
}

/// Nobody mixes up screws that differ by more, in millimetres.
const SEEN_AT_ONCE_MM: f64 = 6.0;
/// What a gauge tells apart, in millimetres.
const TOLD_APART_MM: f64 = 0.25;
/// From here on a longer screw is sure to meet something, in millimetres (common practice: holes are a millimetre deeper).
const SPARE_DEPTH_MM: f64 = 1.0;
/// Fewer turns than these do not hold.
const FEWEST_TURNS: f64 = 2.0;

/// Holds every kind against every other that looks like it. O(kinds²); a guide has few kinds, however many groups.
pub fn risks(manual: &Manual, sorted: &Sorted) -> Risks {
    let mut out = Risks::default();
    let kinds = &sorted.kinds;
    for (screw, (a, groups)) in kinds.iter().enumerate() {
        for (hole, (b, others)) in kinds.iter().enumerate() {
            if screw == hole || !alike(a, b) {
                continue;
            }
            if let Some((harm, says)) = harm(manual, a, b, others) {
                out.mix_ups.push(MixUp { screw, hole, harm, says });
            }
            if screw < hole && differ_by_length_only(a, b) {
                let lengths = [a, b].map(|k| k.length_mm.map_or(String::new(), number));
                let says =
                    format!("Only their length tells {} mm from {} mm: lay one on the gauge.", lengths[0], lengths[1]);
                let groups = [groups.clone(), others.clone()];
                out.only_length.push(OnlyLength { kinds: [screw, hole], groups, says });
            }
        }
    }
    out
}

/// Whether a hand would take one for the other: the same shape of recess, and nothing that is seen at once.
fn alike(a: &Kind, b: &Kind) -> bool {
    let drive = a.drive.zip(b.drive).is_none_or(|(x, y)| look_alike(x, y));
    let near = |x: Option<f64>, y: Option<f64>| x.zip(y).is_none_or(|(x, y)| (x - y).abs() <= SEEN_AT_ONCE_MM);
    drive && near(a.length_mm, b.length_mm)
}

fn differ_by_length_only(a: &Kind, b: &Kind) -> bool {
    let differ = a.length_mm.zip(b.length_mm).is_some_and(|(x, y)| (x - y).abs() >= TOLD_APART_MM - 1e-9);
    differ && Kind { length_mm: None, ..a.clone() } == Kind { length_mm: None, ..b.clone() }
}

fn harm(manual: &Manual, screw: &Kind, hole: &Kind, groups: &[GroupId]) -> Option<(Harm, String)> {
    if let Some(found) = wrong_thread(screw, hole).or_else(|| wrong_head(screw, hole)) {
        return Some(found);
    }
    let more = screw.length_mm? - hole.length_mm?;
    if more.abs() < TOLD_APART_MM - 1e-9 {
        return None;
    }
    let by = number((more.abs() * 100.0).round() / 100.0);
    if more > 0.0 {
        let sure = more >= SPARE_DEPTH_MM - 1e-9;
        let does = if sure { "it bottoms, marks what lies beneath or cracks the boss" } else { "it may bottom" };
        return Some((Harm::TooLong, format!("{by} mm too long: {does}")));
    }
    let engaged =
        groups.iter().filter_map(|g| manual.fasteners.get(g)?.joint.engagement).map(in_millimetres).reduce(f64::min);
    // Half of a screw in its hole is usual.
    let left = engaged.unwrap_or(hole.length_mm? / 2.0) + more;
    let turns = hole.thread.or(screw.thread).map(|t| t.turns_engaged(millimetres(left.max(0.0))));
    let does = match turns {
        Some(turns) if turns < FEWEST_TURNS => format!("only {} turns hold, and strip", number(turns)),
        None if left <= 0.0 => "it does not reach the thread".to_owned(),
        _ => "it holds fewer turns".to_owned(),
    };
    Some((Harm::TooShort, format!("{by} mm too short: {does}")))
}

fn wrong_thread(screw: &Kind, hole: &Kind) -> Option<(Harm, String)> {
    if screw.forming != hole.forming {
        let does = if screw.forming {
            "it cuts into a finished thread"
        } else {
            "it finds no thread that fits in the plastic"
        };
        return Some((Harm::WrongThread, does.to_owned()));
    }
    let (a, b): (Thread, Thread) = (screw.thread?, hole.thread?);
    if a == b {
        return None;
    }
    let does = if a.diameter > b.diameter {
        "it is forced and tears the thread"
    } else if a.diameter < b.diameter {
        "it drops in without holding"
    } else {
        "its pitch crosses the thread"
    };
    Some((Harm::WrongThread, format!("{a} in {b}: {does}")))
}

fn wrong_head(screw: &Kind, hole: &Kind) -> Option<(Harm, String)> {
    let (a, b) = (screw.head?, hole.head?);
    if a == b {
        return None;
    }
    let does = match (a, b) {
        (HeadForm::Countersunk, _) => "its cone splits a flat seat",
        (_, HeadForm::Countersunk) => "its head stands proud",
        _ if a.width() < b.width() => "its head is too narrow for the seat",
        _ => return None,
    };
    Some((Harm::WrongHead, format!("{} head in the place of {}: {does}", a.label(), b.label())))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fasteners::kinds::sort;
    use crate::manual::written::manual;
    use rstest::rstest;

    fn found(text: &str) -> Risks {
        let m = manual(text);
        risks(&m, &sort(&m))
    }

    #[rstest]
    #[case(
        "1 lid: 4 PH0 8 mm\n2 fan: 2 PH0 6 mm",
        "2 mm too long: it bottoms, marks what lies beneath or cracks the boss",
        "2 mm too short: it holds fewer turns"
    )]
    #[case::another_bit_of_the_same_shape(
        "1 lid: 4 PH1 8 mm\n2 fan: 2 PH0 6 mm",
        "2 mm too long: it bottoms",
        "2 mm too short: it holds fewer turns"
    )]
    #[case(
        "1 lid: 4 PH0 6.5 mm\n2 fan: 2 PH0 6 mm",
        "0.5 mm too long: it may bottom",
        "0.5 mm too short: it holds fewer turns"
    )]
    #[case(
        "1 lid: 4 PH0 8 mm, M2\n2 fan: 2 PH0 4 mm, M2, 2 deep",
        "4 mm too long",
        "4 mm too short: only 0 turns hold, and strip"
    )]
    #[case(
        "1 lid: 4 PH0 8 mm, M2\n2 fan: 2 PH0 8 mm, M3",
        "M2 in M3: it drops in without holding",
        "M3 in M2: it is forced and tears the thread"
    )]
    #[case(
        "1 lid: 4 PH0 8 mm, for plastic\n2 fan: 2 PH0 8 mm",
        "it cuts into a finished thread",
        "it finds no thread that fits in the plastic"
    )]
    #[case(
        "1 lid: 4 PH0 8 mm, countersunk\n2 fan: 2 PH0 8 mm, pan",
        "countersunk head in the place of pan: its cone splits a flat seat",
        "pan head in the place of countersunk: its head stands proud"
    )]
    fn the_wrong_hole_does_harm(#[case] text: &str, #[case] first_in_second: &str, #[case] second_in_first: &str) {
        let told = found(text).mix_ups;
        let says = |screw: usize| told.iter().find(|m| m.screw == screw).map_or("", |m| m.says.as_str());
        assert!(says(0).starts_with(first_in_second), "{told:?}");
        assert!(says(1).starts_with(second_in_first), "{told:?}");
    }

    #[rstest]
    #[case::another_recess("1 lid: 4 PH0 8 mm\n2 fan: 2 T6 6 mm")]
    #[case::seen_at_once("1 lid: 4 PH0 20 mm\n2 fan: 2 PH0 6 mm")]
    #[case::the_same("1 lid: 4 PH0 8 mm\n2 fan: 2 PH0 8 mm")]
    #[case::nothing_known("1 lid: 4 PH0 ? mm\n2 fan: 2 PH0 6 mm")]
    fn what_is_seen_at_once_or_alike_is_no_risk(#[case] text: &str) {
        assert_eq!(found(text), Risks::default());
    }

    #[test]
    fn kinds_told_apart_by_length_alone_are_flagged() {
        let risks = found("1 lid: 4 PH0 8 mm, M2\n2 fan: 2 PH0 6 mm, M2\n3 foot: 1 PH0 6 mm, M2, countersunk");
        let told: Vec<&str> = risks.only_length.iter().map(|o| o.says.as_str()).collect();
        assert_eq!(told, ["Only their length tells 8 mm from 6 mm: lay one on the gauge."]);
    }
}
