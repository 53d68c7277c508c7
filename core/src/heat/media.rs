//! What stacks are made of: how each carries and stores heat, at what temperature a bond opens, and what a layer bears.
//!
//! Values are typical ones with their spread; where a maker's sheet says otherwise, that stands. Sources: tables of the
//! `ht` library 1.2.0 after EN ISO 10456 and EN 12524 where marked, all else from memory.

use super::conduction::Slab;
use crate::labels;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What one layer is made of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Medium {
    Glass,
    Polycarbonate,
    Acrylic,
    Abs,
    Nylon,
    Aluminium,
    Magnesium,
    Steel,
    StainlessSteel,
    Copper,
    Leather,
    CircuitBoard,
    Air,
    Cell,
    DisplayPanel,
    FoamTape,
    FilmTape,
    HotMelt,
    Butyl,
    StretchStrip,
    Silicone,
    Epoxy,
    /// Of the author's own figures, see [`OwnMaterial`].
    Own,
}

labels!(Medium {
    Glass: "cover glass",
    Polycarbonate: "polycarbonate",
    Acrylic: "acrylic glass",
    Abs: "ABS",
    Nylon: "nylon",
    Aluminium: "aluminium",
    Magnesium: "magnesium",
    Steel: "steel",
    StainlessSteel: "stainless steel",
    Copper: "copper",
    Leather: "synthetic leather",
    CircuitBoard: "circuit board",
    Air: "still air",
    Cell: "battery cell",
    DisplayPanel: "display panel",
    FoamTape: "acrylic foam tape",
    FilmTape: "acrylic film tape",
    HotMelt: "hot-melt adhesive",
    Butyl: "butyl",
    StretchStrip: "stretch-release strip",
    Silicone: "silicone",
    Epoxy: "epoxy",
    Own: "own material",
});

/// A material that the table does not have, by its author's figures.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OwnMaterial {
    pub name: String,
    /// W/(m·K).
    pub conductivity: f64,
    /// kg/m³.
    pub density: f64,
    /// J/(kg·K).
    pub heat_capacity: f64,
    /// Where it is a bond: between these it can be cut, °C.
    pub softens_c: Option<[f64; 2]>,
    /// Where it is harmed, °C.
    pub harm_c: Option<f64>,
}

/// What materials are made of: from aerogel to silver, from still air to gold, from gold to hydrogen; wider than any bench.
const CONDUCTIVITY: [f64; 2] = [0.01, 450.0];
const DENSITY: [f64; 2] = [0.5, 20_000.0];
const HEAT_CAPACITY: [f64; 2] = [100.0, 15_000.0];
const BENCH_C: [f64; 2] = [-50.0, 500.0];

impl OwnMaterial {
    /// # Errors
    /// A sentence that names the figure and what would be right.
    pub fn check(&self) -> Result<(), String> {
        if self.name.trim().is_empty() || self.name.chars().count() > 60 {
            return Err("Name your own material, with at most 60 characters.".to_owned());
        }
        let name = &self.name;
        let figures = [
            ("carries heat with", self.conductivity, CONDUCTIVITY, "W/(m·K)"),
            ("weighs", self.density, DENSITY, "kg/m³"),
            ("stores", self.heat_capacity, HEAT_CAPACITY, "J/(kg·K)"),
        ];
        let temperatures = self.softens_c.into_iter().flatten().chain(self.harm_c);
        let temperatures = temperatures.map(|c| ("opens or is harmed at", c, BENCH_C, "°C"));
        for (does, value, [low, high], unit) in figures.into_iter().chain(temperatures) {
            if !(value.is_finite() && (low..=high).contains(&value)) {
                let value = crate::units::number(value);
                return Err(format!("“{name}” {does} {value} {unit}, which cannot be; write {low} to {high} {unit}."));
            }
        }
        match self.softens_c {
            Some([from, to]) if from >= to => {
                Err(format!("“{name}” opens from {from} to {to} °C; write the lower one first."))
            }
            _ => Ok(()),
        }
    }
}

/// How a medium carries and stores heat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Properties {
    /// W/(m·K): the least, the usual and the most.
    pub conductivity: [f64; 3],
    /// kg/m³.
    pub density: f64,
    /// J/(kg·K).
    pub heat_capacity: f64,
}

