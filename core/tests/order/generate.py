#!/usr/bin/env python3
"""Answers for `order` from outside the project: networkx for graphs, brute force over all sets and orders for choices.

    python3 generate.py > answers.json        needs networkx; the file says which version it was made with
"""
import itertools, json, random
import networkx as nx

random.seed(20261125)


def graph_case():
    n = random.randint(2, 12)
    chance = random.choice([0.15, 0.3, 0.6])
    names = list(range(n))
    random.shuffle(names)
    edges = [(names[a], names[b]) for a in range(n) for b in range(a + 1, n) if random.random() < chance]
    g = nx.DiGraph()
    g.add_nodes_from(range(n))
    g.add_edges_from(edges)
    level = {v: i for i, generation in enumerate(nx.topological_generations(g)) for v in generation}
    return {
        "nodes": n,
        "edges": edges,
        "descendants": [sorted(nx.descendants(g, v)) for v in range(n)],
        "reduction": sorted(nx.transitive_reduction(g).edges()),
        "levels": [level[v] for v in range(n)],
        "longest": len(nx.dag_longest_path(g)),
        "first_order": list(nx.lexicographical_topological_sort(g)),
    }


def cyclic_case():
    n = random.randint(3, 10)
    g = nx.gnp_random_graph(n, 0.25, seed=random.randint(0, 10**6), directed=True)
    rings = sorted(sorted(c) for c in nx.strongly_connected_components(g) if len(c) > 1)
    girth = min((len(c) for c in nx.simple_cycles(g)), default=None)
    return {"nodes": n, "edges": list(g.edges()), "rings": rings, "girth": girth}


def done(needs, chosen):
    out = set()
    while True:
        new = [a for a in chosen - out if all(any(set(w) <= out for w in need) for need in needs[a])]
        if not new:
            return out
        out |= set(new)


def choice_case():
    n = random.randint(3, 12)
    needs = []
    for a in range(n):
        own = []
        for _ in range(random.choice([0, 1, 1, 2])):
            others = [b for b in range(n) if b != a]
            ways = [sorted(random.sample(others, random.choice([1, 1, 2]) if len(others) > 1 else 1))
                    for _ in range(random.choice([1, 2, 2, 3]))]
            own.append(ways)
        needs.append(own)
    cost = [random.randint(1, 60) for _ in range(n)]
    target = random.randrange(n)
    best = None
    for mask in range(1 << n):
        if not mask >> target & 1:
            continue
        chosen = {a for a in range(n) if mask >> a & 1}
        price = sum(cost[a] for a in chosen)
        if (best is None or price < best) and done(needs, chosen) == chosen:
            best = price
    return {"cost": cost, "needs": needs, "target": target, "best": best}


def order_case():
    n = random.randint(2, 7)
    needs = [[b for b in range(a) if random.random() < 0.25] for a in range(n)]
    tools = [random.randrange(3) for _ in range(n)]
    best = None
    for order in itertools.permutations(range(n)):
        place = {a: i for i, a in enumerate(order)}
        if all(place[b] < place[a] for a in range(n) for b in needs[a]):
            changes = sum(tools[x] != tools[y] for x, y in zip(order, order[1:]))
            moved = sum(1 for i, a in enumerate(order) for b in order[i + 1:] if b < a)
            price = 10 * changes + moved
            best = price if best is None else min(best, price)
    return {"needs": needs, "tools": tools, "best": best}


print(json.dumps({
    "source": f"networkx {nx.__version__}; brute force over all sets and all orders",
    "graphs": [graph_case() for _ in range(60)],
    "rings": [cyclic_case() for _ in range(40)],
    "choices": [choice_case() for _ in range(150)],
    "orders": [order_case() for _ in range(60)],
}, separators=(",", ":")))
