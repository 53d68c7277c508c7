//! The window of settings: how long each temperature of a source takes until the bond is soft for sure, and from when on
//! something behind it may be harmed. Between the two one can work; where the second comes first, there is no window.

use super::conduction::follow_roughly;
use super::plan::Heating;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One temperature of the source.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WindowPoint {
    pub setting_c: f64,
    /// Seconds until the bond is soft under a weak source; `None`: not within [`WINDOW_S`].
    pub soft_s: Option<f64>,
    /// Seconds until something gets warmer than planned under a strong source; `None`: not within [`WINDOW_S`].
    pub harm_s: Option<f64>,
}

/// Longest heating that is looked at, s.
pub const WINDOW_S: f64 = 600.0;
/// Temperatures that are looked at, both ends included.
const POINTS: usize = 13;

/// Works out the window; empty where heat does not open the bond. Thirty-nine rough solves, about 10 ms.
pub fn window(asked: &Heating) -> Vec<WindowPoint> {
    let Some(soft) = asked.bond().and_then(|b| asked.layers[b].softens()).map(|s| s.window[0]) else {
        return Vec::new();
    };
    let [low, high] = asked.by.range_c();
    let at = |n: usize| low + (high - low) * n as f64 / (POINTS - 1) as f64;
    (0..POINTS).map(|n| point(&Heating { setting_c: at(n), ..asked.clone() }, soft)).collect()
}

fn point(tried: &Heating, soft: f64) -> WindowPoint {
    let places = tried.places();
    let trace = |which| follow_roughly(&tried.stack(which), &tried.spells(which, WINDOW_S, 1.0), &places);
    let within = |s: &f64| *s <= WINDOW_S;
    let limits: Vec<f64> =
        tried.guarded().into_iter().filter_map(|n| tried.layers[n].bears()).map(|bears| bears.plan).collect();
    // Layers that carry much and layers that carry little: whichever lets something get too warm first.
    let spoilt = [1, 2].into_iter().filter_map(|which| {
        let strong = trace(which);
        let first = limits.iter().enumerate().filter_map(|(n, limit)| strong.reaches(n + 2, *limit));
        first.filter(within).min_by(f64::total_cmp)
    });
    WindowPoint {
        setting_c: tried.setting_c,
        soft_s: trace(0).reaches(0, soft).filter(within),
        harm_s: spoilt.min_by(f64::total_cmp),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::plan::WarmedBy;
    use crate::heat::presets::Preset;
    use rstest::rstest;

    fn asked(preset: Preset, by: WarmedBy) -> Heating {
        Heating { layers: preset.layers(), by, setting_c: 80.0, seconds: 120.0, room_c: 23.0 }
    }

    #[rstest]
    fn hotter_is_never_slower(
        #[values(Preset::GlassBack, Preset::PlasticLid, Preset::DisplayInFrame, Preset::MetalCover)] preset: Preset,
        #[values(WarmedBy::Plate, WarmedBy::HairDryer, WarmedBy::HeatGun)] by: WarmedBy,
    ) {
        let points = window(&asked(preset, by));
        assert_eq!(points.len(), POINTS);
        let never = |s: Option<f64>| s.unwrap_or(f64::INFINITY);
        for pair in points.windows(2) {
            assert!(never(pair[1].soft_s) <= never(pair[0].soft_s) + 1e-6, "{pair:?}");
            assert!(never(pair[1].harm_s) <= never(pair[0].harm_s) + 1e-6, "{pair:?}");
        }
    }

    #[test]
    fn what_is_recommended_lies_in_the_window() {
        let lid = asked(Preset::PlasticLid, WarmedBy::Plate);
        let does = lid.plan().unwrap().recommended.expect("a plate does");
        let points = window(&lid);
        let beside = points.windows(2).find(|p| p[0].setting_c <= does.setting_c && does.setting_c <= p[1].setting_c);
        let [below, above] = beside.expect("within the range") else { panic!("two points") };
        // Soft at the hotter of the two before that time, and not harmed at the milder one.
        assert!(above.soft_s.is_some_and(|s| s <= does.seconds), "{above:?} {does:?}");
        assert!(below.harm_s.is_none_or(|s| s >= does.seconds), "{below:?} {does:?}");
    }

    #[test]
    fn what_heat_does_not_open_has_no_window() {
        let mut lid = asked(Preset::PlasticLid, WarmedBy::Plate);
        lid.layers[1].medium = crate::heat::media::Medium::Silicone;
        assert!(window(&lid).is_empty());
    }
}
