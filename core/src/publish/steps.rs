//! The steps of a guide: taking apart, and putting together.

use super::{Block, LineKind, OpeningSheet, StepBlock, StepLine, teardown_steps};
use crate::cables::kinds::{handling, is_delicate, opens};
use crate::cables::trials::{Trial, trials};
use crate::cautions::signs::Sign;
use crate::cautions::{CautionHead, SaidLately};
use crate::fasteners::joints::Orders;
use crate::labels::Label;
use crate::manual::{Called, Caution, ConnectorKind, Heat, Level, Manual, Posture, Seam, Step, capitalised};
use crate::reading::{CautionSubject, forbids};
use crate::rebuild::{Fold, RebuildStep, reverse_of};
use crate::seams::opening::plan;

/// The teardown; where another guide stands for some steps, readers are sent there.
pub(super) fn teardown(manual: &Manual) -> Vec<Block> {
    let called = manual.cut.as_ref().map_or(&[][..], |c| &c.called);
    let orders = Orders::of(manual);
    let mut out = Vec::new();
    let mut warned = Warned { trials: trials(manual), ..Warned::default() };
    for (i, step) in teardown_steps(manual).into_iter().enumerate() {
        let number = i + 1;
        match called.iter().find(|c| (c.from..=c.to).contains(&number)) {
            Some(guide) if guide.from == number => out.push(Block::Step(sent_to(guide))),
            Some(_) => {}
            None => {
                out.extend(step.stage.clone().map(Block::Stage));
                out.push(Block::Step(block(manual, step, number, &orders, &mut warned)));
            }
        }
    }
    out
}

fn line(kind: LineKind, text: impl Into<String>) -> StepLine {
    StepLine { kind, text: text.into(), drive: None, head: None }
}

fn block(manual: &Manual, step: &Step, number: usize, orders: &Orders, warned: &mut Warned) -> StepBlock {
    let mut lines = read_first(manual, step, step.posture);
    let sentences: Vec<String> = step.actions.iter().map(|a| manual.sentence(a)).collect();
    lines.extend(warnings(manual, manual.cautions_of(step.id), &sentences, &mut warned.lately));
    lines.extend(opened_wrongly(manual, step, &mut warned.kinds));
    lines.extend(warned.trials.iter().filter(|t| t.step == step.id).map(live_now));
    lines.extend(set_first(manual, step));
    lines.extend(orders.loosen(step.id).into_iter().map(|o| line(LineKind::Order, o)));
    lines.extend(sentences.into_iter().map(|s| line(LineKind::Act, s)));
    lines.extend(
        manual
            .groups_of(step.id)
            .map(|g| StepLine { drive: g.drive, ..line(LineKind::Screws, manual.words_of(g).line()) }),
    );
    lines.extend(manual.connectors_of(step.id).map(|c| {
        let how = opens(c).map_or(String::new(), |how| format!(". {}", capitalised(how)));
        line(LineKind::Connector, format!("{}{how}", c.words(manual)))
    }));
    lines.extend(read_last(manual, step));
    let opens = manual.seams.values().filter(|s| s.step == step.id).filter_map(|s| opening(manual, s)).collect();
    StepBlock { number: number.to_string(), title: step.title.clone(), step: Some(step.id), guide: None, lines, opens }
}

/// Only what stands on an outline: before that, the step's own sentences tell as much.
fn opening(manual: &Manual, seam: &Seam) -> Option<OpeningSheet> {
    seam.outline(manual)?;
    seam.marks.iter().find(|m| m.at.is_some())?;
    let part = seam.part.map_or("joint", |p| manual.part_name(p));
    Some(OpeningSheet { seam: seam.id, title: format!("How the {part} opens"), lines: plan(manual, seam).lines })
}

/// What the steps before have warned of.
#[derive(Default)]
struct Warned {
    kinds: Vec<ConnectorKind>,
    lately: SaidLately,
    /// Where the open device is live on purpose.
    trials: Vec<Trial>,
}

/// What is live in a trial, before it is made; the rebuild says so in its own lines.
fn live_now(trial: &Trial) -> StepLine {
    let head = CautionHead::named(Level::Warning, "live parts").under(Sign::Electricity);
    let text = format!("{} Touch nothing inside while it is live, and cut the power again.", trial.words());
    StepLine { head: Some(head), ..line(LineKind::Caution, text.trim_start()) }
}

