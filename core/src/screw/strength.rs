//! What screws and the holes they go into are made of, and what that bears.

use super::Thread;
use crate::labels;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Strength class of a screw.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
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

labels!(Class { C48: "4.8", C58: "5.8", C88: "8.8", C109: "10.9", A250: "A2-50", A270: "A2-70", A480: "A4-80" });

/// Strengths in MPa.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Strength {
    /// Least tensile strength.
    pub tensile: f64,
    /// Proof stress, or the 0.2 % yield of stainless classes.
    pub proof: f64,
    /// Least yield stress.
    pub yields: f64,
}

impl Class {
    /// ISO 898-1 and ISO 3506-1, from memory.
    pub fn strength(self) -> Strength {
        let (tensile, proof, yields) = match self {
            Self::C48 => (420.0, 310.0, 340.0),
            Self::C58 => (520.0, 380.0, 420.0),
            Self::C88 => (800.0, 580.0, 640.0),
            Self::C109 => (1040.0, 830.0, 940.0),
            Self::A250 => (500.0, 210.0, 210.0),
            Self::A270 => (700.0, 450.0, 450.0),
            Self::A480 => (800.0, 600.0, 600.0),
        };
        Strength { tensile, proof, yields }
    }

    /// Austenitic steel galls without grease.
    pub fn stainless(self) -> bool {
        matches!(self, Self::A250 | Self::A270 | Self::A480)
    }

    /// Share of the ideal torsion strength X in T = X·Rm·π/16·d3,min³ that the smallest screw reaches.
    ///
    /// Classes 8.8 and 10.9: ISO 898-7, from memory; 4.8 and 5.8 are not in it and are softer still, so they are taken as
    /// 8.8. Stainless: the lowest share that the table of ISO 3506-1 gives from M2.5 on, from memory.
    pub(super) fn torsion_share(self) -> f64 {
        match self {
            Self::C48 | Self::C58 | Self::C88 => 0.84,
            Self::C109 => 0.79,
            Self::A250 => 0.93,
            Self::A270 | Self::A480 => 0.94,
        }
    }
}

/// What the screw goes into.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Material {
    Steel,
    /// A threaded insert of brass in plastic.
    BrassInsert,
    Aluminium,
    CastAluminium,
    Magnesium,
    /// Polyamide with glass.
    Pa66Gf30,
    Pc,
    Abs,
}

labels!(Material {
    Steel: "steel",
    BrassInsert: "brass insert in plastic" / "a brass insert in plastic",
    Aluminium: "wrought aluminium",
    CastAluminium: "cast aluminium",
    Magnesium: "cast magnesium",
    Pa66Gf30: "glass-filled polyamide",
    Pc: "polycarbonate",
    Abs: "ABS",
});

impl Material {
    /// Tensile and shear strength in MPa at room temperature: typical values, from memory.
    pub fn strength(self) -> (f64, f64) {
        match self {
            Self::Steel => (270.0, 162.0),
            Self::BrassInsert => (430.0, 258.0),
            Self::Aluminium => (310.0, 205.0),
            Self::CastAluminium => (310.0, 185.0),
            Self::Magnesium => (230.0, 140.0),
            Self::Pa66Gf30 => (170.0, 60.0),
            Self::Pc => (60.0, 35.0),
            Self::Abs => (42.0, 24.0),
        }
    }

    /// Most pressure under a screw head in MPa before it sinks in: of the kind of values in VDI 2230, from memory; plastics
    /// by their compressive yield, typical values, from memory.
    pub fn crushed_at(self) -> f64 {
        match self {
            Self::Steel => 420.0,
            Self::BrassInsert => 350.0,
            Self::Aluminium => 360.0,
            Self::CastAluminium => 290.0,
            Self::Magnesium => 210.0,
            Self::Pa66Gf30 => 120.0,
            Self::Pc => 70.0,
            Self::Abs => 45.0,
        }
    }

    /// The share of the stripping torque that a setting may reach (common practice, no source).
    pub fn share_of_stripping(self) -> f64 {
        match self {
            Self::Steel | Self::BrassInsert | Self::Aluminium | Self::CastAluminium => 0.5,
            Self::Magnesium | Self::Pa66Gf30 | Self::Pc | Self::Abs => 0.4,
        }
    }

