//! Threads of small screws: their diameters, stress area, and what the tolerances leave of their flanks.
//!
//! Formulas of the 60° profile (ISO 68-1, ISO 724; from memory) over the coarse pitches of ISO 261 (from memory, compared
//! with a general-purpose thread library: all thirteen pitches agree). Stress area by ISO 898-1 (from memory).

use crate::units::{Length, millimetres, number};
use serde::{Deserialize, Serialize};
use std::fmt;
use std::str::FromStr;

/// Millimetres as they are, without the rounding that people see.
pub(super) fn mm(length: Length) -> f64 {
    length.get::<uom::si::length::millimeter>()
}

/// A metric thread; the pitch is the coarse one unless it is given. Written as people write it: "M2", "M3×0.35".
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(try_from = "String", into = "String")]
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

impl fmt::Display for Thread {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "M{}", number(mm(self.diameter)))?;
        let coarse = Self::coarse(self.diameter).is_some_and(|c| c == *self);
        if coarse { Ok(()) } else { write!(f, "×{}", number(mm(self.pitch))) }
    }
}

impl From<Thread> for String {
    fn from(thread: Thread) -> Self {
        thread.to_string()
    }
}

impl FromStr for Thread {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        Self::parse(text)
            .ok_or_else(|| format!("“{text}” is no metric thread. Write one such as M2, or with its pitch: M3×0.35."))
    }
}

impl TryFrom<String> for Thread {
    type Error = String;

    fn try_from(text: String) -> Result<Self, String> {
        text.parse()
    }
}

impl Thread {
    /// The coarse thread of a nominal diameter; `None` where the tables have none.
    pub fn coarse(diameter: Length) -> Option<Self> {
        let d = mm(diameter);
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
            // A pitch of half the diameter leaves no core.
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

    /// Flank area that an internal thread shears through, per millimetre of engagement, at the worst of tolerance 6H/6g.
    ///
    /// Limits by the formulas of ISO 965-1, areas by FED-STD-H28/2 (both from memory). Small pitches lose a quarter to two
    /// fifths of the basic area to their tolerances.
    pub fn internal_shear_mm(self) -> f64 {
        let (d, p) = (mm(self.diameter), mm(self.pitch));
        let d_min = d - self.allowance() - self.major_tolerance();
        let d2_max = mm(self.pitch_diameter()) + 1.32 * self.pitch_tolerance();
        std::f64::consts::PI / p * d_min * (p / 2.0 + (d_min - d2_max) / 3f64.sqrt())
    }

    /// The same for the thread of the screw itself.
    pub fn external_shear_mm(self) -> f64 {
        let p = mm(self.pitch);
        let d1_max = mm(self.minor_diameter()) + self.minor_tolerance();
        std::f64::consts::PI / p * d1_max * (p / 2.0 + (self.smallest_pitch_diameter() - d1_max) / 3f64.sqrt())
    }

    /// Smallest root diameter by tolerance 6g: d2,min − 0.577·P, in millimetres.
    pub fn smallest_root_mm(self) -> f64 {
        self.smallest_pitch_diameter() - 0.577 * mm(self.pitch)
    }

    fn smallest_pitch_diameter(self) -> f64 {
        mm(self.pitch_diameter()) - self.allowance() - self.pitch_tolerance()
    }

    /// Distance g of the screw's thread below its basic size, in millimetres.
    fn allowance(self) -> f64 {
        (15.0 + 11.0 * mm(self.pitch)) / 1000.0
    }

    fn major_tolerance(self) -> f64 {
        let p = mm(self.pitch);
        (180.0 * p.powf(2.0 / 3.0) - 3.15 / p.sqrt()) / 1000.0
    }

    fn pitch_tolerance(self) -> f64 {
        /// Ends of the ranges of diameters that share a tolerance.
        const RANGES: [f64; 5] = [0.99, 1.4, 2.8, 5.6, 11.2];
        let d = mm(self.diameter);
        let range = RANGES.windows(2).find(|w| d <= w[1]).unwrap_or(&RANGES[3..]);
        90.0 * mm(self.pitch).powf(0.4) * (range[0] * range[1]).sqrt().powf(0.1) / 1000.0
    }

    fn minor_tolerance(self) -> f64 {
        let p = mm(self.pitch);
        let coarse = 230.0 * p.powf(0.7);
        (if p < 1.0 { 433.0 * p - 190.0 * p.powf(1.22) } else { coarse }) / 1000.0
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
    use crate::units::in_millimetres;
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

    /// Areas worked out from the formulas of ISO 965-1 and FED-STD-H28/2 with another program (NumPy 2.4.6).
    #[rstest]
    #[case("M1.4", 2.27, 1.61)]
    #[case("M1.6", 2.67, 1.87)]
    #[case("M2", 3.47, 2.45)]
    #[case("M2.5", 4.49, 3.20)]
    #[case("M3", 5.47, 3.91)]
    #[case("M4", 7.78, 5.47)]
    #[case("M5", 9.98, 7.07)]
    #[case("M6", 12.27, 8.70)]
    fn tolerances_eat_into_the_flanks(#[case] size: &str, #[case] internal: f64, #[case] external: f64) {
        let thread = Thread::parse(size).unwrap();
        let (i, e) = (thread.internal_shear_mm(), thread.external_shear_mm());
        assert!((i - internal).abs() < 6e-3 && (e - external).abs() < 6e-3, "{i} {e}");
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
    #[case("M2", "M2")]
    #[case("m3 x 0.35", "M3×0.35")]
    #[case("M3×0.5", "M3")]
    fn a_thread_is_written_the_shortest_way(#[case] text: &str, #[case] written: &str) {
        assert_eq!(Thread::parse(text).unwrap().to_string(), written);
    }

    #[rstest]
    #[case("M1.6", 1.5, 3.0)]
    #[case("M3", 0.8, 0.0)]
    #[case("M2", 4.0, 9.0)]
    fn only_whole_turns_hold(#[case] size: &str, #[case] depth: f64, #[case] turns: f64) {
        assert_eq!(Thread::parse(size).unwrap().turns_engaged(millimetres(depth)), turns);
    }
}
