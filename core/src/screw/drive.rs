//! Drives and bits: which size goes with which screw, which wrong bit seems to fit, and in which order bits are changed
//! least.
//!
//! Sizes by ISO 7045 (cross recess), JIS B 1111, ISO 14583 and ISO 10664 (hexalobular), ISO 4762 (hex socket), ISO 1207
//! (slot): from memory; the hexalobular and hex sizes were compared with a general-purpose parts library, and agree. What
//! lies below M1.6 is common practice.

use crate::reading::Drive;
use crate::units::number;

/// Bits that a screw of this diameter is usually driven with, the larger first where two heads differ; empty where no table
/// says.
pub fn usual_bits(drive: Drive, diameter_mm: f64) -> Vec<String> {
    let row = |table: &[(f64, &'static str)]| -> Vec<String> {
        let found = table.iter().find(|(d, _)| (d - diameter_mm).abs() < 0.051);
        found.map(|(_, sizes)| sizes.split(' ').map(|s| drive.bit(s)).collect()).unwrap_or_default()
    };
    match drive {
        Drive::Phillips => row(&[
            (1.0, "000 00"),
            (1.2, "000 00"),
            (1.4, "00"),
            (1.6, "0 00"),
            (1.7, "0 00"),
            (2.0, "0 00"),
            (2.5, "1"),
            (2.6, "1"),
            // Pan and countersunk heads have 1, cheese heads 2 (ISO 7048).
            (3.0, "2 1"),
            (3.5, "2"),
            (4.0, "2"),
            (5.0, "2"),
            (6.0, "3"),
        ]),
        Drive::Pozidriv => {
            row(&[(1.6, "0"), (2.0, "0"), (2.5, "1"), (3.0, "1"), (3.5, "2"), (4.0, "2"), (5.0, "2"), (6.0, "3")])
        }
        Drive::Jis => row(&[
            (1.0, "0"),
            (1.2, "0"),
            (1.4, "0"),
            (1.6, "0"),
            (1.7, "0"),
            (2.0, "0 1"),
            (2.5, "1"),
            (2.6, "1"),
            (3.0, "2"),
            (4.0, "2"),
            (5.0, "2"),
            (6.0, "3"),
        ]),
        Drive::Torx | Drive::TorxPin => row(&[
            (1.0, "1 2 3"),
            (1.2, "1 2 3"),
            (1.4, "3 4"),
            (1.6, "4 5"),
            (1.7, "5"),
            (2.0, "6"),
            (2.5, "8"),
            (2.6, "8"),
            (3.0, "10"),
            (3.5, "15"),
            (4.0, "20"),
            (5.0, "25"),
            (6.0, "30"),
        ]),
        Drive::Hex => {
            row(&[(1.6, "1.5"), (2.0, "1.5"), (2.5, "2"), (3.0, "2.5 2"), (4.0, "3 2.5"), (5.0, "4 3"), (6.0, "5 4")])
        }
        _ => Vec::new(),
    }
}

/// Keys of set screws of this diameter: ISO 4026, compared with a general-purpose parts library; empty where no table says.
pub fn set_screw_keys(drive: Drive, diameter_mm: f64) -> Vec<String> {
    const KEYS: [(f64, &str); 8] =
        [(1.4, "0.7"), (1.6, "0.7"), (2.0, "0.9"), (2.5, "1.3"), (3.0, "1.5"), (4.0, "2"), (5.0, "2.5"), (6.0, "3")];
    let row = KEYS.iter().find(|(d, _)| drive == Drive::Hex && (d - diameter_mm).abs() < 0.051);
    row.map(|(_, key)| drive.bit(key)).into_iter().collect()
}

/// Whether a hand takes one recess for the other, or its bit goes in: crosses among themselves, and small lobes and hexagons.
///
/// Source: common practice, no source.
pub fn look_alike(a: Drive, b: Drive) -> bool {
    let family = |d: Drive| match d {
        Drive::Phillips | Drive::Pozidriv | Drive::Jis => 1,
        Drive::Torx | Drive::TorxPin | Drive::TorxPlus | Drive::Hex | Drive::Pentalobe => 2,
        Drive::Slotted | Drive::TriPoint | Drive::Spanner | Drive::Square | Drive::Triangle => 0,
    };
    a == b || family(a) == family(b) && family(a) != 0
}

/// Distance from valley to valley of a hexalobular recess in millimetres: ISO 10664, compared with a general-purpose parts
/// library.
fn valley_mm(number: u32) -> Option<f64> {
    const VALLEYS: [(u32, f64); 7] = [(6, 1.27), (8, 1.75), (10, 2.05), (15, 2.40), (20, 2.85), (25, 3.25), (30, 4.05)];
    VALLEYS.iter().find(|(n, _)| *n == number).map(|(_, b)| *b)
}

/// Distance from tip to tip of a hexalobular bit in millimetres: ISO 10664, the sizes it lacks by common practice.
pub fn tip_to_tip_mm(number: u32) -> Option<f64> {
    const TIPS: [(u32, f64); 15] = [
        (1, 0.89),
        (2, 0.99),
        (3, 1.17),
        (4, 1.34),
        (5, 1.47),
        (6, 1.75),
        (7, 2.06),
        (8, 2.40),
        (9, 2.58),
        (10, 2.80),
        (15, 3.35),
        (20, 3.95),
        (25, 4.50),
        (27, 5.07),
        (30, 5.60),
    ];
    TIPS.iter().find(|(n, _)| *n == number).map(|(_, a)| *a)
}

/// How far a hexalobular bit turns freely in a hex socket before it touches, in degrees: 30° − acos(s/A); `None` where it
/// falls in or does not go in.
pub fn slack_in_hex_deg(tip_mm: f64, socket_mm: f64) -> Option<f64> {
    let corner = socket_mm / (std::f64::consts::PI / 6.0).cos();
    (socket_mm < tip_mm && tip_mm <= corner + 1e-9).then(|| 30.0 - (socket_mm / tip_mm).acos().to_degrees())
}

/// The same for a hex key that is too small: 30° − acos(0.8660·s/k).
pub fn slack_of_small_key_deg(key_mm: f64, socket_mm: f64) -> Option<f64> {
    let share = 0.866_025 * socket_mm / key_mm;
    (key_mm < socket_mm && share <= 1.0).then(|| 30.0 - share.acos().to_degrees())
}

/// A bit that seems to fit and does not.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct WrongBit {
    /// `T9`, `PH1`, "hex key 2".
    pub bit: String,
    /// What it does in this recess.
    pub does: String,
}

