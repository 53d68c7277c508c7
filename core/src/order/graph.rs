//! What comes before what, as a plain graph: closures, the few edges worth drawing, depths, cycles.
//!
//! Nodes are numbers from 0; an edge `(a, b)` says that `a` must come before `b`. Sets are bit sets, because all of this
//! is asked again after every edit. Source of the rules: textbook graph theory (T. H. Cormen et al., Introduction to
//! Algorithms, ch. 22; from memory); the tests compare with networkx 3.6.1.

use fixedbitset::FixedBitSet;
use petgraph::algo::tarjan_scc;
use petgraph::graph::DiGraph;
use std::cmp::Reverse;
use std::collections::{BinaryHeap, VecDeque};

/// A set of "before" edges over the nodes `0..len`.
#[derive(Debug, Clone, Default)]
pub struct Graph {
    after: Vec<Vec<usize>>,
    before: Vec<Vec<usize>>,
}

impl Graph {
    /// Doubled edges count once; an edge from a node to itself is kept and makes a cycle.
    ///
    /// # Panics
    /// If an edge names a node that is not in `0..len`.
    pub fn new(len: usize, edges: impl IntoIterator<Item = (usize, usize)>) -> Self {
        let mut after = vec![Vec::new(); len];
        for (a, b) in edges {
            assert!(b < len, "edge to a node that is not there");
            after[a].push(b);
        }
        let mut before = vec![Vec::new(); len];
        for (a, list) in after.iter_mut().enumerate() {
            list.sort_unstable();
            list.dedup();
            for b in list {
                before[*b].push(a);
            }
        }
        Self { after, before }
    }

    /// How many nodes there are.
    pub fn len(&self) -> usize {
        self.after.len()
    }

    /// Whether there is no node.
    pub fn is_empty(&self) -> bool {
        self.after.is_empty()
    }

    /// What must come right before a node, as far as edges say.
    pub fn before(&self, node: usize) -> &[usize] {
        &self.before[node]
    }

    /// What waits for a node, as far as edges say.
    pub fn after(&self, node: usize) -> &[usize] {
        &self.after[node]
    }

    /// Everything that must come before one of `targets`, and the targets themselves. O(nodes + edges).
    pub fn needed_for(&self, targets: &[usize]) -> FixedBitSet {
        reach(&self.before, targets)
    }

    /// Everything that waits for one of `from`, and those themselves. O(nodes + edges).
    pub fn waiting_for(&self, from: &[usize]) -> FixedBitSet {
        reach(&self.after, from)
    }

    /// An order that respects every edge and otherwise takes the smallest number first; `None` if there is a cycle.
    /// O((nodes + edges) · log nodes).
    pub fn order(&self) -> Option<Vec<usize>> {
        let mut waits: Vec<usize> = self.before.iter().map(Vec::len).collect();
        let mut ready: BinaryHeap<Reverse<usize>> = (0..self.len()).filter(|n| waits[*n] == 0).map(Reverse).collect();
        let mut out = Vec::with_capacity(self.len());
        while let Some(Reverse(node)) = ready.pop() {
            out.push(node);
            for next in &self.after[node] {
                waits[*next] -= 1;
                if waits[*next] == 0 {
                    ready.push(Reverse(*next));
                }
            }
        }
        (out.len() == self.len()).then_some(out)
    }

    /// For every node all that waits for it, itself left out, as one bit a node; `None` if there is a cycle.
    /// O(nodes · edges / 64), and nodes² bits of room.
    pub fn closure(&self) -> Option<Vec<FixedBitSet>> {
        let mut all = vec![FixedBitSet::new(); self.len()];
        for node in self.order()?.into_iter().rev() {
            let mut set = FixedBitSet::with_capacity(self.len());
            for next in &self.after[node] {
                set.insert(*next);
                set.union_with(&all[*next]);
            }
            all[node] = set;
        }
        Some(all)
    }

