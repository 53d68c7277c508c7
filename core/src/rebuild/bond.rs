//! A joint without screws, closed again: the edge that hooks in first, faces cleaned, new adhesive, pressed for its time.
//!
//! Only what an author said of it is told: which adhesive holds and for how long it is pressed, nobody can know from how the
//! joint was opened. Cleaning before bonding: common practice, no source.

use super::RebuildLine;
use super::back::{goes_back, name_going_back};
use super::inverse::{About, Undo};
use crate::labels::Label;
use crate::manual::{Manual, Rebond, Seam, SeamKind, Step};
use crate::reading::Act;
use crate::units::{duration_text, in_millimetres, in_seconds, number};

/// Puts what closes the joints of a step around the lines that bring their parts back.
pub(super) fn close(manual: &Manual, step: &Step, undos: &mut Vec<Undo>) {
    for seam in manual.seams.values().filter(|s| s.step == step.id) {
        let Some(rebond) = &seam.rebond else { continue };
        if seam.part.is_some_and(|p| !goes_back(manual, p)) {
            continue;
        }
        let fits =
            |u: &Undo| matches!(&u.about, About::Parts(_, parts) if seam.part.is_some_and(|p| parts.contains(&p)));
        let at = undos.iter().position(fits);
        // What holds it again is told by the joint; "renew the adhesive" would tell it twice.
        if let Some(Undo { about: About::Parts(Act::Peel, parts), line }) = at.and_then(|at| undos.get_mut(at)) {
            let names: Vec<String> = parts.iter().map(|p| name_going_back(manual, *p)).collect();
            let text = format!("Fit the {}.", names.join(", the "));
            *line = RebuildLine { parts: parts.clone(), ..RebuildLine::new(Act::Install, text) };
        }
        let put = |undos: &mut Vec<Undo>, at: usize, before: bool, lines: Vec<RebuildLine>| {
            let about = || About::Bond { part: seam.part, before };
            undos.splice(at..at, lines.into_iter().map(|line| Undo { about: about(), line }));
        };
        let clicked = undos.iter().any(|u| fits(u) && u.line.act == Some(Act::Press));
        put(undos, at.map_or(undos.len(), |at| at + 1), false, after(seam, rebond, clicked));
        put(undos, at.unwrap_or(0), true, before(manual, seam, rebond));
    }
}

fn before(manual: &Manual, seam: &Seam, rebond: &Rebond) -> Vec<RebuildLine> {
    let bonded = matches!(seam.kind, SeamKind::Glue | SeamKind::Tape);
    let mut out = Vec::new();
    if bonded {
        let clean = "Clean the old adhesive off both faces, and let them dry.".to_owned();
        let because = Some("New adhesive does not hold on old (common practice).".to_owned());
        out.push(RebuildLine { because, ..RebuildLine::new(Act::Clean, clean) });
    }
    if let Some(with) = &rebond.with {
        let wide = rebond.width.map_or(String::new(), |w| format!(", {} mm wide", number(in_millimetres(w))));
        out.push(RebuildLine::new(Act::Apply, format!("Apply the {with}{wide}.")));
    }
    let part = seam.part.map_or("part", |p| manual.part_name(p));
    let hooked = rebond.hook_first.map(|e| format!("Set the {part} in at the {} edge first.", e.label()));
    out.extend(hooked.map(|text| RebuildLine::new(Act::Place, text)));
    out
}

fn after(seam: &Seam, rebond: &Rebond, clicked: bool) -> Vec<RebuildLine> {
    let time = |t: crate::units::Time| duration_text(in_seconds(t));
    let pressed = match (&rebond.press, rebond.press_for) {
        (None, None) => None,
        (how, how_long) => {
            let how = how.as_ref().map_or(String::new(), |h| format!(" with {h}"));
            let long = how_long.map_or(String::new(), |t| format!(" for {}", time(t)));
            Some(RebuildLine::new(Act::Press, format!("Press it{how}{long}.")))
        }
    };
    let clicks = !clicked && matches!(seam.kind, SeamKind::Clips | SeamKind::SnapEdge) && pressed.is_none();
    let pressed =
        pressed.or(clicks.then(|| RebuildLine::new(Act::Press, "Press all round until it clicks.".to_owned())));
    let cured = rebond.cure.map(|t| {
        let text = format!("Leave it for {} before it is loaded.", time(t));
        RebuildLine::new(Act::Wait, text)
    });
    pressed.into_iter().chain(cured).collect()
}

#[cfg(test)]
mod tests {
    use crate::manual::{Edit, FaceEdge, Manual, Rebond, SeamEdit, SeamField, SeamKind, drafted};
    use crate::rebuild::fold;
    use crate::units::{millimetres, seconds};

    fn closed(told: &str, kind: SeamKind, rebond: Rebond) -> Vec<String> {
        let manual = drafted::manual(told);
        let id = *manual.seams.keys().next().expect("a joint");
        let set = |m: &Manual, field| m.apply(&Edit::Seam(SeamEdit::Set { id, field }), "Ann").expect("a field").0;
        let manual = set(&set(&manual, SeamField::Kind(kind)), SeamField::Rebond(Some(rebond)));
        fold(&manual).rebuild.into_iter().flat_map(|s| s.lines).map(|l| l.text).collect()
    }

