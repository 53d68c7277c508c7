/** The chain as layers, for seeing its shape: what stands in one row can be done in any order. */
import dagre from "@dagrejs/dagre";
import { useMemo, useState } from "react";
import styled from "styled-components";
import type { ChainView } from "../../api/client";
import { Select } from "../../parts/controls";
import { space } from "../../theme";

const Frame = styled.div`
  overflow: auto;
  max-height: 70vh;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--sheet);
  &:focus-visible { outline: 3px solid var(--accent); }
`;
/** A box of the picture. */
const Box = styled.g`
  cursor: pointer;
  outline: none;
  &:focus-visible rect { stroke: var(--accent); stroke-width: 4px; }
`;
const Bar = styled.div`
  display: flex;
  gap: ${space.normal};
  margin-bottom: ${space.small};
`;
/** Past this many steps a box shows its number alone. */
const MOST_NAMED = 60;
const LINE = 18;
const MOST_LINES = 3;

type Props = {
  chain: ChainView;
  lit: Set<string> | null;
  chosen: string | null;
  onChoose: (step: string) => void;
};

export function Picture({ chain, lit, chosen, onChoose }: Props) {
  const [only, setOnly] = useState<"all" | "linked" | "lit">(chain.steps.length > MOST_NAMED ? "linked" : "all");
  const [size, setSize] = useState<"fit" | "full">("fit");
  const { nodes, edges, width, height, named } = useMemo(() => layout(chain, only, lit), [chain, only, lit]);
  const touches = (e: (typeof edges)[number]) => e.before === chosen || e.step === chosen;
  return (
    <div>
      <Bar>
        <Select
          label="Show"
          value={only}
          options={[
            ["all", "all steps"],
            ["linked", "steps with reasons"],
            ...(lit ? [["lit", "the chosen way"] as ["lit", string]] : []),
          ]}
          onChange={(v) => v !== "" && setOnly(v)}
        />
        <Select
          label="Size"
          value={size}
          options={[
            ["fit", "whole width"],
            ["full", "full size"],
          ]}
          onChange={(v) => v !== "" && setSize(v)}
        />
      </Bar>
      <Frame tabIndex={0} role="region" aria-label="Layers of the chain">
        {/* biome-ignore lint/a11y/useSemanticElements: a drawing has no element for a group of buttons */}
        <svg
          role="group"
          aria-label={`${nodes.length} steps in layers`}
          viewBox={`0 0 ${width} ${height}`}
          width={size === "fit" ? "100%" : width}
          height={size === "fit" ? undefined : height}
          style={{ maxWidth: width }}
        >
          {edges.map((e) => (
            <path
              key={e.key}
              d={e.d}
              fill="none"
              stroke={touches(e) ? "var(--accent)" : "var(--strong-line)"}
              strokeWidth={touches(e) ? 3 : 1.4}
              strokeDasharray={e.either ? "2 4" : e.sure ? undefined : "7 4"}
            />
          ))}
          {nodes.map((n) => (
            <Box
              key={n.id}
              transform={`translate(${n.x - n.width / 2} ${n.y - n.height / 2})`}
              role="button"
              tabIndex={0}
              aria-label={named ? undefined : `${n.number}. ${n.title}`}
              aria-pressed={chosen === n.id}
              onClick={() => onChoose(n.id)}
              onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && onChoose(n.id)}
              opacity={lit === null || lit.has(n.id) ? 1 : 0.55}
            >
              <rect
                width={n.width}
                height={n.height}
                rx={7}
                fill={chosen === n.id ? "var(--accent-wash)" : "var(--paper)"}
                stroke={chosen === n.id ? "var(--accent)" : "var(--strong-line)"}
                strokeWidth={chosen === n.id ? 3 : 1.2}
              />
              <text x={10} y={23} fontSize={15} fontWeight={700} fill="var(--soft)">
                {`${n.number} `}
              </text>
              {named && (
                <text y={23} fontSize={15} fill="var(--ink)">
                  {linesOf(n.title).map((line, i) => (
                    <tspan key={line} x={38} dy={i === 0 ? 0 : LINE}>
                      {`${line} `}
                    </tspan>
                  ))}
                </text>
              )}
            </Box>
          ))}
        </svg>
      </Frame>
    </div>
  );
}

/** A title in lines that fit its box; what is longer is told whole by the list. */
function linesOf(title: string): string[] {
  const lines: string[] = [];
  for (const word of title.split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + word.length < 17) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines.slice(0, MOST_LINES);
}

function layout(chain: ChainView, only: "all" | "linked" | "lit", lit: Set<string> | null) {
  const links = chain.conditions
    .filter((c) => c.drawn)
    .flatMap((c) =>
      c.ways.flat().map((before) => ({ before, step: c.step, either: c.ways.length > 1, sure: c.confidence >= 0.8 })),
    );
  const linked = new Set(links.flatMap((l) => [l.before, l.step]));
  const steps = chain.steps.filter((s) =>
    only === "lit" && lit ? lit.has(s.step) : only === "linked" ? linked.has(s.step) : true,
  );
  const named = steps.length <= MOST_NAMED;
  const graph = new dagre.graphlib.Graph({ multigraph: true });
  graph.setGraph({ rankdir: "TB", nodesep: named ? 18 : 8, ranksep: named ? 34 : 24, marginx: 14, marginy: 14 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const s of steps)
    graph.setNode(s.step, { width: named ? 172 : 44, height: 19 + LINE * (named ? linesOf(s.title).length : 1) });
  const shown = new Set(steps.map((s) => s.step));
  const drawn = links.filter((l) => shown.has(l.before) && shown.has(l.step));
  drawn.forEach((l, i) => {
    graph.setEdge(l.before, l.step, {}, String(i));
  });
  dagre.layout(graph);
  const nodes = steps.map((s) => {
    const { x, y, width, height } = graph.node(s.step);
    return { id: s.step, number: s.number, title: s.title, x, y, width, height };
  });
  const edges = drawn.map((l, i) => {
    const points: { x: number; y: number }[] = graph.edge(l.before, l.step, String(i)).points;
    const d = points.map((p, n) => `${n === 0 ? "M" : "L"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join(" ");
    return { key: `${l.before}-${l.step}-${i}`, d, either: l.either, sure: l.sure, before: l.before, step: l.step };
  });
  const { width = 100, height = 100 } = graph.graph() as { width?: number; height?: number };
  return { nodes, edges, width, height, named };
}
