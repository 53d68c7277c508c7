//! The catalogue of hazards: one file each, with what brings it about, what it does, what to do against it, how loudly that is
//! said, under which sign, to whom the work belongs, and its tests.
//!
//! Signal words by who is hurt and how likely (ANSI Z535.6 and ISO 3864-2, both from memory); signs after the registered ones
//! of ISO 7010, from memory. Most hazards are common practice of the trade without a source, and say so.

mod beam;
mod blade;
mod broken_glass;
mod cell_heated;
mod cell_pried;
mod cell_shorted;
mod cell_soldered;
mod cell_swollen;
mod compressed_air;
mod curing;
mod data_loss;
mod dust;
mod earth;
mod first_power;
mod gas;
mod germs;
mod heavy;
mod hot_part;
mod magnet;
mod mains;
mod microwave;
mod open_optics;
mod picture_tube;
mod pressure;
mod refrigerant;
mod rough;
mod safety_part;
mod screw_length;
mod seal_opened;
mod sheet_edge;
mod solder_fume;
mod solvent;
mod solvent_heated;
mod splinters;
mod spring;
mod start_up;
mod static_charge;
mod still_connected;
mod stored_charge;
mod ultraviolet;
mod water;

use super::scene::{Scene, told};
use super::signs::Sign;
use crate::labels;
use crate::manual::{Caution, Hazard, Level};
use crate::reading::CautionSubject;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Where a warning stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WarnPlace {
    /// Before the step that brings it about, once for a stretch of them.
    Step,
    /// Before all work: it holds for the whole guide.
    Preparation,
    /// Before the rebuild: it holds for all of it.
    Rebuild,
}

labels!(WarnPlace { Step: "before the step", Preparation: "before all work", Rebuild: "before the rebuild" });

/// One hazard.
#[derive(Debug)]
pub struct Entry {
    pub hazard: Hazard,
    pub level: Level,
    pub sign: Sign,
    pub place: WarnPlace,
    /// What happens, a whole sentence.
    pub consequence: &'static str,
    /// What to do against it, in whole sentences.
    pub avoidance: &'static str,
    /// To whom the work belongs, or which rules decide.
    pub defers: Option<&'static str>,
    /// What a narrator's caution is about that warns of this hazard …
    pub told_as: &'static [CautionSubject],
    /// … and one of the words that it then says; empty: whatever it says.
    pub told_with: &'static [&'static str],
    /// Why a step brings it about, after "this step"; `None`: it does not.
    pub trigger: fn(&Scene<'_>) -> Option<String>,
    pub source: &'static str,
}

impl Entry {
    /// Whether a caution warns of this hazard.
    pub fn is_told_by(&self, caution: &Caution) -> bool {
        match caution.hazard {
            Some(hazard) => hazard == self.hazard,
            None => {
                let with = || self.told_with.is_empty() || told(&caution.text, self.told_with);
                self.told_as.contains(&caution.about) && with()
            }
        }
    }
}

/// Every hazard, in the order in which a step is looked at.
pub const ENTRIES: &[&Entry] = &[
    &mains::ENTRY,
    &stored_charge::ENTRY,
    &still_connected::ENTRY,
    &microwave::ENTRY,
    &picture_tube::ENTRY,
    &refrigerant::ENTRY,
    &gas::ENTRY,
    &cell_pried::ENTRY,
    &cell_heated::ENTRY,
    &cell_swollen::ENTRY,
    &cell_shorted::ENTRY,
    &cell_soldered::ENTRY,
    &splinters::ENTRY,
    &broken_glass::ENTRY,
    &sheet_edge::ENTRY,
    &blade::ENTRY,
    &hot_part::ENTRY,
    &solder_fume::ENTRY,
    &solvent::ENTRY,
    &solvent_heated::ENTRY,
    &compressed_air::ENTRY,
    &beam::ENTRY,
    &ultraviolet::ENTRY,
    &start_up::ENTRY,
    &spring::ENTRY,
    &magnet::ENTRY,
    &dust::ENTRY,
    &germs::ENTRY,
    &heavy::ENTRY,
    &earth::ENTRY,
    &safety_part::ENTRY,
    &water::ENTRY,
    &pressure::ENTRY,
    &first_power::ENTRY,
    &static_charge::ENTRY,
    &open_optics::ENTRY,
    &screw_length::ENTRY,
    &rough::ENTRY,
    &data_loss::ENTRY,
    &seal_opened::ENTRY,
    &curing::ENTRY,
];

/// What is known of a hazard.
pub fn entry(hazard: Hazard) -> &'static Entry {
    ENTRIES.iter().copied().find(|e| e.hazard == hazard).expect("every hazard has its file; a test holds that")
}

/// The steps of a narration that bring a hazard about, by their titles.
#[cfg(test)]
fn met(entry: &Entry, narration: &str) -> Vec<String> {
    let manual = crate::manual::drafted::manual(&format!("[0:00] {narration}"));
    let scenes = super::scene::scenes(&manual);
    scenes.iter().filter(|s| (entry.trigger)(s).is_some()).map(|s| s.step.title.clone()).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::labels::Label;

    #[test]
    fn every_hazard_has_one_file_and_says_what_to_do() {
        for hazard in Hazard::ALL {
            assert_eq!(ENTRIES.iter().filter(|e| e.hazard == *hazard).count(), 1, "{hazard:?}");
        }
        for entry in ENTRIES {
            for text in [entry.consequence, entry.avoidance] {
                assert!(text.ends_with('.') && text.chars().next().is_some_and(char::is_uppercase), "{text}");
                // ANSI Z535.6: short, one message a hazard.
                assert!(text.split_whitespace().count() <= 28, "{text}");
            }
            assert!(!entry.source.is_empty());
        }
    }

    /// Who works behind these lines must have learned it: no such warning goes out without saying so.
    #[test]
    fn danger_says_to_whom_it_belongs() {
        assert!(ENTRIES.iter().filter(|e| e.level == Level::Danger).all(|e| e.defers.is_some()));
    }
}
