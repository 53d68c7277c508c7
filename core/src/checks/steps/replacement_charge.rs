//! The new cell is charged to less than the device charges to.

use super::replaced;
use crate::checks::Case;
use crate::finding::{Finding, Rule, RuleId, Stop, Subject};
use crate::manual::{Part, RatingLabel, Replacement};
use crate::things::is_lithium;
use crate::units::{in_volts, number};

pub(super) const RULE: Rule = Rule {
    id: RuleId::ReplacementCharge,
    stop: Stop::Steps,
    blocks: true,
    may_set_aside: false,
    why: "The device charges it past its limit: an overcharged lithium cell swells and can burn.",
    source: "limited charge voltage as printed; else by the nominal voltage of one cell: 3.6 to 3.7 V 4.20 V, 3.8 V 4.35 V, 3.82 to 3.85 V 4.40 V, 3.87 V 4.45 V, iron phosphate 3.2 V 3.65 V (common practice, printed labels)",
};

/// How makers name one cell, and what it is charged to.
const CELLS: [(f64, f64); 12] = [
    (3.6, 4.20),
    (3.63, 4.20),
    (3.65, 4.20),
    (3.67, 4.20),
    (3.7, 4.20),
    (3.8, 4.35),
    (3.82, 4.40),
    (3.83, 4.40),
    (3.85, 4.40),
    (3.87, 4.45),
    (3.89, 4.48),
    (3.2, 3.65),
];

/// Most cells in series that are looked at: 14 make the 48 V of a bicycle.
const MOST_CELLS: u32 = 14;

/// Further from every name of a cell it is none of these.
const NAMED: f64 = 0.02;

/// Closer than any charger holds its voltage: 0.5 % of a cell's (common practice, no source).
const SAME: f64 = 0.02;

/// Volts that a cell or pack is charged to, and whether that is printed.
fn charged_to(label: &RatingLabel) -> Option<(f64, bool)> {
    if let Some(printed) = label.charge_voltage {
        return Some((in_volts(printed), true));
    }
    let nominal = in_volts(label.voltage?);
    let row = |(named, charged): (f64, f64)| (1..=MOST_CELLS).map(move |n| (f64::from(n), named, charged));
    // 25.6 V is eight of 3.2 V and not seven of 3.657 V: the closest name wins.
    let off = |n: f64, named: f64| ((nominal / n - named).abs() * 1e6).round() as u64;
    let (n, named, charged) = CELLS.into_iter().flat_map(row).min_by_key(|(n, named, _)| off(*n, *named))?;
    ((nominal / n - named).abs() < NAMED).then_some((charged * n, false))
}

pub(super) fn find(case: &Case<'_>) -> Vec<Finding> {
    replaced(case.manual).filter_map(overcharged).collect()
}

fn overcharged((part, old, new): (&Part, &RatingLabel, &Replacement)) -> Option<Finding> {
    let told = old.charge_voltage.is_some() || new.label.charge_voltage.is_some();
    let ((device, printed), (cell, known)) = (charged_to(old)?, charged_to(&new.label)?);
    if !(told || is_lithium(&part.name)) || cell + SAME >= device {
        return None;
    }
    let by = |printed: bool| if printed { "as printed" } else { "by its nominal voltage" };
    let says = format!(
        "The new {} may be charged to {} V ({}), but the device charges to {} V ({}). Order one for {} V.",
        part.name,
        number(cell),
        by(known),
        number(device),
        by(printed),
        number(device)
    );
    Some(RULE.finding(Subject::Part(part.id), says))
}

#[cfg(test)]
mod tests {
    use super::RULE;
    use crate::checks::written::check;
    use rstest::rstest;

    #[test]
    fn an_older_cell_in_a_newer_device_is_overcharged() {
        check(
            &RULE,
            "
            part battery: 3.85 V, 2600 mAh
            new battery: 3.7 V, 2600 mAh
            ~~~ replacement-charge: The new battery may be charged to 4.2 V (by its nominal voltage), but the device charges to 4.4 V (by its nominal voltage). Order one for 4.4 V.
            ",
        );
    }

    #[test]
    fn what_is_printed_goes_before_the_table() {
        check(
            &RULE,
            "
            part battery: 3.8 V, charged to 4.35 V
            new battery: 3.8 V, charged to 4.2 V
            ~~~ replacement-charge: The new battery may be charged to 4.2 V (as printed), but the device charges to 4.35 V (as printed). Order one for 4.35 V.
            ",
        );
    }

    #[test]
    fn iron_phosphate_in_place_of_lithium_ion() {
        check(
            &RULE,
            "
            part battery pack: 14.4 V
            new battery pack: 12.8 V
            ~~~ replacement-charge: The new battery pack may be charged to 14.6 V (by its nominal voltage), but the device charges to 16.8 V (by its nominal voltage). Order one for 16.8 V.
            ",
        );
    }

    #[rstest]
    #[case::a_newer_cell_is_only_less_full("part battery: 3.7 V\nnew battery: 3.85 V")]
    #[case::the_same_by_another_name("part battery: 3.6 V\nnew battery: 3.7 V")]
    #[case::no_lithium("part motor: 3.85 V\nnew motor: 3.7 V")]
    #[case::printed_alike("part battery: 3.85 V, charged to 4.2 V\nnew battery: 3.7 V")]
    #[case::nothing_known("part battery: 2600 mAh\nnew battery: 3.7 V")]
    fn what_is_not_overcharged(#[case] text: &str) {
        check(&RULE, text);
    }

    /// Handbook of the trade, charge voltage of one lithium-ion cell by its nominal voltage (common practice; printed labels).
    #[rstest]
    #[case(3.6, 4.20)]
    #[case(3.7, 4.20)]
    #[case(3.8, 4.35)]
    #[case(3.82, 4.40)]
    #[case(3.85, 4.40)]
    #[case(3.87, 4.45)]
    #[case(3.2, 3.65)]
    #[case(7.4, 8.40)]
    #[case(11.1, 12.60)]
    #[case(25.6, 29.20)]
    #[case(36.0, 42.00)]
    fn charge_voltages_of_the_handbook(#[case] nominal: f64, #[case] charged: f64) {
        let label = super::RatingLabel { voltage: Some(crate::units::volts(nominal)), ..super::RatingLabel::default() };
        let (volts, printed) = super::charged_to(&label).unwrap();
        assert!((volts - charged).abs() < 1e-9 && !printed, "{nominal} V is charged to {volts} V");
    }
}
