//! What heating a stack comes to: when the bond is soft, how long it stays so, what gets too hot, and which setting does.
//!
//! Contact and air are never known well, so each answer is a band: the same stack under the weakest, the usual and the
//! strongest source. What softens is judged by the weakest, what is harmed by the strongest.

use super::conduction::Slab;
use super::conduction::{Drive, Place, Spell, Stack, Trace, follow, follow_roughly};
use super::media::{Bears, Medium, OwnMaterial, Softening};
use crate::labels;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What the outer face is warmed with.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WarmedBy {
    /// A plate or pad that is kept at its temperature.
    Plate,
    /// An aluminium block that was warmed before and cools on the device.
    Block,
    /// A warmed gel pack in a cloth.
    GelPack,
    HairDryer,
    HeatGun,
}

labels!(WarmedBy {
    Plate: "heating plate or pad",
    Block: "warmed block",
    GelPack: "warmed gel pack",
    HairDryer: "hair dryer",
    HeatGun: "hot-air gun",
});

/// Weakest, usual and strongest.
pub type Spread = [f64; 3];

impl WarmedBy {
    /// What drives heat in at a setting of so many °C, as the weakest, the usual or the strongest of its kind. Contact
    /// resistances, surface coefficients and what air loses on its way: the handbook's ranges (common practice; gaps of air
    /// computed).
    fn drive(self, setting_c: f64, room_c: f64, which: usize) -> Drive {
        let contact: Spread = match self {
            Self::Plate => [1e-3, 3e-4, 1e-4],
            Self::Block => [1e-3, 5e-4, 3e-4],
            _ => [5e-3, 2e-3, 1e-3],
        };
        let air = |coefficient: Spread, loses: Spread| Drive::Air {
            temp_c: (setting_c - loses[which]).max(room_c),
            coefficient: coefficient[which],
        };
        match self {
            Self::Plate => Drive::Plate { temp_c: setting_c, contact: contact[which] },
            // 15 mm of aluminium.
            Self::Block => Drive::Block { temp_c: setting_c, stores: 36_450.0, loses: 10.0, contact: contact[which] },
            // 20 mm of water.
            Self::GelPack => Drive::Block { temp_c: setting_c, stores: 83_000.0, loses: 10.0, contact: contact[which] },
            Self::HairDryer => air([20.0, 40.0, 60.0], [30.0, 20.0, 15.0]),
            Self::HeatGun => air([40.0, 90.0, 150.0], [40.0, 25.0, 15.0]),
        }
    }

    /// Warm air, which cools on its way to the face: what is set is the air at the nozzle.
    pub fn blows(self) -> bool {
        matches!(self, Self::HairDryer | Self::HeatGun)
    }

    /// What it can be set to, °C.
    pub fn range_c(self) -> [f64; 2] {
        match self {
            Self::Plate => [50.0, 120.0],
            Self::Block | Self::GelPack => [50.0, 100.0],
            Self::HairDryer => [60.0, 140.0],
            Self::HeatGun => [80.0, 250.0],
        }
    }
}

/// One layer from the heated face inward.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StackLayer {
    pub medium: Medium,
    pub thickness_mm: f64,
    /// Its figures, where the medium is [`Medium::Own`].
    #[serde(default)]
    pub own: Option<OwnMaterial>,
}

impl StackLayer {
    /// A layer of a medium of the table.
    pub fn of(medium: Medium, thickness_mm: f64) -> Self {
        Self { medium, thickness_mm, own: None }
    }

    /// The author's figures, where the medium is none of the table.
    fn own(&self) -> Option<&OwnMaterial> {
        self.own.as_ref().filter(|_| self.medium == Medium::Own)
    }

    pub fn name(&self) -> &str {
        self.own().map_or_else(|| labels::Label::label(self.medium), |own| &own.name)
    }

    fn slab(&self, which: usize) -> Slab {
        let table = self.medium.slab(self.thickness_mm, which);
        self.own().map_or(table, |own| Slab {
            conductivity: own.conductivity,
            density: own.density,
            heat_capacity: own.heat_capacity,
            ..table
        })
    }

