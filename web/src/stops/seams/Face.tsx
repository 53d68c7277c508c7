/** The face of a joint with its marks, as readers will see it; a press marks a place, a drag a stretch. */
import { useRef } from "react";
import styled from "styled-components";
import type { HolePlace, OpeningPicture, SeamMark } from "../../api/client";
import { labels } from "../../api/tables";
import { Muted } from "../../parts/controls";
import { space } from "../../theme";

const Frame = styled.div`
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--sunk);
  padding: ${space.small};
`;
const Drawing = styled.svg`
  display: block;
  width: 100%;
  max-height: 400px;
  touch-action: none;
`;
const Mark = styled.g<{ $chosen: boolean }>`
  outline: none;
  cursor: pointer;
  color: ${(p) => (p.$chosen ? "var(--accent)" : "var(--ink)")};
  circle.ring { fill: none; stroke: ${(p) => (p.$chosen ? "var(--accent)" : "transparent")}; stroke-dasharray: 1 1; }
  &:focus-visible circle.ring { stroke: var(--accent); stroke-dasharray: none; }
`;

type Point = { point: HolePlace };
type Props = {
  picture: OpeningPicture;
  marks: SeamMark[];
  chosen: string | null;
  onChoose: (mark: string) => void;
  onMark: (place: Point, to: Point | null) => void;
  /** To an hour of the face's clock. */
  onMove: (mark: string, hours: number) => void;
  onRemove: (mark: string) => void;
};

/** A step of the arrow keys, in hours; with Shift a larger one. */
const STEP = [0.1, 0.5] as const;
/** Keys that follow each other more quickly than this go on from each other. */
const SETTLED_MS = 2_000;
const ALONG: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

export function Face({ picture, marks, chosen, onChoose, onMark, onMove, onRemove }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const pressed = useRef<HolePlace | null>(null);
  /** Where keys have brought a mark; the server may still be on the way there. */
  const moving = useRef<{ mark: string; at: number; when: number } | null>(null);
  const { width_mm: width, height_mm: height, size_mm: size } = picture;
  const rim = 4 * size;
  const at = (event: React.PointerEvent): HolePlace | null => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return null;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    return { x_mm: x, y_mm: y };
  };
  const onUp = (event: React.PointerEvent) => {
    const [from, to] = [pressed.current, at(event)];
    pressed.current = null;
    if (!from || !to) return;
    // A press that slips a little is still a press.
    const drawn = Math.hypot(to.x_mm - from.x_mm, to.y_mm - from.y_mm) > 2 * size;
    onMark({ point: from }, drawn ? { point: to } : null);
  };
  const onKey = (event: React.KeyboardEvent, id: string) => {
    const mark = marks.find((m) => m.id === id);
    const way = ALONG[event.key];
    if (way && mark?.at != null) {
      const now = moving.current;
      const begun = now?.mark === id && event.timeStamp - now.when < SETTLED_MS ? now.at : mark.at;
      const at = begun + way * STEP[event.shiftKey ? 1 : 0];
      moving.current = { mark: id, at, when: event.timeStamp };
      onMove(id, at);
    } else if (event.key === "Delete") onRemove(id);
    else if (event.key === "Enter" || event.key === " ") onChoose(id);
    else return;
    event.preventDefault();
  };
  return (
    <Frame>
      <Drawing
        ref={svg}
        role="group"
        aria-label={`${picture.name}, ${width} by ${height} mm, ${picture.marks.length} marks`}
        viewBox={`${-rim} ${-rim} ${width + 2 * rim} ${height + 2 * rim}`}
        onPointerDown={(event) => {
          pressed.current = at(event);
        }}
        onPointerUp={onUp}
      >
        <path
          d={picture.outline}
          fill="var(--sheet)"
          stroke="var(--strong-line)"
          strokeWidth={size * 0.14}
          data-outline=""
        />
        {picture.hinge && (
          <>
            <path d={picture.hinge.line} fill="none" stroke="var(--ink)" strokeWidth={size * 0.3} />
            <Words at={picture.hinge.at} size={size} />
          </>
        )}
        {picture.marks.map((mark) => (
          <Mark
            key={mark.mark}
            $chosen={mark.mark === chosen}
            role="button"
            tabIndex={0}
            aria-label={`${labels.MarkKind[mark.kind]} ${mark.at.text}`}
            aria-pressed={mark.mark === chosen}
            onPointerDown={(event) => {
              event.stopPropagation();
              onChoose(mark.mark);
            }}
            onKeyDown={(event) => onKey(event, mark.mark)}
          >
            <circle className="ring" cx={mark.x_mm} cy={mark.y_mm} r={size * 1.5} strokeWidth={size * 0.2} />
            <path d={mark.line} fill="none" stroke="currentColor" strokeWidth={size * 0.12} />
            {/* Lines are thin; this is what a hand can hit. */}
            <path d={mark.line} fill="none" stroke="transparent" strokeWidth={size} />
            <path d={mark.solid} fill="currentColor" />
            <Words at={mark.at} size={size} />
          </Mark>
        ))}
      </Drawing>
      <Muted>
        Press beside the rim to mark a place, draw along it for a stretch. In focus, a mark moves round by the arrow
        keys, further with Shift, and goes with Delete.
      </Muted>
    </Frame>
  );
}

function Words({ at, size }: { at: OpeningPicture["marks"][number]["at"]; size: number }) {
  return (
    <text
      x={at.x_mm}
      y={at.y_mm}
      fontSize={size * 1.1}
      fontWeight={650}
      textAnchor={at.anchor as "start"}
      fill="currentColor"
    >
      {at.text}
    </text>
  );
}
