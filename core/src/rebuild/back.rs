//! How what came off goes back, by what it is and not by its verb alone: film has served, tape sticks once, a foot may stick
//! again, what was cut takes a new one, what was drained is filled, let breathe and looked over for leaks.
//!
//! Source: common practice, no source.

use super::RebuildLine;
use super::inverse::{About, Undo, inverse};
use super::loose;
use crate::ids::PartId;
use crate::labels::Label;
use crate::manual::{Action, Manual, PartFate, Step, is_plural};
use crate::reading::{Act, list};
use crate::things::{Peeled, is_cut_to_open, is_looked_through, peeled, same_thing};

/// An act on parts, undone. Screws and connectors are told from their own records, so acts on them give no line; power comes
/// back by an exception of its own.
pub(super) fn undo(manual: &Manual, act: Act, parts: &[PartId]) -> Vec<Undo> {
    let going: Vec<PartId> = parts.iter().copied().filter(|p| goes_back(manual, *p)).collect();
    if going.is_empty() || matches!(act, Act::PowerOff | Act::Unplug) {
        return Vec::new();
    }
    let mut lines = undone(manual, act, &going);
    for undo in &mut lines {
        if let About::Parts(_, parts) = &undo.about {
            undo.line.parts = parts.clone();
        }
    }
    lines
}

fn undone(manual: &Manual, act: Act, going: &[PartId]) -> Vec<Undo> {
    match act {
        Act::Peel => going.iter().flat_map(|p| peeled_off(manual, *p)).collect(),
        Act::Cut => going.iter().filter_map(|p| cut(manual, *p)).collect(),
        Act::Desolder => soldered(manual, going),
        Act::Release => vec![pressed_in(manual, going)],
        _ => inverse(act).map(|back| whole(manual, act, back, back.label(), "", going)).into_iter().collect(),
    }
}

/// What a sentence undoes that is no part of the manual: a lid that was only opened, a tie that was cut, a fluid let out.
pub(super) fn undo_things(manual: &Manual, step: &Step, action: &Action) -> Vec<Undo> {
    let act = action.act;
    if act == Act::Drain {
        return filled(action.roles.things.first().map_or("fluid", String::as_str));
    }
    // Latches of plugs are told with their plugs.
    let by_plugs = act == Act::Release && manual.connectors_of(step.id).next().is_some();
    let lifts = |a: &Action| a.act == Act::Remove || act == Act::Release && a.act == Act::Peel;
    let lifted = |n: &str| step.actions.iter().any(|a| lifts(a) && manual.named(a).any(|m| same_thing(n, m)));
    let things = action.roles.things.iter().filter(|n| action.parts.is_empty() && !by_plugs && !lifted(n));
    things.flat_map(|name| thing(act, name)).collect()
}

fn thing(act: Act, name: &str) -> Vec<Undo> {
    let about = || About::Thing(act, name.to_owned());
    let line = |back, text: String| vec![Undo { about: about(), line: RebuildLine::new(back, text) }];
    match act {
        Act::Peel if peeled(name) == Peeled::Tape => vec![fresh(about(), name)],
        Act::Peel if peeled(name) == Peeled::Pad => {
            line(Act::Apply, format!("Clean the place, and press on the {name}."))
        }
        Act::Cut if is_cut_to_open(name) => vec![fresh(about(), name)],
        Act::Desolder => {
            line(Act::Solder, format!("Solder the {name}.")).into_iter().chain([cooled(about())]).collect()
        }
        Act::Release => line(Act::Press, format!("Press the {name} in until {}.", clicks(is_plural(name)))),
        Act::Open => line(Act::Close, format!("Close the {name}.")),
        // What covered it for the work would be in the picture.
        Act::Protect if is_looked_through(name) => line(Act::Remove, format!("Uncover the {name}.")),
        _ => Vec::new(),
    }
}

