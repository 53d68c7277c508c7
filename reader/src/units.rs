//! Quantities: SI inside, the author's unit outside.
//!
//! A length is a [`Length`], never a bare number; the JSON of the manual says its unit in the field's name
//! (`length_mm`, `dwell_s`), so that a reader of the file need not guess. Factors come from the `uom` crate; the check
//! values of the tests are the exact factors of the SI Brochure and of NIST SP 811 (from memory).

use crate::labels::Label;
use serde::{Deserialize, Serialize};
pub use uom::si::f64::{
    ElectricCharge, ElectricPotential, Energy, Length, Mass, ThermodynamicTemperature, Time, Torque,
};
use uom::si::{
    electric_charge, electric_potential, energy, length, mass, thermodynamic_temperature as temperature, time, torque,
};
use utoipa::ToSchema;

/// What a figure measures. Each has one unit in the fact sheet, see [`Quantity::unit`].
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Quantity {
    Temperature,
    Duration,
    Length,
    Angle,
    Voltage,
    Capacity,
    Energy,
    Torque,
    Percent,
    Score,
    Mass,
    Price,
}

impl Quantity {
    /// The one unit this quantity is written in on the fact sheet.
    pub fn unit(self) -> &'static str {
        match self {
            Self::Temperature => "degC",
            Self::Duration => "s",
            Self::Length => "mm",
            Self::Angle => "deg",
            Self::Voltage => "V",
            Self::Capacity => "mAh",
            Self::Energy => "Wh",
            Self::Torque => "N·m",
            Self::Percent => "%",
            Self::Score => "out of ten",
            Self::Mass => "g",
            Self::Price => "",
        }
    }
}

/// A unit as narrators say it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Unit {
    Celsius,
    Fahrenheit,
    Second,
    Minute,
    Hour,
    Millimetre,
    Centimetre,
    Inch,
    Degree,
    Turn,
    Volt,
    MilliampHour,
    AmpHour,
    WattHour,
    NewtonMetre,
    NewtonCentimetre,
    KilogramCentimetre,
    PoundInch,
    OunceInch,
    Percent,
    Gram,
    Kilogram,
    OutOfTen,
    Money,
}

impl Unit {
    /// What a figure in this unit measures.
    pub fn quantity(self) -> Quantity {
        match self {
            Self::Celsius | Self::Fahrenheit => Quantity::Temperature,
            Self::Second | Self::Minute | Self::Hour => Quantity::Duration,
            Self::Millimetre | Self::Centimetre | Self::Inch => Quantity::Length,
            Self::Degree | Self::Turn => Quantity::Angle,
            Self::Volt => Quantity::Voltage,
            Self::MilliampHour | Self::AmpHour => Quantity::Capacity,
            Self::WattHour => Quantity::Energy,
            Self::NewtonMetre
            | Self::NewtonCentimetre
            | Self::KilogramCentimetre
            | Self::PoundInch
            | Self::OunceInch => Quantity::Torque,
            Self::Percent => Quantity::Percent,
            Self::Gram | Self::Kilogram => Quantity::Mass,
            Self::OutOfTen => Quantity::Score,
            Self::Money => Quantity::Price,
        }
    }

    /// `value` in this unit, in the fact sheet's unit of [`Unit::quantity`].
    pub fn to_sheet(self, value: f64) -> f64 {
        let converted = match self {
            Self::Celsius => value,
            Self::Fahrenheit => ThermodynamicTemperature::new::<temperature::degree_fahrenheit>(value)
                .get::<temperature::degree_celsius>(),
            Self::Second => value,
            Self::Minute => Time::new::<time::minute>(value).get::<time::second>(),
            Self::Hour => Time::new::<time::hour>(value).get::<time::second>(),
            Self::Millimetre => value,
            Self::Centimetre => Length::new::<length::centimeter>(value).get::<length::millimeter>(),
            Self::Inch => Length::new::<length::inch>(value).get::<length::millimeter>(),
            Self::Degree => value,
            Self::Turn => value * 360.0,
            Self::Volt => ElectricPotential::new::<electric_potential::volt>(value).get::<electric_potential::volt>(),
            Self::MilliampHour => value,
            Self::AmpHour => {
                ElectricCharge::new::<electric_charge::ampere_hour>(value).get::<electric_charge::milliampere_hour>()
            }
            Self::WattHour => Energy::new::<energy::watt_hour>(value).get::<energy::watt_hour>(),
            Self::NewtonMetre => value,
            Self::NewtonCentimetre => Torque::new::<torque::newton_centimeter>(value).get::<torque::newton_meter>(),
            // uom rounds these factors to seven digits; kilogram-force, pound-force and inch are exact by definition.
            Self::KilogramCentimetre => value * TorqueUnit::KilogramCentimetre.newton_metres(),
            Self::PoundInch => value * TorqueUnit::PoundInch.newton_metres(),
            Self::OunceInch => value * TorqueUnit::OunceInch.newton_metres(),
            Self::Percent | Self::OutOfTen | Self::Money => value,
            Self::Gram => value,
            Self::Kilogram => Mass::new::<mass::kilogram>(value).get::<mass::gram>(),
        };
        // Nine decimals hide the last-bit noise of a conversion and nothing that a narrator could say.
        rounded(converted, 1e9)
    }
}

