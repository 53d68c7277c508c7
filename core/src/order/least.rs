//! The least work that reaches a target, where a condition can be met in several ways.
//!
//! An act may need one of several things ("through the front or the rear"). Choosing the cheapest set of acts is then
//! hard in general (the AND/OR case of selective disassembly: A. J. D. Lambert and S. M. Gupta, Disassembly Modeling;
//! from memory), but manuals are small. The search is best first over partly chosen sets: what every way shares is taken
//! at once, and a lower bound that counts no act twice says which set to look at next. Where the search is stopped, the
//! lowest bound still open says how far the answer may be from the best.

use super::Graph;
use fixedbitset::FixedBitSet;
use std::cmp::Reverse;
use std::collections::{BinaryHeap, HashSet, VecDeque};

/// One act as the search sees it.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Work {
    /// In whatever the caller weighs by; whole numbers, so that equal is equal.
    pub cost: u64,
    /// All of these must be met first.
    pub needs: Vec<Need>,
}

/// One condition: all acts of one of the ways come before.
#[derive(Debug, Clone, PartialEq)]
pub struct Need {
    pub ways: Vec<Vec<usize>>,
}

impl Need {
    /// A condition with one way of one act.
    pub fn on(act: usize) -> Self {
        Self { ways: vec![vec![act]] }
    }
}

/// A set of acts that reaches the targets.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Route {
    /// In rising order.
    pub acts: Vec<usize>,
    pub cost: u64,
    /// No route costs less than this; equal to `cost` where the route is proven best.
    pub bound: u64,
    /// What it was to do without: asked for again without these, the search finds it again.
    pub without: Vec<usize>,
}

impl Route {
    /// Whether no set can be cheaper.
    pub fn proven(&self) -> bool {
        self.bound == self.cost
    }
}

/// How many partly chosen sets are looked at before the search stops with a bound: about 100 ms.
const MAX_LOOKS: usize = 40_000;

/// The cheapest set of acts that contains `targets` and in which every act can be done; without any of `without`.
/// `None` where there is none.
pub fn least(work: &[Work], targets: &[usize], without: &[usize]) -> Option<Route> {
    let route = Search::new(work, without).run(targets)?;
    Some(Route { without: without.to_vec(), ..route })
}

/// The cheapest route and the next ones that really differ: each does without something that a better one has. None of
/// them has any of `barred`.
pub fn routes(work: &[Work], targets: &[usize], barred: &[usize], most: usize) -> Vec<Route> {
    let Some(best) = least(work, targets, barred) else { return Vec::new() };
    let mut found = vec![best.clone()];
    let mut tried: HashSet<Vec<usize>> = HashSet::new();
    let mut open = VecDeque::from([best]);
    while let Some(route) = open.pop_front()
        && tried.len() < 4 * most * most.max(4)
    {
        for act in route.acts.iter().filter(|a| !targets.contains(a)) {
            let mut barred_too = route.without.clone();
            barred_too.push(*act);
            barred_too.sort_unstable();
            if barred_too.len() > barred.len() + most || !tried.insert(barred_too.clone()) {
                continue;
            }
            let Some(other) = least(work, targets, &barred_too) else { continue };
            if !found.iter().any(|f| f.acts.iter().all(|a| other.acts.contains(a))) {
                found.push(other.clone());
            }
            open.push_back(other);
        }
    }
    found.sort_by_key(|r| (r.cost, r.acts.len(), r.acts.clone()));
    found.truncate(most);
    found
}

/// One search, whose groundwork is done once for many targets.
pub(super) struct Search<'w> {
    work: &'w [Work],
    barred: FixedBitSet,
    /// What every way to an act shares, the act included.
    must: Vec<FixedBitSet>,
    /// Acts with a condition that can be met in several ways.
    has_choice: FixedBitSet,
    /// Conditions with one way never run in a ring.
    ringless: bool,
}

/// A set on its way to a route: cheapest bound first, then the fuller one.
type Open = Reverse<(u64, Reverse<usize>, Vec<usize>)>;

