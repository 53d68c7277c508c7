//! Eighth pass: facts that several statements tell together.
//!
//! A narrator announces nine screws and then gives their lengths, says "heat it" and then for how long, takes a cover off
//! and then remarks that it is off. One fact is kept of each.

use super::Statement;
use super::StatementKind;
use super::extract::aloud;
use super::facts::{FastenerFact, FastenerOp, HeatFact, HeatSource, PartFact, PartOp};
use super::sentences;
use compact_str::CompactString;

pub(super) fn settle(statements: &mut [Statement]) {
    repeats_say_nothing(statements);
    stays_in(statements);
    loosened_is_out(statements);
    corrections(statements);
    counting_gives_way(statements);
    sizes_join(statements);
    totals_give_way(statements);
    held_by_what_moves(statements);
    heat_joins(statements);
    told_twice(statements);
}

/// The same sentence again tells nothing new.
fn repeats_say_nothing(statements: &mut [Statement]) {
    for i in 1..statements.len() {
        if statements[i].text.eq_ignore_ascii_case(&statements[i - 1].text) {
            let kept = std::mem::take(&mut statements[i].facts);
            statements[i].facts.acts = kept.acts;
        }
    }
}

/// "Loosen the screw by two turns. It stays in the clamp."
fn stays_in(statements: &mut [Statement]) {
    const STAYS: [&str; 6] =
        ["stays in", "stay in", "do not fall out", "don't fall out", "doesn't come out", "don't come out"];
    for i in 1..statements.len() {
        let (before, after) = statements.split_at_mut(i);
        let text = after[0].text.to_lowercase();
        let cue = after[0].cue;
        if STAYS.iter().any(|s| text.contains(s)) {
            let last = before
                .iter_mut()
                .rev()
                .take(2)
                .filter(|s| s.cue == cue)
                .flat_map(|s| s.facts.fasteners.iter_mut())
                .next();
            if let Some(group) = last.filter(|g| g.op.direction() == super::Direction::Out) {
                group.captive = true;
                group.op = FastenerOp::Loosen;
            }
        }
    }
}

/// "Loosen the two screws behind the flap": who does not say that they stay, or how far, takes them out.
fn loosened_is_out(statements: &mut [Statement]) {
    const STAYING: [&str; 12] = [
        " turn",
        "halfway",
        "slightly",
        "a bit",
        "a little",
        "partly",
        "stay",
        "all the way",
        "captive",
        "remains",
        "click",
        "not out",
    ];
    for s in statements.iter_mut() {
        let text = s.text.to_lowercase();
        if STAYING.iter().any(|w| text.contains(w)) {
            continue;
        }
        let loosened = |f: &&mut FastenerFact| f.op == FastenerOp::Loosen && !f.captive;
        s.facts.fasteners.iter_mut().filter(loosened).for_each(|f| f.op = FastenerOp::Remove);
    }
}

/// "Two screws in each … so that's eight in total": the last figure said of them wins.
fn corrections(statements: &mut [Statement]) {
    for i in 1..statements.len() {
        let (before, after) = statements.split_at_mut(i);
        let text = after[0].text.to_lowercase();
        let sums_up = text.contains("that's")
            || text.contains("in total")
            || text.contains("in all")
            || text.contains("makes")
            || text.starts_with("so ")
            || text.starts_with("okay ");
        if text.contains("screw") || !sums_up {
            continue;
        }
        let words: Vec<&str> = text.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).collect();
        // "Motherboard's out with four screws. There's a fifth one under that sticker. So five."
        if let ["so" | "makes" | "okay", figure] = words[..]
            && let Some(count) = super::lexicon::LEXICON.numbers.get(figure)
            && let Some(group) = before
                .iter_mut()
                .rev()
                .take(4)
                .filter(|s| s.cue == after[0].cue)
                .flat_map(|s| s.facts.fasteners.iter_mut())
                .next()
            && group.count.is_some_and(|c| c != *count as u32)
        {
            group.count = Some(*count as u32);
            continue;
        }
        let [total] = &after[0].facts.fasteners[..] else { continue };
        let (total, cue) = (total.clone(), after[0].cue);
        let earlier =
            before.iter_mut().rev().take(2).filter(|s| s.cue == cue).flat_map(|s| s.facts.fasteners.iter_mut()).next();
        // "Six screws. … that's three, and those are 12 millimetres": three of the six.
        let others = |g: &FastenerFact| match (g.length, total.length) {
            (None, Some(_)) => total.count < g.count,
            (known, said) => known.is_some() && said.is_some() && known != said,
        };
        if let (Some(group), Some(count)) = (earlier.filter(|g| !others(g)), total.count) {
            group.count = Some(count);
            group.drive = group.drive.or(total.drive);
            group.bit = group.bit.take().or(total.bit);
            group.length = group.length.or(total.length);
            after[0].facts.fasteners.clear();
        }
    }
}