/// A figure with its unit, as the fact sheet lists it. `to` is the upper end of a range.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Measure {
    pub quantity: Quantity,
    /// In the unit of the quantity.
    pub value: f64,
    /// Upper end of a range, in the same unit.
    pub to: Option<f64>,
    /// The unit's name; for prices the currency word as said.
    pub unit: String,
}

/// Rounds to what is written, on the way in as on the way out: a value then survives any number of saves bit by bit.
fn rounded(value: f64, steps_per_unit: f64) -> f64 {
    (value * steps_per_unit).round() / steps_per_unit
}

/// A length from millimetres, to a thousandth.
pub fn millimetres(value: f64) -> Length {
    Length::new::<length::millimeter>(rounded(value, 1e3))
}

/// A length in millimetres, to a thousandth, so that SI storage leaves no trace in what people read.
pub fn in_millimetres(value: Length) -> f64 {
    rounded(value.get::<length::millimeter>(), 1e3)
}

/// Units that drivers and makers give torques in. The kilogram-force, pound-force and inch are exact by definition.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TorqueUnit {
    NewtonMetre,
    CentinewtonMetre,
    KilogramCentimetre,
    PoundInch,
    OunceInch,
}

crate::labels!(TorqueUnit {
    NewtonMetre: "N·m",
    CentinewtonMetre: "cN·m",
    KilogramCentimetre: "kgf·cm",
    PoundInch: "lbf·in",
    OunceInch: "ozf·in",
});

impl TorqueUnit {
    /// One of it in newton metres.
    pub fn newton_metres(self) -> f64 {
        const POUND_N: f64 = 4.448_221_615_260_5;
        const INCH_M: f64 = 0.0254;
        match self {
            Self::NewtonMetre => 1.0,
            Self::CentinewtonMetre => 0.01,
            Self::KilogramCentimetre => 0.098_066_5,
            Self::PoundInch => POUND_N * INCH_M,
            Self::OunceInch => POUND_N * INCH_M / 16.0,
        }
    }

    /// A torque in this unit to three figures: "3.54".
    pub fn text(self, nm: f64) -> String {
        three_figures(nm / self.newton_metres())
    }

    /// "40 cN·m"
    pub fn with_unit(self, nm: f64) -> String {
        format!("{} {}", self.text(nm), self.label())
    }

    /// "3.1–5.2"
    pub fn range(self, least: f64, most: f64) -> String {
        format!("{}–{}", self.text(least), self.text(most))
    }
}

fn three_figures(value: f64) -> String {
    if value == 0.0 {
        return "0".to_owned();
    }
    let decimals = (2.0 - value.abs().log10().floor()).clamp(0.0, 4.0) as usize;
    let text = format!("{value:.decimals$}");
    if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.').to_owned() } else { text }
}

/// Reads a torque as people write it: "0.4", "0.4 N·m", "40 Ncm", "3,5 lbf in"; newton metres without a unit.
///
/// # Errors
/// A sentence that says what would be right.
pub fn parse_torque(text: &str) -> Result<Torque, String> {
    let text = text.trim().replace(',', ".");
    let end = text.find(|c: char| !(c.is_ascii_digit() || c == '.' || c == '-' || c == '+')).unwrap_or(text.len());
    let unit: String = text[end..].chars().filter(|c| c.is_alphanumeric()).collect::<String>().to_lowercase();
    let unit = match unit.as_str() {
        "" | "nm" => Some(TorqueUnit::NewtonMetre),
        "cnm" | "ncm" => Some(TorqueUnit::CentinewtonMetre),
        "kgfcm" | "kgcm" => Some(TorqueUnit::KilogramCentimetre),
        "lbfin" | "lbin" | "inlb" | "inlbs" | "inlbf" => Some(TorqueUnit::PoundInch),
        "ozfin" | "ozin" | "inoz" | "inozf" => Some(TorqueUnit::OunceInch),
        _ => None,
    };
    match (text[..end].parse::<f64>(), unit) {
        (Ok(value), Some(unit)) => Ok(Torque::new::<torque::newton_meter>(value * unit.newton_metres())),
        _ => Err(format!(
            "“{text}” is no torque. Write one such as 0.4 N·m, 40 cN·m, 4 kgf·cm, 3.5 lbf·in or 57 ozf·in."
        )),
    }
}

