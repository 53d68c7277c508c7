//! Celsius against Fahrenheit, and volts times ampere-hours against watt-hours.

use super::super::Statement;
use super::super::sheet::DiscrepancyKind;
use super::{Contradiction, Story, finding};
use crate::units::{Quantity, number};

pub(super) fn find(story: &Story<'_>) -> Vec<Contradiction> {
    let statements = story.statements.iter().enumerate();
    statements
        .flat_map(|(i, s)| [two_scales(s), label(s)].into_iter().flatten().map(move |says| (i, says)))
        .map(|(i, says)| finding(DiscrepancyKind::Unit, i, None, says))
        .collect()
}

fn two_scales(s: &Statement) -> Option<String> {
    let text = s.text.to_lowercase();
    let temperatures: Vec<f64> =
        s.facts.measures.iter().filter(|m| m.quantity == Quantity::Temperature).map(|m| m.value).collect();
    let scales = text.contains("fahrenheit") && (text.contains("celsius") || text.contains("degrees c"));
    let ([a, b], true) = (temperatures.as_slice(), scales) else { return None };
    // Each scale is rounded to what is easily said: five degrees of one are three of the other.
    const ROUNDED: f64 = 3.0;
    ((a - b).abs() > ROUNDED)
        .then(|| format!("The two scales differ: {} °C and {} °C.", number(a.round()), number(b.round())))
}

/// Labels round; makers print a typical and a minimum capacity.
const SLACK: f64 = 0.06;

fn label(s: &Statement) -> Option<String> {
    let one = |q: Quantity| {
        let mut values = s.facts.measures.iter().filter(|m| m.quantity == q).map(|m| m.value);
        values.next().filter(|_| values.next().is_none())
    };
    let (v, mah, wh) = (one(Quantity::Voltage)?, one(Quantity::Capacity)?, one(Quantity::Energy)?);
    let expected = v * mah / 1000.0;
    ((expected - wh).abs() > expected * SLACK).then(|| {
        let expected = number((expected * 100.0).round() / 100.0);
        format!("{} V times {} mAh make {expected} Wh, not {} Wh.", number(v), number(mah), number(wh))
    })
}