/// "One here, one here and one here, so three T6 screws": what is counted aloud only leads up to what is then said, and
/// "ten, eleven, twelve. Twelve screws, I take them all out" tells them once.
fn counting_gives_way(statements: &mut [Statement]) {
    for i in 1..statements.len() {
        let (before, after) = statements.split_at_mut(i);
        // "okay" in between says nothing.
        let talk = |s: &Statement| s.kind == StatementKind::Chatter && s.text.len() < 12;
        let Some(at) = before.iter().rposition(|s| !talk(s)) else { continue };
        let ([counted], [said]) = (&before[at].facts.fasteners[..], &after[0].facts.fasteners[..]) else { continue };
        let bare = counted.drive.is_none() && counted.length.is_none();
        let words: Vec<CompactString> = sentences::words(&before[at].text).collect();
        // Two lids may have four screws each: only what was counted aloud is said again.
        let again = aloud(&words.iter().map(CompactString::as_str).collect::<Vec<_>>()).is_some();
        let told = said.drive.is_some() || said.length.is_some() || again;
        if bare && told && counted.op == said.op && counted.count == said.count && counted.count.is_some() {
            before[at].facts.fasteners.clear();
        }
    }
}

/// "All of those are 12 millimetres", "they're Phillips": a size without a count is that of the group before.
fn sizes_join(statements: &mut [Statement]) {
    for i in 1..statements.len() {
        let (before, after) = statements.split_at_mut(i);
        let [size] = &after[0].facts.fasteners[..] else { continue };
        if size.count.is_some() || (size.length.is_none() && size.drive.is_none()) {
            continue;
        }
        let size = size.clone();
        let cue = after[0].cue;
        let groups: Vec<&mut FastenerFact> = before
            .iter_mut()
            .rev()
            .take(3)
            .filter(|s| s.cue == cue)
            .flat_map(|s| s.facts.fasteners.iter_mut())
            .filter(|f| f.op.direction() == size.op.direction() && (f.length.is_none() || size.length.is_none()))
            .collect();
        if groups.is_empty() {
            continue;
        }
        for group in groups {
            group.length = group.length.or(size.length);
            group.drive = group.drive.or(size.drive);
            group.bit = group.bit.take().or_else(|| size.bit.clone());
        }
        after[0].facts.fasteners.clear();
    }
}

/// "Nine screws. Eight are 16 mm long, the ninth is 30 mm": the groups are the fact, the total only announces them.
fn totals_give_way(statements: &mut [Statement]) {
    for i in 0..statements.len() {
        // "Six screws, five of them PZ1": the five are among the six.
        let (total, some) = match &statements[i].facts.fasteners[..] {
            [total] => (total, None),
            [total, some] if some.count < total.count && some.length.is_none() && some.drive.is_some() => {
                (total, some.count)
            }
            _ => continue,
        };
        let (Some(count), None) = (total.count, total.length) else { continue };
        let (op, cue) = (total.op, statements[i].cue);
        let total = total.clone();
        let groups: Vec<usize> = (i + 1..statements.len())
            .take_while(|n| statements[*n].cue == cue)
            .filter(|n| {
                statements[*n].facts.fasteners.iter().any(|f| f.length.is_some() && f.op.direction() == op.direction())
            })
            .collect();
        let of = |n: &usize| statements[*n].facts.fasteners.iter().filter(|f| f.length.is_some());
        let sum: u32 = groups.iter().flat_map(of).filter_map(|f| f.count).sum();
        if groups.is_empty() || sum > count + 2 || sum == 0 || some.is_some() && sum != count {
            continue;
        }
        for n in groups {
            for f in &mut statements[n].facts.fasteners {
                if f.drive.is_none() || f.drive == total.drive {
                    f.drive = total.drive.or(f.drive);
                    f.bit = f.bit.take().or_else(|| total.bit.clone());
                }
                if total.what.is_some() {
                    f.what.clone_from(&total.what);
                }
                if total.op == FastenerOp::Remove && f.op.direction() == total.op.direction() {
                    f.op = total.op;
                }
            }
        }
        statements[i].announced_count = Some(count);
        statements[i].facts.fasteners.clear();
    }
}

