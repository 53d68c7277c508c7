//! What stands around the steps of a guide: what must hold before, what is lost or harmless, what must pass, what to
//! order. How the device arrived is the author's business and is not published.

use crate::ids::VariantId;
use crate::manual::{Manual, NoteKind, Part, PartFate, Phase, RatingLabel, Replacement};
use crate::units::{in_milliampere_hours, in_volts, in_watt_hours, number};

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

/// What is to be ordered for the parts that steps of this manual move. A guide for one job orders what becomes new there:
/// what its author renews, and what does not survive coming off.
pub(super) fn orders(manual: &Manual) -> Vec<String> {
    let moved = |id| manual.steps.values().any(|s| s.actions.iter().any(|a| a.parts.contains(&id)));
    let becomes_new = |p: &Part| match manual.cut.as_ref().and_then(|c| c.fates.get(&p.id)) {
        None | Some(PartFate::Renew) => true,
        Some(PartFate::Scrap) => false,
        Some(PartFate::Keep) => p.single_use,
    };
    let line = |p: &Part| {
        let text = order_text(p.replacement.as_ref()?);
        (moved(p.id) && becomes_new(p) && !text.is_empty()).then(|| format!("{}: {text}", p.name))
    };
    manual.parts.values().filter_map(line).collect()
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
