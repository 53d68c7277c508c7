//! Which half of the work each act belongs to.
//!
//! Taking apart and putting together are told in stretches, with a turn or several. Each act speaks for one half more or
//! less loudly, turning back costs more than turning to the rebuild, and the cheapest course through all acts wins
//! (Viterbi's algorithm over two states).

use super::super::Act;
use super::Half;
use super::grammar::Kind;
use super::told::{Sentenced, Told};
use rustc_hash::FxHashSet;

/// What it costs to turn to the rebuild, and back again.
const TURN: f64 = 4.5;
const BACK: f64 = 5.0;

/// What it costs to begin in the rebuild: most recordings begin with the device whole.
const STARTED: f64 = 8.0;

/// Fewer acts at the end, unannounced, are no rebuild.
const SHORTEST: usize = 3;

/// The half of each act, sentence by sentence.
pub(super) fn halves(told: &[Sentenced]) -> Vec<Vec<Half>> {
    let mut out_of: FxHashSet<String> = FxHashSet::default();
    let mut costs: Vec<[f64; 2]> = Vec::new();
    let mut turns: Vec<bool> = Vec::new();
    let mut turns_back: Vec<bool> = Vec::new();
    let mut announced = false;
    let mut apart_again = false;
    let mut undone = 0;
    for s in told {
        // An introduction says "reassembly" as well: nothing turns before something came apart.
        announced |= s.turns && undone >= 3;
        apart_again |= s.turns_back;
        for a in &s.acts {
            let mut cost = cost(a, &out_of);
            // Things named alone, and things that are in, tell an act only in the rebuild: right behind its announcement they
            // are it.
            cost[0] += if (a.fragment || a.state) && announced { 0.5 } else { 0.0 };
            costs.push(cost);
            turns.push(std::mem::take(&mut announced));
            turns_back.push(std::mem::take(&mut apart_again));
            undone += usize::from(costs.last().is_some_and(|c| c[0] < c[1]));
            if a.apart.is_some_and(|(act, _)| act == Act::Remove) {
                out_of.extend(a.objects.iter().map(|o| o.head().to_owned()));
            }
        }
    }
    // Nothing goes in before something was undone: what an introduction tells is announced.
    let first = costs.iter().position(|c| c[1] >= c[0] + 2.0).unwrap_or(0);
    costs[..first].fill([0.0, 3.0]);
    let mut course = viterbi(&costs, &turns, &turns_back);
    // Wiping and waiting right before the turn belong to what came before.
    for at in 0..course.len() {
        let turned = course[at] == 1 && (at == 0 || course[at - 1] == 0);
        if turned && costs[at][0] < 0.2 && !turns[at] {
            course[at] = 0;
        }
    }
    // A remark or two about putting it back is no rebuild.
    let tail = course.iter().rev().take_while(|c| **c == 1).count();
    let from = course.len() - tail;
    if tail < SHORTEST && !turns[from..].contains(&true) {
        course[from..].fill(0);
    }
    let mut at = course.into_iter();
    told.iter()
        .map(|s| s.acts.iter().map(|_| if at.next() == Some(1) { Half::Together } else { Half::Apart }).collect())
        .collect()
}