/// A torque from newton metres.
pub fn newton_metres(value: f64) -> Torque {
    Torque::new::<torque::newton_meter>(rounded(value, 1e4))
}

/// A torque in newton metres, to four decimals (0.1 mN·m, finer than any hand driver).
pub fn in_newton_metres(value: Torque) -> f64 {
    rounded(value.get::<torque::newton_meter>(), 1e4)
}

/// A temperature from degrees Celsius.
pub fn celsius(value: f64) -> ThermodynamicTemperature {
    ThermodynamicTemperature::new::<temperature::degree_celsius>(rounded(value, 1e2))
}

/// A temperature in degrees Celsius, to a hundredth.
pub fn in_celsius(value: ThermodynamicTemperature) -> f64 {
    rounded(value.get::<temperature::degree_celsius>(), 1e2)
}

/// A duration from seconds.
pub fn seconds(value: f64) -> Time {
    Time::new::<time::second>(rounded(value, 1e3))
}

/// A duration in seconds, to a thousandth.
pub fn in_seconds(value: Time) -> f64 {
    rounded(value.get::<time::second>(), 1e3)
}

/// A voltage from volts.
pub fn volts(value: f64) -> ElectricPotential {
    ElectricPotential::new::<electric_potential::volt>(rounded(value, 1e3))
}

/// A voltage in volts, to a thousandth.
pub fn in_volts(value: ElectricPotential) -> f64 {
    rounded(value.get::<electric_potential::volt>(), 1e3)
}

/// A capacity from milliampere hours.
pub fn milliampere_hours(value: f64) -> ElectricCharge {
    ElectricCharge::new::<electric_charge::milliampere_hour>(rounded(value, 1e1))
}

/// A capacity in milliampere hours, to a tenth.
pub fn in_milliampere_hours(value: ElectricCharge) -> f64 {
    rounded(value.get::<electric_charge::milliampere_hour>(), 1e1)
}

/// An energy from watt hours.
pub fn watt_hours(value: f64) -> Energy {
    Energy::new::<energy::watt_hour>(rounded(value, 1e3))
}

/// An energy in watt hours, to a thousandth.
pub fn in_watt_hours(value: Energy) -> f64 {
    rounded(value.get::<energy::watt_hour>(), 1e3)
}

/// A closed range of one quantity; a single figure has both ends alike.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Span<Q> {
    pub low: Q,
    pub high: Q,
}

/// A number for people: no trailing zeros, a decimal point.
pub fn number(value: f64) -> String {
    let text = format!("{value:.3}");
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}

/// Seconds for people: `45 s`, `2 min`, `2 min 30 s`, `1 h 5 min`.
pub fn duration_text(total: f64) -> String {
    let whole = total.round() as u64;
    let (h, m, s) = (whole / 3600, whole % 3600 / 60, whole % 60);
    let parts: Vec<String> =
        [(h, "h"), (m, "min"), (s, "s")].into_iter().filter(|(n, _)| *n > 0).map(|(n, u)| format!("{n} {u}")).collect();
    if parts.is_empty() { "0 s".to_owned() } else { parts.join(" ") }
}

/// A place in a recording for people: `4:05`, or `1:04:05` from an hour on.
pub fn clock(ms: u64) -> String {
    let s = ms / 1000;
    if s >= 3600 {
        format!("{}:{:02}:{:02}", s / 3600, s % 3600 / 60, s % 60)
    } else {
        format!("{}:{:02}", s / 60, s % 60)
    }
}

/// Serde for a quantity stored as a number in the unit that the field's name says.
macro_rules! plain_number {
    ($module:ident, $quantity:ty, $make:path, $get:path) => {
        pub mod $module {
            //! Serde for an optional quantity, and for an optional span of it (`[low, high]`).
            use super::*;
            use serde::{Deserializer, Serializer};

            pub fn serialize<S: Serializer>(value: &Option<$quantity>, s: S) -> Result<S::Ok, S::Error> {
                value.map($get).serialize(s)
            }

            pub fn deserialize<'de, D: Deserializer<'de>>(d: D) -> Result<Option<$quantity>, D::Error> {
                Ok(Option::<f64>::deserialize(d)?.map($make))
            }

            pub mod span {
                //! `[low, high]`, both in the field's unit.
                use super::*;

                pub fn serialize<S: Serializer>(value: &Option<Span<$quantity>>, s: S) -> Result<S::Ok, S::Error> {
                    value.map(|r| [$get(r.low), $get(r.high)]).serialize(s)
                }

                pub fn deserialize<'de, D: Deserializer<'de>>(d: D) -> Result<Option<Span<$quantity>>, D::Error> {
                    match Option::<[f64; 2]>::deserialize(d)? {
                        Some([low, high]) if low > high => Err(serde::de::Error::custom(format!(
                            "a range runs from low to high, but {low} is above {high}"
                        ))),
                        found => Ok(found.map(|[low, high]| Span { low: $make(low), high: $make(high) })),
                    }
                }
            }
        }
    };
}