/// Bits at hand that seem to fit this recess and spoil it (computed where a figure stands, else common practice).
pub fn wrong_bits(drive: Drive, bit: Option<&str>) -> Vec<WrongBit> {
    let wrong = |bit: String, does: &str| WrongBit { bit, does: does.to_owned() };
    let size = bit.and_then(size_of);
    match drive {
        Drive::Phillips => {
            let mut out = vec![
                wrong("PZ".to_owned(), "its ribs keep it from seating: it slips out and leaves burrs"),
                wrong("slotted or three-lobe".to_owned(), "grips two edges and slips across what lies beside"),
            ];
            if let Some((below, above)) = bit.and_then(cross_neighbours) {
                out.extend(below.map(|b| wrong(b, "stands in the centre only and slips out")));
                out.extend(above.map(|b| wrong(b, "rides on the edge and slips out")));
            }
            out
        }
        Drive::Jis => {
            vec![wrong(
                "PH".to_owned(),
                "bottoms before its wings fill the recess: the usual damage. A JIS bit fits both",
            )]
        }
        Drive::Pozidriv => vec![wrong("PH".to_owned(), "rocks, seats shallow and slips out")],
        Drive::Torx | Drive::TorxPin => {
            let mut out = Vec::new();
            if let Some(below) = size.and_then(|s| below_in_torx(s as u32)) {
                let (a, b) = (tip_to_tip_mm(below), size.and_then(|s| tip_to_tip_mm(s as u32)));
                let smaller = a.zip(b).map_or(0.0, |(a, b)| (1.0 - a / b) * 100.0);
                let does = format!(
                    "is {} % smaller: turns with slack and wears the lobes",
                    number((smaller * 10.0).round() / 10.0)
                );
                out.push(WrongBit { bit: format!("T{below}"), does });
            }
            out.extend(size.map(|s| keys_in_lobes(s as u32)).unwrap_or_default());
            if drive == Drive::TorxPin {
                out.push(wrong(
                    "plain T".to_owned(),
                    "does not seat over the pin; a bit with a hole also fits plain ones",
                ));
            }
            out
        }
        Drive::TorxPlus => vec![wrong("plain T".to_owned(), "enters loosely and wears the lobes")],
        Drive::Hex => size.map(wrong_in_hex).unwrap_or_default(),
        Drive::Pentalobe => {
            vec![
                wrong("T2 to T5".to_owned(), "grips and wedges: the recess is gone at the first try"),
                wrong("PH00".to_owned(), "grips two edges and slips"),
            ]
        }
        Drive::TriPoint => vec![wrong("PH00 or slotted".to_owned(), "grips two edges and slips")],
        Drive::Slotted => {
            vec![wrong("a narrower blade".to_owned(), "twists out of the slot and marks what lies beside")]
        }
        Drive::Square => vec![wrong("hexalobular".to_owned(), "touches four corners only and rounds them")],
        Drive::Triangle | Drive::Spanner => {
            vec![wrong("pliers or a slotted blade".to_owned(), "slips and mars the head")]
        }
    }
}