/// "Remove four screws. Lift out the board.": what nobody named is what leaves next, or what went in last.
fn held_by_what_moves(statements: &mut [Statement]) {
    const NEAR: usize = 5;
    for i in 0..statements.len() {
        if !statements[i].facts.fasteners.iter().any(|f| f.guessed) {
            continue;
        }
        let cue = statements[i].cue;
        let moved = |s: &Statement, op: PartOp| s.facts.parts.iter().find(|p| p.op == op).map(|p| p.what.clone());
        let leaves =
            || statements[i..].iter().take(NEAR).take_while(|s| s.cue == cue).find_map(|s| moved(s, PartOp::Remove));
        let went_in = || {
            let before = statements[..=i].iter().rev().take(NEAR).take_while(|s| s.cue == cue);
            before.filter_map(|s| moved(s, PartOp::Install)).next()
        };
        let what = if statements[i].rebuild { went_in() } else { leaves() };
        let Some(what) = what else { continue };
        for group in statements[i].facts.fasteners.iter_mut().filter(|f| f.guessed) {
            group.what = Some(what.clone());
        }
    }
}

/// "Heat the cover. Put the pad on 80 degrees and wait two minutes": one heat with all it was told.
fn heat_joins(statements: &mut [Statement]) {
    let mut open: Option<(usize, HeatFact)> = None;
    for i in 0..statements.len() {
        let cue = statements[i].cue;
        for heat in std::mem::take(&mut statements[i].facts.heat) {
            match &mut open {
                Some((at, known)) if statements[*at].cue == cue && fits(known, &heat) => {
                    known.source = known.source.or(heat.source);
                    known.target = known.target.take().or(heat.target);
                    known.temperature = known.temperature.or(heat.temperature);
                    known.dwell = known.dwell.or(heat.dwell);
                }
                _ => {
                    close(statements, open.take());
                    open = Some((i, heat));
                }
            }
        }
    }
    close(statements, open);
}

/// "We use a heating plate, but a hair dryer will do. Warm it to 80 degrees": what was just taken up heats.
pub(super) fn heated_with_what_is_at_hand(statements: &mut [Statement]) {
    const NEAR: usize = 3;
    for i in 1..statements.len() {
        let (before, after) = statements.split_at_mut(i);
        let cue = after[0].cue;
        for heat in after[0].facts.heat.iter_mut().filter(|h| h.source.is_none()) {
            heat.source = before.iter().rev().take(NEAR).take_while(|s| s.cue == cue).find_map(taken_up);
        }
    }
}

/// The source of heat that a sentence takes up, of several the one named first.
fn taken_up(s: &Statement) -> Option<HeatSource> {
    let text = s.text.to_lowercase();
    let uses = text.split(' ').any(|w| matches!(w, "use" | "using" | "have" | "take" | "got" | "with"));
    let said = |name: &String| name.split(' ').rev().find_map(|word| text.find(word)).unwrap_or(usize::MAX);
    let first = s.facts.tools.iter().filter(|t| HeatSource::from_tool(t).is_some()).min_by_key(|t| said(t))?;
    HeatSource::from_tool(first).filter(|source| uses && *source != HeatSource::SolderingIron)
}

fn close(statements: &mut [Statement], open: Option<(usize, HeatFact)>) {
    let Some((at, heat)) = open else { return };
    if heat.source.is_some() || heat.temperature.is_some() || heat.dwell.is_some() {
        statements[at].facts.heat.push(heat);
    }
}

/// Whether two tellings can be one heat: they add to each other and nothing differs.
fn fits(known: &HeatFact, more: &HeatFact) -> bool {
    (known.source.is_none() || more.source.is_none() || known.source == more.source)
        && !(known.temperature.is_some() && more.temperature.is_some())
        && !(known.dwell.is_some() && more.dwell.is_some())
}

/// "Pry off the cover … and the cover comes off": the later of two tellings close by is when it is off.
fn told_twice(statements: &mut [Statement]) {
    const FAR: u32 = 1;
    for i in 1..statements.len() {
        let (before, after) = statements.split_at_mut(i);
        let here = &mut after[0];
        let near = |s: &&mut Statement| here.cue - s.last_cue.min(here.cue) <= FAR;
        // What was undone and made again in between happened twice.
        let mut parts = here.facts.parts.clone();
        // "Take the bowl off, it just lifts off": what only "it" tells again was told before.
        let text = here.text.to_lowercase();
        let again: Vec<PartFact> = here
            .facts
            .parts
            .iter()
            .filter(|q| !text.contains(q.what.rsplit(' ').next().unwrap_or("")))
            .filter(|q| {
                let just_before = before.last().filter(|b| here.cue - b.last_cue.min(here.cue) <= FAR);
                just_before.is_some_and(|b| b.facts.parts.contains(q))
            })
            .cloned()
            .collect();
        here.facts.parts.retain(|q| !again.contains(q));
        parts.retain(|q| !again.contains(q));
        let mut plugs = here.facts.connectors.clone();
        // A segment of an hour is a fault of the file; what was said forty sentences ago is another matter anyway.
        for earlier in before.iter_mut().rev().take(40).take_while(near) {
            parts.retain(|q| !earlier.facts.parts.iter().any(|p| p.op != q.op && same_part(p, q)));
            plugs.retain(|d| !earlier.facts.connectors.iter().any(|c| c.op != d.op && c.what == d.what));
            earlier.facts.parts.retain(|p| !parts.iter().any(|q| p.op == q.op && same_part(p, q)));
            earlier.facts.connectors.retain(|c| !plugs.iter().any(|d| c == d && c.what.is_some()));
            // "Unplug the battery. … Wiggle it out": the second says no more.
            if earlier.cue == here.cue {
                here.facts
                    .connectors
                    .retain(|c| c.what.is_some() || !earlier.facts.connectors.iter().any(|d| c.op == d.op));
            }
        }
    }
}

