//! What is on the label of a part, and what to order in its place.
//!
//! A part bought by its look instead of by number, voltage, capacity and connector is a usual and dear mistake (common
//! practice); so the old one and the new one are written down alike and can be held against each other.

use super::change::{Refusal, text};
use super::steps::LONGEST_TITLE;
use crate::units::{self, ElectricCharge, ElectricPotential, Energy};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a label says of a part; whatever it does not say is empty.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Label {
    /// Nominal, never the charge voltage.
    #[serde(rename = "voltage_v", with = "units::serde_volts", default)]
    #[schema(value_type = Option<f64>)]
    pub voltage: Option<ElectricPotential>,
    #[serde(rename = "capacity_mah", with = "units::serde_mah", default)]
    #[schema(value_type = Option<f64>)]
    pub capacity: Option<ElectricCharge>,
    #[serde(rename = "energy_wh", with = "units::serde_wh", default)]
    #[schema(value_type = Option<f64>)]
    pub energy: Option<Energy>,
    pub connector: Option<String>,
    pub size: Option<String>,
}

impl Label {
    /// Nothing is written on it.
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }

    /// Voltage times capacity, in watt hours; `None` where one of them is missing.
    pub fn computed_wh(&self) -> Option<f64> {
        Some(units::in_volts(self.voltage?) * units::in_milliampere_hours(self.capacity?) / 1000.0)
    }
}

/// What to order.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Replacement {
    /// The number it is ordered by.
    pub number: Option<String>,
    #[serde(default)]
    pub label: Label,
    /// "seal, two screws"
    pub comes_with: Option<String>,
    /// Sold only as an assembly.
    #[serde(default)]
    pub assembly: bool,
    pub price: Option<f64>,
    /// As it stands on the bill: "EUR".
    pub currency: Option<String>,
}

const MOST_V: f64 = 1_000.0;
const MOST_MAH: f64 = 1_000_000.0;
const MOST_WH: f64 = 100_000.0;
const MOST_MONEY: f64 = 1_000_000.0;

impl Label {
    pub(super) fn checked(&self, field: &'static str) -> Result<Self, Refusal> {
        between(field, self.voltage.map(units::in_volts), MOST_V, "V")?;
        between(field, self.capacity.map(units::in_milliampere_hours), MOST_MAH, "mAh")?;
        between(field, self.energy.map(units::in_watt_hours), MOST_WH, "Wh")?;
        Ok(Self { connector: words(field, &self.connector)?, size: words(field, &self.size)?, ..self.clone() })
    }
}

impl Replacement {
    pub(super) fn checked(&self) -> Result<Self, Refusal> {
        const FIELD: &str = "replacement";
        between(FIELD, self.price, MOST_MONEY, "as a price")?;
        Ok(Self {
            number: words(FIELD, &self.number)?,
            label: self.label.checked(FIELD)?,
            comes_with: words(FIELD, &self.comes_with)?,
            currency: words(FIELD, &self.currency)?,
            ..self.clone()
        })
    }
}

fn words(field: &'static str, value: &Option<String>) -> Result<Option<String>, Refusal> {
    value.as_deref().filter(|v| !v.trim().is_empty()).map(|v| text(field, v, LONGEST_TITLE)).transpose()
}

fn between(field: &'static str, value: Option<f64>, most: f64, unit: &str) -> Result<(), Refusal> {
    match value {
        Some(v) if !(v.is_finite() && v > 0.0 && v <= most) => {
            let problem = format!("{} {unit} is out of range; write more than 0 and at most {most}.", units::number(v));
            Err(Refusal::Invalid { field, problem })
        }
        _ => Ok(()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn label(volts: f64, mah: f64) -> Label {
        Label { voltage: Some(units::volts(volts)), capacity: Some(units::milliampere_hours(mah)), ..Label::default() }
    }

    /// Worked label examples of the trade: Wh = V × mAh / 1000 (exact arithmetic).
    #[rstest]
    #[case(3.85, 3110.0, 11.9735)]
    #[case(14.4, 11_100.0, 159.84)]
    #[case(3.7, 26_800.0, 99.16)]
    fn volts_times_ampere_hours(#[case] volts: f64, #[case] mah: f64, #[case] wh: f64) {
        assert!((label(volts, mah).computed_wh().unwrap() - wh).abs() < 1e-9);
    }

    #[rstest]
    #[case(-3.7, 3000.0, "-3.7 V is out of range")]
    #[case(3.7, 0.0, "0 mAh is out of range")]
    #[case(3.7, f64::NAN, "out of range")]
    fn absurd_labels_say_why(#[case] volts: f64, #[case] mah: f64, #[case] says: &str) {
        let refused = label(volts, mah).checked("fitted").unwrap_err().to_string();
        assert!(refused.contains(says), "{refused}");
    }
}