    /// The edges that no chain of other edges says already: what is worth drawing. `None` if there is a cycle.
    /// As [`closure`](Self::closure).
    pub fn reduction(&self) -> Option<Vec<(usize, usize)>> {
        let order = self.order()?;
        let mut place = vec![0; self.len()];
        for (i, node) in order.iter().enumerate() {
            place[*node] = i;
        }
        let mut out = Vec::new();
        let mut seen_for = vec![usize::MAX; self.len()];
        let mut open = Vec::new();
        for node in order {
            // Nearest first: what a nearer one reaches needs no edge of its own.
            let mut nexts = self.after[node].clone();
            nexts.sort_unstable_by_key(|n| place[*n]);
            let Some(farthest) = nexts.last().map(|n| place[*n]) else { continue };
            for next in nexts {
                if seen_for[next] == node {
                    continue;
                }
                out.push((node, next));
                open.push(next);
                while let Some(at) = open.pop() {
                    // What stands behind the farthest leads to none of the others.
                    if seen_for[at] != node && place[at] <= farthest {
                        seen_for[at] = node;
                        open.extend(&self.after[at]);
                    }
                }
            }
        }
        out.sort_unstable();
        Some(out)
    }

    /// The level of every node: 0 where nothing comes before, else one more than the highest before it. Nodes of one
    /// level can be done in any order. `None` if there is a cycle. O(nodes + edges) behind [`order`](Self::order).
    pub fn levels(&self) -> Option<Vec<usize>> {
        let mut level = vec![0; self.len()];
        for node in self.order()? {
            level[node] = self.before[node].iter().map(|b| level[*b] + 1).max().unwrap_or(0);
        }
        Some(level)
    }

    /// One of the longest chains, from its first node to its last; `None` if there is a cycle. As [`levels`](Self::levels).
    pub fn longest_chain(&self) -> Option<Vec<usize>> {
        let level = self.levels()?;
        let mut chain = Vec::from_iter((0..self.len()).max_by_key(|n| (level[*n], Reverse(*n))));
        while let Some(last) = chain.last().copied()
            && let Some(before) = self.before[last].iter().find(|b| level[**b] + 1 == level[last])
        {
            chain.push(*before);
        }
        chain.reverse();
        Some(chain)
    }

    /// Groups of nodes that wait for each other in a ring (strongly connected components). O(nodes + edges).
    pub fn rings(&self) -> Vec<Vec<usize>> {
        let mut graph = DiGraph::<(), (), usize>::with_capacity(self.len(), 0);
        let nodes: Vec<_> = (0..self.len()).map(|_| graph.add_node(())).collect();
        for (a, list) in self.after.iter().enumerate() {
            for b in list {
                graph.add_edge(nodes[a], nodes[*b], ());
            }
        }
        let ring = |group: &Vec<usize>| group.len() > 1 || self.after[group[0]].contains(&group[0]);
        let groups = tarjan_scc(&graph).into_iter().map(|g| g.into_iter().map(|n| n.index()).collect::<Vec<_>>());
        let mut out: Vec<Vec<usize>> = groups.filter(ring).collect();
        for group in &mut out {
            group.sort_unstable();
        }
        out.sort();
        out
    }

    /// The shortest ring of all, from its smallest node on; the last waits for the first again.
    /// One walk in breadth from every node of a ring: O(nodes · edges).
    pub fn shortest_cycle(&self) -> Option<Vec<usize>> {
        let rings = self.rings();
        let candidates = rings.iter().flatten().filter_map(|n| self.ring_through(*n));
        candidates.min_by_key(|c| (c.len(), c.clone()))
    }

    fn ring_through(&self, node: usize) -> Option<Vec<usize>> {
        let mut from = vec![usize::MAX; self.len()];
        let mut queue = VecDeque::from([node]);
        while let Some(at) = queue.pop_front() {
            for next in &self.after[at] {
                if *next == node {
                    let mut ring = vec![at];
                    while let Some(last) = ring.last().copied()
                        && last != node
                    {
                        ring.push(from[last]);
                    }
                    ring.reverse();
                    return Some(ring);
                }
                if from[*next] == usize::MAX {
                    from[*next] = at;
                    queue.push_back(*next);
                }
            }
        }
        None
    }
}

