//! What is on the label of a part, and what to order in its place.
//!
//! A part bought by its look instead of by number, voltage, capacity and connector is a usual and dear mistake (common
//! practice); so the old one and the new one are written down alike and can be held against each other.

use crate::manual::edits::refusal::{MAX_TITLE, Refusal, above_zero, maybe_text};
use crate::units::{self, ElectricCharge, ElectricPotential, Energy};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a label says of a part; whatever it does not say is empty.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RatingLabel {
    /// Nominal, never the charge voltage.
    #[serde(rename = "voltage_v", with = "units::serde_volts", default)]
    #[schema(value_type = Option<f64>)]
    pub voltage: Option<ElectricPotential>,
    /// What it may be charged to ("limited charge voltage").
    #[serde(rename = "charge_v", with = "units::serde_volts", default)]
    #[schema(value_type = Option<f64>)]
    pub charge_voltage: Option<ElectricPotential>,
    #[serde(rename = "capacity_mah", with = "units::serde_mah", default)]
    #[schema(value_type = Option<f64>)]
    pub capacity: Option<ElectricCharge>,
    #[serde(rename = "energy_wh", with = "units::serde_wh", default)]
    #[schema(value_type = Option<f64>)]
    pub energy: Option<Energy>,
    pub connector: Option<String>,
    pub size: Option<String>,
}

impl RatingLabel {
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
    pub label: RatingLabel,
    /// "seal, two screws"
    pub comes_with: Option<String>,
    /// Sold only as an assembly.
    #[serde(default)]
    pub assembly: bool,
    pub price: Option<f64>,
    /// As it stands on the bill: "EUR".
    pub currency: Option<String>,
}

const MAX_V: f64 = 1_000.0;
const MAX_MAH: f64 = 1_000_000.0;
const MAX_WH: f64 = 100_000.0;
const MAX_MONEY: f64 = 1_000_000.0;

impl RatingLabel {
    pub(in crate::manual) fn checked(&self, field: &'static str) -> Result<Self, Refusal> {
        figure(field, self.voltage.map(units::in_volts), MAX_V, "V")?;
        figure(field, self.charge_voltage.map(units::in_volts), MAX_V, "V")?;
        figure(field, self.capacity.map(units::in_milliampere_hours), MAX_MAH, "mAh")?;
        figure(field, self.energy.map(units::in_watt_hours), MAX_WH, "Wh")?;
        Ok(Self {
            connector: maybe_text(field, &self.connector, MAX_TITLE)?,
            size: maybe_text(field, &self.size, MAX_TITLE)?,
            ..self.clone()
        })
    }
}

impl Replacement {
    pub(in crate::manual) fn checked(&self) -> Result<Self, Refusal> {
        const FIELD: &str = "replacement";
        figure(FIELD, self.price, MAX_MONEY, "as a price")?;
        Ok(Self {
            number: maybe_text(FIELD, &self.number, MAX_TITLE)?,
            label: self.label.checked(FIELD)?,
            comes_with: maybe_text(FIELD, &self.comes_with, MAX_TITLE)?,
            currency: maybe_text(FIELD, &self.currency, MAX_TITLE)?,
            ..self.clone()
        })
    }
}

fn figure(field: &'static str, value: Option<f64>, most: f64, unit: &str) -> Result<(), Refusal> {
    value.map_or(Ok(()), |v| above_zero(field, v, most, unit).map(drop))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn label(volts: f64, mah: f64) -> RatingLabel {
        RatingLabel {
            voltage: Some(units::volts(volts)),
            capacity: Some(units::milliampere_hours(mah)),
            ..RatingLabel::default()
        }
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
