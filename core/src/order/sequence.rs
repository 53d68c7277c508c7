//! A good order for a chosen set of acts: few tool changes, few turns of the device, nothing heated twice, and near the
//! order of the recording.
//!
//! All orders that respect the conditions are walked layer by layer, one more act done in each; two ways that have done
//! the same and hold the same tool are one. While a layer fits, the answer is the best there is (dynamic programming over
//! sets); where it does not, the dearest are dropped, and a bound says how far the answer may be from the best.

use super::least::{Need, met};
use crate::manual::Weights;
use fixedbitset::FixedBitSet;
use std::collections::HashMap;

/// What an order is judged by for one act.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Setup {
    pub tool: Option<u32>,
    pub posture: Option<u32>,
    /// The heated thing that is still soft while this is done.
    pub warm: Option<u32>,
    /// Place in the recording.
    pub told: usize,
}

/// An order with what its changes cost.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Sequence {
    pub acts: Vec<usize>,
    pub cost: u64,
    /// No order costs less; equal to `cost` where the order is proven best.
    pub bound: u64,
}

/// What is in hand: tool, posture, what is warm.
type InHand = (Option<u32>, Option<u32>, Option<u32>);

#[derive(Clone)]
struct Way {
    cost: u64,
    done: FixedBitSet,
    hand: InHand,
    /// Where it came from in the layer before, and by which act.
    from: (usize, usize),
}

/// Orders `acts` (numbers into `needs` and `setups`); `None` where they cannot all be done.
/// Exact over sets of what is done, 2^acts of them; beyond a width the best of each layer go on, and the gap is told.
pub fn sequence(needs: &[Vec<Need>], setups: &[Setup], acts: &[usize], weights: Weights) -> Option<Sequence> {
    // A layer of a short job is never cut; a long one gets what keeps the answer within some milliseconds.
    let widest = if acts.len() <= 40 { 4_000 } else { 24 };
    let mut layers: Vec<Vec<Way>> = vec![vec![Way {
        cost: 0,
        done: FixedBitSet::with_capacity(setups.len()),
        hand: (None, None, None),
        from: (0, 0),
    }]];
    let mut whole = true;
    for _ in 0..acts.len() {
        let mut next = step(needs, setups, acts, weights, layers.last()?);
        if next.is_empty() {
            return None;
        }
        next.sort_by_key(|w| (w.cost, w.from));
        if next.len() > widest {
            next.truncate(widest);
            whole = false;
        }
        layers.push(next);
    }
    let cost = layers.last()?.first()?.cost;
    let bound = if whole { cost } else { at_least(setups, acts, weights).min(cost) };
    Some(Sequence { acts: trace(&layers), cost, bound })
}

fn step(needs: &[Vec<Need>], setups: &[Setup], acts: &[usize], weights: Weights, layer: &[Way]) -> Vec<Way> {
    let mut next: Vec<Way> = Vec::new();
    let mut known: HashMap<(FixedBitSet, InHand), usize> = HashMap::new();
    for (n, way) in layer.iter().enumerate() {
        let mut left: Vec<usize> = acts.iter().copied().filter(|a| !way.done.contains(*a)).collect();
        left.sort_by_key(|a| (setups[*a].told, *a));
        for (earlier, act) in left.into_iter().enumerate() {
            if needs[act].iter().all(|need| met(need, &way.done)) {
                let (change, hand) = change(&setups[act], way.hand, &way.done, setups, weights);
                let cost = way.cost + change + weights.displaced * earlier as u64;
                let mut done = way.done.clone();
                done.insert(act);
                let here = Way { cost, done, hand, from: (n, act) };
                match known.get(&(here.done.clone(), hand)) {
                    Some(at) if next[*at].cost <= cost => {}
                    Some(at) => next[*at] = here,
                    None => {
                        known.insert((here.done.clone(), hand), next.len());
                        next.push(here);
                    }
                }
            }
        }
    }
    next
}

