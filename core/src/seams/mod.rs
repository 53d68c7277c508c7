//! Joints without screws as the bench sees them: what lies behind a cover, how its bond is warmed, and whether the heat that
//! was told does what it should.

pub mod opening;
pub mod picture;
pub mod ways;

use crate::heat::media::Medium;
use crate::heat::plan::{HeatGuard, HeatPlan, Heating, WarmedBy};
use crate::heat::presets::Preset;
use crate::ids::*;
use crate::manual::{Manual, Seam, SeamKind};
use crate::reading::HeatSource;
use crate::units::{duration_text, in_celsius, in_seconds, number};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A room that nobody measured, °C.
const ROOM_C: f64 = 23.0;
/// What is usually told where nothing was (common practice, no source).
const USUAL_C: f64 = 75.0;
const USUAL_S: f64 = 120.0;

/// A heat setting that a step tells, held against what it does to a seam.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ToldHeat {
    pub heat: HeatId,
    /// "heating pad on the rear cover, 75–80 °C, 2 min".
    pub words: String,
    /// The hottest and the longest that was told; `None`: no time was.
    pub setting_c: f64,
    pub seconds: Option<f64>,
    pub judged: JudgedHeat,
}

/// What a setting does.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct JudgedHeat {
    pub verdict: HeatVerdict,
    pub says: String,
}

/// How a setting is judged.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeatVerdict {
    /// The bond opens and nothing gets too warm.
    Does,
    /// The bond may stay hard.
    TooLittle,
    /// Something behind it gets warmer than planned.
    TooWarm,
    /// Something may be harmed.
    Harms,
    /// Heat does not open this bond.
    Useless,
}

/// What is heated at a seam: as its author put it together, else the stack that its cover suggests.
pub fn heating(manual: &Manual, seam: &Seam) -> Heating {
    if let Some(heating) = &seam.heating {
        return heating.clone();
    }
    let told = manual.heats_of(seam.step).next();
    // What is heated is the cover; the seam itself may be told as "the glue".
    let cover = told.and_then(|h| h.target).or(seam.part).map_or("", |p| manual.part_name(p));
    let by = told.and_then(|h| h.source).map_or(WarmedBy::Plate, warmed_by);
    let [low, high] = by.range_c();
    let setting_c = told.and_then(|h| h.temperature).map_or(USUAL_C, |t| in_celsius(t.high)).clamp(low, high);
    let seconds = told.and_then(|h| h.dwell).map_or(USUAL_S, |d| in_seconds(d.high)).clamp(1.0, 1_800.0);
    Heating { layers: Preset::for_cover(cover).layers(), by, setting_c, seconds, room_c: ROOM_C }
}

fn warmed_by(source: HeatSource) -> WarmedBy {
    match source {
        HeatSource::HeatGun => WarmedBy::HeatGun,
        HeatSource::HairDryer => WarmedBy::HairDryer,
        HeatSource::HeatingPad | HeatSource::HeatingElement | HeatSource::Oven | HeatSource::SolderingIron => {
            WarmedBy::Plate
        }
    }
}

/// The heat that the step of a seam tells, each setting under the stack of the seam.
pub fn told(manual: &Manual, seam: &Seam) -> Vec<ToldHeat> {
    if !is_bonded(seam) {
        return Vec::new();
    }
    let stack = heating(manual, seam);
    let told = |heat: &crate::manual::Heat| {
        let setting_c = in_celsius(heat.temperature?.high);
        // Without a time nothing can be judged but what the usual one would do.
        let seconds = heat.dwell.map_or(USUAL_S, |d| in_seconds(d.high)).clamp(1.0, 1_800.0);
        let by = heat.source.map_or(stack.by, warmed_by);
        let asked = Heating { setting_c, seconds, by, ..stack.clone() };
        let judged = asked
            .outcome()
            .map_or_else(|says| JudgedHeat { verdict: HeatVerdict::Useless, says }, |p| judge(&asked, &p));
        let told_s = heat.dwell.map(|d| in_seconds(d.high));
        Some(ToldHeat { heat: heat.id, words: heat.words(manual), setting_c, seconds: told_s, judged })
    };
    manual.heats_of(seam.step).filter_map(told).collect()
}

/// Whether heat is of any use to a joint of this kind.
pub fn is_bonded(seam: &Seam) -> bool {
    matches!(seam.kind, SeamKind::Glue | SeamKind::Tape)
}

