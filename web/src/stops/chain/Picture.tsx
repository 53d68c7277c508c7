/** The chain as layers, for seeing its shape: what stands in one row can be done in any order. */
import dagre from "@dagrejs/dagre";
import { useMemo, useState } from "react";
import styled from "styled-components";
import type { ChainRow, ChainView } from "../../api/client";
import { Button, Select } from "../../parts/controls";
import { plural } from "../../parts/format";
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
  align-items: end;
  gap: ${space.normal};
  margin-bottom: ${space.small};
`;
/** Past this many steps a box shows its number alone. */
const MAX_NAMED = 60;
const LINE = 18;
const MAX_LINES = 3;
const EDGE = 14;

type Props = {
  chain: ChainView;
  lit: Set<string> | null;
  chosen: string | null;
  onChoose: (step: string) => void;
};

export function Picture({ chain, lit, chosen, onChoose }: Props) {
  const staged = chain.steps.some((s) => s.stage);
  const [only, setOnly] = useState<Shown>(chain.steps.length <= MAX_NAMED ? "all" : staged ? "stages" : "linked");
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const [size, setSize] = useState<"fit" | "full">("fit");
  const { nodes, edges, left, width, height, named } = useMemo(
    () => layout(chain, only, lit, opened),
    [chain, only, lit, opened],
  );
  const press = (node: { id: string; stage?: string }) =>
    node.stage === undefined ? onChoose(node.id) : setOpened(new Set([...opened, node.stage]));
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
            ...(staged ? [["stages", "stages"] as ["stages", string]] : []),
            ...(lit ? [["lit", "the chosen way"] as ["lit", string]] : []),
          ]}
          onChange={(v) => v !== "" && setOnly(v)}
        />
        {only === "stages" && (
          <Button isDisabled={opened.size === 0} onPress={() => setOpened(new Set())}>
            Close all stages
          </Button>
        )}
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
          aria-label={`${plural(nodes.length, "box", "boxes")} in layers`}
          viewBox={`${left} 0 ${width} ${height}`}
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
              aria-pressed={n.stage === undefined ? chosen === n.id : undefined}
              aria-expanded={n.stage === undefined ? undefined : false}
              onClick={() => press(n)}
              onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && press(n)}
              opacity={lit === null || n.steps.some((s) => lit.has(s)) ? 1 : 0.55}
            >
              <rect
                width={n.width}
                height={n.height}
                rx={7}
                fill={chosen === n.id ? "var(--accent-wash)" : "var(--paper)"}
                stroke={chosen === n.id ? "var(--accent)" : "var(--strong-line)"}
                strokeWidth={chosen === n.id ? 3 : 1.2}
              />
              {n.stage !== undefined && (
                <rect
                  x={4}
                  y={4}
                  width={n.width - 8}
                  height={n.height - 8}
                  rx={5}
                  fill="none"
                  stroke="var(--strong-line)"
                />
              )}
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
  return lines.slice(0, MAX_LINES);
}

type Shown = "all" | "linked" | "lit" | "stages";

/** Steps as boxes, and whole stages as one box each until they are opened. */
function boxes(steps: ChainRow[], folded: (step: ChainRow) => boolean) {
  const out: { id: string; number: string; title: string; steps: string[]; stage?: string }[] = [];
  for (const s of steps) {
    if (!s.stage || !folded(s)) {
      out.push({ id: s.step, number: `${s.number}`, title: s.title, steps: [s.step] });
      continue;
    }
    const id = `stage ${s.stage}`;
    const known = out.find((b) => b.id === id);
    if (known) known.steps.push(s.step);
    else out.push({ id, number: "", title: s.stage, steps: [s.step], stage: s.stage });
  }
  for (const b of out) if (b.stage !== undefined) b.number = `${b.steps.length}×`;
  return out;
}

function layout(chain: ChainView, only: Shown, lit: Set<string> | null, opened: ReadonlySet<string>) {
  const links = chain.conditions
    .filter((c) => c.drawn)
    .flatMap((c) => c.ways.flat().map((before) => ({ before, step: c.step, either: c.ways.length > 1, sure: c.sure })));
  const linked = new Set(links.flatMap((l) => [l.before, l.step]));
  const steps = chain.steps.filter((s) =>
    only === "lit" && lit ? lit.has(s.step) : only === "linked" ? linked.has(s.step) : true,
  );
  const shown = boxes(steps, (s) => only === "stages" && !opened.has(s.stage ?? ""));
  const boxOf = new Map(shown.flatMap((b) => b.steps.map((s) => [s, b.id])));
  const named = shown.length <= MAX_NAMED;
  const graph = new dagre.graphlib.Graph({ multigraph: true });
  graph.setGraph({ rankdir: "TB", nodesep: named ? 18 : 8, ranksep: named ? 34 : 24, marginx: 14, marginy: 14 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const b of shown)
    graph.setNode(b.id, { width: named ? 172 : 44, height: 19 + LINE * (named ? linesOf(b.title).length : 1) });
  // Between two boxes one line is enough, however many reasons lie behind it.
  const drawn = new Map<string, { from: string; to: string; link: (typeof links)[number] }>();
  for (const link of links) {
    const [from, to] = [boxOf.get(link.before), boxOf.get(link.step)];
    if (!from || !to || from === to) continue;
    const key = `${from}-${to}`;
    if (!drawn.has(key)) drawn.set(key, { from, to, link });
  }
  for (const [key, { from, to }] of drawn) graph.setEdge(from, to, {}, key);
  dagre.layout(graph);
  const nodes = shown.map((b) => {
    const { x, y, width, height } = graph.node(b.id);
    return { ...b, x, y, width, height };
  });
  // Lines that run against the layers may leave the frame that the layout gives.
  const { width = 100, height = 100 } = graph.graph() as { width?: number; height?: number };
  let [left, right] = [0, width];
  const edges = [...drawn].map(([key, { from, to, link }]) => {
    const points: { x: number; y: number }[] = graph.edge(from, to, key).points;
    left = Math.min(left, ...points.map((p) => p.x - EDGE));
    right = Math.max(right, ...points.map((p) => p.x + EDGE));
    const d = points.map((p, n) => `${n === 0 ? "M" : "L"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join(" ");
    return { key, d, either: link.either, sure: link.sure, before: from, step: to };
  });
  return { nodes, edges, left, width: right - left, height, named };
}