/// What it costs to go on with an act, and what is in hand then.
fn change(
    act: &Setup,
    (tool, posture, warm): InHand,
    done: &FixedBitSet,
    setups: &[Setup],
    w: Weights,
) -> (u64, InHand) {
    let swaps = |now: Option<u32>, next: Option<u32>| now.is_some() && next.is_some() && now != next;
    let mut cost = 0;
    if swaps(tool, act.tool) {
        cost += w.tool_change;
    }
    if swaps(posture, act.posture) {
        cost += w.turn;
    }
    let left_to_cool = act.warm.is_some() && act.warm != warm && done.ones().any(|d| setups[d].warm == act.warm);
    if left_to_cool {
        cost += w.reheating;
    }
    (cost, (act.tool.or(tool), act.posture.or(posture), act.warm))
}

/// Every tool and every posture must be taken up once, whatever the order.
fn at_least(setups: &[Setup], acts: &[usize], weights: Weights) -> u64 {
    let different = |of: fn(&Setup) -> Option<u32>| {
        let all: std::collections::BTreeSet<u32> = acts.iter().filter_map(|a| of(&setups[*a])).collect();
        all.len().saturating_sub(1) as u64
    };
    weights.tool_change * different(|b| b.tool) + weights.turn * different(|b| b.posture)
}

fn trace(layers: &[Vec<Way>]) -> Vec<usize> {
    let mut out = Vec::new();
    let mut at = 0;
    for layer in layers[1..].iter().rev() {
        let (from, act) = layer[at].from;
        out.push(act);
        at = from;
    }
    out.reverse();
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn setups(tools: &[u32]) -> Vec<Setup> {
        tools.iter().enumerate().map(|(told, t)| Setup { tool: Some(*t), told, ..Setup::default() }).collect()
    }

    const ONLY_TOOLS: Weights = Weights { tool_change: 1, turn: 0, reheating: 0, displaced: 0 };

    /// The charge port of a device in which everything lies under a cover; five tool changes with the board before the
    /// speaker, six the other way round. Worked example; answers by brute force over all orders.
    #[test]
    fn the_order_with_fewer_tool_changes() {
        // cover, battery_plug, bracket, display, speaker, board, charge_port
        let [pry, spudger, ph00, t3] = [0, 1, 2, 3];
        let needs: Vec<Vec<Need>> = [&[][..], &[0], &[0, 1], &[0, 1, 2], &[1, 3], &[2, 3], &[4, 5]]
            .map(|on| on.iter().map(|a| Need::on(*a)).collect())
            .into();
        let found =
            sequence(&needs, &setups(&[pry, spudger, ph00, pry, ph00, t3, ph00]), &[0, 1, 2, 3, 4, 5, 6], ONLY_TOOLS);
        assert_eq!(found.unwrap(), Sequence { acts: vec![0, 1, 2, 3, 5, 4, 6], cost: 5, bound: 5 });
    }

    #[rstest]
    #[case(0, &[0, 2, 4, 1, 3], "one change where the told order does not count")]
    #[case(10, &[0, 1, 2, 3, 4], "the told order where it counts more than a change")]
    fn between_the_tools_and_the_recording(#[case] displaced: u64, #[case] wanted: &[usize], #[case] why: &str) {
        let weights = Weights { displaced, ..ONLY_TOOLS };
        let found = sequence(&vec![vec![]; 5], &setups(&[0, 1, 0, 1, 0]), &[0, 1, 2, 3, 4], weights).unwrap();
        assert_eq!(found.acts, wanted, "{why}");
    }

    #[test]
    fn what_was_heated_is_finished_before_it_cools() {
        let act = |told, warm| Setup { told, warm, ..Setup::default() };
        let setups = [act(0, Some(1)), act(1, None), act(2, Some(1))];
        let found = sequence(&vec![vec![]; 3], &setups, &[0, 1, 2], Weights::default()).unwrap();
        assert_eq!(found.acts, [0, 2, 1]);
    }

    #[test]
    fn acts_that_wait_for_each_other_have_no_order() {
        let needs = vec![vec![Need::on(1)], vec![Need::on(0)]];
        assert_eq!(sequence(&needs, &setups(&[0, 0]), &[0, 1], ONLY_TOOLS), None);
    }

    #[test]
    fn a_long_job_gets_an_order_and_a_bound() {
        let tools: Vec<u32> = (0..120).map(|n| n % 7).collect();
        let acts: Vec<usize> = (0..120).collect();
        let found = sequence(&vec![vec![]; 120], &setups(&tools), &acts, ONLY_TOOLS).unwrap();
        assert_eq!(found.acts.len(), 120);
        assert!(found.bound == 6 && found.cost >= 6, "{found:?}");
    }
}
