//! Threads of small screws: their diameters, stress area and strength.
//!
//! Formulas of the 60° profile (ISO 68-1, ISO 724; from memory) over the coarse pitches of ISO 261 (from memory, compared
//! with a general-purpose thread library: all thirteen pitches agree). Stress area by ISO 898-1 (from memory).

use crate::units::{Length, in_millimetres, millimetres};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A metric thread; the pitch is the coarse one unless it is given.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Thread {
    /// Nominal diameter d.
    pub diameter: Length,
    /// Pitch P.
    pub pitch: Length,
}

/// Coarse pitches, diameter and pitch in millimetres. ISO 261, from memory; M1.7, M2.3 and M2.6 are older sizes of JIS,
/// still met in small devices.
const COARSE_MM: [(f64, f64); 16] = [
    (1.0, 0.25),
    (1.2, 0.25),
    (1.4, 0.3),
    (1.6, 0.35),
    (1.7, 0.35),
    (1.8, 0.35),
    (2.0, 0.4),
    (2.2, 0.45),
    (2.3, 0.4),
    (2.5, 0.45),
    (2.6, 0.45),
    (3.0, 0.5),
    (3.5, 0.6),
    (4.0, 0.7),
    (5.0, 0.8),
    (6.0, 1.0),
];

/// Strength class of a screw.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub enum Class {
    #[serde(rename = "4.8")]
    C48,
    #[serde(rename = "5.8")]
    C58,
    #[serde(rename = "8.8")]
    C88,
    #[serde(rename = "10.9")]
    C109,
    #[serde(rename = "A2-50")]
    A250,
    #[serde(rename = "A2-70")]
    A270,
    #[serde(rename = "A4-80")]
    A480,
}

/// Strengths in MPa.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Strength {
    /// Least tensile strength.
    pub tensile: f64,
    /// Proof stress, or the 0.2 % yield of stainless classes.
    pub proof: f64,
}

impl Class {
    /// ISO 898-1 and ISO 3506-1, from memory.
    pub fn strength(self) -> Strength {
        let (tensile, proof) = match self {
            Self::C48 => (420.0, 310.0),
            Self::C58 => (520.0, 380.0),
            Self::C88 => (800.0, 580.0),
            Self::C109 => (1040.0, 830.0),
            Self::A250 => (500.0, 210.0),
            Self::A270 => (700.0, 450.0),
            Self::A480 => (800.0, 600.0),
        };
        Strength { tensile, proof }
    }
}

impl Thread {
    /// The coarse thread of a nominal diameter; `None` where the tables have none.
    pub fn coarse(diameter: Length) -> Option<Self> {
        let d = in_millimetres(diameter);
        let (_, pitch) = COARSE_MM.iter().find(|(size, _)| (size - d).abs() < 1e-6)?;
        Some(Self { diameter, pitch: millimetres(*pitch) })
    }

    /// "M2", "m 2,5", "M3×0.5": the thread as people write it.
    pub fn parse(text: &str) -> Option<Self> {
        let text = text.trim().to_lowercase().replace(',', ".");
        let text = text.strip_prefix('m')?.trim();
        let (size, pitch) = match text.split_once(['x', '×']) {
            Some((size, pitch)) => (size, Some(pitch.trim().parse::<f64>().ok().filter(|p| *p > 0.0)?)),
            None => (text, None),
        };
        let size = size.trim().parse::<f64>().ok().filter(|d| (0.5..=100.0).contains(d))?;
        match pitch {
            Some(pitch) if pitch < size / 2.0 => Some(Self { diameter: millimetres(size), pitch: millimetres(pitch) }),
            Some(_) => None,
            None => Self::coarse(millimetres(size)),
        }
    }

    /// Pitch diameter d2 = d − 0.649519·P.
    pub fn pitch_diameter(self) -> Length {
        self.diameter - 0.649_519 * self.pitch
    }

    /// Minor diameter of the internal thread D1 = d − 1.082532·P.
    pub fn minor_diameter(self) -> Length {
        self.diameter - 1.082_532 * self.pitch
    }