/// What it costs to read an act as taking apart, and as putting together.
fn cost(a: &Told, out_of: &FxHashSet<String>) -> [f64; 2] {
    let acts = [a.apart, a.together].map(|m| m.map(|m| m.0));
    if acts.contains(&Some(Act::Apply)) && a.objects.iter().all(|o| o.kind == Kind::Liquid) {
        return [0.0, 0.0];
    }
    // What moves over to the new part goes in nowhere yet.
    if acts.contains(&Some(Act::Install))
        && a.places.iter().any(|(p, np)| np.new && matches!(p.as_str(), "on" | "onto" | "to"))
    {
        return [0.3, 0.0];
    }
    if acts.contains(&Some(Act::Peel)) && a.objects.iter().any(|o| o.kind == Kind::Liner) {
        return [1.5, 0.0];
    }
    if acts.contains(&Some(Act::Clean)) && a.objects.iter().any(|o| o.kind == Kind::Glue) {
        return [0.5, 0.0];
    }
    let known = |o: &super::phrases::Phrase| out_of.contains(o.head());
    let back = a.particles.iter().any(|p| p == "back");
    let mut cost = match (a.apart, a.together) {
        (None, Some((act, _))) => same(act),
        (Some((act, _)), None) => same(act),
        (Some((x, _)), Some((y, _))) if x == y => same(x),
        // What reads both ways speaks for putting together only where the thing is known to be out.
        (Some(_), Some(_)) => {
            if a.objects.iter().any(known) {
                [1.0, 0.0]
            } else {
                [0.0, 0.8]
            }
        }
        _ => [0.0, 0.0],
    };
    let foreign = matches!(a.together, Some((Act::Install, _)))
        && a.apart.is_none()
        && !a.new
        && !back
        && !a.objects.iter().any(known);
    if foreign {
        cost[0] = 1.2;
    }
    if a.new && matches!(a.together, Some((Act::Install | Act::Connect | Act::Apply, _))) {
        cost[0] += 2.0;
    }
    if back && !matches!(a.apart, Some((Act::Peel | Act::Open, _))) {
        cost[0] += 1.5;
    }
    if matches!(a.together, Some((Act::Install | Act::Connect | Act::Drive | Act::Close, _)))
        && a.objects.iter().any(known)
    {
        cost[0] += 1.0;
    }
    if matches!(a.apart, Some((Act::Remove, _))) && a.objects.iter().any(|o| known(o) && o.kind != Kind::Pronoun) {
        cost[0] += 0.3;
    }
    if a.hypothetical || a.state {
        return [0.0, 0.0];
    }
    if a.presented || a.elliptic {
        cost = cost.map(|c| c * 0.3);
    }
    cost
}

/// How an act speaks that reads the same in both halves.
fn same(act: Act) -> [f64; 2] {
    match act {
        Act::Remove => [0.0, 1.2],
        Act::Unscrew | Act::Disconnect | Act::Desolder => [0.0, 2.5],
        Act::Pry | Act::Release => [0.0, 2.0],
        Act::Open | Act::Heat => [0.0, 0.6],
        Act::Peel => [0.0, 0.3],
        Act::Unplug | Act::Discharge | Act::Drain | Act::Loosen => [0.0, 1.5],
        Act::PowerOff => [0.0, 0.6],
        Act::Install | Act::Drive | Act::Connect | Act::Solder => [3.0, 0.0],
        Act::Tighten | Act::Close => [2.0, 0.0],
        Act::Apply | Act::Press | Act::Route => [1.5, 0.0],
        Act::PowerOn => [1.5, 0.0],
        // Things move over to what is about to go in.
        Act::Adjust | Act::Test | Act::Transfer => [0.4, 0.0],
        Act::Clean
        | Act::Protect
        | Act::Turn
        | Act::Mark
        | Act::Measure
        | Act::Wait
        | Act::Cut
        | Act::Hold
        | Act::Place => [0.0, 0.0],
    }
}

fn viterbi(costs: &[[f64; 2]], turns: &[bool], turns_back: &[bool]) -> Vec<usize> {
    let mut best = [0.0, STARTED];
    let mut from: Vec<[usize; 2]> = Vec::with_capacity(costs.len());
    for ((cost, turn), again) in costs.iter().zip(turns).zip(turns_back) {
        let to_together = best[0] + if *turn { 0.2 } else { TURN };
        let to_apart = best[1] + if *again { 0.5 } else { BACK };
        let apart = if to_apart < best[0] { (to_apart, 1) } else { (best[0], 0) };
        let together = if to_together < best[1] { (to_together, 0) } else { (best[1], 1) };
        from.push([apart.1, together.1]);
        best = [apart.0 + cost[0], together.0 + cost[1]];
    }
    let mut state = usize::from(best[1] < best[0]);
    let mut out = vec![0; costs.len()];
    for (n, back) in from.iter().enumerate().rev() {
        out[n] = state;
        state = back[state];
    }
    out
}
