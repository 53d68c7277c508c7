//! Usual stacks to begin with, so that nobody starts from an empty table. Thicknesses are typical, not those of a product;
//! the author puts the true ones in their place.

use super::media::Medium;
use super::plan::StackLayer;
use crate::labels;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A usual stack.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Preset {
    GlassBack,
    PlasticLid,
    DisplayInFrame,
    MetalCover,
}

labels!(Preset {
    GlassBack: "glass back over a cell",
    PlasticLid: "plastic lid",
    DisplayInFrame: "display glued into a frame",
    MetalCover: "metal cover",
});

impl Preset {
    /// From the heated face inward.
    pub fn layers(self) -> Vec<StackLayer> {
        let all: &[(Medium, f64)] = match self {
            Self::GlassBack => &[
                (Medium::Glass, 0.7),
                (Medium::FoamTape, 0.2),
                (Medium::Aluminium, 1.0),
                (Medium::Air, 0.3),
                (Medium::Cell, 4.0),
            ],
            Self::PlasticLid => &[(Medium::Abs, 1.5), (Medium::FoamTape, 0.3), (Medium::Abs, 2.0)],
            Self::DisplayInFrame => &[
                (Medium::Glass, 0.7),
                (Medium::FilmTape, 0.25),
                (Medium::Magnesium, 1.0),
                (Medium::Air, 0.5),
                (Medium::Cell, 4.0),
            ],
            Self::MetalCover => &[(Medium::Aluminium, 0.8), (Medium::FoamTape, 0.2), (Medium::Abs, 2.0)],
        };
        all.iter().map(|(medium, thickness_mm)| StackLayer::of(*medium, *thickness_mm)).collect()
    }

    /// The one that the name of a cover suggests.
    pub fn for_cover(name: &str) -> Self {
        let name = name.to_lowercase();
        let says = |words: &[&str]| words.iter().any(|w| name.contains(w));
        if says(&["display", "screen", "panel", "touch"]) {
            Self::DisplayInFrame
        } else if says(&["glass", "back"]) {
            Self::GlassBack
        } else if says(&["metal", "steel", "alumin", "shield"]) {
            Self::MetalCover
        } else {
            Self::PlasticLid
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::plan::{Heating, WarmedBy};
    use crate::labels::Label;
    use rstest::rstest;

    #[test]
    fn every_preset_can_be_heated() {
        for preset in Preset::ALL {
            let heating =
                Heating { layers: preset.layers(), by: WarmedBy::Plate, setting_c: 80.0, seconds: 60.0, room_c: 23.0 };
            assert_eq!(heating.check(), Ok(()), "{preset:?}");
        }
    }

    #[rstest]
    #[case("rear glass", Preset::GlassBack)]
    #[case("Display", Preset::DisplayInFrame)]
    #[case("steel cover", Preset::MetalCover)]
    #[case("battery lid", Preset::PlasticLid)]
    fn a_name_suggests_a_stack(#[case] name: &str, #[case] wanted: Preset) {
        assert_eq!(Preset::for_cover(name), wanted);
    }
}
