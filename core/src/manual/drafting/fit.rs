//! A draft keeps to the limits of edits, whatever was said: else its author could not change it, nor take it elsewhere.
//!
//! What was heard stays in the recording; a figure that cannot be meant is no setting, and a name that never ends is cut.

use crate::manual::edits::refusal::{MAX_TEXT, MAX_TITLE};
use crate::manual::edits::sound::Sound;
use crate::manual::{Action, FastenerGroup, Heat, Manual, Seam, Step};

/// Fits everything that speech can fill without end.
pub(super) fn fit(mut manual: Manual) -> Manual {
    for part in manual.parts.values_mut() {
        clip(&mut part.name, MAX_TITLE);
        [&mut part.heard_as, &mut part.number, &mut part.place, &mut part.about, &mut part.cooled_by]
            .into_iter()
            .flatten()
            .for_each(|text| clip(text, MAX_TITLE));
    }
    manual.steps.values_mut().for_each(fit_step);
    manual.cautions.values_mut().for_each(|c| clip(&mut c.text, MAX_TEXT));
    manual.notes.values_mut().for_each(|n| clip(&mut n.text, MAX_TEXT));
    manual.requirements.values_mut().for_each(|r| clip(&mut r.because, MAX_TEXT));
    manual.kit.values_mut().for_each(|t| clip(&mut t.name, MAX_TITLE));
    manual.recordings.values_mut().for_each(|r| clip(&mut r.title, MAX_TITLE));
    fit_figures(&mut manual);
    manual
}

fn fit_step(step: &mut Step) {
    clip(&mut step.title, MAX_TITLE);
    step.note.iter_mut().for_each(|text| clip(text, MAX_TEXT));
    step.tools.iter_mut().for_each(|text| clip(text, MAX_TITLE));
    for branch in &mut step.branches {
        clip(&mut branch.condition, MAX_TEXT);
        clip(&mut branch.advice, MAX_TEXT);
    }
    step.temporary.iter_mut().for_each(|t| clip(&mut t.what, MAX_TEXT));
    step.actions.iter_mut().for_each(fit_action);
}

fn fit_action(action: &mut Action) {
    let roles = &mut action.roles;
    let texts = roles.things.iter_mut().chain(&mut roles.manner).chain(&mut roles.by).chain(&mut roles.until);
    let texts = texts.chain(&mut roles.condition);
    texts.chain(&mut action.text).for_each(|text| clip(text, MAX_TITLE));
    roles.places.iter_mut().for_each(|place| clip(&mut place.thing, MAX_TITLE));
}

/// Figures that no edit would take are left open; the claims about a count keep what was said.
fn fit_figures(manual: &mut Manual) {
    let groups: Vec<FastenerGroup> = manual.fasteners.values().filter(|g| g.sound(manual).is_err()).cloned().collect();
    for group in groups {
        let open = FastenerGroup {
            count: None,
            refitted: None,
            length: None,
            torque: None,
            head_width: None,
            empty_on_arrival: 0,
            ..group
        };
        manual.fasteners.insert(open.id, open);
    }
    let heats: Vec<Heat> = manual.heats.values().filter(|h| h.sound(manual).is_err()).cloned().collect();
    for heat in heats {
        manual.heats.insert(heat.id, Heat { temperature: None, dwell: None, ..heat });
    }
    let seams: Vec<Seam> = manual.seams.values().filter(|s| s.sound(manual).is_err()).cloned().collect();
    for seam in seams {
        manual.seams.insert(seam.id, Seam { depth: None, ..seam });
    }
}

/// Cuts a text behind the last whole word that fits.
fn clip(text: &mut String, longest: usize) {
    if text.len() <= longest || text.chars().count() <= longest {
        return;
    }
    let end = text.char_indices().nth(longest - 2).map_or(text.len(), |(at, _)| at);
    let end = text[..end].rfind(' ').unwrap_or(end);
    text.truncate(end);
    text.push_str(" …");
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::manual::drafted::manual;
    use rstest::rstest;

    #[rstest]
    #[case("short", 10, "short")]
    #[case("one two three", 10, "one two …")]
    #[case("oneverylongword", 10, "oneveryl …")]
    #[case("ééééééééééé é", 12, "éééééééééé …")]
    fn cuts_behind_a_word(#[case] text: &str, #[case] longest: usize, #[case] cut: &str) {
        let mut text = text.to_owned();
        clip(&mut text, longest);
        assert_eq!(text, cut);
        assert!(text.chars().count() <= longest);
    }

    #[test]
    fn figures_that_cannot_be_meant_are_left_open_and_claims_stay() {
        let mut manual = manual("Remove three screws from the cover. Take off the cover.");
        let id = *manual.fasteners.keys().next().expect("screws");
        let group = manual.fasteners.get_mut(&id).expect("just seen");
        let said = group.claims.clone();
        (group.count, group.refitted) = (Some(600), Some(3));
        let fitted = fit(manual);
        assert_eq!((fitted.fasteners[&id].count, &fitted.fasteners[&id].claims), (None, &said));
        assert_eq!(fitted.check_all(), Ok(()));
    }
}