fn reach(edges: &[Vec<usize>], from: &[usize]) -> FixedBitSet {
    let mut seen = FixedBitSet::with_capacity(edges.len());
    let mut open: Vec<usize> = from.to_vec();
    while let Some(node) = open.pop() {
        if !seen.put(node) {
            open.extend(&edges[node]);
        }
    }
    seen
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// A device in which everything lies under a cover. Worked example; answers by networkx 3.6.1.
    const NAMES: [&str; 8] =
        ["battery_plug", "board", "bracket", "camera", "charge_port", "cover", "display", "speaker"];
    const EDGES: [(&str, &str); 13] = [
        ("cover", "battery_plug"),
        ("cover", "bracket"),
        ("battery_plug", "bracket"),
        ("bracket", "display"),
        ("battery_plug", "display"),
        ("display", "speaker"),
        ("battery_plug", "speaker"),
        ("cover", "display"),
        ("display", "board"),
        ("bracket", "board"),
        ("cover", "camera"),
        ("board", "charge_port"),
        ("speaker", "charge_port"),
    ];

    fn at(name: &str) -> usize {
        NAMES.iter().position(|n| *n == name).unwrap()
    }

    fn device() -> Graph {
        Graph::new(NAMES.len(), EDGES.map(|(a, b)| (at(a), at(b))))
    }

    fn names(nodes: impl IntoIterator<Item = usize>) -> Vec<&'static str> {
        nodes.into_iter().map(|n| NAMES[n]).collect()
    }

    #[rstest]
    #[case("camera", &["camera", "cover"])]
    #[case("speaker", &["battery_plug", "bracket", "cover", "display", "speaker"])]
    #[case("board", &["battery_plug", "board", "bracket", "cover", "display"])]
    fn what_a_part_needs(#[case] target: &str, #[case] needed: &[&str]) {
        assert_eq!(names(device().needed_for(&[at(target)]).ones()), needed);
    }

    #[test]
    fn the_edges_worth_drawing() {
        let drawn: Vec<(&str, &str)> =
            device().reduction().unwrap().into_iter().map(|(a, b)| (NAMES[a], NAMES[b])).collect();
        let wanted = [
            ("battery_plug", "bracket"),
            ("board", "charge_port"),
            ("bracket", "display"),
            ("cover", "battery_plug"),
            ("cover", "camera"),
            ("display", "board"),
            ("display", "speaker"),
            ("speaker", "charge_port"),
        ];
        assert_eq!(drawn, wanted);
    }

    #[test]
    fn levels_and_the_longest_chain() {
        let level = device().levels().unwrap();
        let wanted = [1, 4, 2, 1, 5, 0, 3, 4];
        assert_eq!(level, wanted);
        let chain = names(device().longest_chain().unwrap());
        assert_eq!(chain, ["cover", "battery_plug", "bracket", "display", "board", "charge_port"]);
    }

    #[test]
    fn an_order_takes_the_first_of_what_is_ready() {
        let order = names(device().order().unwrap());
        let wanted = ["cover", "battery_plug", "bracket", "camera", "display", "board", "speaker", "charge_port"];
        assert_eq!(order, wanted);
    }

    #[test]
    fn a_ring_is_told_by_its_shortest_way_round() {
        // shield→cable→board→shield, with a lid before and a fan behind. Worked example; find_cycle of networkx 3.6.1.
        let [board, cable, fan, lid, shield] = [0, 1, 2, 3, 4];
        let edges = [(shield, cable), (cable, board), (board, shield), (lid, shield), (lid, cable), (board, fan)];
        let graph = Graph::new(5, edges);
        assert_eq!(graph.order(), None);
        assert_eq!(graph.rings(), [[board, cable, shield]]);
        assert_eq!(graph.shortest_cycle().unwrap(), [board, shield, cable]);
        let blocked: Vec<usize> =
            graph.waiting_for(&[board]).ones().filter(|n| !graph.rings()[0].contains(n)).collect();
        assert_eq!(blocked, [fan]);
    }

    #[test]
    fn a_node_that_waits_for_itself_is_a_ring() {
        assert_eq!(Graph::new(2, [(1, 1)]).shortest_cycle().unwrap(), [1]);
    }
}
