//! Other ways of parting a bond than heating it straight through: another source, solvent, cold, pulling a strip. Each with
//! what it harms, and what to do when it goes wrong.

use crate::heat::media::Medium;
use crate::heat::plan::{HeatPlan, Heating, WarmedBy};
use crate::labels::Label;
use crate::units::{duration_text, number};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One way.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Way {
    /// "Solvent".
    pub name: String,
    pub says: String,
    /// What it harms here, and what never goes together.
    pub harms: Vec<String>,
    /// What may go wrong, and what to do then.
    pub rescue: Option<Rescue>,
    pub source: String,
}

/// "The strip tears", and what to do.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Rescue {
    pub condition: String,
    pub advice: String,
}

/// What to change where no setting of the source does: other sources that do, then other ways. Empty where one does, or where
/// the bond is none that heat opens.
pub fn advice(asked: &Heating, plan: &HeatPlan) -> Vec<String> {
    if plan.window.is_none() || plan.recommended.is_some() {
        return Vec::new();
    }
    let others = WarmedBy::ALL.iter().filter(|by| **by != asked.by).filter_map(|by| {
        let found = Heating { by: *by, ..asked.clone() }.recommended()?;
        let (setting, time) = (number(found.setting_c), duration_text(found.seconds));
        Some(format!("A {} does: {setting} °C for {time}.", by.label()))
    });
    let none =
        format!("No setting of a {} softens the bond for sure and spares what lies behind it.", asked.by.label());
    let mut out: Vec<String> = std::iter::once(none).chain(others).collect();
    if out.len() == 1 {
        out.push(
            "Warm the edge that you are cutting, a hand's width at a time, with pauses in which the inside cools."
                .to_owned(),
        );
        out.push("Or part it in another way.".to_owned());
    }
    out
}

/// How long there is to cut after the source is lifted, and that it is warmed again after that.
pub fn reheating(plan: &HeatPlan) -> Option<String> {
    let shortest = plan.soft_for?.into_iter().fold(f64::INFINITY, f64::min);
    let spell = (shortest / 5.0).floor() * 5.0;
    if spell < 5.0 {
        return None;
    }
    let spell = duration_text(spell);
    Some(format!("Cut for at most {spell}, then warm it again: under a weak source the bond is hard after that."))
}

/// The ways that fit the bond of a stack.
pub fn ways(asked: &Heating, plan: &HeatPlan) -> Vec<Way> {
    let Some(bond) = asked.layers.get(plan.bond).map(|l| l.medium) else { return Vec::new() };
    let here = |medium| asked.layers.iter().any(|l| l.medium == medium);
    match bond {
        Medium::StretchStrip => vec![strip()],
        Medium::FoamTape | Medium::FilmTape | Medium::Butyl => vec![solvent(here)],
        Medium::HotMelt => vec![cold(here), solvent(here)],
        Medium::Epoxy => vec![cold(here)],
        _ => Vec::new(),
    }
}

fn solvent(here: impl Fn(Medium) -> bool) -> Way {
    let mut harms = vec![
        "Its vapour burns: no flame, no hot air and no warm plate near it, and let it dry before anything is heated or switched \
         on."
        .to_owned(),
    ];
    let crazes = [Medium::Acrylic, Medium::Polycarbonate].into_iter().find(|m| here(*m));
    harms.extend(crazes.map(|m| format!("The {} in this stack crazes and goes white.", m.label())));
    harms.extend(
        here(Medium::DisplayPanel).then(|| "It must not run into the display: drops, not a stream.".to_owned()),
    );
    harms.push("Membranes, coatings and prints come off.".to_owned());
    Way {
        name: "Solvent".to_owned(),
        says: "Put a few drops of isopropyl alcohol (99 % or more, without water) along the edge, tilt it so that they run \
               under, wait 1 min, then cut."
            .to_owned(),
        harms,
        rescue: None,
        source: "common practice; vapour and fire: safety data sheet".to_owned(),
    }
}

fn cold(here: impl Fn(Medium) -> bool) -> Way {
    let mut harms =
        vec!["Water condenses on what is cold: let it warm up closed, and dry, before power comes back.".to_owned()];
    harms
        .extend(here(Medium::Cell).then(|| "A cell must not be charged below 0 °C: wait until it is warm.".to_owned()));
    harms.extend(here(Medium::DisplayPanel).then(|| "Panels are stored at −20 °C at the coldest.".to_owned()));
    Way {
        name: "Cold".to_owned(),
        says: "Cool the joint in a sealed bag well below 0 °C: the bond gets brittle, and a short twist breaks it."
            .to_owned(),
        harms,
        rescue: None,
        source: "common practice, no source; limits from memory".to_owned(),
    }
}