impl<'w> Search<'w> {
    /// Makes the search ready; acts of `without` count as impossible. O(acts + ways).
    pub fn new(work: &'w [Work], without: &[usize]) -> Self {
        let mut barred = FixedBitSet::with_capacity(work.len());
        barred.extend(without.iter().copied());
        let plain = |need: &Need| if let [way] = need.ways.as_slice() { way.clone() } else { Vec::new() };
        let edges =
            |(act, w): (usize, &Work)| w.needs.iter().flat_map(plain).map(move |b| (b, act)).collect::<Vec<_>>();
        let ringless = Graph::new(work.len(), work.iter().enumerate().flat_map(edges)).order().is_some();
        let mut has_choice = FixedBitSet::with_capacity(work.len());
        has_choice.extend((0..work.len()).filter(|a| work[*a].needs.iter().any(|n| n.ways.len() != 1)));
        let mut search = Self { work, barred, must: Vec::new(), has_choice, ringless };
        search.must = search.shared();
        search
    }

    /// Grows from each act alone until nothing is added; every round is right, so stopping early would be as well.
    fn shared(&self) -> Vec<FixedBitSet> {
        let alone = |a| {
            let mut set = FixedBitSet::with_capacity(self.work.len());
            set.insert(a);
            set
        };
        let mut must: Vec<FixedBitSet> = (0..self.work.len()).map(alone).collect();
        loop {
            let mut grew = false;
            for act in 0..self.work.len() {
                for need in &self.work[act].needs {
                    let Some(common) = self.common(need, &must) else { continue };
                    if !common.is_subset(&must[act]) {
                        must[act].union_with(&common);
                        grew = true;
                    }
                }
            }
            if !grew {
                return must;
            }
        }
    }

    /// What all open ways of a condition share; `None` where no way is open.
    fn common(&self, need: &Need, must: &[FixedBitSet]) -> Option<FixedBitSet> {
        self.ways(need).map(|way| union(way, must, self.work.len())).reduce(|mut a, b| {
            a.intersect_with(&b);
            a
        })
    }

