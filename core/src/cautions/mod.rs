//! Cautions: what can hurt or break at which step, whether somebody warned of it in time, and in which words.
//!
//! A [`catalogue`] of hazards looks at every step ([`scene`]); where one is brought about, [`coverage`] finds the warning that
//! stands before it, or that none does. What goes before a caution's own words ([`head`]) follows from the hazard: signal
//! words after ANSI Z535.6 and ISO 3864-2 (both from memory): danger, warning and caution are for people, by how badly they
//! may be hurt; harm to the device alone is a notice. What is told stays as it was told.

pub mod catalogue;
pub mod coverage;
pub mod prepare;
pub mod scene;
pub mod signs;

use crate::labels::Label;
use crate::manual::{Caution, Hazard, Level, Manual};
use crate::power::unplugs;
use crate::reading::{CautionSubject, tells_what_to_do};
use crate::things::is_mains;
use catalogue::entry;
use serde::{Deserialize, Serialize};
use signs::Sign;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What goes before a caution.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CautionHead {
    pub level: Level,
    /// "lithium cell"; `None` where the caution is about something of its own.
    pub hazard: Option<String>,
    /// What happens, where the caution does not tell it.
    pub consequence: Option<String>,
    /// What to do, where the caution does not tell it.
    pub avoidance: Option<String>,
    /// The sign beside it, where the hazard has one of its own.
    pub sign: Option<Sign>,
}

impl CautionHead {
    /// Of no hazard in particular.
    pub fn of(level: Level) -> Self {
        Self { level, hazard: None, consequence: None, avoidance: None, sign: None }
    }

    /// Of a hazard whose consequence the words that follow tell.
    pub fn named(level: Level, hazard: &str) -> Self {
        Self { hazard: Some(hazard.to_owned()), ..Self::of(level) }
    }

    /// With a sign beside it.
    pub fn under(self, sign: Sign) -> Self {
        Self { sign: Some(sign), ..self }
    }

    /// Of a hazard of the catalogue, with what happens.
    pub fn from_catalogue(hazard: Hazard) -> Self {
        let entry = entry(hazard);
        Self {
            level: entry.level,
            hazard: Some(hazard.label().to_owned()),
            consequence: Some(entry.consequence.to_owned()),
            avoidance: None,
            sign: Some(entry.sign).filter(|s| *s != Sign::General),
        }
    }
}

/// What is known of what a caution is about.
struct Known {
    level: Level,
    name: &'static str,
    consequence: &'static str,
    avoidance: &'static str,
}

/// Hazards of the trade with who is hurt, what happens and what to do (common practice, no source; the levels by the
/// decision table of ANSI Z535.6).
fn known(about: CautionSubject) -> Option<Known> {
    let (level, name, consequence, avoidance) =
        hurts(about).or_else(|| harms(about).map(|(n, c, a)| (Level::Notice, n, c, a)))?;
    Some(Known { level, name, consequence, avoidance })
}

/// "The corner with the high voltage": under this a shock is felt, above it kills. From memory, the limit of extra-low voltage
/// of IEC 61140 is 50 V of alternating and 120 V of smooth direct current; the lower one is taken, since few narrators say which.
const SHOCKS_FROM: f64 = 50.0;

/// What is told of the voltage of a thing hurts people, whatever it is about besides.
fn high_voltage(about: CautionSubject, text: &str) -> Option<Known> {
    use CautionSubject as About;
    if !matches!(about, About::Power | About::ShortCircuit | About::Other) {
        return None;
    }
    // "1.5 volts" is one figure.
    let words = text.split(|c: char| !c.is_alphanumeric() && c != '.').map(|w| w.trim_matches('.'));
    let words: Vec<&str> = words.filter(|w| !w.is_empty()).collect();
    let high = |pair: &[&str]| match pair {
        ["high", "voltage"] => true,
        [figure, "v" | "volt" | "volts"] => figure.parse::<f64>().is_ok_and(|v| v > SHOCKS_FROM),
        _ => false,
    };
    // "230V"
    let joined = |w: &&str| w.strip_suffix('v').and_then(|n| n.parse::<f64>().ok()).is_some_and(|v| v > SHOCKS_FROM);
    let shocks = words.windows(2).any(high) || words.iter().any(joined);
    shocks.then_some(Known {
        level: Level::Warning,
        name: "high voltage",
        consequence: "A shock can kill.",
        avoidance: "Cut the power, wait until the charge is gone, and measure before you touch it.",
    })
}