const INCH_KEYS: [(&str, f64); 6] = [
    ("0.035 in key", 0.889),
    ("0.050 in key", 1.27),
    ("5/64 in key", 1.984),
    ("3/32 in key", 2.381),
    ("5/32 in key", 3.969),
    ("3/16 in key", 4.763),
];

/// Hex keys that go into this hexalobular recess: their corners catch the lobes alone, or they are forced between them.
/// Computed from both profiles.
fn keys_in_lobes(recess: u32) -> Vec<WrongBit> {
    const KEYS: [(&str, f64); 6] = [
        ("hex key 1.5", 1.5),
        ("hex key 2", 2.0),
        ("hex key 2.5", 2.5),
        ("hex key 3", 3.0),
        ("hex key 4", 4.0),
        ("hex key 5", 5.0),
    ];
    let Some((tip, valley)) = tip_to_tip_mm(recess).zip(valley_mm(recess)) else { return Vec::new() };
    let does = |key: f64| {
        let corner = key / (std::f64::consts::PI / 6.0).cos();
        let forced = (key - valley).clamp(0.0, 1.0);
        match () {
            () if corner <= valley || corner > tip => None,
            () if forced == 0.0 => Some("catches the lobes at its corners only, and wears them".to_owned()),
            () if forced <= 0.26 => Some(format!(
                "is {} mm too wide: it wedges and spreads the lobes",
                number((forced * 100.0).round() / 100.0)
            )),
            () => None,
        }
    };
    let found = KEYS.into_iter().chain(INCH_KEYS).filter_map(|(name, key)| Some((name, does(key)?)));
    found.map(|(name, does)| WrongBit { bit: name.to_owned(), does }).collect()
}

