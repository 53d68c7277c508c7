/** One step on the page: its text in the column, its evidence, screws and settings in the margin. */
import { Check, GripVertical, Pencil } from "lucide-react";
import { useRef, useState } from "react";
import { useDrag, useDrop, useFocusManager } from "react-aria";
import styled, { css } from "styled-components";
import type { Finding, MarginRow, Spot, Step } from "../../api/client";
import { useWording } from "../../api/manual";
import { BitProfile } from "../../parts/BitProfile";
import { Button, Muted } from "../../parts/controls";
import { clock } from "../../parts/format";
import { Warning } from "../../parts/Warning";
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
const LookAt = styled.p<{ $blocks: boolean }>`
  border-left: 4px solid ${(p) => (p.$blocks ? "var(--danger)" : "var(--strong-line)")};
  padding-left: 7px;
  color: ${(p) => (p.$blocks ? "var(--danger)" : "var(--soft)")};
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
const isStep = (element: Element) => element instanceof HTMLElement && element.dataset.step !== undefined;

type Props = {
  step: Step;
  /** What stands beside it; it comes a moment behind an edit. */
  margin: MarginRow | undefined;
  /** What does not fit here. */
  found: Finding[];
  number: number;
  chosen: boolean;
  editing: boolean;
  tabStop: boolean;
  previous: string | undefined;
  onChoose: () => void;
  /** The sentence that its form begins with, or a new one (`WRITE_ON`); `null`: the title. */
  at: string | null;
  onEdit: (open: boolean, at?: string) => void;
  onKeyDown: (event: React.KeyboardEvent) => void;
  onDropped: (moved: string, before: boolean) => void;
  onDragged: () => void;
  /** How the spot before or behind this step is judged for the one that is being dragged. */
  judge: (before: boolean) => Spot | undefined;
};

export function StepArticle({
  step,
  margin,
  found,
  number,
  chosen,
  editing,
  tabStop,
  previous,
  at,
  onChoose,
  onEdit,
  onKeyDown,
  onDropped,
  onDragged,
  judge,
}: Props) {
  const wording = useWording();
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
  const focus = useFocusManager();
  const onKey = (event: React.KeyboardEvent) => {
    const plain = event.target === event.currentTarget && !event.altKey && !event.ctrlKey && !event.metaKey;
    const go = plain && { ArrowDown: focus?.focusNext, ArrowUp: focus?.focusPrevious }[event.key];
    if (!go) return onKeyDown(event);
    event.preventDefault();
    go({ accept: isStep });
  };
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
      onKeyDown={onKey}
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
        <StepEditor step={step} previous={previous} at={at} onClose={() => onEdit(false)} />
      ) : (
        <>
          <Text>
            <h4>{step.title}</h4>
            {margin?.warnings.map((w) => (
              <Warning key={w.caution} head={w.head}>
                {w.text}
              </Warning>
            ))}
            {step.actions.map((a) => (
              <p
                key={a.id}
                onDoubleClick={(event) => {
                  // The step would open from its title on.
                  event.stopPropagation();
                  onEdit(true, a.id);
                }}
              >
                {wording(a)}
              </p>
            ))}
            {margin?.branches.map((words) => (
              <Branch key={words}>{words}</Branch>
            ))}
            {step.note && <p>{step.note}</p>}
          </Text>
          <Margin>
            <Muted>
              {evidenceText(step)}
              {step.reviewed && (
                <>
                  {" · "}
                  <Seen>
                    <Check size={14} aria-hidden /> reviewed
                  </Seen>
                </>
              )}
            </Muted>
            {margin?.screws.map((g) => (
              <ScrewLine key={g.group}>
                <BitProfile drive={g.drive} /> {g.words}
              </ScrewLine>
            ))}
            {margin?.connectors.map((words) => (
              <p key={words}>⟂ {words}</p>
            ))}
            {margin?.heat.map((words) => (
              <p key={words}>♨ {words}</p>
            ))}
            {margin?.posture && <p>↻ {margin.posture}</p>}
            {margin?.tools.map((words) => (
              <Muted key={words}>{words}</Muted>
            ))}
            {margin && margin.variants.length > 0 && <Muted>Only for {margin.variants.join(", ")}</Muted>}
            {found.map((f) => (
              <LookAt key={f.key} $blocks={f.blocks}>
                {f.says}
              </LookAt>
            ))}
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

function evidenceText(step: Step): string {
  const times = step.evidence.flatMap((e) => (e.source === "recording" && e.from_ms != null ? [e.from_ms] : []));
  if (times.length > 0) return `≈ ${clock(Math.min(...times))}`;
  const author = step.evidence.find((e) => e.source === "author");
  return author?.source === "author" ? `by ${author.name}` : "from the text";
}