    /// Root diameter of the external thread d3 = d − 1.226869·P.
    pub fn root_diameter(self) -> Length {
        self.diameter - 1.226_869 * self.pitch
    }

    /// Stress area As = π/4·((d2 + d3)/2)², in mm².
    pub fn stress_area_mm2(self) -> f64 {
        let mean = (self.pitch_diameter() + self.root_diameter()).get::<uom::si::length::millimeter>() / 2.0;
        std::f64::consts::FRAC_PI_4 * mean * mean
    }

    /// The load it bears without stretching for good, in newtons.
    pub fn proof_load_n(self, class: Class) -> f64 {
        self.stress_area_mm2() * class.strength().proof
    }

    /// Full turns in a hole of this depth that hold: whole ones only, less the one that chamfers take.
    pub fn turns_engaged(self, depth: Length) -> f64 {
        let turns = (depth / self.pitch).get::<uom::si::ratio::ratio>();
        ((turns + 1e-9).floor() - 1.0).max(0.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use uom::si::length::millimeter;

    /// ISO 724 and ISO 898-1 as recalled: pitch, minor and root diameter, stress area.
    #[rstest]
    #[case("M1", 0.838, 0.729, 0.693, 0.460)]
    #[case("M1.4", 1.205, 1.075, 1.032, 0.983)]
    #[case("M1.6", 1.373, 1.221, 1.171, 1.270)]
    #[case("M2", 1.740, 1.567, 1.509, 2.073)]
    #[case("M2.5", 2.208, 2.013, 1.948, 3.391)]
    #[case("M3", 2.675, 2.459, 2.387, 5.031)]
    #[case("M4", 3.545, 3.242, 3.1412, 8.779)]
    #[case("M5", 4.480, 4.134, 4.019, 14.183)]
    #[case("M6", 5.350, 4.917, 4.773, 20.123)]
    fn diameters_of_the_standards(
        #[case] size: &str,
        #[case] d2: f64,
        #[case] d1: f64,
        #[case] d3: f64,
        #[case] area: f64,
    ) {
        let thread = Thread::parse(size).unwrap();
        let mm = |l: Length| l.get::<millimeter>();
        let off = [
            mm(thread.pitch_diameter()) - d2,
            mm(thread.minor_diameter()) - d1,
            mm(thread.root_diameter()) - d3,
            thread.stress_area_mm2() - area,
        ];
        assert!(off.iter().all(|o| o.abs() < 6e-4), "{off:?}");
    }

    /// ISO 898-1, table of proof loads, class 8.8 (from memory): within the rounding of the table.
    #[rstest]
    #[case("M3", 2920.0)]
    #[case("M4", 5100.0)]
    #[case("M5", 8230.0)]
    #[case("M6", 11_600.0)]
    fn proof_loads_of_the_standard(#[case] size: &str, #[case] newtons: f64) {
        let load = Thread::parse(size).unwrap().proof_load_n(Class::C88);
        assert!((load - newtons).abs() / newtons < 0.007, "{load}");
    }

    #[rstest]
    #[case("m 2,5", Some((2.5, 0.45)))]
    #[case("M3×0.35", Some((3.0, 0.35)))]
    #[case("M3x9", None)]
    #[case("M7", None)]
    #[case("M-3", None)]
    #[case("Mx", None)]
    #[case("3 mm", None)]
    fn threads_as_people_write_them(#[case] text: &str, #[case] found: Option<(f64, f64)>) {
        let thread = Thread::parse(text);
        assert_eq!(thread.map(|t| (in_millimetres(t.diameter), in_millimetres(t.pitch))), found);
    }

    #[rstest]
    #[case("M1.6", 1.5, 3.0)]
    #[case("M3", 0.8, 0.0)]
    #[case("M2", 4.0, 9.0)]
    fn only_whole_turns_hold(#[case] size: &str, #[case] depth: f64, #[case] turns: f64) {
        assert_eq!(Thread::parse(size).unwrap().turns_engaged(millimetres(depth)), turns);
    }
}