/// Hexalobular bits and inch keys that go into this hex socket.
fn wrong_in_hex(socket: f64) -> Vec<WrongBit> {
    let mut out = Vec::new();
    for number_of in [5, 6, 7, 8, 9, 10, 15, 20, 25, 27, 30] {
        let tip = tip_to_tip_mm(number_of).unwrap_or(0.0);
        let over = tip - socket / (std::f64::consts::PI / 6.0).cos();
        // A tenth of a millimetre too wide still goes in under the hand's pressure.
        if over > 0.0 && over <= 0.1 {
            let does = format!("is {} mm too wide: it wedges and stays stuck", number((over * 100.0).round() / 100.0));
            out.push(WrongBit { bit: format!("T{number_of}"), does });
            continue;
        }
        let Some(slack) = slack_in_hex_deg(tip, socket) else { continue };
        let does = if slack > 10.0 { "turns under light load, then slips" } else { "turns, and rounds the corners" };
        let does = format!("has {}° of slack: {does}", number((slack * 10.0).round() / 10.0));
        out.push(WrongBit { bit: format!("T{number_of}"), does });
    }
    for (name, key) in INCH_KEYS {
        if let Some(slack) = slack_of_small_key_deg(key, socket).filter(|_| key > 0.94 * socket) {
            let does =
                format!("has {}° of slack: rounds the corners under load", number((slack * 10.0).round() / 10.0));
            out.push(WrongBit { bit: name.to_owned(), does });
        }
    }
    out
}

/// The figure of a bit: `T6` is 6, `1.5 mm` is 1.5.
pub fn size_of(bit: &str) -> Option<f64> {
    bit.trim_start_matches(|c: char| !c.is_ascii_digit()).split_whitespace().next()?.parse().ok()
}

/// Smaller and larger cross bits: 000, 00, 0, 1, 2, 3, 4 (ISO 4757; 000 and 00 by common practice).
fn cross_neighbours(bit: &str) -> Option<(Option<String>, Option<String>)> {
    const SIZES: [&str; 7] = ["000", "00", "0", "1", "2", "3", "4"];
    let digits = bit.trim_start_matches(|c: char| !c.is_ascii_digit());
    let at = SIZES.iter().position(|s| *s == digits)?;
    let named = |i: usize| SIZES.get(i).map(|s| format!("PH{s}"));
    Some((at.checked_sub(1).and_then(named), named(at + 1)))
}

fn below_in_torx(size: u32) -> Option<u32> {
    (1..size).rev().find(|n| tip_to_tip_mm(*n).is_some())
}

/// Whether a drive keeps people out: it needs a bit that is not in every box.
pub fn security(drive: Drive) -> bool {
    matches!(
        drive,
        Drive::TorxPin | Drive::TorxPlus | Drive::Pentalobe | Drive::TriPoint | Drive::Spanner | Drive::Triangle
    )
}

/// One bit of the toolkit.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Bit {
    /// `PH0`, "five-lobe" where the size is not known.
    pub name: String,
    pub drive: Option<Drive>,
    /// Screws driven with it, of those counted.
    pub screws: u32,
    pub security: bool,
}