    /// Engagement to aim at, in diameters (common practice, no source).
    pub fn engagement(self) -> f64 {
        match self {
            Self::Steel | Self::BrassInsert => 1.0,
            Self::Aluminium | Self::CastAluminium => 1.5,
            Self::Magnesium | Self::Pa66Gf30 | Self::Pc | Self::Abs => 2.0,
        }
    }

    /// Screws cut or form their own thread in it.
    pub fn plastic(self) -> bool {
        matches!(self, Self::Pa66Gf30 | Self::Pc | Self::Abs)
    }
}

impl Thread {
    /// The load it bears without stretching for good, in newtons.
    pub fn proof_load_n(self, class: Class) -> f64 {
        self.stress_area_mm2() * class.strength().proof
    }

    /// The load it breaks at, in newtons.
    pub fn breaking_load_n(self, class: Class) -> f64 {
        self.stress_area_mm2() * class.strength().tensile
    }

    /// The least torque that breaks the screw, in N·m: X·Rm·π/16·d3,min³ (ISO 898-7, from memory).
    pub fn breaking_torque_nm(self, class: Class) -> f64 {
        let torsion = std::f64::consts::PI / 16.0 * self.smallest_root_mm().powi(3);
        class.torsion_share() * class.strength().tensile * torsion / 1000.0
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

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

    /// ISO 898-7, least breaking torques (from memory): the formula agrees within 7 %.
    #[rstest]
    #[case("M1", Class::C88, 0.033)]
    #[case("M1.6", Class::C88, 0.16)]
    #[case("M2", Class::C88, 0.37)]
    #[case("M2.5", Class::C88, 0.82)]
    #[case("M3", Class::C88, 1.5)]
    #[case("M4", Class::C88, 3.6)]
    #[case("M6", Class::C88, 13.0)]
    #[case("M2", Class::C109, 0.45)]
    #[case("M3", Class::C109, 1.9)]
    #[case("M5", Class::C109, 9.3)]
    fn breaking_torques_of_the_standard(#[case] size: &str, #[case] class: Class, #[case] nm: f64) {
        let found = Thread::parse(size).unwrap().breaking_torque_nm(class);
        assert!((found - nm).abs() / nm < 0.07, "{found}");
    }

    /// ISO 3506-1, least breaking torques of stainless screws (from memory): within 8 %.
    #[rstest]
    #[case("M2.5", Class::A250, 0.6)]
    #[case("M2.5", Class::A270, 0.9)]
    #[case("M2.5", Class::A480, 0.96)]
    #[case("M3", Class::A250, 1.1)]
    #[case("M3", Class::A270, 1.6)]
    #[case("M3", Class::A480, 1.8)]
    #[case("M4", Class::A250, 2.7)]
    #[case("M4", Class::A270, 3.8)]
    #[case("M4", Class::A480, 4.3)]
    #[case("M5", Class::A250, 5.5)]
    #[case("M5", Class::A270, 7.8)]
    #[case("M5", Class::A480, 8.8)]
    #[case("M6", Class::A250, 9.3)]
    #[case("M6", Class::A270, 13.0)]
    #[case("M6", Class::A480, 15.0)]
    fn breaking_torques_of_stainless_screws(#[case] size: &str, #[case] class: Class, #[case] nm: f64) {
        let found = Thread::parse(size).unwrap().breaking_torque_nm(class);
        assert!((found - nm).abs() / nm < 0.08, "{found}");
    }

    /// The same table below M2.5 is richer than any formula: what is reckoned stays on the safe side of it.
    #[rstest]
    #[case("M1.6", Class::A250, 0.15)]
    #[case("M1.6", Class::A270, 0.2)]
    #[case("M2", Class::A250, 0.3)]
    #[case("M2", Class::A480, 0.48)]
    fn small_stainless_screws_are_never_thought_stronger(#[case] size: &str, #[case] class: Class, #[case] nm: f64) {
        let found = Thread::parse(size).unwrap().breaking_torque_nm(class);
        assert!(found <= nm && found > 0.75 * nm, "{found}");
    }
}
