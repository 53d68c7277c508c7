/** One step on the page: its text in the column, its evidence, screws and settings in the margin. */
import { Check, GripVertical, Pencil, TriangleAlert } from "lucide-react";
import { useRef, useState } from "react";
import { useDrag, useDrop } from "react-aria";
import styled, { css } from "styled-components";
import type { FastenerGroup, Spot, Step, ToolChoice } from "../../api/client";
import { useHand } from "../../api/manual";
import { BitProfile } from "../../parts/BitProfile";
import { Button, Quiet } from "../../parts/controls";
import { clock } from "../../parts/words";
import { focusRing, font, narrow, space } from "../../theme";
import { StepEditor } from "./StepEditor";

const Article = styled.li<{ $chosen: boolean; $drop: "before" | "after" | null }>`
  display: grid;
  grid-template-columns: 26px 40px minmax(0, 1fr) 300px;
  column-gap: ${space.small};
  padding: ${space.small} ${space.small} ${space.small} 0;
  border-top: 1px solid var(--line);
  position: relative;
  ${(p) => p.$chosen && css`background: var(--sheet); box-shadow: inset 4px 0 0 var(--accent);`}
  ${(p) => p.$drop === "before" && css`box-shadow: 0 -4px 0 var(--accent);`}
  ${(p) => p.$drop === "after" && css`box-shadow: 0 4px 0 var(--accent);`}
  &:focus-visible { ${focusRing} outline-offset: -3px; }
  ${narrow} { grid-template-columns: 26px 34px minmax(0, 1fr) 230px; }
`;
/** Over the gap where the step would land. */
const Verdict = styled.p<{ $refused: boolean }>`
  grid-column: 1 / -1;
  font-weight: 600;
  padding: 2px ${space.small};
  color: ${(p) => (p.$refused ? "var(--danger)" : "var(--hazard)")};
  background: ${(p) => (p.$refused ? "var(--danger-wash)" : "var(--hazard-wash)")};
`;
const Number_ = styled.span`
  font: 700 1.25rem ${font.plain};
  color: var(--soft);
  text-align: right;
`;
const Text = styled.div`
  font: 400 1.02rem/1.55 ${font.text};
  h4 { font: 650 1.14rem/1.35 ${font.text}; margin: 0 0 2px; }
  p { max-width: 68ch; }
`;
/** An "if" beside the way: set in, because most readers pass it by. */
const Branch = styled.p`
  border-left: 3px double var(--strong-line);
  padding-left: ${space.small};
  margin: 3px 0 3px ${space.small};
`;
const Margin = styled.div`
  font-size: 0.9rem;
  border-left: 1px solid var(--line);
  padding-left: ${space.normal};
  display: grid;
  gap: 5px;
  align-content: start;
`;
const ScrewLine = styled.p`
  display: flex;
  gap: 7px;
  align-items: center;
  svg { flex: none; }
`;
const Warn = styled.p`
  color: var(--hazard);
  background: var(--hazard-wash);
  border-radius: 5px;
  padding: 3px 8px;
  font: 500 0.94rem ${font.plain};
  margin: 3px 0;
  display: flex;
  gap: 7px;
  svg { flex: none; margin-top: 3px; }
`;
const Grip = styled.span`
  color: var(--strong-line);
  cursor: grab;
  padding: 2px;
  align-self: start;
`;
const Seen = styled.span`
  color: var(--accent);
  font-weight: 650;
  display: inline-flex;
  gap: 4px;
  align-items: center;
`;

const STEP = "application/x-paso-step";

type Props = {
  step: Step;
  number: number;
  chosen: boolean;
  editing: boolean;
  tabStop: boolean;
  previous: string | undefined;
  onChoose: () => void;
  onEdit: (open: boolean) => void;
  onKeyDown: (event: React.KeyboardEvent) => void;
  onDropped: (moved: string, before: boolean) => void;
  onDragged: () => void;
  /** How the spot before or behind this step is judged for the one that is being dragged. */
  judge: (before: boolean) => Spot | undefined;
};