    fn ways<'n>(&self, need: &'n Need) -> impl Iterator<Item = &'n Vec<usize>> {
        need.ways.iter().filter(|way| !way.iter().any(|a| self.barred.contains(*a)))
    }

    /// The cheapest set with all of `targets`. Exponential in the alternatives that matter, stopped at a bound of opened
    /// sets; the answer then says how far it may be off.
    pub fn run(&self, targets: &[usize]) -> Option<Route> {
        let mut start = FixedBitSet::with_capacity(self.work.len());
        start.extend(targets.iter().copied());
        let start = self.closed(start)?;
        // Where nothing is to be chosen there is nothing to search.
        if self.ringless && start.is_disjoint(&self.has_choice) {
            let cost = self.cost(&start);
            return Some(Route { acts: start.ones().collect(), cost, bound: cost, without: Vec::new() });
        }
        let mut best: Option<(u64, Vec<usize>)> = self.dive(start.clone());
        let mut open: BinaryHeap<Open> = BinaryHeap::new();
        let mut seen: HashSet<FixedBitSet> = HashSet::from([start.clone()]);
        open.push(self.open(&start)?);
        let mut looks = 0;
        while let Some(Reverse((bound, _, acts))) = open.pop() {
            if best.as_ref().is_some_and(|(cost, _)| bound >= *cost) {
                break;
            }
            if looks == MAX_LOOKS {
                return best.map(|(cost, acts)| Route { acts, cost, bound, without: Vec::new() });
            }
            looks += 1;
            let mut set = FixedBitSet::with_capacity(self.work.len());
            set.extend(acts);
            let ways = self.ways_on(&set);
            if ways.is_empty() {
                best = Some((self.cost(&set), set.ones().collect()));
                continue;
            }
            for way in ways {
                let mut next = set.clone();
                next.extend(way);
                if let Some(next) = self.closed(next)
                    && seen.insert(next.clone())
                    && let Some(open_set) = self.open(&next)
                {
                    open.push(open_set);
                }
            }
        }
        best.map(|(cost, acts)| Route { bound: cost, acts, cost, without: Vec::new() })
    }

    /// Takes the cheapest way on at every turn: seldom the best route, but one to measure others by.
    fn dive(&self, mut set: FixedBitSet) -> Option<(u64, Vec<usize>)> {
        loop {
            let ways = self.ways_on(&set);
            if ways.is_empty() {
                return self.is_route(&set).then(|| (self.cost(&set), set.ones().collect()));
            }
            let with = |way: Vec<usize>| {
                let mut next = set.clone();
                next.extend(way);
                self.closed(next)
            };
            set = ways.into_iter().filter_map(with).min_by_key(|next| self.cost(next))?;
        }
    }

    fn open(&self, set: &FixedBitSet) -> Option<Open> {
        let bound = self.cost(set) + self.at_least(set)?;
        Some(Reverse((bound, Reverse(set.count_ones(..)), set.ones().collect())))
    }

    fn is_route(&self, set: &FixedBitSet) -> bool {
        doable(self.work, set) == *set
    }

    fn cost(&self, set: &FixedBitSet) -> u64 {
        set.ones().map(|a| self.work[a].cost).sum()
    }

    /// Takes in all that every open way shares, until nothing is left that must be; `None` where something cannot be.
    fn closed(&self, mut set: FixedBitSet) -> Option<FixedBitSet> {
        let mut before = 0;
        while before != set.count_ones(..) {
            before = set.count_ones(..);
            for act in set.clone().ones() {
                if self.barred.contains(act) {
                    return None;
                }
                set.union_with(&self.must[act]);
                let unmet: Vec<&Need> = self.unmet(act, &set).collect();
                for need in unmet {
                    set.union_with(&self.common(need, &self.must)?);
                }
            }
        }
        Some(set)
    }

    fn unmet<'s>(&self, act: usize, set: &'s FixedBitSet) -> impl Iterator<Item = &'w Need> + use<'s, 'w> {
        let work: &'w [Work] = self.work;
        work[act].needs.iter().filter(|need| !met(need, set))
    }

    /// The ways between which the next choice lies; none where the set is a route.
    fn ways_on(&self, set: &FixedBitSet) -> Vec<Vec<usize>> {
        let open = set.ones().flat_map(|a| self.unmet(a, set)).min_by_key(|n| self.ways(n).count());
        if let Some(need) = open {
            return self.ways(need).cloned().collect();
        }
        // All conditions are met, but perhaps in a ring: something must come from outside it.
        let done = doable(self.work, set);
        let stuck = set.ones().filter(|a| !done.contains(*a));
        let needs = stuck.flat_map(|a| &self.work[a].needs).filter(|n| !met(n, &done));
        needs.flat_map(|n| self.ways(n)).filter(|way| way.iter().any(|a| !set.contains(*a))).cloned().collect()
    }

    /// What is still to pay at the very least. Every act is shared out among the conditions that may use it, so that the
    /// sum over all conditions counts none twice. `None` where a condition cannot be met, or a ring not be left.
    fn at_least(&self, set: &FixedBitSet) -> Option<u64> {
        let open: Vec<&Need> = set.ones().flat_map(|a| self.unmet(a, set)).collect();
        if open.is_empty() {
            return (self.is_route(set) || !self.ways_on(set).is_empty()).then_some(0);
        }
        let extra = |way: &Vec<usize>| {
            let mut more = union(way, &self.must, self.work.len());
            more.difference_with(set);
            more
        };
        let ways: Vec<Vec<FixedBitSet>> = open.iter().map(|n| self.ways(n).map(extra).collect()).collect();
        let mut users = vec![0_u64; self.work.len()];
        for need in &ways {
            let mut any = FixedBitSet::with_capacity(self.work.len());
            need.iter().for_each(|way| any.union_with(way));
            any.ones().for_each(|a| users[a] += 1);
        }
        let share = |way: &FixedBitSet| way.ones().map(|a| self.work[a].cost as f64 / users[a] as f64).sum::<f64>();
        let mut sum = 0.0;
        for need in &ways {
            sum += need.iter().map(share).min_by(f64::total_cmp)?;
        }
        // Rounding must never lift the bound above the truth.
        Some((sum - 1e-6).ceil().max(0.0) as u64)
    }
}