/// What becomes of a bond as it warms, in °C.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Softening {
    /// From here on it can be cut without force, up to where more heat wins nothing.
    pub window: [f64; 2],
    pub says: &'static str,
}

/// What a layer bears, in °C.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bears {
    /// A plan stays below.
    pub plan: f64,
    /// Harm is to be expected from here on.
    pub harm: f64,
    pub says: &'static str,
}

impl Medium {
    /// Through the thickness.
    pub fn properties(self) -> Properties {
        let (conductivity, density, heat_capacity) = match self {
            Self::Glass => ([1.0, 1.0, 1.2], 2_480.0, 800.0),
            Self::Polycarbonate => ([0.19, 0.20, 0.22], 1_200.0, 1_200.0),
            Self::Acrylic => ([0.17, 0.18, 0.20], 1_180.0, 1_500.0),
            Self::Abs => ([0.17, 0.18, 0.20], 1_050.0, 1_400.0),
            Self::Nylon => ([0.25, 0.28, 0.30], 1_300.0, 1_600.0),
            Self::Aluminium => ([92.0, 138.0, 167.0], 2_680.0, 900.0),
            Self::Magnesium => ([51.0, 60.0, 72.0], 1_810.0, 1_035.0),
            Self::Steel => ([45.0, 50.0, 55.0], 7_800.0, 450.0),
            Self::StainlessSteel => ([15.0, 16.2, 17.0], 7_900.0, 480.0),
            Self::Copper => ([370.0, 380.0, 390.0], 8_900.0, 380.0),
            Self::Leather => ([0.10, 0.15, 0.20], 900.0, 1_500.0),
            Self::CircuitBoard => ([0.25, 0.30, 0.35], 1_850.0, 1_000.0),
            Self::Air => ([0.025, 0.026, 0.027], 1.2, 1_006.0),
            Self::Cell => ([0.4, 0.8, 1.2], 2_400.0, 1_000.0),
            // Mostly glass and film.
            Self::DisplayPanel => ([0.5, 0.8, 1.0], 2_300.0, 850.0),
            Self::FoamTape => ([0.08, 0.12, 0.16], 700.0, 1_800.0),
            Self::FilmTape => ([0.17, 0.19, 0.22], 1_000.0, 1_800.0),
            Self::HotMelt => ([0.17, 0.20, 0.25], 950.0, 2_000.0),
            Self::Butyl => ([0.20, 0.24, 0.28], 1_200.0, 1_400.0),
            Self::StretchStrip => ([0.15, 0.19, 0.22], 1_000.0, 1_800.0),
            Self::Silicone => ([0.35, 0.40, 0.50], 1_300.0, 1_200.0),
            Self::Epoxy => ([0.18, 0.20, 0.25], 1_200.0, 1_400.0),
            // Stands for a plastic until its figures are there.
            Self::Own => ([0.18, 0.20, 0.22], 1_100.0, 1_400.0),
        };
        Properties { conductivity, density, heat_capacity }
    }

    /// A layer of it, in millimetres.
    pub fn slab(self, thickness_mm: f64, conductivity: usize) -> Slab {
        let p = self.properties();
        Slab {
            conductivity: p.conductivity[conductivity],
            density: p.density,
            heat_capacity: p.heat_capacity,
            thickness: thickness_mm / 1_000.0,
        }
    }

    /// Where it is a bond that heat opens.
    pub fn softens(self) -> Option<Softening> {
        let of = |low, high, says| Some(Softening { window: [low, high], says });
        match self {
            Self::FoamTape | Self::FilmTape => of(
                60.0,
                80.0,
                "has no melting point; it opens easily at 60 to 80 °C, and its carrier is harmed above 120 °C",
            ),
            Self::HotMelt => of(65.0, 90.0, "softens by degrees and opens at 65 to 90 °C"),
            Self::Butyl => {
                of(60.0, 90.0, "is stringy from 50 °C and opens at 60 to 90 °C; it draws threads, so cut while pulling")
            }
            Self::Epoxy => of(80.0, 120.0, "loses its strength at 80 to 120 °C, if at all"),
            _ => None,
        }
    }