/// "Cover the glass with film as well.": what is only marred cuts nobody.
fn marred(about: CautionSubject, text: &str) -> Option<Known> {
    const MARS: [&str; 8] = ["scratch", "fingerprint", "smear", "smudge", "film", "foil", "dust", "dull"];
    const CUTS: [&str; 7] = ["crack", "splinter", "break", "broke", "shatter", "shard", "cut"];
    let told = |list: &[&str]| list.iter().any(|w| text.contains(w));
    (about == CautionSubject::Glass && told(&MARS) && !told(&CUTS)).then_some(Known {
        level: Level::Notice,
        name: "clear surface",
        consequence: "Scratches and fingerprints stay.",
        avoidance: "Keep it covered, and touch nothing but its edge.",
    })
}

/// How loud, the name, what happens, what to do.
type Row = (Level, &'static str, &'static str, &'static str);

/// What hurts people.
fn hurts(about: CautionSubject) -> Option<Row> {
    use CautionSubject as About;
    use Level::{Caution, Danger, Warning};
    Some(match about {
        About::Mains => {
            (Danger, "mains voltage", "It can kill.", "Pull the plug, and touch nothing before it is measured dead.")
        }
        About::Battery => (
            Warning,
            "battery cell",
            "A pierced, bent or shorted cell burns and gives off toxic gas.",
            "Keep metal tools and strong heat away from the cell, and do not bend it.",
        ),
        About::ShortCircuit => {
            (Warning, "short circuit", "It burns, and a cell can catch fire.", "Disconnect the power source first.")
        }
        About::Chemical => (
            Warning,
            "liquid and vapour",
            "Vapour burns and makes dizzy.",
            "Use little, air the room, and keep flames away.",
        ),
        About::Burn => (Caution, "hot parts", "They burn skin.", "Wear gloves, or let hot parts cool."),
        About::Glass => (Caution, "glass", "Splinters cut, and get into eyes.", "Wear eye protection."),
        About::SharpTool => {
            (Caution, "sharp tool", "A slip cuts hands, and what lies below.", "Work away from your hands.")
        }
        _ => return None,
    })
}

/// What harms the device alone: its name, what happens, what to do.
fn harms(about: CautionSubject) -> Option<(&'static str, &'static str, &'static str)> {
    use CautionSubject as About;
    Some(match about {
        About::Power => ("live parts", "A slip shorts the board.", "Cut the power first."),
        About::Overheating => {
            ("too much heat", "It harms what lies behind.", "Keep the heat moving, and use no more than it needs.")
        }
        About::Pinch => ("pinched cable", "It breaks, or shorts.", "Lay cables clear before you close."),
        About::Cable => {
            ("cable", "It tears, or pulls its socket off the board.", "Keep cables clear, and do not pull them.")
        }
        About::Connector => ("connector", "Its contacts or its latch break.", "Do not force the plug."),
        About::Esd => ("static charge", "It kills chips, often weeks later.", "Wear an earthed wrist strap."),
        About::Liquid => {
            ("liquid", "It creeps under parts and corrodes them.", "Use little liquid, and wipe up spills at once.")
        }
        About::StrippedScrew => {
            ("stripped screw", "It has to be drilled out.", "Use a bit that fits, and stop when it is snug.")
        }
        About::ScrewMixup => {
            ("screws of several kinds", "A long screw in a short hole breaks what lies below.", "Keep each kind apart.")
        }
        About::LostScrew => ("small parts", "They jump off and are lost.", "Hold a hand over them."),
        About::Sensor => {
            ("sensor", "A sensor that is touched or bent tells the wrong thing.", "Do not touch the sensor.")
        }
        About::Lens => {
            ("lens", "Dust and fingerprints show in every picture.", "Do not touch the lens, and keep it covered.")
        }
        About::Membrane => {
            ("membrane", "Once pierced it keeps nothing out.", "Keep tools, liquid and air jets off the membrane.")
        }
        About::Seal => ("seal", "Water and dust get in.", "Fit a new one where it does not close any more."),
        About::Force => ("force", "What is forced breaks.", "Look for what still holds."),
        About::Orientation => (
            "which way round",
            "The wrong way round it does not fit, or breaks.",
            "Look which way round the part sits.",
        ),
        About::Contamination => ("dirt", "It stays inside.", "Keep the place clean and covered."),
        About::WrongPart => ("wrong part", "It does not fit, or is harmed.", "Compare the new part with the old one."),
        About::KeepPart => {
            ("part that goes back", "Without it the device is not whole.", "Keep the part for the rebuild.")
        }
        About::OwnRisk => (
            "your own risk",
            "Warranty and water-tightness may be lost.",
            "Leave the work to a workshop where you are not sure.",
        ),
        _ => return None,
    })
}

/// What goes before a caution of a manual: as its author says, else by what it is about and what it tells.
pub fn head(manual: &Manual, caution: &Caution) -> CautionHead {
    let untold = |words: &str| Some(words.to_owned()).filter(|_| !tells_what_to_do(&caution.text));
    if let Some(hazard) = caution.hazard {
        let head = CautionHead::from_catalogue(hazard);
        let avoidance = untold(entry(hazard).avoidance);
        return CautionHead { level: caution.level.unwrap_or(head.level), avoidance, ..head };
    }
    let text = caution.text.to_lowercase();
    let (shocks, marred) = (high_voltage(caution.about, &text), marred(caution.about, &text));
    let of_subject = || sign(caution.about).filter(|_| marred.is_none());
    let sign = shocks.as_ref().map(|_| Sign::Electricity).or_else(of_subject);
    let known = shocks.or(marred).or_else(|| known(caution.about));
    let base = known.as_ref().map_or(Level::Notice, |h| h.level);
    let level =
        caution.level.unwrap_or_else(|| base.max(told_level(&text)).max(by_device(manual, caution.about, &text)));
    let consequence = known.as_ref().filter(|_| !tells_consequence(&text)).map(|h| h.consequence.to_owned());
    let avoidance = known.as_ref().and_then(|h| untold(h.avoidance));
    CautionHead { level, hazard: known.map(|h| h.name.to_owned()), consequence, avoidance, sign }
}

/// The sign of what a caution is about, where there is one for people.
fn sign(about: CautionSubject) -> Option<Sign> {
    match about {
        CautionSubject::Mains | CautionSubject::Power | CautionSubject::ShortCircuit => Some(Sign::Electricity),
        CautionSubject::Battery => Some(Sign::Explosive),
        CautionSubject::Chemical => Some(Sign::Flammable),
        CautionSubject::Burn => Some(Sign::Hot),
        CautionSubject::Glass => Some(Sign::Eyes),
        CautionSubject::SharpTool => Some(Sign::Sharp),
        CautionSubject::Esd => Some(Sign::Static),
        _ => None,
    }
}

/// What the steps before have told of each hazard, with how many steps ago.
#[derive(Debug, Default)]
pub struct SaidLately {
    consequences: BTreeMap<String, usize>,
    avoidances: BTreeMap<String, usize>,
}

/// What was told this many steps ago is remembered; further on it is told again.
const REMEMBERED: usize = 2;

impl SaidLately {
    /// Of the cautions of the next step the loudest is read first, those of one level in their order; what happens and what
    /// to do are each said once for a hazard over steps that follow each other.
    pub fn next<'m>(
        &mut self,
        manual: &Manual,
        cautions: impl Iterator<Item = &'m Caution>,
    ) -> Vec<(&'m Caution, CautionHead)> {
        let mut all: Vec<(&Caution, CautionHead)> = cautions.map(|c| (c, head(manual, c))).collect();
        all.sort_by_key(|(_, head)| std::cmp::Reverse(head.level));
        for told in [&mut self.consequences, &mut self.avoidances] {
            told.retain(|_, ago| *ago < REMEMBERED);
            told.values_mut().for_each(|ago| *ago += 1);
        }
        for (_, head) in &mut all {
            let Some(hazard) = head.hazard.clone() else { continue };
            once(&mut self.consequences, &hazard, &mut head.consequence);
            once(&mut self.avoidances, &hazard, &mut head.avoidance);
        }
        all
    }
}

