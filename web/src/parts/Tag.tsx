/** The tag of a group: a shape for the kind of screw, a letter for the group. Colour carries nothing. */
import type { ScrewTag } from "../api/client";
import { outlines } from "../api/tables";

/** The outline around a point; `r` is half its size. */
export function TagShape({ shape, x, y, r }: { shape: ScrewTag["shape"]; x: number; y: number; r: number }) {
  return (
    <path
      d={outlines[shape]}
      transform={`translate(${x} ${y}) scale(${r})`}
      style={{ vectorEffect: "non-scaling-stroke" }}
    />
  );
}

export function Tag({ tag, size = 30 }: { tag: Pick<ScrewTag, "shape" | "letter">; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 30 30"
      role="img"
      aria-label={`Group ${tag.letter}`}
      style={{ flex: "none" }}
    >
      <g fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6">
        <TagShape shape={tag.shape} x={15} y={15} r={11} />
      </g>
      <text
        x="15"
        y="19.6"
        textAnchor="middle"
        fontSize={tag.letter.length > 1 ? 10 : 13}
        fontWeight="700"
        fill="var(--ink)"
      >
        {tag.letter}
      </text>
    </svg>
  );
}