/// The fewest changes of bit when each step may do its groups in any order: groups of the bit in hand first, the bit that
/// the next step begins with last.
///
/// One list of bits a step, in the order of the work; gives the changes and each step's bits in their best order.
pub fn fewest_changes(steps: &[Vec<String>]) -> (usize, Vec<Vec<String>>) {
    // The least changes so far that end with each bit of the step, and the order that does it.
    let mut ends: Vec<(String, usize, Vec<Vec<String>>)> = Vec::new();
    for bits in steps {
        let mut unique: Vec<String> = Vec::new();
        for bit in bits {
            if !unique.contains(bit) {
                unique.push(bit.clone());
            }
        }
        if unique.is_empty() {
            ends.iter_mut().for_each(|e| e.2.push(Vec::new()));
            continue;
        }
        let within = unique.len() - 1;
        let mut next = Vec::new();
        for last in &unique {
            let orders = |first: Option<&String>| -> Vec<String> {
                let middle = unique.iter().filter(|b| *b != last && Some(*b) != first).cloned();
                let first = first.filter(|f| *f != last).cloned();
                first.into_iter().chain(middle).chain([last.clone()]).collect()
            };
            // Carrying a bit over saves a change unless it must also be the last of several.
            let best = ends
                .iter()
                .map(|(hand, cost, done)| {
                    let carried = unique.contains(hand) && (unique.len() == 1 || hand != last);
                    let order = orders(carried.then_some(hand));
                    (cost + within + usize::from(!carried), done, order)
                })
                .min_by_key(|(cost, ..)| *cost);
            let (cost, mut done, order) = match best {
                Some((cost, done, order)) => (cost, done.clone(), order),
                None => (within, vec![Vec::new(); steps.iter().take_while(|s| s.is_empty()).count()], orders(None)),
            };
            done.push(order);
            next.push((last.clone(), cost, done));
        }
        ends = next;
    }
    let best = ends.into_iter().min_by_key(|(_, cost, _)| *cost);
    best.map_or((0, vec![Vec::new(); steps.len()]), |(_, cost, done)| (cost, done))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    #[rstest]
    #[case(Drive::Phillips, 3.0, &["PH2", "PH1"])]
    #[case(Drive::Torx, 2.0, &["T6"])]
    #[case(Drive::Torx, 3.0, &["T10"])]
    #[case(Drive::Hex, 4.0, &["3 mm", "2.5 mm"])]
    #[case(Drive::Jis, 3.0, &["J2"])]
    #[case(Drive::Spanner, 3.0, &[])]
    fn bits_by_the_standards(#[case] drive: Drive, #[case] diameter: f64, #[case] bits: &[&str]) {
        assert_eq!(usual_bits(drive, diameter), bits);
    }

    /// Worked from the geometry with another program (NumPy 2.4.6): bit, socket, slack.
    #[rstest]
    #[case(5, 1.3, Some(2.2))]
    #[case(6, 1.5, None)]
    #[case(8, 2.0, None)]
    #[case(10, 2.5, Some(3.2))]
    #[case(15, 3.0, Some(3.6))]
    #[case(25, 4.0, Some(2.7))]
    #[case(30, 5.0, Some(3.2))]
    #[case(7, 2.0, Some(16.1))]
    #[case(27, 5.0, Some(20.5))]
    fn slack_of_lobes_in_a_hex_socket(#[case] number: u32, #[case] socket: f64, #[case] degrees: Option<f64>) {
        let found = slack_in_hex_deg(tip_to_tip_mm(number).unwrap(), socket);
        assert_eq!(found.map(|d| (d * 10.0).round() / 10.0), degrees);
    }

    #[rstest]
    #[case(1.984, 2.0, Some(0.8))]
    #[case(2.381, 2.5, Some(5.4))]
    #[case(1.27, 1.3, Some(2.4))]
    #[case(2.5, 2.0, None)]
    fn slack_of_inch_keys(#[case] key: f64, #[case] socket: f64, #[case] degrees: Option<f64>) {
        let found = slack_of_small_key_deg(key, socket);
        assert_eq!(found.map(|d| (d * 10.0).round() / 10.0), degrees);
    }

    #[rstest]
    #[case(Drive::Torx, Some("T9"), "T8 is 7 % smaller")]
    #[case(Drive::Torx, Some("T15"), "T10 is 16.4 % smaller")]
    #[case(Drive::Phillips, Some("PH0"), "PH1 rides on the edge")]
    #[case(Drive::Phillips, Some("PH0"), "PH00 stands in the centre only")]
    #[case(Drive::Hex, Some("2 mm"), "T7 has 16.1° of slack")]
    #[case(Drive::Hex, Some("2.5 mm"), "3/32 in key has 5.4° of slack")]
    #[case(Drive::Hex, Some("1.5 mm"), "T6 is 0.02 mm too wide: it wedges")]
    #[case(Drive::Hex, Some("2 mm"), "T8 is 0.09 mm too wide: it wedges")]
    #[case(Drive::Torx, Some("T6"), "hex key 1.5 is 0.23 mm too wide: it wedges and spreads the lobes")]
    #[case(Drive::Torx, Some("T8"), "hex key 2 is 0.25 mm too wide: it wedges and spreads the lobes")]
    #[case(Drive::Torx, Some("T10"), "hex key 2 catches the lobes at its corners only")]
    #[case(Drive::Torx, Some("T15"), "3/32 in key catches the lobes")]
    #[case(Drive::Jis, None, "PH bottoms")]
    fn bits_that_seem_to_fit(#[case] drive: Drive, #[case] bit: Option<&str>, #[case] says: &str) {
        let told: Vec<String> = wrong_bits(drive, bit).iter().map(|w| format!("{} {}", w.bit, w.does)).collect();
        assert!(told.iter().any(|t| t.starts_with(says)), "{told:?}");
    }

    /// ISO 4026 (as a general-purpose parts library lists it): smaller keys than screws with a head have.
    #[rstest]
    #[case(Drive::Hex, 3.0, &["1.5 mm"])]
    #[case(Drive::Hex, 2.0, &["0.9 mm"])]
    #[case(Drive::Torx, 3.0, &[])]
    fn set_screws_have_keys_of_their_own(#[case] drive: Drive, #[case] diameter: f64, #[case] keys: &[&str]) {
        assert_eq!(set_screw_keys(drive, diameter), keys);
    }

    #[rstest]
    #[case(Drive::Phillips, Drive::Jis, true)]
    #[case(Drive::Torx, Drive::Hex, true)]
    #[case(Drive::Torx, Drive::Phillips, false)]
    #[case(Drive::Slotted, Drive::Square, false)]
    #[case(Drive::Slotted, Drive::Slotted, true)]
    fn recesses_that_a_hand_takes_for_each_other(#[case] a: Drive, #[case] b: Drive, #[case] alike: bool) {
        assert_eq!(look_alike(a, b), alike);
    }

    fn words(text: &str) -> Vec<Vec<String>> {
        text.split('|').map(|s| s.split_whitespace().map(str::to_owned).collect()).collect()
    }

    #[rstest]
    #[case("", 0)]
    #[case("PH0 | PH0", 0)]
    #[case("T6 PH0 | T6", 1)]
    #[case("T6 PH0 | T6 PH0 | PH0", 2)]
    #[case(" | A B C | | B D", 3)]
    fn bits_are_changed_least(#[case] steps: &str, #[case] changes: usize) {
        assert_eq!(fewest_changes(&words(steps)).0, changes);
    }

    fn changes(order: &[Vec<String>]) -> usize {
        let all: Vec<&String> = order.iter().flatten().collect();
        all.windows(2).filter(|w| w[0] != w[1]).count()
    }

    proptest! {
        /// Every order of every step tried.
        #[test]
        fn no_order_needs_fewer_changes(steps in proptest::collection::vec(proptest::collection::btree_set("[A-D]", 0..4), 0..5)) {
            let steps: Vec<Vec<String>> = steps.into_iter().map(|s| s.into_iter().collect()).collect();
            let (told, order) = fewest_changes(&steps);
            prop_assert_eq!(order.len(), steps.len());
            prop_assert_eq!(changes(&order), told);
            let mut all: Vec<Vec<Vec<String>>> = vec![Vec::new()];
            for step in &steps {
                let ways = permutations(step);
                all = all.iter().flat_map(|a| ways.iter().map(move |w| [a.clone(), vec![w.clone()]].concat())).collect();
            }
            prop_assert_eq!(all.iter().map(|o| changes(o)).min().unwrap_or(0), told);
        }
    }

    fn permutations(items: &[String]) -> Vec<Vec<String>> {
        if items.is_empty() {
            return vec![Vec::new()];
        }
        let with = |i: usize| {
            let mut rest = items.to_vec();
            let first = rest.remove(i);
            permutations(&rest).into_iter().map(move |p| [vec![first.clone()], p].concat()).collect::<Vec<_>>()
        };
        (0..items.len()).flat_map(with).collect()
    }
}