/// One line for all parts: "Fit the fan and the lid."
fn whole(manual: &Manual, undone: Act, act: Act, verb: &str, behind: &str, parts: &[PartId]) -> Undo {
    let parts = loose::in_order(manual, parts);
    let names: Vec<String> = parts.iter().map(|p| name_going_back(manual, *p)).collect();
    let text = format!("{verb} the {} {behind}", list(&names.iter().map(String::as_str).collect::<Vec<_>>()));
    let because = loose::because(manual, &parts).filter(|_| act == Act::Install);
    let line = RebuildLine { because, ..RebuildLine::new(act, text.trim_end().to_owned() + ".") };
    Undo { about: About::Parts(undone, parts), line }
}

fn pressed_in(manual: &Manual, parts: &[PartId]) -> Undo {
    let several = parts.len() > 1 || parts.iter().any(|p| is_plural(manual.part_name(*p)));
    whole(manual, Act::Release, Act::Press, "Press", &format!("in until {}", clicks(several)), parts)
}

fn clicks(several: bool) -> &'static str {
    if several { "they click" } else { "it clicks" }
}

fn peeled_off(manual: &Manual, part: PartId) -> Vec<Undo> {
    let name = name_going_back(manual, part);
    let about = || About::Parts(Act::Peel, vec![part]);
    let glue = |text: String, because: &str| Undo {
        about: about(),
        line: RebuildLine { because: Some(because.to_owned()), ..RebuildLine::new(Act::Apply, text) },
    };
    match peeled(&name) {
        Peeled::Film => Vec::new(),
        Peeled::Tape => vec![fresh(about(), &name)],
        Peeled::Pad => {
            let clean = RebuildLine::new(Act::Clean, format!("Clean the place of the {name}."));
            let before = Undo { about: About::Bond { part: Some(part), before: true }, line: clean };
            let text = format!("Press on the {name}.");
            vec![before, glue(text, "Where it no longer sticks, fit a new one (common practice).")]
        }
        Peeled::Glued => {
            let text = format!("Renew the adhesive and press on the {name}.");
            vec![glue(text, "Peeled adhesive does not hold twice: renew it (common practice).")]
        }
    }
}

fn cut(manual: &Manual, part: PartId) -> Option<Undo> {
    let name = name_going_back(manual, part);
    is_cut_to_open(&name).then(|| fresh(About::Parts(Act::Cut, vec![part]), &name))
}

/// "Fit new tape."
fn fresh(about: About, name: &str) -> Undo {
    let name = name.trim_start_matches("new ");
    let because = Some("It holds once (common practice).".to_owned());
    let one = if name.ends_with('s') || name.ends_with("tape") { "" } else { "a " };
    let takes_new = Some(name.to_owned());
    let line = RebuildLine { because, takes_new, ..RebuildLine::new(Act::Apply, format!("Fit {one}new {name}.")) };
    Undo { about, line }
}

fn soldered(manual: &Manual, parts: &[PartId]) -> Vec<Undo> {
    let solder = whole(manual, Act::Desolder, Act::Solder, Act::Solder.label(), "", parts);
    vec![solder, cooled(About::Bond { part: parts.first().copied(), before: false })]
}

fn cooled(about: About) -> Undo {
    let look = "Let the joints cool, then look at each: smooth, wetted all round, no bridge to the next.".to_owned();
    Undo { about, line: RebuildLine::new(Act::Wait, look) }
}

fn filled(name: &str) -> Vec<Undo> {
    let line = |act, text: String| Undo {
        about: About::Thing(Act::Drain, name.to_owned()),
        line: RebuildLine::new(act, text),
    };
    vec![
        line(Act::Apply, format!("Fill in the {name}, new where it was not clean.")),
        line(Act::Adjust, "Let the air out.".to_owned()),
        line(Act::Test, "Look for leaks before anything is closed over it.".to_owned()),
    ]
}

/// In the whole teardown everything goes back as it was.
fn fate(manual: &Manual, part: PartId) -> PartFate {
    manual.cut.as_ref().and_then(|c| c.fates.get(&part).copied()).unwrap_or(PartFate::Keep)
}