plain_number!(serde_mm, Length, millimetres, in_millimetres);
plain_number!(serde_nm, Torque, newton_metres, in_newton_metres);
plain_number!(serde_celsius, ThermodynamicTemperature, celsius, in_celsius);
plain_number!(serde_seconds, Time, seconds, in_seconds);
plain_number!(serde_volts, ElectricPotential, volts, in_volts);
plain_number!(serde_mah, ElectricCharge, milliampere_hours, in_milliampere_hours);
plain_number!(serde_wh, Energy, watt_hours, in_watt_hours);

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // Exact or defined factors: SI Brochure, NIST SP 811 appendix B (both from memory).
    /// Factors of NIST SP 811 (from memory): 1 lbf·in = 0.1129848 N·m, 1 ozf·in = 7.061552 mN·m, 1 kgf·cm = 0.0980665 N·m.
    #[rstest]
    #[case("0.4", 0.4)]
    #[case("40 N·cm", 0.4)]
    #[case("40 cN·m", 0.4)]
    #[case("3,5 lbf in", 0.395_446_8)]
    #[case("1 ozf·in", 0.007_061_552)]
    #[case("4 kgf·cm", 0.392_266)]
    #[case("10 in-lb", 1.129_848)]
    fn torques_as_people_write_them(#[case] text: &str, #[case] nm: f64) {
        let found = parse_torque(text).unwrap().get::<torque::newton_meter>();
        assert!((found - nm).abs() < 1e-6 * nm, "{found}");
    }

    #[rstest]
    #[case("tight")]
    #[case("4 miles")]
    #[case("")]
    #[case("1.2.3 N·m")]
    fn what_is_no_torque_says_what_would_be(#[case] text: &str) {
        assert!(parse_torque(text).unwrap_err().contains("is no torque. Write one such as 0.4 N·m"));
    }

    /// The standard torque of M3, 0.63 N·m, in all units: worked with another program (NumPy 2.4.6).
    #[rstest]
    #[case(TorqueUnit::CentinewtonMetre, "63")]
    #[case(TorqueUnit::KilogramCentimetre, "6.42")]
    #[case(TorqueUnit::OunceInch, "89.2")]
    #[case(TorqueUnit::PoundInch, "5.58")]
    #[case(TorqueUnit::NewtonMetre, "0.63")]
    fn one_torque_in_all_units(#[case] unit: TorqueUnit, #[case] text: &str) {
        assert_eq!(unit.text(0.63), text);
    }

    #[rstest]
    #[case(Unit::Inch, 1.0, 25.4)]
    #[case(Unit::Fahrenheit, 176.0, 80.0)]
    #[case(Unit::Fahrenheit, 212.0, 100.0)]
    #[case(Unit::Minute, 2.5, 150.0)]
    #[case(Unit::AmpHour, 2.4, 2400.0)]
    #[case(Unit::PoundInch, 1.0, 0.112984829)]
    #[case(Unit::NewtonCentimetre, 18.0, 0.18)]
    #[case(Unit::KilogramCentimetre, 2.0, 0.196133)]
    #[case(Unit::OunceInch, 16.0, 0.112984829)]
    #[case(Unit::Kilogram, 0.94, 940.0)]
    #[case(Unit::Turn, 0.5, 180.0)]
    fn converts_to_the_sheet_unit(#[case] unit: Unit, #[case] said: f64, #[case] sheet: f64) {
        assert!((unit.to_sheet(said) - sheet).abs() < 1e-8, "{said} {unit:?} gave {}", unit.to_sheet(said));
    }

    #[rstest]
    #[case(45.0, "45 s")]
    #[case(150.0, "2 min 30 s")]
    #[case(3900.0, "1 h 5 min")]
    #[case(0.0, "0 s")]
    fn says_durations_for_people(#[case] s: f64, #[case] text: &str) {
        assert_eq!(duration_text(s), text);
    }

    #[rstest]
    #[case(0, "0:00")]
    #[case(245_900, "4:05")]
    #[case(3_845_000, "1:04:05")]
    fn says_clock_times(#[case] ms: u64, #[case] text: &str) {
        assert_eq!(clock(ms), text);
    }

    #[test]
    fn a_length_survives_si_storage() {
        assert_eq!(in_millimetres(millimetres(2.5)), 2.5);
        assert_eq!(in_celsius(celsius(80.0)), 80.0);
    }
}