/// Takes out what was told lately of a hazard, and remembers what is told now.
fn once(told: &mut BTreeMap<String, usize>, hazard: &str, words: &mut Option<String>) {
    if told.contains_key(hazard) {
        *words = None;
        told.insert(hazard.to_owned(), 0);
    } else if words.is_some() {
        told.insert(hazard.to_owned(), 0);
    }
}

/// How loud the told words themselves are.
fn told_level(text: &str) -> Level {
    // What fingers and skin do to a part hurts nobody, and a killed board is a board.
    const HARMLESS: [&str; 6] =
        ["with your fingers", "with the fingers", "with bare fingers", "from the skin", "of the skin", "skin grease"];
    let text = HARMLESS.iter().fold(text.to_owned(), |text, words| text.replace(words, ""));
    let words: Vec<&str> = text.split(|c: char| !c.is_alphabetic()).filter(|w| !w.is_empty()).collect();
    let says = |all: &[&str]| words.iter().any(|w| all.contains(w));
    let kills_people = words.windows(2).any(|w| {
        matches!(w[0], "kill" | "kills" | "killed")
            && matches!(w[1], "you" | "people" | "somebody" | "someone" | "anyone")
    });
    if kills_people || says(&["lethal", "deadly", "death"]) {
        Level::Danger
    } else if says(&["shock", "fire", "explode", "explodes", "explosion", "toxic", "poisonous", "vent"]) {
        Level::Warning
    } else if says(&["hurt", "hurts", "injure", "injury", "skin", "eyes", "eye", "fingers", "gloves", "goggles"]) {
        Level::Caution
    } else {
        Level::Notice
    }
}