export function StepArticle({
  step,
  number,
  chosen,
  editing,
  tabStop,
  previous,
  onChoose,
  onEdit,
  onKeyDown,
  onDropped,
  onDragged,
  judge,
}: Props) {
  const { view } = useHand();
  const { manual } = view;
  const ref = useRef<HTMLLIElement>(null);
  const [side, setSide] = useState<"before" | "after" | null>(null);
  const sideOf = (y: number) => (y < (ref.current?.offsetHeight ?? 0) / 2 ? "before" : "after");
  const { dropProps, isDropTarget } = useDrop({
    ref,
    getDropOperation: (types) => (types.has(STEP) ? "move" : "cancel"),
    onDropMove: (event) => setSide(sideOf(event.y)),
    onDropExit: () => setSide(null),
    onDrop: async (event) => {
      const before = sideOf(event.y) === "before";
      setSide(null);
      const item = event.items.find((i) => i.kind === "text" && i.types.has(STEP));
      if (item?.kind === "text") onDropped(await item.getText(STEP), before);
    },
  });
  const verdict = isDropTarget ? judge((side ?? "before") === "before") : undefined;
  const groups = Object.values(manual.fasteners).filter((g) => g.step === step.id);
  const cautions = Object.values(manual.cautions).filter((c) => c.step === step.id);

  return (
    <Article
      {...dropProps}
      ref={ref}
      data-step={step.id}
      tabIndex={tabStop ? 0 : -1}
      aria-current={chosen ? "true" : undefined}
      aria-label={`Step ${number}: ${step.title}`}
      $chosen={chosen}
      $drop={isDropTarget ? (side ?? "before") : null}
      onFocus={onChoose}
      onClick={onChoose}
      onDoubleClick={() => onEdit(true)}
      onKeyDown={onKeyDown}
    >
      {verdict && verdict.judged !== "fine" && (
        <Verdict $refused={verdict.judged === "refused"}>
          {verdict.judged === "refused" ? "✕ " : "? "}
          {verdict.says}
        </Verdict>
      )}
      <Handle step={step} onDragged={onDragged} />
      <Number_>{number}</Number_>
      {editing ? (
        <StepEditor step={step} previous={previous} onClose={() => onEdit(false)} />
      ) : (
        <>
          <Text>
            <h4>{step.title}</h4>
            {cautions.map((c) => (
              <Warn key={c.id}>
                <TriangleAlert size={16} aria-label="Caution" /> {c.text}
              </Warn>
            ))}
            {step.actions.map((a) => (
              <p key={a.id}>{a.text}</p>
            ))}
            {step.branches.map((b) => (
              <Branch key={b.condition}>
                <b>{b.condition}:</b> {b.advice} {b.tools.length > 0 && `(${b.tools.join(", ")}) `}
                {b.resume ? `Go on at “${manual.steps[b.resume]?.title ?? "a step that is gone"}”.` : "Stop here."}
              </Branch>
            ))}
            {step.note && <p>{step.note}</p>}
          </Text>
          <Margin>
            <Quiet>
              {evidenceText(step)}
              {step.reviewed && (
                <>
                  {" · "}
                  <Seen>
                    <Check size={14} aria-hidden /> reviewed
                  </Seen>
                </>
              )}
            </Quiet>
            {groups.map((g) => (
              <ScrewLine key={g.id}>
                <BitProfile drive={g.drive} /> {screwText(g, manual.parts)}
              </ScrewLine>
            ))}
            {Object.values(manual.connectors)
              .filter((c) => c.step === step.id)
              .map((c) => (
                <p key={c.id}>
                  ⟂ {manual.parts[c.serves ?? ""]?.name ?? "cable"}
                  {c.power ? " (power)" : ""}
                </p>
              ))}
            {Object.values(manual.heats)
              .filter((h) => h.step === step.id)
              .map((h) => (
                <p key={h.id}>
                  ♨{" "}
                  {[h.source, h.temp_c && `${range(h.temp_c)} °C`, h.dwell_s && `${range(h.dwell_s)} s`]
                    .filter(Boolean)
                    .join(", ")}
                </p>
              ))}
            {step.posture && <p>↻ {step.posture.replace("_", " ")}</p>}
            {step.tools.length > 0 && <Quiet>{step.tools.join(", ")}</Quiet>}
            {(step.choices ?? []).map((c) => (
              <Quiet key={c.any_of.join()}>{choiceText(c)}</Quiet>
            ))}
            {step.variants.length > 0 && (
              <Quiet>Only for {step.variants.map((v) => manual.variants[v]?.name ?? "a variant").join(", ")}</Quiet>
            )}
            {chosen && (
              <div>
                <Button onPress={() => onEdit(true)}>
                  <Pencil size={14} aria-hidden /> Edit
                </Button>
              </div>
            )}
          </Margin>
        </>
      )}
    </Article>
  );
}

/** Drags the step by pointer; by keyboard a step moves with Alt and the arrows. */
function Handle({ step, onDragged }: { step: Step; onDragged: () => void }) {
  const { dragProps } = useDrag({
    // The keys of the step itself do the same, so the grip is no stop of its own.
    hasDragButton: true,
    onDragStart: onDragged,
    getItems: () => [{ [STEP]: step.id, "text/plain": step.title }],
  });
  return (
    <Grip {...dragProps} title={`Drag ${step.title}`}>
      <GripVertical size={18} aria-hidden />
    </Grip>
  );
}

/** "spudger or pick (best: pick, it is thinner)" */
const choiceText = (c: ToolChoice) => {
  const why = [c.preferred && `best: ${c.preferred}`, c.why].filter(Boolean).join(", ");
  return `${c.any_of.join(" or ")}${why && ` (${why})`}`;
};

const range = (r: number[]) => (r[0] === r[1] ? `${r[0]}` : r.join("–"));

function evidenceText(step: Step): string {
  const times = step.evidence.flatMap((e) => (e.source === "recording" && e.from_ms != null ? [e.from_ms] : []));
  if (times.length > 0) return `≈ ${clock(Math.min(...times))}`;
  const author = step.evidence.find((e) => e.source === "author");
  return author?.source === "author" ? `by ${author.name}` : "from the text";
}

export function screwText(g: FastenerGroup, parts: Record<string, { name: string }>): string {
  const holds = g.holds
    .map((id) => parts[id]?.name)
    .filter(Boolean)
    .join(" + ");
  return [
    `${g.count ?? "?"} ×`,
    g.bit ?? "",
    g.length_mm != null ? `${g.length_mm} mm` : "",
    g.captive ? "captive" : "",
    holds && `– ${holds}`,
  ]
    .filter(Boolean)
    .join(" ");
}