/// Cautions, the loudest first; what a step is warned of twice is one warning with both sentences.
///
/// "Cover the lens with film." is an order of the step as well: a notice says why, and the order what to do. Where people
/// are hurt it stands in both places.
fn warnings<'m>(
    manual: &Manual,
    cautions: impl Iterator<Item = &'m Caution>,
    sentences: &[String],
    lately: &mut SaidLately,
) -> Vec<StepLine> {
    let mut out: Vec<StepLine> = Vec::new();
    for (c, head) in lately.next(manual, cautions) {
        let same = |l: &&mut StepLine| {
            l.head.as_ref().is_some_and(|h| h.hazard.is_some() && (h.level, &h.hazard) == (head.level, &head.hazard))
        };
        match out.iter_mut().find(same) {
            Some(first) => {
                first.text = both(&first.text, &c.text);
                // What to do is never left out because another sentence told something else to do; of the device, what
                // somebody forbids in so many words is enough.
                if let Some(told) = &mut first.head {
                    let enough = head.level == Level::Notice && forbids(&first.text);
                    told.avoidance = told.avoidance.take().or(head.avoidance).filter(|_| !enough);
                }
            }
            None => {
                let ordered = head.level == Level::Notice && head.consequence.is_some() && sentences.contains(&c.text);
                let text = if ordered { "" } else { &c.text };
                out.push(StepLine { head: Some(head), ..line(LineKind::Caution, text) });
            }
        }
    }
    out
}

/// Two warnings one behind the other, the same words once.
fn both(first: &str, second: &str) -> String {
    if first.is_empty() {
        return second.to_owned();
    }
    if first.to_lowercase().contains(&second.trim_end_matches('.').to_lowercase()) {
        return first.to_owned();
    }
    let stop = if first.ends_with(['.', '!', '?']) { "" } else { "." };
    format!("{first}{stop} {second}")
}

/// What opening a connector wrongly breaks, once for a kind and where nobody warned of it.
fn opened_wrongly(manual: &Manual, step: &Step, warned: &mut Vec<ConnectorKind>) -> Vec<StepLine> {
    let told = |c: &Caution| matches!(c.about, CautionSubject::Connector | CautionSubject::Cable);
    let said = manual.cautions_of(step.id).any(told);
    let mut out = Vec::new();
    for kind in manual.connectors_of(step.id).filter_map(|c| c.kind).filter(|k| is_delicate(*k)) {
        if !warned.contains(&kind) {
            warned.push(kind);
            let head = CautionHead::named(Level::Notice, "connector");
            out.extend((!said).then(|| StepLine { head: Some(head), ..line(LineKind::Caution, handling(kind).wrong) }));
        }
    }
    out
}

/// For whom a step is, and how the device lies.
fn read_first(manual: &Manual, step: &Step, posture: Option<Posture>) -> Vec<StepLine> {
    let variants = manual.variant_names(&step.variants).join(", ");
    let variants = (!variants.is_empty()).then(|| line(LineKind::Variants, variants));
    variants.into_iter().chain(lies(posture)).collect()
}

fn lies(posture: Option<Posture>) -> Option<StepLine> {
    posture.map(|p| line(LineKind::Posture, p.label()))
}

/// Hot before it is pried, and told so in that order.
fn set_first(manual: &Manual, step: &Step) -> Vec<StepLine> {
    // "Heat the rim." alone says as much as a row without a figure.
    let says = |h: &&Heat| h.temperature.is_some() || h.dwell.is_some() || h.source.is_some();
    manual.heats_of(step.id).filter(says).map(|h| line(LineKind::Heat, h.words(manual))).collect()
}

fn read_last(manual: &Manual, step: &Step) -> Vec<StepLine> {
    let branches = step.branches.iter().map(|b| line(LineKind::Branch, b.words(manual)));
    branches.chain(step.note.iter().map(|n| line(LineKind::Note, n))).collect()
}

/// "1–4. Follow the guide …" in place of its steps.
fn sent_to(guide: &Called) -> StepBlock {
    let number = if guide.from == guide.to { guide.from.to_string() } else { format!("{}–{}", guide.from, guide.to) };
    let expects = guide.expects.iter().map(|e| line(LineKind::Act, format!("It expects: {e}")));
    let leaves = line(LineKind::Act, format!("It leaves out of the device: {}", guide.leaves.join(", ")));
    StepBlock {
        number,
        title: format!("Follow the guide “{}”", guide.title),
        step: None,
        guide: Some(guide.job),
        lines: expects.chain([leaves]).collect(),
        opens: Vec::new(),
    }
}

/// The rebuild, with why a line is not the plain inverse and why a step does not stand where mere reversing puts it.
pub(super) fn rebuild(manual: &Manual, fold: &Fold) -> Vec<Block> {
    let orders = Orders::of(manual);
    let told = fold.rebuild.iter().any(|s| s.told.is_some());
    let untold = "Nobody told how it goes together: these are the steps above, turned round.";
    let first = (!told && !fold.rebuild.is_empty()).then(|| Block::Text(untold.to_owned()));
    let mut lately = SaidLately::default();
    let steps = fold.rebuild.iter().enumerate().map(|(i, s)| {
        let mut block = back(manual, s, i + 1, &orders, &mut lately);
        let number = s.of_number.filter(|_| told && s.told.is_none());
        block.lines.extend(number.map(|n| line(LineKind::Why, reverse_of(n))));
        Block::Step(block)
    });
    first.into_iter().chain(steps).collect()
}

