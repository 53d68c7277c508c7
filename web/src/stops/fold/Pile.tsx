/**
 * What lies on the bench, drawn along the fold line: it grows down the left as the device comes apart, shrinks up the right
 * as it goes together, and is nothing at the top. Each kind of thing has its own texture, so no colour has to be told.
 */
import styled from "styled-components";
import type { FoldView } from "../../api/client";
import { labels } from "../../api/tables";
import { plural } from "../../parts/format";

export type Bench = FoldView["turn"];
export type Kind = "parts" | "plugs" | "seals" | "screws";

/** From the fold line outwards. */
const KINDS: Kind[] = ["parts", "plugs", "seals", "screws"];

const texture: Record<Kind, string> = {
  parts: "background: var(--accent);",
  plugs: "background: repeating-linear-gradient(45deg, var(--accent) 0 2px, var(--accent-wash) 2px 6px);",
  seals: "background: repeating-linear-gradient(90deg, var(--accent) 0 1px, var(--accent-wash) 1px 4px);",
  screws:
    "background: radial-gradient(circle, var(--accent) 1.3px, var(--accent-wash) 1.6px) 0 0 / 6px 6px; box-shadow: inset 0 0 0 1px var(--line);",
};

const Half = styled.div<{ $side: "left" | "right" }>`
  display: flex;
  flex-direction: ${(p) => (p.$side === "left" ? "row-reverse" : "row")};
  align-items: stretch;
  gap: 0;
  min-width: 0;
  small { align-self: flex-start; margin-top: 8px; padding: 0 5px; font-size: 0.8rem; color: var(--soft); background: var(--paper); border-radius: 4px; }
`;
const Bar = styled.span<{ $kind: Kind }>`
  display: block;
  ${(p) => texture[p.$kind]}
`;

export const total = (bench: Bench) => (bench.screws ?? 0) + bench.plugs + bench.parts + bench.seals;

/** "15 screws, 4 plugs and 7 parts on the bench" */
export function lying(bench: Bench): string {
  const counted = (kind: Kind) => {
    const many = bench[kind];
    if (many == null) return [`an unknown number of ${labels.Counted[kind]}`];
    return many > 0 ? [plural(many, labels.Counted[kind].replace(/s$/, ""))] : [];
  };
  const all = [...KINDS].reverse().flatMap(counted);
  return all.length === 0 ? "nothing on the bench" : `${all.join(", ")} on the bench`;
}

/** One half of one line; `scale` is the width of one thing in pixels. */
export function PileHalf({
  bench,
  side,
  scale,
  figure,
}: {
  bench: Bench;
  side: "left" | "right";
  scale: number;
  figure: boolean;
}) {
  return (
    <Half $side={side} title={lying(bench)} aria-hidden>
      {KINDS.map((kind) => {
        const many = bench[kind] ?? 0;
        return many > 0 && <Bar key={kind} $kind={kind} style={{ width: Math.max(2, many * scale) }} />;
      })}
      {figure && <small>{bench.screws == null ? "?" : total(bench)}</small>}
    </Half>
  );
}

const Legend = styled.ul`
  display: flex;
  gap: 4px 10px;
  justify-content: center;
  flex-wrap: wrap;
  font-size: 0.82rem;
  color: var(--soft);
  li { display: flex; align-items: center; gap: 5px; }
  li > span { width: 18px; height: 11px; }
`;

/** What the textures mean; only what lies there. */
export function PileLegend({ bench }: { bench: Bench }) {
  const shown = KINDS.filter((kind) => bench[kind] == null || (bench[kind] ?? 0) > 0);
  return (
    <Legend>
      {shown.map((kind) => (
        <li key={kind}>
          <Bar $kind={kind} aria-hidden />
          {labels.Counted[kind]}
        </li>
      ))}
    </Legend>
  );
}
