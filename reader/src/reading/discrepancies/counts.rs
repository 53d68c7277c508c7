//! Screws that do not add up: a total and its groups, what came out and what goes back.

use super::super::Statement;
use super::super::facts::{FastenerFact, FastenerOp};
use super::super::sheet::DiscrepancyKind;
use super::super::{numbers, phrases};
use super::{Contradiction, Story, finding};
use crate::units;
use std::collections::{BTreeMap, BTreeSet};

/// A total that its groups don't make up, or screws that go back in another number.
pub(super) fn find(story: &Story<'_>) -> Vec<Contradiction> {
    let mut out = Vec::new();
    for (i, s) in story.statements.iter().enumerate() {
        let Some(total) = s.announced_count.or_else(|| single_total(s)) else { continue };
        let groups: Vec<(usize, &FastenerFact)> = story.statements[i..]
            .iter()
            .enumerate()
            .take_while(|(_, n)| n.cue == s.cue)
            .skip(1)
            .flat_map(|(n, s)| s.facts.fasteners.iter().map(move |f| (i + n, f)))
            .filter(|(_, f)| f.length.is_some())
            .collect();
        let sum: u32 = groups.iter().filter_map(|(_, f)| f.count).sum();
        if s.announced_count.is_some() && groups.len() > 1 && sum != total {
            out.push(differs(i, Some(groups[0].0), total, sum));
        } else if let Some(placed) = placed_sum(story, i).filter(|p| *p != total) {
            out.push(differs(i, Some(i + 1), total, placed));
        }
    }
    out.extend(refits(story));
    out.extend(miscounted_back(story));
    out
}

fn single_total(s: &Statement) -> Option<u32> {
    match s.facts.fasteners.as_slice() {
        [one] => one.count,
        _ => None,
    }
}

/// "Seven along the top, seven along the bottom, and two in the middle": places in the next sentence that make a sum.
fn placed_sum(story: &Story<'_>, i: usize) -> Option<u32> {
    let next = i + 1;
    let s = story.statements.get(next).filter(|n| n.cue == story.statements[i].cue && n.facts.fasteners.is_empty())?;
    let words = story.refs(next);
    if words.iter().any(|w| phrases::is_screw(w)) || !s.facts.parts.is_empty() {
        return None;
    }
    let placed: Vec<u32> = numbers::figures(&words)
        .into_iter()
        .filter(|f| {
            words.get(f.at + f.len).is_some_and(|w| matches!(*w, "along" | "at" | "on" | "in" | "by" | "under"))
        })
        .map(|f| f.value as u32)
        .collect();
    (placed.len() >= 2).then(|| placed.iter().sum())
}

/// "Tighten all three captive screws" where two were loosened.
fn miscounted_back(story: &Story<'_>) -> Vec<Contradiction> {
    let loosened: Vec<(usize, &FastenerFact)> = groups(story).filter(|(_, f)| f.op == FastenerOp::Loosen).collect();
    let back = groups(story).filter(|(i, f)| story.statements[*i].rebuild && f.op == FastenerOp::Tighten && f.captive);
    back.filter_map(|(i, f)| {
        let of_it: Vec<&(usize, &FastenerFact)> = loosened.iter().filter(|(_, l)| shares(&l.what, &f.what)).collect();
        let ([(at, one)], Some(count)) = (of_it.as_slice(), f.count) else { return None };
        let before = one.count.filter(|o| *o != count)?;
        Some(finding(
            DiscrepancyKind::Count,
            i,
            Some(*at),
            format!("{count} screws are tightened{}; {before} were loosened.", of(&f.what)),
        ))
    })
    .collect()
}

fn groups<'s>(story: &'s Story<'_>) -> impl Iterator<Item = (usize, &'s FastenerFact)> {
    story.facts(|s| &s.facts.fasteners)
}

fn of(what: &Option<String>) -> String {
    what.as_ref().map_or(String::new(), |w| format!(" at the {w}"))
}

