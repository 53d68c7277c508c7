/** The tag of a group: a shape for the kind of screw, a letter for the group. Colour carries nothing. */
import type { ScrewTag } from "../../api/client";

const corners = (x: number, y: number, r: number, n: number, first: number) =>
  Array.from({ length: n }, (_, i) => {
    const angle = ((first + (360 * i) / n) * Math.PI) / 180;
    return `${(x + r * Math.cos(angle)).toFixed(2)},${(y + r * Math.sin(angle)).toFixed(2)}`;
  }).join(" ");

/** The outline around a point; `r` is half its size. */
export function TagShape({ shape, x, y, r }: { shape: ScrewTag["shape"]; x: number; y: number; r: number }) {
  switch (shape) {
    case "circle":
      return <circle cx={x} cy={y} r={r} />;
    case "square":
      return <polygon points={corners(x, y, r * 1.2, 4, 45)} />;
    case "triangle":
      return <polygon points={corners(x, y + r * 0.2, r * 1.35, 3, -90)} />;
    case "diamond":
      return <polygon points={corners(x, y, r * 1.2, 4, 0)} />;
    case "pentagon":
      return <polygon points={corners(x, y, r * 1.12, 5, -90)} />;
    case "hexagon":
      return <polygon points={corners(x, y, r * 1.08, 6, 0)} />;
    case "slab":
      return <rect x={x - r * 1.25} y={y - r * 0.75} width={r * 2.5} height={r * 1.5} />;
    default:
      return (
        <path
          d={`M${x} ${y - r * 1.3}Q${x + r * 1.5} ${y + r * 0.5} ${x} ${y + r}Q${x - r * 1.5} ${y + r * 0.5} ${x} ${y - r * 1.3}Z`}
        />
      );
  }
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