fn back(manual: &Manual, step: &RebuildStep, number: usize, orders: &Orders, lately: &mut SaidLately) -> StepBlock {
    let told = step.told.and_then(|id| manual.steps.get(&id));
    let mut lines: Vec<StepLine> = match told {
        Some(told) => read_first(manual, told, step.posture),
        None => lies(step.posture).into_iter().collect(),
    };
    let cautions = step.cautions.iter().filter_map(|id| manual.cautions.get(id));
    let sentences: Vec<String> = step.lines.iter().map(|l| l.text.clone()).collect();
    lines.extend(warnings(manual, cautions, &sentences, lately));
    lines.extend(told.map(|s| set_first(manual, s)).unwrap_or_default());
    lines.extend(orders.tighten(&step.groups).into_iter().map(|o| line(LineKind::Order, o)));
    for (i, l) in step.lines.iter().enumerate() {
        lines.push(line(LineKind::Act, &l.text));
        // One reason for several lines is told behind the last of them.
        let again = step.lines.get(i + 1).is_some_and(|next| next.because == l.because);
        lines.extend(l.because.as_ref().filter(|_| !again).map(|why| line(LineKind::Why, why)));
    }
    lines.extend(told.map(|s| read_last(manual, s)).unwrap_or_default());
    // That the narrator goes another way than mere reversing is the author's business.
    let moved = step.moved.iter().filter(|m| told.is_none() && m.moves());
    lines.extend(moved.map(|m| line(LineKind::Why, m.words())));
    lines.extend(step.proofs.iter().map(|p| line(LineKind::Check, p.words())));
    StepBlock {
        number: number.to_string(),
        title: step.title.clone(),
        step: step.told.or(step.of),
        guide: None,
        lines,
        opens: Vec::new(),
    }
}

#[cfg(test)]
mod tests {
    use crate::ids::{CautionId, StepId};
    use crate::manual::{CautionEdit, Edit, Manual, Phase, drafted};
    use crate::publish::markdown;
    use crate::reading::CautionSubject;
    use rstest::rstest;
    use uuid::Uuid;

    /// A guide of one step with these warnings.
    fn warned(cautions: &[(CautionSubject, &str)]) -> String {
        let manual = drafted::manual("[0:00] Take off the cover.");
        let step: StepId = manual.steps_in(Phase::Teardown)[0].id;
        let add = |(manual, n): (Manual, u128), (about, text): &(CautionSubject, &str)| {
            let id = CautionId(Uuid::from_u128(n));
            let edit = CautionEdit::Add { id, step, about: *about, hazard: None, text: (*text).to_owned() };
            (manual.apply(&Edit::Caution(edit), "Ann").expect("it can be").0, n + 1)
        };
        let (manual, _) = cautions.iter().fold((manual, 1), add);
        let text = markdown(&manual);
        // What hurts on the way back as well is told again there.
        let (apart, _) = text.split_once("## Putting together").expect("both halves");
        let lines = apart.lines().filter(|l| l.starts_with("> **Notice") && !l.contains("reviewed by nobody"));
        lines.collect::<Vec<_>>().join("\n")
    }

    #[rstest]
    #[case::one_hazard_twice(
        &[(CautionSubject::Cable, "The ribbon may tear. Lift slowly."), (CautionSubject::Cable, "Do not pull on the wires.")],
        "> **Notice, cable:** The ribbon may tear. Lift slowly. Do not pull on the wires."
    )]
    #[case::the_same_words(
        &[(CautionSubject::Cable, "It may tear. Do not pull on the wires."), (CautionSubject::Cable, "Do not pull on the wires.")],
        "> **Notice, cable:** It may tear. Do not pull on the wires."
    )]
    #[case::what_to_do_is_kept(
        &[(CautionSubject::Cable, "It may tear. Lift slowly."), (CautionSubject::Cable, "The ribbon may tear, it is short.")],
        "> **Notice, cable:** It may tear. Lift slowly. The ribbon may tear, it is short. Keep cables clear, and do not pull them."
    )]
    #[case::what_is_forbidden_is_enough(
        &[(CautionSubject::Cable, "The ribbon may tear, it is short."), (CautionSubject::Cable, "Do not pull on the wires.")],
        "> **Notice, cable:** The ribbon may tear, it is short. Do not pull on the wires."
    )]
    #[case::ordered_by_the_step(
        &[(CautionSubject::Lens, "Take off the cover.")],
        "> **Notice, lens:** Dust and fingerprints show in every picture."
    )]
    #[case::two_hazards(
        &[(CautionSubject::Cable, "It may tear. Do not pull."), (CautionSubject::Connector, "It may bend. Lift straight up.")],
        "> **Notice, cable:** It may tear. Do not pull.\n> **Notice, connector:** It may bend. Lift straight up."
    )]
    fn a_step_warns_of_a_hazard_once(#[case] cautions: &[(CautionSubject, &str)], #[case] read: &str) {
        assert_eq!(warned(cautions), read);
    }
}