/// What a setting does, in a sentence for people.
pub fn judge(asked: &Heating, plan: &HeatPlan) -> JudgedHeat {
    let of = |verdict, says| JudgedHeat { verdict, says };
    let nozzle = if asked.by.blows() { " at the nozzle" } else { "" };
    let at = format!("At {} °C{nozzle} for {}", number(asked.setting_c), duration_text(asked.seconds));
    let bond = asked.layers[plan.bond].name();
    if let Some(firm) = &plan.firm {
        return of(HeatVerdict::Useless, format!("A {bond} {firm}."));
    }
    if let Some(guard) = plan.guards.iter().find(|g| g.harm_after.is_some()) {
        return of(HeatVerdict::Harms, format!("{at} {}", passes(guard, guard.harm_c, guard.harm_after)));
    }
    let waits = plan.soft_after.unwrap_or_default();
    let [weak, usual, strong] = waits;
    let Some(strong) = strong else {
        return of(HeatVerdict::TooLittle, format!("{at} the {bond} stays hard. Heat for longer, or hotter."));
    };
    let Some(slowest) = weak else {
        let soon = usual.unwrap_or(strong);
        let says = format!(
            "{at} the {bond} may stay hard: usually it is soft after {}, under a weak source not at all.",
            seconds(soon)
        );
        return of(HeatVerdict::TooLittle, says);
    };
    if let Some(guard) = plan.guards.iter().find(|g| g.plan_after.is_some()) {
        return of(HeatVerdict::TooWarm, format!("{at} {}", passes(guard, guard.plan_c, guard.plan_after)));
    }
    let stays = plan.soft_for.map_or(0.0, |s| s.into_iter().fold(f64::INFINITY, f64::min));
    of(
        HeatVerdict::Does,
        format!(
            "{at} the {bond} is soft after {}, stays so for {} once the source is lifted, and nothing gets too warm.",
            span(strong, slowest),
            seconds(stays)
        ),
    )
}

fn passes(guard: &HeatGuard, limit_c: f64, after: Option<f64>) -> String {
    let name = &guard.name;
    let after = after.map_or_else(String::new, |s| format!(" after {}", seconds(s)));
    let says = if guard.medium == Medium::Cell && limit_c >= guard.harm_c { ", which may make it vent" } else { "" };
    format!("the {name} may pass {} °C{after}{says}: {}.", number(limit_c), guard.says)
}

fn seconds(s: f64) -> String {
    if s < 100.0 { format!("{} s", s.round()) } else { duration_text((s / 10.0).round() * 10.0) }
}

fn span(from: f64, to: f64) -> String {
    if from.round() >= to.round() { seconds(to) } else { format!("{} to {}", from.round(), seconds(to)) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::{Edit, SeamEdit, SeamField, drafted};
    use rstest::rstest;

    const TOLD: &str = "[0:00] Heat the rear glass with a heating pad at 75 degrees Celsius for two minutes. Cut the glue \
                        of the rear glass with a pick. Lift off the rear glass.";

    fn seam(manual: &Manual) -> &Seam {
        manual.seams.values().next().expect("the glue")
    }

    fn with(manual: &Manual, heating: Heating) -> Manual {
        let set = SeamEdit::Set { id: seam(manual).id, field: SeamField::Heating(Some(heating)) };
        manual.apply(&Edit::Seam(set), "Ann").unwrap().0
    }

    #[test]
    fn a_cover_suggests_its_stack_and_the_told_source() {
        let manual = drafted::manual(TOLD);
        let heating = heating(&manual, seam(&manual));
        assert_eq!(heating.layers[0].medium, Medium::Glass);
        assert_eq!((heating.by, heating.setting_c, heating.seconds), (WarmedBy::Plate, 75.0, 120.0));
    }

    #[test]
    fn the_told_heat_is_judged_under_the_authors_stack() {
        let manual = drafted::manual(TOLD);
        let mut close = heating(&manual, seam(&manual));
        close.layers.retain(|l| !matches!(l.medium, Medium::Aluminium | Medium::Air));
        let manual = with(&manual, close);
        let [told] = &told(&manual, seam(&manual))[..] else { panic!("one setting") };
        assert_eq!(told.judged.verdict, HeatVerdict::Harms);
        assert!(
            told.judged.says.starts_with("At 75 °C for 2 min the battery cell may pass 60 °C after "),
            "{}",
            told.judged.says
        );
    }

    fn asked(setting_c: f64, seconds: f64) -> Heating {
        Heating { layers: Preset::PlasticLid.layers(), by: WarmedBy::Plate, setting_c, seconds, room_c: 23.0 }
    }

    #[rstest]
    #[case::does(asked(75.0, 300.0), HeatVerdict::Does, "and nothing gets too warm.")]
    #[case::hardly(asked(75.0, 55.0), HeatVerdict::TooLittle, "may stay hard: usually it is soft after")]
    #[case::never(asked(60.0, 20.0), HeatVerdict::TooLittle, "stays hard. Heat for longer, or hotter.")]
    #[case::harms(asked(110.0, 600.0), HeatVerdict::Harms, "the ABS may pass 80 °C after")]
    fn a_setting_is_judged_in_a_sentence(#[case] asked: Heating, #[case] verdict: HeatVerdict, #[case] says: &str) {
        let judged = judge(&asked, &asked.plan().unwrap());
        assert_eq!(judged.verdict, verdict, "{}", judged.says);
        assert!(judged.says.contains(says), "{}", judged.says);
    }

    #[test]
    fn an_absurd_stack_is_refused_where_it_is_written() {
        let manual = drafted::manual(TOLD);
        let mut absurd = heating(&manual, seam(&manual));
        absurd.layers[0].thickness_mm = -1.0;
        let set = SeamEdit::Set { id: seam(&manual).id, field: SeamField::Heating(Some(absurd)) };
        let refused = manual.apply(&Edit::Seam(set), "Ann").unwrap_err().to_string();
        assert!(refused.contains("-1 mm of cover glass is no layer"), "{refused}");
    }
}
