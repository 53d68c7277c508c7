//! The steps of a guide: taking apart, and putting together.

use super::{Block, LineKind, StepBlock, StepLine, teardown_steps};
use crate::fasteners::joints::Orders;
use crate::labels::Label;
use crate::manual::{Called, Manual, Step};
use crate::rebuild::Fold;

/// The teardown; where another guide stands for some steps, readers are sent there.
pub(super) fn teardown(manual: &Manual) -> Vec<Block> {
    let called = manual.cut.as_ref().map_or(&[][..], |c| &c.called);
    let orders = Orders::of(manual);
    let mut out = Vec::new();
    for (i, step) in teardown_steps(manual).into_iter().enumerate() {
        let number = i + 1;
        match called.iter().find(|c| (c.from..=c.to).contains(&number)) {
            Some(guide) if guide.from == number => out.push(Block::Step(sent_to(guide))),
            Some(_) => {}
            None => {
                out.extend(step.stage.clone().map(Block::Stage));
                out.push(Block::Step(block(manual, step, number, &orders)));
            }
        }
    }
    out
}

fn line(kind: LineKind, text: impl Into<String>) -> StepLine {
    StepLine { kind, text: text.into(), drive: None }
}

fn block(manual: &Manual, step: &Step, number: usize, orders: &Orders) -> StepBlock {
    let variants = manual.variant_names(&step.variants).join(", ");
    let mut lines = Vec::new();
    lines.extend((!variants.is_empty()).then(|| line(LineKind::Variants, variants)));
    lines.extend(step.posture.map(|p| line(LineKind::Posture, p.label())));
    lines.extend(manual.cautions_of(step.id).map(|c| line(LineKind::Caution, &c.text)));
    // Hot before it is pried, and told so in that order.
    lines.extend(manual.heats_of(step.id).map(|h| line(LineKind::Heat, h.words(manual))));
    lines.extend(orders.loosen(step.id).into_iter().map(|o| line(LineKind::Order, o)));
    lines.extend(step.actions.iter().map(|a| line(LineKind::Act, manual.sentence(a))));
    lines.extend(
        manual
            .groups_of(step.id)
            .map(|g| StepLine { drive: g.drive, ..line(LineKind::Screws, manual.words_of(g).line()) }),
    );
    lines.extend(manual.connectors_of(step.id).map(|c| line(LineKind::Connector, c.words(manual))));
    lines.extend(step.branches.iter().map(|b| line(LineKind::Branch, b.words(manual))));
    lines.extend(step.note.iter().map(|n| line(LineKind::Note, n)));
    StepBlock { number: number.to_string(), title: step.title.clone(), step: Some(step.id), guide: None, lines }
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
    }
}

/// The rebuild, with why a line is not the plain inverse and why a step does not stand where mere reversing puts it.
pub(super) fn rebuild(manual: &Manual, fold: &Fold) -> Vec<Block> {
    let orders = Orders::of(manual);
    let step = |(i, step): (usize, &crate::rebuild::RebuildStep)| {
        let cautions = step.cautions.iter().filter_map(|id| manual.cautions.get(id));
        let first = cautions.map(|c| line(LineKind::Caution, &c.text));
        let order = orders.tighten(&step.groups).into_iter().map(|o| line(LineKind::Order, o));
        let acts = step.lines.iter().flat_map(|l| {
            let why = l.because.as_ref().map(|because| line(LineKind::Why, because));
            [Some(line(LineKind::Act, &l.text)), why].into_iter().flatten()
        });
        let displaced = step.displaced.iter().map(|why| line(LineKind::Why, why));
        Block::Step(StepBlock {
            number: (i + 1).to_string(),
            title: step.title.clone(),
            step: Some(step.of),
            guide: None,
            lines: first.chain(order).chain(acts).chain(displaced).collect(),
        })
    };
    fold.rebuild.iter().enumerate().map(step).collect()
}
