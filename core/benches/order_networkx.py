#!/usr/bin/env python3
"""The same graph as order.rs, through networkx: seconds for its transitive reduction and closure."""
import time
import networkx as nx

state = 1


def below(n):
    global state
    state = (state * 6364136223846793005 + 1442695040888963407) % 2**64
    return (state >> 33) % n


edges = []
while len(edges) < 30_000:
    a, b = below(10_000), below(10_000)
    if a != b:
        edges.append((min(a, b), max(a, b)))
graph = nx.DiGraph()
graph.add_nodes_from(range(10_000))
graph.add_edges_from(edges)
print("networkx", nx.__version__, graph.number_of_edges(), "edges")
for name, run in [("closure", nx.transitive_closure_dag), ("reduction", nx.transitive_reduction)]:
    begin = time.perf_counter()
    found = run(graph)
    print(f"{name}: {time.perf_counter() - begin:.2f} s, {found.number_of_edges()} edges", flush=True)