fn strip() -> Way {
    Way {
        name: "Pull the strip".to_owned(),
        says: "Free the tab, pull it slowly and straight, low along the surface and never up, until the strip slides out. At \
               20 to 40 °C it stretches best."
            .to_owned(),
        harms: vec!["Pulled up or round a corner it tears.".to_owned(), "Above 50 °C it tears: do not heat it.".to_owned()],
        rescue: Some(Rescue {
            condition: "If a strip tears".to_owned(),
            advice: "Put a few drops of isopropyl alcohol without water under the part, wait 1 min, and work it loose with a \
                     wide plastic card. Nothing sharp, nothing of metal, no bending."
                .to_owned(),
        }),
        source: "common practice; temperatures: makers of stretch-release strips, from memory".to_owned(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::plan::StackLayer;
    use rstest::rstest;

    fn asked(by: WarmedBy, layers: &[(Medium, f64)]) -> Heating {
        let layers = layers.iter().map(|(medium, mm)| StackLayer::of(*medium, *mm));
        Heating { layers: layers.collect(), by, setting_c: 90.0, seconds: 180.0, room_c: 21.0 }
    }

    const ABS_FRAME: [(Medium, f64); 3] = [(Medium::Glass, 1.1), (Medium::FoamTape, 0.3), (Medium::Abs, 2.0)];

    #[test]
    fn another_source_is_named_with_its_setting() {
        let gun = asked(WarmedBy::HeatGun, &ABS_FRAME);
        let told = advice(&gun, &gun.plan().unwrap());
        assert!(told[0].starts_with("No setting of a hot-air gun softens the bond for sure"), "{told:?}");
        assert!(told.iter().any(|t| t.starts_with("A heating plate or pad does: ")), "{told:?}");
    }

    #[test]
    fn where_a_setting_does_there_is_nothing_to_change() {
        let plate = asked(WarmedBy::Plate, &ABS_FRAME);
        assert!(advice(&plate, &plate.plan().unwrap()).is_empty());
    }

    #[test]
    fn where_no_source_does_other_ways_are_left() {
        let bare = asked(WarmedBy::Plate, &[(Medium::Glass, 0.7), (Medium::Butyl, 2.0), (Medium::Cell, 1.0)]);
        let told = advice(&bare, &bare.plan().unwrap());
        assert_eq!(told.last().map(String::as_str), Some("Or part it in another way."), "{told:?}");
    }

    #[rstest]
    #[case::foam(Medium::FoamTape, &["Solvent"])]
    #[case::epoxy(Medium::Epoxy, &["Cold"])]
    #[case::strip(Medium::StretchStrip, &["Pull the strip"])]
    #[case::silicone(Medium::Silicone, &[])]
    fn a_bond_has_its_ways(#[case] bond: Medium, #[case] names: &[&str]) {
        let stack = asked(WarmedBy::Plate, &[(Medium::Glass, 0.7), (bond, 0.3), (Medium::Aluminium, 1.0)]);
        let found: Vec<String> = ways(&stack, &stack.plan().unwrap()).into_iter().map(|w| w.name).collect();
        assert_eq!(found, names);
    }

    #[test]
    fn a_solvent_is_never_told_without_its_fire() {
        let stack =
            asked(WarmedBy::Plate, &[(Medium::Acrylic, 2.0), (Medium::FoamTape, 0.3), (Medium::DisplayPanel, 1.0)]);
        let [way] = &ways(&stack, &stack.plan().unwrap())[..] else { panic!("one way") };
        let says = way.harms.join(" ");
        assert!(
            says.contains("vapour burns") && says.contains("acrylic glass in this stack") && says.contains("display"),
            "{says}"
        );
    }

    #[test]
    fn cutting_has_its_time() {
        let plate = asked(WarmedBy::Plate, &ABS_FRAME);
        let told = reheating(&plate.plan().unwrap()).expect("it stays soft for a while");
        assert!(told.starts_with("Cut for at most ") && told.contains("then warm it again"), "{told}");
    }
}
