/** The steps in the order of the work, with the reasons between them as arcs in the margin. */
import { useRef } from "react";
import { ListBox, ListBoxItem } from "react-aria-components";
import styled from "styled-components";
import type { ChainRow, ChainView, ConditionRow } from "../../api/client";
import { keys } from "../../api/tables";
import { minutes } from "../../parts/format";
import { useInView } from "../../parts/place";
import { focusRing, font } from "../../theme";

const ROW = 46;
const MARGIN = 150;

const Board = styled.div`
  display: grid;
  grid-template-columns: ${MARGIN}px minmax(0, 1fr);
`;
const Row = styled(ListBoxItem)<{ $faded: boolean; $lit: boolean }>`
  height: ${ROW}px;
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto;
  column-gap: 10px;
  align-items: center;
  padding: 0 10px;
  border-bottom: 1px solid var(--line);
  cursor: default;
  &[data-selected] { background: var(--sheet); box-shadow: inset 4px 0 0 var(--accent); }
  & > b { font: 700 1.1rem ${font.plain}; color: var(--soft); text-align: right; }
  & > span { font: ${(p) => (p.$lit ? 650 : 500)} 1.05rem/1.2 ${font.text}; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; color: ${(p) => (p.$faded ? "var(--soft)" : "var(--ink)")}; font-style: ${(p) => (p.$faded ? "italic" : "normal")}; }
  & > small { font-size: 0.86rem; color: var(--soft); text-align: right; }
  &:focus-visible { ${focusRing} outline-offset: -3px; }
`;

type Props = {
  chain: ChainView;
  /** Steps of the chosen route; null while no part is picked. */
  lit: Set<string> | null;
  chosen: string | null;
  onChoose: (step: string) => void;
  onReach: (step: ChainRow) => void;
  onConfirm: (step: string) => void;
  onAdd: () => void;
};

export function StepList({ chain, lit, chosen, onChoose, onReach, onConfirm, onAdd }: Props) {
  const inHand = chain.steps.find((s) => s.step === chosen);
  const board = useRef<HTMLDivElement>(null);
  useInView(board, chosen);
  const onKey = (event: React.KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || !inHand) return;
    const acts: Record<string, () => void> = {
      t: () => onReach(inHand),
      y: () => onConfirm(inHand.step),
      a: onAdd,
    };
    const act = acts[event.key.toLowerCase()];
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  return (
    <Board ref={board} onKeyDownCapture={onKey}>
      <Arcs chain={chain} lit={lit} chosen={chosen} />
      <ListBox
        aria-label="Steps in the order of the work"
        selectionMode="single"
        selectionBehavior="replace"
        disallowEmptySelection
        selectedKeys={chosen ? [chosen] : []}
        onSelectionChange={(picked) => {
          const [step] = picked === "all" ? [] : picked;
          if (step) onChoose(String(step));
        }}
      >
        {chain.steps.map((step) => (
          <Row
            key={step.step}
            id={step.step}
            // Typing a number goes to that step.
            textValue={String(step.number)}
            data-step={step.step}
            $lit={lit?.has(step.step) ?? false}
            $faded={lit !== null && !lit.has(step.step)}
          >
            <b>{step.number}</b>
            <span title={step.title}>{step.title}</span>
            <small>
              {step.timed ? "" : "≈ "}
              {minutes(step.seconds)}
            </small>
          </Row>
        ))}
      </ListBox>
    </Board>
  );
}

function Arcs({ chain, lit, chosen }: { chain: ChainView; lit: Set<string> | null; chosen: string | null }) {
  const at = new Map(chain.steps.map((s, i) => [s.step, i]));
  const arcs = chain.conditions.flatMap((c) =>
    c.ways.flat().flatMap((before) => {
      const [a, b] = [at.get(before), at.get(c.step)];
      if (a === undefined || b === undefined) return [];
      const touches = chosen !== null && (c.step === chosen || before === chosen);
      const onRoute = lit === null || (lit.has(before) && lit.has(c.step));
      return c.drawn || touches ? [{ key: `${before}-${c.step}-${c.ways.length}`, a, b, c, touches, onRoute }] : [];
    }),
  );
  // What is in hand lies on top.
  arcs.sort((x, y) => Number(x.touches) - Number(y.touches));
  return (
    <svg width={MARGIN} height={chain.steps.length * ROW} aria-hidden="true">
      <title>Reasons between steps</title>
      {arcs.map(({ key, a, b, c, touches, onRoute }) => (
        <Arc key={key} from={a} to={b} condition={c} touches={touches} onRoute={onRoute} />
      ))}
    </svg>
  );
}

function Arc(props: { from: number; to: number; condition: ConditionRow; touches: boolean; onRoute: boolean }) {
  const { condition: c, touches, onRoute } = props;
  const [y1, y2] = [props.from * ROW + ROW / 2 + 5, props.to * ROW + ROW / 2 - 5];
  // Longer arcs reach further out, ever more slowly, so that three hundred steps still fit.
  const reach = Math.min(MARGIN - 18, 14 + 30 * Math.log2(1 + Math.abs(props.to - props.from)));
  const x = MARGIN - 4;
  const colour = c.broken ? "var(--danger)" : touches ? "var(--accent)" : "var(--strong-line)";
  const letter = keys.Reason[c.whys[0]?.reason ?? "author"];
  const [lx, ly] = [x - reach * 0.75, (y1 + y2) / 2];
  return (
    <g opacity={onRoute || touches ? 1 : 0.25}>
      <path
        d={`M${x} ${y1} C${x - reach} ${y1} ${x - reach} ${y2} ${x} ${y2}`}
        fill="none"
        stroke={colour}
        strokeWidth={touches ? 3 : 1.5}
        strokeDasharray={c.ways.length > 1 ? "2 4" : !c.sure ? "7 4" : undefined}
      />
      <path d={`M${x + 3} ${y2} l-8 -4 v8 z`} fill={colour} />
      {touches && (
        <>
          <circle cx={lx} cy={ly} r={10} fill="var(--paper)" stroke={colour} />
          <text x={lx} y={ly + 4.5} textAnchor="middle" fontSize={13} fontWeight={700} fill="var(--ink)">
            {letter}
          </text>
        </>
      )}
    </g>
  );
}