    pub(super) fn softens(&self) -> Option<Softening> {
        let own = self.own().and_then(|own| own.softens_c);
        own.map(|window| Softening { window, says: "opens there, by its author's figures" }).or(self.medium.softens())
    }

    pub(super) fn bears(&self) -> Option<Bears> {
        /// A plan stays this much below what harms, °C.
        const MARGIN: f64 = 5.0;
        let own = self.own().and_then(|own| own.harm_c);
        let says = "it is harmed there, by its author's figures";
        own.map(|harm| Bears { plan: harm - MARGIN, harm, says }).or(self.medium.bears())
    }

    fn is_bond(&self) -> bool {
        self.own().is_some_and(|own| own.softens_c.is_some()) || self.medium.is_bond()
    }
}

/// What is heated, and how.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Heating {
    /// From the heated face inward.
    pub layers: Vec<StackLayer>,
    pub by: WarmedBy,
    /// What the source is set to, °C.
    pub setting_c: f64,
    /// How long it stays, s.
    pub seconds: f64,
    /// The room, and the device before, °C.
    pub room_c: f64,
}

/// Thinnest and thickest layer, mm.
const THICKNESS_MM: [f64; 2] = [0.01, 50.0];
const MOST_LAYERS: usize = 12;
/// Longest heating, s.
const LONGEST_S: f64 = 1_800.0;
/// A surface in still air, radiation included, W/(m²K); Incropera and DeWitt, Table 1.1, from memory.
const STILL_AIR: f64 = 10.0;
const REAR: f64 = 8.0;

impl Heating {
    /// # Errors
    /// A sentence that says what cannot be, and what would be right.
    pub fn check(&self) -> Result<(), String> {
        if self.layers.is_empty() {
            return Err("Nothing is heated. Name the layers from the heated face inward.".to_owned());
        }
        if self.layers.len() > MOST_LAYERS {
            return Err(format!(
                "{} layers are more than the {MOST_LAYERS} that are reckoned with.",
                self.layers.len()
            ));
        }
        for layer in &self.layers {
            match &layer.own {
                Some(own) => own.check()?,
                None if layer.medium == Medium::Own => {
                    return Err("Say what your own material is: its name and how it carries heat.".to_owned());
                }
                None => {}
            }
            if !(THICKNESS_MM[0]..=THICKNESS_MM[1]).contains(&layer.thickness_mm) {
                let name = layer.name();
                return Err(format!(
                    "{} mm of {name} is no layer; write {} to {} mm.",
                    layer.thickness_mm, THICKNESS_MM[0], THICKNESS_MM[1]
                ));
            }
        }
        let Some(bond) = self.bond() else {
            return Err("No layer is a bond. Say which adhesive holds the cover.".to_owned());
        };
        if bond == 0 {
            return Err("The bond is the heated face itself. Put what covers it in front.".to_owned());
        }
        if !(-10.0..=45.0).contains(&self.room_c) {
            return Err(format!("A room of {} °C is no workplace; write −10 to 45 °C.", self.room_c));
        }
        let [low, high] = self.by.range_c();
        if !(self.room_c..=400.0).contains(&self.setting_c) {
            let by = labels::Label::label(self.by);
            return Err(format!("A {by} at {} °C is out of range; it is set to {low} to {high} °C.", self.setting_c));
        }
        if !(1.0..=LONGEST_S).contains(&self.seconds) {
            return Err(format!("{} s is no time to heat; write 1 to {LONGEST_S} s.", self.seconds));
        }
        Ok(())
    }

    /// The layer that is to open: the first bond behind the heated face.
    pub(super) fn bond(&self) -> Option<usize> {
        self.layers.iter().position(|l| l.is_bond())
    }

    pub(super) fn stack(&self, which: usize) -> Stack {
        // A weak source on layers that carry little, a strong one on layers that carry much.
        let layers = self.layers.iter().map(|l| l.slab(which)).collect();
        Stack { layers, start_c: self.room_c, room_c: self.room_c, rear: REAR }
    }