fn union(way: &[usize], must: &[FixedBitSet], len: usize) -> FixedBitSet {
    let mut set = FixedBitSet::with_capacity(len);
    way.iter().for_each(|a| set.union_with(&must[*a]));
    set
}

/// Whether all acts of one way are in the set.
pub(super) fn met(need: &Need, set: &FixedBitSet) -> bool {
    need.ways.iter().any(|way| way.iter().all(|a| set.contains(*a)))
}

/// The acts of a set that can be done one after the other from the closed device on.
pub(super) fn doable(work: &[Work], set: &FixedBitSet) -> FixedBitSet {
    let mut done = FixedBitSet::with_capacity(work.len());
    loop {
        let before = done.count_ones(..);
        // Acts stand mostly in an order that works, so one round finds nearly all of them.
        for act in set.ones() {
            if work[act].needs.iter().all(|n| met(n, &done)) {
                done.insert(act);
            }
        }
        if done.count_ones(..) == before {
            return done;
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    const NAMES: [&str; 8] =
        ["rear_glass", "display", "midframe", "coil", "support_plate", "battery_plug", "battery", "speaker"];

    /// A device that opens from the front and from the rear. Worked example; answers by brute force over all sets.
    fn device() -> Vec<Work> {
        let at = |name: &&str| NAMES.iter().position(|n| n == name).unwrap();
        let ways = |ways: &[&[&str]]| vec![Need { ways: ways.iter().map(|w| w.iter().map(at).collect()).collect() }];
        vec![
            Work { cost: 300, needs: vec![] },
            Work { cost: 180, needs: vec![] },
            Work { cost: 60, needs: ways(&[&["rear_glass"]]) },
            Work { cost: 40, needs: ways(&[&["rear_glass"]]) },
            Work { cost: 50, needs: ways(&[&["display"]]) },
            Work { cost: 10, needs: ways(&[&["rear_glass", "coil"], &["display"]]) },
            Work {
                cost: 120,
                needs: ways(&[&["battery_plug", "coil"], &["battery_plug", "display", "support_plate"]]),
            },
            Work { cost: 30, needs: ways(&[&["battery_plug", "coil"], &["battery_plug", "display"]]) },
        ]
    }

    #[rstest]
    #[case("battery", &["display", "support_plate", "battery_plug", "battery"], 360, 470)]
    #[case("speaker", &["display", "battery_plug", "speaker"], 220, 380)]
    #[case("battery_plug", &["display", "battery_plug"], 190, 350)]
    fn front_or_rear(#[case] target: &str, #[case] best: &[&str], #[case] cost: u64, #[case] other: u64) {
        let target = NAMES.iter().position(|n| *n == target).unwrap();
        let found = routes(&device(), &[target], &[], 3);
        let names: Vec<&str> = found[0].acts.iter().map(|a| NAMES[*a]).collect();
        assert_eq!((names.as_slice(), found[0].cost, found[0].proven()), (best, cost, true));
        assert_eq!(found[1].cost, other);
        for route in &found {
            assert_eq!(least(&device(), &[target], &route.without).unwrap().acts, route.acts);
        }
    }

    #[test]
    fn a_condition_is_not_met_by_a_ring() {
        // 1 opens 2 and 2 opens 1; only 0 breaks in from outside.
        let way = |ways: &[usize]| vec![Need { ways: ways.iter().map(|w| vec![*w]).collect() }];
        let work = vec![
            Work { cost: 100, needs: vec![] },
            Work { cost: 1, needs: way(&[2, 0]) },
            Work { cost: 1, needs: way(&[1]) },
        ];
        assert_eq!(least(&work, &[2], &[]).unwrap().acts, [0, 1, 2]);
        assert_eq!(least(&work, &[2], &[0]), None);
    }

    #[test]
    fn a_target_without_conditions_needs_nothing_else() {
        assert_eq!(
            least(&device(), &[1], &[]).unwrap(),
            Route { acts: vec![1], cost: 180, bound: 180, without: vec![] }
        );
        assert_eq!(least(&device(), &[], &[]).unwrap().acts, Vec::<usize>::new());
    }
}
