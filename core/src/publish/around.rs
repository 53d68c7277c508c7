//! What stands around the steps of a guide: what must hold before, what is lost or harmless, what must pass, what to
//! order. How the device arrived is the author's business and is not published.

use crate::ids::{GroupId, StepId, VariantId};
use crate::manual::{Action, FastenerFate, Manual, NoteKind, Part, PartFate, Phase, RatingLabel, Replacement, Seam};
use crate::rebuild::{self, Fold};
use crate::units::{in_milliampere_hours, in_millimetres, in_volts, in_watt_hours, number};
use std::collections::BTreeSet;

/// The notes of one kind that stand in this guide.
pub(super) fn notes(manual: &Manual, kind: NoteKind) -> Vec<String> {
    manual.notes_of(kind).filter(|n| n.job.is_none()).map(|n| n.text.clone()).collect()
}

/// The variants with what holds for each alone: parts, screws, steps.
pub(super) fn variants(manual: &Manual) -> Vec<String> {
    let only: Vec<Vec<String>> = manual.variants.keys().map(|id| only_in(manual, *id)).collect();
    // In a guide for one job, variants that make no difference to it are only noise.
    if manual.cut.is_some() && only.iter().all(Vec::is_empty) {
        return Vec::new();
    }
    let line = |(v, only): (&crate::manual::Variant, Vec<String>)| {
        let tell = v.how_to_tell.trim_end_matches('.');
        let text =
            if only.is_empty() { format!("{tell}.") } else { format!("{tell}. Only here: {}.", only.join("; ")) };
        format!("{}: {text}", v.name)
    };
    manual.variants.values().zip(only).map(line).collect()
}

fn only_in(manual: &Manual, variant: VariantId) -> Vec<String> {
    let here = |variants: &[VariantId]| variants.contains(&variant);
    let steps = manual.steps_in(Phase::Teardown);
    let parts = manual.parts.values().filter(|p| here(&p.variants)).map(|p| format!("the {}", p.name));
    let kept = |g: &&crate::manual::FastenerGroup| here(&g.variants) && manual.steps.contains_key(&g.step);
    let screws = manual.fasteners.values().filter(kept).map(|g| manual.words_of(g).line());
    let numbered = steps.iter().enumerate().filter(|(_, s)| here(&s.variants)).map(|(i, _)| format!("step {}", i + 1));
    parts.chain(screws).chain(numbered).collect()
}

/// What is to be ordered before the work begins: parts that become new, screws that do, what sticks once, and what holds the
/// joints again, with how much of it.
pub(super) fn orders(manual: &Manual, fold: &Fold) -> Vec<String> {
    let mut out: Vec<String> = manual.parts.values().filter_map(|p| part_order(manual, p)).collect();
    let driven: BTreeSet<GroupId> = fold.rebuild.iter().flat_map(|s| s.groups.iter().copied()).collect();
    let renewed = manual.fasteners.values().filter(|g| g.fate == FastenerFate::Renew && driven.contains(&g.id));
    out.extend(renewed.map(|g| format!("screws: {} × {}", g.count_words(), manual.words_of(g).name())));
    let once: BTreeSet<&String> =
        fold.rebuild.iter().flat_map(|s| &s.lines).filter_map(|l| l.takes_new.as_ref()).collect();
    out.extend(once.into_iter().map(|name| format!("{name}: new, it holds once")));
    let undone: BTreeSet<StepId> = fold.rebuild.iter().filter_map(|s| s.of).collect();
    out.extend(manual.seams.values().filter(|s| undone.contains(&s.step)).filter_map(|s| bond_order(manual, s)));
    out
}

/// What goes over to a new part, which films come off it, and how long the old one is kept.
pub(super) fn swapped(manual: &Manual, fold: &Fold) -> Vec<String> {
    rebuild::swaps(manual, fold).into_iter().flat_map(|s| s.says).collect()
}

/// A guide for one job orders what becomes new there: what its author renews, and what does not survive coming off.
fn part_order(manual: &Manual, part: &Part) -> Option<String> {
    let moves = |a: &Action| a.parts.contains(&part.id);
    if !manual.steps.values().flat_map(|s| &s.actions).any(moves) {
        return None;
    }
    let text = part.replacement.as_ref().map(order_text).filter(|t| !t.is_empty());
    match manual.cut.as_ref().and_then(|c| c.fates.get(&part.id)) {
        Some(PartFate::Scrap) => None,
        Some(PartFate::Renew) => Some(format!("{}: {}", part.name, text.as_deref().unwrap_or("a new one"))),
        _ if part.single_use => Some(format!("{}: {}", part.name, text.as_deref().unwrap_or("a new one"))),
        Some(PartFate::Keep) => None,
        None => Some(format!("{}: {}", part.name, text?)),
    }
}

/// "adhesive frame, 2 mm wide, 40 cm of it (rear cover)"; the length where the face has an outline.
fn bond_order(manual: &Manual, seam: &Seam) -> Option<String> {
    let rebond = seam.rebond.as_ref()?;
    let mut words = vec![rebond.with.clone()?];
    words.extend(rebond.width.map(|w| format!("{} mm wide", number(in_millimetres(w)))));
    let round = seam.outline(manual).map(|l| (l.outline.rim_mm() / 10.0).ceil());
    words.extend(round.map(|cm| format!("{} cm of it", number(cm))));
    let part = seam.part.map_or(String::new(), |p| format!(" ({})", manual.part_name(p)));
    Some(words.join(", ") + &part)
}

/// "No. WS-12, 3.7 V, 2600 mAh, 2-pin, 60 × 40 mm, with seal, as an assembly, 24.9 EUR".
fn order_text(new: &Replacement) -> String {
    let mut words: Vec<String> = new.number.iter().map(|n| format!("No. {n}")).collect();
    words.extend(label_words(&new.label));
    words.extend(new.comes_with.iter().map(|w| format!("with {w}")));
    words.extend(new.assembly.then(|| "as an assembly".to_owned()));
    words.extend(
        new.price.map(|p| format!("{} {}", number(p), new.currency.as_deref().unwrap_or("")).trim().to_owned()),
    );
    words.join(", ")
}

fn label_words(label: &RatingLabel) -> Vec<String> {
    let mut words: Vec<String> = Vec::new();
    words.extend(label.voltage.map(|v| format!("{} V", number(in_volts(v)))));
    words.extend(label.charge_voltage.map(|v| format!("charged to {} V", number(in_volts(v)))));
    words.extend(label.capacity.map(|c| format!("{} mAh", number(in_milliampere_hours(c)))));
    words.extend(label.energy.map(|e| format!("{} Wh", number(in_watt_hours(e)))));
    words.extend(label.connector.clone());
    words.extend(label.size.clone());
    words
}