    fn follow(&self, which: usize, seconds: f64, then: f64, places: &[Place]) -> Trace {
        follow(&self.stack(which), &self.spells(which, seconds, then), places)
    }

    pub(super) fn spells(&self, which: usize, seconds: f64, then: f64) -> [Spell; 2] {
        let lifted = Drive::Air { temp_c: self.room_c, coefficient: STILL_AIR };
        let on = Spell { drive: self.by.drive(self.setting_c, self.room_c, which), seconds };
        [on, Spell { drive: lifted, seconds: then }]
    }

    /// The layers that bear only so much, with where they are hottest: the face towards the source.
    pub(super) fn guarded(&self) -> Vec<usize> {
        (0..self.layers.len()).filter(|n| self.layers[*n].bears().is_some()).collect()
    }

    /// The middle of the bond, the heated face, then the guarded layers where they are hottest.
    pub(super) fn places(&self) -> Vec<Place> {
        let guarded = self.guarded().into_iter().map(Place::Near);
        [Place::Middle(self.bond().unwrap_or_default()), Place::Outer].into_iter().chain(guarded).collect()
    }

    /// Works everything out.
    ///
    /// # Errors
    /// As [`Heating::check`].
    pub fn plan(&self) -> Result<HeatPlan, String> {
        let plan = self.outcome()?;
        Ok(HeatPlan { recommended: self.recommended(), ..plan })
    }

    /// What this one setting comes to; no other is looked for, which takes ten times as long.
    ///
    /// # Errors
    /// As [`Heating::check`].
    pub fn outcome(&self) -> Result<HeatPlan, String> {
        self.check()?;
        let bond = self.bond().unwrap_or_default();
        let guarded = self.guarded();
        let places = self.places();
        let traces: [Trace; 3] = [0, 1, 2].map(|which| self.follow(which, self.seconds, AFTER_S, &places));
        let softening = self.layers[bond].softens();
        let soft_from = softening.map(|s| s.window[0]);
        let guards: Vec<HeatGuard> =
            guarded.iter().enumerate().map(|(n, layer)| self.guard(*layer, n + 2, &traces)).collect();
        let face = self.layers[0].medium;
        Ok(HeatPlan {
            bond,
            window: softening.map(|s| s.window),
            firm: self.layers[bond].medium.stays_firm().map(str::to_owned),
            soft_after: soft_from.map(|t| [0, 1, 2].map(|w| traces[w].reaches(0, t).filter(|s| *s <= self.seconds))),
            soft_for: soft_from.map(|t| [0, 1, 2].map(|w| stays(&traces[w], self.seconds, t))),
            bond_curve: curve(&traces, 0, self.seconds),
            face_curve: curve(&traces, 1, self.seconds),
            burns_after: first_of(&traces, 1, face.burns()[1]),
            face_c: traces.iter().map(|t| t.most(1)).fold(f64::NEG_INFINITY, f64::max),
            recommended: None,
            guards,
        })
    }

    fn guard(&self, layer: usize, row: usize, traces: &[Trace; 3]) -> HeatGuard {
        let Some(bears) = self.layers[layer].bears() else { unreachable!("only layers that bear something") };
        HeatGuard {
            layer,
            medium: self.layers[layer].medium,
            name: self.layers[layer].name().to_owned(),
            plan_c: bears.plan,
            harm_c: bears.harm,
            says: bears.says.to_owned(),
            most_c: traces.each_ref().map(|t| t.most(row)),
            plan_after: first_of(traces, row, bears.plan),
            harm_after: first_of(traces, row, bears.harm),
            curve: curve(traces, row, self.seconds),
        }
    }

