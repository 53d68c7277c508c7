//! The order room against answers from outside: networkx, and brute force over all sets and orders (`generate.py`).

use paso_core::order::{Graph, Need, Setup, Weights, Work, least, sequence};
use proptest::prelude::*;
use serde::Deserialize;

#[derive(Deserialize)]
struct Answers {
    graphs: Vec<GraphCase>,
    rings: Vec<RingCase>,
    choices: Vec<ChoiceCase>,
    orders: Vec<OrderCase>,
}

#[derive(Deserialize)]
struct GraphCase {
    nodes: usize,
    edges: Vec<(usize, usize)>,
    descendants: Vec<Vec<usize>>,
    reduction: Vec<(usize, usize)>,
    levels: Vec<usize>,
    longest: usize,
    first_order: Vec<usize>,
}

#[derive(Deserialize)]
struct RingCase {
    nodes: usize,
    edges: Vec<(usize, usize)>,
    rings: Vec<Vec<usize>>,
    girth: Option<usize>,
}

#[derive(Deserialize)]
struct ChoiceCase {
    cost: Vec<u64>,
    needs: Vec<Vec<Vec<Vec<usize>>>>,
    target: usize,
    best: Option<u64>,
}

#[derive(Deserialize)]
struct OrderCase {
    needs: Vec<Vec<usize>>,
    tools: Vec<u32>,
    best: u64,
}

fn answers() -> Answers {
    serde_json::from_str(include_str!("answers.json")).unwrap()
}

#[test]
fn graphs_agree_with_networkx() {
    for case in answers().graphs {
        let graph = Graph::new(case.nodes, case.edges.clone());
        let closure: Vec<Vec<usize>> = graph.closure().unwrap().iter().map(|s| s.ones().collect()).collect();
        assert_eq!(closure, case.descendants, "{:?}", case.edges);
        assert_eq!(graph.reduction().unwrap(), case.reduction, "{:?}", case.edges);
        assert_eq!(graph.levels().unwrap(), case.levels, "{:?}", case.edges);
        assert_eq!(graph.longest_chain().unwrap().len(), case.longest, "{:?}", case.edges);
        assert_eq!(graph.order().unwrap(), case.first_order, "{:?}", case.edges);
    }
}

#[test]
fn rings_agree_with_networkx() {
    for case in answers().rings {
        let graph = Graph::new(case.nodes, case.edges.clone());
        assert_eq!(graph.rings(), case.rings, "{:?}", case.edges);
        assert_eq!(graph.shortest_cycle().map(|c| c.len()), case.girth, "{:?}", case.edges);
        assert_eq!(graph.order().is_none(), case.girth.is_some());
    }
}

#[test]
fn the_least_work_agrees_with_brute_force() {
    for case in answers().choices {
        let needs = |own: Vec<Vec<Vec<usize>>>| own.into_iter().map(|ways| Need { ways }).collect();
        let work: Vec<Work> =
            case.cost.iter().zip(case.needs).map(|(c, own)| Work { cost: *c, needs: needs(own) }).collect();
        let found = least(&work, &[case.target], &[]);
        assert_eq!(found.as_ref().map(|r| r.cost), case.best, "{work:?} to {}", case.target);
        assert!(found.is_none_or(|r| r.proven()));
    }
}

#[test]
fn the_best_order_agrees_with_brute_force() {
    for case in answers().orders {
        let needs: Vec<Vec<Need>> = case.needs.iter().map(|own| own.iter().map(|a| Need::on(*a)).collect()).collect();
        let setups: Vec<Setup> = (0..case.tools.len())
            .map(|told| Setup { tool: Some(case.tools[told]), told, ..Setup::default() })
            .collect();
        let all: Vec<usize> = (0..setups.len()).collect();
        let weights = Weights { tool_change: 10, turn: 0, reheating: 0, displaced: 1 };
        let found = sequence(&needs, &setups, &all, weights).unwrap();
        assert_eq!((found.cost, found.bound), (case.best, case.best), "{:?} {:?}", case.needs, case.tools);
    }
}

/// A graph without rings: edges run from the smaller number to the greater.
fn acyclic() -> impl Strategy<Value = (usize, Vec<(usize, usize)>)> {
    (2_usize..40).prop_flat_map(|n| {
        let edge = (0..n, 0..n).prop_filter_map("an edge joins two", |(a, b)| (a != b).then(|| (a.min(b), a.max(b))));
        (Just(n), prop::collection::vec(edge, 0..120))
    })
}

proptest! {
    #[test]
    fn the_reduction_says_all_and_no_more((n, edges) in acyclic()) {
        let graph = Graph::new(n, edges.clone());
        let drawn = graph.reduction().unwrap();
        prop_assert!(drawn.iter().all(|e| edges.contains(e)));
        prop_assert_eq!(Graph::new(n, drawn.clone()).closure(), graph.closure());
        for leave in 0..drawn.len() {
            let less = drawn.iter().enumerate().filter(|(i, _)| *i != leave).map(|(_, e)| *e);
            prop_assert_ne!(Graph::new(n, less).closure(), graph.closure());
        }
    }

    #[test]
    fn every_order_respects_every_edge((n, edges) in acyclic()) {
        let order = Graph::new(n, edges.clone()).order().unwrap();
        let place = |x: usize| order.iter().position(|o| *o == x).unwrap();
        prop_assert!(edges.iter().all(|(a, b)| place(*a) < place(*b)));
    }
}