/// Scrap stays out.
pub(super) fn goes_back(manual: &Manual, part: PartId) -> bool {
    fate(manual, part) != PartFate::Scrap
}

/// Whether a new one goes in its place: the job renews it, or opening destroys it.
pub(super) fn is_renewed(manual: &Manual, part: PartId) -> bool {
    fate(manual, part) == PartFate::Renew || manual.parts.get(&part).is_some_and(|p| p.single_use)
}

/// "new gasket", where a new one goes in.
pub(super) fn name_going_back(manual: &Manual, part: PartId) -> String {
    let name = manual.part_name(part);
    if is_renewed(manual, part) { format!("new {name}") } else { name.to_owned() }
}

#[cfg(test)]
mod tests {
    use crate::manual::{Edit, Manual, PartEdit, PartField, drafted};
    use crate::rebuild::fold;
    use rstest::rstest;

    fn lines(manual: &Manual) -> Vec<String> {
        fold(manual).rebuild.into_iter().flat_map(|s| s.lines).map(|l| l.text).collect()
    }

    #[rstest]
    #[case::film("Peel off the protective film.", &[])]
    #[case::tape("Peel off the tape.", &["Fit new tape."])]
    #[case::feet("Peel off the rubber feet.", &["Clean the place of the rubber feet.", "Press on the rubber feet."])]
    #[case::glued("Peel off the sleeve.", &["Renew the adhesive and press on the sleeve."])]
    #[case::tie("Cut the cable tie. Take out the fan.", &["Fit the fan.", "Fit a new cable tie."])]
    #[case::soldered("Desolder the buzzer.", &["Solder the buzzer.", "Let the joints cool, then look at each: smooth, wetted all round, no bridge to the next."])]
    #[case::clips("Unclip the fan cover.", &["Press the fan cover in until it clicks."])]
    #[case::catches("Release the two catches.", &["Press the catches in until they click."])]
    #[case::loosened_and_peeled_off("Release the leather patch. Peel off the leather patch.", &["Renew the adhesive and press on the leather patch."])]
    #[case::covered("Cover the front lens with film. Take out the lamp.", &["Fit the lamp.", "Uncover the front lens."])]
    #[case::worn("Put on the wrist strap. Take out the lamp.", &["Fit the lamp."])]
    #[case::drained("Drain the coolant. Take out the pump.", &["Fit the pump.", "Fill in the coolant, new where it was not clean.", "Let the air out.", "Look for leaks before anything is closed over it."])]
    #[case::latch_of_a_plug("Flip up the latch. Disconnect the display cable.", &["Connect the display."])]
    #[case::nothing_to_undo("Warm the edge to 70 degrees. Mark the cable. Wait for two minutes.", &[])]
    #[case::captive("Loosen the two captive PH1 screws of the tray. Take out the tray.", &["Fit the tray.", "Tighten the two PH1 screws of the tray."])]
    #[case::within_a_step("Take off the bracket. Remove two T6 screws from the fan. Take out the fan.", &["Fit the fan.", "Drive in the two T6 screws of the fan.", "Fit the bracket."])]
    #[case::lid_on_a_cable("Open the lid. Disconnect the display cable.", &["Connect the display.", "Close the lid."])]
    #[case::opened_and_lifted_off("Pry up the lid. Take off the lid.", &["Fit the lid."])]
    fn what_came_off_goes_back_by_its_kind(#[case] told: &str, #[case] wanted: &[&str]) {
        assert_eq!(lines(&drafted::manual(&format!("[0:00] {told}"))), wanted);
    }

    #[test]
    fn what_opening_destroys_goes_back_as_a_new_one() {
        let manual = drafted::manual("[0:00] Take out the gasket.");
        let id = *manual.parts.keys().next().expect("a gasket");
        let edit = Edit::Part(PartEdit::Set { id, field: PartField::SingleUse(true) });
        assert_eq!(lines(&manual.apply(&edit, "Ann").expect("a field").0), ["Fit the new gasket."]);
    }
}