    /// The mildest setting of this source under which the bond is soft for long enough even when the source is weak, and
    /// nothing is harmed even when it is strong.
    pub fn recommended(&self) -> Option<HeatSetting> {
        let places = &self.places();
        let soft = self.layers[self.bond()?].softens()?.window[0];
        let [low, high] = self.by.range_c();
        let steps = ((high - low) / SETTING_STEP_C) as usize;
        (0..=steps).map(|n| low + SETTING_STEP_C * n as f64).find_map(|setting_c| {
            let tried = Self { setting_c, ..self.clone() };
            // Once with the longest time: the bond and its guards only get warmer while the source is on.
            let roughly = |which: usize, seconds: f64, then: f64| {
                follow_roughly(&tried.stack(which), &tried.spells(which, seconds, then), places)
            };
            let weak = roughly(0, PATIENCE_S, 1.0);
            let soft_at = weak.reaches(0, soft)?;
            let seconds = (soft_at / 5.0).ceil() * 5.0 + 5.0;
            if seconds > PATIENCE_S {
                return None;
            }
            // Heat goes on inward after the source is lifted.
            let spares = |trace: &Trace| {
                let safe = |(n, layer): (usize, &usize)| {
                    self.layers[*layer].bears().is_none_or(|b| trace.most(n + 2) <= b.plan)
                };
                self.guarded().iter().enumerate().all(safe)
            };
            let spared = [2, 1].into_iter().all(|which| spares(&roughly(which, seconds, AFTER_S)))
                && [2, 1].into_iter().all(|which| spares(&tried.follow(which, seconds, AFTER_S, places)));
            spared.then_some(HeatSetting { setting_c, seconds })
        })
    }
}

/// How long a stack is followed behind the source, s.
const AFTER_S: f64 = 300.0;
/// Nobody holds a source longer, s.
const PATIENCE_S: f64 = 600.0;
const SETTING_STEP_C: f64 = 5.0;
/// Points of a curve.
const POINTS: usize = 90;

/// How long a bond stays soft once the source is lifted, s.
fn stays(trace: &Trace, lifted: f64, soft_c: f64) -> f64 {
    let from = trace.times.partition_point(|t| *t < lifted);
    let row = &trace.rows[0][from..];
    // It may still be warming from the face while it is lifted.
    row.iter().rposition(|t| *t >= soft_c).map_or(0.0, |n| trace.times[from + n] - lifted)
}

/// When the first of them reaches a temperature.
fn first_of(traces: &[Trace; 3], row: usize, temp_c: f64) -> Option<f64> {
    traces.iter().filter_map(|t| t.reaches(row, temp_c)).reduce(f64::min)
}

fn curve(traces: &[Trace; 3], row: usize, seconds: f64) -> Vec<HeatPoint> {
    let all = seconds + AFTER_S;
    let at = |n: usize| all * n as f64 / (POINTS - 1) as f64;
    // A block that gives its heat away quickly is the cooler one later, so the ends are those of all three.
    let band = |t: f64| {
        let all = traces.each_ref().map(|trace| trace.at(row, t));
        [all.into_iter().fold(f64::INFINITY, f64::min), all[1], all.into_iter().fold(f64::NEG_INFINITY, f64::max)]
    };
    let point = |t: f64| HeatPoint { seconds: t, band: band(t) };
    (0..POINTS).map(|n| point(at(n))).collect()
}

/// What heating comes to. Bands go from the weakest over the usual to the strongest source.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeatPlan {
    /// Which layer is to open.
    pub bond: usize,
    /// Between these it can be cut, °C; `None`: heat does not open it.
    pub window: Option<[f64; 2]>,
    /// What to do instead where heat does not open it.
    pub firm: Option<String>,
    /// Seconds until it is soft; `None` in it: not while the source is on.
    pub soft_after: Option<[Option<f64>; 3]>,
    /// Seconds it stays soft once the source is lifted.
    pub soft_for: Option<[f64; 3]>,
    pub bond_curve: Vec<HeatPoint>,
    pub face_curve: Vec<HeatPoint>,
    /// Seconds until touching the face for 10 s burns.
    pub burns_after: Option<f64>,
    /// The hottest that the face gets, °C.
    pub face_c: f64,
    pub guards: Vec<HeatGuard>,
    /// The mildest setting of this source that does; `None` where none does.
    pub recommended: Option<HeatSetting>,
}