    /// What is said of a bond that heat does not open.
    pub fn stays_firm(self) -> Option<&'static str> {
        match self {
            Self::StretchStrip => Some("is pulled out at 20 to 40 °C; above 50 °C it tears. Do not heat it"),
            Self::Silicone => Some("is not softened by useful heat. Cut it"),
            _ => None,
        }
    }

    pub fn is_bond(self) -> bool {
        self.softens().is_some() || self.stays_firm().is_some()
    }

    /// What it bears itself.
    pub fn bears(self) -> Option<Bears> {
        let of = |plan, harm, says| Some(Bears { plan, harm, says });
        match self {
            Self::Cell => {
                of(50.0, 60.0, "a cell is planned for at most 50 °C; from 60 °C on it is harmed and may vent")
            }
            Self::DisplayPanel => of(60.0, 70.0, "panels are stored at 60 to 70 °C at most"),
            Self::Abs => of(75.0, 80.0, "ABS gives way from 80 °C under load"),
            Self::Acrylic => of(80.0, 85.0, "acrylic glass gives way from 85 °C under load"),
            Self::Polycarbonate => of(120.0, 125.0, "polycarbonate gives way from 125 °C under load"),
            Self::CircuitBoard => of(80.0, 85.0, "capacitors on the board are made for 85 or 105 °C"),
            Self::FoamTape | Self::FilmTape => of(115.0, 120.0, "the carrier of the tape is harmed above 120 °C"),
            Self::StretchStrip => of(40.0, 50.0, "stretch-release strips tear above 50 °C"),
            _ => None,
        }
    }

    /// The skin of somebody who touches it: the temperature that burns within 1, 10 and 60 s (ISO 13732-1, thresholds; 1 s
    /// and 10 s are read from its graphs, all from memory).
    pub fn burns(self) -> [f64; 3] {
        match self {
            Self::Aluminium | Self::Magnesium | Self::Steel | Self::StainlessSteel | Self::Copper => [65.0, 55.0, 51.0],
            Self::Glass | Self::DisplayPanel => [80.0, 66.0, 56.0],
            _ => [85.0, 71.0, 60.0],
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::labels::Label;
    use rstest::rstest;

    #[test]
    fn every_medium_has_a_spread_around_its_usual_value() {
        for m in Medium::ALL {
            let [low, usual, high] = m.properties().conductivity;
            assert!(0.0 < low && low <= usual && usual <= high, "{m:?}");
            if let Some(bears) = m.bears() {
                assert!(bears.plan < bears.harm, "{m:?}");
            }
            if let Some(s) = m.softens() {
                assert!(s.window[0] < s.window[1], "{m:?}");
            }
        }
    }

    /// How long heat takes through a layer, L²/α, and what it resists, L/k: the handbook's table.
    #[rstest]
    #[case(Medium::Glass, 0.7, 0.97, 7.0e-4)]
    #[case(Medium::Polycarbonate, 1.2, 10.4, 60e-4)]
    #[case(Medium::FoamTape, 0.2, 0.42, 16.7e-4)]
    #[case(Medium::Butyl, 1.5, 15.8, 62.5e-4)]
    #[case(Medium::Leather, 1.2, 13.0, 80e-4)]
    #[case(Medium::Cell, 4.0, 48.0, 50e-4)]
    fn layers_have_the_time_scale_of_the_handbook(
        #[case] medium: Medium,
        #[case] mm: f64,
        #[case] seconds: f64,
        #[case] resists: f64,
    ) {
        let s = medium.slab(mm, 1);
        let found = s.thickness.powi(2) * s.density * s.heat_capacity / s.conductivity;
        assert!((found / seconds - 1.0).abs() < 0.01, "{found} s");
        assert!((s.thickness / s.conductivity / resists - 1.0).abs() < 0.01);
    }

    /// Bare metal burns first and plastic last; longer contact needs less.
    #[test]
    fn skin_burns_sooner_on_metal() {
        let [metal, glass, plastic] = [Medium::Aluminium, Medium::Glass, Medium::Abs].map(Medium::burns);
        for n in 0..3 {
            assert!(metal[n] < glass[n] && glass[n] < plastic[n]);
        }
        assert!([metal, glass, plastic].iter().all(|b| b[0] > b[1] && b[1] > b[2]));
    }
}