/// Live parts of a device on the mains hurt people; heat near a cell too.
fn by_device(manual: &Manual, about: CautionSubject, text: &str) -> Level {
    let on_mains = || {
        let parts = manual.parts.values().any(|p| is_mains(&p.name));
        parts || manual.steps.values().any(unplugs)
    };
    match about {
        CautionSubject::Power if on_mains() => Level::Warning,
        CautionSubject::Overheating if text.contains("battery") || text.contains("cell") => Level::Warning,
        _ => Level::Notice,
    }
}

/// Whether a caution says what happens, or why.
fn tells_consequence(text: &str) -> bool {
    const WORDS: [&str; 34] = [
        "because",
        "since",
        "otherwise",
        "can",
        "could",
        "may",
        "might",
        "will",
        "would",
        "breaks",
        "break",
        "tears",
        "tear",
        "burns",
        "burn",
        "cracks",
        "crack",
        "damages",
        "damage",
        "harms",
        "harm",
        "kills",
        "kill",
        "shorts",
        "rips",
        "rip",
        "bends",
        "snaps",
        "snap",
        "strips",
        "strip",
        "lost",
        "hurts",
        "melts",
    ];
    text.split(|c: char| !c.is_alphabetic()).any(|w| WORDS.contains(&w))
        || text.contains("'ll")
        || text.contains("so that")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ids::{CautionId, ManualId, StepId};
    use crate::manual::drafted;
    use rstest::rstest;
    use uuid::Uuid;

    fn caution(about: CautionSubject, text: &str) -> Caution {
        let (id, step) = (CautionId(Uuid::nil()), StepId(Uuid::nil()));
        Caution { id, step, about, hazard: None, text: text.to_owned(), level: None, evidence: Vec::new() }
    }

    fn plain() -> Manual {
        Manual::new(ManualId(Uuid::nil()), "Test", "")
    }

    #[rstest]
    #[case::people_may_die(CautionSubject::Mains, "Pull the plug.", Level::Danger)]
    #[case::a_cell(CautionSubject::Battery, "Never stab it.", Level::Warning)]
    #[case::skin(CautionSubject::Burn, "Let it cool.", Level::Caution)]
    #[case::the_device_alone(CautionSubject::Cable, "Go easy on the ribbon.", Level::Notice)]
    #[case::said_louder(CautionSubject::Other, "The big capacitor can give you a shock.", Level::Warning)]
    #[case::said_to_hurt(CautionSubject::Force, "Mind your fingers.", Level::Caution)]
    #[case::fingers_that_touch(CautionSubject::Sensor, "Do not touch it with your fingers.", Level::Notice)]
    #[case::heat_at_a_cell(CautionSubject::Overheating, "Not too hot, the battery is right behind.", Level::Warning)]
    #[case::a_board_dies(CautionSubject::Esd, "The static of the body can kill it.", Level::Notice)]
    #[case::a_person_dies(CautionSubject::Power, "The flash capacitor can kill you.", Level::Danger)]
    #[case::skin_that_soils(CautionSubject::Contamination, "Grease from the skin spoils it.", Level::Notice)]
    #[case::a_high_voltage(CautionSubject::Power, "Under that is the part with the high voltage.", Level::Warning)]
    #[case::glass_to_be_covered(CautionSubject::Glass, "Cover the finder glass with film as well.", Level::Notice)]
    #[case::film_over_cracks(CautionSubject::Glass, "Put film over it, so that no splinter flies.", Level::Caution)]
    #[case::many_volts(CautionSubject::Power, "That corner carries 900 volts.", Level::Warning)]
    #[case::parts_of_a_volt(CautionSubject::Power, "The rail carries 51.5 volts.", Level::Warning)]
    #[case::volts_in_one_word(CautionSubject::Other, "It says 230V on the can.", Level::Warning)]
    #[case::few_volts(CautionSubject::Power, "The rail carries 12 volts.", Level::Notice)]
    #[case::heat_elsewhere(CautionSubject::Overheating, "Not too hot.", Level::Notice)]
    fn who_is_hurt_decides_how_loud(#[case] about: CautionSubject, #[case] text: &str, #[case] level: Level) {
        assert_eq!(head(&plain(), &caution(about, text)).level, level);
    }

    #[test]
    fn live_parts_of_a_device_on_the_mains_hurt_people() {
        let power = caution(CautionSubject::Power, "Switch it off first.");
        assert_eq!(head(&plain(), &power).level, Level::Notice);
        let lamp = drafted::manual("[0:00] Unplug the lamp from the wall socket. Remove the cover.");
        assert_eq!(head(&lamp, &power).level, Level::Warning);
    }

    #[test]
    fn a_hazard_of_the_catalogue_speaks_for_itself() {
        let mut own = caution(CautionSubject::Other, "Keep them apart.");
        own.hazard = Some(Hazard::Magnet);
        let head = head(&plain(), &own);
        assert_eq!((head.level, head.hazard.as_deref()), (Level::Warning, Some("strong magnet")));
        assert!(head.consequence.is_some_and(|c| c.contains("implants")));
        own.level = Some(Level::Notice);
        assert_eq!(super::head(&plain(), &own).level, Level::Notice, "an author's word stands over it");
    }

    #[test]
    fn an_author_decides() {
        let mut glass = caution(CautionSubject::Glass, "Lift it slowly.");
        glass.level = Some(Level::Notice);
        assert_eq!(head(&plain(), &glass).level, Level::Notice);
    }

    #[rstest]
    #[case::told("Do not lever, you'll crack the glass.", None)]
    #[case::not_told("Lift it slowly.", Some("Splinters cut, and get into eyes."))]
    fn a_consequence_is_told_once(#[case] text: &str, #[case] consequence: Option<&str>) {
        assert_eq!(head(&plain(), &caution(CautionSubject::Glass, text)).consequence.as_deref(), consequence);
    }

    #[rstest]
    #[case::told("Do not lever, you'll crack the glass.", None)]
    #[case::a_fact_alone("The glass is thin.", Some("Wear eye protection."))]
    #[case::after_a_condition("If it is cracked, put film over it.", None)]
    fn what_to_do_is_told_once(#[case] text: &str, #[case] avoidance: Option<&str>) {
        assert_eq!(head(&plain(), &caution(CautionSubject::Glass, text)).avoidance.as_deref(), avoidance);
    }

    #[test]
    fn what_happens_is_said_once_for_a_hazard() {
        let all =
            [caution(CautionSubject::Mains, "Pull the plug."), caution(CautionSubject::Mains, "Wait five minutes.")];
        let told: Vec<bool> =
            SaidLately::default().next(&plain(), all.iter()).iter().map(|(_, h)| h.consequence.is_some()).collect();
        assert_eq!(told, [true, false]);
    }

    /// "Pull the plug" says nothing of the charge that stays.
    #[test]
    fn what_to_do_is_added_where_only_a_fact_is_told() {
        let all = [
            caution(CautionSubject::Mains, "Pull the plug."),
            caution(CautionSubject::Mains, "The driver board holds a charge."),
            caution(CautionSubject::Mains, "The relay board holds a charge."),
        ];
        let told: Vec<bool> =
            SaidLately::default().next(&plain(), all.iter()).iter().map(|(_, h)| h.avoidance.is_some()).collect();
        assert_eq!(told, [false, true, false]);
    }

    #[test]
    fn further_on_it_is_said_again() {
        let glass = [caution(CautionSubject::Glass, "Lift it slowly.")];
        let mut lately = SaidLately::default();
        let mut told = |cautions: &[Caution]| {
            lately.next(&plain(), cautions.iter()).iter().map(|(_, h)| h.consequence.is_some()).collect::<Vec<_>>()
        };
        let steps: [&[Caution]; 6] = [&glass, &glass, &[], &[], &[], &glass];
        let said: Vec<Vec<bool>> = steps.into_iter().map(&mut told).collect();
        assert_eq!(said, [vec![true], vec![false], vec![], vec![], vec![], vec![true]]);
    }

    #[test]
    fn the_loudest_is_read_first() {
        let all = [
            caution(CautionSubject::Cable, "Mind the ribbon."),
            caution(CautionSubject::Mains, "Pull the plug."),
            caution(CautionSubject::Connector, "Mind the latch."),
        ];
        let order: Vec<&str> =
            SaidLately::default().next(&plain(), all.iter()).iter().map(|(c, _)| c.text.as_str()).collect();
        assert_eq!(order, ["Pull the plug.", "Mind the ribbon.", "Mind the latch."]);
    }
}