/// A temperature at a time.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeatPoint {
    pub seconds: f64,
    pub band: [f64; 3],
}

/// What a layer bears, and what it gets.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeatGuard {
    pub layer: usize,
    pub medium: Medium,
    /// "battery cell", or what its author calls it.
    pub name: String,
    /// A plan stays below, °C.
    pub plan_c: f64,
    pub harm_c: f64,
    pub says: String,
    pub most_c: [f64; 3],
    /// Seconds until it passes what is planned, and until it is harmed, under the strongest source.
    pub plan_after: Option<f64>,
    pub harm_after: Option<f64>,
    pub curve: Vec<HeatPoint>,
}

/// A setting that does.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeatSetting {
    pub setting_c: f64,
    pub seconds: f64,
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    fn layers(all: &[(Medium, f64)]) -> Vec<StackLayer> {
        all.iter().map(|(medium, mm)| StackLayer::of(*medium, *mm)).collect()
    }

    fn glass_on_cell() -> Heating {
        Heating {
            layers: layers(&[
                (Medium::Glass, 0.7),
                (Medium::FoamTape, 0.2),
                (Medium::Aluminium, 1.0),
                (Medium::Air, 0.3),
                (Medium::Cell, 4.0),
            ]),
            by: WarmedBy::Plate,
            setting_c: 85.0,
            seconds: 60.0,
            room_c: 23.0,
        }
    }

    /// The handbook's sensitivity to contact, and what it says of 85 °C for more than two minutes over a cell.
    #[test]
    fn a_hot_plate_softens_a_glass_back_and_warms_the_cell_too_far() {
        let plan = Heating { seconds: 150.0, ..glass_on_cell() }.plan().unwrap();
        let [weak, usual, strong] = plan.soft_after.unwrap().map(|s| s.expect("it gets soft"));
        assert!(
            (weak - 9.8).abs() < 1.5 && (usual - 5.0).abs() < 0.2 && (strong - 3.6).abs() < 0.6,
            "{weak} {usual} {strong}"
        );
        let cell = plan.guards.iter().find(|g| g.medium == Medium::Cell).unwrap();
        assert!(cell.harm_after.is_some_and(|s| s < 150.0), "{:?}", cell.harm_after);
        assert!(plan.burns_after.is_some_and(|s| s < 5.0));
    }

    #[test]
    fn the_recommended_setting_softens_at_its_weakest_and_harms_nothing_at_its_strongest() {
        let asked = glass_on_cell();
        let HeatSetting { setting_c, seconds } = asked.plan().unwrap().recommended.expect("a plate does");
        let plan = Heating { setting_c, seconds, ..asked }.plan().unwrap();
        assert!(plan.soft_after.unwrap()[0].is_some(), "{setting_c} °C, {seconds} s");
        assert!(plan.guards.iter().all(|g| g.most_c[2] <= g.plan_c), "{:?}", plan.guards);
    }

    /// Common practice, no source: 75 °C for two minutes. A cell right behind the cover does not bear it.
    #[test]
    fn common_practice_is_too_much_for_a_cell_glued_to_its_cover() {
        let close = layers(&[(Medium::Glass, 0.7), (Medium::FoamTape, 0.2), (Medium::Cell, 4.0)]);
        let plan = Heating { layers: close, setting_c: 75.0, seconds: 120.0, ..glass_on_cell() }.plan().unwrap();
        assert!(plan.guards.iter().any(|g| g.medium == Medium::Cell && g.harm_after.is_some()));
        assert_eq!(plan.recommended, None, "nothing softens the bond and spares the cell behind it");
    }

    #[rstest]
    #[case::nothing(&[], "Nothing is heated")]
    #[case::no_bond(&[(Medium::Glass, 0.7), (Medium::Cell, 4.0)], "No layer is a bond")]
    #[case::bare_bond(&[(Medium::FoamTape, 0.2), (Medium::Cell, 4.0)], "Put what covers it in front")]
    #[case::negative(&[(Medium::Glass, -0.7), (Medium::FoamTape, 0.2)], "-0.7 mm of cover glass is no layer")]
    #[case::absurd(&[(Medium::Glass, 900.0), (Medium::FoamTape, 0.2)], "write 0.01 to 50 mm")]
    #[case::not_a_figure(&[(Medium::Glass, f64::NAN), (Medium::FoamTape, 0.2)], "is no layer")]
    fn a_stack_that_cannot_be_is_refused(#[case] of: &[(Medium, f64)], #[case] says: &str) {
        let refused = Heating { layers: layers(of), ..glass_on_cell() }.plan().unwrap_err();
        assert!(refused.contains(says), "{refused}");
    }

    #[rstest]
    #[case(10.0, 60.0, 23.0, "A heating plate or pad at 10 °C is out of range; it is set to 50 to 120 °C.")]
    #[case(85.0, 0.0, 23.0, "0 s is no time to heat")]
    #[case(85.0, f64::INFINITY, 23.0, "is no time to heat")]
    #[case(85.0, 60.0, 80.0, "A room of 80 °C is no workplace")]
    fn a_setting_that_cannot_be_is_refused(
        #[case] setting_c: f64,
        #[case] seconds: f64,
        #[case] room_c: f64,
        #[case] says: &str,
    ) {
        let refused = Heating { setting_c, seconds, room_c, ..glass_on_cell() }.plan().unwrap_err();
        assert!(refused.contains(says), "{refused}");
    }

    #[test]
    fn what_heat_does_not_open_says_so() {
        let strip = layers(&[(Medium::Abs, 1.5), (Medium::StretchStrip, 0.5), (Medium::Cell, 4.0)]);
        let plan = Heating { layers: strip, setting_c: 60.0, ..glass_on_cell() }.plan().unwrap();
        assert_eq!((plan.window, plan.recommended), (None, None));
        assert!(plan.firm.is_some_and(|f| f.contains("Do not heat it")));
    }

    fn any_heating() -> impl Strategy<Value = Heating> {
        let covers = [Medium::Glass, Medium::Polycarbonate, Medium::Abs, Medium::Aluminium, Medium::Leather];
        let by = [WarmedBy::Plate, WarmedBy::Block, WarmedBy::GelPack, WarmedBy::HairDryer, WarmedBy::HeatGun];
        (0..covers.len(), 0.3..3.0f64, 0.1..0.5f64, 0..by.len(), 70.0..120.0f64, 10.0..200.0f64).prop_map(
            move |(cover, cover_mm, bond_mm, source, setting_c, seconds)| Heating {
                layers: layers(&[
                    (covers[cover], cover_mm),
                    (Medium::FoamTape, bond_mm),
                    (Medium::Aluminium, 0.8),
                    (Medium::Air, 0.3),
                    (Medium::Cell, 4.0),
                ]),
                by: by[source],
                setting_c,
                seconds,
                room_c: 23.0,
            },
        )
    }

    /// The longest wait for soft, where "never" is longest.
    fn wait(plan: &HeatPlan, which: usize) -> f64 {
        plan.soft_after.unwrap()[which].unwrap_or(f64::INFINITY)
    }

    proptest! {
        #![proptest_config(ProptestConfig { cases: 12, ..ProptestConfig::default() })]

        #[test]
        fn hotter_is_never_slower(asked in any_heating(), more in 1.0..40.0f64) {
            let hotter = Heating { setting_c: asked.setting_c + more, ..asked.clone() };
            let (plan, hot) = (asked.plan().unwrap(), hotter.plan().unwrap());
            for which in 0..3 {
                prop_assert!(wait(&hot, which) <= wait(&plan, which) + 1e-6);
            }
        }

        #[test]
        fn a_thicker_cover_is_never_faster(mut asked in any_heating(), more in 1.1..3.0f64) {
            let plan = asked.plan().unwrap();
            asked.layers[0].thickness_mm *= more;
            let thick = asked.plan().unwrap();
            for which in 0..3 {
                prop_assert!(wait(&thick, which) >= wait(&plan, which) - 0.05, "{} {}", wait(&thick, which), wait(&plan, which));
            }
        }

        #[test]
        fn the_band_contains_its_middle_while_the_source_is_on(asked in any_heating()) {
            let plan = asked.plan().unwrap();
            for p in plan.bond_curve.iter().filter(|p| p.seconds <= asked.seconds) {
                let [low, middle, high] = p.band;
                prop_assert!(low <= middle + 1e-6 && middle <= high + 1e-6, "{p:?}");
            }
        }

        #[test]
        fn nothing_gets_hotter_than_the_source(asked in any_heating()) {
            let plan = asked.plan().unwrap();
            prop_assert!(plan.face_c <= asked.setting_c + 1e-6);
            prop_assert!(plan.guards.iter().all(|g| g.most_c[2] <= plan.face_c + 1e-6));
        }
    }

    fn gel(figures: impl FnOnce(&mut OwnMaterial)) -> Heating {
        let mut own = OwnMaterial {
            name: "gel pad".to_owned(),
            conductivity: 0.12,
            density: 700.0,
            heat_capacity: 1_800.0,
            softens_c: Some([60.0, 80.0]),
            harm_c: None,
        };
        figures(&mut own);
        let layers = vec![
            StackLayer::of(Medium::Glass, 0.7),
            StackLayer { own: Some(own), ..StackLayer::of(Medium::Own, 0.2) },
            StackLayer::of(Medium::Aluminium, 1.0),
        ];
        Heating { layers, by: WarmedBy::Plate, setting_c: 80.0, seconds: 120.0, room_c: 23.0 }
    }

    /// The same figures under another name come to the same, but for the spread that only the table knows.
    #[test]
    fn a_material_of_ones_own_is_reckoned_like_one_of_the_table() {
        let own = gel(|_| {}).outcome().unwrap();
        let mut table = gel(|_| {});
        table.layers[1] = StackLayer::of(Medium::FoamTape, 0.2);
        let table = table.outcome().unwrap();
        assert_eq!(own.bond, 1);
        let usual = |plan: &HeatPlan| plan.soft_after.unwrap()[1].unwrap();
        assert!((usual(&own) - usual(&table)).abs() < 0.1, "{} {}", usual(&own), usual(&table));
    }

    #[test]
    fn what_harms_it_is_guarded() {
        let plan = gel(|own| own.harm_c = Some(50.0)).outcome().unwrap();
        assert!(plan.guards.iter().any(|g| g.name == "gel pad" && g.harm_after.is_some()), "{:?}", plan.guards);
    }

    #[rstest]
    #[case(|own: &mut OwnMaterial| own.name.clear(), "Name your own material")]
    #[case(|own: &mut OwnMaterial| own.conductivity = 0.0, "“gel pad” carries heat with 0 W/(m·K), which cannot be; write 0.01 to 450")]
    #[case(|own: &mut OwnMaterial| own.density = f64::NAN, "weighs NaN kg/m³")]
    #[case(|own: &mut OwnMaterial| own.heat_capacity = -1.0, "stores -1 J/(kg·K)")]
    #[case(|own: &mut OwnMaterial| own.softens_c = Some([80.0, 60.0]), "write the lower one first")]
    #[case(|own: &mut OwnMaterial| own.harm_c = Some(9_000.0), "9000 °C, which cannot be")]
    fn absurd_figures_say_which(#[case] absurd: fn(&mut OwnMaterial), #[case] says: &str) {
        let refused = gel(absurd).check().unwrap_err();
        assert!(refused.contains(says), "{refused}");
    }

    #[test]
    fn an_own_material_without_figures_is_asked_for_them() {
        let mut asked = gel(|_| {});
        asked.layers[1].own = None;
        assert!(asked.check().unwrap_err().starts_with("Say what your own material is"));
    }
}