    #[test]
    fn glue_is_cleaned_renewed_pressed_and_left() {
        let rebond = Rebond {
            with: Some("adhesive frame".to_owned()),
            width: Some(millimetres(2.0)),
            press: Some("two clamps".to_owned()),
            press_for: Some(seconds(600.0)),
            cure: Some(seconds(86_400.0)),
            hook_first: None,
        };
        let told = "[0:00] Pry up the rear cover with a spudger. Lift off the rear cover.";
        let lines = closed(told, SeamKind::Glue, rebond);
        let fit = lines.iter().position(|l| l == "Fit the rear cover.").expect("it goes back");
        assert_eq!(
            lines[fit - 2..fit],
            ["Clean the old adhesive off both faces, and let them dry.", "Apply the adhesive frame, 2 mm wide."]
        );
        assert_eq!(
            lines[fit + 1..fit + 3],
            ["Press it with two clamps for 10 min.", "Leave it for 24 h before it is loaded."]
        );
    }

    #[test]
    fn what_was_peeled_is_not_told_to_be_renewed_twice() {
        let rebond = Rebond { with: Some("double-sided tape".to_owned()), ..Rebond::default() };
        let told = "[0:00] Peel off the felt pad. Remove the felt pad.";
        let lines = closed(told, SeamKind::Tape, rebond);
        assert!(lines.iter().any(|l| l == "Apply the double-sided tape."), "{lines:?}");
        assert!(
            lines.iter().any(|l| l == "Fit the felt pad.") && lines.iter().all(|l| !l.contains("Renew")),
            "{lines:?}"
        );
    }

    #[test]
    fn clips_hook_in_first_and_click() {
        let rebond = Rebond { hook_first: Some(FaceEdge::Top), ..Rebond::default() };
        let told = "[0:00] Release the eight clips of the rear cover. Lift off the rear cover.";
        let lines = closed(told, SeamKind::Clips, rebond);
        let hook = lines.iter().position(|l| l == "Set the rear cover in at the top edge first.").expect("hooked");
        let click = lines.iter().position(|l| l == "Press all round until it clicks.").expect("pressed");
        assert!(hook < click, "{lines:?}");
    }

    /// Whoever told to clean, glue and press need not be told again; what was not told stands beside it.
    #[test]
    fn what_is_told_of_the_bond_is_not_told_twice() {
        let rebond = Rebond {
            with: Some("adhesive ring".to_owned()),
            press_for: Some(seconds(60.0)),
            cure: Some(seconds(3_600.0)),
            ..Rebond::default()
        };
        let told = "[0:00] Pry up the rear cover with a spudger. Lift off the rear cover.\n\n[0:10] Remove the fan.\n\n\
                    [0:20] Now the assembly. Install the fan.\n\n[0:30] Clean both faces. Apply the adhesive ring. Put the \
                    rear cover back on. Press the rear cover for two minutes.";
        let lines = closed(told, SeamKind::Glue, rebond);
        let with = |word: &str| lines.iter().filter(|l| l.contains(word)).count();
        assert_eq!(
            (with("Clean"), with("adhesive ring"), with("Press"), with("Leave it for 1 h")),
            (1, 1, 1, 1),
            "{lines:?}"
        );
    }

    #[test]
    fn faces_are_cleaned_before_what_is_told_to_be_put_on() {
        let rebond = Rebond { with: Some("adhesive tape".to_owned()), ..Rebond::default() };
        let told = "[0:00] Pry up the rear cover with a spudger. Lift off the rear cover. Remove the fan. Now we put it back \
                    together. Install the fan.\n\n[0:30] Apply the adhesive tape on the frame. Put the rear cover back on.";
        let lines = closed(told, SeamKind::Tape, rebond);
        let at =
            |word: &str| lines.iter().position(|l| l.contains(word)).unwrap_or_else(|| panic!("{word}: {lines:?}"));
        assert!(at("Clean the old") < at("Apply the"), "{lines:?}");
        assert!(at("Apply the") < at("rear cover back on"), "{lines:?}");
    }

    #[test]
    fn beside_a_told_rebuild_it_stands_around_the_part() {
        let rebond =
            Rebond { with: Some("adhesive frame".to_owned()), press_for: Some(seconds(60.0)), ..Rebond::default() };
        let told = "[0:00] Pry up the rear cover with a spudger. Lift off the rear cover. Remove the fan. Now we put it back \
                    together. Install the fan. Put the rear cover back on.";
        let lines = closed(told, SeamKind::Glue, rebond);
        let at =
            |words: &str| lines.iter().position(|l| l.contains(words)).unwrap_or_else(|| panic!("{words}: {lines:?}"));
        assert!(at("Install the fan").max(at("Clean the old")) < at("Apply the adhesive frame"), "{lines:?}");
        assert!(at("Apply the adhesive frame") < at("Press it for 1 min"), "{lines:?}");
    }
}