fn differs(at: usize, against: Option<usize>, total: u32, sum: u32) -> Contradiction {
    finding(DiscrepancyKind::Count, at, against, format!("{total} screws are announced; the groups make {sum}."))
}

fn shares(a: &Option<String>, b: &Option<String>) -> bool {
    match (a, b) {
        (Some(a), Some(b)) => a.split(' ').any(|w| b.split(' ').any(|x| x == w)),
        _ => false,
    }
}

/// Screws of one thing that go back in another number or length than they came out.
fn refits(story: &Story<'_>) -> Vec<Contradiction> {
    let out: Vec<(usize, &FastenerFact)> = groups(story).filter(|(_, f)| f.op == FastenerOp::Remove).collect();
    let back: Vec<(usize, &FastenerFact)> = groups(story).filter(|(_, f)| f.op == FastenerOp::Install).collect();
    let things: BTreeSet<&String> = back.iter().filter_map(|(_, f)| f.what.as_ref()).collect();
    things.into_iter().filter_map(|what| refit(&out, &back, what)).collect()
}

fn refit(out: &[(usize, &FastenerFact)], back: &[(usize, &FastenerFact)], what: &String) -> Option<Contradiction> {
    let named = Some(what.clone());
    let gone: Vec<&(usize, &FastenerFact)> = out.iter().filter(|(_, f)| same_thing(&f.what, &named)).collect();
    let came: Vec<&(usize, &FastenerFact)> = back.iter().filter(|(_, f)| f.what == named).collect();
    let ((first_out, _), (first_back, _)) = (gone.first()?, came.first()?);
    let (before, after) = (lengths(&gone), lengths(&came));
    let resized = after.iter().find_map(|(count, l)| {
        let told = before.get(count)?;
        l.iter().find(|x| !told.contains(x)).map(|x| (*x, told[0]))
    });
    let both = |kind, says| Some(finding(kind, *first_back, Some(*first_out), says));
    if let Some((now, then)) = resized {
        let mm = |hundredths: i64| units::number(hundredths as f64 / 100.0);
        return both(
            DiscrepancyKind::Size,
            format!("The screws of the {what} go back {} mm long; they came out {} mm long.", mm(now), mm(then)),
        );
    }
    let sum = |rows: &[&(usize, &FastenerFact)]| rows.iter().map(|(_, f)| f.count).sum::<Option<u32>>();
    let (came_out, go_back) = (sum(&gone)?, sum(&came)?);
    let rest: BTreeSet<usize> = gone.iter().chain(&came).map(|(i, _)| *i).collect();
    let rest = rest.into_iter().filter(|i| i != first_out && i != first_back).collect();
    let says = format!("{go_back} screws go back into the {what}; {came_out} came out.");
    // What nobody said they hold may be misheard: no reason to accuse the speaker.
    let unsure = gone.iter().chain(&came).any(|(_, f)| f.guessed);
    let found = both(DiscrepancyKind::Count, says).filter(|_| came_out != go_back && !unsure)?;
    Some(Contradiction { rest, ..found })
}

/// Lengths in hundredths of a millimetre, by the count of their group.
fn lengths(rows: &[&(usize, &FastenerFact)]) -> BTreeMap<u32, Vec<i64>> {
    let mut map: BTreeMap<u32, Vec<i64>> = BTreeMap::new();
    for (_, f) in rows {
        if let (Some(count), Some(length)) = (f.count, f.length) {
            map.entry(count).or_default().push((units::in_millimetres(length) * 100.0).round() as i64);
        }
    }
    map
}

/// "rear housing" and "rear housing", "back shell" and "shell": one name holds the other.
fn same_thing(a: &Option<String>, b: &Option<String>) -> bool {
    let (Some(a), Some(b)) = (a, b) else { return false };
    let (x, y): (BTreeSet<&str>, BTreeSet<&str>) = (a.split(' ').collect(), b.split(' ').collect());
    a.split(' ').next_back() == b.split(' ').next_back() && (x.is_subset(&y) || y.is_subset(&x))
}