fn same_part(a: &PartFact, b: &PartFact) -> bool {
    const GENERIC: [&str; 8] = ["bracket", "shield", "cap", "plate", "tape", "foil", "screw cover", "pad"];
    if a.what == b.what {
        return !GENERIC.contains(&a.what.as_str());
    }
    let (a, b): (Vec<&str>, Vec<&str>) = (a.what.split(' ').collect(), b.what.split(' ').collect());
    let same_head = a.last() == b.last();
    let (short, long) = if a.len() < b.len() { (&a, &b) } else { (&b, &a) };
    same_head && short.iter().all(|w| long.contains(w)) && !GENERIC.contains(short.last().unwrap_or(&""))
}

#[cfg(test)]
mod tests {
    use super::super::{FastenerOp, Statement, read};
    use super::*;
    use crate::recording::Recording;
    use crate::units::in_millimetres;
    use rstest::rstest;

    fn told(text: &str) -> Vec<Statement> {
        read(&Recording::parse(format!("[0:00] {text}").as_bytes()).unwrap()).statements
    }

    #[rstest]
    #[case::taken_up(
        "We use a heating plate, but a hair dryer will do. We warm the rear panel to 80 degrees.",
        Some(HeatSource::HeatingPad)
    )]
    #[case::in_hand(
        "I have a heat gun here. We start with heating the rear panel for three minutes.",
        Some(HeatSource::HeatGun)
    )]
    #[case::not_used("The heat gun is broken. Warm the rear panel to 80 degrees.", None)]
    #[case::said_itself(
        "I have a heat gun here. Warm the rear panel with the hair dryer.",
        Some(HeatSource::HairDryer)
    )]
    fn what_was_taken_up_heats(#[case] text: &str, #[case] source: Option<HeatSource>) {
        let statements = told(text);
        let heat = statements.iter().flat_map(|s| &s.facts.heat).next_back().expect("a heat");
        assert_eq!(heat.source, source);
    }

    #[rstest]
    #[case::out("Loosen the two T5 screws of the lid.", FastenerOp::Remove)]
    #[case::of_a_half_shell("Loosen the two T5 screws of the half shell.", FastenerOp::Remove)]
    #[case::how_far("Loosen the two T5 screws of the lid by half a turn.", FastenerOp::Loosen)]
    #[case::captive("Loosen the two captive T5 screws of the lid.", FastenerOp::Loosen)]
    #[case::stays("Loosen the T5 screw of the lid. It stays in the lid.", FastenerOp::Loosen)]
    fn loosened_screws_are_out_unless_they_stay(#[case] text: &str, #[case] op: FastenerOp) {
        assert_eq!(told(text)[0].facts.fasteners[0].op, op);
    }

    #[rstest]
    #[case::aloud_and_again(
        "One here, two, three, four, five screws in the lid. Okay. Five screws, I take them all out.",
        &[(5, None)]
    )]
    #[case::some_of_them(
        "There's six screws in the lid, five of them T6. One here, one here and one here, that's three, and those are 12 millimetres. Then two at the corners, they're 25. And the last one is short, 8 millimetres.",
        &[(3, Some(12.0)), (2, Some(25.0)), (1, Some(8.0))]
    )]
    #[case::of_two_kinds(
        "Remove the four silver PH000 screws, 3.0 millimetres, and the two black ones, 2.2 millimetres, from the frame.",
        &[(4, Some(3.0)), (2, Some(2.2))]
    )]
    #[case::two_of_one_count(
        "Remove four screws from the base. Remove four screws from the lid.",
        &[(4, None), (4, None)]
    )]
    #[case::under_each("There are six screws in the lid, take them out. Under each one of them you see a rubber ring.", &[(6, None)])]
    fn screws_are_told_once(#[case] text: &str, #[case] wanted: &[(u32, Option<f64>)]) {
        let statements = told(&format!("{text} Take off the lid."));
        let groups = statements.iter().flat_map(|s| &s.facts.fasteners);
        let said: Vec<_> = groups.map(|f| (f.count.unwrap_or(0), f.length.map(in_millimetres))).collect();
        assert_eq!(said, wanted);
    }
}
